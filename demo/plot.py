"""The main class, *8 Plot · Growing & Cooking*: 56 students, fourteen weeks, every status."""

from __future__ import annotations

import random
from dataclasses import dataclass
from datetime import UTC, datetime, time, timedelta
from decimal import Decimal
from zoneinfo import ZoneInfo

from django.core.files.base import ContentFile

from coatpeg.core.handins.asking import Due
from coatpeg.core.marking.rubrics import rubric_from_data
from coatpeg.handins.asked import files
from coatpeg.handins.asked.setting import Plan, set_handin
from coatpeg.handins.filters.keeping import keep
from coatpeg.handins.handing import commands as handing
from coatpeg.handins.models import HandIn, Outcome
from coatpeg.marking import commands as marking
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Period, Person
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.logs import rows as logs
from demo import words
from demo.building import Days, Kept, sentences
from demo.drawing import drawn
from demo.judging import RECIPE, judged

ZONE = "Europe/London"

BEDS = ("North bed", "South bed", "Wall bed", "Tunnel")
PICKED = ("Carrots", "Beans", "Chard", "Beetroot", "Onions", "Courgettes")
CROPS: list[dict[str, object]] = [
    {"key": "day", "title": "Date", "type": "date", "required": True},
    {"key": "bed", "title": "Bed", "type": "choice", "required": True, "choices": list(BEDS)},
    {"key": "crop", "title": "Crop", "type": "choice", "required": True, "choices": list(PICKED)},
    {"key": "grams", "title": "Harvest", "type": "number", "required": True, "unit": "g"},
    {"key": "picture", "title": "Picture", "type": "artefact"},
]

BEDS_TO_WATCH: dict[str, object] = {
    "by": "random",
    "seed": 8,
    "versions": [
        {
            "key": key,
            "name": name,
            "directions": f"<p>Show where the water goes in the <strong>{name.lower()}</strong> after rain.</p>",
            "starter": "",
            "first": "",
            "last": "",
            "places": [],
        }
        for key, name in (("north", "North bed"), ("south", "South bed"), ("wall", "Wall bed"))
    ],
}

SECTIONS: dict[str, list[dict[str, object]]] = {
    "Start": [
        {
            "title": "About me",
            "kind": "page",
            "directions": "Tell us who you are and what you would like to grow or cook.",
            "prompt": "What should we know about you?",
            "starter": "I am … and I would like to grow …",
            **sentences(2, 8),
        }
    ],
    "The plot": [
        {
            "title": "Soil test",
            "kind": "evidence",
            "directions": "Photograph your jar when the soil has settled, with the ruler beside it.",
            "prompt": "What does the test tell you about your bed?",
            "artefacts": 1,
            "reflection_on_each": True,
            **sentences(2, 5),
        },
        {
            "title": "Q1 · What does a seed need?",
            "kind": "evidence",
            "directions": "Show what came up and what did not.",
            "prompt": "What does this show about what a seed needs?",
            "artefacts": 1,
            "reflection_on_each": True,
            **sentences(2, 5),
        },
        {
            "title": "Crop log",
            "kind": "log",
            "directions": "Weigh everything your bed gives, the day it is picked.",
            "rows": 6,
            "log": {"columns": CROPS, "target": {"column": "grams", "amount": "2500", "each_week": False}},
        },
        {
            "title": "Q2 · Where does the water go?",
            "kind": "evidence",
            "directions": "Show where the water goes in your bed after rain.",
            "variants": BEDS_TO_WATCH,
            "prompt": "How do you know?",
            "artefacts": 1,
            "reflection_on_each": True,
            **sentences(2, 5),
        },
    ],
    "The kitchen": [
        {
            "title": "Recipe card",
            "kind": "evidence",
            "directions": "Scale a recipe for 4 people with a crop of ours. Show the card and where you found it.",
            "prompt": "What does this show you can do?",
            "artefacts": 2,
            "reflection_on_each": True,
            **sentences(2, 3),
        },
        {
            "title": "Q3 · What is a good harvest?",
            "kind": "evidence",
            "directions": "Choose the evidence from your log that answers the question best.",
            "prompt": "What makes a harvest good?",
            "spoken": True,
            "artefacts": 2,
            "reflection_on_each": True,
            **sentences(3, 6),
        },
        {
            "title": "Menu",
            "kind": "evidence",
            "directions": "Your group's menu for the harvest lunch.",
            "prompt": "What was your part in it?",
            "artefacts": 1,
            "reflection_on_each": True,
            **sentences(2, 4),
        },
    ],
    "Along the way": [
        {
            "title": "Useful finds",
            "kind": "links",
            "directions": "Three pages that helped you, with a title of your own.",
            "prompt": "How did it help?",
            "artefacts": 3,
        }
    ],
}


