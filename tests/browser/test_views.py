"""Every view at the sizes it is used at, with much and with nothing in it, without an axe-core violation."""

import re
from datetime import UTC, datetime, timedelta

from playwright.sync_api import Route, expect

from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.models import Portfolio
from tests import builders
from tests.browser.case import DESK, PHONE, TABLET, BrowserCase

LONG = ("Maximiliana Josephine Alexandrina", "van der Berg-Oyelaran-Featherstonehaugh")


class Views(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket("Q3 · What is a good harvest, and how would you know one if you saw it?")
        self.thandi = self.eight.student("thandi", *LONG)
        self.person = self.thandi.enrolment.person
        self.handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-7), now=self.now)
        self.base = f"/g/{self.eight.group.pk}"

    def test_student_views_on_tablet_and_phone(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        done = builders.hand_in(self.thandi, self.handin, self.now)
        builders.mark(self.eight.lead, done, self.now, accept=False, feedback="A long word: " + "abc" * 40)
        book = f"{self.base}/portfolio/{self.thandi.pk}"
        for size in (TABLET, PHONE):
            for path in (
                book,
                f"{book}/{self.card.pk}",
                f"{self.base}/to-hand-in",
                f"{self.base}/feedback",
                f"{book}/submission/{done.pk}",
            ):
                with self.subTest(f"{size} {path}"):
                    page = self.page(self.person, path, size)
                    expect(page.get_by_role("main").locator("h1, nav").first).to_be_attached()
                    page.wait_for_load_state("networkidle")
                    self.fits(page)
                    self.no_violation(page)
                    self.big_enough(page)
                    self.leave(page)

    def big_enough(self, page: object) -> None:
        """Buttons of the student's side are at least 44 px high (product rule; WCAG 2.2 asks for 24)."""
        small = page.evaluate(
            """[...document.querySelectorAll('main button, main input:not([type=file])')]
            .filter((one) => one.offsetParent && one.getBoundingClientRect().height < 43.5).map((one) => one.outerHTML.slice(0, 120))"""
        )
        self.assertEqual(small, [])

    def test_a_class_without_anybody_and_without_hand_ins(self) -> None:
        forge = builders.klass("9 Forge", "forge", today=self.today)
        page = self.page(forge.lead)
        expect(page.get_by_text("Nobody is in this class yet")).to_be_visible()
        page.get_by_role("link", name="Marking pile").click()
        expect(page.get_by_text("The pile is empty")).to_be_visible()
        page.get_by_role("link", name="Hand-ins").click()
        expect(page.get_by_text("Nothing is asked for yet.")).to_be_visible()
        self.no_violation(page)

    def test_an_administrator_and_a_coordinator_are_told_where_they_are(self) -> None:
        admin = builders.person("bright", administrator=True)
        expect(self.page(admin).get_by_role("heading", name="Calendar of Larkfield School")).to_be_visible()
        coordinator = builders.klass("Caseload", "lindqvist", "caseload", today=self.today).lead
        expect(self.page(coordinator).get_by_text("Nobody is in this caseload yet")).to_be_visible()
        nobody = self.page(builders.person("new", "Ida", "Blom", staff=True))
        expect(nobody.get_by_text("You are in no class yet")).to_be_visible()

    def test_the_set_up_with_much_in_it_on_a_desk_and_a_tablet(self) -> None:
        for number in range(40):
            self.eight.student(None, f"Student {number}", "Blom" * 9, period=f"P{number % 5}")
        for size in (DESK, TABLET):
            for part in ("setup/list", "setup/list?bring=1", "setup/staff", "setup/calendar", "template"):
                with self.subTest(f"{size} {part}"):
                    page = self.page(self.eight.lead, f"{self.base}/{part}", size)
                    expect(page.get_by_role("heading").first).to_be_attached()
                    page.wait_for_load_state("networkidle")
                    self.fits(page)
                    self.no_violation(page)
                    self.leave(page)

    def test_a_foreign_class_and_an_address_without_a_view(self) -> None:
        stranger = builders.klass("9 Forge", "forge", today=self.today).lead
        page = self.page(stranger, f"{self.base}/pegs")
        expect(page.get_by_role("heading", name="There is nothing here for you")).to_be_visible()
        page.goto(f"{self.live_server_url}/nowhere")
        expect(page.get_by_text("There is nothing at this address")).to_be_visible()

    def test_a_view_that_breaks_leaves_the_frame_and_every_other_view(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        page.route(f"**/api/groups/{self.eight.group.pk}/handins", lambda route: route.fulfill(json={"handins": 3}))
        self.expected_complaints = ["is not a function", "is not iterable", "undefined"]
        page.get_by_role("link", name="Hand-ins").click()
        expect(page.get_by_role("heading", name="This view stopped working")).to_be_visible()
        page.get_by_role("link", name="Template").click()
        expect(page.get_by_role("navigation", name="Outline of the template")).to_be_visible()
        page.unroute_all()
        page.goto(f"{self.live_server_url}{self.base}/hand-ins")
        expect(page.get_by_role("link", name=re.compile("^Change Recipe card"))).to_be_visible()

    def test_what_the_address_holds_is_changed_twice_in_one_moment_and_both_are_kept(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        page.evaluate(
            """() => {
                const named = (words) => [...document.querySelectorAll("button")].find((one) => words.test(one.ariaLabel ?? one.textContent));
                named(/^Not handed in/).click();
                named(/^List$/).click();
            }"""
        )
        expect(page.get_by_role("heading", name="What came in")).to_be_visible()
        expect(page).to_have_url(re.compile(r"show=not_in.*as=list"))
        page.go_back()
        expect(page.get_by_role("grid")).to_be_visible()

    def test_whoever_has_gone_on_is_not_called_back_by_what_was_still_under_way(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?new=1")
        page.get_by_label("Title").fill("Seeds")
        page.get_by_label(re.compile("^Q3")).check()
        held: list[Route] = []
        page.route(
            f"**/api/groups/{self.eight.group.pk}/handins",
            lambda route: held.append(route) if route.request.method == "POST" else route.continue_(),
        )
        page.get_by_role("button", name="Set the hand-in").click()
        page.get_by_role("link", name="Template").click()
        expect(page.get_by_role("navigation", name="Outline of the template")).to_be_visible()
        held[0].continue_()
        expect(page.get_by_text("“Seeds” is set")).to_be_visible()
        expect(page.get_by_role("navigation", name="Outline of the template")).to_be_visible()
        expect(page).to_have_url(re.compile(f"{self.base}/template"))

    def test_staff_views_on_a_tablet(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        builders.hand_in(self.thandi, self.handin, self.now)
        page = self.page(self.eight.lead, f"{self.base}/pile", TABLET)
        page.get_by_label("Feedback").fill("From the tablet.")
        self.fits(page)
        page.get_by_role("button", name=re.compile("Accept and next")).click()
        expect(page.get_by_text("The pile is empty")).to_be_visible()
        page.goto(f"{self.live_server_url}{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        self.fits(page)

    def test_two_thousand_students_scroll_and_only_those_in_view_are_drawn(self) -> None:
        people = Person.objects.bulk_create(
            Person(given_name=f"G{number:04}", family_name=f"F{number:04}") for number in range(1999)
        )
        enrolments = Enrolment.objects.bulk_create(
            Enrolment(group=self.eight.group, person=one, first=self.eight.group.first, picture=f"p{number}")
            for number, one in enumerate(people)
        )
        Portfolio.objects.bulk_create(Portfolio(enrolment=one) for one in enrolments)
        page = self.page(self.eight.lead)
        grid = page.get_by_role("grid")
        expect(grid).to_have_attribute("aria-rowcount", "2001", timeout=20_000)
        self.assertLess(grid.get_by_role("row").count(), 60)
        first = page.get_by_role("button", name=re.compile("^F0000, G0000"))
        first.focus()
        page.keyboard.press("Control+End")
        expect(page.get_by_role("button", name=re.compile("^van der Berg"))).to_be_focused()
        self.assertLess(grid.get_by_role("row").count(), 60)
        # Dragged far within a frame: the names are there, the pegs follow a few rows a frame, until each row has its own.
        drawn = page.evaluate(
            """() => new Promise((done) => {
              const grid = document.querySelector("[role=grid]");
              const seen = () => {
                const names = [...grid.querySelectorAll("[role=rowheader]")];
                const bare = names.filter((one) => !one.parentElement.querySelector("[data-cell]")).length;
                return [names.filter((one) => one.textContent.startsWith("F1")).length, bare];
              };
              const all = [];
              const look = () => {
                all.push(seen());
                if (all.length < 60) requestAnimationFrame(look); else done(all);
              };
              grid.parentElement.scrollTop = 1200 * 32;
              requestAnimationFrame(() => requestAnimationFrame(look));
            })"""
        )
        names, bare = drawn[0]
        self.assertGreater(names, 12)
        self.assertGreater(bare, 4)
        self.assertEqual(drawn[-1][1], 0)
        page.get_by_label("Find a student").fill("g1500")
        expect(grid.get_by_role("rowheader")).to_have_text(["F1500, G1500"])

    def test_a_search_looks_among_everybody_and_is_seen_again_after_coming_back(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs?show=to_mark")
        grid = page.get_by_role("grid")
        expect(grid.get_by_role("rowheader")).to_have_count(0)
        field = page.get_by_label("Find a student")
        field.fill("oyelaran")
        expect(grid.get_by_role("rowheader")).to_have_count(1)
        expect(page.get_by_text("The filters rest while you search.")).to_be_visible()
        page.get_by_role("link", name="Marking pile").click()
        expect(page.get_by_text("The pile is empty")).to_be_visible()
        expect(field).to_have_value("")
        page.go_back()
        expect(field).to_have_value("oyelaran")
        field.fill("")
        expect(grid.get_by_role("rowheader")).to_have_count(0)
        expect(page.get_by_text("The filters rest while you search.")).to_have_count(0)

    def test_a_tab_that_is_open_overnight_asks_what_day_it_is(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs", once=True)
        expect(page.get_by_role("grid")).to_be_visible()
        page.wait_for_load_state("networkidle")
        with page.expect_request("**/api/session"), page.expect_request("**/pegs"):
            page.clock.set_system_time(datetime.now(UTC) + timedelta(days=1))

    def test_signing_in_by_a_demo_button(self) -> None:
        page = self.page(None)
        self.no_violation(page)
        self.expected_complaints = ["status of 403"]
        page.get_by_role("button", name="Thandi Dube").click()
        expect(page.get_by_role("alert")).to_contain_text("do not belong together")
