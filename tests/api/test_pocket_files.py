"""Rich directions, pictures and files beside them, starters of evidence."""

import json
from typing import Any
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.core.policy import Role
from coatpeg.outlines import given_files
from coatpeg.outlines.models import GivenFile, Pocket
from coatpeg.web.recheck import differences
from tests import builders, documents
from tests.api.test_template import TemplateCase
from tests.background import run_waiting
from tests.builders import jpeg, klass


class FileCase(TemplateCase):
    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def give(
        self,
        pocket: Pocket,
        name: str = "plan.jpg",
        data: bytes = b"",
        role: str = "directions",
        status: int = 201,
        version: str = "",
    ) -> Any:
        body = {"file": SimpleUploadedFile(name, data or jpeg()), "role": role, "version": version}
        answer = self.client_of(self.plot.lead).post(f"/api{self.path}/pockets/{pocket.pk}/files", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def opened(self, pocket: Pocket) -> Any:
        return self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}/pockets/{pocket.pk}")


class Directions(FileCase):
    def test_rich_text_is_cleaned_on_the_way_in(self) -> None:
        body = self.settings(
            self.card, directions='<p onclick="x()">Show <strong>both</strong> sides.</p><script>x()</script>'
        )
        self.lead("PUT", f"/pockets/{self.card.pk}", body)
        self.assertEqual(self.opened(self.card)["directions"], "<p>Show <strong>both</strong> sides.</p>")

    def test_a_units_name_is_no_markup(self) -> None:
        pattern = self.lead("POST", "/sections", {"title": "Unit", "repeats": True})["id"]
        self.lead(
            "POST", f"/sections/{pattern}/pockets", {"title": "Diary", "kind": "page", "directions": "About {unit}"}
        )
        units = [{"key": "u", "title": "<b>Salt & pepper</b>"}]
        self.lead("PUT", f"/sections/{pattern}/units", {"units": units, "version": 1})
        made = Pocket.objects.exclude(pattern=None).get()
        self.assertEqual(made.directions, "<p>About &lt;b&gt;Salt &amp; pepper&lt;/b&gt;</p>")
        self.lead("PUT", f"/sections/{pattern}/units", {"units": units, "version": 2})
        self.assertEqual(Pocket.objects.get(pk=made.pk).version, made.version, "laid out again it is the same")

    def test_a_picture_and_a_file_are_read_by_the_class_and_nobody_else(self) -> None:
        picture = self.give(self.card)
        sheet = self.give(self.card, "sheet.txt", b"name: ________")
        self.assertEqual([one["kind"] for one in self.opened(self.card)["files"]], ["picture", "file"])
        observer = self.plot.staff("look", Role.OBSERVER)
        for person in (self.thandi.enrolment.person, observer):
            client = self.client_of(person)
            self.assertEqual(client.get(f"/api/given-files/{picture['id']}/thumbnail")["Content-Type"], "image/jpeg")
            answer = client.get(f"/api/given-files/{sheet['id']}")
            self.assertEqual(
                (b"".join(answer.streaming_content), answer["Content-Type"]),
                (b"name: ________", "application/octet-stream"),
            )
        self.problem(404, self.thandi.enrolment.person, "GET", f"/given-files/{sheet['id']}/thumbnail")
        stranger = klass("9 Forge", "forge")
        for person in (stranger.lead, stranger.student("ada", "Ada", "Blom").enrolment.person):
            self.problem(404, person, "GET", f"/given-files/{picture['id']}")
        self.lead("DELETE", f"/files/{picture['id']}")
        self.assertEqual(len(self.opened(self.card)["files"]), 1)
        self.lead("POST", f"/files/{picture['id']}/restore")
        self.assertEqual(len(self.opened(self.card)["files"]), 2)

    def test_a_pattern_gives_its_files_to_every_unit(self) -> None:
        pattern = self.lead("POST", "/sections", {"title": "Unit", "repeats": True})["id"]
        diary = self.lead("POST", f"/sections/{pattern}/pockets", {"title": "Diary", "kind": "page"})["id"]
        self.lead("PUT", f"/sections/{pattern}/units", {"units": [{"key": "u", "title": "Soil"}], "version": 1})
        self.give(Pocket.objects.get(pk=diary))
        made = Pocket.objects.exclude(pattern=None).get()
        self.assertEqual(len(self.opened(made)["files"]), 1)
        self.give(made, status=422)

    def test_copies_have_them_too(self) -> None:
        self.give(self.card)
        self.give(self.card, "frame.odt", b"a frame to fill in", role="starter")
        self.lead("PUT", "/gallery", {"title": "Cards"})
        forge = klass("9 Forge", "forge")
        template = next(one["id"] for one in self.ok(forge.lead, "GET", "/gallery") if one["title"] == "Cards")
        self.ok(forge.lead, "POST", f"/groups/{forge.group.pk}/template/adopt", {"template": template})
        bench = klass("7 Bench", "bench")
        builders.StaffRole.objects.create(group=self.plot.group, person=bench.lead, role="observer")
        self.ok(bench.lead, "POST", f"/groups/{bench.group.pk}/template/carry-over", {"source": self.plot.group.pk})
        for group in (forge, bench):
            copied = Pocket.objects.get(section__template=group.template, title="Recipe card")
            self.assertEqual(list(copied.files.values_list("role", flat=True)), ["directions", "starter"])
            self.assertEqual(len(copied.starter_hashes), 2)

    def test_a_document_is_read_in_the_page(self) -> None:
        sheet = self.give(self.card, "sheet.pdf", documents.pdf(2))
        path, person = f"/given-files/{sheet['id']}/view", self.thandi.enrolment.person
        self.assertEqual(self.ok(person, "GET", path)["state"], "waiting")
        run_waiting()
        told = self.ok(person, "GET", path)
        self.assertEqual((told["state"], told["kind"], told["pages"]), ("done", "pages", 2))
        self.assertEqual(self.client_of(person).get(f"/api{path}/pages/2")["Content-Type"], "image/jpeg")
        self.problem(404, person, "GET", f"{path}/pages/3")
        table = self.give(self.card, "beds.csv", b"bed,crop\nA,chard\n")
        path = f"/given-files/{table['id']}/view"
        self.ok(person, "GET", path)
        run_waiting()
        found = self.ok(person, "GET", f"{path}/document")
        self.assertEqual(found["tables"][0]["rows"], [["bed", "crop"], ["A", "chard"]])

    def test_too_many_and_what_is_no_picture(self) -> None:
        for number in range(12):
            self.give(self.card, f"sheet{number}.txt", f"sheet {number}".encode())
        said = self.give(self.card, "one more.txt", b"more", status=422)
        self.assertIn("12 files", said["title"])
        self.give(self.about, "plan.jpg", b"no picture", status=422)
        self.give(self.about, version="x" * 37, status=422)
        self.assertEqual(GivenFile.objects.count(), 12)


