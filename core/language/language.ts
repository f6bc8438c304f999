/** Languages that words can be kept in. What ships is written in the first; the others are laid over it by phrase books. */
export const languages = ["en", "fr", "es"] as const;
export type Language = (typeof languages)[number];

/** Each as those who speak it write it. */
export const languageNames: Readonly<Record<Language, string>> = { en: "English", fr: "Français", es: "Español" };
