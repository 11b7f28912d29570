"""The scores together: read, weighed with what it would do said before, kept, undone, filtered, taken along."""

import re
from datetime import timedelta

from playwright.sync_api import Page, expect

from coatpeg.core.policy import Role
from coatpeg.marking.models import SheetRule
from tests import builders
from tests.browser.case import BrowserCase


class Sheet(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        card, menu = self.eight.pocket(), self.eight.pocket("Menu", artefacts=1)
        names = (("Ada", "P3"), ("Bea", "P3"), ("Cyr", "P4"))
        self.books = [self.eight.student(name.lower(), name, "Abel", period=period) for name, period in names]
        early = self.now - timedelta(days=20)
        self.handins = [
            self.eight.handin(one, title=one.title, due=self.day(-4), opens=self.day(-30), now=early, points=of)
            for one, of in ((card, 10), (menu, 20))
        ]
        for student, handin, score in ((0, 0, 8), (0, 1, 10), (1, 0, 5)):
            done = builders.hand_in(self.books[student], self.handins[handin], self.now, even_if_empty=True)
            builders.mark(self.eight.lead, done, self.now, score=score)
        builders.hand_in(self.books[1], self.handins[1], self.now, even_if_empty=True)
        self.base = f"/g/{self.eight.group.pk}"

    def totals(self, page: Page, *texts: str) -> None:
        cells = page.get_by_role("region", name="Scores").locator("tbody td:last-child")
        expect(cells).to_have_text(list(texts))

    def test_read_weighed_kept_and_undone_by_the_keyboard_alone(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Scores").press("Enter")
        expect(page.get_by_text("Totals of all points that are scored.")).to_be_visible()
        self.totals(page, "60.0 %", "50.0 %", "–")
        expect(page.get_by_role("img", name=re.compile("^Recipe card: 2 scores, .* median 65 %"))).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Weights").press("Enter")
        weight = page.get_by_label("Weight of Recipe card")
        weight.focus()
        page.keyboard.type("60")
        expect(page.get_by_text("1 total changes, by 12.5 %.")).to_be_visible()
        self.totals(page, "60.0 % → 72.5 %", "50.0 %", "–")
        page.get_by_label("Missing counts as 0").press("Space")
        expect(page.get_by_text("1 total changes, by 12.5 %.")).to_be_visible()
        self.totals(page, "60.0 % → 72.5 %", "50.0 %", "– → 0.0 %")
        self.no_violation(page)
        self.assertFalse(SheetRule.objects.exists())
        page.get_by_label("Of the best (empty: all)").fill("1")
        self.totals(page, "60.0 % → 80.0 %", "50.0 %", "– → 0.0 %")
        page.get_by_label("Of the best (empty: all)").press("Enter")
        expect(
            page.get_by_text(
                "Totals by weights. The best 1 count. Missing counts as 0. What is not marked is left out."
            )
        ).to_be_visible()
        self.totals(page, "80.0 %", "50.0 %", "0.0 %")
        expect(page.get_by_role("link", name="Menu: 10 of 20, not among what counts")).to_be_visible()
        page.get_by_role("button", name="Undo").press("Enter")
        expect(page.get_by_text("The weights are as they were.")).to_be_visible()
        self.totals(page, "60.0 %", "50.0 %", "–")

    def test_what_is_no_number_is_told_and_stays_typed(self) -> None:
        self.expected_complaints.append("422")
        page = self.page(self.eight.lead, f"{self.base}/pegs?as=scores")
        page.get_by_role("button", name="Weights").click()
        weight = page.get_by_label("Weight of Menu")
        weight.fill("half")
        expect(page.get_by_text("“half” is not a number. Give 0 or more, or leave it empty.")).to_be_visible()
        weight.fill("-1")
        expect(page.get_by_text("A weight of -1 cannot be meant. Give 0 to 1000.")).to_be_visible()
        page.get_by_role("button", name="Keep the weights").click()
        expect(weight).to_have_value("-1")
        page.get_by_role("button", name="Cancel").click()
        self.totals(page, "60.0 %", "50.0 %", "–")

    def test_two_who_weigh_at_once_are_told(self) -> None:
        self.expected_complaints.append("409")
        page = self.page(self.eight.lead, f"{self.base}/pegs?as=scores")
        page.get_by_role("button", name="Weights").click()
        page.get_by_label("Weight of Menu").fill("50")
        expect(page.get_by_text("1 total changes")).to_be_visible()
        other = self.page(self.eight.staff("co", Role.CO_TEACHER), f"{self.base}/pegs?as=scores")
        other.get_by_role("button", name="Weights").click()
        other.get_by_label("Of the best (empty: all)").fill("1")
        other.get_by_role("button", name="Keep the weights").click()
        expect(other.get_by_text("Totals of all points that are scored. The best 1 count.")).to_be_visible()
        # Also once the page has heard of it by itself.
        page.wait_for_timeout(4_000)
        page.get_by_role("button", name="Keep the weights").click()
        told = page.get_by_text("The weights were changed meanwhile.")
        expect(told).to_be_visible()
        expect(page.get_by_label("Weight of Menu")).to_have_value("50")
        page.get_by_label("Weight of Menu").fill("40")
        expect(told).to_have_count(0)
        page.get_by_role("button", name="Keep the weights").click()
        expect(page.get_by_text("Totals by weights.")).to_be_visible()
        self.assertEqual(SheetRule.objects.get().weights, {str(self.handins[1].pk): "40"})

    def test_the_filters_leave_students_and_hand_ins_out_and_what_is_shown_goes_along(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs?as=scores&period=P3&hide={self.handins[1].pk}")
        self.totals(page, "60.0 %", "50.0 %")
        expect(page.get_by_role("columnheader")).to_have_text(
            [re.compile("Student"), re.compile("Recipe card"), re.compile("Total")]
        )
        page.get_by_role("button", name="Take these pegs along").click()
        with page.expect_download() as found:
            page.get_by_role("menuitem", name=re.compile("CSV")).click()
        text = found.value.path().read_text("utf-8-sig")
        self.assertEqual(
            text.splitlines(),
            [
                'Family name,Given name,Period,Recipe card (of 10),"Total, %"',
                "Abel,Ada,P3,8.0,60.0",
                "Abel,Bea,P3,5.0,50.0",
            ],
        )

    def test_the_scores_go_on_paper_as_they_are_shown(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs?as=scores&period=P3")
        self.totals(page, "60.0 %", "50.0 %")
        page.evaluate("window.print = () => { document.title = 'printing'; }")
        page.get_by_role("button", name="Take these pegs along").click()
        page.get_by_role("menuitem", name="Print").click()
        page.wait_for_function("document.title === 'printing'")
        (sheet,) = self.printed(page)
        self.assertIn("8Plot·Growing&Cooking·P3·", sheet)
        self.assertTrue("Total" in sheet and "60.0%" in sheet and "50.0%" in sheet and "of10" in sheet)
        self.assertTrue("notmarkedyet" in sheet and "Portfoliofilled" not in sheet)

    def test_what_waits_leads_to_the_desk_and_who_only_reads_weighs_nothing(self) -> None:
        observer = self.page(self.eight.staff("marsh", Role.MARKER), f"{self.base}/pegs?as=scores")
        expect(observer.get_by_text("Totals of all points that are scored.")).to_be_visible()
        expect(observer.get_by_role("button", name="Weights")).to_have_count(0)
        observer.get_by_role("link", name="Menu: not marked yet").click()
        expect(observer.get_by_role("heading", name="Abel, Bea")).to_be_visible()
        observer.get_by_label("Score").fill("20")
        observer.get_by_role("button", name=re.compile("^Accept and next")).click()
        expect(observer.get_by_text("The pile is empty")).to_be_visible()
        observer.go_back()
        self.totals(observer, "60.0 %", "83.3 %", "–")

    def test_a_class_without_points_says_what_to_do(self) -> None:
        nine = builders.klass("9 Forge", "forge")
        nine.student("sam", "Sam", "Reyes")
        nine.handin(nine.pocket(), points=None)
        page = self.page(nine.lead, f"/g/{nine.group.pk}/pegs?as=scores")
        expect(page.get_by_text("Nothing here has points yet.")).to_be_visible()
