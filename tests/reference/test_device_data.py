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
import pypdfium2
from django.core.files.base import ContentFile
from django.test import TestCase
from PIL import Image, TiffImagePlugin

from coatpeg.core.errors import Invalid
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping, pictures
from tests import recordings
from tests.reference.test_files import saved

CAMERAS = Path(__file__).parent / "cameras"
TELLTALE = (
    "GPS",
    "Make",
    "Model",
    "Software",
    "Artist",
    "SerialNumber",
    "OwnerName",
    "Comment",
    "Copyright",
    "Tag",
)


STRUCTURE = {"SourceFile", "TagTrackUID", "CopyrightFlag", "DeviceModel", "ProfileCopyright"}
"""Of the file itself: which track an empty tag is of, a bit of each MPEG frame; of a colour profile, who wrote it."""


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
        name: value for name, value in found.items() if name not in STRUCTURE and any(one in name for one in TELLTALE)
    }


def groups(data: bytes) -> set[str]:
    """The families of tags that exiftool finds, makers' own and embedded pictures among them."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "file"
        path.write_bytes(data)
        shown = subprocess.run(["exiftool", "-j", "-G0", "-a", str(path)], capture_output=True, text=True, check=True)
    return {name.partition(":")[0] for name in json.loads(shown.stdout)[0]} - {"SourceFile", "ExifTool"}


def kept(data: bytes, name: str) -> list[bytes]:
    """The bytes that are kept of a file, and its thumbnails."""
    stored = keeping.keep(ContentFile(data), name).stored
    parts = ["", "small", "large"] if stored.media_type in pictures.KEPT_TYPES else [""]
    found = []
    for part in parts:
        with keeping.opened(stored.sha256, part) as content:
            found.append(content.read())
    return found


def turn(data: bytes) -> int:
    """By how many degrees a player turns a film, as exiftool reads it."""
    with tempfile.NamedTemporaryFile(suffix=".mp4") as file:
        file.write(data)
        file.flush()
        words = ["exiftool", "-j", "-n", "-Rotation", file.name]
        shown = subprocess.run(words, capture_output=True, text=True, check=True)
    return int(json.loads(shown.stdout)[0]["Rotation"])


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
        for form, name in (
            ("JPEG", "a.jpg"),
            ("PNG", "a.png"),
            ("WEBP", "a.webp"),
            ("AVIF", "a.avif"),
            ("TIFF", "a.tif"),
        ):
            with self.subTest(form):
                self.check(saved(form, exif=self.exif()), name, finds="Make" if form == "TIFF" else "GPS")

    def test_what_cameras_and_phones_write_themselves(self) -> None:
        """Files that came out of cameras; ``cameras/README.md`` says where they are from."""
        names = sorted(one.name for one in CAMERAS.iterdir() if one.suffix != ".md")
        self.assertEqual(len(names), 9)
        for name in names:
            with self.subTest(name):
                data = (CAMERAS / name).read_bytes()
                self.check(data, name, finds="GPS" if name == "phone.heic" else "Model")
                for each in kept(data, name):
                    self.assertLessEqual(groups(each), {"File", "JFIF", "ICC_Profile", "RIFF", "Composite"}, name)

    def test_pictures_that_move(self) -> None:
        frames = [Image.new("RGB", (40, 30), colour) for colour in ("red", "green", "blue")]
        more = {"save_all": True, "append_images": frames[1:], "duration": 200}
        for form, name, telltale in (
            ("GIF", "a.gif", {"comment": b"Thandi Dube, 51.5074 -0.1278"}),
            ("WEBP", "b.webp", {"exif": self.exif()}),
        ):
            with self.subTest(form):
                target = io.BytesIO()
                frames[0].save(target, form, **more, **telltale)
                source = target.getvalue()
                self.assertTrue(b"Thandi" in source and len(told(source, form.lower())), form)
                moving, *still = kept(source, name)
                for each in (moving, *still):
                    self.assertNotIn(b"Thandi", each)
                    self.assertEqual(told(each, "webp"), {})
                with Image.open(io.BytesIO(moving)) as shown:
                    self.assertEqual((shown.format, shown.n_frames), ("WEBP", 3))  # type: ignore[attr-defined]
                    shown.seek(1)
                    shown.load()
                    self.assertEqual(shown.info["duration"], 200)

    def test_a_scan_of_several_pages_becomes_a_pdf(self) -> None:
        target = io.BytesIO()
        pages = [Image.new("L", (80, 60), shade) for shade in (10, 240)]
        pages[0].save(target, "TIFF", save_all=True, append_images=pages[1:], exif=self.exif())
        (after,) = kept(target.getvalue(), "a.tif")
        self.assertEqual(told(after, "pdf"), {})
        with pypdfium2.PdfDocument(after) as document:
            self.assertEqual(len(document), 2)

    def test_a_raw_file_stays_and_it_is_said(self) -> None:
        made = TiffImagePlugin.ImageFileDirectory_v2()
        made[50706] = b"\1\4\0\0"
        made.tagtype[50706] = 1
        target = io.BytesIO()
        Image.new("RGB", (40, 30)).save(target, "TIFF", tiffinfo=made)
        for name, data in (("a.dng", target.getvalue()), ("b.cr3", b"\0\0\0\x18ftypcrx " + bytes(200))):
            with self.subTest(name):
                found = keeping.keep(ContentFile(data), name)
                self.assertEqual(found.kind, ArtefactKind.FILE)
                self.assertIn("where and with what it was taken can be read in it", found.note)
                self.assertEqual(kept(data, name), [data])

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

    def test_a_makers_own_box_goes_and_a_track_of_places_is_not_kept(self) -> None:
        """XMP in a ``uuid`` box (XMP Specification Part 3, the MPEG-4 section: BE7ACFCB-97A9-42E8-9C71-999491E3AFAC)."""
        said = (
            b'<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">'
            b'<rdf:Description xmlns:tiff="http://ns.adobe.com/tiff/1.0/" tiff:Make="Camera maker"/></rdf:RDF></x:xmpmeta>'
        )
        own = recordings.box(b"uuid", bytes.fromhex("BE7ACFCB97A942E89C71999491E3AFAC"), said)
        self.check(recordings.film() + own, "a.mp4", finds="Make")
        self.check(recordings.real("mp4", "libx264", "aac") + own, "b.mp4", finds="Make")
        named = recordings.box(b"hdlr", b"\0" * 8, b"meta", b"\0" * 12, b"\0")
        track = recordings.box(b"trak", recordings.box(b"mdia", named))
        with self.assertRaisesMessage(Invalid, "a track of places and device data that cannot be taken out"):
            kept(recordings.film(track), "c.mp4")

    def test_real_recordings_of_every_kind_that_is_played(self) -> None:
        """Made by FFmpeg's libraries, with a place, a maker, a name and a title in them; the streams stay bit for bit."""
        for name, form, video, audio in recordings.REAL:
            with self.subTest(name):
                data = recordings.real(form, video, audio)
                ending = name.partition(".")[2]
                self.assertTrue(set(told(data, ending)) & {"GPSPosition", "Artist", "Make"}, "exiftool finds it first")
                (after,) = kept(data, name)
                self.assertEqual(told(after, ending), {})
                self.assertNotIn(b"Thandi", after)
                self.assertEqual(recordings.packets(after), recordings.packets(data))

    def test_a_film_stays_turned_as_it_was(self) -> None:
        data = recordings.turned(recordings.real("mp4", "libx264", None))
        (after,) = kept(data, "a.mp4")
        self.assertEqual([turn(one) for one in (data, after)], [90, 90])

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
