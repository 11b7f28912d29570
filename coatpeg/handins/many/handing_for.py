"""Staff hand in for students: what came on paper, by mail, or lies in the pockets of somebody who is away.

Decided here: what lies in the collected pockets is frozen, also where nothing does (it came on paper), and locks as if
the student had handed it in. It counts from the moment that staff give as received, never from one to come; who handed
it in, when and how the work came stand with the submission for everybody who sees it, and the student is told.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import uuid4

from coatpeg.core.errors import Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.many import Why, why_not_hand_in_for
from coatpeg.core.handins.snapshots import digest
from coatpeg.core.handins.standing import Happening, Verb
from coatpeg.core.outlines.filling import Wanted
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.board.situation import Situation, facts_in
from coatpeg.handins.handing.holding import take
from coatpeg.handins.handing.records import keep_many
from coatpeg.handins.handing.submitting import Lying, flags_of, freeze, given_before, keep_theirs, new_receipts
from coatpeg.handins.many.choosing import Chosen, Seen, Touched, by_handin, sorted_out
from coatpeg.handins.models import HandIn, Submission
from coatpeg.notices.putting import put_many
from coatpeg.outlines.dealing import versions_of
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios.counting import works_of
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import lock_portfolios


@dataclass(frozen=True, slots=True)
class Received:
    """When the work was received (None: now), as a local date with an optional time, and how it came."""

    when: Due | None = None
    how: str = "other"


def hand_in_for(
    person: Person, group_id: int, seen: Sequence[Seen], received: Received, now: datetime, *, only_look: bool = False
) -> tuple[Touched, str]:
    """Hand in for students; returns what was touched and the deed's name, by which it can be undone."""
    require_in_group(person, Action.HAND_IN_FOR, group_id)
    at = _moment(group_id, received, now)

    def why_not(_: Situation, one: Chosen) -> Why | None:
        return why_not_hand_in_for(one.status)

    if only_look:
        return sorted_out(group_id, seen, now, why_not)[2], ""
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        view, done, touched = sorted_out(group_id, seen, now, why_not)
        for handin_id, of in by_handin(done).items():
            handin = HandIn.objects.prefetch_related("pockets").get(pk=handin_id)
            submit(doing, person, handin, of, view, at, received.how, name)
        return touched, name


def _moment(group_id: int, received: Received, now: datetime) -> datetime:
    """The moment from which it counts; a day alone means its end, but never a moment to come."""
    if received.when is None:
        return now
    check_class_days(group_id, day=received.when.day)
    calendar = school_calendar()
    if received.when.day > calendar.local_day(now) or (received.when.at and received.when.moment(calendar) > now):
        raise Invalid("That moment has not come yet.", where="day", fix="Give the day on which the work was received.")
    return min(received.when.moment(calendar), now)


def submit(
    doing: Deed,
    person: Person | None,
    handin: HandIn,
    of: Sequence[Chosen],
    view: Situation,
    at: datetime,
    how: str,
    name: str,
) -> None:
    """Hand in one hand-in for many, by one of the staff or (None) by itself: a fixed number of statements."""
    documents = _frozen(handin, of, view)
    enrolments = [one.member.enrolment_id for one in of]
    made = Submission.objects.bulk_create(
        [
            Submission(
                handin=handin,
                enrolment_id=one,
                number=facts_in(view, one, handin.pk).submissions + 1,
                at=at,
                receipt=receipt,
                snapshot=documents[one],
                sha256=digest(documents[one]),
                by=person,
                entered_at=doing.now,
                how=how,
                **flags_of(documents[one]),
            )
            for one, receipt in zip(enrolments, new_receipts(len(enrolments)), strict=True)
        ],
        batch_size=200,
    )
    keep_theirs(documents.values())
    keep_many(handin.pk, {one.enrolment_id: Happening(Verb.HANDED_IN, at, one.pk) for one in made})
    pockets = sorted(one.pk for one in handin.pockets.all())
    take(handin, [(one, pocket) for one in enrolments for pocket in pockets], doing.now)
    for one in made:
        doing.record(
            Verb.HANDED_IN.value,
            handin.group_id,
            enrolment_id=one.enrolment_id,
            handin_id=handin.pk,
            submission_id=one.pk,
            pockets=pockets,
            sha256=one.sha256,
            received=at.isoformat(),
            how=how,
            deed=name,
        )
    about = [{"enrolment": one.enrolment_id, "handin": handin.pk, "submission": one.pk} for one in made]
    put_many(doing, "handed_in_for", handin.group_id, about)


def _frozen(handin: HandIn, of: Sequence[Chosen], view: Situation) -> Mapping[int, dict[str, object]]:
    """What lies in the collected pockets of each of them, frozen; by enrolment."""
    enrolments = [one.member.enrolment_id for one in of]
    portfolios = dict(Portfolio.objects.filter(enrolment_id__in=enrolments).values_list("enrolment_id", "pk"))
    pockets = list(handin.pockets.all())
    works = {one.pk: works_of(portfolios.values(), one) for one in pockets}
    versions = {one.pk: versions_of(one, enrolments) for one in pockets}
    given = given_before(handin, enrolments, pockets)
    outlined = {one.id: one for one in view.outline}
    found = {}
    for one in of:
        enrolment = one.member.enrolment_id
        lying = [
            Lying(each, works[each.pk][portfolios[enrolment]], versions[each.pk][enrolment], given.get(enrolment, {}))
            for each in pockets
        ]
        wanted: dict[int, Wanted] = {
            each.pk: view.asked(one.member, outlined[each.pk], outlined[each.pk].wanted) for each in pockets
        }
        found[enrolment] = freeze(handin, lying, wanted)[0]
    return found
