"""Logs: what a column takes, what a row lacks, how a log adds up, what of it is filled."""

from collections import defaultdict
from datetime import date, timedelta
from decimal import Decimal
from fractions import Fraction

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import (
    Filled,
    Piece,
    PocketKind,
    PocketState,
    Wanted,
    chips,
    filled,
    portfolio_filled,
    weekly,
)
from coatpeg.core.portfolios.log_columns import (
    Column,
    ColumnType,
    LogPlan,
    Target,
    log_from_data,
    log_to_data,
    refuse_other_types,
)
from coatpeg.core.portfolios.log_rows import judged
from coatpeg.core.portfolios.log_sums import added, ordered, week_of
from coatpeg.core.portfolios.texts import Counts, Length, Measure

DAY = Column("day", "Date", ColumnType.DATE, required=True)
BED = Column("bed", "Bed", ColumnType.CHOICE, choices=("North", "South"))
GRAMS = Column("grams", "Harvest", ColumnType.NUMBER, required=True, unit="g")
SEEN = Column("seen", "What I saw", ColumnType.LONG_TEXT, length=Length(Measure.SENTENCES, 1, 2))
PHOTO = Column("photo", "Photo", ColumnType.ARTEFACT)
DONE = Column("done", "Watered", ColumnType.YES_NO)
PLAN = LogPlan((DAY, BED, GRAMS, SEEN, PHOTO, DONE), target=Target("grams", Decimal(500)))


class Columns(SimpleTestCase):
    def test_tidied_and_without_what_a_type_has_no_use_for(self) -> None:
        messy = Column("a", "  Bed \n no ", ColumnType.CHOICE, True, "g", ("North ", "", "South", "South"), SEEN.length)
        self.assertEqual(
            LogPlan((messy,)).checked().columns,
            (Column("a", "Bed no", ColumnType.CHOICE, True, "", ("North", "South")),),
        )

    def test_what_cannot_be_taken_says_where(self) -> None:
        cases = {
            "columns": LogPlan(),
            "Column 2": LogPlan((DAY, Column("x", " ", ColumnType.TEXT))),
            "Column 1": LogPlan((Column("X y", "Day", ColumnType.DATE),)),
            "order": LogPlan((DAY,), order="gone"),
            "target": LogPlan((DAY, BED), target=Target("bed", Decimal(1))),
        }
        for where, plan in cases.items():
            with self.subTest(where), self.assertRaises(Invalid) as caught:
                plan.checked()
            self.assertEqual(caught.exception.where, where)
            self.assertTrue(caught.exception.fix)
        for plan in (
            LogPlan((DAY, Column("other", "DATE", ColumnType.TEXT))),
            LogPlan((DAY, Column("day", "Day", ColumnType.TEXT))),
            LogPlan((Column("a", "A", ColumnType.CHOICE),)),
            LogPlan((Column("a", "A", ColumnType.CHOICE, choices=("x", "X")),)),
            LogPlan((Column("a", "A", ColumnType.LONG_TEXT, length=Length(Measure.WORDS, 5, 2)),)),
            LogPlan((GRAMS,), target=Target("grams", Decimal(5), each_week=True)),
            LogPlan((GRAMS,), target=Target("grams", Decimal("NaN"))),
            LogPlan(tuple(Column(f"k{at}", f"C{at}", ColumnType.TEXT) for at in range(21))),
        ):
            with self.subTest(plan), self.assertRaises(Invalid):
                plan.checked()

    def test_there_and_back_as_data(self) -> None:
        self.assertEqual(log_from_data(log_to_data(PLAN)), PLAN)
        with self.assertRaises(Invalid):
            log_from_data({"columns": [], "target": {"column": "", "amount": "much", "each_week": False}})

    def test_a_column_with_values_keeps_its_type(self) -> None:
        as_text = LogPlan((DAY, Column("grams", "Harvest", ColumnType.TEXT)))
        refuse_other_types(PLAN, as_text, frozenset())
        with self.assertRaisesRegex(Invalid, "Harvest"):
            refuse_other_types(PLAN, as_text, frozenset({"grams"}))


