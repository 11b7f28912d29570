"""Who is asked, and when it is due for them: every corner of the rule."""

from datetime import UTC, date, datetime, time

from django.test import SimpleTestCase

from coatpeg.core.calendar.school_days import Span
from coatpeg.core.handins.asking import (
    Adjustment,
    Asked,
    Due,
    DueSource,
    Student,
    at_once,
    effective_due,
    is_asked,
    is_named,
)
from tests.core.calendar.test_school_days import CALENDAR

OPENS = date(2026, 10, 20)
FRIDAY = Due(date(2026, 11, 6))
WHOLE_TERM = Span(date(2026, 9, 7), date(2026, 12, 11))
P3, P4 = 3, 4


def student(span: Span = WHOLE_TERM, period: int | None = P3, *adjustments: Adjustment) -> Student:
    return Student(span, ((period, span),) if period else (), adjustments)


def due_of(asked: Asked, one: Student, own: Due | None = None) -> tuple[date | None, DueSource]:
    found = effective_due(asked, one, own, CALENDAR)
    return (found.due.day if found.due else None), found.source


class EffectiveDue(SimpleTestCase):
    def test_the_class_due_where_nothing_else_is_said(self) -> None:
        self.assertEqual(due_of(Asked(OPENS, FRIDAY), student()), (FRIDAY.day, DueSource.CLASS))

    def test_no_due_moment(self) -> None:
        self.assertEqual(due_of(Asked(OPENS), student()), (None, DueSource.NONE))

    def test_a_period_goes_before_the_class(self) -> None:
        asked = Asked(OPENS, FRIDAY, {P3: Due(date(2026, 11, 5))})
        self.assertEqual(due_of(asked, student(period=P3)), (date(2026, 11, 5), DueSource.PERIOD))
        self.assertEqual(due_of(asked, student(period=P4)), (FRIDAY.day, DueSource.CLASS))

    def test_an_own_date_goes_before_all_and_is_not_moved(self) -> None:
        helped = student(WHOLE_TERM, P3, Adjustment(5, WHOLE_TERM))
        asked = Asked(OPENS, FRIDAY, {P3: Due(date(2026, 11, 5))})
        self.assertEqual(due_of(asked, helped, Due(date(2026, 11, 10))), (date(2026, 11, 10), DueSource.OWN))

    def test_without_a_period_where_only_periods_have_one_staff_are_told(self) -> None:
        asked = Asked(OPENS, None, {P3: FRIDAY})
        self.assertEqual(due_of(asked, student(period=None)), (None, DueSource.NO_PERIOD))
        self.assertEqual(due_of(asked, student(period=P4)), (None, DueSource.NO_PERIOD))

    def test_the_period_is_that_of_the_earliest_due_day_a_later_move_changes_nothing(self) -> None:
        asked = Asked(OPENS, None, {P3: Due(date(2026, 11, 5)), P4: FRIDAY})
        moved_on_the_friday = Student(
            WHOLE_TERM, ((P3, Span(date(2026, 9, 7), date(2026, 11, 5))), (P4, Span(date(2026, 11, 6))))
        )
        moved_before = Student(
            WHOLE_TERM, ((P3, Span(date(2026, 9, 7), date(2026, 11, 2))), (P4, Span(date(2026, 11, 3))))
        )
        self.assertEqual(due_of(asked, moved_on_the_friday)[0], date(2026, 11, 5))
        self.assertEqual(due_of(asked, moved_before)[0], FRIDAY.day)

    def test_an_adjustment_crosses_a_holiday_at_the_same_time_of_day(self) -> None:
        helped = student(WHOLE_TERM, P3, Adjustment(2, WHOLE_TERM))
        found = effective_due(Asked(OPENS, Due(date(2026, 10, 23), time(16))), helped, None, CALENDAR)
        self.assertEqual(found.due, Due(date(2026, 11, 3), time(16)))
        self.assertEqual(found.moment, datetime(2026, 11, 3, 16, tzinfo=UTC), "after the clocks went back: GMT")
        self.assertEqual(found.extra_days, 2)

    def test_the_largest_adjustment_that_holds_on_the_unmoved_day_counts(self) -> None:
        before = Adjustment(9, Span(date(2026, 9, 7), date(2026, 11, 5)))
        helped = student(WHOLE_TERM, P3, before, Adjustment(1, WHOLE_TERM), Adjustment(2, Span(FRIDAY.day, FRIDAY.day)))
        self.assertEqual(due_of(Asked(OPENS, FRIDAY), helped)[0], date(2026, 11, 10))

    def test_a_due_date_on_a_non_school_day_is_kept_and_moves_to_school_days(self) -> None:
        saturday = Asked(OPENS, Due(date(2026, 11, 7)))
        self.assertEqual(due_of(saturday, student())[0], date(2026, 11, 7))
        self.assertEqual(due_of(saturday, student(WHOLE_TERM, P3, Adjustment(1, WHOLE_TERM)))[0], date(2026, 11, 9))

    def test_a_clock_change_between_setting_and_due_keeps_the_wall_clock(self) -> None:
        before = effective_due(Asked(OPENS, Due(date(2026, 10, 24), time(9))), student(), None, CALENDAR)
        after = effective_due(Asked(OPENS, Due(date(2026, 10, 26), time(9))), student(), None, CALENDAR)
        self.assertEqual(before.moment, datetime(2026, 10, 24, 8, tzinfo=UTC))
        self.assertEqual(after.moment, datetime(2026, 10, 26, 9, tzinfo=UTC))


