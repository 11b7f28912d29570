"""Sound and film without what tells of place, device and person: the streams are copied into a new container.

``python -m coatpeg.files.remuxing IN OUT FORMAT`` (PyAV, the libraries of FFmpeg), run fenced. Nothing is decoded or
coded anew: picture and sound stay bit for bit, turned as they were. Left behind are all tags, chapters, cover
pictures, timed data and boxes of the maker's own, because only sound and film streams are copied. Exit code 3: it
cannot be done.
"""

from __future__ import annotations

import sys

import av
from av.container import InputContainer, OutputContainer

from coatpeg.files import fenced

FORMATS = {
    "audio/mp4": "mp4",
    "video/mp4": "mp4",
    "video/quicktime": "mov",
    "audio/webm": "webm",
    "video/webm": "webm",
    "audio/ogg": "ogg",
    "audio/mpeg": "mp3",
    "audio/wav": "wav",
    "audio/flac": "flac",
}
"""The container a recording of each kind is copied into: the one it came in."""
MEMORY = 1024 * 1024 * 1024
SECONDS = 300
"""A film of two gigabytes is read and written in a tenth of it."""
OPTIONS = {"mp3": {"id3v2_version": "0", "write_id3v1": "0"}}


def copy(source: InputContainer, target: OutputContainer) -> int:
    """Copy sound and film; returns how many packets."""
    copied = {
        one.index: target.add_stream_from_template(one)
        for one in source.streams
        if one.type == "audio" or (one.type == "video" and not one.disposition & av.stream.Disposition.attached_pic)
    }
    for one in copied.values():
        one.metadata.clear()
    count = 0
    for packet in source.demux([one for one in source.streams if one.index in copied]):
        if packet.dts is not None:
            packet.stream = copied[packet.stream.index]
            target.mux(packet)
            count += 1
    return count


def main(source: str, target: str, form: str) -> int:
    """One recording within its limits."""
    fenced.limit(MEMORY, SECONDS, 8 * 1024**3)
    av.logging.set_level(av.logging.PANIC)
    options = {"fflags": "+bitexact", **OPTIONS.get(form, {})}
    try:
        with av.open(source) as came, av.open(target, "w", format=form, options=options) as kept:
            done = copy(came, kept)
    except (av.error.FFmpegError, MemoryError, ValueError, OSError) as error:
        sys.stderr.write(f"{type(error).__name__}: {error}")
        return 3
    return 0 if done else 3


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:4]))
