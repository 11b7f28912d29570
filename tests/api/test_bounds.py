"""What one file may take: the application's own memory stays small whatever somebody sends, and the refusal is clear."""

from __future__ import annotations

import io
import re
import time
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from django.core.files.base import ContentFile
from django.test import TestCase
from PIL import Image

from coatpeg.core.errors import Invalid
from coatpeg.files import converting, keeping
from coatpeg.setup.roster import roster_files
from tests import recordings
from tests.builders import TODAY
from tests.reference.test_oneroster import TABLES, packed


class Bounds(TestCase):
    @contextmanager
    def within(self, megabytes: int, seconds: float) -> Iterator[None]:
        """The memory of this process rises by less at its highest (VmHWM after a reset, proc_pid_clear_refs(5))."""
        Path("/proc/self/clear_refs").write_text("5")
        before, begun = self.resident("VmRSS"), time.perf_counter()
        yield
        self.assertLess((self.resident("VmHWM") - before) // 1024, megabytes)
        self.assertLess(time.perf_counter() - begun, seconds)

    def resident(self, what: str) -> int:
        found = re.search(rf"{what}:\s+(\d+) kB", Path("/proc/self/status").read_text())
        assert found is not None
        return int(found[1])

    def test_the_largest_picture_lying_on_its_side(self) -> None:
        exif = Image.Exif()
        exif[0x0112] = 6
        target = io.BytesIO()
        Image.linear_gradient("L").resize((10_000, 8_000)).convert("RGB").save(target, "JPEG", exif=exif)
        content = ContentFile(target.getvalue())
        with self.within(60, 60):
            found = keeping.keep(content, "panorama.jpg")
        self.assertEqual((found.stored.width, found.stored.height), (8_000, 10_000))

    def test_a_film_of_tiny_boxes(self) -> None:
        whole = recordings.film() + recordings.box(b"free") * 3_000_000
        with self.within(60, 60), self.assertRaisesMessage(Invalid, "cannot be read: it is broken"):
            keeping.keep(ContentFile(whole), "tiny.mp4")

    def test_a_school_list_that_unpacks_to_very_much(self) -> None:
        many = b"a,b\n" * 20_000_000
        with io.BytesIO() as target:
            with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as made:
                made.writestr("users.csv", b"sourcedId,role,givenName,familyName\n" + many)
            data = target.getvalue()
        with self.within(250, 60), self.assertRaisesMessage(Invalid, "more than 300,000 rows"):
            roster_files.read_bytes(data, "school.zip", TODAY, "8 Plot")

    def test_columns_that_nobody_reads_take_nothing(self) -> None:
        extra = {f"metadata.{number}": "" for number in range(3_000)}
        wide = {
            name: [row | extra for row in rows] * (100 if name == "users.csv" else 1) for name, rows in TABLES.items()
        }
        data = packed(wide)
        with self.within(60, 60):
            found = roster_files.read_bytes(data, "school.zip", TODAY, "8 Plot")
        self.assertEqual(len(found.classes), 2)

    def test_a_table_shown_in_the_page_has_an_end(self) -> None:
        rows = ([["x" * 1_000] * 100] * 2_000, [["y"]])
        document = converting._tables((str(at), iter(one)) for at, one in enumerate(rows))
        first, second = document["tables"]
        self.assertEqual((len(first["rows"]), first["rows_left_out"]), (41, 1_959))
        self.assertEqual((second["rows"], second["rows_left_out"]), ([], 1))
