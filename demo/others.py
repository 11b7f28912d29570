"""The other groups: Stage crew, the learning-support caseload, Leavers 2030."""

from __future__ import annotations

import random
from dataclasses import replace
from datetime import UTC, datetime, time, timedelta
from decimal import Decimal

from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.series import Repeat
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.repeat import Question, Unit
from coatpeg.handins.asked import series
from coatpeg.handins.asked.setting import Plan, set_handin
from coatpeg.handins.handing import commands as handing
from coatpeg.people.models import Adjustment, Person, TeachingGroup, WorkingGroup
from coatpeg.portfolios.evidence import commands
from coatpeg.setup.template import changing
from coatpeg.setup.template import units as repeats
from demo import building, together, words
from demo.building import Days, Kept, sentences


def crew(
    group: TeachingGroup, teacher: Person, students: list[Kept], days: Days, start: datetime, now: datetime
) -> None:
    """Nine students in threes: two hand-ins, one of them for a group, a log that is handed in every Friday, pages that
    they fill together, and a section for each group's scene.
    """
    pockets = building.template(
        group,
        "Stage crew",
        {
            "The show": [
                {
                    "title": "Set model",
                    "kind": "evidence",
                    "directions": "Photograph your model from the stalls.",
                    "prompt": "Why does it work on our stage?",
                    "artefacts": 1,
                    "reflection_on_each": True,
                    **sentences(2, None),
                },
                {
                    "title": "Prompt book",
                    "kind": "page",
                    "directions": "Cues of your scene, in order.",
                    "prompt": "Which cue was hardest?",
                },
                {
                    "title": "What could go wrong?",
                    "kind": "page",
                    "directions": "Write one thing that could go wrong, and how the audience would notice. "
                    "Build on what others wrote.",
                    "shared": "class",
                    "own_part": True,
                    **sentences(2, None),
                },
                {
                    "title": "Cue script",
                    "kind": "page",
                    "directions": "Every cue of your scene: what the sign is, who gives it.",
                    "shared": "group",
                },
                {
                    "title": "Backstage log",
                    "kind": "log",
                    "directions": "A line for each rehearsal: what you did, how long.",
                    "rows": 4,
                    "log": {"columns": REHEARSALS},
                },
            ],
            "Our scene": [
                {
                    "title": "Research",
                    "kind": "evidence",
                    "directions": "What you found out for your scene: pictures, sounds, a passage you wrote together. "
                    "The others of your group read it.",
                    "prompt": "What can your group take from it?",
                    "artefacts": 1,
                    "reflection_on_each": True,
                    "shared": "group",
                    "own_part": True,
                    **sentences(1, None),
                },
                {
                    "title": "Props and costs",
                    "kind": "log",
                    "directions": "Every prop of your scene, who brings it, what it costs.",
                    "rows": 3,
                    "shared": "group",
                    "log": {"columns": PROPS},
                },
            ],
        },
    )
    _scenes(group, teacher, days, start)
    building.group_set(group, "Crews")
    for place, name in enumerate(("Lights", "Sound", "Set")):
        building.working_group(group, name, students[place * 3 : place * 3 + 3], days.monday)
    for title, week in (("Set model", 7), ("Prompt book", 10)):
        plan = Plan(title, (pockets[title].pk,), days.of(week - 2, 0), Due(days.of(week, 4)), points=Decimal(20))
        if title == "Set model":
            builds = frozenset(WorkingGroup.objects.filter(group=group, name="Set").values_list("pk", flat=True))
            plan = replace(plan, whom="groups", groups=builds)
        set_handin(teacher, group.pk, plan, start)
    log = Plan("Backstage log", (pockets["Backstage log"].pk,), days.of(8, 0), Due(days.of(9, 4)), since_last=True)
    series.set_series(teacher, group.pk, log, Repeat(1, days.of(13, 4)), start)
    acts = building.group_set(group, "Acts")
    acts.chosen_until, acts.most = days.of(16, 4), 3
    acts.save()
    for name, inside in (("Harvest act", students[1:3]), ("Storm act", students[5:6]), ("Feast act", [])):
        building.working_group(group, name, inside, days.today, acts)
    together.crew(teacher, pockets, students, now)
    script = Plan("Cue script", (pockets["Cue script"].pk,), days.of(8, 0), Due(days.of(10, 4)), points=Decimal(20))
    together.sound_hands_in(students, set_handin(teacher, group.pk, script, start), now)
    # One thing more than a week should hold: the rail and the caseload say so.
    props = Plan("Props and costs", (pockets["Props and costs"].pk,), days.of(9, 0), Due(days.of(10, 3)))
    set_handin(teacher, group.pk, props, start)


