"""Laying out a pocket, and what a change of it means."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import Piece, PocketKind, Wanted
from coatpeg.core.outlines.plan import TAKES, PocketPlan, StudentPocket, impact, length_of, refuse_other_kind
from coatpeg.core.portfolios.texts import Counts, Length, Measure

SENTENCES = Length(Measure.SENTENCES, 2, 3)


class Checking(SimpleTestCase):
    def test_what_a_kind_has_no_use_for_goes(self) -> None:
        page = PocketPlan(
            "About me",
            PocketKind.PAGE,
            artefacts=3,
            reflection_on_each=True,
            length=SENTENCES,
            takes=("link",),
            starter="I am …",
        )
        checked = page.checked()
        self.assertEqual(
            (checked.artefacts, checked.reflection_on_each, checked.length, checked.takes), (0, False, SENTENCES, ())
        )
        self.assertEqual(checked.starter, "I am …")
        links = PocketPlan(
            "Finds", PocketKind.LINKS, artefacts=3, reflection_on_each=True, length=SENTENCES, starter="x"
        ).checked()
        self.assertEqual((links.artefacts, links.reflection_on_each, links.length, links.starter), (3, False, None, ""))
        evidence = PocketPlan("Card", PocketKind.EVIDENCE, artefacts=1, length=SENTENCES).checked()
        self.assertIsNone(evidence.length, "no reflection, no length")

    def test_every_kind_of_artefact_is_any_kind(self) -> None:
        plan = PocketPlan("Card", PocketKind.EVIDENCE, takes=tuple(reversed(TAKES)))
        self.assertEqual(plan.checked().takes, ())
        some = PocketPlan("Card", PocketKind.EVIDENCE, takes=("link", "picture"))
        self.assertEqual(some.checked().takes, ("picture", "link"))

    def test_the_name_is_tidied(self) -> None:
        self.assertEqual(PocketPlan("  Recipe \n card ", PocketKind.PAGE).checked().title, "Recipe card")

    def test_what_cannot_be_taken_names_its_field(self) -> None:
        evidence = PocketKind.EVIDENCE
        cases = {
            "title": PocketPlan(" ", evidence),
            "prompt": PocketPlan("Card", evidence, prompt="x" * 301),
            "directions": PocketPlan("Card", evidence, directions="x" * 10_001),
            "starter": PocketPlan("Card", PocketKind.PAGE, starter="x" * 40_001),
            "artefacts": PocketPlan("Card", evidence, artefacts=51),
            "takes": PocketPlan("Card", evidence, takes=("hologram",)),
            "least": PocketPlan("Card", evidence, length=Length(Measure.WORDS, 0)),
            "most": PocketPlan("Card", evidence, length=Length(Measure.WORDS, 5, 4)),
        }
        for where, plan in cases.items():
            with self.subTest(where), self.assertRaises(Invalid) as caught:
                plan.checked()
            self.assertEqual(caught.exception.where, where)
            self.assertTrue(caught.exception.fix)

    def test_the_kind_stays_where_there_is_work(self) -> None:
        refuse_other_kind("Card", PocketKind.PAGE, PocketKind.LINKS, 0)
        refuse_other_kind("Card", PocketKind.PAGE, PocketKind.PAGE, 9)
        for number, words in ((1, "1 student has"), (2, "2 students have")):
            with self.assertRaises(Invalid) as caught:
                refuse_other_kind("Card", PocketKind.PAGE, PocketKind.LINKS, number)
            self.assertIn(words, caught.exception.what)

    def test_a_length_from_plain_values(self) -> None:
        self.assertIsNone(length_of("", 1, None))
        self.assertEqual(length_of("sentences", 2, 3), SENTENCES)


ONE, TWO = Wanted(PocketKind.EVIDENCE, 1), Wanted(PocketKind.EVIDENCE, 2)
PIECE = Piece(Counts(9, 2), "card")


class Meaning(SimpleTestCase):
    def test_who_goes_from_filled_to_not_filled_and_back(self) -> None:
        seats = [
            StudentPocket(1, ONE, TWO, (PIECE,)),
            StudentPocket(2, ONE, TWO),
            StudentPocket(3, ONE, TWO, (PIECE, PIECE)),
            StudentPocket(4, TWO, TWO, (PIECE,)),
        ]
        found = impact(seats)
        self.assertEqual((found.reached, found.units, found.to_open, found.to_filled), (3, 1, (1,), ()))
        back = impact([StudentPocket(one.student, one.after, one.before, one.pieces) for one in seats])
        self.assertEqual((back.units, back.to_open, back.to_filled), (-1, (), (1,)))

    def test_nobody_is_reached_by_a_new_name(self) -> None:
        self.assertEqual(impact([StudentPocket(1, ONE, ONE, (PIECE,))]).reached, 0)
        self.assertEqual(impact([]).units, 0)

    @given(st.lists(st.tuples(st.integers(0, 3), st.integers(0, 3), st.integers(0, 4)), max_size=8))
    def test_a_change_and_its_undo_mirror_each_other(self, rows: list[tuple[int, int, int]]) -> None:
        seats = [
            StudentPocket(
                number, Wanted(PocketKind.EVIDENCE, before), Wanted(PocketKind.EVIDENCE, after), (PIECE,) * pieces
            )
            for number, (before, after, pieces) in enumerate(rows)
        ]
        there, back = (
            impact(seats),
            impact([StudentPocket(one.student, one.after, one.before, one.pieces) for one in seats]),
        )
        self.assertEqual((there.to_open, there.to_filled), (back.to_filled, back.to_open))
        self.assertEqual(there.reached, back.reached)
