"""Class lists in files: CSV, Excel workbooks, and OneRoster 1.1 zips, told by their content."""

from __future__ import annotations

import codecs
import csv
import io
import zipfile
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from coatpeg.core.errors import Invalid
from coatpeg.core.people.oneroster import HEADING, OPTIONAL, REQUIRED, USED, RosterClass, class_named, classes_of
from coatpeg.core.people.roster_table import LONGEST_CELL, MOST_COLUMNS, MOST_LINES, Table, read_text, table_of
from coatpeg.files import workbooks

MOST_BYTES = 10_000_000
MOST_UNPACKED = 100_000_000
"""Bytes a workbook or zip may unpack to: a zip bomb stops here, a school's list never comes near."""
MOST_ROWS = 300_000
"""Rows in the files of a OneRoster zip together: ten thousand students in thirty classes each."""


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
    of = next((one for one in classes if one.id == chosen), None) or class_named(classes, class_name) or classes[0]
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
                found[known] = _rows(packed, one, MOST_ROWS - sum(map(len, found.values())))
            except (zipfile.BadZipFile, NotImplementedError, csv.Error, EOFError) as error:
                raise Invalid(f"{known} in “{name}” cannot be read.", where=known, fix="Export it again.") from error
    return found


def _rows(packed: zipfile.ZipFile, one: zipfile.ZipInfo, most: int) -> list[dict[str, str]]:
    """The rows of one file, only their columns that are used, read as they come: a file is never in memory whole."""
    with packed.open(one) as content:
        marked = content.read(2) in (codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)
    for encoding in ("utf-16",) if marked else ("utf-8-sig", "cp1252"):
        found: list[dict[str, str]] = []
        with packed.open(one) as content, io.TextIOWrapper(content, encoding, newline="") as text:
            try:
                for row in csv.DictReader(text, restval=""):
                    if len(found) >= most:
                        raise Invalid(
                            f"There are more than {MOST_ROWS:,} rows in it.",
                            where=one.filename,
                            fix="Export less of it.",
                        )
                    kept = {key: value[: LONGEST_CELL * 2] for key, value in row.items() if key in USED}
                    if any("\x00" in value for value in kept.values()):
                        break
                    found.append(kept)
                else:
                    return found
            except UnicodeError:
                continue
    raise Invalid(f"{one.filename} cannot be read as text.", where=one.filename, fix="Export it again.")


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
    """The first sheet of a workbook, as text."""
    try:
        _, rows = next(workbooks.sheets(io.BytesIO(data), MOST_COLUMNS + 1, MOST_LINES + 2))
        return [[cell[: LONGEST_CELL * 2] for cell in row] for row in rows]
    except Exception as error:
        raise Invalid(
            f"“{name}” is not a workbook that can be read.", where="file", fix="Save it as .xlsx or .csv and try again."
        ) from error
