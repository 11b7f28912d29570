"""Opening a shared page, and the exchange that keeps it live: a device sends what it has, and gets the others'.

An update is taken whole or not at all (``core.sharing.accepting``); it stands in the order in which it came and is
answered when it is safe. The same once more changes nothing. Decided here: no long-held connection; a device asks again
after ``APART`` while somebody writes and more rarely while nobody does, and the server says after how long.
"""

from __future__ import annotations

import secrets
from base64 import b64decode, b64encode
from binascii import Error
from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction

from coatpeg.core.errors import Invalid, Refused
from coatpeg.core.policy import Action, decide
from coatpeg.core.sharing import accepting, blocks
from coatpeg.outlines.models import Pocket
from coatpeg.people.access import Standings, require
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import StandingHold
from coatpeg.sharing import finding, settling, written
from coatpeg.sharing.models import SharedPage, SharedReader, SharedUpdate, SharedWriter

APART = 600
"""Milliseconds between two exchanges while somebody writes."""
QUIET = 2_500
"""The same while nobody does."""
WRITING = timedelta(seconds=20)
"""For how long after an update somebody counts as writing."""
MANY = 1_000
"""Updates in one answer; whoever lacks more gets the page put together instead."""
TOLD_READING = timedelta(minutes=1)
"""How often it is noted that somebody has a page open."""
HIGHEST_ID = 2**32


