"""A student takes a suggested wording, or leaves it.

Decided here: what is taken goes into the student's text as it stands now, in the place of the words it was for, as a
save of their own with its place in the history. Where the words are gone, or read otherwise by now, nothing is
written, and both are shown; so where they run over what is laid out differently (bold, a list). A wording that is
chosen can be chosen about again: taking it back is the history of the text.
"""

from __future__ import annotations

import html
from datetime import datetime

from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.core.marking.annotations import Kind, Part, Target, target_from_data
from coatpeg.core.marking.quotes import Found, find
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.marking.annotations.making import locked, named, record, shown
from coatpeg.marking.models import Annotation
from coatpeg.people.models import Person
from coatpeg.portfolios.evidence import commands, text_artefacts
from coatpeg.portfolios.models import Evidence, KeptText, WrittenText
from coatpeg.portfolios.texts import saving


def choose(person: Person, annotation_id: int, choice: str, now: datetime) -> Annotation:
    """Take a suggested wording into one's text, or leave it."""
    annotation = shown(named(person, Action.HAND_IN, annotation_id))
    if annotation.kind != Kind.SUGGESTION:
        raise Invalid("This is no suggested wording.", where="choice", fix="Answer it instead.")
    if choice == "taken" and annotation.choice != "taken":
        _write(person, annotation, target_from_data(annotation.target), now)
    with deed(person.pk, now) as doing:
        chosen = shown(locked(annotation))
        if chosen.choice != choice:
            chosen.choice, chosen.chosen_at = choice, now
            chosen.save(update_fields=["choice", "chosen_at"])
            record(doing, "wording_chosen", chosen, choice=choice)
        return chosen


def _write(person: Person, annotation: Annotation, target: Target, now: datetime) -> None:
    rows = Evidence.objects.select_related("artefact").filter(pk=target.evidence or 0, removed_at=None)
    evidence = rows.first()
    if evidence is None or evidence.pocket_id != target.pocket:
        raise Gone("The text that this is about is no longer in its pocket.", fix="Bring it back first.")
    text: KeptText = evidence
    if target.part is Part.ARTEFACT and evidence.artefact_id is not None:
        text = WrittenText.objects.get(artefact_id=evidence.artefact_id)
    draft = _with(text, annotation, target)
    if isinstance(text, WrittenText):
        text_artefacts.write(person, text.artefact_id, draft, now)
    elif evidence.artefact_id is not None:
        commands.write_reflection(person, evidence.pk, draft.text, draft.version, now, base=draft.base, anew=True)
    else:
        assert target.pocket is not None
        commands.write_page(
            person,
            evidence.portfolio_id,
            target.pocket,
            draft.text,
            draft.version,
            now,
            html=draft.html,
            base=draft.base,
            anew=True,
        )


def _with(text: KeptText, annotation: Annotation, target: Target) -> saving.Draft:
    """The text with the wording in its place."""
    assert target.words is not None
    assert annotation.wording is not None
    place = find(text.text, target.words)
    if place is None or place.changed:
        raise Stale(
            f"“{target.words.exact[:80]}” does not stand in your text any more.",
            where="choice",
            fix="Change your text by hand, or leave the suggestion.",
            more={"text": text.text, "wording": annotation.wording},
        )
    if not text.html:
        return saving.Draft(_put(text.text, place, annotation.wording), text.version, None, text.text, anew=True)
    rich = _put_rich(text, place, annotation.wording)
    return saving.Draft("", text.version, rich, text.html, anew=True)


def _put(text: str, place: Found, wording: str) -> str:
    return text[: place.start] + wording + text[place.end :]


def _put_rich(text: KeptText, place: Found, wording: str) -> str:
    """The same in rich text, where the words stand in one run of it."""
    words = text.text[place.start : place.end]
    inside = html.escape(words, quote=False)
    before = text.text[: place.start].count(words)
    parts = text.html.split(inside)
    if len(parts) != text.text.count(words) + 1:
        raise Invalid(
            "These words are laid out in more than one way, so they are not changed by themselves.",
            where="choice",
            fix="Change your text by hand: the suggestion stays beside it.",
        )
    new = html.escape(wording, quote=False)
    return inside.join(parts[: before + 1]) + new + inside.join(parts[before + 1 :])
