"""Following a group's changes by a cheap cursor poll."""

from __future__ import annotations

from dataclasses import dataclass, field

from django.db.models import Q

from coatpeg.events.kinds import KIND_OF, Kind
from coatpeg.events.models import Event, GroupSequence, MovedWork
from coatpeg.events.prepared import Prepared

MOST_AT_ONCE = 200
"""More changes than this and a reader does better to load the view anew; the cursor jumps to the end."""


_LAST = Prepared(lambda pk: GroupSequence.objects.filter(group_id=pk).values_list("last"))


@dataclass(frozen=True, slots=True)
class Touch:
    """One change: what kind of thing, whose (None: of the class as a whole), which hand-in and pocket it names."""

    number: int
    kind: Kind
    enrolment_id: int | None
    handin_id: int | None = None
    pocket_id: int | None = None


@dataclass(frozen=True, slots=True)
class Changes:
    """The new cursor and what was touched since; ``all_changed`` when it was too much to list."""

    cursor: int
    all_changed: bool = False
    touches: tuple[Touch, ...] = field(default=())


def changes_after(group_id: int, after: int | None, *, only_enrolment: int | None = None) -> Changes:
    """What was committed in a group after a cursor; None asks for the cursor alone.

    ``only_enrolment`` keeps a student to what touches themselves and the class as a whole. One query where nothing is
    new, three otherwise. A cursor that never was is answered like one that is too old: load anew.
    """
    last = next((row[0] for row in _LAST.run(group_id)), 0)
    if after is None or after == last:
        return Changes(last)
    if not 0 <= after <= last or last - after > MOST_AT_ONCE:
        return Changes(last, True)
    events = Event.objects.filter(group_id=group_id, number__gt=after, number__lte=last)
    moved = MovedWork.objects.filter(group_id=group_id, number__gt=after, number__lte=last)
    if only_enrolment is not None:
        events = events.filter(Q(enrolment_id=only_enrolment) | Q(enrolment_id=None))
        moved = moved.filter(enrolment_id=only_enrolment)
    rows = events.order_by("number").values_list("number", "verb", "enrolment_id", "handin_id", "data")
    if any(verb not in KIND_OF for _, verb, *_ in rows):
        return Changes(last, True)  # of another version
    touches = [
        Touch(number, KIND_OF[verb], enrolment, handin, data.get("pocket") if enrolment else None)
        for number, verb, enrolment, handin, data in rows
    ]
    moves = moved.order_by("number").values_list("number", "enrolment_id", "pocket_id")
    touches += [Touch(number, Kind.WORK, enrolment, None, pocket) for number, enrolment, pocket in moves]
    return Changes(last, False, tuple(touches))
