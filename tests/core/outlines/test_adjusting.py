"""What adjustments change about what is wanted."""

from datetime import date

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.calendar.school_days import Span
from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.adjusting import WantedChange, adjusted, check
from coatpeg.core.outlines.filling import Filled, Piece, PocketKind, Wanted, chips, filled
from coatpeg.core.portfolios.texts import Counts, Length, Measure

TODAY = date(2026, 11, 4)
TERM = Span(date(2026, 9, 1))
CARD = Wanted(PocketKind.EVIDENCE, 3, True, Length(Measure.SENTENCES, 3, 5))
PAGE = Wanted(PocketKind.PAGE, length=Length(Measure.WORDS, 50))


def change(**fields: object) -> WantedChange:
    return WantedChange(fields.pop("span", TERM), **fields)


class Adjusting(SimpleTestCase):
    def test_fewer_artefacts_but_at_least_one(self) -> None:
        self.assertEqual(adjusted(CARD, [change(fewer_artefacts=1)], TODAY).artefacts, 2)
        self.assertEqual(adjusted(CARD, [change(fewer_artefacts=9)], TODAY).artefacts, 1)
        self.assertEqual(adjusted(PAGE, [change(fewer_artefacts=1)], TODAY).artefacts, 0)

    def test_shorter_lowers_the_least_only_and_longer_raises_both(self) -> None:
        cases = {50: (2, 5), 40: (1, 5), 10: (1, 5), 100: (3, 5), 150: (5, 8), 200: (6, 10)}
        for percent, expected in cases.items():
            with self.subTest(percent):
                length = adjusted(CARD, [change(percent=percent)], TODAY).length
                self.assertEqual((length.least, length.most), expected)
        self.assertEqual(adjusted(PAGE, [change(percent=50)], TODAY).length, Length(Measure.WORDS, 25))

    def test_of_several_each_point_is_taken_where_it_helps_most(self) -> None:
        both = [change(fewer_artefacts=1, percent=80), change(percent=60, spoken=True), change(percent=150)]
        found = adjusted(CARD, both, TODAY)
        self.assertEqual((found.artefacts, found.length.least, found.spoken), (2, 2, True))

    def test_it_counts_from_its_first_day_to_its_last(self) -> None:
        span = Span(date(2026, 11, 4), date(2026, 11, 6))
        counts = [
            adjusted(CARD, [change(span=span, fewer_artefacts=1)], date(2026, 11, day)).artefacts for day in range(3, 8)
        ]
        self.assertEqual(counts, [3, 2, 2, 2, 3])

    def test_excused_from_a_kind_nothing_is_wanted(self) -> None:
        found = adjusted(CARD, [change(without=frozenset({PocketKind.EVIDENCE}))], TODAY)
        self.assertEqual((chips(found, ()), filled(found, (Piece(),))), ((), Filled(0, 0)))
        page = adjusted(PAGE, [change(without=frozenset({PocketKind.PAGE}))], TODAY)
        self.assertEqual((chips(page, ()), filled(page, (Piece(Counts(9, 1)),))), ((), Filled(0, 0)))
        self.assertEqual(adjusted(PAGE, [change(without=frozenset({PocketKind.LINKS}))], TODAY), PAGE)

    def test_without_any_it_is_what_everybody_has(self) -> None:
        self.assertIs(adjusted(CARD, [], TODAY), CARD)

    @given(st.integers(0, 20), st.integers(10, 100), st.lists(st.integers(0, 8), max_size=5))
    def test_help_never_makes_more_missing(self, fewer: int, percent: int, sentences: list[int]) -> None:
        pieces = tuple(Piece(Counts(number * 5, number)) for number in sentences)
        before, after = (
            filled(CARD, pieces),
            filled(adjusted(CARD, [change(fewer_artefacts=fewer, percent=percent)], TODAY), pieces),
        )
        self.assertLessEqual(after.wanted - after.met, before.wanted - before.met)

    def test_what_cannot_be_meant_is_refused(self) -> None:
        cases = {
            "changes nothing": (0, change()),
            "-1 is not": (-1, change()),
            "90 is not": (90, change()),
            "21 is not": (0, change(fewer_artefacts=21)),
            "5 % is not": (0, change(percent=5)),
            "end before": (1, change(span=Span(date(2026, 11, 4), date(2026, 11, 3)))),
        }
        for words, (days, one) in cases.items():
            with self.subTest(words), self.assertRaises(Invalid) as caught:
                check(days, one)
            self.assertIn(words, caught.exception.what)
            self.assertTrue(caught.exception.fix)
        check(2, change())
        check(0, change(spoken=True))
