"""The changes feed: who is told what, at what price, and the board patched by it."""

import json
from collections.abc import Callable
from datetime import timedelta
from typing import Any

from coatpeg.events.models import Event
from coatpeg.handins.models import Submission
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.looking import comments
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class Changes(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi")
        self.josh = self.plot.student("josh", "Josh", "Ellery")
        self.path = f"/groups/{self.plot.group.pk}/changes"

    def follow(self, person: Person, after: int | None = None, **more: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ok(
            person, "GET", self.path, **({"data": {"after": after, **more}} if after is not None else {})
        )
        return found

    def test_a_student_hears_of_themselves_and_the_class_never_of_others(self) -> None:
        cursor = self.follow(self.plot.lead)["cursor"]
        builders.fill(self.thandi, self.card)
        handin = self.plot.handin(self.card)
        builders.hand_in(self.thandi, handin)
        staff, own, others = (
            self.follow(one, cursor)
            for one in (self.plot.lead, self.thandi.enrolment.person, self.josh.enrolment.person)
        )
        self.assertEqual(staff["kinds"], ["asked", "handing", "work"])
        self.assertEqual((staff["enrolments"], staff["handins"]), ([self.thandi.enrolment_id], [handin.pk]))
        self.assertEqual((own["kinds"], own["enrolments"]), (staff["kinds"], staff["enrolments"]))
        self.assertEqual((others["kinds"], others["enrolments"], others["everybody"]), (["asked"], [], True))

    def test_nothing_new_costs_two_queries_beside_the_session(self) -> None:
        builders.fill(self.thandi, self.card)
        for person in (self.plot.lead, self.thandi.enrolment.person):
            cursor = self.follow(person)["cursor"]
            client = self.client_of(person)
            with self.subTest(person.username), self.assertNumQueries(4):  # two of them are the session and its person
                self.assertEqual(client.get(f"/api{self.path}?after={cursor}&board=true").json()["kinds"], [])

    def test_a_cursor_that_never_was_means_load_anew(self) -> None:
        for cursor in (99999, -1):
            self.assertTrue(self.follow(self.plot.lead, cursor, board=True)["all_changed"])
        self.problem(422, self.plot.lead, "GET", f"{self.path}?after=one")


class ChangedCells(ApiCase):
    """The board patched by what a poll tells of a change is the board as it is loaded anew."""

    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card, self.plan = self.plot.pocket(), self.plot.pocket("Plan", artefacts=1)
        self.thandi = self.plot.student("thandi")
        self.josh = self.plot.student("josh", "Josh", "Ellery")
        self.handins = [self.plot.handin(self.card), self.plot.handin(self.plan, title="Plan")]
        self.path = f"/groups/{self.plot.group.pk}"

    def shown(self) -> Any:
        """The board as it is loaded, without the list of its different cells."""
        found = self.pegs(self.plot.lead, self.plot.group.pk)
        del found["states"]
        return found

    def patched(self, board: dict[str, Any], changes: dict[str, Any]) -> dict[str, Any]:
        """The board as a page patches it (``frontend/src/live/board.ts``)."""
        board = json.loads(json.dumps(board))
        for row in changes["rows"]:
            kept = next(one for one in board["students"] if one["id"] == row["id"])
            kept.update({name: row[name] for name in set(row) - {"id", "cells"}})
            for at, handin in enumerate(board["handins"]):
                kept["cells"][at] = row["cells"].get(str(handin["id"]), kept["cells"][at])
        for at, handin in enumerate(board["handins"]):
            cells = [row["cells"][at] for row in board["students"]]
            for name, of in board["counting"].items():
                handin[name] = sum(cell["status"] in of for cell in cells)
            handin["overdue"] = sum(cell["overdue"] for cell in cells)
        return board

    def follows(self, do: Callable[[], object]) -> dict[str, Any]:
        """What a poll tells of a change; the board patched by it is the board loaded anew."""
        cursor = self.ok(self.plot.lead, "GET", f"{self.path}/changes")["cursor"]
        before = self.shown()
        do()
        changes: dict[str, Any] = self.ok(
            self.plot.lead, "GET", f"{self.path}/changes", data={"after": cursor, "board": True}
        )
        self.assertFalse(changes["board_anew"])
        self.assertEqual(self.patched(before, changes), self.shown())
        return changes

    def cells(self, changes: dict[str, Any]) -> list[int]:
        (row,) = changes["rows"]
        self.assertEqual(row["id"], self.thandi.enrolment_id)
        return sorted(map(int, row["cells"]))

    def test_work_hand_in_outcome_excuse_own_date_and_adjustment(self) -> None:
        card, plan = (one.pk for one in self.handins)
        self.assertEqual(self.cells(self.follows(lambda: builders.fill(self.thandi, self.card))), [card])
        self.assertEqual(self.cells(self.follows(lambda: builders.hand_in(self.thandi, self.handins[0]))), [card])
        submission = Submission.objects.get()
        self.assertEqual(self.cells(self.follows(lambda: builders.mark(self.plot.lead, submission))), [card])
        base = f"/handins/{plan}/students/{self.thandi.enrolment_id}"
        excuse = self.follows(lambda: self.ok(self.plot.lead, "PUT", f"{base}/excused", {"excused": True}))
        self.assertEqual(self.cells(excuse), [plan])
        due = self.follows(lambda: self.ok(self.plot.lead, "PUT", f"{base}/due", {"day": "2026-11-20"}))
        self.assertEqual(self.cells(due), [plan])
        caseload = klass("Caseload", "lindqvist", "caseload")
        Enrolment.objects.create(group=caseload.group, person=self.thandi.enrolment.person, first=TODAY, picture="leaf")
        body = {"extra_days": 2, "first": "2026-11-01"}
        path = f"/students/{self.thandi.enrolment_id}/adjustments"
        agreed = self.follows(lambda: self.ok(caseload.lead, "POST", path, body))
        self.assertEqual(self.cells(agreed), [card, plan])

    def test_a_text_that_saves_itself_moves_last_work_and_tells_so(self) -> None:
        evidence = builders.fill(self.thandi, self.card)
        self.follows(lambda: builders.reflect(evidence, "One thing. Another. A third.", NOW + timedelta(seconds=30)))
        events = Event.objects.count()
        later = NOW + timedelta(minutes=2)

        def save() -> None:
            builders.reflect(evidence, "One thing. Another. A third one.", later)

        changes = self.follows(save)
        self.assertEqual(Event.objects.count(), events, "no event: nothing is met that was not before")
        self.assertEqual(changes["kinds"], ["work"])
        self.assertEqual(changes["rows"][0]["last_work"], "2026-11-04T10:02:00Z")
        cursor = self.ok(self.plot.lead, "GET", f"{self.path}/changes")["cursor"]
        builders.reflect(evidence, "One thing. Another. A third one!", later + timedelta(seconds=5))
        self.assertEqual(
            self.ok(self.plot.lead, "GET", f"{self.path}/changes")["cursor"], cursor, "not told again at once"
        )
        self.assertEqual(list(differences()), [])

    def test_what_is_nobodys_alone_has_the_board_loaded_anew(self) -> None:
        cursor = self.ok(self.plot.lead, "GET", f"{self.path}/changes")["cursor"]
        self.plot.handin(self.plan, title="Later")
        changes = self.ok(self.plot.lead, "GET", f"{self.path}/changes", data={"after": cursor, "board": True})
        self.assertEqual((changes["board_anew"], changes["rows"]), (True, []))

    def test_comments_leave_the_board_as_it_is(self) -> None:
        evidence = builders.fill(self.thandi, self.card)
        said = self.follows(lambda: comments.leave(self.plot.lead, self.thandi.pk, "Well.", NOW, evidence=evidence.pk))
        self.assertEqual((said["kinds"], said["rows"]), (["comments"], []))

    def test_a_student_is_sent_no_rows(self) -> None:
        person = self.thandi.enrolment.person
        cursor = self.ok(person, "GET", f"{self.path}/changes")["cursor"]
        builders.fill(self.thandi, self.card)
        changes = self.ok(person, "GET", f"{self.path}/changes", data={"after": cursor, "board": True})
        self.assertEqual((changes["kinds"], changes["rows"]), (["work"], []))

    def test_the_answer_of_one_change_is_small_however_many_hand_ins_there_are(self) -> None:
        for number in range(58):
            self.plot.handin(self.plan, title=f"Hand-in {number}")
        cursor = self.ok(self.plot.lead, "GET", f"{self.path}/changes")["cursor"]
        builders.fill(self.thandi, self.card)
        builders.hand_in(self.thandi, self.handins[0])
        path = f"{self.path}/changes?after={cursor}&board=true"
        self.assertLess(len(self.call(self.plot.lead, "GET", path).content), 4_000)
