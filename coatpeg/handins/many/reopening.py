"""Outcomes of many taken back, and taken back no longer; call with the class's portfolios locked.

Decided here: who reopens many may undo that as far as nothing has happened since. Each has its outcome again then, with
what was said with it, and its student is told of it again.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from coatpeg.core.handins.locking import STAFF
from coatpeg.core.handins.standing import Happening, Verb
from coatpeg.core.marking.releasing import told_at
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed
from coatpeg.handins.handing.holding import Held, take
from coatpeg.handins.handing.records import keep_many
from coatpeg.handins.models import HandIn, KeptFacts, Outcome
from coatpeg.notices.putting import put_many, take_back
from coatpeg.portfolios.models import StandingHold

DECIDED = (Verb.ACCEPTED.value, Verb.SENT_BACK.value)


def standing(events: Iterable[Event], outcome: str | None) -> dict[int, list[Event]]:
    """The events, by hand-in, whose submission is still the newest and still decided so."""
    of = list(events)
    kept = KeptFacts.objects.filter(
        handin_id__in={one.handin_id for one in of}, enrolment_id__in={one.enrolment_id for one in of}
    )
    newest = set(kept.filter(outcome=outcome, excused=False).values_list("enrolment_id", "handin_id", "newest"))
    found: dict[int, list[Event]] = {}
    for one in of:
        if (one.enrolment_id, one.handin_id, one.submission_id) in newest:
            found.setdefault(one.handin_id or 0, []).append(one)
    return found


def decisions(group_id: int, submissions: Iterable[int]) -> list[Event]:
    """The newest events that decided these submissions."""
    events = Event.objects.filter(group_id=group_id, verb__in=DECIDED, submission_id__in=list(submissions))
    return list({one.submission_id: one for one in events.order_by("number")}.values())


def reopen(doing: Deed, events: Sequence[Event], name: str = "") -> int:
    """Take back the outcomes that these events gave, where they still stand; returns of how many students."""
    done: set[int] = set()
    by_verb: dict[str, list[Event]] = defaultdict(list)
    for one in events:
        by_verb[one.verb].append(one)
    for verb, of_verb in by_verb.items():
        for handin_id, of in standing(of_verb, verb).items():
            submissions = [one.submission_id or 0 for one in of]
            Outcome.objects.filter(submission_id__in=submissions, voided_at=None).update(voided_at=doing.now)
            # What it collects by now and did not then was not handed in: it stays open.
            rows = HandIn.pockets.through.objects.filter(handin_id=handin_id)
            collected = set(rows.values_list("pocket_id", flat=True))
            held = [(one.enrolment_id or 0, pocket) for one in of for pocket in collected & set(one.data["pockets"])]
            fold(doing, handin_id, of, Verb.REOPENED, held, take_them=True, name=name)
            mine = {one.enrolment_id or 0 for one in of}
            take_back(verb, of[0].group_id, handin_id, mine)
            done |= mine
    return len(done)


def fold(
    doing: Deed,
    handin_id: int,
    of: Sequence[Event],
    verb: Verb,
    held: Sequence[Held],
    *,
    take_them: bool = False,
    name: str = "",
) -> None:
    """Keep what this makes of the facts, take the holds where asked, and write a line of history for each."""
    keep_many(handin_id, {one.enrolment_id or 0: Happening(verb, doing.now, one.submission_id or 0) for one in of})
    if take_them:
        held = take(HandIn.objects.get(pk=handin_id), held, doing.now)
    named: dict[str, Any] = {"deed": name} if name else {}
    for one in of:
        doing.record(
            verb.value,
            one.group_id,
            enrolment_id=one.enrolment_id,
            handin_id=handin_id,
            submission_id=one.submission_id,
            pockets=sorted(pocket for enrolment, pocket in held if enrolment == one.enrolment_id),
            **named,
        )


def decide_again(doing: Deed, events: Sequence[Event]) -> int:
    """Undo a reopening: the outcomes that it took back stand again; returns of how many students."""
    done: set[int] = set()
    for handin_id, of in standing(events, None).items():
        handin = HandIn.objects.get(pk=handin_id)
        collected = sorted(handin.pockets.values_list("pk", flat=True))
        rows = Outcome.objects.filter(submission_id__in=[one.submission_id for one in of], voided_at=of[0].at)
        outcomes = {one.submission_id: one for one in rows.order_by("pk")}
        alike: dict[tuple[str, tuple[int, ...]], dict[int, Outcome]] = defaultdict(dict)
        for event in of:
            outcome = outcomes.get(event.submission_id or 0)
            if outcome is not None:
                alike[outcome.kind, tuple(outcome.pockets or collected)][event.enrolment_id or 0] = outcome
        for (kind, pockets), mine in alike.items():
            _stands_again(doing, handin, Verb(kind), pockets, mine)
            done |= mine.keys()
        Outcome.objects.filter(pk__in=[one.pk for one in outcomes.values()]).update(voided_at=None)
    return len(done)


def _stands_again(
    doing: Deed, handin: HandIn, verb: Verb, pockets: Sequence[int], outcomes: Mapping[int, Outcome]
) -> None:
    """Outcomes of a kind, by enrolment, that had opened the same pockets: facts, holds, history, notices."""
    held = StandingHold.objects.filter(portfolio__enrolment_id__in=outcomes, pocket_id__in=pockets)
    opened: dict[str, Any] = {}
    if verb is Verb.SENT_BACK:
        held.exclude(handin_id=STAFF).delete()
    elif handin.opens_again:
        held.filter(handin_id=handin.pk).delete()
        opened = {"opened": list(pockets)}
    keep_many(
        handin.pk,
        {who: Happening(verb, doing.now, one.submission_id, one.due_again) for who, one in outcomes.items()},
    )
    for who, one in outcomes.items():
        again: dict[str, Any] = {"due_again": one.due_again.isoformat()} if one.due_again else {}
        doing.record(
            verb.value,
            handin.group_id,
            enrolment_id=who,
            handin_id=handin.pk,
            submission_id=one.submission_id,
            pockets=list(pockets),
            **opened,
            **again,
        )
    about = [{"enrolment": one, "handin": handin.pk} for one in outcomes]
    put_many(doing, verb.value, handin.group_id, about, tell_at=told_at(doing.now))
