"""Pockets and log columns in the cupboard: put in from a template, read and copied, laid into a template."""

from __future__ import annotations

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.cupboard.models import CupboardItem
from coatpeg.outlines.models import GivenFile, Pocket
from coatpeg.portfolios.models import Evidence
from tests.api.test_cupboard import CupboardCase

COLUMNS = [
    {"key": "day", "title": "Day", "type": "date"},
    {"key": "height", "title": "Height", "type": "number", "unit": "cm"},
]


class Layouts(CupboardCase):
    def setUp(self) -> None:
        super().setUp()
        self.log.log = {"columns": COLUMNS, "order": "", "newest_first": False, "target": None}
        self.log.save()
        self.card.directions = "<p>Cook it once before you write.</p>"
        self.card.save()
        sheet = SimpleUploadedFile("tasting card.txt", b"What do you taste first?")
        path = f"/api{self.group}/template/pockets/{self.card.pk}/files"
        self.client_of(self.plot.lead).post(path, {"file": sheet, "role": "starter", "version": ""})

    def into(self, pocket: Pocket, *, columns: bool = False) -> Any:
        body = {"pocket": pocket.pk, "columns": columns}
        return self.ok(self.plot.lead, "POST", f"{self.group}/template/cupboard", body)

    def show(self, item: Any) -> Any:
        return self.change(item, staff_only=False)

    def fetched(self, item: Any) -> Any:
        return self.ok(self.plot.lead, "POST", f"{self.group}/template/cupboard/{item['id']}")

    def test_a_pocket_goes_in_as_it_is_and_is_laid_out_again_with_its_file(self) -> None:
        item = self.into(self.card)
        self.assertEqual((item["kind"], item["title"], item["staff_only"]), ("pocket", "Recipe card", True))
        self.assertEqual(self.seen(self.book), [], "staff show it first")
        found = self.fetched(item)
        self.assertEqual([(one["title"], one["role"]) for one in found["files"]], [("tasting card.txt", "starter")])
        settings = found["settings"]
        self.assertEqual((settings["directions"], settings["artefacts"]), (self.card.directions, 2))
        edits = [
            {"do": "add_pocket", "id": -1, "section": self.plot.section.pk, "text": "Recipe card", "kind": "evidence"},
            {"do": "change_pocket", "pocket": -1, "settings": {**settings, "version": 0}},
            {"do": "give_file", "pocket": -1, "file": found["files"][0]["id"]},
        ]
        body = {"edits": edits, "undoes": False, "key": "laid"}
        done = self.ok(self.plot.lead, "POST", f"{self.group}/template/draft", body)
        laid = Pocket.objects.get(pk=done["made"]["pockets"]["-1"])
        self.assertEqual((laid.title, laid.directions, laid.artefacts), ("Recipe card", self.card.directions, 2))
        first, second = GivenFile.objects.filter(removed_at=None).order_by("pk")
        self.assertEqual((second.pocket_id, second.stored_id), (laid.pk, first.stored_id), "no bytes are copied")

    def test_columns_of_a_log_are_a_table_to_students(self) -> None:
        item = self.show(self.into(self.log, columns=True))
        self.assertEqual((item["kind"], self.seen(self.book)), ("log", ["Crop log"]))
        found = self.fetched(item)
        self.assertEqual([one["title"] for one in found["settings"]["log"]["columns"]], ["Day", "Height"])
        self.assertEqual((found["settings"]["kind"], found["files"]), ("log", []))
        self.take(item)
        (lying,) = Evidence.objects.filter(portfolio=self.book, pocket=self.card, removed_at=None)
        assert lying.artefact is not None
        html = lying.artefact.written_text.html
        self.assertIn("Height (cm)", html)
        self.assertEqual((html.count("<th>"), html.count("<tr>")), (2, 6))

    def test_a_page_takes_a_whole_pocket_as_its_words(self) -> None:
        item = self.show(self.into(self.about))
        other = self.plot.pocket("Plan", "page")
        self.take(item, other)
        self.assertIn("I like", Evidence.objects.get(portfolio=self.book, pocket=other).text)

    def test_put_in_once_more_it_takes_the_place_and_copies_follow(self) -> None:
        item = self.show(self.into(self.card))
        self.take(item)
        self.card.directions = "<p>Cook it twice before you write.</p>"
        self.card.save()
        again = self.into(self.card)
        self.assertEqual((again["id"], again["staff_only"], again["new"]), (item["id"], False, False))
        (lying,) = Evidence.objects.filter(portfolio=self.book, pocket=self.card, removed_at=None)
        assert lying.artefact is not None
        self.assertIn("twice", lying.artefact.written_text.text)
        self.assertEqual(self.into(self.card)["version"], again["version"], "nothing new is no change")
        self.assertEqual(CupboardItem.objects.count(), 1)
        self.assertNotEqual(self.into(self.log)["id"], self.into(self.log, columns=True)["id"])

    def test_who_sees_it_is_changed_and_what_is_in_it_stays(self) -> None:
        item = self.into(self.card)
        changed = self.change(item, title="Recipe card of spring", html="", heading="Week 3")
        kept = CupboardItem.objects.get(pk=changed["id"])
        self.assertIn("Cook it once", kept.html)
        self.assertEqual(self.fetched(changed)["settings"]["title"], "Recipe card of spring")

    def test_what_is_none_says_so(self) -> None:
        body = {"pocket": self.card.pk, "columns": True}
        self.problem(422, self.plot.lead, "POST", f"{self.group}/template/cupboard", body)
        page = self.put_in()
        problem = self.problem(422, self.plot.lead, "POST", f"{self.group}/template/cupboard/{page['id']}")
        self.assertIn("directions", problem["fix"])
        body = {"pocket": self.card.pk + 1_000}
        self.problem(404, self.plot.lead, "POST", f"{self.group}/template/cupboard", body)
