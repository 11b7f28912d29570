"""Forming all groups of a set at random: shown first, then done as it was shown.

Decided here: everybody who is in the class today is drawn; the groups that a set has keep their names and are filled
in the order in which they were made, more are made where they do not suffice, and those that nobody is drawn into
stay, empty.
"""

from __future__ import annotations

import hashlib
import json
import secrets
from dataclasses import dataclass
from datetime import datetime

from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.people.grouping import Mixing, Wishes, draw
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.people.calendars import school_calendar
from coatpeg.people.groups import FIRST_SET
from coatpeg.people.models import GroupSet, Person, WorkingGroup
from coatpeg.setup.groups import sets
from coatpeg.setup.roster.memberships import LONGEST_PLACE, locked_group

LARGEST_SEED = 2**31 - 1
LARGEST = 200


@dataclass(frozen=True, slots=True)
class Asked:
    """What is drawn: groups of about a size, mixed how, by which seed (None: any)."""

    size: int
    mixing: Mixing
    seed: int | None = None


@dataclass(frozen=True, slots=True)
class Drawn:
    """A draw as it is shown; ``seen`` names it when it is done."""

    seed: int
    groups: list[tuple[str, list[int]]]
    """Names with the enrolments."""
    seen: str


def preview(person: Person, set_id: int, asked: Asked, now: datetime) -> Drawn:
    """The groups that a draw makes; nothing is written."""
    of = sets.set_of(person, Action.KEEP_ROSTER, set_id)
    return _drawn(of, asked, now)


def _drawn(of: GroupSet, asked: Asked, now: datetime) -> Drawn:
    if not 1 <= asked.size <= LARGEST:
        raise Invalid(f"{asked.size} is no size of a group.", where="size", fix=f"Give a number from 1 to {LARGEST}.")
    seed = secrets.randbelow(LARGEST_SEED) if asked.seed is None else asked.seed
    students = sets.here(of.group_id, school_calendar().local_day(now))
    wishes = Wishes(tuple(map(frozenset, of.apart)), tuple(map(frozenset, of.together)))
    found = draw(
        {one.enrolment_id: one.period_id for one in students},
        asked.size,
        seed,
        asked.mixing,
        wishes,
        {one.enrolment_id: one.full_name for one in students},
    )
    if len(found) > sets.MOST_GROUPS:
        raise Invalid(
            f"That makes {len(found)} groups; {sets.MOST_GROUPS} is the most.", where="size", fix="More in a group."
        )
    named = list(zip(_names(of, len(found)), found, strict=True))
    return Drawn(seed, named, hashlib.sha256(json.dumps([of.pk, named]).encode()).hexdigest()[:32])


def _names(of: GroupSet, number: int) -> list[str]:
    """The names of a set's groups in their order, and as many new ones as are missing."""
    found = list(WorkingGroup.objects.filter(of=of).order_by("pk").values_list("name", flat=True))[:number]
    taken = {name.casefold() for name in WorkingGroup.objects.filter(group=of.group_id).values_list("name", flat=True)}
    stem = "Group" if of.name == FIRST_SET else of.name[: LONGEST_PLACE - 4]
    width = len(str(number))
    place = 0
    while len(found) < number:
        place += 1
        name = f"{stem} {place:0{width}}"
        if name.casefold() not in taken:
            found.append(name)
    return found


def form(person: Person, set_id: int, asked: Asked, seen: str, now: datetime) -> int | None:
    """Put everybody where a draw that was shown put them; the change that undoes it.

    Where the class, its groups or the wishes are others by now, nothing is written.
    """
    of = sets.set_of(person, Action.KEEP_ROSTER, set_id)
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        of = GroupSet.objects.select_related("group").get(pk=set_id)
        drawn = _drawn(of, asked, now)
        if asked.seed is None or drawn.seen != seen:
            raise Stale(
                "The class, its groups or the wishes have changed since you looked at this draw.",
                where="draw",
                fix="Draw again.",
            )
        standing = {one.name: one for one in WorkingGroup.objects.filter(of=of)}
        wanted: dict[int, WorkingGroup | None] = {}
        for name, students in drawn.groups:
            if name not in standing:
                standing[name] = WorkingGroup.objects.create(group_id=of.group_id, of=of, name=name)
            wanted |= dict.fromkeys(students, standing[name])
        of.seed = drawn.seed
        of.save(update_fields=["seed"])
        change = sets.put(doing, person, of, wanted)
        doing.record("groups_changed", of.group_id, set=of.pk)
        return change
