"""Agreement of markers against published worked examples (figures from memory) and general-purpose libraries."""

from __future__ import annotations

import random
from itertools import chain

import krippendorff
import numpy as np
from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from sklearn.metrics import cohen_kappa_score
from statsmodels.stats.inter_rater import cohens_kappa

from coatpeg.core.marking.agreement import TOO_FEW, agreement, alpha, kappa, linear, percentile, quadratic

# Cohen (1960), p. 45: two judges, three categories, N = 200 (proportions .44 .07 .09 / .05 .20 .05 / .01 .03 .06).
COHEN = [[88, 14, 18], [10, 40, 10], [2, 6, 12]]
# Cohen (1968): the same table with these weights of disagreement.
WEIGHTS_1968 = [[0, 1, 3], [1, 0, 6], [3, 6, 0]]
# Krippendorff (2011), section C: four observers, twelve units, values missing.
OBSERVERS = [
    [1, 2, 3, 3, 2, 1, 4, 1, 2, None, None, None],
    [1, 2, 3, 3, 2, 2, 4, 1, 2, 5, None, 3],
    [None, 3, 3, 3, 2, 3, 4, 2, 2, 5, 1, None],
    [1, 2, 3, 3, 2, 4, 4, 1, 2, 5, 1, None],
]
UNITS = [
    {observer: line[unit] for observer, line in enumerate(OBSERVERS) if line[unit] is not None} for unit in range(12)
]


def pairs_of(table: list[list[int]]) -> list[tuple[int, int]]:
    return list(chain.from_iterable([(a, b)] * n for a, row in enumerate(table) for b, n in enumerate(row)))


class Published(SimpleTestCase):
    def test_cohen_1960(self) -> None:
        self.assertAlmostEqual(kappa(pairs_of(COHEN)) or 0, 0.492, 3)

    def test_cohen_1968_with_weights(self) -> None:
        found = kappa(pairs_of(COHEN), lambda a, b: float(WEIGHTS_1968[a][b]))
        self.assertAlmostEqual(found or 0, 0.348, 3)

    def test_krippendorff_2011_with_missing_values(self) -> None:
        for metric, published in (("nominal", 0.743), ("ordinal", 0.815), ("interval", 0.849)):
            self.assertAlmostEqual(alpha(UNITS, metric) or 0, published, 3, metric)  # type: ignore[arg-type]


MARKS = st.lists(st.tuples(st.integers(0, 4), st.integers(0, 4)), min_size=2, max_size=60)


class Libraries(SimpleTestCase):
    @given(MARKS)
    @settings(max_examples=60, deadline=None)
    def test_kappa_is_scikit_learns(self, pairs: list[tuple[int, int]]) -> None:
        first, second = [a for a, _ in pairs], [b for _, b in pairs]
        if len({*first, *second}) == 1:
            self.assertIsNone(kappa(pairs))
            return
        for weights, name in ((None, None), (linear, "linear"), (quadratic, "quadratic")):
            with np.errstate(all="ignore"):
                theirs = cohen_kappa_score(first, second, labels=range(5), weights=name)
            ours = kappa(pairs, weights) if weights else kappa(pairs)
            if ours is not None:
                self.assertAlmostEqual(ours, theirs, 9)

    def test_kappa_is_statsmodels(self) -> None:
        self.assertAlmostEqual(kappa(pairs_of(COHEN)) or 0, cohens_kappa(np.array(COHEN)).kappa, 12)
        for weights, name in ((linear, "linear"), (quadratic, "quadratic")):
            theirs = cohens_kappa(np.array(COHEN), weights=np.arange(3), wt=name).kappa
            self.assertAlmostEqual(kappa(pairs_of(COHEN), weights) or 0, theirs, 12)

    def test_alpha_is_the_packages_with_marks_missing(self) -> None:
        dealer = random.Random(20261104)
        for _ in range(40):
            table = [[dealer.choice([None, 0, 1, 2, 3]) for _ in range(15)] for _ in range(3)]
            units = [{m: row[at] for m, row in enumerate(table) if row[at] is not None} for at in range(15)]
            data = np.array([[np.nan if one is None else one for one in row] for row in table], dtype=float)
            for metric in ("nominal", "ordinal", "interval"):
                theirs = krippendorff.alpha(reliability_data=data, level_of_measurement=metric)
                self.assertAlmostEqual(alpha(units, metric) or 0, theirs, 9)  # type: ignore[arg-type]

    @given(st.lists(st.floats(-1, 1), min_size=1, max_size=50), st.floats(0, 1))
    def test_percentiles_are_numpys(self, numbers: list[float], share: float) -> None:
        self.assertAlmostEqual(percentile(sorted(numbers), share), float(np.percentile(numbers, share * 100)), 9)


class Whole(SimpleTestCase):
    def test_too_few_to_say_below_ten_pairs(self) -> None:
        few = agreement([{1: 0, 2: 1}] * (TOO_FEW - 1))
        self.assertEqual((few.pairs, few.exact, few.adjacent), (9, 0, 1))
        self.assertIsNone(few.alpha)
        self.assertIsNotNone(agreement([{1: 0, 2: 1}, {1: 2, 2: 2}] * 5).alpha)

    def test_two_markers_have_kappas_and_an_interval_round_the_quadratic_one_that_can_be_made_again(self) -> None:
        units = [{7: a, 9: b} for a, b in pairs_of(COHEN)]
        found = agreement(units, seed=3)
        self.assertEqual(found, agreement(units, seed=3))
        assert found.low is not None
        assert found.high is not None
        assert found.quadratic is not None
        self.assertLess(found.low, found.quadratic)
        self.assertLess(found.quadratic, found.high)
        # Against the asymptotic standard error of statsmodels, within a fifth of it.
        theirs = cohens_kappa(np.array(COHEN), weights=np.arange(3), wt="quadratic")
        self.assertAlmostEqual(found.low, theirs.kappa_low, delta=theirs.std_kappa / 2)
        self.assertAlmostEqual(found.high, theirs.kappa_upp, delta=theirs.std_kappa / 2)

    def test_of_three_markers_there_is_no_kappa(self) -> None:
        found = agreement(UNITS)
        self.assertIsNone(found.kappa)
        self.assertAlmostEqual(found.alpha or 0, 0.815, 3)

    def test_all_in_one_category_is_not_defined(self) -> None:
        found = agreement([{1: 2, 2: 2}] * 12)
        self.assertEqual((found.exact, found.kappa, found.alpha, found.low), (1, None, None, None))
