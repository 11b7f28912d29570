"""Annotations on a submission."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils.http import content_disposition_header
from ninja import File, Form, Path, Router
from ninja.files import UploadedFile
from pydantic import StringConstraints, ValidationError

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.annotations import Kind, Stroke
from coatpeg.core.policy import Action
from coatpeg.files import serving
from coatpeg.marking.annotations import choosing, making, reading, shapes
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])
MARK = for_action(Action.MARK)
SEE = for_action(Action.SEE_SUBMISSION)
ANSWER = for_action(Action.ANSWER)
HAND_IN = for_action(Action.HAND_IN)
Key = Annotated[str, StringConstraints(pattern=r"^[0-9a-f-]{8,36}$")]
AS_LINKED_DATA = 'application/ld+json; profile="http://www.w3.org/ns/anno.jsonld"'


@router.get(
    "/submissions/{submission_id}/annotations",
    response=list[shapes.AnnotationShape],
    operation_id="see_annotations",
    openapi_extra=SEE,
)
def see_annotations(request: HttpRequest, submission_id: int) -> Any:
    """What is said on a submission: what its student sees, and one's own drafts."""
    return reading.of_submission(person_of(request), submission_id)


@router.get(
    "/portfolios/{portfolio_id}/annotations",
    response=list[shapes.AnnotationShape],
    operation_id="see_annotations_on_work",
    openapi_extra=for_action(Action.SEE_PORTFOLIO),
)
def see_annotations_on_work(request: HttpRequest, portfolio_id: int) -> Any:
    """What is said on all that stands of a student's submissions, as the student sees it."""
    return reading.of_portfolio(person_of(request), portfolio_id)


@router.put(
    "/submissions/{submission_id}/annotations/{key}",
    response=shapes.AnnotationShape,
    operation_id="keep_annotation",
    openapi_extra=MARK,
)
def keep_annotation(request: HttpRequest, submission_id: int, key: Path[Key], body: shapes.AnnotationIn) -> Any:
    """Keep an annotation as a draft, under a key that the page gives it."""
    saying = making.Saying(
        Kind(body.kind),
        body.target.to_core(),
        body.text,
        body.wording,
        tuple(Stroke(one.colour, one.width, tuple(one.points)) for one in body.strokes),
        body.colour,
        body.criterion,
    )
    person = person_of(request)
    return reading.data(making.keep(person, submission_id, key, saying, body.version, now()), person)


@router.post(
    "/submissions/{submission_id}/annotations/{key}/voice",
    response=shapes.AnnotationShape,
    operation_id="speak_annotation",
    openapi_extra=MARK,
)
def speak_annotation(
    request: HttpRequest, submission_id: int, key: Path[Key], file: File[UploadedFile], target: Form[str] = ""
) -> Any:
    """Say it: a recording as the comment, or beside its words. ``target`` as JSON, where the comment is new."""
    try:
        place = shapes.TargetShape.model_validate_json(target) if target else shapes.TargetShape()
    except ValidationError as error:
        raise Invalid(
            "The place of the comment is broken.", where="target", fix="Load the submission again."
        ) from error
    person = person_of(request)
    return reading.data(making.speak(person, submission_id, key, place.to_core(), file, now()), person)


@router.post(
    "/submissions/{submission_id}/shown-annotations",
    response=shapes.SaidShownShape,
    operation_id="show_annotations",
    openapi_extra=MARK,
)
def show_annotations(request: HttpRequest, submission_id: int) -> Any:
    """Show the student what one added after the outcome."""
    return {"count": making.show(person_of(request), submission_id, now())}


@router.get(
    "/submissions/{submission_id}/web-annotations",
    response=bytes,
    operation_id="take_annotations",
    openapi_extra=SEE,
)
def take_annotations(request: HttpRequest, submission_id: int) -> HttpResponse:
    """The same in the W3C Web Annotation Data Model."""
    found, title = reading.as_file(person_of(request), submission_id)
    response = JsonResponse(found, content_type=AS_LINKED_DATA, json_dumps_params={"ensure_ascii": False, "indent": 1})
    response["Content-Disposition"] = content_disposition_header(True, f"{title}.jsonld") or "attachment"
    response["Cache-Control"] = "no-store"
    return response


