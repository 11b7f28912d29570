"""Several changes of a template as one draft: looked at, saved in one deed, undone in one; met by somebody else's."""

from __future__ import annotations

from typing import Any

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.outlines.models import Pocket, Section
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import klass


class Drafts(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.thandi = self.plot.student("thandi")
        self.soil = self.plot.pocket("Soil test")
        self.about = self.plot.pocket("About me", "page")
        self.path = f"/groups/{self.plot.group.pk}/template"

    def template(self) -> dict[str, Any]:
        found: dict[str, Any] = self.ok(self.plot.lead, "GET", self.path)
        return found

    def outline(self, template: dict[str, Any]) -> list[tuple[str, list[str]]]:
        return [
            (one["title"], [of["title"] for of in one["pockets"] if not of["retired"]]) for one in template["sections"]
        ]

    def look(self, edits: list[dict[str, Any]], pocket: int | None = None) -> dict[str, Any]:
        found: dict[str, Any] = self.ok(
            self.plot.lead, "POST", f"{self.path}/draft/look", {"edits": edits, "pocket": pocket}
        )
        return found

    def save(self, edits: list[dict[str, Any]]) -> dict[str, Any]:
        done: dict[str, Any] = self.ok(self.plot.lead, "POST", f"{self.path}/draft", {"edits": edits})
        self.assertEqual(list(differences()), [])
        return done

    def settings(self, pocket: int, **other: Any) -> dict[str, Any]:
        found = [of for one in self.template()["sections"] for of in one["pockets"] if of["id"] == pocket]
        return {**found[0], **other}

    def change(self, pocket: int, **other: Any) -> dict[str, Any]:
        return {"do": "change_pocket", "pocket": pocket, "settings": self.settings(pocket, **other)}

    def several(self) -> list[dict[str, Any]]:
        """One of nearly everything."""
        first = Section.objects.get(template=self.plot.template).pk
        return [
            {"do": "rename_section", "section": first, "title": "Me and my plot"},
            {"do": "add_section", "id": -1, "title": "The kitchen"},
            {"do": "add_pocket", "id": -2, "section": -1, "text": "Menu: page, 50–100 words"},
            {"do": "add_pocket", "id": -3, "section": -1, "text": "Tasting", "kind": "links"},
            self.change(self.soil.pk, title="Soil test, twice", artefacts=3),
            {"do": "move_pocket", "pocket": self.about.pk, "section": -1, "before": -3},
            {"do": "move_section", "section": -1, "before": first},
            {"do": "remove_pocket", "pocket": -3},
            {"do": "add_section", "id": -4, "title": "Unit", "repeats": True},
            {"do": "add_pocket", "id": -5, "section": -4, "text": "Question", "kind": "page"},
            {"do": "set_units", "section": -4, "units": {"units": [{"key": "a", "title": "Soil"}]}},
        ]


class Looking(Drafts):
    def test_the_template_as_it_would_stand_and_what_it_means_and_nothing_is_written(self) -> None:
        before, events = self.template(), Event.objects.count()
        found = self.look(self.several(), -2)
        self.assertEqual(found["hindrances"], [])
        self.assertEqual(
            self.outline(found["template"]),
            [
                ("The kitchen", ["Menu", "About me"]),
                ("Me and my plot", ["Soil test, twice"]),
                ("Unit", ["Question"]),
                ("Soil", ["Question"]),
            ],
        )
        kitchen, _, unit, soil = found["template"]["sections"]
        self.assertEqual((kitchen["id"], kitchen["pockets"][0]["id"], unit["id"], soil["of"]), (-1, -2, -4, -4))
        self.assertLess(soil["id"], -1_000_000 + 1, "what follows has an id of its own")
        means = found["means"]
        self.assertEqual(
            [means[name] for name in ("added", "changed", "retired", "removed")],
            [["Menu", "Question", "Question"], ["Soil test, twice"], [], []],
        )
        # One more artefact with its reflection; the pages Menu and the unit's Question.
        self.assertEqual((means["students"], means["reached"], means["units"]), (1, 1, 4))
        self.assertEqual((found["pocket"]["id"], len(found["pocket"]["chips"])), (-2, 1))
        self.assertEqual((self.template(), Event.objects.count()), (before, events))

    def test_of_nothing_it_tells_of_the_open_pocket_alone(self) -> None:
        found = self.look([], self.soil.pk)
        self.assertIsNone(found["means"])
        self.assertEqual(found["template"], self.template())
        told = self.ok(
            self.plot.lead, "POST", f"{self.path}/pockets/{self.soil.pk}/preview", self.settings(self.soil.pk)
        )
        self.assertEqual(found["pocket"]["chips"], told["chips"])
        self.assertIsNone(self.look([], -7)["pocket"])

    def test_what_it_means_is_what_each_change_alone_would_have_said(self) -> None:
        builders.fill(self.thandi, self.soil)
        other = self.settings(self.soil.pk, artefacts=4, reflection_on_each=True)
        alone = self.ok(self.plot.lead, "POST", f"{self.path}/pockets/{self.soil.pk}/preview", other)
        found = self.look([{"do": "change_pocket", "pocket": self.soil.pk, "settings": other}], self.soil.pk)
        for name in ("students", "reached", "units", "opened", "filled", "to_open", "to_filled"):
            self.assertEqual(found["means"][name], alone[name], name)
        self.assertEqual(found["pocket"]["chips"], alone["chips"])

    def test_versions_as_they_would_be_dealt(self) -> None:
        self.plot.student("josh", "Josh", "Ellery")
        versions = {
            "by": "surname",
            "versions": [{"key": "a", "first": "A", "last": "K"}, {"key": "b", "first": "L", "last": "Z"}],
        }
        edits = [self.change(self.soil.pk, variants=versions)]
        alone = self.ok(self.plot.lead, "POST", f"{self.path}/pockets/{self.soil.pk}/preview", edits[0]["settings"])
        self.assertEqual(self.look(edits, self.soil.pk)["pocket"]["versions"], alone["versions"])
        gap = {**versions, "versions": versions["versions"][:1]}
        found = self.look([self.change(self.soil.pk, variants=gap)], self.soil.pk)
        self.assertEqual([one["edit"] for one in found["hindrances"]], [0])

    def test_what_cannot_be_made_is_left_out_and_named_and_the_rest_stands(self) -> None:
        builders.fill(self.thandi, self.soil)
        found = self.look(
            [
                {"do": "add_section", "id": -1, "title": "  "},
                {"do": "add_pocket", "id": -2, "section": -1, "text": "Menu"},
                {"do": "remove_pocket", "pocket": self.soil.pk},
                self.change(self.soil.pk, kind="page"),
                self.change(self.about.pk, title=""),
                {"do": "remove_section", "section": 999_999},
                {"do": "bring_back", "taken_away": 999_999},
                {"do": "add_section", "id": -3, "title": "The kitchen"},
                {"do": "add_section", "id": -3, "title": "The shed"},
                {"do": "add_pocket", "id": -4, "section": -3, "text": "One\nTwo"},
                {"do": "set_units", "section": -3, "units": {"units": [{"key": "a", "title": "Soil"}]}},
            ]
        )
        self.assertEqual([one["edit"] for one in found["hindrances"]], [0, 1, 2, 3, 4, 5, 6, 8, 9, 10])
        self.assertTrue(all(one["what"] and one["fix"] for one in found["hindrances"]))
        self.assertEqual(self.outline(found["template"])[-1], ("The kitchen", []))
        self.assertEqual(found["means"]["added"], [])


class Keeping(Drafts):
    def kept(self, person: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ok(person, "GET", f"{self.path}/draft")
        return found

    def test_a_draft_is_one_persons_on_every_device_and_others_are_told_that_there_is_one(self) -> None:
        edits = self.several()
        self.assertEqual(self.kept(self.plot.lead), {"edits": [], "device": "", "others": []})
        self.look(edits)
        self.assertEqual(self.kept(self.plot.lead)["edits"], [], "looked at only")
        for device, of in (("desk", edits[:2]), ("sofa", edits)):
            body = {"edits": of, "device": device}
            self.ok(self.plot.lead, "POST", f"{self.path}/draft/look", body)
        found = self.kept(self.plot.lead)
        self.assertEqual((found["device"], len(found["edits"]), found["others"]), ("sofa", len(edits), []))
        self.assertEqual(self.look(found["edits"])["template"], self.look(edits)["template"])
        co = self.plot.staff("co", Role.CO_TEACHER)
        told = self.kept(co)
        self.assertEqual((told["edits"], [one["changes"] for one in told["others"]]), ([], [len(edits)]))
        self.ok(co, "POST", f"{self.path}/draft", {"edits": []})
        self.assertEqual(len(self.kept(self.plot.lead)["edits"]), len(edits), "what somebody else saves is theirs")
        done = self.save(edits)
        self.assertEqual(self.kept(self.plot.lead)["edits"], [])
        self.assertEqual(self.kept(co)["others"], [])
        other = [{"do": "add_section", "id": -9, "title": "Summer"}]
        self.ok(self.plot.lead, "POST", f"{self.path}/draft/look", {"edits": other, "device": "sofa"})
        self.ok(self.plot.lead, "POST", f"{self.path}/draft", {"edits": done["undo"], "undoes": True})
        self.assertEqual(len(self.kept(self.plot.lead)["edits"]), 1, "an undo takes nothing from what is drafted since")


class Saving(Drafts):
    def test_one_deed_one_undo(self) -> None:
        before, edits = self.template(), self.several()
        shown = self.look(edits)
        done = self.save(edits)
        self.assertEqual(self.outline(self.template()), self.outline(shown["template"]))
        self.assertEqual(done["students"], 1)
        self.assertEqual(Pocket.objects.get(pk=done["made"]["pockets"]["-2"]).title, "Menu")
        self.assertEqual(Section.objects.get(pk=done["made"]["sections"]["-1"]).title, "The kitchen")
        mine = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")
        self.assertIn("Menu", [one["title"] for one in mine["pockets"]])
        self.save(done["undo"])
        after = self.template()
        self.assertEqual(self.outline(after), self.outline(before))

        def plain(template: dict[str, Any]) -> list[dict[str, Any]]:
            return [{**of, "version": 0} for one in template["sections"] for of in one["pockets"]]

        self.assertEqual(plain(after), plain(before))

    def test_retired_and_brought_back_and_units_as_they_were(self) -> None:
        builders.fill(self.thandi, self.soil)
        unit = [
            {"do": "add_section", "id": -1, "title": "Unit", "repeats": True},
            {"do": "add_pocket", "id": -2, "section": -1, "text": "Question", "kind": "page"},
            {"do": "set_units", "section": -1, "units": {"units": [{"key": "a", "title": "Soil"}]}},
        ]
        pattern = self.save(unit)["made"]["sections"]["-1"]
        version = Section.objects.get(pk=pattern).version
        changed = [
            {"do": "retire_pocket", "pocket": self.soil.pk, "retired": True},
            self.change(self.soil.pk, title="Soil", artefacts=3),
            {"do": "set_units", "section": pattern, "units": {"units": [], "version": version}},
        ]
        before = self.outline(self.template())
        found = self.look(changed)
        self.assertEqual(found["hindrances"], [], "a draft's own changes do not overtake each other")
        self.assertEqual((found["means"]["retired"], found["means"]["removed"]), (["Soil"], ["Question"]))
        done = self.save(changed)
        self.assertIsNotNone(Pocket.objects.get(pk=self.soil.pk).retired_at)
        self.save(done["undo"])
        self.assertEqual(self.outline(self.template()), before)

    def test_dealt_by_hand_comes_back_as_it_was_dealt(self) -> None:
        josh = self.plot.student("josh", "Josh", "Ellery").enrolment_id
        thandi = self.thandi.enrolment_id
        versions = {"by": "hand", "versions": [{"key": "a"}, {"key": "b"}]}
        self.save([self.change(self.soil.pk, variants=versions, hand={josh: "b", thandi: "a"})])
        done = self.save([self.change(self.soil.pk, variants=versions, hand={josh: "a", thandi: "b"})])
        self.save(done["undo"])
        self.assertEqual(dict(self.soil.deals.values_list("enrolment_id", "key")), {josh: "b", thandi: "a"})

    def test_a_saving_that_is_sent_again_is_done_once(self) -> None:
        body = {"edits": [{"do": "add_section", "id": -1, "title": "Spring"}], "key": "one"}
        first = self.ok(self.plot.lead, "POST", f"{self.path}/draft", body)
        self.assertEqual(self.ok(self.plot.lead, "POST", f"{self.path}/draft", body), first)
        self.assertEqual(Section.objects.filter(title="Spring").count(), 1)
        self.ok(self.plot.lead, "POST", f"{self.path}/draft", {**body, "key": "two"})
        self.assertEqual(Section.objects.filter(title="Spring").count(), 2)

    def test_where_one_cannot_be_made_none_is_and_it_is_named(self) -> None:
        before = self.template()
        edits = [*self.several(), {"do": "remove_section", "section": -1}]
        told = self.problem(422, self.plot.lead, "POST", f"{self.path}/draft", {"edits": edits})
        self.assertEqual(told["edit"], len(edits) - 1)
        self.assertEqual(self.template(), before)

    def test_two_drafts_meet_and_nothing_of_the_first_is_written_over(self) -> None:
        mine = [self.change(self.soil.pk, artefacts=5), {"do": "add_section", "id": -1, "title": "Spring"}]
        self.save([self.change(self.soil.pk, title="Soil of the plot")])
        found = self.look(mine)
        self.assertEqual([(one["edit"], one["version"]) for one in found["hindrances"]], [(0, 2)])
        self.assertIn("somebody else", found["hindrances"][0]["what"])
        self.assertEqual(self.outline(found["template"])[-1][0], "Spring")
        self.problem(409, self.plot.lead, "POST", f"{self.path}/draft", {"edits": mine})
        # Said that mine shall stand: over the version that is there now.
        mine[0]["settings"]["version"] = found["hindrances"][0]["version"]
        self.save(mine)
        self.assertEqual(Pocket.objects.get(pk=self.soil.pk).artefacts, 5)

    def test_an_undo_that_came_too_late_changes_nothing(self) -> None:
        done = self.save([self.change(self.soil.pk, artefacts=5)])
        self.save([self.change(self.soil.pk, artefacts=4)])
        self.problem(409, self.plot.lead, "POST", f"{self.path}/draft", {"edits": done["undo"]})
        added = self.save([{"do": "add_pocket", "id": -1, "section": self.soil.section_id, "text": "Menu"}])
        menu = Pocket.objects.get(title="Menu")
        builders.fill(self.thandi, menu)
        told = self.problem(422, self.plot.lead, "POST", f"{self.path}/draft", {"edits": added["undo"]})
        self.assertIn("Menu", told["title"])

    def test_a_hand_in_that_follows_collects_what_a_draft_added_once_it_is_saved(self) -> None:
        section = Section.objects.get(template=self.plot.template)
        handin = self.plot.handin(self.soil)
        handin.follows = True
        handin.save()
        handin.sections.add(section)
        edits = [{"do": "add_pocket", "id": -1, "section": section.pk, "text": "Menu"}]
        self.look(edits)
        self.assertEqual(handin.pockets.count(), 1)
        self.save(edits)
        self.assertIn("Menu", handin.pockets.values_list("title", flat=True))

    def test_junk_is_refused_and_said(self) -> None:
        for edit in (
            {"do": "no_such_thing"},
            {"do": "add_section", "id": 4, "title": "Positive"},
            {"do": "change_pocket", "pocket": self.soil.pk, "settings": {"title": "No kind"}},
            {"title": "nothing to do"},
        ):
            with self.subTest(edit):
                self.problem(422, self.plot.lead, "POST", f"{self.path}/draft/look", {"edits": [edit]})
        many = [{"do": "remove_section", "section": 1}] * 401
        self.problem(422, self.plot.lead, "POST", f"{self.path}/draft", {"edits": many})
