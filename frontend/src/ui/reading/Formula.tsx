/** A formula drawn from its TeX; until it is drawn, and where it cannot be, the TeX itself. */
import { useEffect, useRef } from "react";

export function Formula({ tex }: { tex: string }) {
  const place = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    let over = false;
    void import("./drawFormula").then(({ drawFormula }) => {
      if (!over && place.current) drawFormula(tex, place.current);
    });
    return () => {
      over = true;
    };
  }, [tex]);
  return (
    <span ref={place} className="formula">
      {tex}
    </span>
  );
}
