"""Scores together. Weighted means are checked against ``numpy.average`` (its documentation: Σ(a × w) ÷ Σ(w)), the bars
against ``numpy.histogram`` (all bins but the last are half open)."""

from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from unittest import TestCase

import numpy
from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.errors import Invalid
from coatpeg.core.handins.standing import Standing, Status
from coatpeg.core.marking.sheet import HEAVIEST, Kind, Result, Rule, bars, moved, result_of, total

TEN, TWENTY = Decimal(10), Decimal(20)
POINTS = {1: TEN, 2: TWENTY, 3: TEN}
LEFT_OUT = (Kind.NOT_MARKED, Kind.SENT_BACK, Kind.NOT_DUE, Kind.EXCUSED, Kind.NOT_ASKED)


def scored(score: str, points: Decimal = TEN) -> Result:
    return Result(Kind.SCORED, Decimal(score), points)


def standing(status: Status, *, overdue: bool = False) -> Standing:
    return Standing(status, False, 0, None, overdue, None)


class Totals(TestCase):
    def value(self, results: dict[int, Result], **rule: object) -> Decimal | None:
        return total(results, POINTS, Rule(**rule)).value  # type: ignore[arg-type]

    def test_of_all_points_worked_by_hand(self) -> None:
        """8 of 10, 15 of 20, 4 of 10: 27 of 40 are 67.5 %."""
        results = {1: scored("8"), 2: scored("15", TWENTY), 3: scored("4")}
        self.assertEqual(self.value(results), Decimal("67.5"))

    def test_by_weights_worked_by_hand(self) -> None:
        """Weights 1, 1, 2: (80 + 75 + 2 × 40) ÷ 4 = 58.75, half up 58.8 %; without the third 77.5 %."""
        results = {1: scored("8"), 2: scored("15", TWENTY), 3: scored("4")}
        weights = {1: Decimal(1), 2: Decimal(1), 3: Decimal(2)}
        self.assertEqual(self.value(results, weights=weights), Decimal("58.8"))
        self.assertEqual(self.value(results, weights={**weights, 3: Decimal(0)}), Decimal("77.5"))

    def test_what_is_not_scored_is_left_out_of_both_sums(self) -> None:
        for kind in LEFT_OUT:
            results = {1: scored("8"), 2: Result(kind, Decimal(3), TWENTY), 3: Result(kind)}
            found = total(results, POINTS, Rule(missing_is_zero=True))
            self.assertEqual((found.value, found.counted), (Decimal("80.0"), frozenset({1})), kind)

    def test_missing_is_nought_only_where_the_rule_says_so(self) -> None:
        results = {1: scored("8"), 2: Result(Kind.MISSING), 3: scored("0")}
        self.assertEqual(self.value(results), Decimal("40.0"))
        self.assertEqual(self.value(results, missing_is_zero=True), Decimal("20.0"))

    def test_nothing_scored_is_no_total_and_a_score_of_nought_is_one(self) -> None:
        nothing = dict.fromkeys(POINTS, Result(Kind.NOT_MARKED))
        self.assertIsNone(self.value(nothing))
        self.assertEqual(self.value({**nothing, 1: scored("0")}), Decimal("0.0"))

    def test_the_best_of_them(self) -> None:
        results = {1: scored("8"), 2: scored("16", TWENTY), 3: scored("9")}
        found = total(results, POINTS, Rule(best=2))
        # Of the two at 80 % the heavier: (9 + 16) of 30.
        self.assertEqual((found.value, found.counted), (Decimal("83.3"), frozenset({2, 3})))
        self.assertEqual(self.value(results, best=9), Decimal("82.5"), "of fewer, all")
        alike = {1: scored("8"), 2: Result(Kind.EXCUSED), 3: scored("8")}
        self.assertEqual(total(alike, POINTS, Rule(best=1)).counted, frozenset({1}), "of alike ones the earlier")
        missing = {1: Result(Kind.MISSING), 2: scored("10", TWENTY), 3: Result(Kind.EXCUSED)}
        self.assertEqual(self.value(missing, best=1, missing_is_zero=True), Decimal("50.0"))
        self.assertEqual(self.value(missing, best=2, missing_is_zero=True), Decimal("33.3"))

    def test_a_score_keeps_the_points_it_was_given_out_of(self) -> None:
        self.assertEqual(
            self.value({1: scored("15", TWENTY), 2: Result(Kind.EXCUSED), 3: scored("5")}), Decimal("62.5")
        )

    @given(some.lists(some.tuples(some.integers(0, 40), some.integers(1, 400)), min_size=1, max_size=12))
    def test_a_weighted_mean_as_numpy_has_it(self, given_: list[tuple[int, int]]) -> None:
        points = dict.fromkeys(range(len(given_)), TWENTY)
        results = {place: Result(Kind.SCORED, Decimal(half) / 2, TWENTY) for place, (half, _) in enumerate(given_)}
        weights = {place: Decimal(weight) for place, (_, weight) in enumerate(given_)}
        found = total(results, points, Rule(weights)).value
        assert found is not None
        mean = numpy.average([half / 40 for half, _ in given_], weights=[weight for _, weight in given_])
        self.assertLessEqual(abs(float(found) - 100 * float(mean)), 0.05 + 1e-9)
        exact = Fraction(sum(half * weight for half, weight in given_) * 100, 40 * sum(weight for _, weight in given_))
        tenth = (Decimal(exact.numerator) / Decimal(exact.denominator)).quantize(Decimal("0.1"), ROUND_HALF_UP)
        self.assertEqual(found, tenth)


