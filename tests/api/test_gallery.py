"""The gallery: publishing, adopting, what changed since; carrying over from another class."""

from datetime import date
from typing import Any

from coatpeg.handins.models import HandIn, HandInStudent
from coatpeg.outlines.models import GalleryTemplate, GalleryVersion, Pocket
from coatpeg.people.models import Enrolment, School, Term, new_calendar_key
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import Class, klass, working_group


class GalleryCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.about = self.plot.pocket("About me", "page", starter="I am …")
        self.forge = klass("9 Forge", "marsh")
        self.third = klass("7 Shed", "sandoval")

    def publish(self, title: str = "Growing & Cooking", **more: Any) -> None:
        path = f"/groups/{self.plot.group.pk}/template/gallery"
        self.ok(self.plot.lead, "PUT", path, {"title": title, "description": "A garden and a kitchen.", **more})

    def adopt(self, by: Class | None = None) -> Any:
        by = by or self.forge
        template = GalleryTemplate.objects.exclude(author=None).get().pk
        return self.ok(by.lead, "POST", f"/groups/{by.group.pk}/template/adopt", {"template": template})

    def titles(self, of: Class) -> list[tuple[str, list[str]]]:
        sections = self.ok(of.lead, "GET", f"/groups/{of.group.pk}/template")["sections"]
        return [
            (one["title"], [pocket["title"] for pocket in one["pockets"] if not pocket["retired"]]) for one in sections
        ]

    def news(self) -> list[tuple[str, str]]:
        state = self.ok(self.forge.lead, "GET", f"/groups/{self.forge.group.pk}/template/gallery")
        return [(one["what"], one["title"]) for one in state["news"]]

    def change(self, pocket: Pocket, **fields: Any) -> None:
        laid = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/template")["sections"][0]["pockets"]
        kept = next(one for one in laid if one["id"] == pocket.pk)
        self.ok(self.plot.lead, "PUT", f"/groups/{self.plot.group.pk}/template/pockets/{pocket.pk}", {**kept, **fields})


class Adopting(GalleryCase):
    def test_found_previewed_and_adopted_as_a_copy_of_ones_own(self) -> None:
        self.publish()
        found = self.ok(self.forge.lead, "GET", "/gallery?text=KITCHEN okafor")
        self.assertEqual(
            [(one["title"], one["by"], one["version"]) for one in found], [("Growing & Cooking", "R. Okafor", 1)]
        )
        (section,) = found[0]["sections"]
        self.assertEqual((section["title"], section["pockets"]), ("The kitchen", ["Recipe card", "About me"]))
        done = self.adopt()
        self.assertEqual((done["pockets"], done["handins"], len(done["sections"])), (2, 0, 1))
        self.assertEqual(self.titles(self.forge), [("The kitchen", ["Recipe card", "About me"])])
        self.change(self.card, title="Card")
        self.assertEqual(self.titles(self.forge)[0][1], ["Recipe card", "About me"], "a copy of one's own")
        problem = self.problem(
            422,
            self.forge.lead,
            "POST",
            f"/groups/{self.forge.group.pk}/template/adopt",
            {"template": GalleryTemplate.objects.exclude(author=None).get().pk},
        )
        self.assertIn("already", problem["title"])

    def test_seven_ship_with_it(self) -> None:
        shipped = {one["title"] for one in self.ok(self.forge.lead, "GET", "/gallery") if not one["by"]}
        portfolios = {"Portfolio for a subject", "Project in groups", "Leavers' plan"}
        self.assertEqual(shipped, portfolios | {"Reading record", "Laboratory record", "Credit plan", "Score record"})
        template = GalleryTemplate.objects.get(title="Portfolio for a subject").pk
        self.assertEqual(
            self.ok(self.forge.lead, "POST", f"/groups/{self.forge.group.pk}/template/adopt", {"template": template})[
                "pockets"
            ],
            7,
        )

    def test_a_credit_plan_is_nothing_but_a_log(self) -> None:
        """Adopted and filled in: credits per year and over all against the target, in the order of the years."""
        template = GalleryTemplate.objects.get(title="Credit plan").pk
        self.ok(self.forge.lead, "POST", f"/groups/{self.forge.group.pk}/template/adopt", {"template": template})
        student = self.forge.student("ada", "Ada", "Blom")
        log = Pocket.objects.get(kind="log", section__template__group=self.forge.group)
        path = f"/portfolios/{student.pk}/pockets/{log.pk}"
        text = "Course\tYear\tCredits\tState\nPhysics\tyear 12\t4\tplanned\nArt\tYear 9\t2.5\tpassed\nMaths\tYear 9\t4\tpassed"
        person = student.enrolment.person
        self.assertEqual(self.ok(person, "POST", f"{path}/rows/paste", {"text": text, "apply": True})["added"], 3)
        shown = self.ok(person, "GET", path)["log"]
        self.assertEqual([row["values"]["course"] for row in shown["rows"]], ["Art", "Maths", "Physics"])
        self.assertEqual(shown["total"]["sums"], [{"column": "credits", "amount": "10.5"}])
        of_year = {one["choice"]: one["sums"] for one in shown["of_choices"] if one["rows"] and one["column"] == "year"}
        self.assertEqual(of_year["Year 9"], [{"column": "credits", "amount": "6.5"}])
        self.assertEqual(shown["target"], {"column": "credits", "amount": "24", "each_week": False})

    def test_no_student_work_is_published(self) -> None:
        thandi = self.plot.student("thandi")
        builders.reflect(builders.add_picture(thandi, self.card), "My grandmother's soup.")
        self.publish()
        self.assertNotIn("grandmother", str(GalleryVersion.objects.exclude(template__author=None).get().document))

    def test_out_of_the_gallery_again(self) -> None:
        self.publish()
        self.adopt()
        self.ok(self.plot.lead, "DELETE", f"/groups/{self.plot.group.pk}/template/gallery")
        self.assertEqual(self.ok(self.forge.lead, "GET", "/gallery?text=kitchen"), [])
        self.assertEqual(len(self.titles(self.forge)[0][1]), 2, "copies stay")

    def test_what_cannot_be_published(self) -> None:
        path = f"/groups/{self.plot.group.pk}/template/gallery"
        for wrong in ({"title": " "}, {"title": "x" * 300}, {"title": "x", "description": "y" * 2000}):
            self.problem(422, self.plot.lead, "PUT", path, wrong)
        self.problem(422, self.forge.lead, "PUT", f"/groups/{self.forge.group.pk}/template/gallery", {"title": "Empty"})
        self.problem(404, self.plot.lead, "DELETE", path)
        self.problem(404, self.forge.lead, "POST", f"/groups/{self.forge.group.pk}/template/adopt", {"template": 99999})


