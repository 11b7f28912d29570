/** Sanitised rich text shown from its structure: nothing but the elements named here becomes one. */
import { createElement } from "react";
import type { ReactNode } from "react";

const SHOWN = new Set(["p", "br", "strong", "em", "u", "s", "h3", "h4", "ul", "ol", "li", "blockquote", "code"]);

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
  return SHOWN.has(name) ? createElement(name, { key }, ...(name === "br" ? [] : children)) : children;
}

export function RichText({ html, className = "" }: { html: string; className?: string }) {
  const body = new DOMParser().parseFromString(html, "text/html").body;
  return <div className={`rich break-words ${className}`}>{[...body.childNodes].map(shown)}</div>;
}

/** The same in plain words, for a line. */
export function plainOf(html: string): string {
  return new DOMParser().parseFromString(html, "text/html").body.textContent.trim();
}
