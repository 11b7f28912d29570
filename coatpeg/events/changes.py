"""Following a group's changes by a cheap cursor poll."""

from __future__ import annotations

from dataclasses import dataclass

from django.db.models import Q

from coatpeg.events.models import Event, GroupSequence

MOST_AT_ONCE = 200
"""More changes than this and a reader does better to load the view anew; the cursor jumps to the end."""


@dataclass(frozen=True, slots=True)
class Change:
    """One event as a follower sees it."""

    number: int
    verb: str
    enrolment_id: int | None
    handin_id: int | None


@dataclass(frozen=True, slots=True)
class Changes:
    """The new cursor and what came since; ``all_changed`` when it was too much to list."""

    cursor: int
    all_changed: bool
    changes: tuple[Change, ...]


def changes_after(group_id: int, after: int | None, *, only_enrolment: int | None = None) -> Changes:
    """What was committed in a group after a cursor; None asks for the cursor alone.

    ``only_enrolment`` keeps a student to events about themselves and about the class as a whole. One
    query where nothing is new, two otherwise.
    """
    last = GroupSequence.objects.filter(group_id=group_id).values_list("last", flat=True).first() or 0
    if after is None or after == last:
        return Changes(last, False, ())
    if not 0 <= after <= last or last - after > MOST_AT_ONCE:
        return Changes(last, True, ())
    events = Event.objects.filter(group_id=group_id, number__gt=after, number__lte=last)
    if only_enrolment is not None:
        events = events.filter(Q(enrolment_id=only_enrolment) | Q(enrolment_id=None))
    rows = events.order_by("number").values_list("number", "verb", "enrolment_id", "handin_id")
    return Changes(last, False, tuple(Change(*row) for row in rows))
