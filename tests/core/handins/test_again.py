"""Handing in again until it is due: who may, what locks, and that *late* follows the newest."""

from __future__ import annotations

import unittest
from datetime import UTC, datetime, timedelta

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.handins.again import again_until_due, has_come_due, locks_when_due, may_take_back
from coatpeg.core.handins.standing import Facts, Status, by_newest, judge

DUE = datetime(2026, 11, 6, 23, 59, 59, tzinfo=UTC)
SECOND = timedelta(seconds=1)
IN = Facts(first_at=DUE - timedelta(days=1), newest=2, newest_at=DUE - SECOND, submissions=2)


class Again(unittest.TestCase):
    def test_until_the_due_second_is_over(self) -> None:
        self.assertFalse(has_come_due(DUE, DUE + timedelta(microseconds=999_999)))
        self.assertTrue(has_come_due(DUE, DUE + SECOND))
        self.assertFalse(has_come_due(None, DUE + timedelta(days=900)))

    def test_only_what_stands_without_outcome_and_where_it_was_left_open(self) -> None:
        self.assertTrue(again_until_due(True, IN, DUE, DUE))
        for allowed, facts, now in (
            (False, IN, DUE),
            (True, Facts(), DUE),
            (True, IN._replace(outcome=Status.ACCEPTED), DUE),
            (True, IN._replace(outcome=Status.SENT_BACK), DUE),
            (True, IN._replace(excused=True), DUE),
            (True, IN, DUE + SECOND),
        ):
            self.assertFalse(again_until_due(allowed, facts, DUE, now), (allowed, facts, now))

    def test_what_locks_once_it_is_due(self) -> None:
        accepted = IN._replace(outcome=Status.ACCEPTED)
        self.assertTrue(locks_when_due(IN, 2, opens_again=True))
        self.assertTrue(locks_when_due(accepted, 2, opens_again=False))
        self.assertFalse(locks_when_due(accepted, 2, opens_again=True))
        self.assertFalse(locks_when_due(IN, 1, opens_again=False), "another one followed")
        self.assertFalse(locks_when_due(IN._replace(outcome=Status.SENT_BACK), 2, opens_again=False))
        self.assertFalse(locks_when_due(IN._replace(excused=True), 2, opens_again=False))

    def test_late_follows_the_newest(self) -> None:
        facts = IN._replace(newest_at=DUE + timedelta(hours=2))
        calendar = SchoolCalendar((), zone="UTC")
        asked = {"asked": True, "opens": DUE - timedelta(days=9), "due": DUE, "has_work": True, "now": DUE}
        self.assertFalse(judge(facts, **asked, calendar=calendar).late)
        late = judge(by_newest(facts), **asked, calendar=calendar)
        self.assertTrue(late.late)
        self.assertEqual(late.late_by, timedelta(hours=2))


class TakingBack(unittest.TestCase):
    def test_until_the_due_second_has_passed_where_it_is_allowed_and_open(self) -> None:
        second = timedelta(seconds=1)
        for allowed, due, now, closed, expected in (
            (True, DUE, DUE, False, True),
            (True, DUE, DUE + second - timedelta(microseconds=1), False, True),
            (True, DUE, DUE + second, False, False),
            (True, None, DUE + timedelta(days=99), False, True),
            (True, DUE, DUE, True, False),
            (True, None, DUE, True, False),
            (False, DUE, DUE, False, False),
            (False, None, DUE, False, False),
        ):
            self.assertEqual(may_take_back(allowed, due, now, closed=closed), expected, (allowed, due, now, closed))
