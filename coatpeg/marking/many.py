"""Many submissions at once: accepted or sent back with the same words to all, accepted as drafted, reopened."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from uuid import uuid4

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins.many import Why, why_not_accept, why_not_reopen, why_not_send_back
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.board.situation import Situation, facts_in, situation
from coatpeg.handins.many.accepting import accept
from coatpeg.handins.many.choosing import Chosen, Seen, Touched, by_handin, sorted_out
from coatpeg.handins.many.reopening import decisions, reopen
from coatpeg.handins.many.sending_back import send_back
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking.annotations import making
from coatpeg.marking.commands import Verdict, check_due_again
from coatpeg.marking.late.ruling import late_rule
from coatpeg.marking.models import DraftMark, MarkingRule, ReleasedMark
from coatpeg.marking.two import marks
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.writing import lock_portfolios


def send_back_many(
    person: Person,
    group_id: int,
    seen: Sequence[Seen],
    feedback: str,
    due_again: datetime | None,
    now: datetime,
    *,
    only_look: bool = False,
) -> tuple[Touched, str]:
    """Send back what is handed in and not decided; returns what was touched and the deed's name, for its undo.

    No score is given with it. Drafts of single marks stay as they are.
    """
    require_in_group(person, Action.MARK, group_id)
    check_due_again(group_id, due_again, now)
    words = Verdict(feedback, None).checked(HandIn()).feedback

    def why_not(_: Situation, one: Chosen) -> Why | None:
        return why_not_send_back(one.status)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2], ""
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        given = send_back(doing, person, group_id, view, done, due_again, name)
        _said_to_all(doing, group_id, given, done, words)
        return touched, name


def _said_to_all(doing: Deed, group_id: int, given: Sequence[Outcome], done: Sequence[Chosen], words: str) -> None:
    """Release the same words with outcomes of many, without a score."""
    points = {one.handin.id: one.handin.points for one in done}
    of = Submission.objects.only("enrolment_id", "handin_id").in_bulk([one.submission_id for one in given])
    ReleasedMark.objects.bulk_create(
        [ReleasedMark(outcome=one, feedback=words, points=points[of[one.submission_id].handin_id]) for one in given],
        batch_size=500,
    )
    for one in given:
        doing.record(
            "mark_released",
            group_id,
            enrolment_id=of[one.submission_id].enrolment_id,
            handin_id=of[one.submission_id].handin_id,
            submission_id=one.submission_id,
            outcome=one.pk,
            feedback=text_digest(words),
        )


def accept_many(
    person: Person, group_id: int, seen: Sequence[Seen], feedback: str, now: datetime, *, only_look: bool = False
) -> tuple[Touched, str]:
    """Accept what is handed in and not decided, with the same words to all and without a score.

    What is judged by a rubric, or by two, is left to the desk. Drafts of single marks stay as they are.
    """
    require_in_group(person, Action.MARK, group_id)
    words = Verdict(feedback, None).checked(HandIn()).feedback
    by_rubric = set(HandIn.objects.filter(group_id=group_id).exclude(rubric={}).values_list("pk", flat=True))
    by_two = set(MarkingRule.objects.filter(handin__group_id=group_id, two=True).values_list("handin_id", flat=True))

    def why_not(_: Situation, one: Chosen) -> Why | None:
        return why_not_accept(one.status, by_rubric=one.handin.id in by_rubric, by_two=one.handin.id in by_two)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2], ""
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        for handin_id, of in by_handin(done).items():
            newest = [facts_in(view, *one.cell).newest or 0 for one in of]
            submissions = list(Submission.objects.filter(pk__in=newest).only("pk", "enrolment_id", "handin_id"))
            given = accept(doing, person, HandIn.objects.get(pk=handin_id), submissions, name)
            _said_to_all(doing, group_id, given, of, words)
        return touched, name


def reopen_many(
    person: Person, group_id: int, seen: Sequence[Seen], now: datetime, *, only_look: bool = False
) -> tuple[Touched, str]:
    """Take the outcomes of many back: they are on the pile again, their marks drafts of whoever gave them."""
    require_in_group(person, Action.MARK, group_id)

    def why_not(_: Situation, one: Chosen) -> Why | None:
        return why_not_reopen(one.status)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2], ""
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        newest = [facts_in(view, *one.cell).newest or 0 for one in done]
        reopen(doing, decisions(group_id, newest), name)
        return touched, name


@dataclass(frozen=True, slots=True)
class Drafted:
    """What there is to release of a hand-in: so many complete drafts of one's own, and whose are not complete."""

    count: int
    incomplete: list[str]
    deed: str = ""


