"""Class lists in files: CSV, Excel workbooks, and OneRoster 1.1 zips, told by their content."""

from __future__ import annotations

import csv
import io
import zipfile
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from openpyxl import load_workbook

from coatpeg.core.errors import Invalid
from coatpeg.core.oneroster import HEADING, OPTIONAL, REQUIRED, RosterClass, classes_of, meant
from coatpeg.core.roster_table import LONGEST_CELL, MOST_COLUMNS, MOST_LINES, Table, read_text, table_of

MOST_BYTES = 10_000_000
MOST_UNPACKED = 100_000_000
"""Bytes a workbook or zip may unpack to: a zip bomb stops here, a school's list never comes near."""


@dataclass(frozen=True, slots=True)
class FileTable:
    """The table of a class in a file; of several classes, which there are and which one this is."""

    table: Table
    classes: tuple[RosterClass, ...] = ()
    chosen: str = ""
    first: date | None = None


def read_bytes(data: bytes, name: str, today: date, class_name: str, chosen: str = "") -> FileTable:
    """The table in a file. ``class_name`` finds the class in a file of many, unless ``chosen`` (its id) names it."""
    if len(data) > MOST_BYTES:
        raise Invalid(
            f"“{name}” has {len(data) // 1_000_000} MB; {MOST_BYTES // 1_000_000} MB is the most.",
            where="file",
            fix="Keep only the list of students in it.",
        )
    if not data.startswith(b"PK\x03\x04"):
        return FileTable(read_text(_decoded(data, name)))
    packed = _unpackable(data, name)
    if any(one.filename.endswith("xl/workbook.xml") for one in packed.infolist()):
        return FileTable(table_of(_workbook(data, name)))
    classes = classes_of(_tables(packed, name), today)
    return _of_class(classes, name, class_name, chosen)


def _of_class(classes: Sequence[RosterClass], name: str, class_name: str, chosen: str) -> FileTable:
    if not classes:
        raise Invalid(f"There is no class in “{name}”.", where="file", fix="Export it with classes and enrolments.")
    of = next((one for one in classes if one.id == chosen), None) or meant(classes, class_name) or classes[0]
    if len(of.lines) > MOST_LINES:
        raise Invalid(f"“{of.title}” has {len(of.lines)} students.", where="file", fix=f"{MOST_LINES} is the most.")
    return FileTable(Table(HEADING, of.lines), tuple(classes), of.id, of.first)


def classes_in(data: bytes, name: str, today: date) -> tuple[RosterClass, ...]:
    """The classes of a OneRoster zip; none of any other file."""
    if not data.startswith(b"PK\x03\x04") or len(data) > MOST_BYTES:
        return ()
    packed = _unpackable(data, name)
    if any(one.filename.endswith("xl/workbook.xml") for one in packed.infolist()):
        return ()
    return classes_of(_tables(packed, name), today)


def _unpackable(data: bytes, name: str) -> zipfile.ZipFile:
    try:
        packed = zipfile.ZipFile(io.BytesIO(data))
    except zipfile.BadZipFile as error:
        raise Invalid(
            f"“{name}” is damaged and cannot be opened.", where="file", fix="Save or export it again."
        ) from error
    if sum(one.file_size for one in packed.infolist()) > MOST_UNPACKED:
        raise Invalid(
            f"“{name}” unpacks to more than {MOST_UNPACKED // 1_000_000} MB.",
            where="file",
            fix="Copy the list into a new workbook.",
        )
    return packed


def _tables(packed: zipfile.ZipFile, name: str) -> dict[str, list[dict[str, str]]]:
    """The CSV files of a roster by their name, wherever in the zip they lie."""
    wanted = {one.casefold(): one for one in (*REQUIRED, *OPTIONAL)}
    found: dict[str, list[dict[str, str]]] = {}
    for one in packed.infolist():
        known = wanted.get(one.filename.rsplit("/", 1)[-1].casefold())
        if known and not one.flag_bits & 1:
            try:
                text = _decoded(packed.read(one), one.filename)
                rows = csv.DictReader(io.StringIO(text, newline=""), restval="")
                found[known] = [{key: value for key, value in row.items() if key} for row in rows]
            except (zipfile.BadZipFile, NotImplementedError, csv.Error, EOFError) as error:
                raise Invalid(f"{known} in “{name}” cannot be read.", where=known, fix="Export it again.") from error
    return found


def _decoded(data: bytes, name: str) -> str:
    """Text in UTF-8 or UTF-16 by its mark, else in the Western encoding that older spreadsheets write."""
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        return data.decode("utf-16", "replace")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", "replace")
    if "\x00" in text:
        raise Invalid(
            f"“{name}” is not a list that can be read.", where="file", fix="Save it as CSV or as an Excel workbook."
        )
    return text


def _workbook(data: bytes, name: str) -> list[list[str]]:
    """The first sheet of a workbook, as text; formulas by their last value."""
    try:
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        sheet = book.worksheets[0]
        rows = sheet.iter_rows(max_row=MOST_LINES + 2, max_col=MOST_COLUMNS + 1, values_only=True)
        return [[_cell(value) for value in row] for row in rows]
    except Exception as error:
        raise Invalid(
            f"“{name}” is not a workbook that can be read.", where="file", fix="Save it as .xlsx or .csv and try again."
        ) from error


def _cell(value: Any) -> str:
    """A cell as it reads: whole numbers without a fraction, dates as dates."""
    if value is None:
        return ""
    if isinstance(value, float) and value.is_integer():
        return str(int(value))
    if isinstance(value, datetime):
        return value.date().isoformat()
    return str(value)[: LONGEST_CELL * 2]
