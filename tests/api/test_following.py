"""Following a class: what a change of the set-up tells whom, and what a person is when they come in."""

from datetime import date, timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.people.models import Adjustment, Enrolment, Person, Term
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class Following(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi, self.josh = self.plot.student("thandi"), self.plot.student("josh", "Josh", "Ellery")
        self.group = self.plot.group.pk
        self.caseload = klass("Caseload", "lindqvist", "caseload")
        Enrolment.objects.create(
            group=self.caseload.group, person=self.thandi.enrolment.person, first=TODAY, picture="leaf"
        )

    def cursor(self, person: Person) -> int:
        return int(self.ok(person, "GET", f"/groups/{self.group}/changes")["cursor"])

    def told(self, person: Person, after: int) -> list[tuple[str, int | None]]:
        """Each kind that was touched, with each student; None: the class as a whole."""
        found = self.ok(person, "GET", f"/groups/{self.group}/changes?after={after}")
        whose = [*found["enrolments"], *([None] if found["everybody"] else [])]
        return [(kind, one) for kind in found["kinds"] for one in whose]

    def both(
        self, method: str, path: str, body: Any, by: Person | None = None
    ) -> tuple[list[Any], list[Any], list[Any]]:
        """What the lead, Thandi and Josh are told of one call."""
        people = (self.plot.lead, self.thandi.enrolment.person, self.josh.enrolment.person)
        cursors = [self.cursor(one) for one in people]
        self.assertLess(self.call(by or self.plot.lead, method, path, body).status_code, 300)
        lead, thandi, josh = (self.told(one, cursor) for one, cursor in zip(people, cursors, strict=True))
        return lead, thandi, josh

    def test_what_is_agreed_for_one_student_is_told_to_nobody_else_in_the_class(self) -> None:
        path = f"/students/{self.thandi.enrolment_id}/adjustments"
        body = {"extra_days": 2, "first": "2026-11-01"}
        lead, thandi, josh = self.both("POST", path, body, self.caseload.lead)
        event = ("adjustments", self.thandi.enrolment_id)
        self.assertEqual((lead, thandi, josh), ([event], [event], []))

    def test_a_date_of_ones_own_and_a_card_are_told_to_their_student_alone(self) -> None:
        handin = self.plot.handin(self.card)
        lead, thandi, josh = self.both(
            "PUT", f"/handins/{handin.pk}/students/{self.thandi.enrolment_id}/due", {"day": "2026-11-20"}
        )
        self.assertEqual((len(lead), len(thandi), josh), (1, 1, []))
        lead, thandi, josh = self.both("POST", f"/groups/{self.group}/cards", {"students": [self.josh.enrolment_id]})
        self.assertEqual((len(lead), thandi, len(josh)), (1, [], 1))

    def test_a_change_of_the_template_reaches_everybody(self) -> None:
        path = f"/groups/{self.group}/template/sections/{self.plot.section.pk}/pockets"
        told = self.both("POST", path, {"title": "Tools", "kind": "page"})
        self.assertEqual([one[0][0] for one in told], ["template"] * 3)

    def test_who_joins_or_leaves_is_told_to_staff_and_to_themselves(self) -> None:
        lead, thandi, josh = self.both(
            "POST", f"/groups/{self.group}/roster/leave", {"students": [self.josh.enrolment_id]}
        )
        self.assertEqual(
            (lead, thandi, josh), ([("roster", self.josh.enrolment_id)], [], [("roster", self.josh.enrolment_id)])
        )

    def test_a_change_of_the_calendar_reaches_every_class(self) -> None:
        admin = builders.person("bright", administrator=True)
        kept = self.ok(admin, "GET", "/calendar")
        body = {name: kept[name] for name in ("key", "zone", "weekdays", "terms")}
        told = self.both("PUT", "/calendar", {**body, "days_off": []}, admin)
        self.assertEqual([one[0][0] for one in told], ["calendar"] * 3)
        self.assertTrue(Event.objects.filter(group_id=self.caseload.group.pk, verb="calendar_changed").exists())

    def test_more_than_two_hundred_changes_at_once_say_load_anew(self) -> None:
        cursor = self.cursor(self.plot.lead)
        rows = [[f"Student{number}", "Ada"] for number in range(250)]
        self.apply_list(self.plot.lead, f"/groups/{self.group}/roster", {"rows": rows, "columns": ["family", "given"]})
        found = self.ok(self.plot.lead, "GET", f"/groups/{self.group}/changes?after={cursor}")
        self.assertEqual((found["all_changed"], found["kinds"]), (True, []))

    def test_events_of_the_set_up_hold_no_names_and_no_reasons(self) -> None:
        self.apply_list(
            self.plot.lead,
            f"/groups/{self.group}/roster",
            {"rows": [["Okonkwo", "Chidi"]], "columns": ["family", "given"]},
        )
        self.ok(
            self.caseload.lead,
            "POST",
            f"/students/{self.thandi.enrolment_id}/adjustments",
            {"extra_days": 1, "first": "2026-11-01", "reason": "Confidential."},
        )
        self.ok(self.plot.lead, "POST", f"/groups/{self.group}/template/sections", {"title": "Secret garden"})
        kept = " ".join(str(one) for one in Event.objects.values_list("data", flat=True))
        for word in ("Okonkwo", "Chidi", "Confidential", "garden"):
            self.assertNotIn(word, kept)


class ComingIn(ApiCase):
    def session(self, person: Person | None) -> dict[str, Any]:
        return self.ok(person, "GET", "/session")

    def test_what_a_person_is_here_for(self) -> None:
        plot = klass()
        thandi = plot.student("thandi").enrolment.person
        marker = plot.staff("marker", Role.MARKER)
        admin = builders.person("bright", administrator=True)
        for person, role, staff in ((plot.lead, "lead", True), (marker, "marker", True), (thandi, "student", False)):
            session = self.session(person)
            self.assertEqual([(one["name"], one["role"]) for one in session["groups"]], [("8 Plot", role)])
            self.assertEqual((session["person"]["staff"], session["person"]["administrator"]), (staff, False))
        self.assertEqual((self.session(admin)["groups"], self.session(admin)["person"]["administrator"]), ([], True))
        self.assertIsNone(self.session(None)["person"])

    def test_where_in_the_term_we_are(self) -> None:
        klass()
        self.assertEqual(self.session(None)["term"], {"name": "Autumn term", "week": 9, "weeks": 14})
        with self.at(NOW - timedelta(days=100)):
            self.assertEqual(self.session(None)["term"]["week"], None, "before the term")
        Term.objects.all().delete()
        builders.day_off(date(2026, 12, 24), "Holiday")  # makes every process read the calendar anew
        self.assertIsNone(self.session(None)["term"])

    def test_a_student_of_two_classes_and_of_a_caseload_sees_the_classes(self) -> None:
        plot, forge = klass(), klass("9 Forge", "marsh")
        caseload = klass("Caseload", "lindqvist", "caseload")
        thandi = plot.student("thandi").enrolment.person
        forge.student(existing=thandi)
        Enrolment.objects.create(group=caseload.group, person=thandi, first=TODAY, picture="leaf")
        self.assertEqual([one["name"] for one in self.session(thandi)["groups"]], ["8 Plot", "9 Forge"])

    def test_adjustments_of_several_classes_hold_in_each(self) -> None:
        plot, forge = klass(), klass("9 Forge", "marsh")
        thandi = plot.student("thandi")
        other = forge.student(existing=thandi.enrolment.person)
        Adjustment.objects.create(person=thandi.enrolment.person, extra_days=2, first=TODAY)
        for of in (plot, forge):
            of.handin(of.pocket())
            (row,) = self.pegs(of.lead, of.group.pk)["students"]
            self.assertEqual(row["cells"][0]["due"], "2026-11-10")
        self.assertNotEqual(thandi.pk, other.pk)
