"""Who wrote what of a page: spans of authors over a writer's ticks, and how much each person wrote.

A writer id belongs to one person, but words that the server brings back stand under an id of its own and keep their
authors: so ranges of ticks (spans) name the person, with the time. Decided here: what stands between two of somebody's
runs ends a word of theirs; a sentence is counted where its words are theirs; half a word counts as one.
"""

from __future__ import annotations

from bisect import bisect_right
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import NamedTuple

from coatpeg.core.portfolios import texts
from coatpeg.core.portfolios.texts import Counts
from coatpeg.core.sharing.blocks import cut, utf16
from coatpeg.core.sharing.order import Run

SITTING = timedelta(minutes=1)
"""Spans of one writer that follow each other within this time are one."""


class Span(NamedTuple):
    """Ticks from–to of a writer id, written by a person at a time."""

    client: int
    start: int
    end: int
    person: int
    at: datetime


def joined(spans: Iterable[Span]) -> list[Span]:
    """The same spans, those that follow each other within a sitting put together; sorted by writer and tick."""
    found: list[Span] = []
    for one in sorted(spans):
        last = found[-1] if found else None
        if (
            last
            and (last.client, last.end, last.person) == (one.client, one.start, one.person)
            and one.at - last.at < SITTING
        ):
            found[-1] = last._replace(end=one.end)
        else:
            found.append(one)
    return found


class Said(NamedTuple):
    """Words that stand together, by a person, at a time. ``person`` 0: a break between elements."""

    person: int
    at: datetime | None
    words: str


@dataclass
class Authors:
    """Spans, to be asked for the author of a tick."""

    spans: Sequence[Span]
    _by_client: dict[int, list[Span]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        by_client: dict[int, list[Span]] = defaultdict(list)
        for one in sorted(self.spans):
            by_client[one.client].append(one)
        self._by_client = dict(by_client)

    def said(self, run: Run) -> Iterable[Said]:
        """A run cut where its author or time changes; ticks that no span names are nobody's."""
        if not run.client:
            yield Said(0, None, run.words)
            return
        spans = self._by_client.get(run.client, [])
        at, end, words = run.clock, run.clock + utf16(run.words), run.words
        while at < end:
            place = bisect_right(spans, at, key=lambda span: span.start) - 1
            span = spans[place] if place >= 0 else None
            if span is None or span.end <= at:
                until = min(end, spans[place + 1].start if place + 1 < len(spans) else end)
                mine, words = cut(words, until - at)
                yield Said(-1, None, mine)
            else:
                until = min(end, span.end)
                mine, words = cut(words, until - at)
                yield Said(span.person, span.at, mine)
            at = until


@dataclass(frozen=True, slots=True)
class Part:
    """What one person wrote of a page as it stands: counts, and when they wrote last."""

    counts: Counts
    last: datetime | None


def said_in(passages: Iterable[Iterable[Run]], authors: Authors) -> list[list[Said]]:
    """The words of each passage, by person and time."""
    return [[said for run in runs for said in authors.said(run)] for runs in passages]


def parts(said: Iterable[Iterable[Said]]) -> Mapping[int, Part]:
    """How much each person wrote, by person."""
    words: dict[int, list[str]] = defaultdict(list)
    last: dict[int, datetime] = {}
    for passage in said:
        before = 0
        for person, at, piece in passage:
            if person > 0:
                if before != person:
                    words[person].append(" " if words[person] else "")
                words[person].append(piece)
                if at is not None:
                    last[person] = max(at, last.get(person, at))
            before = person
        for of in words.values():
            of.append("\n")
    return {person: Part(texts.count("".join(of)), last.get(person)) for person, of in words.items()}
