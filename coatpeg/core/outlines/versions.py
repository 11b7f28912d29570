"""One pocket, several versions of its directions and starter, and which student has which.

Dealt by surname range, by period, by working group, at random or by hand. Source of the ranges' rule: the product's
*Names* ("ranges that leave a letter out or overlap are refused with the gap named and the students it would leave
out"); names fall into ranges by the primary weights of the collation that lists them (UTS #10, root order), so
*Ångström* is under A and *de Souza* under D. Decided here:

* A range's ends are one to three letters of A–Z; "Ma" to "N" takes everything from *Ma…* to *N…*. Whoever sorts
  before A or behind Z (another script, say) has the first or the last range, as the list shows it.
* Dealing at random is balanced: of each version as many as of every other, give or take one. It is drawn from the
  seed, so that it can be told again; whoever comes later gets one of those that are had least.
* Who is in no period or group that a version names has the first version, and is told of.
* Whoever has work in the pocket keeps the version they have.
"""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.people.names import primary_weights

FEWEST, MOST = 2, 12
LONGEST_NAME = 60
LONGEST_KEY = 36
LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
LONGEST_BOUND = 3


class DealtBy(StrEnum):
    """How versions are dealt."""

    SURNAME = "surname"
    PERIOD = "period"
    GROUP = "group"
    RANDOM = "random"
    HAND = "hand"


@dataclass(frozen=True, slots=True)
class Version:
    """One version: ``first`` to ``last`` of surnames, or the ids of the periods or groups that have it."""

    key: str
    name: str
    directions: str = ""
    starter: str = ""
    first: str = ""
    last: str = ""
    places: frozenset[int] = frozenset()


@dataclass(frozen=True, slots=True)
class VariantPlan:
    """The versions of a pocket and how they are dealt; ``seed`` is for dealing at random."""

    by: DealtBy
    versions: tuple[Version, ...]
    seed: int = 0

    def checked(self, longest_directions: int, longest_starter: int) -> VariantPlan:
        """The same, tidied; ``Invalid`` names the version and the fix. Ranges are judged by ``refuse_ranges``."""
        if not FEWEST <= len(self.versions) <= MOST:
            raise Invalid(
                f"A pocket has {FEWEST} to {MOST} versions, or none.",
                where="variants",
                fix="Add one, or let everybody have the same.",
            )
        found = tuple(self._version(one, place) for place, one in enumerate(self.versions, 1))
        for one in found:
            if len(one.directions) > longest_directions or len(one.starter) > longest_starter:
                raise Invalid(f"A text of “{one.name}” is too long.", where=one.name, fix="Shorten it.")
        keys = [one.key for one in found]
        names = [one.name.casefold() for one in found]
        if len(set(keys)) < len(keys) or len(set(names)) < len(names):
            raise Invalid("Two versions have the same name.", where="variants", fix="Give one another name.")
        twice = [place for place, times in Counter(of for one in found for of in one.places).items() if times > 1]
        if twice:
            word = "period" if self.by is DealtBy.PERIOD else "group"
            raise Invalid(f"A {word} is in two versions.", where="variants", fix="Let each stand in one.")
        return VariantPlan(self.by, found, self.seed)

    def _version(self, one: Version, place: int) -> Version:
        name = " ".join(one.name.split()) or f"Version {place}"
        if len(name) > LONGEST_NAME or not 0 < len(one.key) <= LONGEST_KEY:
            raise Invalid(f"The name of version {place} is too long.", where=name[:40], fix="Shorten it.")
        by_name = self.by is DealtBy.SURNAME
        return Version(
            one.key,
            name,
            one.directions.strip(),
            one.starter,
            _bound(one.first, name) if by_name else "",
            _bound(one.last, name) if by_name else "",
            one.places if self.by in (DealtBy.PERIOD, DealtBy.GROUP) else frozenset(),
        )

    def version(self, key: str) -> Version:
        """A version by its key; the first where there is none of it."""
        return next((one for one in self.versions if one.key == key), self.versions[0])


def _bound(text: str, name: str) -> str:
    bound = text.strip().upper()
    if not 0 < len(bound) <= LONGEST_BOUND or any(letter not in LETTERS for letter in bound):
        raise Invalid(
            f"“{text.strip()[:20]}” is no end of a range." if bound else f"The range of “{name}” has an open end.",
            where=name,
            fix=f"Give one to {LONGEST_BOUND} letters from A to Z.",
        )
    return bound


@dataclass(frozen=True, slots=True)
class RangeFault:
    """Letters that no range has, or that two have; and the students it would leave out or deal twice."""

    missing: bool
    first: str
    last: str
    students: tuple[int, ...]

    @property
    def letters(self) -> str:
        """``H``, or ``H–J``."""
        first, last = self.first.capitalize(), self.last.capitalize()
        return first if first == last else f"{first}–{last}"


def range_faults(plan: VariantPlan, surnames: Mapping[int, str]) -> tuple[RangeFault, ...]:
    """Every gap and overlap of surname ranges, with the ids of the students in it."""
    ordered = sorted(plan.versions, key=lambda one: (_start(one.first), _end(one.last)))
    weights = {student: primary_weights(name) for student, name in surnames.items()}
    found = [_fault("", _start(ordered[0].first), weights)]
    reached = _end(ordered[0].last)
    for one in ordered[1:]:
        found.append(_fault(reached, _start(one.first), weights))
        reached = max(reached, _end(one.last))
    found.append(_fault(reached, BEYOND, weights))
    backwards = [
        RangeFault(True, one.first, one.last, ()) for one in plan.versions if _end(one.last) <= _start(one.first)
    ]
    return (*backwards, *(one for one in found if one))