class WhatIsNew(GalleryCase):
    def setUp(self) -> None:
        super().setUp()
        self.publish()
        self.adopt()
        self.bring = f"/groups/{self.forge.group.pk}/template/news"

    def test_changes_are_told_and_brought_in_one_by_one(self) -> None:
        self.assertEqual(self.news(), [])
        self.change(self.card, artefacts=3)
        self.plot.pocket("Menu", "page")
        self.ok(
            self.plot.lead,
            "PUT",
            f"/groups/{self.plot.group.pk}/template/pockets/{self.about.pk}/retired",
            {"retired": True},
        )
        self.assertEqual(self.news(), [], "not before a new version is published")
        self.publish()
        self.assertEqual(self.news(), [("changed", "Recipe card"), ("added", "Menu"), ("gone", "About me")])
        self.ok(self.forge.lead, "POST", f"{self.bring}/bring", {"key": self.card.key})
        own = Pocket.objects.get(section__template=self.forge.template, key=self.card.key)
        self.assertEqual((own.artefacts, own.version), (3, 2))
        self.problem(404, self.forge.lead, "POST", f"{self.bring}/bring", {"key": self.card.key})
        self.ok(self.forge.lead, "POST", f"{self.bring}/bring", {"key": Pocket.objects.get(title="Menu").key})
        self.ok(self.forge.lead, "POST", f"{self.bring}/bring", {"key": self.about.key})
        self.assertEqual((self.news(), self.titles(self.forge)), ([], [("The kitchen", ["Recipe card", "Menu"])]))
        self.assertTrue(Pocket.objects.get(section__template=self.forge.template, key=self.about.key).retired_at)

    def test_a_newer_version_destroys_no_work_that_lies_in_a_pocket(self) -> None:
        columns = [{"key": "a", "title": "Weather", "type": "text"}]
        log = self.plot.pocket("Log", "log", log={"columns": columns})
        self.publish()
        self.adopt(self.third)
        own = {
            key: Pocket.objects.get(section__template=self.third.template, key=of.key)
            for key, of in (("card", self.card), ("log", log))
        }
        portfolio = self.third.student("chidi", "Chidi", "Okonkwo")
        builders.fill(portfolio, own["card"])
        student = portfolio.enrolment.person
        self.ok(student, "POST", f"/portfolios/{portfolio.pk}/pockets/{own['log'].pk}/rows", {"values": {"a": "wet"}})
        # In the meantime the template's author makes something else of both.
        Pocket.objects.filter(pk=log.pk).update(log={"columns": [{**columns[0], "type": "number"}]})
        Pocket.objects.filter(pk=self.card.pk).update(
            kind="log", log={"columns": columns}, artefacts=0, reflection_on_each=False
        )
        self.publish()
        path = f"/groups/{self.third.group.pk}/template/news/bring"
        for key in (self.card.key, log.key):
            found = self.problem(422, self.third.lead, "POST", path, {"key": key})
            self.assertTrue(found["fix"])
        for one in own.values():
            self.ok(student, "GET", f"/portfolios/{portfolio.pk}/pockets/{one.pk}")
        self.assertEqual(list(differences()), [])

    def test_the_rest_can_be_left_until_the_next_version(self) -> None:
        self.change(self.card, artefacts=3)
        self.publish()
        self.ok(self.forge.lead, "POST", f"{self.bring}/seen")
        self.assertEqual(self.news(), [])
        self.change(self.about, prompt="Who are you?")
        self.publish()
        self.assertEqual(self.news(), [("changed", "About me")])


