"""Starting and stopping the whole application on this machine."""

from __future__ import annotations

import fcntl
import hashlib
import json
import os
import secrets
import shutil
import signal
import socket
import subprocess
import sys
import urllib.error
import urllib.request
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import IO

import MySQLdb

from operations import install, processes
from operations.database import Database
from operations.install import say
from operations.supervising import Service, Supervisor

SERVERS = ("1", "2")
"""Names of the processes that answer, on one socket; two cores have two."""
WORKERS = ("1", "2")
"""Names of the workers in the background; another one is a name more."""
PORT = 8710
"""Where the demo answers unless PEG_PORT says otherwise; the next free one where it is taken."""


class Running:
    """The application's folder ``var`` while one run owns it."""

    def __init__(self, home: Path, var: Path | None = None) -> None:
        self.home = home
        self.address: str | None = None
        self.var = var or Path(os.environ.get("COATPEG_VAR", home / "var"))
        self.database = Database(self.var / "db")

    def environment(self) -> dict[str, str]:
        """Settings for the application's processes."""
        reached = {"COATPEG_ADDRESS": self.address} if self.address else {}
        return {
            **reached,
            **os.environ,  # who runs it behind another address has said so
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

    def bring_up(self) -> None:
        """The database up to date, the demo world in it; not asked again while it is this version's already.

        What says so lies with the database itself, so that it goes where the database goes, and names the migrations
        that stand in it, so that a database brought back from elsewhere is asked again.
        """
        ready, version = self.database.home / "ready", _version(self.home)
        if ready.exists() and ready.read_text() == f"{version} {self._migrated()}":
            return
        ready.unlink(missing_ok=True)
        self.manage("start_demo")
        ready.write_text(f"{version} {self._migrated()}")

    def _migrated(self) -> str:
        """How many migrations stand in the database, and which is the last."""
        try:
            return str(self.database.run("SELECT COUNT(*), MAX(id) FROM coatpeg.django_migrations"))
        except MySQLdb.Error:
            return "none"

    def prepare_folders(self) -> None:
        """The folders that must be there before anything starts; what a killed run left half-made is gone.

        Uploads that are not whole yet stay: they are gone on with.
        """
        for name in ("incoming", "files", "log", "roster-drop"):
            (self.var / name).mkdir(parents=True, exist_ok=True)
        for left in (self.var / "incoming").iterdir():
            if left.is_dir() and left.name != UPLOADS:
                shutil.rmtree(left, ignore_errors=True)
            elif not left.is_dir():
                left.unlink(missing_ok=True)

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


def _version(home: Path) -> str:
    """What of this version a data folder is brought up to: all migrations, packages, and what the demo loads."""
    digest = hashlib.sha256()
    read = [*home.glob("coatpeg/*/migrations/*.py"), *home.glob("demo/*.py"), home / "requirements" / "app.txt"]
    for path in sorted(read):
        digest.update(path.read_bytes())
    return digest.hexdigest()


def chosen_port() -> int:
    """PEG_PORT, or the usual one, or the next that is free.

    Whether the one that is asked for can be had ``listen`` finds out: a run that was killed may have it still.
    """
    asked = os.environ.get("PEG_PORT")
    if asked is not None:
        if not asked.isdigit() or not 0 < int(asked) < 65536:
            raise SystemExit(f"PEG_PORT is “{asked}”, which is not a port. Give a number from 1 to 65535.")
        return int(asked)
    return next((port for port in range(PORT, PORT + 50) if processes.is_free(port)), 0) or processes.free_port()


def listen(running: Running, port: int) -> socket.socket:
    """The socket at which the application answers, taken over from a run that was killed."""
    for name in SERVERS:
        processes.end_left_behind(running.var / f"server-{name}.pid", SERVER)
    listening = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind(("127.0.0.1", port))
    except OSError as refused:
        listening.close()
        raise SystemExit(IN_USE.format(port)) from refused
    listening.listen(socket.SOMAXCONN)
    return listening


UPLOADS = "parts"
"""The folder of uploads in ``incoming`` (``coatpeg.files.uploads``)."""
SERVER = "coatpeg.web.serve"
IN_USE = "Port {} is in use. Give another one: PEG_PORT=8720 ./peg demo"


def begin_serving(running: Running, listening: socket.socket, name: str) -> subprocess.Popen[bytes]:
    """Begin one of the processes that answer."""
    with open(running.var / "log" / "web.log", "ab") as log:
        words = [sys.executable, "-m", SERVER, str(listening.fileno())]
        child = processes.start(words, log, running.environment(), passed=[listening.fileno()])
    (running.var / f"server-{name}.pid").write_text(str(child.pid))
    return child


def serve(running: Running, listening: socket.socket) -> list[subprocess.Popen[bytes]]:
    """Start the processes that answer; returns once they do."""
    children = [begin_serving(running, listening, name) for name in SERVERS]
    port = listening.getsockname()[1]
    if not processes.wait_until(lambda: _healthy(port, children), 60):
        raise SystemExit(f"The application did not answer; see {running.var / 'log' / 'web.log'}")
    return children


def begin_working(running: Running, name: str) -> subprocess.Popen[bytes]:
    """Begin a worker for what is done in the background."""
    with open(running.var / "log" / "work.log", "ab") as log:
        # Behind those that answer: somebody waits for these.
        manage = ["nice", "-n", "5", sys.executable, str(running.home / "manage.py"), "work", "--name", name]
        return processes.start(manage, log, running.environment())


def _healthy(port: int, children: Sequence[subprocess.Popen[bytes]]) -> bool:
    if any(child.poll() is not None for child in children):
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
    running.address = address = f"http://127.0.0.1:{port}"
    # Also where a shell started us in the background, with Ctrl-C ignored.
    for one in (signal.SIGINT, signal.SIGTERM):
        signal.signal(one, lambda *_: _interrupt())
    with running.owned():
        # Before anything is thrown away, and before the minute that loading takes: a port that
        # somebody else has is told at once, and nobody gets it meanwhile. Who opens the address
        # early waits.
        listening = listen(running, port)
        if fresh:
            (running.database.home / "ready").unlink(missing_ok=True)
            running.database.run("DROP DATABASE IF EXISTS coatpeg")
            running.database.create("coatpeg")
            shutil.rmtree(running.var / "files", ignore_errors=True)
            running.prepare_folders()
        running.bring_up()
        supervisor = Supervisor(
            running.var / "log" / "peg.log",
            Service("The database", running.database.spawn, running.database.child),
            *(
                Service(f"Server {name}", partial(begin_serving, running, listening, name), child)
                for name, child in zip(SERVERS, serve(running, listening), strict=True)
            ),
            *(Service(f"Worker {name}", partial(begin_working, running, name)) for name in WORKERS),
        )
        (running.var / "address").write_text(address)
        try:
            _greet(address)
            supervisor.watch()
        except KeyboardInterrupt:
            say("\nStopping")
        finally:
            supervisor.stop()
    return 0


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