class Rows(SimpleTestCase):
    def test_values_as_they_are_kept(self) -> None:
        for column, given_, kept in (
            (DAY, "2026-11-05", "2026-11-05"),
            (DAY, "5.11.2026", "2026-11-05"),
            (DAY, "5/11/2026", "2026-11-05"),
            (DAY, "Thu 5 Nov 2026", "2026-11-05"),
            (DAY, "29 February 2028", "2028-02-29"),
            (GRAMS, " 120 ", "120"),
            (GRAMS, "1,5", "1.5"),
            (GRAMS, "-0.50", "-0.5"),
            (GRAMS, "1200,50", "1200.5"),
            (GRAMS, "−3", "-3"),
            (GRAMS, "000", "0"),
            (BED, "south", "South"),
            (DONE, "Yes", True),
            (DONE, False, False),
            (PHOTO, 7, 7),
            (SEEN, "A\r\nB", "A\nB"),
        ):
            with self.subTest(given_):
                read = judged((column,), {column.key: given_}, frozenset({7}))
                self.assertEqual((dict(read.values), read.wrong), ({column.key: kept}, ()))

    def test_what_does_not_fit_says_what_to_write(self) -> None:
        for column, given_, said in (
            (DAY, "31 February 2026", "no such day"),
            (DAY, "2026-02-31", "no such day"),
            (DAY, "31.2.2026", "no such day"),
            (DAY, "yesterday", "not a date"),
            (DAY, "5 Foo 2026", "not a date"),
            (DAY, "0026-01-01", "year 26"),
            (GRAMS, "1e309", "not a number"),
            (GRAMS, "NaN", "not a number"),
            (GRAMS, "Infinity", "not a number"),
            (GRAMS, "12 g", "not a number"),
            (GRAMS, "1.2.3", "not a number"),
            (GRAMS, "=1+1", "not a number"),
            (GRAMS, "9" * 13, "not a number"),
            (GRAMS, "1,234", "two ways"),
            (GRAMS, "٣", "not a number"),
            (BED, "West", "not one of the choices"),
            (DONE, "perhaps", "neither yes nor no"),
            (PHOTO, 8, "not in your portfolio"),
            (PHOTO, "7", "not in your portfolio"),
            (PHOTO, True, "not in your portfolio"),
            (Column("l", "Link", ColumnType.LINK), "C:\\plants.docx", ""),
            (Column("t", "Text", ColumnType.TEXT), "x" * 301, "301"),
        ):
            with self.subTest(given_):
                read = judged((column,), {column.key: given_}, frozenset({7, 1}))
                self.assertEqual(len(read.wrong), 1)
                self.assertIn(said, read.wrong[0].what)
                self.assertTrue(read.wrong[0].fix)
                self.assertFalse(read.complete)

    def test_what_is_required_or_too_short_is_missing(self) -> None:
        read = judged(PLAN.columns, {"day": "2026-11-05", "seen": "It grew. It stood. It fell."})
        self.assertEqual((read.missing, read.complete), (("Harvest", "What I saw"), False))
        whole = judged(PLAN.columns, {"day": "2026-11-05", "grams": "5", "seen": "It grew."})
        self.assertTrue(whole.complete)
        self.assertFalse(judged((BED,), {}).complete, "an empty row is none")

    def test_what_stood_there_stays(self) -> None:
        """A choice that went, and a column that went, take nothing from a row."""
        kept = {"bed": "West", "gone": "12", "grams": "5"}
        read = judged(PLAN.columns, {"bed": "West", "grams": "6"}, kept=kept)
        self.assertEqual((dict(read.values), read.wrong), ({"gone": "12", "bed": "West", "grams": "6"}, ()))


AMOUNTS = st.decimals(min_value=-1000, max_value=1000, places=3)
LOGGED = st.lists(
    st.fixed_dictionaries(
        {"day": st.dates(date(2026, 9, 1), date(2026, 12, 18)).map(date.isoformat), "grams": AMOUNTS.map(str)},
        optional={"bed": st.sampled_from(["North", "South"])},
    ),
    max_size=30,
)


