/** Sanitised rich text shown from its structure: nothing but the elements named here becomes one. */
import { createElement } from "react";
import type { ReactNode } from "react";
import { Formula } from "./Formula";

const SHOWN = new Set(["p", "br", "hr", "strong", "em", "b", "i", "u", "s", "sub", "sup", "h1", "h2", "h3", "h4", "h5", "h6", "ul", "ol", "li", "blockquote", "code", "pre", "section", "table", "thead", "tbody", "tr", "th", "td", "caption"]);
const VOID = new Set(["br", "hr"]);
const OWN_PICTURE = /^(\/api\/artefacts\/\d+\/thumbnails\/large$|data:image\/(png|jpeg);base64,)/;

function spans(cell: Element): Record<string, number> {
  const found = [["colSpan", "colspan"] as const, ["rowSpan", "rowspan"] as const].map(([prop, name]) => [prop, Number(cell.getAttribute(name) ?? 1)] as const);
  return Object.fromEntries(found.filter(([, number]) => number > 1 && number < 100));
}

// eslint-disable-next-line complexity -- one element for each kind of node
function shown(node: Node, key: number): ReactNode {
  if (node.nodeType === Node.TEXT_NODE) return node.textContent;
  if (!(node instanceof Element)) return null;
  const name = node.localName;
  const children = [...node.childNodes].map(shown);
  if (name === "a") {
    const href = node.getAttribute("href") ?? "";
    if (!/^(https?|mailto):/i.test(href)) return children;
    return (
      <a key={key} href={href} target="_blank" rel="noopener noreferrer nofollow">
        {children}
      </a>
    );
  }
  if (name === "img") {
    const src = node.getAttribute("src") ?? "";
    return OWN_PICTURE.test(src) ? <img key={key} src={src} alt={node.getAttribute("alt") ?? ""} loading="lazy" /> : null;
  }
  if (name === "span") {
    const tex = node.getAttribute("data-tex");
    return tex ? <Formula key={key} tex={tex} /> : children;
  }
  if (!SHOWN.has(name)) return children;
  return createElement(name, { key, ...(name === "td" || name === "th" ? spans(node) : {}) }, ...(VOID.has(name) ? [] : children));
}

export function RichText({ html, className = "" }: { html: string; className?: string }) {
  const body = new DOMParser().parseFromString(html, "text/html").body;
  return <div className={`rich break-words ${className}`}>{[...body.childNodes].map(shown)}</div>;
}

/** The same in plain words, for a line. */
export function plainOf(html: string): string {
  return new DOMParser().parseFromString(html, "text/html").body.textContent.trim();
}

const ENDS_LINE = new Set(["p", "h2", "h3", "h4", "li", "td", "th", "tr", "blockquote", "pre", "ul", "ol", "table"]);

/** The words of rich text, a line each block: the same text that the server counts (``core/portfolios/rich.py``). */
export function plainText(html: string): string {
  let text = "";
  const walk = (node: Node) => {
    if (node.nodeType === Node.TEXT_NODE) text += node.textContent ?? "";
    if (!(node instanceof Element)) return;
    if (node.localName === "br") text += "\n";
    text += node.getAttribute("data-tex") ?? "";
    node.childNodes.forEach(walk);
    if (ENDS_LINE.has(node.localName) && text && !text.endsWith("\n")) text += "\n";
  };
  new DOMParser().parseFromString(html, "text/html").body.childNodes.forEach(walk);
  return text
    .split("\n")
    .map((line) => line.trim())
    .join("\n")
    .replace(/^\n+|\n+$/g, "");
}

/** Plain text as rich text: a paragraph each line that has something in it. */
export function richOf(text: string): string {
  const escaped = (line: string) => line.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
  return text
    .split("\n")
    .filter((line) => line.trim())
    .map((line) => `<p>${escaped(line)}</p>`)
    .join("");
}
