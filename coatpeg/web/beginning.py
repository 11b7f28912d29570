"""How a page begins, before any script has run: its reader's colours, the frame, the view's lines of help.

What is drawn here stands where the front end draws the same in the next moment, and is taken away by it in that very
moment (``app/Frame.tsx``); ``browser/test_beginning`` compares the two. Nothing of it can be pressed. The words are the
front end's own, which its build writes down for every language it has.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from functools import lru_cache
from pathlib import Path
from typing import Any

from django.http import HttpRequest
from django.utils.html import format_html
from django.utils.safestring import SafeString

from coatpeg.people import reading
from coatpeg.people.models import Person
from coatpeg.web import sessions

WORDS = "begin.json"
"""Written when the front end is built: the words a page begins with, by language."""
ENGLISH = "en"
_ADDRESS = re.compile(r"/(?:g/(?P<group>\d+)/)?(?P<view>[a-z-]+)(?:/|$)")
_ON_PAGE = ("face", "size", "spacing", "tint")

# The same classes as in ``app/TopBar``, ``app/Views`` and ``app/ViewHelp``: so it stands in the same place.
_FRAME = (
    '<div id="begin" inert class="flex h-dvh flex-col low:h-auto low:min-h-dvh">'
    '<div class="on-bar flex min-h-12 shrink-0 items-center gap-3 bg-bar px-3 text-bar-ink max-sm:flex-wrap'
    ' sm:gap-4 sm:px-5">'
    '<span class="flex shrink-0 items-center gap-2 text-base font-bold">'
    '<img src="/static/mark.svg" alt="" width="26" height="26">'
    '<span class="whitespace-nowrap max-sm:sr-only">{name}</span></span>'
    '{group}<span class="min-w-0 flex-1 max-lg:hidden"></span>{search}'
    '<span class="flex items-center gap-1 ml-auto"><span class="size-11"></span><span class="size-9"></span></span>'
    "</div>{views}{help}</div>"
)
_SWITCHER = (
    '<span class="flex min-h-8 min-w-0 items-center gap-2 rounded-md bg-bar-soft px-3 font-semibold">'
    '<span class="truncate">{}</span>'
    '<svg aria-hidden="true" width="16" height="16" class="shrink-0"></svg></span>'
)
_ONLY_CLASS = '<span class="min-w-0 truncate font-semibold">{}</span>'
_SEARCH = SafeString(
    '<span class="relative ml-auto min-w-0 max-sm:order-last max-sm:w-full max-sm:pb-2">'
    '<span class="block min-h-8 w-64 max-md:w-46 max-sm:w-full"></span></span>'
)
_VIEWS = SafeString('<div class="shrink-0 border-b border-line bg-paper"><span class="block min-h-11"></span></div>')
_HELP = (
    '<div class="flex shrink-0 items-center gap-3 border-b border-line bg-in-soft px-5 py-2 max-sm:px-3">'
    '<p class="min-w-0 flex-1">{lines}</p>'
    '<span class="-my-1 flex min-h-9 shrink-0 items-center gap-1.5 rounded-md px-2 font-semibold text-in'
    ' max-md:min-h-11">'
    '<svg aria-hidden="true" width="15" height="15"></svg>{put_away}</span></div>'
)


def drawn(request: HttpRequest, person: Person, built: Path) -> tuple[SafeString, dict[str, str]]:
    """What stands at the start of the page's body, and its ``html``'s attributes; both empty where nothing is known.

    As ``app/Frame`` decides: the view is named by the address; in a class there is its row of views; the help stands
    until it is put away.
    """
    language, words = _words(request, built)
    found = _ADDRESS.match(request.path)
    if not words or found is None or found["view"] not in reading.VIEWS:
        return SafeString(""), {}
    groups = sessions.groups_of(person)
    group = next((one for one in groups if str(one["id"]) == found["group"]), None)
    if found["group"] and group is None:
        return SafeString(""), {}
    chosen = reading.reading_of(person)
    helps = words["studentHelp" if group and group["portfolio"] is not None else "help"]
    help_lines = "" if found["view"] in chosen["helped"] else helps.get(found["view"], "")
    body = format_html(
        _FRAME,
        name=words["name"],
        group=_class_name(person, group, groups) if group else "",
        search=_SEARCH if group and "see_board" in group["may"] else "",
        views=_VIEWS if group else "",
        help=format_html(_HELP, lines=help_lines, put_away=words["putAway"]) if help_lines else "",
    )
    attributes = {"lang": language, **{f"data-{name}": str(chosen[name]) for name in _ON_PAGE}}
    if chosen["theme"] != "system":
        attributes["data-theme"] = chosen["theme"]
    return body, attributes


def _class_name(person: Person, group: dict[str, Any], groups: list[dict[str, Any]]) -> SafeString:
    """As the class switcher shows it, or as the only class does."""
    others = any(one["landing"] and not one["put_away"] for one in groups if one is not group)
    return format_html(_SWITCHER if others or person.is_staff else _ONLY_CLASS, group["name"])


def _words(request: HttpRequest, built: Path) -> tuple[str, Mapping[str, Any]]:
    """The first language that the browser asks for and we have, as the front end settles it; and its words."""
    path = built / WORDS
    try:
        known = _read(path, path.stat().st_mtime_ns)
    except OSError:
        return ENGLISH, {}
    for one in request.headers.get("Accept-Language", "").split(","):
        asked = one.partition(";")[0].strip()
        if asked in known and asked != ENGLISH:
            return asked, known[asked]
        if re.match(r"en(-|$)", asked):
            break
    return ENGLISH, known[ENGLISH]


@lru_cache(maxsize=2)
def _read(path: Path, _: int) -> dict[str, Any]:
    words: dict[str, Any] = json.loads(path.read_text("utf-8"))
    return words
