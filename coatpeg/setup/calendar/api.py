"""The school's calendar: seeing it, reading it from a file, changing it."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.http import HttpRequest
from ninja import File, Router
from ninja.files import UploadedFile
from pydantic import Field

from coatpeg.core.calendar.plan import CalendarPlan, DaysOff
from coatpeg.core.calendar.school_days import Term
from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Day, Shape
from coatpeg.setup.calendar import changing
from coatpeg.setup.calendar.ical import MOST_BYTES

router = Router(tags=["calendar"])
SEE = for_action(Action.SEE_CALENDAR)
KEEP = for_action(Action.KEEP_CALENDAR)


class SpanShape(Shape):
    """A term, or a run of days off: both ends included, with its name."""

    name: str = Field(max_length=100)
    first: Day
    last: Day


class WeekOfTerm(Shape):
    """A week of a term: its number there (from 1) and its Monday."""

    number: int
    monday: date


class CalendarShape(Shape):
    """The calendar as it stands; ``key`` names this state of it. Weekdays from 0, Monday."""

    key: str
    school: str
    zone: str
    weekdays: list[int]
    terms: list[SpanShape]
    weeks: list[WeekOfTerm]
    days_off: list[SpanShape]
    may_change: bool


class CalendarIn(Shape):
    """A calendar as a person fills it in; ``key`` is the one they saw."""

    key: str = ""
    zone: str = Field(max_length=60)
    weekdays: list[int] = Field(max_length=7)
    terms: list[SpanShape] = Field(max_length=60)
    days_off: list[SpanShape] = Field(max_length=500)

    def plan(self) -> CalendarPlan:
        """The same as the core takes it."""
        return CalendarPlan(
            tuple(Term(one.name, one.first, one.last) for one in self.terms),
            frozenset(self.weekdays),
            tuple(DaysOff(one.first, one.last, one.name) for one in self.days_off),
            self.zone,
        )


class MovedInGroup(Shape):
    """What moves in one group."""

    group: str
    dues: int
    statuses: int


class CalendarPreviewShape(Shape):
    """What a calendar would do: school days lost and gained, what moves, hand-ins due on a day off."""

    lost: list[date]
    gained: list[date]
    moved: list[MovedInGroup]
    due_on_days_off: list[str]


class LeftOutShape(Shape):
    """An event of a file that is no day off, and why."""

    name: str
    why: str


class ReadCalendarShape(Shape):
    """What a file says."""

    days_off: list[SpanShape]
    left_out: list[LeftOutShape]


@router.get("/calendar", response=CalendarShape, operation_id="see_calendar", openapi_extra=SEE)
def see_calendar(request: HttpRequest) -> Any:
    """The school's calendar."""
    return changing.calendar_data(person_of(request))


@router.post("/calendar/files", response=ReadCalendarShape, operation_id="read_calendar_file", openapi_extra=KEEP)
def read_calendar_file(request: HttpRequest, file: File[UploadedFile]) -> Any:
    """The days off in an iCalendar file; nothing is written."""
    return changing.read_file(person_of(request), file.read(MOST_BYTES + 1), now())


@router.post("/calendar/preview", response=CalendarPreviewShape, operation_id="preview_calendar", openapi_extra=KEEP)
def preview_calendar(request: HttpRequest, body: CalendarIn) -> Any:
    """What a calendar would change."""
    return changing.preview(person_of(request), body.plan(), now())


@router.put("/calendar", response=CalendarPreviewShape, operation_id="change_calendar", openapi_extra=KEEP)
def change_calendar(request: HttpRequest, body: CalendarIn) -> Any:
    """Take a calendar; says what it changed."""
    return changing.change(person_of(request), body.plan(), body.key, now())
