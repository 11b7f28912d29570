"""Everything handed in for a hand-in as one file: made in the background, read back by tools outside the project."""

from __future__ import annotations

import hashlib
import subprocess
import zipfile
from datetime import timedelta
from io import BytesIO
from typing import Any
from unittest import mock

import pypdfium2
from django.core.files.base import ContentFile
from pypdfium2 import raw

from coatpeg.core.policy import Role
from coatpeg.files import keeping
from coatpeg.files.paper import printed
from coatpeg.handins.models import KeptFacts, Pack
from coatpeg.handins.packs import making
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.logs import rows
from coatpeg.portfolios.models import Artefact
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW

COLUMNS = [{"key": "a", "title": "Crop", "type": "text"}, {"key": "b", "title": "Grams", "type": "number"}]


class PackCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.card = self.plot.pocket()
        self.log = self.plot.pocket("Crop log", "log", log={"columns": COLUMNS})
        self.zoe = self.plot.student("zoe", "Zoë", "Ångström")
        self.twin = self.plot.student("twin", "Zoë", "Ångström")
        self.plot.student("idle", "Ida", "Blom")
        self.handin = self.plot.handin(self.card, title="Recipe: card/1")
        self.handin.pockets.add(self.log)
        self.evidence = builders.fill(self.zoe, self.card)
        builders.fill(self.zoe, self.card)
        rows.add_row(self.zoe.enrolment.person, self.zoe.pk, self.log.pk, {"a": "=kale", "b": "40"}, NOW)
        builders.fill(self.twin, self.card)
        for one in (self.zoe, self.twin):
            builders.hand_in(one, self.handin)
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/packs"


class Packs(PackCase):
    def asked(self) -> Any:
        return self.ok(self.plot.lead, "POST", self.path, {})

    def read(self, key: str) -> bytes:
        answer = self.call(self.plot.lead, "GET", f"/packs/{key}/file")
        self.assertEqual(answer.status_code, 200)
        self.assertIn('filename="Recipe card 1 2026-11-04.zip"', answer["Content-Disposition"])
        return b"".join(answer.streaming_content)  # type: ignore[attr-defined]

    def test_a_folder_for_each_student_with_what_they_handed_in(self) -> None:
        pack = self.asked()
        self.assertEqual((pack["total"], pack["ready_at"]), (2, None))
        self.problem(423, self.plot.lead, "GET", f"/packs/{pack['key']}/file")
        making.make_pack.func(Pack.objects.get().pk)
        found = self.ok(self.plot.lead, "GET", f"/packs/{pack['key']}")
        self.assertEqual((found["done"], found["total"], found["problem"]), (2, 2, ""))
        data = self.read(pack["key"])
        self.assertEqual(len(data), found["size"])
        with zipfile.ZipFile(BytesIO(data)) as opened:
            self.assertIsNone(opened.testzip())
            names = opened.namelist()
            folders = sorted({name.split("/")[0] for name in names})
            self.assertEqual(folders, ["Ångström, Zoë", "Ångström, Zoë (2)"])
            self.assertIn("Ångström, Zoë/Recipe card 1 words.txt", names)
            picture = next(
                name for name in names if name.startswith("Ångström, Zoë/Recipe card 1 ") and "words" not in name
            )
            assert self.evidence.artefact
            assert self.evidence.artefact.stored
            kept = self.evidence.artefact.stored.sha256
            self.assertEqual(hashlib.sha256(opened.read(picture)).hexdigest(), kept)
            log = opened.read("Ångström, Zoë/Crop log.csv").decode("utf-8-sig")
            self.assertEqual(log, "Crop,Grams\r\n'=kale,40\r\n")

    def test_another_tool_reads_it(self) -> None:
        pack = self.asked()
        making.make_pack.func(Pack.objects.get().pk)
        path = making.folder() / f"{pack['key']}.zip"
        # Source: Python's zipfile as a program of its own, which tests every entry's checksum.
        said = subprocess.run(["python3", "-m", "zipfile", "-t", str(path)], capture_output=True, text=True, check=True)
        self.assertIn("Done testing", said.stdout)

    def test_what_is_gone_is_named_and_holds_nothing_up(self) -> None:
        pack = self.asked()
        assert self.evidence.artefact
        assert self.evidence.artefact.stored
        keeping.store().delete(keeping.path_of(self.evidence.artefact.stored.sha256))
        making.make_pack.func(Pack.objects.get().pk)
        with zipfile.ZipFile(BytesIO(self.read(pack["key"]))) as opened:
            self.assertIn("Ångström, Zoë/Recipe card 1", opened.read("Not in here.txt").decode())

    def test_only_who_asked_for_it_and_only_while_they_may(self) -> None:
        pack = self.asked()
        making.make_pack.func(Pack.objects.get().pk)
        for person in (self.plot.staff("second", Role.CO_TEACHER), self.zoe.enrolment.person):
            self.problem(404, person, "GET", f"/packs/{pack['key']}")
            self.problem(404, person, "GET", f"/packs/{pack['key']}/file")
        self.plot.group.staff.filter(person=self.plot.lead).delete()
        self.problem(404, self.plot.lead, "GET", f"/packs/{pack['key']}/file")

    def test_forgotten_after_a_day_with_its_file(self) -> None:
        pack = self.asked()
        making.make_pack.func(Pack.objects.get().pk)
        path = making.folder() / f"{pack['key']}.zip"
        self.assertTrue(path.exists())
        Pack.objects.update(asked_at=NOW)
        with mock.patch("coatpeg.handins.packs.making.timezone.now", return_value=NOW + timedelta(hours=25)):
            self.assertTrue(making.has_old())
            making.forget_packs.func()
        self.assertFalse(path.exists())
        self.assertFalse(Pack.objects.exists())
        self.assertEqual(making.make_pack.func(1), 0, "a job that comes too late does nothing")


