"""Judging fairly: what being late takes, another score with a reason, levels that are ranges, a student's own eye."""

from __future__ import annotations

import re
from datetime import timedelta

from playwright.sync_api import expect

from coatpeg.handins.models import HandIn
from coatpeg.marking.models import LateRuling, ReleasedMark
from tests import builders
from tests.browser.case import BrowserCase

RUBRIC = {
    "levels": [
        {"key": "n", "title": "not yet", "points": 4, "low": 0},
        {"key": "f", "title": "fully", "points": 10, "low": 5},
    ],
    "criteria": [{"key": "care", "title": "Care", "weight": 1, "says": ["", "every step"]}],
    "halves": False,
    "by_student": True,
}


class Judging(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.pocket = self.eight.pocket("Soil", "page")
        self.book = self.eight.student("s0", "Kim", "Dube")

    def test_the_school_takes_for_being_late_and_the_marker_decides_against_it_with_a_reason(self) -> None:
        admin = builders.person("bright", administrator=True)
        page = self.page(admin, "/school?part=late")
        expect(page.get_by_text("Nothing is taken from a score")).to_be_visible()
        page.get_by_label("Take for being late").check()
        page.get_by_label("For each school day late").fill("10,0")
        page.get_by_label("What is left at least").fill("half")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("“half” is not a number of per cent.")).to_be_visible()
        page.get_by_label("What is left at least").fill("50")
        expect(page.get_by_text("Of 20 points earned, 14 are left 3 school days late.")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("The late rule is set.")).to_be_visible()
        self.assertEqual(LateRuling.objects.get().floor, 50)

        self.expected_complaints.append("422.*/accept")
        handin = self.eight.handin(self.pocket, title="Soil", points=20, due=self.today - timedelta(days=30))
        late = builders.hand_in(self.book, handin, self.now, even_if_empty=True)
        desk = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile/{late.pk}")
        desk.get_by_label("Score of 20 points").fill("16")
        expect(desk.get_by_text(re.compile("of 16 earned, 8 go out"))).to_be_visible()
        desk.get_by_text("Give another score").click()
        desk.get_by_label(re.compile("Your score")).fill("12")
        desk.get_by_role("button", name="Accept and next").click()
        expect(desk.get_by_text("Another score than the rule makes needs a reason.")).to_be_visible()
        desk.get_by_label("Reason").fill("Ill for two weeks.")
        desk.get_by_role("button", name="Accept and next").click()
        expect(desk.get_by_text("accepted.")).to_be_visible()
        mark = ReleasedMark.objects.get()
        self.assertEqual((mark.score, mark.earned, mark.why), (12, 16, "Ill for two weeks."))
        student = self.page(self.book.enrolment.person, f"/g/{self.eight.group.pk}/feedback")
        expect(student.get_by_text("By the rule 16. Another score was given: Ill for two weeks.")).to_be_visible()

    def test_a_student_says_how_far_it_is_and_sees_it_beside_what_the_teacher_found(self) -> None:
        self.expected_complaints.append("422.*/submissions")
        handin = self.eight.handin(self.pocket, title="Soil", points=20, due=self.today + timedelta(days=3))
        HandIn.objects.filter(pk=handin.pk).update(rubric=RUBRIC)
        student = self.page(
            self.book.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.book.pk}/{self.pocket.pk}"
        )
        student.get_by_text("How far is it, by your own eye?").click()
        student.get_by_role("radio", name=re.compile("fully")).check()
        student.reload()
        expect(student.get_by_role("radio", name=re.compile("fully"))).to_be_checked()
        self.no_violation(student)
        student.get_by_role("button", name="Hand in").click()
        student.get_by_role("button", name="Hand in anyway").click()
        expect(student.get_by_role("link", name="Receipt as PDF")).to_be_visible()
        desk = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile")
        expect(desk.get_by_text("Kim’s own")).to_be_visible()
        desk.get_by_role("radio", name=re.compile("not yet")).check()
        exact = desk.get_by_label("Points (0 to 4)")
        exact.fill("7")
        expect(exact).to_have_attribute("aria-invalid", "true")
        exact.fill("2,5")
        expect(exact).not_to_have_attribute("aria-invalid", "true")
        expect(desk.get_by_text("5 of 20")).to_be_visible()
        self.no_violation(desk)
        desk.keyboard.press("Control+Enter")
        expect(desk.get_by_text("accepted.")).to_be_visible()
        student.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/feedback")
        expect(student.get_by_text("not yet: 2.5 points")).to_be_visible()
        expect(student.get_by_text("your own")).to_be_visible()
        self.no_violation(student)
