"""Place and device data are gone, read back with an independent tool.

Source: exiftool (Debian's ``libimage-exiftool-perl``), which finds them before and not after.
"""

from __future__ import annotations

import io
import json
import subprocess
import tempfile
from pathlib import Path
from typing import Any

import pillow_heif
from django.core.files.base import ContentFile
from django.test import TestCase
from PIL import Image

from coatpeg.portfolios import files
from tests import recordings
from tests.reference.test_files import saved

TELLTALE = (
    "GPS",
    "Make",
    "Model",
    "Software",
    "Artist",
    "SerialNumber",
    "OwnerName",
    "UserComment",
    "Copyright",
    "Tag",
)


def told(data: bytes, ending: str) -> dict[str, Any]:
    """What exiftool finds in a file, but for what it says about the file itself."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / f"file.{ending}"
        path.write_bytes(data)
        shown = subprocess.run(
            ["exiftool", "-j", "-n", "-ee", "-a", str(path)], capture_output=True, text=True, check=True
        )
    found: dict[str, Any] = json.loads(shown.stdout)[0]
    return {
        name: value for name, value in found.items() if name != "SourceFile" and any(one in name for one in TELLTALE)
    }


def kept(data: bytes, name: str) -> list[bytes]:
    """The bytes that are kept of a file, and its thumbnails."""
    stored = files.keep(ContentFile(data), name).stored
    parts = ["", "small", "large"] if stored.media_type.startswith("image/") else [""]
    found = []
    for part in parts:
        with files.opened(stored.sha256, part) as content:
            found.append(content.read())
    return found


class ReadBack(TestCase):
    def exif(self) -> Image.Exif:
        exif = Image.Exif()
        exif[0x010F], exif[0x0110], exif[0x013B] = "Camera maker", "Model 7", "Thandi Dube"
        place = exif.get_ifd(0x8825)
        place[1], place[2], place[3], place[4] = "N", (51.0, 30.0, 26.0), "W", (0.0, 7.0, 40.0)
        exif.get_ifd(0x8769)[0x9286] = b"ASCII\0\0\0at home"
        return exif

    def check(self, data: bytes, name: str, *, finds: str) -> None:
        ending = name.partition(".")[2]
        before = told(data, ending)
        self.assertTrue(any(finds in one for one in before), f"{name}: exiftool must find it first: {before}")
        for each in kept(data, name):
            self.assertEqual(told(each, ending), {}, name)

    def test_pictures(self) -> None:
        for form, name in (("JPEG", "a.jpg"), ("PNG", "a.png"), ("WEBP", "a.webp")):
            with self.subTest(form):
                self.check(saved(form, exif=self.exif()), name, finds="GPS")

    def test_heic(self) -> None:
        picture = pillow_heif.from_pillow(Image.new("RGB", (64, 48), (10, 120, 60)))
        target = io.BytesIO()
        picture.save(target, exif=self.exif().tobytes())
        self.check(target.getvalue(), "a.heic", finds="GPS")

    def test_films(self) -> None:
        self.check(recordings.film(recordings.place_box()), "a.mp4", finds="GPS")
        tag = recordings.element(
            0x1254C367,
            recordings.element(
                0x7373,
                recordings.element(
                    0x67C8, recordings.element(0x45A3, b"SOFTWARE"), recordings.element(0x4487, b"Phone 7")
                ),
            ),
        )
        data = recordings.webm(tag, video=True)
        for each in kept(data, "a.webm"):
            self.assertNotIn(b"Phone 7", each)
            self.assertEqual(told(each, "webm"), {})

    def test_what_is_left_is_still_the_film(self) -> None:
        """exiftool reads the same structure before and after: nothing has moved."""
        data = recordings.film(recordings.place_box())
        (after,) = kept(data, "b.mp4")
        for one in (data, after):
            with tempfile.NamedTemporaryFile(suffix=".mp4") as file:
                file.write(one)
                file.flush()
                shown = json.loads(
                    subprocess.run(["exiftool", "-j", "-n", file.name], capture_output=True, check=True).stdout
                )[0]
            self.assertEqual(
                (shown["MIMEType"], shown["HandlerType"], shown["MediaDataSize"]), ("video/mp4", "vide", 64)
            )
