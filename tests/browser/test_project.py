"""A group's project as a person's story: formed, with material, a place for each, one hand-in, two staff who comment."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from coatpeg.core.cupboard.items import ItemKind
from coatpeg.core.policy import Role
from coatpeg.cupboard import keeping
from coatpeg.handins.models import Submission
from coatpeg.outlines.models import Pocket, Section
from coatpeg.portfolios.models import Portfolio
from tests import builders
from tests.api.test_logs import column
from tests.background import run_waiting
from tests.browser.case import PHONE, TABLET, BrowserCase


class Project(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")
        self.noor = self.eight.student("noor", "Noor", "Amari")
        section = Section.objects.create(template=self.eight.template, title="Our scene", position=1)
        together = {"section": section, "shared": "group"}
        costs = {"columns": [column("prop", "Prop", "text", required=True), column("pence", "Pence", "number")]}
        self.research = self.pocket("Research", "evidence", 0, own_part=True, artefacts=1, **together)
        self.script = self.pocket("Script", "page", 1, **together)
        self.props = self.pocket("Props", "log", 2, rows=1, log=costs, **together)
        self.handin = self.eight.handin(self.research, self.script, self.props, title="Our scene", now=self.now)
        plan = keeping.ItemPlan("How to cue a sound", "Project", html="<p>Wait for the sign.</p>")
        keeping.put_in(self.eight.lead, self.eight.group.pk, ItemKind.PAGE, plan, self.now)

    def pocket(self, title: str, kind: str, position: int, **fields: object) -> Pocket:
        return Pocket.objects.create(title=title, kind=kind, position=position, **fields)

    def at(self, book: Portfolio, pocket: Pocket, size: tuple[int, int] = TABLET) -> Page:
        return self.page(book.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{book.pk}/{pocket.pk}", size)

    def form(self) -> None:
        """The lead puts two of them into a group; the third is in none yet."""
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/setup/groups")
        page.get_by_label("Name of the set").fill("Crews")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="New group").click()
        page.keyboard.type("Sound")
        page.keyboard.press("Enter")
        expect(page.get_by_role("listitem", name="Sound")).to_be_visible()
        for name in ("Thandi Dube", "Josh Ellery"):
            page.get_by_role("button", name=name).click()
        page.get_by_label("Move to").select_option("Sound")
        page.get_by_role("button", name="Move", exact=True).click()
        expect(page.get_by_text("2 students moved to Sound.")).to_be_visible()

    def test_from_forming_to_one_hand_in_with_two_staff_who_comment(self) -> None:
        self.form()
        # Material is read beside the page that they write.
        one = self.at(self.thandi, self.script)
        one.get_by_role("button", name="Cupboard").click()
        drawer = one.get_by_role("complementary", name="Cupboard")
        drawer.get_by_role("button", name=re.compile("^How to cue a sound")).click()
        expect(drawer.get_by_text("Wait for the sign.")).to_be_visible()
        drawer.get_by_role("button", name="Close the cupboard").click()
        text = one.get_by_role("textbox", name="Script, filled together")
        text.click()
        one.keyboard.type("Cue 1: gulls.")
        two = self.at(self.josh, self.script, PHONE)
        theirs = two.get_by_role("textbox", name="Script, filled together")
        expect(theirs).to_contain_text("Cue 1: gulls.")
        theirs.click()
        two.keyboard.press("Control+End")
        two.keyboard.type(" Three calls.")
        expect(text).to_contain_text("Three calls.")
        # Each has a place for what they found, which the other reads and does not change.
        for book, name, colour in ((self.thandi, "gulls.jpg", (1, 2, 3)), (self.josh, "tin.jpg", (9, 9, 9))):
            builders.add_picture(book, self.research, self.now, name, builders.jpeg(colour))
        run_waiting()
        found = self.at(self.josh, self.research)
        expect(found.get_by_text("from Thandi D.")).to_be_visible()
        expect(found.get_by_role("list", name="Still wanted").get_by_text("1 of 1 thing")).to_be_visible()
        props = self.at(self.thandi, self.props)
        props.get_by_label("Prop").first.fill("Gravel in a tin")
        props.get_by_role("button", name="Add the row").click()
        expect(props.get_by_role("row").filter(has_text="Gravel in a tin")).to_be_visible()
        # One press is for both; the third student is not theirs.
        two.get_by_role("button", name="Hand in for the 2 of us").click()
        expect(two.get_by_role("link", name="Receipt as PDF")).to_be_visible()
        made = Submission.objects.get(enrolment=self.josh.enrolment)
        self.assertEqual(
            set(Submission.objects.values_list("enrolment", flat=True)),
            {self.josh.enrolment.pk, self.thandi.enrolment.pk},
        )
        for each in Submission.objects.all():
            research, script, log = each.snapshot["pockets"]
            self.assertEqual({piece["artefact"]["title"] for piece in research["evidence"]}, {"gulls.jpg", "tin.jpg"})
            self.assertEqual(script["evidence"][0]["text"], "Cue 1: gulls. Three calls.")
            self.assertEqual([row["values"]["prop"] for row in log["log"]["rows"]], ["Gravel in a tin"])
        # Two staff, from two rooms: each reads what the other said, by name and time.
        second = self.eight.staff("marsh", Role.CO_TEACHER)
        builders.say(made, self.eight.lead, "Which gulls are these?")
        builders.say(made, second, "Ask the harbour office for a recording.")
        for who, other in ((self.eight.lead, "Ask the harbour office"), (second, "Which gulls are these?")):
            desk = self.page(who, f"/g/{self.eight.group.pk}/pile/{made.pk}")
            expect(desk.get_by_text(re.compile(other)).first).to_be_visible()
            self.no_violation(desk)
        lead = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile/{made.pk}")
        lead.get_by_label("Score").fill("25")
        lead.get_by_role("button", name=re.compile("^Accept")).click()
        expect(lead.get_by_text("The pile is empty")).to_be_visible()
        one.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/feedback")
        expect(one.get_by_text("25").first).to_be_visible()
