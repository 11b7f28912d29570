"""Kept filters: own ones, shared ones, those of another class."""

from coatpeg.core.policy import Role
from coatpeg.handins.filters.keeping import MOST
from coatpeg.handins.models import KeptFilter
from tests.api.case import ApiCase
from tests.builders import klass


class Filters(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.other = self.plot.staff("marsh", Role.CO_TEACHER)
        self.path = f"/groups/{self.plot.group.pk}/filters"
        self.owing = self.keep("P3 owing", "show=not_in&period=P3")

    def keep(self, name: str, address: str = "show=late", **more: object) -> dict:
        return self.ok(self.plot.lead, "POST", self.path, {"name": name, "address": address, **more})

    def names(self, person: object) -> list[str]:
        return [one["name"] for one in self.ok(person, "GET", self.path)]

    def test_kept_by_name_and_for_oneself_unless_shared(self) -> None:
        self.keep("Late", shared=True)
        self.assertEqual(self.names(self.plot.lead), ["Late", "P3 owing"])
        (shown,) = self.ok(self.other, "GET", self.path)
        self.assertEqual((shown["name"], shown["own"], shown["by"]), ("Late", False, "R. Okafor"))

    def test_changed_by_who_kept_it_alone(self) -> None:
        one = f"{self.path}/{self.owing['id']}"
        self.problem(404, self.other, "PATCH", one, {"name": "Mine now"})
        self.problem(404, self.other, "DELETE", one)
        self.ok(self.plot.lead, "PATCH", one, {"shared": True})
        self.assertIn("R. Okafor", self.problem(403, self.other, "PATCH", one, {"name": "Mine now"})["title"])
        changed = self.ok(self.plot.lead, "PATCH", one, {"address": "?show=late&student=3"})
        self.assertEqual((changed["name"], changed["address"], changed["shared"]), ("P3 owing", "show=late", True))
        self.ok(self.plot.lead, "DELETE", one)
        self.problem(404, self.plot.lead, "DELETE", one)

    def test_a_name_once_a_person_and_class(self) -> None:
        found = self.problem(422, self.plot.lead, "POST", self.path, {"name": " P3  owing", "address": "show=late"})
        self.assertEqual(found["where"], "name")
        late = self.keep("Late")
        self.problem(422, self.plot.lead, "PATCH", f"{self.path}/{late['id']}", {"name": "P3 owing"})
        self.ok(self.other, "POST", self.path, {"name": "P3 owing", "address": "show=late"})
        forge = klass("9 Forge", "forge")
        self.problem(404, forge.lead, "GET", self.path)
        self.problem(404, forge.lead, "PATCH", f"/groups/{forge.group.pk}/filters/{self.owing['id']}", {"name": "x"})

    def test_junk_is_told_and_nothing_is_kept(self) -> None:
        for name, address in (("", "show=late"), ("x" * 61, "show=late"), ("Ok", ""), ("Ok", "student=4")):
            with self.subTest(f"{name[:3]} {address}"):
                self.problem(422, self.plot.lead, "POST", self.path, {"name": name, "address": address})
        self.assertEqual(KeptFilter.objects.count(), 1)

    def test_at_most_so_many(self) -> None:
        KeptFilter.objects.bulk_create(
            KeptFilter(group=self.plot.group, person=self.plot.lead, name=f"F{at}", address="show=late")
            for at in range(MOST - 1)
        )
        self.problem(422, self.plot.lead, "POST", self.path, {"name": "One more", "address": "show=late"})
