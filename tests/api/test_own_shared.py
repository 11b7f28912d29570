"""Pages that students begin with classmates whom they choose."""

from __future__ import annotations

from base64 import b64decode, b64encode
from typing import Any

from pycrdt import Doc, XmlFragment

from coatpeg.core.policy import Role
from coatpeg.notices.models import Notice
from coatpeg.people.models import TeachingGroup
from coatpeg.portfolios.models import LoosePage, Portfolio
from coatpeg.sharing import own, settling
from coatpeg.sharing.models import SharedPage, SharedUpdate
from coatpeg.web.recheck import differences
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, TODAY, klass
from tests.devices import new_text


class OwnCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.josh = self.plot.student("josh", "Josh", "Ellery")
        self.thandi = self.plot.student("thandi")
        self.noor = self.plot.student("noor", "Noor", "Amari")
        self.allow()

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def allow(self, *, allowed: bool = True) -> None:
        self.ok(self.plot.lead, "PUT", f"/groups/{self.plot.group.pk}/pages-together", {"allowed": allowed})

    def begin(self, *others: Portfolio, title: str = "Storm", status: int = 201, by: Portfolio | None = None) -> Any:
        book = by or self.josh
        body = {"title": title, "others": [one.enrolment_id for one in others]}
        call = (book.enrolment.person, "POST", f"/portfolios/{book.pk}/pages/together", body)
        return self.ok(*call) if status == 201 else self.problem(status, *call)

    def page_in(self, book: Portfolio) -> LoosePage:
        return LoosePage.objects.get(portfolio=book)

    def open(self, book: Portfolio, by: Any = None) -> Any:
        path = f"/portfolios/{book.pk}/pages/{self.page_in(book).pk}/shared"
        return self.ok(by or book.enrolment.person, "POST", path)

    def write(self, book: Portfolio, words: str) -> None:
        """One passage at the end, through the real protocol."""
        page = self.open(book)
        doc: Doc[Any] = Doc(client_id=page["client"])
        root = doc.get("page", type=XmlFragment)
        if page["number"]:
            doc.apply_update(b64decode(page["data"]))
        before = doc.get_state()
        root.children.append(new_text(words))
        body = {"after": page["number"], "client": page["client"], "update": b64encode(doc.get_update(before)).decode()}
        self.ok(book.enrolment.person, "POST", f"/shared/{page['id']}/exchange", body)

    def settle(self) -> None:
        settling.settle(SharedPage.objects.get().pk, NOW)


class Beginning(OwnCase):
    def test_it_stands_with_each_of_them_and_they_are_told(self) -> None:
        made = self.begin(self.thandi)
        self.assertEqual(made["title"], "Storm")
        for book in (self.josh, self.thandi):
            (line,) = self.ok(book.enrolment.person, "GET", f"/portfolios/{book.pk}")["pages"]
            self.assertEqual((line["title"], line["together"], line["words"]), ("Storm", True, 0))
        self.assertFalse(LoosePage.objects.filter(portfolio=self.noor).exists())
        run_waiting()
        told = self.ok(self.thandi.enrolment.person, "GET", "/notices")["lines"]
        self.assertEqual([(one["what"], one["title"]) for one in told], [("page_together", "Storm")])
        self.assertTrue(told[0]["path"].endswith(f"/page/{self.page_in(self.thandi).pk}"))
        self.assertEqual(self.ok(self.josh.enrolment.person, "GET", "/notices")["lines"], [])

    def test_all_of_them_write_it_and_each_has_the_words(self) -> None:
        self.begin(self.thandi)
        self.write(self.josh, "A drum of tin.")
        self.write(self.thandi, "And rope.")
        found = self.open(self.josh)
        self.assertEqual(sorted(one["name"] for one in found["people"]), ["Josh E.", "Thandi D."])
        self.settle()
        for book in (self.josh, self.thandi):
            page = self.ok(book.enrolment.person, "GET", f"/pages/{self.page_in(book).pk}")
            self.assertEqual((page["text"], page["words"], page["together"]), ("A drum of tin.\nAnd rope.", 6, True))

    def test_nobody_else_and_the_staff_lead_it(self) -> None:
        self.begin(self.thandi)
        self.write(self.josh, "A drum of tin.")
        page = SharedPage.objects.get()
        self.problem(404, self.noor.enrolment.person, "GET", f"/shared/{page.pk}/written")
        path = f"/portfolios/{self.josh.pk}/pages/{self.page_in(self.josh).pk}/shared"
        self.problem(404, self.noor.enrolment.person, "POST", path)
        self.assertTrue(self.open(self.josh, by=self.plot.lead)["may_lead"])
        self.assertFalse(self.open(self.josh, by=self.plot.staff("opal", Role.OBSERVER))["may_lead"])
        self.ok(self.plot.lead, "DELETE", f"/shared/{page.pk}/open")
        self.assertIn("closed", self.open(self.thandi)["closed"])
        self.ok(self.plot.lead, "PUT", f"/shared/{page.pk}/question", {"question": "Why tin?"})
        taken = self.ok(self.plot.lead, "POST", f"/shared/{page.pk}/taken", {"place": 0, "words": "A drum of tin."})
        self.ok(self.plot.lead, "POST", f"/passages/{taken['id']}/restore")

    def test_each_calls_it_as_they_like_and_writes_it_on_the_page_only(self) -> None:
        self.begin(self.thandi)
        mine = self.page_in(self.thandi)
        body = {"title": "Our storm", "text": "", "version": 0}
        self.ok(self.thandi.enrolment.person, "PUT", f"/pages/{mine.pk}", body)
        self.assertEqual((self.page_in(self.thandi).title, self.page_in(self.josh).title), ("Our storm", "Storm"))
        said = self.problem(403, self.thandi.enrolment.person, "PUT", f"/pages/{mine.pk}", {**body, "text": "Mine."})
        self.assertIn("filled together", said["title"])

    def test_in_the_bin_of_one_it_stays_with_the_others_and_comes_back_with_the_words_of_by_then(self) -> None:
        self.begin(self.thandi)
        mine = self.page_in(self.thandi)
        self.ok(self.thandi.enrolment.person, "DELETE", f"/pages/{mine.pk}")
        self.write(self.josh, "A drum of tin.")
        self.settle()
        mine.refresh_from_db()
        self.assertIsNotNone(mine.removed_at)
        self.ok(self.thandi.enrolment.person, "POST", f"/pages/{mine.pk}/restore")
        self.assertEqual(self.ok(self.thandi.enrolment.person, "GET", f"/pages/{mine.pk}")["text"], "A drum of tin.")