class OfVersions(FileCase):
    """Two versions by surname: Thandi Dube has the north bed, Josh Ellery the south one."""

    def setUp(self) -> None:
        super().setUp()
        versions = [{"key": "n", "name": "North", "first": "A", "last": "D"}]
        versions.append({"key": "s", "name": "South", "first": "E", "last": "Z"})
        self.variants = {"by": "surname", "versions": versions}
        self.lead("PUT", f"/pockets/{self.card.pk}", self.settings(self.card, variants=self.variants))

    def files_of(self, portfolio: Any) -> list[str]:
        path = f"/portfolios/{portfolio.pk}/pockets/{self.card.pk}"
        return [one["title"] for one in self.ok(portfolio.enrolment.person, "GET", path)["files"]]

    def test_a_file_of_a_version_is_seen_by_whoever_has_it(self) -> None:
        self.give(self.card, "all.txt", b"for all")
        north = self.give(self.card, "north.txt", b"the north bed", version="n")
        self.give(self.card, "south.txt", b"the south bed", version="s")
        self.assertEqual(self.files_of(self.thandi), ["all.txt", "north.txt"])
        self.assertEqual(self.files_of(self.josh), ["all.txt", "south.txt"])
        self.problem(404, self.josh.enrolment.person, "GET", f"/given-files/{north['id']}/view")
        observer = self.plot.staff("look", Role.OBSERVER)
        for person in (self.thandi.enrolment.person, observer):
            self.ok(person, "GET", f"/given-files/{north['id']}/view")
        told = {one["title"]: one["version"] for one in self.pockets()[0]["files"]}
        self.assertEqual(told, {"all.txt": "", "north.txt": "n", "south.txt": "s"})

    def test_one_given_before_its_version_is_saved_waits_for_it(self) -> None:
        self.give(self.card, "east.txt", b"the east bed", version="e")
        self.assertEqual((self.files_of(self.thandi), self.files_of(self.josh)), ([], []))
        card = Pocket.objects.get(pk=self.card.pk)
        both = [{**self.variants["versions"][0], "key": "e"}, self.variants["versions"][1]]  # type: ignore[dict-item]
        self.lead(
            "PUT", f"/pockets/{card.pk}", self.settings(card, variants={"by": "surname", "versions": both}, hand=None)
        )
        self.assertEqual((self.files_of(self.thandi), self.files_of(self.josh)), (["east.txt"], []))

    def test_a_starter_of_a_version_is_copied_for_who_has_it(self) -> None:
        self.give(self.card, "north.odt", b"a frame of the north", role="starter", version="n")
        for portfolio, made in ((self.thandi, 1), (self.josh, 0)):
            path = f"/portfolios/{portfolio.pk}/pockets/{self.card.pk}"
            self.assertEqual(self.ok(portfolio.enrolment.person, "GET", path)["starters"], made)
            self.ok(portfolio.enrolment.person, "POST", f"{path}/starters")
            self.assertEqual(len(self.ok(portfolio.enrolment.person, "GET", path)["evidence"]), made)

    def test_a_copy_of_the_template_has_them_too(self) -> None:
        self.give(self.card, "north.txt", b"the north bed", version="n")
        bench = klass("7 Bench", "bench")
        builders.StaffRole.objects.create(group=self.plot.group, person=bench.lead, role="observer")
        self.ok(bench.lead, "POST", f"/groups/{bench.group.pk}/template/carry-over", {"source": self.plot.group.pk})
        copied = GivenFile.objects.get(pocket__section__template=bench.group.template)
        self.assertEqual((copied.title, copied.version), ("north.txt", "n"))


