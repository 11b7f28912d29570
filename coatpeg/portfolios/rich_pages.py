"""Rich text that students write: sanitised on the way in, shown from its structure.

Decided here: headings are h2 to h4 (the page has its own above); links are http, https or mailto; a picture is one of
the same portfolio's, by its address here, and nothing else; a formula is its TeX, drawn by the browser.
"""

from __future__ import annotations

import re
from collections.abc import Collection

from coatpeg.core.errors import Invalid
from coatpeg.files.sanitising import PAGES, only_links, sanitised

LONGEST_HTML = 300_000
"""Characters with all tags: the longest text in a table of single words is a tenth of it."""
LONGEST_FORMULA = 1_000
_PICTURE = re.compile(r"^/api/artefacts/(\d{1,18})/thumbnails/large$")
_IMG = re.compile(r"<img(?![^>]* src=)[^>]*>")
_SPAN = re.compile(r"<span>(.*?)</span>", re.DOTALL)


def clean(raw: str, pictures: Collection[int]) -> str:
    """Rich text as it is kept; ``pictures`` are those that may stand in it. ``Invalid`` where it is too long."""
    if len(raw) > LONGEST_HTML:
        raise Invalid(
            f"The page has {len(raw)} characters with its tables and headings; {LONGEST_HTML} is the most.",
            where="text",
            fix="Shorten it, or add it as a file. What you wrote stays in the field.",
        )

    def filtered(tag: str, name: str, value: str) -> str | None:
        if tag == "img" and name == "src":
            found = _PICTURE.match(value)
            return value if found and int(found[1]) in pictures else None
        if tag == "span":
            return value[:LONGEST_FORMULA]
        if name == "href":
            return only_links(tag, name, value)
        return value

    kept = sanitised(raw, PAGES, filtered)
    kept = _SPAN.sub(r"\1", _IMG.sub("", kept))
    return "" if kept in ("<p></p>", "<p><br></p>") else kept


def pictures_in(raw: str) -> set[int]:
    """The artefacts that a text names as its pictures."""
    return {int(one) for one in re.findall(r'src="/api/artefacts/(\d{1,18})/thumbnails/large"', raw)}
