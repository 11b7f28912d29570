"""A class list as it comes, pasted or from a file: its cells, its heading, what each column holds.

Cells follow RFC 4180 (quotes, doubled quotes, line breaks inside quotes); the separator is a tab, a comma or a
semicolon, whichever parts the lines most evenly. Columns are told by their heading, else by what is in them; the
person corrects a guess. Decided here: of two columns of single words without a heading the one in alphabetical order
is the family name, because class lists are sorted by it.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from coatpeg.core.errors import Invalid
from coatpeg.core.people.csv_text import read_cells
from coatpeg.core.people.names import search_key, sort_key

MOST_LINES = 5_000
"""A whole school. A longer list is the wrong file."""
MOST_COLUMNS = 40
LONGEST_CELL = 200
MOST_TITLES = 3
"""Lines of a title, each with one cell, that may stand above the headings."""


class Column(StrEnum):
    """What a column holds."""

    NAME = "name"
    GIVEN = "given"
    FAMILY = "family"
    EMAIL = "email"
    NUMBER = "number"
    PERIOD = "period"
    GROUP = "group"
    IGNORE = "ignore"


_HEADINGS: dict[Column, str] = {
    Column.GIVEN: "given name|given names|given|first name|first names|first|forename|forenames|vorname|prenom|"
    "nombre|nome|voornaam|fornavn|fornamn|preferred name|known as|givenname",
    Column.FAMILY: "family name|family|last name|last|surname|second name|nachname|familienname|nom|nom de famille|"
    "apellido|apellidos|cognome|sobrenome|achternaam|etternavn|efternavn|efternamn|familyname",
    Column.NAME: "name|full name|student|student name|pupil|pupil name|learner|names|schuler|eleve|alumno|leerling",
    Column.EMAIL: "email|e-mail|e mail|mail|email address|e-mail address|school email|student email",
    Column.NUMBER: "student number|number|no|no.|nr|id|student id|pupil id|identifier|admission number|"
    "candidate number",
    Column.PERIOD: "period|per|per.|hour|class hour|block|lesson|set|stunde",
    Column.GROUP: "group|table|team|working group|gruppe|groupe|grupo|tutor group|form",
}
HEADINGS = {word: column for column, words in _HEADINGS.items() for word in words.split("|")}
"""Headings without case and accents. From memory: what exports and hand-made lists call these columns."""

_PERIOD = re.compile(r"^(p|per|period|block|hour)?\.?\s*\d{1,2}[a-z]?$", re.IGNORECASE)
_NUMBER = re.compile(r"^[A-Za-z]{0,4}[-/]?\d{3,12}[A-Za-z]?$")
_HAS_LETTER = re.compile(r"[^\W\d_]")


@dataclass(frozen=True, slots=True)
class Table:
    """Rows of equal width; ``heading`` is empty where the first line is already a student."""

    heading: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


def read_text(text: str) -> Table:
    """The table in a pasted text or CSV file; ``Invalid`` where there is none."""
    plain = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").replace("\x00", "")
    if not plain.strip():
        raise Invalid("There is no list yet.", where="text", fix="Paste the names, one student a line.")
    return table_of(read_cells(plain, _separator(plain)))


def table_of(cells: Sequence[Sequence[str]]) -> Table:
    """A table from cells: blank lines go, short lines are filled up, a heading is told from a student."""
    rows = [[cell.strip() for cell in row] for row in cells]
    rows = [row for row in rows if any(row)]
    if not rows:
        raise Invalid("There is nobody in this list.", where="text", fix="Paste the names, one student a line.")
    if len(rows) > MOST_LINES:
        raise Invalid(
            f"The list has {len(rows)} lines; {MOST_LINES} is the most at once.", where="text", fix="Bring it in parts."
        )
    width = max(place + 1 for row in rows for place, cell in enumerate(row) if cell)
    if width > MOST_COLUMNS:
        raise Invalid(
            f"The list has {width} columns; {MOST_COLUMNS} is the most.",
            where="text",
            fix="Copy only the columns with names, e-mail, number, period and group.",
        )
    filled = [tuple((row + [""] * width)[:width]) for row in rows]
    heading = next((at for at, row in enumerate(filled[: MOST_TITLES + 1]) if _is_heading(row)), None)
    if heading is None or any(sum(1 for cell in row if cell) > 1 for row in filled[:heading]):
        return Table((), tuple(filled))
    # What stands alone in its line above the headings is the list's title.
    return Table(filled[heading], tuple(filled[heading + 1 :]))


def _separator(text: str) -> str:
    """The sign that parts the lines into the same number of cells most often; a tab where there is one."""
    lines = [line for line in text.split("\n") if line.strip()][:200]
    if any("\t" in line for line in lines):
        return "\t"
    counts = {sign: [line.count(sign) for line in lines] for sign in ";,"}
    if not any(counts[";"]) and _names_with_comma(lines):
        return "\t"  # one column of "Family, Given"
    best = max(counts, key=lambda sign: (sum(1 for number in counts[sign] if number), sum(counts[sign])))
    return best if any(counts[best]) else "\t"


def _names_with_comma(lines: Sequence[str]) -> bool:
    """Whether every line is one name written family first: one comma with a blank after it, no heading, no quotes."""
    return all(line.count(",") == 1 and ", " in line and '"' not in line for line in lines) and not _is_heading(
        lines[0].split(",")
    )


def _is_heading(row: Sequence[str]) -> bool:
    """Whether a line names columns: at least half of its cells are known headings, and none is an e-mail address."""
    named = sum(1 for cell in row if _heading(cell))
    return named > 0 and 2 * named >= sum(1 for cell in row if cell) and not any("@" in cell for cell in row)


def _heading(cell: str) -> Column | None:
    plain = re.sub(r"[\s_]+", " ", search_key(re.sub(r"(?<=[a-z])(?=[A-Z])", " ", cell))).strip(" :*")
    found = HEADINGS.get(plain) or HEADINGS.get(plain.replace(" ", ""))
    # "Form / per.": one column by two names.
    return found or next((HEADINGS[part] for part in re.split(r" ?[/&] ?| or ", plain) if part in HEADINGS), None)


def guess(table: Table) -> tuple[Column, ...]:
    """What each column holds: by its heading, else by its cells; no kind twice."""
    found: list[Column] = []
    for place in range(len(table.rows[0]) if table.rows else len(table.heading)):
        cells = [row[place] for row in table.rows if row[place]]
        heading = table.heading[place] if table.heading else ""
        column = _heading(heading) or (Column.IGNORE if heading else _by_content(cells, len(table.rows)))
        found.append(Column.IGNORE if column in found and column is not Column.NAME else column)
    return _name_columns(table, found)


def _by_content(cells: Sequence[str], lines: int) -> Column:
    """What a column without a heading holds, by the greater part of its cells."""
    if not cells:
        return Column.IGNORE

    def most(test: object) -> bool:
        return callable(test) and 2 * sum(1 for cell in cells if test(cell)) > len(cells)

    if most(lambda cell: "@" in cell):
        return Column.EMAIL
    different = len(set(cells))
    if most(_PERIOD.match) and (different <= 12 or lines < 4):
        return Column.PERIOD
    if most(_NUMBER.match):
        return Column.NUMBER if 2 * different > len(cells) else Column.GROUP
    if not most(_HAS_LETTER.search) or (lines >= 4 and 2 * len(cells) < lines):
        return Column.IGNORE  # no letters; or notes beside some lines
    return Column.GROUP if lines >= 6 and 3 * different <= len(cells) else Column.NAME


def _name_columns(table: Table, found: list[Column]) -> tuple[Column, ...]:
    """Two columns of names without heading are family and given; a third one is left out."""
    names = [place for place, column in enumerate(found) if column is Column.NAME]
    if Column.FAMILY in found or Column.GIVEN in found:
        both = Column.FAMILY in found and Column.GIVEN in found
        for place in names:
            rest = Column.GIVEN if Column.FAMILY in found else Column.FAMILY
            found[place] = Column.IGNORE if both or rest in found else rest
    elif len(names) >= 2:
        first, second = names[:2]
        given_first = _sorted(table, second) and not _sorted(table, first)
        found[first], found[second] = (Column.GIVEN, Column.FAMILY) if given_first else (Column.FAMILY, Column.GIVEN)
        for place in names[2:]:
            found[place] = Column.IGNORE
    return tuple(found)


def _sorted(table: Table, place: int) -> bool:
    keys = [sort_key(row[place], "") for row in table.rows]
    return keys == sorted(keys)
