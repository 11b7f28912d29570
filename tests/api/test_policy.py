"""Every operation of the API × every role × own and foreign objects. An operation without a row fails."""

from __future__ import annotations

import base64
import secrets
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from django.contrib.auth import SESSION_KEY
from django.core.files.base import ContentFile
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.http import HttpResponse
from django.test import Client
from pycrdt import Doc, XmlFragment

from coatpeg.core.policy import Action, Relation, Role, decide
from coatpeg.cupboard import giving, taking
from coatpeg.cupboard import keeping as cupboard_keeping
from coatpeg.cupboard.models import CupboardCopy, CupboardItem, GivenOut
from coatpeg.events.models import Event
from coatpeg.files import keeping, uploads
from coatpeg.files.models import Upload
from coatpeg.handins.models import HandIn, KeptFilter, Outcome, Pack, Submission
from coatpeg.handins.packs import making
from coatpeg.marking import commands
from coatpeg.marking.models import Annotation, Answer, ClassNote, Phrase, StaffNote
from coatpeg.notices.models import Mail
from coatpeg.outlines.models import GalleryTemplate, GivenFile, Pocket, Section
from coatpeg.people.models import (
    Adjustment,
    Enrolment,
    GroupSet,
    JoinRequest,
    Person,
    RosterDrop,
    TeachingGroup,
    WorkingGroup,
)
from coatpeg.portfolios.evidence import text_artefacts
from coatpeg.portfolios.logs import rows
from coatpeg.portfolios.looking import comments
from coatpeg.portfolios.models import (
    Artefact,
    Comment,
    Evidence,
    LogRow,
    LoosePage,
    Portfolio,
    ShownArtefact,
    TextRevision,
)
from coatpeg.portfolios.own import pages, show
from coatpeg.setup.roster import enrolling
from coatpeg.setup.template import changing, undoing
from coatpeg.sharing import exchanging, leading, settling
from coatpeg.sharing import own as sharing_own
from coatpeg.sharing.models import SharedMoment, SharedPage, SharedTaken
from coatpeg.web.api import api
from tests import builders, recordings
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, Class, klass, working_group
from tests.devices import new_text


@dataclass
class Things:
    """One class's objects that operations name."""

    of: Class
    portfolio: Portfolio
    pocket: Pocket
    page: Pocket
    handin: HandIn
    evidence: Evidence
    submission: Submission
    second: Portfolio
    spare: Section
    adjustment: Adjustment
    change: int
    log: Pocket
    row: LogRow
    drop: RosterDrop
    given: GivenFile
    taken: int
    """A section that was taken away."""
    loose: LoosePage
    upload: Upload
    recording: Artefact
    text: Artefact
    revision: TextRevision
    comment: Comment
    shown: ShownArtefact
    mail: Mail
    helper: Person
    kept: KeptFilter
    phrase: Phrase
    annotation: Annotation
    """Seen by the student, on another submission."""
    answer: Answer
    note: StaffNote
    class_note: ClassNote
    item: CupboardItem
    copy: CupboardCopy
    """Taken by the student."""
    given_out: GivenOut
    together: SharedPage
    """The student fills it with another one."""
    passage: SharedTaken
    moment: SharedMoment
    nobodys: WorkingGroup
    """A working group with nobody in it, of a set in which students choose."""
    asked: JoinRequest
    """By this class, for somebody of another one."""
    asked_for: JoinRequest
    """By another class, for this one's student."""
    ours: LoosePage
    """The student began it with the second one."""


def things(name: str, prefix: str) -> Things:
    of = klass(name, f"{prefix}lead")
    card = of.pocket()
    about = of.pocket("About me", "page")
    plan = of.pocket("Plan", artefacts=1)
    portfolio = of.student(f"{prefix}student")
    handed = of.handin(card)
    of.handin(plan, title="Plan")
    evidence = builders.fill(portfolio, plan)
    builders.fill(portfolio, card)
    submission = builders.hand_in(portfolio, handed)
    open_handin = HandIn.objects.get(title="Plan", group=of.group)
    second = of.student(f"{prefix}second", "Sam", "Reyes")
    columns = [{"key": "a", "title": "Weather", "type": "text"}, {"key": "b", "title": "Photo", "type": "artefact"}]
    log = of.pocket("Log", "log", log={"columns": columns})
    spare = Section.objects.create(template=of.template, title="Spare", position=9, repeats=True)
    leaver = of.student(f"{prefix}leaver", "Lee", "Moss")
    change = enrolling.mark_left(of.lead, of.group.pk, {leaver.enrolment_id}, NOW).change_id
    return Things(
        of,
        portfolio,
        plan,
        about,
        open_handin,
        evidence,
        submission,
        second,
        spare,
        builders.adjust(portfolio, 1),
        change or 0,
        log,
        rows.add_row(portfolio.enrolment.person, portfolio.pk, log.pk, {"a": "dry"}, NOW),
        RosterDrop.objects.create(
            group=of.group, name="list.csv", at=NOW, table={"heading": [], "rows": [["Dube"]], "columns": ["name"]}
        ),
        changing.add_file(of.lead, of.group.pk, plan.pk, ContentFile(builders.jpeg()), "plan.jpg", "directions", NOW),
        undoing.remove_section(of.lead, of.group.pk, changing.add_section(of.lead, of.group.pk, "Spring", NOW), NOW),
        pages.add_page(portfolio.enrolment.person, portfolio.pk, "Ideas", NOW),
        uploads.begin(portfolio.enrolment.person, builders.wish(portfolio, plan, "plan.pdf", 5), NOW),
        recording(portfolio),
        text_of(portfolio, plan),
        evidence.revisions.get(),
        comments.leave(of.lead, portfolio.pk, "Well begun.", NOW, evidence=evidence.pk),
        shown(portfolio, evidence, of),
        Mail.objects.create(
            person_id=of.lead.pk, address="a@example.org", subject="x", message_id=name, state="sent", at=NOW
        ),
        of.staff(f"{prefix}helper", Role.OBSERVER),
        KeptFilter.objects.create(group=of.group, person=of.lead, name="Owing", address="show=not_in", shared=True),
        phrase_of(of),
        *said_on(of, portfolio),
        *cupboard(of, portfolio, plan),
        *shared(of, portfolio),
        chosen_group(of),
        request(of, builders.person(f"{prefix}wanted"), of.lead),
        request(klass(f"{name} next door", f"{prefix}neighbour"), second.enrolment.person, of.lead),
        begun_with(of, portfolio, second),
    )


def begun_with(of: Class, portfolio: Portfolio, other: Portfolio) -> LoosePage:
    sharing_own.allow(of.lead, of.group.pk, NOW, allowed=True)
    return sharing_own.begin(portfolio.enrolment.person, portfolio.pk, "Ours", [other.enrolment_id], NOW)


def phrase_of(of: Class) -> Phrase:
    made = Phrase.objects.create(person=of.lead, text="Well begun.", changed_at=NOW)
    made.shared.add(of.group)
    return made


def said_on(of: Class, portfolio: Portfolio) -> tuple[Annotation, Answer, StaffNote, ClassNote]:
    """A spoken comment that the student sees, the lead's answer under it, a note of the lead, one to the class."""
    seen = builders.hand_in(portfolio, of.handin(of.pocket("Seen"), title="Seen"), even_if_empty=True)
    said = builders.say(seen, of.lead, "Look here.")
    commands.review(of.lead, seen.pk, Outcome.Kind.ACCEPTED, commands.Verdict("", None), 0, NOW)
    said.refresh_from_db()
    said.voice = keeping.keep(ContentFile(recordings.sound()), "said.wav").stored
    said.save()
    note = StaffNote.objects.create(enrolment=portfolio.enrolment, person=of.lead, text="Quiet today.", at=NOW)
    answer = Answer.objects.create(annotation=said, person=of.lead, text="And here.", at=NOW)
    told = ClassNote.objects.create(handin=seen.handin, person=of.lead, key="said", text="Weigh it.", at=NOW)
    return said, answer, note, told


