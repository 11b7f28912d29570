"""Rubrics: what one may be, what was judged by it, and the score that it makes."""

from dataclasses import replace
from decimal import Decimal

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.rubrics import Level, Row, Rubric, rubric_from_data, rubric_to_data

D = Decimal
LEVELS = tuple(
    Level(key, title, D(at)) for at, (key, title) in enumerate((("n", "not yet"), ("p", "partly"), ("f", "fully")))
)


def row(key: str, title: str, weight: str = "1") -> Row:
    return Row(key, title, D(weight), ("", "", ""))


SOUP = Rubric(LEVELS, (row("s", "Scaling", "3"), row("c", "Costing", "2"), row("h", "Hygiene")), halves=True)


class Scores(SimpleTestCase):
    def test_levels_weights_and_what_is_not_judged(self) -> None:
        """Worked by hand from the product's rule: points × Σ(weight × level) ÷ Σ(weight × highest level)."""
        # 30 × (3×2 + 2×1 + 1×0) ÷ (3×2 + 2×2 + 1×2) = 30 × 8 ÷ 12 = 20
        self.assertEqual(SOUP.score({"s": ["f"], "c": ["p"], "h": ["n"]}, D(30), D(1)), D(20))
        # Hygiene not judged leaves both sums: 30 × 8 ÷ 10 = 24
        self.assertEqual(SOUP.score({"s": ["f"], "c": ["p"], "h": []}, D(30), D(1)), D(24))
        # Between partly and fully is 1.5: 30 × (6 + 3 + 0) ÷ 12 = 22.5, half up to 23; on half points 22.5
        between = {"s": ["f"], "c": ["f", "p"], "h": ["n"]}
        self.assertEqual([SOUP.score(between, D(30), D(step)) for step in ("1", "0.5")], [D(23), D("22.5")])
        self.assertIsNone(SOUP.score({"s": [], "c": [], "h": []}, D(30), D(1)))

    def test_an_open_criterion_stops_it_and_is_named(self) -> None:
        with self.assertRaises(Invalid) as caught:
            SOUP.score({"s": ["f"]}, D(30), D(1))
        self.assertIn("Costing, Hygiene", caught.exception.what)
        self.assertEqual([one.title for one in SOUP.open_rows({"s": ["f"], "h": []})], ["Costing"])

    @given(st.dictionaries(st.sampled_from("sch"), st.sampled_from([["n"], ["p"], ["f"], ["n", "p"]]), min_size=3))
    def test_it_lies_between_nothing_and_all_points_and_grows_with_each_level(
        self, judged: dict[str, list[str]]
    ) -> None:
        score = SOUP.score(judged, D(30), D("0.1"))
        assert score is not None
        self.assertTrue(0 <= score <= 30)
        for key in judged:
            better = SOUP.score({**judged, key: ["f"]}, D(30), D("0.1"))
            assert better is not None
            self.assertGreaterEqual(better, score)


class Ranges(SimpleTestCase):
    levels = (Level("n", "not yet", D(2), D(0)), Level("p", "partly", D(5), D("2.5")), Level("f", "fully", D(8), D(6)))
    soup = Rubric(levels, (row("s", "Scaling", "3"), row("c", "Costing")))

    def test_a_level_counts_its_most_points_or_those_that_are_said(self) -> None:
        """Worked by hand: 16 × (3 × 8 + 1 × 5) ÷ (4 × 8) = 14.5; with 6.5 and 3, 16 × 22.5 ÷ 32 = 11.25."""
        self.assertEqual(self.soup.score({"s": ["f"], "c": ["p"]}, D(16), D("0.5")), D("14.5"))
        self.assertEqual(self.soup.earned({"s": ["f", "=6.5"], "c": ["p", "=3"]}, D(16)), D("11.25"))

    def test_what_lies_in_no_range_is_refused(self) -> None:
        for said in ("=5.5", "=8.01", "=6.123", "=", "=NaN", "=1e1", "6"):
            with self.subTest(said), self.assertRaises(Invalid):
                self.soup.refuse_unknown({"s": ["f", said]})
        with self.assertRaises(Invalid):
            SOUP.refuse_unknown({"s": ["f", "=2"]})  # no range
        self.soup.refuse_unknown({"s": ["f", "=7.25"]})

    def test_ranges_lie_apart_and_have_no_halves(self) -> None:
        wrong = {
            "begin above 5": replace(self.levels[2], low=D(5)),
            "where it begins": replace(self.levels[2], low=D(8)),
        }
        for fix, level in wrong.items():
            with self.subTest(fix), self.assertRaises(Invalid) as caught:
                replace(self.soup, levels=(*self.levels[:2], level)).checked()
            self.assertIn(fix, caught.exception.fix)
        with self.assertRaises(Invalid):
            replace(self.soup, halves=True).checked()

    def test_kept_and_read_again_it_is_the_same(self) -> None:
        self.assertEqual(rubric_from_data(rubric_to_data(self.soup.checked())), self.soup)