def release_drafts(person: Person, group_id: int, handin_id: int, now: datetime, *, only_look: bool = False) -> Drafted:
    """Accept all that this person has drafted completely for a hand-in, at one moment; its deed's name is for the undo.

    Complete is what could be accepted alone: every criterion judged, a score where there are points. A draft that says
    nothing is none. What two mark independently is not released so.
    """
    require_in_group(person, Action.MARK, group_id)
    handin = HandIn.objects.filter(pk=handin_id, group_id=group_id, taken_away_at=None, draft=False).first()
    if handin is None:
        raise Gone("There is no such hand-in in this class.", fix="Go back to the marking pile.")
    rule = marks.rule_of(handin_id)
    if rule is not None and rule.two:
        raise Refused("Two mark this independently, and then agree.", fix="Agree on each at the desk.")
    if only_look:
        complete, incomplete, _ = _drafted(person, handin, now)
        return Drafted(len(complete), incomplete)
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        complete, incomplete, late = _drafted(person, handin, now)
        of_late = late_rule() if handin.points is not None else None
        given = accept(doing, person, handin, [draft.submission for draft, _ in complete], name)
        ReleasedMark.objects.bulk_create(
            [
                ReleasedMark(
                    outcome=outcome,
                    feedback=said.feedback,
                    **asdict(said.released(handin, late[draft.submission.enrolment_id], of_late)),
                    points=handin.points,
                    rubric=handin.rubric if said.levels else {},
                    levels=dict(said.levels),
                )
                for outcome, (draft, said) in zip(given, complete, strict=True)
            ],
            batch_size=500,
        )
        on_work = making.release_many(person, given)
        for outcome, (draft, said) in zip(given, complete, strict=True):
            doing.record(
                "mark_released",
                group_id,
                enrolment_id=draft.submission.enrolment_id,
                handin_id=handin_id,
                submission_id=draft.submission_id,
                outcome=outcome.pk,
                feedback=text_digest(said.feedback),
                annotations=on_work.get(outcome.pk, 0),
            )
        return Drafted(len(complete), incomplete, name)


def _drafted(
    person: Person, handin: HandIn, now: datetime
) -> tuple[list[tuple[DraftMark, Verdict]], list[str], dict[int, int]]:
    """Drafts that can be released, with what they give; the names of those that cannot yet; school days late."""
    view = situation(handin.group_id, now, handin=handin.pk)
    waiting = {
        facts_in(view, one.enrolment_id, handin.pk).newest
        for one in view.members
        if (standing := view.standings.get((one.enrolment_id, handin.pk))) and standing.status is Status.HANDED_IN
    }
    rows = DraftMark.objects.filter(person=person, submission__in=[pk for pk in waiting if pk])
    complete, incomplete = [], []
    for draft in rows.select_related("submission__enrolment__person").order_by("submission_id"):
        if not (draft.feedback or draft.levels or draft.score is not None or draft.own_score is not None):
            continue
        said = Verdict.of_draft(draft, handin)
        try:
            final = said.final(handin, Outcome.Kind.ACCEPTED)
        except Invalid:
            final = None
        if final is None or (handin.points is not None and final.score is None and final.own_score is None):
            incomplete.append(draft.submission.enrolment.person.listed)
        else:
            complete.append((draft, final))
    late = {one.enrolment_id: view.standings[one.enrolment_id, handin.pk].late_days for one in view.members}
    return complete, incomplete, late
