"""Putting a shared page together: its updates into one state, its text into the portfolio of each who fills it.

It is done a few seconds after somebody wrote, by a job, and before anything is handed in. Portfolios are locked before
the page, in the order in which everybody locks them. What is handed in or locked stays in a portfolio as it was.
Decided here: single updates stay for two minutes after they are in the state, so that whoever is only a little behind
gets them alone; a moment is kept at most every five minutes of work.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping
from datetime import datetime, timedelta
from typing import Any, NamedTuple

from django.db.models import Max, Q, QuerySet
from django.utils import timezone

from coatpeg.core.outlines.filling import NO_COUNTS, PocketKind
from coatpeg.core.portfolios import rich, texts
from coatpeg.core.portfolios.texts import Counts
from coatpeg.core.sharing.authors import Span, joined, parts
from coatpeg.events.recording import Deed, deed
from coatpeg.jobs.kinds import Kind, job
from coatpeg.outlines.models import Pocket
from coatpeg.people.calendars import school_calendar
from coatpeg.portfolios import counting
from coatpeg.portfolios.models import Evidence, LoosePage, Portfolio, StandingHold
from coatpeg.portfolios.writing import Place
from coatpeg.sharing import finding, pages, things
from coatpeg.sharing.models import SharedMoment, SharedPage, SharedSpan, SharedState, SharedUpdate

SOON = timedelta(seconds=10)
"""How long after somebody wrote a page is settled: on the page itself it is seen at once."""
KEPT_SINGLE = timedelta(minutes=2)
MOMENTS_APART = timedelta(minutes=5)


class State(NamedTuple):
    """A page put together up to a number, as one update of everything."""

    number: int
    data: bytes


def put_together(page: SharedPage | int) -> State:
    """A page as it is now: its kept state and what came since. Two queries."""
    kept = SharedState.objects.filter(page=page).values_list("number", "data").first() or (0, b"")
    newer = list(
        SharedUpdate.objects.filter(page=page, number__gt=kept[0]).order_by("number").values_list("number", "data")
    )
    if kept[1] and not newer:
        return State(kept[0], bytes(kept[1]))
    made = pages.document([bytes(one) for one in (kept[1], *(data for _, data in newer)) if one])
    return State(newer[-1][0] if newer else kept[0], made.get_update())


def spans_of(page: SharedPage) -> list[Span]:
    """Who wrote which ticks, of all of a page."""
    kept = SharedSpan.objects.filter(page=page).values_list("client", "start", "end", "person_id", "at")
    newer = SharedUpdate.objects.filter(page=page, number__gt=page.settled).order_by("number")
    single = newer.values_list("client", "start", "end", "person_id", "at")
    return joined([*(Span(*one) for one in kept), *(Span(*one) for one in single if one[1] < one[2])])


@job(Kind("laying pages that are filled together into the portfolios"))
def settle_page(page_id: int) -> None:
    """Settle a page as it is now."""
    if SharedPage.objects.filter(pk=page_id).exists():
        settle(page_id, timezone.now())


def settle_soon(page_id: int, now: datetime) -> None:
    """Have a page settled in a moment. Call within the transaction that changed it."""
    settle_page.using(run_after=now + SOON).enqueue(page_id)


def fill_anew(working_groups: Collection[int], now: datetime) -> None:
    """Have what working groups have written so far laid into the portfolios of those who are in them now."""
    _settle_all(SharedPage.objects.filter(working_group__in=working_groups, number__gt=0), now)


def fill_for_joiners(group_id: int, now: datetime) -> None:
    """Have what a class and its periods have filled together so far laid with those who are in them now."""
    of = Q(of="class") | Q(of__startswith="period:")
    _settle_all(SharedPage.objects.filter(of, group_id=group_id, number__gt=0), now)


def count_anew(pocket: Pocket, now: datetime) -> None:
    """Have what was written in a pocket laid out and counted once more: whether each one's own counts changed."""
    _settle_all(SharedPage.objects.filter(pocket=pocket, number__gt=0), now)