class NotBegun(OwnCase):
    def test_only_where_the_staff_allow_it_and_what_is_there_stays(self) -> None:
        self.begin(self.thandi)
        self.allow(allowed=False)
        self.assertIn("nobody begins", self.begin(self.thandi, status=403)["title"])
        me = f"/portfolios/{self.josh.pk}"
        self.assertEqual(self.ok(self.josh.enrolment.person, "GET", f"{me}/classmates"), [])
        self.assertFalse(self.ok(self.josh.enrolment.person, "GET", me)["begins_together"])
        self.write(self.thandi, "Still here.")
        self.problem(
            403, self.josh.enrolment.person, "PUT", f"/groups/{self.plot.group.pk}/pages-together", {"allowed": True}
        )
        self.assertFalse(TeachingGroup.objects.get(pk=self.plot.group.pk).pages_together)

    def test_with_nobody_too_many_or_somebody_elsewhere(self) -> None:
        self.assertEqual(self.begin(status=422)["where"], "others")
        self.begin(self.josh, status=422)  # oneself alone
        many = [self.plot.student(f"s{number}", "Sam", f"Reyes {number}") for number in range(own.MOST_WITH + 1)]
        self.assertIn("13 classmates", self.begin(*many, status=422)["title"])
        self.begin(klass("9 Forge", "marsh").student("wren", "Wren", "Ito"), status=404)
        left = self.plot.student("lee", "Lee", "Moss", last=TODAY.replace(day=1))
        self.begin(left, status=404)
        self.assertEqual(self.begin(self.thandi, title="  ", status=422)["where"], "title")
        self.assertFalse(SharedPage.objects.exists() or LoosePage.objects.exists())

    def test_classmates_are_shown_as_students_see_each_other(self) -> None:
        found = self.ok(self.josh.enrolment.person, "GET", f"/portfolios/{self.josh.pk}/classmates")
        self.assertEqual([one["name"] for one in found], ["Noor A.", "Thandi D."])
        self.problem(404, self.noor.enrolment.person, "GET", f"/portfolios/{self.josh.pk}/classmates")
        self.problem(403, self.plot.lead, "GET", f"/portfolios/{self.josh.pk}/classmates")

    def test_a_page_of_ones_own_is_none_of_several(self) -> None:
        alone = self.ok(self.josh.enrolment.person, "POST", f"/portfolios/{self.josh.pk}/pages", {"title": "Alone"})
        self.problem(404, self.josh.enrolment.person, "POST", f"/portfolios/{self.josh.pk}/pages/{alone['id']}/shared")
        self.assertEqual((SharedUpdate.objects.count(), Notice.objects.count()), (0, 0))
