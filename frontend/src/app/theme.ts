export type Theme = "system" | "day" | "night";
const KEY = "gentlegate.theme";

export function chosenTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === "day" || kept === "night" ? kept : "system";
}

function apply(): void {
  const theme = chosenTheme();
  const dark =
    theme === "night" || (theme === "system" && matchMedia("(prefers-color-scheme: dark)").matches);
  document.documentElement.dataset.bsTheme = dark ? "dark" : "light";
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  apply();
}

/** Day and night follow the system unless one was chosen. */
export function followTheme(): void {
  apply();
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", apply);
}
