"""The desk, and the feedback a student reads."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from coatpeg.core.handins.asking import DueSource, EffectiveDue
from coatpeg.core.handins.standing import Status, decided
from coatpeg.core.marking.differences import differences
from coatpeg.core.marking.rubrics import rubric_from_data
from coatpeg.core.marking.scoring import LateRule
from coatpeg.core.outlines.filling import Chip, Piece, PocketKind, chips
from coatpeg.core.people.names import listed
from coatpeg.core.policy import Action, decide
from coatpeg.core.portfolios.texts import Counts
from coatpeg.handins.board.situation import facts_in, situation
from coatpeg.handins.handing import who_did_what
from coatpeg.handins.handing.outcomes import submission_for
from coatpeg.handins.lines import due_data, standing_data, submissions_of
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking import commands, together
from coatpeg.marking.late.ruling import late_days, late_rule
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.marking.two import marks
from coatpeg.outlines.dealing import version_of
from coatpeg.outlines.given_files import file_data, files_of
from coatpeg.outlines.models import GivenFile, Pocket
from coatpeg.outlines.reading import chip_data, wanted_from_data
from coatpeg.people.access import to_student
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.logs.reading import frozen_pieces, shown_log
from coatpeg.portfolios.models import Artefact
from coatpeg.sharing.things import givers_then


def desk(person: Person, submission_id: int, now: datetime) -> dict[str, Any]:
    """One submission, whole: the frozen evidence, its history; for markers their draft and files seen twice."""
    submission = submission_for(person, Action.SEE_SUBMISSION, submission_id)
    enrolment, handin = submission.enrolment, submission.handin
    view = situation(handin.group_id, now, enrolments=(enrolment.pk,))
    member = view.members[0]
    for_student = enrolment.person_id == person.pk
    marks_it = decide(Action.MARK, to_student(person, enrolment)).allowed
    cell = (enrolment.pk, handin.pk)
    facts = facts_in(view, *cell)
    # Of a hand-in that was taken away nothing is judged any more: what was decided stands.
    standing = view.standings.get(cell) or decided(facts)
    own = DraftMark.objects.filter(submission=submission, person=person)
    by = givers_then(submission.snapshot)
    hidden = marks.at_desk(person, submission, hides=marks_it and standing.status is Status.HANDED_IN)
    due: EffectiveDue = view.dues.get(cell) or EffectiveDue(None, None, DueSource.NONE)
    return {
        "id": submission.pk,
        "number": submission.number,
        "at": submission.at,
        "receipt": submission.receipt,
        "voided_at": submission.voided_at,
        "newest": facts.newest == submission.pk,
        "group": handin.group_id,
        "handin": {
            "id": handin.pk,
            "title": handin.title,
            "points": float(handin.points) if handin.points is not None else None,
            "step": float(handin.step),
            "taken_away": handin.taken_away_at is not None,
            "rubric": handin.rubric or None,
            "model_answer": handin.model_answer if marks_it else "",
        },
        "student": {**face(member), "full_name": member.full_name},
        **hidden,
        **standing_data(standing),
        **due_data(due),
        "empty": submission.snapshot["empty"],
        "links": submission.snapshot["links"],
        "judged": _judged(submission),
        "pockets": [
            _frozen_pocket(pocket, {} if "student" in hidden else by, for_student=for_student)
            for pocket in submission.snapshot["pockets"]
        ],
        "submissions": submissions_of(handin.pk, enrolment.pk),
        "outcomes": _outcomes(submission, void_too=marks_it),
        "draft": draft_data(own.first(), handin, standing.late_days, _rule_for(handin)) if marks_it else None,
        "parts": [] if for_student or "student" in hidden else who_did_what.at_desk(submission),
        "with_it": _with_it(submission, blind="student" in hidden) if marks_it else None,
        "same_files": _same_files(submission) if marks_it else [],
    }


def _with_it(submission: Submission, *, blind: bool) -> dict[str, Any] | None:
    """The others who handed it in with this student: how many wait and are decided, their names where they are shown.

    None where it was handed in alone, or where two mark independently.
    """
    others = together.others_of(submission)
    if (not others.waiting and not others.decided) or marks.by_two(submission):
        return None
    names = [one.enrolment.person.full_name for one in (*others.waiting, *others.decided)]
    standing = (
        Outcome.objects.filter(submission=submission, voided_at=None).select_related("submission", "mark").first()
    )
    return {
        "waiting": len(others.waiting),
        "decided": len(others.decided),
        "names": [] if blind else names,
        "with_outcome": len(together.given_with(standing)) if standing else 0,
    }


def _judged(submission: Submission) -> dict[str, list[str]]:
    """How the student judged themselves, by the levels of the rubric as it was then."""
    found: dict[str, list[str]] = submission.snapshot.get("judged", {}).get("levels", {})
    return found


def _frozen_pocket(
    pocket: dict[str, Any], by: Mapping[tuple[str, int], dict[str, Any]], *, for_student: bool
) -> dict[str, Any]:
    """A pocket of a snapshot with its chips as they stood; ``by`` says who put in what others put in."""
    log = pocket.get("log")
    pieces = (
        frozen_pieces(log)
        if log
        else tuple(
            Piece(
                Counts(one["words"], one["sentences"]),
                (one["artefact"] or {}).get("title", ""),
                one["unchanged"],
                0,
                "spoken" in one,
                pocket["kind"] == PocketKind.PAGE and one["artefact"] is not None,
                one.get("theirs", False),
            )
            for one in pocket["evidence"]
        )
    )
    found: tuple[Chip, ...] = chips(wanted_from_data(pocket["wanted"]), pieces)
    shown = ("id", "title", "kind", "prompt")
    return {
        **{key: pocket[key] for key in shown},
        "evidence": [{**one, "by": by.get(("evidence", one["id"]))} for one in pocket["evidence"]],
        "chips": chip_data(found),
        "log": log and shown_log(log, {pk: one for (kind, pk), one in by.items() if kind == "row"}),
        "before": len(log.get("before", ())) if log else 0,
        "version": "" if for_student else pocket.get("version", ""),
    }


def _outcomes(submission: Submission, *, void_too: bool) -> list[dict[str, Any]]:
    """Outcomes of a submission, newest first; whoever does not mark sees the standing one only."""
    found = Outcome.objects.filter(submission=submission).select_related("person", "mark").order_by("-at", "-pk")
    if not void_too:
        found = found.filter(voided_at=None)
    return [outcome_data(one) for one in found]


def outcome_data(outcome: Outcome) -> dict[str, Any]:
    """An outcome with the mark that was released with it."""
    mark: ReleasedMark = outcome.mark
    return {
        "id": outcome.pk,
        "kind": outcome.kind,
        "at": outcome.at,
        "by": outcome.person.full_name,
        "pockets": outcome.pockets,
        "due_again": outcome.due_again,
        "voided_at": outcome.voided_at,
        "feedback": mark.feedback,
        "score": float(mark.score) if mark.score is not None else None,
        "points": float(mark.points) if mark.points is not None else None,
        "earned": float(mark.earned) if mark.earned is not None else None,
        "late_days": mark.late_days,
        "why": mark.why,
        "apart": mark.apart,
        "rubric": mark.rubric or None,
        "levels": mark.levels,
        "read_at": mark.read_at,
    }


def draft_data(draft: DraftMark | None, handin: HandIn, late: int, rule: LateRule | None) -> dict[str, Any]:
    """A draft as its marker sees it, whether there is one or not: of the levels those that the rubric has still.

    ``late``: whole school days by which the student was late.
    """
    draft = draft or DraftMark()
    rubric = rubric_from_data(handin.rubric)
    levels = rubric.fitting(draft.levels) if rubric else {}
    verdict = commands.Verdict("", draft.score, levels, draft.own_score, draft.why)
    # Of a rubric that changed since, the kept score is of levels that are gone: it comes anew with the next save.
    fits = rubric is None or not rubric.open_rows(levels)
    scored = verdict.released(handin, late, rule) if fits else commands.Scored(draft.own_score, None, 0, "")
    return {
        "feedback": draft.feedback,
        "score": float(draft.score) if draft.score is not None else None,
        "levels": levels,
        "own_score": float(draft.own_score) if draft.own_score is not None else None,
        "why": draft.why,
        "version": draft.version,
        "goes_out": float(scored.score) if scored.score is not None else None,
        "late_days": scored.late_days,
    }


def saved_draft(draft: DraftMark, now: datetime) -> dict[str, Any]:
    """The same of a draft that was just saved."""
    handin = draft.submission.handin
    rule = _rule_for(handin)
    return draft_data(draft, handin, late_days(draft.submission, now) if rule else 0, rule)


def _rule_for(handin: HandIn) -> LateRule | None:
    return late_rule() if handin.points is not None else None


def _same_files(submission: Submission) -> list[dict[str, Any]]:
    """Artefacts of this submission that came in from another student of the class as the very same file.

    An unchanged starter is everybody's, and is told of as such.
    """
    came = [
        one["artefact"]
        for pocket in submission.snapshot["pockets"]
        for one in pocket["evidence"]
        if one["artefact"] and one["artefact"]["came_sha256"] and not one["unchanged"]
    ]
    hashes = {one["came_sha256"]: one["title"] for one in came}
    others = (
        Artefact.objects.filter(
            came_sha256__in=hashes, given=False, portfolio__enrolment__group_id=submission.handin.group_id
        )
        .exclude(portfolio__enrolment=submission.enrolment)
        .exclude(pk__in=[one["id"] for one in came])  # what a group put in together is one file
        .values_list(
            "came_sha256", "portfolio__enrolment__person__family_name", "portfolio__enrolment__person__given_name"
        )
        .distinct()
    )
    return [{"title": hashes[came], "student": listed(family, given)} for came, family, given in others]


def changes(person: Person, submission_id: int) -> dict[str, Any]:
    """What changed since the submission before, of those that stand; nothing where it is the first."""
    submission = submission_for(person, Action.SEE_SUBMISSION, submission_id)
    rows = Submission.objects.filter(handin=submission.handin, enrolment=submission.enrolment, voided_at=None)
    before = rows.filter(number__lt=submission.number).order_by("-number").first()
    found = differences(before.snapshot, submission.snapshot) if before else []
    return {
        "since": before.number if before else None,
        "changed": [
            {
                "pocket": {"id": one.pocket, "title": one.title},
                "what": one.what.value,
                "piece": one.piece,
                "evidence": one.evidence,
                "row": one.row,
                "parts": [{"what": part.what, "text": part.text} for part in one.parts],
                "cells": [{"title": title, "was": was, "now": now} for title, was, now in one.cells],
                "new_words": one.words[0],
                "gone_words": one.words[1],
            }
            for one in found
        ],
    }


def given(person: Person, submission_id: int) -> list[dict[str, Any]]:
    """What the student was given to begin with, in the pockets of a submission that are there still, as it is today."""
    submission = submission_for(person, Action.SEE_SUBMISSION, submission_id)
    ids = [one["id"] for one in submission.snapshot["pockets"]]
    pockets = Pocket.objects.in_bulk(ids)
    found = []
    for pocket in (pockets[pk] for pk in ids if pk in pockets):
        version = version_of(pocket, submission.enrolment_id)
        files = files_of(pocket, version.key if version else "")
        starter = (version and version.starter) or pocket.starter
        found.append(
            {
                "id": pocket.pk,
                "title": pocket.title,
                "starter": starter,
                "files": [file_data(one) for one in files if one.role == GivenFile.Role.STARTER],
            }
        )
    return found


def feedback(person: Person, portfolio_id: int) -> list[dict[str, Any]]:
    """All standing outcomes of a portfolio with their feedback, newest first: what the student may read."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    found = (
        Outcome.objects.filter(submission__enrolment=portfolio.enrolment, submission__voided_at=None, voided_at=None)
        .select_related("person", "mark", "submission__handin")
        .order_by("-at", "-pk")
    )
    return [
        {
            **outcome_data(one),
            "submission": one.submission_id,
            "number": one.submission.number,
            "receipt": one.submission.receipt,
            "judged": _judged(one.submission),
            "handin": {"id": one.submission.handin_id, "title": one.submission.handin.title},
            "pocket": one.submission.snapshot["pockets"][0]["id"] if one.submission.snapshot["pockets"] else None,
        }
        for one in found
    ]
