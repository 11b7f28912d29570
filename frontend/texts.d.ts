import type { Plugin } from "vite";

/** For Vite: messages reach the browser parsed, and languages as parts of their own. */
export function texts(): Plugin;

/** The words that the server needs to draw how a page begins. */
interface Begins {
  app: { name: string; putAway: string };
  "app.help": Record<string, string>;
  "app.studentHelp": Record<string, string>;
}

/** Some catalogues in every language there is, by the language's tag. */
export function inEveryLanguage(...names: (keyof Begins)[]): Record<string, Begins>;
