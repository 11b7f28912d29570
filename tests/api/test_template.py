"""The template of a running class: changed any day, for everybody at once, without touching what students wrote."""

from typing import Any
from unittest import mock

from coatpeg.handins.board.situation import Situation, situation
from coatpeg.outlines.models import Pocket, Section
from coatpeg.portfolios.models import Evidence
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class TemplateCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.about = self.plot.pocket("About me", "page", starter="I am …")
        self.thandi = self.plot.student("thandi")
        self.josh = self.plot.student("josh", "Josh", "Ellery")
        self.path = f"/groups/{self.plot.group.pk}/template"

    def lead(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.plot.lead, method, f"{self.path}{path}", body)

    def refused(self, status: int, method: str, path: str, body: Any = None) -> dict[str, Any]:
        return self.problem(status, self.plot.lead, method, f"{self.path}{path}", body)

    def settings(self, pocket: Pocket, **changes: Any) -> dict[str, Any]:
        laid = next(one for one in self.pockets() if one["id"] == pocket.pk)
        return {
            **{name: laid[name] for name in laid if name not in ("id", "retired", "with_work", "handins")},
            **changes,
        }

    def pockets(self) -> list[dict[str, Any]]:
        return [pocket for section in self.lead("GET", "")["sections"] for pocket in section["pockets"]]

    def board(self) -> list[tuple[int, int]]:
        rows = self.pegs(self.plot.lead, self.plot.group.pk)["students"]
        return [(row["met"], row["wanted"]) for row in rows]


