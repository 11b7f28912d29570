"""Making a file readable: run as a process of its own, with little memory and little time, on one file.

``python -m coatpeg.files.converting IN OUT TYPE NAME`` writes into the folder ``OUT`` a ``view.json`` and, for
pages, ``page-1``, ``page-2`` … (JPEG). What is in a file is never run: PDF pages are drawn without their scripts,
macros stay where they are, HTML and SVG are shown as the text that they are, formulas as their last values. Links
stay links; nothing is fetched. A document in ``view.json`` is one of

- ``{"kind": "pages", "pages": n, "all": n}`` - ``{"kind": "tables", "tables": [{"name", "rows": [[text]],
"rows_left_out", "columns_left_out"}]}`` - ``{"kind": "html", "html": …}`` (only what the policy ``DOCUMENTS`` allows)
- ``{"kind": "text", "text": …, "left_out": characters}``

each with a ``note`` where there is something to say. Exit code 3 with a sentence on stdout: it cannot be shown, and
why.
"""

from __future__ import annotations

import base64
import csv
import io
import json
import sys
import tempfile
import zipfile
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path
from typing import Any

from coatpeg.files import fenced, office
from coatpeg.files.sanitising import DOCUMENTS, sanitised

MEMORY = 1_500 * 1024 * 1024
SECONDS = 60
"""Bytes of address space and seconds of processor that one file may take: ten times what a long school report takes."""
MOST_UNPACKED = 300 * 1024 * 1024
MOST_ENTRIES = 5_000
MOST_PAGES = 200
PAGE_SIDE = 1_600
"""Pixels of a page's longest side: sharp at full screen on a school laptop."""
MOST_ROWS, MOST_COLUMNS, MOST_SHEETS, LONGEST_CELL = 2_000, 100, 30, 1_000
MOST_IN_CELLS = 4_000_000
"""Characters of all tables of one file together."""
LONGEST = 500_000
"""Characters of a text."""
PICTURE_SIDE = 1_000
MOST_PIXELS = 80_000_000

OFFICE = "application/vnd.openxmlformats-officedocument."
ODF = "application/vnd.oasis.opendocument."


class CannotShow(Exception):
    """Why a file cannot be shown, as a sentence."""


def _safe(raw: str) -> str:
    """HTML with nothing in it that could do anything; pictures only where they are in it."""

    def filtered(tag: str, name: str, value: str) -> str | None:
        inside = value.startswith(("data:image/jpeg;base64,", "data:image/png;base64,"))
        return value if inside == ((tag, name) == ("img", "src")) else None

    return sanitised(raw, DOCUMENTS, filtered)


def _picture(data: bytes) -> str:
    """A picture of a document, made small enough, as an address; empty where it is none that can be shown."""
    from PIL import Image  # noqa: PLC0415 - each format loads only what it needs, since memory is limited

    Image.MAX_IMAGE_PIXELS = None
    try:
        with Image.open(io.BytesIO(data), formats=("PNG", "JPEG", "GIF", "WEBP", "BMP", "TIFF")) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                return ""
            opened.thumbnail((PICTURE_SIDE, PICTURE_SIDE))
            clear = opened.mode in ("RGBA", "LA", "P")
            target = io.BytesIO()
            opened.convert("RGBA" if clear else "RGB").save(target, "PNG" if clear else "JPEG", quality=85)
    except Exception:  # noqa: BLE001 - whatever is wrong with one picture, the text is still worth reading
        return ""
    return f"data:image/{'png' if clear else 'jpeg'};base64,{base64.b64encode(target.getvalue()).decode()}"


