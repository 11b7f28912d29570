"""Drawing groups at random: sizes that differ by one at most, balanced over periods, some kept apart or together.

Decided here: a draw is the same for the same seed, students and wishes. Groups *within* periods are of students who
are in the room at one time; groups *across* periods have of each period as near the same number as can be. Without
wishes every division that fits is as likely as any other; with wishes as many students change places as must. A group
of three asked of ten students makes three groups (4, 3, 3): the number of groups is the nearest, and no group is of
one where two would do (common practice). Wishes that contradict each other are refused by name, before anything is
drawn.
"""

from __future__ import annotations

import random
from collections import Counter, defaultdict
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum

from coatpeg.core.errors import Invalid

MOST_TRIES, LEAST_TRIES = 60, 4
"""Draws that are begun before a way is said not to be found: wishes that can be kept need one or two. Fewer of a whole
year group, where each takes longer."""
MOST_AT_ALL = 6_000
"""Students that are dealt in all tries together."""
MOST_WISHES = 200
LOOKED_AT = 100
"""Students whom a change of places is tried with first: more than a class has, and few of a year group."""


class Mixing(StrEnum):
    """How groups lie to periods."""

    WITHIN = "within"
    ACROSS = "across"


@dataclass(frozen=True, slots=True)
class Wishes:
    """Who is never in one group, and who always is: sets of two or more students."""

    apart: tuple[frozenset[int], ...] = ()
    together: tuple[frozenset[int], ...] = ()

    def of(self, students: Collection[int]) -> Wishes:
        """What of them is about some students: whoever is not among them is left out of a wish."""
        here = frozenset(students)
        apart = tuple(one & here for one in self.apart if len(one & here) > 1)
        return Wishes(apart, tuple(one & here for one in self.together if len(one & here) > 1))


