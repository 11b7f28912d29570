"""Adjustments and caseloads: agreed once, honoured by every computation from that moment; own due dates."""

from datetime import date, timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.people.models import Adjustment, Enrolment
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class CaseloadCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi", period="P3")
        self.josh = self.plot.student("josh", "Josh", "Ellery")
        self.handin = self.plot.handin(self.card)
        self.caseload = klass("Caseload", "lindqvist", "caseload")
        self.coordinator = self.caseload.lead
        Enrolment.objects.create(
            group=self.caseload.group, person=self.thandi.enrolment.person, first=TODAY, picture="leaf"
        )
        self.student = self.thandi.enrolment.person
        self.path = f"/students/{self.thandi.enrolment_id}/adjustments"

    def agree(self, **fields: Any) -> dict[str, Any]:
        body = {"extra_days": 0, "first": "2026-11-01", "reason": "Agreed at the review.", **fields}
        return self.ok(self.coordinator, "POST", self.path, body)

    def row(self) -> dict[str, Any]:
        return self.pegs(self.plot.lead, self.plot.group.pk)["students"][0]

    def pocket(self) -> dict[str, Any]:
        return self.ok(self.student, "GET", f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}")


class Agreeing(CaseloadCase):
    def test_extra_days_move_the_board_at_once(self) -> None:
        self.assertEqual(self.row()["cells"][0]["due"], "2026-11-06")
        self.agree(extra_days=3)
        self.assertEqual(self.row()["cells"][0]["due"], "2026-11-11")
        event = Event.objects.get(verb="adjustment_agreed", group_id=self.plot.group.pk)
        self.assertNotIn("review", str(event.data), "an event carries no reason")

    def test_fewer_artefacts_and_shorter_texts_change_what_is_wanted_everywhere(self) -> None:
        self.assertEqual((self.row()["wanted"], self.pocket()["wanted"]), (4, 4))
        self.agree(fewer_artefacts=1, percent=50)
        self.assertEqual(self.row()["wanted"], 2)
        pocket = self.pocket()
        self.assertEqual((pocket["wanted"], pocket["least"], pocket["most"]), (2, 1, 3))
        builders.reflect(builders.add_picture(self.thandi, self.card), "One sentence is enough.")
        self.assertEqual((self.pocket()["met"], self.row()["met"]), (2, 2))
        cell = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}"
        chips = self.ok(self.plot.lead, "GET", cell)["pockets"][0]["chips"]
        self.assertEqual(
            [(chip["what"], chip["done"], chip["wanted"]) for chip in chips],
            [("artefacts", 1, 1), ("reflection", 1, 1)],
        )
        worklist = self.ok(self.student, "GET", f"/portfolios/{self.thandi.pk}/worklist")
        self.assertEqual(worklist["to_do"][0]["wanting"], [])
        self.assertEqual(
            self.pegs(self.plot.lead, self.plot.group.pk)["students"][1]["wanted"],
            4,
            "others keep theirs",
        )

    def test_excused_from_a_kind_and_recording_allowed_are_said_to_the_student(self) -> None:
        self.agree(spoken=True)
        self.assertTrue(self.pocket()["spoken"])
        self.agree(without=["evidence"])
        pocket = self.pocket()
        self.assertEqual((pocket["excused"], pocket["chips"], pocket["wanted"]), (True, [], 0))

    def test_what_was_handed_in_keeps_what_was_wanted_then(self) -> None:
        agreed = self.agree(fewer_artefacts=1)
        builders.fill(self.thandi, self.card)
        builders.hand_in(self.thandi, self.handin)
        self.assertEqual((self.pocket()["met"], self.pocket()["wanted"]), (2, 2))
        self.ok(self.coordinator, "DELETE", f"/adjustments/{agreed['id']}")
        self.assertEqual((self.pocket()["met"], self.pocket()["wanted"]), (2, 2))
        self.assertEqual((self.row()["met"], self.row()["wanted"]), (2, 2))

    def test_changed_with_the_version_that_was_seen(self) -> None:
        agreed = self.agree(extra_days=1)
        body = {"extra_days": 2, "first": "2026-11-01", "version": 1}
        self.assertEqual(self.ok(self.coordinator, "PUT", f"/adjustments/{agreed['id']}", body)["version"], 2)
        self.problem(409, self.coordinator, "PUT", f"/adjustments/{agreed['id']}", body)
        self.assertEqual(Adjustment.objects.get().extra_days, 2)

    def test_the_reason_is_for_the_coordinator_and_the_leads_only(self) -> None:
        self.agree(extra_days=2)
        for person in (self.coordinator, self.plot.lead, self.plot.staff("co", Role.CO_TEACHER)):
            seen = self.ok(person, "GET", self.path)
            self.assertEqual(seen["adjustments"][0]["reason"], "Agreed at the review.")
            self.assertEqual(seen["may_change"], person == self.coordinator)
        for person in (
            self.plot.staff("marker", Role.MARKER),
            self.plot.staff("observer", Role.OBSERVER),
            self.student,
        ):
            self.problem(403, person, "GET", self.path)
        self.problem(404, self.josh.enrolment.person, "GET", self.path)
        for path in (f"/groups/{self.plot.group.pk}/pegs", f"/portfolios/{self.thandi.pk}"):
            self.assertNotIn(b"review", self.call(self.plot.lead, "GET", path).content)

    def test_the_lead_of_a_class_reads_and_does_not_change(self) -> None:
        agreed = self.agree(extra_days=2)
        self.problem(403, self.plot.lead, "POST", self.path, {"extra_days": 9, "first": "2026-11-01"})
        self.problem(403, self.plot.lead, "DELETE", f"/adjustments/{agreed['id']}")
        stranger = klass("9 Forge", "marsh").lead
        self.problem(404, stranger, "DELETE", f"/adjustments/{agreed['id']}")

    def test_what_cannot_be_meant_is_refused(self) -> None:
        for wrong in (
            {},
            {"extra_days": 99},
            {"percent": 1},
            {"extra_days": 1, "last": "2026-10-01"},
            {"extra_days": 1, "reason": "x" * 3000},
            {"without": ["log book"]},
        ):
            self.problem(422, self.coordinator, "POST", self.path, {"first": "2026-11-01", **wrong})
        self.problem(
            404, self.coordinator, "POST", "/students/99999/adjustments", {"extra_days": 1, "first": "2026-11-01"}
        )


