"""Giving out several versions, dealt among those who get one, and giving to working groups."""

from __future__ import annotations

from collections import Counter
from typing import Any

from coatpeg.cupboard.models import CupboardCopy, GivenOut
from coatpeg.people.models import GroupMember
from coatpeg.portfolios.models import Portfolio
from tests.api.test_cupboard import CupboardCase
from tests.builders import working_group


class DealtCase(CupboardCase):
    def setUp(self) -> None:
        super().setUp()
        self.one, self.two = self.put_in("Sheet A", "<p>A</p>"), self.put_in("Sheet B", "<p>B</p>")

    def dealt(self, by: str, *of: dict[str, Any], **more: Any) -> dict[str, Any]:
        items = (self.one, self.two)
        versions = [{"item": item["id"], **(of[at] if of else {})} for at, item in enumerate(items)]
        return {"by": by, "versions": versions, **more}

    def look(self, **body: Any) -> Any:
        path = f"/cupboard/{self.one['id']}/giving"
        return self.ok(self.plot.lead, "POST", path, {"pocket": self.card.pk, **body})

    def whose(self) -> dict[str, str]:
        rows = CupboardCopy.objects.values_list("portfolio__enrolment__person__given_name", "item__title")
        return dict(rows)


class Versions(DealtCase):
    def test_by_surname_said_before_as_it_is_done(self) -> None:
        ranges = self.dealt("surname", {"first": "A", "last": "D"}, {"first": "E", "last": "Z"})
        said = self.look(versions=ranges)
        self.assertEqual(
            [(one["title"], [who["given_name"] for who in one["gets"]]) for one in said["versions"]],
            [("Sheet A", ["Thandi"]), ("Sheet B", ["Josh"])],
        )
        given = self.give(self.one, versions=ranges)
        self.assertEqual(self.whose(), {"Thandi": "Sheet A", "Josh": "Sheet B"})
        self.assertEqual(given["versions"], ["Sheet A", "Sheet B"])
        lines = self.ok(self.plot.lead, "GET", f"/given/{given['id']}/students")
        self.assertEqual({one["student"]["given_name"]: one["title"] for one in lines}, self.whose())
        again = self.look(versions=ranges)
        self.assertEqual((again["gets"], len(again["has"])), ([], 2), "whoever has one is not given the other")

    def test_ranges_with_a_gap_are_refused_with_who_is_in_it(self) -> None:
        ranges = self.dealt("surname", {"first": "A", "last": "C"}, {"first": "E", "last": "Z"})
        body = {"pocket": self.card.pk, "versions": ranges}
        problem = self.problem(422, self.plot.lead, "POST", f"/cupboard/{self.one['id']}/giving", body)
        self.assertIn("Dube", problem["title"])
        self.problem(422, self.plot.lead, "POST", f"/cupboard/{self.one['id']}/give", {**body, "key": "gap"})
        self.assertFalse(GivenOut.objects.exists())

    def test_at_random_is_balanced_and_whoever_joins_gets_what_is_had_least(self) -> None:
        for at in range(7):
            self.plot.student(f"s{at}", f"Student{at}", f"Name{at}")
        given = self.give(self.one, versions=self.dealt("random", seed=5))
        had = Counter(self.whose().values())
        self.assertEqual(sorted(had.values()), [4, 5])
        rows = {"rows": [["Okonkwo", "Chidi"]], "columns": ["family", "given"]}
        self.apply_list(self.plot.lead, f"{self.group}/roster", rows)
        least = min(had, key=lambda one: had[one])
        self.assertEqual(self.whose()["Chidi"], least)
        lines = self.ok(self.plot.lead, "DELETE", f"/given/{given['id']}")
        self.assertEqual(lines, [], "taken back whichever it was")

    def test_by_hand_and_by_period_and_who_is_named_nowhere(self) -> None:
        hand = self.dealt("hand", hand={str(self.other.enrolment_id): self.two["id"]})
        self.give(self.one, versions=hand)
        self.assertEqual(self.whose(), {"Thandi": "Sheet A", "Josh": "Sheet B"})
        periods = self.dealt("period", {}, {"places": [self.plot.period("P3").pk]})
        said = self.look(pocket=self.about.pk, versions=periods)
        self.assertEqual([one["given_name"] for one in said["nowhere"]], ["Josh"])
        self.assertEqual([one["given_name"] for one in said["versions"][0]["gets"]], ["Josh"])

    def test_what_cannot_be_dealt_says_why_and_writes_nothing(self) -> None:
        other = self.put_file()
        for status, versions in (
            (422, {"by": "random", "versions": [{"item": self.one["id"]}]}),
            (422, {"by": "random", "versions": [{"item": self.two["id"]}, {"item": self.one["id"]}]}),
            (422, {"by": "random", "versions": [{"item": self.one["id"]}, {"item": self.one["id"]}]}),
            (404, {"by": "random", "versions": [{"item": self.one["id"]}, {"item": 987_654}]}),
            (422, {"by": "period", "versions": [{"item": self.one["id"]}, {"item": self.two["id"], "places": [9]}]}),
            (422, self.dealt("hand", hand={str(self.book.enrolment_id): other["id"]})),
        ):
            with self.subTest(versions):
                body = {"pocket": self.card.pk, "key": "bad", "versions": versions}
                self.problem(status, self.plot.lead, "POST", f"/cupboard/{self.one['id']}/give", body)
        self.card.takes = ["text"]
        self.card.save()
        mixed = {"by": "random", "versions": [{"item": self.one["id"]}, {"item": other["id"]}]}
        body = {"pocket": self.card.pk, "key": "bad", "versions": mixed}
        self.problem(422, self.plot.lead, "POST", f"/cupboard/{self.one['id']}/give", body)
        self.assertFalse(GivenOut.objects.exists())

    def test_a_version_taken_out_is_given_to_nobody_who_joins(self) -> None:
        self.give(self.one, versions=self.dealt("random"))
        self.ok(self.plot.lead, "DELETE", f"/cupboard/{self.two['id']}")
        rows = {"rows": [["Okonkwo", "Chidi"]], "columns": ["family", "given"]}
        self.apply_list(self.plot.lead, f"{self.group}/roster", rows)
        self.assertNotIn("Chidi", self.whose())