class WhoIsAsked(SimpleTestCase):
    def asked(self, asked: Asked, one: Student, own: Due | None = None) -> bool:
        return is_asked(asked, one, effective_due(asked, one, own, CALENDAR))

    def test_by_the_time_in_the_class(self) -> None:
        day = FRIDAY.day
        cases = {
            "enrolled throughout": (WHOLE_TERM, True),
            "joined after it opened": (Span(date(2026, 11, 2)), True),
            "joined on the day it is due": (Span(day), True),
            "joined the day after": (Span(date(2026, 11, 7)), False),
            "left before it was due": (Span(date(2026, 9, 7), date(2026, 11, 5)), False),
            "left on the day it is due": (Span(date(2026, 9, 7), day), True),
        }
        for name, (span, expected) in cases.items():
            with self.subTest(name):
                self.assertIs(self.asked(Asked(OPENS, FRIDAY), student(span)), expected)

    def test_extra_days_never_make_a_newcomer_owe_old_work(self) -> None:
        joined = Span(date(2026, 11, 9))
        self.assertFalse(self.asked(Asked(OPENS, FRIDAY), student(joined, P3, Adjustment(5, WHOLE_TERM))))

    def test_nothing_is_asked_whose_moved_due_day_lies_after_leaving(self) -> None:
        leaving = Span(date(2026, 9, 7), date(2026, 11, 9))
        self.assertFalse(self.asked(Asked(OPENS, FRIDAY), student(leaving, P3, Adjustment(5, WHOLE_TERM))))
        self.assertTrue(self.asked(Asked(OPENS, FRIDAY), student(leaving, P3, Adjustment(1, WHOLE_TERM))))

    def test_an_own_date_brings_a_newcomer_in(self) -> None:
        self.assertTrue(self.asked(Asked(OPENS, FRIDAY), student(Span(date(2026, 11, 9))), Due(date(2026, 11, 20))))

    def test_without_a_due_moment_whoever_is_there_while_it_is_open(self) -> None:
        self.assertTrue(self.asked(Asked(OPENS), student(Span(date(2026, 11, 30)))))
        self.assertFalse(self.asked(Asked(OPENS), student(Span(date(2026, 9, 7), date(2026, 10, 19)))))

    def test_an_audience_of_periods(self) -> None:
        only_p3 = Asked(OPENS, FRIDAY, None, frozenset({P3}))
        self.assertTrue(self.asked(only_p3, student(period=P3)))
        self.assertFalse(self.asked(only_p3, student(period=P4)))
        self.assertFalse(self.asked(only_p3, student(period=None)))

    def test_an_audience_of_periods_without_a_due_moment(self) -> None:
        only_p3 = Asked(OPENS, None, None, frozenset({P3}))
        was = Student(WHOLE_TERM, ((P3, Span(date(2026, 9, 7), date(2026, 10, 1))),))
        is_now = Student(WHOLE_TERM, ((P3, Span(date(2026, 9, 7), date(2026, 10, 25))),))
        self.assertFalse(self.asked(only_p3, was))
        self.assertTrue(self.asked(only_p3, is_now))


