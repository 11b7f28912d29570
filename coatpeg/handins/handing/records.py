"""Facts and holds from events: the one way by which kept columns come to be, and can be rebuilt."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from datetime import datetime

from coatpeg.core.handins.locking import Hold, HoldHappening, fold_holds
from coatpeg.core.handins.standing import Facts, Happening, Status, Verb, fold
from coatpeg.events.models import Event
from coatpeg.handins.models import KeptFacts
from coatpeg.portfolios.models import StandingHold

VERBS = [verb.value for verb in Verb]


def happening_of(event: Event) -> Happening:
    """An event as the status rules take it."""
    again = event.data.get("due_again")
    return Happening(
        Verb(event.verb), event.at, event.submission_id or 0, datetime.fromisoformat(again) if again else None
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


def facts_now(enrolment_id: int, handin_id: int) -> Facts:
    """The kept facts of one student and hand-in."""
    row = KeptFacts.objects.filter(handin_id=handin_id, enrolment_id=enrolment_id).first()
    return facts_of(row) if row else Facts()


def differences() -> Iterator[str]:
    """Every kept fact and hold that the events do not give: what ``./peg check`` reports."""
    happenings: dict[tuple[int, int], list[Happening]] = defaultdict(list)
    hold_happenings: dict[int, list[HoldHappening]] = defaultdict(list)
    for event in Event.objects.filter(verb__in=VERBS).order_by("group_id", "number").iterator():
        if event.enrolment_id is None or event.handin_id is None:
            yield f"event {event.pk}: {event.verb} names no student or hand-in"
            continue
        happenings[event.enrolment_id, event.handin_id].append(happening_of(event))
        pockets = frozenset(event.data.get("pockets", ()))
        hold_happenings[event.enrolment_id].append(HoldHappening(Verb(event.verb), event.handin_id, pockets))
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
