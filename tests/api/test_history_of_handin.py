"""The whole history of a student's hand-in, in order; each word of it from the record."""

from __future__ import annotations

from datetime import timedelta
from typing import get_args

from coatpeg.core.policy import Role
from coatpeg.marking import history
from coatpeg.marking.annotations import making
from coatpeg.marking.shapes import HistoryEntry
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class History(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.pocket = self.plot.pocket()
        self.book = self.plot.student("thandi")
        self.thandi = self.book.enrolment.person
        self.handin = self.plot.handin(self.pocket)
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/students/{self.book.enrolment_id}"

    def told(self, person: Person) -> list[tuple[str, str, int | None]]:
        return [(one["what"], one["who"], one["number"]) for one in self.ok(person, "GET", f"{self.path}/history")]

    def test_every_deed_in_its_order_with_its_words(self) -> None:
        lead, me = self.plot.lead.full_name, self.thandi.full_name
        builders.fill(self.book, self.pocket)
        first = builders.hand_in(self.book, self.handin, NOW)
        said = builders.say(first, self.plot.lead)
        builders.mark(self.plot.lead, first, NOW + timedelta(minutes=1), accept=False, feedback="Say why.")
        making.answer(self.thandi, said.pk, "Because.", NOW + timedelta(minutes=2))
        self.ok(self.thandi, "POST", f"/submissions/{first.pk}/read")
        second = builders.hand_in(self.book, self.handin, NOW + timedelta(minutes=3), seen=1)
        builders.mark(self.plot.lead, second, NOW + timedelta(minutes=4), score=25)
        self.ok(self.plot.lead, "POST", f"/submissions/{second.pk}/reopen")
        told = self.told(self.thandi)
        self.assertEqual(
            told,
            [
                ("handin_set", lead, None),
                ("handed_in", me, 1),
                ("sent_back", lead, 1),
                ("mark_released", lead, 1),
                ("answered", me, 1),
                ("feedback_read", me, 1),
                ("handed_in", me, 2),
                ("accepted", lead, 2),
                ("mark_released", lead, 2),
                ("reopened", lead, 2),
            ],
        )
        self.assertEqual(self.told(self.plot.lead), told)
        found = self.ok(self.plot.lead, "GET", f"{self.path}/history")
        self.assertEqual([one["text"] for one in found if one["text"]][:2], ["Say why.", "Because."])
        self.assertEqual([one["score"] for one in found if one["score"] is not None], [20, 25])

    def test_another_students_and_another_classes_are_not_told(self) -> None:
        josh = self.plot.student("josh", "Josh", "Ellery")
        handed = builders.hand_in(josh, self.handin, even_if_empty=True)
        self.assertEqual([what for what, _, _ in self.told(self.thandi)], ["handin_set"])
        self.assertEqual(self.call(josh.enrolment.person, "GET", f"{self.path}/history").status_code, 404)
        other = klass("9 Forge", "forge")
        self.assertEqual(self.call(other.lead, "GET", f"{self.path}/history").status_code, 404)
        wrong = f"/groups/{other.group.pk}/handins/{handed.handin_id}/students/{josh.enrolment_id}/history"
        self.assertEqual(self.call(other.lead, "GET", wrong).status_code, 404)

    def test_that_a_mark_of_two_is_done_is_for_staff(self) -> None:
        handed = builders.hand_in(self.book, self.handin, even_if_empty=True)
        marsh = self.plot.staff("marsh", Role.MARKER)
        body = {"two": True, "blind": False, "version": 0}
        self.ok(self.plot.lead, "PUT", f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/marking", body)
        self.ok(marsh, "POST", f"/submissions/{handed.pk}/draft/done", {"done": True})
        self.assertEqual([what for what, _, _ in self.told(self.plot.lead)][-1], "mark_done")
        self.assertEqual([what for what, _, _ in self.told(self.thandi)][-1], "handed_in")

    def test_every_deed_that_is_told_has_its_word(self) -> None:
        words = set(get_args(HistoryEntry.model_fields["what"].annotation))
        self.assertEqual(words, history.OF_STUDENT | history.OF_HANDIN | {"reminded"})