class Starters(FileCase):
    def put_in(self, data: bytes) -> None:
        body = {"file": SimpleUploadedFile("frame.odt", data), "title": "frame.odt"}
        path = f"/api/portfolios/{self.thandi.pk}/pockets/{self.card.pk}/files"
        self.assertEqual(self.client_of(self.thandi.enrolment.person).post(path, body).status_code, 200)

    def test_the_very_starter_is_no_work_and_a_changed_one_is(self) -> None:
        frame = self.give(self.card, "frame.odt", b"a frame to fill in", role="starter")
        self.put_in(b"a frame to fill in")
        self.assertEqual((self.opened(self.card)["met"], self.opened(self.card)["chips"][0]["done"]), (0, 0))
        task = self.plot.handin(self.card)
        said = self.problem(
            422,
            self.thandi.enrolment.person,
            "POST",
            f"/portfolios/{self.thandi.pk}/handins/{task.pk}/submissions",
            {"seen": 0},
        )
        self.assertIn("nothing of yours", json.dumps(said))
        self.put_in(b"a frame filled in")
        self.assertEqual(self.opened(self.card)["met"], 1)
        self.lead("DELETE", f"/files/{frame['id']}")
        self.assertEqual(self.opened(self.card)["met"], 1, "a starter that was taken away still is no work")

    def test_given_later_what_lies_there_already_is_judged_anew(self) -> None:
        self.put_in(b"a frame to fill in")
        self.assertEqual(self.opened(self.card)["met"], 1)
        self.give(self.card, "frame.odt", b"a frame to fill in", role="starter")
        self.assertEqual(self.opened(self.card)["met"], 0)

    def test_only_evidence_begins_with_a_file(self) -> None:
        self.give(self.about, role="starter", status=422)


