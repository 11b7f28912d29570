"""Who joined: what they are asked for and what not, each line changeable; groups and periods given on the list."""

from datetime import date, timedelta
from typing import Any

from coatpeg.people.models import PeriodMembership, RosterChange, WorkingGroup
from tests.api.case import ApiCase
from tests.builders import TODAY, klass


class JoinerCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        card, about = self.plot.pocket(), self.plot.pocket("About me", "page")
        self.thandi = self.plot.student("thandi")
        self.joiner = self.plot.student("josh", "Josh", "Ellery", first=TODAY - timedelta(days=1))
        self.early = self.plot.handin(
            about, title="About me", due=TODAY - timedelta(days=6), opens=TODAY - timedelta(days=20)
        )
        self.late = self.plot.handin(card, title="Recipe card", due=TODAY + timedelta(days=2))
        self.group = f"/groups/{self.plot.group.pk}"

    def lead(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.plot.lead, method, path, body)

    def asked(self) -> tuple[list[str], list[str]]:
        found = self.lead("GET", f"{self.group}/students/{self.joiner.enrolment_id}/asked")
        return [one["title"] for one in found["asked"]], [one["title"] for one in found["not_asked"]]


class TwoLists(JoinerCase):
    def test_asked_from_the_day_of_joining_on_and_each_line_changeable(self) -> None:
        self.assertEqual(self.asked(), (["Recipe card"], ["About me"]))
        path = f"/handins/{self.early.pk}/students/{self.joiner.enrolment_id}"
        self.lead("PUT", f"{path}/due", {"day": "2026-11-13"})
        self.assertEqual(self.asked(), (["Recipe card", "About me"][::-1], []))
        found = self.lead("GET", f"{self.group}/students/{self.joiner.enrolment_id}/asked")
        self.assertEqual(
            [(one["own_due"], one["due"]) for one in found["asked"] if one["title"] == "About me"],
            [(True, "2026-11-13")],
        )
        self.lead("PUT", f"/handins/{self.late.pk}/students/{self.joiner.enrolment_id}/excused", {"excused": True})
        found = self.lead("GET", f"{self.group}/students/{self.joiner.enrolment_id}/asked")
        self.assertEqual({one["title"]: one["status"] for one in found["asked"]}["Recipe card"], "excused")
        self.lead("PUT", f"{path}/due", {"day": None})
        self.assertEqual(self.asked()[1], ["About me"])
        self.problem(404, self.plot.lead, "GET", f"{self.group}/students/987654/asked")


class Placing(JoinerCase):
    def place(self, where: str, name: str, *students: int, status: int = 200) -> Any:
        body = {"where": where, "name": name, "students": students or [self.thandi.enrolment_id]}
        if status != 200:
            return self.problem(status, self.plot.lead, "POST", f"{self.group}/roster/place", body)
        return self.lead("POST", f"{self.group}/roster/place", body)["change"]

    def test_into_a_group_out_of_another_and_undone(self) -> None:
        self.place("group", "  Table 1 ", self.thandi.enrolment_id, self.joiner.enrolment_id)
        self.assertEqual(WorkingGroup.objects.get(name="Table 1").members.count(), 2)
        change = self.place("group", "Table 2")
        self.assertEqual([one.members.count() for one in WorkingGroup.objects.order_by("name")], [1, 1])
        self.lead("POST", f"{self.group}/roster/changes/{change}/undo")
        self.assertEqual(WorkingGroup.objects.get(name="Table 1").members.count(), 2)

    def test_into_a_period_from_today_on_and_undone(self) -> None:
        change = self.place("period", "P3")
        self.assertEqual(PeriodMembership.objects.get().first, date(2026, 11, 4))
        self.place("period", "P4")
        self.assertEqual(
            list(PeriodMembership.objects.values_list("period__name", flat=True)), ["P4"], "a slip of today"
        )
        self.lead("POST", f"{self.group}/roster/changes/{RosterChange.objects.latest('pk').pk}/undo")
        self.lead("POST", f"{self.group}/roster/changes/{change}/undo")
        self.assertFalse(PeriodMembership.objects.exists())

    def test_bad_input(self) -> None:
        self.place("group", " ", status=422)
        self.place("group", "x" * 41, status=422)
        other = klass("9 Forge", "forge").student("ada", "Ada", "Blom")
        self.place("group", "Table 1", other.enrolment_id, status=404)
        self.place("tent", "Table 1", status=422)
        self.assertFalse(WorkingGroup.objects.exists())
