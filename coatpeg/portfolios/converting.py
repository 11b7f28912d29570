"""Making a file readable: run as a process of its own, with little memory and little time, on one file.

``python -m coatpeg.portfolios.converting IN OUT TYPE NAME`` writes into the folder ``OUT`` a ``view.json`` and, for
pages, ``page-1``, ``page-2`` … (JPEG). What is in a file is never run: PDF pages are drawn without their scripts,
macros stay where they are, HTML and SVG are shown as the text that they are, formulas as their last values. Links
stay links; nothing is fetched. A document in ``view.json`` is one of

- ``{"kind": "pages", "pages": n, "all": n}`` - ``{"kind": "tables", "tables": [{"name", "rows": [[text]],
"rows_left_out", "columns_left_out"}]}`` - ``{"kind": "html", "html": …}`` (only the tags and attributes of ``TAGS``)
- ``{"kind": "text", "text": …, "left_out": characters}``

each with a ``note`` where there is something to say. Exit code 3 with a sentence on stdout: it cannot be shown, and
why.
"""

from __future__ import annotations

import base64
import csv
import html
import io
import json
import resource
import sys
import zipfile
from collections.abc import Callable, Iterable, Iterator
from pathlib import Path
from typing import Any

import nh3

MEMORY = 1_500 * 1024 * 1024
SECONDS = 60
"""Bytes of address space and seconds of processor that one file may take: ten times what a long school report takes."""
MOST_UNPACKED = 300 * 1024 * 1024
MOST_ENTRIES = 5_000
MOST_PAGES = 200
PAGE_SIDE = 1_600
"""Pixels of a page's longest side: sharp at full screen on a school laptop."""
MOST_ROWS, MOST_COLUMNS, MOST_SHEETS, LONGEST_CELL = 2_000, 100, 30, 1_000
LONGEST = 500_000
"""Characters of a text."""
PICTURE_SIDE = 1_000
MOST_PIXELS = 80_000_000

OFFICE = "application/vnd.openxmlformats-officedocument."
ODF = "application/vnd.oasis.opendocument."
TAGS = {
    *(
        "p",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
        "ul",
        "ol",
        "li",
        "table",
        "thead",
        "tbody",
        "tr",
        "th",
        "td",
        "strong",
        "em",
        "b",
    ),
    *("i", "u", "s", "sub", "sup", "br", "hr", "a", "img", "section", "blockquote", "pre", "code", "caption"),
}
_ATTRIBUTES = {"a": {"href"}, "img": {"src", "alt"}, "td": {"colspan", "rowspan"}, "th": {"colspan", "rowspan"}}


class CannotShow(Exception):
    """Why a file cannot be shown, as a sentence."""


def _safe(raw: str) -> str:
    """HTML with nothing in it that could do anything; pictures only where they are in it."""

    def filtered(tag: str, name: str, value: str) -> str | None:
        inside = value.startswith(("data:image/jpeg;base64,", "data:image/png;base64,"))
        return value if inside == ((tag, name) == ("img", "src")) else None

    return nh3.clean(
        raw,
        tags=TAGS,
        attributes=_ATTRIBUTES,
        url_schemes={"http", "https", "mailto", "data"},
        attribute_filter=filtered,
        link_rel="noopener noreferrer nofollow",
        set_tag_attribute_values={"a": {"target": "_blank"}},
    )


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


def pptx(path: Path, out: Path) -> dict[str, Any]:
    """A presentation, slide by slide: titles, texts, tables, pictures, the speaker's notes."""
    from pptx import Presentation  # noqa: PLC0415

    parts = []
    for number, slide in enumerate(Presentation(str(path)).slides, 1):
        title = slide.shapes.title
        parts.append(f"<section><h2>{number}. {html.escape(title.text if title is not None else '')}</h2>")
        parts += [_shape(shape) for shape in slide.shapes if title is None or shape.shape_id != title.shape_id]
        if slide.has_notes_slide and (notes := slide.notes_slide.notes_text_frame.text.strip()):
            parts.append(f"<blockquote>{_paragraphs(notes.splitlines())}</blockquote>")
        parts.append("</section>")
    return {"kind": "html", "html": _safe("".join(parts))}


def _shape(shape: Any) -> str:
    if getattr(shape, "has_table", False):
        return _html_table([[cell.text for cell in row.cells] for row in shape.table.rows])
    if hasattr(shape, "shapes"):
        return "".join(_shape(one) for one in shape.shapes)
    if hasattr(shape, "image"):
        return f'<p><img src="{_picture(shape.image.blob)}" alt="{html.escape(shape.name)}"></p>'
    return _paragraphs(one.text for one in shape.text_frame.paragraphs) if shape.has_text_frame else ""


def _paragraphs(lines: Iterable[str]) -> str:
    return "".join(f"<p>{html.escape(line)}</p>" for line in lines if line.strip())


def _html_table(rows: list[list[str]]) -> str:
    body = "".join(f"<tr>{''.join(f'<td>{html.escape(cell)}</td>' for cell in row)}</tr>" for row in rows)
    return f"<table><tbody>{body}</tbody></table>"


def odt(path: Path, out: Path) -> dict[str, Any]:
    """An OpenDocument text."""
    from odf.opendocument import load  # noqa: PLC0415

    document = load(str(path))
    return {"kind": "html", "html": _safe("".join(_odf(child, document) for child in document.text.childNodes))}


