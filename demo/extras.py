"""What makes the demo look lived in: covers, loose pages, files with pockets, a list that waits."""

from __future__ import annotations

import random
from datetime import datetime, timedelta

from django.core.files.base import ContentFile

from coatpeg.files import keeping as files_of
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Person, RosterDrop, TeachingGroup
from coatpeg.portfolios.evidence import arrangement, commands, text_artefacts
from coatpeg.portfolios.evidence import spoken as saying
from coatpeg.portfolios.looking import comments, looks
from coatpeg.portfolios.models import Artefact
from coatpeg.portfolios.own import cover, pages, show
from coatpeg.portfolios.texts import saving
from coatpeg.setup.template import changing
from demo.building import Kept
from demo.drawing import drawn
from demo.media import report, spoken, table

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
    changing.add_file(teacher, group_id, pockets["Soil test"].pk, picture, "jar and ruler.jpg", "directions", at)
    frame = ContentFile(FRAME.encode())
    changing.add_file(teacher, group_id, pockets["Recipe card"].pk, frame, "recipe frame.txt", "starter", at)


def made_ones_own(students: list[Kept], at: datetime) -> None:
    """Covers for every fourth student, loose pages for the first two."""
    dealer = random.Random("covers")
    for place, one in enumerate(students):
        if place % 4 == 0 and one.enrolment.last is None:
            title = TITLES[place // 4 % len(TITLES)]
            cover.set_cover(one.person, one.portfolio.pk, title, dealer.randrange(8), None, at)
    for one in students[:2]:
        for minutes, (title, text) in enumerate(PAGES):
            page = pages.add_page(one.person, one.portfolio.pk, title, at + timedelta(minutes=minutes))
            pages.write_page(one.person, page.pk, title, text, 0, at + timedelta(minutes=minutes + 10))


def every_kind(students: list[Kept], pockets: dict[str, Pocket], at: datetime) -> None:
    """In the pocket of the harvest, what is no photo: a report, a table, a recording, a text.

    Some said instead of written.
    """
    harvest, menu = pockets["Q3 · What is a good harvest?"], pockets["Menu"]
    paragraphs = [
        "We dug at three places and let the soil stand in a jar of water for two days.",
        "Bed 2 has the most sand. The water runs through it in four minutes.",
        "Bed 5 holds the water longest, so the celery goes there.",
    ]
    files = (
        ("soil report.pdf", report("What our soil is made of", paragraphs)),
        ("harvest so far.xlsx", table("Harvest", [["Crop", "Bed", "Grams"], ["Beans", 2, 640], ["Chard", 4, 1250]])),
        ("what I learned.wav", spoken()),
    )
    for place, one in enumerate(_still_there(students)[:12]):
        person, portfolio = one.person, one.portfolio.pk
        when = at + timedelta(minutes=7 * place)
        if place % 3 == 0:
            made = text_artefacts.add_text(person, portfolio, harvest.pk, "What I think", when)
            assert made.artefact_id is not None
            draft = saving.Draft("", 0, THOUGHTS)
            text_artefacts.write(person, made.artefact_id, draft, when + timedelta(minutes=4))
        else:
            name, data = files[place % 3]
            evidence, _ = commands.add_file(person, portfolio, harvest.pk, ContentFile(data), name, when)
            if place % 2:
                kept = files_of.keep(ContentFile(spoken(1.5)), "said.wav")
                saying.say(person, evidence.pk, kept, "said.wav", when + timedelta(minutes=5))
        if place < 3:
            artefact = Artefact.objects.filter(
                portfolio=one.portfolio, kind="picture", evidence__removed_at=None
            ).first()
            if artefact is not None:
                arrangement.put_again(person, portfolio, menu.pk, artefact.pk, when)


def _still_there(students: list[Kept]) -> list[Kept]:
    return [one for one in students if one.enrolment.last is None]


THOUGHTS = (
    "<h2>A good harvest</h2><p>It is not the <strong>most</strong>. It is what we can eat before it goes bad:</p>"
    "<ul><li><p>beans every second day</p></li><li><p>chard once a week</p></li></ul>"
    '<p>We need <span data-tex="\\frac{56}{4} \\cdot 120\\,g = 1680\\,g"></span> of beans for one lunch.</p>'
)


def looked_in(teacher: Person, students: list[Kept], at: datetime) -> None:
    """The teacher has looked into some portfolios and said something; some show pages are open, one waits."""
    for place, one in enumerate(_still_there(students)[:8]):
        looks.look(teacher, one.portfolio, at)
        lying = list(one.portfolio.evidence.filter(removed_at=None, artefact__isnull=False).order_by("pk")[:4])
        if lying and place % 2 == 0:
            comments.leave(teacher, one.portfolio.pk, SAID[place // 2 % len(SAID)], at, evidence=lying[-1].pk)
        if len(lying) > 1 and place < 5:
            chosen = [
                show.Choice(each.pk, CAPTIONS[spot % len(CAPTIONS)], spot == 0) for spot, each in enumerate(lying)
            ]
            page = show.arrange(one.person, one.portfolio.pk, "What I am proud of", chosen, 0, at)
            if place:
                show.set_opened(teacher, one.portfolio.pk, page.version, at + timedelta(hours=1), opened=True)


SAID = (
    "The drawing says more than the words. Can you name the layers in it?",
    "Good find. Say in one sentence why you trust this page.",
    "You measured twice: that is how it is done.",
)
CAPTIONS = ("My first try", "Here you see the roots.", "This one took three lessons.", "Measured twice.")


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
