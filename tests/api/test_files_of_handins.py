"""Pictures and files beside a hand-in's directions: waiting, given, read by whom it asks, copied, taken out."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandIn
from coatpeg.outlines import given_files
from coatpeg.outlines.models import GivenFile
from coatpeg.people.models import Person, StaffRole
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)


class FilesOfHandIns(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card = self.plot.pocket()
        self.ada = self.plot.student("ada", "Ada", "Abel", period="P3")
        self.cyr = self.plot.student("cyr", "Cyr", "Cole", period="P4")
        self.path = f"/groups/{self.plot.group.pk}/handins"

    def came(self, name: str = "plan.jpg", data: bytes = b"", status: int = 201, path: str = "") -> Any:
        body = {"file": SimpleUploadedFile(name, data or builders.jpeg())}
        answer = self.client_of(self.lead).post(f"/api{path or self.path}/files", body)
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def plan(self, *files: Any, **more: Any) -> dict[str, Any]:
        due = {"day": str(TODAY + 2 * DAY), "at": None}
        given = {"files": [one["id"] for one in files]}
        return {"title": "Menu", "pockets": [self.card.pk], "opens": str(TODAY), "due": due, **given, **more}

    def set(self, *files: Any, **more: Any) -> str:
        return f"{self.path}/{self.ok(self.lead, 'POST', self.path, self.plan(*files, **more))['id']}"

    def readers(self, file: Any) -> set[str]:
        """Who of all that have an account reads it."""
        found = set()
        for person in Person.objects.all():
            status = self.client_of(person).get(f"/api/given-files/{file['id']}").status_code
            self.assertIn(status, (200, 404), person.username)
            found |= {person.username} if status == 200 else set()
        return found

    def test_it_waits_for_the_staff_and_is_read_by_those_whom_the_hand_in_asks(self) -> None:
        self.plot.staff("helper", Role.CO_TEACHER)
        builders.klass("9 Forge", "forge").student("eve", "Eve", "Ende")
        file, sheet = self.came(), self.came("beds.txt", b"A: chard, B: beans")
        staff = {self.lead.username, "helper"}
        self.assertEqual(self.readers(file), staff, "nobody is asked yet")
        p3 = {"for_everyone": False, "periods": [{"period": self.plot.period("P3").pk, "asked": True}]}
        path = self.set(file, sheet, draft=True, **p3)
        self.assertEqual(self.readers(sheet), staff, "a draft is for the staff")
        plan = self.ok(self.lead, "GET", path)
        self.assertEqual([one["title"] for one in plan["given"]], ["plan.jpg", "beds.txt"])
        self.ok(self.lead, "PUT", path, {**plan, "draft": False})
        self.assertEqual(self.readers(file), {*staff, "ada"}, "Cyr is in the other period")
        opened = self.ok(self.ada.enrolment.person, "GET", f"/portfolios/{self.ada.pk}/pockets/{self.card.pk}")
        self.assertEqual([one["title"] for one in opened["handins"][0]["files"]], ["plan.jpg", "beds.txt"])
        thumbnail = self.client_of(self.ada.enrolment.person).get(f"/api/given-files/{file['id']}/thumbnail")
        self.assertEqual(thumbnail["Content-Type"], "image/jpeg")
        self.ok(self.lead, "POST", f"{path}/away")
        self.assertEqual(self.readers(file), staff)

    def test_whoever_handed_in_reads_it_still_and_who_gets_a_date_of_their_own_does(self) -> None:
        file = self.came()
        p3 = {"for_everyone": False, "periods": [{"period": self.plot.period("P3").pk, "asked": True}]}
        handin = HandIn.objects.get(pk=self.set(file, **p3).rsplit("/", 1)[1])
        builders.fill(self.ada, self.card)
        builders.hand_in(self.ada, handin, NOW)
        own = f"/handins/{handin.pk}/students/{self.cyr.enrolment.pk}/due"
        self.ok(self.lead, "PUT", own, {"day": str(TODAY + 3 * DAY), "at": None})
        handin.periods.update(period=self.plot.period("P4"))
        self.assertEqual(self.readers(file), {self.lead.username, "ada", "cyr"})

    def test_taken_out_it_is_read_by_no_student_and_undo_brings_it_back_for_a_co_teacher_too(self) -> None:
        file = self.came()
        path = self.set(file)
        helper = self.plot.staff("helper", Role.CO_TEACHER)
        plan = self.ok(helper, "GET", path)
        after = self.ok(helper, "PUT", path, {**plan, "files": []})
        self.assertEqual(self.readers(file), {self.lead.username, "helper"})
        self.ok(helper, "PUT", path, {**plan, "version": after["version"]})
        self.assertIn("ada", self.readers(file))

    def test_copies_and_series_give_the_very_same_file(self) -> None:
        other = builders.klass("9 Forge", "forge")
        StaffRole.objects.create(group=other.group, person=self.lead, role=Role.CO_TEACHER.value)
        eve = other.student("eve", "Eve", "Ende")
        file = self.came()
        weekly = {"repeat": {"every": 1, "until": str(TODAY + 16 * DAY)}}
        path = self.set(file, **weekly)
        self.assertEqual([one.files.get().pk for one in HandIn.objects.all()], [file["id"]] * 3)
        there = f"/groups/{other.group.pk}/handins"
        like = self.ok(self.lead, "GET", f"{there}/like/{path.rsplit('/', 1)[1]}")
        self.ok(
            self.lead, "POST", there, {**like, "title": "Menu", "pockets": [other.pocket().pk], "opens": str(TODAY)}
        )
        self.assertEqual(
            self.readers(file), {self.lead.username, other.lead.username, "ada", "cyr", eve.enrolment.person.username}
        )
        carried = builders.klass("7 Bench", "bench")
        StaffRole.objects.create(group=self.plot.group, person=carried.lead, role="observer")
        body = {"source": self.plot.group.pk, "handins": True}
        self.ok(carried.lead, "POST", f"/groups/{carried.group.pk}/template/carry-over", body)
        self.assertEqual({one.files.get().pk for one in HandIn.objects.filter(group=carried.group)}, {file["id"]})

    def test_what_is_not_ones_own_to_give_is_refused_and_so_are_too_many(self) -> None:
        forge = builders.klass("9 Forge", "forge")
        foreign = self.ok_file(forge)
        of_pocket = GivenFile.objects.create(
            pocket=self.card, role="directions", kind="picture", title="x.jpg", stored_id=foreign.stored_id, made_at=NOW
        )
        for wrong in (foreign.pk, of_pocket.pk, 10**6):
            for path in (self.path, f"{self.path}/preview"):
                told = self.problem(422, self.lead, "POST", path, {**self.plan(), "files": [wrong]})
                self.assertEqual(told["where"], "files")
        path = self.set()
        body = {**self.ok(self.lead, "GET", path), "files": [foreign.pk]}
        for of in ("PUT", "POST"):
            self.problem(422, self.lead, of, path if of == "PUT" else f"{path}/preview", body)
        many = [self.came(f"{number}.txt", b"page %d" % number) for number in range(given_files.MOST_FILES + 1)]
        self.assertIn("more than 12", self.problem(422, self.lead, "POST", self.path, self.plan(*many))["title"])
        self.assertFalse(HandIn.objects.exclude(files=None).exists())

    def ok_file(self, of: builders.Class) -> GivenFile:
        body = {"file": SimpleUploadedFile("theirs.jpg", builders.jpeg())}
        made = self.client_of(of.lead).post(f"/api/groups/{of.group.pk}/handins/files", body).json()
        return GivenFile.objects.get(pk=made["id"])

    def test_what_nobody_gives_goes_after_ninety_days_and_what_waits_is_bounded(self) -> None:
        kept, gone = self.came(), self.came("old.txt", b"old")
        self.set(kept)
        GivenFile.objects.update(made_at=NOW - given_files.WAITS * 2)
        new = self.came("new.txt", b"new")
        self.assertEqual(set(GivenFile.objects.values_list("pk", flat=True)), {kept["id"], new["id"]})
        self.assertNotEqual(gone["id"], new["id"])
        row = GivenFile.objects.get(pk=new["id"])
        GivenFile.objects.bulk_create(
            GivenFile(
                group_id=row.group_id, role="directions", kind="file", title="t", stored_id=row.stored_id, made_at=NOW
            )
            for _ in range(given_files.MOST_WAITING - 1)
        )
        self.assertIn("200 files", self.came("more.txt", b"more", status=422)["title"])
