"""Files shown in the page: each format, what is never run, and files made to do harm."""

from __future__ import annotations

import hashlib
import io
import json
import os
import subprocess
import sys
import tempfile
import threading
import zipfile
from datetime import timedelta
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any
from unittest import mock

from django.core.files.base import ContentFile
from django.test import SimpleTestCase
from PIL import Image
from pypdfium2 import PdfDocument

from coatpeg.files import converting, fence, fenced, office, previews, uploads
from coatpeg.files.models import Preview
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.models import Artefact
from tests import builders, documents
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, klass

SCRIPT = b"<script>document.title='run'</script>"


class ViewCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.pocket = self.of.pocket()
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person

    def added(self, data: bytes, name: str) -> str:
        """Add a file, let the background work, and return the address of its artefact."""
        content = ContentFile(data)
        evidence = commands.add_file(self.thandi, self.portfolio.pk, self.pocket.pk, content, name, NOW)[0]
        run_waiting()
        return f"/artefacts/{evidence.artefact_id}"

    def shown(self, data: bytes, name: str) -> dict[str, Any]:
        address = self.added(data, name)
        view = self.ok(self.thandi, "get", f"{address}/view")
        self.assertEqual(view["state"], "done", view)
        found: dict[str, Any] = self.ok(self.of.lead, "get", f"{address}/view/document")
        self.assertEqual(found["kind"], view["kind"])
        return found

    def not_shown(self, data: bytes, name: str, why: str) -> None:
        address = self.added(data, name)
        view = self.ok(self.thandi, "get", f"{address}/view")
        self.assertEqual(view["state"], "failed")
        self.assertIn(why, view["why"])
        self.assertEqual(self.call(self.thandi, "get", f"{address}/view/document").status_code, 404)
        kept = self.call(self.thandi, "get", f"{address}/file")
        self.assertEqual(b"".join(kept), data, "the original is always offered")  # type: ignore[arg-type]
        self.assertIn("attachment", kept["Content-Disposition"])


class Formats(ViewCase):
    def test_a_pdf_page_by_page(self) -> None:
        address = self.added(documents.pdf(3), "report.pdf")
        self.assertEqual(self.ok(self.thandi, "get", f"{address}/view")["pages"], 3)
        page = self.call(self.thandi, "get", f"{address}/view/pages/2")
        with Image.open(io.BytesIO(b"".join(page))) as seen:  # type: ignore[arg-type]
            self.assertEqual((seen.format, max(seen.size)), ("JPEG", converting.PAGE_SIDE))
        for number in (0, 4, 10**12):
            self.assertEqual(self.call(self.thandi, "get", f"{address}/view/pages/{number}").status_code, 404)

    def test_a_word_document(self) -> None:
        self.assertIn("<strong>Soil test</strong>", self.shown(documents.docx(), "soil.docx")["html"])

    def pages(self, data: bytes, name: str) -> list[str]:
        """The words of each page of what LibreOffice makes of a document, after it was shown as so many pages."""
        address = self.added(data, name)
        view = self.ok(self.thandi, "get", f"{address}/view")
        self.assertEqual((view["state"], view["kind"]), ("done", "pages"), view)
        with tempfile.TemporaryDirectory() as folder:
            source = Path(folder) / "in"
            source.write_bytes(data)
            made = office.converted(source, "pdf", Path(folder))
            assert made is not None
            with PdfDocument(made) as document:
                found = [page.get_textpage().get_text_bounded() for page in document]
        self.assertEqual(view["pages"], len(found))
        self.assertEqual(self.call(self.thandi, "get", f"{address}/view/pages/1").status_code, 200)
        return found

    def test_an_open_document_text_and_a_presentation_page_by_page(self) -> None:
        (text,) = self.pages(documents.odt(), "compost.odt")
        for word in ("Compost", "Worms & warmth", "Leaves"):
            self.assertIn(word, text)
        (slide,) = self.pages(documents.pptx(), "water.pptx")
        for word in ("Where does the water go?", "Into the ground <and> the air", "12 mm"):
            self.assertIn(word.replace(" ", ""), "".join(slide.split()))

    def test_workbooks_as_tables_of_last_values(self) -> None:
        harvest, empty = self.shown(documents.xlsx(), "harvest.xlsx")["tables"]
        self.assertEqual((harvest["name"], harvest["rows"]), ("Harvest", [["Crop", "Grams"], ["Beans", "240"]]))
        self.assertEqual((empty["name"], empty["rows"]), ("Empty", []))
        (beds,) = self.shown(documents.ods(), "beds.ods")["tables"]
        self.assertEqual((beds["rows"], beds["rows_left_out"]), ([["Bed", "Crop"], ["1", "Beans"]], 0))

    def test_without_libreoffice_the_rest_is_offered_as_it_is_and_says_so(self) -> None:
        with mock.patch.object(office, "program", return_value=None):
            address = self.added(documents.pptx(), "water.pptx")
            view = self.ok(self.thandi, "get", f"{address}/view")
            self.assertEqual((view["state"], view["why"]), ("none", previews.NO_OFFICE))
            self.assertEqual(self.shown(documents.xlsx(), "a.xlsx")["kind"], "tables")
        self.assertEqual(self.call(self.thandi, "get", f"{address}/file").status_code, 200)
        self.assertEqual(self.ok(self.thandi, "get", f"{address}/view")["state"], "waiting", "made once it is there")

    def test_text_and_comma_separated_values(self) -> None:
        self.assertEqual(self.shown("Größe\n".encode(), "notes.txt")["text"], "Größe\n")
        (table,) = self.shown(b'crop;grams\nbeans;"1;2"\n', "log.csv")["tables"]
        self.assertEqual(table["rows"], [["crop", "grams"], ["beans", "1;2"]])

    def test_what_is_more_than_is_shown_is_counted(self) -> None:
        many = "\n".join(",".join(["x"] * 120) for _ in range(converting.MOST_ROWS + 5))
        (table,) = self.shown(many.encode(), "many.csv")["tables"]
        self.assertEqual((table["rows_left_out"], table["columns_left_out"]), (5, 20))
        long = self.shown(b"a" * (converting.LONGEST + 7), "long.txt")
        self.assertEqual((len(long["text"]), long["left_out"]), (converting.LONGEST, 7))

    def test_kinds_without_a_viewer_say_so(self) -> None:
        address = self.added(b"\x00\x01\x02\x03" * 100, "model.stl")
        self.assertEqual(self.ok(self.thandi, "get", f"{address}/view")["state"], "none")
        self.assertFalse(Preview.objects.exists())

    def test_the_same_bytes_are_made_readable_once(self) -> None:
        done = (Preview.State.DONE, {"kind": "html"})
        with mock.patch.object(previews, "_converted", return_value=done) as made:
            self.added(documents.docx("only once"), "a.docx")
            self.added(documents.docx("only once"), "b.docx")
        self.assertEqual(made.call_count, 1)


