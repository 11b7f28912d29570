"""Small sound and video files made byte by byte, after the formats' own standards (named in ``core.portfolios.containers``)."""

from __future__ import annotations

import io
import wave
from fractions import Fraction

import av
from PIL import Image


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


REAL = (
    ("a.mp4", "mp4", "libx264", "aac"),
    ("a.mov", "mov", "libx264", "aac"),
    ("a.webm", "webm", "libvpx", "libopus"),
    ("a.m4a", "ipod", None, "aac"),
    ("a.mp3", "mp3", None, "libmp3lame"),
    ("a.ogg", "ogg", None, "libopus"),
    ("a.wav", "wav", None, "pcm_s16le"),
    ("a.flac", "flac", None, "flac"),
)
"""Kinds of recording that browsers play: name, container, codec of the picture, of the sound."""
SAID = {
    "location": PLACE.decode(),
    "com.apple.quicktime.location.ISO6709": PLACE.decode(),
    "make": "Camera maker",
    "model": "Model 7",
    "artist": "Thandi Dube",
    "title": "Thandi at home",
    "comment": "at home",
}


def real(form: str, video: str | None, audio: str | None) -> bytes:
    """A short recording as FFmpeg's libraries write it, with everything in it that tells of place, device and person."""
    target = io.BytesIO()
    options = {"movflags": "use_metadata_tags"} if form in ("mp4", "mov") else {}
    with av.open(target, "w", format=form, options=options) as made:
        made.metadata.update(SAID)
        picture = made.add_stream(video, rate=10) if video else None
        sound_ = made.add_stream(audio, rate=48_000) if audio else None
        if picture is not None:
            picture.width, picture.height, picture.pix_fmt = 64, 48, "yuv420p"
            for grey in range(0, 200, 40):
                made.mux(picture.encode(av.VideoFrame.from_image(Image.new("RGB", (64, 48), (grey, 90, 60)))))
            made.mux(picture.encode(None))
        if sound_ is not None:
            samples = sound_.codec_context.frame_size or 1024
            for number in range(8):
                frame = av.AudioFrame(sound_.codec_context.format.name, sound_.layout.name, samples)
                for plane in frame.planes:
                    plane.update(bytes(plane.buffer_size))
                frame.sample_rate, frame.pts, frame.time_base = 48_000, number * samples, Fraction(1, 48_000)
                made.mux(sound_.encode(frame))
            made.mux(sound_.encode(None))
    return target.getvalue()


def packets(data: bytes) -> list[bytes]:
    """What is coded in a recording, packet by packet."""
    with av.open(io.BytesIO(data)) as opened:
        return [bytes(packet) for packet in opened.demux() if packet.dts is not None]


def turned(film_: bytes) -> bytes:
    """The same film with a quarter turn in its track's head (ISO/IEC 14496-12, 8.3.2: the matrix)."""
    one, none = (1 << 16).to_bytes(4, "big"), bytes(4)
    straight = one + none * 3 + one + none * 3 + (1 << 30).to_bytes(4, "big")
    back = (-(1 << 16)).to_bytes(4, "big", signed=True)
    quarter = none + one + none + back + none * 4 + (1 << 30).to_bytes(4, "big")
    at = film_.index(straight, film_.index(b"tkhd"))
    return film_[:at] + quarter + film_[at + len(straight) :]
