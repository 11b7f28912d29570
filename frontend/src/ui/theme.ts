/** Which theme is shown: the one that was chosen, or what the system says, followed as it changes. */
export type Theme = "system" | "light" | "dark" | "contrast";

const LAST = "coat-peg-theme";
/** Under which the device knows the last one, so that a page that is loaded anew does not flash. */
const contrast = window.matchMedia("(prefers-contrast: more)");
const dark = window.matchMedia("(prefers-color-scheme: dark)");

let chosen: Theme = "system";

function show(): void {
  const ofSystem = contrast.matches && !dark.matches ? "contrast" : dark.matches ? "dark" : "light";
  document.documentElement.dataset.theme = chosen === "system" ? ofSystem : chosen;
}

/** Show a theme from now on; on this device also before its person is known, until they sign out (``forgetTheme``). */
export function setTheme(theme: Theme): void {
  chosen = theme;
  try {
    localStorage.setItem(LAST, theme);
  } catch {
    // A browser that keeps nothing shows it all the same.
  }
  show();
}

/** Nothing of a person's stays on the device. */
export function forgetTheme(): void {
  try {
    localStorage.removeItem(LAST);
  } catch {
    // Nothing was kept.
  }
  chosen = "system";
  show();
}

function last(): string | null {
  try {
    return localStorage.getItem(LAST);
  } catch {
    return null;
  }
}

/** Show what this device showed last; called once, before anything is drawn. */
export function beginTheme(): void {
  const before = last();
  if (before === "light" || before === "dark" || before === "contrast") chosen = before;
  show();
  contrast.addEventListener("change", show);
  dark.addEventListener("change", show);
}
