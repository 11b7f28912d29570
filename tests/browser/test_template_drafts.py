"""Several changes of a template before anybody sees one of them: looked at, saved at once, undone at once."""

from __future__ import annotations

import re

from playwright.sync_api import Page, Route, expect

from coatpeg.core.policy import Role
from coatpeg.outlines.models import Pocket, Section
from tests import builders
from tests.browser.case import PHONE, BrowserCase, undo


class TemplateDrafts(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.about = self.eight.pocket("About me", "page")
        self.thandi = self.eight.student("thandi")
        self.path = f"/g/{self.eight.group.pk}/template"

    def open(self, path: str = "") -> Page:
        page = self.page(self.eight.lead, f"{self.path}{path}")
        self.outline = page.get_by_role("navigation", name="Outline of the template")
        self.told = page.get_by_label("What saving means")
        self.save = page.get_by_role("button", name="Save for everyone")
        return page

    def add(self, page: Page, section: str, line: str) -> None:
        page.get_by_role("button", name=f"Add a pocket to {section}").click()
        page.get_by_label(f"New pocket in {section}").fill(line)
        page.keyboard.press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value(line.split(":")[0])

    def test_what_saving_means_does_not_cover_the_field_that_is_typed_in(self) -> None:
        page = self.open(f"?pocket={self.card.pk}")
        field = page.get_by_label("artefacts", exact=True)
        field.evaluate("(one) => one.scrollIntoView({ block: 'end' })")
        field.focus()
        page.keyboard.press("ArrowUp")
        expect(self.told).to_contain_text("at once")
        expect(field).to_be_in_viewport(ratio=1)

    def test_changes_gather_over_pockets_and_a_reload_and_go_to_everybody_at_once(self) -> None:
        student = self.page(self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}", PHONE)
        expect(student.get_by_role("link", name="About me")).to_be_visible()
        page = self.open(f"?pocket={self.card.pk}")
        page.get_by_label("artefacts", exact=True).fill("3")
        self.outline.get_by_role("button", name=re.compile("^About me")).click()
        expect(page.get_by_label("Name of the pocket")).to_have_value("About me")
        page.get_by_label("Prompt").fill("Who are you?")
        self.add(page, "The kitchen", "Menu: page")
        page.get_by_label("Prompt").fill("What did you cook?")
        expect(self.told).to_contain_text("3 changes that nobody sees yet.")
        expect(self.told).to_contain_text("adds 1 pocket, changes 2 pockets in 1 portfolio at once.")
        self.no_violation(page)
        page.wait_for_timeout(400)
        page.reload()
        expect(page.get_by_text("3 changes of the template that you had not saved are back.")).to_be_visible()
        expect(page.get_by_label("Prompt")).to_have_value("What did you cook?")
        expect(student.get_by_role("link", name="Menu")).to_have_count(0)
        self.assertEqual(Pocket.objects.get(pk=self.card.pk).artefacts, 2)
        page.get_by_role("button", name="See the changes").click()
        expect(page.get_by_text("“Menu” is added")).to_be_visible()
        self.no_violation(page)
        self.save.click()
        expect(page.get_by_text("3 changes are saved in 1 portfolio.")).to_be_visible()
        menu = Pocket.objects.get(title="Menu")
        self.assertEqual(menu.prompt, "What did you cook?")
        expect(page).to_have_url(re.compile(f"pocket={menu.pk}$"))
        expect(page.get_by_label("Prompt")).to_have_value("What did you cook?")
        expect(self.told).to_have_count(0)
        expect(self.save).to_be_disabled()
        expect(student.get_by_role("link", name="Menu")).to_be_visible(timeout=8_000)
        undo(page)
        expect(page.get_by_text("Undone.")).to_be_visible()
        expect(self.outline.get_by_role("button", name=re.compile("^Menu"))).to_have_count(0)
        self.assertEqual(Pocket.objects.get(pk=self.card.pk).artefacts, 2)
        expect(student.get_by_role("link", name="Menu")).to_have_count(0, timeout=8_000)

    def test_thrown_away_and_fetched_back_and_a_single_one_left_out(self) -> None:
        page = self.open(f"?pocket={self.about.pk}")
        page.get_by_label("Name of the pocket").fill("All about me")
        self.outline.get_by_label("Name of the section The kitchen").fill("Cooking")
        page.keyboard.press("Enter")
        expect(self.outline.get_by_role("button", name=re.compile("^All about me"))).to_be_visible()
        page.get_by_role("button", name="Throw away").click()
        expect(page.get_by_label("Name of the pocket")).to_have_value("About me")
        expect(self.outline.get_by_label("Name of the section The kitchen")).to_be_visible()
        undo(page)
        expect(page.get_by_label("Name of the pocket")).to_have_value("All about me")
        page.get_by_role("button", name="See the changes").click()
        page.get_by_role("button", name="Leave this change out: “About me” asks").click()
        expect(page.get_by_label("Name of the pocket")).to_have_value("About me")
        self.save.click()
        expect(page.get_by_text("1 change is saved in 1 portfolio.")).to_be_visible()
        self.assertEqual(Section.objects.get(template=self.eight.template).title, "Cooking")
        self.assertEqual(Pocket.objects.get(pk=self.about.pk).title, "About me")

    def test_what_is_still_asked_about_is_thrown_away_too_and_takes_nothing_that_is_typed(self) -> None:
        page = self.open(f"?pocket={self.about.pk}")
        held: list[Route] = []
        section = self.outline.get_by_label("Name of the section The kitchen")

        holding: list[bool] = []
        page.route("**/template/draft/look", lambda route: held.append(route) if holding else route.continue_())

        def rename() -> None:
            holding.append(True)
            section.fill("Cooking")
            page.keyboard.press("Enter")
            page.wait_for_timeout(100)
            self.assertTrue(held, "the server is asked")

        def answer() -> None:
            holding.clear()
            while held:
                held.pop().continue_()

        page.get_by_label("Prompt").fill("Who?")
        expect(self.told).to_be_visible()
        rename()
        page.get_by_role("button", name="Throw away").click()
        answer()
        expect(page.get_by_label("Prompt")).to_have_value("")
        page.wait_for_timeout(500)
        expect(self.told).to_have_count(0)
        undo(page)
        expect(self.told).to_contain_text("2 changes that nobody sees yet.")
        page.get_by_role("button", name="Throw away").click()
        rename()
        page.get_by_label("Prompt").fill("Who are you?")
        answer()
        expect(self.told).to_contain_text("2 changes that nobody sees yet.")
        self.save.click()
        expect(page.get_by_text("2 changes are saved in 1 portfolio.")).to_be_visible()
        self.assertEqual(Pocket.objects.get(pk=self.about.pk).prompt, "Who are you?")
        self.assertEqual(Section.objects.get(template=self.eight.template).title, "Cooking")

    def test_what_cannot_be_saved_says_so_and_holds_up_nothing_that_is_typed(self) -> None:
        page = self.open(f"?pocket={self.about.pk}")
        page.get_by_label("Name of the pocket").fill("")
        expect(page.get_by_text("The pocket has no name.")).to_be_visible()
        expect(self.save).to_be_disabled()
        page.get_by_label("Prompt").fill("Who are you?")
        self.outline.get_by_role("button", name=re.compile("^Recipe card")).click()
        expect(page.get_by_text("The pocket has no name.")).to_be_visible()
        self.outline.get_by_role("button", name=re.compile("^About me")).click()
        expect(page.get_by_label("Prompt")).to_have_value("Who are you?")
        self.no_violation(page)
        page.get_by_label("Name of the pocket").fill("Me")
        expect(self.told).to_contain_text("reaches 1 portfolio at once")
        self.save.click()
        expect(page.get_by_text("“Me” is saved in 1 portfolio.")).to_be_visible()

    def test_two_who_draft_meet_and_neither_writes_over_the_other_unasked(self) -> None:
        page = self.open(f"?pocket={self.about.pk}")
        page.get_by_label("Prompt").fill("Mine")
        expect(self.told).to_be_visible()
        co = self.eight.staff("co", Role.CO_TEACHER)
        theirs = self.page(co, f"{self.path}?pocket={self.about.pk}")
        theirs.get_by_label("Prompt").fill("Theirs")
        theirs.get_by_role("button", name="Save for everyone").click()
        expect(theirs.get_by_text("“About me” is saved in 1 portfolio.")).to_be_visible()
        expect(page.get_by_text("“About me” was changed by somebody else meanwhile.")).to_be_visible(timeout=8_000)
        expect(self.save).to_be_disabled()
        expect(page.get_by_label("Prompt")).to_have_value("Mine")
        page.get_by_role("button", name="Let mine stand").click()
        expect(self.told).to_be_visible()
        self.save.click()
        expect(page.get_by_text("“About me” is saved in 1 portfolio.")).to_be_visible()
        self.assertEqual(Pocket.objects.get(pk=self.about.pk).prompt, "Mine")
        # Who leaves their own out has what stands.
        page.get_by_label("Prompt").fill("Mine again")
        expect(self.told).to_be_visible()
        expect(theirs.get_by_label("Prompt")).to_have_value("Mine", timeout=8_000)
        theirs.get_by_label("Prompt").fill("Theirs again")
        theirs.get_by_role("button", name="Save for everyone").click()
        page.get_by_role("button", name=re.compile("^Leave this change out: “About me”")).click(timeout=10_000)
        expect(page.get_by_label("Prompt")).to_have_value("Theirs again")
        expect(self.save).to_be_disabled()

    def test_a_pocket_that_is_not_saved_yet_is_given_files(self) -> None:
        student = self.page(self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}", PHONE)
        page = self.open()
        self.add(page, "The kitchen", "Menu: 1 artefact")
        given = page.get_by_role("region", name="Given with the directions")
        page.get_by_label("Prompt").fill("Which one is yours?")
        for name, data in (("plan.jpg", builders.jpeg()), ("sheet.txt", b"name: ____")):
            given.locator("input").set_input_files({"name": name, "mimeType": "", "buffer": data})
            expect(given.get_by_role("link", name=name)).to_be_visible()
        starters = page.get_by_role("region", name="Starter files")
        starters.locator("input").set_input_files({"name": "begin.txt", "mimeType": "", "buffer": b"Begin"})
        expect(starters.get_by_role("link", name="begin.txt")).to_be_visible()
        given.get_by_role("button", name="Take away sheet.txt").click()
        expect(given.get_by_role("link", name="sheet.txt")).to_have_count(0)
        undo(page)
        expect(given.get_by_role("link", name="sheet.txt")).to_be_visible()
        given.get_by_role("button", name="Take away plan.jpg").click()
        expect(given.get_by_role("link", name="plan.jpg")).to_have_count(0)
        expect(self.told).to_contain_text("adds 1 pocket in 1 portfolio at once.")
        expect(page.get_by_label("Prompt")).to_have_value("Which one is yours?")
        self.no_violation(page)
        page.wait_for_timeout(400)
        page.reload()
        expect(given.get_by_role("link", name="sheet.txt")).to_be_visible()
        self.save.click()
        expect(page.get_by_text("“Menu” is saved in 1 portfolio.")).to_be_visible()
        expect(given.get_by_role("link", name="sheet.txt")).to_be_visible()
        student.get_by_role("link", name="Menu").click()
        expect(student.get_by_role("heading", name="begin.txt")).to_be_visible()
        expect(student.get_by_text("sheet.txt").first).to_be_visible()
        expect(student.get_by_text("plan.jpg")).to_have_count(0)

    def test_a_new_section_with_units_is_one_change_of_the_template_and_low_windows_show_all_of_it(self) -> None:
        page = self.open()
        page.set_viewport_size({"width": 640, "height": 400})
        self.outline.get_by_role("button", name="Section that repeats").click()
        page.get_by_label("Name of what repeats").fill("Unit")
        page.keyboard.press("Enter")
        page.get_by_label("New pocket in Unit").fill("Question")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Question")
        self.outline.get_by_role("button", name="Units none yet").click()
        page.get_by_role("button", name="Unit", exact=True).click()
        page.get_by_label("Name of the unit").fill("Soil")
        expect(self.told).to_contain_text("adds 2 pockets in 1 portfolio at once. Asks 2 things more of 1 student.")
        self.no_violation(page)
        self.fits(page)
        self.save.click()
        expect(page.get_by_text("2 changes are saved in 1 portfolio.")).to_be_visible()
        expect(page.get_by_role("heading", name="Units of “Unit”")).to_be_visible()
        self.assertEqual(Pocket.objects.filter(title="Question").count(), 2)
        builders.fill(self.thandi, Pocket.objects.get(title="Question", pattern__isnull=False), self.now)
        self.expected_complaints.append("422")
        undo(page)
        expect(page.get_by_text("holds work or belongs to a hand-in")).to_be_visible()
        self.assertEqual(Pocket.objects.filter(title="Question").count(), 2)
