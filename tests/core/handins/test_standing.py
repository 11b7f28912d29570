"""Status and flags from events: the order of the rules and every corner."""

from datetime import UTC, date, datetime, timedelta

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.handins.standing import Facts, Happening, Standing, Status, Verb, fold, judge, judge_column
from tests.core.calendar.test_school_days import AUTUMN, CALENDAR, HOLIDAY

OPENS = datetime(2026, 10, 20, tzinfo=UTC)
DUE = datetime(2026, 11, 6, 23, 59, 59, tzinfo=UTC)
NOW = datetime(2026, 11, 4, 10, tzinfo=UTC)
LATER = datetime(2026, 11, 12, 10, tzinfo=UTC)
HOUR = timedelta(hours=1)


def standing(
    *happenings: Happening, asked: bool = True, now: datetime = NOW, work: bool = False, **more: object
) -> Standing:
    given_ = {"opens": OPENS, "due": DUE, "calendar": CALENDAR, **more}
    return judge(fold(happenings), asked=asked, has_work=work, now=now, **given_)


def handed_in(at: datetime, number: int = 1) -> Happening:
    return Happening(Verb.HANDED_IN, at, number)


def outcome(verb: Verb, at: datetime, number: int = 1, **more: datetime) -> Happening:
    return Happening(verb, at, number, **more)


IN_TIME = handed_in(NOW - HOUR)
ACCEPTED = outcome(Verb.ACCEPTED, NOW)
SENT_BACK = outcome(Verb.SENT_BACK, NOW)
EXCUSED = Happening(Verb.EXCUSED, NOW)


class StatusInOrder(SimpleTestCase):
    def test_the_first_that_applies(self) -> None:
        cases = {
            "not asked, whatever happened": (standing(IN_TIME, ACCEPTED, asked=False), Status.NOT_ASKED),
            "excused": (standing(EXCUSED), Status.EXCUSED),
            "excused after handing in": (standing(IN_TIME, EXCUSED), Status.EXCUSED),
            "excused after acceptance": (standing(IN_TIME, ACCEPTED, EXCUSED), Status.EXCUSED),
            "accepted": (standing(IN_TIME, ACCEPTED), Status.ACCEPTED),
            "sent back": (standing(IN_TIME, SENT_BACK), Status.SENT_BACK),
            "handed in": (standing(IN_TIME), Status.HANDED_IN),
            "handed in again after sent back": (
                standing(IN_TIME, SENT_BACK, handed_in(NOW + HOUR, 2)),
                Status.HANDED_IN,
            ),
            "not open": (standing(now=OPENS - HOUR), Status.NOT_OPEN),
            "not open, though there is work": (standing(now=OPENS - HOUR, work=True), Status.NOT_OPEN),
            "working": (standing(work=True), Status.WORKING),
            "empty": (standing(), Status.EMPTY),
        }
        for name, (found, expected) in cases.items():
            with self.subTest(name):
                self.assertIs(found.status, expected)

    def test_ending_an_excuse_brings_the_facts_back(self) -> None:
        self.assertIs(standing(IN_TIME, EXCUSED, Happening(Verb.UNEXCUSED, NOW)).status, Status.HANDED_IN)

    def test_an_outcome_reopened_is_void(self) -> None:
        for given_ in (ACCEPTED, SENT_BACK):
            again = standing(IN_TIME, given_, outcome(Verb.REOPENED, NOW + HOUR))
            self.assertIs(again.status, Status.HANDED_IN)

    def test_reopened_and_decided_otherwise(self) -> None:
        happenings = (IN_TIME, ACCEPTED, outcome(Verb.REOPENED, NOW), outcome(Verb.SENT_BACK, NOW))
        self.assertIs(standing(*happenings).status, Status.SENT_BACK)

    def test_a_submission_taken_back_is_void(self) -> None:
        taken = Happening(Verb.TAKEN_BACK, NOW, 1)
        self.assertIs(standing(IN_TIME, taken).status, Status.EMPTY)
        self.assertIs(standing(IN_TIME, taken, work=True).status, Status.WORKING)

    def test_taking_a_second_submission_back_leaves_the_first_with_its_outcome(self) -> None:
        happenings = (IN_TIME, SENT_BACK, handed_in(NOW + HOUR, 2), Happening(Verb.TAKEN_BACK, NOW + HOUR, 2))
        self.assertIs(standing(*happenings).status, Status.SENT_BACK)

    def test_an_outcome_on_an_older_submission_says_nothing_about_the_newest(self) -> None:
        facts = fold([IN_TIME, SENT_BACK, handed_in(NOW + HOUR, 2)])
        self.assertEqual((facts.newest, facts.outcome, facts.submissions), (2, None, 2))


