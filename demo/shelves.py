"""What lies in the cupboards, what students have taken from them, and what was given out to them."""

from __future__ import annotations

from datetime import date, datetime, timedelta

from django.core.files.base import ContentFile

from coatpeg.core.cupboard.items import ItemKind
from coatpeg.core.outlines.versions import DealtBy, VariantPlan, Version
from coatpeg.cupboard import giving, keeping, lending, reading, taking
from coatpeg.cupboard.models import CupboardItem
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Period, Person, WorkingGroup
from coatpeg.portfolios.evidence import text_artefacts
from coatpeg.portfolios.models import Evidence, WrittenText
from coatpeg.portfolios.texts import saving
from coatpeg.setup.template import layouts
from demo.building import Kept
from demo.drawing import drawn
from demo.media import report

CHECK = """<h3>Before you start</h3><p>Write one sentence to each.</p><ol><li>I wash my hands …</li>\
<li>A knife is carried …</li><li>Something hot on the floor …</li></ol>"""
ANSWERS = (
    "<h3>Before you start</h3><ol><li>I wash my hands before I touch food, and after the bin.</li>"
    "<li>A knife is carried point down, next to my leg.</li></ol>",
    "<h3>Before you start</h3><ol><li>I wash my hands when I come in from the garden.</li></ol>",
)
SCALE = """<p>Divide by the people the recipe is for, then multiply by yours.</p><table><tbody><tr><th>For 6</th>\
<th>For 1</th><th>For 4</th></tr><tr><td>750 g potatoes</td><td>125 g</td><td>500 g</td></tr><tr><td>3 onions</td>\
<td>½</td><td>2</td></tr></tbody></table><p>Eggs are whole: round, and say so.</p>"""
GARDEN = """<p><strong>Bolt</strong>: to flower too early. <strong>Mulch</strong>: what covers the soil.\
</p><p><strong>Thin</strong>: to take out every second plant, so that the others grow.</p>"""
TASTES = {
    "sweet": "<h3>What is sweet in it?</h3><p>Name three things, and what they sweeten.</p>",
    "sour": "<h3>What is sour in it?</h3><p>Name three things, and what would be dull without them.</p>",
}
CUES = """<p>Say the number, wait for the sign, press once. Never press for a sign that you did not see.</p>"""
ROOTS = [
    "Roots drink where the soil is fine and never where it is stone.",
    "Water a seedling from below, twice a week.",
]


