"""The roster folder: a list put there waits for somebody, or applies itself."""

import os
import tempfile
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.core.policy import Role
from coatpeg.people.models import Enrolment, RosterDrop, StaffRole
from coatpeg.setup.roster import roster_folder
from tests.api.case import ApiCase
from tests.builders import NOW, klass
from tests.reference.test_oneroster import packed

LIST = "Family name,Given name\r\nDube,Thandi\r\nEllery,Josh\r\n"


class DropCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass("8 Plot · Growing & Cooking")
        self.path = f"/groups/{self.plot.group.pk}/roster"
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def put(self, name: str, data: bytes | str, age: float = 60) -> None:
        path = self.folder / name
        path.write_bytes(data.encode() if isinstance(data, str) else data)
        os.utime(path, (NOW.timestamp() - age,) * 2)

    def look(self) -> roster_folder.PickedUp:
        return roster_folder.pick_up(self.folder, NOW)

    def lead(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.plot.lead, method, self.path + path, body)


class PickingUp(DropCase):
    def test_a_list_waits_is_looked_at_applied_and_undone(self) -> None:
        self.put("8 plot growing cooking.csv", LIST)
        self.assertEqual(self.look().taken, ("8 plot growing cooking.csv",))
        self.assertEqual(os.listdir(self.folder), ["taken"])
        self.assertFalse(Enrolment.objects.exists(), "nothing is written before somebody says so")
        (drop,) = self.lead("GET", "/drops")["drops"]
        self.assertEqual((drop["state"], drop["name"]), ("pending", "8 plot growing cooking.csv"))
        table = self.lead("GET", f"/drops/{drop['id']}")
        self.assertEqual((table["columns"], len(table["rows"])), (["family", "given"], 2))
        body = {"rows": table["rows"], "columns": table["columns"], "drop": drop["id"]}
        preview = self.lead("POST", "/preview", {"rows": table["rows"], "columns": table["columns"]})
        self.assertEqual([line["verdict"] for line in preview["lines"]], ["new", "new"])
        self.apply_list(self.plot.lead, self.path, body)
        (done,) = self.lead("GET", "/drops")["drops"]
        self.assertEqual(done["state"], "applied")
        self.assertEqual(RosterDrop.objects.get().table, {}, "names are not kept twice")
        self.problem(404, self.plot.lead, "GET", f"{self.path}/drops/{drop['id']}")
        self.lead("POST", f"/changes/{done['change']}/undo")
        self.assertFalse(Enrolment.objects.exists())

    def test_put_aside(self) -> None:
        self.put("8 Plot Growing Cooking.csv", LIST)
        self.look()
        drop = RosterDrop.objects.get()
        self.lead("DELETE", f"/drops/{drop.pk}")
        self.assertEqual(self.lead("GET", "/drops")["drops"][0]["state"], "aside")

    def test_a_newer_list_takes_the_place_of_the_waiting_one(self) -> None:
        self.put("8 Plot Growing Cooking.csv", LIST)
        self.look()
        self.put("8 Plot Growing Cooking.csv", LIST)
        self.look()
        self.assertEqual(RosterDrop.objects.count(), 1, "the same again changes nothing")
        self.put("8 Plot Growing Cooking.csv", LIST + "Blom,Ada\r\n")
        self.look()
        states = list(RosterDrop.objects.order_by("pk").values_list("state", flat=True))
        self.assertEqual(states, ["aside", "pending"])

    def test_by_itself_in_the_name_of_who_set_it_so(self) -> None:
        forge = klass("9 Forge", "marsh")
        gone = self.plot.student("lee", "Lee", "Moss")
        self.lead("PUT", "/by-itself", {"by_itself": True})
        self.put("roster.zip", packed())
        self.put("8 Plot Growing Cooking.csv", LIST)
        self.assertEqual(len(self.look().taken), 2)
        families = set(Enrolment.objects.filter(group=self.plot.group).values_list("person__family_name", flat=True))
        self.assertEqual(families, {"Moss", "Dube", "Ellery"})
        self.assertIsNone(Enrolment.objects.get(pk=gone.enrolment_id).last, "nobody is marked as left by itself")
        self.assertEqual(RosterDrop.objects.get(group=forge.group).state, "pending", "only where it is set so")
        # Whom it did not name is told, until it is said what became of them or a newer list names them.
        newest = self.lead("GET", "/drops")["drops"][0]
        self.assertEqual(newest["missing"], [{"id": gone.enrolment_id, "name": "Moss, Lee"}])
        self.lead("POST", "/leave", {"students": [gone.enrolment_id]})
        self.assertEqual(self.lead("GET", "/drops")["drops"][0]["missing"], [])
        change = self.lead("GET", "/changes")[0]["id"]
        self.lead("POST", f"/changes/{change}/undo")
        self.assertEqual(len(self.lead("GET", "/drops")["drops"][0]["missing"]), 1)
        self.lead("DELETE", f"/drops/{newest['id']}")
        self.assertEqual(self.lead("GET", "/drops")["drops"][0]["missing"], [])
        self.assertEqual(self.lead("GET", "/drops")["drops"][0]["state"], "applied")
        # Whoever set it lost the role: the list waits and says why.
        StaffRole.objects.filter(person=self.plot.lead).delete()
        StaffRole.objects.create(group=self.plot.group, person=forge.lead, role=Role.LEAD.value)
        self.put("8 plot growing cooking.csv", "Family name,Given name\r\nBlom,Ada\r\n")
        self.look()
        waiting = self.ok(forge.lead, "GET", f"{self.path}/drops")["drops"][0]
        self.assertEqual((waiting["state"], bool(waiting["message"])), ("pending", True))
        self.ok(forge.lead, "PUT", f"{self.path}/by-itself", {"by_itself": False})
        self.assertFalse(self.ok(forge.lead, "GET", f"{self.path}/drops")["by_itself"])

    def test_what_names_no_class_or_cannot_be_read_stays_with_a_note(self) -> None:
        self.put("7 Bench.csv", LIST)
        self.put("broken.zip", b"PK\x03\x04 nothing")
        self.put("huge.csv", b"x" * 10_000_001)
        self.put("8 Plot Growing Cooking.csv", "")
        self.put("half copied.csv", LIST, age=0.5)
        self.put(".hidden", LIST)
        done = self.look()
        self.assertEqual(done.left, ("7 Bench.csv", "8 Plot Growing Cooking.csv", "broken.zip", "huge.csv"))
        self.assertIn("No class is called", (self.folder / "7 Bench.csv.not-taken.txt").read_text())
        self.assertIn("damaged", (self.folder / "broken.zip.not-taken.txt").read_text())
        self.assertFalse((self.folder / "half copied.csv.not-taken.txt").exists())
        klass("7 Bench", "bench")
        self.assertIn("7 Bench.csv", self.look().taken)
        self.assertFalse((self.folder / "7 Bench.csv.not-taken.txt").exists())
        self.assertEqual(roster_folder.pick_up(self.folder / "nowhere", NOW), roster_folder.PickedUp())

    def test_a_class_that_is_over_takes_no_list(self) -> None:
        self.plot.group.last = NOW.date() - timedelta(days=1)
        self.plot.group.save()
        self.put("8 Plot Growing Cooking.csv", LIST)
        self.assertEqual(self.look().taken, ())


class Uploading(DropCase):
    def test_a_zip_of_many_classes_offers_them(self) -> None:
        client = self.client_of(self.plot.lead)
        for chosen, names in (("", ["Noor"]), ("c1", ["Thandi", 'Zoë "Zed", née'])):
            file = SimpleUploadedFile("roster.zip", packed())
            forge = klass("9 Forge", "forge") if not chosen else None
            group = forge.group.pk if forge else self.plot.group.pk
            by = self.client_of(forge.lead) if forge else client
            answer = by.post(f"/api/groups/{group}/roster/files", {"file": file, "chosen": chosen}).json()
            self.assertEqual([row[1] for row in answer["rows"]], names)
            self.assertEqual([one["students"] for one in answer["classes"]], [2, 1])
        self.assertEqual((answer["chosen"], answer["first"]), ("c1", "2026-09-01"))
