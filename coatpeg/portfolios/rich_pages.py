"""Rich text that students write: sanitised on the way in (nh3), shown from its structure.

Decided here: headings are h2 to h4 (the page has its own above); links are http, https or mailto; a picture is one of
the same portfolio's, by its address here, and nothing else; a formula is its TeX, drawn by the browser.
"""

from __future__ import annotations

import re
from collections.abc import Collection

import nh3

from coatpeg.core.errors import Invalid

TAGS = {
    *("p", "br", "strong", "em", "u", "s", "h2", "h3", "h4", "ul", "ol", "li", "blockquote", "code", "pre", "a", "hr"),
    *("table", "tbody", "tr", "th", "td", "img", "span"),
}
ATTRIBUTES = {
    "a": {"href"},
    "img": {"src", "alt"},
    "td": {"colspan", "rowspan"},
    "th": {"colspan", "rowspan"},
    "span": {"data-tex"},
}
SCHEMES = {"http", "https", "mailto"}
LONGEST_HTML = 300_000
"""Characters with all tags: the longest text in a table of single words is a tenth of it."""
LONGEST_FORMULA = 1_000
_PICTURE = re.compile(r"^/api/artefacts/(\d{1,18})/thumbnails/large$")
_IMG = re.compile(r"<img(?![^>]* src=)[^>]*>")
_SPAN = re.compile(r"<span>(.*?)</span>", re.DOTALL)


def clean(raw: str, own: Collection[int]) -> str:
    """Rich text as it is kept; ``own`` are the pictures that may stand in it. ``Invalid`` where it is too long."""
    if len(raw) > LONGEST_HTML:
        raise Invalid(
            f"The page has {len(raw)} characters with its tables and headings; {LONGEST_HTML} is the most.",
            where="text",
            fix="Shorten it, or add it as a file. What you wrote stays in the field.",
        )

    def filtered(tag: str, name: str, value: str) -> str | None:
        if tag == "img" and name == "src":
            found = _PICTURE.match(value)
            return value if found and int(found[1]) in own else None
        if tag == "span":
            return value[:LONGEST_FORMULA]
        if name == "href":
            return value if value.partition(":")[0].lower() in SCHEMES else None
        return value

    kept = nh3.clean(
        raw, tags=TAGS, attributes=ATTRIBUTES, attribute_filter=filtered, url_schemes=SCHEMES, link_rel=None
    ).strip()
    kept = _SPAN.sub(r"\1", _IMG.sub("", kept))
    return "" if kept in ("<p></p>", "<p><br></p>") else kept


def pictures_in(raw: str) -> set[int]:
    """The artefacts that a text names as its pictures."""
    return {int(one) for one in re.findall(r'src="/api/artefacts/(\d{1,18})/thumbnails/large"', raw)}
