"""Which updates of a shared page are taken: the sender's own blocks, whole, in order, and only what a page may hold.

Decided here: an update brings new blocks of one writer id, given to its sender by the server; what is known already
comes again without harm (a device sends once more what it had no answer for). It is refused as a whole where it leaves
ticks out, builds on what the server does not have, bears another's id, or holds what no page of ours does. Taking
others' words away is allowed: how many ticks of theirs it takes is counted.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.sharing.blocks import ROOT, Block, Id, Update

LARGEST = 400_000
"""Bytes of one update: far more than anybody types or pastes between two exchanges."""
ELEMENTS: Mapping[str, frozenset[str]] = {
    "paragraph": frozenset(),
    "heading": frozenset({"level"}),
    "bulletList": frozenset(),
    "orderedList": frozenset({"start", "type"}),
    "listItem": frozenset(),
    "blockquote": frozenset(),
    "hardBreak": frozenset(),
    "horizontalRule": frozenset(),
    "codeBlock": frozenset({"language"}),
}
"""The elements of a page, with their attributes."""
MARKS = ("bold", "italic", "underline", "strike", "code", "link")
_TAKEN = ("collected", "deleted", "string", "format", "type", "any", "json")


@dataclass(frozen=True, slots=True)
class Taken:
    """What an update brings: new ticks of its writer from–to (equal: none), and how many it takes away, by whose id."""

    start: int
    end: int
    away: Mapping[int, int]

    @property
    def nothing(self) -> bool:
        """Nothing that was not known."""
        return self.start == self.end and not self.away


def accept(update: Update, client: int, clocks: Mapping[int, int]) -> Taken:
    """Judge an update that comes under a writer id; ``clocks`` are the ticks known of each.

    ``Invalid`` where it holds what it must not, ``Stale`` where something before it is missing.
    """
    for writer, blocks in update.blocks.items():
        if blocks[-1:] and writer != client and blocks[-1].end > clocks.get(writer, 0):
            raise Invalid(
                "This change was written under somebody else's name.", where="update", fix="Load the page again."
            )
    mine = update.blocks.get(client, [])
    known = clocks.get(client, 0)
    if mine and mine[0].id.clock > known:
        raise _missing()
    end = max(known, mine[-1].end if mine else 0)
    within = {**clocks, client: end}
    for block in mine:
        if block.end > known:
            _check(block, within)
    return Taken(known, end, _away(update, client, within))


def _away(update: Update, client: int, within: Mapping[int, int]) -> dict[int, int]:
    found: dict[int, int] = {}
    for gone in update.gone:
        if gone.end > within.get(gone.client, 0):
            raise _missing()
        found[gone.client] = found.get(gone.client, 0) + gone.end - gone.start
    return found


def _check(block: Block, within: Mapping[int, int]) -> None:
    for one in (block.origin, block.right, block.parent):
        if isinstance(one, Id) and one.clock >= within.get(one.client, 0):
            raise _missing()
    if isinstance(block.parent, str) and block.parent != ROOT:
        raise _unfit(block.parent)
    if block.kind not in _TAKEN:
        raise _unfit(block.kind)
    if block.kind == "type" and block.value and block.value not in ELEMENTS:
        raise _unfit(str(block.value))
    if block.kind == "type" and block.value is None:
        raise _unfit("type")
    if block.kind == "format":
        _check_mark(*block.value)
    if block.kind in ("any", "json"):
        _check_attribute(block)


def _check_attribute(block: Block) -> None:
    """Values stand in attributes only; one that follows another carries no name of its own."""
    known = {name for names in ELEMENTS.values() for name in names}
    if block.under is not None and block.under not in known:
        raise _unfit(block.under)
    if block.under is None and block.origin is None:
        raise _unfit("value")


def _check_mark(key: str, value: Any) -> None:
    if key not in MARKS:
        raise _unfit(key)
    if key == "link" and value is not None and not _safe(value):
        raise Invalid("This address cannot be linked.", where="update", fix="Use one that begins with https://.")


def _safe(value: Any) -> bool:
    href = value.get("href") if isinstance(value, dict) else None
    return isinstance(href, str) and href.lower().startswith(("https://", "http://", "mailto:"))


def _missing() -> Stale:
    return Stale(
        "Something that was written before is missing here.",
        where="update",
        fix="Load the page again. What you wrote on this device is kept.",
    )


def _unfit(what: str) -> Invalid:
    return Invalid(
        f"A page that is filled together cannot hold this ({what[:40]}).",
        where="update",
        fix="Put it into a pocket of your own, and say in the page where it is.",
    )
