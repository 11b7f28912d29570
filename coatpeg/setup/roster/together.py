"""Two accounts that turn out to be one student's, put together by an administrator; and taken apart again.

Decided here: one account stays and has every class of both, with all work and history in it, since all of that hangs on
the student's place in a class and not on the account. The other one is closed, its cards no longer work, and no list
finds it again; what it was called and who signed in with it stays on record. Number and e-mail address go over where
the account that stays has none, agreed adjustments and open requests too. In a class that has both, the place in which
there is work goes on and the empty one ends that day. Where there is work in both, that goes on in which more was
handed in (of equals, that of the account that stays), with copies of all work of the other one; that one ends that day
with the closed account: staff read there what was handed in, marked and said. What is handed in only there is named,
since staff hand it in here as received then; so are locked pockets, into which nothing is copied. It is undone as long
as the account that stays still has those places; copies go into the bin, but for what was changed or handed in
meanwhile.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection
from dataclasses import asdict, dataclass, field
from datetime import datetime
from typing import Any

from django.db.models import QuerySet

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.models import KeptFacts, Submission
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_school
from coatpeg.people.accounts import lock_names
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Adjustment, Enrolment, JoinRequest, Person, PutTogether, SignInCard
from coatpeg.portfolios.copying import Copied, copy_work, take_out, would_stay
from coatpeg.portfolios.writing import locked_of
from coatpeg.setup.deleting import WORK

MOST_SHOWN = 50
_OWN = ("number", "email", "is_active", "same_as_id")


@dataclass(frozen=True, slots=True)
class Meaning:
    """What putting together would do, by names of classes: ``moved`` come over, in ``ended`` an empty place ends.

    ``both`` have work of both accounts; there a place ends from which all is copied but what is in ``locked`` pockets,
    and in which ``handed_in`` were handed in that are not in the other one (each *class: title*).
    """

    moved: list[str] = field(default_factory=list)
    ended: list[str] = field(default_factory=list)
    both: list[str] = field(default_factory=list)
    locked: list[str] = field(default_factory=list)
    handed_in: list[str] = field(default_factory=list)


def look(person: Person, kept_id: int, other_id: int) -> Meaning:
    """What it would mean; nothing is written."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    _two(kept_id, other_id)
    return _plan(kept_id, other_id).meaning()


def put_together(person: Person, kept_id: int, other_id: int, now: datetime) -> int:
    """Put two accounts together; returns the id by which it is undone."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    with deed(person.pk, now) as doing:
        lock_names()
        kept, other = _two(kept_id, other_id, locked=True)
        plan = _plan(kept_id, other_id)
        before = {str(one.pk): {name: getattr(one, name) for name in _OWN} for one in (kept, other)}
        data: dict[str, Any] = {
            "fields": before,
            "moved": [one.pk for one in plan.moved],
            "swapped": plan.swapped,
            "left": [],
            "copied": [],
        }
        Enrolment.objects.filter(pk__in=data["moved"]).update(person=kept)
        for mine, theirs in plan.swapped:
            _swap(mine, theirs)
        today = school_calendar().local_day(now)
        for ending in Enrolment.objects.filter(pk__in=plan.ending).order_by("pk"):
            data["left"].append([ending.pk, ending.last.isoformat() if ending.last else None])
            ending.last = min(ending.last or today, today)
            ending.save(update_fields=["last"])
        for source, target in plan.both:
            data["copied"].append([target, asdict(_copied(source, target, now))])
        for name, rows in _hanging(other).items():
            data[name] = list(rows.values_list("pk", flat=True))
        Adjustment.objects.filter(pk__in=data["adjustments"]).update(person=kept)
        JoinRequest.objects.filter(pk__in=data["requests"]).update(student=kept)
        SignInCard.objects.filter(pk__in=data["cards"]).update(voided_at=now)
        _give_fields(kept, other)
        made = PutTogether.objects.create(kept=kept, other=other, by=person, at=now, data=data)
        _record(doing, "accounts_put_together", plan.touched())
        return made.pk


def take_apart(person: Person, together_id: int, now: datetime) -> None:
    """Undo it: each account has its places in classes again, with what was done in them meanwhile."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    with deed(person.pk, now) as doing:
        lock_names()
        found = PutTogether.objects.select_for_update().filter(pk=together_id, undone_at=None).first()
        if found is None:
            raise Gone("These accounts were taken apart already.", fix="Load the list again.")
        kept, other = found.kept, found.other
        data = found.data
        there = Enrolment.objects.filter(pk__in=[*data["moved"], *(mine for _, mine in data["swapped"])], person=kept)
        if there.count() != len(data["moved"]) + len(data["swapped"]):
            raise Refused(
                "A class of these accounts has changed hands since.",
                where="accounts",
                fix="Take apart what was put together later first.",
            )
        for pk, made in data.get("copied", []):
            take_out(locked_of(pk)[pk], Copied(**made), now)
        Enrolment.objects.filter(pk__in=data["moved"]).update(person=other)
        for mine, theirs in data["swapped"]:
            _swap(theirs, mine)
        for pk, last in data["left"]:
            Enrolment.objects.filter(pk=pk).update(last=last)
        Adjustment.objects.filter(pk__in=data["adjustments"]).update(person=other)
        JoinRequest.objects.filter(pk__in=data["requests"]).update(student=other)
        SignInCard.objects.filter(pk__in=data["cards"]).update(voided_at=None)
        for one in (kept, other):  # who gives a number back does so before who gets it
            for name, value in data["fields"][str(one.pk)].items():
                setattr(one, name, value)
            one.save(update_fields=[name.removesuffix("_id") for name in _OWN])
        found.undone_at, found.data = now, {}
        found.save(update_fields=["undone_at", "data"])
        places = [*data["moved"], *(pk for pair in data["swapped"] for pk in pair), *(pk for pk, _ in data["left"])]
        _record(doing, "accounts_parted", places)


