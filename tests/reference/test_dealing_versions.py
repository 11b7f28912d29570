"""Versions dealt at random against the chi-square distribution; surname ranges against ICU's collation.

Sources: ``scipy.stats.chi2`` (its critical value at 0.1 %); ``Intl.Collator`` of Node.js (ICU, CLDR root order).
"""

from collections import Counter

from django.test import SimpleTestCase
from scipy.stats import chi2

from coatpeg.core.outlines.versions import DealtBy, Holder, VariantPlan, Version, dealt
from demo.names import AWKWARD, FAMILY
from tests.reference.test_collation import NAMES, in_node

VERSIONS = tuple(Version(f"v{at}", f"V{at}") for at in range(3))
PLACE = """
const [names, starts] = JSON.parse(require('fs').readFileSync(0, 'utf8'));
const collator = new Intl.Collator('und', { sensitivity: 'base' });
const place = (name) => Math.max(0, starts.findLastIndex((start) => collator.compare(start, name) <= 0));
console.log(JSON.stringify(names.map(place)));
"""


class AtRandom(SimpleTestCase):
    def test_every_student_has_every_version_equally_often_over_many_seeds(self) -> None:
        """Drawn 900 times for 20 students: no student's counts lie beyond what chance gives once in a thousand (× 20)."""
        students = [Holder(one, "") for one in range(20)]
        counts = {one.id: Counter() for one in students}
        for seed in range(900):
            for student, key in dealt(VariantPlan(DealtBy.RANDOM, VERSIONS, seed), students, {}).items():
                counts[student][key] += 1
        bound = chi2.ppf(1 - 0.001 / len(students), df=len(VERSIONS) - 1)
        for student, of in counts.items():
            statistic = sum((of[one.key] - 300) ** 2 / 300 for one in VERSIONS)
            self.assertLess(statistic, bound, f"student {student}: {of}")

    def test_pairs_are_not_kept_together(self) -> None:
        """Neighbours of the list have the same version as often as balanced chance gives: (n/k − 1)/(n − 1) of the draws."""
        students = [Holder(one, "") for one in range(21)]
        together = sum(
            found[0] == found[1]
            for seed in range(900)
            for found in [dealt(VariantPlan(DealtBy.RANDOM, VERSIONS, seed), students, {})]
        )
        expected = 900 * (7 - 1) / (21 - 1)
        statistic = (together - expected) ** 2 / expected + (together - expected) ** 2 / (900 - expected)
        self.assertLess(statistic, chi2.ppf(0.999, df=1))


class Ranges(SimpleTestCase):
    def test_every_surname_falls_where_icu_puts_it(self) -> None:
        """Particles, hyphens, apostrophes, one word, other scripts: the last start that does not sort behind the name."""
        names = [*NAMES, *FAMILY[::5], *(family for family, _ in AWKWARD if family)]
        starts = ["A", "D", "Ma", "O", "Sm", "W"]
        ends = ["C", "Lz", "N", "Sl", "V", "Z"]
        versions = tuple(
            Version(str(at), str(at), first=a, last=b) for at, (a, b) in enumerate(zip(starts, ends, strict=True))
        )
        plan = VariantPlan(DealtBy.SURNAME, versions).checked(9, 9)
        found = dealt(plan, [Holder(at, name) for at, name in enumerate(names)], {})
        expected = in_node(PLACE, [names, starts])
        assert isinstance(expected, list)
        for at, name in enumerate(names):
            self.assertEqual(found[at], str(expected[at]), name)
