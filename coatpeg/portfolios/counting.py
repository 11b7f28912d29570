"""What lies in the pockets, counted: read for the rules and kept for the board."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from datetime import datetime
from functools import lru_cache
from types import MappingProxyType
from typing import Any, NamedTuple

import orjson
from django.db.models import ExpressionWrapper, F, TextField

from coatpeg.core.outlines.filling import Piece, PocketKind, filled, has_work
from coatpeg.core.portfolios import texts
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.core.portfolios.texts import Counts
from coatpeg.events.moments import quick
from coatpeg.events.prepared import OfGroup
from coatpeg.outlines.editing import starters_of
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import wanted_of
from coatpeg.outlines.rich_text import in_words, words_of
from coatpeg.portfolios.models import Artefact, Evidence, KeptText, LogRow, PocketContent, Portfolio


class Content(NamedTuple):
    """The pieces of one pocket in one portfolio."""

    pieces: tuple[Piece, ...] = ()
    has_work: bool = False
    last_work_at: datetime | None = None


NO_CONTENT = Content()


def pieces_of(pocket: Pocket, evidence: Iterable[Evidence]) -> tuple[Piece, ...]:
    """Evidence (with its artefact loaded) as the rules see it."""
    given = frozenset(pocket.starter_hashes)
    page = pocket.kind == PocketKind.PAGE
    starters = {words_of(one) for one in ("", *starters_of(pocket), *pocket.old_starters)} if page else set()
    return tuple(
        Piece(
            _counts_of(one),
            one.artefact.title if one.artefact else "",
            _as_given(one) or _in_words(one.text) in starters
            if page and one.artefact is None
            else _is_starter(one.artefact, given),
            0,
            one.spoken_id is not None,
            page and one.artefact is not None,
            pocket.own_part and one.of_id is not None,
        )
        for one in evidence
    )


_in_words = lru_cache(maxsize=64)(in_words)
"""A page that is filled together says the same in each portfolio."""


def _counts_of(one: Evidence) -> Counts:
    """The words of a text; of a page that counts each one's own, this student's."""
    if one.part_words is None or one.part_sentences is None:
        return Counts(one.words, one.sentences)
    return Counts(one.part_words, one.part_sentences)


def current(portfolio_id: int, pocket_id: int) -> list[Evidence]:
    """The evidence that lies in a pocket now, in order, with artefacts and files."""
    found = Evidence.objects.filter(portfolio_id=portfolio_id, pocket_id=pocket_id, removed_at=None)
    return list(found.select_related("artefact__stored", "artefact__written_text", "spoken__stored"))


def _as_given(text: KeptText) -> bool:
    """Whether a text says just the words that it was given with."""
    if not text.begun_as:
        return False
    # Most are letter for letter as they came.
    return text.text == text.begun_as or in_words(text.text) == in_words(text.begun_as)


def _is_starter(artefact: Artefact | None, given: frozenset[str]) -> bool:
    """Whether an artefact is as it was given, the very file that the pocket began with, or a text without a word."""
    if artefact is not None and artefact.kind == ArtefactKind.TEXT:
        return not artefact.written_text.words or _as_given(artefact.written_text)
    if artefact is not None and artefact.given:
        return True
    if artefact is None or artefact.stored is None or not given:
        return False
    return artefact.came_sha256 in given or artefact.stored.sha256 in given


def rows_as_pieces(pocket: Pocket, rows: Iterable[LogRow]) -> tuple[Piece, ...]:
    """A log's rows as the rules see them."""
    return tuple(
        Piece(
            Counts(int(one.complete)),
            week=one.week.toordinal() if one.week else 0,
            theirs=pocket.own_part and one.of_id is not None,
        )
        for one in rows
    )


class PocketWork(NamedTuple):
    """What lies in a pocket now: its evidence or, in a log, its rows; and the pieces that they are."""

    evidence: list[Evidence]
    rows: list[LogRow]
    pieces: tuple[Piece, ...]


