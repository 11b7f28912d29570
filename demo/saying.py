"""What is said on the work of the demo: pins, ink, marked words, a voice; and two who mark independently."""

from __future__ import annotations

import math
import random
from datetime import datetime, timedelta

from django.core.files.base import ContentFile

from coatpeg.core.marking.annotations import Kind, Part, Spot, Stroke, Target
from coatpeg.core.marking.quotes import Quote
from coatpeg.handins.models import HandIn, KeptFacts, Outcome, Submission
from coatpeg.marking import commands as marking
from coatpeg.marking.annotations import making
from coatpeg.marking.class_notes import noting as to_the_class
from coatpeg.marking.models import Annotation
from coatpeg.marking.staff_notes import noting
from coatpeg.marking.two import marks, ruling
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Portfolio
from demo import media, words
from demo.judging import RECIPE, judged

SEED = "larkfield said"
NOTED = "Soil test"


def said(team: dict[str, Person], group_id: int, now: datetime) -> None:
    """Say all of it, a little before ``now``."""
    dealer = random.Random(SEED)
    teacher, second = team["okafor"], team["marsh"]
    recipe = HandIn.objects.get(group_id=group_id, title="Recipe card")
    at = now - timedelta(hours=20)
    ruling.rule(teacher, group_id, recipe.pk, 0, at, two=True, blind=False)
    for place, one in enumerate(_waiting(recipe)):
        _independently(one, (teacher, second), place, dealer, at)
        if place < 4:
            _on_the_work(teacher, one, place, at)
    for one in _back(group_id)[:12]:
        _on_the_work(teacher, one, one.pk, at)
        making.show(teacher, one.pk, at)
    _answered(group_id, at + timedelta(hours=6))
    told = HandIn.objects.get(group_id=group_id, title=NOTED)
    to_the_class.note(teacher, group_id, told.pk, "weigh", words.TO_THE_CLASS, at + timedelta(hours=2))


def _waiting(handin: HandIn) -> list[Submission]:
    newest = KeptFacts.objects.filter(handin=handin, outcome=None, newest__isnull=False).values_list(
        "newest", flat=True
    )
    return list(Submission.objects.filter(pk__in=list(newest)).order_by("at", "pk").select_related("enrolment__person"))


def _back(group_id: int) -> list[Submission]:
    """What came back to the two demo students, and to some others lately."""
    standing = Outcome.objects.filter(submission__handin__group_id=group_id, submission__voided_at=None, voided_at=None)
    rows = standing.select_related("submission__enrolment__person").order_by("-at", "pk")
    first = [one.submission for one in rows if one.submission.enrolment.person.username in ("josh", "thandi")]
    return [*first[:6], *(one.submission for one in rows[:6] if one.submission not in first)]


def _independently(
    one: Submission, markers: tuple[Person, Person], place: int, dealer: random.Random, at: datetime
) -> None:
    """Both judge it, the second a little harder; some are not done by one of them yet."""
    share = dealer.uniform(0.4, 1.0)
    for marker, lean, skips in ((markers[0], 0.0, place % 5 == 4), (markers[1], -0.15, place % 3 == 2)):
        levels = judged(RECIPE, max(0.0, share + lean + dealer.uniform(-0.15, 0.15)), dealer)
        if not skips:
            verdict = marking.Verdict(words.feedback(dealer), None, levels)
            draft = marking.save_draft(marker, one.pk, verdict, 0, at)
            marks.set_done(marker, one.pk, draft.version, at, done=True)


def _on_the_work(teacher: Person, one: Submission, place: int, at: datetime) -> None:
    """A pin and a ring of ink on a picture, words that are marked, another wording, a voice on the whole."""
    for pocket in one.snapshot["pockets"]:
        for evidence in pocket["evidence"]:
            if evidence["artefact"] and evidence["artefact"]["kind"] == "picture":
                target = Target(pocket["id"], evidence["id"], Part.ARTEFACT)
                spot = Spot(4_200 + 400 * (place % 4), 3_600)
                on_it = Target(pocket["id"], evidence["id"], Part.ARTEFACT, spot=spot)
                _say(teacher, one, at, Kind.COMMENT, on_it, "How did you measure this? Write the numbers beside it.")
                ring = Stroke(("rust", "sea", "plum")[place % 3], 60, tuple(_ring(spot)))
                making.keep(teacher, one.pk, f"{one.pk}-ink", making.Saying(Kind.INK, target, strokes=(ring,)), 0, at)
            if sentences := [each for each in evidence["text"].split(". ") if len(each) > 12]:
                quote = Target(pocket["id"], evidence["id"], Part.TEXT, Quote(sentences[0].rstrip(".")))
                _say(teacher, one, at, Kind.HIGHLIGHT, quote, "Well observed.")
                last = Target(pocket["id"], evidence["id"], Part.TEXT, Quote(sentences[-1].rstrip(".")))
                if len(sentences) > 1:
                    _say(teacher, one, at, Kind.SUGGESTION, last, "", f"{sentences[-1].rstrip('.')}, because …")
        if pocket.get("log") and pocket["log"]["rows"]:
            row = pocket["log"]["rows"][0]["id"]
            _say(teacher, one, at, Kind.COMMENT, Target(pocket["id"], row=row), "Which unit is this?")
    sound = ContentFile(media.spoken(3.0), name="said.wav")
    making.speak(teacher, one.pk, f"{one.pk}-voice", Target(), sound, at)
    if place == 0:
        book = Portfolio.objects.get(enrolment=one.enrolment)
        noting.note(teacher, book.pk, "Ask how the week went.", one.pk, None, at)


def _say(
    teacher: Person, one: Submission, at: datetime, kind: Kind, target: Target, text: str, wording: str | None = None
) -> None:
    key = f"{one.pk}-{kind.value}-{target.evidence or target.row or 0}"
    making.keep(teacher, one.pk, key, making.Saying(kind, target, text, wording), 0, at)


def _ring(spot: Spot) -> list[int]:
    """A ring drawn by hand round a spot, a little pressed at the end."""
    points = []
    for step in range(48):
        turn = step / 44 * 2 * math.pi
        points += [round(spot.x + 900 * math.cos(turn)), round(spot.y + 700 * math.sin(turn) + 2 * step), 35 + step]
    return points


def _answered(group_id: int, at: datetime) -> None:
    """Some students have answered, and ticked off what they have mended."""
    rows = Annotation.objects.filter(making.SHOWN, submission__handin__group_id=group_id, kind=Kind.COMMENT, voice=None)
    for place, one in enumerate(rows.select_related("submission__enrolment__person").order_by("pk")[:6]):
        person = one.submission.enrolment.person
        if place % 2 == 0:
            making.answer(person, one.pk, "I used the kitchen scales. I have put the numbers in now.", at)
        if place % 3 == 0:
            making.tick(person, one.pk, at, done=True)
