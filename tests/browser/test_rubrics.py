"""A rubric: set with a hand-in, read by its students, judged by with the digits, seen lit when it is released."""

from __future__ import annotations

from playwright.sync_api import expect

from coatpeg.handins.models import HandIn
from coatpeg.marking.models import DraftMark, ReleasedMark
from tests import builders
from tests.browser.case import PHONE, BrowserCase


class Rubrics(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")
        self.task = self.eight.handin(self.card, opens=self.day(-9), due=self.day(3), now=self.now)
        self.base = f"/g/{self.eight.group.pk}"

    def test_set_read_judged_and_seen_lit(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("link", name="Change Recipe card").click()
        page.get_by_role("button", name="Add a rubric").click()
        levels = page.get_by_role("group", name="Levels")
        levels.get_by_role("button", name="Take away level 2").click()
        levels.get_by_label("Level 2", exact=True).fill("nearly")
        criteria = page.get_by_role("group", name="Criteria")
        criteria.get_by_label("Criterion 1", exact=True).fill("Scaling")
        criteria.get_by_label("Weight of criterion 1").fill("3")
        criteria.get_by_role("textbox", name="fully").first.fill("Every amount fits")
        criteria.get_by_role("button", name="Criterion", exact=True).click()
        self.expected_complaints.append("422")
        expect(page.get_by_text("The name of criterion 2 is missing")).to_be_visible()
        criteria.get_by_label("Criterion 2", exact=True).fill("Costing")
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Recipe card” is changed.")).to_be_visible()
        self.assertEqual(
            [one["title"] for one in HandIn.objects.get().rubric["levels"]], ["not yet", "nearly", "fully"]
        )

        path = f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}"
        student = self.page(self.thandi.enrolment.person, path, PHONE)
        student.get_by_text("Rubric: what it is judged by").click()
        expect(student.get_by_text("Every amount fits")).to_be_visible()
        self.no_violation(student)
        self.fits(student)

        for one in (self.thandi, self.josh):
            builders.fill(one, self.card, self.now)
            builders.fill(one, self.card, self.now)
            builders.hand_in(one, self.task, self.now)
        page.goto(f"{self.live_server_url}{self.base}/pile")
        rubric = page.get_by_role("region", name="Rubric")
        expect(rubric.get_by_role("status")).to_have_text("2 criteria open")
        rubric.get_by_role("group", name="Scaling").get_by_role("radio").first.focus()
        page.keyboard.press("3")
        expect(rubric.get_by_role("status")).to_have_text("1 criterion open")
        self.expected_complaints.append("422")
        page.keyboard.press("Control+Enter")
        expect(page.get_by_text("No level is chosen for Costing.")).to_be_visible()
        rubric.get_by_role("group", name="Costing").get_by_role("radio").first.focus()
        page.keyboard.press("2")
        # 30 × (3×3 + 1×2) ÷ (3×3 + 1×3) = 27.5, half up to 28: worked by hand; the points left are 0, 2 and 3.
        expect(rubric.get_by_role("status")).to_have_text("28 of 30")
        self.no_violation(page)
        page.reload()
        expect(rubric.get_by_role("group", name="Scaling").get_by_role("radio", name="fully")).to_be_checked()
        expect(rubric.get_by_role("status")).to_have_text("28 of 30")
        page.keyboard.press("Control+Enter")
        expect(page.get_by_text("Recipe card: accepted.")).to_be_visible()
        mark = ReleasedMark.objects.get()
        self.assertEqual((mark.score, len(mark.levels)), (28, 2))
        student.goto(f"{self.live_server_url}{self.base}/feedback")
        card = student.get_by_role("region", name="Feedback")
        expect(card).to_contain_text("28")
        expect(card.get_by_text("reached", exact=True)).to_have_count(2)
        self.no_violation(student)
        self.fits(student)
        # The list shows the score of a rubric; it is not typed there.
        page.goto(f"{self.live_server_url}{self.base}/pegs?as=list")
        expect(page.get_by_role("link", name="Mark Recipe card of Ellery, Josh")).to_be_visible()
        expect(page.get_by_role("textbox", name="Score of")).to_have_count(0)
        self.assertEqual(DraftMark.objects.exclude(submission__enrolment=self.thandi.enrolment).count(), 0)
        # Where nothing is typed the digits go to one open criterion after the other: three keys for all of it.
        page.goto(f"{self.live_server_url}{self.base}/pile")
        expect(rubric.get_by_role("status")).to_have_text("2 criteria open")
        for key in ("3", "2", "Control+Enter"):
            page.keyboard.press(key)
        expect(page.get_by_text("Ellery, Josh, Recipe card: accepted.")).to_be_visible()
        self.assertEqual(ReleasedMark.objects.latest("pk").score, 28)

    def test_out_of_a_table_and_as_one_of_the_gallery(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("link", name="Change Recipe card").click()
        page.get_by_role("button", name="From a table").click()
        table = page.get_by_label("Cells of a spreadsheet, or a CSV file")
        table.fill("nothing of it")
        self.expected_complaints.append("422")
        page.get_by_role("button", name="Take it over").click()
        expect(page.get_by_text("There is no table in this yet.")).to_be_visible()
        expect(table).to_have_value("nothing of it")
        table.fill("Criterion\tWeight\tnot yet (0)\tfully (3)\nScaling\t2\tno\tyes\nCosting\t1\tno\tyes")
        self.no_violation(page)
        page.get_by_role("button", name="Take it over").click()
        levels = page.get_by_role("group", name="Levels")
        expect(levels.get_by_label("Level 2", exact=True)).to_have_value("fully")
        expect(levels.get_by_label("Points of level 2")).to_have_value("3")
        criteria = page.get_by_role("group", name="Criteria")
        expect(criteria.get_by_label("Criterion 2", exact=True)).to_have_value("Costing")
        page.get_by_role("button", name="Take the rubric away").click()
        page.get_by_label("Like another one").select_option(label="An experiment (gallery)")
        expect(criteria.get_by_label("Criterion 1", exact=True)).to_have_value("Plan")
