"""The whole history of one student's hand-in: every deed in its order, from the record that nobody can change.

Decided here: what is told is what the record holds of this student and this hand-in, and of the hand-in itself; its
words are fetched from where they lie, so that what was taken back or erased is told without them. A mark that is done
but not agreed on, and what staff note for themselves, is not told to the student; what was drafted was never recorded.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db.models import Q

from coatpeg.core.errors import Gone
from coatpeg.core.policy import Action
from coatpeg.events.models import Event
from coatpeg.handins.models import HandIn, Submission
from coatpeg.marking.models import Answer, ReleasedMark
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Enrolment, Person

OF_STUDENT = frozenset(
    (
        "handed_in",
        "taken_back",
        "accepted",
        "sent_back",
        "reopened",
        "excused",
        "unexcused",
        "mark_released",
        "feedback_read",
        "annotations_shown",
        "annotation_removed",
        "annotation_restored",
        "annotation_ticked",
        "answered",
        "answer_removed",
        "answer_restored",
        "thread_settled",
        "thread_reopened",
        "wording_chosen",
        "own_due_set",
        "mark_done",
    )
)
OF_HANDIN = frozenset(
    (
        "handin_set",
        "handin_changed",
        "handin_closed",
        "handin_came_due",
        "handin_taken_away",
        "handin_brought_back",
    )
)
FOR_STAFF = frozenset({"mark_done"})
MOST = 500


def history(person: Person, group_id: int, handin_id: int, enrolment_id: int) -> list[dict[str, Any]]:
    """All that happened, oldest first: six queries beside the policy's."""
    of = Enrolment.objects.filter(pk=enrolment_id, group_id=group_id).select_related("person", "group").first()
    handin = HandIn.objects.filter(pk=handin_id, group_id=group_id, draft=False).first()
    if of is None or handin is None:
        raise Gone("There is no such hand-in of this student.", fix="Go back to the pegs.")
    require_for_student(person, Action.SEE_SUBMISSION, of)
    own = of.person_id == person.pk
    events = [one for one in _events(group_id, handin_id, enrolment_id) if not (own and one.verb in FOR_STAFF)]
    names = {one.pk: one.full_name for one in Person.objects.filter(pk__in={each.actor_id for each in events})}
    numbers = dict(Submission.objects.filter(handin=handin, enrolment=of).values_list("pk", "number"))
    marks = _marks(events)
    answers = _answers(events)
    return [
        {
            "at": one.at,
            "what": one.verb,
            "who": names.get(one.actor_id or 0, ""),
            "number": numbers.get(one.submission_id or 0),
            **_words(one, marks, answers),
        }
        for one in events
    ]


def _events(group_id: int, handin_id: int, enrolment_id: int) -> list[Event]:
    theirs = Q(enrolment_id=enrolment_id, handin_id=handin_id, verb__in=OF_STUDENT)
    reminders = Q(enrolment_id=enrolment_id, verb="reminded")
    whole = Q(enrolment_id=None, handin_id=handin_id, verb__in=OF_HANDIN)
    rows = Event.objects.filter(theirs | reminders | whole, group_id=group_id).order_by("number")[:MOST]
    return [one for one in rows if one.verb != "reminded" or handin_id in one.data.get("handins", ())]


def _marks(events: Iterable[Event]) -> dict[int, ReleasedMark]:
    named = [one.data["outcome"] for one in events if one.verb == "mark_released"]
    return {one.outcome_id: one for one in ReleasedMark.objects.filter(outcome__in=named)}


def _answers(events: Iterable[Event]) -> dict[int, str]:
    named = [one.data["answer"] for one in events if one.verb == "answered"]
    return dict(Answer.objects.filter(pk__in=named, removed_at=None).values_list("pk", "text"))


def _words(one: Event, marks: dict[int, ReleasedMark], answers: dict[int, str]) -> dict[str, Any]:
    mark = marks.get(one.data["outcome"]) if one.verb == "mark_released" else None
    text = mark.feedback if mark else answers.get(one.data["answer"], "") if one.verb == "answered" else ""
    return {
        "text": text,
        "score": float(mark.score) if mark and mark.score is not None else None,
        "points": float(mark.points) if mark and mark.points is not None else None,
    }
