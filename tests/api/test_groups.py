"""Sets of groups: formed by hand and at random, chosen by students, changed mid-term with nothing lost."""

from datetime import timedelta
from functools import partial
from typing import Any
from unittest import mock

from django.db import connection
from django.test import TransactionTestCase
from django.test.utils import CaptureQueriesContext

from coatpeg.core.errors import Refused
from coatpeg.core.policy import Role
from coatpeg.outlines.models import Pocket
from coatpeg.people.groups import set_called
from coatpeg.people.models import FormerGroupMember, GroupMember, GroupSet, Person, RosterChange, WorkingGroup
from coatpeg.portfolios.models import Portfolio
from coatpeg.setup.groups.choosing import choose
from tests.api.case import ApiCase
from tests.api.test_races import at_once
from tests.background import run_waiting
from tests.builders import NOW, TODAY, klass
from tests.devices import Device


class GroupsCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.students = [
            self.plot.student(name.lower(), name, "Dube") for name in ("Ana", "Bo", "Cy", "Di", "Ed", "Flo")
        ]
        self.path = f"/groups/{self.plot.group.pk}/sets"
        self.set = self.lead("POST", self.path, {"name": "Crews"})["id"]

    def lead(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.plot.lead, method, path, body)

    def seen(self) -> dict[str, Any]:
        return next(one for one in self.lead("GET", self.path)["sets"] if one["id"] == self.set)

    def inside(self) -> dict[str, list[int]]:
        """Students (0 to 5) by the name of their group."""
        place = {one.enrolment_id: at for at, one in enumerate(self.students)}
        return {one["name"]: sorted(place[of["id"]] for of in one["members"]) for one in self.seen()["groups"]}

    def group(self, name: str) -> int:
        made: int = self.lead("POST", f"/sets/{self.set}/groups", {"name": name})["id"]
        return made

    def move(self, to: int | None, *students: int) -> int:
        body = {"students": [self.students[one].enrolment_id for one in students], "group": to}
        change: int = self.lead("POST", f"/sets/{self.set}/move", body)["change"]
        return change

    def person(self, at: int) -> Person:
        return self.students[at].enrolment.person


