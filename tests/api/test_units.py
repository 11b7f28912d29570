"""Units: a pattern laid out for each, changed as one, and student work kept through everything."""

from typing import Any

from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket, Section, Unit
from coatpeg.portfolios.models import Evidence
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.test_template import TemplateCase
from tests.builders import klass

EACH = {"title": "Question", "kind": "evidence", "artefacts": 1, "each_question": True, "prompt": "{question}"}
SOIL = {"key": "soil", "title": "Soil", "questions": [{"key": "s1", "text": "What lives in it?"}]}
WATER = {
    "key": "water",
    "title": "Water",
    "opens": "2026-11-16",
    "questions": [{"key": "w1", "text": "Where does it go?"}, {"key": "w2", "text": "Who needs it?"}],
}


class UnitCase(TemplateCase):
    def setUp(self) -> None:
        super().setUp()
        self.pattern = self.lead("POST", "/sections", {"title": "Unit", "repeats": True})["id"]
        self.each = self.lead("POST", f"/sections/{self.pattern}/pockets", EACH)["id"]
        body = {"title": "{unit} in a word", "kind": "page", "starter": "{unit} is …"}
        self.word = self.lead("POST", f"/sections/{self.pattern}/pockets", body)["id"]

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def units(self, *units: dict[str, Any], version: int | None = None) -> dict[str, Any]:
        seen = version or Section.objects.get(pk=self.pattern).version
        return self.lead("PUT", f"/sections/{self.pattern}/units", {"units": units, "version": seen})

    def preview(self, *units: dict[str, Any]) -> dict[str, Any]:
        return self.lead("POST", f"/sections/{self.pattern}/units/preview", {"units": units})

    def mine(self) -> list[tuple[str, str]]:
        book = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")
        return [(one["section"], one["title"]) for one in book["pockets"] if one["section"] != "The kitchen"]

    def laid(self, title: str) -> Pocket:
        return Pocket.objects.get(title=title)


