"""A student's pockets: all of them with their coats, and one opened."""

from __future__ import annotations

from collections.abc import Mapping, Set
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.handins.standing import Standing, Status
from coatpeg.core.handins.worklist import pocket_coat
from coatpeg.core.outlines.filling import Company, Piece, PocketKind, chips, filled
from coatpeg.core.policy import Action, allowed, decide
from coatpeg.cupboard.copies import copies_in
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.lines import standing_data
from coatpeg.handins.student.standing import handins_data, waits
from coatpeg.outlines.dealing import version_of
from coatpeg.outlines.given_files import file_data, files_of
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import PocketOutline, chip_data, pockets_of
from coatpeg.people.access import to_student
from coatpeg.people.faces import face
from coatpeg.people.groups import open_choices
from coatpeg.people.models import Enrolment, Person
from coatpeg.people.shapes import may_words
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.counting import NO_CONTENT, work_in
from coatpeg.portfolios.evidence import starters
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.logs.reading import log_data
from coatpeg.portfolios.looking import comments, looks
from coatpeg.portfolios.models import Evidence, StandingHold
from coatpeg.portfolios.own import cover, pages
from coatpeg.sharing.finding import mates_of
from coatpeg.sharing.things import givers


def my_pockets(person: Person, portfolio_id: int, now: datetime) -> dict[str, Any]:
    """A portfolio's pockets with their coats, and how far it is filled."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    view = situation(portfolio.enrolment.group_id, now, enrolments=(portfolio.enrolment_id,))
    member = view.members[0]
    today, whole = view.filled(member, whole=False), view.filled(member, whole=True)
    waiting = [one for one in view.handins if waits(view, one)]
    mates = mates_of(portfolio.enrolment, {one.company for one in view.outline if one.company}, view.today)
    return {
        "id": portfolio.pk,
        "student": {**face(member), "full_name": member.full_name},
        "group": {"id": portfolio.enrolment.group_id, "name": portfolio.enrolment.group.name},
        "mine": portfolio.enrolment.person_id == person.pk,
        "may": may_words(allowed(to_student(person, portfolio.enrolment))),
        "met": today.met,
        "wanted": today.wanted,
        "met_whole": whole.met,
        "wanted_whole": whole.wanted,
        "to_hand_in": len(waiting),
        "since": looks.since(person, portfolio) if portfolio.enrolment.person_id != person.pk else None,
        "cover": cover.cover_data(portfolio),
        "pages": pages.listed(portfolio),
        "begins_together": portfolio.enrolment.group.pages_together and portfolio.enrolment.person_id == person.pk,
        "choices": open_choices(portfolio.enrolment, view.today) if portfolio.enrolment.person_id == person.pk else [],
        "sections": _sections(view, frozenset(of for one in waiting for of in one.pockets)),
        "pockets": [_line(view, pocket, mates) for pocket in view.outline if _shown(view, pocket)],
    }


def _sections(view: Situation, waiting: Set[int]) -> list[dict[str, Any]]:
    """The sections of the pockets that are shown, in order; ``waiting`` are pockets that a hand-in still wants."""
    inside: dict[int, list[PocketOutline]] = {}
    for pocket in view.outline:
        if _shown(view, pocket):
            inside.setdefault(pocket.section_id, []).append(pocket)
    found = []
    for section_id, pockets in inside.items():
        units = view.filled_in(pockets, view.members[0], whole=False)
        found.append(
            {
                "id": section_id,
                "title": pockets[0].section,
                "met": units.met,
                "wanted": units.wanted,
                "waits": any(one.id in waiting for one in pockets),
            }
        )
    return found


def _shown(view: Situation, pocket: PocketOutline) -> bool:
    """A retired pocket stays only where there is work in it."""
    content = view.contents.get((view.members[0].enrolment_id, pocket.id), NO_CONTENT)
    return not pocket.retired or content.has_work


def _line(view: Situation, pocket: PocketOutline, mates: Mapping[Company, list[dict[str, Any]]]) -> dict[str, Any]:
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
        "section_id": pocket.section_id,
        "kind": pocket.kind.value,
        "opens": None if pocket.open_on(view.today) else pocket.opens,
        "retired": pocket.retired,
        "met": units.met,
        "wanted": units.wanted,
        "locked": key in view.frozen,
        "last_work": content.last_work_at,
        "together": mates.get(pocket.company, []) if pocket.company else [],
        **standing_data(coat or by_itself),
        "due": _next_due(view, collecting),
    }


def _next_due(view: Situation, collecting: list[AskedHandIn]) -> Any:
    """The local due date of what is next to hand in from a pocket; None where nothing is."""
    enrolment = view.members[0].enrolment_id
    waiting = [one for one in collecting if waits(view, one)]
    dues = [view.dues[enrolment, one.id].due for one in waiting]
    return min((due.day for due in dues if due), default=None)


def opened_pocket(person: Person, portfolio_id: int, pocket_id: int, now: datetime) -> dict[str, Any]:
    """One pocket: what is asked, what lies in it, what is still wanted, and the hand-ins that collect it."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    enrolment = portfolio.enrolment
    pocket = pockets_of(enrolment.group_id).filter(pk=pocket_id).first()
    view = situation(enrolment.group_id, now, enrolments=(enrolment.pk,))
    outlined = next((one for one in view.outline if one.id == pocket_id), None)
    if pocket is None or outlined is None:  # never there, or taken away in this moment
        raise Gone("There is no such pocket in this portfolio.", fix="Go back to the pockets.")
    held = list(
        StandingHold.objects.filter(portfolio=portfolio, pocket=pocket).select_related("person").order_by("since")
    )
    lying = work_in(portfolio.pk, pocket)
    wanted = view.wanted(view.members[0], outlined)
    units = filled(wanted, lying.pieces)
    version = version_of(pocket, enrolment.pk)
    copied, unopened = copies_in(portfolio, pocket)
    by = givers(lying.rows or lying.evidence) if pocket.shared else {}
    is_log = pocket.kind == PocketKind.LOG
    return {
        "id": pocket.pk,
        "title": pocket.title,
        "kind": pocket.kind,
        "directions": (version and version.directions) or pocket.directions,
        "files": [file_data(one) for one in files_of(pocket, version.key if version else "")],
        "starters": len(starters.waiting(portfolio, pocket)) if enrolment.person_id == person.pk else 0,
        "version": version.name if version and enrolment.person_id != person.pk else "",
        "prompt": pocket.prompt,
        "starter": (version and version.starter) or pocket.starter,
        "measure": wanted.length.measure.value if wanted.length else "",
        "least": wanted.length.least if wanted.length else 1,
        "most": wanted.length.most if wanted.length else None,
        "spoken": wanted.spoken and not pocket.shared,
        "takes": pocket.takes,
        "shared": pocket.shared,
        "own_part": pocket.own_part,
        "excused": wanted.excused,
        "opens": pocket.opens if pocket.opens and pocket.opens > view.today else None,
        "retired": pocket.retired_at is not None,
        "locked_by": [_hold_data(hold) for hold in held],
        "writable": (is_log or not held)
        and decide(Action.FILL_POCKET, to_student(person, enrolment)).allowed
        and not (pocket.shared and pocket.kind == PocketKind.PAGE)
        and _workable(view, pocket, enrolment),
        "chips": chip_data(chips(wanted, lying.pieces)),
        "met": units.met,
        "wanted": units.wanted,
        "unopened": unopened if enrolment.person_id == person.pk else 0,
        "evidence": [
            {**_evidence_data(one, piece), "copy_of": copied.get(one.pk, ""), "by": by.get(one.pk)}
            for one, piece in zip(lying.evidence, lying.pieces, strict=False)
        ],
        "comments": comments.comment_data(comments.of_pocket(portfolio, pocket.pk), person),
        "log": log_data(pocket, lying.rows, max((hold.since for hold in held), default=None), by) if is_log else None,
        "handins": handins_data(view, (one for one in view.handins if pocket_id in one.pockets)),
    }


def _hold_data(hold: StandingHold) -> dict[str, Any]:
    by = hold.person.full_name if hold.person else ""
    return {"handin": hold.handin_id, "title": hold.title, "since": hold.since, "by": by, "reason": hold.reason}


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
