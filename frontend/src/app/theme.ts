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

const SIZE_KEY = "gentlegate.text";
export const [SMALLEST, USUAL, LARGEST] = [12, 15, 22];

/** The size of the chat's text, in pixels at the browser's usual size. */
export function chosenSize(): number {
  const kept = Number(localStorage.getItem(SIZE_KEY));
  return kept >= SMALLEST && kept <= LARGEST ? kept : USUAL;
}

export function chooseSize(size: number): void {
  localStorage.setItem(SIZE_KEY, String(size));
  applySize();
}

function applySize(): void {
  document.documentElement.style.setProperty("--chat-text", `${chosenSize() / 16}rem`);
}

/** Day and night follow the system unless one was chosen. */
export function followTheme(): void {
  apply();
  applySize();
  matchMedia("(prefers-color-scheme: dark)").addEventListener("change", apply);
}
