"""Moving all dates on after lost school days, in one class and in all; shown line by line, told, undone."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

import numpy as np

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.handing import records
from coatpeg.handins.models import HandIn, HandInPeriod, OwnDue
from coatpeg.notices.models import Notice
from coatpeg.people.models import StaffRole
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)


class MovingOn(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead, card = self.plot.lead, self.plot.pocket()
        self.ada = self.plot.student("ada", "Ada", "Abel")
        self.past = self.plot.handin(card, title="Past", opens=TODAY - 9 * DAY, due=TODAY - DAY)
        self.now_on = self.plot.handin(card, title="Now", opens=TODAY - DAY, due=TODAY + 4 * DAY)
        self.later = self.plot.handin(card, title="Later", opens=TODAY + 6 * DAY, due=TODAY + 20 * DAY)
        HandIn.objects.filter(pk=self.later.pk).update(closes_day=TODAY + 30 * DAY)
        self.period = self.plot.period("P3")
        HandInPeriod.objects.create(handin=self.later, period=self.period, due_day=TODAY + 21 * DAY)
        OwnDue.objects.create(handin=self.now_on, enrolment=self.ada.enrolment, day=TODAY + 5 * DAY)
        self.path = f"/groups/{self.plot.group.pk}/moved-on"

    def move(self, **body: Any) -> Any:
        return self.ok(self.lead, "POST", self.path, {"first": str(TODAY), "days": 3, **body})

    def days(self) -> list[date | None]:
        found: list[date | None] = []
        for row in HandIn.objects.order_by("pk").values_list("opens", "due_day", "closes_day"):
            found += row
        return [*found, HandInPeriod.objects.get().due_day, OwnDue.objects.get().day]

    def test_what_lies_there_moves_by_school_days_and_the_rest_stays(self) -> None:
        Notice.objects.update(fanned_at=NOW)  # everybody has been told of them
        before = self.days()
        looked = self.move(only_look=True)
        self.assertEqual((len(looked["lines"]), looked["deed"], self.days()), (6, "", before))
        done = self.move()
        self.assertEqual(done["lines"], looked["lines"])
        # Source: numpy's business days (this test's calendar has no day off); a day without school counts from the
        # school day before it.
        then = [
            one if one is None or one < TODAY else np.busday_offset(np.datetime64(one), 3, roll="backward").item()
            for one in before
        ]
        self.assertEqual(self.days(), then)
        own = next(one for one in done["lines"] if one["which"] == "own")
        self.assertEqual((own["whose"], own["title"]), ("Abel, Ada", "Now"))
        told = Notice.objects.filter(what="handin_moved").values_list("data", flat=True)
        self.assertEqual({one["handin"] for one in told} & {self.past.pk}, set())
        self.assertIn(self.now_on.pk, {one["handin"] for one in told})
        self.assertEqual(Event.objects.filter(verb="dates_moved").count(), 1, "told in one event")
        back = self.ok(self.lead, "DELETE", f"{self.path}/{done['deed']}")
        self.assertEqual((back, self.days()), ({"dates": 6, "left": 0}, before))
        self.assertEqual(list(records.differences()), [])

    def test_a_whole_term_against_numpy_with_its_days_off(self) -> None:
        off = [TODAY + at * DAY for at in (2, 3, 8, 15)]
        for one in off:
            builders.day_off(one, "No school")
        holidays = [np.datetime64(one) for one in off]
        for days in range(1, 31):
            for line in self.move(days=days, only_look=True)["lines"]:
                expected = np.busday_offset(np.datetime64(line["day"]), days, roll="backward", holidays=holidays)
                with self.subTest(days=days, line=line):
                    self.assertEqual(line["to"], str(expected))

    def test_what_lies_beyond_the_term_or_on_no_school_day_is_said(self) -> None:
        saturday = TODAY + (5 - TODAY.weekday()) % 7 * DAY
        HandIn.objects.filter(pk=self.now_on.pk).update(due_day=saturday)
        lines = self.move(days=60, only_look=True)["lines"]
        self.assertTrue(next(one for one in lines if one["day"] == str(saturday))["off"])
        self.assertTrue(all(one["beyond"] for one in lines if one["to"] > "2026-12-31"))

    def test_in_all_my_classes_and_in_no_other(self) -> None:
        second, third, foreign = (builders.klass(name, name) for name in ("Second", "Third", "Foreign"))
        StaffRole.objects.create(group=second.group, person=self.lead, role=Role.CO_TEACHER.value)
        StaffRole.objects.create(group=third.group, person=self.lead, role=Role.MARKER.value)
        for one in (second, third, foreign):
            one.student(None, "Sam", "Reyes")
            one.handin(one.pocket(), title=one.group.name, due=TODAY + DAY)
        done = self.move(everywhere=True)
        self.assertEqual({one["group"] for one in done["lines"]}, {self.plot.group.name, "Second"})
        due = dict(HandIn.objects.values_list("title", "due_day"))
        self.assertEqual((due["Third"], due["Foreign"]), (TODAY + DAY, TODAY + DAY))
        self.assertEqual(self.ok(self.lead, "DELETE", f"{self.path}/{done['deed']}")["dates"], len(done["lines"]))

    def test_what_was_changed_since_stays_and_another_sees_it_is_stale(self) -> None:
        version = HandIn.objects.get(pk=self.now_on.pk).version
        done = self.move()
        self.assertEqual(HandIn.objects.get(pk=self.now_on.pk).version, version + 1)
        HandIn.objects.filter(pk=self.now_on.pk).update(due_day=TODAY + 50 * DAY)
        self.assertEqual(self.ok(self.lead, "DELETE", f"{self.path}/{done['deed']}"), {"dates": 5, "left": 1})
        self.assertEqual(HandIn.objects.get(pk=self.now_on.pk).due_day, TODAY + 50 * DAY)

    def test_bad_input_says_where(self) -> None:
        for body, where in (({"days": 0}, "days"), ({"days": 61}, "days"), ({"first": "1999-01-01"}, "first")):
            told = self.problem(422, self.lead, "POST", self.path, {"first": str(TODAY), "days": 3, **body})
            self.assertEqual(told["where"], where)
        self.problem(404, self.lead, "DELETE", f"{self.path}/nothing")
