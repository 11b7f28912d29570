"""Pictures and files that staff give with a pocket: beside its directions, or as a starter to work from.

They belong to the template: students read them and never change them. A pocket laid out from a pattern shows those of
its pattern. A file may be one version's alone (``core.outlines.versions``): nobody else sees it. Decided here: an
artefact that is the very file of a starter is no work yet; what was given to a version that is taken away is shown to
nobody, and is there again with it. A file for a pocket that only a draft has waits without one, and is read by those
who may edit the template; it is given as the draft is saved, and goes after 90 days if none is.

A file may be given with hand-ins instead; who reads it then their room says (``read_elsewhere``).
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any, Literal

from django.core.files.base import File

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.versions import LONGEST_KEY
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping
from coatpeg.files.models import StoredFile
from coatpeg.outlines import dealing
from coatpeg.outlines.models import GivenFile, Pocket, Template
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Enrolment, Person

MOST_FILES = 12
"""Beside one pocket."""
MOST_WAITING = 200
"""For pockets of drafts, in one class."""
WAITS = timedelta(days=90)
Role = Literal["directions", "starter"]
_ROLES: Mapping[str, Role] = {"directions": "directions", "starter": "starter"}
_ELSEWHERE: list[Callable[[Person, GivenFile], bool]] = []


def read_elsewhere(may_read: Callable[[Person, GivenFile], bool]) -> None:
    """Say who reads files that are given with something else than pockets; once, as the application starts."""
    _ELSEWHERE.append(may_read)


def keep(content: File[Any], name: str) -> tuple[keeping.Kept, str]:
    """Judge, clean and store the bytes; returns them with a tidy title."""
    title, _ = incoming.tidy_title(name)
    return keeping.keep(content, title), title


def add(pocket: Pocket, kept: keeping.Kept, title: str, role: Role, now: datetime, version: str = "") -> GivenFile:
    """Put a stored file beside a pocket, or beside one version of it (its key, which may be in a draft only).

    Call within a deed, with the template locked.
    """
    made = of_kept(kept, title, role, now, version)
    _give(made, pocket)
    return made


def wait(template: Template, kept: keeping.Kept, title: str, role: Role, now: datetime, version: str) -> GivenFile:
    """Keep a file for a pocket that somebody drafts; what waited too long goes. Call with the template locked."""
    waiting = GivenFile.objects.filter(draft_of=template)
    waiting.filter(made_at__lt=now - WAITS).delete()
    if waiting.count() >= MOST_WAITING:
        raise Invalid(
            f"{MOST_WAITING} files wait in drafts of this template, which is the most.",
            where="file",
            fix="Save the draft first, then give more.",
        )
    made = of_kept(kept, title, role, now, version)
    made.draft_of = template
    made.save()
    return made


def wait_for(template: Template, lines: Sequence[Mapping[str, str]], now: datetime) -> list[GivenFile]:
    """Keep files of a document (as ``as_document`` says them) for a pocket that somebody drafts."""
    stored = {one.sha256: one for one in StoredFile.objects.filter(sha256__in=[line["sha256"] for line in lines])}
    found = []
    for line in lines:
        if line["sha256"] in stored:
            kept = keeping.Kept(stored[line["sha256"]], line["came_sha256"], ArtefactKind(line["kind"]))
            found.append(wait(template, kept, line["title"], _ROLES[line["role"]], now, line.get("version", "")))
    return found


def give_waiting(template: Template, pocket: Pocket, file_id: int) -> GivenFile:
    """Give a file that waited to its pocket, now that there is one. Call within a deed, with the template locked."""
    found = GivenFile.objects.filter(pk=file_id, draft_of=template).select_related("stored").first()
    if found is None:
        raise Gone("This file waits no longer.", where=pocket.title, fix="Give it once more.")
    found.draft_of = None
    _give(found, pocket)
    return found


def of_kept(kept: keeping.Kept, title: str, role: Role, now: datetime, version: str = "") -> GivenFile:
    """A file of bytes that are kept, not saved yet and given with nothing."""
    if len(version) > LONGEST_KEY:
        raise Invalid("There is no such version.", where="version", fix="Load the template again.")
    return GivenFile(
        role=role,
        version=version,
        kind=kept.kind,
        title=title,
        stored=kept.stored,
        came_sha256=kept.came_sha256,
        made_at=now,
    )


def _give(made: GivenFile, pocket: Pocket) -> None:
    if made.role == GivenFile.Role.STARTER:
        _as_starter(pocket, made)
    if GivenFile.objects.filter(pocket=pocket, removed_at=None).count() >= MOST_FILES:
        raise Invalid(
            f"“{pocket.title}” has {MOST_FILES} files, which is the most.", where="file", fix="Take one away first."
        )
    made.pocket = pocket
    made.save()


def _as_starter(pocket: Pocket, kept: GivenFile) -> None:
    """Remember a starter's hashes with its pocket; only evidence can begin with a file."""
    if pocket.kind != PocketKind.EVIDENCE or pocket.section.repeats:
        raise Invalid(
            f"“{pocket.title}” cannot begin with a file.", where="file", fix="Give it with the directions instead."
        )
    new = [one for one in (kept.came_sha256, kept.stored.sha256) if one not in pocket.starter_hashes]
    pocket.starter_hashes = [*pocket.starter_hashes, *new]
    pocket.save(update_fields=["starter_hashes"])


