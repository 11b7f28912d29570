"""What this room tells: to students what was said on their work later, to both sides the answers."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from coatpeg.core.policy import Role
from coatpeg.handins.models import Submission
from coatpeg.handins.telling import asked
from coatpeg.marking.models import Annotation, Answer, ClassNote
from coatpeg.notices.kinds import Kind, Line, register
from coatpeg.notices.models import Notice
from coatpeg.people.directory import staff_of, student_of
from coatpeg.portfolios.models import Portfolio


def _of_thread(notice: Notice) -> list[int]:
    """Whoever takes part in a thread: its maker as long as they mark in the class, the student, who answered before."""
    found = Answer.objects.select_related("annotation").filter(pk=notice.data["answer"], removed_at=None).first()
    if found is None or notice.group_id is None:
        return []
    in_it = Annotation.objects.filter(pk=found.annotation_id).values_list("person_id", "answers__person_id")
    people = {one for pair in in_it for one in pair if one is not None}
    staff = set(staff_of(notice.group_id, Role.LEAD, Role.CO_TEACHER, Role.MARKER)) & people
    return sorted(staff | set(student_of(notice.data["enrolment"])))


def _lines(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Hand-ins by title, leading to the submission as its student or the staff see it: two queries."""
    rows = Submission.objects.filter(pk__in={one.data["submission"] for one in notices}, voided_at=None)
    named = {one.pk: one for one in rows.select_related("handin", "enrolment")}
    own = {one.enrolment_id for one in named.values() if one.enrolment.person_id == person_id}
    mine = dict(Portfolio.objects.filter(enrolment__in=own).values_list("enrolment_id", "pk"))
    found = {}
    for one in notices:
        if (submission := named.get(one.data["submission"])) is not None:
            portfolio = mine.get(submission.enrolment_id)
            place = f"portfolio/{portfolio}/submission" if portfolio else "pile"
            found[one.pk] = Line(submission.handin.title, f"/g/{one.group_id}/{place}/{submission.pk}")
    return found


def _noted(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Hand-ins by title with the words of the note, leading to the feedback, as long as it was not taken back."""
    named = {one.data["note"]: one for one in notices}
    rows = ClassNote.objects.filter(pk__in=named, removed_at=None, handin__taken_away_at=None).select_related("handin")
    return {named[one.pk].pk: Line(one.handin.title, f"/g/{one.handin.group_id}/feedback", one.text) for one in rows}


def register_all() -> None:
    """Say what these notices are called and lead to."""
    register(
        "annotated", Kind(lambda one: student_of(one.data["enrolment"]), _lines, "somebody has said something on it")
    )
    register("class_noted", Kind(asked, _noted, "your teacher has a note for the class on it"))
    register("answered", Kind(_of_thread, _lines, "somebody has answered a comment on it"))
