"""Drawing groups at random: sizes, balance, wishes; every division as likely as the others."""

from collections import Counter
from itertools import combinations

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy import stats

from coatpeg.core.errors import Invalid
from coatpeg.core.people.grouping import Mixing, Wishes, draw, number_of_groups

NONE = Wishes()


def names(students: dict[int, int | None]) -> dict[int, str]:
    return {one: f"Student {one:02}" for one in students}


def drawn(students: dict[int, int | None], size: int, seed: int = 1, **given: object) -> list[list[int]]:
    mixing, wishes = given.get("mixing", Mixing.ACROSS), given.get("wishes", NONE)
    assert isinstance(mixing, Mixing)
    assert isinstance(wishes, Wishes)
    return draw(students, size, seed, mixing, wishes, names(students))


class Numbers(SimpleTestCase):
    def test_the_number_nearest_to_the_wanted_size(self) -> None:
        """Common practice: ten in threes are 4, 3, 3; eleven are 3, 3, 3, 2."""
        found = [number_of_groups(students, 3) for students in (0, 1, 2, 9, 10, 11, 12)]
        self.assertEqual(found, [0, 1, 1, 3, 3, 4, 4])
        self.assertEqual(number_of_groups(2, 40), 1)

    @given(st.dictionaries(st.integers(1, 500), st.sampled_from([None, 1, 2, 3]), min_size=1), st.integers(1, 9))
    @settings(deadline=None, max_examples=150)
    def test_everybody_once_in_groups_that_differ_by_one(self, students: dict[int, int | None], size: int) -> None:
        for mixing in Mixing:
            groups = drawn(students, size, mixing=mixing)
            self.assertEqual(sorted(one for group in groups for one in group), sorted(students))
        sizes = [len(group) for group in drawn(students, size)]
        self.assertLessEqual(max(sizes) - min(sizes), 1)
        for period in set(students.values()):
            of_period = [sum(students[one] == period for one in group) for group in drawn(students, size)]
            self.assertLessEqual(max(of_period) - min(of_period), 1, "balanced over the periods")
        for group in drawn(students, size, mixing=Mixing.WITHIN):
            self.assertEqual(len({students[one] for one in group}), 1, "in the room at one time")

    def test_the_same_seed_draws_the_same(self) -> None:
        students: dict[int, int | None] = {one: one % 3 for one in range(40)}
        backwards = dict(reversed(students.items()))
        self.assertEqual(drawn(students, 4, 7), drawn(backwards, 4, 7))
        self.assertNotEqual(drawn(students, 4, 7), drawn(students, 4, 8))


class Likely(SimpleTestCase):
    """Against the chi-square distribution (scipy.stats.chisquare); the seeds are fixed, so the result is, too."""

    DRAWS = 3_000

    def division(self, groups: list[list[int]]) -> frozenset[frozenset[int]]:
        return frozenset(frozenset(one) for one in groups)

    def test_every_way_to_make_pairs_is_as_likely(self) -> None:
        """Six students make 15 different sets of three pairs: 5 × 3 × 1 (double factorial)."""
        students: dict[int, int | None] = dict.fromkeys(range(6))
        met = Counter(self.division(drawn(students, 2, seed)) for seed in range(self.DRAWS))
        self.assertEqual(len(met), 15)
        self.assertGreater(stats.chisquare(list(met.values())).pvalue, 0.01)

    def test_so_is_every_balanced_one(self) -> None:
        """Four of one period and two of another make two groups of 2 + 1 in C(4,2) × C(2,1) ÷ 2 = 6 ways."""
        students: dict[int, int | None] = {0: 1, 1: 1, 2: 1, 3: 1, 4: 2, 5: 2}
        met = Counter(self.division(drawn(students, 3, seed)) for seed in range(self.DRAWS))
        self.assertEqual(len(met), 6)
        self.assertGreater(stats.chisquare(list(met.values())).pvalue, 0.01)

    def test_everybody_meets_everybody_as_often(self) -> None:
        students: dict[int, int | None] = dict.fromkeys(range(12))
        met: Counter[tuple[int, int]] = Counter()
        for seed in range(self.DRAWS):
            met.update(pair for group in drawn(students, 3, seed) for pair in combinations(group, 2))
        expected = self.DRAWS * 12 / 66
        self.assertEqual(len(met), 66)
        # Pairs of one draw exclude each other, so that the statistic lies below that of independent ones.
        self.assertLess(sum((one - expected) ** 2 / expected for one in met.values()), stats.chi2.ppf(0.99, 65))


class Wished(SimpleTestCase):
    def setUp(self) -> None:
        self.students: dict[int, int | None] = {one: one % 3 for one in range(30)}

    def test_kept_apart_and_together_in_every_draw(self) -> None:
        wishes = Wishes((frozenset({1, 2, 3}), frozenset({4, 5})), (frozenset({6, 7}), frozenset({7, 8})))
        for seed in range(60):
            groups = drawn(self.students, 4, seed, wishes=wishes)
            at = {one: place for place, group in enumerate(groups) for one in group}
            self.assertEqual(len({at[1], at[2], at[3]}), 3)
            self.assertNotEqual(at[4], at[5])
            self.assertEqual(len({at[6], at[7], at[8]}), 1, "wishes that share a student are one")
            self.assertLessEqual(max(map(len, groups)) - min(map(len, groups)), 1)

    def test_whoever_left_is_in_no_wish(self) -> None:
        wishes = Wishes((frozenset({1, 99}),), (frozenset({2, 98, 97}),))
        self.assertEqual(drawn(self.students, 4, wishes=wishes), drawn(self.students, 4))

    def refused(self, text: str, wishes: Wishes, size: int = 3, mixing: Mixing = Mixing.ACROSS) -> None:
        with self.assertRaises(Invalid) as caught:
            drawn(self.students, size, wishes=wishes, mixing=mixing)
        self.assertIn(text, caught.exception.what)

    def test_what_contradicts_itself_is_named(self) -> None:
        both = frozenset({1, 2})
        self.refused("Student 01 and Student 02 are kept apart and together", Wishes((both,), (both,)))
        self.refused("4 in a group of 3", Wishes(together=(frozenset({1, 2, 3, 4}),)))
        self.refused("and 7 more are kept apart: 11 in 10 groups", Wishes((frozenset(range(11)),)))
        self.refused("are in different periods", Wishes(together=(both,)), mixing=Mixing.WITHIN)
        # Each can be kept, all of them cannot: three who are two and two apart, in two groups.
        three = Wishes((frozenset({0, 1}), frozenset({1, 2}), frozenset({0, 2})))
        self.refused("No way was found", three, size=15)
        self.refused("0 is no size", NONE, size=0)

    def test_a_year_group_with_wishes_that_cannot_be_kept_is_told_so_in_a_few_tries(self) -> None:
        self.students = {one: one % 5 for one in range(2_000)}
        pairs = tuple(frozenset(pair) for pair in combinations(range(11), 2))
        self.refused("No way was found to make 10 groups", Wishes(pairs), size=200)
