"""The start command's parts, and the demo's world."""

import os
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from datetime import UTC, datetime
from pathlib import Path
from types import SimpleNamespace
from unittest import mock

from django.test import SimpleTestCase, TestCase

from coatpeg.handins.board.pegs import board
from coatpeg.people.models import Enrolment, TeachingGroup
from coatpeg.portfolios.models import StandingHold
from coatpeg.web.recheck import differences
from demo import world
from operations import processes
from operations.serving import SERVER, SERVERS, Running, chosen_port, listen
from operations.testing import counts

HOME = Path(__file__).resolve().parents[2]
NOW = datetime(2026, 11, 4, 10, tzinfo=UTC)


class Processes(SimpleTestCase):
    def test_a_process_left_behind_is_ended_only_where_it_is_ours(self) -> None:
        child = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(60)", "coatpeg-mark"])
        self.addCleanup(child.kill)
        command = Path(f"/proc/{child.pid}/cmdline")
        self.assertTrue(processes.wait_until(lambda: b"coatpeg-mark" in command.read_bytes(), 10), "it has begun")
        with tempfile.TemporaryDirectory() as folder:
            pid_file = Path(folder) / "pid"
            pid_file.write_text(str(child.pid))
            processes.end_left_behind(pid_file, "something else", 1)
            self.assertIsNone(child.poll(), "not ours: left alone")
            ending = time.monotonic()
            processes.end_left_behind(pid_file, "coatpeg-mark", 0.2)
            self.assertIsNotNone(child.wait(5))
            self.assertLess(time.monotonic() - ending, 8)
            pid_file.write_text("not a number")
            processes.end_left_behind(pid_file, "coatpeg-mark")
            processes.end_left_behind(Path(folder) / "none", "coatpeg-mark")

    def test_children_die_with_a_killed_parent(self) -> None:
        script = (
            "import sys, time, subprocess; sys.path.insert(0, sys.argv[1]);"
            "from operations import processes;"
            "child = processes.start(['sleep', '60'], subprocess.DEVNULL); print(child.pid, flush=True); time.sleep(60)"
        )
        parent = subprocess.Popen([sys.executable, "-c", script, str(HOME)], stdout=subprocess.PIPE, text=True)
        assert parent.stdout is not None
        pid = int(parent.stdout.readline())
        parent.kill()
        parent.wait()
        parent.stdout.close()
        self.assertTrue(processes.wait_until(lambda: not _alive(pid), 5))

    def test_what_a_killed_run_left_half_made_is_gone_and_uploads_are_kept(self) -> None:
        with tempfile.TemporaryDirectory() as folder, mock.patch.dict(os.environ, {"COATPEG_VAR": folder}):
            incoming = Path(folder) / "incoming"
            (incoming / "parts").mkdir(parents=True)
            (incoming / "parts" / "half").write_bytes(b"on its way")
            (incoming / "weasyprint-x").mkdir()
            (incoming / "weasyprint-x" / "font").write_bytes(b"x")
            (incoming / "tmpabc.jpg").write_bytes(b"x")
            Running(HOME).prepare_folders()
            self.assertEqual([str(one.relative_to(incoming)) for one in incoming.rglob("*")], ["parts", "parts/half"])

    def test_a_free_port_is_one_that_no_outgoing_connection_is_given(self) -> None:
        first = int(Path("/proc/sys/net/ipv4/ip_local_port_range").read_text().split()[0])
        for _ in range(20):
            port = processes.free_port()
            self.assertTrue(processes.is_free(port))
            self.assertLess(port, first)

    def test_a_port_taken_in_the_meantime_is_told_in_words(self) -> None:
        with tempfile.TemporaryDirectory() as folder, socket.socket() as other:
            other.bind(("127.0.0.1", 0))
            other.listen()
            port = other.getsockname()[1]
            running = SimpleNamespace(var=Path(folder))
            with self.assertRaisesRegex(SystemExit, f"Port {port} is in use. Give another one"):
                listen(running, port)  # type: ignore[arg-type]  # the folder is all it looks at

    def test_the_port_of_a_run_that_was_killed_is_had_again(self) -> None:
        port = processes.free_port()
        holds = (
            "import socket, sys; s = socket.socket(); s.bind(('127.0.0.1', int(sys.argv[1]))); s.listen(); s.accept()"
        )
        left = subprocess.Popen([sys.executable, "-c", holds, str(port), SERVER])
        over = threading.Thread(target=left.wait)
        over.start()
        with tempfile.TemporaryDirectory() as folder, mock.patch.dict(os.environ, {"PEG_PORT": str(port)}):
            self.assertTrue(processes.wait_until(lambda: not processes.is_free(port), 20))
            (Path(folder) / f"server-{SERVERS[0]}.pid").write_text(str(left.pid))
            running = SimpleNamespace(var=Path(folder))
            listen(running, chosen_port()).close()  # type: ignore[arg-type]  # the folder is all it looks at
        over.join(20)
        self.assertIsNotNone(left.returncode)

    def test_the_count_of_tests_is_read_from_the_runner(self) -> None:
        cases = {
            ("Ran 12 tests in 3.2s\n\nOK\n", 0): (12, 0),
            ("Ran 12 tests in 3.2s\n\nFAILED (failures=2, errors=1)\n", 1): (12, 3),
            ("Ran 12 tests in 3.2s\n\nOK (skipped=1)\n", 0): (12, 1),
            ("Traceback: it never began\n", 1): (0, 1),
        }
        for (output, code), expected in cases.items():
            self.assertEqual(counts(output, code), expected)


