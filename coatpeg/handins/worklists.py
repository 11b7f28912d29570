"""The student's views: my pockets, one pocket, what to hand in."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.asking import EffectiveDue
from coatpeg.core.errors import Gone
from coatpeg.core.filling import Piece, PocketKind, chips, filled
from coatpeg.core.names import full
from coatpeg.core.policy import Action
from coatpeg.core.standing import Standing, Status
from coatpeg.core.worklist import pocket_coat, to_do, urgency
from coatpeg.handins.asking import AskedHandIn
from coatpeg.handins.board import face, standing_data, submissions_of
from coatpeg.handins.situation import Situation, facts_in, situation
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import PocketOutline, chip_data, pockets_of
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios import comments, looks, own, starters
from coatpeg.portfolios.contents import NO_CONTENT, artefact_data, inside
from coatpeg.portfolios.dealing import version_of
from coatpeg.portfolios.log_reading import log_data
from coatpeg.portfolios.models import Evidence, Portfolio, StandingHold
from coatpeg.portfolios.pocket_files import file_data, files_of


def readable(person: Person, portfolio_id: int, action: Action = Action.SEE_PORTFOLIO) -> Portfolio:
    """A portfolio that this person may look into."""
    found = (
        Portfolio.objects.filter(pk=portfolio_id)
        .select_related("enrolment__person", "enrolment__group", "cover_picture__stored")
        .first()
    )
    if found is None:
        raise Gone("There is no such portfolio.", fix="Go back.")
    require_for_student(person, action, found.enrolment)
    return found


def my_pockets(person: Person, portfolio_id: int, now: datetime) -> dict[str, Any]:
    """A portfolio's pockets with their coats, and how far it is filled."""
    portfolio = readable(person, portfolio_id)
    view = situation(portfolio.enrolment.group_id, now, enrolment_id=portfolio.enrolment_id)
    member = view.members[0]
    today, whole = view.filled(member, whole=False), view.filled(member, whole=True)
    waiting = [one for one in view.handins if to_do(view.standings[member.enrolment_id, one.id])]
    return {
        "id": portfolio.pk,
        "student": {**face(member), "full_name": full(member.family_name, member.given_name)},
        "group": {"id": portfolio.enrolment.group_id, "name": portfolio.enrolment.group.name},
        "mine": portfolio.enrolment.person_id == person.pk,
        "met": today.met,
        "wanted": today.wanted,
        "met_whole": whole.met,
        "wanted_whole": whole.wanted,
        "to_hand_in": len(waiting),
        "since": looks.since(person, portfolio) if portfolio.enrolment.person_id != person.pk else None,
        "cover": own.cover_data(portfolio),
        "pages": [{"id": one.pk, "title": one.title, "words": one.words} for one in own.pages_of(portfolio)],
        "pockets": [_line(view, pocket) for pocket in view.outline if _shown(view, pocket)],
    }


def _shown(view: Situation, pocket: PocketOutline) -> bool:
    """A retired pocket stays only where there is work in it."""
    content = view.contents.get((view.members[0].enrolment_id, pocket.id), NO_CONTENT)
    return not pocket.retired or content.has_work


def _line(view: Situation, pocket: PocketOutline) -> dict[str, Any]:
    member = view.members[0]
    key = (member.enrolment_id, pocket.id)
    content = view.contents.get(key, NO_CONTENT)
    units = filled(view.wanted(member, pocket), content.pieces)
    collecting = [one for one in view.handins if pocket.id in one.pockets]
    candidates = [
        (view.standings[member.enrolment_id, one.id], view.dues[member.enrolment_id, one.id].moment)
        for one in collecting
    ]
    coat = pocket_coat(candidates)
    status = Status.WORKING if content.has_work else Status.EMPTY
    if not pocket.open_on(view.today):
        status = Status.NOT_OPEN
    by_itself = Standing(status, False, 0, None, False, None)
    return {
        "id": pocket.id,
        "title": pocket.title,
        "section": pocket.section,
        "kind": pocket.kind.value,
        "opens": None if pocket.open_on(view.today) else pocket.opens,
        "retired": pocket.retired,
        "met": units.met,
        "wanted": units.wanted,
        "locked": key in view.frozen,
        "last_work": content.last_work_at,
        **standing_data(coat or by_itself),
        "due": _next_due(view, collecting),
    }


def _next_due(view: Situation, collecting: list[AskedHandIn]) -> Any:
    """The local due date of what is next to hand in from a pocket; None where nothing is."""
    enrolment = view.members[0].enrolment_id
    waiting = [one for one in collecting if to_do(view.standings[enrolment, one.id])]
    dues = [view.dues[enrolment, one.id].due for one in waiting]
    return min((due.day for due in dues if due), default=None)


