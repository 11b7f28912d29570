"""How a person likes to read: kept with their account, so that it is the same on every device.

Decided here: face, size and spacing change everything that is read; the theme is the colours of all, by default what
the device says; the tint colours the ground behind what is read, in the light ones; the ruler is a band that follows
the pointer or the finger; ``keys`` are those of one letter, which can be turned off; ``helped`` are the views whose
lines of help were put away. What is not named stays as it was before.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal, get_args

from coatpeg.core.errors import Invalid
from coatpeg.people.models import Person

CHOICES: Mapping[str, tuple[Any, ...]] = {
    "face": ("hyperlegible", "lexend"),
    "size": (100, 115, 130, 150),
    "spacing": ("usual", "wide", "wider"),
    "theme": ("system", "light", "dark", "contrast"),
    "tint": ("none", "cream", "mint", "sky", "rose"),
    "ruler": (False, True),
    "keys": (True, False),
    "pace": (100, 80, 60, 120),
}
"""Each setting's choices, the usual one first; ``size`` and the ``pace`` of reading aloud in percent."""

ViewWord = Literal[
    "classes",
    "pegs",
    "pile",
    "hand-ins",
    "template",
    "look",
    "shows",
    "setup",
    "caseload",
    "school",
    "requests",
    "portfolio",
    "to-hand-in",
    "feedback",
]
"""A view, by the part of its address that names it."""
VIEWS: tuple[str, ...] = get_args(ViewWord)


def reading_of(person: Person) -> dict[str, Any]:
    """A person's settings, the usual ones where they chose none."""
    kept = person.reading or {}
    chosen = {name: kept[name] if kept.get(name) in choices else choices[0] for name, choices in CHOICES.items()}
    return {**chosen, "helped": [view for view in VIEWS if view in kept.get("helped", ())]}


def set_reading(person: Person, wanted: Mapping[str, Any]) -> dict[str, Any]:
    """Change settings; ``Invalid`` names the one that has no such choice."""
    for name, value in wanted.items():
        if name == "helped":
            continue
        if name not in CHOICES or not any(
            value is one or (value == one and type(value) is type(one)) for one in CHOICES[name]
        ):
            raise Invalid(
                f"“{value}” is no choice for “{name}”.",
                where=name,
                fix=f"Choose from {', '.join(str(one) for one in CHOICES.get(name, ()))}.",
            )
    person.reading = {**reading_of(person), **wanted}
    person.save(update_fields=["reading"])
    return reading_of(person)
