"""Hand-ins that only staff see: kept, set, made a draft again; those of another class laid out as drafts."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.handing import records
from coatpeg.handins.models import HandIn
from coatpeg.notices.models import Notice
from coatpeg.people.models import StaffRole
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)
WEEK = timedelta(days=7)


class Drafts(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card = self.plot.pocket()
        self.ada = self.plot.student("ada", "Ada", "Abel")
        self.student = self.ada.enrolment.person
        builders.fill(self.ada, self.card)
        self.path = f"/groups/{self.plot.group.pk}/handins"

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def plan(self, **more: Any) -> dict[str, Any]:
        due = {"day": str(TODAY + 2 * DAY), "at": None}
        return {"title": "Menu", "pockets": [self.card.pk], "opens": str(TODAY), "due": due, **more}

    def drafted(self) -> str:
        made = self.ok(self.lead, "POST", self.path, self.plan(draft=True))
        return f"{self.path}/{made['id']}"

    def seen_by_student(self) -> list[str]:
        found = self.ok(self.student, "GET", f"/portfolios/{self.ada.pk}/worklist")
        opened = self.ok(self.student, "GET", f"/portfolios/{self.ada.pk}/pockets/{self.card.pk}")
        return [one["title"] for one in found["to_do"] + found["others"] + opened["handins"]]

    def test_nobody_but_staff_sees_a_draft_and_nobody_is_asked_or_told(self) -> None:
        path = self.drafted()
        self.assertEqual(self.seen_by_student(), [])
        self.assertEqual(self.pegs(self.lead, self.plot.group.pk)["handins"], [])
        found = self.ok(self.lead, "GET", self.path)
        self.assertEqual([(one["title"], one["pockets"]) for one in found["drafts"]], [("Menu", ["Recipe card"])])
        self.assertFalse(Notice.objects.exists())
        handin = HandIn.objects.get()
        send = f"/portfolios/{self.ada.pk}/handins/{handin.pk}/submissions"
        self.problem(404, self.student, "POST", send, {"seen": 0})
        own = f"/handins/{handin.pk}/students/{self.ada.enrolment.pk}/due"
        self.problem(404, self.lead, "PUT", own, {"day": str(TODAY + DAY), "at": None})
        self.problem(403, self.student, "GET", path)

    def test_set_it_asks_and_tells_and_is_a_draft_again_until_somebody_has_handed_in(self) -> None:
        path = self.drafted()
        plan = self.ok(self.lead, "GET", path)
        self.assertTrue(plan["draft"])
        meant = self.ok(self.lead, "POST", f"{path}/preview", {**self.plan(), "draft": False})
        self.assertEqual((meant["moves"]["newly_asked"], meant["moves"]["dues_moved"]), (1, 0))
        made = self.ok(self.lead, "PUT", path, {**plan, "draft": False})
        self.assertEqual(self.seen_by_student(), ["Menu", "Menu"])
        self.assertEqual([one.what for one in Notice.objects.all()], ["handin_set"])
        again = self.ok(self.lead, "PUT", path, {**plan, "draft": True, "version": made["version"]})
        self.assertEqual(self.seen_by_student(), [])
        self.assertFalse(Notice.objects.exists(), "whoever was not told yet is not told any more")
        made = self.ok(self.lead, "PUT", path, {**plan, "draft": False, "version": again["version"]})
        builders.hand_in(self.ada, HandIn.objects.get())
        told = self.problem(422, self.lead, "PUT", path, {**plan, "draft": True, "version": made["version"]})
        self.assertIn("handed in “Menu” already", told["title"])

    def test_a_draft_may_ask_nobody_yet_and_is_taken_away_and_brought_back(self) -> None:
        none = self.plot.period("P9")
        plan = self.plan(for_everyone=False, periods=[{"period": none.pk, "asked": True}])
        self.problem(422, self.lead, "POST", self.path, plan)
        path = f"{self.path}/{self.ok(self.lead, 'POST', self.path, {**plan, 'draft': True})['id']}"
        draft = self.ok(self.lead, "GET", path)
        self.problem(422, self.lead, "PUT", path, {**draft, "draft": False})
        self.ok(self.lead, "POST", f"{path}/away")
        self.assertEqual(self.ok(self.lead, "GET", self.path)["drafts"], [])
        self.ok(self.lead, "DELETE", f"{path}/away")
        self.assertEqual(len(self.ok(self.lead, "GET", self.path)["drafts"]), 1)
        self.assertFalse(Notice.objects.exists())
        self.problem(422, self.lead, "POST", self.path, self.plan(draft=True, repeat={"every": 1, "until": str(TODAY)}))

    def test_a_model_answer_is_the_staffs_until_the_day_from_which_students_see_it(self) -> None:
        answer = "<p>Seeds need water.</p><script>alert(1)</script>"
        more = {"model_answer": answer, "model_from": str(TODAY + 3 * DAY)}
        made = self.ok(self.lead, "POST", self.path, self.plan(**more))
        path = f"{self.path}/{made['id']}"
        plan = self.ok(self.lead, "GET", path)
        self.assertEqual((plan["model_answer"], plan["model_from"]), ("<p>Seeds need water.</p>", str(TODAY + 3 * DAY)))

        def seen(now: datetime) -> str:
            with self.at(now):
                opened = self.ok(self.student, "GET", f"/portfolios/{self.ada.pk}/pockets/{self.card.pk}")
            return str(opened["handins"][0]["model_answer"])

        self.assertEqual(seen(NOW), "")
        self.assertEqual(seen(NOW + 2 * DAY), "")
        self.assertEqual(seen(NOW + 3 * DAY), "<p>Seeds need water.</p>")
        self.ok(self.lead, "PUT", path, {**plan, "model_from": None})
        self.assertEqual(seen(NOW + 30 * DAY), "", "without a day students never see it")
        years = {**plan, "model_from": "2099-01-01", "version": plan["version"] + 1}
        self.assertIn("model_from", self.problem(422, self.lead, "PUT", path, years)["where"])
        copied = self.ok(self.lead, "GET", f"{self.path}/like/{made['id']}")
        self.assertEqual(copied["model_answer"], "<p>Seeds need water.</p>")
        sent = builders.hand_in(self.ada, HandIn.objects.get(pk=made["id"]), NOW, even_if_empty=True)
        for person, seen in ((self.lead, "<p>Seeds need water.</p>"), (self.ada.enrolment.person, "")):
            desk = self.ok(person, "GET", f"/submissions/{sent.pk}")
            self.assertEqual(desk["handin"]["model_answer"], seen, "beside the work for whoever marks")


class LaidOut(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.old = builders.klass("7 Plot", "frith", today=TODAY - 2 * WEEK)
        self.new = builders.klass()
        self.lead = self.new.lead
        StaffRole.objects.create(group=self.old.group, person=self.lead, role=Role.CO_TEACHER.value)
        card, self.menu = self.old.pocket(), self.old.pocket("Menu")
        here = self.new.pocket()
        here.key = card.key
        self.old.student("bea", "Bea", "Abel")
        self.new.student("ada", "Ada", "Abel")
        self.old.handin(card, title="Soup", due=TODAY - 9 * DAY, opens=TODAY - 20 * DAY)
        self.old.handin(card, title="Bread", due=TODAY + DAY, opens=TODAY)
        self.old.handin(self.menu, title="Menu", due=TODAY + DAY, opens=TODAY)
        self.new.handin(here, title="Bread")
        self.path = f"/groups/{self.new.group.pk}/laid-out"
        self.body = {"source": self.old.group.pk}

    def test_laid_out_as_drafts_line_by_line_and_taken_up_again(self) -> None:
        looked = self.ok(self.lead, "POST", self.path, {**self.body, "only_look": True})
        self.assertEqual(
            {one["title"]: one["why"] for one in looked["lines"]}, {"Soup": "", "Bread": "here", "Menu": "no_pocket"}
        )
        self.assertFalse(HandIn.objects.filter(draft=True).exists(), "looked at only")
        done = self.ok(self.lead, "POST", self.path, self.body)
        (draft,) = HandIn.objects.filter(group=self.new.group, draft=True)
        self.assertEqual((draft.title, str(draft.due_day)), ("Soup", looked["lines"][0]["due"]))
        twice = self.ok(self.lead, "POST", self.path, self.body)
        self.assertEqual({one["why"] for one in twice["lines"]}, {"here", "no_pocket"})
        self.assertEqual(self.ok(self.lead, "DELETE", f"{self.path}/{done['deed']}"), {"drafts": 1, "left": 0})
        self.assertFalse(HandIn.objects.filter(draft=True).exists())

    def test_what_was_set_meanwhile_stays_and_another_class_or_person_gets_nothing(self) -> None:
        done = self.ok(self.lead, "POST", self.path, self.body)
        draft = HandIn.objects.get(draft=True)
        path = f"/groups/{self.new.group.pk}/handins/{draft.pk}"
        plan = self.ok(self.lead, "GET", path)
        due = {"day": str(TODAY + 2 * DAY), "at": None}
        with self.at(NOW):
            self.ok(self.lead, "PUT", path, {**plan, "due": due, "draft": False})
        self.assertEqual(self.ok(self.lead, "DELETE", f"{self.path}/{done['deed']}"), {"drafts": 0, "left": 1})
        self.assertEqual(Event.objects.filter(verb="handins_laid_out").count(), 1)
        self.problem(404, self.lead, "DELETE", f"{self.path}/nothing")
        itself = self.ok(self.lead, "POST", self.path, {"source": self.new.group.pk})
        self.assertEqual({one["why"] for one in itself["lines"]}, {"here"})
        foreign = builders.klass("9 Loom", "marsh")
        self.problem(404, self.lead, "POST", self.path, {"source": foreign.group.pk})
