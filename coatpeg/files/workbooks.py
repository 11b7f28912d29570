"""Workbooks read as text: the one reader, for lists and for looking at a file.

Formulas are read by the value they had when the workbook was saved; whole numbers have no fraction, dates no midnight.
"""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, time
from typing import BinaryIO


def sheets(
    content: BinaryIO, most_columns: int, most_rows: int | None = None
) -> Iterator[tuple[str, Iterator[list[str]]]]:
    """The sheets of a workbook by name, each with its rows as they are read; whatever is wrong with it is raised."""
    from openpyxl import load_workbook  # noqa: PLC0415 - a third of a second of every start, for few lists

    book = load_workbook(content, read_only=True, data_only=True)
    for sheet in book.worksheets:
        rows = sheet.iter_rows(max_col=most_columns, max_row=most_rows, values_only=True)
        yield sheet.title, ([text_of(cell) for cell in row] for row in rows)


def text_of(cell: object) -> str:
    """A cell as it reads."""
    if cell is None:
        return ""
    if isinstance(cell, float) and cell.is_integer() and abs(cell) < 1e15:
        return str(int(cell))
    if isinstance(cell, datetime) and cell.time() == time(0):
        return cell.date().isoformat()
    return str(cell)