class LaidOut(UnitCase):
    def test_students_see_the_units_and_never_the_pattern(self) -> None:
        self.assertEqual(self.mine(), [])
        self.units(SOIL, WATER)
        self.assertEqual(
            self.mine(),
            [
                ("Soil", "What lives in it?"),
                ("Soil", "Soil in a word"),
                ("Water", "Where does it go?"),
                ("Water", "Who needs it?"),
                ("Water", "Water in a word"),
            ],
        )
        self.assertEqual(self.laid("Soil in a word").starter, "<p>Soil is …</p>")
        self.assertEqual(str(self.laid("Who needs it?").opens), "2026-11-16")
        person = self.thandi.enrolment.person
        body = {"link": "https://plants.example"}
        self.problem(404, person, "POST", f"/portfolios/{self.thandi.pk}/pockets/{self.each}/links", body)
        self.problem(404, person, "GET", f"/portfolios/{self.thandi.pk}/pockets/{self.each}")
        plan = {"title": "All", "pockets": [self.each], "opens": "2026-11-01", "due": {"day": "2026-11-20"}}
        self.problem(422, self.plot.lead, "POST", f"/groups/{self.plot.group.pk}/handins", plan)

    def test_what_it_would_mean_and_nothing_is_written(self) -> None:
        before = self.board()
        told = self.preview(SOIL, WATER)
        self.assertEqual((told["students"], told["reached"], told["units"]), (2, 2, 5))
        self.assertEqual(len(told["added"]), 5)
        self.assertEqual((self.board(), Unit.objects.count(), self.mine()), (before, 0, []))

    def test_changing_the_pattern_changes_every_unit(self) -> None:
        self.units(SOIL, WATER)
        builders.fill(self.thandi, self.laid("What lives in it?"))
        each = Pocket.objects.get(pk=self.each)
        body = self.settings(each, artefacts=2, prompt="{unit}?")
        told = self.lead("POST", f"/pockets/{self.each}/preview", body)
        self.assertEqual((told["reached"], told["units"]), (2, 3), "one artefact more for each of three questions")
        self.assertEqual(told["to_open"], [], "others were open before, together they stay so")
        self.lead("PUT", f"/pockets/{self.each}", body)
        self.assertEqual([self.laid(title).artefacts for title in ("What lives in it?", "Who needs it?")], [2, 2])
        self.assertEqual(self.laid("Who needs it?").prompt, "Water?")
        self.lead("POST", f"/sections/{self.pattern}/pockets", {"title": "Finds", "kind": "links"})
        self.assertEqual([one for one in self.mine() if one[1] == "Finds"], [("Soil", "Finds"), ("Water", "Finds")])
        self.lead("POST", f"/pockets/{self.word}/move", {"section": self.pattern, "before": self.each})
        self.assertEqual(self.mine()[0], ("Soil", "Soil in a word"))

    def test_a_starter_of_the_pattern_changes_and_what_still_reads_like_it_is_no_work(self) -> None:
        self.units(SOIL)
        page = self.laid("Soil in a word")
        path = f"/portfolios/{self.thandi.pk}/pockets/{page.pk}"
        self.ok(self.thandi.enrolment.person, "PUT", f"{path}/page", {"text": "For me soil is …", "version": 0})
        body = self.settings(Pocket.objects.get(pk=self.word), starter="For me soil is …")
        self.lead("PUT", f"/pockets/{self.word}", body)
        self.assertFalse(self.ok(self.thandi.enrolment.person, "GET", path)["met"])

    def test_a_question_in_other_words_keeps_its_work(self) -> None:
        self.units(SOIL)
        evidence = builders.fill(self.thandi, self.laid("What lives in it?"))
        self.units({**SOIL, "questions": [{"key": "s1", "text": "What lives down there?"}]})
        self.assertEqual(Evidence.objects.get().pocket.title, "What lives down there?")
        self.assertEqual(Evidence.objects.get().pk, evidence.pk)

    def test_what_goes_is_retired_with_its_work_and_comes_back_with_it(self) -> None:
        self.units(SOIL, WATER)
        builders.fill(self.thandi, self.laid("What lives in it?"))
        told = self.preview(WATER)
        self.assertEqual((told["retired"], told["removed"]), (["What lives in it?"], ["Soil in a word"]))
        self.units(WATER)
        self.assertIn(("Soil", "What lives in it?"), self.mine(), "still readable by its owner")
        self.assertEqual(Pocket.objects.filter(title="Soil in a word").count(), 0)
        self.units(SOIL, WATER)
        pocket = self.laid("What lives in it?")
        self.assertIsNone(pocket.retired_at)
        self.assertEqual(pocket.section.unit.key, "soil")
        self.assertEqual(
            [section.title for section in Section.objects.filter(template=self.plot.template)][1:],
            ["Unit", "Soil", "Water"],
        )

    def test_only_the_pattern_is_changed_by_hand(self) -> None:
        self.units(SOIL)
        pocket = self.laid("What lives in it?")
        soil = pocket.section_id
        said = self.refused(422, "PUT", f"/pockets/{pocket.pk}", self.settings(pocket, artefacts=5))
        self.assertIn("pattern", said["title"])
        self.refused(422, "PUT", f"/pockets/{pocket.pk}/retired", {"retired": True})
        self.refused(422, "DELETE", f"/pockets/{pocket.pk}")
        self.refused(422, "POST", f"/pockets/{pocket.pk}/move", {"section": self.plot.section.pk})
        self.refused(422, "POST", f"/pockets/{self.card.pk}/move", {"section": soil})
        self.refused(422, "POST", f"/pockets/{self.card.pk}/move", {"section": self.pattern})
        self.refused(422, "POST", f"/sections/{soil}/pockets", {"title": "x", "kind": "page"})
        self.refused(422, "PUT", f"/sections/{soil}", {"title": "x"})
        self.refused(422, "POST", f"/sections/{soil}/move", {})
        self.refused(422, "DELETE", f"/sections/{soil}")
        self.refused(422, "PUT", f"/sections/{self.plot.section.pk}/units", {"units": [SOIL], "version": 1})

    def test_two_people_at_once(self) -> None:
        self.units(SOIL)
        said = self.refused(409, "PUT", f"/sections/{self.pattern}/units", {"units": [WATER], "version": 1})
        self.assertEqual(said["version"], 2)

    def test_a_pattern_pocket_retired_brought_back_and_taken_away(self) -> None:
        self.units(SOIL)
        pocket = self.laid("What lives in it?")
        builders.fill(self.thandi, pocket)
        self.lead("PUT", f"/pockets/{self.each}/retired", {"retired": True})
        self.assertIsNotNone(Pocket.objects.get(pk=pocket.pk).retired_at)
        self.lead("PUT", f"/pockets/{self.each}/retired", {"retired": False})
        self.assertIsNone(Pocket.objects.get(pk=pocket.pk).retired_at)
        self.refused(422, "DELETE", f"/pockets/{self.each}")
        self.lead("DELETE", f"/pockets/{self.word}")
        self.assertEqual(self.mine(), [("Soil", "What lives in it?")])
        evidence = self.settings(Pocket.objects.get(pk=self.each), kind="page")
        self.refused(422, "PUT", f"/pockets/{self.each}", evidence)

    def test_a_unit_whose_pocket_is_all_that_a_hand_in_collects_stays(self) -> None:
        self.units(SOIL)
        self.plot.handin(self.laid("What lives in it?"), title="Soil")
        said = self.refused(403, "PUT", f"/sections/{self.pattern}/units", {"units": [], "version": 2})
        self.assertIn("Soil", said["title"])
        self.assertEqual(Unit.objects.count(), 1, "nothing was done")

    def test_units_stand_behind_their_pattern_wherever_it_goes(self) -> None:
        self.units(SOIL, WATER)
        self.units(WATER, SOIL)
        self.lead("POST", f"/sections/{self.pattern}/move", {"before": self.plot.section.pk})
        titles = [one["title"] for one in self.lead("GET", "")["sections"]]
        self.assertEqual(titles, ["Unit", "Water", "Soil", "The kitchen"])
        self.assertEqual(self.refused(422, "DELETE", f"/sections/{self.pattern}")["where"], "Unit")


