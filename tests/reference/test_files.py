"""Hashes, media types and picture orientation against sources outside the project.

Sources: FIPS 180-4 / NIST's example values for SHA-256 (*SHA256.pdf*, "abc" and the 448-bit message; from
memory, and confirmed here by coreutils' ``sha256sum``); libmagic through Debian's ``file`` command; the
eight orientation values of the Exif standard (CIPA DC-008, tag 0x0112).
"""

import hashlib
import io
import os
import struct
import subprocess
import sys
import tempfile
import wave
import zipfile
from pathlib import Path

import openpyxl
import pillow_heif
from django.conf import settings
from django.core.files.base import ContentFile
from django.test import SimpleTestCase, TestCase
from PIL import Image

from coatpeg.core.handins.snapshots import text_digest
from coatpeg.files import keeping, media, pictures
from tests import recordings
from tests.builders import jpeg

CAMERAS = Path(__file__).parent / "cameras"

pillow_heif.register_heif_opener()
MESSAGE = "abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq"


class Sha256(TestCase):
    def test_published_vectors(self) -> None:
        vectors = {
            "abc": "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad",
            "": "e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855",
            MESSAGE: "248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1",
        }
        for text, digest in vectors.items():
            self.assertEqual(text_digest(text), digest)

    def test_what_is_kept_has_the_hash_that_sha256sum_gives(self) -> None:
        kept = keeping.keep(ContentFile(MESSAGE.encode()), "message.txt")
        path = keeping.store().path(keeping.path_of(kept.stored.sha256))
        shown = subprocess.run(["sha256sum", path], capture_output=True, text=True, check=True).stdout.split()[0]
        self.assertEqual((kept.stored.sha256, kept.came_sha256), (shown, shown))
        self.assertTrue(path.endswith(shown))


def saved(form: str, **more: object) -> bytes:
    target = io.BytesIO()
    Image.new("RGB", (32, 24), (10, 120, 60)).save(target, form, **more)
    return target.getvalue()


def cleaned(data: bytes, media_type: str) -> list[bytes]:
    """What is kept of a picture, and its thumbnails."""
    with tempfile.TemporaryDirectory() as folder:
        pictures.clean(io.BytesIO(data), Path(folder), media_type, "card")
        return [(Path(folder) / name).read_bytes() for name in (pictures.KEPT, *pictures.THUMBNAILS)]


def zipped(names: dict[str, str]) -> bytes:
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w") as archive:
        for name, text in names.items():
            archive.writestr(name, text)
    return target.getvalue()


def sound() -> bytes:
    target = io.BytesIO()
    with wave.open(target, "wb") as out:
        out.setnchannels(1)
        out.setsampwidth(2)
        out.setframerate(8000)
        out.writeframes(struct.pack("<800h", *range(800)))
    return target.getvalue()


SAMPLES: dict[str, bytes] = {
    "jpeg": jpeg(),
    "png": saved("PNG"),
    "webp": saved("WEBP"),
    "heic": saved("HEIF"),
    "gif": saved("GIF"),
    "pdf": b"%PDF-1.4\n1 0 obj\n<<>>\nendobj\ntrailer\n<<>>\n%%EOF\n",
    "zip": zipped({"a.txt": "hello"}),
    "docx": zipped({"[Content_Types].xml": "<Types/>", "_rels/.rels": "<R/>", "word/document.xml": "<d/>"}),
    "odt": zipped({"mimetype": "application/vnd.oasis.opendocument.text", "content.xml": "<d/>"}),
    "wav": sound(),
    "mp4": recordings.film(),
    "m4a": recordings.film(brand=b"M4A ", handler=b"soun"),
    "quicktime": recordings.film(brand=b"qt  "),
    "webm": recordings.webm(video=True),
    "flac": b"fLaC\0\0\0\x22" + b"\x10\0\x10\0" + b"\0" * 6 + b"\x0a\xc4\x42\xf0" + b"\0" * 20,
    "text": b"A plain text about beans.\nWith two lines.\n",
    "utf8": "Ångström und Müller säen Bohnen.\n".encode(),
}


class MediaTypes(TestCase):
    def libmagic(self, data: bytes) -> str:
        with tempfile.NamedTemporaryFile() as sample:
            Path(sample.name).write_bytes(data)
            shown = subprocess.run(
                ["file", "--brief", "--mime-type", sample.name], capture_output=True, text=True, check=True
            )
            return shown.stdout.strip()

    def test_types_by_content_agree_with_libmagic(self) -> None:
        same = {
            "audio/wav": "audio/x-wav",
            "audio/wave": "audio/x-wav",
            "image/heif": "image/heic",
            "audio/mp4": "audio/x-m4a",
        }
        for name, data in SAMPLES.items():
            with self.subTest(name):
                ours, theirs = media.media_type(data[: media.HEAD]), self.libmagic(data)
                self.assertEqual(same.get(ours, ours), same.get(theirs, theirs))

    def test_a_workbook_whose_list_of_contents_lies_far_behind(self) -> None:
        """Every reader finds it by the directory at the end, openpyxl too."""
        target = io.BytesIO()
        book = openpyxl.Workbook()
        book.active["A1"] = "Beans"
        book.save(target)
        turned = io.BytesIO()
        with zipfile.ZipFile(target) as source, zipfile.ZipFile(turned, "w") as made:
            made.writestr("xl/media/large.bin", os.urandom(200_000))
            for one in sorted(source.namelist(), reverse=True):
                made.writestr(one, source.read(one))
        kept = keeping.keep(ContentFile(turned.getvalue()), "harvest.xlsx")
        self.assertTrue(kept.stored.media_type.endswith("spreadsheetml.sheet"), kept.stored.media_type)
        self.assertEqual(openpyxl.load_workbook(turned).active["A1"].value, "Beans")
        plain = io.BytesIO()
        with zipfile.ZipFile(plain, "w") as made:
            made.writestr("a.bin", os.urandom(200_000))
        self.assertEqual(keeping.keep(ContentFile(plain.getvalue()), "a.zip").stored.media_type, "application/zip")

    def test_a_picture_is_one_only_where_libmagic_says_so_too(self) -> None:
        for name, data in SAMPLES.items():
            with self.subTest(name):
                ours = media.picture_type(data[: media.HEAD])
                self.assertEqual(ours is not None, self.libmagic(data) in media.PICTURES)