class Changing(TemplateCase):
    def test_what_it_would_mean_and_then_for_everybody_at_once(self) -> None:
        builders.fill(self.thandi, self.card)
        builders.fill(self.thandi, self.card)
        self.assertEqual(self.board(), [(4, 5), (0, 5)])
        body = self.settings(self.card, artefacts=3)
        means = self.lead("POST", f"/pockets/{self.card.pk}/preview", body)
        self.assertEqual(
            (means["students"], means["reached"], means["units"], means["to_open"]), (2, 2, 2, ["Dube, Thandi"])
        )
        self.assertEqual(
            [chip["what"] for chip in means["chips"]], ["artefacts", "reflection", "reflection", "reflection"]
        )
        self.assertEqual(self.board(), [(4, 5), (0, 5)], "a preview changes nothing")
        done = self.lead("PUT", f"/pockets/{self.card.pk}", body)
        self.assertEqual((done["version"], done["impact"]["opened"]), (2, 1))
        self.assertEqual(self.board(), [(4, 7), (0, 7)])
        self.assertEqual(Evidence.objects.filter(text="One thing. Another thing.").count(), 2)

    def test_work_that_is_handed_in_keeps_what_was_wanted_then(self) -> None:
        handin = self.plot.handin(self.card)
        builders.fill(self.thandi, self.card)
        builders.fill(self.thandi, self.card)
        builders.mark(self.plot.lead, builders.hand_in(self.thandi, handin))
        means = self.lead("POST", f"/pockets/{self.card.pk}/preview", self.settings(self.card, artefacts=5))
        self.assertEqual((means["reached"], means["to_open"]), (1, []))
        self.lead("PUT", f"/pockets/{self.card.pk}", self.settings(self.card, artefacts=5))
        self.assertEqual(self.board(), [(4, 5), (0, 11)])

    def test_an_adjustment_is_honoured_by_what_a_change_means(self) -> None:
        adjustment = builders.adjust(self.thandi, 0)
        adjustment.fewer_artefacts = 1
        adjustment.save()
        builders.fill(self.thandi, self.card)
        means = self.lead("POST", f"/pockets/{self.card.pk}/preview", self.settings(self.card, artefacts=3))
        self.assertEqual((means["to_open"], means["units"]), (["Dube, Thandi"], 2))

    def test_a_pocket_that_goes_while_it_is_looked_at_is_told(self) -> None:
        body = self.settings(self.card, artefacts=3)

        def gone(*args: Any, **more: Any) -> Situation:
            Pocket.objects.filter(pk=self.card.pk).delete()
            return situation(*args, **more)

        with mock.patch("coatpeg.setup.template.changing.situation", gone):
            told = self.refused(404, "POST", f"/pockets/{self.card.pk}/preview", body)
        self.assertIn("not in the template any more", told["title"])

    def test_two_who_change_the_same_pocket(self) -> None:
        old = self.settings(self.card, title="Recipe")
        self.lead("PUT", f"/pockets/{self.card.pk}", self.settings(self.card, title="Recipe card of ours"))
        problem = self.refused(409, "PUT", f"/pockets/{self.card.pk}", old)
        self.assertIn("Recipe card of ours", problem["title"])
        self.assertEqual(problem["version"], 2)

    def test_another_kind_is_refused_once_there_is_work(self) -> None:
        self.lead("PUT", f"/pockets/{self.card.pk}", self.settings(self.card, kind="links"))
        self.lead("PUT", f"/pockets/{self.card.pk}", self.settings(self.card, kind="evidence"))
        builders.fill(self.thandi, self.card)
        problem = self.refused(422, "PUT", f"/pockets/{self.card.pk}", self.settings(self.card, kind="page"))
        self.assertEqual(problem["where"], "kind")

    def test_an_old_starter_never_becomes_work_and_a_new_one_is_none(self) -> None:
        def write(portfolio: Any, text: str) -> None:
            builders.commands.write_page(portfolio.enrolment.person, portfolio.pk, self.about.pk, text, 0, NOW)

        write(self.thandi, "I am …")
        write(self.josh, "I am Josh.")
        self.assertEqual([one["with_work"] for one in self.pockets()], [0, 1])
        self.lead("PUT", f"/pockets/{self.about.pk}", self.settings(self.about, starter="I am Josh."))
        self.assertEqual([one["with_work"] for one in self.pockets()], [0, 0])
        self.assertEqual(list(differences()), [])

    def test_a_starter_is_rich_and_only_its_words_tell_work_from_it(self) -> None:
        table = "<table><tbody><tr><th>Bed</th><th>Crop</th></tr><tr><td>A</td><td></td></tr></tbody></table>"
        given = f'<h2>My beds</h2>{table}<img src="https://x.example/a.png"><script>x()</script>'
        self.lead("PUT", f"/pockets/{self.about.pk}", self.settings(self.about, starter=given))
        person, path = self.thandi.enrolment.person, f"/portfolios/{self.thandi.pk}/pockets/{self.about.pk}"
        starter = self.ok(person, "GET", path)["starter"]
        self.assertEqual(starter, f"<h2>My beds</h2>{table}", "neither pictures of elsewhere nor scripts")
        # As the editor gives it back: paragraphs in the cells, a word in bold.
        laid = starter.replace("<td>A</td>", "<td><p><strong>A</strong></p></td>")
        saved = self.ok(person, "PUT", f"{path}/page", {"text": "", "html": laid, "version": 0})
        self.assertEqual([one["with_work"] for one in self.pockets()], [0, 0])
        begun = laid.replace("<td></td>", "<td>Chard</td>")
        self.ok(person, "PUT", f"{path}/page", {"text": "", "html": begun, "version": saved["version"]})
        self.assertEqual([one["with_work"] for one in self.pockets()], [0, 1])
        # What is the new starter word for word was nobody's work.
        self.lead("PUT", f"/pockets/{self.about.pk}", self.settings(self.about, starter=begun))
        self.assertEqual([one["with_work"] for one in self.pockets()], [0, 0])
        self.assertEqual(list(differences()), [])

    def test_a_pocket_can_be_kept_to_kinds_of_artefact(self) -> None:
        self.lead("PUT", f"/pockets/{self.card.pk}", self.settings(self.card, takes=["picture"]))
        person = self.thandi.enrolment.person
        path = f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}/links"
        problem = self.problem(422, person, "POST", path, {"link": "https://recipes.example/soup"})
        self.assertIn("takes pictures only", problem["title"])
        builders.add_picture(self.thandi, Pocket.objects.get(pk=self.card.pk))

    def test_what_cannot_be_taken_names_the_field(self) -> None:
        for where, changes in {
            "title": {"title": " "},
            "artefacts": {"artefacts": 99},
            "most": {"least": 5, "most": 2},
        }.items():
            problem = self.refused(422, "PUT", f"/pockets/{self.card.pk}", self.settings(self.card, **changes))
            self.assertEqual(problem["where"], where)

    def test_in_a_number_of_statements_that_does_not_grow_with_the_class(self) -> None:
        client = self.client_of(self.plot.lead)
        path = f"/api{self.path}/pockets/{self.card.pk}"
        client.put(path, self.settings(self.card, prompt="Why?"), content_type="application/json")
        body = self.settings(self.card, artefacts=3)
        with self.assertNumQueries(24):
            client.put(path, body, content_type="application/json")
        for number in range(30):
            self.plot.student(None, f"S{number}", "Blom")
        body = self.settings(self.card, artefacts=2)
        with self.assertNumQueries(24):
            client.put(path, body, content_type="application/json")


