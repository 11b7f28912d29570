"""The days of a series against RFC 5545 recurrence, as dateutil computes it."""

from __future__ import annotations

from datetime import date, datetime, timedelta
from unittest import TestCase

from dateutil.rrule import WEEKLY, rrule
from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.errors import Invalid
from coatpeg.core.handins.series import MOST, Repeat, base_title, occurrences

FIRST = date(2026, 9, 4)  # a Friday
TERM = Term("Year", date(2026, 8, 31), date(2027, 7, 16))
DAY = timedelta(days=1)


def by_rule(first: date, repeat: Repeat) -> list[date]:
    """FREQ=WEEKLY;INTERVAL=…;UNTIL=… from the first day."""
    begin, end = (datetime.combine(one, datetime.min.time()) for one in (first, repeat.until))
    return [one.date() for one in rrule(WEEKLY, dtstart=begin, interval=repeat.every, until=end)]


class Series(TestCase):
    def test_a_year_of_fridays_without_a_day_off(self) -> None:
        calendar = SchoolCalendar(terms=(TERM,))
        for every, weeks in ((1, 30), (2, 40)):
            repeat = Repeat(every, FIRST + weeks * 7 * DAY)
            found = occurrences(FIRST, repeat, calendar)
            self.assertEqual([one.day for one in found], by_rule(FIRST, repeat))
            self.assertEqual([one.number for one in found], list(range(1, len(found) + 1)))

    @given(
        some.integers(0, 200),
        some.sampled_from([1, 2]),
        some.integers(0, 250),
        some.sets(some.integers(0, 319), max_size=80),
    )
    def test_with_days_off_each_stays_in_the_week_that_the_rule_gives(
        self, start: int, every: int, length: int, off: set[int]
    ) -> None:
        calendar = SchoolCalendar(terms=(TERM,), days_off={TERM.first + one * DAY: "off" for one in off})
        first = TERM.first + start * DAY
        repeat = Repeat(every, first + length * DAY)
        ruled = by_rule(first, repeat)
        found = occurrences(first, repeat, calendar)
        self.assertEqual(found[0].day, first, "the first is as it was given")
        monday = {one - one.weekday() * DAY: one for one in ruled}
        for one in found[1:]:
            usual = monday[one.day - one.day.weekday() * DAY]
            self.assertTrue(calendar.is_school_day(one.day))
            self.assertEqual(one.moved, one.day != usual)
            self.assertEqual(calendar.is_school_day(usual), not one.moved)
        with_school = [
            one
            for one in ruled[1:]
            if any(calendar.is_school_day(one + at * DAY - one.weekday() * DAY) for at in range(7))
        ]
        self.assertEqual(len(found) - 1, len(with_school), "only weeks without school are left out")

    def test_bad_input(self) -> None:
        calendar = SchoolCalendar(terms=(TERM,))
        for until in (FIRST - DAY, FIRST + (MOST + 1) * 7 * DAY):
            with self.assertRaises(Invalid) as caught:
                occurrences(FIRST, Repeat(1, until), calendar)
            self.assertEqual(caught.exception.where, "until")

    def test_a_title_without_its_own_number(self) -> None:
        self.assertEqual(base_title("Crop log 3", 3), "Crop log")
        self.assertEqual(base_title("Crop log 3", 4), "Crop log 3")
