"""From whom a hand-in is asked: some groups, chosen students, all but some; also changed, and laid out elsewhere."""

from typing import Any

from coatpeg.handins.models import HandIn
from coatpeg.people.models import StaffRole
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import klass, working_group


class Whom(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi", "Thandi", "Dube", period="P3")
        self.josh = self.plot.student(None, "Josh", "Ellery", period="P3")
        self.ana = self.plot.student(None, "Ana", "Flores", period="P4")
        self.beds = working_group(self.plot.group, "Beds")
        self.beds.members.set([self.josh.enrolment, self.ana.enrolment])
        self.path = f"/groups/{self.plot.group.pk}/handins"

    def plan(self, whom: str, **more: object) -> dict[str, Any]:
        base = {"title": "Menu", "pockets": [self.card.pk], "opens": "2026-11-02", "due": {"day": "2026-11-20"}}
        return {**base, "whom": whom, **more}

    def ids(self, *portfolios: Any) -> list[int]:
        return [one.enrolment_id for one in portfolios]

    def asked(self) -> list[str]:
        rows = self.pegs(self.plot.lead, self.plot.group.pk)["students"]
        return [row["given_name"] for row in rows if row["cells"][0]["status"] != "not_asked"]

    def set(self, whom: str, **more: object) -> HandIn:
        made = self.ok(self.plot.lead, "POST", self.path, self.plan(whom, **more))
        return HandIn.objects.get(pk=made["id"])

    def test_groups_as_they_are_now(self) -> None:
        self.set("groups", groups=[self.beds.pk])
        self.assertEqual(self.asked(), ["Josh", "Ana"])
        self.beds.members.set([self.thandi.enrolment])
        self.assertEqual(self.asked(), ["Thandi"])

    def test_a_group_of_nobody_asks_nobody(self) -> None:
        self.beds.members.clear()
        found = self.problem(422, self.plot.lead, "POST", self.path, self.plan("groups", groups=[self.beds.pk]))
        self.assertIn("Nobody would be asked", found["title"])
        self.assertFalse(HandIn.objects.exists())

    def test_chosen_students_and_all_but_some_within_a_period(self) -> None:
        self.set("students", students=self.ids(self.thandi, self.ana))
        self.assertEqual(self.asked(), ["Thandi", "Ana"])
        HandIn.objects.all().delete()
        periods = [{"period": self.plot.period("P3").pk, "asked": True}]
        self.set("but", students=self.ids(self.thandi), for_everyone=False, periods=periods)
        self.assertEqual(self.asked(), ["Josh"])

    def test_the_preview_counts_them(self) -> None:
        found = self.ok(self.plot.lead, "POST", f"{self.path}/preview", self.plan("but", students=self.ids(self.josh)))
        self.assertEqual((found["asked"], found["not_asked"]), (2, 1))

    def test_a_date_of_their_own_asks_who_was_not_chosen(self) -> None:
        made = self.set("students", students=self.ids(self.thandi))
        own = f"/handins/{made.pk}/students/{self.josh.enrolment_id}/due"
        self.ok(self.plot.lead, "PUT", own, {"day": "2026-11-20"})
        self.assertEqual(self.asked(), ["Thandi", "Josh"])

    def test_changed_whoever_has_handed_in_stays_asked_and_is_told_before(self) -> None:
        made = self.set("students", students=self.ids(self.thandi, self.josh))
        builders.hand_in(self.thandi, made, even_if_empty=True)
        plan = self.plan("students", students=self.ids(self.ana))
        impact = self.ok(self.plot.lead, "POST", f"{self.path}/{made.pk}/preview", plan)
        self.assertEqual((impact["moves"]["newly_asked"], impact["moves"]["no_longer_asked"]), (1, 1))
        self.ok(self.plot.lead, "PUT", f"{self.path}/{made.pk}", {**plan, "version": 1})
        self.assertEqual(self.asked(), ["Thandi", "Ana"])
        shown = self.ok(self.plot.lead, "GET", f"{self.path}/{made.pk}")
        self.assertEqual((shown["whom"], shown["students"]), ("students", self.ids(self.ana)))
        self.assertEqual(list(differences()), [])

    def test_a_student_who_was_not_chosen_sees_and_hands_in_nothing(self) -> None:
        made = self.set("but", students=self.ids(self.thandi))
        person = self.thandi.enrolment.person
        work = self.ok(person, "GET", f"/portfolios/{self.thandi.pk}/worklist")
        self.assertEqual((work["to_do"], work["others"]), ([], []))
        press = {"seen": 0, "even_if_empty": True}
        self.problem(403, person, "POST", f"/portfolios/{self.thandi.pk}/handins/{made.pk}/submissions", press)

    def test_nobody_chosen_and_somebody_of_another_class_are_refused(self) -> None:
        lena = klass("9 Forge", "forge").student(None, "Lena", "Ode")
        cases = [
            self.plan("groups"),
            self.plan("students"),
            self.plan("but", students=[]),
            self.plan("groups", groups=[987654]),
            self.plan("students", students=self.ids(self.thandi, lena)),
        ]
        for plan in cases:
            with self.subTest(plan["whom"]):
                self.assertEqual(self.problem(422, self.plot.lead, "POST", self.path, plan)["where"], "whom")
        self.problem(422, self.plot.lead, "POST", self.path, self.plan("everybody"))

    def test_laid_out_in_another_class_it_finds_groups_by_name_and_the_same_people(self) -> None:
        forge = klass("9 Forge", "forge")
        StaffRole.objects.create(group=self.plot.group, person=forge.lead, role="observer")
        forge.pocket()
        beds = working_group(forge.group, "Beds")
        made = self.set("groups", groups=[self.beds.pk])
        like = self.ok(forge.lead, "GET", f"/groups/{forge.group.pk}/handins/like/{made.pk}")
        self.assertEqual((like["whom"], like["groups"]), ("groups", [beds.pk]))
        other = self.set("students", students=self.ids(self.thandi))
        like = self.ok(forge.lead, "GET", f"/groups/{forge.group.pk}/handins/like/{other.pk}")
        self.assertEqual((like["whom"], like["students"]), ("all", []))