def plot(
    teacher: Person, group_id: int, students: list[Kept], pockets: dict[str, Pocket], opens: date, now: datetime
) -> None:
    """The main class: sheets by week, one for staff only, one that opens next week, one given out to a period."""
    at = now - timedelta(days=20)
    words = _page(teacher, group_id, "Words of the garden", "All term", GARDEN, at)
    _file(teacher, group_id, "jar, ruler and beds.jpg", drawn("soil", "three jars on a sill"), "All term", at)
    keeping.put_in(
        teacher,
        group_id,
        ItemKind.LINK,
        keeping.ItemPlan("Market prices today", "All term", link="https://prices.example.org/veg"),
        at,
    )
    _file(teacher, group_id, "where roots drink.pdf", report("Where roots drink", ROOTS), "Week 7 · Water", at)
    scale = _page(teacher, group_id, "How to scale a recipe", "Week 9 · Recipes", SCALE, now - timedelta(days=5))
    check = keeping.put_in(
        teacher,
        group_id,
        ItemKind.PAGE,
        keeping.ItemPlan("Kitchen safety check", "Week 9 · Recipes", html=CHECK, staff_only=True),
        now - timedelta(days=4),
    )
    _page(teacher, group_id, "A menu that goes together", "Week 10 · Menu", SCALE, now - timedelta(days=1), opens)
    here = [one for one in students if one.enrolment.last is None]
    for place, one in enumerate(here):
        for item in (words, scale)[: place % 3]:
            reading.mark_read(one.person, item.pk, now - timedelta(days=3, minutes=place))
    harvest = pockets["Q3 · What is a good harvest?"]
    for one in here[4:24:5]:
        taking.take(one.person, one.portfolio.pk, harvest.pk, scale.pk, now - timedelta(days=2))
    layouts.put_in(teacher, group_id, pockets["Crop log"].pk, at, columns=True)
    layouts.put_in(teacher, group_id, pockets["Recipe card"].pk, at, columns=False)
    _dealt(teacher, group_id, pockets["Menu"], now)
    period = Period.objects.get(group_id=group_id, name="P3")
    audience = giving.Audience(periods=(period.pk,))
    sheet = giving.Giving(check.pk, pockets["Menu"].pk, audience)
    given = giving.give(teacher, sheet, "kitchen-safety", now - timedelta(days=1))
    for place, copy in enumerate(given.copies.select_related("portfolio__enrolment__person").order_by("pk")):
        if place % 4 == 3:
            continue
        person, when = copy.portfolio.enrolment.person, now - timedelta(hours=20, minutes=place)
        taking.open_pocket(person, copy.portfolio_id, copy.pocket_id, when)
        if place % 4 < len(ANSWERS):
            artefact = Evidence.objects.values_list("artefact_id", flat=True).get(pk=copy.evidence_id)
            assert artefact is not None
            version = WrittenText.objects.get(artefact_id=artefact).version
            text_artefacts.write(person, artefact, saving.Draft("", version, ANSWERS[place % 4]), when)


def _dealt(teacher: Person, group_id: int, menu: Pocket, now: datetime) -> None:
    """Two cards, one for each, dealt by surname to period 4."""
    at, under = now - timedelta(days=3), "Week 10 · Menu"
    cards = [_page(teacher, group_id, f"Taste card: {name}", under, html, at) for name, html in TASTES.items()]
    ranges = [("A", "M"), ("N", "Z")]
    plan = VariantPlan(
        DealtBy.SURNAME,
        tuple(
            Version(str(one.pk), "", first=first, last=last) for one, (first, last) in zip(cards, ranges, strict=True)
        ),
    )
    period = Period.objects.get(group_id=group_id, name="P4")
    what = giving.Giving(cards[0].pk, menu.pk, giving.Audience(periods=(period.pk,)), plan)
    giving.give(teacher, what, "taste-cards", now - timedelta(hours=30))


def crew(teacher: Person, group_id: int, at: datetime) -> None:
    """The stage crew's: two sheets for all, one for the sound group, one that is lent from the garden class."""
    _page(teacher, group_id, "Before the curtain", "Every show", "<p>Check: lamps, ropes, floor, exits.</p>", at)
    _file(teacher, group_id, "knots we use.pdf", report("Knots we use", ["Clove hitch, bowline."]), "Every show", at)
    sound = WorkingGroup.objects.get(group_id=group_id, name="Sound")
    plan = keeping.ItemPlan("How to cue a sound", "Every show", html=CUES, groups=(sound.pk,))
    keeping.put_in(teacher, group_id, ItemKind.PAGE, plan, at)
    lent = CupboardItem.objects.filter(title="Words of the garden").exclude(group=group_id).first()
    if lent is not None:
        lending.lend(teacher, lent.pk, [group_id], at)


def _page(
    teacher: Person, group_id: int, title: str, heading: str, html: str, at: datetime, opens: date | None = None
) -> CupboardItem:
    return keeping.put_in(
        teacher, group_id, ItemKind.PAGE, keeping.ItemPlan(title, heading, html=html, opens=opens), at
    )


def _file(teacher: Person, group_id: int, name: str, content: bytes, heading: str, at: datetime) -> None:
    made = keeping.put_file_in(teacher, group_id, ContentFile(content), name, at, heading=heading)
    keeping.change(teacher, made.pk, made.version, keeping.ItemPlan(name, heading), at)
