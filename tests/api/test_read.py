"""*I have read this*: said by the student alone, once, of what stands; seen by staff."""

from datetime import timedelta

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class HaveRead(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.book = self.plot.student("thandi")
        self.thandi = self.book.enrolment.person
        handin = self.plot.handin(self.plot.pocket())
        self.done = builders.hand_in(self.book, handin, even_if_empty=True)
        self.path = f"/submissions/{self.done.pk}"

    def read_at(self) -> str | None:
        (outcome,) = self.ok(self.plot.lead, "GET", self.path)["outcomes"]
        (line,) = self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/feedback")
        self.assertEqual(outcome["read_at"], line["read_at"])
        found: str | None = outcome["read_at"]
        return found

    def test_said_once_and_seen_by_staff(self) -> None:
        self.ok(self.plot.lead, "POST", f"{self.path}/accept", {"feedback": "Well begun."})
        self.assertIsNone(self.read_at())
        self.ok(self.thandi, "POST", f"{self.path}/read")
        first = self.read_at()
        self.assertEqual(first, NOW.isoformat().replace("+00:00", "Z"))
        with self.at(NOW + timedelta(hours=1)):
            self.ok(self.thandi, "POST", f"{self.path}/read")
        self.assertEqual(self.read_at(), first)
        self.assertEqual(Event.objects.filter(verb="feedback_read").count(), 1)

    def test_of_what_was_taken_back_nothing_is_read_and_what_comes_anew_is_not(self) -> None:
        self.assertEqual(self.call(self.thandi, "POST", f"{self.path}/read").status_code, 409)
        self.ok(self.plot.lead, "POST", f"{self.path}/accept", {"feedback": "Well begun."})
        self.ok(self.thandi, "POST", f"{self.path}/read")
        self.ok(self.plot.lead, "POST", f"{self.path}/reopen")
        self.assertEqual(self.call(self.thandi, "POST", f"{self.path}/read").status_code, 409)
        self.ok(self.plot.lead, "POST", f"{self.path}/accept", {"feedback": "Well done.", "version": 1})
        (line,) = self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/feedback")
        self.assertIsNone(line["read_at"])

    def test_nobody_says_it_for_them(self) -> None:
        self.ok(self.plot.lead, "POST", f"{self.path}/accept", {"feedback": "Well begun."})
        other = self.plot.student("josh", "Josh", "Ellery").enrolment.person
        for person, status in (
            (self.plot.lead, 403),
            (self.plot.staff("marsh", Role.MARKER), 403),
            (other, 404),
            (None, 401),
        ):
            self.assertEqual(self.call(person, "POST", f"{self.path}/read").status_code, status)
        self.assertIsNone(self.read_at())
