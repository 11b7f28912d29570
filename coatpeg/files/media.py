"""Telling what bytes are by their content, never by their name."""

from __future__ import annotations

import zipfile
from typing import IO

import puremagic

OCTETS = "application/octet-stream"
HEAD = 65_536
"""Bytes looked at. Every signature used lies in the first few hundred; text is judged by more of it."""

SURE = 0.4
"""puremagic's confidence in a signature of four bytes; shorter ones fit too much."""
_OFFICE = {
    b"word/": "wordprocessingml.document",
    b"xl/": "spreadsheetml.sheet",
    b"ppt/": "presentationml.presentation",
}
SOUNDS = frozenset({"audio/mp4", "audio/webm", "audio/ogg", "audio/mpeg", "audio/wav", "audio/flac"})
VIDEOS = frozenset({"video/mp4", "video/quicktime", "video/webm"})
"""What browsers play. A QuickTime film often plays too; where it does not, it is offered as a download."""
PICTURES = frozenset(
    {
        "image/jpeg",
        "image/png",
        "image/webp",
        "image/heic",
        "image/avif",
        "image/gif",
        "image/tiff",
        "image/bmp",
    }
)
RAW = "image/x-dcraw"
"""A camera's raw file, whoever made the camera."""
_AVIF_BRANDS = (b"avif", b"avis")
_TIFF_STARTS = (b"II*\0", b"MM\0*")
_RAW_NAMES = (".dng", ".cr2", ".cr3", ".nef", ".arw", ".orf", ".rw2", ".raf", ".pef", ".srw")
"""What cameras name their raw files."""
ENDINGS = {
    "image/jpeg": (".jpg", ".jpeg"),
    "image/png": (".png",),
    "image/webp": (".webp",),
    "application/pdf": (".pdf",),
}
"""What a file of these kinds is called by its end; the first is ours."""
_HEIC_BRANDS = (b"heic", b"heix", b"heim", b"heis", b"hevc", b"mif1", b"msf1")
_PICTURE_ENDINGS = (".jpg", ".jpeg", ".png", ".webp", ".heic", ".heif")


def picture_type(head: bytes) -> str | None:
    """The media type where the bytes begin like a picture we take in, by the formats' own signatures."""
    if head.startswith(b"\xff\xd8\xff"):
        return "image/jpeg"
    if head.startswith(b"\x89PNG\r\n\x1a\n"):
        return "image/png"
    if head[:4] == b"RIFF" and head[8:12] == b"WEBP":
        return "image/webp"
    if head[4:8] == b"ftyp" and head[8:12] in (*_HEIC_BRANDS, *_AVIF_BRANDS):
        return "image/avif" if head[8:12] in _AVIF_BRANDS else "image/heic"
    if head.startswith((b"GIF87a", b"GIF89a")):
        return "image/gif"
    if head.startswith(_TIFF_STARTS) and head[8:10] != b"CR":
        return "image/tiff"
    if head.startswith(b"BM") and head[14:18] in _BITMAP_HEADERS and head[6:10] == b"\0\0\0\0":
        return "image/bmp"
    return None


_BITMAP_HEADERS = tuple(size.to_bytes(4, "little") for size in (12, 40, 52, 56, 64, 108, 124))
"""Lengths of the second header of a bitmap, by which its versions are told apart."""


def is_raw(name: str) -> bool:
    """Whether a file is called as cameras call their raw files."""
    return name.lower().endswith(_RAW_NAMES)


def named(title: str, media_type: str) -> str:
    """A file's title with an end that says what is in it, for whoever takes it to their own device."""
    endings = ENDINGS.get(media_type)
    if not endings or title.lower().endswith(endings):
        return title
    stem, dot, ending = title.rpartition(".")
    return f"{stem if dot and stem and len(ending) <= LONGEST_ENDING else title}{endings[0]}"


LONGEST_ENDING = 5


def media_type(head: bytes) -> str:
    """The media type of bytes by their beginning; text where it decodes as UTF-8, else octets."""
    found = picture_type(head) or playable_type(head) or _zip_type(head)
    if found:
        return found
    try:
        matches = [one for one in puremagic.magic_string(head) if one.confidence >= SURE and one.mime_type]
    except (puremagic.PureError, ValueError):
        matches = []
    if matches:
        return str(matches[0].mime_type)
    return "text/plain" if _is_text(head) else OCTETS


def playable_type(head: bytes) -> str | None:
    """The media type where the bytes begin like sound or video that browsers play.

    Whether an MP4 or WebM has a picture shows only further in (``core.portfolios.containers``);
    here it is named as a video.
    """
    if head[4:8] == b"ftyp" and head[8:12] != b"crx ":  # that is a raw file of a camera
        brand = head[8:12]
        return "audio/mp4" if brand in (b"M4A ", b"M4B ") else "video/quicktime" if brand == b"qt  " else "video/mp4"
    if head.startswith(b"\x1aE\xdf\xa3") and b"webm" in head[:64]:
        return "video/webm"
    if head.startswith(b"OggS"):
        return "audio/ogg"
    if head[:4] == b"RIFF" and head[8:12] == b"WAVE":
        return "audio/wav"
    if head.startswith(b"fLaC"):
        return "audio/flac"
    if head.startswith(b"ID3") or (
        len(head) > 3 and head[0] == 0xFF and head[1] & 0xE6 == 0xE2 and head[2] >> 4 not in (0, 15)
    ):
        return "audio/mpeg"
    return None


def _zip_type(head: bytes) -> str | None:
    """What a ZIP container is: an OpenDocument says so itself, an Office document by its folders."""
    if not head.startswith(b"PK\x03\x04"):
        return None
    if head[30:38] == b"mimetype":
        size = int.from_bytes(head[22:26], "little")
        return head[38 : 38 + min(size, 100)].decode("ascii", "replace")
    if b"[Content_Types].xml" in head:
        for folder, kind in _OFFICE.items():
            if folder in head:
                return f"application/vnd.openxmlformats-officedocument.{kind}"
    return "application/zip"


def zip_type(content: IO[bytes]) -> str:
    """What a ZIP container is by its own list of contents, which stands at its end; a ZIP where that is no help.

    For one whose beginning does not say: writers may put the files of a workbook in any order.
    """
    content.seek(0)
    try:
        with zipfile.ZipFile(content) as archive:
            names = archive.namelist()
    except (zipfile.BadZipFile, OSError, ValueError):
        return "application/zip"
    if "[Content_Types].xml" in names:
        for folder, kind in _OFFICE.items():
            if any(one.startswith(folder.decode()) for one in names):
                return f"application/vnd.openxmlformats-officedocument.{kind}"
    return "application/zip"


def _is_text(head: bytes) -> bool:
    """Whether a beginning is UTF-8 without control characters (a character cut at the end is forgiven)."""
    for cut in range(4):
        try:
            text = head[: len(head) - cut].decode()
        except UnicodeDecodeError:
            continue
        return not any(ord(one) < 32 and one not in "\t\n\r\f" for one in text)
    return False


def named_like_a_picture(name: str) -> bool:
    """Whether a file's name promises a picture."""
    return name.lower().endswith(_PICTURE_ENDINGS)
