/** Day is paper; sun is black on white without tints, for the dock at noon; night is a dimmed ink sheet. */
export const themes = ["day", "sun", "night"] as const;
export type Theme = (typeof themes)[number];

const key = "ravik-theme";

export function readTheme(): Theme {
  const kept = localStorage.getItem(key);
  return themes.find((theme) => theme === kept) ?? "day";
}

/** Kept on this device. */
export function applyTheme(theme: Theme) {
  localStorage.setItem(key, theme);
  for (const each of themes) document.documentElement.classList.toggle(each, each === theme && each !== "day");
}