_ODF_TAGS = {
    *(("p", "p"), ("list", "ul"), ("list-item", "li"), ("table", "table"), ("table-row", "tr"), ("table-cell", "td")),
    ("table-header-rows", "thead"),
}
_ODF_AS = dict(_ODF_TAGS)
_ODF_DROPPED = frozenset({"sequence-decls", "tracked-changes", "forms", "annotation", "covered-table-cell"})


def _odf(node: Any, document: Any) -> str:
    if node.nodeType == node.TEXT_NODE:
        return html.escape(str(node.data))
    name = node.qname[1]
    if name in _ODF_DROPPED:
        return ""
    if name == "image":
        part = str(node.getAttribute("href") or "")
        kept = document.Pictures.get(part)
        return f'<img src="{_picture(kept[1])}" alt="">' if kept and isinstance(kept[1], bytes) else ""
    if name in ("line-break", "tab", "s"):
        return "<br>" if name == "line-break" else " "
    inside = "".join(_odf(child, document) for child in node.childNodes)
    if name == "h":
        level = min(max(int(node.getAttribute("outlinelevel") or 1), 1), 6)
        return f"<h{level}>{inside}</h{level}>"
    if name == "a":
        return f'<a href="{html.escape(str(node.getAttribute("href") or ""))}">{inside}</a>'
    return f"<{_ODF_AS[name]}>{inside}</{_ODF_AS[name]}>" if name in _ODF_AS else inside


def ods(path: Path, out: Path) -> dict[str, Any]:
    """An OpenDocument spreadsheet: the values as they were last shown."""
    from odf import table, teletype  # noqa: PLC0415
    from odf.opendocument import load  # noqa: PLC0415

    def rows(sheet: Any) -> Iterator[list[str]]:
        for row in sheet.getElementsByType(table.TableRow):
            cells: list[str] = []
            for cell in row.getElementsByType(table.TableCell):
                text = "\n".join(teletype.extractText(one) for one in cell.childNodes if one.qname[1] == "p")
                again = int(cell.getAttribute("numbercolumnsrepeated") or 1)
                cells += [text] * (min(again, MOST_COLUMNS + 1) if text else min(again, MOST_COLUMNS))
            again = int(row.getAttribute("numberrowsrepeated") or 1)
            for _ in range(min(again, MOST_ROWS + 1) if any(cells) else 1):
                yield cells

    sheets = load(str(path)).spreadsheet.getElementsByType(table.Table)
    return _tables((str(one.getAttribute("name") or ""), rows(one)) for one in sheets)


def xlsx(path: Path, out: Path) -> dict[str, Any]:
    """A workbook: the values that its formulas had when it was saved."""
    from openpyxl import load_workbook  # noqa: PLC0415

    with open(path, "rb") as content:  # by its path it would be judged by the ending of its name
        book = load_workbook(content, read_only=True, data_only=True)
        return _tables((sheet.title, _sheet(sheet)) for sheet in book.worksheets)


def _sheet(sheet: Any) -> Iterator[list[str]]:
    for row in sheet.iter_rows(values_only=True, max_col=MOST_COLUMNS + 1):
        yield ["" if cell is None else _cell(cell) for cell in row]


def _cell(value: Any) -> str:
    if isinstance(value, float) and value.is_integer() and abs(value) < 1e15:
        return str(int(value))
    text = str(value)
    return text.removesuffix(" 00:00:00")


def _tables(sheets: Iterable[tuple[str, Iterator[list[str]]]]) -> dict[str, Any]:
    tables = []
    for at, (name, rows) in enumerate(sheets):
        if at == MOST_SHEETS:
            break
        tables.append({"name": name, **_table(rows)})
    return {"kind": "tables", "tables": tables}


def _table(rows: Iterator[list[str]]) -> dict[str, Any]:
    """A table without its empty ends; what is beyond the most that is shown is counted."""
    kept: list[list[str]] = []
    rows_left_out = columns_left_out = 0
    for cells in rows:
        while cells and not cells[-1].strip():
            cells = cells[:-1]
        if len(kept) >= MOST_ROWS:
            rows_left_out += bool(cells)
            continue
        columns_left_out = max(columns_left_out, len(cells) - MOST_COLUMNS)
        kept.append([one[:LONGEST_CELL] for one in cells[:MOST_COLUMNS]])
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
    f"{OFFICE}presentationml.presentation": pptx,
    f"{OFFICE}spreadsheetml.sheet": xlsx,
    f"{ODF}text": odt,
    f"{ODF}spreadsheet": ods,
}
_TEXTS = frozenset(
    {"application/json", "application/xml", "application/xhtml+xml", "image/svg+xml", "application/javascript"}
)


def converter_of(media_type: str, name: str) -> Callable[[Path, Path], dict[str, Any]] | None:
    """What shows a file of this type, or None where nothing does."""
    if media_type.startswith("text/") or media_type in _TEXTS:
        return comma_separated if name.lower().endswith((".csv", ".tsv")) else plain
    return CONVERTERS.get(media_type)


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
    note = _look_into(path) if converter in CONVERTERS.values() and converter is not pdf else ""
    document = converter(path, out)
    if note:
        document["note"] = note
    return document


def main(path: str, out: str, media_type: str, name: str) -> int:
    """One file within its limits."""
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY, MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS))
    resource.setrlimit(resource.RLIMIT_FSIZE, (MOST_UNPACKED, MOST_UNPACKED))
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
