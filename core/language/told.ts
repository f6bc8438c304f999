import type { Language } from "./language.ts";
import type { Tell } from "./sayPhrase.ts";

/** A sentence kept apart from what stands in it, until it is known who reads it. */
export interface Told {
  readonly phrase: string;
  /** A list of numbers is said as one. */
  readonly values: readonly (string | number | number[])[];
}

/** How numbers and days are written where each language is spoken. */
export const locales: Readonly<Record<Language, string>> = { en: "en-GB", fr: "fr-FR", es: "es-ES" };

/** A whole number as the language writes it: 3,200; 3 200; 3200. */
export const formatWhole = (n: number, language: Language = "en"): string => n.toLocaleString(locales[language]);

/** What was told in the reader's words, its numbers as their language writes them. */
export const sayTold = ({ phrase, values }: Told, tell: Tell, language: Language = "en"): string =>
  tell(
    phrase,
    ...values.map((value) =>
      typeof value === "string"
        ? value
        : [value]
            .flat()
            .map((n) => formatWhole(n, language))
            .join(", "),
    ),
  );
