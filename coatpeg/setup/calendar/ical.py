"""Reading days without school from an iCalendar file (RFC 5545).

Decided here: an event counts where it covers whole days, as dates or as moments from midnight to midnight in the
school's zone; anything else is told with the reason and left out. Recurring events are laid out between the given
days (exceptions and moved ones included), so that an endless one ends. A cancelled event is left out.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import recurring_ical_events
from icalendar import Calendar

from coatpeg.core.calendar.plan import LONGEST_RUN, DaysOff
from coatpeg.core.errors import Invalid

MOST_BYTES = 5_000_000
MOST_EVENTS = 2_000
"""Laid out in the asked span. A school's holidays are dozens; this is somebody's whole diary."""
LONGEST_NAME = 100


@dataclass(frozen=True, slots=True)
class LeftOut:
    """An event that is not a day off, and why."""

    name: str
    why: str


@dataclass(frozen=True, slots=True)
class ReadCalendar:
    """What a file says: days off in order, and what was left out."""

    days_off: tuple[DaysOff, ...]
    left_out: tuple[LeftOut, ...]


def read(data: bytes, first: date, last: date, zone: str) -> ReadCalendar:
    """The days off in a file between two days, both included; ``Invalid`` where it is no iCalendar file."""
    if len(data) > MOST_BYTES:
        raise Invalid(
            f"The file has {len(data) // 1_000_000} MB; {MOST_BYTES // 1_000_000} MB is the most.",
            where="file",
            fix="Export the holidays alone.",
        )
    events = _events(data, first, last)
    if len(events) > MOST_EVENTS:
        raise Invalid(
            f"There are {len(events)} events in these terms; {MOST_EVENTS} is the most.",
            where="file",
            fix="Export the holidays alone, not the whole diary.",
        )
    days: list[DaysOff] = []
    left_out: dict[str, str] = {}
    for event in events:
        name = str(event.get("SUMMARY", "")).strip()[:LONGEST_NAME] or "No school"
        if str(event.get("STATUS", "")).upper() == "CANCELLED":
            left_out[name] = "it is cancelled"
            continue
        run = _run(event, name, ZoneInfo(zone))
        if isinstance(run, str):
            left_out[name] = run
        else:
            days.append(run)
    ordered = sorted(set(days), key=lambda one: (one.first, one.last, one.name))
    return ReadCalendar(tuple(ordered), tuple(LeftOut(*one) for one in left_out.items()))


def _events(data: bytes, first: date, last: date) -> list[Any]:
    """The events of a file as they fall between two days."""
    try:
        calendar = Calendar.from_ical(data)
        return list(recurring_ical_events.of(calendar).between(first, last + timedelta(days=1)))
    except Exception as error:
        raise Invalid(
            "This is not a calendar file that can be read.",
            where="file",
            fix="Export it as iCalendar (.ics) and choose that file.",
        ) from error


def _run(event: Any, name: str, zone: ZoneInfo) -> DaysOff | str:
    """The whole days of an event, or why it has none."""
    begins = event["DTSTART"].dt
    ends = event["DTEND"].dt if "DTEND" in event else begins + _length(event, begins)
    if isinstance(begins, datetime):
        if not isinstance(ends, datetime):
            return "its end is no time of day"
        begins, ends = (one.astimezone(zone) if one.tzinfo else one.replace(tzinfo=zone) for one in (begins, ends))
        if begins.time() != time(0) or ends.time() != time(0) or ends <= begins:
            return "it does not take whole days"
        begins, ends = begins.date(), ends.date()
    last = max(ends - timedelta(days=1), begins)
    if (last - begins).days >= LONGEST_RUN:
        return f"it has more than {LONGEST_RUN} days"
    return DaysOff(begins, last, name)


def _length(event: Any, begins: date) -> timedelta:
    """How long an event without an end is: its duration, else the day (RFC 5545, 3.6.1)."""
    if "DURATION" in event:
        return event["DURATION"].dt  # type: ignore[no-any-return]  # the library's property is untyped
    return timedelta(0) if isinstance(begins, datetime) else timedelta(days=1)
