"""Counting words and sentences, and judging whether a text is within the asked length.

Boundaries are those of Unicode Standard Annex 29 as ICU implements them. Decided here: a word is a
word segment with at least one letter or digit in it; a sentence is a sentence segment with at least
one word in it, so "..." counts nothing. The browser counts by the same rule while typing.
"""

from __future__ import annotations

import unicodedata
from dataclasses import dataclass
from enum import StrEnum
from typing import NamedTuple

from icu4py.breakers import SentenceBreaker, WordBreaker

LONGEST_TEXT = 20_000
"""Characters in one reflection or page. A class's longest essays stay below; 100 kB is a pasted accident."""

LOCALE = "en"
"""The root rules: `en` has no tailoring of word or sentence breaks in CLDR."""


class Measure(StrEnum):
    """What an asked length counts."""

    WORDS = "words"
    SENTENCES = "sentences"


class Counts(NamedTuple):
    """Words and sentences of a text."""

    words: int = 0
    sentences: int = 0

    def by(self, measure: Measure) -> int:
        """The count in one measure."""
        return self.words if measure is Measure.WORDS else self.sentences


@dataclass(frozen=True, slots=True)
class Length:
    """An asked length, both ends included; ``most`` None means no upper end."""

    measure: Measure
    least: int = 1
    most: int | None = None


def _has_word(segment: str) -> bool:
    return any(character.isalnum() for character in segment)


def count(text: str) -> Counts:
    """Words and sentences of ``text``."""
    words = sum(1 for segment in WordBreaker(text, LOCALE) if _has_word(segment))
    if not words:
        return Counts()
    return Counts(words, sum(1 for segment in SentenceBreaker(text, LOCALE) if _has_word(segment)))


def within(counts: Counts, asked: Length | None) -> bool:
    """Whether a text of these counts meets the asked length; at least one word always."""
    if counts.words < 1:
        return False
    if asked is None:
        return True
    number = counts.by(asked.measure)
    return number >= asked.least and (asked.most is None or number <= asked.most)


def tidy_text(text: str) -> str:
    """A typed text as it is kept: NFC, one kind of line end, no control characters but tab and line feed."""
    unified = unicodedata.normalize("NFC", text.replace("\r\n", "\n").replace("\r", "\n"))
    return "".join(one for one in unified if one in "\n\t" or unicodedata.category(one) != "Cc")
