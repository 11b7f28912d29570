/** Loading a part of the application: a lost connection is waited out, a part that is gone with its version brings the new one. */
import { setConnection } from "./connection";

const AGAIN = 2000;
/** Milliseconds between tries while the server is away. */
const RELOADED = "coat-peg-reloaded";

let aheadOfTime = false;

/** Load parts that nobody has asked for yet: one that does not come is let be, and asked for again when it is wanted. */
export function ahead(begin: () => void): void {
  aheadOfTime = true;
  try {
    begin();
  } finally {
    aheadOfTime = false;
  }
}

/** The part, once it could be loaded. What stands in the page meanwhile stays as it is. */
export async function patiently<T>(load: () => Promise<T>): Promise<T> {
  if (aheadOfTime) return load();
  for (;;) {
    try {
      const part = await load();
      sessionStorage.removeItem(RELOADED);
      return part;
    } catch (error) {
      if (await answers()) {
        // The server is there and the part is not: it runs a newer version, whose page names its own parts.
        if (sessionStorage.getItem(RELOADED)) throw error;
        sessionStorage.setItem(RELOADED, "1");
        window.location.reload();
      }
      setConnection("away");
      await new Promise((resolve) => setTimeout(resolve, AGAIN));
    }
  }
}

async function answers(): Promise<boolean> {
  try {
    return (await fetch("/health", { cache: "no-store" })).status < 500;
  } catch {
    return false;
  }
}
