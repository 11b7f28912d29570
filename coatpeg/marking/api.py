"""The pile, the desk, drafts and outcomes."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date, datetime
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import Router, Status

from coatpeg.core.calendar.school_days import moment_of
from coatpeg.core.policy import Action
from coatpeg.handins.many.api import seen_in
from coatpeg.handins.many.shapes import DeedShape, ManyIn, UndoneShape
from coatpeg.handins.many.undoing import undo_deed
from coatpeg.handins.models import Outcome
from coatpeg.marking import (
    arrivals,
    arrivals_shapes,
    commands,
    figures,
    flags,
    history,
    many,
    pile,
    queries,
    results,
    shapes,
    together,
)
from coatpeg.people.calendars import school_calendar
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])
MARK = for_action(Action.MARK)


@router.get(
    "/groups/{group_id}/pile",
    response=shapes.Pile,
    operation_id="see_pile",
    openapi_extra=for_action(Action.SEE_PILE),
)
def see_pile(request: HttpRequest, group_id: int) -> Any:
    """Submissions waiting for review, oldest first."""
    return HttpResponse(pile.pile(person_of(request), group_id, now()), content_type="application/json")


@router.get(
    "/pile",
    response=shapes.Pile,
    operation_id="see_whole_pile",
    openapi_extra=for_action(Action.USE_ACCOUNT),
)
def see_whole_pile(request: HttpRequest) -> Any:
    """The same over all classes that one marks in."""
    return HttpResponse(pile.whole_pile(person_of(request), now()), content_type="application/json")


@router.post(
    "/groups/{group_id}/arrivals",
    response=arrivals_shapes.ArrivalsShape,
    operation_id="see_arrivals",
    openapi_extra=for_action(Action.SEE_BOARD),
)
def see_arrivals(request: HttpRequest, group_id: int, body: arrivals_shapes.ArrivalsIn) -> Any:
    """What came in of these students for these hand-ins, a page at a time. A reading: too long for an address."""
    return arrivals.arrivals(
        person_of(request),
        group_id,
        body.students,
        body.handins,
        body.start,
        now(),
        newest_first=body.order == "newest",
        statuses=body.statuses,
        late=body.late,
    )


@router.get(
    "/submissions/{submission_id}",
    response=shapes.Desk,
    operation_id="see_submission",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_submission(request: HttpRequest, submission_id: int) -> Any:
    """One submission, whole."""
    return queries.desk(person_of(request), submission_id, now())


@router.get(
    "/submissions/{submission_id}/changes",
    response=shapes.DifferencesShape,
    operation_id="see_differences",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_differences(request: HttpRequest, submission_id: int) -> Any:
    """What changed since the submission before."""
    return queries.changes(person_of(request), submission_id)


@router.get(
    "/submissions/{submission_id}/given",
    response=list[shapes.GivenPocket],
    operation_id="see_given",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_given(request: HttpRequest, submission_id: int) -> Any:
    """What the student began with."""
    return queries.given(person_of(request), submission_id)


@router.get(
    "/groups/{group_id}/handins/{handin_id}/students/{enrolment_id}/history",
    response=list[shapes.HistoryEntry],
    operation_id="see_history_of_handin",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_history_of_handin(request: HttpRequest, group_id: int, handin_id: int, enrolment_id: int) -> Any:
    """All that happened to a student's hand-in, oldest first."""
    return history.history(person_of(request), group_id, handin_id, enrolment_id)


@router.get(
    "/portfolios/{portfolio_id}/feedback",
    response=list[shapes.FeedbackLine],
    operation_id="see_feedback",
    openapi_extra=for_action(Action.SEE_PORTFOLIO),
)
def see_feedback(request: HttpRequest, portfolio_id: int) -> Any:
    """All feedback a student may read."""
    return queries.feedback(person_of(request), portfolio_id)


def _again(day: date | None) -> datetime | None:
    return moment_of(day, None, school_calendar().zoneinfo) if day else None


def _verdict(body: shapes.MarkIn) -> commands.Verdict:
    return commands.Verdict(body.feedback, body.score, body.levels, body.own_score, body.why)


def _reviewed(outcome: Outcome, released: list[str]) -> dict[str, Any]:
    return {
        "outcome": outcome.pk,
        "released": released,
        "also": [one.pk for one in together.given_with(outcome)],
    }


def _of_several(body: shapes.AgreedIn) -> dict[str, Any]:
    """What is said of two markers, and of several students who handed it in together."""
    return {"alone": body.alone, "for_all": body.for_all, "apart": body.apart}


@router.put("/submissions/{submission_id}/draft", response=shapes.Draft, operation_id="save_draft", openapi_extra=MARK)
def save_draft(request: HttpRequest, submission_id: int, body: shapes.MarkIn) -> Any:
    """Keep a draft of feedback and score."""
    at = now()
    draft = commands.save_draft(person_of(request), submission_id, _verdict(body), body.version, at)
    return queries.saved_draft(draft, at)


@router.post(
    "/submissions/{submission_id}/accept", response=shapes.ReviewedShape, operation_id="accept", openapi_extra=MARK
)
def accept(request: HttpRequest, submission_id: int, body: shapes.AgreedIn) -> Any:
    """Accept: the mark is released, the pockets stay locked."""
    person, kind = person_of(request), Outcome.Kind.ACCEPTED
    outcome, released = commands.review(
        person, submission_id, kind, _verdict(body), body.version, now(), **_of_several(body)
    )
    return _reviewed(outcome, released)


