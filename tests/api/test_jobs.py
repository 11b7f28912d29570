"""Background work: once where it can be, again where it must, set aside where it never will; several workers at once."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest import mock

from django.conf import settings
from django.db import OperationalError, transaction
from django.test import TransactionTestCase
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from coatpeg.core.errors import Gone
from coatpeg.jobs import health, kinds, leases, schedules
from coatpeg.jobs.kinds import Kind, job
from coatpeg.jobs.worker import TOO_LONG, Worker
from operations import processes
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW

done: list[Any] = []
given_up: list[Any] = []


@job(Kind("writing something down"))
def note(what: str) -> None:
    done.append(what)


@job(Kind("what always fails", given_up=lambda what, why: given_up.append((what, why))))
def fails(what: str) -> None:
    raise ValueError(f"{what} is rotten")


@job(Kind("what is refused"))
def refused() -> None:
    raise Gone("It is not there.", fix="Look elsewhere.")


@job(Kind("what kills its worker", given_up=lambda path, why: Path(path).with_suffix(".given-up").write_text(why)))
def kills(path: str) -> None:
    with open(path, "a") as log:
        log.write("begun\n")
    os.kill(os.getpid(), signal.SIGKILL)


@job(Kind("what never ends", limit=timedelta(seconds=1), tries=1))
def never_ends() -> None:
    time.sleep(60)


@job(Kind("what takes a while"))
def slow(path: str) -> None:
    with open(path, "a") as log:
        log.write(f"begun {os.getpid()}\n")
    time.sleep(0.05)


class JobCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        done.clear()
        given_up.clear()

    def only(self) -> DBTaskResult[..., Any]:
        return DBTaskResult.objects.get()


class Running(JobCase):
    def test_it_runs_once_and_is_not_there_when_its_deed_failed(self) -> None:
        note.enqueue("a")
        with self.assertRaises(ZeroDivisionError), transaction.atomic():
            note.enqueue("never")
            raise ZeroDivisionError
        run_waiting()
        run_waiting()
        self.assertEqual(done, ["a"])

    def test_what_fails_is_tried_again_after_a_while_then_set_aside_named_and_told(self) -> None:
        fails.enqueue("the apple")
        kind = kinds.kind_of(fails.module_path)
        run_waiting()
        self.assertEqual((self.only().status, self.only().run_after), ("READY", NOW + kind.again_after(1)))
        self.assertEqual(kind.again_after(2), 4 * kind.again_after(1))
        run_waiting()
        self.assertEqual(len(self.only().worker_ids), 1, "not before its time")
        with self.assertLogs("coatpeg.jobs", "ERROR"):
            for later in (10, 60):
                with self.at(NOW + timedelta(seconds=later)):
                    run_waiting()
        self.assertEqual((self.only().status, len(self.only().worker_ids)), ("FAILED", 3))
        self.assertEqual(given_up, [("the apple", "ValueError: the apple is rotten")])
        named = "what always fails: set aside after 3 attempts: ValueError: the apple is rotten"
        self.assertEqual(list(health.complaints(NOW)), [named])

    def test_what_the_application_refuses_is_not_tried_again(self) -> None:
        refused.enqueue()
        with self.assertLogs("coatpeg.jobs", "ERROR"):
            run_waiting()
        self.assertEqual((self.only().status, len(self.only().worker_ids)), ("FAILED", 1))

    def test_poison_does_not_hold_up_what_comes_behind_it(self) -> None:
        fails.enqueue("first")
        note.enqueue("second")
        run_waiting()
        self.assertEqual(done, ["second"])

    def test_a_job_whose_code_is_gone_is_named(self) -> None:
        note.enqueue("x")
        DBTaskResult.objects.update(task_path="coatpeg.nowhere.at_all")
        with self.assertLogs(None, "ERROR"):
            for later in (0, 10, 60):
                with self.at(NOW + timedelta(seconds=later)):
                    run_waiting()
        (line,) = health.complaints(NOW)
        self.assertIn("a kind that this version does not have: set aside after 3 attempts", line)
        self.assertIn("coatpeg.nowhere", line)

    def test_what_waits_for_no_worker_is_told_as_stuck(self) -> None:
        note.enqueue("x")
        self.assertEqual(list(health.complaints(timezone.now())), [])
        (line,) = health.complaints(timezone.now() + health.STUCK + timedelta(seconds=1))
        self.assertTrue(line.startswith("writing something down: 1 waiting since "), line)

    def test_what_was_done_long_ago_is_forgotten_and_what_was_set_aside_later(self) -> None:
        note.enqueue("x")
        refused.enqueue()
        with self.assertLogs("coatpeg.jobs", "ERROR"):
            run_waiting()
        self.assertEqual(health.forget_old(NOW + health.KEPT), 0)
        self.assertEqual(health.forget_old(NOW + health.KEPT + timedelta(seconds=1)), 1)
        self.assertEqual(health.forget_old(NOW + health.KEPT_ASIDE + timedelta(seconds=1)), 1)

    def test_a_look_enqueues_only_where_there_is_something_and_nothing_waits_already(self) -> None:
        due = [False]
        with mock.patch.object(schedules, "_SCHEDULES", [schedules.Schedule("x", 0, lambda: due[0], refused)]):
            looks = schedules.Looks()
            self.assertEqual(looks.take(), 0)
            due[0] = True
            self.assertEqual((looks.take(), looks.take()), (1, 0))

    def test_a_database_that_is_away_is_waited_for(self) -> None:
        note.enqueue("x")
        turns = iter([OperationalError(2006, "gone away"), OperationalError(2006, "gone away")])

        def turn(worker: Worker) -> bool:
            error = next(turns, None)
            if error:
                raise error
            worker.running = False
            return False

        with (
            mock.patch.object(Worker, "_turn", turn),
            mock.patch("coatpeg.jobs.worker.connection.close"),
            self.assertLogs("coatpeg.jobs", "WARNING") as said,
        ):
            Worker("w").run()
        self.assertEqual(len(said.output), 1, "said once, not at every try")


class Leases(JobCase):
    def leave_running(self, worker: str = "peg-1", since: timedelta = timedelta()) -> None:
        note.enqueue("x")
        with self.at(NOW - since):
            self.only().claim(worker)

    def test_a_worker_that_starts_takes_back_what_it_left(self) -> None:
        self.leave_running("peg-1")
        run_waiting("peg-2")
        self.assertEqual(done, [], "somebody else has it")
        run_waiting("peg-1")
        self.assertEqual(done, ["x"])
        self.assertEqual(self.only().worker_ids, ["peg-1", "peg-1"])

    def test_a_lease_that_ran_out_is_anybodys(self) -> None:
        limit = kinds.kind_of(note.module_path).limit + leases.GRACE
        self.leave_running(since=limit - timedelta(seconds=1))
        self.assertEqual(leases.take_back_expired(NOW), 0)
        self.assertEqual(leases.take_back_expired(NOW + timedelta(seconds=2)), 1)
        self.assertEqual(self.only().status, "READY")

    def test_what_its_worker_died_over_three_times_is_set_aside(self) -> None:
        self.leave_running()
        DBTaskResult.objects.update(worker_ids=["peg-1"] * 3)
        with self.assertLogs("coatpeg.jobs", "ERROR") as said:
            run_waiting("peg-1")
        self.assertEqual(self.only().status, "FAILED")
        self.assertIn("The worker ended while it ran.", said.output[0])


class Killed(TransactionTestCase):
    """Real workers in processes of their own, killed."""

    def setUp(self) -> None:
        self.path = Path(settings.VAR) / f"job-{os.getpid()}"
        self.addCleanup(lambda: [one.unlink() for one in self.path.parent.glob(f"{self.path.name}*")])
        self.path.touch()

    def worker(self, name: str) -> subprocess.Popen[bytes]:
        """A worker of this test's database."""
        code = (
            "import sys; from tests.api import test_jobs;"
            "from coatpeg.jobs.worker import Worker; Worker(sys.argv[1], once=True).run()"
        )
        of = settings.DATABASES["default"]
        environment = {**os.environ, "COATPEG_DB_NAME": str(of["NAME"])}
        words = [sys.executable, "-c", f"import django; django.setup(); {code}", name]
        return subprocess.Popen(words, env=environment, cwd=settings.BASE_DIR, stderr=subprocess.DEVNULL)

    def test_poison_that_kills_its_worker_is_set_aside_after_three_and_told(self) -> None:
        kills.enqueue(str(self.path))
        note.enqueue("behind it")
        codes = [self.worker("peg-1").wait(60) for _ in range(4)]
        self.assertEqual(codes, [-signal.SIGKILL] * 3 + [0])
        self.assertEqual(self.path.read_text().count("begun"), 3)
        self.assertEqual(self.path.with_suffix(".given-up").read_text(), "The worker ended while it ran.")
        self.assertEqual(sorted(DBTaskResult.objects.values_list("status", flat=True)), ["FAILED", "SUCCESSFUL"])

    def test_what_takes_too_long_ends_its_worker_and_is_set_aside(self) -> None:
        never_ends.enqueue()
        self.assertEqual(self.worker("peg-1").wait(60), TOO_LONG)
        self.assertEqual(self.worker("peg-1").wait(60), 0)
        self.assertEqual(DBTaskResult.objects.get().status, "FAILED")

    def test_two_workers_never_take_the_same_job(self) -> None:
        for _ in range(40):
            slow.enqueue(str(self.path))
        workers = [self.worker("peg-1"), self.worker("peg-2")]
        self.assertEqual([one.wait(120) for one in workers], [0, 0])
        self.assertEqual(self.path.read_text().count("begun"), 40, "each once")
        self.assertEqual(len({tuple(one) for one in DBTaskResult.objects.values_list("worker_ids", flat=True)}), 2)

    def test_a_worker_killed_half_way_is_taken_over_by_its_next_self(self) -> None:
        for _ in range(30):
            slow.enqueue(str(self.path))
        first = self.worker("peg-1")
        self.assertTrue(processes.wait_until(lambda: self.path.read_text().count("begun") >= 5, 60))
        first.kill()
        first.wait()
        self.assertEqual(self.worker("peg-1").wait(120), 0)
        self.assertEqual(set(DBTaskResult.objects.values_list("status", flat=True)), {"SUCCESSFUL"})
        self.assertIn(self.path.read_text().count("begun"), (30, 31), "at most the one it was at is begun again")
