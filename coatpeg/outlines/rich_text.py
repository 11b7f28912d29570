"""Directions as rich text: a small subset of HTML, sanitised on the way in (nh3), shown from its structure.

Decided here: what comes without a tag is plain text, a paragraph a line. Headings are h3 and h4 (the page has its own
above), links are http, https or mailto; pictures and files stand beside the text, not in it.
"""

from __future__ import annotations

import html
import re

import nh3

TAGS = {"p", "br", "strong", "em", "u", "s", "h3", "h4", "ul", "ol", "li", "blockquote", "code", "a"}
SCHEMES = {"http", "https", "mailto"}
_TAG = re.compile(r"</?[a-zA-Z][^>]*>")
_EMPTY = re.compile(r"^(<p>(<br>)?</p>|\s)*$")


def clean(text: str) -> str:
    """Rich text as it is kept: only what ``TAGS`` allows, empty where nothing is left; the same when cleaned again."""
    if not text.strip():
        return ""
    kept = _sanitised(text) if _TAG.search(text) else text
    if not _TAG.search(kept):
        kept = _sanitised(_paragraphs(kept))
    return "" if _EMPTY.match(kept) else kept


def _sanitised(text: str) -> str:
    return nh3.clean(
        text,
        tags=TAGS,
        attributes={"a": {"href"}},
        attribute_filter=lambda tag, name, value: value if value.partition(":")[0].lower() in SCHEMES else None,
        url_schemes=SCHEMES,
        link_rel=None,
    ).strip()


def _paragraphs(plain: str) -> str:
    lines = [line.strip() for line in html.unescape(plain).splitlines()]
    return "".join(f"<p>{html.escape(line, quote=False)}</p>" for line in lines if line)
