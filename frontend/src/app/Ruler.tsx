/** A reading ruler: a band of two lines that follows the pointer or the finger; everything else is a little darker. */
import { useEffect, useState } from "react";

const HIGH = 64;
/** Pixels of the band. */

export function Ruler() {
  const [y, setY] = useState(200);
  useEffect(() => {
    const follow = (event: PointerEvent) => setY(event.clientY);
    window.addEventListener("pointermove", follow, { passive: true });
    window.addEventListener("pointerdown", follow, { passive: true });
    return () => {
      window.removeEventListener("pointermove", follow);
      window.removeEventListener("pointerdown", follow);
    };
  }, []);
  return (
    <div aria-hidden data-ruler className="pointer-events-none fixed inset-0 z-40">
      <div className="absolute inset-x-0 top-0 bg-ink/20" style={{ height: Math.max(y - HIGH / 2, 0) }} />
      <div className="absolute inset-x-0 bottom-0 bg-ink/20" style={{ top: y + HIGH / 2 }} />
    </div>
  );
}
