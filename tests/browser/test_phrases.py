"""Phrases at the desk: found by letters, filled in, kept, shared; the pile in another order, worked off by keys."""

import re
from datetime import timedelta

from playwright.sync_api import Locator, Page, expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import Submission
from coatpeg.marking.models import Phrase, ReleasedMark
from coatpeg.people.models import Person
from tests import builders
from tests.browser.case import BrowserCase, undo


class Phrases(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        card, menu = self.eight.pocket(), self.eight.pocket("Menu", artefacts=1)
        names = (("josh", "Josh", "Ellery", "P4"), ("thandi", "Thandi", "Dube", "P3"), ("sam", "Sam", "Reyes", "P3"))
        books = [self.eight.student(user, given, family, period=period) for user, given, family, period in names]
        handins = [
            self.eight.handin(one, title=one.title, due=self.day(-4), opens=self.day(-30), now=self.now - timedelta(20))
            for one in (card, menu)
        ]
        for number, book in enumerate(books):
            at = self.now - timedelta(minutes=40 - number)
            builders.hand_in(book, handins[number % 2], at, even_if_empty=True)
        self.pile = f"/g/{self.eight.group.pk}/pile"

    def phrase(self, text: str, *, shared: bool = False) -> Phrase:
        made = Phrase.objects.create(person=self.eight.lead, text=text, changed_at=self.now)
        if shared:
            made.shared.add(self.eight.group)
        return made

    def feedback(self, page: Page) -> Locator:
        return page.get_by_role("textbox", name="Feedback")

    def test_a_semicolon_and_letters_find_a_phrase_that_is_said_and_sent_by_the_keyboard_alone(self) -> None:
        self.phrase("Well begun, {name}. Still missing: {missing}.")
        self.phrase("Show your sums.")
        page = self.page(self.eight.lead, self.pile)
        expect(page.get_by_role("heading", name="Ellery, Josh")).to_be_visible()
        page.keyboard.press("f")
        expect(self.feedback(page)).to_be_focused()
        page.keyboard.type("Hello. ;")
        offered = page.get_by_role("listbox", name="Phrases that fit").get_by_role("option")
        expect(offered).to_have_count(2)
        self.no_violation(page)
        page.keyboard.type("beg")
        expect(offered).to_have_text(["Well begun, Josh. Still missing: 0 of 2 artefacts, reflection · 2–3 sentences."])
        page.keyboard.press("Enter")
        said = "Hello. Well begun, Josh. Still missing: 0 of 2 artefacts, reflection · 2–3 sentences."
        expect(self.feedback(page)).to_have_value(said)
        page.keyboard.type(" ;s")
        expect(offered).to_have_text(["Show your sums.", re.compile("^Well begun")])
        page.keyboard.press("ArrowDown")
        page.keyboard.press("ArrowUp")
        page.keyboard.press("Tab")
        said += " Show your sums."
        expect(self.feedback(page)).to_have_value(said)
        page.keyboard.type(" ;-) ;zzz")
        expect(offered).to_have_count(0)
        page.keyboard.press("Enter")
        page.keyboard.press("Control+Shift+Enter")
        expect(page.get_by_role("button", name="Send back and next")).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Dube, Thandi")).to_be_visible()
        self.assertEqual(ReleasedMark.objects.get().feedback, f"{said} ;-) ;zzz\n")

    def test_what_was_said_to_several_becomes_one_note_to_the_class_and_is_taken_back(self) -> None:
        self.phrase("Well begun, {name}. {name}, show your sums.")
        self.phrase("Said to one, {name}.")
        page = self.page(self.eight.lead, self.pile)
        expect(page.get_by_role("heading", name="Ellery, Josh")).to_be_visible()
        for number, name in enumerate(("Josh", "Sam")):
            one = Submission.objects.get(enrolment__person__given_name=name)
            words = f"Well begun, {name}. {name}, show your sums." + (f" Said to one, {name}." if number else "")
            builders.mark(self.eight.lead, one, self.now, feedback=words, score=10)
        page.reload()
        page.goto(f"{self.live_server_url}{self.pile}/{Submission.objects.get(enrolment__person__given_name='Sam').pk}")
        expect(page.get_by_role("heading", name="Reyes, Sam")).to_be_visible()
        page.goto(f"{self.live_server_url}{self.pile}")
        expect(page.get_by_role("heading", name="Dube, Thandi")).to_be_visible()
        page.get_by_role("button", name="Phrases").click()
        page.get_by_role("button", name="A note to the class …").click()
        words = page.get_by_label("What all of them should hear")
        expect(words).to_be_focused()
        words.fill(f"{words.input_value()}Weigh it first.")
        self.no_violation(page)
        page.get_by_role("button", name="Tell the class").click()
        expect(page.get_by_text("The class is told.")).to_be_visible()
        student = self.page(Person.objects.get(username="thandi"), f"/g/{self.eight.group.pk}/feedback")
        told = student.get_by_role("list", name="To the class")
        expect(told).to_contain_text("Weigh it first.")
        self.no_violation(student)
        undo(page)
        expect(page.get_by_text("The note is taken back.")).to_be_visible()
        expect(told).to_have_count(0)

    def test_escape_closes_the_list_and_a_click_takes_one(self) -> None:
        self.phrase("Show your sums.")
        page = self.page(self.eight.lead, self.pile)
        self.feedback(page).click()
        page.keyboard.type(";s")
        offered = page.get_by_role("option", name="Show your sums.")
        expect(offered).to_be_visible()
        page.keyboard.press("Escape")
        expect(offered).to_have_count(0)
        page.keyboard.type("h ;sh")
        offered.click()
        expect(self.feedback(page)).to_have_value(";sh Show your sums.")
        expect(self.feedback(page)).to_be_focused()
        page.reload()
        expect(self.feedback(page)).to_have_value(";sh Show your sums.")

    def test_kept_from_what_was_written_shared_changed_dropped_and_back(self) -> None:
        self.expected_complaints.append("422")
        page = self.page(self.eight.lead, self.pile)
        self.feedback(page).fill("Say where your prices come from, Josh.")
        self.feedback(page).press("Control+A")
        page.get_by_role("button", name="Phrases").click()
        dialog = page.get_by_role("dialog", name="Phrases")
        new = dialog.get_by_label("New phrase")
        expect(new).to_have_value("Say where your prices come from, {name}.")
        dialog.get_by_label("Staff of this class find it too").check()
        self.no_violation(page)
        dialog.get_by_role("button", name="Keep it").click()
        own = dialog.get_by_role("region", name="Mine, in all my classes").get_by_role("listitem")
        expect(own).to_have_text([re.compile("prices.*shared here")])
        expect(new).to_have_value("")
        new.fill("say where your prices  come from, {name}.")
        dialog.get_by_role("button", name="Keep it").click()
        expect(dialog.get_by_text("You have this phrase already.")).to_be_visible()
        expect(new).to_have_value("say where your prices  come from, {name}.")
        dialog.get_by_role("button", name=re.compile("^Change “Say where")).click()
        own.get_by_label("Words of the phrase").fill("Say where each price comes from.")
        own.get_by_role("button", name="Save").click()
        expect(own).to_have_text([re.compile("^Say where each price comes from.shared here")])
        dialog.get_by_role("button", name=re.compile("^Drop “Say where")).click()
        expect(own).to_have_count(0)
        dialog.press("Escape")
        undo(page)
        expect(page.get_by_text("The phrase is back.")).to_be_visible()
        marker = self.page(self.eight.staff("marsh", Role.MARKER), self.pile)
        self.feedback(marker).fill("")
        self.feedback(marker).press_sequentially(";price")
        expect(marker.get_by_role("option", name="Say where each price comes from.")).to_be_visible()

    def test_the_pile_in_another_order_of_one_hand_in_by_keys(self) -> None:
        page = self.page(self.eight.lead, self.pile)
        pile = page.get_by_role("region", name="3 to mark")
        lines = pile.get_by_role("listitem")
        expect(lines).to_have_text([re.compile("^Ellery"), re.compile("^Dube"), re.compile("^Reyes")])
        pile.get_by_role("button", name="Order: oldest first").click()
        page.get_by_role("option", name="by student").click()
        expect(lines).to_have_text([re.compile("^Dube"), re.compile("^Ellery"), re.compile("^Reyes")])
        for key, name in (("n", "Reyes, Sam"), ("n", "Dube, Thandi"), ("b", "Reyes, Sam"), ("b", "Ellery, Josh")):
            page.keyboard.press(key)
            expect(page.get_by_role("heading", name=name)).to_be_visible()
        pile.get_by_role("button", name="Hand-in: All hand-ins").click()
        page.get_by_role("option", name="Recipe card (2)").click()
        shown = page.get_by_role("region", name="2 to mark").get_by_role("listitem")
        expect(shown).to_have_text([re.compile("^Ellery"), re.compile("^Reyes")])
        page.reload()
        expect(shown).to_have_text([re.compile("^Ellery"), re.compile("^Reyes")])
        self.no_violation(page)
        for name in ("Ellery, Josh", "Reyes, Sam"):
            expect(page.get_by_role("heading", name=name)).to_be_visible()
            page.keyboard.press("Control+Enter")
        expect(page.get_by_text("Nothing that is shown here waits any more")).to_be_visible()
        page.get_by_role("button", name="Go on with the other 1 that waits").click()
        expect(page.get_by_role("heading", name="Dube, Thandi")).to_be_visible()
        page.keyboard.press("Control+Enter")
        expect(page.get_by_text("The pile is empty")).to_be_visible()