class Copies(UnitCase):
    def test_published_adopted_and_carried_over_with_hand_ins_and_days(self) -> None:
        self.units(SOIL, WATER)
        self.plot.handin(self.laid("Who needs it?"), title="Water")
        self.lead("PUT", "/gallery", {"title": "Units"})
        forge = klass("9 Forge", "forge")
        gallery = self.ok(forge.lead, "GET", "/gallery")
        template = next(one["id"] for one in gallery if one["title"] == "Units")
        self.ok(forge.lead, "POST", f"/groups/{forge.group.pk}/template/adopt", {"template": template})
        ada = forge.student("ada", "Ada", "Blom")
        book = self.ok(ada.enrolment.person, "GET", f"/portfolios/{ada.pk}")
        self.assertEqual([one["section"] for one in book["pockets"] if one["title"] == "Who needs it?"], ["Water"])
        self.assertIsNone(
            Unit.objects.get(pattern__template=forge.template, key="water").opens, "a day of a class's own"
        )
        # Next week the gallery has a changed pattern: brought in, every unit follows.
        self.lead("PUT", f"/pockets/{self.each}", self.settings(Pocket.objects.get(pk=self.each), artefacts=3))
        self.lead("PUT", "/gallery", {"title": "Units"})
        state = self.ok(forge.lead, "GET", f"/groups/{forge.group.pk}/template/gallery")
        self.ok(forge.lead, "POST", f"/groups/{forge.group.pk}/template/news/bring", {"key": state["news"][0]["key"]})
        theirs = Pocket.objects.get(section__template=forge.template, title="Who needs it?")
        self.assertEqual(theirs.artefacts, 3)
        # Then it has another unit and another question; the class's own days stay.
        Unit.objects.filter(pattern__template=forge.template, key="water").update(opens="2026-12-01")
        asked = [*WATER["questions"], {"key": "w3", "text": "Who pays for it?"}]
        self.units(SOIL, {**WATER, "questions": asked}, {"key": "light", "title": "Light"})
        self.lead("PUT", "/gallery", {"title": "Units"})
        path = f"/groups/{forge.group.pk}/template"
        (news,) = self.ok(forge.lead, "GET", f"{path}/gallery")["news"]
        self.assertEqual((news["what"], news["title"], news["fields"]), ("changed", "Unit", ["units"]))
        self.ok(forge.lead, "POST", f"{path}/news/bring", {"key": news["key"]})
        titles = Section.objects.filter(template=forge.template).values_list("title", flat=True)
        self.assertEqual(list(titles)[-3:], ["Soil", "Water", "Light"])
        brought = Pocket.objects.get(section__template=forge.template, title="Who pays for it?")
        self.assertEqual(str(brought.opens), "2026-12-01")
        self.assertEqual(self.ok(forge.lead, "GET", f"{path}/gallery")["news"], [])
        bench = klass("7 Bench", "bench")
        builders.StaffRole.objects.create(group=self.plot.group, person=bench.lead, role="observer")
        body = {"source": self.plot.group.pk, "handins": True}
        self.assertEqual(
            self.ok(bench.lead, "POST", f"/groups/{bench.group.pk}/template/carry-over", body)["handins"], 1
        )
        carried = Pocket.objects.get(section__template=bench.template, title="Who needs it?")
        self.assertEqual(str(carried.opens), "2026-11-16")
        self.assertEqual(str(Unit.objects.get(pattern__template=bench.template, key="water").opens), "2026-11-16")
        self.assertEqual(HandIn.objects.get(group=bench.group).pockets.get(), carried)