def work_in(portfolio_id: int, pocket: Pocket) -> PocketWork:
    """What lies in a pocket of a portfolio: one query."""
    if pocket.kind == PocketKind.LOG:
        rows = list(LogRow.objects.filter(portfolio_id=portfolio_id, pocket=pocket, removed_at=None))
        return PocketWork([], rows, rows_as_pieces(pocket, rows))
    evidence = current(portfolio_id, pocket.pk)
    return PocketWork(evidence, [], pieces_of(pocket, evidence))


def works_of(portfolios: Collection[int], pocket: Pocket) -> dict[int, PocketWork]:
    """The same of many portfolios (their ids), by portfolio: one query."""
    if pocket.kind == PocketKind.LOG:
        rows: dict[int, list[LogRow]] = defaultdict(list)
        for row in LogRow.objects.filter(portfolio_id__in=portfolios, pocket=pocket, removed_at=None):
            rows[row.portfolio_id].append(row)
        return {one: PocketWork([], rows[one], rows_as_pieces(pocket, rows[one])) for one in portfolios}
    evidence: dict[int, list[Evidence]] = defaultdict(list)
    found = Evidence.objects.filter(portfolio_id__in=portfolios, pocket=pocket, removed_at=None)
    for one in found.select_related("artefact__stored", "artefact__written_text", "spoken__stored"):
        evidence[one.portfolio_id].append(one)
    return {one: PocketWork(evidence[one], [], pieces_of(pocket, evidence[one])) for one in portfolios}


def counted(pocket: Pocket, pieces: tuple[Piece, ...]) -> dict[str, Any]:
    """The row of ``PocketContent`` that these pieces make."""
    return {
        "pieces": [[one.counts.words, one.counts.sentences, int(one.unchanged), *_beyond(one)] for one in pieces],
        "has_work": has_work(PocketKind(pocket.kind), pieces),
    }


def _beyond(piece: Piece) -> list[int]:
    """What only some pieces have: the week of a row, whether something was said, whether it lies beside a text, whether
    it is somebody else's.
    """
    if piece.theirs:
        return [piece.week, int(piece.said), int(piece.beside), 1]
    if piece.beside:
        return [piece.week, int(piece.said), 1]
    return [piece.week, 1] if piece.said else [piece.week] if piece.week else []


def refresh(portfolio: Portfolio, pocket: Pocket, now: datetime) -> bool:
    """Count a pocket anew after a write; True where anything others see of it (units met, work or none) has changed."""
    row = counted(pocket, work_in(portfolio.pk, pocket).pieces)
    kept, made = PocketContent.objects.get_or_create(portfolio=portfolio, pocket=pocket, defaults=row)
    changed = made or _seen(pocket, kept, row)
    kept.pieces, kept.has_work, kept.last_work_at = row["pieces"], row["has_work"], now
    kept.save()
    return changed


def _seen(pocket: Pocket, had: PocketContent, row: Mapping[str, Any]) -> bool:
    """Whether others see that a pocket's count is another: by its units, or whether there is work."""
    if pocket.kind == PocketKind.LOG:  # of weekly rows the units depend on the day
        return bool(had.pieces != row["pieces"]) or had.has_work != row["has_work"]
    return _units(pocket, had.pieces) != _units(pocket, row["pieces"]) or had.has_work != row["has_work"]


NOBODY_WORKED: Mapping[int, datetime] = MappingProxyType({})


def refresh_many(
    portfolios: Collection[int], pocket: Pocket, worked: Mapping[int, datetime] = NOBODY_WORKED
) -> set[int]:
    """Count a pocket anew in many portfolios (their ids, locked) where more than their student put something in.

    ``worked`` says when a student worked there last; of the others the last work stays as it was. Returns in which
    portfolios anything others see of it has changed. Three statements for each five hundred.
    """
    kept = {one.portfolio_id: one for one in PocketContent.objects.filter(pocket=pocket, portfolio__in=portfolios)}
    rows, changed = [], set()
    for one, work in works_of(portfolios, pocket).items():
        row, had = counted(pocket, work.pieces), kept.get(one)
        last = max(filter(None, (worked.get(one), had.last_work_at if had else None)), default=None)
        rows.append(PocketContent(portfolio_id=one, pocket=pocket, last_work_at=last, **row))
        if had is None or _seen(pocket, had, row):
            changed.add(one)
    PocketContent.objects.bulk_create(
        rows, batch_size=500, update_conflicts=True, update_fields=["pieces", "has_work", "last_work_at"]
    )
    return changed


