"""What is told to whom: on the bell, by mail at once or daily, and what becomes of a mail that bounces."""

from __future__ import annotations

import smtplib
import tempfile
from datetime import datetime, timedelta
from typing import Any, get_args
from unittest import mock

from django.core import mail
from django.core.mail.backends import filebased
from django.db import connection, transaction
from django.test import override_settings
from django.test.utils import CaptureQueriesContext

from coatpeg.core.policy import Role
from coatpeg.handins.models import Submission
from coatpeg.marking.annotations import making
from coatpeg.notices import fanning, mailing
from coatpeg.notices.kinds import kinds
from coatpeg.notices.models import Delivery, Mail, Notice
from coatpeg.people.bell_api import NoticeLine
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, klass

FOUR = NOW.replace(hour=16)  # in London in November, UTC


class NoticeCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.pocket = self.of.pocket()
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person
        self.lead = self.of.lead

    def bell(self, person: Person) -> dict[str, Any]:
        run_waiting()
        found: dict[str, Any] = self.ok(person, "get", "/notices")
        return found

    def whats(self, person: Person) -> list[str]:
        return [one["what"] for one in self.bell(person)["lines"]]

    def comment(self, text: str = "Well begun.") -> dict[str, Any]:
        path = f"/portfolios/{self.portfolio.pk}/comments"
        made: dict[str, Any] = self.ok(self.lead, "post", path, {"text": text, "pocket": self.pocket.pk})
        return made


