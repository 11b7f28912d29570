"""Phrases: what they may hold, and which feedback says one."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.errors import Invalid
from coatpeg.core.marking import phrases

WORDS = some.text(alphabet="abc dé\n", min_size=1).filter(lambda text: text.strip())


class Phrases(TestCase):
    def test_tidied_and_neither_empty_nor_endless(self) -> None:
        self.assertEqual(phrases.check("  Well begun.\r\n"), "Well begun.")
        for text, told in ((" \n", "no words"), ("x" * 1_001, "1,001 characters")):
            with self.assertRaises(Invalid) as caught:
                phrases.check(text)
            self.assertIn(told, str(caught.exception))
        self.assertEqual(len(phrases.check("x" * 1_000)), 1_000)

    def test_a_feedback_says_a_phrase_whatever_stands_at_its_places(self) -> None:
        phrase = "Good start, {name}. Still missing: {missing}."
        for feedback, said in (
            ("Good start, Josh. Still missing: 1 link.", True),
            ("Nice. good  START,\nThandi. still missing: nothing. Go on!", True),
            ("Still missing: 1 link. Good start, Josh.", False),
            ("Good start. Still missing: 1 link.", False),
            ("", False),
        ):
            self.assertEqual(phrases.says(feedback, phrase), said, feedback)

    def test_a_phrase_of_places_alone_is_never_counted(self) -> None:
        self.assertFalse(phrases.says("Josh", "{name}"))
        self.assertFalse(phrases.says("Josh", " {name}  {handin} "))

    def test_any_other_brace_is_a_brace(self) -> None:
        self.assertTrue(phrases.says("Use {1, 2}.", "Use {1, 2}."))
        self.assertFalse(phrases.says("Use a set.", "Use {1, 2}."))

    @given(WORDS, WORDS, WORDS)
    def test_what_is_said_is_found_between_anything(self, before: str, phrase: str, after: str) -> None:
        self.assertTrue(phrases.says(f"{before} {phrase} {after}", phrase))

    def test_the_same_words(self) -> None:
        self.assertTrue(phrases.same("Well  begun.", "well begun."))
        self.assertFalse(phrases.same("Well begun.", "Well begun!"))
