"""All students' rows of one log: found by words, in order, added up as the rows of each alone are."""

from __future__ import annotations

import unittest
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.portfolios.log_columns import Column, ColumnType, LogPlan
from coatpeg.core.portfolios.log_over_class import BY_NAME, Line, found, in_order, of_students
from coatpeg.core.portfolios.log_sums import added

PLAN = LogPlan(
    (
        Column("day", "Day", ColumnType.DATE),
        Column("crop", "Crop", ColumnType.TEXT),
        Column("grams", "Harvest", ColumnType.NUMBER, unit="g"),
    )
)


def line(row: int, student: int, name: str, complete: bool = True, **values: str) -> Line:
    return Line(row, student, name, student, values, complete)


LINES = [
    line(1, 2, "Ellery, Josh", day="2026-11-03", crop="Crème beans", grams="120.5"),
    line(2, 1, "Dubé, Thandi", day="2026-11-05", crop="Kale", grams="9"),
    line(3, 2, "Ellery, Josh", day="2026-11-01", crop="Kale", grams="80"),
    line(4, 1, "Dubé, Thandi", False, crop="Beans"),
]


class LogOverClass(unittest.TestCase):
    def rows(self, lines: list[Line]) -> list[int]:
        return [one.row for one in lines]

    def test_every_word_stands_somewhere_in_the_row_or_the_name(self) -> None:
        self.assertEqual(self.rows(found(LINES, "kale")), [2, 3])
        self.assertEqual(self.rows(found(LINES, "  DUBE kale ")), [2])
        self.assertEqual(self.rows(found(LINES, "creme josh")), [1])
        self.assertEqual(self.rows(found(LINES, "kale beans")), [])
        self.assertEqual(self.rows(found(LINES, "")), [1, 2, 3, 4])

    def test_in_the_logs_order_by_a_column_or_by_name_and_the_other_way_round(self) -> None:
        order = lambda by, down=False: self.rows(in_order(PLAN, LINES, by, descending=down))  # noqa: E731
        self.assertEqual(order(""), [3, 1, 2, 4])
        self.assertEqual(order("", True), [2, 1, 3, 4], "a row without a day stays last")
        self.assertEqual(order("grams"), [2, 3, 1, 4], "by size, not as text")
        self.assertEqual(order("grams", True), [1, 3, 2, 4])
        self.assertEqual(order(BY_NAME), [2, 4, 3, 1])
        self.assertEqual(order(BY_NAME, True), [3, 1, 2, 4], "each student's rows keep the log's order")

    def test_only_complete_rows_count_for_each(self) -> None:
        sums = of_students(PLAN, LINES)
        self.assertEqual(
            {one: (of.rows, of.sums["grams"]) for one, of in sums.items()}, {1: (1, 9), 2: (2, Decimal("200.5"))}
        )

    @given(
        some.lists(some.tuples(some.integers(1, 4), some.decimals(-1000, 1000, places=2), some.booleans()), max_size=40)
    )
    def test_all_students_together_are_the_whole(self, drawn: list[tuple[int, Decimal, bool]]) -> None:
        lines = [line(at, who, f"N{who}", whole, grams=str(grams)) for at, (who, grams, whole) in enumerate(drawn)]
        each = of_students(PLAN, lines)
        total = added(PLAN, [one.values for one in lines if one.complete]).total
        self.assertEqual(sum(of.rows for of in each.values()), total.rows)
        self.assertEqual(sum(of.of("grams") for of in each.values()), total.of("grams"))
        self.assertEqual(sorted(self.rows(in_order(PLAN, lines, "grams", descending=True))), list(range(len(lines))))
