"""A rubric out of the cells of a spreadsheet or a CSV file; the shipped ones."""

from decimal import Decimal
from itertools import count

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.rubric_gallery import GALLERY
from coatpeg.core.marking.rubric_table import cells_in, rubric_in
from coatpeg.core.marking.rubrics import Rubric


def read(text: str) -> Rubric:
    keys = count()
    return rubric_in(cells_in(text), lambda: f"k{next(keys)}")


def levels(text: str) -> list[tuple[str, Decimal]]:
    return [(one.title, one.points) for one in read(text).levels]


class FromTable(SimpleTestCase):
    def test_levels_points_weights_and_what_they_mean(self) -> None:
        found = read("Criterion\tWeight\tnot yet (0)\tfully (3)\nCare\t2\tloose\tneat\n\nWords\t1,5\t\tclear")
        self.assertEqual([(one.title, one.points) for one in found.levels], [("not yet", 0), ("fully", 3)])
        rows = [(one.title, one.weight, one.says) for one in found.rows]
        self.assertEqual(rows, [("Care", 2, ("loose", "neat")), ("Words", Decimal("1.5"), ("", "clear"))])

    def test_headings_as_people_write_them(self) -> None:
        for heads, expected in (
            ("low\thigh", [("low", 0), ("high", 1)]),
            ("3 fully\t0 not yet", [("fully", 3), ("not yet", 0)]),
            ("fully: 8–10 points\tpartly: 4-7 points", [("fully", 10), ("partly", 7)]),
            ("4\t2", [("4", 4), ("2", 2)]),
            ("Level 2 (5 pts)\tLevel 1 (2.5 pts)", [("Level 2", 5), ("Level 1", Decimal("2.5"))]),
        ):
            with self.subTest(heads):
                self.assertEqual(levels(f"\t{heads}\nCare\ta\tb"), expected)

    def test_a_heading_with_two_numbers_is_a_range(self) -> None:
        ranges = read("\tfully: 8–10\tpartly (4,5-7)\tnot yet 0\nCare\ta\tb\tc").levels
        self.assertEqual([(one.low, one.points) for one in ranges], [(8, 10), (Decimal("4.5"), 7), (None, 0)])

    def test_csv_with_commas_or_semicolons_and_quotes(self) -> None:
        found = read('Criterion;low;high\n"Care; and order";"not ""yet""";yes')
        self.assertEqual((found.rows[0].title, found.rows[0].says), ("Care; and order", ('not "yet"', "yes")))
        self.assertEqual(read("Criterion,low,high\nCare,no,yes").rows[0].says, ("no", "yes"))

    def test_what_is_no_rubric_is_said_by_line(self) -> None:
        for text, said in (
            ("", "no table"),
            ("Care", "no table"),
            ("Criterion\tonly\nCare\tx", "fewer than two"),
            ("\tlow\thigh (3)\nCare\ta\tb", "“low” has no points"),
            ("\tlow\thigh\nCare\ta\tb\n\tc\td", "Line 3 names no criterion"),
            ("\tWeight\tlow\thigh\nCare\tmuch\ta\tb", "Line 2 has no weight"),
            ("\tlow 1\tmid 1\nCare\ta\tb", "do not go one way"),
            ("x\t" * 70 + "\nCare" + "\tx" * 70, "more than 60"),
        ):
            with self.subTest(text[:30]), self.assertRaises(Invalid) as raised:
                read(text)
            self.assertIn(said, raised.exception.what)

    @given(st.text(alphabet="ab1 \t;,\n\"'-()%", max_size=80))
    def test_junk_is_a_rubric_or_refused(self, text: str) -> None:
        try:
            found = read(text)
        except Invalid:
            return
        self.assertEqual(found.checked(), found)

    def test_the_shipped_rubrics_hold(self) -> None:
        for title, rubric in GALLERY:
            with self.subTest(title):
                self.assertEqual(rubric.checked(), rubric)
