"""Pictures: turned the right way up, stripped of place and device data, given thumbnails.

JPEG, PNG and WebP stay what they are; HEIC, AVIF and TIFF become JPEG (PNG where they are partly clear), BMP and GIF
become PNG, since not every browser shows them. What moves becomes a moving WebP, a TIFF of several pages a PDF. Only
pixels and the colour profile go into what is kept. A camera's raw file is not developed: it stays as it is, which is
said (``RAW``). ``main`` does it in a process of its own (``files.fence``), whatever is wrong with the picture.
"""

from __future__ import annotations

import tempfile
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import IO, Any, BinaryIO, cast

from PIL import Image, ImageOps, ImageSequence

from coatpeg.core.errors import Invalid
from coatpeg.files import fenced

MOST_PIXELS = 80_000_000
"""A phone's largest panorama is about 60 million pixels; decoded, this is 240 MB."""
MEMORY = 1024 * 1024 * 1024
SECONDS = 60
"""Bytes of address space and seconds of processor for one picture: the largest, upright or not, takes two thirds."""
MOST_WRITTEN = 512 * 1024 * 1024
JPEG_QUALITY = 92
A4_INCHES = 8.27
_TURNS = {90: Image.Transpose.ROTATE_270, 180: Image.Transpose.ROTATE_180, 270: Image.Transpose.ROTATE_90}
"""Pillow turns against the clock."""
KEPT = "kept"
THUMBNAILS = {"small": 360, "large": 1600}
"""Longest side in pixels: a card at double density, and a full desk."""

