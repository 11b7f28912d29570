"""Setting a hand-in, handing in, taking back, excusing."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any

from django.db.models import Q

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Gone, Invalid, Refused, Stale
from coatpeg.core.handins.again import again_until_due, has_come_due, may_take_back
from coatpeg.core.handins.asking import Due, is_closed, stays_asked
from coatpeg.core.handins.locking import HoldHappening
from coatpeg.core.handins.snapshots import digest
from coatpeg.core.handins.standing import Facts, Happening, Status, Verb
from coatpeg.core.marking.releasing import told_at
from coatpeg.core.marking.rubrics import Judged
from coatpeg.core.outlines.filling import Wanted
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked.asking import Answer, AskedHandIn, handins_of_group
from coatpeg.handins.handing import together, who_did_what
from coatpeg.handins.handing.records import facts_now, keep_after
from coatpeg.handins.handing.submitting import (
    NOT_JUDGED,
    flags_of,
    judged_by_student,
    keep_theirs,
    new_receipt,
    snapshot,
)
from coatpeg.handins.models import HandIn, OwnDue, Submission
from coatpeg.notices.choosing import wants_receipts
from coatpeg.notices.putting import put
from coatpeg.people.access import require_for_student
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.models import Enrolment, Person
from coatpeg.people.rosters import members
from coatpeg.portfolios import holds
from coatpeg.portfolios.models import PocketContent, Portfolio
from coatpeg.portfolios.wanting import wanted_now
from coatpeg.portfolios.writing import locked_of, locked_portfolio


def hand_in(
    person: Person,
    portfolio_id: int,
    handin_id: int,
    seen: int,
    now: datetime,
    *,
    even_if_empty: bool = False,
    judged: Judged = NOT_JUDGED,
) -> Submission:
    """Freeze what lies in the collected pockets, give a receipt, lock them.

    ``seen`` is how many submissions the student saw when they pressed *Hand in*: a second press from another
    tab is told of the first instead of making another one. ``judged`` is how the student judges themselves.
    """
    with deed(person.pk, now) as doing:
        portfolio, others = together.lock_all(doing, handin_id, portfolio_id)
        require_for_student(person, Action.HAND_IN, portfolio.enrolment)
        handin = _of_group(handin_id, portfolio.enrolment.group_id)
        facts = facts_now(portfolio.enrolment_id, handin_id)
        calendar = school_calendar()
        asked, answer = _answer_of(portfolio, handin, calendar, now)
        due = answer.due.moment
        newest = Submission.objects.filter(pk=facts.newest).first() if facts.newest else None
        again = again_until_due(handin.again and newest is not None and newest.left_open, facts, due, now)
        if facts.submissions != seen or (newest and facts.outcome is not Status.SENT_BACK and not again):
            raise _told_of(newest)
        _refuse_not_now(handin, asked, answer, facts, calendar, now)
        wanted = wanted_now(portfolio, handin.pockets.all(), calendar.local_day(now))
        document, any_work = snapshot(handin, portfolio, handin.pockets.all(), wanted)
        document |= judged_by_student(handin, judged)
        said = who_did_what.frozen(handin, [portfolio, *others])
        document |= said
        if not any_work and not even_if_empty and not _wrote_something(others, handin):
            raise Invalid(
                "There is nothing of yours in this yet.",
                where=handin.title,
                fix="Add your work first. If it is meant to be empty, hand in anyway; your teacher will see that.",
                more={"empty": True},
            )
        if again and newest and newest.sha256 == digest(document):
            raise _told_of(newest, "Nothing has changed since you handed this in.")
        made = _submit(doing, portfolio, handin, facts, due, document, wanted)
        for other in others:
            _submit_along(doing, other, handin, made, calendar, said)
        return made


def _wrote_something(others: list[Portfolio], handin: HandIn) -> bool:
    """Whether one of those who fill it together has written, where this student has not."""
    working = PocketContent.objects.filter(portfolio__in=others, pocket__in=handin.pockets.all(), has_work=True)
    return bool(others) and working.exists()


def _submit(
    doing: Deed,
    portfolio: Portfolio,
    handin: HandIn,
    facts: Facts,
    due: datetime | None,
    document: dict[str, Any],
    wanted: Mapping[int, Wanted],
    along: Submission | None = None,
) -> Submission:
    """Make a submission of what was frozen, lock its pockets, tell of it."""
    stays_open = handin.again and not has_come_due(due, doing.now)
    submission = Submission.objects.create(
        handin=handin,
        enrolment=portfolio.enrolment,
        number=facts.submissions + 1,
        at=doing.now,
        receipt=new_receipt(),
        snapshot=document,
        sha256=digest(document),
        along=along,
        left_open=stays_open,
        open_until=due if stays_open else None,
        **flags_of(document),
    )
    keep_theirs((document,))
    carry_out(
        doing,
        portfolio,
        handin,
        Verb.HANDED_IN,
        submission=submission,
        wanted=wanted,
        stays_open=stays_open,
        sha256=submission.sha256,
    )
    if wants_receipts(portfolio.enrolment.person_id):
        of = portfolio.enrolment
        put(doing, "receipt", of.group_id, enrolment=of.pk, handin=handin.pk, submission=submission.pk)
    return submission


def _submit_along(
    doing: Deed,
    portfolio: Portfolio,
    handin: HandIn,
    first: Submission,
    calendar: SchoolCalendar,
    said: Mapping[str, Any],
) -> None:
    """Hand in for another one of those who fill it together, where it is asked of them and nothing of theirs stands."""
    facts = facts_now(portfolio.enrolment_id, handin.pk)
    asked, answer = _answer_of(portfolio, handin, calendar, doing.now)
    if facts.newest and facts.outcome is not Status.SENT_BACK:
        return
    try:
        _refuse_not_now(handin, asked, answer, facts, calendar, doing.now)
    except Refused:
        return
    wanted = wanted_now(portfolio, handin.pockets.all(), calendar.local_day(doing.now))
    document, _ = snapshot(handin, portfolio, handin.pockets.all(), wanted)
    _submit(doing, portfolio, handin, facts, answer.due.moment, {**document, **said}, wanted, along=first)


def _answer_of(
    portfolio: Portfolio, handin: HandIn, calendar: SchoolCalendar, now: datetime
) -> tuple[AskedHandIn, Answer]:
    """The hand-in as the rules take it, and whether it is asked of this student, due when."""
    member = members(handin.group_id, calendar.local_day(now), enrolments=(portfolio.enrolment_id,))[0]
    asked = handins_of_group(handin.group_id, handin.pk)[0]
    return asked, asked.answer(member.enrolment_id, member.student, calendar)


def carry_out(
    doing: Deed,
    portfolio: Portfolio,
    handin: HandIn,
    verb: Verb,
    *,
    submission: Submission | None = None,
    pockets: frozenset[int] | None = None,
    due_again: datetime | None = None,
    wanted: Mapping[int, Wanted] | None = None,
    stays_open: bool = False,
    **data: Any,
) -> list[str]:
    """Do what a happening does to facts and holds, and record it; returns other hand-ins whose holds it released.

    ``pockets`` defaults to all the hand-in collects; ``wanted`` is what is wanted in these now, where it is known
    already. With ``stays_open`` what it takes is let go of at once. Call with the portfolio row locked.
    """
    collected = list(handin.pockets.all())
    named = frozenset(one.pk for one in collected) if pockets is None else pockets
    number = submission.pk if submission else 0
    keep_after(portfolio.enrolment_id, handin.pk, Happening(verb, doing.now, number, due_again))
    wanted = wanted or wanted_now(portfolio, collected, school_calendar().local_day(doing.now))
    others = holds.apply(portfolio, HoldHappening(verb, handin.pk, named), handin.title, wanted, doing.now)
    if stays_open or (verb is Verb.ACCEPTED and handin.opens_again):
        opened = HoldHappening(Verb.TAKEN_BACK, handin.pk, named)
        holds.apply(portfolio, opened, handin.title, wanted, doing.now)
        data["opened"] = sorted(named)
    if due_again:
        data["due_again"] = due_again.isoformat()
    doing.record(
        verb.value,
        handin.group_id,
        enrolment_id=portfolio.enrolment_id,
        handin_id=handin.pk,
        submission_id=number or None,
        pockets=sorted(named),
        **data,
    )
    if verb in (Verb.ACCEPTED, Verb.SENT_BACK):
        about = {"enrolment": portfolio.enrolment_id, "handin": handin.pk}
        put(doing, verb.value, handin.group_id, tell_at=told_at(doing.now), **about)
    elif verb is Verb.HANDED_IN:
        put(doing, "handed_in", handin.group_id, handin=handin.pk, submission=number)
    return others


def _of_group(handin_id: int, group_id: int) -> HandIn:
    handin = HandIn.objects.filter(pk=handin_id, group_id=group_id).prefetch_related("pockets").first()
    if handin is None or handin.draft:
        raise Gone("There is no such hand-in in this class.", fix="Go back to what there is to hand in.")
    if handin.taken_away_at is not None:
        raise Gone(f"“{handin.title}” was taken away: nothing is asked any more.", fix="Load the page again.")
    return handin


def _told_of(newest: Submission | None, why: str = "This is already handed in.") -> Stale:
    """A second press is told of the first: of the submission that stands, with its receipt."""
    if newest is None:
        return Stale("This was changed in another window.", fix="Look at it again, then hand in.")
    return Stale(
        f"{why} Receipt {newest.receipt}.",
        where=newest.handin.title,
        fix="Nothing more to do: one submission was made, and it counts.",
        more={"submission": newest.pk, "receipt": newest.receipt, "at": newest.at.isoformat()},
    )


def _refuse_not_now(
    handin: HandIn, asked: AskedHandIn, answer: Answer, facts: Facts, calendar: SchoolCalendar, now: datetime
) -> None:
    """Refuse where this student is not asked, excused, or it is not open."""
    if not stays_asked(answer.asked, facts):
        raise Refused(
            f"“{handin.title}” is not asked of you.", where=handin.title, fix="Ask your teacher if it should be."
        )
    if facts.excused:
        raise Refused(f"You are excused from “{handin.title}”.", where=handin.title, fix="There is nothing to hand in.")
    if now < asked.opening(calendar):
        raise Refused(f"“{handin.title}” opens on {handin.opens:%a %-d %b}.", where=handin.title, fix="Come back then.")
    closes = asked.asked.closes
    if closes and is_closed(asked.asked, calendar, now):
        raise Refused(
            f"“{handin.title}” closed on {closes.day:%a %-d %b}.",
            where=handin.title,
            fix="It takes nothing more. Your work stays in your pockets; ask your teacher if it should still count.",
        )


def take_back(person: Person, submission_id: int, now: datetime) -> Submission:
    """A student takes the newest submission back before anyone has marked it, and it is due: it is void, the pockets
    open.

    What was handed in for all who fill it together is taken back for all of them, but for what is marked already.
    """
    named = Submission.objects.filter(pk=submission_id).select_related("enrolment").first()
    if named is None:
        raise Gone("There is no such submission.", fix="Go back to your pockets.")
    require_for_student(person, Action.HAND_IN, named.enrolment)
    with deed(person.pk, now) as doing:
        first = named.along_id or named.pk
        others = list(Submission.objects.filter(Q(pk=first) | Q(along=first), voided_at=None).exclude(pk=named.pk))
        portfolios = locked_of(named.enrolment_id, *(one.enrolment_id for one in others))
        if not _newest_and_unmarked(named):
            raise Stale(
                "This submission can no longer be taken back.",
                where=named.handin.title,
                fix="It was marked, sent back or followed by another one; look at it again.",
            )
        if named.handin.taken_away_at is None:
            _refuse_what_stands(portfolios[named.enrolment_id], named.handin, now)
        _void(doing, portfolios[named.enrolment_id], named)
        for other in others:
            if _newest_and_unmarked(other):
                _void(doing, portfolios[other.enrolment_id], other)
        return named


def _refuse_what_stands(portfolio: Portfolio, handin: HandIn, now: datetime) -> None:
    """Refuse to take back where the hand-in lets nobody, or no more, since it is due for them or has closed."""
    calendar = school_calendar()
    asked, answer = _answer_of(portfolio, handin, calendar, now)
    closed = is_closed(asked.asked, calendar, now)
    if not may_take_back(handin.take_back, answer.due.moment, now, closed=closed):
        why = ", now that it is due" if handin.take_back and not closed else ""
        raise Refused(
            f"What was handed in for “{handin.title}” stands{why}.",
            where=handin.title,
            fix="Ask your teacher: they can send it back to you.",
        )


def _newest_and_unmarked(submission: Submission) -> bool:
    facts = facts_now(submission.enrolment_id, submission.handin_id)
    return facts.newest == submission.pk and facts.outcome is None


def _void(doing: Deed, portfolio: Portfolio, submission: Submission) -> None:
    """Make a submission void; the portfolio is locked."""
    submission.voided_at = doing.now
    submission.save(update_fields=["voided_at"])
    carry_out(doing, portfolio, submission.handin, Verb.TAKEN_BACK, submission=submission)
    before = facts_now(submission.enrolment_id, submission.handin_id).newest
    if submission.handin.again and before:
        # The one before it stands again: it locks as soon as it is due, at once where it is.
        Submission.objects.filter(pk=before).update(left_open=True, open_until=doing.now)


def set_excused(person: Person, handin_id: int, enrolment_id: int, now: datetime, *, excused: bool) -> Facts:
    """Excuse a student from a hand-in, or end that. What was handed in stays readable."""
    portfolio_id = Portfolio.objects.filter(enrolment_id=enrolment_id).values_list("pk", flat=True).first()
    if portfolio_id is None:
        raise Gone("There is no such student.", fix="Go back to the pegs.")
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.EXCUSE, portfolio.enrolment)
        handin = _of_group(handin_id, portfolio.enrolment.group_id)
        facts = facts_now(enrolment_id, handin_id)
        if facts.excused != excused:
            locks = excused or (facts.newest is not None and facts.outcome is not Status.SENT_BACK)
            verb = Verb.EXCUSED if excused else Verb.UNEXCUSED
            carry_out(doing, portfolio, handin, verb, pockets=None if locks else frozenset())
        return facts_now(enrolment_id, handin_id)


def set_own_due(person: Person, handin_id: int, enrolment_id: int, due: Due | None, now: datetime) -> None:
    """Give a student a due date of their own for one hand-in, or (None) take it away.

    It also asks a student who joined after everybody else's due date. Refused before the hand-in opens.
    """
    enrolment = Enrolment.objects.filter(pk=enrolment_id).first()
    if enrolment is None:
        raise Gone("There is no such student.", fix="Go back to the pegs.")
    require_for_student(person, Action.SET_OWN_DUE, enrolment)
    with deed(person.pk, now) as doing:
        handin = _of_group(handin_id, enrolment.group_id)
        if due is None:
            OwnDue.objects.filter(handin=handin, enrolment=enrolment).delete()
        else:
            check_class_days(enrolment.group_id, day=due.day)
            if due.day < handin.opens:
                raise Invalid(
                    f"“{handin.title}” opens on {handin.opens:%a %-d %b}, after that day.",
                    where="day",
                    fix="Choose a later day.",
                )
            OwnDue.objects.update_or_create(handin=handin, enrolment=enrolment, defaults={"day": due.day, "at": due.at})
        doing.record(
            "own_due_set",
            enrolment.group_id,
            enrolment_id=enrolment_id,
            handin_id=handin_id,
            day=due.day.isoformat() if due else None,
        )
        if due is not None:
            put(doing, "own_due_set", enrolment.group_id, enrolment=enrolment_id, handin=handin_id)
