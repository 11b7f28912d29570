"""A rubric from the cells of a spreadsheet or a CSV file.

Common practice of such tables: the levels stand in the first line, a criterion begins each line below it, and in its
cells stands what each level means for it. Decided here:

* A level's points are the last number in its heading ("fully (3)", "3 fully"); "8–10" is a range. Where
  no heading has a number, they count from 0, the left one the lowest.
* A column that is headed *weight* (or %, ×) and holds numbers is the weights; without one each criterion weighs 1.
* What cannot be a rubric is said by line; what comes out stands in the form's fields, to be changed before it is kept.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from decimal import Decimal

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.rubrics import Level, Row, Rubric
from coatpeg.core.people.csv_text import read_cells

_NUMBER = re.compile(r"(?<![\w.])(\d{1,4}(?:[.,]\d{1,2})?)(?![\w])")
_RANGE = re.compile(r"(?<![\w.])(\d{1,4}(?:[.,]\d{1,2})?)\s*[–—-]\s*\d")
_AMOUNT = r"\d{1,4}(?:[.,]\d{1,2})?(?:\s*[–—-]\s*\d{1,4}(?:[.,]\d{1,2})?)?\s*(?:points?|pts?\.?)?"
_IN_BRACKETS = re.compile(r"[(\[][^()\[\]]*\d[^()\[\]]*[)\]]")
_AT_AN_END = re.compile(rf"(?i)^{_AMOUNT}[\s:–—-]+|[\s:–—-]+{_AMOUNT}$")
_WEIGHT = re.compile(r"(?i)\s*(weight(ing)?s?|weighs|%|×)\s*\Z")
MOST_CELLS = 60
"""Columns of a line: more is no rubric."""


def cells_in(text: str) -> list[list[str]]:
    """The cells of what was copied from a spreadsheet (tabs), or of a CSV file (commas or semicolons)."""
    first = next((line for line in text.splitlines() if line.strip()), "")
    return read_cells(text, next((one for one in "\t;" if one in first), ","))


def rubric_in(lines: Sequence[Sequence[str]], new_key: Callable[[], str]) -> Rubric:
    """The rubric that a table holds, checked; ``Invalid`` says what is missing and where."""
    rows = [[" ".join(cell.split()) for cell in line] for line in lines]
    rows = [line for line in rows if any(line)]
    if len(rows) < 2:
        raise _refused(
            "There is no table in this yet.", "Put the levels into the first line and a criterion into each below."
        )
    if max(len(line) for line in rows) > MOST_CELLS:
        raise _refused(f"This table has more than {MOST_CELLS} columns.", "Paste the part that is the rubric.")
    head, *body = rows
    weights = next((at for at, cell in enumerate(head) if at and _WEIGHT.match(cell)), None)
    places = [at for at in range(1, len(head)) if at != weights and head[at]]
    if len(places) < 2:
        raise _refused("The first line names fewer than two levels.", "Put a name for each level there.")
    levels = _levels([head[at] for at in places], new_key)
    criteria = tuple(_row(line, number, weights, places, new_key) for number, line in enumerate(body, start=2))
    return Rubric(levels, criteria).checked()


def _refused(what: str, fix: str) -> Invalid:
    return Invalid(what, where="rubric", fix=fix)


def _levels(headings: Sequence[str], new_key: Callable[[], str]) -> tuple[Level, ...]:
    numbers = [_NUMBER.findall(one) for one in headings]
    if any(numbers) and not all(numbers):
        missing = next(one for one, found in zip(headings, numbers, strict=True) if not found)
        raise _refused(
            f"“{missing[:60]}” has no points, and other levels have.", "Give each level its points, or none."
        )
    return tuple(
        Level(
            new_key(),
            _without_points(heading) if found else heading,
            _number(found[-1]) if found else Decimal(place),
            _number(low[1]) if (low := _RANGE.search(heading)) and found else None,
        )
        for place, (heading, found) in enumerate(zip(headings, numbers, strict=True))
    )


def _number(text: str) -> Decimal:
    return Decimal(text.replace(",", "."))


def _without_points(heading: str) -> str:
    """What a level is called, without its points; the number itself where it has no other name."""
    bare = (_IN_BRACKETS if _IN_BRACKETS.search(heading) else _AT_AN_END).sub(" ", heading)
    return bare.strip(" -–—:") or heading


def _row(
    line: Sequence[str], number: int, weights: int | None, places: Sequence[int], new_key: Callable[[], str]
) -> Row:
    cells = [*line, *[""] * (max(places) + 2)]
    weight = Decimal(1)
    if weights is not None:
        found = _NUMBER.search(cells[weights])
        if found is None:
            raise _refused(f"Line {number} has no weight.", "Give each criterion a number in that column.")
        weight = _number(found[1])
    if not cells[0]:
        raise _refused(f"Line {number} names no criterion.", "Put its name into the first column.")
    return Row(new_key(), cells[0], weight, tuple(cells[at] for at in places))
