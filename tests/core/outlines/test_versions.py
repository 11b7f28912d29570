"""Versions of a pocket: ranges judged, students dealt to."""

from collections import Counter

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.versions import (
    LETTERS,
    DealtBy,
    Holder,
    VariantPlan,
    Version,
    dealt,
    for_a_copy,
    nowhere,
    range_faults,
    refuse_ranges,
    variants_from_data,
    variants_to_data,
)


def by_surname(*ranges: str) -> VariantPlan:
    """Versions of ranges like ``A-G``."""
    ends = [one.split("-") for one in ranges]
    return VariantPlan(
        DealtBy.SURNAME, tuple(Version(f"v{at}", f"V{at}", first=a, last=b) for at, (a, b) in enumerate(ends))
    )


def plan(by: DealtBy, *places: set[int], seed: int = 0) -> VariantPlan:
    return VariantPlan(
        by, tuple(Version(f"v{at}", f"V{at}", places=frozenset(of)) for at, of in enumerate(places)), seed
    )


NAMES = {
    1: "Ångström",
    2: "de Souza",
    3: "O'Neill",
    4: "Hassan",
    5: "Zola",
    6: "李",
    7: "ibn Rushd",
    8: "Ng-Gill",
    9: "Mbeki",
}


class Ranges(SimpleTestCase):
    def fault(self, *ranges: str) -> list[tuple[bool, str, tuple[int, ...]]]:
        return [(one.missing, one.letters, one.students) for one in range_faults(by_surname(*ranges), NAMES)]

    def test_whole_ranges_in_any_order(self) -> None:
        for ranges in (
            ("A-G", "H-N", "O-Z"),
            ("O-Z", "A-G", "H-N"),
            ("A-Ma", "Mb-Z"),
            ("A-Mz", "N-Z"),
            ("Aa-L", "Ma-Zz"),
        ):
            self.assertEqual(self.fault(*ranges), [], ranges)

    def test_gaps_are_named_with_the_students_they_leave_out(self) -> None:
        self.assertEqual(self.fault("A-G", "I-Z"), [(True, "H", (4,))])
        self.assertEqual(self.fault("A-C", "I-Z"), [(True, "D–H", (2, 4))])
        self.assertEqual(self.fault("B-G", "H-Z"), [(True, "A", (1,))])
        self.assertEqual(self.fault("A-G", "H-Y"), [(True, "Z", (5, 6))])
        self.assertEqual(self.fault("A-Ma", "N-Z"), [(True, "Mb–M", (9,))])

    def test_overlaps_are_named_with_the_students_they_hit_twice(self) -> None:
        self.assertEqual(self.fault("A-H", "H-Z"), [(False, "H", (4,))])
        self.assertEqual(self.fault("A-Z", "H-I"), [(False, "H–Z", (3, 4, 5, 6, 7, 8, 9))])
        self.assertTrue(range_faults(by_surname("A-G", "Z-H"), {})[0].missing, "backwards")

    def test_refused_with_letters_and_names(self) -> None:
        listed = {one: (name, f"{name}, Ada") for one, name in NAMES.items()}
        with self.assertRaises(Invalid) as caught:
            refuse_ranges(by_surname("A-G", "I-Z"), listed)
        self.assertEqual(caught.exception.what, "No version has H. It leaves out: Hassan, Ada.")
        with self.assertRaises(Invalid) as caught:
            refuse_ranges(by_surname("A-H", "H-Z"), {})
        self.assertEqual(caught.exception.what, "Two versions have H.")
        refuse_ranges(by_surname("A-G", "H-Z"), listed)

    @given(
        st.lists(st.sampled_from(LETTERS[1:]), min_size=1, max_size=6, unique=True),
        st.text(LETTERS, min_size=1, max_size=4),
    )
    def test_cut_anywhere_every_name_is_in_just_one(self, cuts: list[str], name: str) -> None:
        starts = ["A", *sorted(cuts)]
        ends = [chr(ord(one) - 1) for one in starts[1:]] + ["Z"]
        whole = by_surname(*(f"{a}-{b}" for a, b in zip(starts, ends, strict=True)))
        self.assertEqual(range_faults(whole, {}), ())
        (key,) = dealt(whole, [Holder(1, name)], {}).values()
        expected = [one.key for one in whole.versions if one.first <= name[0] <= one.last]
        self.assertEqual([key], expected)

    def test_names_from_elsewhere_have_the_first_or_last(self) -> None:
        whole = by_surname("A-G", "H-N", "O-Z")
        found = dealt(whole, [Holder(one, name) for one, name in {**NAMES, 10: "'t Hooft", 11: ""}.items()], {})
        self.assertEqual([found[one] for one in (1, 2, 3, 6, 7, 8)], ["v0", "v0", "v2", "v2", "v1", "v1"])
        self.assertEqual((found[10], found[11]), ("v0", "v0"))


