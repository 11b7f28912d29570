"""Setting a hand-in: what is asked, checked and previewed before anything is written."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date, datetime, time
from decimal import Decimal

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.handins.asking import Asked, Due, DueSource
from coatpeg.core.marking.scoring import check_points
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked.asking import Answer, AskedHandIn
from coatpeg.handins.models import HandIn, HandInPeriod
from coatpeg.notices.putting import put
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.models import Period, Person, TeachingGroup
from coatpeg.people.rosters import Member, members


@dataclass(frozen=True)
class Plan:
    """A hand-in as a person fills it in. ``periods`` are the ids asked (None: everyone)."""

    title: str
    pockets: tuple[int, ...]
    opens: date
    due: Due | None = None
    period_dues: Mapping[int, Due] = field(default_factory=dict)
    periods: frozenset[int] | None = None
    points: Decimal | None = None
    step: Decimal = Decimal(1)

    @property
    def asked(self) -> Asked:
        """What it asks, as the core takes it."""
        return Asked(self.opens, self.due, self.period_dues or None, self.periods)


@dataclass(frozen=True, slots=True)
class DueLine:
    """How many students have one due."""

    day: date | None
    at: time | None
    moment: datetime | None
    students: int


@dataclass(frozen=True, slots=True)
class Moved:
    """A student whose due is moved by an adjustment."""

    name: str
    day: date
    extra_days: int


@dataclass(frozen=True, slots=True)
class Preview:
    """Who will get a hand-in and when, and what to look at before setting it."""

    asked: int
    not_asked: int
    dues: list[DueLine]
    moved: list[Moved]
    without_due: list[str]
    warnings: list[str]


def preview(person: Person, group_id: int, plan: Plan, now: datetime) -> Preview:
    """Who will be asked and when; raises ``Invalid`` for what cannot be set."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    _check(group_id, plan)
    calendar = school_calendar()
    of_group = members(group_id, calendar.local_day(now))
    handin = AskedHandIn(0, plan.title, plan.points, plan.step, plan.asked, plan.pockets, {})
    answers = [(one, handin.answer(one.enrolment_id, one.student, calendar)) for one in of_group]
    asked = [(one, answer) for one, answer in answers if answer.asked]
    counted = Counter((answer.due.due, answer.due.moment) for _, answer in asked)
    lines = [
        DueLine(due.day if due else None, due.at if due else None, moment, number)
        for (due, moment), number in counted.items()
    ]
    return Preview(
        asked=len(asked),
        not_asked=len(answers) - len(asked),
        dues=sorted(lines, key=lambda line: (line.day or date.max, line.at or time.max)),
        moved=list(_moved(asked)),
        without_due=[one.listed for one, answer in asked if answer.due.source is DueSource.NO_PERIOD],
        warnings=list(_warnings(plan, calendar, now)),
    )


def _moved(asked: list[tuple[Member, Answer]]) -> Iterator[Moved]:
    for one, answer in asked:
        if answer.due.extra_days and answer.due.due:
            yield Moved(one.listed, answer.due.due.day, answer.due.extra_days)


def _warnings(plan: Plan, calendar: SchoolCalendar, now: datetime) -> Iterator[str]:
    """What is allowed but probably not meant."""
    days = {due.day for due in (plan.due, *plan.period_dues.values()) if due}
    for day in sorted(days):
        if calendar.beyond(day):
            yield f"{day:%a %-d %b} is after the last term set up; plain weekdays are counted there."
        if not calendar.is_school_day(day):
            name = calendar.days_off.get(day)
            yield f"{day:%a %-d %b} is not a school day{f' ({name})' if name else ''}."
        if day < calendar.local_day(now):
            yield f"{day:%a %-d %b} has passed already: whoever has not handed in is overdue at once."


def _check(group_id: int, plan: Plan) -> None:
    """Raise ``Invalid`` for a plan that cannot be set."""
    if not plan.title.strip():
        raise Invalid("The hand-in has no title.", where="title", fix="Give it a short name that students will know.")
    pockets = pockets_of(group_id).filter(pk__in=plan.pockets, retired_at=None)
    if not plan.pockets or pockets.count() != len(set(plan.pockets)):
        raise Invalid(
            "No pocket is chosen, or one that this class does not have.",
            where="pockets",
            fix="Choose at least one pocket.",
        )
    named = set(plan.period_dues) | (plan.periods or set())
    if Period.objects.filter(pk__in=named, group_id=group_id).count() != len(named):
        raise Invalid("A period was named that this class does not have.", where="periods", fix="Choose from the list.")
    days = [due.day for due in (plan.due, *plan.period_dues.values()) if due]
    check_class_days(group_id, opens=plan.opens, due=min(days, default=None))
    check_class_days(group_id, due=max(days, default=None))
    if days and min(days) < plan.opens:
        raise Invalid(
            f"It would be due on {min(days):%a %-d %b}, before it opens on {plan.opens:%a %-d %b}.",
            where="opens",
            fix="Let it open earlier, or make it due later.",
        )
    if plan.points is not None:
        check_points(plan.points, plan.step)


def set_handin(person: Person, group_id: int, plan: Plan, now: datetime, *, key: str | None = None) -> HandIn:
    """Write a hand-in; refused where nobody is in its audience. What came under the form's ``key`` is there already."""
    expected = preview(person, group_id, plan, now)
    if not expected.asked:
        raise Invalid(
            "Nobody would be asked for this.",
            where="periods",
            fix="Choose other periods, or a due date on which students are in the class.",
        )
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        before = HandIn.objects.filter(group_id=group_id, client_key=key).first() if key else None
        if before is not None:
            return _same(before, plan)
        handin = HandIn.objects.create(
            group_id=group_id,
            client_key=key,
            title=plan.title.strip(),
            opens=plan.opens,
            due_day=plan.due.day if plan.due else None,
            due_time=plan.due.at if plan.due else None,
            for_everyone=plan.periods is None,
            points=plan.points,
            step=plan.step,
        )
        handin.pockets.set(plan.pockets)
        HandInPeriod.objects.bulk_create(
            HandInPeriod(
                handin=handin,
                period_id=period_id,
                asked=period_id in (plan.periods or ()),
                due_day=due.day if (due := plan.period_dues.get(period_id)) else None,
                due_time=due.at if due else None,
            )
            for period_id in sorted(set(plan.period_dues) | (plan.periods or set()))
        )
        doing.record("handin_set", group_id, handin_id=handin.pk, pockets=sorted(plan.pockets))
        tell_of(doing, handin)
        return handin


def _same(before: HandIn, plan: Plan) -> HandIn:
    """The hand-in that this form made already; refused where the form says something else by now."""
    if before.title == plan.title.strip() and before.opens == plan.opens:
        return before
    raise Stale(
        f"This form has set “{before.title}” already.",
        where="title",
        fix="It hangs on the rail as it was sent. Open the form anew for another one.",
    )


def tell_of(doing: Deed, handin: HandIn) -> None:
    """Tell the students of a hand-in that it asks them, once it is open."""
    opens = datetime.combine(handin.opens, time(0), tzinfo=school_calendar().zoneinfo)
    put(doing, "handin_set", handin.group_id, tell_at=max(opens, doing.now), handin=handin.pk)
