"""Hand-ins as a calendar: read back by the icalendar library, secret, revocable, saying nothing of anybody else."""

from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from django.test import Client
from icalendar import Calendar

from coatpeg.core.policy import Role
from coatpeg.people.models import Enrolment, FeedAddress, Person
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class Feeds(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi", period="P3")
        self.person = self.thandi.enrolment.person

    def make(self, person: Person) -> str:
        address = self.ok(person, "POST", "/feed")["address"]
        self.assertRegex(address, r"^http://testserver/calendar/[\w-]{32}\.ics$")
        return str(address).removeprefix("http://testserver")

    def events(self, address: str) -> list[tuple[str, Any]]:
        answer = Client().get(address)
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "text/calendar; charset=utf-8"))
        self.assertEqual(answer["Cache-Control"], "private, no-store")
        return sorted(
            (str(one["SUMMARY"]), one["DTSTART"].dt) for one in Calendar.from_ical(answer.content).walk("VEVENT")
        )

    def test_a_student_has_their_own_due_moments(self) -> None:
        self.plot.handin(self.card, title="Recipe card", due=date(2026, 11, 6))
        self.plot.handin(self.card, title="At noon", due=date(2026, 11, 9), at=time(12))
        self.plot.handin(self.card, title="No date", due=None)
        address = self.make(self.person)
        self.assertEqual(
            self.events(address),
            [("At noon · 8 Plot", datetime(2026, 11, 9, 12, tzinfo=UTC)), ("Recipe card · 8 Plot", date(2026, 11, 6))],
        )
        builders.adjust(self.thandi, 2)
        self.assertEqual(self.events(address)[1][1], date(2026, 11, 10), "extra days are their own")

    def test_what_is_not_asked_is_not_there(self) -> None:
        self.plot.student(None, period="P4")
        self.plot.handin(self.card, title="For P4", periods=("P4",))
        self.assertEqual(self.events(self.make(self.person)), [])

    def test_staff_have_each_due_day_once_with_its_period_and_no_names(self) -> None:
        self.plot.handin(self.card, title="Recipe card", due=date(2026, 11, 6), period_dues={"P3": date(2026, 11, 5)})
        address = self.make(self.plot.lead)
        self.assertEqual(
            self.events(address),
            [("Recipe card (P3) · 8 Plot", date(2026, 11, 5)), ("Recipe card · 8 Plot", date(2026, 11, 6))],
        )
        self.assertNotIn(b"Thandi", Client().get(address).content)
        self.assertEqual(len(self.events(self.make(self.plot.staff("head", Role.OBSERVER)))), 2)

    def test_an_entry_keeps_its_uid_when_the_date_moves(self) -> None:
        handin = self.plot.handin(self.card)
        address = self.make(self.person)

        def uids() -> list[str]:
            return [str(one["UID"]) for one in Calendar.from_ical(Client().get(address).content).walk("VEVENT")]

        before = uids()
        self.ok(
            self.plot.lead,
            "PUT",
            f"/handins/{handin.pk}/students/{self.thandi.enrolment_id}/due",
            {"day": "2026-11-30"},
        )
        self.assertEqual((uids(), len(before)), (before, 1))

    def test_an_all_day_event_ends_the_day_after_it_begins(self) -> None:
        """RFC 5545, 3.6.1: DTEND is the non-inclusive end."""
        self.plot.handin(self.card, due=date(2026, 11, 6))
        (event,) = Calendar.from_ical(Client().get(self.make(self.person)).content).walk("VEVENT")
        self.assertEqual(event["DTEND"].dt - event["DTSTART"].dt, timedelta(days=1))

    def test_a_new_address_and_an_end_make_the_old_one_void(self) -> None:
        first = self.make(self.person)
        self.assertEqual(self.ok(self.person, "GET", "/feed"), {"address": None, "since": "2026-11-04T10:00:00Z"})
        second = self.make(self.person)
        self.assertEqual((Client().get(first).status_code, Client().get(second).status_code), (404, 200))
        self.ok(self.person, "DELETE", "/feed")
        self.assertEqual(Client().get(second).status_code, 404)
        self.assertIsNone(self.ok(self.person, "GET", "/feed")["since"])

    def test_the_secret_is_kept_nowhere_and_a_closed_account_ends_it(self) -> None:
        address = self.make(self.person)
        self.assertNotIn(FeedAddress.objects.get().sha256, address)
        self.person.is_active = False
        self.person.save()
        self.assertEqual(Client().get(address).status_code, 404)
        self.assertEqual(Client().get("/calendar/guess.ics").status_code, 404)

    def test_a_caseload_brings_nothing_to_its_students_and_staff(self) -> None:
        caseload = klass("Caseload", "lindqvist", "caseload")
        Enrolment.objects.create(group=caseload.group, person=self.person, first=TODAY, picture="leaf")
        self.plot.handin(self.card)
        self.assertEqual(len(self.events(self.make(self.person))), 1)
        self.assertEqual(self.events(self.make(caseload.lead)), [])
        with self.at(NOW + timedelta(days=400)):
            self.assertEqual(self.events(self.make(self.person)), [], "the class is long over")
