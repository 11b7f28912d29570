"""A page that several students fill together: live on two screens, with names, kept without a connection, led by staff."""

from __future__ import annotations

import random
import re

from playwright.sync_api import Locator, Page, expect

from coatpeg.handins.models import Submission
from coatpeg.marking.models import ReleasedMark
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.logs import rows
from coatpeg.portfolios.models import Evidence, Portfolio
from coatpeg.sharing import settling
from coatpeg.sharing.models import SharedPage, SharedTaken
from tests import builders
from tests.api.test_logs import crop_log
from tests.background import run_waiting
from tests.browser.case import PHONE, TABLET, BrowserCase, undo


class Sharing(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.plan = self.eight.pocket("What could go wrong?", "page", shared="class", own_part=True)
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")

    def address(self, book: Portfolio) -> str:
        return f"/g/{self.eight.group.pk}/portfolio/{book.pk}/{self.plan.pk}"

    def opened(self, book: Portfolio, **more: tuple[int, int]) -> Page:
        page = self.page(book.enrolment.person, self.address(book), **more)
        expect(self.text(page)).to_be_visible()
        return page

    def text(self, page: Page) -> Locator:
        return page.get_by_role("textbox", name="What could go wrong?, filled together")

    def write(self, page: Page, words: str) -> None:
        self.text(page).click()
        page.keyboard.press("Control+End")
        page.keyboard.type(words)

    def test_two_write_at_once_see_each_other_and_who_wrote_what(self) -> None:
        one, two = self.opened(self.thandi), self.opened(self.josh)
        self.write(one, "The thunder comes too late.")
        expect(self.text(two)).to_contain_text("The thunder comes too late.")
        # Both in one passage, at the very same time.
        self.text(two).click()
        two.keyboard.press("Control+End")
        self.text(one).click()
        one.keyboard.press("Home")
        for letter in "abc":
            one.keyboard.type(letter)
            two.keyboard.type(letter.upper())
        for page in (one, two):
            expect(self.text(page)).to_have_text("abcThe thunder comes too late.ABC")
        two.keyboard.press("Enter")
        two.keyboard.type("The rain sheet jams.")
        expect(self.text(one)).to_contain_text("The rain sheet jams.")
        who = one.get_by_role("region", name="Who wrote what")
        josh = who.get_by_role("button", name=re.compile("^Josh E."))
        expect(josh).to_have_attribute("title", "Show the words of Josh E.")
        josh.click()
        marked = self.text(one).locator(".bg-today")
        expect(marked).to_have_text(["ABC", "The rain sheet jams."])
        expect(one.get_by_text(re.compile("^Josh E., ")).first).to_be_visible()
        expect(one.get_by_text("Everything is saved")).to_be_visible()
        self.no_violation(one)
        # Taken back is one's own, not what the other did meanwhile.
        one.bring_to_front()
        self.write(one, " It squeaks.")
        expect(self.text(two)).to_contain_text("It squeaks.")
        one.keyboard.press("Control+z")
        expect(self.text(one)).not_to_contain_text("It squeaks.")
        expect(self.text(one)).to_contain_text("The rain sheet jams.")
        one.reload()
        expect(self.text(one)).to_contain_text("The rain sheet jams.")

    def test_without_a_connection_it_is_written_on_and_with_the_lid_closed_nothing_is_lost(self) -> None:
        self.expected_complaints.append("ERR_INTERNET_DISCONNECTED")
        one, two = self.opened(self.thandi), self.opened(self.josh)
        self.write(one, "Together.")
        expect(self.text(two)).to_contain_text("Together.")
        one.context.set_offline(True)
        self.write(one, " On my own.")
        expect(one.get_by_text("No connection: what you write is kept on this device and sent later")).to_be_visible()
        self.write(two, " Meanwhile.")
        expect(two.get_by_text("Everything is saved")).to_be_visible()
        # The lid is closed, and another page of the application opened later.
        one.wait_for_timeout(500)
        one.goto("about:blank")
        one.context.set_offline(False)
        one.goto(f"{self.live_server_url}{self.address(self.thandi)}")
        for page in (one, two):
            expect(self.text(page)).to_contain_text("On my own.")
            expect(self.text(page)).to_contain_text("Meanwhile.")

    def test_staff_ask_close_take_away_and_put_back(self) -> None:
        self.expected_complaints.append("403")
        student = self.opened(self.thandi)
        self.write(student, "Something silly.")
        expect(student.get_by_text("Everything is saved")).to_be_visible()
        lead = self.page(self.eight.lead, self.address(self.josh))
        expect(self.text(lead)).to_contain_text("Something silly.")
        lead.get_by_role("button", name="Ask a question").click()
        lead.keyboard.type("Who would notice?")
        lead.keyboard.press("Enter")
        expect(student.get_by_text("Who would notice?")).to_be_visible()
        lead.get_by_role("button", name="Passage of Thandi D.").click()
        lead.get_by_role("menuitem", name="Take this passage away").click()
        expect(lead.get_by_text("The passage is taken off the page, and kept.")).to_be_visible()
        expect(self.text(student)).not_to_contain_text("Something silly.")
        self.assertEqual(SharedTaken.objects.get().text, "Something silly.")
        undo(lead)
        expect(self.text(student)).to_contain_text("Something silly.")
        lead.get_by_role("button", name="Close the page").click()
        expect(student.get_by_text("Your teacher has closed this page for now.")).to_be_visible()
        expect(self.text(student)).to_have_attribute("aria-readonly", "true")
        lead.get_by_role("button", name="Open the page").click()
        expect(self.text(student)).to_have_attribute("aria-readonly", "false")
        self.no_violation(lead)

    def test_one_press_hands_in_for_all_of_them_what_was_typed_a_moment_ago(self) -> None:
        self.expected_complaints.append("403")
        self.eight.handin(self.plan, title="What could go wrong?", now=self.now)
        one, two = self.opened(self.thandi), self.opened(self.josh)
        self.write(one, "The thunder comes too late.")
        expect(self.text(two)).to_contain_text("The thunder comes too late.")
        self.write(two, " People hear it.")
        two.get_by_role("button", name="Hand in for the 2 of us").click()
        expect(two.get_by_role("link", name="Receipt as PDF")).to_be_visible()
        expect(two.get_by_text("The thunder comes too late. People hear it.").first).to_be_visible()
        for page in (one, two):
            expect(self.text(page)).to_have_attribute("aria-readonly", "true")
        one.reload()
        expect(one.get_by_role("link", name="Receipt as PDF")).to_be_visible()
        self.assertEqual(Submission.objects.count(), 2)
        frozen = {made.snapshot["pockets"][0]["evidence"][0]["text"] for made in Submission.objects.all()}
        self.assertEqual(frozen, {"The thunder comes too late. People hear it."})

    def test_who_did_what_is_confirmed_by_each_and_one_mark_is_for_all(self) -> None:
        handin = self.eight.handin(self.plan, title="What could go wrong?", points=20, now=self.now)
        one, two = self.opened(self.thandi), self.opened(self.josh)
        self.write(one, "The thunder comes too late.")
        expect(self.text(two)).to_contain_text("The thunder comes too late.")
        parts = [page.get_by_role("region", name="Who did what") for page in (one, two)]
        parts[0].get_by_label("What I did").fill("Found what goes wrong.")
        parts[0].get_by_role("button", name="Keep it").click()
        expect(parts[1].get_by_text("Found what goes wrong.")).to_be_visible()
        parts[1].get_by_label("What I did").fill("Tried it out.")
        # Typed and not kept yet: it is there after a reload.
        two.wait_for_timeout(400)
        two.reload()
        expect(parts[1].get_by_label("What I did")).to_have_value("Tried it out.")
        parts[1].get_by_role("button", name="Keep it").click()
        expect(parts[0].get_by_text("Tried it out.")).to_be_visible()
        for part in parts:
            part.get_by_role("button", name="What all of us say is right").click()
            expect(part.get_by_text("You have confirmed what all of you say.")).to_be_visible()
        self.no_violation(two)
        two.get_by_role("button", name="Hand in for the 2 of us").click()
        expect(two.get_by_role("link", name="Receipt as PDF")).to_be_visible()
        made = Submission.objects.get(enrolment=self.josh.enrolment)
        desk = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile/{made.pk}")
        expect(
            desk.get_by_role("region", name="Who did what").get_by_text("says that all of it is right")
        ).to_have_count(2)
        # For one alone it needs a reason; for all it is one press.
        desk.get_by_label("Score").fill("16")
        everybody = desk.get_by_role("checkbox", name="For all 2 who handed this in together.")
        expect(everybody).to_be_checked()
        everybody.uncheck()
        desk.get_by_role("button", name=re.compile("^Accept")).click()
        expect(desk.get_by_text("a mark for one of them alone needs a reason", exact=False)).to_be_visible()
        self.expected_complaints.append("422")
        self.no_violation(desk)
        everybody.check()
        desk.get_by_role("button", name=re.compile("^Accept")).click()
        expect(desk.get_by_text("accepted", exact=False).first).to_be_visible()
        expect(desk.get_by_text("The pile is empty")).to_be_visible()
        marks = ReleasedMark.objects.filter(outcome__submission__handin=handin, outcome__voided_at=None)
        self.assertEqual([float(one.score or 0) for one in marks], [16, 16])
        desk.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/pile/{made.pk}")
        desk.get_by_role("button", name="Reopen for Josh alone").click()
        desk.get_by_label("Score").fill("12")
        desk.get_by_label("Why this student alone").fill("Was away for two lessons.")
        desk.get_by_role("button", name=re.compile("^Accept")).click()
        expect(desk.get_by_text("accepted", exact=False).first).to_be_visible()
        two.reload()
        expect(
            two.get_by_text("A mark of your own, apart from your group: Was away for two lessons.").first
        ).to_be_visible()

    def test_whatever_the_editor_makes_is_taken_from_two_who_do_it_at_once(self) -> None:
        pages = [self.opened(self.thandi), self.opened(self.josh)]
        dealer = random.Random(15)
        keys = ("Enter", "Enter", "Backspace", "Home", "ArrowUp", "Control+b", "Control+z", "Shift+ArrowLeft", "Delete")
        tools = ("List", "Numbered list", "Heading", "Quotation", "Bold")
        for page in pages:
            self.text(page).click()
        for _ in range(90):
            page = dealer.choice(pages)
            what = dealer.random()
            if what < 0.5:
                page.keyboard.type(dealer.choice(("rain ", "é", "😀", "hook. ", "the sign")))
            elif what < 0.85:
                page.keyboard.press(dealer.choice(keys))
            else:
                page.get_by_role("button", name=dealer.choice(tools), exact=True).click()
        for page in pages:
            page.keyboard.type(" done")
            expect(page.get_by_text("Everything is saved")).to_be_visible()
        for page in pages:
            expect(self.text(page)).to_have_text(re.compile("done.*done", re.DOTALL))
        first, second = (self.text(page).inner_text() for page in pages)
        self.assertEqual(first, second)
        settling.settle(SharedPage.objects.get().pk, self.now)
        kept = Evidence.objects.get(portfolio=self.thandi, pocket=self.plan).text
        self.assertEqual("".join(kept.split()), "".join(first.split()))

    def test_an_earlier_moment_is_looked_at_and_brought_back_by_keys(self) -> None:
        student = self.opened(self.thandi)
        self.write(student, "The first thought.")
        expect(student.get_by_text("Everything is saved")).to_be_visible()
        settling.settle(SharedPage.objects.get().pk, self.now)
        self.assertEqual(Evidence.objects.get(portfolio=self.josh, pocket=self.plan).text, "The first thought.")
        student.keyboard.press("Control+a")
        student.keyboard.type("Something else.")
        expect(student.get_by_text("Everything is saved")).to_be_visible()
        lead = self.page(self.eight.lead, self.address(self.thandi))
        expect(self.text(lead)).to_contain_text("Something else.")
        lead.get_by_role("button", name="Earlier moments").press("Enter")
        dialog = lead.get_by_role("dialog", name="Earlier moments")
        dialog.get_by_role("button", name="Look at it").press("Enter")
        expect(dialog.get_by_text("The first thought.")).to_be_visible()
        self.no_violation(lead)
        dialog.get_by_role("button", name="Bring it back").press("Enter")
        expect(self.text(student)).to_have_text("The first thought.")

    def test_a_page_is_set_up_to_be_filled_together(self) -> None:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/template")
        page.get_by_role("button", name="What could go wrong?").first.click()
        expect(page.get_by_label("It is filled")).to_have_value("class")
        expect(page.get_by_label("what is asked is asked of each one's own words")).to_be_checked()

    def test_on_a_phone_and_a_tablet_the_names_stand_over_the_passages(self) -> None:
        for size in (PHONE, TABLET):
            page = self.opened(self.josh, size=size)
            self.write(page, "Half the harbour stays dry. ")
            expect(page.get_by_text(re.compile("^Josh E., "))).to_be_visible()
            self.fits(page)
            self.no_violation(page)
            page.close()


class Things(BrowserCase):
    """A pocket of artefacts and a log that a group fills, and a passage taken into a pocket of one's own."""

    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")

    def opened(self, book: Portfolio, pocket: Pocket, **more: tuple[int, int]) -> Page:
        return self.page(book.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{book.pk}/{pocket.pk}", **more)

    def test_what_one_puts_in_the_others_see_with_who_and_change_nothing_of_it(self) -> None:
        finds = self.eight.pocket("Props", shared="class", reflection_on_each=False)
        two = self.opened(self.josh, finds, size=TABLET)
        expect(two.get_by_text("You fill this together")).to_be_visible()
        builders.add_picture(self.thandi, finds, self.now, "lantern.jpg")
        run_waiting()
        card = two.get_by_role("listitem").filter(has_text="lantern.jpg")
        expect(card).to_be_visible()
        expect(card.get_by_text("from Thandi D.")).to_be_visible()
        expect(card.get_by_role("button", name=re.compile("^(Put in the bin|Rename|New title|Earlier)"))).to_have_count(
            0
        )
        picture = card.locator("img").first
        expect(picture).to_have_js_property("complete", True)
        self.assertGreater(picture.evaluate("one => one.naturalWidth"), 0, "its bytes are for all of them")
        self.no_violation(two)
        # Taken out again by whose it is, it goes by itself.
        one = self.opened(self.thandi, finds)
        one.get_by_role("button", name="Put in the bin: lantern.jpg").click()
        expect(one.get_by_text("“lantern.jpg” is in the bin")).to_be_visible()
        run_waiting()
        expect(card).to_have_count(0)
        lead = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/look/{finds.pk}")
        expect(lead.get_by_text("with Ellery, Josh")).to_be_visible()

    def test_a_log_of_all_says_who_wrote_each_row(self) -> None:
        log = crop_log(self.eight, shared="class")
        rows.add_row(
            self.thandi.enrolment.person, self.thandi.pk, log.pk, {"day": f"{self.today}", "grams": "120"}, self.now
        )
        run_waiting()
        page = self.opened(self.josh, log)
        row = page.get_by_role("row").filter(has_text="120")
        expect(row.get_by_text("from Thandi D.")).to_be_visible()
        expect(row.get_by_role("button", name="Change this row")).to_have_count(0)
        self.no_violation(page)
        page.set_viewport_size({"width": PHONE[0], "height": PHONE[1]})
        expect(page.get_by_text("from Thandi D.")).to_be_visible()
        self.no_violation(page)

    def test_a_passage_goes_into_a_pocket_of_ones_own_and_out_again(self) -> None:
        plan = self.eight.pocket("What could go wrong?", "page", shared="class")
        ideas = self.eight.pocket("My ideas", artefacts=1, reflection_on_each=False)
        self.eight.pocket("A log", "log")
        one, two = self.opened(self.thandi, plan), self.opened(self.josh, plan, size=TABLET)
        for page, words in ((one, "A drum of tin. "), (two, "And rope.")):
            text = page.get_by_role("textbox", name="What could go wrong?, filled together")
            text.click()
            page.keyboard.press("Control+End")
            page.keyboard.type(words)
            expect(page.get_by_text("Everything is saved")).to_be_visible()
            for each in (one, two):
                expect(each.get_by_role("textbox").first).to_contain_text(words.strip())
        two.get_by_role("button", name="Passage of Thandi D., Josh E.").click()
        two.get_by_role("menuitem", name="Put it into a pocket of mine").click()
        dialog = two.get_by_role("dialog", name="Put this passage into a pocket")
        expect(dialog.get_by_label("Pocket")).to_have_value(str(ideas.pk))
        self.no_violation(two)
        dialog.get_by_role("button", name="Put it in").click()
        expect(two.get_by_text("The passage is in “My ideas”.")).to_be_visible()
        mine = self.opened(self.josh, ideas)
        expect(mine.get_by_role("blockquote")).to_contain_text("A drum of tin.")
        expect(mine.get_by_role("blockquote")).to_contain_text("Thandi D.")
        expect(mine.get_by_text("From “What could go wrong?”")).to_be_visible()
        self.no_violation(mine)
        undo(two)
        expect(two.get_by_text("The passage was taken out again.")).to_be_visible()
        self.assertTrue(Evidence.objects.filter(pocket=ideas, removed_at__isnull=False).exists())

    def test_a_page_is_begun_with_classmates_where_staff_allow_it(self) -> None:
        lead = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/setup/groups")
        allowed = lead.get_by_label("Students may begin pages of their own with classmates whom they choose")
        allowed.click()
        expect(lead.get_by_text("Students may begin pages with classmates.")).to_be_visible()
        expect(allowed).to_be_checked()
        self.no_violation(lead)
        one = self.page(self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}", PHONE)
        one.get_by_role("button", name="New page with others").click()
        dialog = one.get_by_role("dialog", name="A page with others")
        expect(dialog.get_by_label("What it is called")).to_be_focused()
        one.keyboard.type("Sounds of the storm")
        self.expected_complaints.append("422")
        one.keyboard.press("Enter")
        expect(dialog.get_by_text("Nobody is chosen yet.")).to_be_visible()
        dialog.get_by_label("Josh E.").check()
        expect(dialog.get_by_text("1 is chosen")).to_be_visible()
        self.no_violation(one)
        dialog.get_by_role("button", name="Begin it").click()
        mine = one.get_by_role("textbox", name="Sounds of the storm, filled together")
        expect(mine).to_be_visible()
        two = self.page(self.josh.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.josh.pk}")
        two.get_by_role("link", name="Sounds of the storm").click()
        theirs = two.get_by_role("textbox", name="Sounds of the storm, filled together")
        theirs.click()
        two.keyboard.type("Gravel in a tin.")
        expect(mine).to_contain_text("Gravel in a tin.")
        self.no_violation(two)
        # The staff look in at it among the pages of all, once more by the key.
        lead.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/look/own")
        expect(lead.get_by_role("link", name=re.compile("Sounds of the storm"))).to_have_count(1)
        expect(lead.get_by_text(re.compile("^with (Dube, Thandi|Ellery, Josh)$"))).to_be_visible()
        self.no_violation(lead)
        lead.keyboard.press("n")
        expect(lead.get_by_role("textbox", name="Sounds of the storm, filled together")).to_contain_text("Gravel")
        expect(lead.get_by_role("button", name="Ask a question")).to_be_visible()
