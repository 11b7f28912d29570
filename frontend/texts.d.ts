import type { Plugin } from "vite";

/** For Vite: messages reach the browser parsed, and languages as parts of their own. */
export function texts(): Plugin;
