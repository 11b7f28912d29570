"""What the staff do with a shared page: put a question on top, close and open it, take a passage away, bring back a
moment.

Words that the server puts into a page again (a passage put back, a moment brought back) stand under a writer id of its
own and keep their authors and times. Everything is an update like any other, so devices that have the page open follow.
"""

from __future__ import annotations

from base64 import b64encode
from collections import deque
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any

from pycrdt import Doc, XmlFragment

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import texts
from coatpeg.core.sharing import accepting, blocks
from coatpeg.core.sharing.order import passages
from coatpeg.events.recording import Deed, deed
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.sharing import exchanging, finding, pages, rows, settling
from coatpeg.sharing.models import SharedMoment, SharedPage, SharedSpan, SharedTaken

LONGEST_QUESTION = 500


@contextmanager
def _leading(person: Person, page_id: int, now: datetime) -> Iterator[tuple[Deed, SharedPage]]:
    """A deed on a page, its row locked."""
    with deed(person.pk, now) as doing:
        page = finding.with_pocket(page_id)
        _require(person, Action.LEAD_SHARED, page_id, now)
        locked = SharedPage.objects.select_for_update().get(pk=page_id)
        locked.pocket, locked.group = page.pocket, page.group
        yield doing, locked


def _require(person: Person, action: Action, page_id: int, now: datetime) -> None:
    finding.require_on_page(person, action, rows.page_row(page_id), school_calendar().local_day(now))


def ask(person: Person, page_id: int, question: str, now: datetime) -> SharedPage:
    """Put a question on top of a page; an empty one takes it away."""
    said = " ".join(question.split())
    if len(said) > LONGEST_QUESTION:
        raise Invalid(
            f"The question has {len(said)} characters; {LONGEST_QUESTION} is the most.",
            where="question",
            fix="Shorten it, or put the rest into the pocket's directions.",
        )
    with _leading(person, page_id, now) as (doing, page):
        if page.question != said:
            page.question, page.asked_by, page.asked_at = said, person if said else None, now if said else None
            page.save(update_fields=["question", "asked_by", "asked_at"])
            doing.record("shared_page_led", page.group_id, pocket=page.pocket_id, page=page.pk)
        return page


def set_open(person: Person, page_id: int, now: datetime, *, is_open: bool) -> SharedPage:
    """Close a page, so that nobody writes on it, or open it again."""
    with _leading(person, page_id, now) as (doing, page):
        if (page.closed_at is None) != is_open:
            page.closed_at, page.closed_by = (None, None) if is_open else (now, person)
            page.save(update_fields=["closed_at", "closed_by"])
            doing.record("shared_page_led", page.group_id, pocket=page.pocket_id, page=page.pk)
        return page


def take_passage(person: Person, page_id: int, place: int, words: str, now: datetime) -> SharedTaken:
    """Take a passage off a page, where it still says what was seen; it is kept, and can be put back."""
    with _leading(person, page_id, now) as (doing, page):
        state = settling.put_together(page)
        of = pages.document([state.data])
        pages.words_at(of, place, words)
        _add(page, person, of, lambda root: root.children.__delitem__(place), now)
        doing.record("shared_passage_taken", page.group_id, pocket=page.pocket_id, page=page.pk)
        return SharedTaken.objects.create(
            page=page, person=person, at=now, data=state.data, place=place, text=texts.tidy_text(words)
        )


def put_passage_back(person: Person, taken_id: int, now: datetime) -> SharedPage:
    """Put a passage back at the place where it was, or at the end. Again does nothing."""
    taken = SharedTaken.objects.filter(pk=taken_id).first()
    if taken is None:
        raise Gone("There is no such passage.", fix="Load the page again.")
    with _leading(person, taken.page_id, now) as (doing, page):
        taken = SharedTaken.objects.select_for_update().get(pk=taken_id)
        if taken.put_back_at is not None:
            return page
        before = pages.document([bytes(taken.data)])

        def put(root: XmlFragment) -> None:
            _copy(root, before, taken.place, min(taken.place, len(root.children)))

        _again(page, person, bytes(taken.data), put, now, only=taken.place)
        taken.put_back_at = now
        taken.save(update_fields=["put_back_at"])
        doing.record("shared_passage_put_back", page.group_id, pocket=page.pocket_id, page=page.pk)
        return page


def bring_back(person: Person, moment_id: int, now: datetime) -> SharedPage:
    """Bring a page back to how it stood at a moment; how it stands now is kept as a moment first."""
    moment = SharedMoment.objects.filter(pk=moment_id).first()
    if moment is None:
        raise Gone("There is no such moment.", fix="Load the page again.")
    with _leading(person, moment.page_id, now) as (doing, page):
        settling.keep_moment(page, settling.put_together(page), now, brought_back=moment)
        page.save(update_fields=["since_moment"])
        before = pages.document([bytes(moment.data)])

        def put(root: XmlFragment) -> None:
            while len(root.children):
                del root.children[0]
            for place in range(len(pages.root(before).children)):
                _copy(root, before, place, place)

        _again(page, person, bytes(moment.data), put, now)
        doing.record("shared_moment_brought_back", page.group_id, pocket=page.pocket_id, page=page.pk)
        return page


