"""My classes: what waits in each of them, for whoever works in several."""

from datetime import timedelta

from coatpeg.core.policy import Role
from coatpeg.handins.board.classes_shapes import MyClassesShape
from coatpeg.people.models import StaffRole
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class MyClasses(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi", period="P3", first=TODAY - timedelta(days=30))
        self.josh = self.plot.student(None, "Josh", "Ellery", period="P4", first=TODAY - timedelta(days=3))
        self.forge = klass("9 Forge", "forge")
        StaffRole.objects.create(group=self.forge.group, person=self.plot.lead, role="observer")

    def found(self, person: object = None) -> dict:
        return self.ok(person or self.plot.lead, "GET", "/classes")

    def test_the_answer_has_the_shape_it_promises(self) -> None:
        self.plot.handin(self.card)
        builders.hand_in(self.thandi, self.plot.handin(self.card, title="Old"), even_if_empty=True)
        MyClassesShape.model_validate(self.found(), extra="forbid")

    def test_each_class_with_what_waits_in_it(self) -> None:
        old = self.plot.handin(self.card, title="Old", opens=TODAY - timedelta(days=20), due=TODAY - timedelta(days=2))
        self.plot.handin(self.card, title="Soon", due=TODAY + timedelta(days=1))
        self.plot.handin(self.card, title="Later", due=TODAY + timedelta(days=20))
        builders.fill(self.thandi, self.card)
        builders.hand_in(self.thandi, old)
        self.plot.student(None, "Gone", "Leaver", first=TODAY - timedelta(days=30), last=TODAY - timedelta(days=1))
        plot, forge = self.found()["classes"]
        self.assertEqual((plot["name"], plot["students"], plot["periods"]), ("8 Plot", 2, ["P3", "P4"]))
        self.assertEqual((plot["owing"], plot["to_mark"], plot["quiet"]), (1, 1, 0))
        self.assertEqual((plot["handin"]["title"], plot["handin"]["in"], plot["handin"]["asked"]), ("Soon", 0, 2))
        self.assertEqual((forge["students"], forge["handin"]), (0, None))

    def test_what_has_waited_longest_where_one_marks(self) -> None:
        handin = self.plot.handin(self.card, opens=TODAY - timedelta(days=9))
        builders.hand_in(self.josh, handin, NOW - timedelta(hours=1), even_if_empty=True)
        first = builders.hand_in(self.thandi, handin, NOW - timedelta(days=1), even_if_empty=True)
        work = self.forge.student(None, "Lena", "Ode", first=TODAY - timedelta(days=30))
        elsewhere = self.forge.handin(self.forge.pocket(), opens=TODAY - timedelta(days=20))
        builders.hand_in(work, elsewhere, NOW - timedelta(days=6), even_if_empty=True)
        found = self.found()
        self.assertEqual((found["to_mark"], found["oldest"]["submission"]), (2, first.pk), "an observer marks nothing")
        self.assertEqual((found["oldest"]["class_name"], found["oldest"]["school_days"]), ("8 Plot", 1))
        self.assertEqual(self.found(self.forge.lead)["oldest"]["student"]["given_name"], "Lena")

    def test_due_today_counts_the_day_of_a_period_too(self) -> None:
        self.plot.handin(self.card, due=TODAY + timedelta(days=4), period_dues={"P3": TODAY})
        (plot, _) = self.found()["classes"]
        self.assertEqual((plot["due_today"], plot["handin"]["due"]), (1, str(TODAY)))

    def test_the_day_begins_here_for_whoever_has_several_classes_to_look_after(self) -> None:
        helper = self.plot.staff("marsh", Role.MARKER)
        self.assertEqual(self.ok(self.plot.lead, "GET", "/session")["home"], "/classes")
        self.assertEqual(self.ok(helper, "GET", "/session")["home"], f"/g/{self.plot.group.pk}/pegs")
        self.assertEqual(self.client_of(self.plot.lead).get("/").headers["Location"], "/classes")

    def test_students_and_caseloads_see_no_class_here(self) -> None:
        self.assertEqual(self.found(self.thandi.enrolment.person)["classes"], [])
        self.assertEqual(self.found(klass("Caseload", "lindqvist", "caseload").lead)["classes"], [])

    def test_the_statements_grow_with_the_classes_alone(self) -> None:
        client = self.client_of(self.plot.lead)
        self.plot.handin(self.card)
        client.get("/api/classes")  # the first one also reads the calendar, which the process keeps
        for _ in range(2):
            with self.assertNumQueries(6 + 2 * 8):
                client.get("/api/classes")
            for number in range(12):
                self.plot.student(None, f"S{number}", "Blom")
            self.plot.handin(self.card, title="Another")
