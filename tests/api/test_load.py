"""How full weeks are for the students of a class, over all their classes: numbers; names for who follows them."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.core.policy import Role
from coatpeg.handins.models import OwnDue
from coatpeg.people.models import Enrolment, Person
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

MONDAY = TODAY - timedelta(days=TODAY.weekday())
DAY = timedelta(days=1)
WEEK = timedelta(days=7)


class Load(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot, self.crew = builders.klass(), builders.klass("Crew", "crew")
        self.ada, self.bea = (self.plot.student(name, name.title(), "Abel") for name in ("ada", "bea"))
        self.both = self.crew.student(existing=self.ada.enrolment.person).enrolment
        card, lights = self.plot.pocket(), self.crew.pocket()
        for number in range(2):
            self.plot.handin(card, title=f"Here {number}", due=MONDAY + timedelta(days=number))
            self.moved = self.crew.handin(lights, title=f"There {number}", due=MONDAY + timedelta(days=4 - number))

    def weeks(self) -> dict[str, tuple[int, int]]:
        found = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/load")
        self.assertEqual(set(found), {"limit", "weeks"})
        return {one["monday"]: (one["most"], one["heavy"]) for one in found["weeks"]}

    def test_over_all_classes_by_each_ones_own_due_date(self) -> None:
        self.assertEqual(self.weeks(), {str(MONDAY): (4, 1)}, "Ada has four, Bea two")
        OwnDue.objects.create(handin=self.moved, enrolment=self.both, day=MONDAY + WEEK)
        self.assertEqual(self.weeks(), {str(MONDAY): (3, 0), str(MONDAY + WEEK): (1, 0)})

    def test_who_has_left_counts_no_more_and_another_class_sees_its_own(self) -> None:
        Enrolment.objects.filter(pk=self.ada.enrolment_id).update(last=TODAY - WEEK)
        self.assertEqual(self.weeks(), {str(MONDAY): (2, 0)})
        found: Any = self.ok(self.crew.lead, "GET", f"/groups/{self.crew.group.pk}/load")
        self.assertEqual(found["weeks"], [{"monday": str(MONDAY), "most": 2, "heavy": 0, "full": []}])

    def test_only_observers_see_which_students_a_week_is_too_full_for(self) -> None:
        def full(person: Person) -> Any:
            return self.ok(person, "GET", f"/groups/{self.plot.group.pk}/load")["weeks"][0]["full"]

        for role in (Role.CO_TEACHER, Role.MARKER):
            self.assertEqual(full(self.plot.staff(role.value, role)), [])
        self.assertEqual(full(self.plot.lead), [])
        follows = full(self.plot.staff("head", Role.OBSERVER))
        self.assertEqual(follows, [{"enrolment": self.ada.enrolment_id, "number": 4}])

    def test_the_coordinator_sees_the_weeks_of_their_own_with_all_that_is_due(self) -> None:
        support = builders.klass("Support", "lind", "caseload")
        for one, picture in ((self.ada, "leaf"), (self.bea, "kite")):
            Enrolment.objects.create(
                group=support.group, person=one.enrolment.person, first=self.plot.group.first, picture=picture
            )
        OwnDue.objects.create(handin=self.moved, enrolment=self.both, day=MONDAY + DAY)
        with self.at(NOW + WEEK):
            ada, bea = self.ok(support.lead, "GET", f"/groups/{support.group.pk}/caseload")["students"]
            self.assertEqual((ada["full_weeks"], bea["full_weeks"]), ([], []), "what is past is past")
        ada, bea = self.ok(support.lead, "GET", f"/groups/{support.group.pk}/caseload")["students"]
        self.assertEqual(bea["full_weeks"], [])
        [week] = ada["full_weeks"]
        self.assertEqual(week["monday"], str(MONDAY))
        self.assertEqual(
            [(one["day"], one["title"], one["class_name"]) for one in week["due"]],
            [
                (str(MONDAY), "Here 0", "8 Plot"),
                (str(MONDAY + DAY), "Here 1", "8 Plot"),
                (str(MONDAY + DAY), "There 1", "Crew"),
                (str(MONDAY + 4 * DAY), "There 0", "Crew"),
            ],
        )

    def test_statements_do_not_grow_with_students(self) -> None:
        def counted() -> int:
            with CaptureQueriesContext(connection) as queries:
                self.weeks()
            return len(queries)

        few = counted()
        for number in range(20):
            self.plot.student(f"more{number}", f"More {number}", "Zed")
        self.assertLessEqual(counted(), few + 1)
