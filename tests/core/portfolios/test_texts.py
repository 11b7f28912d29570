"""Names as they are shown, texts counted and tidied, receipts, frozen documents."""

import hashlib
import json

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.handins import receipts, snapshots
from coatpeg.core.people import names
from coatpeg.core.portfolios import texts
from coatpeg.core.portfolios.texts import Counts, Length, Measure, within


class Names(SimpleTestCase):
    def test_listed_said_and_as_other_students_see_them(self) -> None:
        cases = {
            ("Dube", "Thandi"): ("Dube, Thandi", "Thandi Dube", "Thandi D."),
            ("de Souza", "Ana Beatriz"): ("de Souza, Ana Beatriz", "Ana Beatriz de Souza", "Ana Beatriz d."),
            ("", "Sukarni"): ("Sukarni", "Sukarni", "Sukarni"),
            ("Okafor", ""): ("Okafor", "Okafor", "Okafor"),
            ("山田", "太郎"): ("山田, 太郎", "太郎 山田", "太郎 山."),
        }
        for (family, given_name), expected in cases.items():
            with self.subTest(expected[0]):
                shown = (
                    names.listed(family, given_name),
                    names.full(family, given_name),
                    names.short(family, given_name),
                )
                self.assertEqual(shown, expected)

    def test_found_without_case_and_accents(self) -> None:
        for written, folded in (("Ångström", "angstrom"), ("O’NEILL", "o’neill"), ("Groß", "gross"), ("Zoë", "zoe")):
            self.assertEqual(names.search_key(written), folded)

    @given(st.text(max_size=30))
    def test_folding_again_changes_nothing(self, text: str) -> None:
        once = names.search_key(text)
        self.assertEqual(names.search_key(once), once)

    @given(
        st.lists(
            st.tuples(st.sampled_from(["", "Dube", "de Souza", "Ångström"]), st.sampled_from(["", "Ana", "Bo"])),
            max_size=8,
        )
    )
    def test_the_order_is_always_the_same(self, people: list[tuple[str, str]]) -> None:
        keyed = [(*one, place) for place, one in enumerate(people)]
        there = sorted(keyed, key=lambda one: names.sort_key(*one))
        keyed.reverse()
        back = sorted(keyed, key=lambda one: names.sort_key(*one))
        self.assertEqual(there, back)


class Texts(SimpleTestCase):
    def test_words_and_sentences(self) -> None:
        cases = {
            "": (0, 0),
            " … ! —": (0, 0),
            "One thing. Another thing.": (4, 2),
            "It cost £3.50 for 4 people.": (6, 1),
            "Don't stop.": (2, 1),
            "well-known": (2, 1),
            "Is it? Yes.\nNo full stop here": (7, 3),
            "1 2 3": (3, 1),
        }
        for text, expected in cases.items():
            with self.subTest(text):
                self.assertEqual(tuple(texts.count(text)), expected)

    @given(st.text(max_size=200))
    def test_a_sentence_has_a_word_and_a_word_more_never_takes_one_away(self, text: str) -> None:
        counts = texts.count(text)
        self.assertLessEqual(counts.sentences, counts.words)
        self.assertGreater(texts.count(f"{text} word").words, 0)

    def test_within_an_asked_length(self) -> None:
        sentences = Length(Measure.SENTENCES, 2, 3)
        self.assertEqual(
            [within(Counts(9, number), sentences) for number in range(5)], [False, False, True, True, False]
        )
        open_end = Length(Measure.WORDS, 5)
        self.assertEqual([within(Counts(number, 1), open_end) for number in (4, 5, 500)], [False, True, True])
        self.assertEqual((within(Counts(1, 1), None), within(Counts(0, 0), None)), (True, False))

    @given(st.text(max_size=80))
    def test_a_tidied_text_is_tidy_and_keeps_its_words(self, text: str) -> None:
        tidy = texts.tidy_text(text)
        self.assertEqual(texts.tidy_text(tidy), tidy)
        self.assertFalse(any(ord(one) < 32 and one not in "\n\t" for one in tidy))
        letters = [one for one in text if one.isalnum() and one.isascii()]
        self.assertEqual([one for one in tidy if one.isalnum() and one.isascii()], letters)


class Receipts(SimpleTestCase):
    @given(st.integers(0, receipts.SPACE - 1), st.integers(0, receipts.SPACE - 1))
    def test_two_numbers_two_codes(self, one: int, other: int) -> None:
        self.assertEqual(receipts.receipt_code(one) == receipts.receipt_code(other), one == other)

    def test_the_first_the_last_and_none_beyond(self) -> None:
        self.assertEqual(receipts.receipt_code(0), "A2-ACORN-10")
        self.assertEqual(receipts.receipt_code(receipts.SPACE - 1), "Z9-YARROW-99")
        for number in (-1, receipts.SPACE):
            self.assertRaises(ValueError, receipts.receipt_code, number)

    def test_no_letter_can_be_taken_for_a_digit(self) -> None:
        self.assertFalse(set("IO01") & set(receipts.LETTERS + receipts.DIGITS))
        self.assertEqual(len(set(receipts.WORDS)), len(receipts.WORDS))


PLAIN = st.recursive(
    st.none() | st.booleans() | st.integers() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=4), inner, max_size=3),
    max_leaves=8,
)


class Snapshots(SimpleTestCase):
    def test_the_order_of_keys_says_nothing(self) -> None:
        self.assertEqual(
            snapshots.digest({"b": 1, "a": [2, {"d": None, "c": "é"}]}),
            snapshots.digest({"a": [2, {"c": "é", "d": None}], "b": 1}),
        )

    @given(PLAIN)
    def test_it_reads_back_as_it_was(self, document: object) -> None:
        self.assertEqual(json.loads(snapshots.canonical(document)), document)

    @given(PLAIN, PLAIN)
    def test_another_document_has_another_hash(self, one: object, other: object) -> None:
        same = snapshots.canonical(one) == snapshots.canonical(other)
        self.assertEqual(snapshots.digest(one) == snapshots.digest(other), same)

    def test_sorted_keys_as_in_rfc_8785(self) -> None:
        """RFC 8785, 3.2.3: the keys of its example that are plain letters and digits, sorted (from memory)."""
        document = {
            "\u20ac": "Euro Sign",
            "1": "One",
            "\u0080": "Control",
            "\u00f6": "Latin Small Letter O With Diaeresis",
        }
        keys = list(json.loads(snapshots.canonical(document)))
        self.assertEqual(keys, ["1", "\u0080", "\u00f6", "\u20ac"])

    def test_no_number_that_json_does_not_have(self) -> None:
        for number in (float("nan"), float("inf")):
            self.assertRaises(ValueError, snapshots.canonical, [number])

    def test_a_text_by_the_standard_library(self) -> None:
        self.assertEqual(snapshots.text_digest("é"), hashlib.sha256("é".encode()).hexdigest())
