"""Every theme, keys that can be turned off, a title for each view, focus where it is expected."""

import re
from datetime import timedelta

from playwright.sync_api import Page, Route, expect

from coatpeg.people.models import Person
from tests import builders
from tests.browser.case import PHONE, BrowserCase

THEMES = ("dark", "contrast")


def theme_of(page: Page) -> str:
    return str(page.evaluate("document.documentElement.dataset.theme"))


class ForEveryone(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.about = self.eight.pocket("About me", "page", starter="I am …")
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")
        self.base = f"/g/{self.eight.group.pk}"
        handins = [
            self.eight.handin(
                self.card, title=title, opens=self.day(-20), due=self.day(due), now=self.now - timedelta(days=15)
            )
            for title, due in (("Recipe card", 3), ("Menu", -4))
        ]
        builders.fill(self.thandi, self.card, self.now)
        first = builders.hand_in(self.thandi, handins[0], self.now)
        builders.mark(self.eight.lead, first, self.now, accept=False, feedback="Say why.")
        builders.fill(self.josh, self.card, self.now)
        builders.hand_in(self.josh, handins[1], self.now)

    def like(self, person: Person, **reading: object) -> None:
        Person.objects.filter(pk=person.pk).update(reading=reading)

    def settle(self, page: Page) -> None:
        page.wait_for_load_state("networkidle")
        expect(page.get_by_text("Loading")).to_have_count(0)

    def test_no_view_has_a_violation_in_the_dark_or_in_high_contrast(self) -> None:
        """axe-core, contrast among its rules; the light theme is looked at by every other test."""
        person = self.thandi.enrolment.person
        book = f"{self.base}/portfolio/{self.thandi.pk}"
        views = {
            self.eight.lead: (
                f"{self.base}/pegs?student={self.thandi.enrolment_id}&handin={self.eight.group.handins.first().pk}",
                f"{self.base}/pile",
                f"{self.base}/hand-ins?new=1",
                f"{self.base}/template?pocket={self.card.pk}",
                f"{self.base}/setup",
                f"{self.base}/look/{self.card.pk}",
            ),
            person: (
                f"{book}/{self.card.pk}",
                f"{book}/{self.about.pk}",
                f"{self.base}/to-hand-in",
                f"{self.base}/feedback",
            ),
        }
        for theme in THEMES:
            for who, paths in views.items():
                self.like(who, theme=theme)
                page = self.page(who, paths[0], PHONE if who == person else (1280, 800))
                for path in paths:
                    page.goto(self.live_server_url + path)
                    self.settle(page)
                    self.assertEqual(theme_of(page), theme)
                    with self.subTest(f"{theme}: {path}"):
                        self.no_violation(page)

    def test_the_colours_are_chosen_kept_and_gone_with_whoever_signs_out(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        self.assertEqual(theme_of(page), "light")
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="How I like to read").click()
        with page.expect_response("**/api/reading"):
            page.get_by_text("Dark", exact=True).click()
        self.assertEqual(theme_of(page), "dark")
        self.no_violation(page)
        page.keyboard.press("Escape")
        expect(page.get_by_role("button", name=re.compile("account of"))).to_be_focused()
        shown = "getComputedStyle(document.body).backgroundColor"
        ground = page.evaluate(shown)
        page.reload()
        self.assertEqual((theme_of(page), page.evaluate(shown)), ("dark", ground), "before the account is known")
        self.eight.lead.refresh_from_db()
        self.assertEqual(self.eight.lead.reading["theme"], "dark")
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Sign out").click()
        expect(page.get_by_label("User name")).to_be_visible()
        self.assertEqual(theme_of(page), "light")
        page.reload()
        self.assertEqual(theme_of(page), "light")

    def test_by_itself_it_follows_the_device(self) -> None:
        page = self.page(None, "/")
        for media, theme in (
            ({"color_scheme": "dark"}, "dark"),
            ({"color_scheme": "light"}, "light"),
            ({"color_scheme": "light", "contrast": "more"}, "contrast"),
            ({"color_scheme": "dark", "contrast": "more"}, "dark"),
        ):
            page.emulate_media(**media)  # type: ignore[arg-type]
            page.wait_for_function("(theme) => document.documentElement.dataset.theme === theme", arg=theme)
        page.evaluate("localStorage.setItem('coat-peg-theme', 'a colour of tomorrow')")
        page.reload()
        self.assertEqual(theme_of(page), "dark", "what we do not know is as if nothing had been chosen")

    def test_the_coats_on_the_pegs_are_drawn_in_the_colours_of_the_theme(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        coat = page.locator(".coat").first
        name = next(one for one in (coat.get_attribute("class") or "").split() if one.startswith("coat-"))
        drawn = "decodeURIComponent(getComputedStyle(document.querySelector('.coat')).backgroundImage)"
        coats = {}
        for theme in ("light", "dark", "contrast"):
            page.evaluate("(theme) => { document.documentElement.dataset.theme = theme }", theme)
            colour = page.locator(f"#{name} path").first.evaluate("one => getComputedStyle(one).stroke")
            page.wait_for_function(f"(colour) => {drawn}.includes(colour)", arg=colour)
            coats[theme] = page.evaluate(drawn)
        self.assertEqual(len(set(coats.values())), 3)

    def test_where_the_system_sets_the_colours_what_is_chosen_keeps_its_mark(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs?show=to_mark")
        page.emulate_media(forced_colors="active")
        chip, other = (page.get_by_role("button", name=re.compile(name)) for name in ("^To mark", "^Not handed in"))
        expect(chip).to_be_visible()
        ground = "one => getComputedStyle(one).backgroundColor"
        self.assertNotEqual(chip.evaluate(ground), other.evaluate(ground))
        bar = page.locator(".meter > *").first
        self.assertNotEqual(bar.evaluate(ground), page.locator(".meter").first.evaluate(ground))

    def test_the_browser_s_own_text_size_is_honoured(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        size = "parseFloat(getComputedStyle(document.body).fontSize)"
        usual = page.evaluate(size)
        session = page.context.new_cdp_session(page)
        session.send("Page.setFontSizes", {"fontSizes": {"standard": 24}})
        page.wait_for_function(f"{size} > {usual}")
        self.assertAlmostEqual(page.evaluate(size) / usual, 24 / 16)

    def test_the_board_grows_with_the_text_and_nothing_lies_over_anything(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.evaluate("() => { document.documentElement.style.fontSize = '150%'; }")
        page.get_by_role("link", name="Pegs", exact=True).click()
        grid = page.get_by_role("grid")
        first = grid.get_by_role("row").nth(1).bounding_box()
        assert first
        for head in grid.get_by_role("columnheader").all():
            box = head.bounding_box()
            assert box
            inside = head.evaluate("one => one.scrollHeight - one.clientHeight")
            self.assertLessEqual(box["y"] + box["height"] + inside, first["y"] + 1)
        self.assertGreaterEqual(first["height"], 47)  # 32 pixels of a row, half as large again

    def test_keys_are_shown_by_a_question_mark_and_can_be_turned_off(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        page.keyboard.press("?")
        dialog = page.get_by_role("dialog", name="Keys")
        expect(dialog.get_by_text("opens it on the marking pile")).to_be_visible()
        self.no_violation(page)
        page.keyboard.press("Escape")
        expect(dialog).to_have_count(0)
        page.keyboard.press("/")
        field = page.get_by_label("Find a student")
        expect(field).to_be_focused()
        page.keyboard.type("what?")
        expect(dialog).to_have_count(0)
        self.like(self.eight.lead, keys=False)
        page.goto(f"{self.live_server_url}{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        page.keyboard.press("/")
        page.keyboard.press("?")
        expect(field).not_to_be_focused()
        expect(dialog).to_have_count(0)
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Keys").click()
        expect(dialog.get_by_text("You have turned off keys of one letter")).to_be_visible()

    def test_a_title_for_each_view_and_what_is_open_in_it(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        name = "8 Plot · Growing & Cooking · Coat Peg"
        for path, title in (
            ("pegs", f"Pegs · {name}"),
            ("pile", f"Marking pile · {name}"),
            (f"template?pocket={self.card.pk}", f"Recipe card · Template · {name}"),
            (f"portfolio/{self.thandi.pk}/{self.about.pk}", f"About me · Thandi Dube · Pockets · {name}"),
            (f"portfolio/{self.thandi.pk}", f"Thandi Dube · Pockets · {name}"),
        ):
            page.goto(f"{self.live_server_url}{self.base}/{path}")
            expect(page).to_have_title(title)

    def test_escape_closes_the_opened_peg_and_the_focus_is_back_on_it(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        peg = page.get_by_role("button", name=re.compile("^Ellery, Josh, Menu"))
        peg.click()
        panel = page.get_by_role("complementary", name="The chosen peg")
        panel.get_by_role("button", name="Close").focus()
        page.keyboard.press("Escape")
        expect(panel).to_have_count(0)
        expect(peg).to_be_focused()
        page.keyboard.press("Enter")
        expect(panel).to_be_visible()
        panel.get_by_role("button", name="Close").click()
        expect(peg).to_be_focused()

    def test_the_heads_of_the_board_are_reached_by_arrow_keys_and_nothing_lies_under_the_names(self) -> None:
        for number in range(14):
            self.eight.handin(self.card, title=f"Card {number}", due=self.day(5), opens=self.day(-3), now=self.now)
        page = self.page(self.eight.lead, f"{self.base}/pegs", (820, 1180))
        grid = page.get_by_role("grid")
        first = grid.get_by_role("gridcell").get_by_role("button").first
        first.focus()
        page.keyboard.press("ArrowUp")
        head = grid.locator('[data-cell="-1 0"]')
        expect(head).to_be_focused()
        page.keyboard.press("Enter")
        expect(head).to_have_attribute("aria-pressed", "true")
        page.keyboard.press("ArrowDown")
        page.keyboard.press("End")
        page.keyboard.press("Home")
        expect(first).to_be_focused()
        cell, name = first.bounding_box(), grid.get_by_role("rowheader").first.bounding_box()
        assert cell is not None
        assert name is not None
        self.assertGreaterEqual(cell["x"], name["x"] + name["width"])

    def test_periods_of_any_length_stay_on_one_line_and_few_columns_keep_together(self) -> None:
        for number, period in enumerate(("Tutor group Mx. Hollingworth", "P3")):
            self.eight.student(f"p{number}", "Ann", f"Long{number}", period=period)
        page = self.page(self.eight.lead, f"{self.base}/pegs", (1920, 1080))
        grid = page.get_by_role("grid")
        expect(grid.get_by_text("Tutor group Mx. Hollingworth")).to_be_visible()
        for row in grid.get_by_role("row").all()[1:]:
            box = row.bounding_box()
            assert box is not None
            self.assertEqual(round(box["height"]), 32)
        heads = [one.bounding_box() for one in grid.get_by_role("columnheader").all()]
        self.assertLess(max(one["x"] + one["width"] for one in heads if one), 1000)

    def test_a_pocket_is_moved_by_single_clicks(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.about.pk}")
        kitchen = page.get_by_role("region", name="The kitchen")
        expect(kitchen.locator("li > button")).to_have_text([re.compile("Recipe card"), re.compile("About me")])
        kitchen.get_by_role("button", name="Up About me").click()
        expect(kitchen.locator("li > button")).to_have_text([re.compile("About me"), re.compile("Recipe card")])

    def test_the_search_is_there_at_every_width(self) -> None:
        for size in ((640, 400), (320, 256)):
            page = self.page(self.eight.lead, f"{self.base}/pegs", size)
            field = page.get_by_label("Find a student")
            expect(field).to_be_visible()
            field.fill("dube")
            expect(page).to_have_url(re.compile("find=dube"))
            self.fits(page)

    def test_an_empty_sign_in_says_what_is_missing_and_whom_to_ask(self) -> None:
        page = self.page(None, "/")
        page.get_by_role("button", name="Sign in", exact=True).click()
        expect(page.get_by_text("Type your user name.")).to_be_visible()
        expect(page.get_by_text("Type your password.")).to_be_visible()
        expect(page.get_by_label("User name")).to_be_focused()
        expect(page.get_by_text("A student’s teacher can give a new one")).to_be_visible()
        self.no_violation(page)

    def test_a_button_that_waits_keeps_the_focus(self) -> None:
        self.like(self.eight.lead, theme="light")
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?new=1")
        page.get_by_label("Title").fill("Harvest")
        page.get_by_role("checkbox", name="Recipe card").check()
        held: list[Route] = []
        page.route("**/handins", lambda one: held.append(one) if one.request.method == "POST" else one.continue_())
        button = page.get_by_role("button", name="Set the hand-in")
        button.focus()
        page.keyboard.press("Enter")
        expect(button).to_have_attribute("aria-disabled", "true")
        expect(button).to_be_focused()
        page.keyboard.press("Enter")
        self.assertEqual(len(held), 1, "pressed again while it waits it does nothing")
        held[0].continue_()
        expect(page.get_by_text("“Harvest” is set.")).to_be_visible()

    def test_saved_is_not_spoken_after_every_pause(self) -> None:
        page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/{self.about.pk}")
        page.get_by_role("textbox").first.fill("I am Thandi.")
        saved = page.get_by_text(re.compile(r"Saved \d\d:\d\d"))
        expect(saved).to_be_visible()
        self.assertFalse(saved.evaluate("one => one.closest('[role=status], [aria-live]') !== null"))

    def test_the_feedback_is_one_step_away(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pile")
        field = page.get_by_label("Feedback")
        expect(field).to_be_visible()
        page.keyboard.press("f")
        expect(field).to_be_focused()
        page.keyboard.type("f for fine")
        expect(field).to_have_value("f for fine")
        page.get_by_role("button", name="Skip to the feedback").focus()
        self.no_violation(page)
        page.keyboard.press("Enter")
        expect(field).to_be_focused()

    def test_a_hand_in_without_a_due_date_hangs_on_the_rail_too(self) -> None:
        self.eight.handin(self.about, title="Any day", opens=self.day(-3), due=None, now=self.now)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        rail = page.get_by_role("region", name="The term's weeks and hand-ins")
        expect(rail.get_by_text("no due date")).to_be_visible()
        rail.get_by_role("button", name=re.compile("^Any day")).click()
        expect(page.get_by_role("columnheader", name=re.compile("Any day")).get_by_role("button")).to_have_attribute(
            "aria-pressed", "true"
        )
        self.no_violation(page)
