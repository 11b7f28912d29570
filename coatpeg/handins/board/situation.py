"""Everything that decides a group's statuses, loaded once: a fixed number of queries, however large the group."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import cached_property
from typing import TypeVar

from coatpeg.core.calendar.school_days import SchoolCalendar, Week
from coatpeg.core.errors import Gone
from coatpeg.core.handins.asking import EffectiveDue, stays_asked
from coatpeg.core.handins.standing import NOTHING, Facts, Standing, Status, by_newest, judge_column
from coatpeg.core.handins.worklist import QUIET_AFTER, quiet_days
from coatpeg.core.outlines.filling import Filled, Wanted, filled, portfolio_filled
from coatpeg.events.moments import quick
from coatpeg.events.prepared import OfGroup
from coatpeg.handins.asked.asking import Answer, AskedHandIn, handins_of_group
from coatpeg.handins.models import KeptFacts
from coatpeg.outlines.reading import PocketOutline, outline
from coatpeg.people.calendars import class_weeks, school_calendar
from coatpeg.people.rosters import Member, members
from coatpeg.portfolios.counting import NO_CONTENT, Content, contents_of_group
from coatpeg.portfolios.wanting import asked_of, frozen_wants, states

T = TypeVar("T")
Cell = tuple[int, int]
"""(enrolment id, hand-in id)"""


@dataclass(frozen=True, slots=True)
class Column:
    """One hand-in, judged: each of these is as long as the group's members, and in their order."""

    facts: Sequence[Facts | None]
    """None: nothing has come and nothing was decided."""
    answers: Sequence[Answer]
    standings: Sequence[Standing]


@dataclass(frozen=True)
class Situation:
    """A group (or some students of it) at a moment, with every cell judged."""

    now: datetime
    today: date
    calendar: SchoolCalendar
    members: list[Member]
    outline: list[PocketOutline]
    handins: list[AskedHandIn]
    facts: Mapping[Cell, Facts]
    contents: Mapping[Cell, Content]
    """By (enrolment id, pocket id)."""
    frozen: Mapping[Cell, Wanted]
    """What was wanted of locked pockets, by (enrolment id, pocket id)."""
    columns: Sequence[Column]
    """Of each of the hand-ins, in their order."""
    weeks: Sequence[Week] = ()
    """The weeks of the class's time, where a log wants rows each week."""

    @cached_property
    def standings(self) -> Mapping[Cell, Standing]:
        """How each cell stands: for whoever asks for one by one; a whole board reads its columns."""
        return self._by_cell(lambda column: column.standings)

    @cached_property
    def dues(self) -> Mapping[Cell, EffectiveDue]:
        """When each cell is due: the same."""
        return self._by_cell(lambda column: [answer.due for answer in column.answers])

    def _by_cell(self, of: Callable[[Column], Sequence[T]]) -> dict[Cell, T]:
        ids = [member.enrolment_id for member in self.members]
        found: dict[Cell, T] = {}
        for handin, column in zip(self.handins, self.columns, strict=True):
            found.update(zip(((one, handin.id) for one in ids), of(column), strict=True))
        return found

    def filled(self, member: Member, *, whole: bool) -> Filled:
        """How far a student's portfolio is filled, as of today or over the whole template."""
        return self.filled_in(self.outline, member, whole=whole)

    def filled_in(self, pockets: Iterable[PocketOutline], member: Member, *, whole: bool) -> Filled:
        """The same over some pockets only."""
        mine = states(pockets, self.contents, self.frozen, member, self.today, self.weeks)
        return portfolio_filled(mine, whole=whole)

    def wanted(self, member: Member, pocket: PocketOutline) -> Wanted:
        """What is wanted of a student in a pocket today; of a locked one, what was wanted when it was locked."""
        frozen = self.frozen.get((member.enrolment_id, pocket.id))
        return frozen or self.asked(member, pocket, pocket.wanted)

    def asked(self, member: Member, pocket: PocketOutline, wanted: Wanted) -> Wanted:
        """What would be wanted of a student in a pocket today if it asked for this."""
        first, changes = member.student.enrolled.first, member.student.wants
        return asked_of(wanted, pocket.opens, first, changes, self.weeks, self.today, self.today)

    def quiet_days(self, member: Member, last: datetime | None) -> int:
        """For how many days nothing has come from a student while they were in the class, after their last work."""
        return quiet_days(self.calendar.local_day(last) if last else None, member.student.enrolled.first, self.today)

    def quiet(self, member: Member) -> bool:
        """Whether nothing has come from a student for a week in which they were in the class."""
        return self.quiet_days(member, self.last_work(member)) >= QUIET_AFTER

    def last_work(self, member: Member) -> datetime | None:
        """When the student last worked in any pocket."""
        moments = [
            content.last_work_at
            for pocket in self.outline
            if (content := self.contents.get((member.enrolment_id, pocket.id))) and content.last_work_at
        ]
        return max(moments, default=None)