def cupboard(of: Class, portfolio: Portfolio, pocket: Pocket) -> tuple[CupboardItem, CupboardCopy, GivenOut]:
    """A document in the cupboard, a copy of it that the student took, and what was given out to another student."""
    sheet = SimpleUploadedFile("sheet.txt", b"Wash your hands.")
    item = cupboard_keeping.put_file_in(of.lead, of.group.pk, sheet, "sheet.txt", NOW)
    shown = cupboard_keeping.ItemPlan("sheet.txt")
    item = cupboard_keeping.change(of.lead, item.pk, item.version, shown, NOW)
    copy = taking.take(portfolio.enrolment.person, portfolio.pk, pocket.pk, item.pk, NOW)
    return item, copy, giving.give(of.lead, giving.Giving(item.pk, pocket.pk), "given", NOW)


def shared(of: Class, portfolio: Portfolio) -> tuple[SharedPage, SharedTaken, SharedMoment]:
    """A page that the student fills with a working group, with two passages, one of them taken off it."""
    crew = working_group(of.group, "Lights")
    crew.members.set([portfolio.enrolment])
    pocket = of.pocket("Cue script", "page", shared="group")
    student = portfolio.enrolment.person
    opened = exchanging.open_page(student, portfolio.pk, pocket.pk, NOW)
    doc: Doc[Any] = Doc(client_id=opened["client"])
    for words in ("First.", "Second."):
        doc.get("page", type=XmlFragment).children.append(new_text(words))
    sent = base64.b64encode(doc.get_update()).decode()
    exchanging.exchange(student, opened["id"], 0, opened["client"], sent, NOW)
    settling.settle(opened["id"], NOW)
    taken = leading.take_passage(of.lead, opened["id"], 0, "First.", NOW)
    return SharedPage.objects.get(pk=opened["id"]), taken, SharedMoment.objects.get(page=opened["id"])


def chosen_group(of: Class) -> WorkingGroup:
    chosen = GroupSet.objects.create(group=of.group, name="Chosen", chosen_until=date(2099, 1, 1), most=2)
    return WorkingGroup.objects.create(group=of.group, of=chosen, name="Sound")


def request(into: Class, student: Person, by: Person) -> JoinRequest:
    return JoinRequest.objects.create(
        group=into.group, student=student, asked_by=by, asked_at=NOW, lapses=TODAY, entry={"family": "Reyes"}
    )


def recording(portfolio: Portfolio) -> Artefact:
    kept = keeping.keep(ContentFile(recordings.sound()), "said.wav")
    return Artefact.objects.create(
        portfolio=portfolio, kind=kept.kind, title="said.wav", stored=kept.stored, came_sha256="", made_at=NOW
    )


def text_of(portfolio: Portfolio, pocket: Pocket) -> Artefact:
    made = text_artefacts.add_text(portfolio.enrolment.person, portfolio.pk, pocket.pk, "Notes", NOW).artefact
    assert made
    return made


def shown(portfolio: Portfolio, evidence: Evidence, of: Class) -> ShownArtefact:
    choice = show.Choice(evidence.pk, "My plan")
    show.arrange(portfolio.enrolment.person, portfolio.pk, "Mine", [choice], 0, NOW)
    show.set_opened(of.lead, portfolio.pk, 1, NOW, opened=True)
    return ShownArtefact.objects.get(evidence=evidence)


Call = Callable[[Client, Things], HttpResponse]


def get(path: str) -> Call:
    return lambda client, t: client.get(path.format(t=t))


def send(method: str, path: str, body: Callable[[Things], Any] | None = None) -> Call:
    def call(client: Client, t: Things) -> HttpResponse:
        data = body(t) if body else {}
        return getattr(client, method)(path.format(t=t), data=data, content_type="application/json")

    return call


