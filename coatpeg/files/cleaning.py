"""A stranger's picture, sound or film, looked at and cleaned: always in a process of its own (``files.fenced``).

A few at a time in each process of ours, so that a class that sends its photographs together takes neither all of the
memory nor all of the processor. What waits here is safe already.
"""

from __future__ import annotations

import subprocess
from pathlib import Path
from threading import BoundedSemaphore
from typing import Any

from coatpeg.files import fenced, pictures, recordings, remuxing
from coatpeg.files.pictures import WHOLE, Cut

AT_ONCE = 2
_pictures, _recordings = BoundedSemaphore(AT_ONCE), BoundedSemaphore(AT_ONCE)
LONGEST = 3
"""Seconds on the wall for each second of processor: a machine may be busy."""


def picture(path: Path, out: Path, media_type: str, name: str, cut: Cut = WHOLE) -> dict[str, Any]:
    """Clean a picture into a folder, as ``pictures.clean`` does; ``Invalid`` where it cannot be kept."""
    words = (str(path), str(out), media_type, name, *cut.written())
    with _pictures:
        return fenced.told(name, "coatpeg.files.pictures", *words, seconds=pictures.SECONDS * LONGEST)


def recording(path: Path, media_type: str, name: str) -> tuple[Path, str]:
    """A recording without what tells of place, device and person: a new file beside ``path``, or ``path`` itself.

    And its true media type. The streams are copied into a new container (``files.remuxing``); where that cannot be
    done, what tells is overwritten where it stands. ``Invalid`` where it is broken or not all there.
    """
    with _recordings:
        words = (str(path), media_type, name)
        found = fenced.told(name, "coatpeg.files.recordings", "look", *words, seconds=recordings.SECONDS * LONGEST)
        media_type = found["media_type"]
        made = path.with_name(f"{path.name}.clean")
        try:
            forms = (str(path), str(made), remuxing.FORMATS[media_type])
            if fenced.run("coatpeg.files.remuxing", *forms, seconds=remuxing.SECONDS).returncode == 0:
                return made, media_type
        except subprocess.TimeoutExpired:
            pass
        made.unlink(missing_ok=True)
        words = (str(path), media_type, name)
        fenced.told(name, "coatpeg.files.recordings", "blank", *words, seconds=recordings.SECONDS * LONGEST)
        return path, media_type
