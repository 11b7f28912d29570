"""Setting a hand-in: what is asked, checked and previewed before anything is written."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime, time
from decimal import Decimal
from typing import Any

from django.db.models import Q, QuerySet

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.handins.asking import Asked, Due, DueSource
from coatpeg.core.marking.rubrics import Rubric, rubric_from_data, rubric_to_data
from coatpeg.core.marking.scoring import check_points
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked import files
from coatpeg.handins.asked.anything import room_for
from coatpeg.handins.asked.asking import Answer, AskedHandIn
from coatpeg.handins.asked.overlapping import overlaps
from coatpeg.handins.models import Closing, HandIn, HandInPeriod, HandInStudent
from coatpeg.notices.putting import put
from coatpeg.outlines.reading import pockets_of
from coatpeg.outlines.rich_text import clean
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup, WorkingGroup
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
    rubric: Rubric | None = None
    closes: Due | None = None
    directions: str = ""
    files: tuple[int, ...] = ()
    """Pictures and files beside its directions."""
    model_answer: str = ""
    model_from: date | None = None
    """From which day on students see the model answer; staff see it from the start."""
    opens_again: bool = False
    again: bool = False
    """Whether it may be handed in again until it is due."""
    take_back: bool = True
    """Whether students may take back what they handed in, until it is due."""
    draft: bool = False
    """Whether only staff see it."""
    anything: bool = False
    """Whether it asks for anything that fits, instead of naming pockets."""
    since_last: bool = False
    """Whether of its logs only the rows are handed in that no other hand-in has yet."""
    follows: bool = False
    """Whether what is added later to the sections that it collects whole belongs to it too."""
    closing: str = "nothing"
    """What is done once it has closed (``models.Closing``)."""
    whom: str = "all"
    """Of those whom the periods name: ``all``, the members of ``groups``, the ``students``, or all ``but`` these."""
    groups: frozenset[int] = frozenset()
    students: frozenset[int] = frozenset()

    def asked(self, named: frozenset[int]) -> Asked:
        """What it asks, as the core takes it; ``named`` are the enrolments that it picks or leaves out."""
        only = named if self.whom in ("groups", "students") else None
        but = named if self.whom == "but" else frozenset()
        return Asked(self.opens, self.due, self.period_dues or None, self.periods, self.closes, only, but)

    @property
    def days(self) -> list[date]:
        """Every day that something is due on."""
        return [due.day for due in (self.due, *self.period_dues.values()) if due]


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
    series: list[dict[str, Any]] = field(default_factory=list)
    """The days of a series, where it is one."""


def preview(person: Person, group_id: int, plan: Plan, now: datetime) -> Preview:
    """Who will be asked and when; raises ``Invalid`` for what cannot be set."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    files.check(person, plan.files)
    check(group_id, plan)
    calendar = school_calendar()
    of_group = members(group_id, calendar.local_day(now))
    handin = asked_by(plan)
    answers = [(one, handin.answer(one.enrolment_id, one.student, calendar)) for one in of_group]
    return told(plan, answers, calendar, now, overlaps(group_id, handin, answers, calendar))


def asked_by(plan: Plan, handin_id: int = 0, own: Mapping[int, Due] | None = None) -> AskedHandIn:
    """A plan as the rules take it; ``own`` are the dates that staff gave single students."""
    named = plan.students
    if plan.whom == "groups":
        of = Enrolment.objects.filter(working_groups__in=plan.groups)
        named = frozenset(of.values_list("pk", flat=True))
    return AskedHandIn(
        handin_id,
        plan.title,
        plan.points,
        plan.step,
        plan.asked(named),
        plan.pockets,
        plan.again,
        plan.since_last,
        own or {},
    )


def told(
    plan: Plan,
    answers: list[tuple[Member, Answer]],
    calendar: SchoolCalendar,
    now: datetime,
    more: Sequence[str] = (),
) -> Preview:
    """What is said of a plan before it is set, from each student's answer; ``more`` are warnings found elsewhere."""
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
        warnings=[*_warnings(plan, calendar, now), *more],
    )


def _moved(asked: list[tuple[Member, Answer]]) -> Iterator[Moved]:
    for one, answer in asked:
        if answer.due.extra_days and answer.due.due:
            yield Moved(one.listed, answer.due.due.day, answer.due.extra_days)


def _warnings(plan: Plan, calendar: SchoolCalendar, now: datetime) -> Iterator[str]:
    """What is allowed but probably not meant."""
    for day in sorted({*plan.days, *((plan.closes.day,) if plan.closes else ())}):
        if calendar.beyond(day):
            yield f"{day:%a %-d %b} is after the last term set up; plain weekdays are counted there."
        if not calendar.is_school_day(day):
            name = calendar.days_off.get(day)
            yield f"{day:%a %-d %b} is not a school day{f' ({name})' if name else ''}."
        if day < calendar.local_day(now) and day in plan.days:
            yield f"{day:%a %-d %b} has passed already: whoever has not handed in is overdue at once."


