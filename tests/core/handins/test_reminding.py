"""Who is reminded, when, and in which words."""

from __future__ import annotations

from datetime import UTC, date, datetime, time

import numpy as np
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.errors import Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.reminding import LONGEST, Owed, WhyNot, check, filled_in, reminded_today, why_not
from coatpeg.core.handins.standing import Standing, Status

TERM = Term("Autumn term", date(2026, 9, 1), date(2026, 12, 18))
CALENDAR = SchoolCalendar(terms=(TERM,), days_off={date(2026, 11, 4): "Founders' day"}, zone="UTC")


def at(day: date) -> datetime:
    return datetime.combine(day, time(10), tzinfo=UTC)


class Whom(SimpleTestCase):
    def test_by_status(self) -> None:
        expected = {
            Status.NOT_ASKED: WhyNot.NOT_ASKED,
            Status.EXCUSED: WhyNot.EXCUSED,
            Status.ACCEPTED: WhyNot.HANDED_IN,
            Status.HANDED_IN: WhyNot.HANDED_IN,
            Status.NOT_OPEN: WhyNot.NOT_OPEN,
            Status.SENT_BACK: None,
            Status.WORKING: None,
            Status.EMPTY: None,
        }
        for status, why in expected.items():
            with self.subTest(status):
                standing = Standing(status, False, 0, None, False, None)
                self.assertEqual(why_not(standing, closed=False), why)
                self.assertEqual(why_not(standing, closed=True), why or WhyNot.CLOSED)

    @given(st.dates(date(2026, 9, 2), date(2026, 12, 10)), st.integers(0, 9))
    def test_once_in_a_school_day_against_business_days(self, last: date, later: int) -> None:
        """Source: numpy's busday_count (business days in a half-open interval), with the same days off."""
        now = date.fromordinal(last.toordinal() + later)
        after, until = (np.datetime64(day) + np.timedelta64(1, "D") for day in (last, now))
        begun = np.busday_count(after, until, holidays=["2026-11-04"])
        self.assertEqual(reminded_today(at(last), at(now), CALENDAR), begun == 0)

    def test_friday_counts_over_the_weekend_and_nobody_yet_is_nobody(self) -> None:
        friday, sunday, monday = date(2026, 10, 9), date(2026, 10, 11), date(2026, 10, 12)
        self.assertTrue(reminded_today(at(friday), at(sunday), CALENDAR))
        self.assertFalse(reminded_today(at(friday), at(monday), CALENDAR))
        self.assertFalse(reminded_today(None, at(monday), CALENDAR))


class Words(SimpleTestCase):
    OWED = (
        Owed("Recipe card", Due(date(2026, 11, 5), time(16)), sent_back=False, overdue=True),
        Owed("Crop {log}", None, sent_back=False, overdue=False),
        Owed("Menu {name}", Due(date(2026, 11, 6)), sent_back=True, overdue=False),
    )
    LINES = (
        "– Recipe card (due Thu 5 Nov, 16:00, which has passed)\n"
        "– Crop {log} (no due date)\n"
        "– Menu {name} (sent back: hand it in again)"
    )

    def test_each_their_own(self) -> None:
        found = filled_in("Dear {name},\n{missing}\nSoon, please.", "Thandi", self.OWED)
        self.assertEqual(found, f"Dear Thandi,\n{self.LINES}\nSoon, please.")

    def test_without_a_place_the_missing_things_follow_and_other_braces_stay(self) -> None:
        self.assertEqual(filled_in("Hurry {up}, {0}!", "Thandi", self.OWED), f"Hurry {{up}}, {{0}}!\n\n{self.LINES}")

    def test_no_words_and_too_many(self) -> None:
        for words in ("", "  \n ", "x" * (LONGEST + 1)):
            with self.assertRaises(Invalid):
                check(words)
        self.assertEqual(check("  Please. "), "Please.")
