"""What this room tells: to students what is asked, sent back, accepted, moved; to staff what came in."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from coatpeg.core.policy import Role
from coatpeg.handins.board.situation import situation
from coatpeg.handins.handing.receipt_paper import receipt_lines
from coatpeg.handins.models import HandIn, Reminder, Submission
from coatpeg.notices.kinds import Kind, Line, register
from coatpeg.notices.models import Notice
from coatpeg.people.directory import staff_of, student_of
from coatpeg.portfolios.models import Portfolio


def _of_student(notice: Notice) -> list[int]:
    return student_of(notice.data["enrolment"])


def _markers(notice: Notice) -> list[int]:
    assert notice.group_id is not None
    return staff_of(notice.group_id, Role.LEAD, Role.CO_TEACHER, Role.MARKER)


def asked(notice: Notice) -> Iterable[int]:
    """The students whom a hand-in asks, as it stands when they are told."""
    assert notice.group_id is not None
    view = situation(notice.group_id, notice.tell_at, handin=notice.data["handin"])
    handin = next((one for one in view.handins if one.id == notice.data["handin"]), None)
    if handin is None:
        return []
    of = {
        member.enrolment_id: answer.asked
        for member, answer in zip(view.members, handin.answers(view.members, view.calendar), strict=True)
    }
    return [member.person_id for member in view.members if of[member.enrolment_id]]


def _to_students(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Hand-ins by title, leading to the first pocket that each collects: three queries."""
    handins = {
        one.pk: one
        for one in HandIn.objects.filter(
            pk__in={one.data["handin"] for one in notices}, taken_away_at=None
        ).prefetch_related("pockets")
    }
    rows = Portfolio.objects.filter(enrolment__person_id=person_id)
    mine = dict(rows.values_list("enrolment__group_id", "pk"))
    found = {}
    for one in notices:
        handin = handins.get(one.data["handin"])
        if handin is not None and one.group_id in mine:
            pocket = min((of.pk for of in handin.pockets.all()), default=None)
            place = f"portfolio/{mine[one.group_id]}/{pocket}" if pocket else "to-hand-in"
            found[one.pk] = Line(handin.title, f"/g/{one.group_id}/{place}")
    return found


def _to_staff(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Submissions that stand, by their hand-in, leading to the pile: two queries."""
    named = {one.data["submission"]: one for one in notices}
    standing = Submission.objects.filter(pk__in=named, voided_at=None, handin__taken_away_at=None).select_related(
        "handin"
    )
    return {named[one.pk].pk: Line(one.handin.title, f"/g/{one.handin.group_id}/pile") for one in standing}


def _to_receipt(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Receipts with all that they prove, leading to the submission, as long as it stands: two queries."""
    named = {one.data["submission"]: one for one in notices}
    rows = Submission.objects.filter(pk__in=named, voided_at=None, enrolment__person_id=person_id)
    mine = dict(Portfolio.objects.filter(enrolment__person_id=person_id).values_list("enrolment_id", "pk"))
    return {
        named[one.pk].pk: Line(
            one.handin.title,
            f"/g/{one.handin.group_id}/portfolio/{mine[one.enrolment_id]}/submission/{one.pk}",
            "\n".join(receipt_lines(one)),
        )
        for one in rows.select_related("handin")
    }


def _to_reminded(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Reminders with their words, leading to what there is to hand in: one query."""
    named = {one.data["reminder"]: one for one in notices}
    found = Reminder.objects.filter(pk__in=named, enrolment__person_id=person_id)
    return {named[one.pk].pk: Line("", f"/g/{one.group_id}/to-hand-in", one.text) for one in found}


def register_all() -> None:
    """Say who is told what, what it is called and where it leads."""
    register("handin_set", Kind(asked, _to_students, "this is asked of you now"))
    register("handin_moved", Kind(asked, _to_students, "it is due on another day now"))
    register("sent_back", Kind(_of_student, _to_students, "it was sent back; look at what your teacher says"))
    register("receipt", Kind(_of_student, _to_receipt, "your receipt", to_doer=True))
    register("handed_in_for", Kind(_of_student, _to_students, "it was handed in for you"))
    register("accepted", Kind(_of_student, _to_students, "it was accepted"))
    register("own_due_set", Kind(_of_student, _to_students, "you have a due date of your own"))
    register("reminded", Kind(_of_student, _to_reminded, "your teacher reminds you of what is missing"))
    register("handed_in", Kind(_markers, _to_staff, "somebody has handed it in", "{count} students have handed it in"))