class ComingBack(SimpleTestCase):
    """Whoever left and came back is not asked for what was due in between."""

    def test_not_asked_in_between_and_asked_before_and_after(self) -> None:
        away = Span(date(2026, 10, 5), date(2026, 10, 18))
        student = Student(Span(date(2026, 9, 7)), away=(away,))
        for due_day, expected in ((4, True), (5, False), (18, False), (19, True)):
            with self.subTest(due_day):
                asked = Asked(date(2026, 9, 7), Due(date(2026, 10, due_day)))
                effective = effective_due(asked, student, None, CALENDAR)
                self.assertIs(is_asked(asked, student, effective), expected)

    def test_a_date_of_their_own_asks_them_all_the_same(self) -> None:
        student = Student(Span(date(2026, 10, 12)))
        asked = Asked(date(2026, 9, 7), Due(date(2026, 10, 5)))
        self.assertFalse(is_asked(asked, student, effective_due(asked, student, None, CALENDAR)))
        own = effective_due(asked, student, Due(date(2026, 10, 20)), CALENDAR)
        self.assertTrue(is_asked(asked, student, own))

    def test_a_date_of_their_own_asks_a_student_of_another_period_too(self) -> None:
        asked = Asked(OPENS, FRIDAY, audience=frozenset({P4}))
        joiner = student(Span(date(2026, 11, 2), WHOLE_TERM.last))
        self.assertFalse(is_asked(asked, joiner, effective_due(asked, joiner, None, CALENDAR)))
        own = Due(date(2026, 11, 13))
        self.assertTrue(is_asked(asked, joiner, effective_due(asked, joiner, own, CALENDAR)))


class Picked(SimpleTestCase):
    def test_nobody_is_picked_some_are_or_some_are_left_out(self) -> None:
        cases = [
            (Asked(OPENS), [True, True, True]),
            (Asked(OPENS, only=frozenset({1, 3})), [True, False, True]),
            (Asked(OPENS, only=frozenset()), [False, False, False]),
            (Asked(OPENS, but=frozenset({2})), [True, False, True]),
            (Asked(OPENS, only=frozenset({1, 2}), but=frozenset({2})), [True, False, False]),
        ]
        for asked, expected in cases:
            with self.subTest(expected):
                self.assertEqual([is_named(asked, one) for one in (1, 2, 3)], expected)


class AtOnce(SimpleTestCase):
    def test_two_are_open_at_once_from_opening_until_the_latest_due_day(self) -> None:
        one = Asked(date(2026, 11, 2), FRIDAY)
        for other, expected in (
            (Asked(date(2026, 11, 6), Due(date(2026, 11, 20))), True),
            (Asked(date(2026, 11, 7), Due(date(2026, 11, 20))), False),
            (Asked(OPENS, Due(date(2026, 11, 1))), False),
            (Asked(OPENS, None, {P3: Due(date(2026, 11, 1)), P4: Due(date(2026, 11, 2))}), True),
            (Asked(OPENS), True),
            (Asked(OPENS, closes=Due(date(2026, 11, 1))), False),
            (Asked(OPENS, Due(date(2026, 11, 1)), closes=Due(date(2026, 11, 30))), False),
        ):
            self.assertEqual((at_once(one, other), at_once(other, one)), (expected, expected), other)

    def test_without_due_day_and_closing_it_is_open_for_good(self) -> None:
        self.assertTrue(at_once(Asked(OPENS), Asked(date(2030, 1, 1))))
        self.assertIsNone(Asked(OPENS).until)
