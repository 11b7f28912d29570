"""Phrases: own ones in all classes, shared ones in theirs; how often each was said."""

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.marking.models import Phrase
from coatpeg.marking.phrases.keeping import MOST
from coatpeg.people.models import Person, StaffRole
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class Phrases(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.lead = self.plot.lead
        self.other = self.plot.staff("marsh", Role.MARKER)
        self.path = f"/groups/{self.plot.group.pk}/phrases"
        self.begun = self.keep("Well begun, {name}.")

    def keep(self, text: str, **more: object) -> dict[str, Any]:
        made: dict[str, Any] = self.ok(self.lead, "POST", self.path, {"text": text, **more})
        return made

    def texts(self, person: Person, path: str = "") -> list[str]:
        return [one["text"] for one in self.ok(person, "GET", path or self.path)]

    def told(self, status: int, *call: Any) -> dict[str, Any]:
        answer = self.call(*call)
        self.assertEqual(answer.status_code, status, answer.content)
        found: dict[str, Any] = answer.json()
        return found

    def test_ones_own_go_along_to_every_class_and_shared_ones_stay_in_theirs(self) -> None:
        self.keep("Show your sums.", shared=True)
        forge = klass("9 Forge", "forge")
        for person in (self.lead, self.other):
            StaffRole.objects.create(group=forge.group, person=person, role=Role.MARKER.value)
        there = f"/groups/{forge.group.pk}/phrases"
        self.assertEqual(self.texts(self.lead), ["Show your sums.", "Well begun, {name}."])
        self.assertEqual(self.texts(self.lead, there), ["Show your sums.", "Well begun, {name}."])
        (shared,) = self.ok(self.other, "GET", self.path)
        self.assertEqual((shared["text"], shared["by"], shared["shared"]), ("Show your sums.", "R. Okafor", True))
        self.assertEqual(self.texts(self.other, there), [])
        self.assertEqual([one["shared"] for one in self.ok(self.lead, "GET", there)], [False, False])

    def test_changed_shared_and_dropped_by_whose_it_is_alone(self) -> None:
        one = f"{self.path}/{self.begun['id']}"
        self.told(404, self.other, "PATCH", one, {"text": "Mine now."})
        changed = self.ok(self.lead, "PATCH", one, {"shared": True})
        self.assertEqual((changed["text"], changed["shared"]), ("Well begun, {name}.", True))
        for method, body in (("PATCH", {"text": "Mine now."}), ("DELETE", None)):
            self.assertIn("R. Okafor", self.told(403, self.other, method, one, body)["title"])
        self.ok(self.lead, "PATCH", one, {"text": "Well done, {name}."})
        self.assertEqual(self.texts(self.other), ["Well done, {name}."])
        self.ok(self.lead, "PATCH", one, {"shared": False})
        self.assertEqual(self.texts(self.other), [])
        self.ok(self.lead, "DELETE", one)
        self.assertFalse(Phrase.objects.exists())
        self.told(404, self.lead, "DELETE", one)

    def test_what_cannot_be_kept_says_why(self) -> None:
        for body, told in (
            ({"text": "  "}, "no words"),
            ({"text": "well  begun, {name}."}, "already"),
            ({"text": "x" * 1_001}, "1,001 characters"),
        ):
            self.assertIn(told, self.told(422, self.lead, "POST", self.path, body)["title"])
        second = self.keep("Show your sums.")
        answer = self.told(422, self.lead, "PATCH", f"{self.path}/{second['id']}", {"text": "Well begun, {name}."})
        self.assertIn("already", answer["title"])
        self.ok(self.lead, "PATCH", f"{self.path}/{second['id']}", {"text": "Show  your sums."})
        Phrase.objects.bulk_create(
            Phrase(person=self.lead, text=f"No. {number}", changed_at=NOW) for number in range(MOST - 2)
        )
        self.assertIn(f"{MOST} phrases", self.told(422, self.lead, "POST", self.path, {"text": "One more."})["title"])

    def test_how_often_it_was_said_in_a_hand_in(self) -> None:
        self.keep("Show your sums.")
        said = (("Ada", "Show your sums."), ("Bea", "Well begun, Bea."), ("Cyr", ""))
        students = [self.plot.student(name.lower(), name, "Abel") for name, _ in said]
        handin = self.plot.handin(self.plot.pocket())
        for student, (_, words) in zip(students, said, strict=True):
            done = builders.hand_in(student, handin, even_if_empty=True)
            self.ok(self.lead, "POST", f"/submissions/{done.pk}/accept", {"feedback": f"{words} Show your sums."})
        found = self.ok(self.lead, "GET", f"{self.path}?handin={handin.pk}")
        self.assertEqual(
            [(one["text"], one["said"]) for one in found],
            [
                ("Show your sums.", 3),
                ("Well begun, {name}.", 1),
            ],
        )
        # Taken back, it is said no more; of another class's hand-in nothing is told.
        self.ok(self.lead, "POST", f"/submissions/{done.pk}/reopen")
        found = self.ok(self.lead, "GET", f"{self.path}?handin={handin.pk}")
        self.assertEqual(found[0]["said"], 2)
        forge = klass("9 Forge", "forge")
        told = self.ok(forge.lead, "GET", f"/groups/{forge.group.pk}/phrases?handin={handin.pk}")
        self.assertEqual(told, [])

    def test_the_pile_says_how_fast_one_marks_today(self) -> None:
        students = [self.plot.student(f"s{number}", "Ada", f"Abel {number}") for number in range(5)]
        handin = self.plot.handin(self.plot.pocket())
        pile = f"/groups/{self.plot.group.pk}/pile"
        for number, student in enumerate(students):
            done = builders.hand_in(student, handin, even_if_empty=True)
            if number == 4:
                break
            self.assertIsNone(self.ok(self.lead, "GET", pile)["pace"])
            with self.at(NOW + timedelta(minutes=2 * number)):
                self.ok(self.lead, "POST", f"/submissions/{done.pk}/accept", {})
        self.assertEqual(self.ok(self.lead, "GET", pile)["pace"], 120)
        self.assertIsNone(self.ok(self.other, "GET", pile)["pace"], "of one's own alone")