def standing(person: Person) -> list[dict[str, Any]]:
    """What was put together and not taken apart, newest first."""
    require_in_school(person, Action.KEEP_ACCOUNTS)
    rows = PutTogether.objects.filter(undone_at=None).select_related("kept", "other", "by").order_by("-pk")
    return [
        {
            "id": one.pk,
            "kept": one.kept.listed,
            "username": one.kept.username or "",
            "other": one.other.listed,
            "other_username": one.other.username or "",
            "by": one.by.full_name if one.by else "",
            "at": one.at,
        }
        for one in rows[:MOST_SHOWN]
    ]


def _two(kept_id: int, other_id: int, *, locked: bool = False) -> tuple[Person, Person]:
    """Both students' accounts, neither of them put together with another already."""
    if kept_id == other_id:
        raise Invalid("This is one account.", where="other", fix="Choose the other account of the student.")
    rows = Person.objects.filter(pk__in=(kept_id, other_id), is_staff=False, same_as=None).order_by("pk")
    found = {one.pk: one for one in (rows.select_for_update() if locked else rows)}
    if len(found) != 2:
        raise Gone("One of these is no student's account any more.", fix="Find them again.")
    return found[kept_id], found[other_id]


@dataclass(frozen=True, slots=True)
class _Plan:
    """Enrolments that come over; pairs of the account's that stays and the other's that change persons; those that end.

    ``ended``: classes in which an empty one does. ``both``: of classes with work in both, that which ends and that
    which goes on.
    """

    moved: list[Enrolment]
    swapped: list[tuple[int, int]]
    ending: list[int]
    ended: list[str]
    both: list[tuple[int, int]]

    def meaning(self) -> Meaning:
        means = Meaning(sorted(one.group.name for one in self.moved), sorted(self.ended))
        places = Enrolment.objects.select_related("group", "portfolio").in_bulk(
            [pk for pair in self.both for pk in pair]
        )
        for source, target in self.both:
            ending, going = places[source], places[target]
            name = ending.group.name
            means.both.append(name)
            pockets = pockets_of(ending.group_id)
            means.locked.extend(f"{name}: {one}" for one in would_stay(ending.portfolio, going.portfolio, pockets))
            here = _standing_in(target).values("handin_id")
            missing = _standing_in(source).exclude(handin__in=here).order_by("handin_id")
            means.handed_in.extend(f"{name}: {one}" for one in missing.values_list("handin__title", flat=True))
        return means

    def touched(self) -> list[int]:
        pairs = [*self.swapped, *self.both]
        return sorted({*(one.pk for one in self.moved), *(pk for pair in pairs for pk in pair), *self.ending})