def number_of_groups(students: int, size: int) -> int:
    """The number of groups nearest to a wanted size; at least one where there is anybody."""
    if not students:
        return 0
    return max(1, (2 * students + size) // (2 * size))


def draw(
    students: Mapping[int, int | None],
    size: int,
    seed: int,
    mixing: Mixing,
    wishes: Wishes,
    names: Mapping[int, str],
) -> list[list[int]]:
    """Groups of about ``size`` of students (by id, with the id of their period), in no order that means anything.

    ``Invalid`` names who cannot be kept together or apart.
    """
    if size < 1:
        raise Invalid(f"{size} is no size of a group.", where="size", fix="Give a number from 1 on.")
    rng = random.Random(seed)  # nothing secret: a draw that can be made again
    if mixing is Mixing.ACROSS:
        return _pool(students, number_of_groups(len(students), size), rng, wishes.of(students), names)
    pools: dict[int | None, dict[int, int | None]] = defaultdict(dict)
    for student, period in sorted(students.items()):
        pools[period][student] = period
    for wish in wishes.of(students).together:
        if len({students[one] for one in wish}) > 1:
            raise Invalid(
                f"{_named(wish, names)} are kept together, but are in different periods.",
                where="together",
                fix="Mix the periods, or take this wish out.",
            )
    found: list[list[int]] = []
    for period in sorted(pools, key=lambda one: (one is None, one or 0)):
        pool = pools[period]
        found += _pool(pool, number_of_groups(len(pool), size), rng, wishes.of(pool), names)
    return found


def _pool(
    students: Mapping[int, int | None], groups: int, rng: random.Random, wishes: Wishes, names: Mapping[int, str]
) -> list[list[int]]:
    if not groups:
        return []
    blocks = _blocks(students, wishes)
    _refuse_contradictions(len(students), groups, wishes, blocks, names)
    for _ in range(max(LEAST_TRIES, min(MOST_TRIES, MOST_AT_ALL // max(1, len(students))))):
        division = _dealt(students, groups, rng)
        if _mended(division, students, wishes, blocks, rng):
            rng.shuffle(division)
            return [sorted(one) for one in division]
    wished = frozenset().union(*wishes.apart, *wishes.together)
    raise Invalid(
        f"No way was found to make {groups} groups so that all wishes about {_named(wished, names)} are kept.",
        where="apart",
        fix="Make more groups, or take a wish out.",
    )


def _blocks(students: Iterable[int], wishes: Wishes) -> dict[int, frozenset[int]]:
    """With whom each student must be, themselves among them: wishes that share a student are one."""
    block = {one: frozenset({one}) for one in students}
    for wish in wishes.together:
        merged = frozenset().union(*(block[one] for one in wish))
        block.update(dict.fromkeys(merged, merged))
    return block


def _refuse_contradictions(
    count: int, groups: int, wishes: Wishes, blocks: Mapping[int, frozenset[int]], names: Mapping[int, str]
) -> None:
    largest = -(-count // groups)
    for block in set(blocks.values()):
        if len(block) > largest:
            raise Invalid(
                f"{_named(block, names)} are kept together: {len(block)} in a group of {largest}.",
                where="together",
                fix="Make the groups larger, or take a wish out.",
            )
        for wish in wishes.apart:
            if len(wish & block) > 1:
                raise Invalid(
                    f"{_named(wish & block, names)} are kept apart and together.",
                    where="apart",
                    fix="Take one of the two wishes out.",
                )
    for wish in wishes.apart:
        if len(wish) > groups:
            raise Invalid(
                f"{_named(wish, names)} are kept apart: {len(wish)} in {groups} group{'s' if groups > 1 else ''}.",
                where="apart",
                fix="Make more groups, or take a wish out.",
            )


def _dealt(students: Mapping[int, int | None], groups: int, rng: random.Random) -> list[set[int]]:
    """Everybody dealt round by round, one period after the other: sizes, and those of a period, differ by one."""
    by_period: dict[int | None, list[int]] = defaultdict(list)
    for student in sorted(students):
        by_period[students[student]].append(student)
    order = sorted(by_period, key=lambda one: (one is None, one or 0))
    rng.shuffle(order)
    division: list[set[int]] = [set() for _ in range(groups)]
    place = 0
    for period in order:
        of_period = by_period[period]
        rng.shuffle(of_period)
        for student in of_period:
            division[place % groups].add(student)
            place += 1
    return division


def _mended(
    division: list[set[int]],
    students: Mapping[int, int | None],
    wishes: Wishes,
    blocks: Mapping[int, frozenset[int]],
    rng: random.Random,
) -> bool:
    """Let students change places until every wish is kept; False where no change makes it better.

    A change is of two students, so that the sizes stay; of those that are best for the wishes one that is best for
    the balance of the periods is taken.
    """
    places = _Places(division, students, wishes, blocks)
    everybody = list(places.where)
    while troubled := places.troubled():
        rng.shuffle(troubled)
        some = rng.sample(everybody, LOOKED_AT) if len(everybody) > LOOKED_AT else everybody
        if not any(_changed(places, one, some, rng) for one in troubled) and not any(
            _changed(places, one, everybody, rng) for one in troubled
        ):
            return False
    for group in division:
        group.clear()
    for student, place in places.where.items():
        division[place].add(student)
    return True


def _changed(places: _Places, one: int, others: Sequence[int], rng: random.Random) -> bool:
    """Let a student change places with the one of some others with whom that is best, if it keeps a wish more."""
    worth = {other: places.worth(one, other) for other in others}
    best = max(worth.values())
    if best[0] > 0:
        places.change(one, rng.choice([other for other in others if worth[other] == best]))
    return best[0] > 0


class _Places:
    """Who is in which group, and which wishes that breaks."""

    def __init__(
        self,
        division: Iterable[Iterable[int]],
        students: Mapping[int, int | None],
        wishes: Wishes,
        blocks: Mapping[int, frozenset[int]],
    ) -> None:
        self.where = {student: place for place, group in enumerate(division) for student in group}
        self._students = students
        self._counts = Counter((place, students[one]) for one, place in self.where.items())
        self._wishes = [(wish, True) for wish in wishes.apart]
        self._wishes += [(block, False) for block in set(blocks.values()) if len(block) > 1]
        self._about: dict[int, list[tuple[frozenset[int], bool]]] = defaultdict(list)
        for wish in self._wishes:
            for one in wish[0]:
                self._about[one].append(wish)

    def change(self, one: int, other: int) -> None:
        """Let two students change places."""
        for student, step in ((one, -1), (other, -1)):
            self._counts[self.where[student], self._students[student]] += step
        self.where[one], self.where[other] = self.where[other], self.where[one]
        for student in (one, other):
            self._counts[self.where[student], self._students[student]] += 1

    def worth(self, one: int, other: int) -> tuple[int, int]:
        """How much better it is when two change places: for the wishes, and for the balance of the periods."""
        if self.where[one] == self.where[other]:
            return 0, 0
        about = {*self._about[one], *self._about[other]}
        before = sum(self._broken(wish) for wish in about)
        self.where[one], self.where[other] = self.where[other], self.where[one]
        after = sum(self._broken(wish) for wish in about)
        self.where[one], self.where[other] = self.where[other], self.where[one]
        return before - after, self._evener(one, other)

    def _evener(self, one: int, other: int) -> int:
        """By how much the sum of squares of those of a period in a group falls; 0 for two of one period."""
        first, second = self._students[one], self._students[other]
        if first == second:
            return 0
        here, there = self.where[one], self.where[other]
        count = self._counts
        lost = count[here, first] - 1 + count[there, second] - 1
        return 2 * (lost - count[there, first] - count[here, second])

    def _broken(self, wish: tuple[frozenset[int], bool]) -> int:
        of, apart = wish
        if apart:
            return len(of) - len({self.where[one] for one in of})
        return len(of) - max(Counter(self.where[one] for one in of).values())

    def troubled(self) -> list[int]:
        """Everybody whose wish is broken."""
        return sorted({one for wish in self._wishes if self._broken(wish) for one in wish[0]})


MOST_NAMED = 4


def _named(of: Iterable[int], names: Mapping[int, str]) -> str:
    known = sorted(names.get(one, "?") for one in of)
    shown = known[:MOST_NAMED]
    more = len(known) - len(shown)
    return (", ".join(shown) + f" and {more} more") if more else " and ".join(_but_last(shown))


def _but_last(names: Sequence[str]) -> list[str]:
    return [", ".join(names[:-1]), names[-1]] if len(names) > 1 else list(names)