@router.post(
    "/submissions/{submission_id}/web-annotations",
    response=shapes.TakenInShape,
    operation_id="bring_annotations",
    openapi_extra=MARK,
)
def bring_annotations(request: HttpRequest, submission_id: int, file: File[UploadedFile]) -> Any:
    """Take annotations of a Web Annotation file in, as drafts."""
    content = file.read(reading.LARGEST_FILE + 1)
    count, notes = reading.take_file(person_of(request), submission_id, content, now())
    return {"count": count, "notes": notes[:200]}


@router.delete(
    "/annotations/{annotation_id}",
    response=shapes.AnnotationShape,
    operation_id="remove_annotation",
    openapi_extra=MARK,
)
def remove_annotation(request: HttpRequest, annotation_id: int) -> Any:
    """Take one's own annotation back."""
    person = person_of(request)
    return reading.data(making.set_removed(person, annotation_id, now(), removed=True), person)


@router.post(
    "/annotations/{annotation_id}/restore",
    response=shapes.AnnotationShape,
    operation_id="restore_annotation",
    openapi_extra=MARK,
)
def restore_annotation(request: HttpRequest, annotation_id: int) -> Any:
    """Fetch it back."""
    person = person_of(request)
    return reading.data(making.set_removed(person, annotation_id, now(), removed=False), person)


@router.get("/annotations/{annotation_id}/voice", response=bytes, operation_id="hear_annotation", openapi_extra=SEE)
def hear_annotation(request: HttpRequest, annotation_id: int) -> HttpResponse:
    """The recording of an annotation."""
    stored = reading.voice_of(person_of(request), annotation_id)
    return serving.whole(request, stored.sha256, "voice", stored.media_type, shown=True)


@router.post(
    "/annotations/{annotation_id}/answers",
    response=shapes.AnswerShape,
    operation_id="answer_annotation",
    openapi_extra=ANSWER,
)
def answer_annotation(request: HttpRequest, annotation_id: int, body: shapes.AnswerIn) -> Any:
    """Answer what is said."""
    person = person_of(request)
    return reading.answer_data(making.answer(person, annotation_id, body.text, now()), person)


@router.delete("/answers/{answer_id}", response=shapes.AnswerShape, operation_id="remove_answer", openapi_extra=ANSWER)
def remove_answer(request: HttpRequest, answer_id: int) -> Any:
    """Take one's own answer back."""
    person = person_of(request)
    return reading.answer_data(making.set_answer_removed(person, answer_id, now(), removed=True), person)


@router.post(
    "/answers/{answer_id}/restore", response=shapes.AnswerShape, operation_id="restore_answer", openapi_extra=ANSWER
)
def restore_answer(request: HttpRequest, answer_id: int) -> Any:
    """Let it stand again."""
    person = person_of(request)
    return reading.answer_data(making.set_answer_removed(person, answer_id, now(), removed=False), person)


@router.post(
    "/annotations/{annotation_id}/settled",
    response=shapes.AnnotationShape,
    operation_id="settle_annotation",
    openapi_extra=MARK,
)
def settle_annotation(request: HttpRequest, annotation_id: int, body: shapes.ThreadSettledIn) -> Any:
    """Say that a thread is settled, or that it goes on."""
    person = person_of(request)
    return reading.data(making.settle(person, annotation_id, now(), settled=body.settled), person)


@router.post(
    "/annotations/{annotation_id}/done",
    response=shapes.AnnotationShape,
    operation_id="tick_annotation",
    openapi_extra=HAND_IN,
)
def tick_annotation(request: HttpRequest, annotation_id: int, body: shapes.DoneIn) -> Any:
    """The student ticks off what is mended."""
    person = person_of(request)
    return reading.data(making.tick(person, annotation_id, now(), done=body.done), person)


@router.post(
    "/annotations/{annotation_id}/choice",
    response=shapes.AnnotationShape,
    operation_id="choose_wording",
    openapi_extra=HAND_IN,
)
def choose_wording(request: HttpRequest, annotation_id: int, body: shapes.WordingChoiceIn) -> Any:
    """The student takes a suggested wording into their text, or leaves it."""
    person = person_of(request)
    return reading.data(choosing.choose(person, annotation_id, body.choice, now()), person)
