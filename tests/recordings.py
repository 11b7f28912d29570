"""Small sound and video files made byte by byte, after the formats' own standards (named in ``core.containers``)."""

from __future__ import annotations

import io
import wave


def box(kind: bytes, *inside: bytes) -> bytes:
    """A box of ISO/IEC 14496-12: its size in four bytes, its type, what is in it."""
    body = b"".join(inside)
    return (len(body) + 8).to_bytes(4, "big") + kind + body


PLACE = b"+51.5074-000.1278/"
"""A place as ISO 6709 writes it."""


def place_box() -> bytes:
    """Where a film was taken, as telephones write it into the user data: QuickTime's international text ``©xyz``."""
    return box(b"udta", box(b"\xa9xyz", len(PLACE).to_bytes(2, "big"), b"\x15\xc7", PLACE))


def film(*more: bytes, brand: bytes = b"isom", handler: bytes = b"vide", payload: int = 64) -> bytes:
    """An MP4 of one track without a picture in it: whole by its structure, which is all that is judged here."""
    head = box(b"ftyp", brand, b"\0\0\2\0", brand, b"mp41")
    named = box(b"hdlr", b"\0" * 8, handler, b"\0" * 12, b"\0")
    movie = box(b"moov", box(b"mvhd", b"\0" * 100), box(b"trak", box(b"tkhd", b"\0" * 84), box(b"mdia", named)), *more)
    return head + movie + box(b"mdat", b"\x2a" * payload)


def element(name: int, *inside: bytes, unknown: bool = False) -> bytes:
    """An element of RFC 8794: its id, its size in eight bytes, what is in it."""
    body = b"".join(inside)
    size = b"\x01\xff\xff\xff\xff\xff\xff\xff" if unknown else b"\x01" + len(body).to_bytes(7, "big")
    return name.to_bytes((name.bit_length() + 7) // 8, "big") + size + body


def webm(*more: bytes, video: bool = False, unknown: bool = False) -> bytes:
    """A WebM of one track, with a cluster that holds nothing."""
    head = b"\x1aE\xdf\xa3\x87\x42\x82\x84webm"  # sizes in one byte, as writers write them
    track = element(0xAE, element(0x83, b"\1" if video else b"\2"))
    parts = (element(0x1654AE6B, track), *more, element(0x1F43B675, b"\0" * 40, unknown=unknown))
    return head + element(0x18538067, *parts, unknown=unknown)


def sound(seconds: float = 0.2) -> bytes:
    """A WAV of silence, by the standard library."""
    target = io.BytesIO()
    with wave.open(target, "wb") as writing:
        writing.setnchannels(1)
        writing.setsampwidth(2)
        writing.setframerate(8000)
        writing.writeframes(b"\0\0" * int(8000 * seconds))
    return target.getvalue()
