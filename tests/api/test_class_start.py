"""A class started in one go: all of it as it was shown, or nothing of it."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from unittest import mock

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket, Section
from coatpeg.people.models import Enrolment, JoinRequest, Person, StaffRole, TeachingGroup
from coatpeg.setup import class_start
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import klass

START = builders.TODAY - timedelta(days=30)
OWN = "The shed\n  Tools: 2 photos\nEnd\n  Summary: page, 50 words"
LIST = "Family name\tGiven name\tPeriod\nHaddad\tAmir\tP1\nHolm\tBea\tPeriod 1\n\t\tP2\nDube\tThandi\tP2"


class StartCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.thandi = self.plot.student("thandi")
        self.card = self.plot.pocket()
        self.handin = self.plot.handin(self.card)
        self.shed = Section.objects.create(template=self.plot.template, title="The shed", position=8)
        Pocket.objects.create(section=self.shed, title="Tools", kind="evidence", artefacts=1, position=1)
        self.marsh = builders.person("marsh", "J.", "Marsh", staff=True)
        self.me = self.plot.lead
        self.body: dict[str, Any] = {"name": "9 Forge", "first": "2026-11-02", "last": "2026-12-18"}

    def start(self, **more: Any) -> dict[str, Any]:
        return self.ok(self.me, "POST", "/groups", {**self.body, **more})

    def look(self, **more: Any) -> dict[str, Any]:
        return self.ok(self.me, "POST", "/start/look", {**self.body, **more})

    def titles(self, group_id: int) -> list[tuple[str, list[str]]]:
        sections = Section.objects.filter(template__group_id=group_id).order_by("position")
        return [(one.title, list(one.pockets.values_list("title", flat=True))) for one in sections]

    def like_plot(self, **more: Any) -> dict[str, Any]:
        return {"source": "class", "id": self.plot.group.pk, "handins": True, **more}


class Looking(StartCase):
    def test_what_is_shown_is_what_is_started(self) -> None:
        chosen = {"like": self.like_plot(), "outline": OWN}
        before = (TeachingGroup.objects.count(), Pocket.objects.count(), Event.objects.count())
        shown = self.look(**chosen)
        self.assertEqual((TeachingGroup.objects.count(), Pocket.objects.count(), Event.objects.count()), before)
        made = self.start(**chosen)
        laid = [(one["title"], [of["title"] for of in one["pockets"]]) for one in shown["sections"]]
        self.assertEqual(laid, self.titles(made["id"]))
        self.assertEqual(laid[-2:], [("The shed", ["Tools"]), ("End", ["Summary"])])
        due = list(HandIn.objects.filter(group_id=made["id"]).values_list("title", "due_day"))
        self.assertEqual([(one["title"], one["due_day"]) for one in shown["handins"]], [(t, str(d)) for t, d in due])
        self.assertEqual((made["pockets"], made["handins"]), (4, 1))
        self.assertEqual(list(differences()), [])

    def test_sections_are_left_out_and_renamed_and_their_hand_ins_stay_behind(self) -> None:
        wanted = [{"key": self.shed.key, "title": "The forge"}]
        made = self.start(like=self.like_plot(sections=wanted))
        self.assertEqual(self.titles(made["id"]), [("The forge", ["Tools"])])
        self.assertEqual(made["handins"], 0)
        self.problem(422, self.me, "POST", "/start/look", {**self.body, "like": self.like_plot(sections=[])})

    def test_a_gallery_template_section_by_section(self) -> None:
        choices = self.ok(self.me, "GET", "/start")
        gallery = choices["gallery"][0]
        first = gallery["sections"][0]
        like = {"source": "gallery", "id": gallery["id"], "sections": [{"key": first["key"]}]}
        made = self.start(like=like)
        self.assertEqual(self.titles(made["id"]), [(first["title"], first["pockets"])])

    def test_what_is_wrong_with_the_outline_is_told_while_it_is_typed(self) -> None:
        shown = self.look(name="", outline="A\n  " + "x" * 300)
        self.assertEqual([one["line"] for one in shown["problems"]], [2])
        self.problem(422, self.me, "POST", "/groups", {**self.body, "outline": "A\n  " + "x" * 300})
        self.assertFalse(TeachingGroup.objects.filter(name="9 Forge").exists())

    def test_the_term_that_runs_and_the_classes_of_ones_own_are_offered(self) -> None:
        found = self.ok(self.me, "GET", "/start")
        self.assertEqual(found["term"]["name"], "Autumn term")
        self.assertEqual([one["name"] for one in found["classes"]], ["8 Plot"])
        self.assertEqual(found["classes"][0]["handins"], 1)
        self.assertEqual(self.ok(self.marsh, "GET", "/start")["classes"], [], "of others' classes nothing is shown")
        self.assertEqual(self.ok(self.me, "GET", "/start/staff?text=mar")[0]["name"], "Marsh, J.")
        self.assertEqual(self.ok(self.me, "GET", "/start/staff?text=okafor"), [], "not oneself")
        self.assertEqual(self.ok(self.me, "GET", "/start/staff?text=dube"), [], "no student")


class PuttingAway(StartCase):
    def setUp(self) -> None:
        super().setUp()
        self.helper = self.plot.staff("ines", Role.CO_TEACHER)
        self.path = f"/groups/{self.plot.group.pk}"

    def test_it_is_read_by_all_and_changed_by_nobody_until_its_lead_brings_it_back(self) -> None:
        student, card = self.thandi.enrolment.person, self.card.pk
        page = self.plot.pocket("About me", "page")
        builders.fill(self.thandi, self.card)
        self.ok(self.me, "PUT", f"{self.path}/put-away")
        for reader in (self.me, self.helper):
            self.assertEqual(len(self.pegs(reader, self.plot.group.pk)["students"]), 1)
            told = self.problem(403, reader, "POST", f"{self.path}/template/sections", {"title": "More"})
            self.assertEqual(told["title"], "This class is put away: it can be read, and nothing in it changed.")
            self.assertEqual(self.ok(reader, "GET", "/classes")["classes"], [])
            (line,) = self.ok(reader, "GET", "/session")["groups"]
            self.assertEqual((line["put_away"], line["role"]), (True, "observer"))
        mine = f"/portfolios/{self.thandi.pk}"
        self.assertEqual(len(self.ok(student, "GET", f"{mine}/pockets/{card}")["evidence"]), 1)
        told = self.problem(403, student, "PUT", f"{mine}/pockets/{page.pk}/page", {"text": "x", "version": 0})
        self.assertIn("nothing changed", told["title"])
        self.assertFalse(self.ok(student, "GET", f"{mine}/pockets/{card}")["writable"])
        facts = self.ok(self.helper, "GET", self.path)
        self.assertIsNotNone(facts["put_away"])
        self.assertFalse(facts["may_bring_back"])
        self.problem(403, self.helper, "DELETE", f"{self.path}/put-away")
        self.problem(404, self.marsh, "DELETE", f"{self.path}/put-away")
        self.problem(403, student, "DELETE", f"{self.path}/put-away")
        self.assertTrue(self.ok(self.me, "GET", self.path)["may_bring_back"])
        self.ok(self.me, "DELETE", f"{self.path}/put-away")
        self.ok(student, "PUT", f"{mine}/pockets/{page.pk}/page", {"text": "x", "version": 0})
        self.ok(self.helper, "POST", f"{self.path}/template/sections", {"title": "More"})
        self.assertEqual(list(differences()), [])

    def test_twice_is_once_and_only_its_lead_does_it(self) -> None:
        self.problem(403, self.helper, "PUT", f"{self.path}/put-away")
        self.problem(404, self.marsh, "PUT", f"{self.path}/put-away")
        for _ in range(2):
            self.ok(self.me, "PUT", f"{self.path}/put-away")
        self.assertEqual(Event.objects.filter(verb="class_put_away").count(), 1)
        for _ in range(2):
            self.ok(self.me, "DELETE", f"{self.path}/put-away")
        self.assertEqual(Event.objects.filter(verb="class_brought_back").count(), 1)

    def test_a_class_put_away_is_still_one_that_another_can_be_like(self) -> None:
        self.ok(self.me, "PUT", f"{self.path}/put-away")
        made = self.start(like=self.like_plot())
        self.assertEqual(made["pockets"], 2)


class Starting(StartCase):
    def seen(self, text: str = LIST, **more: Any) -> dict[str, Any]:
        found = self.ok(self.me, "POST", "/start/list", {"text": text, **more})
        return {"text": text, "seen": found["seen"], **more}

    def test_a_list_is_read_looked_at_and_brought_in(self) -> None:
        found = self.ok(self.me, "POST", "/start/list", {"text": LIST})
        self.assertEqual(found["columns"], ["family", "given", "period"])
        self.assertEqual(found["counts"], {"new": 2, "incomplete": 1, "joins": 1})
        self.assertEqual([(one["number"], one["verdict"]) for one in found["lines"]], [(3, "incomplete"), (4, "joins")])
        made = self.start(students=self.seen(), outline=OWN)
        self.assertEqual((made["students"], made["asked"]), (3, 0))
        here = Enrolment.objects.filter(group_id=made["id"])
        self.assertIn(self.thandi.enrolment.person_id, here.values_list("person_id", flat=True))
        rows = self.pegs(self.me, made["id"])["students"]
        self.assertEqual(sorted(one["period"] for one in rows), ["P1", "P1", "P2"])
        self.assertEqual(list(differences()), [])

    def test_in_a_term_that_runs_nobody_owes_what_was_due_before(self) -> None:
        self.plot.handin(self.card, title="Long ago", opens=START, due=START + timedelta(days=9))
        first, last = str(self.plot.group.first), str(self.plot.group.last)
        made = self.start(first=first, last=last, like=self.like_plot(), students=self.seen())
        board = self.pegs(self.me, made["id"])
        statuses = {cell["status"] for row in board["students"] for cell in row["cells"]}
        self.assertEqual(len(board["handins"]), 2)
        self.assertIn("not_asked", statuses)
        self.assertFalse(any(cell["overdue"] for row in board["students"] for cell in row["cells"]))

    def test_five_thousand_lines_with_two_in_five_wrong_are_read_at_once(self) -> None:
        lines = [f"\t{at}" if at % 5 < 2 else f"Ann{chr(97 + at % 26)} Holm{at}\t{at:06}" for at in range(4_999)]
        text = "Name\tStudent number\n" + "\n".join(lines)
        found = self.ok(self.me, "POST", "/start/list", {"text": text})
        self.assertEqual(found["counts"], {"incomplete": 2_000, "new": 2_999})
        self.assertEqual(len(found["lines"]), 200)

    def test_a_line_of_somebody_known_is_somebody_else_where_that_is_said(self) -> None:
        before = Person.objects.count()
        made = self.start(students=self.seen(as_new=[4]))
        self.assertEqual((made["students"], Person.objects.count() - before), (3, 3))

    def test_whoever_is_known_from_elsewhere_only_is_asked_for(self) -> None:
        text = "Thandi Dube\nAnna Blom"
        found = self.ok(self.marsh, "POST", "/start/list", {"text": text})
        self.assertEqual(found["counts"], {"asked": 1, "new": 1})
        students = {"text": text, "seen": found["seen"]}
        made = self.ok(self.marsh, "POST", "/groups", {**self.body, "students": students})
        self.assertEqual((made["students"], made["asked"]), (1, 1))
        self.assertEqual(JoinRequest.objects.get(group_id=made["id"]).student, self.thandi.enrolment.person)

    def test_colleagues_come_with_their_roles(self) -> None:
        made = self.start(staff=[{"person": self.marsh.pk, "role": "marker"}], by_itself=True)
        roles = dict(StaffRole.objects.filter(group_id=made["id"]).values_list("person_id", "role"))
        self.assertEqual(roles, {self.me.pk: Role.LEAD, self.marsh.pk: Role.MARKER})
        self.assertTrue(self.ok(self.me, "GET", f"/groups/{made['id']}/roster/drops")["by_itself"])

    def test_whatever_is_refused_in_the_end_leaves_nothing_begun(self) -> None:
        before = (TeachingGroup.objects.count(), Person.objects.count(), Event.objects.count())
        student = {"person": self.thandi.enrolment.person_id, "role": "marker"}
        for more, status in (
            ({"staff": [student]}, 404),
            ({"staff": [{"person": self.me.pk, "role": "observer"}]}, 403),
            ({"like": {"source": "class", "id": 0}}, 404),
            ({"like": {"source": "gallery", "id": 0}}, 404),
            ({"students": {"text": LIST, "seen": "something else"}}, 422),
            ({"students": {"text": ",", "seen": ""}}, 422),
            ({"outline": "A\n" + "  p\n" * 300}, 422),
            ({"last": "2026-11-01", "outline": OWN}, 422),
            ({"lead": self.marsh.pk, "outline": OWN}, 422),
        ):
            with self.subTest(more):
                self.problem(status, self.me, "POST", "/groups", {**self.body, **more})
        now = (TeachingGroup.objects.count(), Person.objects.count(), Event.objects.count())
        self.assertEqual(now, before)

    def test_a_server_that_stops_in_the_middle_has_begun_nothing(self) -> None:
        before = TeachingGroup.objects.count()
        stopped = mock.patch.object(class_start.enrolling, "apply_list", side_effect=RuntimeError("stopped"))
        with stopped, self.assertLogs(level="ERROR"):
            told = self.call(self.me, "POST", "/groups", {**self.body, "outline": OWN, "students": self.seen()})
        self.assertEqual((told.status_code, TeachingGroup.objects.count()), (500, before))

    def test_a_class_like_one_in_which_one_is_no_more_is_refused(self) -> None:
        self.problem(404, self.marsh, "POST", "/groups", {**self.body, "like": self.like_plot()})
        self.problem(404, self.marsh, "POST", "/start/look", {**self.body, "like": self.like_plot()})


class Deleting(StartCase):
    def setUp(self) -> None:
        super().setUp()
        self.helper = self.plot.staff("ines", Role.CO_TEACHER)
        self.path = f"/groups/{self.plot.group.pk}"

    def test_a_class_in_which_nobody_has_begun_goes_with_all_of_it_and_its_people_stay(self) -> None:
        self.assertFalse(self.ok(self.me, "GET", self.path)["begun"])
        self.problem(403, self.helper, "DELETE", self.path)
        self.problem(404, self.marsh, "DELETE", self.path)
        self.problem(403, self.thandi.enrolment.person, "DELETE", self.path)
        self.ok(self.me, "DELETE", self.path)
        self.problem(404, self.me, "GET", self.path)
        self.assertFalse(TeachingGroup.objects.filter(pk=self.plot.group.pk).exists())
        self.assertFalse(HandIn.objects.exists())
        self.assertEqual(Event.objects.order_by("pk").last().verb, "class_deleted")
        self.assertTrue(Person.objects.filter(pk=self.thandi.enrolment.person_id).exists())
        self.assertEqual(self.ok(self.thandi.enrolment.person, "GET", "/session")["groups"], [])
        self.assertEqual(list(differences()), [])

    def test_whatever_a_student_ever_put_in_keeps_it(self) -> None:
        evidence = builders.fill(self.thandi, self.card)
        told = self.problem(422, self.me, "DELETE", self.path)
        self.assertEqual(told["title"], "Somebody has begun in “8 Plot”.")
        self.assertTrue(self.ok(self.me, "GET", self.path)["begun"])
        student = self.thandi.enrolment.person
        self.ok(student, "DELETE", f"/evidence/{evidence.pk}")
        self.problem(422, self.me, "DELETE", self.path)
        self.assertTrue(TeachingGroup.objects.filter(pk=self.plot.group.pk).exists())
