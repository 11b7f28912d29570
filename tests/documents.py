"""Documents as other programs write them.

Made with general-purpose libraries or by hand after the formats' standards.
"""

from __future__ import annotations

import io
import zipfile

from odf import draw, table, text
from odf.opendocument import OpenDocumentSpreadsheet, OpenDocumentText
from openpyxl import Workbook
from pptx import Presentation
from weasyprint import HTML

from tests import builders

_TYPES = (
    '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">'
    '<Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>'
    '<Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" '
    'ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>'
)
_RELS = (
    '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'
    '<Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" '
    'Target="word/document.xml"/></Relationships>'
)
_W = "http://schemas.openxmlformats.org/wordprocessingml/2006/main"


def _entry(name: str) -> zipfile.ZipInfo:
    """An entry without the moment it was made, so that the same document has the same bytes."""
    found = zipfile.ZipInfo(name)
    found.compress_type = zipfile.ZIP_DEFLATED
    return found


def docx(words: str = "Soil test", body: str = "", **parts: bytes) -> bytes:
    """The smallest WordprocessingML document (ECMA-376, part 1, 11.2): one bold paragraph, and ``body`` after it."""
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(_entry("[Content_Types].xml"), _TYPES)
        archive.writestr(_entry("_rels/.rels"), _RELS)
        archive.writestr(
            _entry("word/document.xml"),
            f'<?xml version="1.0"?><w:document xmlns:w="{_W}"><w:body><w:p><w:r><w:rPr><w:b/></w:rPr>'
            f"<w:t>{words}</w:t></w:r></w:p>{body}</w:body></w:document>",
        )
        for name, data in parts.items():
            archive.writestr(_entry(f"word/{name}"), data)
    return target.getvalue()


def pptx() -> bytes:
    made, target = Presentation(), io.BytesIO()
    slide = made.slides.add_slide(made.slide_layouts[1])
    slide.shapes.title.text = "Where does the water go?"
    slide.placeholders[1].text = "Into the ground <and> the air"
    cells = slide.shapes.add_table(1, 2, 0, 0, 100, 100).table
    cells.cell(0, 0).text, cells.cell(0, 1).text = "Rain", "12 mm"
    slide.shapes.add_picture(io.BytesIO(builders.jpeg()), 0, 0)
    slide.notes_slide.notes_text_frame.text = "Ask the class first."
    made.save(target)
    return target.getvalue()


def xlsx() -> bytes:
    made, target = Workbook(), io.BytesIO()
    assert made.active
    made.active.title = "Harvest"
    made.active.append(["Crop", "Grams"])
    made.active.append(["Beans", 240])
    made.active.append(["=1+1", None])
    made.create_sheet("Empty")
    made.save(target)
    return target.getvalue()


def odt(picture: str = "") -> bytes:
    """An OpenDocument text; with a picture that lies at an address, where one is given."""
    made, target = OpenDocumentText(), io.BytesIO()
    if picture:
        frame = draw.Frame(width="3cm", height="2cm", anchortype="paragraph")
        frame.addElement(draw.Image(href=picture, type="simple", show="embed", actuate="onLoad"))
        linked = text.P()
        linked.addElement(frame)
        made.text.addElement(linked)
    made.text.addElement(text.H(outlinelevel=2, text="Compost"))
    made.text.addElement(text.P(text="Worms & warmth"))
    listed = text.List()
    entry = text.ListItem()
    entry.addElement(text.P(text="Leaves"))
    listed.addElement(entry)
    made.text.addElement(listed)
    made.write(target)
    return target.getvalue()


def ods() -> bytes:
    made, target = OpenDocumentSpreadsheet(), io.BytesIO()
    sheet = table.Table(name="Beds")
    for cells in (("Bed", "Crop"), ("1", "Beans")):
        row = table.TableRow()
        for one in cells:
            cell = table.TableCell(valuetype="string")
            cell.addElement(text.P(text=one))
            row.addElement(cell)
        row.addElement(table.TableCell(numbercolumnsrepeated=16_000))
        sheet.addElement(row)
    sheet.addElement(table.TableRow(numberrowsrepeated=1_000_000))
    made.spreadsheet.addElement(sheet)
    made.write(target)
    return target.getvalue()


def pdf(pages: int = 2) -> bytes:
    body = "".join(f"<p style='page-break-after: always'>Page {number + 1}</p>" for number in range(pages - 1))
    return bytes(HTML(string=f"{body}<p>Last page</p>").write_pdf())


def pdf_with_script() -> bytes:
    """A PDF that asks a viewer to run a script when it opens (ISO 32000-1, 12.6.4.16)."""
    return (
        b"%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R/OpenAction 4 0 R>>endobj\n"
        b"2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n"
        b"3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 200 100]>>endobj\n"
        b"4 0 obj<</S/JavaScript/JS(while\\(true\\){app.alert\\(1\\)})>>endobj\n"
        b"trailer<</Root 1 0 R>>\n%%EOF\n"
    )
