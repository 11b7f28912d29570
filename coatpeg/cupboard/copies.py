"""Copies as they lie in portfolios: as they came or not, locked or not, taken out again, told to whoever asks."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from django.db.models import QuerySet

from coatpeg.core.cupboard.giving import Progress, progress
from coatpeg.core.handins.locking import STAFF
from coatpeg.cupboard.laying import words_in
from coatpeg.cupboard.models import CupboardCopy
from coatpeg.events.recording import Deed
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios import counting
from coatpeg.portfolios.models import Evidence, Portfolio, StandingHold

_LOADED = ("pocket", "evidence__artefact__stored", "evidence__artefact__written_text", "portfolio__enrolment", "item")


def loaded(rows: QuerySet[CupboardCopy]) -> list[CupboardCopy]:
    """Copies with all that judging them needs: one query."""
    return list(rows.select_related(*_LOADED))


def as_it_came(copy: CupboardCopy) -> bool:
    """Whether nobody has begun with a copy: it is as it came, and nothing is said about it."""
    one = copy.evidence
    said = one.artefact_id is not None and (one.words > 0 or one.spoken_id is not None)
    return counting.pieces_of(copy.pocket, [one])[0].unchanged and not said


def lies_there(copy: CupboardCopy) -> bool:
    """Whether a copy is still in its pocket."""
    return copy.evidence.removed_at is None and (copy.evidence.artefact_id is not None or bool(copy.evidence.text))


def held(copies: Iterable[CupboardCopy]) -> dict[tuple[int, int], set[int]]:
    """The hand-ins (0: staff) that hold the pockets of copies, by (portfolio, pocket): one query."""
    of = list(copies)
    rows = StandingHold.objects.filter(
        portfolio__in={one.portfolio_id for one in of}, pocket__in={one.pocket_id for one in of}
    )
    found: dict[tuple[int, int], set[int]] = {}
    for portfolio, pocket, handin in rows.values_list("portfolio_id", "pocket_id", "handin_id"):
        found.setdefault((portfolio, pocket), set()).add(handin)
    return found


def progress_of(copies: Sequence[CupboardCopy]) -> list[Progress]:
    """How far each copy has come; handed in is what lies in a pocket that a hand-in holds."""
    holds = held(copies)
    return [
        progress(
            lies_there=lies_there(one),
            opened=one.opened_at is not None,
            changed=not as_it_came(one),
            handed_in=bool(holds.get((one.portfolio_id, one.pocket_id), set()) - {STAFF}) and lies_there(one),
        )
        for one in copies
    ]


def copies_in(portfolio: Portfolio, pocket: Pocket) -> tuple[dict[int, str], int]:
    """What lies in a pocket as copies: the item's title by evidence; how many were not opened, or wait for a newer
    one. One query.
    """
    copies = CupboardCopy.objects.filter(portfolio=portfolio, pocket=pocket, evidence__removed_at=None)
    rows = copies.exclude(evidence__artefact=None, evidence__text="").values_list(
        "evidence_id", "item__title", "opened_at", "content", "item__content", "newer_id", "item__removed_at"
    )
    found: dict[int, str] = {}
    fresh = 0
    for evidence, title, opened_at, content, now_is, newer, removed_at in rows:
        found[evidence] = title
        waits = content < now_is and not newer and not removed_at
        fresh += int(waits or not opened_at)
    return found, fresh


def opened_of(pocket_id: int) -> dict[int, bool]:
    """The portfolios (ids) that were given something in a pocket which lies there, with whether they opened any of it:
    one query.
    """
    rows = CupboardCopy.objects.filter(pocket=pocket_id, evidence__removed_at=None).exclude(given=None)
    found: dict[int, bool] = {}
    for portfolio, at in rows.values_list("portfolio_id", "opened_at"):
        found[portfolio] = found.get(portfolio, False) or bool(at)
    return found


def take_out(doing: Deed, copies: Iterable[CupboardCopy], *, back: bool = False) -> None:
    """Take copies that are as they came out of their pockets, or put them back; the portfolios are locked.

    A page's own words go and come; everything else goes into the bin.
    """
    touched: dict[Pocket, set[int]] = {}
    for copy in copies:
        one = copy.evidence
        if one.artefact_id is None:
            _set_words(one, copy, back=back)
            one.version, one.changed_at = one.version + 1, doing.now
            one.save()
        else:
            one.removed_at = None if back else doing.now
            one.save(update_fields=["removed_at"])
        touched.setdefault(copy.pocket, set()).add(copy.portfolio_id)
        doing.record(
            "copy_given" if back else "copy_taken_back",
            copy.portfolio.enrolment.group_id,
            enrolment_id=copy.portfolio.enrolment_id,
            pocket=copy.pocket_id,
            item=copy.item_id,
            evidence=one.pk,
        )
    for pocket, portfolios in touched.items():
        counting.refresh_many(portfolios, pocket)


def _set_words(page: Evidence, copy: CupboardCopy, *, back: bool) -> None:
    words: dict[str, Any] = words_in(copy.item) if back else {"text": "", "html": "", "words": 0, "sentences": 0}
    for name, value in words.items():
        setattr(page, name, value)
