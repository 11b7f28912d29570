"""Groups: a set formed by hand and at random by a teacher, chosen by students on a phone; the pocket follows."""

import re

from playwright.sync_api import Page, expect

from coatpeg.people.models import GroupMember, GroupSet, WorkingGroup
from tests.browser.case import PHONE, BrowserCase, undo


class Groups(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.books = [self.eight.student(name.lower(), name, "Dube") for name in ("Ana", "Bo", "Cy", "Di", "Ed", "Flo")]

    def opened(self) -> Page:
        return self.page(self.eight.lead, f"/g/{self.eight.group.pk}/setup/groups")

    def made(self, *names: str) -> GroupSet:
        crews = GroupSet.objects.create(group=self.eight.group, name="Crews")
        for name in names:
            WorkingGroup.objects.create(group=self.eight.group, of=crews, name=name)
        return crews

    def inside(self, name: str) -> list[str]:
        rows = GroupMember.objects.filter(workinggroup__name=name).order_by("enrolment__person__given_name")
        return list(rows.values_list("enrolment__person__given_name", flat=True))

    def test_a_first_set_by_hand_moved_dragged_and_undone(self) -> None:
        page = self.opened()
        expect(page.get_by_role("heading", name="There are no groups yet")).to_be_visible()
        page.get_by_label("Name of the set").fill("Crews")
        page.keyboard.press("Enter")
        for name in ("Lights", "Sound"):
            page.get_by_role("button", name="New group").click()
            page.keyboard.type(name)
            page.keyboard.press("Enter")
            expect(page.get_by_role("listitem", name=name)).to_be_visible()
        for name in ("Ana Dube", "Bo Dube", "Cy Dube"):
            page.get_by_role("button", name=name).click()
        page.get_by_label("Move to").select_option("Lights")
        page.get_by_role("button", name="Move", exact=True).click()
        expect(page.get_by_text("3 students moved to Lights.")).to_be_visible()
        self.assertEqual(self.inside("Lights"), ["Ana", "Bo", "Cy"])
        page.get_by_role("listitem", name="Lights").get_by_text("Cy Dube").drag_to(
            page.get_by_role("listitem", name="Sound")
        )
        expect(page.get_by_text("1 student moved to Sound.")).to_be_visible()
        expect(page.get_by_role("listitem", name="Sound").get_by_text("Cy Dube")).to_be_visible()
        undo(page)
        expect(page.get_by_role("listitem", name="Lights").get_by_text("Cy Dube")).to_be_visible()
        # A name that is there already is refused where it is typed, and stays as it was typed.
        page.get_by_role("button", name="New group").click()
        page.keyboard.type("lights")
        page.keyboard.press("Enter")
        expect(page.get_by_text("There is a group called “Lights” in “Crews” already.")).to_be_visible()
        expect(page.get_by_label("Name of the group")).to_have_value("lights")
        self.expected_complaints.append("422")
        self.no_violation(page)

    def test_drawn_at_random_by_the_keyboard_with_two_never_together(self) -> None:
        self.made("Lights", "Sound")
        page = self.opened()
        for name in ("Ana Dube", "Bo Dube"):
            page.get_by_role("button", name=name).focus()
            page.keyboard.press("Space")
        page.get_by_role("button", name="Never together").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_text("Never together: Ana Dube, Bo Dube")).to_be_visible()
        page.get_by_role("button", name="Draw at random").focus()
        page.keyboard.press("Enter")
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Students in a group").fill("3")
        expect(dialog.get_by_text("2 groups of 6 students")).to_be_visible()
        expect(dialog.get_by_text("1 wish is kept.")).to_be_visible()
        self.no_violation(page)
        self.assertFalse(GroupMember.objects.exists())
        dialog.get_by_label("Students in a group").fill("6")
        expect(dialog.get_by_text("Ana Dube and Bo Dube are kept apart: 2 in 1 group.")).to_be_visible()
        self.expected_complaints.append("422")
        dialog.get_by_label("Students in a group").fill("3")
        dialog.get_by_role("button", name="Draw again").focus()
        page.keyboard.press("Enter")
        shown = dialog.get_by_role("listitem").filter(has_text="Lights")
        expect(shown).to_be_visible()
        dialog.get_by_role("button", name="Form these groups").focus()
        page.keyboard.press("Enter")
        expect(page.get_by_text("2 groups formed.")).to_be_visible()
        self.assertEqual(len(self.inside("Lights")), 3)
        self.assertNotEqual("Ana" in self.inside("Lights"), "Bo" in self.inside("Lights"))
        undo(page)
        expect(page.get_by_role("listitem", name="In no group")).to_be_visible()

    def test_chosen_by_students_on_a_phone_until_one_is_full(self) -> None:
        self.made("Lights", "Sound")
        plan = self.eight.pocket("Plan", "page", shared="group")
        page = self.opened()
        page.get_by_role("button", name="Let students choose").click()
        page.get_by_label("Until").fill("tomorrow")
        page.get_by_label("At most in a group").fill("2")
        expect(page.get_by_text("That is 2 too few")).to_be_visible()
        page.get_by_role("button", name="Let them choose").click()
        expect(page.get_by_text("Students choose until", exact=False)).to_be_visible()
        ana, bo = (self.page(book.enrolment.person, size=PHONE) for book in self.books[:2])
        for student in (ana, bo):
            student.get_by_role("button", name=re.compile("^Choose your group")).click()
        ana.get_by_role("button", name="Join Sound").click()
        expect(ana.get_by_text("You are in this group")).to_be_visible()
        self.no_violation(ana)
        # Two others are there by now, of which the screen does not know: what is full is refused, and seen.
        lights = WorkingGroup.objects.get(name="Lights")
        for book in self.books[2:4]:
            GroupMember.objects.create(workinggroup=lights, enrolment=book.enrolment)
        bo.get_by_role("button", name="Join Lights").click()
        expect(bo.get_by_text("“Lights” is full.")).to_be_visible()
        expect(bo.get_by_role("button", name="Join Lights")).to_have_attribute("aria-disabled", "true")
        self.expected_complaints.append("403")
        bo.get_by_role("button", name="Join Sound").click()
        expect(bo.get_by_text("You are in this group")).to_be_visible()
        bo.get_by_role("button", name="Done").click()
        expect(bo.get_by_role("button", name=re.compile("^Your group: Sound"))).to_be_visible()
        expect(page.get_by_role("listitem", name="Sound").get_by_text("Bo Dube")).to_be_visible()
        bo.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/portfolio/{self.books[1].pk}/{plan.pk}")
        expect(bo.get_by_role("textbox", name="Plan, filled together")).to_be_visible()
        page.get_by_role("button", name="End it now").click()
        expect(page.get_by_text("Students no longer choose.", exact=False)).to_be_visible()
        expect(ana.get_by_role("button", name=re.compile("group"))).to_have_count(0)
