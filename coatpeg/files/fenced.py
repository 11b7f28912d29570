"""Running our own code on a stranger's file: in a process of its own, with little memory, little time, and none of the
application's environment.
"""

from __future__ import annotations

import json
import logging
import os
import resource
import subprocess
import sys
from collections.abc import Callable, Mapping
from pathlib import Path
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.files.fence import ask, environment

BEHIND = 5
"""How much a such process stands back behind those that answer requests (``nice``)."""
log = logging.getLogger("coatpeg.files")


def run(module: str, *words: str, seconds: float, folder: Path | None = None) -> subprocess.CompletedProcess[str]:
    """Run a module of ours; ``TimeoutExpired`` where it takes longer. ``folder`` is where it may leave things."""
    home = {"HOME": str(folder), "TMPDIR": str(folder)} if folder is not None else {}
    inside = [sys.executable, "-m", module, *words]
    return subprocess.run(inside, env=environment() | home, cwd=folder, capture_output=True, text=True, timeout=seconds)


def limit(memory: int, seconds: int, written: int) -> None:
    """Bound this process and those it starts: bytes of address space, seconds of processor, bytes of one file."""
    resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
    resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds))
    resource.setrlimit(resource.RLIMIT_FSIZE, (written, written))
    os.nice(BEHIND)  # whoever waits for a page goes first


REFUSED = 3
"""The exit code with which a process says that it refuses the file; why stands on its output."""


def tell(found: Callable[[], Mapping[str, Any]]) -> int:
    """Inside such a process: write what was found, or why the file is refused, as JSON; returns the exit code."""
    try:
        sys.stdout.write(json.dumps(found()))
    except Invalid as error:
        sys.stdout.write(json.dumps({"what": error.what, "where": error.where, "fix": error.fix}))
        return REFUSED
    return 0


def told(name: str, module: str, *words: str, seconds: float) -> dict[str, Any]:
    """What such a process found in a file called ``name``; ``Invalid`` where it refuses it or ended over it."""
    answer = ask(module, *words, seconds=seconds)
    if answer is not None:
        code, output = answer
        found: dict[str, Any] = json.loads(output)
        if code == REFUSED:
            raise Invalid(**found)
        return found
    log.warning("%s ended over a file", module)
    raise Invalid(
        f"“{name}” takes more time or memory to read than there is for one file.",
        where="file",
        fix="Make it smaller on your device, and add that.",
    )