def pdf(path: Path, out: Path) -> dict[str, Any]:
    """Pages of a PDF as pictures."""
    import pypdfium2  # noqa: PLC0415

    try:
        document = pypdfium2.PdfDocument(path)
    except pypdfium2.PdfiumError as error:
        locked = "password" in str(error).lower()
        raise CannotShow("It asks for a password." if locked else "It is broken, or no PDF.") from error
    number = min(len(document), MOST_PAGES)
    for at in range(number):
        page = document[at]
        scale = min(PAGE_SIDE / max(*page.get_size(), 1), 4)
        page.render(scale=scale, may_draw_forms=False).to_pil().convert("RGB").save(
            out / f"page-{at + 1}", "JPEG", quality=85
        )
        page.close()
    if not number:
        raise CannotShow("It has no page.")
    return {"kind": "pages", "pages": number, "all": len(document)}


def docx(path: Path, out: Path) -> dict[str, Any]:
    """A Word document: its headings, paragraphs, lists, tables, pictures and notes."""
    import mammoth  # noqa: PLC0415

    def picture(image: Any) -> dict[str, str]:
        with image.open() as content:
            return {"src": _picture(content.read()), "alt": image.alt_text or ""}

    with open(path, "rb") as content:
        made = mammoth.convert_to_html(content, convert_image=mammoth.images.img_element(picture))
    return {"kind": "html", "html": _safe(made.value)}


def slides_or_text(path: Path, out: Path) -> dict[str, Any]:
    """A presentation or an OpenDocument text: its pages, as LibreOffice lays them out."""
    with tempfile.TemporaryDirectory() as folder:
        made = office.converted(path, "pdf", Path(folder))
        if made is None:
            raise CannotShow("It cannot be read to its end: it may be broken.")
        return pdf(made, out)


def other_workbook(path: Path, out: Path) -> dict[str, Any]:
    """An OpenDocument spreadsheet: the values as they were last shown."""
    with tempfile.TemporaryDirectory() as folder:
        made = office.converted(path, "xlsx", Path(folder))
        if made is None:
            raise CannotShow("It cannot be read to its end: it may be broken.")
        return xlsx(made, out)


def xlsx(path: Path, out: Path) -> dict[str, Any]:
    """A workbook: the values that its formulas had when it was saved."""
    from coatpeg.files import workbooks  # noqa: PLC0415

    with open(path, "rb") as content:  # by its path it would be judged by the ending of its name
        return _tables(workbooks.sheets(content, MOST_COLUMNS + 1))


def _tables(sheets: Iterable[tuple[str, Iterator[list[str]]]]) -> dict[str, Any]:
    tables: list[dict[str, Any]] = []
    left = MOST_IN_CELLS
    for at, (name, rows) in enumerate(sheets):
        if at == MOST_SHEETS:
            break
        table = _table(rows, left)
        left -= sum(len(cell) for row in table["rows"] for cell in row)
        tables.append({"name": name, **table})
    return {"kind": "tables", "tables": tables}


def _table(rows: Iterator[list[str]], most: int) -> dict[str, Any]:
    """A table without its empty ends, of up to ``most`` characters; what is beyond what is shown is counted."""
    kept: list[list[str]] = []
    rows_left_out = columns_left_out = 0
    for cells in rows:
        while cells and not cells[-1].strip():
            cells = cells[:-1]
        if len(kept) >= MOST_ROWS or most < 0:
            rows_left_out += bool(cells)
            continue
        columns_left_out = max(columns_left_out, len(cells) - MOST_COLUMNS)
        kept.append([one[:LONGEST_CELL] for one in cells[:MOST_COLUMNS]])
        most -= sum(map(len, kept[-1]))
    while kept and not kept[-1]:
        kept.pop()
    width = max(map(len, kept), default=0)
    full = [[*row, *[""] * (width - len(row))] for row in kept]
    return {"rows": full, "rows_left_out": rows_left_out, "columns_left_out": max(columns_left_out, 0)}


def _decoded(path: Path) -> str:
    raw = path.read_bytes()[: LONGEST * 4]
    for encoding in ("utf-8-sig", "utf-16" if raw[:2] in (b"\xff\xfe", b"\xfe\xff") else "utf-8-sig", "cp1252"):
        try:
            return raw.decode(encoding)
        except UnicodeDecodeError:
            continue
    return raw.decode("utf-8", "replace")


