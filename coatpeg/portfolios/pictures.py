"""Pictures: turned the right way up, stripped of place and device data, given thumbnails.

HEIC becomes JPEG, since browsers do not show it; the other formats stay what they are. Only pixels
and the colour profile go into what is kept.
"""

from __future__ import annotations

import io
from contextlib import ExitStack
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import IO, BinaryIO, cast

import pillow_heif
from PIL import Image, ImageOps

from coatpeg.core.errors import Invalid

pillow_heif.register_heif_opener()

MOST_PIXELS = 80_000_000
"""A phone's largest panorama is about 60 million pixels; decoded, this is 240 MB."""
JPEG_QUALITY = 92
A4_INCHES = 8.27
_TURNS = {90: Image.Transpose.ROTATE_270, 180: Image.Transpose.ROTATE_180, 270: Image.Transpose.ROTATE_90}
"""Pillow turns against the clock."""
THUMBNAILS = {"small": 360, "large": 1600}
"""Longest side in pixels: a card at double density, and a full desk."""

_FORMATS = {
    "image/jpeg": ("JPEG", "image/jpeg"),
    "image/heic": ("JPEG", "image/jpeg"),
    "image/png": ("PNG", "image/png"),
    "image/webp": ("WEBP", "image/webp"),
}


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


WHOLE = Cut()
Image.MAX_IMAGE_PIXELS = None  # the limit is checked below, before any pixel is decoded, with a sentence


@dataclass(frozen=True, slots=True)
class CleanPicture:
    """What is kept of a picture: its bytes, type, size in pixels, and the thumbnails (JPEG or PNG) by name."""

    data: bytes
    media_type: str
    width: int
    height: int
    thumbnails: dict[str, bytes]


def clean(source: BinaryIO, media_type: str, name: str, cut: Cut = WHOLE) -> CleanPicture:
    """Decode a picture whole and write it anew; ``Invalid`` where it is broken or too large."""
    try:
        with Image.open(source, formats=_openers(media_type)) as opened:
            _check_size(opened, name)
            opened.load()
            upright = _cut(ImageOps.exif_transpose(opened), cut)
            profile = opened.info.get("icc_profile")
    except Invalid:
        raise
    except Exception as error:
        raise Invalid(
            f"“{name}” is a picture that cannot be read to its end: it is broken or only partly there.",
            where="file",
            fix="Open it on your device to see; take or save it again and add that.",
        ) from error
    save_as, kept_type = _FORMATS[media_type]
    picture = _plain_mode(upright, save_as)
    return CleanPicture(
        _encoded(picture, save_as, profile),
        kept_type,
        picture.width,
        picture.height,
        thumbnails(picture, profile),
    )


def _cut(picture: Image.Image, cut: Cut) -> Image.Image:
    if cut.turn:
        picture = picture.transpose(_TURNS[cut.turn])
    if cut.crop:
        left, top, right, bottom = cut.crop
        wide, high = picture.size
        x, y = min(int(left * wide), wide - 1), min(int(top * high), high - 1)
        picture = picture.crop((x, y, max(round(right * wide), x + 1), max(round(bottom * high), y + 1)))
    return picture


def joined(pages: list[IO[bytes]]) -> bytes:
    """One PDF of pictures that we wrote ourselves, a page each; every page as wide as A4 is (210 mm)."""
    target = io.BytesIO()
    with ExitStack() as stack:
        opened = [stack.enter_context(Image.open(one, formats=("JPEG", "PNG", "WEBP"))) for one in pages]
        whole = [one if one.mode in ("RGB", "L") else _on_white(one) for one in opened]
        dots = max(one.width for one in whole) / A4_INCHES
        even = datetime(2000, 1, 1, tzinfo=UTC).timetuple()  # the same pages make the same bytes
        whole[0].save(
            target,
            "PDF",
            save_all=True,
            append_images=whole[1:],
            resolution=dots,
            quality=JPEG_QUALITY,
            creationDate=even,
            modDate=even,
        )
    return target.getvalue()


def _on_white(picture: Image.Image) -> Image.Image:
    clear = picture.convert("RGBA")
    ground = Image.new("RGB", clear.size, "white")
    ground.paste(clear, mask=clear)
    return ground


def _openers(media_type: str) -> tuple[str, ...]:
    return ("HEIF",) if media_type == "image/heic" else (_FORMATS[media_type][0],)


def _check_size(picture: Image.Image, name: str) -> None:
    if picture.width * picture.height > MOST_PIXELS:
        raise Invalid(
            f"“{name}” has {picture.width} × {picture.height} pixels; {MOST_PIXELS // 1_000_000} million is the most.",
            where="file",
            fix="Make it smaller, or photograph it in parts.",
        )


def _plain_mode(picture: Image.Image, save_as: str) -> Image.Image:
    """The picture in a mode its format can hold; a copy without any of the original's side data."""
    has_alpha = picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info
    if save_as == "JPEG":
        mode = "L" if picture.mode == "L" else "RGB"
    elif has_alpha:
        mode = "RGBA"
    else:
        mode = "L" if picture.mode == "L" else "RGB"
    plain = picture.convert(mode)
    plain.info.clear()
    return plain


def _encoded(picture: Image.Image, save_as: str, profile: bytes | None) -> bytes:
    target = io.BytesIO()
    extra = {"icc_profile": profile} if profile else {}
    if save_as == "PNG":
        picture.save(target, save_as, compress_level=6, **extra)
    else:
        picture.save(target, save_as, quality=JPEG_QUALITY, **extra)
    return target.getvalue()


def thumbnails(picture: Image.Image, profile: bytes | None = None) -> dict[str, bytes]:
    """The thumbnails of a picture by name.

    Each is made from the next larger one, which is much less to look through.
    """
    found: dict[str, bytes] = {}
    now = picture
    for label, side in sorted(THUMBNAILS.items(), key=lambda one: -one[1]):
        now = now.copy()
        now.thumbnail((side, side), Image.Resampling.LANCZOS)
        found[label] = _encoded(now, "PNG" if now.mode == "RGBA" else "JPEG", profile)
    return found
