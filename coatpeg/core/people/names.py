"""How people are named and listed.

Order: family name, then given name, by the Unicode Collation Algorithm in root order (UTS #10, as pyuca implements
it). Decided here: a person with one name only is listed under that name, because that is where people look; a name
that is written family name first is listed as it is written; equal names are told apart by their id, so the order is
always the same.
"""

from __future__ import annotations

import unicodedata
from functools import cache, lru_cache

from pyuca import Collator

SortKey = tuple[tuple[int, ...], tuple[int, ...], int]


@cache
def _collator() -> Collator:
    return Collator()


@lru_cache(maxsize=50_000)
def _weights(text: str) -> tuple[int, ...]:
    return tuple(_collator().sort_key(unicodedata.normalize("NFC", text)))


def sort_key(family: str, given: str, tie: int = 0) -> SortKey:
    """A key that sorts people where a person looks for them."""
    if not family:
        return _weights(given), (), tie
    return _weights(family), _weights(given), tie


def primary_weights(text: str) -> tuple[int, ...]:
    """The base letters of a text as the collation weighs them: case and accents make no difference."""
    weights = _weights(text)
    return weights[: weights.index(0)] if 0 in weights else weights


def listed(family: str, given: str, *, family_first: bool = False) -> str:
    """The name as lists show it: ``Dube, Thandi``; ``王 小明`` where the family name comes first anyway."""
    if family_first:
        return full(family, given, family_first=True)
    return f"{family}, {given}" if family and given else family or given


def full(family: str, given: str, *, family_first: bool = False) -> str:
    """The name as it is said: ``Thandi Dube``, ``Nguyễn Thị Minh Khai``."""
    return f"{family} {given}".strip() if family_first else f"{given} {family}".strip()


def short(family: str, given: str) -> str:
    """Given name and last initial, as other students may see it: ``Thandi D.``"""
    return f"{given} {family[0]}." if family and given else given or family


def search_key(text: str) -> str:
    """A text folded for finding: without case and accents."""
    # Taken apart before and after: a sign may hide a capital, and its small letter an accent.
    small = unicodedata.normalize("NFKD", text).casefold()
    return "".join(one for one in unicodedata.normalize("NFKD", small) if not unicodedata.combining(one))
