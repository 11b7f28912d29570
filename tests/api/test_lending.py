"""Items lent to other classes, shown to groups, brought along into another class."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.cupboard.models import CupboardCopy, CupboardItem
from coatpeg.people.models import StaffRole, TeachingGroup, Term
from coatpeg.portfolios.models import Evidence
from tests import builders
from tests.api.test_cupboard import CupboardCase
from tests.builders import NOW, TODAY, klass, working_group


class LendingCase(CupboardCase):
    """The lead keeps two classes more; somebody else a third."""

    def setUp(self) -> None:
        super().setUp()
        self.nine, self.ten = klass("9 Forge", "marsh"), klass("10 Mill", "quill")
        self.foreign = klass("7 Loom", "bell")
        for one in (self.nine, self.ten):
            StaffRole.objects.create(group=one.group, person=self.plot.lead, role=Role.CO_TEACHER.value)
        self.theirs = self.nine.student("wren", "Wren", "Ito")
        self.notes = self.nine.pocket("Notes", "page")

    def lend(self, item: Any, *to: builders.Class, status: int = 200, by: Any = None) -> Any:
        call = (by or self.plot.lead, "PUT", f"/cupboard/{item['id']}/lent", {"classes": [one.group.pk for one in to]})
        return self.ok(*call) if status == 200 else self.problem(status, *call)

    def lying(self, of: builders.Class) -> list[Any]:
        found = self.ok(of.lead, "GET", f"/groups/{of.group.pk}/cupboard")
        return list(found["items"])


class Lending(LendingCase):
    def test_it_lies_there_too_and_says_where_it_comes_from(self) -> None:
        item = self.put_in()
        mine = self.ok(self.plot.lead, "GET", f"/cupboard/{item['id']}")
        self.assertEqual([one["title"] for one in mine["lendable"]], ["10 Mill", "9 Forge"])
        self.lend(item, self.nine)
        (there,) = self.lying(self.nine)
        self.assertEqual((there["title"], there["lent_from"]), ("Kitchen safety", "8 Plot"))
        read = self.ok(self.theirs.enrolment.person, "GET", f"/cupboard/{there['id']}")
        self.assertEqual((read["html"], read["lendable"]), ("<p>Wash your hands.</p>", []))
        self.problem(404, self.theirs.enrolment.person, "GET", f"/cupboard/{item['id']}")
        self.assertEqual(self.lying(self.ten), [])
        self.assertEqual(self.ok(self.plot.lead, "GET", f"/cupboard/{item['id']}")["lent_to"], [self.nine.group.pk])

    def test_a_change_where_it_comes_from_reaches_every_copy(self) -> None:
        item = self.put_in()
        self.lend(item, self.nine)
        (there,) = self.lying(self.nine)
        path = f"/portfolios/{self.theirs.pk}/cupboard/{there['id']}"
        self.ok(self.theirs.enrolment.person, "POST", path, {"pocket": self.notes.pk})
        self.change(item, title="Safety", html="<p>Wash them twice.</p>")
        self.assertEqual([one["title"] for one in self.lying(self.nine)], ["Safety"])
        self.assertEqual(Evidence.objects.get(portfolio=self.theirs).text, "Wash them twice.")

    def test_what_is_in_it_is_changed_there_and_who_sees_it_here(self) -> None:
        item = self.put_in()
        self.lend(item, self.nine)
        (there,) = self.lying(self.nine)
        said = {**there, "html": "<p>Wash your hands.</p>"}
        body = {name: said[name] for name in ("title", "heading", "html", "link", "opens", "periods", "version")}
        refused = self.problem(422, self.nine.lead, "PUT", f"/cupboard/{there['id']}", {**body, "html": "<p>No.</p>"})
        self.assertIn("lent from “8 Plot”", refused["title"])
        self.ok(self.nine.lead, "PUT", f"/cupboard/{there['id']}", {**body, "staff_only": True, "heading": "Week 2"})
        self.problem(404, self.theirs.enrolment.person, "GET", f"/cupboard/{there['id']}")
        self.assertEqual(self.seen(self.book), ["Kitchen safety"])

    def test_no_ring_comes_about(self) -> None:
        item = self.put_in()
        self.lend(item, self.nine)
        (there,) = self.lying(self.nine)
        back = self.lend(there, self.plot, status=422)
        self.assertIn("lent from “8 Plot”", back["title"])
        self.assertIn("lent from “8 Plot”", self.lend(there, self.ten, status=422)["title"])
        self.assertIn("its own", self.lend(item, self.plot, status=422)["title"])
        self.assertEqual(CupboardItem.objects.count(), 2)

    def test_only_whoever_keeps_both_lends(self) -> None:
        item = self.put_in()
        self.lend(item, self.foreign, status=404)
        self.lend(item, self.nine, status=404, by=self.nine.lead)
        self.lend(item, self.nine, status=403, by=self.book.enrolment.person)
        observer = self.nine.staff("opal", Role.OBSERVER)
        StaffRole.objects.create(group=self.plot.group, person=observer, role=Role.CO_TEACHER.value)
        self.lend(item, self.nine, status=403, by=observer)
        self.assertEqual(CupboardItem.objects.count(), 1)

    def test_taken_back_it_is_gone_there_with_its_copies_left_and_comes_again_as_it_is_by_then(self) -> None:
        item = self.put_in()
        self.lend(item, self.nine, self.ten)
        (there,) = self.lying(self.nine)
        path = f"/portfolios/{self.theirs.pk}/cupboard/{there['id']}"
        self.ok(self.theirs.enrolment.person, "POST", path, {"pocket": self.notes.pk})
        self.lend(item, self.ten)
        self.assertEqual((self.lying(self.nine), len(self.lying(self.ten))), ([], 1))
        self.assertEqual(CupboardCopy.objects.count(), 1)
        self.change(item, html="<p>Wash them twice.</p>")
        self.lend(item, self.nine, self.ten)
        self.assertEqual(self.lying(self.nine)[0]["id"], there["id"])
        self.assertEqual(Evidence.objects.get(portfolio=self.theirs).text, "Wash them twice.")

    def test_with_the_item_goes_what_is_lent_of_it_and_comes_back(self) -> None:
        item = self.put_in()
        self.lend(item, self.nine)
        self.ok(self.plot.lead, "DELETE", f"/cupboard/{item['id']}")
        self.assertEqual(self.lying(self.nine), [])
        self.ok(self.plot.lead, "POST", f"/cupboard/{item['id']}/restore")
        self.assertEqual(len(self.lying(self.nine)), 1)
        # What had been taken out there before stays out.
        with self.at(NOW - timedelta(hours=1)):
            self.lend(item)
        self.ok(self.plot.lead, "DELETE", f"/cupboard/{item['id']}")
        self.ok(self.plot.lead, "POST", f"/cupboard/{item['id']}/restore")
        self.assertEqual(self.lying(self.nine), [])

    def test_what_is_for_some_is_for_staff_only_in_another_class(self) -> None:
        item = self.put_in(periods=[self.plot.period("P3").pk])
        self.lend(item, self.nine)
        self.assertTrue(self.lying(self.nine)[0]["staff_only"])
        soon = self.put_in(title="Later", opens=(TODAY + timedelta(days=3)).isoformat())
        self.lend(soon, self.nine)
        there = next(one for one in self.lying(self.nine) if one["title"] == "Later")
        self.assertEqual((there["staff_only"], there["opens"]), (False, (TODAY + timedelta(days=3)).isoformat()))

    def test_a_file_and_a_newer_one(self) -> None:
        item = self.put_file()
        self.lend(item, self.nine)
        (there,) = self.lying(self.nine)
        answer = self.client_of(self.nine.lead).get(f"/api/cupboard/{there['id']}/file")
        self.assertEqual(b"".join(answer.streaming_content), b"Wash your hands.")


class ForGroups(CupboardCase):
    def test_it_is_shown_to_who_is_in_one_of_them(self) -> None:
        crew, other = working_group(self.plot.group, "Lights"), working_group(self.plot.group, "Sound")
        crew.members.add(self.book.enrolment)
        item = self.put_in(groups=[crew.pk])
        self.assertEqual((self.seen(self.book), self.seen(self.other)), (["Kitchen safety"], []))
        self.problem(404, self.other.enrolment.person, "GET", f"/cupboard/{item['id']}")
        # A period or a group: either is enough.
        self.change(item, groups=[other.pk], periods=[self.plot.period("P4").pk])
        self.assertEqual((self.seen(self.book), self.seen(self.other)), ([], ["Kitchen safety"]))
        foreign = working_group(klass("9 Forge", "marsh").group, "Lights")
        body = {"kind": "page", "title": "No", "html": "x", "groups": [foreign.pk]}
        self.assertEqual(self.problem(422, self.plot.lead, "POST", f"{self.group}/cupboard", body)["where"], "groups")
        staff = self.ok(self.plot.lead, "GET", f"{self.group}/cupboard")
        self.assertEqual([one["title"] for one in staff["groups"]], ["Lights", "Sound"])
        self.assertEqual(self.ok(self.book.enrolment.person, "GET", f"{self.group}/cupboard")["groups"], [])


class Along(CupboardCase):
    """What lies in the cupboard goes into next term's class."""

    def setUp(self) -> None:
        super().setUp()
        self.log.delete()
        first = TODAY + timedelta(weeks=10)
        monday = first - timedelta(days=first.weekday())
        Term.objects.create(name="Spring term", first=monday, last=monday + timedelta(weeks=12, days=4))
        self.next = TeachingGroup.objects.create(
            name="8 Plot, spring", kind="class", first=monday, last=monday + timedelta(weeks=12)
        )
        StaffRole.objects.create(group=self.next, person=self.plot.lead, role=Role.LEAD.value)
        builders.Template.objects.create(group=self.next, title="8 Plot, spring")
        builders.day_off(TODAY - timedelta(days=365), "A day long ago")  # every process reads the calendar anew
        self.monday = monday

    def carry(self, **more: Any) -> Any:
        body = {"source": self.plot.group.pk, "cupboard": True, **more}
        return self.ok(self.plot.lead, "POST", f"/groups/{self.next.pk}/template/carry-over", body)

    def there(self) -> list[Any]:
        found: list[Any] = self.ok(self.plot.lead, "GET", f"/groups/{self.next.pk}/cupboard")["items"]
        return found

    def test_it_is_that_classes_own_its_days_in_the_same_week(self) -> None:
        item = self.put_in(opens=TODAY.isoformat(), heading="Week 9")
        self.put_in(title="For some", periods=[self.plot.period("P3").pk])
        self.put_in(title="Gone")
        gone = CupboardItem.objects.get(title="Gone")
        self.ok(self.plot.lead, "DELETE", f"/cupboard/{gone.pk}")
        self.assertEqual(self.carry()["items"], 2)
        lines = {one["title"]: one for one in self.there()}
        # The eighth week with school, on a Wednesday there as here.
        self.assertEqual(lines["Kitchen safety"]["opens"], (self.monday + timedelta(weeks=7, days=2)).isoformat())
        self.assertEqual((lines["Kitchen safety"]["heading"], lines["Kitchen safety"]["lent_from"]), ("Week 9", ""))
        self.assertTrue(lines["For some"]["staff_only"])
        self.change(item, html="<p>Other.</p>")
        self.assertEqual(
            CupboardItem.objects.get(group=self.next, title="Kitchen safety").html, "<p>Wash your hands.</p>"
        )

    def test_once_more_brings_nothing_twice_and_undo_takes_it_out(self) -> None:
        self.put_in()
        made = self.carry()
        self.assertEqual(self.carry()["items"], 0)
        self.assertEqual(len(self.there()), 1)
        self.problem(
            409,
            self.plot.lead,
            "POST",
            f"/groups/{self.next.pk}/template/brought/undo",
            {"sections": made["sections"], "added": []},
        )

    def test_the_undo_takes_out_what_came_and_was_not_changed(self) -> None:
        self.put_in()
        made = self.carry()
        body = {"sections": made["sections"], "added": []}
        self.ok(self.plot.lead, "POST", f"/groups/{self.next.pk}/template/brought/undo", body)
        self.assertEqual(self.there(), [])

    def test_left_out_where_it_is_not_wanted(self) -> None:
        self.put_in()
        self.assertEqual(self.carry(cupboard=False)["items"], 0)
        self.assertEqual(self.there(), [])
