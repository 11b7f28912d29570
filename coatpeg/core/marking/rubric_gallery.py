"""Rubrics that ship with the product, to begin from: common practice of the classroom, in plain words."""

from __future__ import annotations

from decimal import Decimal

from coatpeg.core.marking.rubrics import Level, Row, Rubric

_NAMES = ("not yet", "partly", "mostly", "fully")
_LEVELS = tuple(Level(f"level-{at}", name, Decimal(at)) for at, name in enumerate(_NAMES))


def _rubric(*rows: tuple[str, int, tuple[str, str, str, str]]) -> Rubric:
    return Rubric(
        _LEVELS,
        tuple(Row(f"row-{at}", title, Decimal(weight), says) for at, (title, weight, says) in enumerate(rows)),
    )


GALLERY: tuple[tuple[str, Rubric], ...] = (
    (
        "A text",
        _rubric(
            (
                "What it says",
                3,
                ("Off the question", "Begins to answer", "Answers, with reasons", "Answers fully, weighs reasons"),
            ),
            (
                "How it is built",
                2,
                ("No order to be seen", "An order in parts", "A clear order", "Each part leads to the next"),
            ),
            (
                "Words and spelling",
                1,
                ("Hard to follow", "Slips get in the way", "A few slips", "Exact and free of slips"),
            ),
        ),
    ),
    (
        "An experiment",
        _rubric(
            (
                "Plan",
                1,
                ("No plan", "Says what, not how", "Others could repeat it", "Says what is kept the same, and why"),
            ),
            (
                "What was measured",
                2,
                (
                    "Nothing written down",
                    "Some values, no units",
                    "Values with units",
                    "Repeated, in a table with units",
                ),
            ),
            (
                "What follows from it",
                2,
                ("Nothing", "A claim", "A claim from the values", "A claim, its limits, the next step"),
            ),
        ),
    ),
    (
        "Something made",
        _rubric(
            ("It does what was wanted", 2, ("Not yet", "In part", "Yes", "Yes, and was tried with others")),
            ("How it is made", 2, ("Comes apart", "Holds for now", "Well made", "Well made, down to what is hidden")),
            (
                "What was learned on the way",
                1,
                ("Not told", "Told", "Told with an example", "Says what would be done otherwise"),
            ),
        ),
    ),
    (
        "A talk",
        _rubric(
            (
                "What it says",
                2,
                ("Hard to find", "Some of it", "The main things", "The main things, and why they matter"),
            ),
            (
                "How it is told",
                2,
                ("Read out", "Read with looks up", "Told freely", "Told freely, and answers questions"),
            ),
            ("What is shown", 1, ("Nothing", "Shown, not used", "Helps to follow", "Says what words cannot")),
        ),
    ),
)
