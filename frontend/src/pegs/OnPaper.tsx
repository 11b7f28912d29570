/** What draws only what is in view draws all of it while the page is put on paper. */
import { useEffect, useState } from "react";
import type { ComponentType } from "react";
import { flushSync } from "react-dom";
import { patiently } from "../api/patiently";
import type { Paper } from "./PrintedBoard";

let printed: ComponentType<Paper> | null = null;

/** Loads what goes on paper: the page is laid out for it as soon as the browser says that it prints. */
export async function readyForPaper(): Promise<void> {
  const found = await patiently(() => import("./PrintedBoard"));
  printed = found.PrintedBoard;
}

export function OnPaper(props: Paper) {
  const [Printed, setPrinted] = useState<ComponentType<Paper> | null>(null);
  useEffect(() => {
    const soon = setTimeout(() => void readyForPaper(), 2000);
    const begin = () => flushSync(() => setPrinted(() => printed));
    const end = () => setPrinted(null);
    window.addEventListener("beforeprint", begin);
    window.addEventListener("afterprint", end);
    return () => {
      clearTimeout(soon);
      window.removeEventListener("beforeprint", begin);
      window.removeEventListener("afterprint", end);
    };
  }, []);
  const inTable = props.chosen.as === "pegs" || props.chosen.as === "scores";
  return inTable && Printed ? <Printed {...props} /> : null;
}
