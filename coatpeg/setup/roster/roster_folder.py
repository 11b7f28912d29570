"""The roster folder: what the school's information system puts there is picked up for the class it is called after.

It plays the part of that system's connection. A file becomes a pending change of every class it names: a CSV or Excel
file by its own name, a OneRoster zip by the titles or codes of the classes in it. A person looks at it and applies it,
or it is applied by itself where the class is set so. Decided here: by itself nobody is marked as left: whom the
newest such list did not name is told to who keeps the class, who marks them as left or says that they stay. It is
done in the name of whoever set it so; a file that names no class stays where it is with a note beside it that says why.
"""

from __future__ import annotations

import hashlib
import os
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any

from django.conf import settings
from django.utils import timezone

from coatpeg.core.errors import CoatPegError, Gone
from coatpeg.core.people.oneroster import HEADING, RosterClass, class_named, plain_name
from coatpeg.core.people.roster_table import Column, Table, guess
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.jobs.kinds import Kind, job
from coatpeg.notices.putting import put
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, RosterDrop, TeachingGroup
from coatpeg.setup.roster import class_lists, enrolling
from coatpeg.setup.roster.class_lists import ClassList
from coatpeg.setup.roster.memberships import locked_group
from coatpeg.setup.roster.roster_files import MOST_BYTES, classes_in, read_bytes

TAKEN = "taken"
NOTE = ".not-taken.txt"
LOOK_AGAIN = 60.0
"""Seconds after which a file that was not taken is looked at again: its class may have been started meanwhile."""
AT_REST = 2.0
"""Seconds since a file was last written to: one that is still being copied is left for the next look."""


@dataclass(frozen=True, slots=True)
class PickedUp:
    """What one look into the folder did, by the names of files."""

    taken: tuple[str, ...] = ()
    left: tuple[str, ...] = ()


def pick_up(folder: Path, now: datetime) -> PickedUp:
    """Look into the folder once; safe to be called again at any time."""
    if not folder.is_dir():
        return PickedUp()
    taken, left = [], []
    for path in sorted(folder.iterdir()):
        if path.is_file() and not path.name.startswith(".") and not path.name.endswith(NOTE) and _at_rest(path, now):
            why = _take(path, now)
            note = path.with_name(path.name + NOTE)
            if why:
                left.append(path.name)
                note.write_text(why)  # also where it says the same: it tells when the file was last looked at
            else:
                taken.append(path.name)
                (folder / TAKEN).mkdir(exist_ok=True)
                os.replace(path, folder / TAKEN / f"{now:%Y%m%d-%H%M%S} {path.name}")
                note.unlink(missing_ok=True)
    return PickedUp(tuple(taken), tuple(left))


def _at_rest(path: Path, now: datetime) -> bool:
    return now.timestamp() - path.stat().st_mtime >= AT_REST


def _take(path: Path, now: datetime) -> str:
    """Make a file a pending change of the classes it names; returns why not, where it does not."""
    try:
        if path.stat().st_size > MOST_BYTES:
            return f"It has more than {MOST_BYTES // 1_000_000} MB, the most that is taken.\n"
        data = path.read_bytes()
        found = _tables(data, path.name, now)
    except CoatPegError as error:
        return f"{error.what} {error.fix}\n"
    if not found:
        return "No class is called like this file, or like a class in it. Call the file after the class.\n"
    for group, table in found:
        _keep(group, table, path.name, hashlib.sha256(data).hexdigest(), now)
    return ""


def _tables(data: bytes, name: str, now: datetime) -> list[tuple[TeachingGroup, Table]]:
    today = school_calendar().local_day(now)
    groups = [one for one in TeachingGroup.objects.exclude(kind="caseload") if one.last >= today]
    classes = classes_in(data, name, today)
    if classes:
        named = [(group, _called(classes, group.name)) for group in groups]
        return [(group, Table(HEADING, of.lines)) for group, of in named if of]
    stem = plain_name(Path(name).stem)
    return [
        (group, read_bytes(data, name, today, group.name).table) for group in groups if plain_name(group.name) == stem
    ]


def _called(classes: tuple[RosterClass, ...], name: str) -> RosterClass | None:
    """A class of a file by name only: of a single one that is called otherwise, nothing is guessed here."""
    of = class_named(classes, name)
    return of if of and plain_name(name) in (plain_name(of.title), plain_name(of.code)) else None


