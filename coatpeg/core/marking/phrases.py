"""Phrases that a marker says often: what they may hold, and whether a feedback says one.

Decided here: ``{name}`` stands for the student's given name, ``{missing}`` for what is missing of what was wanted, and
``{handin}`` for the hand-in's title; any other brace is a brace. A feedback says a phrase where the phrase's own words
stand in it in their order, whatever stands for the places between them; capitals and spaces make no difference. So a
phrase that was changed a little at one place is not counted, and one that is nothing but places is never.
"""

from __future__ import annotations

import re

from coatpeg.core.errors import Invalid
from coatpeg.core.portfolios.texts import tidy_text

LONGEST = 1_000
"""Characters of a phrase."""
PLACES = ("{name}", "{missing}", "{handin}")
_PLACE = re.compile("|".join(map(re.escape, PLACES)))


def check(text: str) -> str:
    """A phrase, tidied; ``Invalid`` where it has no words or too many."""
    text = tidy_text(text).strip()
    if not text:
        raise Invalid("The phrase has no words.", where="text", fix="Write what you often say.")
    if len(text) > LONGEST:
        raise Invalid(
            f"The phrase has {len(text):,} characters, more than {LONGEST:,}.", where="text", fix="Shorten it."
        )
    return text


def same(one: str, other: str) -> bool:
    """Whether two phrases are the same words."""
    return _plain(one) == _plain(other)


def says(feedback: str, phrase: str) -> bool:
    """Whether a feedback says a phrase."""
    parts = [part for part in (_plain(one) for one in _PLACE.split(phrase)) if part]
    text, at = _plain(feedback), 0
    for part in parts:
        found = text.find(part, at)
        if found < 0:
            return False
        at = found + len(part)
    return bool(parts)


def _plain(text: str) -> str:
    return " ".join(text.casefold().split())
