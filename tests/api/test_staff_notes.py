"""Staff notes: read by staff, taken back by who wrote them, and in nothing that a student can open, fetch or be sent."""

from __future__ import annotations

from datetime import timedelta

import pypdfium2
from django.core import mail
from django.db import transaction
from django.http import HttpResponse

from coatpeg.core.marking.annotations import Kind
from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.marking import commands
from coatpeg.marking.models import StaffNote
from coatpeg.notices.models import MailChoice, Notice
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.api.test_policy import CALLS, Things, operations, things
from tests.background import run_waiting
from tests.builders import NOW, klass

MARKER = "Quagga-7731"
"""Planted in everything that is for staff alone."""


class Notes(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.book = self.plot.student("thandi")
        self.path = f"/portfolios/{self.book.pk}/staff-notes"

    def note(self, person: Person, **body: object) -> dict[str, object]:
        made: dict[str, object] = self.ok(person, "POST", self.path, {"text": "Ask at home.", **body})
        return made

    def test_all_staff_read_a_note_and_its_writer_takes_it_back(self) -> None:
        marsh, observer = self.plot.staff("marsh", Role.MARKER), self.plot.staff("head", Role.OBSERVER)
        made = self.note(marsh)
        for person in (self.plot.lead, marsh, observer):
            (seen,) = self.ok(person, "GET", self.path)
            self.assertEqual((seen["text"], seen["mine"]), ("Ask at home.", person == marsh))
        self.assertEqual(self.call(observer, "POST", self.path, {"text": "So"}).status_code, 403)
        self.assertEqual(self.call(self.plot.lead, "DELETE", f"/staff-notes/{made['id']}").status_code, 403)
        self.ok(marsh, "DELETE", f"/staff-notes/{made['id']}")
        self.assertEqual(self.ok(self.plot.lead, "GET", self.path), [])
        self.ok(marsh, "POST", f"/staff-notes/{made['id']}/restore")
        self.assertEqual(len(self.ok(self.plot.lead, "GET", self.path)), 1)

    def test_a_note_is_about_what_is_there(self) -> None:
        pocket = self.plot.pocket()
        one = builders.fill(self.book, pocket)
        handed = builders.hand_in(self.book, self.plot.handin(pocket))
        other = self.plot.student("josh", "Josh", "Ellery")
        made = self.note(self.plot.lead, submission=handed.pk, evidence=one.pk)
        self.assertEqual((made["handin"], made["evidence"]), (handed.handin.title, one.pk))
        for body in ({"submission": handed.pk, "evidence": 987_654}, {"evidence": one.pk}, {"submission": 987_654}):
            self.assertEqual(self.call(self.plot.lead, "POST", self.path, {"text": "So", **body}).status_code, 404)
        path = f"/portfolios/{other.pk}/staff-notes"
        body = {"text": "So", "submission": handed.pk}
        self.assertEqual(self.call(self.plot.lead, "POST", path, body).status_code, 404)
        self.assertEqual(self.call(self.plot.lead, "POST", self.path, {"text": " \n"}).status_code, 422)

    def test_the_event_holds_no_word_of_it_and_nobody_is_told(self) -> None:
        before = Notice.objects.count()
        self.note(self.plot.lead, text=MARKER)
        self.assertNotIn(MARKER, str(Event.objects.get(verb="staff_noted").data))
        self.assertEqual(Notice.objects.count(), before)


class Nowhere(ApiCase):
    """The marker stands in a note on the student, on a submission, in drafts of a mark and of comments, in a phrase."""

    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        cls.own = things("8 Plot", "a")
        of, submission = cls.own.of, cls.own.submission
        enrolment = cls.own.portfolio.enrolment
        for about in (None, submission, cls.own.annotation.submission):
            StaffNote.objects.create(
                enrolment=enrolment, submission=about, person=of.lead, text=f"A note: {MARKER}", at=NOW
            )
        commands.save_draft(of.lead, submission.pk, commands.Verdict(MARKER, None), 0, NOW)
        builders.say(submission, of.lead, MARKER)
        one = submission.snapshot["pockets"][0]["evidence"][0]
        builders.say(submission, of.lead, MARKER, kind=Kind.COMMENT)
        cls.own.note.evidence = one["id"]
        cls.own.note.save()
        cls.own.phrase.text = MARKER
        cls.own.phrase.save()
        cls.classmate = of.student("classmate", "Cleo", "Lang").enrolment.person

    def holds(self, answer: HttpResponse) -> bool:
        content = b"".join(answer.streaming_content) if answer.streaming else answer.content  # type: ignore[attr-defined]
        if content.startswith(b"%PDF"):
            pages = pypdfium2.PdfDocument(content)
            return any(MARKER in page.get_textpage().get_text_range() for page in pages)
        return MARKER.encode() in content

    def found_by(self, person: Person, own: Things) -> set[str]:
        return {name for name in operations() if self.answer_holds(name, person, own)}

    def answer_holds(self, name: str, person: Person, own: Things) -> bool:
        """Whether an answer holds the marker; what the call did is rolled back."""
        point = transaction.savepoint()
        try:
            return self.holds(CALLS[name](self.client_of(person), own))
        finally:
            transaction.savepoint_rollback(point)

    def test_no_operation_answers_a_student_or_a_classmate_with_it(self) -> None:
        student = self.own.portfolio.enrolment.person
        for person in (student, self.classmate):
            with self.subTest(person.username):
                self.assertEqual(self.found_by(person, self.own), set())
        staff = {"see_staff_notes", "see_submission", "see_annotations", "see_phrases"}
        self.assertEqual(staff - self.found_by(self.own.of.lead, self.own), set(), "else the test finds nothing at all")

    def test_nothing_that_is_mailed_holds_it(self) -> None:
        student = self.own.portfolio.enrolment.person
        Person.objects.filter(pk=student.pk).update(email="student@larkfield.example")
        MailChoice.objects.update_or_create(person_id=student.pk, defaults={"how": "at_once"})
        for hours in (1, 2):
            with self.at(NOW + timedelta(hours=hours)):
                run_waiting()
                run_waiting()
        self.assertGreater(len(mail.outbox), 0)
        for one in mail.outbox:
            self.assertNotIn(MARKER, str(one.message()))
