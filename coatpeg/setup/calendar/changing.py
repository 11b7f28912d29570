"""Changing the school's calendar: what it would do to due moments and statuses, then doing it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any

from django.db import transaction

from coatpeg.core.calendar.plan import CalendarPlan, compared, runs
from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Gone, Stale
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.people import models
from coatpeg.people.access import require_in_school
from coatpeg.people.calendars import school_calendar
from coatpeg.setup.calendar import ical

AHEAD = timedelta(days=400)
"""How far a file is read beyond today where no term is set up yet: the coming school year."""


@dataclass(frozen=True, slots=True)
class Moved:
    """What a calendar changes in one group: students with another due moment, cells with another status or flag."""

    group_id: int
    group: str
    dues: int
    statuses: int


@dataclass(frozen=True, slots=True)
class CalendarPreview:
    """What a new calendar would do. ``moved`` names the groups in which anything moves."""

    lost: tuple[date, ...]
    gained: tuple[date, ...]
    moved: tuple[Moved, ...]
    due_on_days_off: tuple[str, ...]


def calendar_data(person: models.Person) -> dict[str, Any]:
    """The calendar as it stands, with its key and whether this person may change it."""
    standings = require_in_school(person, Action.SEE_CALENDAR)
    school = models.School.objects.first()
    calendar = school_calendar()
    return {
        "key": school.calendar_key if school else "",
        "school": school.name if school else "",
        "zone": calendar.zone,
        "weekdays": sorted(calendar.weekdays),
        "terms": calendar.terms,
        "weeks": [week for term in calendar.terms for week in calendar.weeks(term)],
        "days_off": runs(calendar.days_off, calendar.weekdays),
        "may_change": decide(Action.KEEP_CALENDAR, standings).allowed,
    }


def read_file(person: models.Person, data: bytes, now: datetime) -> ical.ReadCalendar:
    """The days off of an iCalendar file over the terms that are set up (or the coming year)."""
    require_in_school(person, Action.KEEP_CALENDAR)
    calendar = school_calendar()
    today = calendar.local_day(now)
    first = min((term.first for term in calendar.terms), default=today)
    last = max((term.last for term in calendar.terms), default=today + AHEAD)
    return ical.read(data, first, last, calendar.zone)


def preview(person: models.Person, plan: CalendarPlan, now: datetime) -> CalendarPreview:
    """What a calendar would change; ``Invalid`` where it cannot be taken."""
    require_in_school(person, Action.KEEP_CALENDAR)
    return _preview(school_calendar(), plan.checked(), now)


def _preview(before: SchoolCalendar, after: SchoolCalendar, now: datetime) -> CalendarPreview:
    change = compared(before, after)
    moved, on_days_off = [], []
    for pk, name in models.TeachingGroup.objects.order_by("name").values_list("pk", "name"):
        was, then = situation(pk, now, calendar=before), situation(pk, now, calendar=after)
        found = _moved(was, then)
        if any(found):
            moved.append(Moved(pk, name, *found))
        for handin in then.handins:
            days = {due.day for due in (handin.asked.due, *(handin.asked.period_dues or {}).values()) if due}
            on_days_off += [
                f"{name}: “{handin.title}” is due on {day:%a %-d %b}, {after.days_off[day]}."
                for day in sorted(days & set(after.days_off))
            ]
    return CalendarPreview(change.lost, change.gained, tuple(moved), tuple(on_days_off))


def _moved(was: Situation, then: Situation) -> tuple[int, int]:
    """How many due moments and how many statuses or flags differ."""
    dues = sum(1 for cell, due in then.dues.items() if due.moment != was.dues[cell].moment)
    statuses = sum(1 for cell, standing in then.standings.items() if standing[:5] != was.standings[cell][:5])
    return dues, statuses


def change(person: models.Person, plan: CalendarPlan, key: str, now: datetime) -> CalendarPreview:
    """Take a calendar in place of the one with ``key``; every due moment and status follows at once."""
    require_in_school(person, Action.KEEP_CALENDAR)
    after = plan.checked()
    with deed(person.pk, now) as doing:
        school = models.School.objects.select_for_update().order_by("pk").first()
        if school is None:
            raise Gone("There is no school here yet.", fix="Set the installation up first.")
        if school.calendar_key != key:
            raise Stale(
                "Somebody else changed the calendar meanwhile.",
                where="calendar",
                fix="Load it again; then make your change once more.",
            )
        done = _preview(school_calendar(), after, now)
        _write(school, after)
        for group_id in models.TeachingGroup.objects.order_by("pk").values_list("pk", flat=True):
            moved = next((one for one in done.moved if one.group_id == group_id), None)
            doing.record(
                "calendar_changed",
                group_id,
                dues=moved.dues if moved else 0,
                statuses=moved.statuses if moved else 0,
                lost=[day.isoformat() for day in done.lost],
                gained=[day.isoformat() for day in done.gained],
            )
        return done


def _write(school: models.School, calendar: SchoolCalendar) -> None:
    """Keep a calendar under a new key."""
    with transaction.atomic():
        models.Term.objects.all().delete()
        models.Term.objects.bulk_create(
            models.Term(name=term.name.strip(), first=term.first, last=term.last) for term in calendar.terms
        )
        models.NonSchoolDay.objects.all().delete()
        models.NonSchoolDay.objects.bulk_create(
            models.NonSchoolDay(day=day, name=name) for day, name in calendar.days_off.items()
        )
        school.weekdays = sorted(calendar.weekdays)
        school.zone = calendar.zone
        school.calendar_key = models.new_calendar_key()
        school.save(update_fields=["weekdays", "zone", "calendar_key"])
