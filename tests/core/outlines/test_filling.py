"""Units, chips, and how far a portfolio is filled."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.outlines.filling import (
    Filled,
    Piece,
    PocketKind,
    PocketState,
    Wanted,
    chips,
    filled,
    has_work,
    portfolio_filled,
)
from coatpeg.core.portfolios.texts import Counts, Length, Measure

TWO_OR_THREE = Length(Measure.SENTENCES, 2, 3)
CARD = Wanted(PocketKind.EVIDENCE, 2, True, TWO_OR_THREE)
PAGE = Wanted(PocketKind.PAGE, length=Length(Measure.WORDS, 5))


def piece(sentences: int = 0, title: str = "card") -> Piece:
    return Piece(Counts(sentences * 6, sentences), title)


class Units(SimpleTestCase):
    def test_artefacts_and_a_reflection_on_each(self) -> None:
        cases = {
            "nothing": ((), 0),
            "one artefact": ((piece(),), 1),
            "with its reflection": ((piece(2),), 2),
            "a reflection too short": ((piece(1),), 1),
            "a reflection too long": ((piece(4),), 1),
            "two artefacts, one reflection": ((piece(2), piece()), 3),
            "all": ((piece(2), piece(3)), 4),
            "an extra piece adds nothing": ((piece(2), piece(3), piece(2)), 4),
            "an empty extra piece takes nothing away": ((piece(), piece(2), piece(3)), 4),
        }
        for name, (pieces, met) in cases.items():
            with self.subTest(name):
                self.assertEqual(filled(CARD, pieces), Filled(met, 4))

    def test_without_reflections(self) -> None:
        self.assertEqual(filled(Wanted(PocketKind.EVIDENCE, 1), (piece(),)), Filled(1, 1))

    def test_links(self) -> None:
        self.assertEqual(filled(Wanted(PocketKind.LINKS, 3), (piece(), piece())), Filled(2, 3))

    def test_a_page_needs_its_length_and_must_differ_from_the_starter(self) -> None:
        self.assertEqual(filled(PAGE, ()), Filled(0, 1))
        self.assertEqual(filled(PAGE, (Piece(Counts(5, 1)),)), Filled(1, 1))
        self.assertEqual(filled(PAGE, (Piece(Counts(4, 1)),)), Filled(0, 1))
        self.assertEqual(filled(PAGE, (Piece(Counts(9, 1), unchanged=True),)), Filled(0, 1))

    def test_what_lies_beside_the_text_of_a_page_is_work_and_meets_nothing(self) -> None:
        photo = Piece(Counts(9, 2), "bed.jpg", beside=True)
        for pieces, met, work in (
            ((photo,), 0, True),
            ((photo, Piece(Counts(5, 1))), 1, True),
            ((Piece(Counts(4, 1)), photo), 0, True),
            ((photo._replace(unchanged=True), Piece(Counts(9, 1), unchanged=True)), 0, False),
        ):
            with self.subTest(pieces):
                self.assertEqual((filled(PAGE, pieces), has_work(PocketKind.PAGE, pieces)), (Filled(met, 1), work))
        self.assertEqual([one.counts.words for one in chips(PAGE, (photo, Piece(Counts(4, 1))))], [4])

    def test_a_reflection_without_asked_length_needs_one_word(self) -> None:
        wanted = Wanted(PocketKind.EVIDENCE, 1, True)
        self.assertEqual(filled(wanted, (Piece(Counts(1, 1)),)), Filled(2, 2))
        self.assertEqual(filled(wanted, (Piece(),)), Filled(1, 2))

    @given(st.lists(st.integers(0, 5), max_size=6), st.integers(0, 5))
    def test_another_piece_never_lowers_what_is_met(self, sentences: list[int], extra: int) -> None:
        pieces = tuple(piece(number) for number in sentences)
        before, after = filled(CARD, pieces), filled(CARD, (*pieces, piece(extra)))
        self.assertGreaterEqual(after.met, before.met)
        self.assertLessEqual(after.met, after.wanted)


class Chips(SimpleTestCase):
    @given(
        st.builds(
            Wanted,
            st.sampled_from(PocketKind),
            st.integers(0, 4),
            st.booleans(),
            st.none() | st.just(TWO_OR_THREE),
        ),
        st.lists(
            st.builds(Piece, st.builds(Counts, st.integers(0, 9), st.integers(0, 4)), st.just("x"), st.booleans()),
            max_size=5,
        ),
    )
    def test_they_add_up_to_what_is_filled(self, wanted: Wanted, pieces: list[Piece]) -> None:
        found = chips(wanted, tuple(pieces))
        sums = Filled(sum(chip.done for chip in found), sum(chip.wanted for chip in found))
        self.assertEqual(filled(wanted, tuple(pieces)), sums)

    def test_they_name_what_is_missing(self) -> None:
        found = chips(CARD, (piece(2, "card"), piece(1, "costing")))
        self.assertEqual(
            [(chip.what, chip.done, chip.wanted, chip.on) for chip in found],
            [("artefacts", 2, 2, ""), ("reflection", 1, 1, "card"), ("reflection", 0, 1, "costing")],
        )
        self.assertEqual(found[2].counts.sentences, 1)

    def test_reflections_on_artefacts_that_are_not_there_yet(self) -> None:
        self.assertEqual([chip.on for chip in chips(CARD, (piece(2),))], ["", "card", ""])

    def test_nothing_wanted_has_no_chips(self) -> None:
        self.assertEqual(chips(Wanted(PocketKind.EVIDENCE), (piece(),)), ())


class Portfolio(SimpleTestCase):
    def test_over_open_pockets_and_over_the_whole_template(self) -> None:
        states = [
            PocketState(CARD, (piece(2), piece(2))),
            PocketState(PAGE),
            PocketState(CARD, open=False),
            PocketState(CARD, counts=False),
            PocketState(CARD, retired=True),
        ]
        self.assertEqual(portfolio_filled(states, whole=False), Filled(4, 5))
        self.assertEqual(portfolio_filled(states, whole=True), Filled(4, 9))

    def test_nothing_wanted_is_not_a_hundred_per_cent(self) -> None:
        self.assertIsNone(portfolio_filled([], whole=True).share)
        self.assertEqual(Filled(1, 4).share, 0.25)

    def test_a_locked_pocket_is_judged_by_what_was_wanted_when_it_was_handed_in(self) -> None:
        more = Wanted(PocketKind.EVIDENCE, 5, True, TWO_OR_THREE)
        state = PocketState(more, (piece(2), piece(2)), wanted_when_locked=CARD)
        self.assertEqual(state.filled, Filled(4, 4))

    def test_work_is_what_differs_from_the_starter(self) -> None:
        self.assertTrue(has_work(PocketKind.EVIDENCE, (piece(),)))
        self.assertFalse(has_work(PocketKind.EVIDENCE, ()))
        self.assertFalse(has_work(PocketKind.PAGE, (Piece(Counts(5, 1), unchanged=True),)))
        self.assertFalse(has_work(PocketKind.PAGE, (Piece(),)))
        self.assertTrue(has_work(PocketKind.PAGE, (Piece(Counts(5, 1)),)))


class Theirs(SimpleTestCase):
    """What others put into a pocket that is filled together, where each one's own counts (decided by the product)."""

    mine = Piece(Counts(5, 2), "mine")
    other = Piece(Counts(5, 2), "theirs", theirs=True)

    def test_it_is_no_work_of_this_student_and_fills_nothing(self) -> None:
        wanted = Wanted(PocketKind.EVIDENCE, artefacts=2, reflection_on_each=True)
        self.assertEqual(filled(wanted, (self.other, self.mine)), (2, 4))
        self.assertEqual([one.done for one in chips(wanted, (self.other, self.mine))], [1, 1, 0])
        self.assertFalse(has_work(PocketKind.EVIDENCE, (self.other,)))
        self.assertTrue(has_work(PocketKind.EVIDENCE, (self.other, self.mine)))

    def test_rows_of_others_too(self) -> None:
        row, other = Piece(Counts(1)), Piece(Counts(1), theirs=True)
        self.assertEqual(filled(Wanted(PocketKind.LOG, rows=2), (row, other, other)), (1, 2))
        self.assertFalse(has_work(PocketKind.LOG, (other,)))
