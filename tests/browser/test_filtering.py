"""Which pegs are shown: filters that combine, kept under a name, and a board wider than the window."""

import re

from playwright.sync_api import Page, Route, expect

from coatpeg.core.policy import Role
from coatpeg.outlines.models import Pocket, Section
from coatpeg.people.models import GroupMember
from tests import builders
from tests.browser.case import BrowserCase, undo


class Filtering(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card, self.kitchen = self.eight.pocket(), self.eight.pocket("Menu")
        kitchen = Section.objects.create(template=self.eight.template, title="Along the way", position=5)
        Pocket.objects.filter(pk=self.kitchen.pk).update(section=kitchen)
        self.thandi = self.eight.student("thandi", period="P3")
        self.josh = self.eight.student(None, "Josh", "Ellery", period="P3")
        self.eight.student(None, "Ana", "de Souza", period="P4")
        self.first = self.eight.handin(
            self.card, title="Recipe card", due=self.day(3), opens=self.day(-9), now=self.now
        )
        self.eight.handin(self.kitchen, title="Menu", due=self.day(30), opens=self.day(-9), now=self.now)
        builders.fill(self.thandi, self.card, self.now)
        builders.mark(self.eight.lead, builders.hand_in(self.thandi, self.first, self.now), self.now)
        self.path = f"/g/{self.eight.group.pk}/pegs"

    def names(self, page: Page, *names: str) -> None:
        expect(page.get_by_role("rowheader")).to_have_text(names)

    def test_by_group_they_stand_together_and_the_groups_beside_them(self) -> None:
        for name, of in (("Sound", self.thandi), ("Light", self.josh)):
            GroupMember.objects.create(
                workinggroup=builders.working_group(self.eight.group, name), enrolment=of.enrolment
            )
        page = self.page(self.eight.lead, self.path)
        page.get_by_role("button", name="Order of the students: by surname").click()
        page.get_by_role("option", name="by group, then surname").click()
        # Who is in no group comes last.
        self.names(page, "Ellery, Josh", "Dube, Thandi", "de Souza, Ana")
        expect(page.get_by_role("columnheader", name="Group", exact=True)).to_be_visible()
        expect(page.get_by_role("gridcell", name="Light", exact=True)).to_be_visible()
        self.no_violation(page)
        page.reload()
        self.names(page, "Ellery, Josh", "Dube, Thandi", "de Souza, Ana")

    def test_words_find_names_then_titles_then_both(self) -> None:
        page = self.page(self.eight.lead, self.path)
        find = page.get_by_label("Find a student or hand-in")
        heads = page.get_by_role("columnheader").filter(has=page.get_by_role("button"))

        def shown(*titles: str) -> None:
            for title in ("Recipe card", "Menu"):
                expect(heads.filter(has_text=title)).to_have_count(int(title in titles))

        find.fill("dube")
        self.names(page, "Dube, Thandi")
        shown("Recipe card", "Menu")
        find.fill("RÉCIPE")
        self.names(page, "de Souza, Ana", "Dube, Thandi", "Ellery, Josh")
        shown("Recipe card")
        # What is found by its title alone combines with the other filters.
        page.get_by_role("button", name="Not handed in").click()
        self.names(page, "de Souza, Ana", "Ellery, Josh")
        page.get_by_role("button", name="All periods").click()
        expect(page.get_by_role("option", name="P3")).to_have_text("P31")
        page.keyboard.press("Escape")
        find.fill("thandi menu")
        self.names(page, "Dube, Thandi")
        shown("Menu")
        expect(page.get_by_text("The filters rest while you search.")).to_be_visible()
        page.reload()
        self.names(page, "Dube, Thandi")
        shown("Menu")
        find.fill("thandi menu nowhere")
        expect(page.get_by_text("No student fits these filters")).to_be_visible()

    def test_combined_kept_shared_opened_again_and_dropped(self) -> None:
        page = self.page(self.eight.lead, self.path)
        self.names(page, "de Souza, Ana", "Dube, Thandi", "Ellery, Josh")
        page.get_by_role("button", name="More filters").click()
        more = page.get_by_role("dialog").or_(page.locator("[id^=headlessui-popover-panel]"))
        more.get_by_label("Along the way").click()
        expect(page.get_by_role("columnheader", name="Recipe card")).to_have_count(0)
        expect(page.get_by_role("columnheader", name="Menu")).to_be_visible()
        more.get_by_label("Along the way").click()
        more.get_by_text(re.compile("^One by one")).click()
        more.get_by_label("Menu", exact=True).click()
        expect(page.get_by_role("columnheader", name="Menu")).to_have_count(0)
        expect(page.get_by_role("columnheader", name="Recipe card")).to_be_visible()
        more.get_by_label("Menu", exact=True).click()
        more.get_by_label("Accepted").click()
        self.names(page, "Dube, Thandi")
        self.no_violation(page, "fieldset")
        more.get_by_role("button", name="Done").click()
        page.get_by_role("button", name="Kept filters").click()
        page.get_by_role("button", name="Keep what is shown").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("button", name="Keep it").click()
        self.expected_complaints.append("422")
        expect(dialog).to_contain_text("The filter has no name.")
        dialog.get_by_role("textbox", name="Name").fill("Done already")
        dialog.get_by_label("Share it").check()
        dialog.get_by_role("button", name="Keep it").click()
        expect(page.get_by_text("“Done already” is kept.")).to_be_visible()
        page.reload()
        self.names(page, "Dube, Thandi")

        other = self.page(self.eight.staff("marsh", Role.CO_TEACHER), self.path)
        self.names(other, "de Souza, Ana", "Dube, Thandi", "Ellery, Josh")
        other.get_by_role("button", name="Kept filters").click()
        shared = other.get_by_role("button", name="Done already")
        expect(shared).to_contain_text("by R. Okafor")
        expect(shared).to_contain_text("1 student")
        expect(other.get_by_role("button", name="Drop “Done already”")).to_have_count(0)
        shared.click()
        self.names(other, "Dube, Thandi")
        other.go_back()
        self.names(other, "de Souza, Ana", "Dube, Thandi", "Ellery, Josh")

        page.get_by_role("button", name="Kept filters").click()
        page.get_by_role("button", name="Drop “Done already”").click()
        undo(page)
        expect(page.get_by_text("“Done already” is kept again.")).to_be_visible()

    def test_what_keeps_a_filter_stays_under_the_hand_when_the_kept_ones_come(self) -> None:
        page = self.page(self.eight.lead, f"{self.path}?show=overdue")
        expect(page.get_by_role("grid")).to_be_visible()
        held: list[Route] = []
        page.route("**/api/groups/*/filters", lambda route: held.append(route))
        page.get_by_role("button", name="Kept filters").click()
        keep = page.get_by_role("button", name="Keep what is shown")
        before = keep.bounding_box()
        held[0].continue_()
        expect(page.get_by_text("Filters that you keep stand here")).to_be_visible()
        self.assertEqual(keep.bounding_box(), before)
        page.unroute_all()

    def test_an_address_that_names_what_is_gone_says_so_and_loses_nothing_else(self) -> None:
        page = self.page(self.eight.lead, f"{self.path}?section=The+attic&period=P3&show=x,accepted&quiet=-1&week=yes")
        self.names(page, "Dube, Thandi")
        expect(page.get_by_text("no longer here: The attic.")).to_be_visible()
        page.get_by_role("button", name="Leave it out").click()
        expect(page.get_by_text("The attic")).to_have_count(0)
        self.names(page, "Dube, Thandi")

    def test_the_sums_follow_what_is_shown(self) -> None:
        page = self.page(self.eight.lead, self.path)
        expect(page.get_by_text("3 students shown")).to_be_visible()
        self.assertIn("1/3", page.get_by_text("3 students shown").locator("..").inner_text())
        page.get_by_role("button", name="All periods").click()
        page.get_by_role("option", name="P3").click()
        self.assertIn("1/2", page.get_by_text("2 students shown").locator("..").inner_text())
        expect(page.get_by_role("row", name="Dube, Thandi").get_by_text("1/2")).to_be_visible()

    def test_by_one_key_the_pegs_show_points_days_late_and_how_much_is_there(self) -> None:
        page = self.page(self.eight.lead, self.path)
        thandi = page.get_by_role("row", name="Dube, Thandi").locator("[data-cell]").first
        expect(thandi).to_have_accessible_name(re.compile("^Dube, Thandi, Recipe card: accepted"))
        page.keyboard.press("v")
        expect(thandi).to_have_text("20")
        expect(thandi).to_have_accessible_name(re.compile("^Dube, Thandi, Recipe card: accepted.*; 20$"))
        expect(page.get_by_text("The points that are released.")).to_be_visible()
        self.no_violation(page)
        page.keyboard.press("v")
        expect(thandi).to_have_text("·")
        page.get_by_role("button", name="On the pegs: days late").click()
        page.get_by_role("option", name="filled").click()
        expect(thandi).to_have_text("50%")
        page.reload()
        expect(thandi).to_have_text("50%")
        page.keyboard.press("v")
        expect(page.get_by_role("list", name="What the coats mean")).to_be_visible()

    def test_a_board_wider_than_the_window_by_keys(self) -> None:
        for number in range(28):
            self.eight.handin(self.card, title=f"Week {number + 1:02}", due=self.day(31 + number), now=self.now)
        page = self.page(self.eight.lead, self.path)
        expect(page.get_by_role("grid")).to_have_attribute("aria-colcount", "35")
        self.assertLess(page.locator("[role=columnheader]").count(), 30, "what is not in view is not drawn")
        page.locator("[data-cell='0 0']").focus()
        page.keyboard.press("End")
        expect(page.locator("[data-cell='0 29']")).to_be_focused()
        expect(page.locator("[data-cell='0 29']")).to_have_accessible_name("de Souza, Ana, Week 28: nothing yet")
        page.keyboard.press("ArrowDown")
        expect(page.locator("[data-cell='1 29']")).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_role("complementary", name="The chosen peg")).to_contain_text("Week 28")
        # The board is narrower now, and the peg is still in view and under the keyboard.
        expect(page.locator("[data-cell='1 29']")).to_be_focused()
        page.keyboard.press("Escape")
        expect(page.locator("[data-cell='1 29']")).to_be_focused()
        # Also where the peg has not been drawn for a while: looked at what lies elsewhere, and back.
        scroller = page.get_by_role("grid").locator("..")
        scroller.evaluate("one => one.scrollTo({ left: 0 })")
        expect(page.locator("[data-cell='1 29']")).to_have_count(0)
        scroller.evaluate("one => one.scrollTo({ left: one.scrollWidth })")
        expect(page.locator("[data-cell='1 29']")).to_be_focused()
        page.keyboard.press("Home")
        expect(page.locator("[data-cell='1 0']")).to_be_focused()
        self.no_violation(page)
