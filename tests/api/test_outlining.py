"""An outline typed or pasted into a running class: shown before, laid out as one, undone as one."""

from __future__ import annotations

from typing import Any

from coatpeg.outlines.models import Pocket, Section
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import klass

OUTLINE = """The plot
  Soil test: 1 photo, reflection 2–3 sentences
  Crop log: date, height (cm)
The kitchen
  Menu: page, 50–100 words
"""


class OutlineCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.thandi = self.plot.student("thandi")
        self.path = f"/groups/{self.plot.group.pk}/template"

    def lead(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.plot.lead, method, f"{self.path}{path}", body)

    def refused(self, status: int, path: str, body: Any) -> dict[str, Any]:
        return self.problem(status, self.plot.lead, "POST", f"{self.path}{path}", body)

    def laid(self) -> list[tuple[str, list[str]]]:
        found = self.lead("GET", "")["sections"]
        return [(one["title"], [of["title"] for of in one["pockets"]]) for one in found]

    def undo(self, made: dict[str, Any]) -> dict[str, Any]:
        return {"sections": made["sections"], "added": made["added"]}


class LayingOut(OutlineCase):
    def test_shown_first_and_then_in_every_portfolio_at_once(self) -> None:
        before = self.laid()
        found = self.lead("POST", "/outline/read", {"text": OUTLINE})
        self.assertEqual((found["pockets"], found["problems"]), (3, []))
        soil = found["sections"][0]["pockets"][0]["settings"]
        self.assertEqual((soil["artefacts"], soil["takes"], soil["least"], soil["most"]), (1, ["picture"], 2, 3))
        self.assertEqual(self.laid(), before, "what is shown is laid out nowhere")
        made = self.lead("POST", "/outline", {"text": OUTLINE})
        self.assertEqual((made["pockets"], len(made["sections"]), made["added"]), (3, 2, []))
        self.assertEqual(self.laid()[-2:], [("The plot", ["Soil test", "Crop log"]), ("The kitchen", ["Menu"])])
        mine = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")
        self.assertEqual([one["title"] for one in mine["pockets"]][-3:], ["Soil test", "Crop log", "Menu"])
        self.assertEqual([one["title"] for one in mine["sections"]][-2:], ["The plot", "The kitchen"])
        self.assertEqual(list(differences()), [])

    def test_an_empty_first_section_makes_room_and_comes_back_with_the_undo(self) -> None:
        Section.objects.filter(template=self.plot.template).update(title="Start")
        made = self.lead("POST", "/outline", {"text": OUTLINE})
        self.assertEqual([title for title, _ in self.laid()], ["The plot", "The kitchen"])
        self.lead("POST", "/brought/undo", self.undo(made))
        self.assertEqual(self.laid(), [("Start", [])])

    def test_a_line_goes_into_the_section_where_it_was_typed(self) -> None:
        kitchen = Section.objects.create(template=self.plot.template, title="The kitchen", position=7)
        made = self.lead("POST", "/outline", {"text": "Menu", "kind": "page", "section": kitchen.pk})
        self.assertEqual((made["sections"], Pocket.objects.get(pk=made["added"][0]).section), ([], kitchen))
        self.assertEqual(Pocket.objects.get(pk=made["added"][0]).kind, "page")
        self.lead("POST", "/brought/undo", self.undo(made))
        self.assertEqual(kitchen.pockets.count(), 0)

    def test_units_follow_what_is_typed_into_their_pattern(self) -> None:
        pattern = self.lead("POST", "/outline", {"text": "Unit (repeats)\n  Report: page"})["sections"][0]
        units = [{"key": "soil", "title": "Soil"}, {"key": "water", "title": "Water"}]
        version = Section.objects.get(pk=pattern).version
        self.lead("PUT", f"/sections/{pattern}/units", {"units": units, "version": version})
        made = self.lead("POST", "/outline", {"text": "Lab log: date, what", "section": pattern})
        self.assertEqual(self.laid()[-2:], [("Soil", ["Report", "Lab log"]), ("Water", ["Report", "Lab log"])])
        self.lead("POST", "/brought/undo", self.undo(made))
        self.assertEqual(self.laid()[-2:], [("Soil", ["Report"]), ("Water", ["Report"])])

    def test_nothing_is_undone_once_somebody_has_begun(self) -> None:
        made = self.lead("POST", "/outline", {"text": "The plot\n  Soil test"})
        pocket = Pocket.objects.get(section_id=made["sections"][0])
        builders.fill(self.thandi, pocket)
        told = self.refused(422, "/brought/undo", self.undo(made))
        self.assertIn("Somebody has begun in “Soil test”", told["title"])
        self.assertTrue(Pocket.objects.filter(pk=pocket.pk).exists())

    def test_of_two_that_were_laid_out_only_the_last_is_undone(self) -> None:
        first = self.lead("POST", "/outline", {"text": "A\n  One"})
        self.lead("POST", "/outline", {"text": "B\n  Two"})
        self.refused(409, "/brought/undo", self.undo(first))
        self.refused(409, "/brought/undo", {"sections": [], "added": []})

    def test_what_cannot_be_is_told_by_its_line_and_nothing_is_laid_out(self) -> None:
        before = self.laid()
        wide = "A\n  One\n  Log: log of " + ", ".join(f"c{at}" for at in range(60))
        told = self.refused(422, "/outline", {"text": wide})
        self.assertEqual((told["where"], told["title"]), ("Line 3", "A log has at most 20 columns."))
        many = self.lead("POST", "/outline/read", {"text": "A\n" + "  p\n" * 400})["problems"]
        self.assertEqual([one["what"] for one in many], ["The template would have 400 pockets; 200 is the most."])
        self.refused(422, "/outline", {"text": "A\n" + "  p\n" * 400})
        self.refused(422, "/outline", {"text": " \n "})
        self.refused(404, "/outline", {"text": "Soil", "section": 0})
        self.assertEqual(self.laid(), before)

    def test_what_would_be_marked_up_is_text(self) -> None:
        made = self.lead("POST", "/outline", {"text": "A\n  B: <script>alert(1)</script>"})
        pocket = Pocket.objects.get(section_id=made["sections"][0])
        self.assertNotIn("<script", pocket.directions)
        self.assertIn("alert(1)", pocket.directions)


class ReadingParts(OutlineCase):
    def test_headings_and_units_are_read_for_their_forms(self) -> None:
        columns = self.lead("POST", "/columns/read", {"text": "Date\tPages\tMood (good/bad)"})
        self.assertEqual([one["type"] for one in columns], ["date", "number", "choice"])
        self.refused(422, "/columns/read", {"text": ","})
        units = self.lead("POST", "/units/read", {"text": "Soil\t12 Oct\tWhat?\nWater"})
        self.assertEqual(units[0], {"title": "Soil", "opens": "12 Oct", "questions": ["What?"]})
        self.refused(422, "/units/read", {"text": "\n"})


class Sections(OutlineCase):
    def test_a_portfolio_says_how_far_each_section_is_and_where_something_waits(self) -> None:
        card = self.plot.pocket()
        builders.fill(self.thandi, card)
        self.lead("POST", "/outline", {"text": OUTLINE})
        before = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")
        first, *rest = before["sections"]
        self.assertEqual((first["title"], first["waits"]), (card.section.title, False))
        self.assertEqual(sum(one["met"] for one in before["sections"]), before["met"])
        self.assertEqual(sum(one["wanted"] for one in before["sections"]), before["wanted"])
        self.assertEqual([one["met"] for one in rest], [0, 0])
        self.plot.handin(card)
        after = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")
        self.assertEqual([one["waits"] for one in after["sections"]], [True, False, False])