class Bell(NoticeCase):
    def test_what_is_new_newest_first_and_seen_once(self) -> None:
        handin = self.of.handin(self.pocket)
        builders.fill(self.portfolio, self.pocket)
        done = builders.hand_in(self.portfolio, handin)
        builders.mark(self.lead, done, NOW + timedelta(minutes=5), accept=False)
        made = self.comment()
        with self.at(NOW + timedelta(minutes=6)):
            found = self.bell(self.thandi)
            self.assertEqual([one["what"] for one in found["lines"]], ["sent_back", "commented", "handin_set"])
            self.assertEqual((found["unseen"], found["lines"][0]["title"]), (3, "Recipe card"))
            place = f"/g/{self.of.group.pk}/portfolio/{self.portfolio.pk}/{self.pocket.pk}"
            self.assertEqual({one["path"] for one in found["lines"]}, {place})
            self.ok(self.thandi, "post", "/notices/seen", {"id": max(one["id"] for one in found["lines"])})
            self.ok(self.thandi, "post", "/notices/seen", {"id": 1})
            self.assertEqual(self.bell(self.thandi)["unseen"], 0)
            self.ok(self.lead, "delete", f"/comments/{made['id']}")
            self.assertEqual(self.whats(self.thandi), ["sent_back", "handin_set"], "taken back: told no more")

    def test_nothing_of_others_nothing_that_opens_later_nothing_old(self) -> None:
        sam = self.of.student("sam", "Sam", "Reyes", period="P3")
        other = self.of.handin(self.pocket, title="Only P3", periods=("P3",))
        later = NOW + timedelta(days=2)
        self.of.handin(self.of.pocket("Menu"), title="Later", opens=later.date())
        builders.fill(sam, self.pocket)
        builders.mark(self.lead, builders.hand_in(sam, other))
        self.assertEqual(self.whats(self.thandi), [])
        self.assertEqual(self.whats(sam.enrolment.person), ["handin_set"])
        with self.at(NOW + timedelta(seconds=10)):
            self.assertEqual(self.whats(sam.enrolment.person), ["accepted", "handin_set"])
        with self.at(later):
            self.assertEqual(self.whats(self.thandi), ["handin_set"], "told on the day it opens")
        with self.at(NOW + timedelta(days=31)):
            self.assertEqual(self.whats(sam.enrolment.person), ["handin_set"], "nothing of more than thirty days ago")

    def test_the_bell_has_a_word_for_every_kind_of_notice(self) -> None:
        words = get_args(NoticeLine.model_fields["what"].annotation)
        self.assertEqual(set(words), kinds(), "a kind without one would break the bell of whoever is told")

    def test_who_answered_a_comment_and_what_was_said_later_is_told(self) -> None:
        handed = builders.hand_in(self.portfolio, self.of.handin(self.pocket), even_if_empty=True)
        said = builders.say(handed, self.lead)
        builders.mark(self.lead, handed)
        making.answer(self.thandi, said.pk, "Because.", NOW)
        builders.say(handed, self.lead, "One thing more.")
        making.show(self.lead, handed.pk, NOW)
        with self.at(NOW + timedelta(minutes=1)):
            self.assertIn("annotated", self.whats(self.thandi))
            found = self.bell(self.lead)["lines"]
            (line,) = [one for one in found if one["what"] == "answered"]
            self.assertEqual(line["path"], f"/g/{self.of.group.pk}/pile/{handed.pk}")

    def test_what_is_taken_back_within_ten_seconds_is_told_to_nobody(self) -> None:
        handin = self.of.handin(self.pocket)
        builders.fill(self.portfolio, self.pocket)
        done = builders.hand_in(self.portfolio, handin)
        path = f"/submissions/{done.pk}"
        cell = {"handin": handin.pk, "enrolment": self.portfolio.enrolment_id, "status": "handed_in"}
        many = f"/groups/{self.of.group.pk}/cells/sent-back"

        def told_after(seconds: int) -> list[str]:
            with self.at(NOW + timedelta(seconds=seconds)):
                return self.whats(self.thandi)

        for way in ("accept", "send-back"):
            self.ok(self.lead, "post", f"{path}/{way}", {"feedback": "Well begun."})
            self.assertEqual(told_after(9), ["handin_set"])
            self.ok(self.lead, "post", f"{path}/reopen")
            self.assertEqual(told_after(20), ["handin_set"])
        deed = self.ok(self.lead, "post", many, {"cells": [cell], "feedback": "Add the cost."})["deed"]
        self.assertEqual(told_after(9), ["handin_set"])
        self.ok(self.lead, "delete", f"{many}/{deed}")
        self.assertEqual(told_after(20), ["handin_set"])
        self.ok(self.lead, "post", f"{path}/send-back", {"feedback": "Well begun."})
        self.assertEqual(told_after(10), ["sent_back", "handin_set"])

    def test_staff_hear_of_what_came_in_as_one_line_a_hand_in_and_day(self) -> None:
        handin = self.of.handin(self.pocket)
        observer = self.of.staff("observer", Role.OBSERVER)
        marker = self.of.staff("marker", Role.MARKER)
        for number in range(3):
            one = self.of.student(f"s{number}", f"S{number}")
            builders.fill(one, self.pocket)
            builders.hand_in(one, handin)
        for person in (self.lead, marker):
            (line,) = self.bell(person)["lines"]
            self.assertEqual((line["what"], line["title"], line["count"]), ("handed_in", "Recipe card", 3))
            self.assertEqual(line["path"], f"/g/{self.of.group.pk}/pile")
        self.assertEqual(self.whats(observer), [])

    def test_nobody_hears_of_what_they_did_themselves_and_a_failed_deed_tells_nobody(self) -> None:
        with self.assertRaises(ZeroDivisionError), transaction.atomic():
            self.comment()
            raise ZeroDivisionError
        self.assertFalse(Notice.objects.exists())
        self.of.handin(self.pocket)
        run_waiting()
        self.assertEqual(set(Delivery.objects.values_list("person_id", flat=True)), {self.thandi.pk})

    def test_fanned_out_once_also_when_it_was_stopped_half_way(self) -> None:
        self.of.handin(self.pocket)
        run_waiting()
        Notice.objects.update(fanned_at=None)
        run_waiting()
        self.assertEqual(Delivery.objects.count(), 1)

    def test_a_notice_holds_ids_alone(self) -> None:
        self.of.handin(self.pocket, title="Secret garden")
        self.comment("Confidential.")
        for data in Notice.objects.values_list("data", flat=True):
            self.assertTrue(all(isinstance(one, int) for one in data.values()), data)

    def test_reading_the_bell_costs_the_same_however_much_there_is(self) -> None:
        def statements() -> int:
            client = self.client_of(self.thandi)
            with CaptureQueriesContext(connection) as counted:
                client.get("/api/notices")
            return len(counted.captured_queries)

        self.of.handin(self.pocket)
        self.comment()
        run_waiting()
        before = statements()
        for number in range(6):
            self.of.handin(self.of.pocket(f"P{number}"), title=f"H{number}")
            self.comment()
        run_waiting()
        self.assertEqual(statements(), before)

    def test_old_notices_are_forgotten(self) -> None:
        self.of.handin(self.pocket)
        run_waiting()
        with self.at(NOW + fanning.KEPT + timedelta(days=1)):
            self.assertTrue(fanning.has_old())
            fanning.forget.call()
        self.assertFalse(Notice.objects.exists() or Delivery.objects.exists())


