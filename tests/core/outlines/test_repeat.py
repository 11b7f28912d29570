"""A section that repeats: what it lays out for each unit."""

from datetime import date

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.repeat import MOST_QUESTIONS, MOST_UNITS, Question, Unit, checked_units, laid, laid_key

SOIL = Unit("soil", "Soil", (Question("q1", "What lives in it?"), Question("q2", "What does it hold?")))
EACH = PocketPlan("Question", PocketKind.EVIDENCE, prompt="{unit}: {question}", artefacts=1, each_question=True)


class LaidOut(SimpleTestCase):
    def test_three_questions_make_three_pockets(self) -> None:
        found = laid("p", EACH, Unit("u", "Water", tuple(Question(f"q{at}", f"Why {at}?") for at in range(3))))
        self.assertEqual([one.plan.title for one in found], ["Why 0?", "Why 1?", "Why 2?"])
        self.assertEqual(found[0].plan.prompt, "Water: Why 0?")
        self.assertEqual(len({one.key for one in found}), 3)
        self.assertFalse(any(one.plan.each_question for one in found))

    def test_the_words_for_the_unit_and_the_question_go_where_the_pattern_says(self) -> None:
        plan = PocketPlan("{unit} diary", PocketKind.PAGE, starter="In {unit} I …", directions="About {unit}")
        (one,) = laid("p", plan, SOIL)
        self.assertEqual(
            (one.plan.title, one.plan.starter, one.plan.directions), ("Soil diary", "In Soil I …", "About Soil")
        )
        named = PocketPlan("{unit} · {question}", PocketKind.EVIDENCE, each_question=True)
        self.assertEqual(laid("p", named, SOIL)[0].plan.title, "Soil · What lives in it?")
        only = PocketPlan("{question}", PocketKind.PAGE)
        self.assertEqual(laid("p", only, SOIL)[0].plan.title, "Soil", "never without a name")

    def test_the_day_of_the_unit_goes_first(self) -> None:
        plan = PocketPlan("Diary", PocketKind.PAGE, opens=date(2026, 9, 1))
        self.assertEqual(laid("p", plan, SOIL)[0].plan.opens, date(2026, 9, 1))
        later = Unit("u", "Water", opens=date(2026, 10, 5))
        self.assertEqual(laid("p", plan, later)[0].plan.opens, date(2026, 10, 5))

    @given(st.lists(st.tuples(st.text("ab", min_size=1), st.text("ab", min_size=1), st.text("ab")), unique=True))
    def test_keys_differ_where_anything_differs(self, triples: list[tuple[str, str, str]]) -> None:
        self.assertEqual(len({laid_key(*one) for one in triples}), len(triples))

    def test_a_key_is_the_same_in_every_copy(self) -> None:
        """Stored keys depend on it: SHA-256 of the three keys, as coreutils' ``sha256sum`` gives it."""
        self.assertEqual(laid_key("p", "u", "q"), "7df0158df236a12fae639024")


class Checking(SimpleTestCase):
    def test_tidied_and_empty_questions_left_out(self) -> None:
        (unit,) = checked_units([Unit("u", "  The \n soil ", (Question("a", " "), Question("b", "Why  so?")))])
        self.assertEqual((unit.title, unit.questions), ("The soil", (Question("b", "Why so?"),)))

    def test_what_cannot_be_taken(self) -> None:
        many = tuple(Question(f"q{at}", "Why?") for at in range(MOST_QUESTIONS + 1))
        for units in (
            [Unit("u", " ")],
            [Unit("u", "x" * 121)],
            [Unit("u", "Soil", (Question("a", "x" * 121),))],
            [Unit("u", "Soil", many)],
            [Unit("a", "Soil"), Unit("b", "soil")],
            [Unit("a", "Soil"), Unit("a", "Water")],
            [Unit("a", "Soil", (Question("a", "Why?"),))],
            [Unit("", "Soil")],
            [Unit("k" * 37, "Soil")],
            [Unit(f"u{at}", f"Unit {at}") for at in range(MOST_UNITS + 1)],
        ):
            with self.subTest(units), self.assertRaises(Invalid) as caught:
                checked_units(units)
            self.assertTrue(caught.exception.fix)