def check(group_id: int, plan: Plan, kept: Collection[int] = ()) -> None:
    """Raise ``Invalid`` for a plan that cannot be set; ``kept`` are pockets that it collects already."""
    if not plan.title.strip():
        raise Invalid("The hand-in has no title.", where="title", fix="Give it a short name that students will know.")
    # What is collected already may have been retired since: it stays.
    pockets = pockets_of(group_id).filter(Q(retired_at=None) | Q(pk__in=kept), pk__in=plan.pockets)
    if not (plan.pockets or plan.anything) or pockets.count() != len(set(plan.pockets)):
        raise Invalid(
            "No pocket is chosen, or one that this class does not have.",
            where="pockets",
            fix="Choose at least one pocket.",
        )
    if plan.follows and not bound_to(group_id, plan.pockets):
        raise Invalid(
            "No whole section is collected, so nothing can be added to one.",
            where="follows",
            fix="Choose every pocket of a section, or collect just those that are chosen.",
        )
    named = set(plan.period_dues) | (plan.periods or set())
    if Period.objects.filter(pk__in=named, group_id=group_id).count() != len(named):
        raise Invalid("A period was named that this class does not have.", where="periods", fix="Choose from the list.")
    _check_whom(group_id, plan)
    days = plan.days
    check_class_days(group_id, opens=plan.opens, due=min(days, default=None))
    check_class_days(group_id, due=max(days, default=None))
    if days and min(days) < plan.opens:
        raise Invalid(
            f"It would be due on {min(days):%a %-d %b}, before it opens on {plan.opens:%a %-d %b}.",
            where="opens",
            fix="Let it open earlier, or make it due later.",
        )
    _check_closing(group_id, plan)
    check_class_days(group_id, model_from=plan.model_from)
    if plan.points is not None:
        check_points(plan.points, plan.step)
    if plan.rubric is not None:
        plan.rubric.checked()


def bound_to(group_id: int, pockets: Collection[int]) -> list[int]:
    """The sections of which these are all the pockets in use; their units' are sections of their own."""
    live = pockets_of(group_id).filter(retired_at=None).values_list("section_id", "pk")
    left_out = {section for section, pocket in live if pocket not in pockets}
    return sorted({section for section, _ in live} - left_out)


def bind(handin: HandIn, follows: bool) -> None:
    """Let a hand-in follow the sections that it collects whole now: it does where there is one."""
    pockets = set(handin.pockets.values_list("pk", flat=True))
    sections = bound_to(handin.group_id, pockets) if follows else []
    handin.follows = bool(sections)
    live = pockets_of(handin.group_id).filter(retired_at=None)
    handin.whole = handin.follows and not live.exclude(pk__in=pockets).exists()
    handin.save(update_fields=["follows", "whole"])
    handin.sections.set(sections)


def _check_whom(group_id: int, plan: Plan) -> None:
    """Raise ``Invalid`` where groups or students are picked that are not here, or none at all."""
    picked: dict[str, tuple[frozenset[int], QuerySet[Any]]] = {
        "groups": (plan.groups, WorkingGroup.objects.filter(group_id=group_id, pk__in=plan.groups)),
        "students": (plan.students, Enrolment.objects.filter(group_id=group_id, pk__in=plan.students)),
    }
    picked["but"] = picked["students"]
    if plan.whom not in picked:
        return
    wanted, there = picked[plan.whom]
    if not wanted:
        what = "group" if plan.whom == "groups" else "student"
        raise Invalid(f"No {what} is chosen.", where="whom", fix=f"Choose at least one {what}, or ask all of them.")
    if there.count() != len(wanted):
        raise Invalid(
            "A group or student was chosen that this class does not have.",
            where="whom",
            fix="Load the page again and choose from the list.",
        )


def _check_closing(group_id: int, plan: Plan) -> None:
    if plan.closes is None:
        return
    check_class_days(group_id, closes=plan.closes.day)
    calendar = school_calendar()
    dues = [due for due in (plan.due, *plan.period_dues.values()) if due]
    latest = max(dues, key=lambda due: due.moment(calendar), default=None)
    closing = plan.closes.moment(calendar)
    if closing < datetime.combine(plan.opens, time(0), tzinfo=calendar.zoneinfo):
        raise Invalid(
            f"It would close on {plan.closes.day:%a %-d %b}, before it opens on {plan.opens:%a %-d %b}.",
            where="closes",
            fix="Let it close later, or never.",
        )
    if latest is not None and closing < latest.moment(calendar):
        raise Invalid(
            f"It would close on {plan.closes.day:%a %-d %b}, before it is due on {latest.day:%a %-d %b}.",
            where="closes",
            fix="Let it close when it is due or later, or never.",
        )


