"""Artefacts and rows that several students put into one pocket: each stays its contributor's and lies with all.

What one puts in stands in the portfolio of each other one who fills the pocket as a row that stands for it (``of``), so
that filling, handing in, tracking and marking see it as anything else that lies there. Decided here: whoever put a
thing in changes it, says what it shows and takes it out; everybody who fills the pocket reads it. So such a pocket is
the place of a group's findings just as well as of each member's own research, which the group reads; there each one's
own counts, where the pocket says so. What lies in a locked pocket stays as it is, in a locked log the rows that were
handed in. Whoever goes to another group takes what they put in along in their own pocket, the former group keeps it,
and what they held of others goes; it comes again where they come back. A starter is nobody's copy: it lies with the
directions.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from datetime import datetime
from typing import Any, Generic, TypeVar

from django.db.models import F, Q

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.events.recording import Deed
from coatpeg.people.faces import mate
from coatpeg.portfolios import counting
from coatpeg.portfolios.models import Evidence, LogRow, Portfolio, StandingHold
from coatpeg.portfolios.writing import Place
from coatpeg.sharing import finding
from coatpeg.sharing.models import SharedPage, SharedThing

_Thing = TypeVar("_Thing", Evidence, LogRow)

MOST_THINGS = 200
"""Artefacts in a pocket that many fill: each of them lies in every one's portfolio."""
MOST_ROWS = 2_000
_OF_EVIDENCE = (
    "artefact_id",
    "spoken_id",
    "text",
    "html",
    "words",
    "sentences",
    "version",
    "changed_at",
    "begun_as",
    "removed_at",
)
_OF_ROW = ("values", "complete", "week", "version", "changed_at", "removed_at")


def begin(place: Place) -> None:
    """Refuse a write where nobody fills the pocket with this student."""
    finding.page_of(place.pocket, place.portfolio.enrolment, place.doing.now)


def went_in(place: Place) -> SharedPage:
    """After a write: what is new belongs to those who fill the pocket now; the write is counted."""
    now = place.doing.now
    page = finding.page_of(place.pocket, place.portfolio.enrolment, now)
    page = SharedPage.objects.select_for_update().get(pk=page.pk)
    lying: dict[str, Any] = {"portfolio": place.portfolio, "pocket": place.pocket, "of": None, "shared_thing": None}
    if place.pocket.kind == PocketKind.LOG:
        new = [SharedThing(page=page, row=one) for one in LogRow.objects.filter(**lying).order_by("pk")]
    else:
        came = Evidence.objects.filter(**lying, artefact__isnull=False)
        new = [SharedThing(page=page, evidence=one) for one in came.order_by("pk")]
    SharedThing.objects.bulk_create(new)
    _refuse_more(page, place)
    page.number, page.changed_at = F("number") + 1, now
    page.save(update_fields=["number", "changed_at"])
    return page


def _refuse_more(page: SharedPage, place: Place) -> None:
    is_log = place.pocket.kind == PocketKind.LOG
    here = SharedThing.objects.filter(
        Q(evidence__removed_at=None) if not is_log else Q(row__removed_at=None), page=page
    )
    most, what = (MOST_ROWS, "rows") if is_log else (MOST_THINGS, "artefacts")
    if here.count() > most:
        raise Invalid(
            f"“{place.pocket.title}” holds {most} {what} of all who fill it, which is the most.",
            where=place.pocket.title,
            fix="Take one out first.",
        )


def lay(doing: Deed, page: SharedPage, portfolios: Collection[Portfolio]) -> None:
    """Lay what is there into the portfolios of those who fill it, all of them and the page locked; count them anew."""
    pocket = page.pocket
    assert pocket is not None
    of_log = pocket.kind == PocketKind.LOG
    holds: dict[int, datetime] = {}
    for portfolio, since in StandingHold.objects.filter(pocket=pocket, portfolio__in=portfolios).values_list(
        "portfolio", "since"
    ):
        holds[portfolio] = max(since, holds.get(portfolio, since))
    # A log stays open for new rows; anything else that is locked stays as it is.
    into = {one.pk: one for one in portfolios if of_log or one.pk not in holds}
    laid = _lay_rows(page, into, holds, doing.now) if of_log else _lay_evidence(page, into)
    # Also where nothing was laid: a text that lies there may say more, or each one's own may count now.
    changed = counting.refresh_many(list(into), pocket) if into else set()
    for pk in sorted(laid | changed):
        of = into[pk].enrolment_id
        if pk in changed:
            doing.record("shared_page_settled", page.group_id, enrolment_id=of, pocket=pocket.pk)
        else:
            doing.moved(page.group_id, of, pocket.pk)


def _lay_evidence(page: SharedPage, into: Mapping[int, Portfolio]) -> set[int]:
    """Lay artefacts with what is said about them; returns the portfolios in which anything is another now."""
    here = list(Evidence.objects.filter(pocket=page.pocket, portfolio__in=into))
    last: dict[int, int] = defaultdict(int)
    for one in here:
        last[one.portfolio_id] = max(last[one.portfolio_id], one.position)

    def stands_for(original: Evidence, portfolio: int) -> Evidence:
        last[portfolio] += 1
        return Evidence(portfolio_id=portfolio, pocket=page.pocket, of=original, position=last[portfolio])

    originals = Evidence.objects.filter(shared_thing__page=page).order_by("shared_thing")
    laying = _Laying[Evidence](_OF_EVIDENCE, page.changed_at, lambda _: False)
    new, other = laying.lay(list(originals), [one for one in here if one.of_id is not None], into, stands_for)
    Evidence.objects.bulk_create(new, batch_size=500)
    Evidence.objects.bulk_update(other, _columns(_OF_EVIDENCE), batch_size=500)
    return {one.portfolio_id for one in (*new, *other)}