def upload(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/portfolios/{t.portfolio.pk}/pockets/{t.pocket.pk}/files", {"file": file})


TUS = {"Tus-Resumable": "1.0.0"}


def begin_upload(client: Client, t: Things) -> HttpResponse:
    pairs = {"portfolio": t.portfolio.pk, "pocket": t.pocket.pk, "name": "plan.pdf"}
    told = ",".join(f"{key} {base64.b64encode(str(value).encode()).decode()}" for key, value in pairs.items())
    return client.post("/api/uploads", headers={**TUS, "Upload-Length": "5", "Upload-Metadata": told})


def append_upload(client: Client, t: Things) -> HttpResponse:
    body = "application/offset+octet-stream"
    return client.patch(f"/api/uploads/{t.upload.key}", b"12", body, headers={**TUS, "Upload-Offset": "0"})


READING = {"face": "lexend", "size": 115, "spacing": "wide", "tint": "cream", "ruler": True, "pace": 80}


def row_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/portfolios/{t.portfolio.pk}/pockets/{t.log.pk}/row-files", {"file": file})


def spoken_annotation(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("said.wav", recordings.sound())
    return client.post(f"/api/submissions/{t.submission.pk}/annotations/0b0b0b0b/voice", {"file": file})


def annotation_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("said.jsonld", b'{"type": "Annotation", "bodyValue": "So", "target": "urn:x"}')
    return client.post(f"/api/submissions/{t.submission.pk}/web-annotations", {"file": file})


def two_accounts(t: Things) -> dict[str, int]:
    """A student of the class, and an account beside that was never used."""
    beside = Person.objects.create(given_name="Beside", username=secrets.token_hex(8))
    return {"kept": t.portfolio.enrolment.person_id, "other": beside.pk}


def pocket_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/groups/{t.of.group.pk}/template/pockets/{t.page.pk}/files", {"file": file})


def waiting_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/groups/{t.of.group.pk}/template/files", {"file": file})


def handin_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/groups/{t.of.group.pk}/handins/files", {"file": file})


def cover_picture(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/portfolios/{t.portfolio.pk}/cover/picture", {"file": file})


def calendar_file(client: Client, t: Things) -> HttpResponse:
    text = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:test\r\nEND:VCALENDAR\r\n"
    return client.post("/api/calendar/files", {"file": SimpleUploadedFile("days.ics", text.encode())})


def cupboard_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/groups/{t.of.group.pk}/cupboard/files", {"file": file})


def newer_cupboard_file(client: Client, t: Things) -> HttpResponse:
    file = SimpleUploadedFile("card.jpg", builders.jpeg())
    return client.post(f"/api/cupboard/{t.item.pk}/newer", {"file": file, "version": t.item.version})


def list_file(client: Client, t: Things) -> HttpResponse:
    path = f"/api/groups/{t.of.group.pk}/roster/files"
    return client.post(path, {"file": SimpleUploadedFile("list.csv", b"Dube;Thandi")})


AGREED = {"extra_days": 2, "first": "2026-09-01", "reason": "Agreed at the review."}
POCKET = {"title": "Tools", "kind": "page"}
CALENDAR = {
    "key": "",
    "zone": "Europe/London",
    "weekdays": [0, 1, 2, 3, 4],
    "terms": [{"name": "Autumn", "first": "2026-09-01", "last": "2026-12-18"}],
    "days_off": [],
}
LIST = {"rows": [["Okonkwo", "Chidi"]], "columns": ["family", "given"]}


def apply_list(client: Client, t: Things) -> HttpResponse:
    seen = send("post", GROUP + "/roster/preview", lambda t: LIST)(client, t)
    return send("post", GROUP + "/roster", lambda t: {**LIST, "seen": seen.json().get("seen", "")})(client, t)


def shipped() -> int:
    return GalleryTemplate.objects.filter(author=None).values_list("pk", flat=True)[0]


def undo(verb: str, what: str) -> Call:
    """Undoing a deed on many that somebody of the class has done."""

    def call(client: Client, t: Things) -> HttpResponse:
        data = {"deed": "a-deed", "holds": [], "reason": "", "pockets": [], "moved": [], "handins": []}
        Event.objects.create(group_id=t.of.group.pk, number=10_000, verb=verb, at=NOW, handin_id=t.handin.pk, data=data)
        return client.delete(f"/api/groups/{t.of.group.pk}/{what}/a-deed")

    return call


def log_of_class(ending: str) -> Call:
    """A log of the class as one table."""

    def call(client: Client, t: Things) -> HttpResponse:
        Pocket.objects.filter(pk=t.pocket.pk).update(kind="log", log={"columns": []})
        return client.get(f"/api/groups/{t.of.group.pk}/logs/{t.pocket.pk}{ending}")

    return call


def series(client: Client, t: Things) -> HttpResponse:
    HandIn.objects.filter(pk=t.handin.pk).update(series=f"series-{t.of.group.pk}")
    return client.delete(f"/api/groups/{t.of.group.pk}/series/series-{t.of.group.pk}")


def pack(end: str) -> Call:
    """A pack that the caller asked for of a hand-in of the class."""

    def call(client: Client, t: Things) -> HttpResponse:
        person = client.session.get(SESSION_KEY)
        if person:
            made = Pack.objects.create(key="a-pack", handin=t.handin, person_id=person, asked_at=NOW, ready_at=NOW)
            making.folder().mkdir(parents=True, exist_ok=True)
            (making.folder() / f"{made.key}.zip").write_bytes(b"PK")
        return client.get(f"/api/packs/a-pack{end}")

    return call


def seen(t: Things) -> dict[str, Any]:
    return {"handin": t.handin.pk, "enrolment": t.portfolio.enrolment_id, "status": "working"}


def remembered(t: Things) -> dict[str, Any]:
    return {"handin": t.handin.pk, "enrolment": t.portfolio.enrolment_id}


def plan(t: Things) -> dict[str, Any]:
    return {"title": "Menu", "pockets": [t.pocket.pk], "opens": "2026-11-01", "due": {"day": "2026-11-20"}}


GROUP, BOOK = "/api/groups/{t.of.group.pk}", "/api/portfolios/{t.portfolio.pk}"
SUBMITTED, EVIDENCE = "/api/submissions/{t.submission.pk}", "/api/evidence/{t.evidence.pk}"
STUDENT = "/api/students/{t.portfolio.enrolment_id}"
SECTION = GROUP + "/template/sections/{t.of.section.pk}"
UNITS = GROUP + "/template/sections/{t.spare.pk}/units"
LAID = GROUP + "/template/pockets/{t.page.pk}"
LOG = BOOK + "/pockets/{t.log.pk}"
ARTEFACT = "/api/artefacts/{t.evidence.artefact_id}"
PARTS = "/api/portfolios/{t.portfolio.pk}/handins/{t.handin.pk}/parts"
SET = "/api/sets/{t.nobodys.of_id}"
CALLS: dict[str, Call] = {
    "see_session": get("/api/session"),
    "sign_in": send("post", "/api/session", lambda t: {"username": "nobody", "password": "x"}),
    "sign_in_by_card": send("post", "/api/session/card", lambda t: {"secret": "nothing"}),
    "see_feed": get("/api/feed"),
    "make_feed": send("post", "/api/feed"),
    "revoke_feed": send("delete", "/api/feed"),
    "sign_out": send("delete", "/api/session"),
    "follow_changes": get(GROUP + "/changes"),
    "see_notices": get("/api/notices"),
    "notices_seen": send("post", "/api/notices/seen", lambda t: {"id": 1}),
    "choose_mail": send("put", "/api/notices/mail", lambda t: {"how": "daily"}),
    "see_mails": get("/api/mails"),
    "read_mail": get("/api/mails/{t.mail.pk}"),
    "see_pegs": get(GROUP + "/pegs"),
    "take_pegs_along": send(
        "post",
        GROUP + "/pegs/table",
        lambda t: {"students": [t.portfolio.enrolment_id], "handins": [], "format": "csv"},
    ),
    "see_my_classes": get("/api/classes"),
    "see_sheet": get(GROUP + "/sheet"),
    "try_sheet": send("post", GROUP + "/sheet/tried", lambda t: {"best": 1}),
    "change_sheet": send("put", GROUP + "/sheet", lambda t: {"best": 1, "version": 0}),
    "take_sheet_along": send(
        "post", GROUP + "/sheet/table", lambda t: {"students": [], "handins": [], "format": "csv"}
    ),
    "see_phrases": get(GROUP + "/phrases"),
    "keep_phrase": send("post", GROUP + "/phrases", lambda t: {"text": "Show your sums."}),
    "change_phrase": send("patch", GROUP + "/phrases/{t.phrase.pk}", lambda t: {"text": "Well done."}),
    "drop_phrase": send("delete", GROUP + "/phrases/{t.phrase.pk}"),
    "see_filters": get(GROUP + "/filters"),
    "keep_filter": send("post", GROUP + "/filters", lambda t: {"name": "Late", "address": "show=late"}),
    "change_filter": send("patch", GROUP + "/filters/{t.kept.pk}", lambda t: {"name": "Still owing"}),
    "drop_filter": send("delete", GROUP + "/filters/{t.kept.pk}"),
    "see_arrivals": send("post", GROUP + "/arrivals", lambda t: {"students": [], "handins": []}),
    "see_patterns": send("post", GROUP + "/patterns", lambda t: {"students": []}),
    "see_load": get(GROUP + "/load"),
    "see_cell": get(GROUP + "/handins/{t.handin.pk}/students/{t.portfolio.enrolment_id}"),
    "set_excused": send(
        "put", "/api/handins/{t.handin.pk}/students/{t.portfolio.enrolment_id}/excused", lambda t: {"excused": True}
    ),
    "see_handins": get(GROUP + "/handins"),
    "preview_handin": send("post", GROUP + "/handins/preview", plan),
    "set_handin": send("post", GROUP + "/handins", plan),
    "take_back_handin": send("delete", GROUP + "/handins/{t.handin.pk}"),
    "remind": send("post", GROUP + "/reminders", lambda t: {"cells": [remembered(t)], "text": "Please."}),
    "see_reminders": get(GROUP + "/handins/{t.handin.pk}/students/{t.portfolio.enrolment_id}/reminders"),
    "excuse_many": send("post", GROUP + "/cells/excused", lambda t: {"cells": [seen(t)]}),
    "lock_cells": send("post", GROUP + "/cells/locked", lambda t: {"cells": [seen(t)]}),
    "lock_pocket": send("post", GROUP + "/pockets/{t.pocket.pk}/locked", lambda t: {}),
    "hand_in_for": send("post", GROUP + "/cells/handed-in", lambda t: {"cells": [seen(t)]}),
    "send_back_many": send("post", GROUP + "/cells/sent-back", lambda t: {"cells": [seen(t)]}),
    "undo_locks": undo("pockets_locked", "cells/locked"),
    "undo_handed_in_for": undo("handed_in", "cells/handed-in"),
    "release_drafts": send("post", GROUP + "/handins/{t.handin.pk}/released", lambda t: {"only_look": True}),
    "undo_released": undo("accepted", "released"),
    "accept_many": send("post", GROUP + "/cells/accepted", lambda t: {"cells": [seen(t)]}),
    "undo_accepted_many": undo("accepted", "cells/accepted"),
    "reopen_many": send("post", GROUP + "/cells/reopened", lambda t: {"cells": [seen(t)]}),
    "undo_reopened_many": undo("reopened", "cells/reopened"),
    "undo_sent_back_many": undo("sent_back", "cells/sent-back"),
    "move_dues": send("post", GROUP + "/cells/due", lambda t: {"cells": [seen(t)], "days": 2}),
    "restore_dues": send(
        "put",
        GROUP + "/cells/due",
        lambda t: {"before": [{"handin": t.handin.pk, "enrolment": t.portfolio.enrolment_id, "day": None, "at": None}]},
    ),
    "see_handin": get(GROUP + "/handins/{t.handin.pk}"),
    "lay_out_handin_like": get(GROUP + "/handins/like/{t.handin.pk}"),
    "preview_handin_change": send("post", GROUP + "/handins/{t.handin.pk}/preview", plan),
    "change_handin": send("put", GROUP + "/handins/{t.handin.pk}", lambda t: {**plan(t), "version": 1}),
    "move_on": send("post", GROUP + "/moved-on", lambda t: {"first": str(TODAY), "days": 2}),
    "move_back": undo("dates_moved", "moved-on"),
    "see_figures": get(GROUP + "/pegs/figures?what=points"),
    "see_flags": get(GROUP + "/pegs/flags"),
    "see_class_log": log_of_class(""),
    "take_class_log_along": log_of_class("/csv"),
    "lay_out_handins": send("post", GROUP + "/laid-out", lambda t: {"source": t.of.group.pk}),
    "take_up_handins": undo("handins_laid_out", "laid-out"),
    "ask_for_pack": send("post", GROUP + "/handins/{t.handin.pk}/packs", {}),
    "ask_for_marked_copy": send("post", SUBMITTED + "/marked"),
    "see_pack": pack(""),
    "read_pack": pack("/file"),
    "print_receipt": get("/api/submissions/{t.submission.pk}/receipt.pdf"),
    "take_back_series": series,
    "take_results": send("post", GROUP + "/results", lambda t: {"students": [], "handins": []}),
    "take_away_handin": send("post", GROUP + "/handins/{t.handin.pk}/away", lambda t: {}),
    "bring_back_handin": send("delete", GROUP + "/handins/{t.handin.pk}/away"),
    "see_own_requests": get(GROUP + "/roster/requests"),
    "withdraw_request": send("delete", GROUP + "/roster/requests/{t.asked.pk}"),
    "see_join_requests": get("/api/join-requests"),
    "settle_join_request": send("post", "/api/join-requests/{t.asked_for.pk}", lambda t: {"confirm": True}),
    "find_students": get("/api/accounts/students?text=thandi"),
    "give_password": send("post", STUDENT + "/password"),
    "change_password": send(
        "put", "/api/session/password", lambda t: {"current": builders.PASSWORD, "new": "Another good one"}
    ),
    "sign_out_everywhere": send("post", "/api/session/everywhere"),
    "see_calendar": get("/api/calendar"),
    "read_calendar_file": calendar_file,
    "preview_calendar": send("post", "/api/calendar/preview", lambda t: CALENDAR),
    "change_calendar": send("put", "/api/calendar", lambda t: CALENDAR),
    "see_late_rule": get("/api/late-rule"),
    "set_late_rule": send("put", "/api/late-rule", lambda t: {"per_day": 5, "floor": 50, "version": 0}),
    "start_class": send(
        "post", "/api/groups", lambda t: {"name": "9 Forge", "first": "2026-09-01", "last": "2026-12-18"}
    ),
    "see_start": get("/api/start"),
    "find_colleagues": get("/api/start/staff?text=marsh"),
    "look_start": send("post", "/api/start/look", lambda t: {"first": "2026-09-01", "last": "2026-12-18"}),
    "look_start_list": send("post", "/api/start/list", lambda t: {"text": "Anna Blom"}),
    "see_accounts": get("/api/accounts"),
    "add_account": send("post", "/api/accounts", lambda t: {"family": "Blom", "given": "Ida"}),
    "set_active": send("put", "/api/accounts/{t.of.lead.pk}/active", lambda t: {"active": True}),
    "new_password": send("post", "/api/accounts/{t.of.lead.pk}/password"),
    "see_accounts_together": get("/api/accounts/together"),
    "look_at_accounts_together": send("post", "/api/accounts/together/look", two_accounts),
    "put_accounts_together": send("post", "/api/accounts/together", two_accounts),
    "take_accounts_apart": send("delete", "/api/accounts/together/999999"),
    "see_class": get(GROUP),
    "delete_class": send("delete", GROUP),
    "put_class_away": send("put", GROUP + "/put-away"),
    "bring_class_back": send("delete", GROUP + "/put-away"),
    "change_class": send(
        "put", GROUP, lambda t: {"name": "8 Plot", "first": str(t.of.group.first), "last": str(t.of.group.last)}
    ),
    "see_staff": get(GROUP + "/staff"),
    "find_staff": get(GROUP + "/staff/find?text=sam"),
    "set_role": send("put", GROUP + "/staff/{t.helper.pk}", lambda t: {"role": "marker"}),
    "hand_over": send("post", GROUP + "/hand-over", lambda t: {"person": t.helper.pk, "stays": "observer"}),
    "see_roster": get(GROUP + "/roster"),
    "find_known_students": get(GROUP + "/roster/find?text=sam"),
    "read_pasted_list": send("post", GROUP + "/roster/read", lambda t: {"text": "Dube, Thandi"}),
    "read_list_file": list_file,
    "preview_list": send("post", GROUP + "/roster/preview", lambda t: LIST),
    "rejected_lines": send("post", GROUP + "/roster/rejected", lambda t: LIST),
    "apply_list": apply_list,
    "see_drops": get(GROUP + "/roster/drops"),
    "open_drop": get(GROUP + "/roster/drops/{t.drop.pk}"),
    "put_aside": send("delete", GROUP + "/roster/drops/{t.drop.pk}"),
    "set_by_itself": send("put", GROUP + "/roster/by-itself", lambda t: {"by_itself": True}),
    "place_students": send(
        "post",
        GROUP + "/roster/place",
        lambda t: {"students": [t.second.enrolment_id], "where": "group", "name": "Table 1"},
    ),
    "who_did_what": get(PARTS),
    "say_own_part": send("put", PARTS, lambda t: {"text": "Wrote it."}),
    "confirm_parts": send("post", PARTS + "/confirm", lambda t: {"seal": "x"}),
    "see_sets": get(GROUP + "/sets"),
    "make_set": send("post", GROUP + "/sets", lambda t: {"name": "Tables"}),
    "rename_set": send("patch", SET, lambda t: {"name": "Crews"}),
    "remove_set": send("delete", SET),
    "make_group": send("post", SET + "/groups", lambda t: {"name": "Set"}),
    "rename_group": send("patch", "/api/working-groups/{t.nobodys.pk}", lambda t: {"name": "Lamps"}),
    "remove_group": send("delete", "/api/working-groups/{t.nobodys.pk}"),
    "move_into_group": send(
        "post", SET + "/move", lambda t: {"students": [t.second.enrolment_id], "group": t.nobodys.pk}
    ),
    "keep_wishes": send("put", SET + "/wishes", lambda t: {"apart": [], "together": []}),
    "draw_groups": send("post", SET + "/draw", lambda t: {"size": 1, "mixing": "across", "seed": 1}),
    "form_groups": send("post", SET + "/form", lambda t: {"size": 1, "mixing": "across", "seed": 1, "seen": "x"}),
    "open_choice": send("put", SET + "/choice", lambda t: {"until": "2099-01-01", "most": 3}),
    "choose_group": send("put", SET + "/mine", lambda t: {"group": None}),
    "see_asked": get(GROUP + "/students/{t.portfolio.enrolment_id}/asked"),
    "mark_left": send("post", GROUP + "/roster/leave", lambda t: {"students": [t.portfolio.enrolment_id]}),
    "see_list_changes": get(GROUP + "/roster/changes"),
    "move_student": send("post", GROUP + "/roster/{t.portfolio.enrolment_id}/move", lambda t: {"into": t.of.group.pk}),
    "undo_list": send("post", GROUP + "/roster/changes/{t.change}/undo"),
    "print_cards": send("post", GROUP + "/cards", lambda t: {"students": [t.portfolio.enrolment_id]}),
    "void_cards": send("post", GROUP + "/cards/void", lambda t: {"students": [t.portfolio.enrolment_id]}),
    "swap_pegs": send(
        "post", GROUP + "/roster/pegs", lambda t: {"one": t.portfolio.enrolment_id, "other": t.second.enrolment_id}
    ),
    "set_own_due": send(
        "put", "/api/handins/{t.handin.pk}/students/{t.portfolio.enrolment_id}/due", lambda t: {"day": "2026-11-30"}
    ),
    "see_template": get(GROUP + "/template"),
    "see_gallery": get("/api/gallery"),
    "see_gallery_state": get(GROUP + "/template/gallery"),
    "publish_template": send("put", GROUP + "/template/gallery", lambda t: {"title": "Tools"}),
    "withdraw_template": send("delete", GROUP + "/template/gallery"),
    "adopt_template": send("post", GROUP + "/template/adopt", lambda t: {"template": shipped()}),
    "carry_over": send("post", GROUP + "/template/carry-over", lambda t: {"source": t.of.group.pk}),
    "bring_in": send("post", GROUP + "/template/news/bring", lambda t: {"key": "nothing"}),
    "look_through": send("post", GROUP + "/template/news/seen"),
    "undo_brought": send("post", GROUP + "/template/brought/undo", lambda t: {"sections": [1]}),
    "read_outline": send("post", GROUP + "/template/outline/read", lambda t: {"text": "Start\n  Soil"}),
    "see_template_draft": get(GROUP + "/template/draft"),
    "look_at_template_draft": send("post", GROUP + "/template/draft/look", lambda t: {"edits": []}),
    "save_template_draft": send(
        "post", GROUP + "/template/draft", lambda t: {"edits": [{"do": "add_section", "id": -1, "title": "Spring"}]}
    ),
    "lay_out_outline": send("post", GROUP + "/template/outline", lambda t: {"text": "Start\n  Soil"}),
    "read_log_columns": send("post", GROUP + "/template/columns/read", lambda t: {"text": "date, title"}),
    "read_units": send("post", GROUP + "/template/units/read", lambda t: {"text": "Soil"}),
    "add_section": send("post", GROUP + "/template/sections", lambda t: {"title": "The shed"}),
    "preview_units": send("post", UNITS + "/preview", lambda t: {"units": [{"key": "a", "title": "Soil"}]}),
    "set_units": send("put", UNITS, lambda t: {"units": [{"key": "a", "title": "Soil"}], "version": 1}),
    "change_section": send("put", SECTION, lambda t: {"title": "The shed"}),
    "move_section": send("post", SECTION + "/move"),
    "remove_section": send("delete", "/api/groups/{t.of.group.pk}/template/sections/{t.spare.pk}"),
    "add_pocket": send("post", SECTION + "/pockets", lambda t: POCKET),
    "preview_pocket": send("post", LAID + "/preview", lambda t: POCKET),
    "change_pocket": send("put", LAID, lambda t: {**POCKET, "version": 1}),
    "move_pocket": send("post", LAID + "/move", lambda t: {"section": t.of.section.pk}),
    "retire_pocket": send("put", LAID + "/retired", lambda t: {"retired": True}),
    "remove_pocket": send("delete", "/api/groups/{t.of.group.pk}/template/pockets/{t.page.pk}"),
    "restore_taken_away": send("post", GROUP + "/template/taken-away/{t.taken}/restore"),
    "see_caseload": get(GROUP + "/caseload"),
    "see_adjustments": get(STUDENT + "/adjustments"),
    "agree_adjustment": send("post", STUDENT + "/adjustments", lambda t: AGREED),
    "change_adjustment": send("put", "/api/adjustments/{t.adjustment.pk}", lambda t: {**AGREED, "version": 1}),
    "remove_adjustment": send("delete", "/api/adjustments/{t.adjustment.pk}"),
    "see_portfolio": get(BOOK),
    "see_pocket": get(BOOK + "/pockets/{t.pocket.pk}"),
    "see_worklist": get(BOOK + "/worklist"),
    "see_feedback": get(BOOK + "/feedback"),
    "hand_in": send("post", BOOK + "/handins/{t.handin.pk}/submissions", lambda t: {"seen": 0}),
    "take_back": send("post", SUBMITTED + "/take-back"),
    "open_shared_page": send("post", "/api/portfolios/{t.portfolio.pk}/pockets/{t.together.pocket_id}/shared"),
    "exchange_shared_page": send("post", "/api/shared/{t.together.pk}/exchange", lambda t: {"after": 0}),
    "who_wrote_what": get("/api/shared/{t.together.pk}/written"),
    "ask_on_shared_page": send("put", "/api/shared/{t.together.pk}/question", lambda t: {"question": "Who?"}),
    "open_for_all": send("put", "/api/shared/{t.together.pk}/open"),
    "close_for_all": send("delete", "/api/shared/{t.together.pk}/open"),
    "take_passage": send("post", "/api/shared/{t.together.pk}/taken", lambda t: {"place": 0, "words": "Second."}),
    "put_passage_back": send("post", "/api/passages/{t.passage.pk}/restore"),
    "put_passage_in": send(
        "post",
        "/api/portfolios/{t.portfolio.pk}/pockets/{t.pocket.pk}/passages",
        lambda t: {"shared": t.together.pk, "place": 0, "words": "Second."},
    ),
    "open_own_shared_page": send("post", "/api/portfolios/{t.portfolio.pk}/pages/{t.ours.pk}/shared"),
    "see_classmates": get("/api/portfolios/{t.portfolio.pk}/classmates"),
    "begin_page_together": send(
        "post",
        "/api/portfolios/{t.portfolio.pk}/pages/together",
        lambda t: {"title": "Ours", "others": [t.second.enrolment_id]},
    ),
    "allow_pages_together": send("put", GROUP + "/pages-together", lambda t: {"allowed": True}),
    "see_moments": get("/api/shared/{t.together.pk}/moments"),
    "see_moment": get("/api/moments/{t.moment.pk}"),
    "bring_moment_back": send("post", "/api/moments/{t.moment.pk}/restore"),
    "see_cupboard": get(GROUP + "/cupboard"),
    "put_in_cupboard": send("post", GROUP + "/cupboard", lambda t: {"kind": "page", "title": "Sheet", "html": "Wash."}),
    "put_file_in_cupboard": cupboard_file,
    "see_item": get("/api/cupboard/{t.item.pk}"),
    "read_item": send("post", "/api/cupboard/{t.item.pk}/read"),
    "change_item": send("put", "/api/cupboard/{t.item.pk}", lambda t: {"title": "Other", "version": t.item.version}),
    "change_item_file": newer_cupboard_file,
    "remove_item": send("delete", "/api/cupboard/{t.item.pk}"),
    "restore_item": send("post", "/api/cupboard/{t.item.pk}/restore"),
    "lend_item": send("put", "/api/cupboard/{t.item.pk}/lent", lambda t: {"classes": []}),
    "see_copies": get("/api/cupboard/{t.item.pk}/copies"),
    "read_item_file": get("/api/cupboard/{t.item.pk}/file"),
    "read_item_thumbnail": get("/api/cupboard/{t.item.pk}/thumbnail"),
    "view_item": get("/api/cupboard/{t.item.pk}/view"),
    "view_item_document": get("/api/cupboard/{t.item.pk}/view/document"),
    "view_item_page": get("/api/cupboard/{t.item.pk}/view/pages/1"),
    "take_copy": send("post", "/api/portfolios/{t.portfolio.pk}/cupboard/{t.item.pk}", lambda t: {"pocket": t.page.pk}),
    "put_copy_back": send("delete", "/api/copies/{t.copy.pk}"),
    "open_copies": send("post", "/api/portfolios/{t.portfolio.pk}/pockets/{t.pocket.pk}/copies"),
    "look_at_giving": send("post", "/api/cupboard/{t.item.pk}/giving", lambda t: {"pocket": t.page.pk}),
    "give_out": send("post", "/api/cupboard/{t.item.pk}/give", lambda t: {"pocket": t.page.pk, "key": "again"}),
    "see_given_out": get(GROUP + "/given"),
    "see_given_to": get("/api/given/{t.given_out.pk}/students"),
    "take_given_back": send("delete", "/api/given/{t.given_out.pk}"),
    "give_again": send("post", "/api/given/{t.given_out.pk}/restore"),
    "see_class_notes": get(GROUP + "/handins/{t.handin.pk}/class-notes"),
    "read_class_notes": get("/api/portfolios/{t.portfolio.pk}/class-notes"),
    "tell_class": send("post", GROUP + "/handins/{t.handin.pk}/class-notes", lambda t: {"key": "k", "text": "So."}),
    "remove_class_note": send("delete", GROUP + "/class-notes/{t.class_note.pk}"),
    "restore_class_note": send("post", GROUP + "/class-notes/{t.class_note.pk}/restore"),
    "see_given": get("/api/submissions/{t.submission.pk}/given"),
    "see_pile": get(GROUP + "/pile"),
    "see_whole_pile": get("/api/pile"),
    "see_submission": get(SUBMITTED),
    "see_history_of_handin": get(GROUP + "/handins/{t.handin.pk}/students/{t.portfolio.enrolment_id}/history"),
    "see_differences": get(SUBMITTED + "/changes"),
    "save_draft": send("put", SUBMITTED + "/draft", lambda t: {"feedback": "So", "version": 0}),
    "accept": send("post", SUBMITTED + "/accept", lambda t: {"feedback": "Good"}),
    "send_back": send("post", SUBMITTED + "/send-back", lambda t: {"feedback": "Again"}),
    "reopen": send("post", SUBMITTED + "/reopen"),
    "have_read": send("post", SUBMITTED + "/read"),
    "see_annotations": get(SUBMITTED + "/annotations"),
    "see_annotations_on_work": get(BOOK + "/annotations"),
    "keep_annotation": send("put", SUBMITTED + "/annotations/0a0a0a0a", lambda t: {"kind": "comment", "text": "So"}),
    "speak_annotation": spoken_annotation,
    "show_annotations": send("post", SUBMITTED + "/shown-annotations"),
    "take_annotations": get(SUBMITTED + "/web-annotations"),
    "bring_annotations": annotation_file,
    "remove_annotation": send("delete", "/api/annotations/{t.annotation.pk}"),
    "restore_annotation": send("post", "/api/annotations/{t.annotation.pk}/restore"),
    "hear_annotation": get("/api/annotations/{t.annotation.pk}/voice"),
    "answer_annotation": send("post", "/api/annotations/{t.annotation.pk}/answers", lambda t: {"text": "Yes."}),
    "remove_answer": send("delete", "/api/answers/{t.answer.pk}"),
    "restore_answer": send("post", "/api/answers/{t.answer.pk}/restore"),
    "settle_annotation": send("post", "/api/annotations/{t.annotation.pk}/settled", lambda t: {"settled": True}),
    "tick_annotation": send("post", "/api/annotations/{t.annotation.pk}/done", lambda t: {"done": True}),
    "choose_wording": send("post", "/api/annotations/{t.annotation.pk}/choice", lambda t: {"choice": "left"}),
    "see_rubrics": get(GROUP + "/rubrics"),
    "read_rubric": send("post", GROUP + "/rubrics/read", lambda t: {"text": "\tlow\thigh\nCare\tno\tyes"}),
    "see_how_marked": get(GROUP + "/handins/{t.handin.pk}/marking"),
    "say_how_marked": send(
        "put", GROUP + "/handins/{t.handin.pk}/marking", lambda t: {"two": True, "blind": True, "version": 0}
    ),
    "see_sample": get(GROUP + "/handins/{t.handin.pk}/sample"),
    "say_mark_done": send("post", SUBMITTED + "/draft/done", lambda t: {"done": True}),
    "say_open": send("put", GROUP + "/desks", lambda t: {"submission": t.submission.pk}),
    "see_staff_notes": get(BOOK + "/staff-notes"),
    "keep_staff_note": send("post", BOOK + "/staff-notes", lambda t: {"text": "Ask again."}),
    "remove_staff_note": send("delete", "/api/staff-notes/{t.note.pk}"),
    "restore_staff_note": send("post", "/api/staff-notes/{t.note.pk}/restore"),
    "add_file": upload,
    "add_link": send("post", BOOK + "/pockets/{t.pocket.pk}/links", lambda t: {"link": "https://plants.example"}),
    "write_page": send("put", BOOK + "/pockets/{t.page.pk}/page", lambda t: {"text": "Me", "version": 0}),
    "write_reflection": send("put", EVIDENCE + "/reflection", lambda t: {"text": "More.", "version": 1}),
    "remove_evidence": send("delete", EVIDENCE),
    "restore_evidence": send("post", EVIDENCE + "/restore"),
    "add_pocket_file": pocket_file,
    "add_waiting_file": waiting_file,
    "add_handin_file": handin_file,
    "put_pocket_in_cupboard": send("post", GROUP + "/template/cupboard", lambda t: {"pocket": t.pocket.pk}),
    "fetch_pocket_from_cupboard": send("post", GROUP + "/template/cupboard/{t.item.pk}"),
    "remove_pocket_file": send("delete", GROUP + "/template/files/{t.given.pk}"),
    "restore_pocket_file": send("post", GROUP + "/template/files/{t.given.pk}/restore"),
    "read_given_file": get("/api/given-files/{t.given.pk}"),
    "read_given_thumbnail": get("/api/given-files/{t.given.pk}/thumbnail"),
    "view_given_file": get("/api/given-files/{t.given.pk}/view"),
    "view_given_document": get("/api/given-files/{t.given.pk}/view/document"),
    "view_given_page": get("/api/given-files/{t.given.pk}/view/pages/1"),
    "set_cover": send("put", BOOK + "/cover", lambda t: {"title": "My term", "tint": 3}),
    "add_cover_picture": cover_picture,
    "add_page": send("post", BOOK + "/pages", lambda t: {"title": "Ideas"}),
    "see_page": get("/api/pages/{t.loose.pk}"),
    "write_loose_page": send("put", "/api/pages/{t.loose.pk}", lambda t: {"title": "A", "text": "b", "version": 0}),
    "move_page": send("post", "/api/pages/{t.loose.pk}/move"),
    "remove_page": send("delete", "/api/pages/{t.loose.pk}"),
    "restore_page": send("post", "/api/pages/{t.loose.pk}/restore"),
    "add_row": send("post", LOG + "/rows", lambda t: {"values": {"a": "wet"}}),
    "change_row": send("put", "/api/rows/{t.row.pk}", lambda t: {"values": {"a": "wet"}, "version": 1}),
    "remove_row": send("delete", "/api/rows/{t.row.pk}"),
    "restore_row": send("post", "/api/rows/{t.row.pk}/restore"),
    "add_row_file": row_file,
    "paste_rows": send("post", LOG + "/rows/paste", lambda t: {"text": "wet", "apply": True}),
    "download_rows": get(LOG + "/rows.csv"),
    "upload_options": lambda client, t: client.options("/api/uploads"),
    "begin_upload": begin_upload,
    "upload_offset": lambda client, t: client.head(f"/api/uploads/{t.upload.key}", headers=TUS),
    "append_upload": append_upload,
    "end_upload": lambda client, t: client.delete(f"/api/uploads/{t.upload.key}", headers=TUS),
    "settle_upload": send("post", "/api/uploads/{t.upload.key}/settle"),
    "say_again": send("post", EVIDENCE + "/spoken", lambda t: {"artefact": t.recording.pk}),
    "unsay": send("delete", EVIDENCE + "/spoken"),
    "add_text": send("post", BOOK + "/pockets/{t.pocket.pk}/texts", lambda t: {"title": "Notes"}),
    "see_text": get("/api/texts/{t.text.pk}"),
    "write_text": send("put", "/api/texts/{t.text.pk}", lambda t: {"html": "<p>More</p>", "version": 0}),
    "see_text_history": get("/api/texts/{t.text.pk}/history"),
    "rename": send("put", ARTEFACT + "/title", lambda t: {"title": "Bed 3"}),
    "see_artefacts": get(BOOK + "/artefacts"),
    "put_again": send("post", BOOK + "/pockets/{t.pocket.pk}/artefacts", lambda t: {"artefact": t.recording.pk}),
    "copy_starters": send("post", BOOK + "/pockets/{t.pocket.pk}/starters"),
    "move_evidence": send("post", EVIDENCE + "/move"),
    "see_taken_out": get(BOOK + "/taken-out"),
    "see_history": get(EVIDENCE + "/history"),
    "see_page_history": get("/api/pages/{t.loose.pk}/history"),
    "see_revision": get("/api/revisions/{t.revision.pk}"),
    "bring_back": send("post", "/api/revisions/{t.revision.pk}/bring-back", lambda t: {"version": 1}),
    "view_file": get(ARTEFACT + "/view"),
    "view_document": get(ARTEFACT + "/view/document"),
    "view_page": get(ARTEFACT + "/view/pages/1"),
    "comment": send("post", BOOK + "/comments", lambda t: {"text": "Look here.", "evidence": t.evidence.pk}),
    "remove_comment": send("delete", "/api/comments/{t.comment.pk}"),
    "restore_comment": send("post", "/api/comments/{t.comment.pk}/restore"),
    "look": send("post", BOOK + "/look"),
    "see_show_page": get(BOOK + "/show"),
    "arrange_show_page": send(
        "put", BOOK + "/show", lambda t: {"title": "Mine", "shown": [{"evidence": t.evidence.pk}], "version": 1}
    ),
    "open_show_page": send("put", BOOK + "/show/opened", lambda t: {"opened": True, "version": 1}),
    "see_show_pages": get(GROUP + "/shows"),
    "read_shown": get("/api/shown/{t.shown.pk}/file"),
    "read_shown_thumbnail": get("/api/shown/{t.shown.pk}/thumbnails/small"),
    "see_portfolios": get(GROUP + "/portfolios"),
    "see_pocket_of_class": get(GROUP + "/pockets/{t.pocket.pk}"),
    "see_own_pages_of_class": get(GROUP + "/own-pages"),
    "set_reading": send("put", "/api/reading", lambda t: READING),
    "read_file": get(ARTEFACT + "/file"),
    "read_thumbnail": get(ARTEFACT + "/thumbnails/small"),
}
OPEN_TO_ALL = {"see_session", "sign_in", "sign_in_by_card"}
NEEDS_NO_OBJECT = {*OPEN_TO_ALL, "sign_out", "see_feed", "make_feed", "revoke_feed", "set_reading", "upload_options"}
NEEDS_NO_OBJECT |= {
    "see_notices",
    "notices_seen",
    "choose_mail",
    "see_join_requests",
    "see_my_classes",
    "see_whole_pile",
}
NEEDS_NO_OBJECT |= {"change_password", "sign_out_everywhere"}
OF_WHOEVER_BEGAN = {"upload_offset", "append_upload", "end_upload", "settle_upload"}
"""An upload is known to nobody but the student who began it."""
OF_SCHOOL = {
    "see_gallery",
    "see_calendar",
    "read_calendar_file",
    "preview_calendar",
    "change_calendar",
    "see_late_rule",
    "set_late_rule",
    "start_class",
    "see_start",
    "find_colleagues",
    "look_start",
    "look_start_list",
    "see_accounts",
    "add_account",
    "set_active",
    "new_password",
    "find_students",
    "see_accounts_together",
    "look_at_accounts_together",
    "put_accounts_together",
    "take_accounts_apart",
    "see_mails",
    "read_mail",
}
OF_ADMINISTRATOR_TOO = {"settle_join_request", "give_password"}
"""What belongs to a student as a person of the school: an administrator's too."""
# What an allowed call may answer beside success: the state of the objects forbids it, the role does not.
ALLOWED_BUT = {
    "fetch_pocket_from_cupboard": {422},
    "who_did_what": {404},
    "say_own_part": {404},
    "confirm_parts": {404},
    "form_groups": {409},
    "delete_class": {422},
    "take_accounts_apart": {404},
    "move_student": {422},
    "reopen": {409},
    "have_read": {409},
    "sign_in": {403},
    "sign_in_by_card": {403},
    "change_calendar": {409},
    "set_late_rule": {409},
    "see_caseload": {404},
    "withdraw_template": {404},
    "carry_over": {422},
    "undo_brought": {409},
    "bring_in": {404},
    "settle_upload": {404},
    "view_document": {404},
    "view_page": {404},
    "view_given_document": {404},
    "view_given_page": {404},
    "remove_comment": {403},
    # A shared filter is changed by who kept it.
    "change_filter": {403},
    "drop_filter": {403},
    "change_phrase": {403},
    # What is said is taken back by whoever said it; before anything is decided nothing more is shown.
    "remove_annotation": {403},
    "restore_annotation": {403},
    "remove_answer": {403},
    "restore_answer": {403},
    "remove_staff_note": {403},
    # The file is a text: it has no thumbnail, no pages, and its document is not made yet.
    "read_item_thumbnail": {404},
    "view_item_document": {404},
    "view_item_page": {404},
    "remove_class_note": {403},
    "restore_class_note": {403},
    "restore_staff_note": {403},
    "show_annotations": {409},
    # It is marked by one.
    "say_mark_done": {422},
    "choose_wording": {422},
    "drop_phrase": {403},
    "restore_comment": {403},
}


def operations() -> dict[str, Action]:
    """Operation id and its action, of everything in the OpenAPI document."""
    found = {}
    for path in api.get_openapi_schema()["paths"].values():
        for operation in path.values():
            found[operation["operationId"]] = Action[operation["x-action"]]
    return found


class PolicyMatrix(ApiCase):
    @classmethod
    def setUpTestData(cls) -> None:
        cls.own = things("8 Plot", "own")
        cls.other = things("9 Forge", "other")
        cls.people = {
            Role.ADMINISTRATOR: builders.person("admin", administrator=True),
            Role.LEAD: cls.own.of.lead,
            Role.CO_TEACHER: cls.own.of.staff("co", Role.CO_TEACHER),
            Role.MARKER: cls.own.of.staff("marker", Role.MARKER),
            Role.OBSERVER: cls.own.of.staff("observer", Role.OBSERVER),
            Role.STUDENT: cls.own.portfolio.enrolment.person,
        }
        cls.classmate = cls.own.of.student("classmate", "Josh", "Ellery").enrolment.person
        cls.caseload = caseload = klass("Caseload", "coordinator", "caseload")
        cls.coordinator = caseload.lead
        caseload_student = cls.own.portfolio.enrolment.person
        Enrolment.objects.create(
            group=caseload.group, person=caseload_student, first=caseload.group.first, picture="leaf"
        )

    def answer(self, person: Person | None, operation: str, of: Things) -> int:
        """The status of a call; what it did is rolled back."""
        point = transaction.savepoint()
        try:
            return CALLS[operation](self.client_of(person), of).status_code
        finally:
            transaction.savepoint_rollback(point)

    def check(
        self, operation: str, action: Action, person: Person, standing: list[tuple[Role, Relation]], of: Things
    ) -> None:
        status = self.answer(person, operation, of)
        allowed = operation in NEEDS_NO_OBJECT or decide(action, standing).allowed
        if allowed:
            good = status < 300 or status in ALLOWED_BUT.get(operation, set())
            self.assertTrue(good, f"{operation} answered {status}")
        else:
            self.assertEqual(status, 403 if standing and operation not in OF_WHOEVER_BEGAN else 404, operation)

    def test_every_operation_has_a_row(self) -> None:
        self.assertEqual(
            set(operations()), set(CALLS), "each operation needs a call in this table, and none is left over"
        )

    def test_every_operation_by_every_role_on_own_and_foreign_objects(self) -> None:
        for operation, action in operations().items():
            for role, person in self.people.items():
                standing = [] if role is Role.ADMINISTRATOR else [(role, Relation.CLASS)]
                if role is Role.STUDENT and about_a_student(operation):
                    standing = [(role, Relation.OWN)]
                if operation in OF_SCHOOL or (operation in OF_ADMINISTRATOR_TOO and role is Role.ADMINISTRATOR):
                    standing = [(role, Relation.SCHOOL)]
                elif operation == "settle_join_request" and role is not Role.LEAD:
                    standing = []
                with self.subTest(f"{operation} {role} own"):
                    self.check(operation, action, person, standing, self.own)
                with self.subTest(f"{operation} {role} foreign"):
                    # There is one school: what belongs to it is nobody's foreign object.
                    everywhere = operation in OF_SCHOOL or (Role.ADMINISTRATOR, Relation.SCHOOL) in standing
                    self.check(operation, action, person, standing if everywhere else [], self.other)

    def test_whoever_left_reads_what_is_theirs_and_changes_nothing(self) -> None:
        Enrolment.objects.filter(pk=self.own.portfolio.enrolment_id).update(last=TODAY - timedelta(days=1))
        self.standing_of_student(Role.LEAVER)

    def test_when_the_class_is_over_whoever_left_is_a_stranger_and_the_others_go_on_for_a_while(self) -> None:
        self.ended(days=1)
        self.standing_of_student(Role.STUDENT)
        Enrolment.objects.filter(pk=self.own.portfolio.enrolment_id).update(last=TODAY - timedelta(days=9))
        self.standing_of_student(None)

    def test_long_after_a_class_its_lead_and_its_students_read_it_and_other_staff_are_strangers(self) -> None:
        self.ended(days=61)
        self.standing_of_student(Role.LEAVER)
        as_student = {"give_password", "settle_join_request"}
        for operation, action in operations().items():
            if operation in NEEDS_NO_OBJECT | OF_SCHOOL | as_student:
                continue
            with self.subTest(f"{operation} lead"):
                self.check(operation, action, self.people[Role.LEAD], [(Role.OBSERVER, Relation.CLASS)], self.own)
            for role in (Role.CO_TEACHER, Role.MARKER, Role.OBSERVER):
                with self.subTest(f"{operation} {role}"):
                    self.check(operation, action, self.people[role], [], self.own)

    def test_a_caseloads_view_ends_with_the_students_time_in_it_and_with_the_caseload(self) -> None:
        mine = Enrolment.objects.filter(group=self.caseload.group)
        yesterday = TODAY - timedelta(days=1)
        for over in (
            lambda: mine.update(last=yesterday),
            lambda: TeachingGroup.objects.filter(pk=self.caseload.group.pk).update(last=yesterday),
        ):
            for operation in ("see_portfolio", "see_submission", "read_file", "comment", "see_adjustments"):
                with self.subTest(operation), transaction.atomic():
                    self.assertLess(self.answer(self.coordinator, operation, self.own), 300)
                    over()
                    self.assertEqual(self.answer(self.coordinator, operation, self.own), 404)
                    transaction.set_rollback(True)

    def ended(self, days: int) -> None:
        """The class was over so many days ago."""
        TeachingGroup.objects.filter(pk=self.own.of.group.pk).update(last=TODAY - timedelta(days=days))

    def standing_of_student(self, role: Role | None) -> None:
        """Every operation by the student of the class, as what they are there now."""
        # Of what was agreed for a student, and of what is theirs on a show page, another class can be the way.
        elsewhere = {"settle_join_request", "change_adjustment", "remove_adjustment", "read_shown"}
        elsewhere |= {"read_shown_thumbnail"}
        for operation, action in operations().items():
            if operation not in NEEDS_NO_OBJECT | OF_SCHOOL | OF_WHOEVER_BEGAN | elsewhere:
                relation = Relation.OWN if about_a_student(operation) else Relation.CLASS
                with self.subTest(f"{operation} {role}"):
                    standing = [(role, relation)] if role else []
                    self.check(operation, action, self.people[Role.STUDENT], standing, self.own)

    def test_a_classmate_is_a_stranger_to_another_students_work(self) -> None:
        for operation, action in operations().items():
            if about_a_student(operation):
                with self.subTest(operation):
                    self.check(operation, action, self.classmate, [], self.own)

    def test_the_lead_of_a_caseload_sees_its_students_work_and_writes_nothing(self) -> None:
        for operation, action in operations().items():
            with self.subTest(operation):
                standing = [(Role.LEAD, Relation.CASELOAD)] if about_a_student(operation) else []
                if operation in OF_SCHOOL:
                    standing = [(Role.LEAD, Relation.SCHOOL)]
                self.check(operation, action, self.coordinator, standing, self.own)

    def test_without_signing_in_only_the_session_answers(self) -> None:
        for operation in operations():
            with self.subTest(operation):
                status = self.answer(None, operation, self.own)
                self.assertEqual(status in (401,), operation not in OPEN_TO_ALL, f"{operation} answered {status}")

    def test_a_caseload_is_never_shown_to_its_students(self) -> None:
        session = self.ok(self.people[Role.STUDENT], "GET", "/session")
        self.assertEqual([group["name"] for group in session["groups"]], ["8 Plot"])


def about_a_student(operation: str) -> bool:
    """Whether the operation's object belongs to one student (else to the class, or to nobody)."""
    of_class = {"follow_changes", "see_pegs", "see_cell", "see_handins", "preview_handin", "set_handin", "see_pile"}
    of_class |= {"see_arrivals", "see_patterns", "see_load"}
    of_class |= {"see_filters", "keep_filter", "change_filter", "drop_filter"}
    of_class |= {"release_drafts", "undo_released"}
    of_class |= {"see_rubrics", "read_rubric"}
    of_class |= {"see_how_marked", "say_how_marked", "see_sample", "say_open"}
    of_class |= {"see_sheet", "try_sheet", "change_sheet", "take_sheet_along"}
    of_class |= {"see_phrases", "keep_phrase", "change_phrase", "drop_phrase"}
    of_class |= {
        "see_class",
        "change_class",
        "delete_class",
        "put_class_away",
        "bring_class_back",
        "see_staff",
        "find_staff",
        "set_role",
        "hand_over",
        "see_roster",
        "find_known_students",
        "read_pasted_list",
        "read_list_file",
    }
    of_class |= {
        "see_caseload",
        "preview_list",
        "rejected_lines",
        "apply_list",
        "mark_left",
        "undo_list",
        "move_student",
        "swap_pegs",
        "print_cards",
    }
    of_class |= {"void_cards", "see_gallery_state", "publish_template", "withdraw_template", "adopt_template"}
    of_class |= {"carry_over", "bring_in", "look_through", "undo_brought", "restore_taken_away", "take_back_handin"}
    of_class |= {"see_handin", "lay_out_handin_like", "preview_handin_change", "change_handin"}
    of_class |= {"take_away_handin", "bring_back_handin", "excuse_many", "move_dues", "restore_dues"}
    of_class |= {"lock_cells", "lock_pocket", "hand_in_for", "send_back_many"}
    of_class |= {"undo_locks", "undo_handed_in_for", "undo_sent_back_many"}
    of_class |= {"see_cupboard", "put_in_cupboard", "put_file_in_cupboard", "see_item", "read_item", "change_item"}
    of_class |= {"change_item_file", "remove_item", "restore_item", "see_copies", "look_at_giving", "give_out"}
    of_class |= {"lend_item", "allow_pages_together", "see_own_pages_of_class"}
    of_class |= {"see_given_out", "see_given_to", "take_given_back", "give_again"}
    of_class |= {"read_item_file", "read_item_thumbnail", "view_item", "view_item_document", "view_item_page"}
    of_class |= {"see_class_notes", "tell_class", "remove_class_note", "restore_class_note"}
    of_class |= {"accept_many", "undo_accepted_many", "reopen_many", "undo_reopened_many"}
    of_class |= {"take_results", "see_figures", "see_flags", "see_class_log", "take_class_log_along"}
    of_class |= {"move_on", "move_back", "take_back_series", "lay_out_handins", "take_up_handins"}
    of_class |= {"ask_for_pack", "see_pack", "read_pack"}
    of_class |= {"remind", "see_reminders", "take_pegs_along"}
    of_class |= {"see_template", "add_section", "change_section", "move_section", "remove_section", "add_pocket"}
    of_class |= {
        "see_template_draft",
        "look_at_template_draft",
        "save_template_draft",
        "read_outline",
        "lay_out_outline",
        "read_log_columns",
        "read_units",
    }
    of_class |= {"preview_units", "set_units", "see_drops", "open_drop", "put_aside", "set_by_itself"}
    of_class |= {"see_own_requests", "withdraw_request", "see_list_changes"}
    of_class |= {"see_sets", "make_set", "rename_set", "remove_set", "make_group", "rename_group", "remove_group"}
    of_class |= {"move_into_group", "keep_wishes", "draw_groups", "form_groups", "open_choice", "choose_group"}
    of_class |= {"place_students", "see_asked", "see_portfolios", "see_pocket_of_class"}
    of_class |= {"see_show_pages", "read_shown", "read_shown_thumbnail"}
    of_class |= {"put_pocket_in_cupboard", "fetch_pocket_from_cupboard"}
    of_class |= {"add_handin_file", "add_pocket_file", "add_waiting_file", "remove_pocket_file", "restore_pocket_file"}
    of_class |= {"read_given_file", "read_given_thumbnail"}
    of_class |= {"view_given_file", "view_given_document", "view_given_page"}
    of_class |= {"preview_pocket", "change_pocket", "move_pocket", "retire_pocket", "remove_pocket"}
    return operation not in of_class | NEEDS_NO_OBJECT | OF_SCHOOL | OF_ADMINISTRATOR_TOO
