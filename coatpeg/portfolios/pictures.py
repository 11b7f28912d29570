"""Pictures: turned the right way up, stripped of place and device data, given thumbnails.

HEIC becomes JPEG, since browsers do not show it; the other formats stay what they are. Only pixels
and the colour profile go into what is kept.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import BinaryIO

import pillow_heif
from PIL import Image, ImageOps

from coatpeg.core.errors import Invalid

pillow_heif.register_heif_opener()

MOST_PIXELS = 80_000_000
"""A phone's largest panorama is about 60 million pixels; decoded, this is 240 MB."""
JPEG_QUALITY = 92
THUMBNAILS = {"small": 360, "large": 1600}
"""Longest side in pixels: a card at double density, and a full desk."""

_FORMATS = {
    "image/jpeg": ("JPEG", "image/jpeg"),
    "image/heic": ("JPEG", "image/jpeg"),
    "image/png": ("PNG", "image/png"),
    "image/webp": ("WEBP", "image/webp"),
}
Image.MAX_IMAGE_PIXELS = None  # the limit is checked below, before any pixel is decoded, with a sentence


@dataclass(frozen=True, slots=True)
class CleanPicture:
    """What is kept of a picture: its bytes, type, size in pixels, and the thumbnails (JPEG or PNG) by name."""

    data: bytes
    media_type: str
    width: int
    height: int
    thumbnails: dict[str, bytes]


def clean(source: BinaryIO, media_type: str, name: str) -> CleanPicture:
    """Decode a picture whole and write it anew; ``Invalid`` where it is broken or too large."""
    try:
        with Image.open(source, formats=_openers(media_type)) as opened:
            _check_size(opened, name)
            opened.load()
            upright = ImageOps.exif_transpose(opened)
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
        {label: _thumbnail(picture, side, profile) for label, side in THUMBNAILS.items()},
    )


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


def _thumbnail(picture: Image.Image, side: int, profile: bytes | None) -> bytes:
    small = picture.copy()
    small.thumbnail((side, side), Image.Resampling.LANCZOS)
    return _encoded(small, "PNG" if small.mode == "RGBA" else "JPEG", profile)
