"""Notes to the class: read by whom the hand-in is asked of, told on the bell, taken back and fetched back."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.handins.handing import commands
from coatpeg.marking.models import ClassNote
from coatpeg.notices.models import Notice
from coatpeg.people.models import Person
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, klass


class ClassNotes(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.book = self.plot.student("thandi", period="P3")
        self.other = self.plot.student("josh", "Josh", "Ellery", period="P4")
        self.handin = self.plot.handin(self.plot.pocket(), periods=("P3",))
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/class-notes"

    def tell(self, person: Person | None = None, key: str = "one", text: str = "Weigh it first.") -> Any:
        return self.ok(person or self.plot.lead, "POST", self.path, {"key": key, "text": text})

    def read(self, book: Any) -> list[str]:
        found = self.ok(book.enrolment.person, "GET", f"/portfolios/{book.pk}/class-notes")
        return [one["text"] for one in found]

    def test_whom_it_is_asked_of_reads_it_and_nobody_else(self) -> None:
        self.tell()
        self.tell(key="two", text="And wash it.")
        self.assertEqual(self.read(self.book), ["And wash it.", "Weigh it first."])
        self.assertEqual(self.read(self.other), [], "the hand-in is not asked of P4")
        self.problem(403, self.other.enrolment.person, "GET", self.path)
        commands.set_excused(self.plot.lead, self.handin.pk, self.book.enrolment_id, NOW, excused=True)
        self.assertEqual(len(self.read(self.book)), 2, "an excuse hides nothing")
        # A stranger's class knows nothing of it.
        self.problem(404, klass("9 Forge", "blom").lead, "GET", self.path)

    def test_the_same_sent_again_is_the_same_note(self) -> None:
        self.assertEqual(self.tell()["id"], self.tell()["id"])
        self.assertEqual((ClassNote.objects.count(), Notice.objects.filter(what="class_noted").count()), (1, 1))

    def test_told_on_the_bell_unless_it_was_taken_back_before(self) -> None:
        first = self.tell()
        second = self.tell(key="two", text="Taken back.")
        self.ok(self.plot.lead, "DELETE", f"/groups/{self.plot.group.pk}/class-notes/{second['id']}")
        later = NOW + timedelta(minutes=1)
        with self.at(later):
            run_waiting()
            bell = self.ok(self.book.enrolment.person, "GET", "/notices")
            lines = [one for one in bell["lines"] if one["what"] == "class_noted"]
            self.assertEqual(len(lines), 1)
            other = self.ok(self.other.enrolment.person, "GET", "/notices")["lines"]
            self.assertNotIn("class_noted", [one["what"] for one in other])
        self.assertEqual([one["id"] for one in self.ok(self.plot.lead, "GET", self.path)], [first["id"]])

    def test_whoever_wrote_it_or_a_lead_takes_it_back_and_fetches_it_back(self) -> None:
        marsh, other = self.plot.staff("marsh", Role.MARKER), self.plot.staff("blom", Role.MARKER)
        made = self.tell(marsh)
        path = f"/groups/{self.plot.group.pk}/class-notes/{made['id']}"
        self.problem(403, other, "DELETE", path)
        self.ok(self.plot.lead, "DELETE", path)
        self.assertEqual(self.read(self.book), [])
        self.ok(marsh, "POST", f"{path}/restore")
        self.assertEqual(self.read(self.book), ["Weigh it first."])

    def test_what_cannot_be_meant_is_refused(self) -> None:
        for text in ("", "  ", "x" * 4_001):
            with self.subTest(text[:3]):
                self.problem(422, self.plot.lead, "POST", self.path, {"key": "k", "text": text})
        observer = self.plot.staff("head", Role.OBSERVER)
        self.problem(403, observer, "POST", self.path, {"key": "k", "text": "So."})
        self.problem(403, self.book.enrolment.person, "POST", self.path, {"key": "k", "text": "So."})
        self.assertFalse(ClassNote.objects.exists())
