"""A log over the class: rows of everybody, filtered, in order, added up, page by page, as a file."""

from __future__ import annotations

import csv
import io

from django.db import connection
from django.test.utils import CaptureQueriesContext
from openpyxl import load_workbook

from coatpeg.handins.board import class_log
from coatpeg.portfolios.logs.rows import add_row
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW

COLUMNS = [
    {"key": "day", "title": "Day", "type": "date", "required": True},
    {"key": "crop", "title": "Crop", "type": "choice", "choices": ["Beans", "Kale"]},
    {"key": "grams", "title": "Harvest", "type": "number", "unit": "g", "required": True},
    {"key": "note", "title": "Note", "type": "text"},
]


class ClassLog(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.log = self.plot.pocket("Crop log", "log", log={"columns": COLUMNS})
        self.ada = self.plot.student("ada", "Ada", "Abel", period="P3")
        self.bea = self.plot.student("bea", "Bea", "Blom", period="P4")
        self.rows(self.ada, ("2026-11-02", "Beans", "1200.5", "=HYPERLINK(1)"), ("2026-10-20", "Kale", "80", ""))
        self.rows(self.bea, ("2026-11-03", "Beans", "7", "first try"), ("2026-11-04", "Kale", "", "no scale"))
        self.path = f"/groups/{self.plot.group.pk}/logs/{self.log.pk}"

    def rows(self, portfolio: builders.Portfolio, *rows: tuple[str, str, str, str]) -> None:
        for day, crop, grams, note in rows:
            values = {"day": day, "crop": crop, "grams": grams, "note": note}
            add_row(portfolio.enrolment.person, portfolio.pk, self.log.pk, values, NOW)

    def seen(self, query: str = "") -> list[tuple[str, str]]:
        found = self.ok(self.lead, "GET", f"{self.path}?{query}")
        names = {one["id"]: one["given_name"] for one in found["students"]}
        return [(names[one["student"]], one["values"]["day"][5:]) for one in found["rows"]]

    def test_filtered_in_order_and_added_up(self) -> None:
        self.assertEqual(self.seen(), [("Ada", "10-20"), ("Ada", "11-02"), ("Bea", "11-03"), ("Bea", "11-04")])
        self.assertEqual(self.seen("by=grams&descending=true")[0], ("Ada", "11-02"))
        self.assertEqual(self.seen("period=P4&words=BEANS"), [("Bea", "11-03")])
        self.assertEqual(self.seen(f"student={self.ada.enrolment.pk}&by=student"), [("Ada", "10-20"), ("Ada", "11-02")])
        found = self.ok(self.lead, "GET", self.path)
        self.assertEqual((found["found"], found["total"]["rows"]), (4, 3), "what is not finished is shown, not counted")
        self.assertEqual(found["total"]["sums"], [{"column": "grams", "amount": "1287.5"}])
        each = {one["given_name"]: (one["rows"], one["sums"][0]["amount"]) for one in found["students"]}
        self.assertEqual(each, {"Ada": (2, "1280.5"), "Bea": (1, "7")})
        weeks = {one["monday"]: one["rows"] for one in found["weeks"]}
        self.assertEqual(weeks, {"2026-10-19": 1, "2026-10-26": 0, "2026-11-02": 2})
        kale = next(one for one in found["of_choices"] if one["choice"] == "Kale")
        self.assertEqual(kale["rows"], 1)

    def test_page_by_page(self) -> None:
        size = class_log.PAGE
        class_log.PAGE = 3
        self.addCleanup(setattr, class_log, "PAGE", size)
        self.assertEqual(len(self.seen()), 3)
        self.assertEqual(self.seen("first=3"), [("Bea", "11-04")])
        self.assertEqual(self.seen("first=30"), [])

    def test_as_a_file_numbers_are_numbers_and_nothing_is_a_formula(self) -> None:
        response = self.call(self.lead, "GET", f"{self.path}/csv?words=abel")
        table = list(csv.reader(io.StringIO(response.content.decode("utf-8-sig"))))
        self.assertEqual(
            table[0], ["Family name", "Given name", "Period", "Day", "Crop", "Harvest (g)", "Note", "Complete"]
        )
        self.assertEqual(table[2], ["Abel", "Ada", "P3", "2026-11-02", "Beans", "1200.5", "'=HYPERLINK(1)", "yes"])
        self.assertEqual(len(table), 3)
        sheet = load_workbook(io.BytesIO(self.call(self.lead, "GET", f"{self.path}/xlsx").content)).active
        self.assertIsNotNone(sheet)
        values = [[cell.value for cell in row] for row in sheet.iter_rows()]  # type: ignore[union-attr]
        self.assertEqual(values[2][5], 1200.5)
        self.assertEqual(sheet["G3"].data_type, "s")  # type: ignore[index]
        self.assertEqual(self.call(self.lead, "GET", f"{self.path}/ods").content[:2], b"PK")

    def test_what_does_not_fit_is_told(self) -> None:
        self.problem(422, self.lead, "GET", f"{self.path}?by=nothing")
        self.problem(422, self.lead, "GET", f"{self.path}?first=-1")
        self.problem(404, self.lead, "GET", f"/groups/{self.plot.group.pk}/logs/{self.plot.pocket().pk}")
        self.problem(404, builders.klass("9 Loom", "marsh").lead, "GET", self.path)
        self.problem(403, self.ada.enrolment.person, "GET", f"{self.path}/csv")

    def test_as_many_statements_for_many_students_as_for_few(self) -> None:
        def asked() -> int:
            with CaptureQueriesContext(connection) as statements:
                self.ok(self.lead, "GET", self.path)
            return len(statements)

        asked()
        before = asked()
        for number in range(5):
            more = self.plot.student(f"s{number}", f"S{number}", "Crew")
            self.rows(more, ("2026-11-02", "Beans", "1", ""))
        self.assertEqual(asked(), before)
