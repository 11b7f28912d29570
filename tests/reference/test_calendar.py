"""School-day counting against numpy's business-day functions; moments against the IANA database.

Sources: numpy's ``busday_offset``, ``busday_count`` and ``is_busday`` (numpy documentation, *Business day
functionality*), an independent implementation. Changeover dates: Directive 2000/84/EC (last Sundays of March
and October, 01:00 UTC) for Europe; US Energy Policy Act of 2005 (second Sunday of March, first Sunday of
November, 02:00 local) for New York; both restated here from memory, and read through the system's IANA
database by zoneinfo.
"""

import random
from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo

import numpy as np
from django.test import SimpleTestCase

from coatpeg.core.calendar.school_days import SchoolCalendar, Term, moment_of


def random_calendar(dealer: random.Random) -> tuple[SchoolCalendar, np.busdaycalendar, date, date]:
    """One term with random weekdays and days off, and the same as numpy's calendar."""
    first = date(2020, 1, 1) + timedelta(days=dealer.randrange(2000))
    last = first + timedelta(days=dealer.randrange(60, 300))
    weekdays = sorted(dealer.sample(range(7), dealer.randrange(1, 7)))
    off = {first + timedelta(days=dealer.randrange((last - first).days)): "off" for _ in range(dealer.randrange(30))}
    ours = SchoolCalendar((Term("t", first, last),), frozenset(weekdays), off, "UTC")
    mask = [int(day in weekdays) for day in range(7)]
    return ours, np.busdaycalendar(mask, holidays=[np.datetime64(day) for day in off]), first, last


class AgainstNumpy(SimpleTestCase):
    def test_is_school_day_after_and_between_over_random_calendars(self) -> None:
        dealer = random.Random(84)
        compared = 0
        for _ in range(200):
            ours, theirs, first, last = random_calendar(dealer)
            for _ in range(20):
                day = first + timedelta(days=dealer.randrange((last - first).days))
                until = first + timedelta(days=dealer.randrange((last - first).days))
                self.assertEqual(ours.is_school_day(day), bool(np.is_busday(day, busdaycal=theirs)))
                # numpy counts first <= d < last; ours first < d <= last: shift both ends by a day.
                if day <= until:
                    one = timedelta(days=1)
                    self.assertEqual(
                        ours.between(day, until), int(np.busday_count(day + one, until + one, busdaycal=theirs))
                    )
                # Rolled back to the school day at or before it, the k-th after is numpy's offset by k.
                count = dealer.randrange(1, 15)
                expected = np.busday_offset(day, count, roll="backward", busdaycal=theirs).astype(date)
                if expected <= last:
                    self.assertEqual(ours.after(day, count), expected)
                    compared += 1
        self.assertGreater(compared, 2000, "most of the random cases lie inside their term")


class AgainstTheZoneDatabase(SimpleTestCase):
    def test_published_changeovers(self) -> None:
        cases = [
            ("Europe/London", date(2026, 3, 28), date(2026, 3, 29), 0, 1),
            ("Europe/London", date(2026, 10, 24), date(2026, 10, 25), 1, 0),
            ("Europe/Berlin", date(2026, 10, 24), date(2026, 10, 25), 2, 1),
            ("America/New_York", date(2026, 3, 7), date(2026, 3, 8), -5, -4),
            ("America/New_York", date(2026, 10, 31), date(2026, 11, 1), -4, -5),
        ]
        for zone, before, after, offset_before, offset_after in cases:
            with self.subTest(f"{zone} {after}"):
                for day, offset in ((before, offset_before), (after, offset_after)):
                    expected = datetime(day.year, day.month, day.day, 23, 59, 59, tzinfo=UTC) - timedelta(hours=offset)
                    self.assertEqual(moment_of(day, None, ZoneInfo(zone)), expected)

    def test_a_skipped_or_repeated_time_is_the_later_of_its_readings(self) -> None:
        london = ZoneInfo("Europe/London")
        self.assertEqual(
            moment_of(date(2026, 3, 29), time(1, 30), london), datetime(2026, 3, 29, 1, 30, tzinfo=UTC), "skipped"
        )
        self.assertEqual(
            moment_of(date(2026, 10, 25), time(1, 30), london), datetime(2026, 10, 25, 1, 30, tzinfo=UTC), "repeated"
        )

    def test_moments_of_many_zones_read_back_as_their_wall_clock(self) -> None:
        dealer = random.Random(7)
        for zone in ("Pacific/Auckland", "Asia/Kathmandu", "America/St_Johns", "Africa/Cairo", "UTC"):
            for _ in range(200):
                day = date(2024, 1, 1) + timedelta(days=dealer.randrange(1500))
                local = moment_of(day, None, ZoneInfo(zone)).astimezone(ZoneInfo(zone))
                self.assertEqual(local.date(), day)
                self.assertEqual(local.time(), time(23, 59, 59))
