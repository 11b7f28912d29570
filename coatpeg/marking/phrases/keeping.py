"""Keeping, changing and dropping phrases; whoever marks in a class finds theirs and those that are shared there.

Decided here: a phrase is its person's, in all their classes; each class it is shared with is named for itself, and
what is shared is said by all who mark there and changed by whose it is alone. At most 200 a person. How often one was
said is counted from the feedback that stands for a hand-in, by whoever gave it: what is shared is everybody's to say.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db.models import Exists, OuterRef, Q

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.marking import phrases
from coatpeg.core.policy import Action
from coatpeg.marking.models import Phrase, ReleasedMark
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person

MOST = 200


def found(person: Person, group_id: int, handin_id: int | None = None) -> list[dict[str, Any]]:
    """One's own phrases and those shared in a class, what was said most often first; two or three queries."""
    require_in_group(person, Action.MARK, group_id)
    shared = Exists(Phrase.shared.through.objects.filter(phrase_id=OuterRef("pk"), teachinggroup_id=group_id))
    rows = Phrase.objects.annotate(here=shared).filter(Q(person=person) | Q(here=True)).select_related("person")
    feedback = _said_in(group_id, handin_id) if handin_id else []
    lines = [_line(one, person, here=one.here, feedback=feedback) for one in rows]
    return sorted(lines, key=lambda one: (-one["said"], one["by"] != "", one["text"].casefold(), one["id"]))


def keep(person: Person, group_id: int, text: str, now: datetime, *, shared: bool) -> dict[str, Any]:
    """Keep a phrase that one has not kept yet."""
    require_in_group(person, Action.MARK, group_id)
    text = phrases.check(text)
    own = list(Phrase.objects.filter(person=person))
    if len(own) >= MOST:
        raise Invalid(f"You have {MOST} phrases.", where="text", fix="Drop one that you no longer say.")
    _refuse_twice(text, own)
    made = Phrase.objects.create(person=person, text=text, changed_at=now)
    _share(made, group_id, shared=shared)
    return _line(made, person, here=shared)


def change(
    person: Person, group_id: int, phrase_id: int, now: datetime, *, text: str | None, shared: bool | None
) -> dict[str, Any]:
    """Give a phrase of one's own other words, share it with the staff of this class or stop that."""
    one = _own(person, group_id, phrase_id)
    if text is not None:
        one.text, one.changed_at = phrases.check(text), now
        _refuse_twice(one.text, Phrase.objects.filter(person=person).exclude(pk=one.pk))
        one.save()
    if shared is not None:
        _share(one, group_id, shared=shared)
    return _line(one, person, here=one.shared.filter(pk=group_id).exists())


def drop(person: Person, group_id: int, phrase_id: int) -> None:
    """Drop a phrase of one's own, wherever it is shared; what was said with it stays said."""
    _own(person, group_id, phrase_id).delete()


def _said_in(group_id: int, handin_id: int) -> list[str]:
    """The feedback that stands for a hand-in of a class."""
    standing = ReleasedMark.objects.filter(
        outcome__voided_at=None,
        outcome__submission__voided_at=None,
        outcome__submission__handin_id=handin_id,
        outcome__submission__handin__group_id=group_id,
    ).exclude(feedback="")
    return list(standing.values_list("feedback", flat=True))


def _own(person: Person, group_id: int, phrase_id: int) -> Phrase:
    require_in_group(person, Action.MARK, group_id)
    one = Phrase.objects.filter(pk=phrase_id).select_related("person").first()
    if one is None or not (one.person_id == person.pk or one.shared.filter(pk=group_id).exists()):
        raise Gone("There is no such phrase.", fix="It was dropped; keep it again if you need it.")
    if one.person_id != person.pk:
        raise Refused(f"This phrase is {one.person.full_name}’s.", where="text", fix="Keep one of your own.")
    return one


def _refuse_twice(text: str, own: Iterable[Phrase]) -> None:
    if any(phrases.same(one.text, text) for one in own):
        raise Invalid("You have this phrase already.", where="text", fix="Change that one, or write another.")


def _share(one: Phrase, group_id: int, *, shared: bool) -> None:
    if shared:
        one.shared.add(group_id)
    else:
        one.shared.remove(group_id)


def _line(one: Phrase, person: Person, *, here: bool, feedback: Iterable[str] = ()) -> dict[str, Any]:
    return {
        "id": one.pk,
        "text": one.text,
        "shared": here,
        "by": "" if one.person_id == person.pk else one.person.full_name,
        "said": sum(phrases.says(said, one.text) for said in feedback),
    }