class Background(ViewCase):
    def test_one_look_makes_files_readable_and_finishes_what_came_up(self) -> None:
        content = ContentFile(documents.docx("by the house"))
        commands.add_file(self.thandi, self.portfolio.pk, self.pocket.pk, content, "house.docx", NOW)
        wish = builders.wish(self.portfolio, self.pocket, "late.txt", 4)
        upload = uploads.begin(self.thandi, wish, NOW)
        uploads.path_of(upload).write_bytes(b"late")
        run_waiting()
        self.assertEqual(Preview.objects.get(stored__sha256=content_hash(documents.docx("by the house"))).state, "done")
        self.assertEqual(Artefact.objects.latest("pk").title, "late.txt")


class Harm(ViewCase):
    def test_a_zip_bomb_dressed_as_a_document(self) -> None:
        bomb = documents.docx(**{"media.bin": b"\0" * (converting.MOST_UNPACKED + 1024)})
        self.assertLess(len(bomb), 1_000_000)
        self.not_shown(bomb, "bomb.docx", "unpacks to 300 MB")

    def test_what_ends_the_converter_is_given_up_after_three_tries(self) -> None:
        with mock.patch.object(previews, "_converted", side_effect=OSError("the worker was ended")):
            content = ContentFile(documents.docx("ends it"))
            commands.add_file(self.thandi, self.portfolio.pk, self.pocket.pk, content, "a.docx", NOW)
            with self.assertLogs("coatpeg.jobs", "ERROR") as said:
                for late in (0, 10, 60):
                    with self.at(NOW + timedelta(seconds=late)):
                        run_waiting()
        self.assertIn("making a file readable", said.output[0])
        preview = Preview.objects.get(stored__sha256=content_hash(documents.docx("ends it")))
        self.assertEqual((preview.state, preview.why), ("failed", "It could not be read in three tries."))

    def test_a_pdf_with_a_script_is_drawn_without_it(self) -> None:
        self.assertEqual(self.shown(documents.pdf_with_script(), "script.pdf")["pages"], 1)

    def test_html_and_svg_are_shown_as_the_text_they_are_and_never_as_themselves(self) -> None:
        svg = b'<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)">' + SCRIPT + b"</svg>"
        for data, name in ((b"<!doctype html><title>x</title>" + SCRIPT, "page.html"), (svg, "drawing.svg")):
            address = self.added(data, name)
            view = self.ok(self.thandi, "get", f"{address}/view")
            self.assertEqual((view["state"], view["kind"]), ("done", "text"))
            answer = self.call(self.thandi, "get", f"{address}/file")
            self.assertIn("attachment", answer["Content-Disposition"])
            self.assertEqual(answer["Content-Type"], "application/octet-stream")
            self.assertEqual(answer["Content-Security-Policy"], "default-src 'none'; sandbox")
            self.assertEqual(answer["X-Content-Type-Options"], "nosniff")

    def test_a_polyglot_is_what_its_content_is_and_cannot_run(self) -> None:
        """A picture by its beginning with HTML behind it: the pixels are written anew, so nothing of it is left."""
        answer = self.call(self.thandi, "get", f"{self.added(builders.jpeg() + SCRIPT, 'card.html')}/file")
        self.assertEqual(answer["Content-Type"], "image/jpeg")
        self.assertNotIn(b"script", b"".join(answer))  # type: ignore[arg-type]
        both = io.BytesIO(documents.pdf())
        both.seek(0, io.SEEK_END)
        with zipfile.ZipFile(both, "a") as archive:
            archive.writestr("index.html", SCRIPT)
        self.assertEqual(self.shown(both.getvalue(), "both.pdf")["kind"], "pages")

    def test_macros_stay_where_they_are(self) -> None:
        found = self.shown(documents.docx("Order form", **{"vbaProject.bin": b"\xd0\xcf\x11\xe0"}), "order.docm")
        self.assertIn("They do not run here", found["note"])
        self.assertIn("Order form", found["html"])

    def test_libreoffice_fetches_nothing_that_a_document_links_to(self) -> None:
        asked: list[str] = []

        class Listener(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                asked.append(self.path)
                self.send_error(404)

            do_HEAD = do_OPTIONS = do_PROPFIND = do_GET  # noqa: N815 - names of HTTP's methods

            def log_message(self, *args: object) -> None:
                """Nothing."""

        with ThreadingHTTPServer(("127.0.0.1", 0), Listener) as server:
            threading.Thread(target=server.serve_forever, daemon=True).start()
            address = f"http://127.0.0.1:{server.server_address[1]}/seen.png"
            self.added(documents.odt(picture=address), "linked.odt")
            server.shutdown()
        self.assertEqual(Preview.objects.get().state, "done")
        self.assertEqual(asked, [])

    def test_nothing_of_a_conversion_stays_behind(self) -> None:
        with tempfile.TemporaryDirectory() as own, mock.patch.object(tempfile, "tempdir", own):
            self.added(documents.odt(), "compost.odt")
            self.assertEqual(list(Path(own).iterdir()), [])

    def test_broken_and_locked_documents(self) -> None:
        self.not_shown(b"%PDF-1.7\nnothing follows", "broken.pdf", "broken")
        self.not_shown(documents.docx()[:-200], "cut.docx", "may be broken")

    def test_script_in_a_document_is_gone(self) -> None:
        link = '<w:p><w:hyperlink w:anchor="x"><w:r><w:t>&lt;img src=x onerror=alert(1)&gt;</w:t></w:r></w:hyperlink></w:p>'
        found = self.shown(documents.docx("<![CDATA[<script>alert(1)</script>]]>", link), "script.docx")["html"]
        self.assertNotIn("<script", found)
        self.assertNotIn("<img", found)


def content_hash(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()


class Alone(SimpleTestCase):
    def test_a_fenced_process_has_none_of_our_environment(self) -> None:
        with mock.patch.dict(os.environ, {"COATPEG_SECRET": "a secret", "COATPEG_DB_PASSWORD": "another"}):
            done = fenced.run("this", seconds=20)  # any module that prints; what it inherits is what is looked at
            with mock.patch.object(fenced.subprocess, "run") as run:
                fenced.run("this", seconds=20)
        self.assertEqual(done.returncode, 0)
        self.assertLessEqual(set(run.call_args.kwargs["env"]), {*fence.PASSED_ON, "PYTHONPATH", "PYTHONIOENCODING"})

    def test_the_converter_is_a_process_of_its_own_with_limits(self) -> None:
        """Memory is bounded in the child: what takes more ends there, with a sentence."""
        with tempfile.TemporaryDirectory() as folder:
            source = Path(folder) / "in"
            source.write_bytes(b"a")
            code = (
                "import sys; from coatpeg.files import converting;"
                "converting.CONVERTERS['x/y'] = lambda path, out: {'text': 'a' * converting.MEMORY};"
                f"sys.exit(converting.main({str(source)!r}, {folder!r}, 'x/y', 'f'))"
            )
            done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, timeout=60)
        self.assertEqual(
            (done.returncode, done.stdout), (3, "It takes more memory to show than there is for one file.")
        )

    def test_documents_are_plain_json(self) -> None:
        self.assertEqual(
            json.loads(json.dumps(converting._table(iter([["a", ""], []]), 9))),
            {"rows": [["a"]], "rows_left_out": 0, "columns_left_out": 0},
        )