def _copy(root: XmlFragment, before: Doc[Any], place: int, to: int) -> None:
    """Put a passage of another document into a page, with its marks."""
    with before.transaction():
        old = pages.root(before).children[place]
        root.children.insert(to, pages.copy_of(old))
        pages.dress(root.children[to], old)


def _add(page: SharedPage, person: Person, of: Doc[Any], act: Callable[[XmlFragment], None], now: datetime) -> None:
    """Do something to a page as its staff and put it to the updates; its author is said by ``_again``."""
    client = of.client_id
    data = pages.changed(of, act)
    update = blocks.read(data)
    locked = rows.lock(page.pk)
    mine = update.blocks.get(client, [])
    kinds = accepting.Kinds.from_data(locked.kinds)
    for block in mine:
        kinds.add(block)
    locked.kinds.update(kinds.as_data())
    if mine:
        locked.clocks[str(client)], locked.owners[str(client)] = mine[-1].end, person.pk
    away: dict[int, int] = {}
    for gone in update.gone:
        away[gone.client] = away.get(gone.client, 0) + gone.end - gone.start
    exchanging.note(locked, person.pk, 0, away)
    # Of no ticks: whose words these are is said span by span.
    rows.write(page.pk, locked, client, (0, 0), person.pk, data, now)
    if not locked.settling:
        settling.settle_soon(page.pk, now)


def _again(
    page: SharedPage,
    person: Person,
    before: bytes,
    put: Callable[[XmlFragment], None],
    now: datetime,
    only: int | None = None,
) -> None:
    """Put words into a page again, under an id of the server's, with the authors that they have in ``before``.

    ``only``: the one passage of before that is put again; None: all of them.
    """
    client = exchanging.new_writer(page, person, now)
    of = pages.document([settling.put_together(page).data], client)
    _add(page, person, of, put, now)
    said = pages.said(before, settling.spans_of(page))
    if only is not None:
        said = said[only : only + 1]
    whose = [
        (one.person, one.at, piece)
        for passage in said
        for one in passage
        if one.person
        for piece in [one.words]
        if piece
    ]
    ticks = [
        (run.clock, blocks.utf16(run.words))
        for passage in passages(blocks.read(of.get_update()))
        for run in passage
        if run.client == client
    ]
    SharedSpan.objects.bulk_create(_spans(page, client, ticks, whose), batch_size=500)


def _spans(
    page: SharedPage, client: int, ticks: list[tuple[int, int]], whose: list[tuple[int, datetime | None, str]]
) -> Iterator[SharedSpan]:
    """Authors laid over ticks: both go through the same words in the same order."""
    left = deque((person, at, blocks.utf16(piece)) for person, at, piece in whose)
    for first, length in ticks:
        tick, end = first, first + length
        while tick < end and left:
            person, at, units = left.popleft()
            until = min(end, tick + units)
            if person > 0 and at is not None:
                yield SharedSpan(page=page, client=client, start=tick, end=until, person_id=person, at=at)
            if units > until - tick:
                left.appendleft((person, at, units - (until - tick)))
            tick = until


def moments(person: Person, page_id: int, now: datetime) -> dict[str, Any]:
    """The moments that are kept of a page, newest first, and the passages that were taken off it."""
    page = finding.with_pocket(page_id)
    _require(person, Action.SEE_SHARED, page.pk, now)
    kept = SharedMoment.objects.filter(page=page).defer("data").order_by("-at", "-pk")
    return {
        "moments": [
            {
                "id": one.pk,
                "at": one.at,
                "words": one.words,
                "by": [{"person": int(who), "added": added, "away": away} for who, (added, away) in one.by.items()],
            }
            for one in kept[:200]
        ],
        "taken": [
            {"id": one.pk, "at": one.at, "by": one.person.full_name, "text": one.text}
            for one in SharedTaken.objects.filter(page=page, put_back_at=None)
            .select_related("person")
            .defer("data")
            .order_by("-pk")[:50]
        ],
    }


def see_moment(person: Person, moment_id: int, now: datetime) -> dict[str, Any]:
    """How a page stood at a moment."""
    moment = SharedMoment.objects.filter(pk=moment_id).first()
    if moment is None:
        raise Gone("There is no such moment.", fix="Load the page again.")
    page = finding.with_pocket(moment.page_id)
    _require(person, Action.SEE_SHARED, page.pk, now)
    return {
        "id": moment.pk,
        "at": moment.at,
        "words": moment.words,
        "html": pages.html_of(pages.document([bytes(moment.data)])),
        "data": b64encode(bytes(moment.data)).decode(),
    }