class Rules(TestCase):
    def test_what_cannot_be_meant_says_where(self) -> None:
        for rule, where in (
            (Rule({1: Decimal(-1)}), "weights.1"),
            (Rule({2: HEAVIEST + 1}), "weights.2"),
            (Rule({2: Decimal("NaN")}), "weights.2"),
            (Rule(dict.fromkeys(POINTS, Decimal(0))), "weights"),
            (Rule(best=0), "best"),
        ):
            with self.assertRaises(Invalid) as caught:
                rule.check(POINTS)
            self.assertEqual(caught.exception.where, where)
        Rule({1: Decimal(0), 2: HEAVIEST}, best=1).check(POINTS)
        Rule().check({})


class Results(TestCase):
    def test_each_status_in_its_place(self) -> None:
        eight = (Decimal(8), TEN)
        for given_, kind in (
            ((standing(Status.ACCEPTED), *eight), Kind.SCORED),
            ((standing(Status.ACCEPTED), None, TEN), Kind.NOT_MARKED),
            ((standing(Status.ACCEPTED), Decimal(8), None), Kind.NOT_MARKED),
            ((standing(Status.HANDED_IN), None, None), Kind.NOT_MARKED),
            ((standing(Status.SENT_BACK), *eight), Kind.SENT_BACK),
            ((standing(Status.EMPTY, overdue=True), None, None), Kind.MISSING),
            ((standing(Status.WORKING, overdue=True), None, None), Kind.MISSING),
            ((standing(Status.WORKING), None, None), Kind.NOT_DUE),
            ((standing(Status.NOT_OPEN), None, None), Kind.NOT_DUE),
            ((standing(Status.EXCUSED), None, None), Kind.EXCUSED),
            ((standing(Status.NOT_ASKED), None, None), Kind.NOT_ASKED),
        ):
            self.assertIs(result_of(*given_).kind, kind, given_)
        self.assertIsNone(result_of(standing(Status.SENT_BACK), *eight).share)


class Spread(TestCase):
    @given(some.lists(some.integers(0, 40), max_size=60))
    def test_bars_as_numpy_has_them(self, halves: list[int]) -> None:
        # In fortieths: whole numbers, so that no bin's edge depends on how a fraction is kept.
        expected, _ = numpy.histogram(halves, bins=range(0, 41, 4))
        self.assertEqual(bars(Fraction(half, 40) for half in halves), [int(one) for one in expected])

    def test_what_moves(self) -> None:
        before = [Decimal("80.0"), None, Decimal("50.0")]
        after = [Decimal("82.5"), Decimal("1.0"), Decimal("50.0")]
        self.assertEqual(moved(before, after), [Decimal("2.5"), None, Decimal("0.0")])
