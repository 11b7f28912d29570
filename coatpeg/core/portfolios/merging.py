"""Two texts that grew from one: put together where their paragraphs differ, told apart where they do not; and what
changed between two.

The merge is the usual one of three texts (base, mine, theirs; diff3, S. Khanna, K. Kunal, B. C. Pierce, "A formal
investigation of diff3", 2007), on whole paragraphs. Decided here: changes that touch the same paragraph, or stand
side by side without an unchanged one between them, are not put together but shown beside each other; the same change
on both sides is one.

What two sequences have in common is their longest common subsequence, bit-parallel (H. Hyyrö, "Bit-parallel LCS-length
computation revisited", 2004, as RapidFuzz has it): its time does not depend on how often a line repeats.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Literal, NamedTuple

from rapidfuzz.distance import LCSseq

_WORDS = re.compile(r"\s+|\w+|[^\w\s]")
MOST_TOKENS = 12_000
"""Words and signs of a text up to which its differences are looked for word by word; past it line by line."""
MOST_LINES = 30_000
"""Paragraphs of a text up to which two are put together: more than the longest text can have."""


def merge(base: Sequence[str], mine: Sequence[str], theirs: Sequence[str]) -> list[str] | None:
    """Both changes in one, or None where they meet."""
    if list(mine) == list(theirs):
        return list(mine)
    if max(len(base), len(mine), len(theirs)) > MOST_LINES:
        return None
    merged: list[str] = []
    at = 0
    changes = sorted([(*one, 0) for one in _changes(base, mine)] + [(*one, 1) for one in _changes(base, theirs)])
    last_end, last_side = -1, -1
    for index, (start, end, new, side) in enumerate(changes):
        if index and (start, end, new) == changes[index - 1][:3]:
            last_side = -1  # the same change on both sides: whatever follows it may touch it
            continue
        if start <= last_end and side != last_side and last_side != -1:
            return None
        merged += base[at:start]
        merged += new
        at = end
        last_end, last_side = end, side
    return merged + list(base[at:])


def _changes(base: Sequence[str], other: Sequence[str]) -> list[tuple[int, int, tuple[str, ...]]]:
    """Parts of the base and what stands in their place."""
    return [(i, j, tuple(other[k:m])) for same, i, j, k, m in _parts(base, other) if not same]


def _parts(old: Sequence[str], new: Sequence[str]) -> list[tuple[bool, int, int, int, int]]:
    """Parts in order: whether they are the same, from–to in the old and in the new; a changed one is one part."""
    found: list[tuple[bool, int, int, int, int]] = []
    for op in LCSseq.opcodes(old, new):
        same = op.tag == "equal"
        if found and found[-1][0] is same:
            _, i, _, k, _ = found.pop()
            found.append((same, i, op.src_end, k, op.dest_end))
        else:
            found.append((same, op.src_start, op.src_end, op.dest_start, op.dest_end))
    return found


class Part(NamedTuple):
    """A part of two compared texts."""

    what: Literal["same", "gone", "new"]
    text: str


def compare(old: str, new: str) -> list[Part]:
    """What is the same, gone and new from one text to another, in order, word by word."""
    before, after = _WORDS.findall(old), _WORDS.findall(new)
    if len(before) + len(after) > MOST_TOKENS:
        before, after = old.splitlines(keepends=True), new.splitlines(keepends=True)
    parts: list[Part] = []
    for same, i, j, k, m in _parts(before, after):
        if same:
            parts.append(Part("same", "".join(before[i:j])))
            continue
        if j > i:
            parts.append(Part("gone", "".join(before[i:j])))
        if m > k:
            parts.append(Part("new", "".join(after[k:m])))
    return parts