def filled_by_now(view: Situation) -> list[Filled]:
    """How far each student's portfolio is filled as of today, in their order: ``Situation.filled`` for all of them.

    What is wanted is worked out once for students who stand alike, and units once for what is wanted and lies there.
    """
    counting = [one for one in view.outline if one.counts and not one.retired and one.open_on(view.today)]
    asked: dict[int, list[tuple[int, Wanted]]] = {}
    known: dict[tuple[int, int], Filled] = {}
    found = []
    for member in view.members:
        mine = asked.get(id(member.student))
        if mine is None:
            mine = asked[id(member.student)] = [(one.id, view.asked(member, one, one.wanted)) for one in counting]
        met = wanted = 0
        for pocket, now_wanted in mine:
            cell = (member.enrolment_id, pocket)
            asks, pieces = view.frozen.get(cell) or now_wanted, view.contents.get(cell, NO_CONTENT).pieces
            # All of these are held by the view: no two of them share a place in memory while this runs.
            units = known.get((id(asks), id(pieces)))
            if units is None:
                units = known[id(asks), id(pieces)] = filled(asks, pieces)
            met, wanted = met + units.met, wanted + units.wanted
        found.append(Filled(met, wanted))
    return found


def last_works(view: Situation) -> dict[int, datetime]:
    """When each student last worked in any pocket, by enrolment: ``Situation.last_work`` for all of them."""
    pockets = {one.id for one in view.outline}
    found: dict[int, datetime] = {}
    for (enrolment, pocket), content in view.contents.items():
        at = content.last_work_at
        if at is not None and pocket in pockets:
            before = found.get(enrolment)
            if before is None or at > before:
                found[enrolment] = at
    return found


def situation(
    group_id: int,
    now: datetime,
    *,
    enrolments: Collection[int] | None = None,
    calendar: SchoolCalendar | None = None,
    with_weeks: bool = False,
    handin: int | None = None,
) -> Situation:
    """Load and judge a group, or some students of it; by another calendar than the school's to see what it would do.

    ``with_weeks`` loads the class's weeks also where no log wants rows each week yet. ``handin`` loads and judges this
    one only: what a deed is about need not wait for sixty others. ``Gone`` where one student is
    asked for who was never here, or is taken out in this moment (a list undone).
    """
    calendar = calendar or school_calendar()
    today = calendar.local_day(now)
    of_group = members(group_id, today, enrolments=enrolments)
    if enrolments is not None and len(enrolments) == 1 and not of_group:
        raise Gone("This student was taken out of the class.", fix="Load the page again.")
    handins = handins_of_group(group_id, handin)
    facts = _facts(group_id, enrolments, handin)
    contents = contents_of_group(group_id, enrolments)
    ids = [one.enrolment_id for one in of_group]
    at_work: dict[int, set[int]] = defaultdict(set)
    for (enrolment, pocket), content in contents.items():
        if content.has_work:
            at_work[pocket].add(enrolment)
    columns = []
    for one_asked in handins:
        working = set().union(*(at_work[pocket] for pocket in one_asked.pockets))
        columns.append(_judged(one_asked, ids, one_asked.answers(of_group, calendar), facts, working, calendar, now))
    laid_out = outline(group_id)
    each_week = any(pocket.wanted.rows_per_week for pocket in laid_out)
    return Situation(
        now,
        today,
        calendar,
        of_group,
        laid_out,
        handins,
        facts,
        contents,
        frozen_wants(group_id, enrolments),
        columns,
        class_weeks(group_id, calendar) if each_week or with_weeks else (),
    )


def _judged(
    handin: AskedHandIn,
    ids: Sequence[int],
    answers: list[Answer],
    facts: Mapping[Cell, Facts],
    working: Collection[int],
    calendar: SchoolCalendar,
    now: datetime,
) -> Column:
    """One hand-in of these enrolments, judged; ``working`` are those with work in what it collects."""
    mine = [facts.get((one, handin.id)) for one in ids]
    counting = [one and by_newest(one) for one in mine] if handin.again else mine
    told = [
        (found, answer.asked or stays_asked(False, found), answer.due.moment, one in working)
        for one, found, answer in zip(ids, counting, answers, strict=True)
    ]
    standings = judge_column(told, opens=handin.opening(calendar), now=now, calendar=calendar)
    return Column(mine, answers, standings)


def as_if(view: Situation, handin: AskedHandIn) -> Column:
    """A column as it would stand with the hand-in like this."""
    answers = handin.answers(view.members, view.calendar)
    ids = [member.enrolment_id for member in view.members]
    working = {
        enrolment
        for (enrolment, pocket), content in view.contents.items()
        if content.has_work and pocket in handin.pockets
    }
    return _judged(handin, ids, answers, view.facts, working, view.calendar, view.now)


def _facts(group_id: int, enrolments: Collection[int] | None, handin_id: int | None) -> dict[Cell, Facts]:
    rows = _FACTS.run(group_id, enrolments) if handin_id is None else _FACTS_OF_ONE.run(handin_id, enrolments)
    return {
        (enrolment, handin): Facts(first, newest, at, count, _OUTCOMES[outcome], again, excused)
        for enrolment, handin, first, newest, at, count, outcome, again, excused in rows
    }


# Laid out once: working out the columns took longer than fetching the rows.
_FACTS_ROWS = KeptFacts.objects.values_list(
    "enrolment_id",
    "handin_id",
    quick("first_at"),
    "newest",
    quick("newest_at"),
    "submissions",
    "outcome",
    quick("due_again"),
    "excused",
)
_FACTS = OfGroup(_FACTS_ROWS, "handin__group_id", "enrolment_id")
_FACTS_OF_ONE = OfGroup(_FACTS_ROWS, "handin_id", "enrolment_id")
_OUTCOMES: dict[str | None, Status | None] = {None: None, **{one.value: one for one in Status}}


def facts_in(situation: Situation, enrolment_id: int, handin_id: int) -> Facts:
    """The facts of one cell; those of nothing where there are none."""
    return situation.facts.get((enrolment_id, handin_id), NOTHING)
