"""Looking in over a class: one pocket of everybody beside each other, and whose portfolio comes next.

A fixed number of queries.
"""

from __future__ import annotations

from collections import defaultdict
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.outlines.filling import PocketKind, Shared, filled
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.cupboard.copies import opened_of
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.outlines.reading import PocketOutline
from coatpeg.people.access import require_in_group
from coatpeg.people.faces import face
from coatpeg.people.groups import set_called
from coatpeg.people.models import GroupMember, Person
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.counting import NO_CONTENT
from coatpeg.portfolios.models import Evidence, Look, LoosePage, Portfolio

FIRST_WORDS = 160
"""Characters of a text that stand in the place of a picture."""


def portfolios(person: Person, group_id: int, now: datetime) -> list[dict[str, Any]]:
    """The portfolios of a class by name, each with the last work in it and whether that is new to this person."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    looks = dict(
        Look.objects.filter(person=person, portfolio__enrolment__group_id=group_id).values_list("portfolio", "at")
    )
    ids = _portfolio_ids(group_id)
    found = []
    for member in view.members:
        portfolio, last = ids.get(member.enrolment_id), view.last_work(member)
        if portfolio is None:  # enrolled, or taken off the list again, between two statements
            continue
        looked = looks.get(portfolio)
        found.append(
            {
                **face(member),
                "portfolio": portfolio,
                "last_work": last,
                "new": last is not None and (looked is None or last > looked),
            }
        )
    return found


def _portfolio_ids(group_id: int) -> dict[int, int]:
    return dict(Portfolio.objects.filter(enrolment__group_id=group_id).values_list("enrolment_id", "pk"))


def pocket_of_class(person: Person, group_id: int, pocket_id: int, now: datetime) -> dict[str, Any]:
    """One pocket over the class.

    For each student how far it is filled, its words, its newest work, and something to see of it.
    """
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    pocket = next((one for one in view.outline if one.id == pocket_id), None)
    if pocket is None:
        raise Gone("There is no such pocket in this class.", fix="Choose another one.")
    ids = _portfolio_ids(group_id)
    evidence: dict[int, list[Evidence]] = defaultdict(list)
    lying = Evidence.objects.filter(pocket_id=pocket_id, removed_at=None, portfolio__enrolment__group_id=group_id)
    for one in lying.select_related("artefact__stored", "artefact__written_text"):
        evidence[one.portfolio_id].append(one)
    given = opened_of(pocket_id)
    alike = _filled_with(group_id, pocket, view)
    return {
        "pocket": {"id": pocket.id, "title": pocket.title},
        "kind": pocket.kind.value,
        "pockets": [{"id": one.id, "title": one.title} for one in view.outline if not one.retired],
        "students": [
            {
                **face(one),
                "portfolio": ids[one.enrolment_id],
                **_seen(view, one, pocket, evidence[ids[one.enrolment_id]]),
                "given": ids[one.enrolment_id] in given,
                "opened": given.get(ids[one.enrolment_id], False),
                "together": alike.get(one.enrolment_id, ""),
            }
            for one in view.members
            if one.enrolment_id in ids
        ],
    }


def _filled_with(group_id: int, pocket: PocketOutline, view: Situation) -> dict[int, str]:
    """Which students (enrolments) see the same in a pocket, by a word for those who fill it; one query for groups.

    Where each puts in research of their own that the others read, everybody's is looked at.
    """
    company = pocket.company
    if company is None or (pocket.own_part and pocket.kind is not PocketKind.PAGE):
        return {}
    if company.shared is Shared.CLASS:
        return {one.enrolment_id: "class" for one in view.members}
    if company.shared is Shared.PERIOD:
        return {one.enrolment_id: f"period {one.period_id}" for one in view.members if one.period_id is not None}
    of = set_called(group_id, company.group_set)
    inside = GroupMember.objects.filter(workinggroup__of=of).order_by("-workinggroup__name", "-workinggroup")
    return {enrolment: f"group {group}" for enrolment, group in inside.values_list("enrolment", "workinggroup")}


def own_pages_of_class(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The pages that students made by themselves, by student and in their order; the pockets to go back to."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    faces = {one.enrolment_id: face(one) for one in view.members}
    place = {one: at for at, one in enumerate(faces)}
    rows = LoosePage.objects.filter(portfolio__enrolment__group_id=group_id, removed_at=None)
    pages = [
        {
            **faces[one.portfolio.enrolment_id],
            "portfolio": one.portfolio_id,
            "page": {"id": one.pk, "title": one.title},
            "words": one.words,
            "text": one.text[:FIRST_WORDS],
            "last_work": one.changed_at,
            "together": f"page {one.together}" if one.together is not None else "",
        }
        for one in rows.select_related("portfolio").order_by("position", "pk")
        if one.portfolio.enrolment_id in faces
    ]
    return {
        "pages": sorted(pages, key=lambda one: place[one["id"]]),
        "pockets": [{"id": one.id, "title": one.title} for one in view.outline if not one.retired],
    }


def _seen(view: Situation, member: Any, pocket: PocketOutline, evidence: list[Evidence]) -> dict[str, Any]:
    content = view.contents.get((member.enrolment_id, pocket.id), NO_CONTENT)
    units = filled(view.wanted(member, pocket), content.pieces)
    pictured = next(
        (one.artefact for one in evidence if one.artefact and one.artefact.kind in ("picture", "scan")), None
    )
    first = pictured or next((one.artefact for one in evidence if one.artefact), None)
    is_log = pocket.kind is PocketKind.LOG
    written = [one.artefact.written_text for one in evidence if one.artefact and one.artefact.kind == ArtefactKind.TEXT]
    return {
        "met": units.met,
        "wanted": units.wanted,
        "begun": content.has_work,
        "locked": (member.enrolment_id, pocket.id) in view.frozen,
        "words": sum(one.words for one in evidence) + sum(one.words for one in written),
        "artefacts": sum(1 for one in evidence if one.artefact_id),
        "rows": len(content.pieces) if is_log else 0,
        "last_work": content.last_work_at,
        "artefact": artefact_data(first) if first else None,
        "text": next((one.text[:FIRST_WORDS] for one in (*evidence, *written) if one.text.strip()), ""),
    }
