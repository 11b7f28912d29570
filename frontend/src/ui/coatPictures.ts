/**
 * The coats as pictures in the colours that are chosen, one for each shape: a page that shows a coat by the hundred has one
 * element for it, where a shape that is used again has a tree of its own each time.
 */

const sheet = new CSSStyleSheet();

/** A symbol as an SVG document of its own, with the colours that its shapes have on this page. */
function documentOf(symbol: SVGSymbolElement): string {
  const shapes = [...symbol.children].map((shape) => {
    const { fill, stroke } = getComputedStyle(shape);
    const own = shape.cloneNode() as Element;
    own.removeAttribute("class");
    own.setAttribute("fill", fill);
    own.setAttribute("stroke", stroke);
    return new XMLSerializer().serializeToString(own);
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" width="24" height="24">${shapes.join("")}</svg>`;
}

/** Draw the symbols below ``root`` as the backgrounds of the classes they are named like, and again whenever the colours change. */
export function keepPictured(root: Element): () => void {
  const draw = () => {
    const rules = [...root.querySelectorAll("symbol")].map((symbol) => `.${symbol.id} { background-image: url("data:image/svg+xml,${encodeURIComponent(documentOf(symbol))}") }`);
    sheet.replaceSync(rules.join("\n"));
  };
  draw();
  if (!document.adoptedStyleSheets.includes(sheet)) document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  const themes = new MutationObserver(draw);
  themes.observe(document.documentElement, { attributes: true });
  const system = matchMedia("(forced-colors: active)");
  system.addEventListener("change", draw);
  return () => {
    themes.disconnect();
    system.removeEventListener("change", draw);
  };
}