def _settle_all(those: QuerySet[SharedPage], now: datetime) -> None:
    for page_id in those.order_by("pk").values_list("pk", flat=True):
        settle_soon(page_id, now)


def went_in(place: Place) -> None:
    """After a write into a pocket of evidence or a log that many fill: have it laid into the others' portfolios."""
    page = things.went_in(place)
    if not page.settling:
        SharedPage.objects.filter(pk=page.pk).update(settling=True)
        settle_page.using(run_after=place.doing.now).enqueue(page.pk)


def settle(page_id: int, now: datetime) -> None:
    """Put a page together and lay it into the portfolios of those who fill it."""
    with deed(None, now) as doing:
        page = finding.with_pocket(page_id)
        portfolios = lock_members(page, now)
        settle_locked(doing, page_id, portfolios)


def lock_members(page: SharedPage, now: datetime) -> list[Portfolio]:
    """The portfolios of those who fill a page, locked in the order in which everybody locks them."""
    members = finding.members_of(page, school_calendar().local_day(now))
    ids = list(Portfolio.objects.filter(enrolment__in=members).order_by("pk").values_list("pk", flat=True))
    list(Portfolio.objects.select_for_update().filter(pk__in=ids).order_by("pk").values_list("pk"))
    locked = Portfolio.objects.filter(pk__in=ids).select_related("enrolment__group", "enrolment__person")
    return list(locked.order_by("pk"))


def settle_locked(doing: Deed, page_id: int, portfolios: Collection[Portfolio]) -> None:
    """The same with the portfolios locked already, within a deed."""
    page = SharedPage.objects.select_for_update().select_related("pocket").get(pk=page_id)
    page.settling = False
    if page.pocket is not None and page.pocket.kind != PocketKind.PAGE:
        page.settled = page.number
        page.save(update_fields=["settling", "settled"])
        things.lay(doing, page, portfolios)
        return
    if page.settled < page.number:
        _fold(page, doing.now)
    page.save()
    if page.pocket is None:
        LoosePage.objects.filter(together=page.pk).update(**_alike(page))
    else:
        _lay(doing, page, page.pocket, portfolios)
    _drop(page, doing.now)


def _fold(page: SharedPage, now: datetime) -> None:
    """Put updates into the state, their spans to the spans, the words to the page; keep a moment where it is time."""
    state = put_together(page)
    spans = spans_of(page)
    SharedState.objects.update_or_create(page=page, defaults={"number": state.number, "data": state.data})
    _keep_spans(page, spans)
    page.settled = state.number
    page.html = pages.html_of(pages.document([state.data]))
    page.size = len(page.html)
    page.text = texts.tidy_text(rich.plain(page.html))
    counts = texts.count(page.text)
    page.words, page.sentences, page.version = counts.words, counts.sentences, page.version + 1
    wrote = parts(pages.said(state.data, spans))
    page.parts = {str(person): [one.counts.words, one.counts.sentences] for person, one in wrote.items()}
    last = SharedMoment.objects.filter(page=page).aggregate(at=Max("at"))["at"]
    if last is None or now - last >= MOMENTS_APART:
        keep_moment(page, state, now)


def keep_moment(page: SharedPage, state: State, now: datetime, brought_back: SharedMoment | None = None) -> None:
    """Keep how a page stands, with what each did since the last time; the page is saved by whoever calls."""
    SharedMoment.objects.create(
        page=page,
        number=state.number,
        at=now,
        data=state.data,
        words=page.words,
        by=page.since_moment,
        brought_back=brought_back,
    )
    page.since_moment = {}


def _keep_spans(page: SharedPage, spans: Collection[Span]) -> None:
    had = {(one.client, one.start): one for one in SharedSpan.objects.filter(page=page)}
    new, longer = [], []
    for span in spans:
        old = had.get((span.client, span.start))
        if old is None:
            new.append(
                SharedSpan(
                    page=page, client=span.client, start=span.start, end=span.end, person_id=span.person, at=span.at
                )
            )
        elif old.end != span.end:
            old.end = span.end
            longer.append(old)
    SharedSpan.objects.bulk_create(new, batch_size=500)
    SharedSpan.objects.bulk_update(longer, ["end"], batch_size=500)


