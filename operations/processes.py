"""Child processes that never outlive us, and those that an earlier run left behind."""

from __future__ import annotations

import ctypes
import os
import random
import signal
import socket
import subprocess
import time
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path
from typing import IO

PR_SET_PDEATHSIG = 1


def _die_with_parent() -> None:
    """Ask the kernel to end this process when its parent is gone, also when that was killed."""
    ctypes.CDLL(None).prctl(PR_SET_PDEATHSIG, signal.SIGTERM)
    signal.signal(signal.SIGINT, signal.SIG_IGN)


def start(
    words: list[str],
    log: IO[bytes] | int,
    environment: Mapping[str, str] | None = None,
    passed: Sequence[int] = (),
) -> subprocess.Popen[bytes]:
    """Start a child that ends when we do; Ctrl-C reaches it through us only. ``passed`` are descriptors it inherits."""
    return subprocess.Popen(
        words,
        stdout=log,
        stderr=subprocess.STDOUT,
        stdin=subprocess.DEVNULL,
        env=environment,
        pass_fds=passed,
        preexec_fn=_die_with_parent,
    )


def stop(child: subprocess.Popen[bytes], patience: float = 20) -> None:
    """End a child cleanly, or by force after a while."""
    if child.poll() is None:
        child.terminate()
        try:
            child.wait(patience)
        except subprocess.TimeoutExpired:
            child.kill()
            child.wait()


def end_left_behind(pid_file: Path, mark: str, patience: float = 30) -> None:
    """End a process of an earlier run, where the pid still is that process: ``mark`` stands in its command line."""
    try:
        pid = int(pid_file.read_text())
        words = Path(f"/proc/{pid}/cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
    except (FileNotFoundError, ValueError, ProcessLookupError):
        return
    if mark not in words or pid == os.getpid():
        return
    os.kill(pid, signal.SIGTERM)
    if not wait_until(lambda: not Path(f"/proc/{pid}").exists(), patience):
        os.kill(pid, signal.SIGKILL)
        wait_until(lambda: not Path(f"/proc/{pid}").exists(), 5)


def wait_until(is_so: Callable[[], bool], patience: float, every: float = 0.05) -> bool:
    """Wait for something; False when it did not come in time."""
    end = time.monotonic() + patience
    while time.monotonic() < end:
        if is_so():
            return True
        time.sleep(every)
    return is_so()


def free_port() -> int:
    """A port on loopback that nobody listens on, and that no connection going out is given.

    The system gives outgoing connections ports of a range of its own; a port out of that range, free now, is often
    taken by the time somebody wants to listen there.
    """
    given = Path("/proc/sys/net/ipv4/ip_local_port_range")
    end = int(given.read_text().split()[0]) if given.exists() else 32_768
    ports = range(max(1_024, end - 16_000), end)
    return next(port for port in random.sample(ports, len(ports)) if is_free(port))


def is_free(port: int) -> bool:
    """Whether a loopback port can be had."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
        return True