class ByHand(GroupsCase):
    def test_in_one_group_of_a_set_at_a_time_and_undone(self) -> None:
        lights, sound = self.group("Lights"), self.group("Sound")
        self.move(lights, 0, 1)
        change = self.move(sound, 1, 2)
        self.assertEqual(self.inside(), {"Lights": [0], "Sound": [1, 2]})
        self.assertIsNone(self.move(sound, 1), "there already")
        self.lead("POST", f"/groups/{self.plot.group.pk}/roster/changes/{change}/undo")
        self.assertEqual(self.inside(), {"Lights": [0, 1], "Sound": []})
        self.move(None, 0)
        self.assertEqual(self.inside()["Lights"], [1])

    def test_sets_do_not_touch_each_other(self) -> None:
        self.move(self.group("Lights"), 0)
        other = self.lead("POST", self.path, {"name": "Tables"})["id"]
        table = self.lead("POST", f"/sets/{other}/groups", {"name": "Table 1"})["id"]
        student = self.students[0].enrolment_id
        self.lead("POST", f"/sets/{other}/move", {"students": [student], "group": table})
        names = WorkingGroup.objects.filter(members=student).values_list("name", flat=True)
        self.assertEqual(sorted(names), ["Lights", "Table 1"])
        self.problem(404, self.plot.lead, "POST", f"/sets/{self.set}/move", {"students": [student], "group": table})

    def test_a_list_moves_within_the_set_of_the_group_it_names(self) -> None:
        self.move(self.group("Lights"), 0)
        self.group("Sound")
        place = f"/groups/{self.plot.group.pk}/roster/place"
        student = self.students[0].enrolment_id
        self.lead("POST", place, {"students": [student], "where": "group", "name": "sound"})
        self.assertEqual(self.inside(), {"Lights": [], "Sound": [0]})
        self.lead("POST", place, {"students": [student], "where": "group", "name": "New ones"})
        self.assertEqual(WorkingGroup.objects.get(name="New ones").of_id, self.set, "the first set is that of lists")

    def test_the_days_of_a_place_stay_known(self) -> None:
        lights, sound = self.group("Lights"), self.group("Sound")
        self.move(lights, 0)
        self.move(sound, 0)
        self.assertFalse(FormerGroupMember.objects.exists(), "moved again on the same day: a slip")
        GroupMember.objects.update(first=TODAY - timedelta(days=20))
        change = self.move(lights, 0)
        former = self.seen()["former"]
        self.assertEqual(
            [(one["name"], one["group"], one["first"], one["last"]) for one in former],
            [("Ana Dube", "Sound", str(TODAY - timedelta(days=20)), str(TODAY - timedelta(days=1)))],
        )
        self.lead("POST", f"/groups/{self.plot.group.pk}/roster/changes/{change}/undo")
        self.assertEqual(GroupMember.objects.get().first, TODAY - timedelta(days=20), "as if never moved")
        self.assertEqual(self.seen()["former"], [])

    def test_undone_only_what_was_changed_then_stays_undone(self) -> None:
        lights, sound, props = self.group("Lights"), self.group("Sound"), self.group("Props")
        self.move(lights, 0)
        GroupMember.objects.update(first=TODAY - timedelta(days=20))
        self.move(sound, 0)
        self.move(lights, 0)
        with self.at(NOW + timedelta(minutes=5)):
            change = self.move(props, 0)
            self.lead("POST", f"/groups/{self.plot.group.pk}/roster/changes/{change}/undo")
        self.assertEqual(self.inside()["Lights"], [0])
        self.assertEqual(len(self.seen()["former"]), 1, "of an earlier change, and not undone")
        self.problem(404, self.plot.lead, "POST", f"/groups/{self.plot.group.pk}/roster/changes/{change}/undo")

    def test_as_many_statements_for_a_class_as_for_one(self) -> None:
        lights, sound = self.group("Lights"), self.group("Sound")
        self.move(lights, 0, 1, 2, 3, 4, 5)
        GroupMember.objects.update(first=TODAY - timedelta(days=20))
        counts = []
        for students in ((0,), (1, 2, 3, 4, 5)):
            with CaptureQueriesContext(connection) as queries:
                change = self.move(sound, *students)
                self.lead("POST", f"/groups/{self.plot.group.pk}/roster/changes/{change}/undo")
                self.lead("GET", self.path)
            counts.append(len(queries))
        self.assertEqual(counts[0], counts[1])

    def test_named_once_in_a_class_and_taken_away_when_nothing_needs_it(self) -> None:
        lights = self.group("Lights")
        other = self.lead("POST", self.path, {"name": "Tables"})["id"]
        found = self.problem(422, self.plot.lead, "POST", f"/sets/{other}/groups", {"name": " lights "})
        self.assertIn("in “Crews” already", found["title"])
        self.problem(422, self.plot.lead, "POST", self.path, {"name": "Crews"})
        self.problem(422, self.plot.lead, "POST", self.path, {"name": " "})
        self.problem(422, self.plot.lead, "PATCH", f"/sets/{other}", {"name": "x" * 41})
        self.problem(422, self.plot.lead, "PATCH", f"/sets/{other}", {"name": "crews"})
        self.move(lights, 0)
        self.assertIn("students in", self.problem(403, self.plot.lead, "DELETE", f"/working-groups/{lights}")["title"])
        self.problem(403, self.plot.lead, "DELETE", f"/sets/{self.set}")
        self.move(None, 0)
        pocket = self.plot.pocket("Notes")
        handin = self.plot.handin(pocket)
        handin.groups.set([lights])
        self.assertIn("asked of", self.problem(403, self.plot.lead, "DELETE", f"/working-groups/{lights}")["title"])
        handin.groups.clear()
        self.lead("DELETE", f"/working-groups/{lights}")
        self.lead("PATCH", f"/sets/{other}", {"name": "Benches"})
        self.lead("DELETE", f"/sets/{self.set}")
        self.assertEqual([one["name"] for one in self.lead("GET", self.path)["sets"]], ["Benches"])
        self.problem(404, self.plot.lead, "DELETE", f"/sets/{self.set}")

    def test_a_student_of_another_class_or_who_left_is_not_moved(self) -> None:
        lights = self.group("Lights")
        other = klass("9 Forge", "forge").student("ada", "Ada", "Blom")
        body = {"students": [other.enrolment_id], "group": lights}
        self.problem(404, self.plot.lead, "POST", f"/sets/{self.set}/move", body)
        self.assertFalse(RosterChange.objects.exists())

    def test_wishes_are_seen_by_those_who_form_groups_alone(self) -> None:
        apart = [[self.students[0].enrolment_id, self.students[1].enrolment_id]]
        self.lead("PUT", f"/sets/{self.set}/wishes", {"apart": apart, "together": []})
        self.assertEqual(self.seen()["apart"], apart)
        observer = self.plot.staff("observer", Role.OBSERVER)
        found = self.ok(observer, "GET", self.path)["sets"][0]
        self.assertEqual((found["apart"], found["seed"]), ([], None))
        self.problem(422, self.plot.lead, "PUT", f"/sets/{self.set}/wishes", {"apart": [apart[0][:1]], "together": []})
        self.problem(404, self.plot.lead, "PUT", f"/sets/{self.set}/wishes", {"apart": [[1, 987654]], "together": []})