class Overview(CaseloadCase):
    def test_how_its_students_stand_in_all_their_classes(self) -> None:
        forge = klass("9 Forge", "marsh")
        forge.student(existing=self.student)
        forge.handin(forge.pocket("Hook"), title="Hook", due=TODAY - timedelta(days=1))
        self.agree(extra_days=0, percent=80)
        seen = self.ok(self.coordinator, "GET", f"/groups/{self.caseload.group.pk}/caseload")
        (thandi,) = seen["students"]
        self.assertEqual(
            [(one["name"], one["waiting"], one["overdue"]) for one in thandi["classes"]],
            [("8 Plot", 1, []), ("9 Forge", 1, ["Hook"])],
        )
        self.assertEqual(thandi["adjustments"][0]["percent"], 80)
        self.assertTrue(self.ok(self.coordinator, "GET", f"/portfolios/{thandi['classes'][1]['portfolio']}"))

    def test_a_class_is_no_caseload_whoever_asks(self) -> None:
        self.problem(404, self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/caseload")

    def test_the_number_of_queries_does_not_grow_with_its_students(self) -> None:
        client = self.client_of(self.coordinator)
        path = f"/api/groups/{self.caseload.group.pk}/caseload"
        client.get(path)
        with self.assertNumQueries(20):
            client.get(path)
        for number in range(8):
            one = self.plot.student(None, f"S{number}", "Blom")
            builders.adjust(one, 1)
            Enrolment.objects.create(
                group=self.caseload.group, person=one.enrolment.person, first=TODAY, picture=f"p{number}"
            )
        with self.assertNumQueries(20):
            client.get(path)


class OwnDates(CaseloadCase):
    def set(self, day: str | None, person: Any = None, **more: Any) -> Any:
        path = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/due"
        return self.call(person or self.plot.lead, "PUT", path, {"day": day, **more})

    def test_a_date_of_their_own_beats_period_class_and_adjustment_and_can_be_taken_away(self) -> None:
        self.agree(extra_days=5)
        self.assertEqual(self.set("2026-11-09", at="12:00").status_code, 204)
        self.assertEqual(self.row()["cells"][0]["due"], "2026-11-09")
        cell = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}"
        self.assertEqual(self.ok(self.plot.lead, "GET", cell)["due_source"], "own")
        self.set(None)
        self.assertEqual(self.row()["cells"][0]["due"], "2026-11-13")

    def test_it_asks_a_newcomer_for_what_was_due_before_they_came(self) -> None:
        self.thandi.enrolment.first = date(2026, 11, 9)
        self.thandi.enrolment.save()
        with self.at(NOW.replace(day=10)):
            self.assertEqual(self.row()["cells"][0]["status"], "not_asked")
            self.set("2026-11-20")
            self.assertEqual(self.row()["cells"][0]["status"], "empty")

    def test_refused_before_it_opens_and_to_who_may_not(self) -> None:
        self.assertEqual(self.set("2026-01-01").status_code, 422)
        self.assertEqual(self.set("2026-11-20", self.student).status_code, 403)
        self.assertEqual(self.set("2026-11-20", self.coordinator).status_code, 403)
