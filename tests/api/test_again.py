"""A hand-in that may be handed in again until it is due: open till then, locked then, never twice the same."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from coatpeg.events.models import Event
from coatpeg.handins.handing import records
from coatpeg.handins.many import coming_due
from coatpeg.handins.models import HandIn, Submission
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)
HOUR = timedelta(hours=1)
AFTER = NOW + 3 * DAY
"""After the due moment of the class, the end of the day after tomorrow."""


class AgainUntilDue(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card, self.log = self.plot.pocket(), self.plot.pocket("Crop log")
        self.ada, self.bea, self.cyr = (
            self.plot.student(f"s{one}", name, "Abel") for one, name in enumerate(("Ada", "Bea", "Cyr"))
        )
        builders.adjust(self.bea, 2)
        self.handin = self.plot.handin(self.card, self.log)
        HandIn.objects.update(again=True)
        self.evidence = builders.fill(self.ada, self.card)
        builders.fill(self.bea, self.card)

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def send(self, portfolio: Any, seen: int, status: int = 201, at: datetime = NOW + HOUR) -> Any:
        path = f"/portfolios/{portfolio.pk}/handins/{self.handin.pk}/submissions"
        with self.at(at):
            return (
                self.problem(status, portfolio.enrolment.person, "POST", path, {"seen": seen})
                if status >= 400
                else (self.ok(portfolio.enrolment.person, "POST", path, {"seen": seen}))
            )

    def line(self, portfolio: Any, at: datetime = NOW + HOUR) -> Any:
        with self.at(at):
            opened = self.ok(portfolio.enrolment.person, "GET", f"/portfolios/{portfolio.pk}/pockets/{self.card.pk}")
        return {**opened["handins"][0], "held": bool(opened["locked_by"])}

    def change(self, text: str, now: datetime) -> None:
        builders.reflect(self.evidence, text, now)

    def held(self) -> set[tuple[str, str]]:
        rows = StandingHold.objects.filter(handin_id=self.handin.pk)
        return set(rows.values_list("portfolio__enrolment__person__given_name", "pocket__title"))

    def test_it_stays_open_takes_what_changed_and_locks_when_it_is_due_for_each(self) -> None:
        before = self.line(self.ada)
        self.assertEqual([one["then"] for one in before["pockets"]], ["open", "open"])
        self.send(self.ada, 0)
        self.send(self.bea, 0)
        self.assertEqual(self.held(), set())
        found = self.line(self.ada)
        self.assertEqual((found["status"], found["again"], found["held"]), ("handed_in", True, False))
        same = self.send(self.ada, 1, 409)
        self.assertIn("Nothing has changed", same["title"])
        self.change("Better words. And more.", NOW + 2 * HOUR)
        again = self.send(self.ada, 1, at=NOW + 3 * HOUR)
        self.assertEqual(again["number"], 2)
        self.send(self.ada, 1, 409)
        self.assertFalse(coming_due.is_due())
        self.assertEqual(coming_due.lock(self.plot.group.pk, AFTER), 2, "Bea has two school days more")
        self.assertEqual(self.held(), {("Ada", "Recipe card"), ("Ada", "Crop log")})
        self.assertEqual(self.line(self.bea, AFTER)["again"], True)
        self.assertEqual(coming_due.lock(self.plot.group.pk, AFTER), 0, "once is enough")
        self.assertEqual(coming_due.lock(self.plot.group.pk, AFTER + 5 * DAY), 2)
        self.assertFalse(coming_due.is_any())
        self.assertEqual(Event.objects.filter(verb="handin_came_due").count(), 2)
        late = self.line(self.ada, AFTER)
        self.assertEqual((late["again"], late["late"], late["held"]), (False, False, True))
        problem = self.send(self.ada, 2, 409, AFTER)
        self.assertIn("already handed in", problem["title"])

    def test_what_comes_late_locks_at_once_and_is_late(self) -> None:
        self.send(self.ada, 0, at=AFTER)
        self.assertEqual(len(self.held()), 2)
        self.assertTrue(self.line(self.ada, AFTER)["late"])

    def test_lateness_follows_the_newest_after_it_was_sent_back(self) -> None:
        self.send(self.ada, 0)
        builders.mark(self.lead, Submission.objects.get(), accept=False)
        self.change("Once more. Better.", AFTER)
        self.send(self.ada, 1, at=AFTER)
        self.assertTrue(self.line(self.ada, AFTER)["late"])
        with self.at(AFTER):
            board = self.pegs(self.lead, self.plot.group.pk)
        (cell,) = next(row["cells"] for row in board["students"] if row["given_name"] == "Ada")
        self.assertTrue(cell["late"])

    def test_a_review_ends_it_and_locks_when_it_is_due(self) -> None:
        self.send(self.ada, 0)
        builders.mark(self.lead, Submission.objects.get())
        self.assertFalse(self.line(self.ada)["again"])
        self.change("Too late. For this.", NOW + 2 * HOUR)
        self.assertIn("already handed in", self.send(self.ada, 1, 409)["title"])
        coming_due.lock(self.plot.group.pk, AFTER)
        self.assertEqual(len(self.held()), 2)

    def test_staff_who_open_what_locked_are_not_overruled(self) -> None:
        self.send(self.ada, 0)
        coming_due.lock(self.plot.group.pk, AFTER)
        cells = [{"handin": self.handin.pk, "enrolment": self.ada.enrolment.pk, "status": "handed_in"}]
        with self.at(AFTER):
            self.ok(self.lead, "POST", f"/groups/{self.plot.group.pk}/cells/locked", {"cells": cells, "locked": False})
        self.assertEqual(coming_due.lock(self.plot.group.pk, AFTER + DAY), 0)
        self.assertEqual(self.held(), set())

    def test_a_hand_in_that_allows_it_no_more_or_is_due_earlier_locks(self) -> None:
        self.send(self.ada, 0)
        self.send(self.bea, 0)
        path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}"
        with self.at(NOW + DAY):
            plan = self.ok(self.lead, "GET", path)
            self.assertTrue(plan["again"])
            self.ok(self.lead, "PUT", path, {**plan, "due": {"day": str(TODAY), "at": None}})
        self.assertEqual(coming_due.lock(self.plot.group.pk, NOW + DAY), 2)
        HandIn.objects.update(again=False)
        self.assertEqual(coming_due.lock(self.plot.group.pk, NOW + DAY), 2)

    def test_taken_back_the_one_before_it_stands_and_may_be_followed_again(self) -> None:
        self.send(self.ada, 0)
        self.change("Better words. And more.", NOW + 2 * HOUR)
        second = self.send(self.ada, 1, at=NOW + 3 * HOUR)
        with self.at(NOW + 4 * HOUR):
            self.ok(self.ada.enrolment.person, "POST", f"/submissions/{second['id']}/take-back")
        found = self.line(self.ada, NOW + 4 * HOUR)
        self.assertEqual((found["status"], found["again"], found["count"]), ("handed_in", True, 2))
        self.assertEqual(coming_due.lock(self.plot.group.pk, AFTER), 2)

    def test_taken_back_after_it_has_locked_the_one_before_it_locks_anew(self) -> None:
        self.send(self.ada, 0)
        self.change("Better words. And more.", NOW + 2 * HOUR)
        second = self.send(self.ada, 1, at=NOW + 3 * HOUR)
        coming_due.lock(self.plot.group.pk, AFTER)
        HandIn.objects.update(due_day=AFTER.date())
        with self.at(AFTER):
            self.ok(self.ada.enrolment.person, "POST", f"/submissions/{second['id']}/take-back")
        self.assertEqual(self.held(), set())
        self.assertTrue(coming_due.is_any())
        self.assertEqual(coming_due.lock(self.plot.group.pk, AFTER + DAY), 2)

    def test_work_that_staff_hand_in_on_paper_locks_at_once(self) -> None:
        cells = [{"handin": self.handin.pk, "enrolment": self.cyr.enrolment.pk, "status": "empty"}]
        body = {"cells": cells, "how": "paper"}
        self.ok(self.lead, "POST", f"/groups/{self.plot.group.pk}/cells/handed-in", body)
        self.assertEqual({name for name, _ in self.held()}, {"Cyr"})
        self.assertFalse(self.line(self.cyr)["again"])
