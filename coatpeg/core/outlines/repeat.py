"""A section that repeats: laid out once per unit, with a list of questions for each.

Decided here: ``{unit}`` and ``{question}`` in a pattern's texts stand for the unit's name and the question. A pocket
that comes once per question is called by its question, unless its name says where the question goes. Each laid pocket
has a key made of the keys of its pattern, unit and question, so that the same pocket is found again when a unit or
question comes back, and in every copy of the template. A unit's opening day goes before the pattern's.
"""

from __future__ import annotations

import hashlib
import html
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.plan import LONGEST_TITLE, PocketPlan

UNIT, QUESTION = "{unit}", "{question}"
MOST_UNITS = 30
MOST_QUESTIONS = 12
LONGEST_NAME = 120
LONGEST_KEY = 36


@dataclass(frozen=True, slots=True)
class Question:
    """A question of a unit, under the key it keeps when it is put in other words."""

    key: str
    text: str


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit with its questions; ``opens`` is the day from which its pockets are open."""

    key: str
    title: str
    questions: tuple[Question, ...] = ()
    opens: date | None = None


@dataclass(frozen=True, slots=True)
class LaidPocket:
    """A pocket as it is laid out in a unit; ``question`` is the key of its question, or empty."""

    key: str
    question: str
    plan: PocketPlan


def checked_units(units: Sequence[Unit]) -> tuple[Unit, ...]:
    """The same, tidied; questions without words go. ``Invalid`` names the unit and the fix."""
    if len(units) > MOST_UNITS:
        raise Invalid(f"There are {len(units)} units; {MOST_UNITS} is the most.", where="units", fix="Use fewer.")
    found = []
    for place, unit in enumerate(units, 1):
        title = _tidy(unit.title, f"Unit {place}")
        questions = tuple(
            Question(one.key, _tidy(one.text, f"A question of “{title}”"))
            for one in unit.questions
            if " ".join(one.text.split())
        )
        if len(questions) > MOST_QUESTIONS:
            raise Invalid(
                f"“{title}” has {len(questions)} questions; {MOST_QUESTIONS} is the most.",
                where=title,
                fix="Make two units of it.",
            )
        found.append(Unit(unit.key, title, questions, unit.opens))
    keys = [unit.key for unit in found] + [one.key for unit in found for one in unit.questions]
    if len(set(keys)) < len(keys) or not all(0 < len(key) <= LONGEST_KEY for key in keys):
        raise Invalid("Two of these have the same key.", where="units", fix="Load the template again.")
    titles = [unit.title.casefold() for unit in found]
    twice = next((unit for unit in found if titles.count(unit.title.casefold()) > 1), None)
    if twice is not None:
        raise Invalid(f"There are two units “{twice.title}”.", where=twice.title, fix="Give one another name.")
    return tuple(found)


def _tidy(text: str, named: str) -> str:
    tidy = " ".join(text.split())
    if not tidy or len(tidy) > LONGEST_NAME:
        raise Invalid(
            f"{named} has no name." if not tidy else f"{named} has {len(tidy)} characters.",
            where=named,
            fix=f"Use at most {LONGEST_NAME} characters.",
        )
    return tidy


def laid_key(pattern: str, unit: str, question: str = "") -> str:
    """The key of a laid pocket: the same in every copy of the template."""
    return hashlib.sha256("\x00".join((pattern, unit, question)).encode()).hexdigest()[:24]


def laid(pattern: str, plan: PocketPlan, unit: Unit) -> tuple[LaidPocket, ...]:
    """The pockets that a pattern's pocket (its key and plan) makes in a unit: one, or one per question."""
    if not plan.each_question:
        return (LaidPocket(laid_key(pattern, unit.key), "", _filled(plan, unit, None)),)
    return tuple(
        LaidPocket(laid_key(pattern, unit.key, one.key), one.key, _filled(plan, unit, one)) for one in unit.questions
    )


def _filled(plan: PocketPlan, unit: Unit, question: Question | None) -> PocketPlan:
    def words(text: str) -> str:
        return text.replace(UNIT, unit.title).replace(QUESTION, question.text if question else "")

    title = plan.title if question is None or QUESTION in plan.title else question.text

    def rich(text: str) -> str:
        asked = html.escape(question.text, quote=False) if question else ""
        return text.replace(UNIT, html.escape(unit.title, quote=False)).replace(QUESTION, asked)

    return replace(
        plan,
        title=words(title).strip()[:LONGEST_TITLE] or unit.title,
        directions=rich(plan.directions),
        prompt=words(plan.prompt),
        starter=rich(plan.starter),
        opens=unit.opens or plan.opens,
        each_question=False,
    )
