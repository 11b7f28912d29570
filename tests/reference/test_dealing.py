"""Dealing peg pictures is fair: the count of each first picture against a chi-square bound (scipy's distribution)."""

from collections import Counter

from django.test import SimpleTestCase
from scipy.stats import chi2

from coatpeg.core.people.pegs import PICTURES, deal

DEALS = 112 * 40
SURE = 1e-6
"""How rarely a fair deal may fail this test."""


class Dealing(SimpleTestCase):
    def statistic(self, counts: Counter[str]) -> float:
        expected = DEALS / len(PICTURES)
        return sum((counts[picture] - expected) ** 2 / expected for picture in PICTURES)

    def test_every_picture_is_as_likely_to_come_first(self) -> None:
        counts = Counter(deal(1, seed=seed)[0].picture for seed in range(DEALS))
        self.assertLess(self.statistic(counts), chi2.isf(SURE, len(PICTURES) - 1))

    def test_this_test_can_fail(self) -> None:
        """A dealer that likes ten pictures twice as much is found out."""
        liked = [*PICTURES, *PICTURES[:10]]
        counts = Counter(liked[seed % len(liked)] for seed in range(DEALS))
        self.assertGreater(self.statistic(counts), chi2.isf(SURE, len(PICTURES) - 1))

    def test_the_same_seed_deals_the_same(self) -> None:
        self.assertEqual(deal(60, seed=5), deal(60, seed=5))
        self.assertNotEqual(deal(60, seed=5), deal(60, seed=6))