def set_removed(template: Template, file_id: int, now: datetime | None) -> GivenFile:
    """Take a file away from its pocket, or (None) bring it back. Call within a deed, with the template locked."""
    found = GivenFile.objects.filter(pk=file_id, pocket__section__template=template).select_related("pocket").first()
    if found is None:
        raise Gone("There is no such file in this template.", fix="Load the template again.")
    found.removed_at = now
    found.save(update_fields=["removed_at"])
    return found


def files_of(pocket: Pocket, version: str = "") -> list[GivenFile]:
    """The files beside a pocket for whoever has that version, those of its pattern among them, as they were added."""
    mine = [one for one in (pocket.pk, pocket.pattern_id) if one is not None]
    rows = GivenFile.objects.filter(pocket__in=mine, removed_at=None, version__in=("", version))
    return list(rows.select_related("stored").order_by("pk"))


def of_group(group_id: int) -> dict[int, list[GivenFile]]:
    """All files of a class's template by pocket: one query."""
    found: dict[int, list[GivenFile]] = {}
    rows = GivenFile.objects.filter(pocket__section__template__group_id=group_id, removed_at=None)
    for one in rows.select_related("stored").order_by("pk"):
        assert one.pocket_id is not None, "those that wait are in no class's pocket"
        found.setdefault(one.pocket_id, []).append(one)
    return found


def readable(person: Person, file_id: int) -> GivenFile:
    """A file that this person may read: staff and students of the class, but of one version only who has it."""
    rows = GivenFile.objects.select_related("stored", "pocket__section__template", "draft_of")
    found = rows.filter(pk=file_id).first()
    if found is not None and found.pocket is None and found.draft_of is None:
        if any(may_read(person, found) for may_read in _ELSEWHERE):
            return found
        raise Gone("There is no such file.", fix="Go back to the hand-in it was given with.")
    group_id = _group_of(found) if found else None
    if found is None or group_id is None:
        raise Gone("There is no such file.", fix="Go back to the pocket it was in.")
    if found.pocket is None:
        require_in_group(person, Action.EDIT_TEMPLATE, group_id)
        return found
    require_in_group(person, Action.READ_DIRECTIONS, group_id)
    student = Enrolment.objects.filter(group_id=group_id, person=person).first() if found.version else None
    if student is not None:
        has = dealing.version_of(found.pocket, student.pk)
        if has is None or has.key != found.version:
            raise Gone("There is no such file.", fix="Go back to the pocket it was in.")
    return found


def _group_of(found: GivenFile) -> int | None:
    """The class in which a file is given or waits; None in a gallery."""
    template = found.pocket.section.template if found.pocket else found.draft_of
    return template.group_id if template else None


def file_data(of: GivenFile) -> dict[str, Any]:
    """A file as plain data."""
    return {
        "id": of.pk,
        "role": of.role,
        "kind": of.kind,
        "title": of.title,
        "version": of.version,
        "size": of.stored.size,
        "media_type": of.stored.media_type,
    }


def as_document(template: Template) -> dict[str, list[dict[str, str]]]:
    """The files of a template by the key of their pocket: published with it. The bytes stay in the store."""
    found: dict[str, list[dict[str, str]]] = {}
    rows = GivenFile.objects.filter(pocket__section__template=template, pocket__retired_at=None, removed_at=None)
    for one in rows.select_related("stored", "pocket").order_by("pk"):
        line = {"role": one.role, "kind": one.kind, "title": one.title, "version": one.version}
        line["sha256"] = one.stored.sha256
        assert one.pocket is not None, "chosen by its pocket"
        found.setdefault(one.pocket.key, []).append({**line, "came_sha256": one.came_sha256})
    return found


def copy(document: Mapping[str, list[dict[str, str]]], made: Sequence[Pocket], now: datetime) -> None:
    """Give pockets made from a document the files it has for their keys."""
    wanted = {line["sha256"] for lines in document.values() for line in lines}
    stored = {one.sha256: one for one in StoredFile.objects.filter(sha256__in=wanted)}
    GivenFile.objects.bulk_create(
        GivenFile(
            pocket=pocket,
            role=line["role"],
            kind=line["kind"],
            title=line["title"],
            version=line.get("version", ""),
            stored=stored[line["sha256"]],
            came_sha256=line["came_sha256"],
            made_at=now,
        )
        for pocket in made
        if pocket.pattern_id is None
        for line in document.get(pocket.key, [])
        if line["sha256"] in stored
    )
    for pocket in made:
        starters = [one for one in document.get(pocket.key, []) if one["role"] == GivenFile.Role.STARTER]
        if starters and pocket.pattern_id is None:
            pocket.starter_hashes = [one[name] for one in starters for name in ("came_sha256", "sha256")]
            pocket.save(update_fields=["starter_hashes"])