class Dealing(SimpleTestCase):
    @given(st.integers(0, 60), st.integers(2, 5), st.integers(0, 10_000))
    def test_at_random_is_balanced_and_told_again_by_its_seed(self, students: int, versions: int, seed: int) -> None:
        of = plan(DealtBy.RANDOM, *[set() for _ in range(versions)], seed=seed)
        holders = [Holder(one, "") for one in range(students)]
        found = dealt(of, holders, {})
        counts = [sum(1 for key in found.values() if key == one.key) for one in of.versions]
        self.assertLessEqual(max(counts) - min(counts), 1)
        self.assertEqual(found, dealt(of, holders[::-1], {}), "the order of the list makes no difference")

    def test_who_comes_later_gets_what_is_had_least_and_nobody_elses_moves(self) -> None:
        of = plan(DealtBy.RANDOM, set(), set(), seed=3)
        kept = {1: "v0", 2: "v0", 3: "v1", 4: "gone"}
        found = dealt(of, [Holder(one, "") for one in (1, 2, 3, 4, 5)], kept)
        self.assertEqual([found[one] for one in (1, 2, 3)], ["v0", "v0", "v1"])
        self.assertEqual(sorted(Counter(found.values()).values()), [2, 3])

    def test_by_period_and_group_and_nobody_is_without(self) -> None:
        of = plan(DealtBy.PERIOD, {3}, {4, 5})
        holders = [Holder(1, "", 3), Holder(2, "", 5), Holder(3, ""), Holder(4, "", 9)]
        self.assertEqual(dealt(of, holders, {}), {1: "v0", 2: "v1", 3: "v0", 4: "v0"})
        self.assertEqual(nowhere(of, holders), (3, 4))
        by_group = plan(DealtBy.GROUP, {1}, {2})
        self.assertEqual(dealt(by_group, [Holder(1, "", 1, frozenset({2}))], {}), {1: "v1"})
        self.assertEqual(nowhere(plan(DealtBy.RANDOM, set(), set()), holders), ())

    def test_by_hand(self) -> None:
        of = plan(DealtBy.HAND, set(), set())
        self.assertEqual(dealt(of, [Holder(1, ""), Holder(2, "")], {2: "v1"}), {1: "v0", 2: "v1"})


class Checking(SimpleTestCase):
    def test_what_cannot_be_taken(self) -> None:
        for wrong in (
            VariantPlan(DealtBy.RANDOM, (Version("a", "A"),)),
            VariantPlan(DealtBy.RANDOM, tuple(Version(f"k{at}", "") for at in range(13))),
            VariantPlan(DealtBy.RANDOM, (Version("a", "A"), Version("a", "B"))),
            VariantPlan(DealtBy.RANDOM, (Version("a", "A"), Version("b", "a"))),
            VariantPlan(DealtBy.RANDOM, (Version("a", "A" * 61), Version("b", "B"))),
            VariantPlan(DealtBy.RANDOM, (Version("a", "A", "x" * 10), Version("b", "B"))),
            plan(DealtBy.PERIOD, {1}, {1}),
            by_surname("A-G", "H-"),
            by_surname("A-G", "H-Ä"),
            by_surname("A-G", "Habc-Z"),
        ):
            with self.subTest(wrong), self.assertRaises(Invalid) as caught:
                wrong.checked(9, 9)
            self.assertTrue(caught.exception.fix)

    def test_tidied_and_without_what_the_way_of_dealing_has_no_use_for(self) -> None:
        of = VariantPlan(
            DealtBy.RANDOM, (Version("a", " ", first="A", last="G", places=frozenset({1})), Version("b", "B  2"))
        )
        self.assertEqual(of.checked(9, 9).versions, (Version("a", "Version 1"), Version("b", "B 2")))
        self.assertEqual(by_surname("a-g", "h-z").checked(9, 9).versions[0].first, "A")

    def test_there_and_back_as_data_and_in_a_copy(self) -> None:
        for of in (by_surname("A-G", "H-Z"), plan(DealtBy.GROUP, {1}, {2}, seed=5)):
            self.assertEqual(variants_from_data(variants_to_data(of)), of)
        self.assertEqual((variants_to_data(None), variants_from_data({})), (None, None))
        self.assertEqual(for_a_copy(by_surname("A-G", "H-Z")), by_surname("A-G", "H-Z"))
        copied = for_a_copy(plan(DealtBy.GROUP, {1}, {2}))
        self.assertEqual((copied.by, [one.places for one in copied.versions]), (DealtBy.RANDOM, [frozenset()] * 2))