class OnPaper(PackCase):
    """The same as one PDF; its pages and words are read back by PDFium, which has no part in laying them out."""

    def asked(self) -> Any:
        return self.ok(self.plot.lead, "POST", self.path, {"form": "pdf"})

    def pages(self) -> list[str]:
        pack = self.asked()
        making.make_pack.func(Pack.objects.get().pk)
        answer = self.call(self.plot.lead, "GET", f"/packs/{pack['key']}/file")
        self.assertEqual(answer["Content-Type"], "application/pdf")
        self.assertIn('filename="Recipe card 1 2026-11-04.pdf"', answer["Content-Disposition"])
        document = pypdfium2.PdfDocument(b"".join(answer.streaming_content))  # type: ignore[attr-defined]
        self.pictures = sum(1 for page in document for one in page.get_objects() if one.type == raw.FPDF_PAGEOBJ_IMAGE)
        return [page.get_textpage().get_text_range() for page in document]

    def test_each_student_from_a_page_of_their_own_by_family_name(self) -> None:
        pages = self.pages()
        begun = [page.split("\r\n")[0] for page in pages if "Recipe: card/1 · handed in Wednesday 4 November" in page]
        self.assertEqual(begun, ["Ångström, Zoë", "Ångström, Zoë"])
        self.assertEqual(self.pictures, 3)
        text = "".join(pages)
        for words in ("One thing. Another thing.", "Crop log", "Crop Grams", "kale 40", "Nothing was in it."):
            self.assertIn(words, text)

    def test_documents_links_and_texts_with_pictures_and_what_cannot_be_shown(self) -> None:
        ida = self.plot.student("more", "Ida", "Cole")
        person = ida.enrolment.person
        for name, data in (("plan.txt", b"Sow the beans <b>early</b>"), ("photo.pdf", printed("<p>Page of a PDF</p>"))):
            commands.add_file(person, ida.pk, self.card.pk, ContentFile(data), name, NOW)
        commands.add_link(person, ida.pk, self.card.pk, "https://example.org/beans", "Beans", NOW)
        builders.hand_in(ida, self.handin)
        kept = Artefact.objects.get(title="photo.pdf").stored
        assert kept
        keeping.store().delete(keeping.path_of(kept.sha256))
        text = "".join(self.pages())
        self.assertIn("Sow the beans <b>early</b>", text)
        self.assertIn("https://example.org/beans", text)
        self.assertIn("This file cannot be had now.", text)

    def test_of_nothing_a_page_that_says_so(self) -> None:
        KeptFacts.objects.all().delete()
        self.assertIn("Nobody has handed in yet.", "".join(self.pages()))
        self.assertEqual(Pack.objects.get().total, 0)
