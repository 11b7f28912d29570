"""Acting on many cells: as they were seen, one deed, everybody's own history whole, undone."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import numpy as np
from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.events.models import Event
from coatpeg.handins.handing import records
from coatpeg.handins.models import KeptFacts, OwnDue
from coatpeg.notices.models import Notice
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import TODAY

DAY = timedelta(days=1)


class Many(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card, self.menu = self.plot.pocket(), self.plot.pocket("Menu", artefacts=1)
        self.books = [self.plot.student(f"s{one}", name, "Abel") for one, name in enumerate(("Ada", "Bea", "Cyr"))]
        self.one = self.plot.handin(self.card, due=TODAY - DAY)
        self.two = self.plot.handin(self.menu, title="Menu", due=None)
        self.path = f"/groups/{self.plot.group.pk}/cells"
        builders.fill(self.books[0], self.card)
        builders.hand_in(self.books[0], self.one)

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])
        before = list(KeptFacts.objects.order_by("handin", "enrolment").values_list("handin", "enrolment", "excused"))
        records.rebuild()
        after = list(KeptFacts.objects.order_by("handin", "enrolment").values_list("handin", "enrolment", "excused"))
        self.assertEqual(before, after)

    def board(self) -> dict[tuple[str, str], dict[str, Any]]:
        board = self.pegs(self.lead, self.plot.group.pk)
        titles = [one["title"] for one in board["handins"]]
        return {
            (row["given_name"], title): cell
            for row in board["students"]
            for title, cell in zip(titles, row["cells"], strict=True)
        }

    def seen(self) -> list[dict[str, Any]]:
        """All cells as they stand."""
        board = self.pegs(self.lead, self.plot.group.pk)
        return [
            {"handin": of["id"], "enrolment": row["id"], "status": cell["status"]}
            for row in board["students"]
            for of, cell in zip(board["handins"], row["cells"], strict=True)
        ]

    def test_excused_and_back_with_locks_and_each_history_whole(self) -> None:
        seen = self.seen()
        looked = self.ok(self.lead, "POST", f"{self.path}/excused", {"cells": seen, "only_look": True})
        self.assertEqual((looked["cells"], looked["students"], looked["left"]), (6, 3, []))
        self.assertEqual({one["status"] for one in self.board().values()}, {"handed_in", "empty"})
        done = self.ok(self.lead, "POST", f"{self.path}/excused", {"cells": seen})
        self.assertEqual(done, looked)
        self.assertEqual({one["status"] for one in self.board().values()}, {"excused"})
        self.assertFalse(StandingHold.objects.exists())
        events = Event.objects.filter(verb="excused")
        self.assertEqual((events.count(), len({one.data["deed"] for one in events})), (6, 1))
        again = self.ok(self.lead, "POST", f"{self.path}/excused", {"cells": self.seen()})
        self.assertEqual((again["cells"], [one["why"] for one in again["left"]]), (0, ["already"]))
        back = self.ok(self.lead, "POST", f"{self.path}/excused", {"cells": self.seen(), "excused": False})
        self.assertEqual(back["cells"], 6)
        self.assertEqual(self.board()["Ada", "Recipe card"]["status"], "handed_in")
        self.assertEqual(StandingHold.objects.count(), 1)

    def test_moved_by_school_days_each_from_their_own_date(self) -> None:
        OwnDue.objects.create(handin=self.one, enrolment=self.books[1].enrolment, day=TODAY + 2 * DAY)
        done = self.ok(self.lead, "POST", f"{self.path}/due", {"cells": self.seen(), "days": 3})
        # Source: numpy's business days, with the days without school of this test's calendar (none here).
        expected = {
            name: str(np.busday_offset(np.datetime64(day), 3))
            for name, day in (("Ada", TODAY - DAY), ("Bea", TODAY + 2 * DAY), ("Cyr", TODAY - DAY))
        }
        board = self.board()
        self.assertEqual({name: board[name, "Recipe card"]["due"] for name in expected}, expected)
        self.assertFalse(board["Cyr", "Recipe card"]["overdue"])
        self.assertEqual(done["cells"], 3)
        self.assertEqual([(one["why"], one["cells"]) for one in done["left"]], [("no_due", 3)])
        self.assertEqual(Notice.objects.filter(what="own_due_set").count(), 3)
        back = self.ok(self.lead, "PUT", f"{self.path}/due", {"before": done["before"]})
        self.assertEqual(back["cells"], 3)
        board = self.board()
        self.assertEqual(board["Bea", "Recipe card"]["due"], str(TODAY + 2 * DAY))
        self.assertEqual(board["Ada", "Recipe card"]["due"], str(TODAY - DAY))
        self.assertEqual(OwnDue.objects.count(), 1)

    def test_to_a_day_with_a_time_also_where_there_was_no_due_date(self) -> None:
        body = {"cells": self.seen(), "day": str(TODAY + 5 * DAY), "at": "12:00"}
        self.assertEqual(self.ok(self.lead, "POST", f"{self.path}/due", body)["cells"], 6)
        self.assertEqual({one["due"] for one in self.board().values()}, {str(TODAY + 5 * DAY)})

    def test_what_changed_meanwhile_is_left_alone_and_said(self) -> None:
        seen = self.seen()
        builders.fill(self.books[1], self.card)  # working now: no matter
        builders.fill(self.books[2], self.card)
        builders.hand_in(self.books[2], self.one)
        done = self.ok(self.lead, "POST", f"{self.path}/excused", {"cells": seen})
        self.assertEqual([(one["why"], one["names"]) for one in done["left"]], [("changed", ["Abel, Cyr"])])
        board = self.board()
        self.assertEqual(board["Cyr", "Recipe card"]["status"], "handed_in")
        self.assertEqual(board["Bea", "Recipe card"]["status"], "excused")

    def test_who_is_not_asked_excused_or_of_another_class(self) -> None:
        other = builders.klass("7 Shed", "shed")
        stranger = other.student("stranger", "Zoe", "Zed")
        theirs = other.handin(other.pocket())
        late = self.plot.student("late", "Late", "Comer", first=TODAY)
        self.ok(self.lead, "POST", f"{self.path}/excused", {"cells": [self.seen()[0]]})
        cells = [
            *self.seen(),
            {"handin": theirs.pk, "enrolment": stranger.enrolment_id, "status": "empty"},
            {"handin": self.one.pk, "enrolment": stranger.enrolment_id, "status": "empty"},
        ]
        done = self.ok(self.lead, "POST", f"{self.path}/due", {"cells": cells, "day": str(TODAY + DAY)})
        why = {one["why"]: (one["cells"], one["names"]) for one in done["left"]}
        self.assertEqual(why["not_asked"], (1, ["Comer, Late"]))
        self.assertEqual(why["excused"][0], 1)
        self.assertEqual(why["gone"], (2, [self.one.title]), "nobody of another class is named")
        self.assertFalse(OwnDue.objects.filter(enrolment=stranger.enrolment).exists())
        self.assertFalse(OwnDue.objects.filter(handin=theirs).exists())
        self.assertTrue(OwnDue.objects.filter(enrolment=late.enrolment, handin=self.two).exists())
        sly = {"before": [{"handin": theirs.pk, "enrolment": stranger.enrolment_id, "day": str(TODAY), "at": None}]}
        self.assertEqual(self.ok(self.lead, "PUT", f"{self.path}/due", sly), {"cells": 0})

    def test_no_number_of_days_too_many_and_before_it_opens(self) -> None:
        for body in ({"days": 0}, {"days": 201}, {"day": "1999-01-01"}):
            told = self.problem(422, self.lead, "POST", f"{self.path}/due", {"cells": self.seen(), **body})
            self.assertIn(told["where"], ("days", "day"))
        body = {"cells": self.seen(), "day": str(TODAY - 40 * DAY)}
        found = self.ok(self.lead, "POST", f"{self.path}/due", body)
        self.assertEqual([(one["why"], one["cells"]) for one in found["left"]], [("before_opening", 6)])
        self.problem(422, self.lead, "POST", f"{self.path}/due", {"cells": [], "days": 1})

    def test_the_number_of_statements_does_not_grow_with_the_class(self) -> None:
        def counted() -> int:
            with CaptureQueriesContext(connection) as queries:
                self.ok(self.lead, "POST", f"{self.path}/due", {"cells": self.seen(), "days": 1})
            return len(queries)

        few = counted()
        for number in range(20):
            self.plot.student(f"more{number}", f"More {number}", "Zed")
        self.assertLessEqual(counted(), few + 2)
