"""Locking, handing in for students, sending back many: as they were seen, one deed, told, undone; by role, by recount."""

from __future__ import annotations

import hashlib
import json
from datetime import timedelta
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.handing import records
from coatpeg.handins.models import HandIn, Submission
from coatpeg.notices.models import Notice
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)


class Deeds(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card, self.menu = self.plot.pocket(), self.plot.pocket("Menu", artefacts=1)
        self.ada, self.bea, self.cyr = (
            self.plot.student(f"s{one}", name, "Abel") for one, name in enumerate(("Ada", "Bea", "Cyr"))
        )
        self.one = self.plot.handin(self.card, due=TODAY - DAY)
        self.two = self.plot.handin(self.menu, title="Menu", due=None)
        self.group = f"/groups/{self.plot.group.pk}"
        builders.fill(self.ada, self.card)
        builders.hand_in(self.ada, self.one)

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def seen(self, *students: Any, handin: Any = None) -> list[dict[str, Any]]:
        """Cells as they stand: of some students (or all), of one hand-in (or all)."""
        board = self.pegs(self.lead, self.plot.group.pk)
        wanted = {one.enrolment_id for one in students}
        return [
            {"handin": of["id"], "enrolment": row["id"], "status": cell["status"]}
            for row in board["students"]
            for of, cell in zip(board["handins"], row["cells"], strict=True)
            if (not wanted or row["id"] in wanted) and (handin is None or of["id"] == handin.pk)
        ]

    def status(self, student: Any, handin: Any) -> dict[str, Any]:
        board = self.pegs(self.lead, self.plot.group.pk)
        place = [one["id"] for one in board["handins"]].index(handin.pk)
        return next(row["cells"][place] for row in board["students"] if row["id"] == student.enrolment_id)

    def undo(self, deed: str, what: str = "locked") -> Any:
        return self.ok(self.lead, "DELETE", f"{self.group}/cells/{what}/{deed}")

    def held(self) -> set[tuple[int, int, int]]:
        rows = StandingHold.objects.values_list("portfolio__enrolment_id", "pocket_id", "handin_id")
        return set(rows)

    def lock(self, cells: list[dict[str, Any]], **body: Any) -> Any:
        return self.ok(self.lead, "POST", f"{self.group}/cells/locked", {"cells": cells, **body})

    # Locks

    def test_locked_with_a_reason_that_the_student_reads_and_no_key_goes_in(self) -> None:
        builders.fill(self.bea, self.card)
        before = self.held()
        looked = self.lock(self.seen(handin=self.one), only_look=True)
        self.assertEqual((looked["cells"], looked["deed"], self.held()), (3, "", before))
        done = self.lock(self.seen(handin=self.one), reason="  Parents’\nevening ")
        self.assertEqual((done["cells"], done["students"]), (3, 3))
        student = self.bea.enrolment.person
        path = f"/portfolios/{self.bea.pk}/pockets/{self.card.pk}"
        opened = self.ok(student, "GET", path)
        self.assertFalse(opened["writable"])
        (hold,) = opened["locked_by"]
        self.assertEqual((hold["handin"], hold["reason"]), (0, "Parents’ evening"))
        self.assertIn("Okafor", hold["by"])
        evidence = opened["evidence"][0]
        body = {"text": "More words", "version": evidence["version"]}
        told = self.problem(403, student, "PUT", f"/evidence/{evidence['id']}/reflection", body)
        self.assertIn("your teacher locked it", told["title"])
        again = self.lock(self.seen(handin=self.one))
        self.assertEqual((again["cells"], [one["why"] for one in again["left"]]), (0, ["already"]))
        self.assertEqual(self.undo(done["deed"]), {"students": 3, "left": 0})
        self.assertEqual(self.held(), before)
        self.ok(student, "PUT", f"/evidence/{evidence['id']}/reflection", body)

    def test_opened_what_was_handed_in_stays_handed_in_and_is_locked_again_by_undo(self) -> None:
        before = self.held()
        done = self.lock(self.seen(handin=self.one), locked=False)
        self.assertEqual((done["cells"], done["handed_in"]), (1, 1))
        self.assertEqual([(one["why"], one["cells"]) for one in done["left"]], [("already", 2)])
        self.assertEqual((self.held(), self.status(self.ada, self.one)["status"]), (set(), "handed_in"))
        self.assertEqual(self.undo(done["deed"]), {"students": 1, "left": 0})
        self.assertEqual(self.held(), before)

    def test_what_was_sent_back_meanwhile_is_not_locked_by_the_undo(self) -> None:
        done = self.lock(self.seen(handin=self.one), locked=False)
        builders.mark(self.lead, Submission.objects.get(), accept=False)
        self.assertEqual(self.undo(done["deed"]), {"students": 0, "left": 1})
        self.assertEqual(self.held(), set())

    def test_a_lock_of_the_staff_outlasts_a_sent_back(self) -> None:
        self.lock(self.seen(self.ada, handin=self.one))
        builders.mark(self.lead, Submission.objects.get(), accept=False)
        self.assertEqual(self.held(), {(self.ada.enrolment_id, self.card.pk, 0)})

    def test_one_pocket_of_one_some_or_everybody(self) -> None:
        path = f"{self.group}/pockets/{self.menu.pk}/locked"
        done = self.ok(self.lead, "POST", path, {"students": [self.bea.enrolment_id]})
        self.assertEqual(done["students"], 1)
        rest = self.ok(self.lead, "POST", path, {})
        self.assertEqual((rest["students"], [one["names"] for one in rest["left"]]), (2, [["Abel, Bea"]]))
        gone = self.ok(self.lead, "POST", path, {"students": [999_999], "locked": False})
        self.assertEqual((gone["students"], gone["left"]), (0, [{"why": "gone", "cells": 1, "names": []}]))
        self.problem(404, self.lead, "POST", f"{self.group}/pockets/999999/locked", {})
        self.problem(422, self.lead, "POST", path, {"reason": "x" * 201})
        self.problem(422, self.lead, "POST", path, {"students": []})

    # Handing in for students

    def hand_in(self, cells: list[dict[str, Any]], **body: Any) -> Any:
        return self.ok(self.lead, "POST", f"{self.group}/cells/handed-in", {"cells": cells, **body})

    def test_handed_in_for_them_from_the_moment_it_was_received(self) -> None:
        builders.fill(self.bea, self.card)
        received = TODAY - DAY
        looked = self.hand_in(self.seen(), day=str(received), at="08:00", only_look=True)
        self.assertEqual((looked["cells"], [one["why"] for one in looked["left"]]), (5, ["already"]))
        self.assertEqual(Submission.objects.count(), 1)
        done = self.hand_in(self.seen(), day=str(received), at="08:00", how="paper")
        self.assertEqual((done["cells"], done["students"]), (5, 3))
        cell = self.status(self.bea, self.one)
        self.assertEqual((cell["status"], cell["late"]), ("handed_in", False), "it counts from when it was received")
        student = self.bea.enrolment.person
        opened = self.ok(student, "GET", f"/portfolios/{self.bea.pk}/pockets/{self.card.pk}")
        (line,) = next(one for one in opened["handins"] if one["id"] == self.one.pk)["submissions"]
        self.assertEqual((line["for_them"]["how"], line["empty"]), ("paper", False))
        self.assertIn("Okafor", line["for_them"]["by"])
        self.assertEqual({one.data["enrolment"] for one in Notice.objects.filter(what="handed_in_for")}, self.ids())
        self.assertFalse(
            Notice.objects.filter(what="handed_in", by_id=self.lead.pk).exists(), "staff did it themselves"
        )
        # The checksum is that of the frozen document, as any tool computes it.
        made = Submission.objects.get(pk=line["id"])
        document = json.dumps(made.snapshot, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
        self.assertEqual(made.sha256, hashlib.sha256(document.encode()).hexdigest())
        self.assertEqual(self.undo(done["deed"], "handed-in"), {"students": 3, "left": 0})
        self.assertEqual(self.status(self.bea, self.one)["status"], "working")
        self.assertEqual(self.held(), {(self.ada.enrolment_id, self.card.pk, self.one.pk)})

    def ids(self) -> set[int]:
        return {one.enrolment_id for one in (self.ada, self.bea, self.cyr)}

    def test_after_it_was_received_it_is_late_and_a_moment_to_come_is_refused(self) -> None:
        path = f"{self.group}/cells/handed-in"
        for body in ({"day": str(TODAY + DAY)}, {"day": str(TODAY), "at": "23:59"}, {"day": "1999-01-01"}):
            told = self.problem(422, self.lead, "POST", path, {"cells": self.seen(), **body})
            self.assertEqual(told["where"], "day")
        self.hand_in(self.seen(self.cyr, handin=self.one), day=str(TODAY))
        cell = self.status(self.cyr, self.one)
        self.assertEqual((cell["late"], cell["late_days"]), (True, 1))
        self.assertLessEqual(Submission.objects.get(enrolment=self.cyr.enrolment).at, NOW)

    def test_what_came_back_can_be_handed_in_for_them_again(self) -> None:
        builders.mark(self.lead, Submission.objects.get(), accept=False)
        self.hand_in(self.seen(self.ada, handin=self.one), how="mail")
        numbers = Submission.objects.filter(enrolment=self.ada.enrolment).values_list("number", flat=True)
        self.assertEqual((sorted(numbers), self.status(self.ada, self.one)["status"]), ([1, 2], "handed_in"))

    def test_what_is_marked_meanwhile_is_not_taken_back_by_the_undo(self) -> None:
        done = self.hand_in(self.seen(self.bea, self.cyr, handin=self.one))
        builders.mark(self.lead, Submission.objects.get(enrolment=self.bea.enrolment), score=None)
        self.assertEqual(self.undo(done["deed"], "handed-in"), {"students": 1, "left": 1})
        self.assertEqual(self.status(self.bea, self.one)["status"], "accepted")

    # Sending back

    def test_sent_back_with_the_same_words_and_reopened_by_undo(self) -> None:
        self.hand_in(self.seen(self.bea, handin=self.one))
        path, again = f"{self.group}/cells/sent-back", TODAY + 3 * DAY
        body = {"feedback": "Add how much it weighs.", "due_again": str(again)}
        before = self.held()
        looked = self.ok(self.lead, "POST", path, {"cells": self.seen(handin=self.one), **body, "only_look": True})
        self.assertEqual((looked["cells"], self.held()), (2, before))
        done = self.ok(self.lead, "POST", path, {"cells": self.seen(handin=self.one), **body})
        self.assertEqual([(one["why"], one["cells"]) for one in done["left"]], [("not_handed_in", 1)])
        self.assertEqual((self.status(self.bea, self.one)["status"], self.held()), ("sent_back", set()))
        feedback = self.ok(self.bea.enrolment.person, "GET", f"/portfolios/{self.bea.pk}/feedback")
        self.assertEqual([one["feedback"] for one in feedback], ["Add how much it weighs."])
        self.assertEqual(Notice.objects.filter(what="sent_back").count(), 2)
        self.assertEqual(self.undo(done["deed"], "sent-back"), {"students": 2, "left": 0})
        self.assertEqual((self.status(self.bea, self.one)["status"], self.held()), ("handed_in", before))
        self.problem(422, self.lead, "POST", path, {"cells": self.seen(), "due_again": str(TODAY - DAY)})

    # Accepting, reopening

    def test_accepted_with_the_same_words_but_for_what_the_desk_has_to_judge(self) -> None:
        self.hand_in(self.seen(self.bea))
        HandIn.objects.filter(pk=self.two.pk).update(rubric={"levels": [], "criteria": [], "halves": False})
        path = f"{self.group}/cells/accepted"
        done = self.ok(self.lead, "POST", path, {"cells": self.seen(), "feedback": "All well."})
        left = {one["why"]: one["cells"] for one in done["left"]}
        self.assertEqual((done["cells"], left), (2, {"not_handed_in": 3, "by_rubric": 1}))
        line = self.ok(self.bea.enrolment.person, "GET", f"/portfolios/{self.bea.pk}/feedback")[0]
        self.assertEqual((line["feedback"], line["score"], line["kind"]), ("All well.", None, "accepted"))
        self.assertEqual(self.undo(done["deed"], "accepted"), {"students": 2, "left": 0})
        self.assertEqual(self.status(self.bea, self.one)["status"], "handed_in")

    def test_reopened_and_decided_again_by_undo_with_what_was_said(self) -> None:
        self.hand_in(self.seen(self.bea, self.cyr, handin=self.one))
        before = self.held()
        ada, bea, cyr = (
            Submission.objects.get(enrolment=one.enrolment, handin=self.one) for one in (self.ada, self.bea, self.cyr)
        )
        builders.mark(self.lead, ada, score=20)
        builders.mark(self.lead, bea, accept=False, score=None)
        decided = self.held()
        path = f"{self.group}/cells/reopened"
        done = self.ok(self.lead, "POST", path, {"cells": self.seen(handin=self.one)})
        self.assertEqual([(one["why"], one["cells"]) for one in done["left"]], [("not_decided", 1)])
        self.assertEqual((self.status(self.ada, self.one)["status"], self.held()), ("handed_in", before))
        reading = f"/portfolios/{self.ada.pk}/feedback"
        self.assertEqual(self.ok(self.ada.enrolment.person, "GET", reading), [], "what was said is a draft again")
        # Of one something else has happened since: it is left as it is.
        builders.mark(self.lead, cyr, score=10)
        self.assertEqual(self.undo(done["deed"], "reopened"), {"students": 2, "left": 0})
        self.assertEqual((self.status(self.bea, self.one)["status"], self.held()), ("sent_back", decided))
        self.assertEqual([one["score"] for one in self.ok(self.ada.enrolment.person, "GET", reading)], [20])
        self.assertEqual(self.undo(done["deed"], "reopened"), {"students": 0, "left": 2}, "twice does no harm")

    # All of them

    def test_a_deed_is_undone_as_what_it_was_and_only_with_the_right_to_do_it(self) -> None:
        marker = self.plot.staff("second", Role.MARKER)
        done = self.lock(self.seen(handin=self.two))
        self.problem(403, marker, "DELETE", f"{self.group}/cells/locked/{done['deed']}")
        for what in ("locked/nothing", f"sent-back/{done['deed']}"):
            self.problem(404, self.lead, "DELETE", f"{self.group}/cells/{what}")
        self.undo(done["deed"])
        self.assertEqual(self.undo(done["deed"]), {"students": 0, "left": 3}, "twice does no harm")

    def test_the_number_of_statements_does_not_grow_with_the_class(self) -> None:
        def counted() -> list[int]:
            counts = []
            for path, body in (
                ("handed-in", {}),
                ("locked", {"reason": "Look"}),
                ("sent-back", {"feedback": "More"}),
                ("accepted", {"feedback": "More"}),
                ("locked", {"locked": False}),
            ):
                cells = self.seen()
                with CaptureQueriesContext(connection) as queries:
                    done = self.ok(self.lead, "POST", f"{self.group}/cells/{path}", {"cells": cells, **body})
                with CaptureQueriesContext(connection) as back:
                    self.undo(done["deed"], path)
                if path == "handed-in":
                    self.ok(self.lead, "POST", f"{self.group}/cells/{path}", {"cells": self.seen(), **body})
                counts += [len(queries), len(back)]
            return counts

        few = counted()
        for number in range(20):
            self.plot.student(f"more{number}", f"More {number}", "Zed")
        for then, now in zip(few, counted(), strict=True):
            self.assertLessEqual(now, then + 4)

    def test_each_students_history_has_its_line(self) -> None:
        self.lock(self.seen(handin=self.one), reason="Look")
        events = Event.objects.filter(verb="pockets_locked")
        self.assertEqual({one.enrolment_id for one in events}, self.ids())
        self.assertEqual({one.data["deed"] for one in events}, {events[0].data["deed"]})