@dataclass(frozen=True)
class Stop:
    """A hand-in of the demo: when it is due (week, weekday), and what students put in."""

    title: str
    pockets: tuple[str, ...]
    week: int
    weekday: int
    words: str
    picture: str = ""
    artefacts: int = 1
    points: int = 10
    opens_before: int = 14


STOPS = (
    Stop("About me", ("About me",), 2, 4, "about", points=5),
    Stop("Soil test", ("Soil test",), 3, 4, "soil", "soil"),
    Stop("Q1 seeds", ("Q1 · What does a seed need?",), 4, 4, "seed", "seed"),
    Stop("Crop log", ("Crop log",), 6, 4, "log", "log", points=20),
    Stop("Q2 water", ("Q2 · Where does the water go?",), 7, 4, "water", "soil"),
    Stop("Recipe card", ("Recipe card",), 9, 4, "recipe", "recipe", artefacts=2, points=30),
    Stop("Q3 harvest", ("Q3 · What is a good harvest?",), 11, 4, "log", "log", points=20, opens_before=11),
    Stop("Menu", ("Menu",), 12, 3, "recipe", "recipe", opens_before=10),
)
WHOLE = "Whole portfolio"
WORKS = "<p>A card works when a classmate can cook from it without asking you. This one of last year does.</p>"


def plan_handins(
    teacher: Person, group_id: int, days: Days, pockets: dict[str, Pocket], periods: list[Period], at: datetime
) -> list[HandIn]:
    """Set all hand-ins of the term; the recipe card is due a day earlier for the first period."""
    made = []
    card = files.add(teacher, group_id, ContentFile(drawn("recipe", "a card that works")), "a card that works.jpg", at)
    for stop in STOPS:
        due = days.of(stop.week, stop.weekday)
        plan = Plan(
            title=stop.title,
            pockets=tuple(pockets[title].pk for title in stop.pockets),
            opens=due - timedelta(days=stop.opens_before),
            due=Due(due, time(16) if stop.title == "Soil test" else None),
            period_dues={periods[0].pk: Due(due - timedelta(days=1))} if stop.title == "Recipe card" else {},
            points=Decimal(stop.points),
            rubric=RECIPE if stop.title == "Recipe card" else None,
            again=stop.title == "Q3 harvest",
            directions=WORKS if stop.title == "Recipe card" else "",
            files=(card.pk,) if stop.title == "Recipe card" else (),
        )
        made.append(set_handin(teacher, group_id, plan, at))
    whole = Plan(
        WHOLE,
        tuple(pocket.pk for pocket in pockets.values()),
        days.of(14, 0),
        Due(days.of(14, 4)),
        points=Decimal(100),
        follows=True,
    )
    tasting = Plan("Taste test", (pockets["Menu"].pk,), days.of(12, 4), Due(days.of(13, 4)), draft=True)
    set_handin(teacher, group_id, tasting, at)
    keep(teacher, group_id, "P3 owing this week", "show=not_in&period=P3&week=1", shared=True)
    keep(teacher, group_id, "Quiet, kitchen", "section=The+kitchen&quiet=7", shared=False)
    return [*made, set_handin(teacher, group_id, whole, at)]