OPENERS = {
    "image/jpeg": "JPEG",
    "image/heic": "HEIF",
    "image/avif": "AVIF",
    "image/tiff": "TIFF",
    "image/png": "PNG",
    "image/bmp": "BMP",
    "image/gif": "GIF",
    "image/webp": "WEBP",
}
"""What of Pillow opens each kind, and nothing else of it."""
_SAVED_AS = {"JPEG": "JPEG", "PNG": "PNG", "WEBP": "WEBP", "GIF": "PNG", "BMP": "PNG"}
_TYPES = {"JPEG": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp"}
KEPT_TYPES = frozenset(_TYPES.values())
RAW = "raw"
"""The ``media_type`` that is told of a camera's raw file (``clean``)."""
_DNG_VERSION, _SUB_IFDS = 50706, 330
"""Tags of a TIFF that only raw files have: Adobe's *DNG Specification* 1.6, and the main image in a part of its own."""
MOST_PAGES = 200
_MOVE = frozenset({"GIF", "WEBP", "PNG", "AVIF"})
"""Where several pictures in a file are one that moves. A phone's (HEIC, JPEG) are a burst, what the other eye sees, or
how light it is: the one that the phone itself shows is kept."""
_RAW_TAGS = frozenset({_DNG_VERSION, _SUB_IFDS})
EVEN = datetime(2000, 1, 1, tzinfo=UTC).timetuple()
"""The date in what we write as PDF: the same pages make the same bytes."""


@dataclass(frozen=True, slots=True)
class Cut:
    """How a picture is to be turned and cropped.

    Degrees clockwise, then left, top, right, bottom as shares of what it then is.
    """

    turn: int = 0
    crop: tuple[float, float, float, float] | None = None

    @classmethod
    def read(cls, turn: str, crop: str) -> Cut:
        """From text, as it comes with an upload; ``Invalid`` where it makes no picture."""
        try:
            degrees = int(turn or "0")
            sides = tuple(float(one) for one in crop.split(",")) if crop else None
        except ValueError:
            degrees, sides = -1, None
        wrong = sides and (len(sides) != 4 or not (0 <= sides[0] < sides[2] <= 1 and 0 <= sides[1] < sides[3] <= 1))
        if degrees not in (0, 90, 180, 270) or wrong:
            raise Invalid(
                f"A picture cannot be turned by “{turn[:20]}” or cropped to “{crop[:60]}”.",
                where="turn",
                fix="Turn it by 0, 90, 180 or 270 degrees; crop it to left,top,right,bottom from 0 to 1.",
            )
        return cls(degrees, cast("tuple[float, float, float, float] | None", sides))

    def written(self) -> tuple[str, str]:
        """As text, as ``read`` reads it."""
        return str(self.turn), ",".join(map(str, self.crop or ()))


WHOLE = Cut()
Image.MAX_IMAGE_PIXELS = None  # the limit is checked below, before any pixel is decoded, with a sentence


def clean(source: BinaryIO, out: Path, media_type: str, name: str, cut: Cut = WHOLE) -> dict[str, Any]:
    """Decode a picture whole and write it anew; ``Invalid`` where it is broken or too large.

    Into the folder ``out`` go ``kept`` and the thumbnails (JPEG or PNG) by their names; returned are what is kept's
    ``media_type``, and its ``width`` and ``height`` in pixels. Nothing is written of a raw file, no thumbnail of a PDF.
    """
    try:
        with Image.open(source, formats=(_opener(media_type),)) as opened:
            _check_size(opened, name)
            return _cleaned(opened, out, name, cut)
    except (Invalid, MemoryError):
        raise
    except Exception as error:
        raise Invalid(
            f"“{name}” is a picture that cannot be read to its end: it is broken or only partly there.",
            where="file",
            fix="Open it on your device to see; take or save it again and add that.",
        ) from error


def _cleaned(opened: Image.Image, out: Path, name: str, cut: Cut) -> dict[str, Any]:
    count = getattr(opened, "n_frames", 1)
    if opened.format == "TIFF" and not _RAW_TAGS.isdisjoint(opened.tag_v2):  # type: ignore[attr-defined]  # a TIFF has it
        return {"media_type": RAW, "width": None, "height": None}
    if opened.format == "TIFF" and count > 1:
        return _pages(opened, out, name)
    if count > 1 and opened.format in _MOVE:
        return _moving(opened, out, name, cut)
    opened.load()
    profile = opened.info.get("icc_profile")
    ImageOps.exif_transpose(opened, in_place=True)  # a copy of a large photograph is a quarter of a gigabyte
    picture, save_as = _plain(_cut(opened, cut), opened.format or "")
    _encode(picture, out / KEPT, save_as, profile)
    return _with_thumbnails(picture, out, save_as, profile)


def _with_thumbnails(picture: Image.Image, out: Path, save_as: str, profile: bytes | None) -> dict[str, Any]:
    for label, thumbnail in thumbnails(picture):
        _encode(thumbnail, out / label, "PNG" if thumbnail.mode == "RGBA" else "JPEG", profile)
    return {"media_type": _TYPES[save_as], "width": picture.width, "height": picture.height}


def _moving(opened: Image.Image, out: Path, name: str, cut: Cut) -> dict[str, Any]:
    """A picture that moves, as a moving WebP; its thumbnails are of the first of its pictures."""
    _check_size(opened, name, opened.n_frames)  # type: ignore[attr-defined]  # what moves has it
    spans: list[int] = []
    frames = []
    for one in ImageSequence.Iterator(opened):
        one.load()
        spans.append(int(one.info.get("duration") or 100))
        frame = _cut(one.convert("RGBA"), cut)
        frame.info.clear()
        frames.append(frame)
    frames[0].save(
        out / KEPT, "WEBP", save_all=True, append_images=frames[1:], duration=spans, loop=opened.info.get("loop", 0)
    )
    return _with_thumbnails(frames[0], out, "WEBP", None)


def _pages(opened: Image.Image, out: Path, name: str) -> dict[str, Any]:
    """A TIFF of several pages, as scanners write them: a PDF with a page for each."""
    count = opened.n_frames  # type: ignore[attr-defined]  # a TIFF has it
    if count > MOST_PAGES:
        raise Invalid(f"“{name}” has {count} pages; {MOST_PAGES} is the most.", where="file", fix="Send it in parts.")
    for number, one in enumerate(ImageSequence.Iterator(opened)):
        _check_size(one, name)
        page = one.convert("L" if one.mode in ("1", "L") else "RGB")
        page.info.clear()
        page.save(
            out / KEPT,
            "PDF",
            append=number > 0,
            resolution=page.width / A4_INCHES,
            quality=JPEG_QUALITY,
            creationDate=EVEN,
            modDate=EVEN,
        )
    return {"media_type": "application/pdf", "width": None, "height": None}


def _cut(picture: Image.Image, cut: Cut) -> Image.Image:
    if cut.turn:
        picture = picture.transpose(_TURNS[cut.turn])
    if cut.crop:
        left, top, right, bottom = cut.crop
        wide, high = picture.size
        x, y = min(int(left * wide), wide - 1), min(int(top * high), high - 1)
        picture = picture.crop((x, y, max(round(right * wide), x + 1), max(round(bottom * high), y + 1)))
    return picture


@contextmanager
def joined(pages: Sequence[Callable[[], IO[bytes]]], within: Path | str | None = None) -> Iterator[Path]:
    """One PDF of pictures that we wrote ourselves, a page each; every page as wide as A4 is (210 mm).

    ``pages`` open their pictures. One lies in memory at a time: forty photographs together would take more than a
    gigabyte. ``within`` is the folder for what is made meanwhile.
    """
    widest = 0
    for page in pages:
        with page() as content, _ours(content) as picture:
            widest = max(widest, picture.width)
    with tempfile.TemporaryDirectory(dir=within) as folder:
        target = Path(folder) / "pages.pdf"
        for number, page in enumerate(pages):
            with page() as content, _ours(content) as picture:
                whole = picture if picture.mode in ("RGB", "L") else _on_white(picture)
                whole.save(
                    target,
                    "PDF",
                    append=number > 0,
                    resolution=widest / A4_INCHES,
                    quality=JPEG_QUALITY,
                    creationDate=EVEN,
                    modDate=EVEN,
                )
        yield target


def _ours(content: IO[bytes]) -> Image.Image:
    return Image.open(content, formats=("JPEG", "PNG", "WEBP"))


def _on_white(picture: Image.Image) -> Image.Image:
    clear = picture.convert("RGBA")
    ground = Image.new("RGB", clear.size, "white")
    ground.paste(clear, mask=clear)
    return ground


def _opener(media_type: str) -> str:
    if media_type == "image/heic":
        import pillow_heif  # noqa: PLC0415 - only for the pictures that need it

        pillow_heif.register_heif_opener()
    return OPENERS[media_type]


def _check_size(picture: Image.Image, name: str, frames: int = 1) -> None:
    if picture.width * picture.height * frames > MOST_PIXELS:
        of = f"{frames} times " if frames > 1 else ""
        raise Invalid(
            f"“{name}” has {of}{picture.width} × {picture.height} pixels; "
            f"{MOST_PIXELS // 1_000_000} million is the most.",
            where="file",
            fix="Make it smaller, or photograph it in parts.",
        )


def _plain(picture: Image.Image, came_as: str) -> tuple[Image.Image, str]:
    """The picture in a mode its format can hold, without any of the original's side data; and that format."""
    clear = picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info
    save_as = _SAVED_AS.get(came_as, "PNG" if clear else "JPEG")
    grey = picture.mode in ("1", "L", "I;16")
    mode = "RGBA" if clear and save_as != "JPEG" else "L" if grey else "RGB"
    if picture.mode == "I;16":  # sixteen bits of grey: the upper eight
        picture = picture.point(lambda value: value / 256).convert("L")
    plain = picture if picture.mode == mode else picture.convert(mode)
    plain.info.clear()
    return plain, save_as


def _encode(picture: Image.Image, target: Path, save_as: str, profile: bytes | None) -> None:
    how = {"compress_level": 6} if save_as == "PNG" else {"quality": JPEG_QUALITY}
    picture.save(target, save_as, **how, **({"icc_profile": profile} if profile else {}))


def thumbnails(picture: Image.Image) -> Iterator[tuple[str, Image.Image]]:
    """The thumbnails of a picture with their names.

    Each is made from the next larger one, which is much less to look through.
    """
    now = picture
    for label, side in sorted(THUMBNAILS.items(), key=lambda one: -one[1]):
        share = min(side / max(now.size), 1)
        size = max(round(now.width * share), 1), max(round(now.height * share), 1)
        now = now.resize(size, Image.Resampling.LANCZOS, reducing_gap=2.0)
        yield label, now


def main(path: str, out: str, media_type: str, name: str, turn: str, crop: str) -> int:
    """One picture within its limits."""
    fenced.limit(MEMORY, SECONDS, MOST_WRITTEN)

    def done() -> dict[str, Any]:
        with open(path, "rb") as source:
            return clean(source, Path(out), media_type, name, Cut.read(turn, crop))

    return fenced.tell(done)
