"""Scores: rubric, late rule, rounding."""

from decimal import Decimal

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.scoring import (
    Criterion,
    LateRule,
    after_late,
    check_late_rule,
    check_points,
    check_score,
    rubric_score,
    to_step,
)

D = Decimal


def criterion(weight: str, chosen: str | None, highest: str = "3", **more: bool) -> Criterion:
    return Criterion("Scaling", D(weight), D(highest), D(chosen) if chosen is not None else None, **more)


class Rubric(SimpleTestCase):
    def value(self, points: str, criteria: list[Criterion], step: str = "1", **more: object) -> Decimal:
        found = rubric_score(D(points), criteria, D(step), **more)
        assert found is not None
        return found.value

    def test_weighted_levels(self) -> None:
        soup = [criterion("3", "3"), criterion("2", "1"), criterion("2", "2"), criterion("3", "2")]
        # 30 × (9 + 2 + 4 + 6) ÷ (9 + 6 + 6 + 9) = 30 × 21 ÷ 30 = 21, worked by hand from the rule's formula.
        self.assertEqual(self.value("30", soup), D("21"))

    def test_not_judged_leaves_both_sums(self) -> None:
        half = [criterion("1", "3"), criterion("5", None, not_judged=True)]
        self.assertEqual(self.value("10", half), D("10"))

    def test_nothing_judged_is_no_score(self) -> None:
        self.assertIsNone(rubric_score(D(10), [criterion("1", None, not_judged=True)], D(1)))

    def test_a_criterion_without_level_stops_it_and_is_named(self) -> None:
        with self.assertRaises(Invalid) as caught:
            rubric_score(D(10), [criterion("1", None)], D(1))
        self.assertIn("Scaling", caught.exception.what)

    def test_rounded_half_up_once(self) -> None:
        self.assertEqual(self.value("5", [criterion("1", "1", "2")]), D("3"), "2.5 goes up")
        self.assertEqual(self.value("5", [criterion("1", "1", "2")], "0.5"), D("2.5"))
        self.assertEqual(self.value("10", [criterion("1", "1")], "0.1"), D("3.3"))

    def test_a_late_rule_takes_per_school_day_down_to_its_floor(self) -> None:
        full = [criterion("1", "3")]
        rule = LateRule(D(10), floor=D(50))
        for days, expected in ((0, "20"), (1, "18"), (3, "14"), (5, "10"), (9, "10")):
            with self.subTest(days):
                self.assertEqual(self.value("20", full, late_days=days, late_rule=rule), D(expected))

    def test_of_points_that_are_typed_the_same_is_taken(self) -> None:
        self.assertEqual(after_late(D(17), D(1), 2, LateRule(D(10))).value, D(14), "13.6, rounded half up")
        self.assertEqual(after_late(D(17), D(1), 0, LateRule(D(10))).value, D(17))

    def test_a_rule_that_takes_nothing_or_more_than_all_is_none(self) -> None:
        check_late_rule(LateRule(D(100), D(100)))
        for takes, leaves in (("0", "0"), ("101", "0"), ("NaN", "0"), ("5", "-1"), ("5", "101"), ("5", "Infinity")):
            with self.subTest(takes, leaves=leaves), self.assertRaises(Invalid):
                check_late_rule(LateRule(D(takes), D(leaves)))

    def test_the_late_part_is_shown_apart_and_rounding_comes_last(self) -> None:
        # Earned 3.33…; one day late 2.99…: rounded once to 3.0, never 3.3 × 0.9 = 2.97.
        found = rubric_score(D(10), [criterion("1", "1")], D("0.1"), late_days=1, late_rule=LateRule(D(10)))
        assert found is not None
        self.assertEqual((found.value, found.before_late, found.late_days), (D("3.0"), D("3.3"), 1))

    @given(st.lists(st.tuples(st.integers(1, 5), st.integers(0, 4)), min_size=1, max_size=6), st.integers(1, 100))
    def test_a_score_lies_on_its_step_between_nothing_and_all(self, rows: list[tuple[int, int]], points: int) -> None:
        criteria = [criterion(str(weight), str(level), "4") for weight, level in rows]
        value = self.value(str(points), criteria)
        self.assertTrue(0 <= value <= points and value % 1 == 0)


class ByHand(SimpleTestCase):
    def test_scores_between_nothing_and_all_on_the_step(self) -> None:
        for good in ("0", "17", "30"):
            self.assertEqual(check_score(D(good), D(30), D(1)), D(good))
        for bad in ("-1", "30.5", "31", "NaN", "Infinity", "17.5"):
            with self.subTest(bad), self.assertRaises(Invalid):
                check_score(D(bad), D(30), D(1))

    def test_points_are_a_multiple_of_their_step(self) -> None:
        check_points(D("7.5"), D("0.5"))
        for points, step in (("7.25", "0.5"), ("0", "1"), ("-3", "1"), ("3", "0.3")):
            with self.subTest(points), self.assertRaises(Invalid):
                check_points(D(points), D(step))

    def test_half_a_step_goes_up(self) -> None:
        self.assertEqual(to_step(D("2.25"), D("0.5")), D("2.5"))
        self.assertEqual(to_step(D("2.24"), D("0.5")), D("2.0"))