def with_room(doing: Deed, group_id: int, plan: Plan) -> Plan:
    """The plan with a pocket of its own, where it asks for anything and is no draft (``anything``)."""
    if not plan.anything or plan.draft or plan.pockets:
        return plan
    return replace(plan, pockets=(room_for(doing, group_id, plan.title, plan.opens),))


def set_handin(person: Person, group_id: int, plan: Plan, now: datetime, *, key: str | None = None) -> HandIn:
    """Write a hand-in; refused where nobody is in its audience. What came under the form's ``key`` is there already.

    A draft asks nobody and tells nobody.
    """
    expected = preview(person, group_id, plan, now)
    if not plan.draft:
        refuse_nobody(expected)
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        before = HandIn.objects.filter(group_id=group_id, client_key=key).first() if key else None
        if before is not None:
            return _same(before, plan)
        plan = with_room(doing, group_id, plan)
        handin = HandIn(group_id=group_id, client_key=key)
        write(handin, plan)
        verb = "handin_drafted" if plan.draft else "handin_set"
        doing.record(verb, group_id, handin_id=handin.pk, pockets=sorted(plan.pockets))
        tell_of(doing, handin)
        return handin


def refuse_nobody(expected: Preview) -> None:
    """Refuse a hand-in that asks nobody."""
    if not expected.asked:
        raise Invalid(
            "Nobody would be asked for this.",
            where="periods",
            fix="Choose other periods, or a due date on which students are in the class.",
        )


def write(handin: HandIn, plan: Plan) -> None:
    """Make a hand-in what a plan says, within a deed; its periods are laid out anew."""
    handin.title = plan.title.strip()
    handin.opens = plan.opens
    handin.due_day, handin.due_time = _parts(plan.due)
    handin.closes_day, handin.closes_time = _parts(plan.closes)
    handin.for_everyone = plan.periods is None
    handin.points, handin.step = plan.points, plan.step
    handin.rubric = rubric_to_data(plan.rubric and plan.rubric.checked())
    handin.directions = clean(plan.directions)
    handin.model_answer = clean(plan.model_answer)
    handin.model_from = plan.model_from if handin.model_answer else None
    handin.opens_again = plan.opens_again
    handin.again = plan.again
    handin.take_back = plan.take_back
    handin.draft = plan.draft
    handin.since_last = plan.since_last
    handin.anything = plan.anything
    handin.closing = plan.closing if plan.closes else Closing.NOTHING
    handin.whom = plan.whom
    handin.save()
    handin.pockets.set(plan.pockets)
    handin.files.set(plan.files)
    bind(handin, plan.follows)
    handin.groups.set(plan.groups if plan.whom == "groups" else ())
    handin.students.all().delete()
    named = sorted(plan.students) if plan.whom in ("students", "but") else []
    HandInStudent.objects.bulk_create([HandInStudent(handin=handin, enrolment_id=one) for one in named], batch_size=500)
    handin.periods.all().delete()
    rows = []
    for period_id in sorted(set(plan.period_dues) | (plan.periods or set())):
        day, at = _parts(plan.period_dues.get(period_id))
        asked = period_id in (plan.periods or ())
        rows.append(HandInPeriod(handin=handin, period_id=period_id, asked=asked, due_day=day, due_time=at))
    HandInPeriod.objects.bulk_create(rows)


def _parts(due: Due | None) -> tuple[date | None, time | None]:
    return (due.day, due.at) if due else (None, None)


def plan_of(handin: HandIn) -> Plan:
    """A hand-in as it would be filled in."""
    periods = list(handin.periods.all())
    return Plan(
        title=handin.title,
        pockets=tuple(one.pk for one in handin.pockets.all()),
        opens=handin.opens,
        follows=handin.follows,
        due=Due(handin.due_day, handin.due_time) if handin.due_day else None,
        period_dues={one.period_id: Due(one.due_day, one.due_time) for one in periods if one.due_day},
        periods=None if handin.for_everyone else frozenset(one.period_id for one in periods if one.asked),
        points=handin.points,
        step=handin.step,
        rubric=rubric_from_data(handin.rubric),
        closes=Due(handin.closes_day, handin.closes_time) if handin.closes_day else None,
        directions=handin.directions,
        files=tuple(handin.files.order_by("pk").values_list("pk", flat=True)),
        model_answer=handin.model_answer,
        model_from=handin.model_from,
        opens_again=handin.opens_again,
        again=handin.again,
        take_back=handin.take_back,
        draft=handin.draft,
        since_last=handin.since_last,
        anything=handin.anything,
        closing=handin.closing,
        whom=handin.whom,
        groups=frozenset(handin.groups.values_list("pk", flat=True)),
        students=frozenset(handin.students.values_list("enrolment_id", flat=True)),
    )


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
    """Tell the students of a hand-in that it asks them, once it is open; of a draft nobody is told."""
    if handin.draft:
        return
    opens = datetime.combine(handin.opens, time(0), tzinfo=school_calendar().zoneinfo)
    put(doing, "handin_set", handin.group_id, tell_at=max(opens, doing.now), handin=handin.pk)
