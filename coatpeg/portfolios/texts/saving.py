"""Saving texts so that nobody's words are lost, and their history.

A save names the version its writer saw, and what that version said (``base``). Where somebody else saved meanwhile,
paragraphs that differ are put together; where both changed the same, nothing is written and both are shown. Autosaves
of one sitting are one revision in the history; a merge begins a new one.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import merging, rich, texts
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios import rich_pages
from coatpeg.portfolios.models import Artefact, Evidence, KeptText, LoosePage, Portfolio, TextRevision, WrittenText

SITTING = timedelta(minutes=10)
"""Autosaves closer together than this make one revision: a pause longer than it is a new thought."""


@dataclass(frozen=True, slots=True)
class Draft:
    """A text as its writer sends it: plain, or rich where ``html`` is given.

    The version seen, and what it said where known.
    """

    text: str
    version: int
    html: str | None = None
    base: str | None = None
    anew: bool = False
    """Begin a revision of its own, however short ago the last save was: something is brought back."""


@dataclass(frozen=True, slots=True)
class Save:
    """What a save did; ``begun``: a new revision."""

    changed: bool
    begun: bool = False


def save(portfolio: Portfolio, kept: KeptText, person: Person, draft: Draft, now: datetime) -> Save:
    """Save a text over the version its writer saw; the same text again changes nothing.

    The portfolio's row is locked.
    """
    text, html = _tidy(portfolio, draft)
    if (text, html) == (kept.text, kept.html):
        return Save(False)
    merged = draft.anew
    if draft.version != kept.version:
        both = _together(kept, draft, text, html)
        if both is None:
            raise Stale(
                "This text was changed somewhere else meanwhile.",
                where="text",
                fix="Both texts are here: choose one, or put them together.",
                more={"text": kept.text, "html": kept.html, "version": kept.version},
            )
        text, html = _tidy(portfolio, both)
        merged = True
    counts = texts.count(text)
    kept.text, kept.html, kept.words, kept.sentences = text, html, counts.words, counts.sentences
    kept.version, kept.changed_at = kept.version + 1, now
    kept.save()
    return Save(True, _revise(kept, person, now, anew=merged))


def _tidy(portfolio: Portfolio, draft: Draft) -> tuple[str, str]:
    """The text as it is kept, and its form where it has one."""
    if draft.html is None:
        text, html = draft.text, ""
    else:
        named = rich_pages.pictures_in(draft.html)
        pictures = (
            portfolio.artefacts.filter(pk__in=named, kind=ArtefactKind.PICTURE) if named else Artefact.objects.none()
        )
        html = rich_pages.clean(draft.html, set(pictures.values_list("pk", flat=True)))
        text = rich.plain(html)
    if len(text) > texts.LONGEST_TEXT:
        raise Invalid(
            f"The text has {len(text)} characters; {texts.LONGEST_TEXT} is the most.",
            where="text",
            fix="Shorten it, or add it as a file. What you wrote stays in the field.",
        )
    return texts.tidy_text(text), texts.tidy_text(html)


LONGEST_BASE = 20 * texts.LONGEST_TEXT
"""Characters of the text that a writer says they began from, with its form: longer than any that was ever kept."""


def _together(kept: KeptText, draft: Draft, text: str, html: str) -> Draft | None:
    """The writer's text and the one that stands here in one; None where the same paragraph differs."""
    if draft.base is None or len(draft.base) > LONGEST_BASE:
        return None
    if draft.html is None:
        found = merging.merge(rich.lines(texts.tidy_text(draft.base)), rich.lines(text), rich.lines(kept.text))
        return None if found is None else Draft("".join(found), kept.version)
    theirs = kept.html or rich.from_plain(kept.text)
    found = merging.merge(rich.blocks(texts.tidy_text(draft.base)), rich.blocks(html), rich.blocks(theirs))
    return None if found is None else Draft("", kept.version, "".join(found))


def _key(kept: KeptText) -> dict[str, Any]:
    """Which of a revision's three columns names this text."""
    if isinstance(kept, Evidence):
        return {"evidence": kept}
    return {"page": kept} if isinstance(kept, LoosePage) else {"written_text": kept}


def _revise(kept: KeptText, person: Person, now: datetime, *, anew: bool) -> bool:
    """Keep the text in its history; True where a new revision begins."""
    last = TextRevision.objects.filter(**_key(kept)).order_by("-version").first()
    if anew or last is None or last.person_id != person.pk or now - last.saved_at > SITTING:
        TextRevision.objects.create(
            **_key(kept),
            version=kept.version,
            text=kept.text,
            html=kept.html,
            person=person,
            begun_at=now,
            saved_at=now,
        )
        return True
    last.version, last.text, last.html, last.saved_at = kept.version, kept.text, kept.html, now
    last.save()
    return False


def history(person: Person, revisions: Iterable[TextRevision]) -> list[dict[str, Any]]:
    """The revisions of a text, newest first, as plain data."""
    return [
        {
            "id": one.pk,
            "version": one.version,
            "who": one.person.given_name,
            "mine": one.person_id == person.pk,
            "begun_at": one.begun_at,
            "saved_at": one.saved_at,
            "words": texts.count(one.text).words,
        }
        for one in revisions
    ]


def revisions_of(person: Person, kept: KeptText, portfolio: Portfolio) -> list[dict[str, Any]]:
    """The history of a text of a portfolio that this person may look into."""
    require_for_student(person, Action.SEE_PORTFOLIO, portfolio.enrolment)
    return history(person, TextRevision.objects.filter(**_key(kept)).select_related("person").order_by("-version"))


def revision(person: Person, revision_id: int) -> TextRevision:
    """A revision that this person may read."""
    found = (
        TextRevision.objects.filter(pk=revision_id)
        .select_related(
            "person", *(f"{one}__portfolio__enrolment" for one in ("evidence", "page", "written_text__artefact"))
        )
        .first()
    )
    if found is None:
        raise Gone("There is no such revision.", fix="Load the history again.")
    require_for_student(person, Action.SEE_PORTFOLIO, portfolio_of(found).enrolment)
    return found


def portfolio_of(revision: TextRevision) -> Portfolio:
    """The portfolio that a revision's text belongs to."""
    if revision.evidence:
        return revision.evidence.portfolio
    if revision.page:
        return revision.page.portfolio
    assert revision.written_text is not None
    return revision.written_text.artefact.portfolio


def compared(person: Person, revision_id: int, to: int | None) -> dict[str, Any]:
    """A revision, with what changed from another one of the same text to it."""
    shown = revision(person, revision_id)
    other = revision(person, to) if to is not None else None
    if other and _of(other) != _of(shown):
        raise Invalid("These are revisions of two different texts.", where="to", fix="Choose two of the same text.")
    return {
        **history(person, [shown])[0],
        "text": shown.text,
        "html": shown.html,
        "parts": [{"what": one.what, "text": one.text} for one in merging.compare(other.text, shown.text)]
        if other
        else [],
    }


def _of(one: TextRevision) -> tuple[int | None, int | None, int | None]:
    return one.evidence_id, one.page_id, one.written_text_id


def written_of(artefact_id: int) -> WrittenText:
    """The words of an artefact that is a text."""
    found = WrittenText.objects.filter(artefact_id=artefact_id).select_related("artefact__portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such text.", fix="Go back to your pockets.")
    return found
