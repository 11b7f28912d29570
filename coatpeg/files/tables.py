"""Tables as files that spreadsheets open: CSV, XLSX, ODS. Cells are texts and numbers, never formulas.

Decided here: the first row is the head and stays in sight; a text that reads like a formula stays a text (CSV cannot
say so: there it is led by an apostrophe, ``core.people.csv_text``). Signs that XML cannot carry are left out.
"""

from __future__ import annotations

import io
import re
from collections.abc import Sequence
from decimal import Decimal
from enum import StrEnum

from coatpeg.core.people.csv_text import to_csv

Cell = str | int | Decimal | None
Rows = Sequence[Sequence[Cell]]
_NOT_IN_XML = re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]")
SHEET = "Pegs"


class Format(StrEnum):
    """The formats, by their ending."""

    CSV = "csv"
    XLSX = "xlsx"
    ODS = "ods"


TYPES = {
    Format.CSV: "text/csv; charset=utf-8",
    Format.XLSX: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    Format.ODS: "application/vnd.oasis.opendocument.spreadsheet",
}


def written(rows: Rows, how: Format) -> bytes:
    """A table as the bytes of a file."""
    return {Format.CSV: _csv, Format.XLSX: _xlsx, Format.ODS: _ods}[how](rows)


def _csv(rows: Rows) -> bytes:
    """RFC 4180, UTF-8 with its mark, so that spreadsheets read accents."""
    return ("\ufeff" + to_csv([["" if cell is None else str(cell) for cell in row] for row in rows])).encode()


def _xlsx(rows: Rows) -> bytes:
    from openpyxl import Workbook  # noqa: PLC0415 - a third of a second of every start, for few lists
    from openpyxl.cell import WriteOnlyCell  # noqa: PLC0415
    from openpyxl.styles import Font  # noqa: PLC0415

    book = Workbook(write_only=True)
    sheet = book.create_sheet(SHEET)
    sheet.freeze_panes = "C2"
    for number, row in enumerate(rows):
        line = []
        for cell in row:
            made = WriteOnlyCell(sheet, value=_clean(cell))
            if isinstance(cell, str):
                made.data_type = "s"  # whatever it begins with
            if number == 0:
                made.font = Font(bold=True)
            line.append(made)
        sheet.append(line)
    target = io.BytesIO()
    book.save(target)
    return target.getvalue()


def _ods(rows: Rows) -> bytes:
    from odf.opendocument import OpenDocumentSpreadsheet  # noqa: PLC0415
    from odf.table import Table, TableCell, TableRow  # noqa: PLC0415
    from odf.text import P  # noqa: PLC0415

    document = OpenDocumentSpreadsheet()
    sheet = Table(name=SHEET)
    for row in rows:
        line = TableRow()
        for cell in row:
            number = isinstance(cell, int | Decimal)
            made = TableCell(valuetype="float", value=cell) if number else TableCell(valuetype="string")
            if cell not in (None, ""):
                made.addElement(P(text=str(_clean(cell))))
            line.addElement(made)
        sheet.addElement(line)
    document.spreadsheet.addElement(sheet)
    target = io.BytesIO()
    document.write(target)
    return target.getvalue()


def _clean(cell: Cell) -> Cell:
    return _NOT_IN_XML.sub("", cell) if isinstance(cell, str) else cell
