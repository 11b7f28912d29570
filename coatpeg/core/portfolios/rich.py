"""Rich text as plain text: what is counted, compared and read aloud, and the blocks that a merge moves whole.

The HTML is what the sanitiser left of it. Decided here: a block (paragraph, heading, list entry, cell) ends a
line, a formula counts by its TeX, pictures count nothing. The browser makes the same text
while typing.
"""

from __future__ import annotations

import html
from html.parser import HTMLParser

_ENDS_LINE = frozenset({"p", "h2", "h3", "h4", "li", "td", "th", "tr", "blockquote", "pre", "ul", "ol", "table"})
_VOID = frozenset({"br", "img", "hr"})


class _Plain(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.parts: list[str] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        """A line break; a formula by its TeX."""
        if tag == "br":
            self.parts.append("\n")
        elif tag == "span":
            self.parts.append(dict(attrs).get("data-tex") or "")

    def handle_endtag(self, tag: str) -> None:
        """The end of a block."""
        if tag in _ENDS_LINE and self.parts and not self.parts[-1].endswith("\n"):
            self.parts.append("\n")

    def handle_data(self, data: str) -> None:
        """Words."""
        self.parts.append(data)


def plain(rich: str) -> str:
    """The words of rich text, a line each block."""
    parser = _Plain()
    parser.feed(rich)
    parser.close()
    return "\n".join(line.strip() for line in "".join(parser.parts).split("\n")).strip("\n")


def from_plain(text: str) -> str:
    """Plain text as rich text: a paragraph each line that has something in it."""
    return "".join(f"<p>{html.escape(line, quote=False)}</p>" for line in text.split("\n") if line.strip())


class _Blocks(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=False)
        self.blocks: list[str] = []
        self.now: list[str] = []
        self.depth = 0

    def _add(self, raw: str, deeper: int = 0) -> None:
        self.now.append(raw)
        self.depth += deeper
        if self.depth == 0:
            self.blocks.append("".join(self.now))
            self.now = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        """Begins a block at the top."""
        self._add(self.get_starttag_text() or "", 0 if tag in _VOID else 1)

    def handle_endtag(self, tag: str) -> None:
        """Ends one."""
        if tag not in _VOID and self.depth:
            self._add(f"</{tag}>", -1)

    def handle_data(self, data: str) -> None:
        """Words in a block, or a block of their own."""
        self._add(data)

    def handle_entityref(self, name: str) -> None:
        """As it stands."""
        self._add(f"&{name};")

    def handle_charref(self, name: str) -> None:
        """As it stands."""
        self._add(f"&#{name};")


def blocks(rich: str) -> list[str]:
    """The blocks at the top of rich text; joined they are the text again."""
    parser = _Blocks()
    parser.feed(rich)
    parser.close()
    rest = "".join(parser.now)
    return [*parser.blocks, *([rest] if rest else [])]


def lines(text: str) -> list[str]:
    """The lines of plain text with their ends; joined they are the text again."""
    return text.splitlines(keepends=True)
