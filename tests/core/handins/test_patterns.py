"""Patterns of how work comes in, against numpy and scipy (``reference`` stands beside each check)."""

from datetime import timedelta

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from coatpeg.core.handins.patterns import (
    DAYS_AFTER,
    DAYS_BEFORE,
    curve,
    is_behind,
    lateness,
    median_share,
    quartiles,
    share,
)

MOMENTS = st.lists(st.integers(min_value=-12 * 86400, max_value=6 * 86400), min_size=1, max_size=40)
"""Seconds after due at which work came."""


class Quartiles(SimpleTestCase):
    @given(st.lists(st.floats(min_value=-30, max_value=30), min_size=1, max_size=60))
    def test_as_numpy_by_its_documented_default(self, values: list[float]) -> None:
        # Reference: numpy.percentile, method "linear", which its documentation gives as the default.
        found = quartiles(values)
        assert found is not None
        expected = np.percentile(values, [25, 50, 75], method="linear")
        np.testing.assert_allclose((found.low, found.middle, found.high), expected, rtol=1e-9, atol=1e-9)

    def test_another_published_method_says_something_else_and_lies_near(self) -> None:
        # Reference: Hyndman and Fan's type 8 ("median_unbiased" in numpy), of the same sample.
        values = [0.5, 1.0, 2.0, 4.0, 8.0]
        found = quartiles(values)
        assert found is not None
        other = np.percentile(values, [25, 50, 75], method="median_unbiased")
        self.assertEqual((found.low, found.middle, found.high), (1.0, 2.0, 4.0))
        self.assertEqual(found.middle, other[1])
        self.assertLess(other[0], found.low)
        self.assertGreater(other[2], found.high)

    def test_of_nothing_and_of_one(self) -> None:
        self.assertIsNone(quartiles([]))
        one = quartiles([3.0])
        self.assertEqual(one and (one.low, one.middle, one.high), (3.0, 3.0, 3.0))


class Curve(SimpleTestCase):
    @given(MOMENTS)
    def test_as_scipy_s_empirical_distribution(self, seconds: list[int]) -> None:
        # Reference: scipy.stats.ecdf, times the size of the sample.
        found = curve([timedelta(seconds=-one) for one in seconds], timedelta(days=30))
        known = stats.ecdf([one / 86400 for one in seconds]).cdf
        for day, count in found:
            self.assertEqual(count, round(float(known.evaluate(day)) * len(seconds)), day)
        self.assertEqual([day for day, _ in found], list(range(-DAYS_BEFORE, DAYS_AFTER + 1)))

    def test_it_ends_where_now_is_and_counts_what_came_on_the_very_moment(self) -> None:
        before = [timedelta(days=3), timedelta(days=2, seconds=1), timedelta(0)]
        self.assertEqual(curve(before, timedelta(days=-2, hours=1))[-3:], [(-4, 0), (-3, 1), (-2, 2)])
        self.assertEqual(curve(before, timedelta(hours=5))[-1], (0, 3))
        self.assertEqual(curve(before, timedelta(days=-20)), [])


class Students(SimpleTestCase):
    def test_usually_late_is_twice_and_every_second_time(self) -> None:
        cases = [
            ([(True, 3)], False),
            ([(True, 3), (True, 1)], True),
            ([(True, 2), (True, 4), (False, 0), (False, 0)], True),
            ([(True, 2), (True, 4), (False, 0), (False, 0), (False, 0)], False),
            ([], False),
        ]
        for came, usual in cases:
            with self.subTest(len(came)):
                self.assertEqual(lateness(came).usual, usual)
        self.assertEqual(lateness([(True, 2), (True, 4), (False, 0)]).school_days, 3.0)

    def test_behind_is_clearly_less_than_the_class(self) -> None:
        self.assertEqual(median_share([0.2, None, 0.6, 1.0]), 0.6)
        self.assertIsNone(median_share([None, share(0, 0)]))
        self.assertTrue(is_behind(share(1, 4), 0.6))
        self.assertFalse(is_behind(share(2, 4), 0.6))
        self.assertFalse(is_behind(None, 0.6) or is_behind(0.1, None))