class LayingOut(TemplateCase):
    def order(self) -> list[tuple[str, list[str]]]:
        sections = self.lead("GET", "")["sections"]
        return [(one["title"], [pocket["title"] for pocket in one["pockets"]]) for one in sections]

    def test_sections_and_pockets_are_added_renamed_and_moved(self) -> None:
        shed = self.lead("POST", "/sections", {"title": " The  shed "})["id"]
        tools = self.lead("POST", f"/sections/{shed}/pockets", {"title": "Tools", "kind": "page"})["id"]
        self.lead("POST", f"/pockets/{self.card.pk}/move", {"section": shed, "before": tools})
        self.assertEqual(self.order(), [("The kitchen", ["About me"]), ("The shed", ["Recipe card", "Tools"])])
        self.lead("POST", f"/sections/{shed}/move", {"before": self.plot.section.pk})
        self.lead("PUT", f"/sections/{shed}", {"title": "The garden shed"})
        self.assertEqual(self.order()[0][0], "The garden shed")
        pockets = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")["pockets"]
        self.assertEqual(
            [one["title"] for one in pockets], ["Recipe card", "Tools", "About me"], "in every portfolio at once"
        )

    def test_only_an_empty_section_goes(self) -> None:
        self.refused(422, "DELETE", f"/sections/{self.plot.section.pk}")
        spare = self.lead("POST", "/sections", {"title": "Spare"})["id"]
        self.lead("DELETE", f"/sections/{spare}")
        self.assertFalse(Section.objects.filter(pk=spare).exists())
        self.refused(422, "POST", "/sections", {"title": " "})
        self.refused(404, "PUT", f"/sections/{spare}", {"title": "Gone"})
        self.refused(404, "POST", f"/pockets/{self.card.pk}/move", {"section": self.plot.section.pk, "before": 99999})

    def test_a_pocket_with_work_is_retired_never_deleted(self) -> None:
        builders.fill(self.thandi, self.card)
        self.refused(422, "DELETE", f"/pockets/{self.card.pk}")
        self.lead("PUT", f"/pockets/{self.card.pk}/retired", {"retired": True})
        self.assertEqual(self.board(), [(0, 1), (0, 1)], "asked for no more")
        person = self.thandi.enrolment.person
        seen = self.ok(person, "GET", f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}")
        self.assertEqual((seen["retired"], seen["writable"], len(seen["evidence"])), (True, False, 1))
        self.assertTrue(
            self.ok(self.plot.lead, "GET", f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}")["evidence"]
        )
        self.problem(
            403, person, "PUT", f"/evidence/{seen['evidence'][0]['id']}/reflection", {"text": "More.", "version": 1}
        )
        others = self.ok(self.josh.enrolment.person, "GET", f"/portfolios/{self.josh.pk}")["pockets"]
        self.assertEqual([one["title"] for one in others], ["About me"])
        self.lead("PUT", f"/pockets/{self.card.pk}/retired", {"retired": False})
        self.assertEqual(self.board()[0], (2, 5))

    def test_a_pocket_that_a_hand_in_under_way_collects_alone_stays(self) -> None:
        handin = self.plot.handin(self.card)
        problem = self.refused(403, "PUT", f"/pockets/{self.card.pk}/retired", {"retired": True})
        self.assertIn("2 students still have to hand it in", problem["title"])
        for one in (self.thandi, self.josh):
            builders.fill(one, self.card)
            builders.mark(self.plot.lead, builders.hand_in(one, handin))
        self.lead("PUT", f"/pockets/{self.card.pk}/retired", {"retired": True})

    def test_an_unused_pocket_can_be_taken_away(self) -> None:
        spare = self.lead("POST", f"/sections/{self.plot.section.pk}/pockets", {"title": "Spare", "kind": "page"})["id"]
        self.lead("DELETE", f"/pockets/{spare}")
        self.assertFalse(Pocket.objects.filter(pk=spare).exists())
        self.plot.handin(self.about)
        self.refused(422, "DELETE", f"/pockets/{self.about.pk}")

    def test_a_caseload_has_no_template(self) -> None:
        caseload = klass("Caseload", "lindqvist", "caseload")
        caseload.template.delete()
        path = f"/groups/{caseload.group.pk}/template"
        self.assertFalse(self.ok(caseload.lead, "GET", path)["may_change"])
        self.problem(404, caseload.lead, "POST", f"{path}/sections", {"title": "Start"})
        body = self.settings(self.card)
        for method, of in (("POST", f"/pockets/{self.card.pk}/preview"), ("PUT", f"/pockets/{self.card.pk}")):
            self.problem(404, caseload.lead, method, f"{path}{of}", body)
