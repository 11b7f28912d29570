"""Facts and holds from events: the one way by which kept columns come to be, and can be rebuilt."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from datetime import datetime

from coatpeg.core.handins.locking import Hold, HoldHappening, fold_holds
from coatpeg.core.handins.standing import Facts, Happening, Status, Verb, fold
from coatpeg.events.models import Event
from coatpeg.handins.models import KeptFacts
from coatpeg.portfolios.models import StandingHold

VERBS = [verb.value for verb in Verb]
OF_MANY = ("handin_changed", "handin_taken_away", "handin_brought_back", "handin_closed", "handin_came_due")
LOCKS = {"pockets_locked": Verb.REOPENED, "pockets_unlocked": Verb.TAKEN_BACK}
"""Events by which staff lock and open one student's pockets, with the holds they took or released: [[pocket, hand-in]].

As the rules see them: like holds that are taken again, and like holds that are let go of.
"""
"""Events of a hand-in as a whole, with a table of the holds that they released and took: [[enrolment, pocket], …]."""


def happening_of(event: Event) -> Happening:
    """An event as the status rules take it."""
    again, received = event.data.get("due_again"), event.data.get("received")
    return Happening(
        Verb(event.verb),
        datetime.fromisoformat(received) if received else event.at,
        event.submission_id or 0,
        datetime.fromisoformat(again) if again else None,
    )


def happenings_so_far(enrolment_id: int, handin_id: int) -> list[Happening]:
    """All happenings of one student and hand-in, in order."""
    events = Event.objects.filter(enrolment_id=enrolment_id, handin_id=handin_id, verb__in=VERBS)
    return [happening_of(event) for event in events.order_by("number")]


def facts_of(row: KeptFacts) -> Facts:
    """A kept row as the rules take it."""
    outcome = Status(row.outcome) if row.outcome else None
    return Facts(row.first_at, row.newest, row.newest_at, row.submissions, outcome, row.due_again, row.excused)


def keep_after(enrolment_id: int, handin_id: int, happening: Happening) -> Facts:
    """Fold a new happening onto the history and keep the facts. Call with the portfolio row locked."""
    facts = fold([*happenings_so_far(enrolment_id, handin_id), happening])
    KeptFacts.objects.update_or_create(handin_id=handin_id, enrolment_id=enrolment_id, defaults=facts._asdict())
    return facts


def keep_many(handin_id: int, happenings: Mapping[int, Happening]) -> dict[int, Facts]:
    """The same for many students (enrolment ids) of one hand-in: two statements. Call with their portfolios locked."""
    so_far: dict[int, list[Happening]] = defaultdict(list)
    events = Event.objects.filter(handin_id=handin_id, enrolment_id__in=happenings, verb__in=VERBS)
    for event in events.order_by("number"):
        so_far[event.enrolment_id or 0].append(happening_of(event))
    facts = {one: fold([*so_far[one], happening]) for one, happening in happenings.items()}
    KeptFacts.objects.bulk_create(
        [KeptFacts(handin_id=handin_id, enrolment_id=one, **kept._asdict()) for one, kept in facts.items()],
        update_conflicts=True,
        update_fields=Facts._fields,
        batch_size=500,
    )
    return facts


def facts_now(enrolment_id: int, handin_id: int) -> Facts:
    """The kept facts of one student and hand-in."""
    row = KeptFacts.objects.filter(handin_id=handin_id, enrolment_id=enrolment_id).first()
    return facts_of(row) if row else Facts()


def differences() -> Iterator[str]:
    """Every kept fact and hold that the events do not give: what ``./peg check`` reports."""
    happenings: dict[tuple[int, int], list[Happening]] = defaultdict(list)
    hold_happenings: dict[int, list[HoldHappening]] = defaultdict(list)
    yield from _read(happenings, hold_happenings)
    kept = {(row.enrolment_id, row.handin_id): facts_of(row) for row in KeptFacts.objects.iterator()}
    for enrolment_id, handin_id in sorted(happenings.keys() | kept.keys()):
        if fold(happenings[enrolment_id, handin_id]) != kept.get((enrolment_id, handin_id), Facts()):
            yield f"enrolment {enrolment_id}, hand-in {handin_id}: kept facts differ from the events"
    held: dict[int, set[Hold]] = defaultdict(set)
    for enrolment_id, pocket, handin_id in StandingHold.objects.values_list(
        "portfolio__enrolment_id", "pocket_id", "handin_id"
    ):
        held[enrolment_id].add(Hold(pocket, handin_id))
    for enrolment_id in sorted(hold_happenings.keys() | held.keys()):
        if fold_holds(hold_happenings[enrolment_id]) != held[enrolment_id]:
            yield f"enrolment {enrolment_id}: holds differ from the events"


def _read(
    happenings: dict[tuple[int, int], list[Happening]], hold_happenings: dict[int, list[HoldHappening]]
) -> Iterator[str]:
    """Sort all events, by student and hand-in and by student; yields what cannot be sorted."""
    for event in Event.objects.filter(verb__in=[*VERBS, *OF_MANY, *LOCKS]).order_by("group_id", "number").iterator():
        if event.verb in LOCKS:
            hold_happenings[event.enrolment_id or 0] += _of_lock(event)
            continue
        of_many = event.verb in OF_MANY
        if event.handin_id is None or (event.enrolment_id is None and not of_many):
            yield f"event {event.pk}: {event.verb} names no student or hand-in"
            continue
        if not of_many:
            happenings[event.enrolment_id or 0, event.handin_id].append(happening_of(event))
        for enrolment_id, happening in _of_many(event) if of_many else _of_one(event):
            hold_happenings[enrolment_id].append(happening)


def _of_one(event: Event) -> Iterator[tuple[int, HoldHappening]]:
    """What an event of one student and hand-in did to holds."""
    enrolment_id, handin_id = event.enrolment_id or 0, event.handin_id or 0
    yield enrolment_id, HoldHappening(Verb(event.verb), handin_id, frozenset(event.data.get("pockets", ())))
    if event.data.get("opened"):
        yield enrolment_id, HoldHappening(Verb.TAKEN_BACK, handin_id, frozenset(event.data["opened"]))


def _of_lock(event: Event) -> Iterator[HoldHappening]:
    """What staff did to holds of one student."""
    for pocket, handin_id in event.data["holds"]:
        yield HoldHappening(LOCKS[event.verb], handin_id, frozenset((pocket,)))


def _of_many(event: Event) -> Iterator[tuple[int, HoldHappening]]:
    """What an event of a whole hand-in did to holds: by enrolment, those it released, then those it took again."""
    for key, verb in (("released", Verb.TAKEN_BACK), ("taken", Verb.REOPENED)):
        for enrolment_id, pocket in event.data.get(key, ()):
            yield enrolment_id, HoldHappening(verb, event.handin_id or 0, frozenset((pocket,)))


def rebuild() -> int:
    """Write all kept facts anew from the events; returns how many rows."""
    happenings: dict[tuple[int, int], list[Happening]] = defaultdict(list)
    for event in Event.objects.filter(verb__in=VERBS, enrolment_id__isnull=False).order_by("group_id", "number"):
        happenings[event.enrolment_id or 0, event.handin_id or 0].append(happening_of(event))
    KeptFacts.objects.all().delete()
    rows = [
        KeptFacts(enrolment_id=enrolment_id, handin_id=handin_id, **fold(history)._asdict())
        for (enrolment_id, handin_id), history in happenings.items()
    ]
    KeptFacts.objects.bulk_create(rows, batch_size=1000)
    return len(rows)
