export type Theme = "day" | "night";

const key = "ravik-theme";

export function readTheme(): Theme {
  return localStorage.getItem(key) === "night" ? "night" : "day";
}

/** Day is paper for the sun; night is a dimmed ink sheet. Kept on this device. */
export function applyTheme(theme: Theme) {
  localStorage.setItem(key, theme);
  document.documentElement.classList.toggle("night", theme === "night");
}
