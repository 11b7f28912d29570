/** KaTeX, with its own faces and styles; loaded when the first formula is shown. */
import katex from "katex";
import "katex/dist/katex.min.css";

/** Draw TeX into an element. Commands that would load or link anything stay what they are: text. */
export function drawFormula(tex: string, into: HTMLElement): void {
  katex.render(tex, into, { throwOnError: false, trust: false, maxSize: 20, maxExpand: 200, output: "htmlAndMathml" });
}
