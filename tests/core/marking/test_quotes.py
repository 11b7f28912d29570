"""Quoted words found again: whatever the blanks, by their surroundings, after a change, or not at all."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.marking.quotes import Found, Quote, find, quote_at

TEXT = "A seed needs water.\nA seed needs air, and a seed needs warmth."


class Quotes(SimpleTestCase):
    def test_blanks_and_line_breaks_make_no_difference(self) -> None:
        self.assertEqual(find(TEXT, Quote("water.  A\n\nseed")), Found(13, 26))

    def test_of_several_places_the_one_with_the_same_surroundings_wins_then_the_nearest(self) -> None:
        self.assertEqual(find(TEXT, Quote("seed needs", suffix=" warmth")), Found(44, 54))
        self.assertEqual(find(TEXT, Quote("seed needs", prefix="water.\nA ")), Found(22, 32))
        self.assertEqual(find(TEXT, Quote("seed needs", start=40, end=50)), Found(44, 54))

    def test_words_that_changed_a_little_are_found_and_said_to_be_changed(self) -> None:
        found = find("One seed needs cold water every day.", Quote("One seed needs the water every day."))
        assert found
        self.assertTrue(found.changed)
        self.assertEqual(found.start, 0)

    def test_words_that_are_gone_are_gone(self) -> None:
        for text, exact in ((TEXT, "The harvest was good"), ("", "seed"), (TEXT, " \n"), ("ab", "a long sentence")):
            self.assertIsNone(find(text, Quote(exact)))

    @given(st.text(min_size=1, max_size=60), st.data())
    def test_what_is_quoted_from_a_text_is_found_in_it_where_it_was(self, text: str, data: st.DataObject) -> None:
        start = data.draw(st.integers(0, len(text) - 1))
        quote = quote_at(text, start, data.draw(st.integers(start + 1, len(text))))
        found = find(text, quote)
        if not quote.exact.strip():
            self.assertIsNone(found)
            return
        assert found
        self.assertFalse(found.changed)
        self.assertEqual("".join(text[found.start : found.end].split()), "".join(quote.exact.split()))