def open_page(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> dict[str, Any]:
    """The page of a pocket as a portfolio has it, with everything on it and, to whom may write, a writer id."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    page = finding.page_of(finding.pocket_in(portfolio.enrolment, pocket_id), portfolio.enrolment, now)
    return opened(person, finding.with_pocket(page.pk), now)


def opened(person: Person, page: SharedPage, now: datetime) -> dict[str, Any]:
    """A page with everything on it, for whoever may see it."""
    today = school_calendar().local_day(now)
    standings = finding.require_on_page(person, Action.SEE_SHARED, page, today)
    state = settling.put_together(page)
    reason = why_closed(page, standings, today)
    if decide(Action.WRITE_SHARED, standings).allowed:
        _read_now(page, person, now)
    return {
        "id": page.pk,
        "number": state.number,
        "data": b64encode(state.data).decode(),
        "client": None if reason else _new_writer(page, person, now),
        "closed": reason,
        "may_lead": decide(Action.LEAD_SHARED, standings).allowed,
        **_said_by_staff(page),
        **written.written(page, state, today),
    }


def exchange(
    person: Person, page_id: int, after: int, client: int | None, update: str | None, now: datetime
) -> dict[str, Any]:
    """Take an update, where there is one, and give what came after a number."""
    page = finding.with_pocket(page_id)
    today = school_calendar().local_day(now)
    if client is not None and update:
        standings = finding.require_on_page(person, Action.WRITE_SHARED, page, today)
        page = take(person, page, client, _raw(update), standings, now)
    else:
        standings = finding.require_on_page(person, Action.SEE_SHARED, page, today)
    return {
        "number": page.number,
        "closed": why_closed(page, standings, today),
        "apart": APART if now - page.changed_at < WRITING else QUIET,
        **_said_by_staff(page),
        **_came(page, after),
    }


def _said_by_staff(page: SharedPage) -> dict[str, Any]:
    return {"question": page.question, "question_at": page.asked_at, "is_open": page.closed_at is None}


def _came(page: SharedPage, after: int) -> dict[str, Any]:
    """What came after a number: each update, or where that is long ago the page put together."""
    if after >= page.number:
        return {"data": None, "updates": []}
    lacking = page.number - after
    if after < page.dropped or lacking > MANY:
        return {"data": b64encode(settling.put_together(page).data).decode(), "updates": []}
    rows = SharedUpdate.objects.filter(page=page, number__gt=after, number__lte=page.number).order_by("number")
    return {
        "data": None,
        "updates": [
            {
                "data": b64encode(data).decode(),
                "client": client,
                "start": start,
                "end": end,
                "person": person,
                "at": at,
            }
            for data, client, start, end, person, at in rows.values_list(
                "data", "client", "start", "end", "person_id", "at"
            )
        ],
    }


def take(person: Person, page: SharedPage, client: int, data: bytes, standings: Standings, now: datetime) -> SharedPage:
    """Put an update to the page, or refuse it as a whole; returns the page as it is then."""
    update = blocks.read(data)
    with transaction.atomic():
        locked = SharedPage.objects.select_for_update().get(pk=page.pk)
        locked.pocket, locked.group = page.pocket, page.group
        mine = SharedWriter.objects.filter(page=locked, client=client).values_list("person_id", flat=True).first()
        if mine != person.pk:
            raise Invalid("This page was opened under another name.", where="client", fix="Load the page again.")
        clocks = {int(one): clock for one, clock in locked.clocks.items()}
        taken = accepting.accept(update, client, clocks)
        if taken.nothing:
            return locked
        reason = why_closed(locked, standings, school_calendar().local_day(now))
        if reason:
            raise Refused(reason, where=page.pocket.title, fix="What you wrote stays on this device, to be copied.")
        if taken.end > taken.start:
            locked.clocks[str(client)] = taken.end
        note(locked, person.pk, taken.end - taken.start, others(locked, person.pk, taken.away))
        add(locked, client, taken.start, taken.end, person.pk, data, now)
        return locked


def add(page: SharedPage, client: int, start: int, end: int, person: int, data: bytes, now: datetime) -> None:
    """Put an update at the end of a locked page's, and see that it is settled."""
    page.number += 1
    SharedUpdate.objects.create(
        page=page, number=page.number, client=client, start=start, end=end, person_id=person, at=now, data=data
    )
    asked = page.settling
    page.changed_at, page.settling = now, True
    page.save(update_fields=["number", "clocks", "since_moment", "changed_at", "settling"])
    if not asked:
        settling.settle_soon(page.pk, now)


def others(page: SharedPage, person: int, away: Mapping[int, int]) -> int:
    """How many of the ticks that are taken away are somebody else's."""
    if not away:
        return 0
    owners = dict(SharedWriter.objects.filter(page=page, client__in=list(away)).values_list("client", "person_id"))
    return sum(ticks for client, ticks in away.items() if owners.get(client) != person)


def note(page: SharedPage, person: int, added: int, away: int) -> None:
    """Count what somebody did since the last moment."""
    had = page.since_moment.get(str(person), [0, 0])
    page.since_moment[str(person)] = [had[0] + added, had[1] + away]


def why_closed(page: SharedPage, standings: Standings, today: Any) -> str:
    """Why nobody, or not this person, writes on a page now; empty where they may."""
    pocket: Pocket = page.pocket
    decision = decide(Action.WRITE_SHARED, standings)
    if not decision.allowed:
        return decision.because
    if page.closed_at is not None:
        return "Your teacher has closed this page for now."
    if pocket.retired_at is not None:
        return f"“{pocket.title}” is no longer in use."
    if pocket.opens and pocket.opens > today:
        return f"“{pocket.title}” opens on {pocket.opens:%a %-d %b}."
    held = StandingHold.objects.filter(pocket=pocket, portfolio__enrolment__in=finding.members_of(page, today))
    hold = held.order_by("since").values_list("handin_id", "title").first()
    if hold is None:
        return ""
    return f"It is locked: handed in for “{hold[1]}”." if hold[0] else f"It is locked by {hold[1]}."


def _raw(update: str) -> bytes:
    if len(update) > accepting.LARGEST * 4 // 3 + 4:
        raise Invalid(
            "This is too much at once.",
            where="update",
            fix="Paste it in smaller pieces, or put it into a pocket of your own as a file.",
        )
    try:
        return b64decode(update, validate=True)
    except Error as error:
        raise blocks.broken() from error


def _new_writer(page: SharedPage, person: Person, now: datetime) -> int:
    """A writer id that no other has on this page. Each opening has its own: two tabs with one would write over each
    other.
    """
    client = 1 + secrets.randbelow(HIGHEST_ID - 1)
    SharedWriter.objects.create(page=page, client=client, person=person, at=now)
    return client


def _read_now(page: SharedPage, person: Person, now: datetime) -> None:
    SharedReader.objects.update_or_create(page=page, person=person, defaults={"at": now})


def see_page(person: Person, page_id: int, now: datetime) -> dict[str, Any]:
    """A page by its id, for whoever may see it: what ``open_page`` gives, and no writer id."""
    page = finding.with_pocket(page_id)
    require(Action.SEE_SHARED, finding.to_page(person, page, school_calendar().local_day(now)))
    return written.written(page, settling.put_together(page), school_calendar().local_day(now))
