"""Laying out a calendar, and what a change of it does."""

from datetime import date, timedelta

from django.test import SimpleTestCase

from coatpeg.core.calendar.plan import CalendarPlan, DaysOff, compared, runs
from coatpeg.core.calendar.school_days import MONDAY_TO_FRIDAY, SchoolCalendar, Term
from coatpeg.core.errors import Invalid

AUTUMN = Term("Autumn term", date(2026, 9, 2), date(2026, 12, 18))
SPRING = Term("Spring term", date(2027, 1, 5), date(2027, 3, 26))
HALF_TERM = DaysOff(date(2026, 10, 26), date(2026, 10, 30), "Half-term")


def plan(**changes: object) -> CalendarPlan:
    fields = {
        "terms": (AUTUMN, SPRING),
        "weekdays": MONDAY_TO_FRIDAY,
        "days_off": (HALF_TERM,),
        "zone": "Europe/London",
    }
    return CalendarPlan(**{**fields, **changes})


class Checking(SimpleTestCase):
    def test_a_sound_plan_becomes_a_calendar(self) -> None:
        calendar = plan(terms=(SPRING, AUTUMN)).checked()
        self.assertEqual(calendar.terms, (AUTUMN, SPRING))
        self.assertEqual(len(calendar.days_off), 5)
        self.assertFalse(calendar.is_school_day(date(2026, 10, 28)))
        self.assertTrue(calendar.is_school_day(date(2026, 11, 2)))

    def test_what_cannot_be_taken_names_its_line_and_the_fix(self) -> None:
        cases = {
            "overlap": (
                {"terms": (AUTUMN, Term("Extra", date(2026, 12, 18), date(2027, 1, 4)))},
                "terms.1",
                "begins on Fri 18 Dec 2026",
            ),
            "backwards": ({"terms": (Term("Autumn", AUTUMN.last, AUTUMN.first),)}, "terms.0", "before it begins"),
            "nameless": ({"terms": (Term("  ", AUTUMN.first, AUTUMN.last),)}, "terms.0", "no name"),
            "endless": ({"terms": (Term("Long", date(2026, 9, 1), date(2028, 9, 1)),)}, "terms.0", "732 days"),
            "no weekday": ({"weekdays": frozenset()}, "weekdays", "no days"),
            "an eighth weekday": ({"weekdays": frozenset({7})}, "weekdays", "no days"),
            "no zone": ({"zone": "Larkfield"}, "zone", "not a time zone"),
            "a path as a zone": ({"zone": "../etc/passwd"}, "zone", "not a time zone"),
            "a nameless day": ({"days_off": (DaysOff(HALF_TERM.first, HALF_TERM.last, ""),)}, "days_off.0", "no name"),
            "a run backwards": (
                {"days_off": (DaysOff(HALF_TERM.last, HALF_TERM.first, "Half-term"),)},
                "days_off.0",
                "ends before",
            ),
            "a run of years": (
                {"days_off": (HALF_TERM, DaysOff(HALF_TERM.first, date(2028, 1, 1), "Snow"))},
                "days_off.1",
                "433 days",
            ),
        }
        for name, (changes, where, what) in cases.items():
            with self.subTest(name):
                with self.assertRaises(Invalid) as caught:
                    plan(**changes).checked()
                self.assertEqual(caught.exception.where, where)
                self.assertIn(what, caught.exception.what)
                self.assertTrue(caught.exception.fix)

    def test_two_sources_may_name_the_same_day(self) -> None:
        calendar = plan(days_off=(HALF_TERM, DaysOff(date(2026, 10, 30), date(2026, 10, 30), "Training"))).checked()
        self.assertEqual(calendar.days_off[date(2026, 10, 30)], "Training")


class Runs(SimpleTestCase):
    def test_days_of_one_name_stand_together_across_a_weekend(self) -> None:
        first = date(2026, 12, 17)  # a Thursday
        days = {first + timedelta(days=place): "Winter holiday" for place in (0, 1, 4, 5)}
        days[date(2026, 12, 23)] = "Staff day"
        self.assertEqual(
            runs(days, MONDAY_TO_FRIDAY),
            (
                DaysOff(first, date(2026, 12, 22), "Winter holiday"),
                DaysOff(date(2026, 12, 23), date(2026, 12, 23), "Staff day"),
            ),
        )

    def test_a_school_day_between_parts_them(self) -> None:
        days = {date(2026, 11, 2): "Snow", date(2026, 11, 4): "Snow"}
        self.assertEqual(len(runs(days, MONDAY_TO_FRIDAY)), 2)
        self.assertEqual(runs({}, MONDAY_TO_FRIDAY), ())

    def test_runs_are_the_plan_again(self) -> None:
        calendar = plan().checked()
        again = plan(days_off=runs(calendar.days_off, calendar.weekdays)).checked()
        self.assertEqual(again, calendar)


class Comparing(SimpleTestCase):
    def test_days_lost_and_gained(self) -> None:
        before = plan().checked()
        moved = DaysOff(date(2026, 10, 27), date(2026, 10, 31), "Half-term")  # the last one is a Saturday
        after = plan(days_off=(moved,)).checked()
        change = compared(before, after)
        self.assertEqual((change.lost, change.gained), ((), (date(2026, 10, 26),)))
        back = compared(after, before)
        self.assertEqual((back.lost, back.gained), ((date(2026, 10, 26),), ()))

    def test_a_term_more_gains_its_days_and_nothing_else(self) -> None:
        before, after = plan(terms=(AUTUMN,), days_off=()).checked(), plan(days_off=()).checked()
        change = compared(before, after)
        # After the last term weekdays counted already, so what is new is that the holidays before it are none.
        self.assertEqual(change.gained, ())
        self.assertEqual(change.lost[0], date(2026, 12, 21))
        self.assertEqual(change.lost[-1], date(2027, 1, 4))
        self.assertEqual(compared(SchoolCalendar(), SchoolCalendar()).lost, ())
