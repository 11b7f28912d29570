"""Staff lock pockets of students and open them: from the pegs, from one portfolio, from the template.

Decided here: a lock of the staff's own stays until staff open the pocket, also over a *sent back*. Opening lets go of
every hold on the pocket, a hand-in's too: what was handed in stays handed in as it was, and work goes on. In a log the
rows that lie there are locked, new ones stay possible, as everywhere. Each student's history has a line.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import uuid4

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.handins.locking import STAFF
from coatpeg.core.handins.many import Why, why_not_lock
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.handing.holding import Held
from coatpeg.handins.many.choosing import NAMED, Chosen, Left, Seen, Touched, sorted_out
from coatpeg.handins.many.holds import hold
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.models import StandingHold
from coatpeg.portfolios.writing import lock_portfolios

LONGEST_REASON = 200


@dataclass(frozen=True, slots=True)
class Locking:
    """What is asked: locked or open, and why in the person's words."""

    locked: bool
    reason: str = ""

    def checked(self) -> Locking:
        """The same, tidied; ``Invalid`` where the reason is too long."""
        reason = " ".join(self.reason.split())
        if len(reason) > LONGEST_REASON:
            raise Invalid(
                f"The reason has {len(reason)} characters; {LONGEST_REASON} is the most.",
                where="reason",
                fix="Shorten it. What you wrote stays in the field.",
            )
        return Locking(self.locked, reason)


@dataclass(frozen=True, slots=True)
class LockedPockets:
    """What was done, or would be: ``deed`` names it for its undo; of what is opened, so many were handed in."""

    touched: Touched
    handed_in: int
    deed: str


Holds = Mapping[Held, frozenset[int]]
"""The hand-ins (0: staff) that hold a pocket, by (enrolment id, pocket id)."""


Find = Callable[[Holds], tuple[Situation, list[Held], Touched]]
"""Which pockets, given what holds them now."""


def _holds(group_id: int) -> Holds:
    found: dict[Held, set[int]] = defaultdict(set)
    rows = StandingHold.objects.filter(portfolio__enrolment__group_id=group_id)
    for enrolment, pocket, handin in rows.values_list("portfolio__enrolment_id", "pocket_id", "handin_id"):
        found[enrolment, pocket].add(handin)
    return {place: frozenset(of) for place, of in found.items()}


def _is_so(holds: Holds, place: Held, *, locked: bool) -> bool:
    """Whether a pocket is locked by staff already, or open already."""
    of = holds.get(place, frozenset())
    return STAFF in of if locked else not of


def lock_cells(
    person: Person, group_id: int, seen: Sequence[Seen], what: Locking, now: datetime, *, only_look: bool = False
) -> LockedPockets:
    """Lock or open what chosen cells collect."""
    require_in_group(person, Action.LOCK_POCKETS, group_id)
    what = what.checked()

    def places(one: Chosen) -> list[Held]:
        return [(one.member.enrolment_id, pocket) for pocket in one.handin.pockets]

    def find(holds: Holds) -> tuple[Situation, list[Held], Touched]:
        def why_not(_: Situation, one: Chosen) -> Why | None:
            already = all(_is_so(holds, place, locked=what.locked) for place in places(one))
            return why_not_lock(one.status, already=already)

        view, done, touched = sorted_out(group_id, seen, now, why_not)
        return view, [place for one in done for place in places(one)], touched

    return _do(person, group_id, find, what, now, only_look=only_look)


def lock_pocket(
    person: Person,
    group_id: int,
    pocket_id: int,
    enrolments: Collection[int] | None,
    what: Locking,
    now: datetime,
    *,
    only_look: bool = False,
) -> LockedPockets:
    """Lock or open one pocket, of some students or (None) of everybody who is in the class now."""
    require_in_group(person, Action.LOCK_POCKETS, group_id)
    what = what.checked()

    def find(holds: Holds) -> tuple[Situation, list[Held], Touched]:
        view = situation(group_id, now)
        if all(one.id != pocket_id for one in view.outline):
            raise Gone("There is no such pocket in this class.", fix="Load the page again.")
        wanted = {one.enrolment_id for one in view.members} if enrolments is None else set(enrolments)
        of = [one for one in view.members if one.enrolment_id in wanted]
        so = [one for one in of if _is_so(holds, (one.enrolment_id, pocket_id), locked=what.locked)]
        done = [one for one in of if one not in so]
        left = [Left(Why.ALREADY, len(so), [one.listed for one in so][:NAMED])] if so else []
        if len(of) < len(wanted):
            left.append(Left(Why.GONE, len(wanted) - len(of), []))
        return view, [(one.enrolment_id, pocket_id) for one in done], Touched(len(done), len(done), left)

    return _do(person, group_id, find, what, now, only_look=only_look)


def _do(person: Person, group_id: int, find: Find, what: Locking, now: datetime, *, only_look: bool) -> LockedPockets:
    if only_look:
        holds = _holds(group_id)
        _, places, touched = find(holds)
        return LockedPockets(touched, _handed_in(holds, places, what), "")
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        holds = _holds(group_id)
        view, places, touched = find(holds)
        places = [one for one in dict.fromkeys(places) if not _is_so(holds, one, locked=what.locked)]
        name = str(uuid4())
        if what.locked:
            taken = hold(view, places, now, person=person, reason=what.reason)
            record(doing, group_id, "pockets_locked", [(*one, STAFF) for one in taken], name, what.reason)
        else:
            let_go(places)
            released = [(*one, handin) for one in places for handin in sorted(holds[one])]
            record(doing, group_id, "pockets_unlocked", released, name, what.reason)
        return LockedPockets(touched, _handed_in(holds, places, what), name)


def _handed_in(holds: Holds, places: Sequence[Held], what: Locking) -> int:
    return 0 if what.locked else sum(1 for one in set(places) if holds.get(one, frozenset()) - {STAFF})


def let_go(places: Sequence[Held]) -> None:
    """Let go of every hold on these pockets: one statement for each pocket."""
    by_pocket: dict[int, list[int]] = defaultdict(list)
    for enrolment, pocket in places:
        by_pocket[pocket].append(enrolment)
    for pocket, enrolments in by_pocket.items():
        StandingHold.objects.filter(pocket_id=pocket, portfolio__enrolment_id__in=enrolments).delete()


def record(
    doing: Deed, group_id: int, verb: str, holds: Sequence[tuple[int, int, int]], name: str, reason: str = ""
) -> None:
    """A line in the history of everybody whose holds (enrolment, pocket, hand-in) were taken or let go of."""
    by_student: dict[int, list[tuple[int, int]]] = defaultdict(list)
    for enrolment, pocket, handin in holds:
        by_student[enrolment].append((pocket, handin))
    for enrolment, of in by_student.items():
        doing.record(verb, group_id, enrolment_id=enrolment, holds=of, deed=name, reason=reason)