class ToGroups(DealtCase):
    def test_a_group_gets_it_and_whoever_comes_into_it_later(self) -> None:
        sound = working_group(self.plot.group, "Sound")
        GroupMember.objects.create(workinggroup=sound, enrolment=self.book.enrolment)
        given = self.give(self.one, groups=[sound.pk])
        self.assertEqual((given["whole"], given["groups"]), (False, ["Sound"]))
        self.assertEqual(self.whose(), {"Thandi": "Sheet A"})
        body = {"students": [self.other.enrolment_id], "where": "group", "name": "Sound"}
        self.ok(self.plot.lead, "POST", f"{self.group}/roster/place", body)
        self.assertEqual(self.whose(), {"Thandi": "Sheet A", "Josh": "Sheet A"})

    def test_a_student_who_chooses_the_group_gets_it(self) -> None:
        sound = working_group(self.plot.group, "Sound")
        GroupMember.objects.create(workinggroup=sound, enrolment=self.book.enrolment)
        self.give(self.one, groups=[sound.pk], day="2026-11-05")
        self.give(self.two, key="two", groups=[sound.pk])
        self.assertEqual(self.whose(), {"Thandi": "Sheet B"}, "the other waits")
        chosen = {"until": "2026-11-20", "most": 4}
        self.ok(self.plot.lead, "PUT", f"/sets/{sound.of_id}/choice", chosen)
        self.ok(self.other.enrolment.person, "PUT", f"/sets/{sound.of_id}/mine", {"group": sound.pk})
        self.assertEqual(self.whose(), {"Thandi": "Sheet B", "Josh": "Sheet B"})

    def test_a_group_of_nobody_or_of_another_class_is_refused(self) -> None:
        empty = working_group(self.plot.group, "Empty")
        self.problem(
            422,
            self.plot.lead,
            "POST",
            f"/cupboard/{self.one['id']}/give",
            {"pocket": self.card.pk, "key": "no", "groups": [empty.pk]},
        )
        body = {"pocket": self.card.pk, "groups": [empty.pk + 1_000]}
        self.problem(422, self.plot.lead, "POST", f"/cupboard/{self.one['id']}/giving", body)
        self.assertFalse(Portfolio.objects.filter(evidence__copies__isnull=False).exists())
