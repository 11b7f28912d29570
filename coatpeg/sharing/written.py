"""Who wrote what on a shared page: spans of authors, how much each wrote and when, who only read.

Students see each other by given name, last initial and peg picture; staff see the same here. Decided here: somebody who
no longer fills the page keeps their name on what they wrote; "times" are sittings, ten minutes apart.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from datetime import date, datetime, timedelta
from itertools import pairwise
from typing import Any

from coatpeg.core.outlines.filling import NO_COUNTS
from coatpeg.core.portfolios.texts import Counts
from coatpeg.core.sharing.authors import Span, parts
from coatpeg.people.faces import mate
from coatpeg.people.models import Enrolment, Person
from coatpeg.sharing import finding, pages, settling
from coatpeg.sharing.models import SharedPage, SharedReader

APART = timedelta(minutes=10)


def written(page: SharedPage, state: settling.State, today: date) -> dict[str, Any]:
    """Everybody who fills a page or ever wrote on it, with what they did, and the spans of authors."""
    spans = settling.spans_of(page)
    found = _counts(page, state, spans)
    times = _sittings(spans)
    last: dict[int, datetime] = {}
    for span in spans:
        last[span.person] = max(span.at, last.get(span.person, span.at))
    reading = set(SharedReader.objects.filter(page=page).values_list("person_id", flat=True))
    there = list(finding.members_of(page, today).select_related("person"))
    ids = {one.person_id for one in there}
    before = {
        one.person_id: one
        for one in Enrolment.objects.filter(group_id=page.group_id, person__in=set(last) - ids).select_related("person")
    }
    elsewhere = Person.objects.filter(pk__in=set(last) - ids - before.keys())
    people: list[dict[str, Any]] = [
        {
            "person": one.person_id,
            **mate(one),
            "there": one.person_id in ids,
            "words": found.get(one.person_id, NO_COUNTS).words,
            "sentences": found.get(one.person_id, NO_COUNTS).sentences,
            "times": times.get(one.person_id, 0),
            "last": last.get(one.person_id),
            "read": one.person_id in reading,
        }
        for one in (*there, *before.values(), *(Enrolment(pk=0, person=one, picture="") for one in elsewhere))
    ]
    people.sort(key=lambda one: (-one["words"], one["name"], one["person"]))
    return {"people": people, "spans": [number for one in spans for number in (*one[:4], int(one.at.timestamp()))]}


LONG = 60_000
"""Bytes from which on a page is not gone through each time: the counts are those of when it was settled last."""


def _counts(page: SharedPage, state: settling.State, spans: list[Span]) -> dict[int, Counts]:
    """How much each person wrote of what stands there."""
    if page.settled == state.number or len(state.data) > LONG:
        return {int(person): Counts(*counts) for person, counts in page.parts.items()}
    return {person: one.counts for person, one in parts(pages.said(state.data, spans)).items()}


def _sittings(spans: Iterable[Span]) -> dict[int, int]:
    """How often each person came to write."""
    moments: dict[int, list[datetime]] = defaultdict(list)
    for span in spans:
        moments[span.person].append(span.at)
    found = {}
    for person, at in moments.items():
        at.sort()
        found[person] = 1 + sum(later - earlier > APART for earlier, later in pairwise(at))
    return found
