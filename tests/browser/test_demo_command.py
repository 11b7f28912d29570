"""``./peg demo`` as a person runs it: start, use, kill, start again, stop."""

import json
import os
import re
import signal
import subprocess
import tempfile
import threading
import time
import urllib.request
from pathlib import Path

from django.test import SimpleTestCase
from playwright.sync_api import expect

from operations import processes
from tests.browser.case import browsers

HOME = Path(__file__).resolve().parents[2]
FIRST_START, SECOND_START, BACK = 400, 60, 10
"""Seconds of patience; the promised time of the second start is measured by ./peg bench."""
BOARD = 30_000
"""Milliseconds from signing in to the board, on a machine that does nothing else."""


class Run:
    """One ``./peg demo`` with what it printed."""

    def __init__(self, var: str, port: int) -> None:
        environment = {
            name: value for name, value in os.environ.items() if not name.startswith(("COATPEG_", "DJANGO_"))
        }
        environment |= {"COATPEG_VAR": var, "PEG_PORT": str(port)}
        self.process = subprocess.Popen(
            [str(HOME / "peg"), "demo"], env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True
        )
        self.said: list[str] = []
        self.reader = threading.Thread(target=self._read, daemon=True)
        self.reader.start()

    def _read(self) -> None:
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.said.append(line)
        self.process.stdout.close()

    @property
    def text(self) -> str:
        return "".join(self.said)

    def wait_for(self, words: str, patience: float) -> bool:
        return (
            processes.wait_until(lambda: words in self.text or self.process.poll() is not None, patience)
            and words in self.text
        )


def left_over(var: str) -> list[int]:
    """Processes that belong to this run."""
    return [pid for mark in ("mariadbd", "coatpeg.web.serve", "manage.py work") for pid in pids_of(var, mark)]


def pids_of(var: str, mark: str) -> list[int]:
    """Processes of this run by what their command line says."""
    found = []
    for entry in Path("/proc").glob("[0-9]*"):
        try:
            words = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
            environment = (entry / "environ").read_bytes().decode(errors="replace")
        except (FileNotFoundError, ProcessLookupError, PermissionError):
            continue
        if mark in words and (var in words or f"COATPEG_VAR={var}" in environment):
            found.append(int(entry.name))
    return found


def busy() -> float:
    """How many times as long things take as on a machine that does nothing else: tests run beside this one."""
    return max(1.0, os.getloadavg()[0] / (os.cpu_count() or 1))


def alive(pid: int) -> bool:
    return Path(f"/proc/{pid}").exists() and "Z" not in Path(f"/proc/{pid}/stat").read_text().split(")")[1][:3]


def works(port: int) -> bool:
    """Whether the application and its database answer."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/health", timeout=2) as answer:
            return bool(json.load(answer)["ok"])
    except OSError:
        return False


class DemoCommand(SimpleTestCase):
    databases = frozenset({"default"})
    """None is used; but that it is not is watched in a way that a browser, started meanwhile, would break."""

    def test_1_start_use_kill_start_again_and_stop(self) -> None:
        with tempfile.TemporaryDirectory(prefix="coatpeg-demo-") as var:
            port = processes.free_port()
            first = Run(var, port)
            self.assertTrue(first.wait_for(f"answers at http://127.0.0.1:{port}", FIRST_START * busy()), first.text)
            self.assertRegex(first.text, r"okafor\s+larkfield\s+R\. Okafor")
            self.see_the_board(port, "The term's weeks and hand-ins")
            worker, _ = pids_of(var, "manage.py work")
            said = Path(f"/proc/{worker}/environ").read_bytes().split(b"\0")
            self.assertIn(f"COATPEG_ADDRESS=http://127.0.0.1:{port}".encode(), said, "what its mails begin with")

            second = Run(var, processes.free_port())
            second.process.wait(60)
            second.reader.join(10)
            self.assertIn(f"running already at http://127.0.0.1:{port}", second.text)

            self.killed_in_turn(Path(var), port)

            first.process.kill()
            first.process.wait()
            third = Run(var, port)
            self.assertTrue(third.wait_for("answers at", SECOND_START * busy()), third.text)
            self.assertNotIn("Loading the demo world", third.text, "the data is kept")
            self.see_the_board(port, "The term's weeks and hand-ins")
            self.assertEqual(len(pids_of(var, "mariadbd")), 1, "one server, taken over")

            third.process.send_signal(signal.SIGINT)
            self.assertEqual(third.process.wait(40), 0, third.text)
            time.sleep(0.5)
            self.assertEqual(left_over(var), [], "nothing that it started is left")

    def killed_in_turn(self, var: Path, port: int) -> None:
        """Whatever of the run is killed is back within ten seconds, and the log says it once."""
        kinds = (("mariadbd", "The database"), ("coatpeg.web.serve", "Server 1"), ("manage.py work", "Worker 1"))
        for number, (mark, name) in enumerate(kinds, 1):
            with self.subTest(name):
                self.assertTrue(self.killed(str(var), port, mark), f"{name} is back within ten seconds")
                said = (var / "log" / "peg.log").read_text().splitlines()
                self.assertEqual(len(said), number, said)
                self.assertIn(f"{name} was ended by signal 9; it is started again.", said[-1])

    def killed(self, var: str, port: int, mark: str) -> bool:
        """Kill a process and wait until there is a new one and the application answers."""
        before = set(pids_of(var, mark))
        oldest = min(before)
        os.kill(oldest, signal.SIGKILL)
        self.assertTrue(processes.wait_until(lambda: not alive(oldest), 5))
        return processes.wait_until(lambda: works(port) and bool(set(pids_of(var, mark)) - before), BACK * busy())

    def see_the_board(self, port: int, region: str) -> None:
        """Sign in by a demo button and see 56 students on the board."""
        page = browsers(os.getpid()).browser.new_page()
        page.goto(f"http://127.0.0.1:{port}")
        page.get_by_role("button", name=re.compile("^R. Okafor")).click()
        expect(page.get_by_role("region", name=region)).to_be_visible(timeout=BOARD * busy())
        expect(page.get_by_role("grid")).to_have_attribute("aria-rowcount", "57")
        page.close()