def differences() -> Iterator[str]:
    """Every page whose kept words its updates do not give: what ``./peg check`` reports."""
    settled = SharedPage.objects.filter(Q(pocket=None) | Q(pocket__kind=PocketKind.PAGE), settled__gt=0)
    for page in settled.order_by("pk").iterator():
        state = SharedState.objects.filter(page=page).values_list("number", "data").first()
        if state is None or state[0] != page.settled:
            yield f"shared page {page.pk}: it is settled up to {page.settled}, its state is not"
        elif pages.html_of(pages.document([bytes(state[1])])) != page.html:
            yield f"shared page {page.pk}: its words are not those of its updates"


def _drop(page: SharedPage, now: datetime) -> None:
    """Forget single updates that are in the state and that nobody is likely to lack."""
    old = SharedUpdate.objects.filter(page=page, number__lte=page.settled, at__lt=now - KEPT_SINGLE)
    last = old.aggregate(last=Max("number"))["last"]
    if last is not None and last > page.dropped:
        # Deleted and said in the same transaction, under the page's lock: nobody is given half of them.
        SharedUpdate.objects.filter(page=page, number__lte=last).delete()
        SharedPage.objects.filter(pk=page.pk).update(dropped=last)


def _lay(doing: Deed, page: SharedPage, pocket: Pocket, portfolios: Collection[Portfolio]) -> None:
    """Lay the words into the portfolios that are not locked, and count them anew."""
    held = set(StandingHold.objects.filter(pocket=pocket, portfolio__in=portfolios).values_list("portfolio", flat=True))
    open_ones = {one.pk: one for one in portfolios if one.pk not in held}
    if not open_ones:
        return
    written, last = _parts(page)
    there = {
        one.portfolio_id: one for one in Evidence.objects.filter(pocket=pocket, portfolio__in=open_ones, artefact=None)
    }
    new, old, parted = [], [], []
    for pk, portfolio in open_ones.items():
        mine = written.get(portfolio.enrolment.person_id, NO_COUNTS) if pocket.own_part else None
        part = (mine.words, mine.sentences) if mine else (None, None)
        kept = there.get(pk)
        if kept is not None:
            old.append(kept)
            if part != (kept.part_words, kept.part_sentences):
                kept.part_words, kept.part_sentences = part
                parted.append(kept)
        elif page.version:
            kept = Evidence(portfolio=portfolio, pocket=pocket, **_words_of(page))
            kept.part_words, kept.part_sentences = part
            new.append(kept)
    Evidence.objects.bulk_create(new, batch_size=500)
    # The words are the same for all; only what each one's part is differs.
    Evidence.objects.filter(pk__in=[one.pk for one in old]).update(**_words_of(page))
    Evidence.objects.bulk_update(parted, ["part_words", "part_sentences"], batch_size=500)
    worked = {pk: last[one.enrolment.person_id] for pk, one in open_ones.items() if one.enrolment.person_id in last}
    changed = counting.refresh_many(list(open_ones), pocket, worked)
    for pk, portfolio in open_ones.items():
        if pk in changed:
            doing.record("shared_page_settled", page.group_id, enrolment_id=portfolio.enrolment_id, pocket=pocket.pk)
        else:
            doing.moved(page.group_id, portfolio.enrolment_id, pocket.pk)


def _words_of(page: SharedPage) -> dict[str, Any]:
    """The words of a page as the columns of a text in a portfolio."""
    return {**_alike(page), "removed_at": None}


def _alike(page: SharedPage) -> dict[str, Any]:
    """The same without whether it lies there."""
    return {name: getattr(page, name) for name in ("text", "html", "words", "sentences", "version", "changed_at")}


def _parts(page: SharedPage) -> tuple[Mapping[int, Counts], Mapping[int, datetime]]:
    """How much each person wrote of what stands there, and when they wrote last."""
    last = SharedSpan.objects.filter(page=page).values_list("person_id").annotate(last=Max("at"))
    return {int(person): Counts(*counts) for person, counts in page.parts.items()}, dict(last)
