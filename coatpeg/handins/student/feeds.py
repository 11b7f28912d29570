"""Hand-ins as a calendar to subscribe to (iCalendar, RFC 5545), at a secret address of each person's own.

Decided here: staff see each hand-in once for each of its due days, with the periods it is for; students see their own
effective due moments, extra days included, and nothing of anybody else. A due date alone is an all-day event, one with
a time is a moment. Whoever has the address may read it, so it says titles and classes only: no names, no statuses, no
marks. A new address makes the old one void.
"""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Iterator
from datetime import date, datetime, time, timedelta

from icalendar import Calendar, Event

from coatpeg.core.errors import Gone
from coatpeg.core.handins.asking import Due
from coatpeg.core.policy import Action, Role, decide
from coatpeg.events.recording import deed
from coatpeg.handins.asked.asking import AskedHandIn, handins_of_group
from coatpeg.handins.board.situation import situation
from coatpeg.people.access import to_group
from coatpeg.people.accounts import Membership, memberships
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import FeedAddress, Period, Person

SECRET_BYTES = 24
HOST = "coatpeg.invalid"
"""The right-hand side of the events' UIDs: a name that is nobody's (RFC 2606)."""


def made_at(person: Person) -> datetime | None:
    """Since when the address of a person's calendar works; None without one."""
    return FeedAddress.objects.filter(person=person).values_list("made_at", flat=True).first()


def new_address(person: Person, now: datetime) -> str:
    """A new secret for a person's calendar; the old one is void. It is kept nowhere."""
    secret = secrets.token_urlsafe(SECRET_BYTES)
    with deed(person.pk, now):
        FeedAddress.objects.update_or_create(person=person, defaults={"sha256": _digest(secret), "made_at": now})
    return secret


def revoke(person: Person, now: datetime) -> None:
    """Make a person's calendar address void."""
    with deed(person.pk, now):
        FeedAddress.objects.filter(person=person).delete()


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def feed(secret: str, now: datetime) -> bytes:
    """The calendar at an address; ``Gone`` where it is void or its account closed."""
    address = FeedAddress.objects.select_related("person").filter(sha256=_digest(secret)).first()
    if address is None or not address.person.is_active:
        raise Gone("There is no calendar at this address.", fix="Make a new address in Coat Peg.")
    calendar = Calendar()
    calendar.add("version", "2.0")
    calendar.add("prodid", "-//Coat Peg//Hand-ins//EN")
    calendar.add("x-wr-calname", "Coat Peg")
    for membership in memberships(address.person):
        for event in _events(address.person, membership, now):
            calendar.add_component(event)
    return bytes(calendar.to_ical())


def _events(person: Person, membership: Membership, now: datetime) -> Iterator[Event]:
    """The due moments of one class, as this person may see them."""
    if membership.role == Role.STUDENT and membership.enrolment_id is not None:
        view = situation(membership.group_id, now, enrolments=(membership.enrolment_id,))
        for handin in view.handins:
            cell = (membership.enrolment_id, handin.id)
            due = view.dues[cell].due
            if due and view.standings[cell].status != "not_asked":
                yield _event(membership, handin, due, "", now)
        return
    if not decide(Action.SEE_HANDINS, to_group(person, membership.group_id)).allowed:
        return
    periods = dict(Period.objects.filter(group_id=membership.group_id).values_list("pk", "name"))
    for handin in handins_of_group(membership.group_id):
        if handin.asked.due:
            yield _event(membership, handin, handin.asked.due, "", now)
        for period, due in sorted((handin.asked.period_dues or {}).items()):
            yield _event(membership, handin, due, periods.get(period, ""), now)


def _event(membership: Membership, handin: AskedHandIn, due: Due, period: str, now: datetime) -> Event:
    """One due moment. The UID stays when the date moves, so that the subscriber's entry moves with it."""
    event = Event()
    event.add("uid", f"handin-{handin.id}-{period or 'class'}@{HOST}".replace(" ", "-"))
    event.add("dtstamp", now)
    event.add("summary", f"{handin.title}{f' ({period})' if period else ''} · {membership.name}")
    begins = _begins(due)
    event.add("dtstart", begins)
    if not isinstance(begins, datetime):
        event.add("dtend", begins + timedelta(days=1))
    event.add("transp", "TRANSPARENT")
    return event


def _begins(due: Due) -> date | datetime:
    at: time | None = due.at
    return due.moment(school_calendar()) if at else due.day
