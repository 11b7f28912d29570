"""How fast somebody marks. The median is checked against numpy's (its documentation: of an even number of values the
mean of the two in the middle)."""

from datetime import UTC, datetime, timedelta
from unittest import TestCase

import numpy
from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.marking.pace import BREAK, LEAST, pace
from coatpeg.core.marking.releasing import told_at

NINE = datetime(2026, 11, 4, 9, tzinfo=UTC)


def at(*minutes: float) -> list[datetime]:
    return [NINE + timedelta(minutes=one) for one in minutes]


class Pace(TestCase):
    def test_the_middle_of_the_gaps(self) -> None:
        self.assertEqual(pace(at(0, 2, 5, 9)), timedelta(minutes=3))
        self.assertEqual(pace(at(9, 0, 5, 2)), timedelta(minutes=3), "in any order")

    def test_a_break_is_no_pace_and_many_at_one_moment_are_one(self) -> None:
        self.assertEqual(pace(at(0, 2, 4, 64, 66)), timedelta(minutes=2))
        self.assertEqual(pace(at(0, 0, 0, 3, 6, 9)), timedelta(minutes=3))
        edge = at(0, 20, 40, 60)
        self.assertEqual(pace(edge), BREAK)
        self.assertIsNone(pace([*edge[:3], edge[3] + timedelta(seconds=1)]))

    def test_too_few_say_nothing(self) -> None:
        self.assertIsNone(pace([]))
        self.assertIsNone(pace(at(0, 1, 2)))
        self.assertEqual(LEAST, 3)

    @given(some.lists(some.integers(1, 1200), min_size=LEAST, max_size=30))
    def test_as_numpy_has_it(self, gaps: list[int]) -> None:
        moments = [NINE + timedelta(seconds=sum(gaps[:place])) for place in range(len(gaps) + 1)]
        found = pace(moments)
        assert found is not None
        self.assertAlmostEqual(found.total_seconds(), float(numpy.median(gaps)))


class Releasing(TestCase):
    def test_told_ten_seconds_later(self) -> None:
        """The product's rule on *Marks*."""
        self.assertEqual(told_at(NINE), NINE + timedelta(seconds=10))
