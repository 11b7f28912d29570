"""Keeping the application's processes alive: whatever ends is started again, and the log says it once."""

from __future__ import annotations

import subprocess
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

from operations import processes
from operations.install import say

LOOK = 0.2
"""Seconds between two looks at the processes."""
QUIET = 60.0
"""Seconds that a process has to live for its earlier ends to be forgotten."""
LONGEST_WAIT = 30.0


@dataclass
class Service:
    """One process by name, and how it is started. Where it keeps ending, it is given ever more time between starts."""

    name: str
    begin: Callable[[], subprocess.Popen[bytes]]
    child: subprocess.Popen[bytes] | None = None
    begun_at: float = 0.0
    ends: int = 0
    next_at: float = field(default=0.0)
    quiet: float = QUIET

    def start(self, now: float) -> None:
        """Start it."""
        self.child, self.begun_at, self.next_at = self.begin(), now, 0.0

    def wait_after(self, now: float) -> float:
        """How long to wait after it has ended: nothing the first time, then 1, 2, 4 … seconds."""
        self.ends = 1 if now - self.begun_at > self.quiet else self.ends + 1
        return 0.0 if self.ends == 1 else min(2.0 ** (self.ends - 2), LONGEST_WAIT)


class Supervisor:
    """Watches services in the order they were given; ends them in the other one."""

    def __init__(self, log: Path, *services: Service) -> None:
        self.log = log
        self.services = services

    def look(self) -> None:
        """Start again what has ended."""
        now = time.monotonic()
        for one in self.services:
            if one.child is None and now >= one.next_at:
                one.start(now)
            elif one.child is not None and one.child.poll() is not None:
                code = one.child.returncode
                wait = one.wait_after(now)
                how = f"was ended by signal {-code}" if code < 0 else f"ended with code {code}"
                self._say(f"{one.name} {how}; it is started again{f' in {wait:.0f} s' if wait else ''}.")
                one.child, one.next_at = None, now + wait

    def watch(self) -> None:
        """Look again and again, until an exception (Ctrl-C) ends it."""
        while True:
            self.look()
            time.sleep(LOOK)

    def stop(self) -> None:
        """End all of them, the last one first."""
        for one in reversed(self.services):
            if one.child is not None:
                processes.stop(one.child)

    def _say(self, line: str) -> None:
        say(line)
        with open(self.log, "a") as log:
            log.write(f"{time.strftime('%Y-%m-%d %H:%M:%S')} {line}\n")
