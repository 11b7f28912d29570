"""The warm fence: a process that has loaded what looks at pictures and recordings, and forks for each one.

``python -m coatpeg.files.fence FD``: on the socket it is given come requests (JSON: ``module`` and ``words``, with the
pipe to answer on); a child of its own runs ``module.main(*words)`` within the limits which that sets itself. Down the
pipe go the child's number, what it printed, and its exit code, a line each: fewer lines are a child that ended over
the file. Loading all that anew for every picture takes three times as long as a small picture. It ends with whoever
started it, or when nothing was asked for a while.
"""

from __future__ import annotations

import contextlib
import importlib
import json
import os
import select
import signal
import socket
import subprocess
import sys
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path

BASE = Path(__file__).resolve().parents[2]
PASSED_ON = ("PATH", "LANG", "LC_ALL", "TZ")
"""What such a process learns of our environment: where programs are, how text is written. No secret, no address."""
RESTS_AFTER = 300
"""Seconds without a request after which it ends; the next request starts it anew."""
LOADED = ("coatpeg.files.pictures", "coatpeg.files.recordings")
LONGEST_REQUEST = 65_536


def environment() -> dict[str, str]:
    """The environment of every process that touches a stranger's file."""
    kept = {name: os.environ[name] for name in PASSED_ON if name in os.environ}
    return kept | {"PYTHONPATH": str(BASE), "PYTHONIOENCODING": "utf-8"}


@dataclass(slots=True)
class _Warm:
    """The one of this process, started when it is first needed."""

    line: socket.socket | None = None
    process: subprocess.Popen[bytes] | None = None
    owner: int = 0
    lock: threading.Lock = field(default_factory=threading.Lock)


_warm = _Warm()


def _started(*, anew: bool = False) -> socket.socket:
    with _warm.lock:
        mine = _warm.owner == os.getpid() and _warm.process is not None and _warm.process.poll() is None
        if _warm.line is None or anew or not mine:
            ours, theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
            with theirs:
                _warm.process = subprocess.Popen(
                    [sys.executable, "-m", "coatpeg.files.fence", str(theirs.fileno())],
                    env=environment(),
                    pass_fds=[theirs.fileno()],
                    stdin=subprocess.DEVNULL,
                    stdout=subprocess.DEVNULL,
                    stderr=subprocess.DEVNULL,
                )
            if _warm.line is not None:
                _warm.line.close()
            _warm.line, _warm.owner = ours, os.getpid()
        return _warm.line


def ask(module: str, *words: str, seconds: float) -> tuple[int, str] | None:
    """Exit code and output of ``module.main(*words)`` beyond the fence; None where it ended over it or took longer."""
    request = json.dumps({"module": module, "words": words}).encode()
    for anew in (False, True):
        reading, writing = os.pipe()
        with os.fdopen(reading, "rb", buffering=0) as answer:
            try:
                socket.send_fds(_started(anew=anew), [request], [writing])
            except OSError:
                continue  # it has gone to rest, or was ended
            finally:
                os.close(writing)
            told = _read(answer.fileno(), seconds)
        if told:
            lines = told.decode().split("\n")
            return (int(lines[2]), lines[1]) if len(lines) == 3 else None
    return None


def _read(answer: int, seconds: float) -> bytes:
    """All that comes down the pipe; after too long the child is ended, and what it said goes for nothing."""
    told, until = b"", time.monotonic() + seconds
    while True:
        ready, _, _ = select.select([answer], [], [], max(until - time.monotonic(), 0))
        if not ready:
            child = told.partition(b"\n")[0]
            if child.isdigit():
                with contextlib.suppress(ProcessLookupError):
                    os.kill(int(child), signal.SIGKILL)
            return child + b"\n"
        part = os.read(answer, LONGEST_REQUEST)
        if not part:
            return told
        told += part


def _run(module: str, words: list[str], answer: int) -> None:
    """In the child: do it, and say how it went."""
    os.write(answer, f"{os.getpid()}\n".encode())
    os.dup2(answer, 1)
    code = importlib.import_module(module).main(*words)
    sys.stdout.flush()
    os.write(1, f"\n{code}".encode())


def main(descriptor: str) -> None:
    """Serve until whoever started it is gone."""
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    for one in LOADED:
        importlib.import_module(one)
    with socket.socket(fileno=int(descriptor)) as line:
        while select.select([line], [], [], RESTS_AFTER)[0]:
            asked, descriptors, _, _ = socket.recv_fds(line, LONGEST_REQUEST, 1)
            if not asked:
                return
            if os.fork() == 0:
                try:
                    line.close()
                    _run(**json.loads(asked), answer=descriptors[0])
                finally:
                    os._exit(0)
            os.close(descriptors[0])


if __name__ == "__main__":
    main(sys.argv[1])
