"""A MariaDB of the project's own: its own data directory, socket and port, on loopback only."""

from __future__ import annotations

import getpass
import os
import shutil
import subprocess
from pathlib import Path

import MySQLdb

from operations import processes
from operations.install import say

COLLATION = "utf8mb4_uca1400_ai_ci"
RELAXED = [
    "--innodb-flush-log-at-trx-commit=0",
    "--sync-binlog=0",
    "--innodb-doublewrite=0",
    # The server of a test has a thread and a connection for each line a browser holds open, for minutes after its test.
    "--max-connections=1000",
]
"""What tests do without."""


class Database:
    """One private server. ``relaxed`` trades safety against a power cut for speed: tests only."""

    def __init__(self, home: Path, *, relaxed: bool = False) -> None:
        self.home = home
        self.relaxed = relaxed
        self.user = getpass.getuser()
        self.socket = home / "sock"
        self.pid_file = home / "pid"
        self.port = 0
        self._child: subprocess.Popen[bytes] | None = None

    def environment(self) -> dict[str, str]:
        """How the application finds it."""
        return {"COATPEG_DB_HOST": str(self.socket), "COATPEG_DB_USER": self.user}

    def start(self) -> None:
        """Start it, taking over from a run that was killed."""
        self._install()
        processes.end_left_behind(self.pid_file, str(self.home))
        self.port = processes.free_port()
        self.spawn()
        if not processes.wait_until(self._answers, 60):
            raise SystemExit(f"MariaDB did not start; see {self.home / 'error.log'}")

    def spawn(self) -> subprocess.Popen[bytes]:
        """The server's process, begun (anew where it was killed); it answers once it has recovered."""
        owner = [f"--user={self.user}"] if os.geteuid() == 0 else []
        safety = RELAXED if self.relaxed else []
        with open(self.home / "out.log", "ab") as log:
            self._child = processes.start(
                [
                    _server(),
                    "--no-defaults",
                    *owner,
                    f"--datadir={self.home / 'data'}",
                    f"--socket={self.socket}",
                    f"--pid-file={self.pid_file}",
                    f"--tmpdir={self.home / 'tmp'}",
                    "--bind-address=127.0.0.1",
                    f"--port={self.port}",
                    f"--log-error={self.home / 'error.log'}",
                    "--character-set-server=utf8mb4",
                    f"--collation-server={COLLATION}",
                    "--transaction-isolation=READ-COMMITTED",
                    "--skip-name-resolve",
                    "--innodb-buffer-pool-size=256M",
                    *(safety or ["--innodb-flush-log-at-trx-commit=1"]),
                ],
                log,
            )
        return self._child

    @property
    def child(self) -> subprocess.Popen[bytes] | None:
        """The server's process."""
        return self._child

    def stop(self) -> None:
        """Stop it cleanly."""
        if self._child:
            processes.stop(self._child)

    def run(self, *statements: str) -> list[tuple[object, ...]]:
        """Run statements as its owner; the rows of the last one."""
        connection = MySQLdb.connect(unix_socket=str(self.socket), user=self.user, charset="utf8mb4")
        with connection.cursor() as cursor:
            for statement in statements:
                cursor.execute(statement)
            rows = list(cursor.fetchall())
        connection.commit()
        connection.close()
        return rows

    def create(self, name: str) -> None:
        """Make a database where there is none."""
        self.run(f"CREATE DATABASE IF NOT EXISTS `{name}` CHARACTER SET utf8mb4 COLLATE {COLLATION}")

    def _answers(self) -> bool:
        if self._child and self._child.poll() is not None:
            raise SystemExit(f"MariaDB stopped by itself; see {self.home / 'error.log'}")
        try:
            self.run("SELECT 1")
        except MySQLdb.Error:
            return False
        return True

    def _install(self) -> None:
        """Lay out the data directory once; half a one, left by a kill, is laid out again."""
        done = self.home / "installed"
        if done.exists():
            return
        say("Preparing MariaDB's data directory")
        shutil.rmtree(self.home / "data", ignore_errors=True)
        (self.home / "tmp").mkdir(parents=True, exist_ok=True)
        owner = [f"--user={self.user}"] if os.geteuid() == 0 else []
        made = subprocess.run(
            [
                "mariadb-install-db",
                "--no-defaults",
                *owner,
                f"--datadir={self.home / 'data'}",
                "--auth-root-authentication-method=socket",
                f"--auth-root-socket-user={self.user}",
                "--skip-test-db",
                "--skip-name-resolve",
            ],
            capture_output=True,
            text=True,
        )
        if made.returncode:
            raise SystemExit(f"MariaDB's data directory could not be made:\n{made.stdout}{made.stderr}")
        done.touch()


def _server() -> str:
    """The server's program, which Debian keeps outside a plain user's PATH."""
    return shutil.which("mariadbd", path=f"{os.environ['PATH']}:/usr/sbin") or "mariadbd"
