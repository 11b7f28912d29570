"""Pockets and log columns in the cupboard, and what is given out in versions: through the interface."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, Page, expect

from coatpeg.core.cupboard.items import ItemKind
from coatpeg.cupboard import keeping
from coatpeg.cupboard.models import CupboardCopy, CupboardItem
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import GroupMember
from tests.browser.case import BrowserCase, undo
from tests.builders import working_group

DAY = {"key": "day", "title": "Day", "type": "date"}
HEIGHT = {"key": "height", "title": "Height", "type": "number", "unit": "cm"}


class Layouts(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket(directions="<p>Cook it once.</p>")
        log = {"columns": [DAY, HEIGHT], "order": "", "newest_first": False, "target": None}
        self.log = self.eight.pocket("Crop log", "log", log=log)
        self.rain = self.eight.pocket("Rain log", "log", log={**log, "columns": [DAY]})
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")
        self.base = f"/g/{self.eight.group.pk}"

    def drawer(self, page: Page) -> Locator:
        return page.get_by_role("complementary", name="Cupboard")

    def choose(self, page: Page, title: str) -> None:
        """Opens a pocket of the outline; what stands below its form is its own from then on."""
        page.get_by_role("button", name=title).first.click()
        expect(page.get_by_role("form", name=f"Settings of {title}")).to_be_visible()

    def test_in_a_window_at_twice_the_size_the_bar_stays_where_it_is_beneath_a_message(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.card.pk}", (640, 400))
        into = page.get_by_role("button", name="Into the cupboard")
        into.scroll_into_view_if_needed()
        into.click()
        expect(page.get_by_text("“Recipe card” lies in the cupboard as it is saved")).to_be_visible()
        expect(into).to_be_in_viewport(ratio=1)
        expect(page.get_by_role("button", name="Undo")).to_be_in_viewport(ratio=1)

    def test_a_pocket_and_columns_go_in_and_come_out_into_the_template(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.card.pk}")
        into = page.get_by_role("button", name="Into the cupboard")
        into.click()
        expect(page.get_by_text("“Recipe card” lies in the cupboard as it is saved")).to_be_visible()
        undo(page)
        expect(page.get_by_text("“Recipe card” is out of the cupboard again.")).to_be_visible()
        self.assertIsNotNone(CupboardItem.objects.get().removed_at)
        into.click()
        expect(page.get_by_text("“Recipe card” lies in the cupboard as it is saved")).to_be_visible()
        into.click()
        expect(page.get_by_text("“Recipe card” in the cupboard is now as it is saved here.")).to_be_visible()
        self.choose(page, "Crop log")
        page.get_by_role("button", name="Into the cupboard").click()
        page.get_by_role("menuitem", name="Its columns alone").click()
        expect(page.get_by_text("The columns of “Crop log” lie in the cupboard")).to_be_visible()
        page.get_by_role("button", name="Cupboard", exact=True).click()
        drawer = self.drawer(page)
        # Columns into a log that is there: seen in its form, undone as one.
        self.choose(page, "Rain log")
        drawer.get_by_role("button", name=re.compile("^Crop log")).click()
        expect(drawer.get_by_role("columnheader", name="Height (cm)")).to_be_visible()
        self.no_violation(page)
        drawer.get_by_role("button", name="Lay its columns into “Rain log”").click()
        heads = page.get_by_role("textbox", name=re.compile("^Heading of column"))
        expect(page.get_by_text("“Rain log” has the columns of “Crop log” now.")).to_be_visible()
        expect(heads).to_have_count(2)
        undo(page)
        expect(heads).to_have_count(1)
        # A whole pocket, as one more in the section, by a press and by dragging it there.
        drawer.get_by_role("button", name="Everything in the cupboard").click()
        line = drawer.get_by_role("button", name=re.compile("^Recipe card"))
        line.click()
        drawer.get_by_role("button", name=re.compile("^Lay it out in")).click()
        expect(page.get_by_text("“Recipe card” is laid out in the draft.")).to_be_visible()
        directions = page.get_by_role("textbox", name="Directions students see")
        expect(directions).to_contain_text("Cook it once.")
        outline = page.get_by_role("navigation", name="Outline")
        cards = outline.get_by_role("button", name=re.compile("^Recipe card"))
        expect(cards).to_have_count(2)
        undo(page)
        expect(cards).to_have_count(1)
        drawer.get_by_role("button", name="Everything in the cupboard").click()
        line.drag_to(outline.get_by_role("button", name=re.compile("^Rain log")))
        expect(cards).to_have_count(2)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text(re.compile("“Recipe card” is saved"))).to_be_visible()
        made = Pocket.objects.filter(title="Recipe card", retired_at=None).order_by("pk")
        self.assertEqual([one.directions for one in made], ["<p>Cook it once.</p>"] * 2)

    def test_a_page_dropped_on_a_pocket_of_the_outline_lies_with_its_directions(self) -> None:
        plan = keeping.ItemPlan("Kitchen safety", html="<p>Wash your hands.</p>")
        keeping.put_in(self.eight.lead, self.eight.group.pk, ItemKind.PAGE, plan, self.now)
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.log.pk}")
        page.get_by_role("button", name="Cupboard", exact=True).click()
        line = self.drawer(page).get_by_role("button", name=re.compile("^Kitchen safety"))
        line.drag_to(page.get_by_role("navigation", name="Outline").get_by_role("button", name=re.compile("^Recipe")))
        directions = page.get_by_role("textbox", name="Directions students see")
        expect(directions).to_contain_text("Cook it once.Wash your hands.")
        expect(page.get_by_text("“Kitchen safety” stands in “Recipe card” now.")).to_be_visible()

    def test_versions_are_dealt_said_before_and_told_by_name(self) -> None:
        sound = working_group(self.eight.group, "Sound")
        GroupMember.objects.create(workinggroup=sound, enrolment=self.josh.enrolment)
        for title in ("Sheet A", "Sheet B"):
            plan = keeping.ItemPlan(title, html=f"<p>{title}: what is it?</p>")
            keeping.put_in(self.eight.lead, self.eight.group.pk, ItemKind.PAGE, plan, self.now)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Cupboard", exact=True).click()
        self.drawer(page).get_by_role("button", name=re.compile("^Sheet A")).click()
        self.drawer(page).get_by_role("button", name="Give out").click()
        dialog = page.get_by_role("dialog", name="Give out “Sheet A”")
        dialog.get_by_label("Into the pocket").select_option(str(self.card.pk))
        dialog.get_by_label("Different versions for different students").check()
        expect(dialog.get_by_text("Add at least one more.")).to_be_visible()
        expect(dialog.get_by_role("button", name="Give out", exact=True)).to_be_disabled()
        dialog.get_by_label("Add a version …").select_option(label="Sheet B")
        dialog.get_by_label("Dealt").select_option(label="by surname")
        expect(dialog.get_by_label("“Sheet B” from")).to_have_value("N")
        expect(dialog.get_by_text("“Sheet A”: Dube, Thandi; Ellery, Josh")).to_be_visible()
        self.expected_complaints.append("422")
        dialog.get_by_label("“Sheet A” to").fill("D")
        expect(dialog.get_by_text("No version has E–M. It leaves out: Ellery, Josh.")).to_be_visible()
        dialog.get_by_label("“Sheet B” from").fill("E")
        expect(dialog.get_by_text("“Sheet B”: Ellery, Josh")).to_be_visible()
        dialog.get_by_label("Dealt").select_option(label="by hand")
        which = dialog.get_by_label("Which version Dube, Thandi gets")
        which.focus()
        which.select_option(label="Sheet B")
        expect(dialog.get_by_text("“Sheet B”: Dube, Thandi")).to_be_visible()
        expect(which).to_be_focused()
        self.no_violation(page)
        dialog.get_by_role("button", name="Give 2 copies").click()
        expect(page.get_by_text("“Sheet A” is given to 2 students, in “Recipe card”.")).to_be_visible()
        whose = CupboardCopy.objects.values_list("portfolio__enrolment__person__given_name", "item__title")
        self.assertEqual(dict(whose), {"Thandi": "Sheet B", "Josh": "Sheet A"})
        page.goto(f"{self.live_server_url}{self.base}/hand-ins")
        page.get_by_text(re.compile("How far each is with")).click()
        lines = page.get_by_role("list", name="How far each is with “Sheet A”")
        expect(lines.get_by_text(re.compile("^Sheet B · not opened"))).to_be_visible()
        # To a group alone.
        self.drawer(page).get_by_role("button", name="Everything in the cupboard").click()
        self.drawer(page).get_by_role("button", name=re.compile("^Sheet B")).click()
        self.drawer(page).get_by_role("button", name="Give out").click()
        dialog = page.get_by_role("dialog", name="Give out “Sheet B”")
        dialog.get_by_label("Into the pocket").select_option(str(self.card.pk))
        dialog.get_by_label("some periods or groups").check()
        dialog.get_by_label("Sound").check()
        expect(dialog.get_by_text("1 student gets a copy.")).to_be_visible()
