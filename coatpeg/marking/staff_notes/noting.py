"""What staff note for themselves on a student, a submission, or one evidence in it.

Decided here: all staff of the class read it, and the student's caseload; nothing that a student or a family can open,
fetch, export or be mailed ever holds it, and no notice tells of it. Whoever wrote a note takes it back, and fetches it
back.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.events.recording import deed
from coatpeg.handins.models import Submission
from coatpeg.marking.models import StaffNote
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for

LONGEST = 4_000
MOST = 500
"""On one student in a class."""


def notes(person: Person, portfolio_id: int) -> list[dict[str, Any]]:
    """All notes on a student in a class, oldest first."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_STAFF_NOTES)
    rows = StaffNote.objects.filter(enrolment=portfolio.enrolment, removed_at=None)
    return [data(one, person) for one in rows.select_related("person", "submission__handin")]


def data(one: StaffNote, person: Person) -> dict[str, Any]:
    """A note as plain data."""
    return {
        "id": one.pk,
        "who": one.person.full_name,
        "mine": one.person_id == person.pk,
        "at": one.at,
        "text": one.text,
        "submission": one.submission_id,
        "handin": one.submission.handin.title if one.submission else "",
        "evidence": one.evidence,
    }


def note(
    person: Person, portfolio_id: int, text: str, submission_id: int | None, evidence: int | None, now: datetime
) -> StaffNote:
    """Note something."""
    portfolio = portfolio_for(person, portfolio_id, Action.KEEP_STAFF_NOTES)
    said = tidy_text(text).strip()
    if not said or len(said) > LONGEST:
        raise Invalid(
            f"The note has {len(said)} characters." if said else "There is nothing in the note yet.",
            where="text",
            fix=f"Write 1 to {LONGEST} characters.",
        )
    submission = Submission.objects.filter(pk=submission_id or 0, enrolment=portfolio.enrolment).first()
    if submission_id is not None and submission is None:
        raise Gone("There is no such submission of this student.", fix="Load the submission again.")
    if evidence is not None and (submission is None or evidence not in _evidence_in(submission)):
        raise Gone("There is no such artefact in this submission.", fix="Load the submission again.")
    with deed(person.pk, now) as doing:
        if StaffNote.objects.filter(enrolment=portfolio.enrolment, removed_at=None).count() >= MOST:
            raise Invalid(f"There are {MOST} notes on this student.", where="text", fix="Take old ones back first.")
        made = StaffNote.objects.create(
            enrolment=portfolio.enrolment, submission=submission, evidence=evidence, person=person, text=said, at=now
        )
        of = portfolio.enrolment
        doing.record("staff_noted", of.group_id, enrolment_id=of.pk, note=made.pk, text=text_digest(said))
        return made


def _evidence_in(submission: Submission) -> set[int]:
    return {one["id"] for pocket in submission.snapshot["pockets"] for one in pocket["evidence"]}


def set_removed(person: Person, note_id: int, now: datetime, *, removed: bool) -> StaffNote:
    """Take one's own note back, or fetch it back."""
    found = StaffNote.objects.select_related("enrolment__group", "person", "submission__handin").filter(pk=note_id)
    kept = found.first()
    if kept is None:
        raise Gone("There is no such note.", fix="Load the notes again.")
    require_for_student(person, Action.KEEP_STAFF_NOTES, kept.enrolment)
    if kept.person_id != person.pk:
        raise Refused("Only whoever wrote a note takes it back.", fix="Ask them to.")
    with deed(person.pk, now) as doing:
        if (kept.removed_at is not None) != removed:
            kept.removed_at = now if removed else None
            kept.save(update_fields=["removed_at"])
            verb = "staff_note_removed" if removed else "staff_note_restored"
            doing.record(verb, kept.enrolment.group_id, enrolment_id=kept.enrolment_id, note=note_id)
        return kept