def _alive(pid: int) -> bool:
    try:
        return Path(f"/proc/{pid}/stat").read_text().split(")")[1].split()[0] != "Z"
    except FileNotFoundError:
        return False


class DemoWorld(TestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        world.load(say=lambda text: None, now=NOW, students=30, leavers=80)

    def test_every_status_and_flag_is_there(self) -> None:
        group = TeachingGroup.objects.get(name="8 Plot · Growing & Cooking")
        view, _ = board(group.pk, NOW, agreed=False)
        cells = [view["states"][place] for row in view["students"] for place in row["cells"]]
        found = Counter(cell["status"] for cell in cells)
        self.assertEqual(len(found), 8, found)
        self.assertTrue(any(cell["late"] for cell in cells) and any(cell["overdue"] for cell in cells))
        self.assertTrue(any(cell["count"] > 1 for cell in cells), "a resubmission")
        self.assertTrue(StandingHold.objects.exists(), "a locked pocket")
        week = next(week["number"] for week in view["weeks"] if str(week["monday"]) == "2026-11-02")
        self.assertEqual((week, len(view["weeks"])), (9, 14))

    def test_nothing_kept_differs_from_what_it_is_derived_from(self) -> None:
        self.assertEqual(list(differences()), [])

    def test_the_four_groups(self) -> None:
        sizes = {group.name.split(" ")[0]: group.enrolments.count() for group in TeachingGroup.objects.all()}
        self.assertEqual(sizes, {"8": 30, "Stage": 9, "Learning": 12, "Leavers": 80})

    def test_peg_pictures_never_repeat_in_a_class(self) -> None:
        for group in TeachingGroup.objects.all():
            pairs = Enrolment.objects.filter(group=group).values_list("picture", "tint")
            self.assertEqual(len(set(pairs)), len(pairs))

    def test_the_command_says_what_is_wrong_with_a_port(self) -> None:
        for port, words in (("ninety", "not a port"), ("70000", "not a port")):
            done = subprocess.run(
                [sys.executable, "-c", "from operations.serving import chosen_port; chosen_port()"],
                env={**os.environ, "PEG_PORT": port, "PYTHONPATH": str(HOME)},
                capture_output=True,
                text=True,
            )
            self.assertIn(words, done.stderr)
