"""Reminders: whom, what each of them reads, once in a school day, nobody else's."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.handins.models import Reminder
from coatpeg.notices.fanning import fan_out
from coatpeg.notices.models import Delivery
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)
WORDS = "Hello {name}:\n{missing}"


class Reminding(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        card, menu = self.plot.pocket(), self.plot.pocket("Menu", artefacts=1)
        self.ada, self.bea, self.cyr = (self.plot.student(name.lower(), name, "Abel") for name in ("Ada", "Bea", "Cyr"))
        self.one = self.plot.handin(card, due=TODAY - DAY)
        self.two = self.plot.handin(menu, title="Menu", due=TODAY + 3 * DAY)
        builders.fill(self.ada, card)
        builders.hand_in(self.ada, self.one)
        self.path = f"/groups/{self.plot.group.pk}/reminders"

    def cells(self) -> list[dict[str, int]]:
        return [
            {"handin": handin.pk, "enrolment": book.enrolment_id}
            for book in (self.ada, self.bea, self.cyr)
            for handin in (self.two, self.one)
        ]

    def remind(self, person: Person | None = None, **more: Any) -> Any:
        return self.ok(person or self.lead, "POST", self.path, {"cells": self.cells(), "text": WORDS, **more})

    def test_each_reads_their_own_missing_things_in_due_order_and_looking_tells_nobody(self) -> None:
        looked = self.remind(only_look=True)
        self.assertEqual(
            {one["name"]: one["text"] for one in looked["messages"]},
            {
                "Abel, Ada": "Hello Ada:\n– Menu (due Sat 7 Nov)",
                "Abel, Bea": "Hello Bea:\n– Recipe card (due Tue 3 Nov, which has passed)\n– Menu (due Sat 7 Nov)",
                "Abel, Cyr": "Hello Cyr:\n– Recipe card (due Tue 3 Nov, which has passed)\n– Menu (due Sat 7 Nov)",
            },
        )
        self.assertEqual([(one["why"], one["names"]) for one in looked["left"]], [("handed_in", ["Abel, Ada"])])
        self.assertFalse(Reminder.objects.exists())
        self.assertEqual(self.remind(), looked)
        self.assertEqual(Reminder.objects.count(), 3)

    def test_never_twice_in_a_school_day_without_asking_whoever_sends_it(self) -> None:
        self.remind()
        co = self.plot.staff("co", Role.CO_TEACHER)
        again = self.remind(co)
        self.assertEqual(again["messages"], [])
        self.assertEqual({one["why"] for one in again["left"]}, {"handed_in", "reminded"})
        self.assertEqual(Reminder.objects.count(), 3)
        told = self.remind(co, again=True)
        self.assertEqual(len(told["messages"]), 3)
        self.assertTrue(all(one["last"] for one in told["messages"]))
        with self.at(NOW + DAY):
            self.assertEqual(len(self.remind()["messages"]), 3)

    def test_on_the_bell_by_mail_and_over_what_is_to_hand_in_and_nobody_elses(self) -> None:
        self.remind()
        fan_out.func()
        self.assertEqual(Delivery.objects.filter(notice__what="reminded").count(), 3)
        student = self.bea.enrolment.person
        line = next(one for one in self.ok(student, "GET", "/notices")["lines"] if one["what"] == "reminded")
        self.assertEqual(line["path"], f"/g/{self.plot.group.pk}/to-hand-in")
        shown = self.ok(student, "GET", f"/portfolios/{self.bea.pk}/worklist")["reminders"]
        self.assertEqual([one["text"].splitlines()[0] for one in shown], ["Hello Bea:"])
        own = self.ok(self.ada.enrolment.person, "GET", f"/portfolios/{self.ada.pk}/worklist")["reminders"]
        self.assertNotIn("Recipe card", own[0]["text"])
        self.assertEqual(own[0]["text"].splitlines()[0], "Hello Ada:")

    def test_it_goes_when_nothing_of_it_waits_any_more(self) -> None:
        self.ok(self.lead, "POST", self.path, {"cells": self.cells()[3:4], "text": WORDS})  # Bea, the card
        builders.fill(self.bea, self.one.pockets.get())
        builders.hand_in(self.bea, self.one)
        found = self.ok(self.bea.enrolment.person, "GET", f"/portfolios/{self.bea.pk}/worklist")
        self.assertEqual(found["reminders"], [])

    def test_remembered_beside_the_peg(self) -> None:
        self.remind()
        path = f"/groups/{self.plot.group.pk}/handins/{self.one.pk}/students/"
        found = self.ok(self.lead, "GET", f"{path}{self.bea.enrolment_id}/reminders")
        self.assertEqual([one["by"] for one in found], [f"R. {self.lead.family_name}"])
        self.assertEqual(self.ok(self.lead, "GET", f"{path}{self.ada.enrolment_id}/reminders"), [])
        other = builders.klass("7 Shed", "shed")
        path = f"/groups/{other.group.pk}/handins/{self.one.pk}/students/{self.bea.enrolment_id}/reminders"
        self.assertEqual(self.ok(other.lead, "GET", path), [], "another class's is not shown")

    def test_whoever_has_left_is_not_reminded(self) -> None:
        self.bea.enrolment.last = TODAY - DAY
        self.bea.enrolment.save()
        left = {one["why"]: one["names"] for one in self.remind(only_look=True)["left"]}
        self.assertEqual(left["left"], ["Abel, Bea"])

    def test_to_somebody_of_another_class_nothing_goes(self) -> None:
        other = builders.klass("7 Shed", "shed")
        stranger = other.student("zoe", "Zoe", "Zed")
        cell = {"handin": self.one.pk, "enrolment": stranger.enrolment_id}
        found = self.ok(self.lead, "POST", self.path, {"cells": [cell], "text": WORDS})
        self.assertEqual((found["messages"], found["left"][0]["names"]), ([], []))
        self.problem(422, self.lead, "POST", self.path, {"cells": [cell], "text": "  "})
        self.assertFalse(Reminder.objects.exists())