class CarryingOver(GalleryCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot.student(None, period="P3")
        self.plot.handin(
            self.card,
            title="Card",
            opens=date(2026, 9, 14),
            due=date(2026, 10, 9),
            period_dues={"P3": date(2026, 10, 8)},
        )
        Term.objects.create(name="Spring term", first=date(2027, 1, 4), last=date(2027, 4, 2))
        School.objects.update(calendar_key=new_calendar_key())
        self.forge.group.first, self.forge.group.last = date(2027, 1, 4), date(2027, 4, 2)
        self.forge.group.save()
        self.path = f"/groups/{self.forge.group.pk}/template/carry-over"

    def test_the_structure_and_its_hand_ins_moved_by_school_week(self) -> None:
        self.forge.period("P3")
        self.problem(404, self.forge.lead, "POST", self.path, {"source": self.plot.group.pk})
        builders.StaffRole.objects.create(group=self.plot.group, person=self.forge.lead, role="observer")
        self.card.opens = date(2026, 9, 14)
        self.card.save()
        done = self.ok(self.forge.lead, "POST", self.path, {"source": self.plot.group.pk, "handins": True})
        self.assertEqual((done["pockets"], done["handins"], len(done["sections"])), (2, 1, 1))
        made = HandIn.objects.get(group=self.forge.group)
        # The autumn term begins on Wed 9 Sep 2026 (week 1); 14 Sep is in week 2, 9 Oct in week 5.
        self.assertEqual((made.opens, made.due_day), (date(2027, 1, 11), date(2027, 2, 5)))
        self.assertEqual([(one.period.name, one.due_day) for one in made.periods.all()], [("P3", date(2027, 2, 4))])
        own = made.pockets.get()
        self.assertEqual(
            (own.title, own.opens, own.section.template_id), ("Recipe card", date(2027, 1, 11), self.forge.template.pk)
        )

    def test_what_asks_some_asks_the_same_there_or_stays_a_draft(self) -> None:
        builders.StaffRole.objects.create(group=self.plot.group, person=self.forge.lead, role="observer")
        one = Enrolment.objects.filter(group=self.plot.group)[0]
        here, there = (working_group(of.group, "Beds") for of in (self.plot, self.forge))
        here.members.add(one)
        beds = self.plot.handin(self.card, title="Beds")
        HandIn.objects.filter(pk=beds.pk).update(whom="groups")
        beds.groups.add(here)
        chosen = self.plot.handin(self.card, title="Chosen")
        HandIn.objects.filter(pk=chosen.pk).update(whom="students")
        HandInStudent.objects.create(handin=chosen, enrolment=one)
        self.ok(self.forge.lead, "POST", self.path, {"source": self.plot.group.pk, "handins": True})
        made = {of.title: of for of in HandIn.objects.filter(group=self.forge.group)}
        self.assertEqual(
            (made["Beds"].whom, list(made["Beds"].groups.all()), made["Beds"].draft), ("groups", [there], False)
        )
        self.assertEqual((made["Chosen"].whom, made["Chosen"].draft, made["Card"].draft), ("all", True, False))

    def test_the_structure_alone_and_what_cannot_be(self) -> None:
        builders.StaffRole.objects.create(group=self.plot.group, person=self.forge.lead, role="observer")
        self.assertEqual(self.ok(self.forge.lead, "POST", self.path, {"source": self.plot.group.pk})["handins"], 0)
        self.assertFalse(HandIn.objects.filter(group=self.forge.group).exists())
        self.problem(422, self.forge.lead, "POST", self.path, {"source": self.forge.group.pk})
        self.problem(
            403,
            self.forge.lead,
            "POST",
            f"/groups/{self.plot.group.pk}/template/carry-over",
            {"source": self.forge.group.pk},
        )
