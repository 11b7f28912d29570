/** The bar at the foot of a form; messages at the foot of the page keep clear of it, however high it grows. */
import type { ReactNode } from "react";

export function Foot({ className = "", children }: { className?: string; children: ReactNode }) {
  return (
    <div ref={keepClear} className={`flex flex-col gap-3 border-t border-line bg-paper px-5 py-3 ${className}`}>
      {children}
    </div>
  );
}

/** Say how high the bar is (pixels) to what floats above it (``Toasts``); the field that has the focus stays clear of it too. */
function keepClear(bar: HTMLElement | null) {
  if (!bar) return;
  const page = document.documentElement.style;
  const seen = new ResizeObserver(() => {
    page.setProperty("--foot", `${bar.offsetHeight}px`);
    if (isCovered(document.activeElement, bar)) document.activeElement.scrollIntoView({ block: "nearest" });
  });
  seen.observe(bar);
  return () => {
    seen.disconnect();
    page.removeProperty("--foot");
  };
}

/** Whether this is a field above the bar that has grown over it, or pushed its foot out of view. */
function isCovered(field: Element | null, bar: HTMLElement): field is Element {
  if (!field?.matches("input, select, textarea") || bar.contains(field) || !bar.parentElement?.contains(field)) return false;
  const [of, over] = [field.getBoundingClientRect(), bar.getBoundingClientRect()];
  return of.bottom > over.top && of.top < over.bottom;
}
