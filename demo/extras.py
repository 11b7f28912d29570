"""What makes the demo look lived in: covers, loose pages, files with pockets, a list that waits."""

from __future__ import annotations

import random
from datetime import datetime, timedelta

from django.core.files.base import ContentFile

from coatpeg.handins import templates
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Person, RosterDrop, TeachingGroup
from coatpeg.portfolios import own
from demo.building import Kept
from demo.drawing import drawn

TITLES = ("My term in the garden", "Plot to plate", "Dig, sow, cook", "What grew and what did not", "Bed 4")
PAGES = (
    (
        "Ideas for the lunch",
        "Chard rolls with potatoes.\n\nAsk the kitchen for a bigger pan.\nWrite the list two days before.",
    ),
    ("Things I want to try", "Carrots in the tunnel in winter.\nA frame of old windows."),
)
FRAME = """RECIPE CARD

Name of the dish:
For 4 people:
What you need (g, ml):

What you do:
1.
2.
3.

Where I found it:
"""


def given(teacher: Person, group_id: int, pockets: dict[str, Pocket], at: datetime) -> None:
    """A picture beside the directions of the soil test, a frame to begin the recipe card from."""
    picture = ContentFile(drawn("soil", "a jar with the ruler beside it"))
    templates.add_file(teacher, group_id, pockets["Soil test"].pk, picture, "jar and ruler.jpg", "directions", at)
    frame = ContentFile(FRAME.encode())
    templates.add_file(teacher, group_id, pockets["Recipe card"].pk, frame, "recipe frame.txt", "starter", at)


def made_ones_own(students: list[Kept], at: datetime) -> None:
    """Covers for every fourth student, loose pages for the first two."""
    dealer = random.Random("covers")
    for place, one in enumerate(students):
        if place % 4 == 0 and one.enrolment.last is None:
            title = TITLES[place // 4 % len(TITLES)]
            own.set_cover(one.person, one.portfolio.pk, title, dealer.randrange(8), None, at)
    for one in students[:2]:
        for minutes, (title, text) in enumerate(PAGES):
            page = own.add_page(one.person, one.portfolio.pk, title, at + timedelta(minutes=minutes))
            own.write_page(one.person, page.pk, title, text, 0, at + timedelta(minutes=minutes + 10))


def waiting_list(group: TeachingGroup, students: list[Kept], now: datetime) -> None:
    """A list from the school's system that waits for somebody to look at it: everybody as they are, and one more."""
    rows = [
        [one.person.family_name, one.person.given_name, one.person.email or "", one.person.number or ""]
        for one in students
        if one.enrolment.last is None
    ]
    rows.append(["Haugen", "Mina", "mina.haugen@larkfield.example", "20399"])
    RosterDrop.objects.create(
        group=group,
        name="8 Plot Growing Cooking.csv",
        sha256="0" * 64,
        at=now - timedelta(hours=2),
        table={
            "heading": ["Family name", "Given name", "E-mail", "Student number"],
            "rows": rows,
            "columns": ["family", "given", "email", "number"],
        },
    )
