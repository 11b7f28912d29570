"""Opening a shared page, and the exchange that keeps it live: a device sends what it has, and gets the others'.

An update is taken whole or not at all (``core.sharing.accepting``); it stands in the order in which it came and is
answered when it is safe. The same once more changes nothing. Decided here: no long-held connection; a device asks again
after ``APART`` while somebody writes (``APART_MANY`` where many do) and more rarely while nobody does, and the server
says after how long.
"""

from __future__ import annotations

import secrets
from base64 import b64decode, b64encode
from binascii import Error
from collections.abc import Mapping
from datetime import date, datetime, timedelta
from typing import Any

from django.db import transaction

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.policy import Action, decide
from coatpeg.core.sharing import accepting, blocks
from coatpeg.people.access import Standings, follower, require
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.sharing import finding, pages, rows, settling, written
from coatpeg.sharing.models import SharedPage, SharedReader, SharedWriter
from coatpeg.sharing.rows import Locked, PageRow

APART = 600
"""Milliseconds between two exchanges while somebody writes."""
APART_MANY = 800
"""The same while many do: a key is still on the others' screens within 1.5 s (95 %: 1.7 times this, and the way)."""
QUIET = 2_500
"""The same while nobody does."""
MANY_WRITE = 12
"""Updates in one answer from which on many write."""
WRITING = timedelta(seconds=20)
"""For how long after an update somebody counts as writing."""
MANY = 1_000
"""Updates in one answer; whoever lacks more gets the page put together instead."""
HIGHEST_ID = 2**32
MOST_ON_A_PAGE = 250_000
"""Characters with all its headings and lists: about 40,000 words, and less than the longest text that is kept."""


