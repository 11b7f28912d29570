"""Two real connections at once: events in commit order, one submission from two tabs, one standing outcome."""

from __future__ import annotations

import threading
from collections.abc import Callable
from typing import Any
from unittest import mock

from django.db import IntegrityError, OperationalError, connection, transaction
from django.test import Client, TransactionTestCase

from coatpeg.core.errors import CoatPegError, Stale
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.events.changes import changes_after
from coatpeg.events.models import Event, GroupSequence
from coatpeg.events.recording import deed, next_numbers
from coatpeg.handins.models import Outcome, Submission
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.models import Evidence
from coatpeg.web.recheck import differences
from tests import builders
from tests.builders import NOW, klass

GROUP = 77
PATIENCE = 10


def at_once(*jobs: Callable[[], Any]) -> list[Any]:
    """Run jobs in threads of their own, each with its own connection; returns results or the errors raised."""
    results: list[Any] = [None] * len(jobs)
    ready = threading.Barrier(len(jobs))

    def run(place: int, job: Callable[[], Any]) -> None:
        try:
            connection.ensure_connection()
            ready.wait(PATIENCE)
            results[place] = job()
        except Exception as error:  # noqa: BLE001 - the test looks at it
            results[place] = error
        finally:
            connection.close()

    threads = [threading.Thread(target=run, args=pair) for pair in enumerate(jobs)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(PATIENCE * 2)
    return results


class Rechecking(TransactionTestCase):
    """What is kept is compared as it stood at one moment, while others go on working."""

    def test_what_is_written_meanwhile_is_no_difference(self) -> None:
        plot = klass()
        one, other = plot.student(), plot.student("wren", "Wren")
        card = plot.pocket()
        handin = plot.handin(card)
        builders.fill(one, card)
        builders.fill(other, card)
        builders.hand_in(one, handin)
        written: list[Any] = []

        def meanwhile(execute: Callable[..., Any], sql: str, *rest: Any) -> Any:
            if "COUNT" in sql and "events_event" in sql:
                written.extend(at_once(lambda: builders.hand_in(other, handin).pk))
            return execute(sql, *rest)

        with connection.execute_wrapper(meanwhile):
            found = list(differences())
        self.assertEqual((found, written), ([], [Submission.objects.last().pk]))  # type: ignore[union-attr]


class Follower:
    """Asks "after n" as a browser does and remembers every event it was told of."""

    def __init__(self) -> None:
        self.cursor = 0
        self.seen: set[int] = set()

    def ask(self) -> None:
        found = changes_after(GROUP, self.cursor)
        self.seen |= {touch.number for touch in found.touches}
        self.cursor = found.cursor


class ChangesInCommitOrder(TransactionTestCase):
    """A slow deed begins first and commits last; a quick one in between. Nobody who polls may miss either."""

    def setUp(self) -> None:
        GroupSequence.objects.create(group_id=GROUP)

    def overtaken(self, number_early: bool) -> set[int]:
        """What a follower saw. ``number_early`` numbers the slow deed's event when it begins, without the lock."""
        begun, quick_done = threading.Event(), threading.Event()

        def slow() -> None:
            if number_early:
                with transaction.atomic():
                    number = self.take_early()
                    begun.set()
                    quick_done.wait(PATIENCE)
                    Event.objects.create(group_id=GROUP, number=number, verb="handed_in", at=NOW)
            else:
                with deed(None, NOW) as doing:
                    doing.record("handed_in", GROUP)
                    begun.set()
                    quick_done.wait(PATIENCE)

        follower = Follower()

        def quick() -> None:
            begun.wait(PATIENCE)
            with deed(None, NOW) as doing:
                doing.record("taken_back", GROUP)
            follower.ask()
            quick_done.set()

        problems = [result for result in at_once(slow, quick) if result is not None]
        self.assertEqual(problems, [])
        follower.ask()
        self.assertEqual(set(Event.objects.values_list("number", flat=True)), {1, 2})
        return follower.seen

    def take_early(self) -> int:
        """A number as a careless recorder takes it: in a transaction of its own, long before the commit."""
        taken: list[int] = []

        def take() -> None:
            with transaction.atomic():
                taken.append(next_numbers(GROUP, 1))
            connection.close()

        thread = threading.Thread(target=take)
        thread.start()
        thread.join(PATIENCE)
        return taken[0]

    def test_no_change_is_missed(self) -> None:
        self.assertEqual(self.overtaken(number_early=False), {1, 2})

    def test_this_test_can_fail(self) -> None:
        self.assertEqual(self.overtaken(number_early=True), {2}, "numbered early, the slow event is never seen")

    def test_many_writers_leave_no_gap(self) -> None:
        def write() -> None:
            for _ in range(15):
                with deed(None, NOW) as doing:
                    doing.record("accepted", GROUP)
                    doing.record("reopened", GROUP)

        follower = Follower()

        def follow() -> None:
            for _ in range(200):
                follower.ask()

        self.assertEqual([result for result in at_once(write, write, write, follow) if result], [])
        follower.ask()
        self.assertEqual(follower.seen, set(range(1, 91)))

    def test_a_deed_that_fails_leaves_no_event(self) -> None:
        with self.assertRaises(ZeroDivisionError), deed(None, NOW) as doing:
            doing.record("excused", GROUP)
            raise ZeroDivisionError
        self.assertEqual((Event.objects.count(), GroupSequence.objects.get().last), (0, 0))

    def test_the_first_events_of_a_group_wait_for_each_other_in_no_ring(self) -> None:
        for group in range(100, 130):
            jobs = [lambda group=group: transaction.atomic(next_numbers)(group, 1)] * 6
            self.assertEqual(sorted(at_once(*jobs), key=str), [1, 2, 3, 4, 5, 6])


class Races(TransactionTestCase):
    def setUp(self) -> None:
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi")
        self.person = self.thandi.enrolment.person
        self.handin = self.plot.handin(self.card)
        self.evidence = builders.fill(self.thandi, self.card)

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])

    def test_two_tabs_make_one_submission_and_the_other_is_told(self) -> None:
        def press() -> Submission:
            return builders.hand_in(self.thandi, self.handin)

        results = at_once(press, press, press)
        made = [one for one in results if isinstance(one, Submission)]
        told = [one for one in results if isinstance(one, Stale)]
        self.assertEqual((len(made), len(told)), (1, 2), results)
        self.assertEqual({one.more["receipt"] for one in told}, {made[0].receipt})

    def test_a_save_and_a_hand_in_at_once_never_freeze_half(self) -> None:
        for _ in range(3):
            results = at_once(
                lambda: builders.hand_in(self.thandi, self.handin, seen=Submission.objects.count()),
                lambda: builders.reflect(self.evidence, f"Changed {Submission.objects.count()}. Really."),
            )
            submission = Submission.objects.latest("number")
            frozen = submission.snapshot["pockets"][0]["evidence"][0]["text"]
            self.assertEqual(frozen, Evidence.objects.get().text, results)
            builders.mark(self.plot.lead, submission, accept=False)

    def test_two_markers_give_one_outcome(self) -> None:
        submission = builders.hand_in(self.thandi, self.handin)
        results = at_once(
            lambda: builders.mark(self.plot.lead, submission, accept=True),
            lambda: builders.mark(self.plot.lead, submission, accept=False),
        )
        self.assertEqual(sum(isinstance(one, Outcome) for one in results), 1, results)
        self.assertEqual(sum(isinstance(one, CoatPegError) for one in results), 1, results)

    def test_the_database_itself_holds_only_once(self) -> None:
        submission = builders.hand_in(self.thandi, self.handin)
        builders.mark(self.plot.lead, submission)
        with self.assertRaises(IntegrityError), transaction.atomic():
            Outcome.objects.create(submission=submission, kind="sent_back", at=NOW, person=self.plot.lead)
        with self.assertRaises(IntegrityError), transaction.atomic():
            Submission.objects.create(
                handin=self.handin,
                enrolment=self.thandi.enrolment,
                number=1,
                at=NOW,
                receipt="X",
                snapshot={},
                sha256="",
            )

    def test_two_devices_in_one_text_keep_both(self) -> None:
        def save(text: str) -> Callable[[], Evidence]:
            return lambda: commands.write_reflection(self.person, self.evidence.pk, text, 1, NOW)

        results = at_once(save("From the tablet."), save("From the phone."))
        kept = next(one for one in results if isinstance(one, Evidence))
        told = next(one for one in results if isinstance(one, Stale))
        self.assertEqual(told.more["text"], kept.text)
        event = Event.objects.filter(verb="text_written").latest("number")
        self.assertIn(event.data["text"], {text_digest(kept.text), text_digest("One thing. Another thing.")})


class Away(TransactionTestCase):
    def test_a_lost_database_is_a_503_that_asks_to_try_again(self) -> None:
        klass()
        client = Client()
        with mock.patch("coatpeg.web.sessions.school_calendar", side_effect=OperationalError(2006, "gone away")):
            answer = client.get("/api/session")
        self.assertEqual((answer.status_code, answer["Retry-After"]), (503, "3"))
        self.assertIn("nothing you typed is lost", answer.json()["fix"])
        with mock.patch(
            "django.contrib.sessions.backends.db.SessionStore.load", side_effect=OperationalError(2002, "x")
        ):
            client.cookies["coatpeg"] = "something"
            self.assertEqual(client.get("/api/session").status_code, 503)
        with mock.patch("coatpeg.web.pages.connection.cursor", side_effect=OperationalError(2002, "x")):
            self.assertEqual(client.get("/health").status_code, 503)
