"""Notes to the class on a hand-in: written, read, taken back.

Decided here: whoever is asked for the hand-in reads it with their feedback, and is told of it on the bell ten seconds
later, so that it can be taken back till then without a word. It holds no names: nobody reads there what was said to
somebody else. Whoever wrote it takes it back, also later, or a lead; it is fetched back as it was.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.marking.releasing import told_at
from coatpeg.core.policy import Action, decide
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import situation
from coatpeg.handins.changing.impact import wanted_handin
from coatpeg.handins.models import HandIn
from coatpeg.marking.models import ClassNote
from coatpeg.notices.putting import put
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.finding import portfolio_for

LONGEST = 4_000
MOST = 100
"""On one hand-in."""


def data(one: ClassNote, person: Person) -> dict[str, Any]:
    """A note as plain data."""
    return {
        "id": one.pk,
        "handin": {"id": one.handin_id, "title": one.handin.title},
        "who": one.person.full_name,
        "mine": one.person_id == person.pk,
        "at": one.at,
        "text": one.text,
    }


def of_handin(person: Person, group_id: int, handin_id: int) -> list[dict[str, Any]]:
    """The notes on a hand-in, newest first, as staff see them."""
    require_in_group(person, Action.SEE_SUBMISSION, group_id)
    rows = ClassNote.objects.filter(handin_id=handin_id, handin__group_id=group_id, removed_at=None)
    return [data(one, person) for one in rows.select_related("handin", "person").order_by("-pk")]


def for_student(person: Person, portfolio_id: int, now: datetime) -> list[dict[str, Any]]:
    """The notes on the hand-ins that a student is asked for, newest first."""
    enrolment = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO).enrolment
    rows = ClassNote.objects.filter(handin__group_id=enrolment.group_id, removed_at=None, handin__taken_away_at=None)
    notes = list(rows.select_related("handin", "person").order_by("-pk"))
    if not notes:
        return []
    view = situation(enrolment.group_id, now, enrolments=(enrolment.pk,))
    asked = {one for (_, one), standing in view.standings.items() if standing.status != "not_asked"}
    return [data(one, person) for one in notes if one.handin_id in asked]


def note(person: Person, group_id: int, handin_id: int, key: str, text: str, now: datetime) -> ClassNote:
    """Say something to all whom a hand-in is asked of; the same ``key`` again is the same note."""
    require_in_group(person, Action.MARK, group_id)
    handin = wanted_handin(group_id, handin_id)
    if handin.draft:
        raise Gone(f"“{handin.title}” is a draft: nobody is asked yet.", fix="Set it first.")
    said = tidy_text(text).strip()
    if not said or len(said) > LONGEST:
        raise Invalid(
            f"The note has {len(said)} characters." if said else "There is nothing in the note yet.",
            where="text",
            fix=f"Write 1 to {LONGEST} characters.",
        )
    with deed(person.pk, now) as doing:
        HandIn.objects.select_for_update().get(pk=handin_id)
        had = ClassNote.objects.filter(handin=handin, key=key).select_related("handin", "person").first()
        if had is not None:
            return had
        if ClassNote.objects.filter(handin=handin, removed_at=None).count() >= MOST:
            raise Invalid(f"There are {MOST} notes on this hand-in.", where="text", fix="Take old ones back first.")
        made = ClassNote.objects.create(handin=handin, person=person, key=key, text=said, at=now)
        doing.record("class_noted", group_id, handin_id=handin_id, note=made.pk, text=text_digest(said))
        put(doing, "class_noted", group_id, tell_at=told_at(now), handin=handin_id, note=made.pk)
        return made


def set_removed(person: Person, group_id: int, note_id: int, now: datetime, *, removed: bool) -> ClassNote:
    """Take a note back, or fetch it back."""
    standings = require_in_group(person, Action.MARK, group_id)
    rows = ClassNote.objects.select_related("handin", "person").filter(pk=note_id, handin__group_id=group_id)
    kept = rows.first()
    if kept is None:
        raise Gone("There is no such note.", fix="Load the page again.")
    if kept.person_id != person.pk and not decide(Action.SET_HANDIN, standings).allowed:
        raise Refused("Only whoever wrote a note takes it back, or a lead.", fix="Ask them to.")
    with deed(person.pk, now) as doing:
        if (kept.removed_at is not None) != removed:
            kept.removed_at = now if removed else None
            kept.save(update_fields=["removed_at"])
            verb = "class_note_removed" if removed else "class_note_restored"
            doing.record(verb, group_id, handin_id=kept.handin_id, note=note_id)
        return kept
