"""Which updates of a shared page are taken: the sender's own blocks, whole, in order, and only what a page may hold.

Decided here: an update brings new blocks of one writer id, given to its sender by the server; what is known already
comes again without harm (a device sends once more what it had no answer for). It is refused as a whole where it leaves
ticks out, builds on what the server does not have, bears another's id, or holds what no page of ours does. Taking
others' words away is allowed: how many ticks of theirs it takes is counted.

Letters stand beside letters and elements beside elements: a letter between two paragraphs would stop the editor
of everybody who has the page open. So it is kept which ticks are elements or texts (``Kinds``). What an element may
hold is told by the page as it would be (``nesting``), and asked only where something is built.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
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
}
"""The elements of a page, with their attributes."""
_BLOCKS = ("paragraph", "heading", "bulletList", "orderedList", "blockquote")
TEXT = ""
NESTING: Mapping[str, tuple[str, ...]] = {
    ROOT: _BLOCKS,
    "paragraph": (TEXT, "hardBreak"),
    "heading": (TEXT, "hardBreak"),
    "bulletList": ("listItem",),
    "orderedList": ("listItem",),
    "listItem": _BLOCKS,
    "blockquote": _BLOCKS,
    "hardBreak": (),
}
"""What each may hold; a text has no name."""
MARKS = ("bold", "italic", "underline", "strike", "code", "link")
_TAKEN = ("collected", "deleted", "string", "format", "type", "any", "json")


@dataclass(frozen=True, slots=True)
class Taken:
    """What an update brings: new ticks of its writer from–to (equal: none), and how many it takes away, by whose id."""

    start: int
    end: int
    away: Mapping[int, int]
    builds: bool = False
    """Whether it makes elements, or puts something into one that was known before: then the page is asked, too."""

    @property
    def nothing(self) -> bool:
        """Nothing that was not known."""
        return self.start == self.end and not self.away


@dataclass(slots=True)
class Kinds:
    """Which ticks are elements or texts (by writer id), and which may have been: they were taken away as they came."""

    types: dict[int, set[int]] = field(default_factory=dict)
    either: dict[int, list[tuple[int, int]]] = field(default_factory=dict)

    def is_type(self, one: Id) -> bool:
        """Whether a tick is surely an element or text."""
        return one.clock in self.types.get(one.client, ()) and not self.is_either(one)

    def is_letter(self, one: Id) -> bool:
        """Whether a tick is surely none."""
        return one.clock not in self.types.get(one.client, ()) and not self.is_either(one)

    def is_either(self, one: Id) -> bool:
        """Whether nobody knows any more what a tick was."""
        return any(start <= one.clock < end for start, end in self.either.get(one.client, ()))

    changed: bool = False

    def add(self, block: Block) -> None:
        """Take a new block's ticks in."""
        if block.kind == "type":
            self.types.setdefault(block.id.client, set()).add(block.id.clock)
        elif block.kind in ("deleted", "collected"):
            self.either.setdefault(block.id.client, []).append((block.id.clock, block.end))
        else:
            return
        self.changed = True

    def as_data(self) -> dict[str, Any]:
        """As plain data, to be kept."""
        clients = self.types.keys() | self.either.keys()
        return {
            str(one): [sorted(self.types.get(one, ())), [list(span) for span in self.either.get(one, ())]]
            for one in clients
        }

    @classmethod
    def from_data(cls, data: Mapping[str, Any]) -> Kinds:
        """The reverse of ``as_data``."""
        found = cls()
        for client, (types, either) in data.items():
            found.types[int(client)] = set(types)
            found.either[int(client)] = [(start, end) for start, end in either]
        return found


def accept(update: Update, client: int, clocks: Mapping[int, int], kinds: Kinds) -> Taken:
    """Judge an update that comes under a writer id; ``clocks`` are the ticks known of each.

    ``Invalid`` where it holds what it must not, ``Stale`` where something before it is missing. ``kinds`` learns
    what is new.
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
    new = {block.id.clock: block for block in mine if block.end > known}
    builds = False
    for block in new.values():
        _check(block, within)
        kinds.add(block)
    for block in new.values():
        _check_beside(block, kinds)
        builds = _check_within(block, new, client) or builds
    return Taken(known, end, _away(update, client, within), builds)


def _check_beside(block: Block, kinds: Kinds) -> None:
    """Letters stand beside letters, elements beside elements; a value follows the value before it."""
    for one in (block.origin, block.right):
        if one is None or block.kind in ("deleted", "collected"):
            continue
        if kinds.is_letter(one) if block.kind == "type" else kinds.is_type(one):
            raise _unfit(block.kind)


def _check_within(block: Block, new: Mapping[int, Block], client: int) -> bool:
    """Whether something is built: an element, or something put into one that was known before."""
    if not isinstance(block.parent, Id):
        if block.parent is not None and block.kind not in ("type", "deleted"):
            raise _unfit(block.kind)
        return block.kind == "type"
    holder = new.get(block.parent.clock) if block.parent.client == client else None
    if holder is None or block.kind == "type":
        return True
    if holder.kind != "type" or bool(holder.value) != (block.under is not None):
        raise _unfit(block.kind)  # letters lie in texts, values in elements
    return False


def nesting(tree: Iterable[Any]) -> int:
    """How many elements of a page hold what they may not; of none new ones are taken. Each is a (name, what it holds).

    An item of a list begins with a paragraph, as the editor has it.
    """
    return _wrong(ROOT, tree)


def _wrong(name: str, held: Iterable[Any]) -> int:
    inside = list(held)
    allowed = NESTING.get(name, ())
    wrong = sum(child not in allowed for child, _ in inside)
    if name == "listItem" and inside and inside[0][0] != "paragraph":
        wrong += 1
    return wrong + sum(_wrong(child, of) for child, of in inside if child != TEXT)


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
