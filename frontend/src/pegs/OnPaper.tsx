/** What draws only what is in view draws all of it while the page is put on paper. */
import { useEffect, useState } from "react";
import type { ComponentType } from "react";
import { flushSync } from "react-dom";
import { patiently } from "../api/patiently";
import type { Paper } from "./PrintedBoard";

export function OnPaper(props: Paper) {
  const [printing, setPrinting] = useState(false);
  const [Printed, setPrinted] = useState<ComponentType<Paper> | null>(null);
  useEffect(() => {
    // Loaded beforehand: the page is laid out for paper as soon as the listener returns.
    const soon = setTimeout(() => void patiently(() => import("./PrintedBoard")).then((found) => setPrinted(() => found.PrintedBoard)), 2000);
    const begin = () => flushSync(() => setPrinting(true));
    const end = () => setPrinting(false);
    window.addEventListener("beforeprint", begin);
    window.addEventListener("afterprint", end);
    return () => {
      clearTimeout(soon);
      window.removeEventListener("beforeprint", begin);
      window.removeEventListener("afterprint", end);
    };
  }, []);
  return printing && Printed ? <Printed {...props} /> : null;
}
