"""What the demo's students and teachers write."""

from __future__ import annotations

import random

OPENINGS = {
    "about": (
        "I like being outside more than in a classroom.",
        "At home we grow herbs on the window sill.",
        "I have never grown anything before this term.",
        "My grandfather has a plot and I help him on Sundays.",
    ),
    "soil": (
        "Our soil has more sand than I expected.",
        "The jar settled overnight and the clay was on top.",
        "The pH was close to seven, so most crops will be fine.",
        "We took the sample next to the path, which was a mistake.",
    ),
    "seed": (
        "The trays in the dark came up as fast as the ones in the light.",
        "A seed does not need soil at first, only water and warmth.",
        "Two rows stayed empty because we planted too deep.",
        "The seeds in the cold frame took four days longer.",
    ),
    "log": (
        "We weighed everything before washing it.",
        "Bed four gave the most in the second week.",
        "I forgot to write down one harvest and had to ask Bed three.",
        "The beans stopped after the first frost.",
    ),
    "water": (
        "Most of the water runs off to the side where the path is.",
        "The mulch kept the bed wet two days longer.",
        "I measured the rain with a bottle that we cut open.",
        "Clay holds the water and sand lets it go.",
    ),
    "recipe": (
        "I cut the recipe down from six people to four, so every amount was times two thirds.",
        "The beans were ours but the squash was bought because ours split in the frost.",
        "I doubled the amounts and the pot was too small.",
        "One portion costs less than at the canteen.",
    ),
    "find": ("This page shows how deep to plant.", "Good pictures of pests here.", "It has a table of harvest dates."),
    "plan": (
        "I want to work with people or animals.",
        "I am not sure yet, and that is fine.",
        "I want to build things.",
    ),
}
REASONS = (
    "You can see it in the picture on the left side.",
    "I think it is because the bed lies in the shade after lunch.",
    "The numbers in my log show the same.",
    "Next time I would measure twice.",
    "My partner found something different, so we checked again.",
    "This surprised me.",
)
ENDINGS = (
    "Next I want to find out if it changes with the weather.",
    "I would do it the same way again.",
    "That is why I chose this one.",
    "I am proud of how it turned out.",
)
PRAISE = (
    "Clear and well seen.",
    "Good careful work.",
    "You noticed what others missed.",
    "A neat result, well explained.",
)
NEXT = (
    "Say next time how you measured.",
    "Compare it with your log.",
    "Add the unit to each number.",
    "Show the costing of one portion.",
)
AGAIN = (
    "The picture is good, but the reflection does not say why yet. Add one sentence on the cause.",
    "Check the sum in the last line, then hand in again.",
    "I cannot read the right half of the card. Take the photo again in better light.",
)


def reflection(kind: str, dealer: random.Random, sentences: int = 3) -> str:
    """Two or three sentences a student might write."""
    parts = [dealer.choice(OPENINGS[kind]), dealer.choice(REASONS), dealer.choice(ENDINGS)]
    return " ".join(parts[:sentences])


TO_THE_CLASS = (
    "Many of you heard this from me:\n"
    "• Write down where you took the soil, and how deep.\n"
    "• Shake the jar once more and wait a whole night before you measure."
)


def feedback(dealer: random.Random) -> str:
    """What a teacher writes with an accepted submission."""
    return f"{dealer.choice(PRAISE)} {dealer.choice(NEXT)}"


def sent_back(dealer: random.Random) -> str:
    """What a teacher writes when sending back."""
    return dealer.choice(AGAIN)