REHEARSALS = [
    {"key": "day", "title": "Day", "type": "date"},
    {"key": "did", "title": "What I did", "type": "text"},
    {"key": "minutes", "title": "Minutes", "type": "number"},
]

PROPS = [
    {"key": "prop", "title": "Prop", "type": "text", "required": True},
    {"key": "from", "title": "Where from", "type": "text"},
    {"key": "pence", "title": "Cost", "type": "number", "unit": "p"},
]

SCENES = {
    "The harbour": ("What does the audience see first?", "Where does the light come from?"),
    "The storm": ("What do we hear before we see it?", "Who moves what, and when?", "What can go wrong?"),
    "The kitchen": ("Which props are real?",),
}


def _scenes(group: TeachingGroup, teacher: Person, days: Days, start: datetime) -> None:
    """A section that repeats for each scene, with questions of its own."""
    section = changing.add_section(teacher, group.pk, "Scene", start, repeats=True)
    for plan in (
        PocketPlan(
            "Question",
            PocketKind.EVIDENCE,
            prompt="{unit}: why did you solve it like that?",
            artefacts=1,
            reflection_on_each=True,
            each_question=True,
        ),
        PocketPlan("Cue sheet of {unit}", PocketKind.PAGE, "Every cue of the scene, in order."),
    ):
        changing.add_pocket(teacher, group.pk, section, plan, start)
    units = [
        Unit(
            f"scene-{place}",
            title,
            tuple(Question(f"scene-{place}-{at}", text) for at, text in enumerate(questions)),
            days.of(3 + 4 * place, 0),
        )
        for place, (title, questions) in enumerate(SCENES.items())
    ]
    repeats.set_units(teacher, group.pk, section, units, 1, start)


HOURS: list[dict[str, object]] = [
    {"key": "day", "title": "Date", "type": "date", "required": True},
    {"key": "what", "title": "What I did", "type": "text", "required": True},
    {"key": "hours", "title": "Hours", "type": "number", "required": True, "unit": "h"},
    {"key": "learnt", "title": "What I took from it", "type": "long_text", **sentences(1, 3)},
]


def leavers(
    group: TeachingGroup, counsellor: Person, students: list[Kept], days: Days, start: datetime, now: datetime
) -> None:
    """A year group followed to graduation: two pages each, a plan handed in every year."""
    pockets = building.template(
        group,
        "Leavers' plan",
        {
            "Where I am going": [
                {
                    "title": "My plan",
                    "kind": "page",
                    "directions": "What you would like to do after school, and what you need for it.",
                    "prompt": "What comes next?",
                    **sentences(2, 10),
                },
                {
                    "title": "Hours for others",
                    "kind": "log",
                    "directions": "Every time you help in school or outside of it. Forty hours until you leave.",
                    "rows": 4,
                    "log": {"columns": HOURS, "target": {"column": "hours", "amount": "40", "each_week": False}},
                },
                {
                    "title": "What I am good at",
                    "kind": "page",
                    "directions": "With an example.",
                    "prompt": "How do you know?",
                },
            ]
        },
    )
    plan = Plan("Plan for this year", (pockets["My plan"].pk,), days.of(5, 0), Due(days.of(10, 4)))
    handin = set_handin(counsellor, group.pk, plan, start)
    dealer = random.Random("leavers")
    for student in dealer.sample(students, 70):
        at = min(datetime.combine(days.of(8, dealer.randrange(5)), time(10), tzinfo=UTC), now - timedelta(hours=1))
        first = words.reflection("plan", dealer, 1)
        text = f"{first} {dealer.choice(words.ENDINGS)} This year I will ask for a placement."
        commands.write_page(student.person, student.portfolio.pk, pockets["My plan"].pk, text, 0, at)
        if dealer.random() < 0.7:
            handing.hand_in(student.person, student.portfolio.pk, handin.pk, 0, at + timedelta(minutes=30))


def caseload(group: TeachingGroup, students: list[Person], days: Days) -> None:
    """Fourteen students of several classes, with adjustments of every kind."""
    building.enrol(group, students, days.monday, seed=4)
    more: tuple[dict[str, object], ...] = (
        {},
        {"percent": 50},
        {"fewer_artefacts": 1},
        {"spoken": True},
        {"without": ["links"]},
    )
    Adjustment.objects.bulk_create(
        Adjustment(
            person=person,
            extra_days=2 + place % 3,
            first=days.monday,
            last=None if place % 2 else days.of(14, 4),
            reason="Agreed at the review meeting; kept with learning support.",
            **more[place % len(more)],
        )
        for place, person in enumerate(students[:9])
    )
