"""Invented names, dealt from a fixed seed; a few of them awkward on purpose."""

from __future__ import annotations

import json
import random
from pathlib import Path

_LISTS: dict[str, list[str]] = json.loads(Path(__file__).with_name("names.json").read_text())
GIVEN, FAMILY = _LISTS["given"], _LISTS["family"]
AWKWARD = (
    ("Ångström", "Bo"),
    ("de Souza", "Ana Beatriz"),
    ("O'Neill", "Caoimhe"),
    ("Nguyễn", "Thị Minh Châu"),
    ("", "Sukarni"),
    ("van der Berg-Oyelaran", "Maximiliana Josephine"),
    ("李", "明月"),
    ("Ștefănescu", "Ioana"),
)


def deal(count: int, seed: int, first: tuple[tuple[str, str], ...] = ()) -> list[tuple[str, str]]:
    """``count`` different (family, given) names, those of ``first`` among them."""
    dealer = random.Random(seed)
    found = list(first)
    taken = set(found)
    while len(found) < count:
        name = (dealer.choice(FAMILY), dealer.choice(GIVEN))
        if name not in taken:
            taken.add(name)
            found.append(name)
    return found
