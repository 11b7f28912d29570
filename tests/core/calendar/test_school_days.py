"""School days, weeks of a term, and local moments."""

from datetime import UTC, date, datetime, time, timedelta
from zoneinfo import ZoneInfo, available_timezones

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.calendar.school_days import SchoolCalendar, Term, moment_of, quick_days

AUTUMN = Term("Autumn", date(2026, 9, 7), date(2026, 12, 11))
SPRING = Term("Spring", date(2027, 1, 4), date(2027, 3, 26))
HOLIDAY = {date(2026, 10, 26) + timedelta(days=day): "Half-term" for day in range(5)}
CALENDAR = SchoolCalendar((AUTUMN, SPRING), days_off=HOLIDAY, zone="Europe/London")


class SchoolDays(SimpleTestCase):
    def test_what_is_a_school_day(self) -> None:
        cases = {
            "a weekday in term": (date(2026, 11, 4), True),
            "the first day": (date(2026, 9, 7), True),
            "the last day": (date(2026, 12, 11), True),
            "a Saturday in term": (date(2026, 11, 7), False),
            "a non-school day": (date(2026, 10, 28), False),
            "before the first term": (date(2026, 9, 4), False),
            "between two terms": (date(2026, 12, 16), False),
            "a weekday beyond the last term": (date(2027, 4, 7), True),
            "a Sunday beyond the last term": (date(2027, 4, 4), False),
        }
        for name, (day, expected) in cases.items():
            with self.subTest(name):
                self.assertIs(CALENDAR.is_school_day(day), expected)

    def test_beyond_is_said_only_after_the_last_term(self) -> None:
        self.assertFalse(CALENDAR.beyond(date(2026, 12, 20)))
        self.assertTrue(CALENDAR.beyond(date(2027, 3, 27)))
        self.assertTrue(SchoolCalendar().beyond(date(2026, 1, 1)))

    def test_the_kth_school_day_after(self) -> None:
        cases = [
            ("none", date(2026, 11, 4), 0, date(2026, 11, 4)),
            ("the next day", date(2026, 11, 4), 1, date(2026, 11, 5)),
            ("over a weekend", date(2026, 11, 6), 1, date(2026, 11, 9)),
            ("over a holiday week", date(2026, 10, 23), 2, date(2026, 11, 3)),
            ("from inside the holiday", date(2026, 10, 28), 1, date(2026, 11, 2)),
            ("over the end of term", date(2026, 12, 10), 3, date(2027, 1, 5)),
            ("beyond the last term", date(2027, 3, 25), 3, date(2027, 3, 30)),
            ("from beyond", date(2027, 5, 7), 1, date(2027, 5, 10)),
        ]
        for name, day, count, expected in cases:
            with self.subTest(name):
                self.assertEqual(CALENDAR.after(day, count), expected)

    def test_a_negative_count_is_refused(self) -> None:
        with self.assertRaises(ValueError):
            CALENDAR.after(date(2026, 11, 4), -1)

    def test_a_week_without_days_is_refused_beyond_the_terms(self) -> None:
        with self.assertRaises(ValueError):
            SchoolCalendar(weekdays=frozenset()).after(date(2026, 11, 4), 1)

    def test_days_between_leave_out_the_first_and_hold_the_last(self) -> None:
        cases = [
            (date(2026, 11, 4), date(2026, 11, 4), 0),
            (date(2026, 11, 5), date(2026, 11, 4), 0),
            (date(2026, 11, 4), date(2026, 11, 5), 1),
            (date(2026, 11, 6), date(2026, 11, 8), 0),
            (date(2026, 10, 23), date(2026, 11, 2), 1),
            (date(2026, 12, 11), date(2027, 1, 3), 0),
            (date(2027, 3, 24), date(2027, 3, 30), 4),
        ]
        for first, last, expected in cases:
            with self.subTest(f"{first} to {last}"):
                self.assertEqual(CALENDAR.between(first, last), expected)

    def test_between_undoes_after(self) -> None:
        for start in (date(2026, 9, 7) + timedelta(days=day) for day in range(0, 240, 7)):
            for count in (1, 2, 7, 30):
                self.assertEqual(CALENDAR.between(start, CALENDAR.after(start, count)), count)


class Weeks(SimpleTestCase):
    def test_weeks_are_numbered_from_the_monday_of_the_first_day(self) -> None:
        weeks = CALENDAR.weeks(Term("Odd", date(2026, 9, 9), date(2026, 9, 22)))
        self.assertEqual([(week.number, week.monday.day) for week in weeks], [(1, 7), (2, 14), (3, 21)])

    def test_a_holiday_week_counts_and_has_no_school_days(self) -> None:
        weeks = {week.monday: week.school_days for week in CALENDAR.weeks(AUTUMN)}
        self.assertEqual(weeks[date(2026, 10, 26)], 0)
        self.assertEqual(weeks[date(2026, 11, 2)], 5)
        self.assertEqual(len(weeks), 14)

    def test_the_term_of_a_day(self) -> None:
        self.assertEqual(CALENDAR.term_at(date(2026, 10, 1)), AUTUMN)
        self.assertEqual(CALENDAR.term_at(date(2026, 12, 20)), SPRING, "between terms: the next one")
        self.assertEqual(CALENDAR.term_at(date(2028, 1, 1)), SPRING, "after all of them: the last one")
        self.assertIsNone(SchoolCalendar().term_at(date(2026, 10, 1)))


class Moments(SimpleTestCase):
    LONDON = ZoneInfo("Europe/London")

    def test_a_date_alone_ends_its_local_day(self) -> None:
        self.assertEqual(moment_of(date(2026, 7, 1), None, self.LONDON), datetime(2026, 7, 1, 22, 59, 59, tzinfo=UTC))
        self.assertEqual(moment_of(date(2026, 12, 1), None, self.LONDON), datetime(2026, 12, 1, 23, 59, 59, tzinfo=UTC))

    def test_a_time_is_the_schools_wall_clock(self) -> None:
        self.assertEqual(moment_of(date(2026, 7, 1), time(16), self.LONDON), datetime(2026, 7, 1, 15, 0, tzinfo=UTC))

    def test_the_local_day_of_a_moment_near_midnight(self) -> None:
        late = datetime(2026, 7, 1, 23, 30, tzinfo=UTC)
        self.assertEqual(CALENDAR.local_day(late), date(2026, 7, 2))


class QuickDays(SimpleTestCase):
    @given(
        st.sampled_from(sorted(available_timezones())),
        st.lists(st.datetimes(datetime(2000, 1, 1), datetime(2100, 1, 1), timezones=st.just(UTC)), min_size=1),
    )
    def test_the_day_of_each_moment_is_that_of_its_zone(self, zone: str, moments: list[datetime]) -> None:
        """Against ``zoneinfo``, in every zone that it knows."""
        day_of = quick_days(SchoolCalendar(zone=zone))
        near = [one + timedelta(minutes=at) for one in moments for at in (0, 14, 15, -1)]
        self.assertEqual([day_of(one) for one in near], [one.astimezone(ZoneInfo(zone)).date() for one in near])