def _lay_rows(
    page: SharedPage, into: Mapping[int, Portfolio], holds: Mapping[int, datetime], now: datetime
) -> set[int]:
    """Lay rows; those that were handed in stay as they are."""

    def stands_for(original: LogRow, portfolio: int) -> LogRow:
        return LogRow(portfolio_id=portfolio, pocket=page.pocket, of=original, placed_at=now)

    originals = LogRow.objects.filter(shared_thing__page=page).order_by("shared_thing")
    here = LogRow.objects.filter(pocket=page.pocket, portfolio__in=into, of__isnull=False)
    laying = _Laying[LogRow](_OF_ROW, now, lambda row: _locked(row, holds))
    new, other = laying.lay(list(originals), list(here), into, stands_for)
    LogRow.objects.bulk_create(new, batch_size=500)
    LogRow.objects.bulk_update(other, _columns(_OF_ROW), batch_size=500)
    return {one.portfolio_id for one in (*new, *other)}


class _Laying(Generic[_Thing]):
    """What of the things of others is to be made, and what is another now, with those who fill a pocket.

    ``names`` are the columns in which one stands for the other, ``gone_at`` is when what is no longer theirs was taken
    out, ``locked`` says of one that it stays as it is.
    """

    def __init__(self, names: Sequence[str], gone_at: datetime, locked: Callable[[_Thing], bool]) -> None:
        self.names, self.gone_at = names, gone_at
        self.locked: Callable[[_Thing], bool] = locked

    def lay(
        self,
        originals: Sequence[_Thing],
        here: Iterable[_Thing],
        into: Iterable[int],
        stands_for: Callable[[_Thing, int], _Thing],
    ) -> tuple[list[_Thing], list[_Thing]]:
        """The new ones and those that are to be written again; ``here`` are those that stand for others already."""
        laid: dict[int, dict[int, _Thing]] = defaultdict(dict)
        for one in here:
            laid[one.portfolio_id][one.of_id or 0] = one
        new, other = [], []
        for portfolio in into:
            for original in originals:
                if original.portfolio_id == portfolio:
                    continue
                stands = laid[portfolio].pop(original.pk, None)
                if stands is None and original.removed_at is None:
                    stands = stands_for(original, portfolio)
                    self._take(stands, original)
                    new.append(stands)
                elif stands is not None and not self.locked(stands) and self._take(stands, original):
                    other.append(stands)
            other += self._gone(laid[portfolio].values())
        return new, other

    def _take(self, stands: _Thing, original: _Thing) -> bool:
        """Make one say what the other says; whether it said anything else before."""
        other = [name for name in self.names if getattr(stands, name) != getattr(original, name)]
        for name in other:
            setattr(stands, name, getattr(original, name))
        return bool(other)

    def _gone(self, those: Iterable[_Thing]) -> list[_Thing]:
        """Those that are of a group that the student is no longer in are taken out."""
        out = [one for one in those if one.removed_at is None and not self.locked(one)]
        for one in out:
            one.removed_at = self.gone_at
        return out


def _locked(row: LogRow, holds: Mapping[int, datetime]) -> bool:
    """Whether a row lay there when it was handed in and that stands."""
    since = holds.get(row.portfolio_id)
    return since is not None and row.placed_at <= since


def _columns(names: Iterable[str]) -> list[str]:
    return [name.removesuffix("_id") for name in names]


def givers(those: Sequence[Evidence] | Sequence[LogRow]) -> dict[int, dict[str, Any]]:
    """Who put in what others put in, as students see each other, by its id here: one query; none where all is own."""
    of = {one.pk: one.of_id for one in those if one.of_id is not None}
    by = who_put_in(type(those[0]), of.values()) if of else {}
    return {pk: by[original] for pk, original in of.items() if original in by}


def givers_then(snapshot: Mapping[str, Any]) -> dict[tuple[str, int], dict[str, Any]]:
    """The same of what was frozen: by *evidence* or *row* and its id there. A query for each of these, where needed."""
    pockets = snapshot["pockets"]
    evidence = [one for pocket in pockets for one in pocket["evidence"]]
    rows = [row for pocket in pockets if "log" in pocket for row in pocket["log"]["rows"]]
    found = {}
    for kind, model, those in (("evidence", Evidence, evidence), ("row", LogRow, rows)):
        of = {one["id"]: one["of"] for one in those if "of" in one}
        by = who_put_in(model, of.values()) if of else {}
        found.update({(kind, pk): by[original] for pk, original in of.items() if original in by})
    return found


def who_put_in(kind: type[Evidence] | type[LogRow], ids: Iterable[int]) -> dict[int, dict[str, Any]]:
    """Whose things these are, as students see each other, by their ids."""
    rows = kind.objects.filter(pk__in=set(ids)).select_related("portfolio__enrolment__person")
    return {one.pk: mate(one.portfolio.enrolment) for one in rows}
