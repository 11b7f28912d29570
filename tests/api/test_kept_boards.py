"""Boards that the process keeps: they stand, take in what moved, and tell nobody more than they may know."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import mock

from django.core.management import call_command
from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.core.policy import Role
from coatpeg.handins.board import kept, laid
from coatpeg.handins.models import LaidBoard
from coatpeg.people.models import Adjustment, StaffRole, TeachingGroup
from tests import builders
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, TODAY, klass

STANDS, MOVED = 4, 15
"""Statements while it stands, two of them the session's; and where a student's cells have moved."""


class KeptBoards(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        kept.forget()
        self.plot = klass()
        self.lead, self.group = self.plot.lead, self.plot.group.pk
        self.card = self.plot.pocket()
        self.thandi, self.josh = self.plot.student("thandi"), self.plot.student("josh", "Josh", "Abel")
        self.handin = self.plot.handin(self.card, due=TODAY + timedelta(days=3))

    def statements(self) -> int:
        client = self.client_of(self.lead)
        with CaptureQueriesContext(connection) as captured:
            self.assertEqual(client.get(f"/api/groups/{self.group}/pegs").status_code, 200)
        return len(captured)

    def test_it_is_read_once_while_it_stands(self) -> None:
        first = self.kept_pegs(self.lead, self.group)
        self.assertEqual(self.statements(), STANDS)
        self.assertEqual(self.kept_pegs(self.lead, self.group), first)

    def test_who_moved_is_read_again_and_no_more_of_the_class(self) -> None:
        before = self.kept_pegs(self.lead, self.group)
        builders.hand_in(self.thandi, self.handin, even_if_empty=True)
        with mock.patch("coatpeg.handins.board.pegs.board", side_effect=AssertionError("the whole board")):
            self.assertLessEqual(self.statements(), MOVED)
            after = self.kept_pegs(self.lead, self.group)
        self.assertEqual([column["in"] for column in before["handins"] + after["handins"]], [0, 1])
        statuses = {row["id"]: row["cells"][0]["status"] for row in after["students"]}
        self.assertEqual(statuses, {self.thandi.enrolment_id: "handed_in", self.josh.enrolment_id: "empty"})
        fresh = self.pegs(self.lead, self.group)
        self.assertEqual({**after, "states": None}, {**fresh, "states": None})

    def test_its_name_is_that_of_what_it_says(self) -> None:
        client, path = self.client_of(self.lead), f"/api/groups/{self.group}/pegs"
        first = client.get(path)["ETag"]
        builders.hand_in(self.thandi, self.handin, even_if_empty=True)
        second = client.get(path)["ETag"]
        self.assertNotEqual(first, second)
        self.assertEqual(client.get(path, headers={"If-None-Match": second}).status_code, 304)
        self.assertEqual(client.get(path, headers={"If-None-Match": first}).status_code, 200)

    def test_a_change_of_the_class_has_it_read_anew(self) -> None:
        self.kept_pegs(self.lead, self.group)
        rows = {"rows": [["Zed", "Ana"]], "columns": ["family", "given"]}
        self.apply_list(self.lead, f"/groups/{self.group}/roster", rows)
        self.assertEqual(len(self.kept_pegs(self.lead, self.group)["students"]), 3)

    def test_it_changes_by_itself_at_the_moment_it_says(self) -> None:
        self.assertFalse(self.kept_pegs(self.lead, self.group)["students"][0]["cells"][0]["overdue"])
        with self.at(datetime(2026, 11, TODAY.day + 4, 9, tzinfo=UTC)):
            self.assertTrue(self.kept_pegs(self.lead, self.group)["students"][0]["cells"][0]["overdue"])
        # Asked for by a clock that is behind, it is not what stands tomorrow.
        self.assertFalse(self.kept_pegs(self.lead, self.group)["students"][0]["cells"][0]["overdue"])

    def test_what_was_agreed_is_kept_apart_from_what_others_are_told(self) -> None:
        Adjustment.objects.create(person=self.thandi.enrolment.person, extra_days=2, first=TODAY)
        helper = builders.person("helper", staff=True)
        StaffRole.objects.create(group=self.plot.group, person=helper, role=Role.MARKER.value)
        for student in (self.thandi, self.josh):
            for person, told in ((self.lead, True), (helper, False)):
                found = self.kept_pegs(person, self.group)["students"]
                self.assertEqual(any(row["adjusted"] for row in found), told)
            builders.hand_in(student, self.handin, even_if_empty=True)

    def test_whoever_may_not_see_it_is_not_shown_what_is_kept(self) -> None:
        self.kept_pegs(self.lead, self.group)
        path = f"/groups/{self.group}/pegs"
        self.assertEqual(self.call(self.thandi.enrolment.person, "GET", path).status_code, 403)
        self.assertEqual(self.call(klass("9 Plot", "sole").lead, "GET", path).status_code, 404)

    def test_the_board_that_was_asked_for_longest_ago_is_let_go(self) -> None:
        other = klass("9 Plot", "sole")
        other.student("ana", "Ana", "Zed")
        with mock.patch.object(kept, "MOST_BYTES", 20):
            self.kept_pegs(self.lead, self.group)
            self.kept_pegs(other.lead, other.group.pk)
            self.assertGreater(self.statements(), STANDS)
            self.assertEqual(self.statements(), STANDS, "one is kept, however large")

    def test_older_news_that_come_late_do_not_take_the_place_of_newer(self) -> None:
        self.kept_pegs(self.lead, self.group)
        old = kept._kept[self.group, True]
        builders.hand_in(self.thandi, self.handin, even_if_empty=True)
        self.kept_pegs(self.lead, self.group)
        kept._keep((self.group, True), old)
        self.assertGreater(kept._kept[self.group, True].cursor, old.cursor)
        self.assertEqual(old.since, NOW)


class LaidReady(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        kept.forget()
        self.plot = klass()
        self.lead, self.group = self.plot.lead, self.plot.group.pk
        self.card = self.plot.pocket()
        self.thandi, self.josh = self.plot.student("thandi"), self.plot.student("josh", "Josh", "Abel")
        self.handin = self.plot.handin(self.card, due=TODAY + timedelta(days=3))

    def lay(self) -> None:
        """As a worker does, in another process."""
        self.assertTrue(laid.is_due())
        laid.lay_boards.enqueue()
        run_waiting()
        self.assertFalse(laid.is_due())
        kept.forget()

    def ready(self) -> Any:
        """The board, which nobody reads as a whole."""
        with mock.patch("coatpeg.handins.board.pegs.board", side_effect=AssertionError("the whole board")):
            return self.kept_pegs(self.lead, self.group)

    def test_whoever_opens_it_first_reads_nothing_of_the_class(self) -> None:
        fresh = self.pegs(self.lead, self.group)
        self.lay()
        self.assertEqual(self.ready(), fresh)

    def test_what_has_moved_since_is_read_and_no_more(self) -> None:
        self.lay()
        builders.hand_in(self.thandi, self.handin, even_if_empty=True)
        found = self.ready()
        fresh = self.pegs(self.lead, self.group)
        self.assertEqual({**found, "states": None}, {**fresh, "states": None})
        self.assertFalse(laid.is_due(), "that is little")
        with self.at(NOW + laid.LAG + timedelta(seconds=1)):
            self.lay()
            self.assertEqual(self.ready(), self.pegs(self.lead, self.group))

    def test_a_state_that_another_has_is_not_told_twice(self) -> None:
        self.lay()
        for one in (self.thandi, self.josh):
            builders.hand_in(one, self.handin, even_if_empty=True)
            told = self.ok(self.lead, "GET", f"/groups/{self.group}/pegs")["states"]
        self.assertEqual([one["status"] for one in told], ["empty", "handed_in"])

    def test_of_yesterday_or_of_a_moment_that_has_passed_it_stands_no_more(self) -> None:
        self.lay()
        with self.at(datetime(2026, 11, TODAY.day + 4, 9, tzinfo=UTC)):
            self.assertTrue(laid.is_due())
            self.assertTrue(self.kept_pegs(self.lead, self.group)["students"][0]["cells"][0]["overdue"])

    def test_what_was_agreed_is_told_to_nobody_else(self) -> None:
        Adjustment.objects.create(person=self.thandi.enrolment.person, extra_days=2, first=TODAY)
        helper = builders.person("helper", staff=True)
        StaffRole.objects.create(group=self.plot.group, person=helper, role=Role.MARKER.value)
        fresh = self.pegs(helper, self.group)
        self.lay()
        self.assertTrue(any(row["adjusted"] for row in self.ready()["students"]))
        self.assertEqual(self.kept_pegs(helper, self.group), fresh)
        self.assertFalse(any(row["adjusted"] for row in fresh["students"]))

    def test_only_of_classes_that_run_and_have_somebody(self) -> None:
        klass("9 Plot", "sole")
        away, over = klass("7 Plot", "one"), klass("6 Plot", "two")
        for one in (away, over):
            one.student(None)
        TeachingGroup.objects.filter(pk=away.group.pk).update(put_away_at=NOW)
        TeachingGroup.objects.filter(pk=over.group.pk).update(last=TODAY - timedelta(days=1))
        self.lay()
        self.assertEqual(list(LaidBoard.objects.values_list("pk", flat=True)), [self.group])

    def test_every_start_begins_without_any(self) -> None:
        self.lay()
        call_command("migrate", verbosity=0)
        self.assertFalse(LaidBoard.objects.exists())