class AtRandom(GroupsCase):
    def draw(self, **body: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.lead("POST", f"/sets/{self.set}/draw", {"size": 2, "mixing": "across", **body})
        return found

    def form(self, drawn: dict[str, Any], status: int = 200, **body: Any) -> Any:
        body = {"size": 2, "mixing": "across", "seed": drawn["seed"], "seen": drawn["seen"], **body}
        if status != 200:
            return self.problem(status, self.plot.lead, "POST", f"/sets/{self.set}/form", body)
        return self.lead("POST", f"/sets/{self.set}/form", body)["change"]

    def test_shown_first_then_formed_as_it_was_shown(self) -> None:
        self.move(self.group("Lights"), 0, 1, 2, 3, 4, 5)
        drawn = self.draw()
        self.assertEqual(self.inside()["Lights"], [0, 1, 2, 3, 4, 5], "nothing is written")
        self.assertEqual([one["name"] for one in drawn["groups"]], ["Lights", "Crews 1", "Crews 2"])
        change = self.form(drawn)
        shown = {one["name"]: sorted(one["members"]) for one in drawn["groups"]}
        now = {one["name"]: sorted(of["id"] for of in one["members"]) for one in self.seen()["groups"]}
        self.assertEqual(now, shown)
        self.assertEqual(self.seen()["seed"], drawn["seed"])
        self.assertEqual(self.draw(seed=drawn["seed"])["groups"], drawn["groups"], "the same once more")
        self.lead("POST", f"/groups/{self.plot.group.pk}/roster/changes/{change}/undo")
        self.assertEqual(self.inside()["Lights"], [0, 1, 2, 3, 4, 5])

    def test_a_draw_heeds_wishes_and_is_refused_where_anything_is_other_by_now(self) -> None:
        drawn = self.draw()
        ids = [one.enrolment_id for one in self.students]
        # Whoever is together in it is kept apart from now on: it cannot come out as it was shown.
        pair, other = (one["members"] for one in drawn["groups"][:2])
        self.lead("PUT", f"/sets/{self.set}/wishes", {"apart": [pair], "together": [[pair[0], other[0]]]})
        self.form(drawn, status=409)
        self.form(self.draw())
        places = {of["id"]: one["name"] for one in self.seen()["groups"] for of in one["members"]}
        self.assertNotEqual(places[pair[0]], places[pair[1]])
        self.assertEqual(places[pair[0]], places[other[0]])
        drawn = self.draw()
        self.plot.student("gil", "Gil", "Dube")
        self.form(drawn, status=409)
        wish = {"apart": [], "together": [ids[:3]]}
        self.lead("PUT", f"/sets/{self.set}/wishes", wish)
        found = self.problem(422, self.plot.lead, "POST", f"/sets/{self.set}/draw", {"size": 2, "mixing": "across"})
        self.assertIn("Ana Dube, Bo Dube and Cy Dube are kept together", found["title"])
        for size in (0, 201, -3):
            self.problem(422, self.plot.lead, "POST", f"/sets/{self.set}/draw", {"size": size, "mixing": "across"})


class AtOnce(TransactionTestCase):
    """Two who press at the very same moment, each with a connection of their own."""

    def test_the_last_place_is_one_students(self) -> None:
        plot = klass()
        books = [plot.student(name, name, "Dube") for name in ("ana", "bo")]
        of = GroupSet.objects.create(group=plot.group, name="Crews", chosen_until=TODAY, most=1)
        lights = WorkingGroup.objects.create(group=plot.group, of=of, name="Lights")
        people = [book.enrolment.person for book in books]
        found = at_once(*(partial(choose, one, of.pk, lights.pk, NOW) for one in people))
        self.assertEqual(sorted(isinstance(one, Refused) for one in found), [False, True])
        self.assertEqual(lights.members.count(), 1)


class Chosen(GroupsCase):
    def setUp(self) -> None:
        super().setUp()
        self.lights, self.sound = self.group("Lights"), self.group("Sound")
        self.until(TODAY, 2)

    def until(self, day: Any, most: int | None, status: int = 204) -> Any:
        body = {"until": day and str(day), "most": most}
        if status != 204:
            return self.problem(status, self.plot.lead, "PUT", f"/sets/{self.set}/choice", body)
        return self.lead("PUT", f"/sets/{self.set}/choice", body)

    def choose(self, at: int, group: int | None, status: int = 204) -> Any:
        path, body = f"/sets/{self.set}/mine", {"group": group}
        if status != 204:
            return self.problem(status, self.person(at), "PUT", path, body)
        return self.ok(self.person(at), "PUT", path, body)

    def choices(self, at: int, viewer: Person | None = None) -> list[dict[str, Any]]:
        path = f"/portfolios/{self.students[at].pk}"
        found: list[dict[str, Any]] = self.ok(viewer or self.person(at), "GET", path)["choices"]
        return found

    def test_until_a_group_is_full(self) -> None:
        self.choose(0, self.lights)
        self.choose(1, self.lights)
        self.assertIn("is full", self.choose(2, self.lights, status=403)["title"])
        self.choose(2, self.sound)
        self.choose(0, self.sound)
        self.choose(2, self.sound)
        self.assertEqual(self.inside(), {"Lights": [1], "Sound": [0, 2]})
        self.choose(1, None)
        self.assertEqual(self.inside()["Lights"], [])

    def test_they_are_told_once_as_long_as_they_may_choose(self) -> None:
        self.until(TODAY, 3)
        run_waiting()
        told = self.ok(self.person(0), "GET", "/notices")["lines"]
        self.assertEqual([one["what"] for one in told], ["group_to_choose"])
        self.assertTrue(told[0]["path"].endswith(f"/portfolio/{self.students[0].pk}"))
        self.assertEqual(self.ok(self.plot.lead, "GET", "/notices")["lines"], [])
        self.until(None, None)
        self.assertEqual(self.ok(self.person(0), "GET", "/notices")["lines"], [])

    def test_students_see_who_is_where_as_they_see_each_other(self) -> None:
        self.choose(0, self.lights)
        (found,) = self.choices(1)
        self.assertEqual([one["name"] for one in found["groups"][0]["members"]], ["Ana D."])
        self.assertEqual([one["mine"] for one in found["groups"]], [False, False])
        self.assertEqual([one["mine"] for one in self.choices(0)[0]["groups"]], [True, False])
        self.assertEqual(self.choices(0, self.plot.lead), [], "staff do not choose")

    def test_no_longer_than_its_last_day_and_only_while_it_is_open(self) -> None:
        GroupSet.objects.update(chosen_until=TODAY - timedelta(days=1))
        self.assertIn("no longer chosen", self.choose(0, self.lights, status=403)["title"])
        self.assertEqual(self.choices(0), [])
        self.until(TODAY, 2)
        self.until(None, None)
        self.choose(0, self.lights, status=403)
        self.assertEqual(self.seen()["chosen_until"], None)

    def test_what_is_no_choice(self) -> None:
        self.until(TODAY - timedelta(days=1), 2, status=422)
        self.until(TODAY, None, status=422)
        self.until(TODAY, 0, status=422)
        self.choose(0, 987654, status=404)
        empty = self.lead("POST", self.path, {"name": "Tables"})["id"]
        self.problem(403, self.plot.lead, "PUT", f"/sets/{empty}/choice", {"until": str(TODAY), "most": 2})
        self.problem(403, self.plot.lead, "PUT", f"/sets/{self.set}/mine", {"group": self.lights})
        stranger = klass("9 Forge", "forge").student("ada", "Ada", "Blom").enrolment.person
        self.problem(404, stranger, "PUT", f"/sets/{self.set}/mine", {"group": self.lights})


class FillingPockets(GroupsCase):
    """Which groups fill a pocket together, and what becomes of it when somebody is moved."""

    def test_a_pocket_is_filled_by_the_groups_of_its_set_whatever_that_is_called(self) -> None:
        self.move(self.group("Lights"), 0, 1)
        other = self.lead("POST", self.path, {"name": "Tables"})["id"]
        table = self.lead("POST", f"/sets/{other}/groups", {"name": "Table 1"})["id"]
        ids = [self.students[one].enrolment_id for one in (0, 2, 3)]
        self.lead("POST", f"/sets/{other}/move", {"students": ids, "group": table})
        first = self.plot.pocket("Plan", "page", shared="group")
        second = self.plot.pocket("Notes", "page", shared="group", group_set="Tables")
        self.assertEqual(self.company(first), 2)
        self.assertEqual(self.company(second), 3)
        self.lead("PATCH", f"/sets/{other}", {"name": "Benches"})
        self.assertEqual(self.company(second), 3, "a name it had before still means it")
        sets = {one["name"]: one["fills"] for one in self.lead("GET", self.path)["sets"]}
        self.assertEqual(sets, {"Crews": ["Plan"], "Benches": ["Notes"]})
        self.lead("POST", f"/sets/{other}/move", {"students": ids, "group": None})
        found = self.problem(403, self.plot.lead, "DELETE", f"/sets/{other}")
        self.assertIn("“Notes”", found["title"])

    def company(self, pocket: Pocket) -> int:
        path = f"/portfolios/{self.students[0].pk}"
        lines = self.ok(self.person(0), "GET", path)["pockets"]
        return 1 + len(next(one["together"] for one in lines if one["id"] == pocket.pk))

    def test_whoever_is_moved_gets_what_the_new_group_wrote(self) -> None:
        lights, sound = self.group("Lights"), self.group("Sound")
        self.move(lights, 0)
        self.move(sound, 1)
        pocket = self.plot.pocket("Plan", "page", shared="group")
        page = self.write(1, pocket)
        with mock.patch("coatpeg.sharing.settling.settle_soon") as soon:
            self.move(sound, 0)
        soon.assert_called_once_with(page, mock.ANY)

    def write(self, at: int, pocket: Pocket) -> int:
        device = Device(self, self.students[at], pocket)
        device.write("Cue one.")
        device.exchange()
        page: int = device.page["id"]
        return page

    def test_another_set_for_a_pocket_with_work_in_it_is_refused(self) -> None:
        tables = self.lead("POST", self.path, {"name": "Tables"})["id"]
        table = self.lead("POST", f"/sets/{tables}/groups", {"name": "Table 1"})["id"]
        self.lead("POST", f"/sets/{tables}/move", {"students": [self.students[0].enrolment_id], "group": table})
        pocket = self.plot.pocket("Plan", "page", shared="group")
        settings = self.settings_of(pocket)
        path = f"/groups/{self.plot.group.pk}/template/pockets/{pocket.pk}"
        self.lead("PUT", path, {**settings, "group_set": "Tables"})
        self.write(0, pocket)
        found = self.problem(422, self.plot.lead, "PUT", path, {**self.settings_of(pocket), "group_set": ""})
        self.assertIn("work in “Plan”", found["title"])

    def settings_of(self, pocket: Pocket) -> dict[str, Any]:
        template = self.lead("GET", f"/groups/{self.plot.group.pk}/template")
        found: dict[str, Any] = next(
            one for section in template["sections"] for one in section["pockets"] if one["id"] == pocket.pk
        )
        return found

    def test_a_set_that_is_called_by_no_name_it_ever_had(self) -> None:
        other = self.lead("POST", self.path, {"name": "Tables"})["id"]
        self.assertEqual(
            [getattr(set_called(self.plot.group.pk, one), "pk", 0) for one in ("Tables", "Gone", "")],
            [other, self.set, self.set],
        )
        self.assertIsNone(set_called(klass("9 Forge", "forge").group.pk, "Tables"))
        self.assertEqual(Portfolio.objects.count(), 6)
