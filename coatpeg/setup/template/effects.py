"""What a change of the template does to student work: counted anew, kept readable or taken away, and what it means.

Call these within a deed, with the template locked.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import replace
from datetime import datetime
from typing import Any

from django.db import transaction
from django.db.models import Q

from coatpeg.core.errors import Refused
from coatpeg.core.handins.standing import Status
from coatpeg.core.outlines.filling import PocketKind, Wanted
from coatpeg.core.outlines.plan import Impact, StudentPocket, impact
from coatpeg.events.recording import Deed
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.models import HandIn
from coatpeg.outlines import editing, repeating
from coatpeg.outlines.models import Pocket, Section, Template
from coatpeg.outlines.reading import PocketOutline, outline
from coatpeg.outlines.rich_text import in_words, words_of
from coatpeg.people.rosters import Member
from coatpeg.portfolios import counting
from coatpeg.portfolios.logs import rows
from coatpeg.portfolios.models import Evidence, LogRow, PocketContent
from coatpeg.portfolios.writing import lock_portfolios
from coatpeg.sharing.models import SharedPage
from coatpeg.sharing.settling import count_anew

NOTHING = Wanted(PocketKind.EVIDENCE)
WAITING = (Status.NOT_OPEN, Status.EMPTY, Status.WORKING, Status.SENT_BACK)


def present(view: Situation) -> Iterator[Member]:
    """Everybody who is in the class today or will be."""
    return (one for one in view.members if one.student.enrolled.last is None or one.student.enrolled.last >= view.today)


def used(pocket: Pocket) -> bool:
    """Whether anybody ever put anything in a pocket, or a hand-in names it: then it is never deleted.

    What a hand-in collects only since it follows the template is not named by it, until somebody has handed it in.
    """
    return (
        Evidence.objects.filter(pocket=pocket).exists()
        or LogRow.objects.filter(pocket=pocket).exists()
        or SharedPage.objects.filter(pocket=pocket, number__gt=0).exists()
        or HandIn.objects.filter(pockets=pocket).exclude(follows=True, submissions=None).exists()
    )


def take_away(pocket: Pocket) -> None:
    """Delete a pocket that nobody used."""
    PocketContent.objects.filter(pocket=pocket).delete()
    pocket.delete()


def recount(pocket: Pocket, starters: Iterable[str], log: Mapping[str, Any], now: datetime) -> None:
    """Count anew what other settings change: texts that read like a new starter, rows that lacked something, whether
    each one's own counts in what many fill.

    ``starters`` and ``log`` are those of before.
    """
    new = {words_of(one) for one in set(editing.starters_of(pocket)) - set(starters)}
    if new:
        lying = Evidence.objects.filter(pocket=pocket, removed_at=None).select_related("portfolio")
        for one in lying:
            if in_words(one.text) in new:
                counting.refresh(one.portfolio, pocket, now)
    rows.rejudge(pocket, log, now)
    if pocket.shared:
        count_anew(pocket, now)


def locked_with_work(group_id: int) -> Template:
    """A class's template and all its portfolios, locked: the first step of every change of a template.

    Nobody writes into a portfolio until its pockets are counted anew. All are locked before any pocket is written:
    a student's save holds its portfolio and waits for the pocket it names, so the other order would wait in a ring.
    """
    template = editing.locked_template(group_id)
    lock_portfolios(group_id)
    return template


def recount_files(pocket: Pocket, now: datetime) -> None:
    """Count anew the few pockets in which the new starter's very file lies."""
    given = set(pocket.starter_hashes)
    same = Evidence.objects.filter(pocket=pocket, removed_at=None).filter(
        Q(artefact__came_sha256__in=given) | Q(artefact__stored__sha256__in=given)
    )
    for one in same.select_related("portfolio"):
        counting.refresh(one.portfolio, pocket, now)


def refuse_collected_alone(group_id: int, pocket: Pocket, now: datetime) -> None:
    """A hand-in is under way while anybody still has to hand it in; the only pocket it collects cannot be retired."""
    view = situation(group_id, now)
    for handin in view.handins:
        others = [one for one in view.outline if one.id in handin.pockets and one.id != pocket.pk and not one.retired]
        open_for = [one for one in present(view) if view.standings[one.enrolment_id, handin.id].status in WAITING]
        if pocket.pk in handin.pockets and not others and open_for:
            raise Refused(
                f"“{handin.title}” collects only this pocket, and {len(open_for)} students still have to hand it in.",
                where=pocket.title,
                fix="Let the hand-in collect another pocket too, or wait until it is done.",
            )


def relay(doing: Deed, group_id: int, pattern: Section) -> repeating.LaidOut:
    """Lay a repeating section out again; what it lays out no more is retired where it was used, else taken away."""
    laid_out = repeating.lay(pattern)
    for one in laid_out.rewritten:
        recount(one.pocket, one.starters, one.log, doing.now)
    for pocket in laid_out.surplus:
        if used(pocket):
            refuse_collected_alone(group_id, pocket, doing.now)
            editing.set_retired(pocket, doing.now)
        else:
            take_away(pocket)
    repeating.sweep(pattern.template_id)
    doing.record(
        "units_laid_out",
        group_id,
        section=pattern.pk,
        added=len(laid_out.added),
        changed=len(laid_out.rewritten),
        gone=len(laid_out.surplus),
    )
    return laid_out


def meaning(group_id: int, now: datetime, change: Callable[[], object]) -> tuple[Situation, Impact]:
    """What any change of a template would mean: done, looked at, and rolled back. Returns the class as it stands.

    The template is locked meanwhile, so that it waits for a change that is being made; the work in it only while the
    change is tried, so that students wait for that and not for all that is worked out.
    """
    with transaction.atomic():
        editing.locked_template(group_id)
        before = situation(group_id, now, with_weeks=True)
        lock_portfolios(group_id)
        change()
        after = replace(before, outline=outline(group_id))
        transaction.set_rollback(True)
    return before, impact(_student_pockets(before, after))


def _student_pockets(before: Situation, after: Situation) -> Iterator[StudentPocket]:
    """Every student towards every pocket that counts before or after."""
    pockets = _counting(before), _counting(after)
    for member in present(before):
        for pocket_id in pockets[0].keys() | pockets[1].keys():
            was, then = (
                view.wanted(member, of[pocket_id]) if pocket_id in of else NOTHING
                for view, of in zip((before, after), pockets, strict=True)
            )
            content = before.contents.get((member.enrolment_id, pocket_id), counting.NO_CONTENT)
            yield StudentPocket(member.enrolment_id, was, then, content.pieces)


def _counting(view: Situation) -> dict[int, PocketOutline]:
    return {one.id: one for one in view.outline if one.counts and not one.retired}


def names_of(view: Situation, enrolments: Iterable[int]) -> tuple[str, ...]:
    """The listed names of some students."""
    names = {one.enrolment_id: one.listed for one in view.members}
    return tuple(names[one] for one in enrolments)
