"""Two markers: independently, then side by side; what the other has open; blind; ten marked by the keyboard alone."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking import commands
from coatpeg.marking.models import ReleasedMark
from coatpeg.marking.two import ruling
from tests import builders
from tests.browser.case import BrowserCase, undo

LEVELS = [{"key": key, "title": key, "points": points} for key, points in (("not yet", 0), ("mostly", 1), ("fully", 2))]
RUBRIC = {
    "levels": LEVELS,
    "criteria": [{"key": one, "title": one, "weight": 1, "says": ["", "", ""]} for one in ("Care", "Words")],
    "halves": False,
}


class Pile(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.pocket = self.eight.pocket("Soil", "page")
        self.first = self.eight.student("s0", "Kim0", "Dube")
        self.handin = self.eight.handin(self.pocket, title="Soil")
        HandIn.objects.filter(pk=self.handin.pk).update(rubric=RUBRIC)
        self.handin.refresh_from_db()
        self.pile = f"/g/{self.eight.group.pk}/pile"

    def handed(self, count: int) -> list[Submission]:
        books = [self.first, *(self.eight.student(f"s{at}", f"Kim{at}", "Dube") for at in range(1, count))]
        return [builders.hand_in(one, self.handin, self.now, even_if_empty=True) for one in books]

    def rule(self, **how: bool) -> None:
        ruling.rule(
            self.eight.lead, self.eight.group.pk, self.handin.pk, 0, self.now, **{"two": False, "blind": False, **how}
        )

    def test_two_mark_and_agree_and_who_looks_at_the_figures_sees_that_there_are_too_few(self) -> None:
        marsh = self.eight.staff("marsh", Role.MARKER)
        (one,) = self.handed(1)
        lead = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins/{self.handin.pk}/marking")
        lead.get_by_label("Two mark it independently").check()
        expect(lead.get_by_text("Saved.")).to_be_visible()
        self.no_violation(lead)
        lead.get_by_role("link", name=re.compile("Marking pile")).click()
        self.judge(lead, "3", "2")
        expect(lead.get_by_text("The pile is empty")).to_be_visible()
        other = self.page(marsh, f"{self.pile}/{one.pk}")
        expect(other.get_by_text("The other marker is done.")).to_be_visible()
        expect(other.get_by_role("button", name="Send back")).to_have_count(0)
        self.judge(other, "3", "1")
        # Now it waits again, for both, with both marks beside each other.
        lead.get_by_role("link", name=re.compile("to agree")).click()
        table = lead.get_by_role("table", name="Where you differ")
        expect(table.get_by_role("row").nth(1)).to_contain_text("fullyfully")
        expect(table.get_by_role("row").nth(2)).to_contain_text("mostlynot yet")
        self.no_violation(lead)
        expect(lead.get_by_text("1 criterion open")).to_be_visible()
        lead.get_by_role("radio", name=re.compile("mostly")).nth(1).check()
        lead.get_by_role("button", name="Accept and next").click()
        expect(lead.get_by_text("accepted.")).to_be_visible()
        mark = ReleasedMark.objects.get()
        self.assertEqual(mark.levels, {"Care": ["fully"], "Words": ["mostly"]})
        self.assertEqual(len(mark.agreed["marks"]), 2)
        lead.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/hand-ins/{self.handin.pk}/marking")
        expect(lead.get_by_text("too few to say")).to_have_count(3)
        expect(lead.get_by_role("link", name="Open the submission of Dube, Kim0")).to_be_visible()

    def test_a_sample_is_a_pile_of_its_own_that_is_stepped_through(self) -> None:
        for at, one in enumerate(self.handed(3)):
            levels = {"Care": ["fully"], "Words": [("not yet", "mostly", "fully")[at]]}
            commands.review(
                self.eight.lead, one.pk, Outcome.Kind.ACCEPTED, commands.Verdict("", None, levels), 0, self.now
            )
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins/{self.handin.pk}/marking")
        page.get_by_role("link", name="Look through them, one after the other").click()
        lines = page.get_by_role("region", name="3 to look at once more").get_by_role("listitem")
        expect(lines).to_have_count(3)
        seen = set()
        for _ in range(3):
            seen.add(page.get_by_role("heading", name="· Soil").inner_text())
            page.keyboard.press("n")
            page.wait_for_timeout(400)
        self.assertEqual(len(seen), 3)
        expect(page).to_have_url(re.compile("sample="))
        self.no_violation(page)
        page.get_by_role("link", name="Back to how they were marked").click()
        expect(page.get_by_role("heading", name="A sample to look at once more")).to_be_visible()

    def judge(self, page: Page, *digits: str) -> None:
        expect(page.get_by_text("2 criteria open")).to_be_visible()
        for digit in digits:
            page.keyboard.press(digit)
        page.keyboard.press("Control+Enter")

    def test_what_another_marker_has_open_is_marked_and_passed_over(self) -> None:
        marsh = self.eight.staff("marsh", Role.MARKER)
        first, second, third = self.handed(3)
        other = self.page(marsh, f"{self.pile}/{second.pk}")
        expect(other.get_by_text("2 criteria open")).to_be_visible()
        page = self.page(self.eight.lead, f"{self.pile}/{first.pk}")
        expect(page.get_by_text(f"{marsh.full_name} has it open")).to_be_visible()
        page.keyboard.press("n")
        expect(page).to_have_url(re.compile(f"/pile/{third.pk}"))

    def test_blind_there_is_no_name_at_the_desk_until_it_is_decided(self) -> None:
        self.rule(blind=True)
        (one,) = self.handed(1)
        page = self.page(self.eight.lead, f"{self.pile}/{one.pk}")
        expect(page.get_by_role("heading", name=f"{one.receipt} · Soil")).to_be_visible()
        self.assertNotIn("Kim0", page.inner_text("main"))
        self.judge(page, "3", "2")
        expect(page.get_by_text("The pile is empty")).to_be_visible()
        page.goto(f"{self.live_server_url}{self.pile}/{one.pk}")
        expect(page.get_by_role("heading", name="Dube, Kim0 · Soil")).to_be_visible()

    def test_ten_are_marked_by_the_keyboard_alone_with_three_keys_each(self) -> None:
        waiting = self.handed(10)
        page = self.page(self.eight.lead, self.pile)
        pressed = 0
        for at, one in enumerate(waiting):
            expect(page).to_have_url(re.compile(f"/pile/{one.pk}"))
            expect(page.get_by_role("heading", name=f"Dube, Kim{at} · Soil")).to_be_visible()
            expect(page.get_by_text("2 criteria open")).to_be_visible()
            for key in ("3", "2", "Control+Enter"):
                page.keyboard.press(key)
                pressed += 1
        expect(page.get_by_text("The pile is empty")).to_be_visible()
        self.assertEqual(pressed, 30)
        self.assertEqual(ReleasedMark.objects.filter(levels={"Care": ["fully"], "Words": ["mostly"]}).count(), 10)

    def test_all_that_is_drafted_for_a_hand_in_is_accepted_at_one_moment_and_undone(self) -> None:
        first, second, _ = self.handed(3)
        page = self.page(self.eight.lead, f"{self.pile}/{first.pk}")
        for one, digits in ((first, "32"), (second, "3")):
            page.goto(f"{self.live_server_url}{self.pile}/{one.pk}?of={self.handin.pk}")
            expect(page.get_by_text("2 criteria open")).to_be_visible()
            for digit in digits:
                page.keyboard.press(digit)
            expect(page.get_by_text("Draft saved")).to_be_visible()
        page.get_by_role("button", name="Accept all I have drafted").click()
        expect(page.get_by_text("1 draft of yours is complete")).to_be_visible()
        expect(page.get_by_text("1 is not complete and stays on the pile: Dube, Kim1")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Accept 1").click()
        expect(page.get_by_role("heading", name="2 to mark")).to_be_visible()
        self.assertEqual(ReleasedMark.objects.count(), 1)
        undo(page)
        expect(page.get_by_role("heading", name="3 to mark")).to_be_visible()
