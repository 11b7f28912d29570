"""Any history gives the same board by increments, by patches (the browser's model and the server's), and by recount."""

from __future__ import annotations

import json
import subprocess
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.conf import settings
from django.db import transaction
from hypothesis import HealthCheck, given
from hypothesis import settings as tried
from hypothesis import strategies as some

from coatpeg.core.errors import CoatPegError
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.handins.handing import commands, records
from coatpeg.handins.handing.records import facts_now
from coatpeg.handins.many import handing_for, locks, undoing
from coatpeg.handins.many.choosing import Seen
from coatpeg.handins.models import KeptFacts, Submission
from coatpeg.marking import commands as marking
from coatpeg.marking.many import accept_many, reopen_many, send_back_many
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

FRONTEND = Path(settings.BASE_DIR) / "frontend"
PATCH = """
import { readFileSync } from "node:fs";
import { patched } from "./model.mjs";
let board = null;
for (const step of JSON.parse(readFileSync("steps.json", "utf8"))) {
  board = step.board ?? (step.changes.rows.length > 0 ? patched(board, step.changes) : board);
}
console.log(JSON.stringify(board));
"""
DEEDS = ("fill", "hand_in", "take_back", "accept", "send_back", "reopen", "excuse", "unexcuse", "own_due")
ON_MANY = ("hand_in_for", "send_back_many", "accept_many", "reopen_many", "lock", "open", "undo")
STEPS = some.lists(
    some.tuples(some.sampled_from(DEEDS + ON_MANY), some.integers(0, 2), some.integers(0, 1)), min_size=1, max_size=14
)


class Undone(Exception):
    """Ends an example: nothing of it stays."""


class Histories(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead, self.group = self.plot.lead, self.plot.group.pk
        self.pockets = [self.plot.pocket(), self.plot.pocket("Menu", artefacts=1)]
        self.books = [self.plot.student(f"s{at}", name, "Abel") for at, name in enumerate(("Ada", "Bea", "Cyr"))]
        self.handins = [
            self.plot.handin(self.pockets[0], due=TODAY - timedelta(days=1)),
            self.plot.handin(self.pockets[1], title="Menu", due=TODAY + timedelta(days=5)),
        ]
        self.handins[1].pockets.add(self.pockets[0])
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        # The model that the page itself uses, its types taken off by the compiler.
        strip = (
            'const ts = require("typescript"), text = require("fs").readFileSync("src/live/board.ts", "utf8");'
            'process.stdout.write(ts.transpileModule(text, {compilerOptions: {module: "esnext", target: "es2022"}}).outputText)'
        )
        model = subprocess.run(["node", "-e", strip], cwd=FRONTEND, capture_output=True, text=True, check=True).stdout
        (self.folder / "model.mjs").write_text(model)
        (self.folder / "patch.mjs").write_text(PATCH)

    def test_increments_patches_and_recount_agree(self) -> None:
        @tried(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))
        @given(STEPS)
        def each(steps: list[tuple[str, int, int]]) -> None:
            try:
                with transaction.atomic():
                    self.lived(steps)
                    raise Undone
            except Undone:
                pass

        each()

    def lived(self, steps: list[tuple[str, int, int]]) -> None:
        self.deed = ("", Action.LOCK_POCKETS)
        told: list[dict[str, Any]] = [{"board": self.pegs(self.lead, self.group)}]
        cursor = self.ok(self.lead, "GET", f"/groups/{self.group}/changes")["cursor"]
        for minute, (deed, student, handin) in enumerate(steps):
            self.do(deed, student, handin, minute)
            held = self.kept_pegs(self.lead, self.group)
            found = self.ok(self.lead, "GET", f"/groups/{self.group}/changes?after={cursor}&board=true")
            cursor = found["cursor"]
            told.append({"board": held} if found["board_anew"] else {"changes": found})
        self.assertEqual(list(records.differences()), [], "by increments and by recount")
        facts = self.facts()
        records.rebuild()
        self.assertEqual([one for one in self.facts() if one[2:] != BLANK], [one for one in facts if one[2:] != BLANK])
        (self.folder / "steps.json").write_text(json.dumps(told))
        said = subprocess.run(["node", "patch.mjs"], cwd=self.folder, capture_output=True, text=True, check=True)
        patched, fresh = json.loads(said.stdout), self.pegs(self.lead, self.group)
        for part in ("students", "handins"):
            self.assertEqual(patched[part], fresh[part], f"{part} by patches in the page")
            self.assertEqual(held[part], fresh[part], f"{part} by patches in the server")

    def facts(self) -> list[tuple[Any, ...]]:
        fields = ("first_at", "newest", "newest_at", "submissions", "outcome", "due_again", "excused")
        return list(KeptFacts.objects.order_by("handin", "enrolment").values_list("handin", "enrolment", *fields))

    def do(self, deed: str, student: int, handin: int, minute: int) -> None:
        """One step; what cannot be done as things stand is refused, and nothing happens."""
        at = NOW + timedelta(minutes=minute)
        book, of = self.books[student], self.handins[handin]
        facts = facts_now(book.enrolment_id, of.pk)
        newest = Submission.objects.filter(pk=facts.newest).first()
        steps: dict[str, Callable[[], object]] = {
            "fill": lambda: builders.fill(book, self.pockets[handin], at),
            "hand_in": lambda: builders.hand_in(book, of, at, seen=facts.submissions, even_if_empty=True),
            "take_back": lambda: newest and commands.take_back(book.enrolment.person, newest.pk, at),
            "accept": lambda: newest and builders.mark(self.lead, newest, at, score=None),
            "send_back": lambda: newest and builders.mark(self.lead, newest, at, accept=False, score=None),
            "reopen": lambda: newest and marking.reopen(self.lead, newest.pk, at),
            "excuse": lambda: commands.set_excused(self.lead, of.pk, book.enrolment_id, at, excused=True),
            "unexcuse": lambda: commands.set_excused(self.lead, of.pk, book.enrolment_id, at, excused=False),
            "own_due": lambda: commands.set_own_due(
                self.lead, of.pk, book.enrolment_id, Due(TODAY + timedelta(days=minute)), at
            ),
        }
        try:
            with transaction.atomic():
                steps[deed]() if deed in steps else self.on_many(deed, handin, at)
        except CoatPegError:
            pass

    def on_many(self, deed: str, handin: int, at: Any) -> None:
        board = self.pegs(self.lead, self.group)
        of = self.handins[handin].pk
        place = [one["id"] for one in board["handins"]].index(of)
        seen = [Seen(of, row["id"], Status(row["cells"][place]["status"])) for row in board["students"]]
        if deed == "undo":
            name, action = self.deed
            undoing.undo_deed(self.lead, self.group, action, name, at)
        elif deed == "hand_in_for":
            name = handing_for.hand_in_for(self.lead, self.group, seen, handing_for.Received(), at)[1]
            self.deed = (name, Action.HAND_IN_FOR)
        elif deed == "send_back_many":
            self.deed = (send_back_many(self.lead, self.group, seen, "", None, at)[1], Action.MARK)
        elif deed == "accept_many":
            self.deed = (accept_many(self.lead, self.group, seen, "", at)[1], Action.MARK)
        elif deed == "reopen_many":
            self.deed = (reopen_many(self.lead, self.group, seen, at)[1], Action.MARK)
        else:
            done = locks.lock_cells(self.lead, self.group, seen, locks.Locking(deed == "lock"), at)
            self.deed = (done.deed, Action.LOCK_POCKETS)


BLANK = (None, None, None, 0, None, None, False)
"""Facts of nothing: a row of them is as good as none."""