class Orientation(SimpleTestCase):
    def test_of_several_pictures_of_a_phone_the_one_it_shows_is_kept(self) -> None:
        """JPEG: CIPA DC-007 *Multi-Picture Format*, written by Pillow; HEIC: a phone's own file."""
        target = io.BytesIO()
        other = Image.new("RGB", (16, 12), "white")
        Image.new("RGB", (32, 24), "navy").save(target, "MPO", save_all=True, append_images=[other])
        phone = (CAMERAS / "phone.heic").read_bytes()
        for data, media_type, size in ((target.getvalue(), "image/jpeg", (32, 24)), (phone, "image/heic", (1025, 900))):
            with Image.open(io.BytesIO(cleaned(data, media_type)[0])) as kept:
                self.assertEqual((kept.format, kept.size, getattr(kept, "n_frames", 1)), ("JPEG", size, 1))

    def test_forty_photographs_are_joined_in_less_than_300_megabytes(self) -> None:
        """In a process of its own, whose highest memory the kernel tells (VmHWM, proc_pid_status(5))."""
        program = """
import io, re
from PIL import Image
from coatpeg.files import pictures
target = io.BytesIO()
Image.linear_gradient("L").resize((4000, 3000)).convert("RGB").save(target, "JPEG")
with pictures.joined([lambda: io.BytesIO(target.getvalue())] * 40) as path:
    most = re.search(r"VmHWM:\\s+(\\d+)", open("/proc/self/status").read())[1]
    print(path.stat().st_size > 0, int(most) // 1024)
"""
        inside = [sys.executable, "-c", program]
        done = subprocess.run(inside, cwd=settings.BASE_DIR, capture_output=True, text=True, check=True)
        made, megabytes = done.stdout.split()
        self.assertEqual(made, "True")
        self.assertLess(int(megabytes), 300)

    def test_the_eight_exif_values_come_out_upright(self) -> None:
        """A red corner top left.

        Each value says where the file's first row and column really lie (DC-008, table of tag 0x0112).
        """
        upright = Image.new("RGB", (40, 20), "white")
        upright.paste((255, 0, 0), (0, 0, 10, 10))
        turned = {
            1: upright,
            2: upright.transpose(Image.Transpose.FLIP_LEFT_RIGHT),
            3: upright.transpose(Image.Transpose.ROTATE_180),
            4: upright.transpose(Image.Transpose.FLIP_TOP_BOTTOM),
            5: upright.transpose(Image.Transpose.TRANSPOSE),
            6: upright.transpose(Image.Transpose.ROTATE_90),
            7: upright.transpose(Image.Transpose.TRANSVERSE),
            8: upright.transpose(Image.Transpose.ROTATE_270),
        }
        for value, stored in turned.items():
            with self.subTest(value):
                exif = Image.Exif()
                exif[0x0112] = value
                target = io.BytesIO()
                stored.save(target, "JPEG", quality=100, exif=exif)
                target.seek(0)
                shown = Image.open(io.BytesIO(cleaned(target.getvalue(), "image/jpeg")[0]))
                self.assertEqual(shown.size, (40, 20))
                red, green, _ = shown.getpixel((3, 3))  # type: ignore[misc]
                self.assertTrue(red > 200 and green < 80, f"value {value}: {shown.getpixel((3, 3))}")

    def test_place_and_device_are_gone(self) -> None:
        exif = Image.Exif()
        exif[0x010F] = "Camera maker"
        exif.get_ifd(0x8825)[1] = "N"
        data = jpeg(exif=exif)
        self.assertIn(b"Camera maker", data, "the sample carries it")
        for form in ("JPEG", "PNG", "WEBP", "HEIF"):
            with self.subTest(form):
                source = data if form == "JPEG" else saved(form, exif=exif)
                kind = media.picture_type(source)
                assert kind is not None
                for each in cleaned(source, kind):
                    self.assertNotIn(b"Camera maker", each)
                    self.assertFalse(dict(Image.open(io.BytesIO(each)).getexif()))

    def test_hashing_is_hashlibs(self) -> None:
        self.assertEqual(text_digest("ü"), hashlib.sha256("ü".encode()).hexdigest())