class Late(SimpleTestCase):
    def test_handed_in_within_the_due_second_is_on_time(self) -> None:
        self.assertFalse(standing(handed_in(DUE), now=LATER).late)
        self.assertFalse(standing(handed_in(DUE + timedelta(microseconds=999_999)), now=LATER).late)

    def test_one_second_after_is_late_on_the_same_school_day_or_the_next(self) -> None:
        found = standing(handed_in(DUE + timedelta(seconds=1)), now=LATER)
        self.assertEqual((found.late, found.late_days, found.late_by), (True, 0, timedelta(seconds=1)))

    def test_whole_school_days_leave_out_weekend_and_holiday(self) -> None:
        monday = handed_in(datetime(2026, 11, 9, 9, tzinfo=UTC))
        self.assertEqual(standing(monday, now=LATER).late_days, 1)
        before_holiday = datetime(2026, 10, 23, 22, 59, 59, tzinfo=UTC)
        after = handed_in(datetime(2026, 11, 3, 9, tzinfo=UTC))
        self.assertEqual(standing(after, now=LATER, due=before_holiday).late_days, 2)

    def test_the_first_submission_that_is_not_void_decides(self) -> None:
        late = handed_in(DUE + 72 * HOUR, 2)
        self.assertFalse(standing(IN_TIME, SENT_BACK, late, now=LATER).late, "the first was in time")
        self.assertTrue(
            standing(IN_TIME, Happening(Verb.TAKEN_BACK, NOW, 1), late, now=LATER).late, "the first is void"
        )

    def test_never_late_without_a_due_moment(self) -> None:
        found = standing(handed_in(LATER), now=LATER, due=None)
        self.assertFalse(found.late or found.overdue)

    def test_excused_is_neither_late_nor_overdue(self) -> None:
        found = standing(handed_in(DUE + 50 * HOUR), EXCUSED, now=LATER)
        self.assertFalse(found.late or found.overdue)

    def test_a_changed_calendar_changes_the_days_late(self) -> None:
        monday_off = SchoolCalendar((AUTUMN,), days_off={**HOLIDAY, date(2026, 11, 9): "Snow"}, zone="Europe/London")
        tuesday = handed_in(datetime(2026, 11, 10, 9, tzinfo=UTC))
        self.assertEqual(standing(tuesday, now=LATER).late_days, 2)
        self.assertEqual(standing(tuesday, now=LATER, calendar=monday_off).late_days, 1)

    def test_a_due_moment_moved_later_ends_lateness(self) -> None:
        happening = handed_in(DUE + 5 * HOUR)
        self.assertTrue(standing(happening, now=LATER).late)
        self.assertFalse(standing(happening, now=LATER, due=DUE + 24 * HOUR).late)


class Overdue(SimpleTestCase):
    def test_from_the_second_after_the_due_moment(self) -> None:
        self.assertFalse(standing(now=DUE + timedelta(microseconds=500_000)).overdue)
        self.assertTrue(standing(now=DUE + timedelta(seconds=1)).overdue)

    def test_work_that_is_not_handed_in_is_overdue_too(self) -> None:
        found = standing(now=LATER, work=True)
        self.assertEqual((found.status, found.overdue), (Status.WORKING, True))

    def test_sent_back_after_the_due_moment_is_not_overdue_by_that(self) -> None:
        found = standing(IN_TIME, outcome(Verb.SENT_BACK, LATER), now=LATER)
        self.assertEqual((found.status, found.overdue), (Status.SENT_BACK, False))

    def test_sent_back_with_an_own_due_moment(self) -> None:
        again = LATER + 24 * HOUR
        happening = outcome(Verb.SENT_BACK, LATER, due_again=again)
        before = standing(IN_TIME, happening, now=LATER)
        self.assertEqual((before.overdue, before.changes_at), (False, again + timedelta(seconds=1)))
        self.assertTrue(standing(IN_TIME, happening, now=again + HOUR).overdue)

    def test_the_answer_says_when_it_next_changes(self) -> None:
        self.assertEqual(standing(now=OPENS - HOUR).changes_at, OPENS)
        self.assertEqual(standing().changes_at, DUE + timedelta(seconds=1))
        self.assertIsNone(standing(now=LATER).changes_at)
        self.assertIsNone(standing(IN_TIME).changes_at)


MOMENTS = st.datetimes(datetime(2026, 10, 1), datetime(2026, 12, 1)).map(lambda one: one.replace(tzinfo=UTC))
ACTS = st.lists(
    st.builds(Happening, st.sampled_from(Verb), MOMENTS, st.integers(1, 3), st.none() | MOMENTS), max_size=12
)


class Properties(SimpleTestCase):
    @given(ACTS, MOMENTS, st.booleans(), st.booleans())
    def test_the_answer_holds_until_it_says_it_changes(
        self, happenings: list[Happening], now: datetime, asked: bool, work: bool
    ) -> None:
        found = standing(*happenings, now=now, asked=asked, work=work)
        if found.changes_at is None:
            self.assertEqual(found, standing(*happenings, now=now + timedelta(days=400), asked=asked, work=work))
        else:
            self.assertGreater(found.changes_at, now)
            just_before = max(now, found.changes_at - timedelta(milliseconds=1))
            still = standing(*happenings, now=just_before, asked=asked, work=work)
            self.assertEqual(found, still)
            self.assertNotEqual(found[:5], standing(*happenings, now=found.changes_at, asked=asked, work=work)[:5])

    @given(ACTS)
    def test_facts_name_a_standing_submission_or_none(self, happenings: list[Happening]) -> None:
        facts = fold(happenings)
        handed = {happening.submission for happening in happenings if happening.verb is Verb.HANDED_IN}
        self.assertTrue(facts.newest is None or facts.newest in handed)
        self.assertEqual(facts.newest is None, facts.first_at is None)
        self.assertLessEqual(facts.submissions, sum(happening.verb is Verb.HANDED_IN for happening in happenings))

    @given(st.lists(st.tuples(ACTS, st.booleans(), st.booleans()), max_size=6), MOMENTS)
    def test_a_column_is_judged_like_its_cells(
        self, column: list[tuple[list[Happening], bool, bool]], now: datetime
    ) -> None:
        cells = [(fold(happenings) if happenings else None, asked, DUE, work) for happenings, asked, work in column]
        expected = [
            judge(facts or Facts(), asked=asked, opens=OPENS, due=due, has_work=work, now=now, calendar=CALENDAR)
            for facts, asked, due, work in cells
        ]
        self.assertEqual(judge_column(cells, opens=OPENS, now=now, calendar=CALENDAR), expected)
