"""What a view is made of, asked for with the page: its parts and what it reads first, before any script has run.

Only hints stand here, and from which change on the view follows its class. The view asks for the same by itself, and
the API judges who may read what; a hint that is missing costs time and nothing else.
"""

from __future__ import annotations

import json
import re
from functools import lru_cache
from pathlib import Path

from django.utils.html import format_html, format_html_join
from django.utils.safestring import SafeString

from coatpeg.core.policy import Action, decide
from coatpeg.events.changes import changes_after
from coatpeg.people.access import to_group
from coatpeg.people.models import Person

VIEWS = {
    "pegs": ("PegsView", "/api/groups/{group}/pegs"),
    "pile": ("PileView", "/api/groups/{group}/pile"),
    "hand-ins": ("HandInsView", "/api/groups/{group}/handins"),
    "template": ("TemplateView", "/api/groups/{group}/template"),
    "portfolio": ("PocketsView", "/api/portfolios/{first}"),
    "to-hand-in": ("ToHandInView", None),
    "feedback": ("FeedbackView", None),
}
"""By the word of the address: the view as the front end names it, and what it reads first."""
_VIEW = re.compile(r"/g/(?P<group>\d+)/(?P<view>[a-z-]+)(?:/(?P<first>\d+))?(?:/|$)")
PARTS = "views.json"
"""Written when the front end is built: each view's files, as addresses."""


def hints(path: str, built: Path, *, member: bool = True) -> SafeString:
    """Links for the page at this address; empty where nothing is known of it.

    Who is not in the class reads nothing of it.
    """
    found = _VIEW.match(path)
    name, reads = VIEWS.get(found["view"], (None, None)) if found else (None, None)
    if found is None or name is None:
        return SafeString("")
    links = [("modulepreload", "script", part) for part in _parts(built / PARTS).get(name, ())]
    if reads and member and not ("{first}" in reads and found["first"] is None):
        links.append(("preload", "fetch", reads.format(group=found["group"], first=found["first"])))
    return format_html_join("", '<link rel="{}" as="{}" href="{}" crossorigin>', links)


def cursor(person: Person, path: str) -> SafeString:
    """From where the page follows its class: the cursor before anything of it is read, so that no change is missed."""
    found = _VIEW.match(path)
    if found is None or not decide(Action.FOLLOW_CHANGES, to_group(person, int(found["group"]))).allowed:
        return SafeString("")
    at = changes_after(int(found["group"]), None).cursor
    return format_html('<meta name="cursor" content="{}:{}">', found["group"], at)


def _parts(path: Path) -> dict[str, list[str]]:
    try:
        return _read(path, path.stat().st_mtime_ns)
    except OSError:
        return {}


@lru_cache(maxsize=2)
def _read(path: Path, _: int) -> dict[str, list[str]]:
    parts: dict[str, list[str]] = json.loads(path.read_text("utf-8"))
    return parts