class Judgements(SimpleTestCase):
    def test_of_a_rubric_that_changed_what_still_fits_stands(self) -> None:
        judged = {"s": ["f"], "c": ["p", "f"], "h": [], "gone": ["n"]}
        self.assertEqual(SOUP.fitting(judged), {"s": ["f"], "c": ["p", "f"], "h": []})
        shorter = Rubric(SOUP.levels[:2], SOUP.rows[1:])
        self.assertEqual(shorter.fitting(judged), {"h": []}, "a level that is gone leaves its criterion open")
        whole = replace(SOUP, halves=False)
        self.assertEqual(whole.fitting(judged), {"s": ["f"], "h": []}, "half levels are not allowed any more")

    def test_what_is_not_in_it_is_refused(self) -> None:
        for judged in ({"x": ["f"]}, {"s": ["x"]}, {"s": ["n", "f"]}, {"s": ["n", "n"]}, {"s": ["n", "p", "f"]}):
            with self.subTest(judged), self.assertRaises(Invalid):
                SOUP.refuse_unknown(judged)
        SOUP.refuse_unknown({"s": ["n", "p"], "h": []})


class Shapes(SimpleTestCase):
    def wrong(self, rubric: Rubric, says: str) -> None:
        with self.subTest(says), self.assertRaises(Invalid) as caught:
            rubric.checked()
        self.assertIn(says, caught.exception.what)

    def test_what_a_rubric_cannot_be(self) -> None:
        level, first = LEVELS[0], SOUP.rows[0]
        self.wrong(replace(SOUP, levels=LEVELS[:1]), "2 to 8 levels, not 1")
        self.wrong(replace(SOUP, levels=(*LEVELS, replace(level, key="x", title="again"))), "do not go one way")
        self.wrong(
            replace(SOUP, levels=(*LEVELS[:2], replace(level, key="x", title="Partly", points=D(9)))), "stands twice"
        )
        self.wrong(replace(SOUP, levels=(*LEVELS[:2], replace(level, points=D(9)))), "key of its own")
        self.wrong(replace(SOUP, levels=(replace(level, points=D(-1)), *LEVELS[1:])), "points of “not yet”")
        self.wrong(replace(SOUP, levels=(replace(level, points=D("NaN")), *LEVELS[1:])), "points of “not yet”")
        self.wrong(replace(SOUP, rows=()), "1 to 30 criteria, not 0")
        self.wrong(replace(SOUP, rows=(replace(first, title=" "),)), "name of criterion 1")
        self.wrong(replace(SOUP, rows=(replace(first, weight=D("Infinity")),)), "weight of “Scaling”")
        self.wrong(replace(SOUP, rows=(replace(first, weight=D(0)),)), "sum to nothing")
        self.wrong(replace(SOUP, rows=(replace(first, says=("",)),)), "does not fit")
        self.wrong(replace(SOUP, rows=(replace(first, says=("x" * 601, "", "")),)), "does not fit")

    def test_tidied_and_kept_as_it_was_typed(self) -> None:
        falling = Rubric(tuple(reversed(LEVELS)), (replace(SOUP.rows[0], title=" Scaling  up ", weight=D("1.50")),))
        tidy = falling.checked()
        self.assertEqual(tidy.rows[0].title, "Scaling up")
        data = rubric_to_data(tidy)
        self.assertEqual((data["criteria"][0]["weight"], data["levels"][0]["points"]), ("1.5", "2"))
        self.assertEqual(rubric_from_data(data), tidy)
        self.assertEqual((rubric_to_data(None), rubric_from_data({})), ({}, None))