class Student:
    """Acts for one student of the demo, by a seed of their own: what they do, when, how well."""

    def __init__(self, kept: Kept, place: int, days: Days, teacher: Person) -> None:
        self.kept = kept
        self.place = place
        self.days = days
        self.teacher = teacher
        self.dealer = random.Random(f"larkfield {place}")

    def moment(self, week: int, weekday: int, hour: int | None = None) -> datetime:
        """A moment of the school's day, in UTC."""
        at = time(hour if hour is not None else self.dealer.randrange(8, 20), self.dealer.randrange(60))
        return datetime.combine(self.days.of(week, weekday), at, tzinfo=ZoneInfo(ZONE)).astimezone(UTC)

    def fill(self, stop: Stop, pockets: dict[str, Pocket], at: datetime, *, half: bool = False) -> None:
        """Put work for a hand-in into its pockets; ``half`` leaves something wanted."""
        person, portfolio = self.kept.person, self.kept.portfolio.pk
        for title in stop.pockets:
            pocket = pockets[title]
            text = words.reflection(stop.words, self.dealer, 1 if half else 3)
            if pocket.kind == "page":
                commands.write_page(person, portfolio, pocket.pk, text, 0, at)
                continue
            if pocket.kind == "log":
                self.log(pocket, at, 3 if half else 6)
                continue
            picture = ContentFile(drawn(stop.picture, f"{stop.title} {self.place}"))
            name = f"{stop.title.lower().replace(' ', '-')} {self.kept.person.given_name.split()[0]}.jpg"
            evidence, _ = commands.add_file(person, portfolio, pocket.pk, picture, name, at)
            commands.write_reflection(person, evidence.pk, text, 0, at + timedelta(minutes=6))
            if stop.artefacts > 1 and not half:
                link = f"https://recipes.larkfield.example/{self.dealer.randrange(100, 999)}"
                second = commands.add_link(person, portfolio, pocket.pk, link, "Where I found it", at)
                more = words.reflection(stop.words, self.dealer, 2)
                commands.write_reflection(person, second.pk, more, 0, at + timedelta(minutes=9))

    def log(self, pocket: Pocket, at: datetime, rows: int) -> None:
        """Write down harvests of the days before, the last one with a picture of the log sheet."""
        person, portfolio = self.kept.person, self.kept.portfolio.pk
        bed = self.dealer.choice(BEDS)
        for place in range(rows):
            day = at.date() - timedelta(days=4 * (rows - place))
            values: dict[str, object] = {"day": day.isoformat(), "bed": bed, "crop": self.dealer.choice(PICKED)}
            values["grams"] = str(self.dealer.randrange(60, 640, 5))
            if place == rows - 1:
                picture = ContentFile(drawn("log", f"Crop log {self.place}"))
                values["picture"] = logs.keep_row_file(person, portfolio, pocket.pk, picture, "log sheet.jpg", at)[0].pk
            logs.add_row(person, portfolio, pocket.pk, values, at + timedelta(minutes=place))

    def hand_in(self, handin: HandIn, at: datetime, seen: int = 0) -> int:
        """Hand in; returns the submission's id."""
        own = random.Random(f"own eye {self.place} {seen}")
        rubric = rubric_from_data(handin.rubric)
        # Most say how far it is, by their own eye.
        said = judged(rubric, own.uniform(0.5, 1.0), own) if rubric and own.random() < 0.8 else {}
        return handing.hand_in(self.kept.person, self.kept.portfolio.pk, handin.pk, seen, at, judged=said).pk

    def mark(self, submission: int, handin: HandIn, at: datetime, *, accept: bool) -> None:
        """The teacher marks it."""
        points = int(handin.points or 0)
        share = self.dealer.uniform(0.55, 1.0) if accept else self.dealer.uniform(0.3, 0.6)
        text = words.feedback(self.dealer) if accept else words.sent_back(self.dealer)
        rubric = rubric_from_data(handin.rubric)
        given = (None, judged(rubric, share, self.dealer)) if rubric else (Decimal(round(points * share)), {})
        marking.review(
            self.teacher,
            submission,
            Outcome.Kind.ACCEPTED if accept else Outcome.Kind.SENT_BACK,
            marking.Verdict(text, *given),
            0,
            at,
        )