def _plan(kept_id: int, other_id: int) -> _Plan:
    rows = Enrolment.objects.filter(person_id__in=(kept_id, other_id)).select_related("group").order_by("pk")
    of_kept = {one.group_id: one for one in rows if one.person_id == kept_id}
    theirs = [one for one in rows if one.person_id == other_id]
    worked = _worked([one.pk for one in rows])
    standing_in = KeptFacts.objects.filter(enrolment__in=[one.pk for one in rows], newest__isnull=False)
    handed_in = Counter(standing_in.values_list("enrolment_id", flat=True))
    plan = _Plan([], [], [], [], [])
    for one in theirs:
        mine = of_kept.get(one.group_id)
        if mine is None:
            plan.moved.append(one)
        elif one.pk not in worked:
            plan.ending.append(one.pk)
            plan.ended.append(one.group.name)
        elif mine.pk not in worked:
            plan.swapped.append((mine.pk, one.pk))
            plan.ending.append(mine.pk)
            plan.ended.append(one.group.name)
        else:
            ending, going = one.pk, mine.pk
            if handed_in[one.pk] > handed_in[mine.pk]:
                plan.swapped.append((mine.pk, one.pk))
                ending, going = going, ending
            plan.ending.append(ending)
            plan.both.append((ending, going))
    return plan


def _standing_in(enrolment_id: int) -> QuerySet[KeptFacts]:
    """The hand-ins that stand as handed in of a place in a class."""
    return KeptFacts.objects.filter(enrolment=enrolment_id, newest__isnull=False, handin__taken_away_at=None)


def _copied(source: int, target: int, now: datetime) -> Copied:
    """Copy the work of a place that ends into the one that goes on."""
    portfolios = locked_of(source, target)
    pockets = {one.pk: one for one in pockets_of(portfolios[target].enrolment.group_id)}
    return copy_work(portfolios[source], portfolios[target], pockets, now, aside=True)


def _worked(enrolments: Collection[int]) -> set[int]:
    """The enrolments in which anything was ever put in, said or handed in."""
    found = set(Submission.objects.filter(enrolment__in=enrolments).values_list("enrolment_id", flat=True))
    for one in WORK:
        rows = one.objects.filter(portfolio__enrolment__in=enrolments)
        found |= set(rows.values_list("portfolio__enrolment_id", flat=True))
    return found


def _swap(one_id: int, other_id: int) -> None:
    """Let two places in one class change their persons; a third stands in, since nobody is in a class twice."""
    one, other = Enrolment.objects.get(pk=one_id), Enrolment.objects.get(pk=other_id)
    stand_in = Person.objects.create(given_name="…", is_active=False)
    Enrolment.objects.filter(pk=one_id).update(person=stand_in)
    Enrolment.objects.filter(pk=other_id).update(person=one.person_id)
    Enrolment.objects.filter(pk=one_id).update(person=other.person_id)
    stand_in.delete()


def _hanging(other: Person) -> dict[str, Any]:
    """What else hangs on the account that is closed."""
    return {
        "adjustments": Adjustment.objects.filter(person=other),
        "requests": JoinRequest.objects.filter(student=other, state=JoinRequest.State.WAITING),
        "cards": SignInCard.objects.filter(person=other, voided_at=None),
    }


def _give_fields(kept: Person, other: Person) -> None:
    """Number and address go over where the account that stays has none; a number is one account's only."""
    number, email = kept.number or other.number, kept.email or other.email
    if not kept.number:
        other.number = None
    other.is_active, other.same_as = False, kept
    other.save(update_fields=["number", "is_active", "same_as"])
    kept.number, kept.email = number, email
    kept.save(update_fields=["number", "email"])


def _record(doing: Deed, verb: str, enrolments: Collection[int]) -> None:
    for pk, group_id in Enrolment.objects.filter(pk__in=enrolments).order_by("pk").values_list("pk", "group_id"):
        doing.record(verb, group_id, enrolment_id=pk)
