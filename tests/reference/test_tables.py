"""Tables that are taken along, read back by others: LibreOffice, openpyxl, odfpy, Python's csv."""

from __future__ import annotations

import csv
import io
import shutil
import subprocess
from pathlib import Path
from tempfile import TemporaryDirectory

from django.test import SimpleTestCase
from odf.opendocument import load
from odf.table import TableRow
from openpyxl import load_workbook

from coatpeg.files.tables import Format, written

ROWS = [
    ["Family name", "Given name", "Filled, %", "Recipe card (due 2026-11-27)"],
    ["O'Neill, the 2nd", 'Zoë "Zo"', 78, "handed in 2026-11-26 14:02, 1 school day late"],
    ["=1+1", "+49", None, "@SUM(A1)"],
    ["-2", "\tTab", 0, "محمد علي"],
    ["Nguyễn", "王小明", 100, "two\nlines"],
]
READ = [["" if cell is None else str(cell) for cell in row] for row in ROWS]


class Tables(SimpleTestCase):
    def by_libreoffice(self, how: Format) -> list[list[str]]:
        """What LibreOffice reads, as it writes it to CSV again (its documented filter: comma, quote, UTF-8)."""
        soffice = shutil.which("soffice")
        self.assertIsNotNone(soffice, "LibreOffice is one of the packages that are installed")
        with TemporaryDirectory() as folder:
            source = Path(folder) / f"pegs.{how}"
            source.write_bytes(written(ROWS, how))
            command = [str(soffice), "--headless", f"-env:UserInstallation=file://{folder}/profile"]
            command += ["--convert-to", "csv:Text - txt - csv (StarCalc):44,34,76", "--outdir", f"{folder}/out"]
            subprocess.run([*command, str(source)], check=True, capture_output=True, timeout=120)
            return list(csv.reader(io.StringIO((Path(folder) / "out" / "pegs.csv").read_text("utf-8"), newline="")))

    def test_xlsx_and_ods_as_libreoffice_reads_them(self) -> None:
        for how in (Format.XLSX, Format.ODS):
            with self.subTest(how):
                found = self.by_libreoffice(how)
                # A tab at the beginning is white space to a spreadsheet; nothing is a formula.
                self.assertEqual(
                    [[cell.strip() for cell in row] for row in found], [[c.strip() for c in r] for r in READ]
                )

    def test_xlsx_by_openpyxl(self) -> None:
        sheet = load_workbook(io.BytesIO(written(ROWS, Format.XLSX))).worksheets[0]
        found = list(sheet.iter_rows())
        self.assertEqual([[cell.value for cell in row] for row in found], ROWS)
        self.assertNotIn("f", {cell.data_type for row in found for cell in row}, "no formula")
        self.assertEqual(sheet.freeze_panes, "C2")

    def test_ods_by_odfpy(self) -> None:
        document = load(io.BytesIO(written(ROWS, Format.ODS)))
        rows = document.getElementsByType(TableRow)
        self.assertEqual([len(row.childNodes) for row in rows], [4] * 5)
        for row in rows:
            for cell in row.childNodes:
                self.assertIsNone(cell.getAttribute("formula"))

    def test_csv_as_rfc_4180_has_it(self) -> None:
        content = written(ROWS, Format.CSV)
        self.assertTrue(content.startswith(b"\xef\xbb\xbf"))
        text = content.decode("utf-8-sig")
        found = list(csv.reader(io.StringIO(text, newline=""), strict=True))
        self.assertEqual(found[1], READ[1])
        self.assertEqual([found[2][0], found[2][1], found[2][3], found[3][0]], ["'=1+1", "'+49", "'@SUM(A1)", "'-2"])
        self.assertEqual(text.count("\r\n"), len(ROWS))

    def test_signs_that_xml_cannot_carry_are_left_out(self) -> None:
        for how in (Format.XLSX, Format.ODS):
            written([["bell\x07", "null\x00"]], how)
