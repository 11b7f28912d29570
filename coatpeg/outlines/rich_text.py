"""Directions as rich text: a small subset of HTML, sanitised on the way in, shown from its structure.

Decided here: what comes without a tag is plain text, a paragraph a line. Headings are h3 and h4 (the page has its own
above), links are http, https or mailto; pictures and files stand beside the text, not in it.
"""

from __future__ import annotations

import html
import re

from coatpeg.files.sanitising import DIRECTIONS, sanitised

_TAG = re.compile(r"</?[a-zA-Z][^>]*>")
_EMPTY = re.compile(r"^(<p>(<br>)?</p>|\s)*$")


def clean(text: str) -> str:
    """Rich text as it is kept (``DIRECTIONS``); empty where nothing is left, and the same when cleaned again."""
    if not text.strip():
        return ""
    kept = sanitised(text, DIRECTIONS) if _TAG.search(text) else text
    if not _TAG.search(kept):
        kept = sanitised(_paragraphs(kept), DIRECTIONS)
    return "" if _EMPTY.match(kept) else kept


def _paragraphs(plain: str) -> str:
    lines = [line.strip() for line in html.unescape(plain).splitlines()]
    return "".join(f"<p>{html.escape(line, quote=False)}</p>" for line in lines if line)
