"""What is said of a hand-in that collects a pocket at the same time as another one.

Decided here: it is allowed, and told before it is set, with what it does to the locks. Drafts and what was taken away
do not count; nor do two that ask no student both, as where each is for another period.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import islice

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.handins.asking import at_once
from coatpeg.handins.asked.asking import Answer, AskedHandIn, handins_of_group
from coatpeg.outlines.models import Pocket
from coatpeg.people.rosters import Member

MOST_NAMED = 3
"""Hand-ins that are named, each with its pockets; of more there is their number."""


def overlaps(
    group_id: int, new: AskedHandIn, answers: Sequence[tuple[Member, Answer]], calendar: SchoolCalendar
) -> list[str]:
    """A sentence for each other hand-in of the class that collects a pocket of this one's while it is open too."""
    asked = [one for one, answer in answers if answer.asked]
    others = [one for one in handins_of_group(group_id) if one.id != new.id]
    found = [(one, shared) for one, shared in _shared(new, others) if _of_same(one, asked, calendar)]
    titles = dict(Pocket.objects.filter(pk__in={pk for _, shared in found for pk in shared}).values_list("pk", "title"))
    said = [
        f"“{one.title}” collects {_listed(titles[pk] for pk in shared)} too while this is open. {_locks(new, one)}"
        for one, shared in islice(sorted(found, key=lambda pair: pair[0].order), MOST_NAMED)
    ]
    more = len(found) - len(said)
    return [*said, f"So do {more} more hand-ins." if more > 1 else "So does 1 more hand-in."] if more else said


def _shared(new: AskedHandIn, others: Iterable[AskedHandIn]) -> Iterator[tuple[AskedHandIn, list[int]]]:
    mine = set(new.pockets)
    for one in others:
        both = [pk for pk in one.pockets if pk in mine]
        if both and at_once(new.asked, one.asked):
            yield one, both


def _of_same(other: AskedHandIn, asked: Iterable[Member], calendar: SchoolCalendar) -> bool:
    """Whether any of these students is asked for the other one too."""
    return any(answer.asked for answer in other.answers(asked, calendar))


def _locks(one: AskedHandIn, other: AskedHandIn) -> str:
    """What becomes of the locks where two collect the same; one that may be handed in again locks once it is due."""
    if one.again or other.again:
        return "What locks for one is locked for both: the same work is handed in for the other."
    return (
        "What is handed in for one is locked for both, goes in for the other as it is, "
        "and can be changed once either is sent back."
    )


def _listed(titles: Iterable[str]) -> str:
    names = [f"“{one}”" for one in titles]
    first = ", ".join(names[:MOST_NAMED])
    return first if len(names) <= MOST_NAMED else f"{first} and {len(names) - MOST_NAMED} more"