def comma_separated(path: Path, out: Path) -> dict[str, Any]:
    """A CSV file as a table; its separator is the one of , ; tab | that its first lines have most of."""
    text = _decoded(path)
    head = "\n".join(text.splitlines()[:20])
    separator = max(",;\t|", key=head.count)
    return _tables([("", iter(list(csv.reader(io.StringIO(text), delimiter=separator))))])


def plain(path: Path, out: Path) -> dict[str, Any]:
    """Text as it stands, whatever it means to other programs."""
    text = _decoded(path)
    return {"kind": "text", "text": text[:LONGEST], "left_out": max(len(text) - LONGEST, 0)}


CONVERTERS: dict[str, Callable[[Path, Path], dict[str, Any]]] = {
    "application/pdf": pdf,
    f"{OFFICE}wordprocessingml.document": docx,
    f"{OFFICE}spreadsheetml.sheet": xlsx,
}
BY_OFFICE: dict[str, Callable[[Path, Path], dict[str, Any]]] = {
    f"{OFFICE}presentationml.presentation": slides_or_text,
    f"{ODF}presentation": slides_or_text,
    f"{ODF}text": slides_or_text,
    f"{ODF}spreadsheet": other_workbook,
}
"""What needs LibreOffice; without it such files are offered as they are."""
_TEXTS = frozenset(
    {"application/json", "application/xml", "application/xhtml+xml", "image/svg+xml", "application/javascript"}
)


def converter_of(media_type: str, name: str) -> Callable[[Path, Path], dict[str, Any]] | None:
    """What shows a file of this type, or None where nothing does."""
    if media_type.startswith("text/") or media_type in _TEXTS:
        return comma_separated if name.lower().endswith((".csv", ".tsv")) else plain
    if media_type in BY_OFFICE:
        return BY_OFFICE[media_type] if office.program() else None
    return CONVERTERS.get(media_type)


def lacks_office(media_type: str) -> bool:
    """Whether a file of this type is not shown for want of LibreOffice."""
    return media_type in BY_OFFICE and office.program() is None


def _look_into(path: Path) -> str:
    """Refuse an archive that unpacks to too much; tell of macros."""
    if not zipfile.is_zipfile(path):
        return ""
    with zipfile.ZipFile(path) as archive:
        entries = archive.infolist()
    unpacked = sum(one.file_size for one in entries)
    if len(entries) > MOST_ENTRIES or unpacked > MOST_UNPACKED:
        raise CannotShow(
            f"It unpacks to {unpacked // 1024 // 1024} MB in {len(entries)} parts, which is too much to show."
        )
    macros = any(one.filename.lower().endswith("vbaproject.bin") for one in entries)
    return "There are macros in this file. They do not run here; think before you open it elsewhere." if macros else ""


def convert(path: Path, out: Path, media_type: str, name: str) -> dict[str, Any]:
    """The document that shows a file; ``CannotShow`` says why there is none."""
    converter = converter_of(media_type, name)
    if converter is None:
        raise CannotShow("There is no viewer for files of this kind.")
    note = _look_into(path) if converter not in (pdf, plain, comma_separated) else ""
    document = converter(path, out)
    if note:
        document["note"] = note
    return document


def main(path: str, out: str, media_type: str, name: str) -> int:
    """One file within its limits."""
    fenced.limit(MEMORY, SECONDS, MOST_UNPACKED)
    try:
        document = convert(Path(path), Path(out), media_type, name)
    except CannotShow as why:
        sys.stdout.write(str(why))
        return 3
    except MemoryError:
        sys.stdout.write("It takes more memory to show than there is for one file.")
        return 3
    except Exception as error:  # noqa: BLE001 - a stranger's file may break any library; the original is still there
        sys.stderr.write(f"It cannot be read ({type(error).__name__}): it may be broken.")
        sys.stdout.write("It cannot be read to its end: it may be broken.")
        return 3
    (Path(out) / "view.json").write_text(json.dumps(document))
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:5]))