@router.post(
    "/submissions/{submission_id}/send-back",
    response=shapes.ReviewedShape,
    operation_id="send_back",
    openapi_extra=MARK,
)
def send_back(request: HttpRequest, submission_id: int, body: shapes.SendBackIn) -> Any:
    """Send back: the mark is released, the named pockets open again."""
    again = _again(body.due_again)
    outcome, released = commands.review(
        person_of(request),
        submission_id,
        Outcome.Kind.SENT_BACK,
        _verdict(body),
        body.version,
        now(),
        pockets=frozenset(body.pockets),
        due_again=again,
        **_of_several(body),
    )
    return _reviewed(outcome, released)


@router.post(
    "/submissions/{submission_id}/read",
    response={204: None},
    operation_id="have_read",
    openapi_extra=for_action(Action.HAND_IN),
)
def have_read(request: HttpRequest, submission_id: int) -> Any:
    """A student has read what came back."""
    commands.have_read(person_of(request), submission_id, now())
    return Status(204, None)


@router.post("/submissions/{submission_id}/reopen", response={204: None}, operation_id="reopen", openapi_extra=MARK)
def reopen(request: HttpRequest, submission_id: int, for_all: bool = False) -> Any:
    """Take an outcome back; ``for_all``: those of all who were decided with it."""
    commands.reopen(person_of(request), submission_id, now(), for_all=for_all)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/cells/sent-back", response=DeedShape, operation_id="send_back_many", openapi_extra=MARK
)
def send_back_many(request: HttpRequest, group_id: int, body: shapes.SendBackManyIn) -> Any:
    """Send back what many cells hold, with the same words to all."""
    touched, name = many.send_back_many(
        person_of(request),
        group_id,
        seen_in(body),
        body.feedback,
        _again(body.due_again),
        now(),
        only_look=body.only_look,
    )
    return {**asdict(touched), "deed": name}


@router.delete(
    "/groups/{group_id}/cells/sent-back/{deed}",
    response=UndoneShape,
    operation_id="undo_sent_back_many",
    openapi_extra=MARK,
)
def undo_sent_back_many(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Reopen what was sent back to many."""
    return asdict(undo_deed(person_of(request), group_id, Action.MARK, deed, now()))


@router.post("/groups/{group_id}/cells/accepted", response=DeedShape, operation_id="accept_many", openapi_extra=MARK)
def accept_many(request: HttpRequest, group_id: int, body: shapes.AcceptManyIn) -> Any:
    """Accept what many cells hold, with the same words to all."""
    seen = seen_in(body)
    touched, name = many.accept_many(person_of(request), group_id, seen, body.feedback, now(), only_look=body.only_look)
    return {**asdict(touched), "deed": name}


@router.delete(
    "/groups/{group_id}/cells/accepted/{deed}",
    response=UndoneShape,
    operation_id="undo_accepted_many",
    openapi_extra=MARK,
)
def undo_accepted_many(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Reopen what was accepted of many."""
    return asdict(undo_deed(person_of(request), group_id, Action.MARK, deed, now()))


@router.post("/groups/{group_id}/cells/reopened", response=DeedShape, operation_id="reopen_many", openapi_extra=MARK)
def reopen_many(request: HttpRequest, group_id: int, body: ManyIn) -> Any:
    """Take the outcomes of many back."""
    touched, name = many.reopen_many(person_of(request), group_id, seen_in(body), now(), only_look=body.only_look)
    return {**asdict(touched), "deed": name}


@router.delete(
    "/groups/{group_id}/cells/reopened/{deed}",
    response=UndoneShape,
    operation_id="undo_reopened_many",
    openapi_extra=MARK,
)
def undo_reopened_many(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Decide again, as it was."""
    return asdict(undo_deed(person_of(request), group_id, Action.MARK, deed, now()))


@router.post(
    "/groups/{group_id}/handins/{handin_id}/released",
    response=shapes.DraftedShape,
    operation_id="release_drafts",
    openapi_extra=MARK,
)
def release_drafts(request: HttpRequest, group_id: int, handin_id: int, body: shapes.ReleaseIn) -> Any:
    """Accept all that one has drafted for a hand-in, at one moment."""
    return asdict(many.release_drafts(person_of(request), group_id, handin_id, now(), only_look=body.only_look))


@router.delete(
    "/groups/{group_id}/released/{deed}", response=UndoneShape, operation_id="undo_released", openapi_extra=MARK
)
def undo_released(request: HttpRequest, group_id: int, deed: str) -> Any:
    """Reopen what was released at one moment."""
    return asdict(undo_deed(person_of(request), group_id, Action.MARK, deed, now()))


@router.post(
    "/groups/{group_id}/results",
    response=bytes,
    operation_id="take_results",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def take_results(request: HttpRequest, group_id: int, body: shapes.ResultsIn) -> HttpResponse:
    """What is shown on the pegs as OneRoster line items and results, in a zip."""
    content, name = results.results(person_of(request), group_id, body.students, body.handins, now())
    response = HttpResponse(content, content_type="application/zip")
    response["Content-Disposition"] = content_disposition_header(True, f"{name} results.zip") or "attachment"
    response["Cache-Control"] = "no-store"
    return response


@router.get(
    "/groups/{group_id}/pegs/figures",
    response=shapes.FiguresShape,
    operation_id="see_figures",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_figures(request: HttpRequest, group_id: int, what: Literal["points", "filled"]) -> Any:
    """A number for each peg: its released points, or how much of what is collected is there."""
    return figures.figures(person_of(request), group_id, what, now())


@router.get(
    "/groups/{group_id}/pegs/flags",
    response=list[shapes.FlaggedShape],
    operation_id="see_flags",
    openapi_extra=for_action(Action.SEE_SUBMISSION),
)
def see_flags(request: HttpRequest, group_id: int) -> Any:
    """The pegs that staff should look at, and why."""
    return flags.flags(person_of(request), group_id, now())