def opened_pocket(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> dict[str, Any]:
    """One pocket: what is asked, what lies in it, what is still wanted, and the hand-ins that collect it."""
    portfolio = readable(person, portfolio_id)
    enrolment = portfolio.enrolment
    pocket = pockets_of(enrolment.group_id).filter(pk=pocket_id).first()
    if pocket is None:
        raise Gone("There is no such pocket in this portfolio.", fix="Go back to the pockets.")
    view = situation(enrolment.group_id, now, enrolment_id=enrolment.pk)
    held = list(StandingHold.objects.filter(portfolio=portfolio, pocket=pocket).order_by("since"))
    lying = inside(portfolio.pk, pocket)
    outlined = next(one for one in view.outline if one.id == pocket.pk)
    wanted = view.wanted(view.members[0], outlined)
    units = filled(wanted, lying.pieces)
    version = version_of(pocket, enrolment.pk)
    is_log = pocket.kind == PocketKind.LOG
    return {
        "id": pocket.pk,
        "title": pocket.title,
        "kind": pocket.kind,
        "directions": (version and version.directions) or pocket.directions,
        "files": [file_data(one) for one in files_of(pocket)],
        "starters": len(starters.waiting(portfolio, pocket)) if enrolment.person_id == person.pk else 0,
        "version": version.name if version and enrolment.person_id != person.pk else "",
        "prompt": pocket.prompt,
        "starter": (version and version.starter) or pocket.starter,
        "measure": wanted.length.measure.value if wanted.length else "",
        "least": wanted.length.least if wanted.length else 1,
        "most": wanted.length.most if wanted.length else None,
        "spoken": wanted.spoken,
        "takes": pocket.takes,
        "excused": wanted.excused,
        "opens": pocket.opens if pocket.opens and pocket.opens > view.today else None,
        "retired": pocket.retired_at is not None,
        "locked_by": [{"handin": hold.handin_id, "title": hold.title, "since": hold.since} for hold in held],
        "writable": enrolment.person_id == person.pk and (is_log or not held) and _workable(view, pocket, enrolment),
        "chips": chip_data(chips(wanted, lying.pieces)),
        "met": units.met,
        "wanted": units.wanted,
        "evidence": [_evidence_data(one, piece) for one, piece in zip(lying.evidence, lying.pieces, strict=False)],
        "comments": comments.comment_data(comments.of_pocket(portfolio, pocket.pk), person),
        "log": log_data(pocket, lying.rows, max((hold.since for hold in held), default=None)) if is_log else None,
        "handins": [handin_data(view, one) for one in view.handins if pocket_id in one.pockets],
    }


def _workable(view: Situation, pocket: Pocket, enrolment: Enrolment) -> bool:
    """Whether its student may still, or already, work in a pocket, held or not."""
    left = enrolment.last is not None and enrolment.last < view.today
    return not left and pocket.retired_at is None and (pocket.opens is None or pocket.opens <= view.today)


def _evidence_data(one: Evidence, piece: Piece) -> dict[str, Any]:
    """Evidence in an open pocket as plain data."""
    return {
        "id": one.pk,
        "text": one.text,
        "version": one.version,
        "words": one.words,
        "sentences": one.sentences,
        "changed_at": one.changed_at,
        "artefact": artefact_data(one.artefact) if one.artefact else None,
        "html": one.html,
        "unchanged": piece.unchanged,
        "spoken": artefact_data(one.spoken) if one.spoken else None,
    }


def handin_data(view: Situation, handin: AskedHandIn) -> dict[str, Any]:
    """One hand-in as its student sees it, with all their submissions."""
    enrolment = view.members[0].enrolment_id
    due = view.dues[enrolment, handin.id]
    return {
        "id": handin.id,
        "title": handin.title,
        "points": float(handin.points) if handin.points is not None else None,
        "opens": handin.asked.opens,
        **standing_data(view.standings[enrolment, handin.id]),
        **due_data(due),
        "due_in": view.calendar.between(view.today, due.due.day) if due.due and due.due.day >= view.today else None,
        "due_again": facts_in(view, enrolment, handin.id).due_again,
        "count": facts_in(view, enrolment, handin.id).submissions,
        "pockets": [{"id": pocket.id, "title": pocket.title} for pocket in view.outline if pocket.id in handin.pockets],
        "submissions": submissions_of(handin.id, enrolment),
    }


def due_data(due: EffectiveDue) -> dict[str, Any]:
    """A due as plain data: local date and time, and the moment."""
    return {
        "due": due.due.day if due.due else None,
        "due_time": due.due.at if due.due else None,
        "due_at": due.moment,
        "extra_days": due.extra_days,
    }


def to_hand_in(person: Person, portfolio_id: int, now: datetime) -> dict[str, Any]:
    """What a student still has to hand in, in a calm order, then what is in and what opens later."""
    portfolio = readable(person, portfolio_id, Action.SEE_WORKLIST)
    view = situation(portfolio.enrolment.group_id, now, enrolment_id=portfolio.enrolment_id)
    enrolment = portfolio.enrolment_id
    shown = [one for one in view.handins if view.standings[enrolment, one.id].status is not Status.NOT_ASKED]
    waiting = [one for one in shown if to_do(view.standings[enrolment, one.id])]
    waiting.sort(key=lambda one: urgency(view.standings[enrolment, one.id], view.dues[enrolment, one.id].moment))
    return {
        "to_do": [{**handin_data(view, one), "wanting": _wanting(view, one)} for one in waiting],
        "others": [{**handin_data(view, one), "wanting": []} for one in shown if one not in waiting],
    }


def _wanting(view: Situation, handin: AskedHandIn) -> list[dict[str, Any]]:
    """The pockets that a hand-in collects, each with the chips of what is still wanted there."""
    member = view.members[0]
    found = []
    for pocket in view.outline:
        if pocket.id in handin.pockets:
            content = view.contents.get((member.enrolment_id, pocket.id), NO_CONTENT)
            missing = [one for one in chips(view.wanted(member, pocket), content.pieces) if not one.met]
            if missing:
                found.append({"id": pocket.id, "title": pocket.title, "chips": chip_data(missing)})
    return found