class Mailing(NoticeCase):
    def setUp(self) -> None:
        super().setUp()
        Person.objects.filter(pk=self.lead.pk).update(email="okafor@larkfield.example")
        Person.objects.filter(pk=self.thandi.pk).update(email="thandi@larkfield.example")

    def at_work(self, moment: datetime) -> list[mail.EmailMessage]:
        """What is mailed when the background works at a moment."""
        before = len(mail.outbox)
        with self.at(moment):
            run_waiting()
            run_waiting()
        return mail.outbox[before:]

    def handed_in(self, number: int = 0) -> Submission:
        one = self.of.student(f"s{number}", f"S{number}")
        builders.fill(one, self.pocket)
        return builders.hand_in(one, self.handin)

    @property
    def handin(self) -> Any:
        return self.of.group.handins.first() or self.of.handin(self.pocket)

    def test_staff_once_a_day_in_the_afternoon_students_not_until_they_choose(self) -> None:
        self.handed_in()
        run_waiting()
        self.assertEqual(self.at_work(NOW + timedelta(hours=1)), [])
        (sent,) = self.at_work(FOUR + timedelta(minutes=5))
        self.assertEqual(
            (sent.to, sent.subject), (["okafor@larkfield.example"], "Recipe card: somebody has handed it in")
        )
        self.handed_in(1)
        self.assertEqual(self.at_work(FOUR + timedelta(hours=1)), [], "one a day")
        (next_day,) = self.at_work(FOUR + timedelta(days=1, minutes=1))
        self.assertIn("Recipe card", next_day.subject)
        self.assertEqual(Mail.objects.filter(state="sent").count(), 2)

    def test_at_once_several_things_together_and_only_what_was_not_seen(self) -> None:
        self.ok(self.thandi, "put", "/notices/mail", {"how": "at_once"})
        self.comment()
        run_waiting()
        self.assertEqual(self.at_work(NOW + timedelta(seconds=30)), [], "what comes within a minute goes together")
        self.comment("And another thing.")
        self.of.handin(self.pocket)
        run_waiting()
        (sent,) = self.at_work(NOW + timedelta(minutes=2))
        self.assertEqual(sent.subject, "3 things are new")
        self.assertEqual(self.at_work(NOW + timedelta(minutes=9)), [], "not twice")
        self.comment("Seen on the bell.")
        self.ok(self.thandi, "post", "/notices/seen", {"id": self.bell(self.thandi)["lines"][0]["id"]})
        self.assertEqual(self.at_work(NOW + timedelta(minutes=9)), [])

    def test_a_receipt_by_mail_for_whoever_wants_it(self) -> None:
        handin = self.of.handin(self.pocket, title="Soil test")
        self.assertEqual((self.bell(self.lead)["receipts"], self.bell(self.thandi)["receipts"]), (None, False))
        self.ok(self.thandi, "put", "/notices/mail", {"how": "at_once", "receipts": True})
        self.ok(self.thandi, "put", "/notices/mail", {"how": "at_once"})
        self.assertTrue(self.bell(self.thandi)["receipts"], "changed in passing it would be lost")
        evidence = builders.fill(self.portfolio, self.pocket)
        sent = builders.hand_in(self.portfolio, handin)
        run_waiting()
        (mail,) = self.at_work(NOW + timedelta(minutes=2))
        body = str(mail.body)
        assert evidence.artefact
        assert evidence.artefact.stored
        # Each checksum is the one that sha256sum gives (``reference.test_receipts_on_paper``).
        for part in (sent.receipt, evidence.artefact.stored.sha256, sent.sha256, f"/submission/{sent.pk}"):
            self.assertIn(part, body)
        self.ok(self.thandi, "put", "/notices/mail", {"how": "never", "receipts": True})
        self.assertFalse(self.bell(self.thandi)["receipts"], "no mail is no receipt by mail")

    def test_every_address_in_a_mail_is_the_products_own(self) -> None:
        self.ok(self.thandi, "put", "/notices/mail", {"how": "at_once"})
        self.comment("See https://elsewhere.example/x")
        run_waiting()
        with override_settings(ADDRESS="https://peg.larkfield.example"):
            (sent,) = self.at_work(NOW + timedelta(minutes=2))
        place = f"https://peg.larkfield.example/g/{self.of.group.pk}/portfolio/{self.portfolio.pk}/{self.pocket.pk}"
        self.assertIn(place, str(sent.body))
        self.assertEqual(
            [one for one in str(sent.body).split() if "://" in one], [place, "https://peg.larkfield.example"]
        )

    def test_never_is_never_and_without_an_address_there_is_nothing_to_choose(self) -> None:
        self.ok(self.lead, "put", "/notices/mail", {"how": "never"})
        self.handed_in()
        run_waiting()
        self.assertEqual(self.at_work(FOUR + timedelta(minutes=5)), [])
        self.assertEqual(self.bell(self.lead)["mail"], "never")
        self.assertEqual(self.bell(self.thandi)["mail"], "never", "a student who has not chosen")
        self.assertIsNone(self.bell(builders.person("noaddress", staff=True))["mail"])
        self.problem(422, self.lead, "put", "/notices/mail", {"how": "hourly"})

    def bounce(self, code: int) -> Any:
        refused = smtplib.SMTPRecipientsRefused({"okafor@larkfield.example": (code, b"no such user")})
        return mock.patch.object(mailing.EmailMessage, "send", side_effect=refused)

    def test_a_mail_that_bounces_is_kept_and_told_and_not_sent_again(self) -> None:
        self.handed_in()
        run_waiting()
        with self.bounce(550):
            self.at_work(FOUR + timedelta(minutes=5))
        kept = Mail.objects.get()
        self.assertEqual((kept.state, kept.why), ("bounced", "550 no such user"))
        with self.at(FOUR + timedelta(minutes=6)):
            self.assertEqual(self.whats(self.lead), ["mail_bounced", "handed_in"])

    def test_what_fails_for_a_while_is_tried_again(self) -> None:
        self.handed_in()
        run_waiting()
        with self.bounce(451):
            self.at_work(FOUR + timedelta(minutes=5))
        self.assertFalse(Mail.objects.exists())
        (sent,) = self.at_work(FOUR + timedelta(minutes=10))
        self.assertIn("Recipe card", sent.subject)

    def test_an_administrator_sees_envelopes_and_in_the_demo_what_they_say(self) -> None:
        self.handed_in()
        run_waiting()
        admin = builders.person("bright", administrator=True)
        with tempfile.TemporaryDirectory() as folder, override_settings(EMAIL_FILE_PATH=folder):
            backend = filebased.EmailBackend(file_path=folder)
            with mock.patch("django.core.mail.message.EmailMessage.get_connection", return_value=backend):
                self.at_work(FOUR + timedelta(minutes=5))
            (line,) = self.ok(admin, "get", "/mails")
            self.assertEqual((line["to"], line["state"]), ("okafor@larkfield.example", "sent"))
            with override_settings(DEMO=True):
                self.assertIn("Hello R.,", self.ok(admin, "get", f"/mails/{line['id']}")["text"])
            with override_settings(DEMO=False):
                self.assertEqual(self.ok(admin, "get", f"/mails/{line['id']}")["text"], "")
        self.problem(403, self.lead, "get", "/mails")
        self.problem(404, admin, "get", "/mails/999999")
