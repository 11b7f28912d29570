"""Staff look in, say something, go to the next; the student hears of it; show pages; reading as one likes."""

from __future__ import annotations

import re
from datetime import timedelta

from playwright.sync_api import expect

from coatpeg.people.models import Person
from coatpeg.portfolios.looking import comments, looks
from coatpeg.portfolios.models import Comment, StandingHold
from coatpeg.portfolios.own import show
from tests import builders
from tests.background import run_waiting
from tests.browser.case import PHONE, TABLET, BrowserCase, undo


class LookingIn(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.menu = self.eight.pocket("Menu", artefacts=1)
        self.josh = self.eight.student("josh", "Josh", "Abara")
        self.thandi = self.eight.student("thandi")
        self.base = f"/g/{self.eight.group.pk}"

    def test_the_class_at_one_pocket_then_one_student_then_the_next_by_one_key(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("link", name="Look in").click()
        expect(page.get_by_text("1 of 2 have begun, 0 have everything")).to_be_visible()
        expect(page.get_by_role("link", name=re.compile("Abara, Josh.*Nothing yet"))).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name=re.compile("^Order")).click()
        page.get_by_role("option", name="by name").click()
        page.get_by_role("link", name=re.compile("Abara, Josh")).click()
        expect(page.get_by_text("Nothing is in this pocket yet.")).to_be_visible()
        # Those who have begun come first, whatever they are called.
        page.keyboard.press("b")
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        self.assertTrue(page.url.endswith(f"/portfolio/{self.thandi.pk}/{self.card.pk}"))
        page.keyboard.press("n")
        expect(page.get_by_text("Nothing is in this pocket yet.")).to_be_visible()
        page.get_by_role("link", name="The class").click()
        page.get_by_role("button", name="Pocket: Recipe card").click()
        page.get_by_role("option", name="Menu").click()
        expect(page.get_by_text("0 of 2 have begun")).to_be_visible()

    def test_only_what_is_new_since_the_last_look(self) -> None:
        builders.fill(self.thandi, self.menu, self.now - timedelta(days=3))
        looks.look(self.eight.lead, self.thandi, self.now - timedelta(days=2))
        builders.fill(self.thandi, self.card, self.now - timedelta(days=1))
        page = self.page(self.eight.lead, f"{self.base}/portfolio/{self.thandi.pk}")
        pockets = page.get_by_role("navigation", name="Pockets")
        expect(pockets.get_by_role("listitem")).to_have_count(2)
        page.get_by_label("only what is new since then").check()
        expect(pockets.get_by_role("listitem")).to_have_count(1)
        pockets.get_by_role("link", name=re.compile("Recipe card")).click()
        expect(page.get_by_text("new since you looked")).to_be_visible()
        self.no_violation(page)

    def test_a_comment_is_news_and_locks_nothing(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page(self.eight.lead, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        page.get_by_role("button", name="Comment", exact=True).first.click()
        page.get_by_label("Your comment; the student reads it").press_sequentially("nice beans")
        page.get_by_role("button", name="Leave the comment").click()
        expect(page.get_by_text("nice beans")).to_be_visible()
        self.assertTrue(page.url.endswith(str(self.card.pk)), "n and b are letters while one writes")
        self.no_violation(page)
        run_waiting()
        phone = self.page(self.thandi.enrolment.person, f"{self.base}/to-hand-in", PHONE)
        phone.get_by_role("button", name="News, 1 new").click()
        phone.get_by_role("link", name=re.compile("card.jpg has a comment")).click()
        expect(phone.get_by_text("nice beans")).to_be_visible()
        expect(phone.get_by_role("textbox").first).to_be_editable()
        expect(phone.get_by_role("button", name="News", exact=True)).to_be_visible()
        self.no_violation(phone)
        self.fits(phone)
        self.assertFalse(StandingHold.objects.exists())
        page.get_by_role("button", name=re.compile("^Take the comment back")).click()
        expect(page.get_by_text("The comment was taken back.")).to_be_visible()
        undo(page)
        expect(page.get_by_text("nice beans")).to_be_visible()
        self.assertIsNone(Comment.objects.get().removed_at)

    def test_a_show_page_arranged_opened_by_staff_and_seen_by_the_class(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}", TABLET)
        page.get_by_role("link", name="My show page").click()
        page.get_by_label("Title of the page").fill("My beans")
        page.get_by_role("button", name="Choose something").click()
        page.get_by_role("button", name=re.compile("card.jpg")).click()
        page.get_by_label("A line about it: card.jpg").fill("Day three")
        page.get_by_role("button", name="Keep the page").click()
        expect(page.get_by_role("region", name="My beans, Thandi D.")).to_be_visible()
        self.no_violation(page)
        josh = self.page(self.josh.enrolment.person, f"{self.base}/shows", PHONE)
        expect(josh.get_by_role("heading", name="No show page is open yet")).to_be_visible()
        staff = self.page(self.eight.lead, f"{self.base}/portfolio/{self.thandi.pk}/show")
        staff.get_by_role("button", name="Open it to the class").click()
        expect(staff.get_by_text("The class sees this page.")).to_be_visible()
        shown = josh.get_by_role("region", name="My beans, Thandi D.")
        expect(shown.get_by_text("Day three")).to_be_visible()
        expect(shown.get_by_role("img", name="card.jpg")).to_be_visible()
        self.assertNotIn("Dube", josh.content())
        self.no_violation(josh)
        self.fits(josh)

    def test_reading_as_one_likes_is_kept_with_the_account(self) -> None:
        person = self.thandi.enrolment.person
        page = self.page(person, self.base + "/to-hand-in", TABLET)
        page.get_by_role("button", name=re.compile("^TD, account")).click()
        page.get_by_role("menuitem", name="How I like to read").click()
        for choice in ("Lexend", "Large", "Wide", "Cream"):
            page.get_by_text(choice, exact=True).click()
            expect(page.get_by_role("radio", name=choice, exact=True)).to_be_checked()
        page.get_by_label("A ruler that follows the pointer").check()
        expect(page.locator("[data-ruler]")).to_be_attached()
        self.no_violation(page)
        page.wait_for_timeout(500)
        phone = self.page(person, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}", PHONE)
        expect(phone.locator("[data-ruler]")).to_be_attached()
        found = phone.evaluate(
            "[getComputedStyle(document.body).fontFamily, getComputedStyle(document.documentElement).fontSize, document.documentElement.dataset.tint]"
        )
        self.assertEqual(found, ['"Lexend Variable", system-ui, sans-serif', "20.8px", "cream"])
        self.fits(phone)
        self.no_violation(phone)

    def test_read_aloud_asks_the_devices_voice(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        page.evaluate(
            "() => { window.said = []; speechSynthesis.speak = (one) => window.said.push([one.text, one.rate]); }"
        )
        page.get_by_role("button", name="Read aloud").last.click()
        self.assertEqual(page.evaluate("window.said"), [["One thing. Another thing.", 1]])
        page.get_by_role("button", name="Stop reading").click()
        expect(page.get_by_role("button", name="Read aloud").last).to_be_visible()

    def test_whoever_looks_in_from_a_caseload_can_comment(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        caseload = builders.klass("Caseload", "coordinator", "caseload", today=self.today)
        builders.Enrolment.objects.create(
            group=caseload.group, person=self.thandi.enrolment.person, first=caseload.group.first, picture="leaf"
        )
        page = self.page(caseload.lead, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        page.get_by_role("button", name="Comment", exact=True).first.click()
        page.get_by_label("Your comment; the student reads it").fill("Shall we read it together?")
        page.get_by_role("button", name="Leave the comment").click()
        expect(page.get_by_text("Shall we read it together?")).to_be_visible()

    def test_a_long_class_with_long_names_and_work_of_every_kind(self) -> None:
        for number in range(40):
            student = self.eight.student(
                f"s{number}", "Wilhelmina Anastasia Konstantinopoulou", f"von und zu Hohenfels-Rosenberg {number}"
            )
            if number % 3 == 0:
                builders.fill(student, self.card, self.now)
        comments.leave(self.eight.lead, self.thandi.pk, "x" * 3_000, self.now, pocket=self.card.pk)
        show.arrange(self.thandi.enrolment.person, self.thandi.pk, "", [], 0, self.now)
        page = self.page(self.eight.lead, f"{self.base}/look/{self.card.pk}?order=work")
        expect(page.get_by_role("main").get_by_role("listitem")).to_have_count(42)
        self.fits(page)
        page.goto(f"{self.live_server_url}{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        expect(page.get_by_text("x" * 100)).to_be_visible()
        self.fits(page)

    def test_staff_have_a_bell_and_choose_how_they_are_told_by_mail(self) -> None:
        Person.objects.filter(pk=self.eight.lead.pk).update(email="okafor@larkfield.example")
        handin = self.eight.handin(self.card, opens=self.day(-3), due=self.day(3), now=self.now)
        for number in range(2):
            one = self.eight.student(f"s{number}", f"S{number}")
            builders.fill(one, self.card, self.now)
            builders.hand_in(one, handin, self.now)
        run_waiting()
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="News, 1 new").click()
        expect(page.get_by_role("link", name=re.compile("Recipe card 2 students have handed it in"))).to_be_visible()
        expect(page.get_by_role("radio", name="once a day")).to_be_checked()
        page.get_by_role("radio", name="at once").check()
        expect(page.get_by_text("Kept.")).to_be_visible()
        self.no_violation(page, "[id^=headlessui-popover-panel]")  # around it stand the library's own focus guards
        page.reload()
        page.get_by_role("button", name="News", exact=True).click()
        expect(page.get_by_role("radio", name="at once")).to_be_checked()
        page.get_by_role("link", name=re.compile("Recipe card")).click()
        expect(page).to_have_url(re.compile("/pile"))