def _kept_pieces(rows: Iterable[Sequence[int]]) -> tuple[Piece, ...]:
    """Pieces from their kept counts, with the week where they have one; titles are not kept."""
    return tuple(
        Piece(
            Counts(words, sentences),
            "",
            bool(unchanged),
            beyond[0] if beyond else 0,
            len(beyond) > 1 and bool(beyond[1]),
            len(beyond) > 2 and bool(beyond[2]),
            len(beyond) > 3,
        )
        for words, sentences, unchanged, *beyond in rows
    )


@lru_cache(maxsize=20_000)
def _pieces_from_text(text: str) -> tuple[Piece, ...]:
    """The pieces of a kept row as the database gives it; many rows read the same."""
    return _kept_pieces(orjson.loads(text))


def _units(pocket: Pocket, rows: Iterable[Sequence[int]]) -> int:
    return filled(wanted_of(pocket), _kept_pieces(rows)).met


def contents_of_group(group_id: int, enrolments: Collection[int] | None = None) -> dict[tuple[int, int], Content]:
    """Counted contents by (enrolment, pocket) of a group or some students of it: one query."""
    return {
        (enrolment, pocket): Content(_pieces_from_text(pieces), work, last)
        for enrolment, pocket, pieces, work, last in _CONTENTS.run(group_id, enrolments)
    }


# Laid out once, JSON read as text: working out the columns took longer than fetching the rows.
_CONTENTS = OfGroup(
    PocketContent.objects.annotate(raw=ExpressionWrapper(F("pieces"), TextField())).values_list(
        "portfolio__enrolment_id", "pocket_id", "raw", "has_work", quick("last_work_at")
    ),
    "portfolio__enrolment__group_id",
    "portfolio__enrolment_id",
)


def at_work(pocket: Pocket | None) -> set[int]:
    """The enrolments that have work in a pocket: one query."""
    working = PocketContent.objects.filter(pocket=pocket, has_work=True)
    return set(working.values_list("portfolio__enrolment_id", flat=True)) if pocket else set()


def miscounted() -> Iterator[str]:
    """Every kept count that the evidence does not give: what ``./peg check`` reports."""
    kept = {
        (portfolio, pocket): (pieces, work)
        for portfolio, pocket, pieces, work in PocketContent.objects.values_list(
            "portfolio_id", "pocket_id", "pieces", "has_work"
        )
    }
    evidence: dict[tuple[int, int], list[Evidence]] = defaultdict(list)
    rows = Evidence.objects.filter(removed_at=None).select_related("artefact", "pocket").order_by("position", "pk")
    for one in rows.iterator():
        evidence[one.portfolio_id, one.pocket_id].append(one)
        counts = texts.count(one.text)
        if (counts.words, counts.sentences) != (one.words, one.sentences):
            yield f"evidence {one.pk}: its words or sentences are counted wrong"
    lying = {key: counted(of[0].pocket, pieces_of(of[0].pocket, of)) for key, of in evidence.items()}
    logs: dict[tuple[int, int], list[LogRow]] = defaultdict(list)
    for line in LogRow.objects.filter(removed_at=None).select_related("pocket").order_by("pk").iterator():
        logs[line.portfolio_id, line.pocket_id].append(line)
    lying |= {key: counted(of[0].pocket, rows_as_pieces(of[0].pocket, of)) for key, of in logs.items()}
    for key in sorted(kept.keys() | lying.keys()):
        row = lying.get(key, {"pieces": [], "has_work": False})
        if kept.get(key) != (row["pieces"], row["has_work"]):
            yield f"portfolio {key[0]}, pocket {key[1]}: counted contents differ from the evidence"
