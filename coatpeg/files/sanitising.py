"""HTML with nothing in it that could do anything (nh3): the one sanitiser, with a policy for each place it stands.

Decided here: links are http, https or mailto; what a policy does not name is taken out, and what stood in it stays as
text. Rich text is shown from its structure, never as markup of ours.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

import nh3

Filter = Callable[[str, str, str], str | None]
"""Judges (tag, attribute, value): the value that is kept, or None."""
SCHEMES = frozenset({"http", "https", "mailto"})
_LETTERS = frozenset({"p", "br", "strong", "em", "u", "s", "ul", "ol", "li", "blockquote", "code", "a"})
_TABLES = frozenset({"table", "tbody", "tr", "th", "td"})
_SPANS = {"td": frozenset({"colspan", "rowspan"}), "th": frozenset({"colspan", "rowspan"})}


@dataclass(frozen=True)
class Policy:
    """What may stand in a text: tags, their attributes, and where links may lead."""

    tags: frozenset[str]
    attributes: Mapping[str, frozenset[str]] = field(default_factory=dict)
    schemes: frozenset[str] = SCHEMES
    new_page: bool = False
    """Links open a page of their own."""


DIRECTIONS = Policy(_LETTERS | {"h3", "h4"}, {"a": frozenset({"href"})})
"""What staff give with a pocket; pictures and files stand beside it."""
PAGES = Policy(
    _LETTERS | _TABLES | {"h2", "h3", "h4", "pre", "hr", "img", "span"},
    {"a": frozenset({"href"}), "img": frozenset({"src", "alt"}), "span": frozenset({"data-tex"}), **_SPANS},
)
"""What students write; a span is a formula."""
STARTERS = Policy(PAGES.tags - {"img"}, {name: names for name, names in PAGES.attributes.items() if name != "img"})
"""What stands in a page before its student writes: all of a page but pictures, which are its portfolio's own."""
DOCUMENTS = Policy(
    _LETTERS
    | _TABLES
    | {"h1", "h2", "h3", "h4", "h5", "h6", "thead", "b", "i", "sub", "sup", "hr", "img", "pre", "caption"},
    {"a": frozenset({"href"}), "img": frozenset({"src", "alt"}), **_SPANS},
    SCHEMES | {"data"},
    new_page=True,
)
"""What a converter makes of a file; pictures are in it as data."""


def only_links(tag: str, name: str, value: str) -> str | None:
    """Keep an address that leads where links may lead."""
    return value if value.partition(":")[0].lower() in SCHEMES else None


def sanitised(raw: str, policy: Policy, judge: Filter = only_links) -> str:
    """What a policy allows of a text; ``judge`` looks at each attribute that is left."""
    return nh3.clean(
        raw,
        tags=set(policy.tags),
        attributes={tag: set(names) for tag, names in policy.attributes.items()},
        url_schemes=set(policy.schemes),
        attribute_filter=judge,
        link_rel="noopener noreferrer nofollow" if policy.new_page else None,
        set_tag_attribute_values={"a": {"target": "_blank"}} if policy.new_page else None,
    ).strip()
