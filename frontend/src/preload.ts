/** The views that the page leads to, loaded while nothing else is to be done, so that the next one opens at once. */
import { useEffect } from "react";
import { ahead } from "./api/patiently";
import { viewAt } from "./routes";

const AFTER = 2500;
/** Milliseconds after the page stands: its own parts and data come first. */

interface Saving {
  connection?: { saveData?: boolean };
}

function load(): void {
  for (const link of document.querySelectorAll<HTMLAnchorElement>("[data-views] a[href]")) viewAt(link.pathname)?.load().catch(() => undefined);
}

/** Load what the views named in the frame need; again after another address was opened. */
export function usePreloadedViews(pathname: string): void {
  useEffect(() => {
    // Whoever pays for every byte loads only what they open.
    if ((navigator as Saving).connection?.saveData) return;
    const waiting = setTimeout(() => ("requestIdleCallback" in window ? window.requestIdleCallback(() => ahead(load)) : ahead(load)), AFTER);
    return () => clearTimeout(waiting);
  }, [pathname]);
}
