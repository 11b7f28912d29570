"""One request never stops the others, and what does not fit is said in words, all at once, and loses nothing."""

import gzip
import json
from datetime import date, timedelta
from typing import Any
from unittest import mock

from django.db import OperationalError
from django.test import Client

from coatpeg.core.people.roster_table import Column
from coatpeg.handins.models import HandIn
from coatpeg.marking import commands as marking
from coatpeg.people.models import Period, PeriodMembership, Person
from coatpeg.setup.roster import enrolling
from coatpeg.setup.roster.class_lists import ClassList
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass

FAR = ("9999-12-31", "0001-01-01", "2035-01-01", "2019-01-01")


class OneRequest(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = klass()
        self.card = self.eight.pocket(artefacts=1)
        self.thandi = self.eight.student("thandi", period="P3")
        self.handin = self.eight.handin(self.card)
        self.lead = self.eight.lead
        self.group = self.eight.group.pk

    def raw(
        self, person: Person | None, method: str, path: str, body: str | bytes, kind: str = "application/json"
    ) -> Any:
        return getattr(self.client_of(person), method)(f"/api{path}", body, content_type=kind)


class Days(OneRequest):
    def test_a_day_far_from_the_class_is_refused_wherever_it_is_given(self) -> None:
        builders.fill(self.thandi, self.card)
        submission = builders.hand_in(self.thandi, self.handin)
        own = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/due"
        for day in FAR:
            plan = {"title": "Far", "pockets": [self.card.pk], "opens": "2026-11-01"}
            for method, path, body in (
                ("PUT", own, {"day": day}),
                ("POST", f"/submissions/{submission.pk}/send-back", {"due_again": day}),
                ("POST", f"/groups/{self.group}/handins", {**plan, "opens": day}),
                ("POST", f"/groups/{self.group}/handins", {**plan, "due": {"day": day}}),
                ("POST", f"/groups/{self.group}/handins/preview", {**plan, "due": {"day": day}}),
            ):
                with self.subTest(f"{day} {path}"):
                    self.problem(422, self.lead, method, path, body)
        for path in (f"/groups/{self.group}/pegs", f"/groups/{self.group}/pile", f"/portfolios/{self.thandi.pk}"):
            self.ok(self.lead, "GET", path)

    def test_a_time_with_a_zone_is_refused(self) -> None:
        own = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/due"
        found = self.problem(422, self.lead, "PUT", own, {"day": "2026-11-30", "at": "12:00Z"})
        self.assertEqual((found["where"], found["fix"]), ("at", "Give it as 14:30."))
        self.pegs(self.lead, self.group)


class Words(OneRequest):
    def test_every_field_that_does_not_fit_is_named_as_labelled_with_its_mending_all_at_once(self) -> None:
        body = {"name": "9 Forge", "first": "yesterday", "last": "2026-13-40", "kind": "circus"}
        found = self.problem(422, self.lead, "POST", "/groups", body)
        self.assertEqual([one["where"] for one in found["wrong"]], ["kind", "first", "last"])
        self.assertIn("“First day” is not a day of the calendar.", found["title"])
        self.assertIn("“Kind” is none of the choices.", found["title"])
        self.assertNotIn("Input should", json.dumps(found))
        missing = self.problem(422, self.lead, "POST", "/groups", {"name": "x"})
        self.assertIn("“Last day” is missing.", missing["title"])

    def test_half_a_character_a_broken_text_and_a_form_instead_of_json_are_clear_noes(self) -> None:
        path = f"/portfolios/{self.thandi.pk}/cover"
        student = self.thandi.enrolment.person
        for body in ('{"title": "\\ud800"}', '{"title": NaN}', "{", b"\xff\xfe", "[]", "null", ""):
            with self.subTest(body):
                answer = self.raw(student, "put", path, body)
                self.assertIn(answer.status_code, (400, 422), answer.content)
                self.assertEqual(answer["Content-Type"], "application/problem+json")
        answer = self.raw(student, "put", path, "--x\r\n\r\nnothing\r\n--x--", "multipart/form-data; boundary=x")
        self.assertIn(answer.status_code, (400, 422))
        self.assertEqual(
            self.raw(None, "post", "/session", json.dumps({"username": "x" * 300, "password": "y"})).status_code, 422
        )

    def test_a_failure_of_ours_is_a_problem_document_too_and_is_on_record(self) -> None:
        with (
            mock.patch("coatpeg.handins.student.pockets.situation", side_effect=RuntimeError("broken")),
            self.assertLogs("django.request", "ERROR") as log,
        ):
            found = self.problem(500, self.lead, "GET", f"/portfolios/{self.thandi.pk}")
        self.assertIn("Something went wrong on our side", found["title"])
        self.assertIn("RuntimeError", log.output[0])

    def test_what_lost_to_somebody_elses_rows_is_tried_again_and_told_as_what_it_is(self) -> None:
        builders.fill(self.thandi, self.card)
        submission = builders.hand_in(self.thandi, self.handin)
        path = f"/submissions/{submission.pk}/draft"
        real = marking.save_draft
        for failures, status in ((1, 200), (2, 200), (3, 423)):
            once = [OperationalError(1213, "Deadlock found")] * failures

            def save(*args: Any) -> Any:
                if once:  # noqa: B023 - of this turn
                    raise once.pop()  # noqa: B023
                return real(*args)

            with (
                self.subTest(failures),
                mock.patch("coatpeg.marking.commands.save_draft", save),
                self.assertLogs("coatpeg", "WARNING") as log,
            ):
                answer = self.call(self.lead, "PUT", path, {"feedback": f"After {failures}", "version": failures - 1})
            self.assertEqual((answer.status_code, len(log.output)), (status, failures))
        self.assertIn("in this moment", answer.json()["title"])

    def test_ten_times_the_same_form_is_one_hand_in(self) -> None:
        body = {"title": "Once", "pockets": [self.card.pk], "opens": "2026-11-01", "key": "a1b2"}
        made = {self.ok(self.lead, "POST", f"/groups/{self.group}/handins", body)["id"] for _ in range(10)}
        self.assertEqual((len(made), HandIn.objects.filter(title="Once").count()), (1, 1))
        self.problem(409, self.lead, "POST", f"/groups/{self.group}/handins", {**body, "title": "Another"})


class ClassLists(OneRequest):
    def bring(self, *rows: tuple[str, ...], columns: tuple[Column, ...]) -> enrolling.Applied:
        return enrolling.apply_list(self.lead, self.group, ClassList(rows, columns), NOW)

    def test_p3_is_p3_as_the_database_has_it(self) -> None:
        columns = (Column.NAME, Column.PERIOD, Column.GROUP)
        done = self.bring(("Okonkwo, Chidi", "p3", "Tisch Ä"), ("Ellery, Josh", "P3", "tisch a"), columns=columns)
        self.assertEqual(done.counts, {"new": 2})
        self.assertEqual([one.name for one in Period.objects.filter(group=self.group)], ["P3"])
        self.assertEqual(PeriodMembership.objects.count(), 3)
        again = self.bring(("Okonkwo, Chidi", "P3", "TISCH A"), columns=columns)
        self.assertEqual(again.counts.get("here", 0) + again.counts.get("changed", 0), 1)

    def test_an_address_is_no_name(self) -> None:
        of = {"rows": [["chidi@larkfield.example"], ["chidi @ home"]], "columns": ["name"]}
        first, second = self.ok(self.lead, "POST", f"/groups/{self.group}/roster/preview", of)["lines"]
        self.assertEqual((first["verdict"], first["name"]), ("new", "Chidi"))
        self.assertIn("Named after the address", first["why"])
        self.assertEqual(second["verdict"], "unreadable")
        self.assertIn("is an address, not a name", second["why"])

    def test_addresses_alone_are_enough_and_what_they_lack_is_completed_later(self) -> None:
        Person.objects.filter(pk=self.thandi.enrolment.person_id).update(email="thandi@larkfield.example")
        columns = (Column.EMAIL,)
        done = self.bring(("thandi@larkfield.example",), ("anna.blom2@larkfield.example",), columns=columns)
        self.assertEqual(done.counts, {"here": 1, "new": 1})
        listed = {one["email"]: one for one in self.ok(self.lead, "GET", f"/groups/{self.group}/roster")["students"]}
        anna = listed["anna.blom2@larkfield.example"]
        self.assertEqual((anna["given_name"], anna["family_name"], anna["to_complete"]), ("Anna", "Blom", True))
        self.assertFalse(listed["thandi@larkfield.example"]["to_complete"])
        both = (Column.EMAIL, Column.GIVEN, Column.FAMILY)
        self.bring(("anna.blom2@larkfield.example", "Anna Maria", "Blom"), columns=both)
        listed = {one["email"]: one for one in self.ok(self.lead, "GET", f"/groups/{self.group}/roster")["students"]}
        anna = listed["anna.blom2@larkfield.example"]
        self.assertEqual((anna["given_name"], anna["to_complete"]), ("Anna Maria", False))

    def test_a_list_never_joins_people_long_before_or_after_the_class(self) -> None:
        seen = {"rows": [["Okonkwo, Chidi"]], "columns": ["name"]}
        plan = self.ok(self.lead, "POST", f"/groups/{self.group}/roster/preview", seen)["seen"]
        self.problem(
            422, self.lead, "POST", f"/groups/{self.group}/roster", {**seen, "seen": plan, "first": "2050-01-01"}
        )


class Served(OneRequest):
    """RFC 9110: a strong tag is that of the bytes sent (8.8.1), a part is a part of them (14)."""

    def setUp(self) -> None:
        super().setUp()
        self.evidence = builders.add_picture(self.thandi, self.card, data=builders.jpeg(size=(900, 700)))
        self.client_ = self.client_of(self.thandi.enrolment.person)
        self.packed = {"Accept-Encoding": "gzip, br"}

    def test_files_keep_their_tags_and_parts_whatever_packing_is_offered(self) -> None:
        for path in (f"/api/artefacts/{self.evidence.artefact_id}/{of}" for of in ("file", "thumbnails/small")):
            with self.subTest(path):
                whole = self.client_.get(path, headers=self.packed)
                content = b"".join(whole.streaming_content) if whole.streaming else whole.content
                self.assertNotIn("Content-Encoding", whole)
                self.assertFalse(whole["ETag"].startswith("W/"))
                again = self.client_.get(path, headers={**self.packed, "If-None-Match": whole["ETag"]})
                self.assertEqual(again.status_code, 304)
                part = self.client_.get(path, headers={**self.packed, "Range": "bytes=10-19"})
                if part.status_code == 206:
                    got = b"".join(part.streaming_content) if part.streaming else part.content
                    self.assertEqual((got, part["Content-Range"]), (content[10:20], f"bytes 10-19/{len(content)}"))

    def test_json_is_packed_and_kept_by_nobody(self) -> None:
        answer = self.client_.get(f"/api/portfolios/{self.thandi.pk}", headers=self.packed)
        self.assertEqual((answer["Content-Encoding"], answer["Cache-Control"]), ("gzip", "no-store"))
        self.assertEqual(json.loads(gzip.decompress(answer.content))["id"], self.thandi.pk)
        refused = Client().get(f"/api/portfolios/{self.thandi.pk}")
        self.assertEqual(refused["Cache-Control"], "no-store")


class Wanting(OneRequest):
    def test_each_hand_in_says_every_pocket_it_collects_and_what_is_missing_in_each(self) -> None:
        columns = [
            {"key": "a", "title": "Weather", "type": "text", "required": True},
            {"key": "b", "title": "Grams", "type": "number", "required": True},
        ]
        log = self.eight.pocket("Crop log", "log", log={"columns": columns}, rows=1)
        about = self.eight.pocket("About me", "page")
        both = self.eight.handin(self.card, log, about, title="All")
        student = self.thandi.enrolment.person
        builders.fill(self.thandi, self.card)
        self.ok(student, "PUT", f"/portfolios/{self.thandi.pk}/pockets/{about.pk}/page", {"text": "Me.", "version": 0})
        self.ok(student, "POST", f"/portfolios/{self.thandi.pk}/pockets/{log.pk}/rows", {"values": {"a": "wet"}})
        for pocket in (self.card, log, about):
            opened = self.ok(student, "GET", f"/portfolios/{self.thandi.pk}/pockets/{pocket.pk}")
            (shown,) = [one for one in opened["handins"] if one["id"] == both.pk]
            self.assertEqual([one["title"] for one in shown["pockets"]], ["Recipe card", "Crop log", "About me"])
            (wanting,) = shown["wanting"]
            self.assertEqual((wanting["title"], wanting["rows"], wanting["columns"]), ("Crop log", 1, ["Grams"]))
            self.assertEqual([(one["what"], one["done"], one["wanted"]) for one in wanting["chips"]], [("rows", 0, 1)])
        line = next(
            one
            for one in self.ok(student, "GET", f"/portfolios/{self.thandi.pk}/worklist")["to_do"]
            if one["id"] == both.pk
        )
        self.assertEqual(line["wanting"], [wanting])

    def test_days_of_a_class_reach_three_years_around_it(self) -> None:
        own = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/due"
        last = self.eight.group.last + timedelta(days=3 * 366)
        self.ok(self.lead, "PUT", own, {"day": last.isoformat()})
        self.problem(422, self.lead, "PUT", own, {"day": (last + timedelta(days=1)).isoformat()})
        self.assertLess(TODAY, date(2027, 1, 1))
