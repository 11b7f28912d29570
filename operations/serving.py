"""Starting and stopping the whole application on this machine."""

from __future__ import annotations

import fcntl
import json
import os
import secrets
import shutil
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO

from operations import install, processes
from operations.database import Database
from operations.install import say

PORT = 8710
"""Where the demo answers unless PEG_PORT says otherwise; the next free one where it is taken."""


class Running:
    """The application's folder ``var`` while one run owns it."""

    def __init__(self, home: Path) -> None:
        self.home = home
        self.var = Path(os.environ.get("COATPEG_VAR", home / "var"))
        self.database = Database(self.var / "db")

    def environment(self) -> dict[str, str]:
        """Settings for the application's processes."""
        return {
            **os.environ,
            **self.database.environment(),
            "COATPEG_VAR": str(self.var),
            "COATPEG_SECRET": self._secret(),
            "COATPEG_DEMO": "1",
            "DJANGO_SETTINGS_MODULE": "coatpeg.web.settings",
            "PYTHONPATH": str(self.home),
        }

    def _secret(self) -> str:
        """The secret of this installation, made once."""
        kept = self.var / "secret"
        if not kept.exists():
            kept.touch(mode=0o600)
            kept.write_text(secrets.token_urlsafe(50))
        return kept.read_text()

    def manage(self, *words: str) -> None:
        """Run a management command; its failure ends ours."""
        done = subprocess.run([sys.executable, str(self.home / "manage.py"), *words], env=self.environment())
        if done.returncode:
            raise SystemExit(done.returncode)

    def prepare_folders(self) -> None:
        """The folders that must be there before anything starts."""
        for name in ("incoming", "files", "log", "roster-drop"):
            (self.var / name).mkdir(parents=True, exist_ok=True)

    @contextmanager
    def owned(self) -> Iterator[None]:
        """Own ``var`` alone; a second run says where the first one answers."""
        self.var.mkdir(parents=True, exist_ok=True)
        lock: IO[str] = open(self.var / "lock", "a+")  # noqa: SIM115 - held for as long as the run owns the folder
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            address = (self.var / "address").read_text() if (self.var / "address").exists() else "its address"
            raise SystemExit(f"Coat Peg is running already at {address}. Stop that run first (Ctrl-C).") from None
        try:
            self.prepare_folders()
            self.database.start()
            self.database.create("coatpeg")
            yield
        finally:
            self.database.stop()
            lock.close()


def chosen_port() -> int:
    """PEG_PORT, or the usual one, or the next that is free."""
    asked = os.environ.get("PEG_PORT")
    if asked is not None:
        if not asked.isdigit() or not 0 < int(asked) < 65536:
            raise SystemExit(f"PEG_PORT is “{asked}”, which is not a port. Give a number from 1 to 65535.")
        if not processes.is_free(int(asked)):
            raise SystemExit(f"Port {asked} is in use. Give another one: PEG_PORT=8720 ./peg demo")
        return int(asked)
    return next((port for port in range(PORT, PORT + 50) if processes.is_free(port)), 0) or processes.free_port()


def serve(running: Running, port: int) -> subprocess.Popen[bytes]:
    """Start the application's web processes; returns once it answers."""
    pid_file = running.var / "web.pid"
    processes.end_left_behind(pid_file, "coatpeg.web.wsgi")
    with open(running.var / "log" / "web.log", "ab") as log:
        child = processes.start(
            [
                sys.executable,
                "-m",
                "gunicorn",
                "coatpeg.web.wsgi:application",
                f"--bind=127.0.0.1:{port}",
                "--worker-class=gthread",
                "--workers=2",
                "--threads=4",
                "--timeout=120",
                "--graceful-timeout=5",
                f"--pid={pid_file}",
                "--no-control-socket",
            ],
            log,
            running.environment(),
        )
    if not processes.wait_until(lambda: _healthy(port, child), 60):
        raise SystemExit(f"The application did not answer; see {running.var / 'log' / 'web.log'}")
    return child


def keep_house(running: Running) -> subprocess.Popen[bytes]:
    """Start the background process beside the application."""
    with open(running.var / "log" / "house.log", "ab") as log:
        manage = [sys.executable, str(running.home / "manage.py"), "keep_house"]
        return processes.start(manage, log, running.environment())


def _healthy(port: int, child: subprocess.Popen[bytes]) -> bool:
    if child.poll() is not None:
        raise SystemExit("The application stopped by itself; its log is var/log/web.log")
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/health", timeout=2) as answer:
            return bool(json.load(answer)["ok"])
    except (urllib.error.URLError, OSError, ValueError):
        return False


def demo(home: Path, *, fresh: bool) -> int:
    """Run Coat Peg with its demo world until Ctrl-C."""
    install.front_end(home)
    running = Running(home)
    port = chosen_port()
    # Also where a shell started us in the background, with Ctrl-C ignored.
    for one in (signal.SIGINT, signal.SIGTERM):
        signal.signal(one, lambda *_: _interrupt())
    with running.owned():
        if fresh:
            running.database.run("DROP DATABASE IF EXISTS coatpeg")
            running.database.create("coatpeg")
            shutil.rmtree(running.var / "files", ignore_errors=True)
            running.prepare_folders()
        running.manage("start_demo")
        child = serve(running, port)
        house = keep_house(running)
        address = f"http://127.0.0.1:{port}"
        (running.var / "address").write_text(address)
        _greet(address)
        try:
            while child.poll() is None:
                time.sleep(0.3)
            say("The application stopped by itself; its log is var/log/web.log")
            return 1
        except KeyboardInterrupt:
            say("\nStopping")
            return 0
        finally:
            processes.stop(house)
            processes.stop(child)


def _interrupt() -> None:
    raise KeyboardInterrupt


def _greet(address: str) -> None:
    from coatpeg.web.demo import SIGN_INS  # noqa: PLC0415 - not before the environment is there

    say(f"\n  Coat Peg answers at {address}\n\n  Demo sign-ins (or press a button on the first page):")
    for one in SIGN_INS:
        say(f"    {one['username']:<10} {one['password']:<10} {one['name']}, {one['what']}")
    say("\n  Ctrl-C stops everything. The data stays; ./peg demo --fresh starts the demo world again.\n")


def check(home: Path) -> int:
    """Re-derive what is kept; uses the running database, or starts it for a moment."""
    running = Running(home)
    try:
        running.database.run("SELECT 1")
    except Exception:  # noqa: BLE001 - whatever the reason, it does not answer: start it
        with running.owned():
            running.manage("check_records")
        return 0
    running.manage("check_records")
    return 0
