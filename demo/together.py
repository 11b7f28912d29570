"""What the stage crew writes together: a page of the whole class, as a lesson had it, and a cue script by group."""

from __future__ import annotations

from base64 import b64decode, b64encode
from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Any

from django.core.files.base import ContentFile
from pycrdt import Doc, XmlElement, XmlFragment, XmlText

from coatpeg.handins.handing import commands, who_did_what
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Person
from coatpeg.portfolios.evidence import commands as putting
from coatpeg.portfolios.logs import rows
from coatpeg.sharing import exchanging, leading, own, quoting, settling
from coatpeg.sharing.models import SharedPage
from demo.building import Kept
from demo.drawing import drawn

WRONG: tuple[tuple[int, int | None, str], ...] = (
    (0, None, "The thunder comes too late, so people hear it after the light is gone."),
    (1, None, "Then it looks like a mistake. We could cue both from one button."),
    (2, None, "The rain sheet can jam. You would see half the harbour dry."),
    (3, None, "If it jams we need somebody above with a hook"),
    (4, None, "People in the back row do not see rain at all. They only hear it."),
    (0, 3, ", and a sign so the lights wait."),
    (5, None, "The trap door squeaks in the quiet scene."),
    (6, 5, " Wax would do, or a song on top of it."),
)
"""Who wrote (by place), into which passage (None: a new one), what; a minute apart."""
CUES: tuple[tuple[int, int | None, str], ...] = (
    (0, None, "Cue 1: harbour, morning. Slow, over a count of ten."),
    (1, None, "Cue 2: lighthouse. On the word “ship”, not after it."),
    (2, 1, " I give the sign from below."),
)
SOUND: tuple[tuple[int, int | None, str], ...] = (
    (3, None, "Cue 1: gulls, from the left, three calls. They stop when the door opens."),
    (4, None, "Cue 2: thunder. Count two after the light, so it sounds far away."),
    (5, 1, " The second one without counting: it is close by then."),
)
PARTS = (
    (3, "Wrote down all cues at the rehearsals and recorded the gulls."),
    (4, "Made the thunder with the sheet and tried how long to wait."),
)
READ_ONLY = 7
FOUND = (
    ("recipe", "what is cooked on stage", "The steam has to be real, so it is a soup. The lamp stands behind the pot."),
    ("seed", "plants for the window", "They are green all year, and the garden class lends them to us."),
)
NEEDED: tuple[dict[str, str], ...] = (
    {"prop": "Lantern", "from": "The kitchen lends it", "pence": "0"},
    {"prop": "Rope, ten metres", "from": "Shop by the harbour", "pence": "640"},
    {"prop": "Blue gel for two lamps", "from": "Left from last year", "pence": "0"},
    {"prop": "Fishing net"},
)


def crew(teacher: Person, pockets: dict[str, Pocket], students: Sequence[Kept], now: datetime) -> None:
    """Some wrote, one only read, one never opened it; the lights' script is begun."""
    page = _written(pockets["What could go wrong?"], students, WRONG, now - timedelta(minutes=40))
    exchanging.open_page(
        students[READ_ONLY].person, students[READ_ONLY].portfolio.pk, pockets["What could go wrong?"].pk, now
    )
    leading.ask(teacher, page, "What would the audience notice first?", now - timedelta(minutes=45))
    _written(pockets["Cue script"], students, CUES, now - timedelta(days=1))
    _written(pockets["Cue script"], students, SOUND, now - timedelta(days=1, hours=1))
    _scene(pockets, students, page, now)
    own.allow(teacher, students[0].enrolment.group_id, now - timedelta(days=3), allowed=True)
    with_whom = [students[place].enrolment.pk for place in (0, 6)]
    begun = now - timedelta(hours=5)
    own.begin(students[5].person, students[5].portfolio.pk, "Sounds of the storm", with_whom, begun)


def _scene(pockets: dict[str, Pocket], students: Sequence[Kept], page: int, now: datetime) -> None:
    """What the lights found out for their scene, a passage of the lesson's page among it, and their props."""
    at = now - timedelta(hours=6)
    research, props = pockets["Research"], pockets["Props and costs"]
    for place, (drawing, title, words) in enumerate(FOUND):
        book = students[place]
        when = at + timedelta(minutes=20 * place)
        content = ContentFile(drawn(drawing, title))
        made, _ = putting.add_file(book.person, book.portfolio.pk, research.pk, content, f"{title}.jpg", when)
        putting.write_reflection(book.person, made.pk, words, 0, when)
    words = f"{WRONG[3][2]}{WRONG[5][2]}"
    quoting.quote(students[0].person, students[0].portfolio.pk, research.pk, page, 3, words, now)
    for place, values in enumerate(NEEDED):
        book = students[place % 3]
        rows.add_row(book.person, book.portfolio.pk, props.pk, values, at + timedelta(minutes=place))
    for shared in SharedPage.objects.filter(pocket__in=(research, props)):
        settling.settle(shared.pk, now - timedelta(hours=5))


def sound_hands_in(students: Sequence[Kept], handin: HandIn, now: datetime) -> None:
    """The sound group says who did what and hands its script in: it waits for one mark for all three."""
    at = now - timedelta(hours=2)
    for place, words in PARTS:
        book = students[place]
        who_did_what.write(book.person, book.portfolio.pk, handin.pk, words, 0, at)
    for place in (3, 5):
        book = students[place]
        seal = who_did_what.shown(book.person, book.portfolio.pk, handin.pk, at)["seal"]
        who_did_what.confirm(book.person, book.portfolio.pk, handin.pk, seal, at)
    book = students[4]
    commands.hand_in(book.person, book.portfolio.pk, handin.pk, 0, at)


def _written(
    pocket: Pocket, students: Sequence[Kept], lines: Sequence[tuple[int, int | None, str]], begun: datetime
) -> int:
    """Write on a page as its students do, one after another; returns which page it is."""
    page = 0
    for minute, (place, passage, words) in enumerate(lines):
        at = begun + timedelta(minutes=minute)
        book = students[place]
        person = book.person
        opened = exchanging.open_page(person, book.portfolio.pk, pocket.pk, at)
        page = opened["id"]
        doc: Doc[Any] = Doc(client_id=opened["client"])
        root = doc.get("page", type=XmlFragment)
        if opened["number"]:
            doc.apply_update(b64decode(opened["data"]))
        before = doc.get_state()
        if passage is None:
            root.children.append(XmlElement("paragraph", {}, [XmlText(words)]))
        else:
            text = root.children[passage].children[0]
            text.insert(len(text), words)
        sent = b64encode(doc.get_update(before)).decode()
        exchanging.exchange(person, page, opened["number"], opened["client"], sent, at)
        settling.settle(page, at)
    return page