def open_page(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> dict[str, Any]:
    """The page of a pocket as a portfolio has it, with everything on it and, to whom may write, a writer id."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    pocket = finding.pocket_in(portfolio.enrolment, pocket_id)
    if pocket.kind != PocketKind.PAGE:
        raise Gone(f"“{pocket.title}” is no page.", where=pocket.title, fix="Open the pocket itself.")
    page = finding.page_of(pocket, portfolio.enrolment, now)
    return opened(person, finding.with_pocket(page.pk), now)


def opened(person: Person, page: SharedPage, now: datetime) -> dict[str, Any]:
    """A page with everything on it, for whoever may see it."""
    today = school_calendar().local_day(now)
    row = rows.page_row(page.pk)
    standings = finding.require_on_page(person, Action.SEE_SHARED, row, today)
    state = settling.put_together(page)
    reason = why_closed(row, person, standings, today)
    if decide(Action.WRITE_SHARED, standings).allowed:
        SharedReader.objects.update_or_create(page=page, person=person, defaults={"at": now})
    return {
        "id": page.pk,
        "number": state.number,
        "data": b64encode(state.data).decode(),
        "client": None if reason else new_writer(page, person, now),
        "closed": reason,
        "may_lead": decide(Action.LEAD_SHARED, standings).allowed,
        **_said_by_staff(row),
        **written.written(page, state, today),
    }


def exchange(
    person: Person, page_id: int, after: int, client: int | None, update: str | None, now: datetime
) -> dict[str, Any]:
    """Take an update, where there is one, and give what came after a number."""
    today = school_calendar().local_day(now)
    page = rows.page_row(page_id)
    action = Action.WRITE_SHARED if client is not None and update else Action.SEE_SHARED
    standings = finding.require_on_page(person, action, page, today)
    if client is not None and update:
        page, reason = take(person, page, client, _raw(update), standings, today, now)
    else:
        reason = why_closed(page, person, standings, today)
    came = _came(page, after)
    return {
        "number": page.number,
        "closed": reason,
        "apart": _apart(page, len(came["updates"]), now),
        **_said_by_staff(page),
        **came,
    }


def _apart(page: PageRow, came: int, now: datetime) -> int:
    if now - page.changed_at >= WRITING:
        return QUIET
    return APART_MANY if came >= MANY_WRITE else APART


def _said_by_staff(page: PageRow) -> dict[str, Any]:
    return {"question": page.question, "question_at": page.asked_at, "is_open": page.closed_at is None}


def _came(page: PageRow, after: int) -> dict[str, Any]:
    """What came after a number: each update, or where that is long ago the page put together."""
    if after >= page.number:
        return {"data": None, "updates": []}
    if after < page.dropped or page.number - after > MANY:
        return {"data": b64encode(settling.put_together(page.pk).data).decode(), "updates": []}
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
            for data, client, start, end, person, at in rows.updates_between(page.pk, after, page.number)
        ],
    }


def take(
    person: Person, page: PageRow, client: int, data: bytes, standings: Standings, today: date, now: datetime
) -> tuple[PageRow, str]:
    """Put an update to the page, or refuse it as a whole; returns the page as it is then, and why nobody writes on it.

    Whether it is locked is asked with the page's row locked: who hands it in holds that row too.
    """
    update = blocks.read(data)
    with transaction.atomic():
        locked = rows.lock(page.pk)
        _own_id(locked, page, client, person)
        clocks = {int(one): clock for one, clock in locked.clocks.items()}
        kinds = accepting.Kinds.from_data(locked.kinds)
        taken = accepting.accept(update, client, clocks, kinds)
        page = page._replace(number=locked.number, closed_at=locked.closed_at)
        reason = why_closed(page, person, standings, today)
        if taken.nothing:
            return page, reason
        if reason:
            raise Refused(reason, where=page.title, fix="What you wrote stays on this device, to be copied.")
        if taken.end > taken.start and locked.size > MOST_ON_A_PAGE:
            raise Refused(
                "This page is full.",
                where=page.title,
                fix="Take something off it, or go on in another pocket. What you wrote stays on this device.",
            )
        if taken.builds:
            pages.refuse_unfit(settling.put_together(page.pk).data, data, update)
        if kinds.changed:
            locked.kinds.update(kinds.as_data())
        if taken.end > taken.start:
            locked.clocks[str(client)] = taken.end
        note(locked, person.pk, taken.end - taken.start, taken.away)
        number = rows.write(page.pk, locked, client, (taken.start, taken.end), person.pk, data, now)
        if not locked.settling:
            settling.settle_soon(page.pk, now)
        return page._replace(number=number, changed_at=now), ""


def _own_id(locked: Locked, page: PageRow, client: int, person: Person) -> None:
    """Refuse a writer id that is not this person's. Whose it is stands with the page from its first words on."""
    owner = locked.owners.get(str(client))
    if owner is None:
        owner = SharedWriter.objects.filter(page=page.pk, client=client).values_list("person_id", flat=True).first()
    if owner != person.pk:
        raise Invalid("This page was opened under another name.", where="client", fix="Load the page again.")
    locked.owners[str(client)] = person.pk


def note(locked: Locked, person: int, added: int, away: Mapping[int, int]) -> None:
    """Count what somebody did since the last moment: ticks written, and ticks of others taken away."""
    others = sum(ticks for client, ticks in away.items() if locked.owners.get(str(client)) != person)
    had = locked.since_moment.get(str(person), [0, 0])
    locked.since_moment[str(person)] = [had[0] + added, had[1] + others]


CLOSED = "Your teacher has closed this page for now."


def why_closed(page: PageRow, person: Person, standings: Standings, today: date) -> str:
    """Why nobody, or not this person, writes on a page now; empty where they may.

    A lock is each one's own: to whom it was sent back goes on, while what the others handed in stays as it was.
    """
    decision = decide(Action.WRITE_SHARED, standings)
    if not decision.allowed:
        return decision.because
    if page.closed_at is not None:
        return CLOSED
    if page.retired_at is not None:
        return f"“{page.title}” is no longer in use."
    if page.opens and page.opens > today:
        return f"“{page.title}” opens on {page.opens:%a %-d %b}."
    held = rows.holds_on(page.pocket_id, page.group_id)
    mine = follower(person, page.group_id)[1] if held else None
    for handin, title, enrolment in held:
        if enrolment == mine:
            return f"It is locked: handed in for “{title}”." if handin else f"It is locked by {title}."
    return ""


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


def new_writer(page: SharedPage, person: Person, now: datetime) -> int:
    """A writer id that no other has on this page. Each opening has its own: two tabs with one would write over each
    other.
    """
    client = 1 + secrets.randbelow(HIGHEST_ID - 1)
    SharedWriter.objects.create(page=page, client=client, person=person, at=now)
    return client


def see_page(person: Person, page_id: int, now: datetime) -> dict[str, Any]:
    """Who wrote what of a page, for whoever may see it."""
    today = school_calendar().local_day(now)
    require(Action.SEE_SHARED, finding.to_page(person, rows.page_row(page_id), today))
    page = finding.with_pocket(page_id)
    return written.written(page, settling.put_together(page), today)
