"""What lies in the pockets, counted: read for the rules and kept for the board."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from datetime import date, datetime
from functools import lru_cache
from typing import Any, NamedTuple

import orjson
from django.db.models import ExpressionWrapper, F, TextField

from coatpeg.core import texts
from coatpeg.core.adjusting import adjusted
from coatpeg.core.filling import Piece, PocketKind, PocketState, Wanted, filled, has_work
from coatpeg.core.texts import Counts
from coatpeg.events.moments import quick
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import PocketOutline, wanted_from_data, wanted_of
from coatpeg.people.rosters import Member, wants_of
from coatpeg.portfolios.models import Evidence, PocketContent, Portfolio, StandingHold


class Content(NamedTuple):
    """The pieces of one pocket in one portfolio."""

    pieces: tuple[Piece, ...] = ()
    has_work: bool = False
    last_work_at: datetime | None = None


NO_CONTENT = Content()


def pieces_of(pocket: Pocket, evidence: Iterable[Evidence]) -> tuple[Piece, ...]:
    """Evidence (with its artefact loaded) as the rules see it."""
    starters = {texts.tidy_text(one).strip() for one in (pocket.starter, *pocket.old_starters)}
    return tuple(
        Piece(
            Counts(one.words, one.sentences),
            one.artefact.title if one.artefact else "",
            pocket.kind == PocketKind.PAGE and one.text.strip() in starters,
        )
        for one in evidence
    )


def current(portfolio_id: int, pocket_id: int) -> list[Evidence]:
    """The evidence that lies in a pocket now, in order, with artefacts and files."""
    found = Evidence.objects.filter(portfolio_id=portfolio_id, pocket_id=pocket_id, removed_at=None)
    return list(found.select_related("artefact__stored"))


def counted(pocket: Pocket, evidence: list[Evidence]) -> dict[str, Any]:
    """The row of ``PocketContent`` that this evidence makes."""
    pieces = pieces_of(pocket, evidence)
    return {
        "pieces": [[one.counts.words, one.counts.sentences, int(one.unchanged)] for one in pieces],
        "has_work": has_work(PocketKind(pocket.kind), pieces),
    }


def refresh(portfolio: Portfolio, pocket: Pocket, now: datetime) -> bool:
    """Count a pocket anew after a write; True where anything others see of it (units met, work or none) has changed."""
    row = counted(pocket, current(portfolio.pk, pocket.pk))
    kept, made = PocketContent.objects.get_or_create(portfolio=portfolio, pocket=pocket, defaults=row)
    before, after = _units(pocket, kept.pieces), _units(pocket, row["pieces"])
    changed = made or before != after or kept.has_work != row["has_work"]
    kept.pieces, kept.has_work, kept.last_work_at = row["pieces"], row["has_work"], now
    kept.save()
    return changed


def _kept_pieces(rows: Iterable[tuple[int, int, int]]) -> tuple[Piece, ...]:
    """Pieces from their kept counts; titles are not kept."""
    return tuple(Piece(Counts(words, sentences), "", bool(unchanged)) for words, sentences, unchanged in rows)


@lru_cache(maxsize=20_000)
def _pieces_from_text(text: str) -> tuple[Piece, ...]:
    """The pieces of a kept row as the database gives it; many rows read the same."""
    return _kept_pieces(orjson.loads(text))


def _units(pocket: Pocket, rows: Iterable[tuple[int, int, int]]) -> int:
    return filled(wanted_of(pocket), _kept_pieces(rows)).met


def contents_of_group(group_id: int, enrolment_id: int | None = None) -> dict[tuple[int, int], Content]:
    """Counted contents by (enrolment, pocket) of a group or one student of it: one query."""
    rows = _CONTENTS.filter(portfolio__enrolment__group_id=group_id)
    if enrolment_id is not None:
        rows = rows.filter(portfolio__enrolment_id=enrolment_id)
    return {
        (enrolment, pocket): Content(_pieces_from_text(pieces), work, last)
        for enrolment, pocket, pieces, work, last in rows
    }


# Laid out once, JSON read as text: working out the columns took longer than fetching the rows.
_CONTENTS = PocketContent.objects.annotate(raw=ExpressionWrapper(F("pieces"), TextField())).values_list(
    "portfolio__enrolment_id", "pocket_id", "raw", "has_work", quick("last_work_at")
)
_HOLDS = (
    StandingHold.objects.annotate(raw=ExpressionWrapper(F("wanted"), TextField()))
    .order_by("-since")
    .values_list("portfolio__enrolment_id", "pocket_id", "raw")
)


def frozen_wants(group_id: int, enrolment_id: int | None = None) -> dict[tuple[int, int], Wanted]:
    """What was wanted of locked pockets when they were locked, by (enrolment, pocket): one query.

    Of several holds the earliest decides.
    """
    rows = _HOLDS.filter(portfolio__enrolment__group_id=group_id)
    if enrolment_id is not None:
        rows = rows.filter(portfolio__enrolment_id=enrolment_id)
    return {(enrolment, pocket): _wanted_from_text(wanted) for enrolment, pocket, wanted in rows}


@lru_cache(maxsize=1000)
def _wanted_from_text(text: str) -> Wanted:
    """A year group's holds name few different wants: each is read once."""
    return wanted_from_data(orjson.loads(text))


def wanted_now(portfolio: Portfolio, pockets: Iterable[Pocket], today: date) -> dict[int, Wanted]:
    """What is wanted of this student in some pockets on a day, by pocket: their adjustments honoured."""
    changes = wants_of(portfolio.enrolment.person_id)
    return {pocket.pk: adjusted(wanted_of(pocket), changes, today) for pocket in pockets}


def states(
    outline: Iterable[PocketOutline],
    contents: Mapping[tuple[int, int], Content],
    frozen: Mapping[tuple[int, int], Wanted],
    member: Member,
    today: date,
) -> list[PocketState]:
    """One student's pockets as the filling rules take them; the mappings are by (enrolment, pocket)."""
    enrolment_id, changes = member.enrolment_id, member.student.wants
    return [
        PocketState(
            adjusted(pocket.wanted, changes, today) if changes else pocket.wanted,
            contents.get((enrolment_id, pocket.id), NO_CONTENT).pieces,
            frozen.get((enrolment_id, pocket.id)),
            pocket.counts,
            pocket.retired,
            pocket.open_on(today),
        )
        for pocket in outline
    ]


def miscounted() -> Iterator[str]:
    """Every kept count that the evidence does not give: what ``./peg check`` reports."""
    kept = {
        (portfolio, pocket): (pieces, work)
        for portfolio, pocket, pieces, work in PocketContent.objects.values_list(
            "portfolio_id", "pocket_id", "pieces", "has_work"
        )
    }
    lying: dict[tuple[int, int], list[Evidence]] = defaultdict(list)
    rows = Evidence.objects.filter(removed_at=None).select_related("artefact", "pocket").order_by("position", "pk")
    for one in rows.iterator():
        lying[one.portfolio_id, one.pocket_id].append(one)
        counts = texts.count(one.text)
        if (counts.words, counts.sentences) != (one.words, one.sentences):
            yield f"evidence {one.pk}: its words or sentences are counted wrong"
    for key in sorted(kept.keys() | lying.keys()):
        evidence = lying.get(key, [])
        row = counted(evidence[0].pocket, evidence) if evidence else {"pieces": [], "has_work": False}
        if kept.get(key) != (row["pieces"], row["has_work"]):
            yield f"portfolio {key[0]}, pocket {key[1]}: counted contents differ from the evidence"
