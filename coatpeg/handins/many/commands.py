"""Excusing many, moving the due dates of many: each one deed, with a line in the history of everybody it touches.

Decided here: the events of one deed carry its name (``deed``), so that a history says what belongs together, and every
student's own history and the recount stay whole without it. What was before goes back to whoever did it, for the undo.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import uuid4

from coatpeg.core.errors import Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.many import MOST_DAYS, Move, Why, moved, why_not_excuse, why_not_move
from coatpeg.core.handins.standing import Status, Verb
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked.asking import handins_of_group
from coatpeg.handins.board.situation import Situation, facts_in
from coatpeg.handins.handing.holding import Held, release, take
from coatpeg.handins.many.choosing import Chosen, Seen, Touched, by_handin, sorted_out
from coatpeg.handins.models import HandIn, KeptFacts, OwnDue
from coatpeg.notices.putting import put_many
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import check_class_days
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.models import StandingHold
from coatpeg.portfolios.writing import lock_portfolios

Cell = tuple[int, int]
"""(enrolment id, hand-in id)"""


@dataclass(frozen=True, slots=True)
class Before:
    """A student's own due date before a deed; None where they had none."""

    handin: int
    enrolment: int
    own: Due | None


def excuse_many(
    person: Person, group_id: int, seen: Sequence[Seen], now: datetime, *, excused: bool, only_look: bool = False
) -> Touched:
    """Excuse students from hand-ins, or end that; with ``only_look`` nothing is done."""
    require_in_group(person, Action.EXCUSE, group_id)

    def why_not(_: Situation, one: Chosen) -> Why | None:
        return why_not_excuse(one.status, excused=excused)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2]
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        _keep_excused([one.cell for one in done], excused=excused)
        name = str(uuid4())
        for handin_id, of in by_handin(done).items():
            handin = HandIn.objects.get(pk=handin_id)
            mine = frozenset(of[0].handin.pockets)
            changed = _holds(view, handin, of, now, excused=excused)
            for one in of:
                enrolment = one.member.enrolment_id
                doing.record(
                    (Verb.EXCUSED if excused else Verb.UNEXCUSED).value,
                    group_id,
                    enrolment_id=enrolment,
                    handin_id=handin_id,
                    pockets=sorted(mine if excused else changed.get(enrolment, ())),
                    deed=name,
                )
        return touched


def _keep_excused(cells: list[Cell], *, excused: bool) -> None:
    """Keep the one fact that this moves: of those who have facts already, and new ones for those who have none."""
    by_handin: dict[int, set[int]] = defaultdict(set)
    for enrolment, handin in cells:
        by_handin[handin].add(enrolment)
    for handin, enrolments in by_handin.items():
        kept = KeptFacts.objects.filter(handin_id=handin, enrolment_id__in=enrolments)
        there = set(kept.values_list("enrolment_id", flat=True))
        kept.update(excused=excused)
        KeptFacts.objects.bulk_create(
            [KeptFacts(handin_id=handin, enrolment_id=one, excused=excused) for one in sorted(enrolments - there)],
            batch_size=500,
        )


def _holds(
    view: Situation, handin: HandIn, of: list[Chosen], now: datetime, *, excused: bool
) -> Mapping[int, set[int]]:
    """Let go of the holds of who is excused; take those of whose excuse ends and who has handed in. By enrolment."""
    if excused:
        rows = StandingHold.objects.filter(handin_id=handin.pk)
        held: list[Held] = release(rows.filter(portfolio__enrolment_id__in=[one.member.enrolment_id for one in of]))
    else:
        stands = []
        for one in of:
            facts = facts_in(view, *one.cell)
            if facts.newest is not None and facts.outcome is not Status.SENT_BACK:
                stands += [(one.member.enrolment_id, pocket) for pocket in one.handin.pockets]
        held = take(handin, stands, now)
    found: dict[int, set[int]] = defaultdict(set)
    for enrolment, pocket in held:
        found[enrolment].add(pocket)
    return found


def move_dues(
    person: Person, group_id: int, seen: Sequence[Seen], move: Move, now: datetime, *, only_look: bool = False
) -> tuple[Touched, list[Before]]:
    """Give students due dates of their own; what was before comes back, for the undo."""
    require_in_group(person, Action.SET_OWN_DUE, group_id)
    _check(group_id, move)

    def why_not(view: Situation, one: Chosen) -> Why | None:
        return why_not_move(one.status, one.due, moved(one.due, move, view.calendar), one.handin.asked.opens)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2], []
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        before = [Before(one.handin.id, one.member.enrolment_id, one.handin.own.get(one.cell[0])) for one in done]
        dues = {one.cell: moved(one.due, move, view.calendar) for one in done}
        _write(doing, group_id, dues)
        return touched, before


def _check(group_id: int, move: Move) -> None:
    if move.to is not None:
        check_class_days(group_id, day=move.to.day)
    elif not 1 <= move.days <= MOST_DAYS:
        raise Invalid(
            f"{move.days} is no number of school days to add.",
            where="days",
            fix=f"Give a number from 1 to {MOST_DAYS}, or a day.",
        )


def restore_dues(person: Person, group_id: int, before: Sequence[Before], now: datetime) -> int:
    """Put own due dates back as they were; returns how many. What is gone meanwhile is passed over."""
    require_in_group(person, Action.SET_OWN_DUE, group_id)
    check_class_days(group_id, day=max((one.own.day for one in before if one.own), default=None))
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        enrolments = set(Enrolment.objects.filter(group_id=group_id).values_list("pk", flat=True))
        handins = {one.id for one in handins_of_group(group_id)}
        there = (one for one in before if one.enrolment in enrolments and one.handin in handins)
        dues = {(one.enrolment, one.handin): one.own for one in there}
        _write(doing, group_id, dues)
        return len(dues)


def _write(doing: Deed, group_id: int, dues: Mapping[Cell, Due | None]) -> None:
    """Write own due dates, a line of history and a notice for each; None takes one away."""
    by_handin: dict[int, list[int]] = defaultdict(list)
    for enrolment, handin in dues:
        by_handin[handin].append(enrolment)
    for handin, enrolments in by_handin.items():
        OwnDue.objects.filter(handin_id=handin, enrolment_id__in=enrolments).delete()
    OwnDue.objects.bulk_create(
        [
            OwnDue(handin_id=handin, enrolment_id=enrolment, day=due.day, at=due.at)
            for (enrolment, handin), due in dues.items()
            if due is not None
        ],
        batch_size=500,
    )
    name = str(uuid4())
    for (enrolment, handin), due in dues.items():
        day = due.day.isoformat() if due else None
        doing.record("own_due_set", group_id, enrolment_id=enrolment, handin_id=handin, day=day, deed=name)
    put_many(
        doing,
        "own_due_set",
        group_id,
        [{"enrolment": enrolment, "handin": handin} for (enrolment, handin), due in dues.items() if due is not None],
    )
