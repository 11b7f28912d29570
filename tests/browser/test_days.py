"""Days: typed as people write them, chosen on the school's calendar, refused in words where they are none."""

import re
from datetime import date, timedelta

from dateutil import parser as dateutil
from playwright.sync_api import Page, expect

from coatpeg.handins.models import HandIn
from coatpeg.people.models import NonSchoolDay, School, new_calendar_key
from tests.browser.case import PHONE, BrowserCase


def shown(day: date) -> str:
    return f"{day:%a} {day.day} {day:%b} {day.year}"


class Days(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.eight.student("thandi")
        self.off = self.day(14)
        NonSchoolDay.objects.create(day=self.off, name="Orchard day")
        School.objects.update(calendar_key=new_calendar_key())

    def form(self, size: tuple[int, int] = (1280, 800)) -> Page:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins?new=1", size)
        page.get_by_label("Title").fill("Harvest")
        page.get_by_label("Recipe card").check()
        return page

    def test_as_people_write_them(self) -> None:
        """dateutil (a general-purpose parser, day first) reads the same of what names a year; the rest is our rule."""
        page = self.form()
        field = page.get_by_label("Due", exact=True)
        near = self.day(20)
        whole = [
            f"{near.day}.{near.month}.{near.year}",
            f"{near.day}/{near.month}/{near.year}",
            f"{near.day} {near:%b} {near.year}",
            f"{near.day} {near:%B} {near.year}",
            f"{near:%B} {near.day}, {near.year}",
            f"{near:%a} {near.day} {near:%b} {near.year}",
            near.isoformat(),
            f"{near.day}.{near.month}.{near.year % 100}",
        ]
        for text in whole:
            read = dateutil.parse(text) if text == near.isoformat() else dateutil.parse(text, dayfirst=True)
            self.assertEqual(read.date(), near, text)
        friday = self.today + timedelta((4 - self.today.weekday() - 1) % 7 + 1)
        cases = dict.fromkeys(whole, near) | {
            f"{near.day}.{near.month}.": near,
            f"{near.day} {near:%b}": near,
            f"{near:%b} {near.day}": near,
            f"  {near.day}th   of {near:%B} ": near,
            "today": self.today,
            "Tomorrow": self.day(1),
            "next Fri": friday,
        }
        for text, day in cases.items():
            with self.subTest(text):
                field.fill(text)
                field.blur()
                expect(field).to_have_value(shown(day))

    def test_what_is_no_day_says_so_and_nothing_is_set_without_it(self) -> None:
        self.expected_complaints.append("422")
        page = self.form()
        field = page.get_by_label("Due", exact=True)
        day = self.day(9)
        another = f"{self.day(10):%a}"
        for text in (
            "31.2.",
            "soon",
            f"{another} {day.day} {day:%b} {day.year}",
            "1.13.2026",
            "‏٤ ديسمبر",
            "2026-02-30",
        ):
            with self.subTest(text):
                field.fill(text)
                field.blur()
                expect(field).to_have_value(text)
                expect(page.get_by_text("This is no day.")).to_be_visible()
                expect(field).to_have_attribute("aria-invalid", "true")
        self.no_violation(page)
        # The preview says it too, and sooner: what counts is that the setting itself was refused and can be tried again.
        button = page.get_by_role("button", name="Set the hand-in")
        with page.expect_response(
            lambda answer: answer.request.method == "POST" and answer.url.endswith("/handins")
        ) as refused:
            button.click()
        self.assertEqual(refused.value.status, 422)
        expect(page.get_by_role("alert").filter(has_text="“Due” is not a day of the calendar.").last).to_be_visible()
        expect(button).to_be_enabled()
        self.assertFalse(HandIn.objects.exists())
        field.fill(day.isoformat())
        page.keyboard.press("Enter")
        expect(page.get_by_text("“Harvest” is set.")).to_be_visible()
        self.assertEqual(HandIn.objects.get().due_day, day)

    def test_on_the_schools_calendar_by_keyboard(self) -> None:
        page = self.form()
        field = page.get_by_label("Due", exact=True)
        due = page.locator("div").filter(has=field).last
        button = due.get_by_role("button", name="Choose on the calendar")
        button.focus()
        page.keyboard.press("Enter")
        grid = page.get_by_role("grid")
        today = grid.get_by_role("button", name=f"{shown(self.today)}, today")
        expect(today).to_be_focused()
        self.no_violation(page, "table[role=grid]")
        for _ in range(14):
            page.keyboard.press("ArrowRight")
        expect(grid.get_by_role("button", name=re.compile(f"^{shown(self.off)}, Orchard day"))).to_be_focused()
        expect(page.get_by_role("list", name="No school").get_by_text("Orchard day")).to_be_visible()
        page.keyboard.press("ArrowRight")
        page.keyboard.press("Enter")
        expect(grid).to_have_count(0)
        expect(field).to_have_value(shown(self.day(15)))
        expect(button).to_be_focused()
        page.keyboard.press("Enter")
        expect(grid.get_by_role("button", name=re.compile(f"^{shown(self.day(15))}"))).to_be_focused()
        page.keyboard.press("Escape")
        expect(grid).to_have_count(0)
        expect(field).to_have_value(shown(self.day(15)))

    def test_weeks_are_numbered_as_on_the_rail(self) -> None:
        page = self.form()
        page.get_by_role("button", name="Choose on the calendar").first.click()
        week = (
            page.get_by_role("grid")
            .get_by_role("row")
            .filter(has=page.get_by_role("button", name=re.compile(", today(,|$)")))
        )
        told = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pegs")
        now = told.get_by_role("listitem").filter(has_text="this week").first
        number = re.search(r"Week (\d+)", now.inner_text())
        assert number is not None
        expect(week.get_by_role("rowheader")).to_have_text(number[1])

    def test_on_a_phone_and_where_a_class_is_started(self) -> None:
        page = self.form(PHONE)
        page.get_by_role("button", name="Choose on the calendar").first.click()
        expect(page.get_by_role("grid")).to_be_visible()
        # It moves into view in the frame after the one in which it is drawn.
        page.wait_for_function("() => document.documentElement.scrollWidth <= document.documentElement.clientWidth")
        self.fits(page)
        page.keyboard.press("Escape")
        desk = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pegs")
        desk.get_by_role("button", name=re.compile("account of")).click()
        desk.get_by_role("menuitem", name="Start a class").click()
        form = desk.get_by_role("form", name="Start a class")
        form.get_by_label("First day").fill(self.today.isoformat())
        form.get_by_role("button", name="Choose on the calendar").first.click()
        grid = desk.get_by_role("grid", name=re.compile(r"\d{4}"))
        grid.get_by_role("button", name=re.compile(", today(,|$)")).click()
        expect(form.get_by_label("First day")).to_have_value(shown(self.today))