class Sums(SimpleTestCase):
    @given(LOGGED)
    def test_as_python_fractions_and_iso_weeks_have_it(self, rows: list[dict[str, str]]) -> None:
        """Against exact fractions and the ISO 8601 week of Python's ``date.isocalendar``."""
        found = added(PLAN, rows)
        self.assertEqual(Fraction(found.total.of("grams")), sum(Fraction(row["grams"]) for row in rows))
        weeks: dict[tuple[int, int], list[Fraction]] = defaultdict(list)
        for row in rows:
            weeks[date.fromisoformat(row["day"]).isocalendar()[:2]].append(Fraction(row["grams"]))
        shown = {monday.isocalendar()[:2]: week for monday, week in found.weeks.items()}
        self.assertEqual(
            {key: sum(of) for key, of in weeks.items()}, {key: Fraction(shown[key].of("grams")) for key in weeks}
        )
        self.assertTrue(all(not week.rows for key, week in shown.items() if key not in weeks))
        of_choices = sum(of.rows for of in found.choices.values())
        self.assertEqual(of_choices, sum(1 for row in rows if "bed" in row))
        if rows:
            self.assertEqual(found.line[-1].value, found.total.of("grams"), "the line ends at the sum")

    def test_a_target_for_each_week_and_one_in_rows(self) -> None:
        rows = [
            {"day": "2026-11-02", "grams": "5"},
            {"day": "2026-11-04", "grams": "2"},
            {"day": "2026-11-16", "grams": "1"},
        ]
        each = added(LogPlan(PLAN.columns, target=Target("grams", Decimal(5), each_week=True)), rows)
        self.assertEqual([(point.monday.day, point.value) for point in each.line], [(2, 7), (9, 0), (16, 1)])
        in_rows = added(LogPlan(PLAN.columns, target=Target("", Decimal(20))), rows)
        self.assertEqual([point.value for point in in_rows.line], [2, 2, 3])

    def test_years_apart_the_weeks_between_are_not_drawn(self) -> None:
        rows = [{"day": "2026-11-02", "grams": "5"}, {"day": "2031-11-03", "grams": "2"}]
        self.assertEqual(len(added(PLAN, rows).weeks), 2)

    def test_in_the_columns_order_and_what_has_no_value_last(self) -> None:
        rows = [(1, {"grams": "10"}), (2, {"grams": "9"}), (3, {}), (4, {"grams": "-1", "day": "2026-01-01"})]
        self.assertEqual(ordered(LogPlan(PLAN.columns, "grams"), rows), [4, 2, 1, 3])
        self.assertEqual(ordered(LogPlan(PLAN.columns, "grams", newest_first=True), rows), [1, 2, 4, 3])
        self.assertEqual(ordered(PLAN, rows), [4, 1, 2, 3], "by date unless set")
        self.assertEqual(ordered(LogPlan((GRAMS,), newest_first=True), rows), [4, 3, 2, 1])
        beds = [(1, {"bed": "South"}), (2, {"bed": "North"}), (3, {"bed": "West"})]
        self.assertEqual(ordered(LogPlan(PLAN.columns, "bed"), beds), [2, 1, 3], "a choice that went is last")
        names = LogPlan((Column("who", "Who", ColumnType.TEXT),), "who")
        self.assertEqual(ordered(names, [(1, {"who": "zoë"}), (2, {"who": "Émile"}), (3, {"who": "Ada"})]), [3, 2, 1])

    def test_a_row_without_a_date_is_in_no_week(self) -> None:
        self.assertIsNone(week_of(PLAN, {"grams": "5"}))
        self.assertIsNone(week_of(LogPlan((GRAMS,)), {"day": "2026-11-05"}))


MONDAY = date(2026, 9, 7)
TERM = Term("Autumn", MONDAY, MONDAY + timedelta(weeks=6, days=-3))
HALF_TERM = {MONDAY + timedelta(weeks=3, days=day): "Half-term" for day in range(5)}
CALENDAR = SchoolCalendar((TERM,), days_off=HALF_TERM)
WEEKS = CALENDAR.weeks(TERM)


def rows_in(*weeks: int, complete: bool = True) -> tuple[Piece, ...]:
    return tuple(Piece(Counts(int(complete)), week=(MONDAY + timedelta(weeks=week)).toordinal()) for week in weeks)


class FilledLogs(SimpleTestCase):
    def test_rows_over_all(self) -> None:
        wanted = Wanted(PocketKind.LOG, rows=3)
        self.assertEqual(filled(wanted, rows_in(0, 0, 1, 2)), Filled(3, 3))
        self.assertEqual(filled(wanted, rows_in(0, 1, complete=False)), Filled(0, 3))
        self.assertEqual([(chip.what, chip.done, chip.wanted) for chip in chips(wanted, rows_in(0))], [("rows", 1, 3)])
        self.assertEqual(chips(Wanted(PocketKind.LOG), ()), ())

    def test_so_many_in_each_school_week(self) -> None:
        each = Wanted(PocketKind.LOG, rows_per_week=2)
        until = MONDAY + timedelta(weeks=4, days=2)
        wanted = weekly(each, WEEKS, MONDAY, until)
        self.assertEqual(len(wanted.weeks), 4, "five weeks have begun, one of them was a holiday")
        pieces = rows_in(0, 0, 0, 1, 3)
        self.assertEqual(filled(wanted, pieces), Filled(3, 8), "a third row makes up for no other week")
        self.assertEqual([(chip.what, chip.done, chip.wanted) for chip in chips(wanted, pieces)], [("weekly", 3, 8)])
        self.assertEqual(len(weekly(each, WEEKS, MONDAY, None).weeks), 5)
        self.assertEqual(
            len(weekly(each, WEEKS, MONDAY + timedelta(weeks=1, days=2), until).weeks), 3, "joined in week 2"
        )
        self.assertEqual(weekly(Wanted(PocketKind.LOG, rows=2), WEEKS, MONDAY, None).weeks, ())

    def test_as_of_today_and_over_the_whole_term(self) -> None:
        each = Wanted(PocketKind.LOG, rows_per_week=1)
        state = PocketState(
            weekly(each, WEEKS, MONDAY, MONDAY + timedelta(days=8)), rows_in(0), whole=weekly(each, WEEKS, MONDAY, None)
        )
        self.assertEqual(portfolio_filled([state], whole=False), Filled(1, 2))
        self.assertEqual(portfolio_filled([state], whole=True), Filled(1, 5))

    def test_excused_from_logs(self) -> None:
        self.assertEqual(filled(Wanted(PocketKind.LOG, rows=3, excused=True), rows_in(0)), Filled())