BEYOND = "["
"""Sorts behind Z."""


def _start(bound: str) -> str:
    """Where a range begins: "Ha" begins where H does."""
    return bound.upper().rstrip("A")


def _end(bound: str) -> str:
    """Where the next one has to begin: behind "G" comes "H", behind "Mz" comes "N"."""
    stem = bound.upper().rstrip("Z")
    return stem[:-1] + chr(ord(stem[-1]) + 1) if stem else BEYOND


def _fault(reached: str, begins: str, weights: Mapping[int, tuple[int, ...]]) -> RangeFault | None:
    if reached == begins:
        return None
    missing = reached < begins
    first, behind = (reached, begins) if missing else (begins, reached)
    low, high = primary_weights(first), primary_weights(behind) if behind != BEYOND else None
    students = tuple(one for one, key in weights.items() if low <= key and (high is None or key < high))
    return RangeFault(missing, first or "A", _before(behind), students)


def _before(behind: str) -> str:
    """The last letters before a bound: before "K" stands "J"."""
    if behind == BEYOND:
        return "Z"
    return behind[:-1] + chr(ord(behind[-1]) - 1) if behind[-1] != "A" else behind[:-1] or "A"


def refuse_ranges(plan: VariantPlan, names: Mapping[int, tuple[str, str]]) -> None:
    """Refuse ranges with a gap or an overlap, naming the letters and the students. ``names``: surname, listed name."""
    faults = range_faults(plan, {student: surname for student, (surname, _) in names.items()})
    if not faults:
        return
    fault = faults[0]
    hit = "; ".join(names[one][1] for one in fault.students[:10])
    what = f"No version has {fault.letters}." if fault.missing else f"Two versions have {fault.letters}."
    if hit:
        what += f" It {'leaves out' if fault.missing else 'hits twice'}: {hit}."
    raise Invalid(what, where="variants", fix="Let the ranges follow each other from A to Z.")


@dataclass(frozen=True, slots=True)
class Holder:
    """A student as dealing sees them."""

    id: int
    surname: str
    period: int | None = None
    groups: frozenset[int] = frozenset()


def dealt(plan: VariantPlan, holders: Sequence[Holder], kept: Mapping[int, str]) -> dict[int, str]:
    """Which version (by key) each student has. ``kept`` stays as it is where that version still is there."""
    keys = [one.key for one in plan.versions]
    found = {one.id: kept[one.id] for one in holders if kept.get(one.id) in keys}
    rest = [one for one in holders if one.id not in found]
    if plan.by is DealtBy.RANDOM:
        return found | _at_random(plan.seed, keys, [one.id for one in rest], Counter(found.values()))
    if plan.by is DealtBy.SURNAME:
        return found | _by_surname(plan, rest)
    if plan.by is DealtBy.HAND:
        return found | {one.id: keys[0] for one in rest}
    return found | {one.id: _by_place(plan, one) or keys[0] for one in rest}


def _at_random(seed: int, keys: Sequence[str], students: Iterable[int], had: Counter[str]) -> dict[int, str]:
    """Balanced: the students in an order drawn from the seed, each time one of the versions that are had least."""
    dealer = random.Random(f"versions {seed}")
    order = sorted(students)
    dealer.shuffle(order)
    found = {}
    for student in order:
        least = min(had[key] for key in keys)
        key = dealer.choice([one for one in keys if had[one] == least])
        found[student] = key
        had[key] += 1
    return found


def _by_surname(plan: VariantPlan, students: Iterable[Holder]) -> dict[int, str]:
    ordered = sorted(plan.versions, key=lambda one: _start(one.first))
    starts = [(primary_weights(_start(one.first)), one.key) for one in ordered]
    found = {}
    for student in students:
        weights = primary_weights(student.surname)
        found[student.id] = next((key for start, key in reversed(starts) if start <= weights), starts[0][1])
    return found


def _by_place(plan: VariantPlan, student: Holder) -> str | None:
    places = {student.period} if plan.by is DealtBy.PERIOD else student.groups
    return next((one.key for one in plan.versions if one.places & places), None)


def nowhere(plan: VariantPlan, holders: Iterable[Holder]) -> tuple[int, ...]:
    """The students that no version names by their period or group."""
    if plan.by not in (DealtBy.PERIOD, DealtBy.GROUP):
        return ()
    return tuple(one.id for one in holders if _by_place(plan, one) is None)


def variants_to_data(plan: VariantPlan | None) -> dict[str, Any] | None:
    """A plan as plain data."""
    if plan is None:
        return None
    return {
        "by": plan.by.value,
        "seed": plan.seed,
        "versions": [
            {
                "key": one.key,
                "name": one.name,
                "directions": one.directions,
                "starter": one.starter,
                "first": one.first,
                "last": one.last,
                "places": sorted(one.places),
            }
            for one in plan.versions
        ],
    }


def variants_from_data(data: Mapping[str, Any] | None) -> VariantPlan | None:
    """The reverse of ``variants_to_data``."""
    if not data:
        return None
    versions = tuple(Version(**{**one, "places": frozenset(one.get("places", ()))}) for one in data["versions"])
    return VariantPlan(DealtBy(data["by"]), versions, data.get("seed", 0))


def for_a_copy(plan: VariantPlan) -> VariantPlan:
    """The same for another class, which has other people: what was dealt by place or hand is dealt at random there."""
    if plan.by in (DealtBy.SURNAME, DealtBy.RANDOM):
        return plan
    versions = tuple(Version(one.key, one.name, one.directions, one.starter) for one in plan.versions)
    return VariantPlan(DealtBy.RANDOM, versions, plan.seed)
