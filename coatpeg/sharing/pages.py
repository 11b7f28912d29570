"""A shared page as a document: read from its updates, told as rich text, passages taken out of it and put into it.

The document is Yjs's, read and merged by y-crdt; its root is an XML fragment whose elements are those of
``core.sharing.accepting``.
"""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable, Mapping
from html import escape
from typing import Any

from pycrdt import Doc, XmlElement, XmlFragment, XmlText

from coatpeg.core.errors import Stale
from coatpeg.core.portfolios import rich
from coatpeg.core.sharing import accepting, blocks, order
from coatpeg.core.sharing.authors import Authors, Said, Span, said_in
from coatpeg.core.sharing.blocks import ROOT
from coatpeg.portfolios import rich_pages

_TAGS: Mapping[str, str] = {
    "paragraph": "p",
    "bulletList": "ul",
    "orderedList": "ol",
    "listItem": "li",
    "blockquote": "blockquote",
    "codeBlock": "p",
}
_ALONE: Mapping[str, str] = {"hardBreak": "<br>", "horizontalRule": "<hr>"}
_MARKS: Mapping[str, str] = {"bold": "strong", "italic": "em", "underline": "u", "strike": "s", "code": "code"}


def document(updates: Iterable[bytes], client: int | None = None) -> Doc[Any]:
    """The document that updates make, in any order; ``client`` is the writer id of what is done to it here.

    What y-crdt cannot put into it is left out: one update must not take the page away from everybody.
    """
    made: Doc[Any] = Doc(client_id=client) if client is not None else Doc()
    made.get(ROOT, type=XmlFragment)
    for one in updates:
        if not _applied(made, one):
            logging.getLogger("coatpeg").error("an update of a shared page cannot be put into it and is left out")
    return made


def _applied(to: Doc[Any], update: bytes) -> bool:
    """Put an update into a document; False where y-crdt refuses it, or stumbles over it."""
    try:
        to.apply_update(update)
    except Exception:  # noqa: BLE001 - of several kinds
        return False
    except BaseException as error:
        # What a panic of its language becomes is no ``Exception``.
        if type(error).__name__ != "PanicException":
            raise
        return False
    return True


def refuse_unfit(page: bytes, data: bytes, update: blocks.Update) -> None:
    """``Invalid`` where an update that builds something makes of a page what no page is."""
    before = document([page] if page else [])
    known = _kinds_in(page)
    for block in (one for of in update.blocks.values() for one in of):
        holder = known.get(block.parent) if isinstance(block.parent, blocks.Id) else None
        if holder is None or block.kind in ("type", "deleted", "collected"):
            continue
        if holder[0] != "type" or bool(holder[1]) != (block.under is not None):
            raise blocks.broken()  # letters lie in texts, values in elements
    wrong = accepting.nesting(_tree(before))
    if not _applied(before, data) or accepting.nesting(_tree(before)) > wrong:
        raise blocks.broken()


def _kinds_in(page: bytes) -> dict[blocks.Id, tuple[str, Any]]:
    """What each block of a page is, by its first tick."""
    if not page:
        return {}
    return {one.id: (one.kind, one.value) for of in blocks.read(page).blocks.values() for one in of}


def _tree(of: Doc[Any]) -> list[Any]:
    """The elements of a page as (name, what it holds)."""
    with of.transaction():
        return [_branch(one) for one in root(of).children]


def _branch(node: Any) -> tuple[str, list[Any]]:
    if isinstance(node, XmlText):
        return accepting.TEXT, []
    return str(node.tag), [_branch(one) for one in node.children]


def root(of: Doc[Any]) -> XmlFragment:
    """What holds the passages."""
    found: XmlFragment = of.get(ROOT, type=XmlFragment)
    return found


def html_of(of: Doc[Any]) -> str:
    """The page as rich text as it is kept."""
    kept: list[str] = []
    length = 0
    with of.transaction():
        for one in root(of).children:
            told = _html(one)
            length += len(told)
            if length > rich_pages.LONGEST_HTML:  # it grows no more; what is beyond stands on the page alone
                break
            kept.append(told)
    return rich_pages.clean("".join(kept), ())


def text_of(of: Doc[Any]) -> str:
    """The words of a page."""
    return rich.plain(html_of(of))


def _html(node: Any) -> str:
    if isinstance(node, XmlText):
        return "".join(_marked(piece, marks or {}) for piece, marks in node.diff())
    tag = node.tag or ""
    if tag in _ALONE:
        return _ALONE[tag]
    inside = "".join(_html(one) for one in node.children)
    if tag == "heading":
        level = node.attributes.get("level")
        tag = f"h{int(level) if str(level) in ('2', '3', '4') or level in (2.0, 3.0, 4.0) else 2}"
        return f"<{tag}>{inside}</{tag}>"
    name = _TAGS.get(tag, "p")
    return f"<{name}>{inside}</{name}>"


def _marked(piece: Any, marks: Mapping[str, Any]) -> str:
    if not isinstance(piece, str):
        return ""
    told = escape(piece)
    for mark, tag in _MARKS.items():
        if marks.get(mark) or (mark in marks and marks[mark] is not None):
            told = f"<{tag}>{told}</{tag}>"
    link = marks.get("link")
    if isinstance(link, Mapping) and link.get("href"):
        told = f'<a href="{escape(str(link["href"]))}">{told}</a>'
    return told


def said(data: bytes, spans: Iterable[Span]) -> list[list[Said]]:
    """The words of each passage of a page (an update of everything), by who wrote them and when."""
    return said_in(order.passages(blocks.read(data)), Authors(tuple(spans)))


def changed(of: Doc[Any], act: Callable[[XmlFragment], None]) -> bytes:
    """Do something to a document; returns the update that it is."""
    before = of.get_state()
    with of.transaction():
        act(root(of))
    return of.get_update(before)


def words_at(of: Doc[Any], place: int, words: str) -> Any:
    """The passage at a place, where it still says what was seen there; ``Stale`` where it does not."""
    children = root(of).children
    found = children[place] if 0 <= place < len(children) else None
    if found is None or _plain(found) != " ".join(words.split()):
        raise Stale(
            "This passage was changed meanwhile.",
            where="place",
            fix="Look at the page again, then choose it once more.",
        )
    return found


def _plain(node: Any) -> str:
    return " ".join(rich.plain(_html(node)).split())


def plain_at(of: Doc[Any], place: int) -> str:
    """The words of the passage at a place."""
    return _plain(root(of).children[place])


def copy_of(node: Any) -> XmlElement:
    """A passage once more, to be put into a page."""
    inside = [_text_again(one) if isinstance(one, XmlText) else copy_of(one) for one in node.children]
    return XmlElement(node.tag, dict(node.attributes), inside)


def _text_again(node: XmlText) -> XmlText:
    """The words alone: their marks are laid on by ``dress`` when the text stands in the page."""
    return XmlText("".join(piece for piece, _ in node.diff() if isinstance(piece, str)))


def dress(new: Any, old: Any) -> None:
    """Give a copied passage, which stands in its page now, the marks of the one it is a copy of."""
    if isinstance(new, XmlText):
        at = 0
        for piece, marks in old.diff():
            # y-crdt counts places in a text in bytes of UTF-8.
            length = len(piece.encode()) if isinstance(piece, str) else 1
            if marks:
                new.format(at, at + length, marks)
            at += length
        return
    for mine, theirs in zip(new.children, old.children, strict=True):
        dress(mine, theirs)
