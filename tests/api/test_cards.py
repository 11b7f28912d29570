"""Sign-in cards: printed, read back by an independent decoder, signing in, void."""

import gc
import re
import tempfile
from datetime import timedelta
from pathlib import Path
from unittest import mock

import pypdfium2
import zxingcpp
from django.conf import settings
from django.test import Client
from weasyprint.text import fonts

from coatpeg.core.people.pegs import PICTURES
from coatpeg.events.models import Event
from coatpeg.people.models import Enrolment, SignInCard
from coatpeg.setup.roster import paper
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class Cards(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.thandi = self.plot.student("thandi")
        self.path = f"/groups/{self.plot.group.pk}/cards"

    def printed(self, *enrolments: int) -> bytes:
        response = self.call(self.plot.lead, "POST", self.path, {"students": list(enrolments)})
        self.assertEqual(
            (response.status_code, response["Content-Type"], response["Cache-Control"]),
            (200, "application/pdf", "no-store"),
        )
        return response.content

    def codes(self, pdf: bytes) -> list[list[str]]:
        """The codes on each page, as zxing-cpp reads them (a decoder of its own: segno wrote them)."""
        document = pypdfium2.PdfDocument(pdf)
        try:
            return [[one.text for one in zxingcpp.read_barcodes(page.render(scale=3).to_pil())] for page in document]
        finally:
            document.close()

    def enter(self, secret: str) -> Client | None:
        client = Client()
        response = client.post("/api/session/card", {"secret": secret}, content_type="application/json")
        return client if response.status_code == 200 else None

    def test_printing_leaves_nothing_behind(self) -> None:
        with tempfile.TemporaryDirectory() as folder, mock.patch("tempfile.tempdir", folder):
            made = []
            kept = fonts.mkdtemp
            with mock.patch.object(fonts, "mkdtemp", side_effect=lambda **of: made.append(kept(**of)) or made[-1]):
                gc.disable()
                self.addCleanup(gc.enable)
                self.printed(self.thandi.enrolment_id)
            self.assertTrue(made, "the printer keeps its fonts in a folder")
            self.assertEqual(list(Path(folder).iterdir()), [])

    def test_a_card_is_read_back_and_signs_its_student_in(self) -> None:
        ((link,),) = self.codes(self.printed(self.thandi.enrolment_id))
        address, secret = link.split("#")
        self.assertEqual(address, "http://testserver/card")
        client = self.enter(secret)
        session = client.get("/api/session").json()
        self.assertEqual(session["person"]["full_name"], "Thandi Dube")
        self.assertTrue(client.get(f"/api/portfolios/{self.thandi.pk}").json()["mine"])
        self.assertEqual(client.session.get_expiry_age(modification=NOW), 10 * 3600, "a class device is passed on")
        kept = SignInCard.objects.get()
        self.assertNotIn(
            secret, (kept.sha256, str(Event.objects.get(verb="card_made").data)), "the secret is kept nowhere"
        )

    def test_eight_to_a_page_with_awkward_names(self) -> None:
        names = (
            ("山田", "太郎"),
            ("<b>Bobby</b>", "&Co"),
            ("", "Sukarni"),
            ("Wolfeschlegelsteinhausenbergerdorff" * 2, "Hubert"),
        )
        ids = [self.plot.student(f"s{number}", *reversed(names[number % 4])).enrolment_id for number in range(8)]
        pages = self.codes(self.printed(self.thandi.enrolment_id, *ids))
        self.assertEqual([len(page) for page in pages], [8, 1])
        self.assertEqual(len({code for page in pages for code in page}), 9)

    def test_a_new_card_makes_the_old_one_void_and_one_click_makes_both_void(self) -> None:
        first, second = (self.codes(self.printed(self.thandi.enrolment_id))[0][0].split("#")[1] for _ in range(2))
        self.assertIsNone(self.enter(first))
        self.assertIsNotNone(self.enter(second))
        listed = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/roster")["students"][0]
        self.assertEqual(listed["card"], "2026-11-04T10:00:00Z")
        self.ok(self.plot.lead, "POST", f"{self.path}/void", {"students": [self.thandi.enrolment_id]})
        self.assertIsNone(self.enter(second))
        self.assertIsNone(self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/roster")["students"][0]["card"])

    def test_an_unknown_card_says_what_to_do_and_a_closed_account_stays_closed(self) -> None:
        problem = self.problem(403, None, "POST", "/session/card", {"secret": "guess"})
        self.assertIn("no longer works", problem["title"])
        self.problem(422, None, "POST", "/session/card", {"secret": "x" * 200})
        secret = self.codes(self.printed(self.thandi.enrolment_id))[0][0].split("#")[1]
        person = self.thandi.enrolment.person
        person.is_active = False
        person.save()
        self.assertIsNone(self.enter(secret))

    def test_only_students_of_the_class_and_not_too_many_at_once(self) -> None:
        other = klass("9 Forge", "marsh").student("lee", "Lee", "Moss")
        self.problem(404, self.plot.lead, "POST", self.path, {"students": [other.enrolment_id]})
        self.problem(422, self.plot.lead, "POST", self.path, {"students": []})
        self.problem(422, self.plot.lead, "POST", self.path, {"students": list(range(paper.MOST_CARDS + 1))})
        self.assertFalse(SignInCard.objects.exists())

    def test_a_new_password_stands_on_the_card_where_it_is_wished_and_nowhere_else(self) -> None:
        student = self.thandi.enrolment.person
        old = student.password
        body = {"students": [self.thandi.enrolment_id], "passwords": True}
        response = self.call(self.plot.lead, "POST", self.path, body)
        self.assertEqual(response.status_code, 200)
        document = pypdfium2.PdfDocument(response.content)
        lines = document[0].get_textpage().get_text_range().replace("\ufffe", "-").split()
        document.close()
        at = lines.index("password")
        student.refresh_from_db()
        self.assertNotEqual(student.password, old)
        self.assertTrue(student.check_password(lines[at - 1]), lines)
        self.assertNotIn(lines[at - 1], str(list(Event.objects.values_list("data", flat=True))))
        self.assertTrue(Event.objects.filter(verb="password_given", enrolment_id=self.thandi.enrolment_id).exists())
        self.printed(self.thandi.enrolment_id)
        student.refresh_from_db()
        self.assertTrue(student.check_password(lines[at - 1]), "a card without a password leaves it as it was")

    def test_of_a_student_whom_others_lead_too_no_password_is_printed_and_nothing_is_void(self) -> None:
        secret = self.codes(self.printed(self.thandi.enrolment_id))[0][0].split("#")[1]
        forge = klass("9 Forge", "marsh")
        Enrolment.objects.create(
            group=forge.group, person=self.thandi.enrolment.person, first=forge.group.first, picture="leaf"
        )
        body = {"students": [self.thandi.enrolment_id], "passwords": True}
        told = self.problem(403, self.plot.lead, "POST", self.path, body)
        self.assertIn("Thandi Dube", told["title"])
        self.assertIsNotNone(self.enter(secret))

    def test_a_card_ends_with_the_school_day(self) -> None:
        secret = self.codes(self.printed(self.thandi.enrolment_id))[0][0].split("#")[1]
        client = self.enter(secret)
        with self.at(NOW + timedelta(hours=11)):
            self.assertIsNone(client.get("/api/session").json()["person"])


class OnPaper(ApiCase):
    def test_every_peg_picture_has_its_shape(self) -> None:
        self.assertEqual(set(paper.SHAPES), set(PICTURES))
        self.assertTrue(
            all(
                re.fullmatch(r"(<(path|circle|line|rect|ellipse|polyline|polygon) [^<>]*/>)+", one)
                for one in paper.SHAPES.values()
            )
        )

    def test_the_tints_are_the_interfaces(self) -> None:
        theme = (settings.BASE_DIR / "frontend/src/ui/theme.css").read_text()
        for number, (ground, ink) in enumerate(paper.TINTS):
            self.assertIn(f"--color-tint-{number}: {ground};", theme)
            self.assertIn(f"--color-tint-{number}-ink: {ink};", theme)
