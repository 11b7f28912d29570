"""Directions and starters as rich text: a subset of HTML, sanitised on the way in, shown from its structure.

Decided here: what comes without a tag is plain text, a paragraph a line. Headings are h3 and h4 (the page has its own
above), links are http, https or mailto; pictures and files stand beside the text, not in it. A starter has all that a
page has (tables and formulas too) but pictures; how it is laid out makes no difference to whether a text still is the
starter, only its words do.
"""

from __future__ import annotations

import html
import re

from coatpeg.core.portfolios import rich, texts
from coatpeg.files.sanitising import DIRECTIONS, STARTERS, Policy, sanitised

_TAG = re.compile(r"</?[a-zA-Z][^>]*>")
_EMPTY = re.compile(r"^(<p>(<br>)?</p>|\s)*$")


def clean(text: str, policy: Policy = DIRECTIONS) -> str:
    """Rich text as it is kept; empty where nothing is left, and the same when cleaned again."""
    if not text.strip():
        return ""
    kept = sanitised(text, policy) if _TAG.search(text) else text
    if not _TAG.search(kept):
        kept = sanitised(_paragraphs(kept), policy)
    return "" if _EMPTY.match(kept) else kept


def clean_starter(text: str) -> str:
    """A starter as it is kept."""
    return clean(text, STARTERS)


def words_of(text: str) -> str:
    """The words of a starter, rich or (of before) plain, as they are compared with a page's text."""
    return in_words(rich.plain(text) if _TAG.search(text) else text)


def in_words(text: str) -> str:
    """A plain text as it is compared with a starter: how its lines are broken makes no work of it."""
    return " ".join(texts.tidy_text(text).split())


def _paragraphs(plain: str) -> str:
    lines = [line.strip() for line in html.unescape(plain).splitlines()]
    return "".join(f"<p>{html.escape(line, quote=False)}</p>" for line in lines if line)
