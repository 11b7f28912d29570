"""A student's cover and loose pages: theirs alone to change, never wanted, never lost."""

from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.core.portfolios.texts import LONGEST_TEXT
from coatpeg.portfolios.models import LoosePage
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import TODAY, jpeg, klass


class OwnCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi")
        self.person = self.thandi.enrolment.person
        self.path = f"/portfolios/{self.thandi.pk}"

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def mine(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.person, method, path, body)

    def refused(self, status: int, method: str, path: str, body: Any = None) -> dict[str, Any]:
        return self.problem(status, self.person, method, path, body)

    def page(self, title: str = "Ideas") -> int:
        return int(self.mine("POST", f"{self.path}/pages", {"title": title})["id"])

    def titles(self) -> list[str]:
        return [one["title"] for one in self.mine("GET", self.path)["pages"]]


class Covers(OwnCase):
    def picture(self, data: bytes = b"", status: int = 200) -> Any:
        file = SimpleUploadedFile("bed.jpg", data or jpeg())
        answer = self.client_of(self.person).post(f"/api{self.path}/cover/picture", {"file": file})
        self.assertEqual(answer.status_code, status, answer.content)
        return answer.json()

    def test_a_title_a_colour_and_a_picture_seen_by_staff_too(self) -> None:
        picture = self.picture()["id"]
        self.mine("PUT", f"{self.path}/cover", {"title": "  My term \n in the garden ", "tint": 3, "picture": picture})
        for person in (self.person, self.plot.lead):
            cover = self.ok(person, "GET", self.path)["cover"]
            self.assertEqual(
                (cover["title"], cover["tint"], cover["picture"]["id"]), ("My term in the garden", 3, picture)
            )
        self.mine("PUT", f"{self.path}/cover", {})
        self.assertEqual(self.mine("GET", self.path)["cover"], {"title": "", "tint": None, "picture": None})

    def test_what_cannot_be_a_cover(self) -> None:
        josh = self.plot.student("josh", "Josh", "Ellery")
        theirs = builders.add_picture(josh, self.card).artefact_id
        for body in ({"picture": theirs}, {"tint": 8}, {"tint": -1}, {"title": "x" * 121}):
            with self.subTest(body):
                self.refused(422, "PUT", f"{self.path}/cover", body)
        self.picture(b"just text", status=422)


class LoosePages(OwnCase):
    def test_written_over_the_version_that_was_seen(self) -> None:
        page = self.page()
        body = {"title": "Ideas", "text": "Grow a <b>pumpkin</b> & more", "version": 0}
        self.assertEqual(self.mine("PUT", f"/pages/{page}", body)["words"], 6, "signs are signs, never markup")
        said = self.refused(409, "PUT", f"/pages/{page}", {**body, "text": "Other"})
        self.assertEqual((said["text"], said["version"]), ("Grow a <b>pumpkin</b> & more", 1))
        self.assertEqual(self.mine("PUT", f"/pages/{page}", body)["version"], 1, "the same again changes nothing")
        self.assertEqual(self.ok(self.plot.lead, "GET", f"/pages/{page}")["text"], "Grow a <b>pumpkin</b> & more")
        self.assertEqual(self.mine("GET", self.path)["wanted"], 4, "never wanted, never counted")

    def test_in_ones_own_order_taken_out_and_brought_back(self) -> None:
        first, second, third = (self.page(title) for title in ("One", "Two", "Three"))
        self.mine("POST", f"/pages/{third}/move", {"before": first})
        self.assertEqual(self.titles(), ["Three", "One", "Two"])
        self.mine("POST", f"/pages/{third}/move", {})
        self.mine("DELETE", f"/pages/{second}")
        self.assertEqual(self.titles(), ["One", "Three"])
        self.refused(404, "GET", f"/pages/{second}")
        self.refused(404, "PUT", f"/pages/{second}", {"title": "Two", "text": "x", "version": 0})
        self.refused(404, "POST", f"/pages/{second}/move", {})
        self.refused(404, "POST", f"/pages/{first}/move", {"before": second})
        self.mine("POST", f"/pages/{second}/restore")
        self.assertEqual(self.titles(), ["One", "Two", "Three"])

    def test_bad_input(self) -> None:
        page = self.page()
        for body in (
            {"title": " ", "text": "x", "version": 0},
            {"title": "x" * 121, "text": "x", "version": 0},
            {"title": "Ideas", "text": "x" * (LONGEST_TEXT + 1), "version": 0},
        ):
            self.refused(422, "PUT", f"/pages/{page}", body)
        LoosePage.objects.bulk_create(
            LoosePage(portfolio=self.thandi, title=str(number), changed_at=builders.NOW) for number in range(99)
        )
        self.refused(422, "POST", f"{self.path}/pages", {"title": "One more"})
        self.refused(404, "PUT", "/pages/987654", {"title": "x", "text": "x", "version": 0})

    def test_whoever_has_left_reads_and_changes_nothing(self) -> None:
        page = self.page()
        self.thandi.enrolment.last = TODAY - timedelta(days=1)
        self.thandi.enrolment.save()
        self.mine("GET", f"/pages/{page}")
        self.refused(403, "PUT", f"/pages/{page}", {"title": "Ideas", "text": "x", "version": 0})
        self.refused(403, "PUT", f"{self.path}/cover", {"title": "x"})