class ForWhatIsDrafted(FileCase):
    """Files for a pocket that only a draft has yet."""

    def wait(self, name: str, data: bytes, role: str = "directions", status: int = 201, version: str = "") -> Any:
        body = {"file": SimpleUploadedFile(name, data), "role": role, "version": version}
        answer = self.client_of(self.plot.lead).post(f"/api{self.path}/files", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def draft(self, *files: dict[str, Any], kind: str = "evidence") -> list[dict[str, Any]]:
        section = self.card.section_id
        add = {"do": "add_pocket", "id": -2, "section": section, "text": "Laid later", "kind": kind}
        return [add, *({"do": "give_file", "pocket": -2, "file": one["id"]} for one in files)]

    def look(self, edits: list[dict[str, Any]]) -> tuple[list[str], list[str]]:
        """The titles of the new pocket's files, and what cannot be done."""
        found = self.lead("POST", "/draft/look", {"edits": edits})
        pockets = [of for one in found["template"]["sections"] for of in one["pockets"] if of["id"] == -2]
        return [one["title"] for one in pockets[0]["files"]], [one["what"] for one in found["hindrances"]]

    def test_they_come_with_it_when_it_is_saved(self) -> None:
        picture, sheet = self.wait("plan.jpg", jpeg()), self.wait("sheet.txt", b"name: ____", "starter")
        edits = self.draft(picture, sheet)
        for _ in range(2):
            self.assertEqual(self.look(edits), (["plan.jpg", "sheet.txt"], []))
        self.assertEqual(GivenFile.objects.filter(pocket=None).count(), 2, "looking gives nothing")
        self.assertEqual(self.opened(self.card)["files"], [], "what waits is in no other pocket")
        reads = f"/given-files/{picture['id']}"
        thandi = self.thandi.enrolment.person
        self.assertEqual(self.client_of(self.plot.lead).get(f"/api{reads}/thumbnail").status_code, 200)
        for person, status in (
            (thandi, 403),
            (self.plot.staff("look", Role.OBSERVER), 403),
            (klass("9 Forge", "forge").lead, 404),
        ):
            self.problem(status, person, "GET", reads)
        done = self.lead("POST", "/draft", {"edits": edits})
        made = Pocket.objects.get(pk=done["made"]["pockets"]["-2"])
        self.assertEqual([one["title"] for one in self.opened(made)["files"]], ["plan.jpg", "sheet.txt"])
        self.assertEqual(self.client_of(thandi).get(f"/api{reads}/thumbnail").status_code, 200)
        begun = GivenFile.objects.get(pk=sheet["id"])
        self.assertIn(begun.came_sha256, made.starter_hashes, "an artefact that is this file is no work")
        # Given once; undone with its pocket, and back with it.
        self.assertEqual(self.look(self.draft(picture)), ([], ["This file waits no longer."]))
        undone = self.lead("POST", "/draft", {"edits": done["undo"], "undoes": True})
        self.assertFalse(Pocket.objects.filter(pk=made.pk).exists())
        self.lead("POST", "/draft", {"edits": undone["undo"], "undoes": True})
        self.assertEqual(GivenFile.objects.filter(pocket=made.pk).count(), 2)

    def test_what_cannot_be_given(self) -> None:
        sheet = self.wait("sheet.txt", b"name: ____", "starter")
        self.assertEqual(self.look(self.draft(sheet, kind="page"))[1], ["“Laid later” cannot begin with a file."])
        self.wait("sheet.txt", b"x", version="v" * 100, status=422)
        other = klass("9 Forge", "forge")
        answer = self.client_of(other.lead).post(
            f"/api/groups/{other.group.pk}/template/files", {"file": SimpleUploadedFile("a.txt", b"theirs")}
        )
        theirs = answer.json()
        self.assertEqual(self.look(self.draft(theirs))[1], ["This file waits no longer."], "another class's file")
        many = [self.wait("a.txt", f"{one}".encode()) for one in range(given_files.MOST_FILES + 1)]
        self.assertIn("which is the most", self.look(self.draft(*many))[1][0])
        GivenFile.objects.filter(pk=many[0]["id"]).update(made_at=builders.NOW - given_files.WAITS * 2)
        with mock.patch.object(given_files, "MOST_WAITING", 14):
            self.wait("b.txt", b"the one that waited too long has gone")
            self.assertFalse(GivenFile.objects.filter(pk=many[0]["id"]).exists())
            self.wait("c.txt", b"one too many", status=422)
