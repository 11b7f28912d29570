"""Finding words that were quoted from a text again, also in a text that changed since.

As the W3C Web Annotation Data Model has it (https://www.w3.org/TR/annotation-model/, 4.2.4 and 4.2.5): words are
named by what they say (*exact*), a little of what stands before and after them (*prefix*, *suffix*), and their place,
counted in characters (Unicode code points) from 0. Decided here: blanks and line breaks make no difference, since a
browser makes others than the text has; of several places the one wins whose surroundings are most alike, then the one
nearest to where the words were; where the words themselves changed, a passage that is alike to at least `ALIKE` per
cent is found and said to be changed; what is less alike is gone.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import takewhile

from rapidfuzz import fuzz

ALIKE = 80.0
"""Per cent (RapidFuzz's ratio of the best passage) from which words that changed are still the same words."""
AROUND = 40
"""Characters of what stands before and after that are kept."""
LONGEST = 2_000
"""Characters of the words themselves: more than a paragraph is commented as a whole."""


@dataclass(frozen=True, slots=True)
class Quote:
    """Words of a text with their surroundings, and from where to where they stand (0 and 0: not known)."""

    exact: str
    prefix: str = ""
    suffix: str = ""
    start: int = 0
    end: int = 0


@dataclass(frozen=True, slots=True)
class Found:
    """Where quoted words are in a text; ``changed``: they read otherwise by now."""

    start: int
    end: int
    changed: bool = False


def quote_at(text: str, start: int, end: int) -> Quote:
    """The words from ``start`` up to ``end`` as they are kept."""
    return Quote(text[start:end], text[max(0, start - AROUND) : start], text[end : end + AROUND], start, end)


def find(text: str, quote: Quote) -> Found | None:
    """Where the words are in this text; None where they are gone."""
    signs, places = _bare(text)
    wanted = _bare(quote.exact)[0]
    if not wanted or not signs:
        return None
    at = _all(signs, wanted)
    if at:
        before, after = _bare(quote.prefix)[0], _bare(quote.suffix)[0]
        near = min(
            at, key=lambda one: (-_around(signs, one, len(wanted), before, after), abs(places[one] - quote.start))
        )
        return Found(places[near], places[near + len(wanted) - 1] + 1)
    alike = fuzz.partial_ratio_alignment(wanted, signs, score_cutoff=ALIKE) if len(wanted) <= len(signs) else None
    if alike is None or alike.dest_end <= alike.dest_start:
        return None
    return Found(places[alike.dest_start], places[alike.dest_end - 1] + 1, changed=True)


def _bare(text: str) -> tuple[str, list[int]]:
    """A text without blanks, and the place of each of its characters in the whole."""
    kept = [(sign, at) for at, sign in enumerate(text) if not sign.isspace()]
    return "".join(sign for sign, _ in kept), [at for _, at in kept]


def _all(text: str, wanted: str) -> list[int]:
    found, at = [], text.find(wanted)
    while at >= 0:
        found.append(at)
        at = text.find(wanted, at + 1)
    return found


def _around(text: str, at: int, length: int, before: str, after: str) -> int:
    """How many characters next to the words are as they were."""
    ahead = text[at + length : at + length + len(after)]
    behind = text[max(0, at - len(before)) : at]
    return _same(reversed(behind), reversed(before)) + _same(ahead, after)


def _same(one: Iterable[str], other: Iterable[str]) -> int:
    return sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(one, other, strict=False)))
