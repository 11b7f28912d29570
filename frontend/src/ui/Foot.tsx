/** The bar at the foot of a form; messages at the foot of the page keep clear of it, however high it grows. */
import type { ReactNode } from "react";

export function Foot({ className = "", children }: { className?: string; children: ReactNode }) {
  return (
    <div ref={keepClear} className={`flex flex-col gap-3 border-t border-line bg-paper px-5 py-3 ${className}`}>
      {children}
    </div>
  );
}

/** Say how high the bar is (pixels) to what floats above it (``Toasts``). */
function keepClear(bar: HTMLElement | null) {
  if (!bar) return;
  const page = document.documentElement.style;
  const seen = new ResizeObserver(() => page.setProperty("--foot", `${bar.offsetHeight}px`));
  seen.observe(bar);
  return () => {
    seen.disconnect();
    page.removeProperty("--foot");
  };
}
