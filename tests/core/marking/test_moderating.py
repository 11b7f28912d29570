"""A sample to moderate: from every part of the scale and every marker, the same again by the same seed."""

import random

from django.test import SimpleTestCase

from coatpeg.core.marking.moderating import Marked, Stratum, sample

DEALER = random.Random(5)
WORK = [Marked(at, DEALER.random(), 7 if at % 20 else 9) for at in range(1, 61)]


class Sample(SimpleTestCase):
    def test_every_stratum_and_every_marker_is_in_it(self) -> None:
        found = sample(WORK, 8, 1)
        reasons = [why for _, why in found]
        for stratum in (Stratum.TOP, Stratum.MIDDLE, Stratum.BOTTOM, Stratum.BORDERLINE):
            self.assertGreaterEqual(reasons.count(stratum), 2)
        markers = {one.submission: one.marker for one in WORK}
        self.assertEqual({markers[pk] for pk, _ in found}, {7, 9})
        self.assertEqual(len({pk for pk, _ in found}), len(found))

    def test_top_is_better_than_bottom(self) -> None:
        share = {one.submission: one.share for one in WORK}
        found = sample(WORK, 20, 2)
        top = [share[pk] for pk, why in found if why is Stratum.TOP]
        bottom = [share[pk] for pk, why in found if why is Stratum.BOTTOM]
        self.assertGreater(min(top), max(bottom))

    def test_the_same_seed_draws_the_same_and_another_one_something_else(self) -> None:
        self.assertEqual(sample(WORK, 8, 1), sample(list(reversed(WORK)), 8, 1))
        self.assertNotEqual(sample(WORK, 8, 1), sample(WORK, 8, 2))

    def test_where_there_is_little_all_of_it_is_taken_and_of_nothing_nothing(self) -> None:
        self.assertEqual({pk for pk, _ in sample(WORK[:3], 8, 1)}, {1, 2, 3})
        self.assertEqual(sample([], 8, 1), [])
        self.assertEqual([pk for pk, _ in sample(WORK[:1], 8, 1)], [1])
