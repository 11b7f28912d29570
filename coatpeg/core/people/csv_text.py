"""Tables as text: CSV by RFC 4180 that no spreadsheet takes for formulas."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

from coatpeg.core.errors import Invalid


def read_cells(text: str, separator: str) -> list[list[str]]:
    """The cells of a text by RFC 4180 (quotes, doubled quotes, line breaks in quotes); ``Invalid`` where it breaks."""
    plain = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").replace("\x00", "")
    try:
        return list(csv.reader(io.StringIO(plain, newline=""), delimiter=separator, strict=False))
    except csv.Error as error:
        raise Invalid(
            f"The list cannot be read: {error}.", where="text", fix="Copy it again from the spreadsheet."
        ) from error


def neutral(cell: str) -> str:
    """A cell for a CSV file that a spreadsheet will not take for a formula.

    After OWASP's advice on CSV injection (from memory): a leading ``=``, ``+``, ``-``, ``@``, tab or carriage return
    is led by an apostrophe.
    """
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t", "\r") else cell


def to_csv(rows: Sequence[Sequence[str]]) -> str:
    """Rows as RFC 4180 text with its line ends, formulas made harmless."""
    return as_written([neutral(cell) for cell in row] for row in rows)


def as_written(rows: Iterable[Sequence[str]]) -> str:
    """The same for cells that are harmless already."""
    target = io.StringIO(newline="")
    csv.writer(target, lineterminator="\r\n").writerows(rows)
    return target.getvalue()
