"""Independent marks of one submission: each seen by its marker alone until two are done, then agreed.

Decided here: whoever may mark in the class is one of the two by saying that their mark is done; a mark that is done is
not changed any more, but can be taken up again as long as the other one is not done. The agreed mark is given by one of
the two or by a lead, with both marks before them; what each said on the work goes out with it. A lead may decide
without the other, with a reason, which is kept with who decided. Sending back many at once is no judgement: it needs no
two. Where a hand-in is marked blind, the desk and the pile call the submission by its receipt until it is decided; who
looks for the name elsewhere finds it.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Invalid, Refused, Stale
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.handins.handing import outcomes
from coatpeg.handins.models import Submission
from coatpeg.marking.models import DraftMark, MarkingRule
from coatpeg.people.access import to_group
from coatpeg.people.models import Person

LONGEST_REASON = 500
TWO = 2
NOBODY = {"id": 0, "family_name": "", "family_first": False, "picture": "leaf", "tint": 7, "period": ""}
"""How a student whose name is hidden stands on the pile and the desk."""


def rule_of(handin_id: int) -> MarkingRule | None:
    """How a hand-in is marked, where somebody said so."""
    return MarkingRule.objects.filter(handin_id=handin_id).first()


def by_two(submission: Submission) -> bool:
    """Whether two mark a submission independently."""
    rule = rule_of(submission.handin_id)
    return rule is not None and rule.two


def _done(submission_id: int) -> list[DraftMark]:
    rows = DraftMark.objects.filter(submission_id=submission_id, done_at__isnull=False)
    return list(rows.select_related("person").order_by("done_at", "pk"))


def done_by(submission: Submission) -> list[int]:
    """The people whose independent marks of a submission are done."""
    return [one.person_id for one in _done(submission.pk)]


def _may_alone(person: Person, group_id: int) -> bool:
    return decide(Action.DECIDE_ALONE, to_group(person, group_id)).allowed


def refuse_done(draft: DraftMark) -> None:
    """``Stale`` where a mark is done, and so is not changed."""
    if draft.done_at is not None:
        raise Stale(
            "You said that your mark is done.",
            where="feedback",
            fix="Take it up again, or agree with the other marker.",
        )


def set_done(person: Person, submission_id: int, version: int, now: datetime, *, done: bool) -> DraftMark:
    """Say that one's own mark is done (of the version that was seen), or take it up again."""
    with deed(person.pk, now) as doing:
        submission = outcomes.lock_for_review(person, submission_id).submission
        rule = rule_of(submission.handin_id)
        if rule is None or not rule.two:
            raise Invalid("This hand-in is marked by one.", where="done", fix="Accept it or send it back.")
        draft = DraftMark.objects.filter(submission=submission, person=person).first()
        if draft is None:
            draft = DraftMark(submission=submission, person=person, changed_at=now)
        if draft.version != version:
            raise Stale("You changed your mark in another window.", where="feedback", fix="Load it again.")
        if (draft.done_at is not None) == done:
            return draft
        others = [one for one in _done(submission_id) if one.person_id != person.pk]
        if not done and others:
            raise Refused("The other marker is done too: both marks stand.", fix="Agree with the other marker.")
        if done and len(others) >= TWO:
            raise Stale("Two others have marked it already.", where="done", fix="Go to the next one.")
        draft.done_at = now if done else None
        draft.save()
        doing.record(
            "mark_done",
            submission.handin.group_id,
            enrolment_id=submission.enrolment_id,
            handin_id=submission.handin_id,
            submission_id=submission_id,
            done=done,
        )
        return draft


def agreed_by(person: Person, submission: Submission, alone: str) -> dict[str, Any]:
    """What is kept of two marks with the agreed one; empty where one marks. ``Refused`` where it is too early."""
    rule = rule_of(submission.handin_id)
    if rule is None or not rule.two:
        return {}
    done = _done(submission.pk)
    lead = _may_alone(person, submission.handin.group_id)
    if len(done) >= TWO and (lead or person.pk in {one.person_id for one in done}):
        return {"marks": [_kept(one) for one in done], "alone": ""}
    reason = alone.strip()
    if not lead or not reason or len(reason) > LONGEST_REASON:
        raise Refused(
            "Two mark this independently, and then agree.",
            fix=f"Say that your mark is done. A lead can decide alone, with a reason of 1 to {LONGEST_REASON} signs.",
        )
    return {"marks": [_kept(one) for one in done], "alone": reason}


def _kept(one: DraftMark) -> dict[str, Any]:
    score = str(one.score) if one.score is not None else None
    return {"person": one.person_id, "who": one.person.full_name, "score": score, "levels": one.levels}


def at_desk(person: Person, submission: Submission, *, hides: bool) -> dict[str, Any]:
    """What the desk has to know of two markers, and of a name that is hidden: two queries at most."""
    rule = rule_of(submission.handin_id) if hides else None
    found: dict[str, Any] = {"two": None, "hidden": False}
    if rule is not None and rule.two:
        found["two"] = _two(person, submission)
    if rule is not None and rule.blind:
        named = {**NOBODY, "given_name": submission.receipt, "full_name": submission.receipt}
        found |= {"hidden": True, "student": named}
    return found


def _two(person: Person, submission: Submission) -> dict[str, Any]:
    done = _done(submission.pk)
    mine = person.pk in {one.person_id for one in done}
    lead = _may_alone(person, submission.handin.group_id)
    both = len(done) >= TWO and (mine or lead)
    return {
        "done": mine,
        "count": len(done),
        "alone": lead and not both,
        "marks": [
            {
                "who": one.person.full_name,
                "mine": one.person_id == person.pk,
                "feedback": one.feedback,
                "score": float(one.score) if one.score is not None else None,
                "levels": one.levels,
            }
            for one in done
        ]
        if both
        else [],
    }


def own_pile(person: Person, group_id: int, waiting: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """What waits for this person: not what they are done with, nor what two others marked; names hidden where blind."""
    rules = {one.handin_id: one for one in MarkingRule.objects.filter(handin__group_id=group_id)}
    if not rules:
        return waiting
    two = [one["submission"] for one in waiting if (rule := rules.get(one["handin"]["id"])) and rule.two]
    done: dict[int, set[int]] = defaultdict(set)
    rows = DraftMark.objects.filter(submission__in=two, done_at__isnull=False)
    for submission, marker in rows.values_list("submission_id", "person_id"):
        done[submission].add(marker)
    lead = _may_alone(person, group_id)
    receipts = dict(_receipts(waiting, rules))
    shown = []
    for one in waiting:
        by = done.get(one["submission"], set())
        both = len(by) >= TWO
        if (both and not lead and person.pk not in by) or (not both and person.pk in by):
            continue
        hidden = receipts.get(one["submission"])
        face = {"student": {**NOBODY, "given_name": hidden}} if hidden else {}
        shown.append({**one, **face, "agree": both})
    return shown


def _receipts(waiting: Iterable[dict[str, Any]], rules: dict[int, MarkingRule]) -> Iterable[tuple[int, str]]:
    blind = [one["submission"] for one in waiting if (rule := rules.get(one["handin"]["id"])) and rule.blind]
    return Submission.objects.filter(pk__in=blind).values_list("pk", "receipt") if blind else []