def _keep(group: TeachingGroup, table: Table, name: str, sha256: str, now: datetime) -> None:
    """Keep a pending change; a newer list of a class puts the waiting one aside. Apply it, where it is set so."""
    with deed(None, now) as doing:
        locked_group(group.pk)
        if RosterDrop.objects.filter(group=group, sha256=sha256, state=RosterDrop.State.PENDING).exists():
            return
        RosterDrop.objects.filter(group=group, state=RosterDrop.State.PENDING).update(state=RosterDrop.State.ASIDE)
        drop = RosterDrop.objects.create(
            group=group,
            name=name[:200],
            sha256=sha256,
            at=now,
            table={
                "heading": list(table.heading),
                "rows": [list(row) for row in table.rows],
                "columns": [one.value for one in guess(table)],
            },
        )
        doing.record("roster_dropped", group.pk, drop=drop.pk)
        put(doing, "list_arrived", group.pk, drop=drop.pk)
    by = group.takes_lists_by
    if by is not None:
        try:
            apply(by, drop, now)
        except CoatPegError as error:
            RosterDrop.objects.filter(pk=drop.pk).update(message=f"{error.what} {error.fix}"[:500])


def apply(person: Person, drop: RosterDrop, now: datetime) -> None:
    """Apply a pending change as it came, without its bad lines; nobody is marked as left."""
    done = enrolling.apply_list(person, drop.group_id, list_of(drop), now)
    settle(drop.group_id, drop.pk, RosterDrop.State.APPLIED, done.change_id, done.missing)


def list_of(drop: RosterDrop) -> ClassList:
    """The list of a pending change, as commands take it."""
    table = drop.table
    rows = tuple(tuple(row) for row in table["rows"])
    return ClassList(rows, tuple(Column(one) for one in table["columns"]), drop=drop.pk)


def settle(
    group_id: int,
    drop_id: int,
    state: RosterDrop.State,
    change_id: int | None = None,
    missing: Sequence[int] = (),
) -> None:
    """Say what became of a pending change; its students' names are forgotten."""
    rows = RosterDrop.objects.filter(pk=drop_id, group_id=group_id, state=RosterDrop.State.PENDING)
    if rows.update(state=state, change_id=change_id, table={}, missing=list(missing)):
        # Of whom an earlier list did not name, this one has spoken again.
        RosterDrop.objects.filter(group_id=group_id, pk__lt=drop_id).exclude(missing=[]).update(missing=[])


def shown(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """What came for a class and what became of it, newest first; whether lists are applied by themselves.

    Of whom a list that applied itself did not name, those who are still in the class.
    """
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    group = TeachingGroup.objects.get(pk=group_id)
    drops = list(RosterDrop.objects.filter(group=group).order_by("-pk")[:10])
    here = Enrolment.objects.filter(group=group, last=None, pk__in=[pk for one in drops for pk in one.missing])
    names = class_lists.listed_names(group_id, list(here.values_list("pk", flat=True)), now)
    return {
        "by_itself": group.takes_lists_by_id is not None,
        "drops": [
            {
                "id": one.pk,
                "name": one.name,
                "at": one.at,
                "state": one.state,
                "message": one.message,
                "change": one.change_id,
                "missing": [{"id": pk, "name": name} for pk, name in names.items() if pk in one.missing],
            }
            for one in drops
        ],
    }


def opened(person: Person, group_id: int, drop_id: int) -> dict[str, Any]:
    """The table of a pending change."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    drop = RosterDrop.objects.filter(pk=drop_id, group_id=group_id, state=RosterDrop.State.PENDING).first()
    if drop is None:
        raise Gone("This list was applied or put aside already.", fix="Look at the class list again.")
    return dict(drop.table)


def put_aside(person: Person, group_id: int, drop_id: int, now: datetime) -> None:
    """Say that a pending change is not wanted; of one that applied itself, that whom it did not name stay."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        RosterDrop.objects.filter(pk=drop_id, group_id=group_id).update(missing=[])
        settle(group_id, drop_id, RosterDrop.State.ASIDE)
        doing.record("roster_put_aside", group_id, drop=drop_id)


def set_by_itself(person: Person, group_id: int, now: datetime, *, by_itself: bool) -> None:
    """Apply lists for this class by themselves, in this person's name, or no longer."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.filter(pk=group_id).update(takes_lists_by=person if by_itself else None)
        doing.record("roster_by_itself", group_id, on=by_itself)


def folder() -> Path:
    """The roster folder of this installation."""
    return Path(settings.VAR) / "roster-drop"


def has_come() -> bool:
    """Whether a file lies in the roster folder that was not looked at as it is: newer than its note, and at rest."""
    here = folder()
    return here.is_dir() and any(_to_look_at(path, timezone.now()) for path in here.iterdir())


def _to_look_at(path: Path, now: datetime) -> bool:
    if not path.is_file() or path.name.startswith(".") or path.name.endswith(NOTE) or not _at_rest(path, now):
        return False
    note = path.with_name(path.name + NOTE)
    return not note.exists() or note.stat().st_mtime < max(path.stat().st_mtime, now.timestamp() - LOOK_AGAIN)


@job(Kind("picking up class lists"))
def pick_up_lists() -> list[str]:
    """Look into the roster folder; returns the names of the lists that were taken."""
    return list(pick_up(folder(), timezone.now()).taken)
