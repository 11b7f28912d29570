"""What changed from one submission to the next: words, artefacts, rows.

Both are snapshots as they were frozen. Decided here: evidence is the same by its id, so that what was moved is not new;
a page's words are compared word by word (``core.portfolios.merging``), of a log each cell. What is the same in both is
left out.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from coatpeg.core.portfolios.merging import Part, compare
from coatpeg.core.portfolios.texts import count

Snapshot = Mapping[str, Any]


class What(StrEnum):
    """What happened to a piece of the work."""

    NEW = "new"
    GONE = "gone"
    REPLACED = "replaced"
    """Another file lies in its place."""
    WORDS = "words"
    ROW = "row"


@dataclass(frozen=True, slots=True)
class Difference:
    """One piece that changed; ``parts`` are its words in order, where these changed, or a row's cells."""

    pocket: int
    title: str
    """Of the pocket."""
    what: What
    piece: str
    """What it is called: an artefact's title; empty for a page's words and a row."""
    evidence: int | None = None
    row: int | None = None
    parts: tuple[Part, ...] = ()
    cells: tuple[tuple[str, str, str], ...] = field(default=())
    """Of a row: the column's title, what it said, what it says."""

    @property
    def words(self) -> tuple[int, int]:
        """How many words are new, and how many gone."""
        new, gone = (" ".join(one.text for one in self.parts if one.what == what) for what in ("new", "gone"))
        return count(new).words, count(gone).words


def differences(before: Snapshot, after: Snapshot) -> list[Difference]:
    """All that changed, in the order of the later one; what is gone from a pocket stands after what is in it."""
    old = {one["id"]: one for one in before["pockets"]}
    found: list[Difference] = []
    for pocket in after["pockets"]:
        earlier = old.get(pocket["id"], {"evidence": [], "log": None})
        found += _evidence(pocket, earlier)
        if pocket.get("log") and earlier.get("log"):
            found += _rows(pocket, earlier["log"])
        elif pocket.get("log"):
            found += _rows(pocket, {"plan": pocket["log"]["plan"], "rows": []})
    return found


def _name(evidence: Mapping[str, Any]) -> str:
    return str((evidence["artefact"] or {}).get("title", ""))


def _evidence(pocket: Mapping[str, Any], earlier: Mapping[str, Any]) -> Iterator[Difference]:
    old = {one["id"]: one for one in earlier["evidence"]}
    for one in pocket["evidence"]:
        named = {"pocket": pocket["id"], "title": pocket["title"], "piece": _name(one), "evidence": one["id"]}
        was = old.pop(one["id"], None)
        if was is None:
            yield Difference(what=What.NEW, **named)
            continue
        if _file(was) != _file(one):
            yield Difference(what=What.REPLACED, **named)
        if was["text"] != one["text"]:
            yield Difference(what=What.WORDS, parts=tuple(compare(was["text"], one["text"])), **named)
    for gone in old.values():
        yield Difference(pocket["id"], pocket["title"], What.GONE, _name(gone), gone["id"])


def _file(evidence: Mapping[str, Any]) -> tuple[str, str, str]:
    artefact = evidence["artefact"] or {}
    return artefact.get("sha256", ""), artefact.get("link", ""), artefact.get("html", "")


def _rows(pocket: Mapping[str, Any], earlier: Mapping[str, Any]) -> Iterator[Difference]:
    titles = {one["key"]: one["title"] for one in pocket["log"]["plan"]["columns"]}
    old = {row["id"]: row for row in earlier["rows"]}
    for row in pocket["log"]["rows"]:
        was = old.pop(row["id"], None)
        named = {"pocket": pocket["id"], "title": pocket["title"], "piece": "", "row": row["id"]}
        if was is None:
            yield Difference(what=What.NEW, **named)
            continue
        cells = tuple(
            (title, str(was["values"].get(key, "")), str(row["values"].get(key, "")))
            for key, title in titles.items()
            if was["values"].get(key) != row["values"].get(key)
        )
        if cells:
            yield Difference(what=What.ROW, cells=cells, **named)
    for gone in old.values():
        yield Difference(pocket["id"], pocket["title"], What.GONE, "", row=gone["id"])
