"""What was chosen on the board, as it stands now; and what is said of those that are left alone."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime

from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.many import Why, still
from coatpeg.core.handins.standing import Status
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.people.rosters import Member

NAMED = 12
"""So many of those left alone are named; the others are counted."""


@dataclass(frozen=True, slots=True)
class Seen:
    """A cell as it was chosen: whose, of which hand-in, and how it stood."""

    handin: int
    enrolment: int
    status: Status


@dataclass(frozen=True, slots=True)
class Chosen:
    """A cell as it stands now."""

    handin: AskedHandIn
    member: Member
    status: Status
    due: Due | None

    @property
    def cell(self) -> tuple[int, int]:
        """(enrolment id, hand-in id)"""
        return self.member.enrolment_id, self.handin.id


def by_handin(cells: Iterable[Chosen]) -> dict[int, list[Chosen]]:
    """Cells by their hand-in, in their order."""
    found: dict[int, list[Chosen]] = defaultdict(list)
    for one in cells:
        found[one.handin.id].append(one)
    return found


@dataclass(frozen=True, slots=True)
class Left:
    """Cells that a deed leaves alone for one reason; some of them by name."""

    why: Why
    cells: int
    names: list[str]


@dataclass(frozen=True, slots=True)
class Touched:
    """What a deed does, or would do: so many cells of so many students, and what it leaves alone."""

    cells: int
    students: int
    left: list[Left]


def sorted_out(
    group_id: int, seen: Iterable[Seen], now: datetime, why_not: Callable[[Situation, Chosen], Why | None]
) -> tuple[Situation, list[Chosen], Touched]:
    """The chosen cells that can be done, once each in the order of the class list, and what is said of all of them."""
    view = situation(group_id, now)
    members = {one.enrolment_id: one for one in view.members}
    handins = {one.id: one for one in view.handins}
    done: list[Chosen] = []
    left: dict[Why, list[str]] = defaultdict(list)
    for one in dict.fromkeys(seen):
        member, handin = members.get(one.enrolment), handins.get(one.handin)
        if member is None or handin is None:
            left[Why.GONE].append(member.listed if member else handin.title if handin else "")
            continue
        cell = (one.enrolment, one.handin)
        found = Chosen(handin, member, view.standings[cell].status, view.dues[cell].due)
        why = why_not(view, found) if still(one.status, found.status) else Why.CHANGED
        if why is None:
            done.append(found)
        else:
            left[why].append(member.listed)
    said = [Left(why, len(names), sorted(set(names) - {""})[:NAMED]) for why, names in left.items()]
    order = {one.enrolment_id: place for place, one in enumerate(view.members)}
    done.sort(key=lambda one: (order[one.member.enrolment_id], one.handin.order))
    return view, done, Touched(len(done), len({one.member.enrolment_id for one in done}), said)
