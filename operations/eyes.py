"""What a machine sees of a page: violations of WCAG, what is too wide, cut off, or in plain English."""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Any

from playwright.sync_api import Error, Page, Response

AXE = (Path(__file__).resolve().parent.parent / "frontend/node_modules/axe-core/axe.min.js").read_text()
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
PSEUDO = "en-XA"
"""The made-up language of the catalogues (``frontend/texts.js``): asked for as a browser asks for any language."""
SPACED = (
    "* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; }"
    " p { margin-bottom: 2em !important; }"
)
"""The values of WCAG 2.2, criterion 1.4.12 (Text Spacing)."""


def violations(page: Page, part: str = "html") -> list[str]:
    """What axe-core finds on the view, or the part of it, as it stands (WCAG 2.0 to 2.2, A and AA), a line each."""
    page.evaluate(AXE)
    found: dict[str, Any] = page.evaluate(
        "([part, rules]) => axe.run(part, {runOnly: rules, resultTypes: ['violations']})", [part, RULES]
    )
    return [
        f"{one['id']}: {one['help']}: {json.dumps([node['html'][:160] for node in one['nodes'][:3]])}"
        for one in found["violations"]
    ]


def too_wide(page: Page) -> int:
    """By how many pixels the page is wider than its window."""
    return int(page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth"))


NAMED_BY = 40
"""So many letters of somebody's words name a button that is about them."""


class Heard:
    """What the server said to a page: data, which is in nobody's language but its writer's."""

    def __init__(self, page: Page) -> None:
        self.texts: set[str] = set()
        self.names: set[str] = set()
        self._page = page
        page.on("response", self._hear)

    def _hear(self, response: Response) -> None:
        if "/api/" in response.url and "json" in (response.headers.get("content-type") or ""):
            with suppress(Error):  # a page that was left meanwhile shows nothing of it
                self._keep(response.json())

    def told(self, look: Callable[[], list[str]]) -> list[str]:
        """What a look finds; looked again while an answer that the page shows already is still being read here."""
        for _ in range(20):
            if not (found := look()):
                return []
            self._page.wait_for_timeout(100)
        return found

    def _keep(self, found: object) -> None:
        if isinstance(found, dict):
            if isinstance(found.get("username"), str):
                self.names.add(found["username"])
            for one in found.values():
                self._keep(one)
        elif isinstance(found, list):
            for one in found:
                self._keep(one)
        # A word without a capital is the name of a kind or a state, not a text.
        elif isinstance(found, str) and not re.fullmatch(r"[a-z_0-9]*", found):
            self.texts.update(re.sub(r"\s+", " ", line).strip() for line in re.sub(r"<[^>]+>", "\n", found).split("\n"))
            self.texts.add(found[:NAMED_BY].strip())

    def without(self, text: str) -> str:
        """A text without what the server sent, the longest first; parts of names (``Dube, Thandi``) go with them."""
        data = sorted({one for one in self.texts if len(one) > 1}, key=len, reverse=True)
        words = {word for one in data for word in _WORD.findall(one) if word[:1].isupper() or not word.isalpha()}
        for one in data:
            text = text.replace(one, " ")
        return " ".join(word for word in _WORD.findall(text) if word not in words | self.names)


_WORD = re.compile(r"[\w’'.-]+")
_SAID = """() => {
  const found = [];
  const shown = (one) => one.checkVisibility({ visibilityProperty: true });
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walker.nextNode()) {
    const parent = walker.currentNode.parentElement;
    const text = walker.currentNode.textContent.replace(/\\s+/g, ' ').trim();
    if (text && parent && shown(parent) && !parent.closest('script, style, .katex, [data-theirs]')) found.push(text);
  }
  for (const one of document.querySelectorAll('[aria-label], [title], [placeholder], [alt]'))
    if (shown(one)) for (const name of ['aria-label', 'title', 'placeholder', 'alt'])
      if (one.getAttribute(name)) found.push(one.getAttribute(name).replace(/\\s+/g, ' ').trim());
  return [...new Set(found)];
}"""
_PLAIN = re.compile(r"[A-Za-z]{2,}")


def plain_english(page: Page, heard: Heard) -> list[str]:
    """Texts of a page in the made-up language that are not in it: shown, spoken or written over a field.

    What the server sent is taken out first.
    """
    return [text for text in page.evaluate(_SAID) if _PLAIN.search(heard.without(text))]


_CUT = """() => {
  const found = [];
  for (const one of document.querySelectorAll('body *')) {
    const words = [...one.childNodes].some((node) => node.nodeType === 3 && /\\p{L}{2}/u.test(node.textContent));
    if (!words || !one.checkVisibility({ visibilityProperty: true }) || one.closest('.katex, svg, textarea')) continue;
    const style = getComputedStyle(one);
    if (one.getBoundingClientRect().width < 2) continue;
    const wide = style.overflowX !== 'visible' && style.overflowX !== 'auto' && one.scrollWidth > one.clientWidth + 1;
    const high = style.overflowY !== 'visible' && style.overflowY !== 'auto' && one.scrollHeight > one.clientHeight + 2;
    if (wide || high) found.push(one.textContent.replace(/\\s+/g, ' ').trim());
  }
  return [...new Set(found)];
}"""


def cut_off(page: Page, heard: Heard) -> list[str]:
    """Texts of ours that are not shown whole. A name may be shortened, where its whole stands in a title."""
    return [text for text in page.evaluate(_CUT) if re.search(r"[^\W\d_]{2,}", heard.without(text))]


def lost_when_spaced(page: Page, heard: Heard) -> list[str]:
    """What is cut off, or makes the page wider, once texts are spaced out as WCAG 1.4.12 lets a reader space them."""
    before = set(cut_off(page, heard))
    # As a reader's own style sheet comes: through the browser, past the page's policy.
    client = page.context.new_cdp_session(page)
    client.send("DOM.enable")
    client.send("CSS.enable")
    frame = client.send("Page.getFrameTree")["frameTree"]["frame"]["id"]
    sheet = client.send("CSS.createStyleSheet", {"frameId": frame})["styleSheetId"]
    client.send("CSS.setStyleSheetText", {"styleSheetId": sheet, "text": SPACED})
    lost = [f"cut off when spaced: {one}" for one in cut_off(page, heard) if one not in before]
    wide = too_wide(page)
    client.send("CSS.setStyleSheetText", {"styleSheetId": sheet, "text": ""})
    client.detach()
    return lost + ([f"{wide} px wider than the window when spaced"] if wide > 0 else [])
