/** The views that the page leads to, loaded while nothing else is to be done, so that the next one opens at once. */
import { matchRoutes } from "react-router";
import type { createBrowserRouter } from "react-router";
import { ahead } from "./api/patiently";

type Router = ReturnType<typeof createBrowserRouter>;

const AFTER = 2500;
/** Milliseconds after the page stands: its own parts and data come first. */

interface Saving {
  connection?: { saveData?: boolean };
}

/** Load what the views named in the frame need; again after another class was opened. */
export function preloadViews(router: Router): void {
  // Whoever pays for every byte loads only what they open.
  if ((navigator as Saving).connection?.saveData) return;
  const load = () => {
    for (const link of document.querySelectorAll<HTMLAnchorElement>("[data-views] a[href]"))
      for (const { route } of matchRoutes(router.routes, link.pathname) ?? [])
        if (typeof route.lazy === "function") void (route.lazy() as Promise<unknown>).catch(() => undefined);
  };
  let waiting: ReturnType<typeof setTimeout> | undefined;
  const soon = () => {
    clearTimeout(waiting);
    waiting = setTimeout(() => ("requestIdleCallback" in window ? window.requestIdleCallback(() => ahead(load)) : ahead(load)), AFTER);
  };
  router.subscribe((state) => {
    if (state.navigation.state === "idle") soon();
  });
  soon();
}
