"""A teacher asks when work comes and who needs a word."""

import re
from datetime import timedelta

from playwright.sync_api import expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandInStudent
from coatpeg.people.models import Enrolment
from tests import builders
from tests.browser.case import BrowserCase


class Patterns(BrowserCase):
    def test_the_curve_who_is_usually_late_and_who_is_behind(self) -> None:
        eight = self.plot()
        card = eight.pocket()
        thandi, josh = eight.student(None, "Thandi", "Dube"), eight.student(None, "Josh", "Ellery")
        before = self.now - timedelta(days=30)
        for title, due in (("Soil test", 12), ("Recipe card", 5)):
            handin = eight.handin(card, title=title, opens=self.day(-25), due=self.day(-due), now=before)
            builders.hand_in(thandi, handin, self.now - timedelta(days=due + 2), even_if_empty=True)
            builders.hand_in(josh, handin, self.now - timedelta(days=due - 3), even_if_empty=True)
            builders.mark(eight.lead, thandi.enrolment.submissions.get(handin=handin), self.now, accept=False)
        builders.fill(thandi, card, self.now)
        page = self.page(eight.lead, f"/g/{eight.group.pk}/pegs")
        page.get_by_role("button", name="Patterns", exact=True).click()
        came = page.get_by_role("listitem").filter(has=page.get_by_role("link", name="Soil test"))
        expect(came).to_contain_text("2 of 2 in")
        expect(came).to_contain_text("1 late")
        expect(came.get_by_role("img", name="How Soil test came in")).to_be_visible()
        self.no_violation(page)
        expect(page.get_by_role("main")).to_contain_text("2 of 2 late")
        page.get_by_role("button", name="To mark").click()
        expect(page.get_by_role("main")).not_to_contain_text("Dube, Thandi")
        # The curves are of those who are shown, on paper too.
        expect(came).to_contain_text("1 of 1 in")
        text = "".join(self.printed(page))
        self.assertTrue(text.startswith("8Plot·Growing&Cooking·Tomark·"), text[:80])
        self.assertIn("1of2students", text)
        self.assertNotIn("Newhand-in", text)
        page.get_by_role("button", name="To mark").click()
        expect(page.get_by_role("main")).to_contain_text("Dube, Thandi")
        page.get_by_role("link", name="Recipe card").first.click()
        expect(page.get_by_role("grid")).to_be_visible()

    def test_who_follows_students_over_their_classes_sees_where_too_much_falls_together(self) -> None:
        eight, support = self.plot(), builders.klass("Support", "lindqvist", "caseload", today=self.today)
        card = eight.pocket()
        thandi, josh = eight.student(None, "Thandi", "Dube"), eight.student(None, "Josh", "Ellery", period="P4")
        Enrolment.objects.create(
            group=support.group, person=thandi.enrolment.person, first=support.group.first, picture="leaf"
        )
        monday = self.today + timedelta(days=14 - self.today.weekday())
        for number in range(4):
            day = monday + timedelta(days=number)
            handin = eight.handin(card, title=f"Step {number}", opens=self.day(-9), due=day, now=self.now)
            if number == 0:
                # Josh has three that week.
                handin.whom = "but"
                handin.save()
                HandInStudent.objects.create(handin=handin, enrolment=josh.enrolment)
        page = self.page(eight.staff("head", Role.OBSERVER), f"/g/{eight.group.pk}/pegs?as=patterns")
        part = page.locator("section").filter(has=page.get_by_role("heading", name="Too much in one week")).last
        expect(part).to_contain_text("4 hand-ins or more for one student")
        expect(part.get_by_role("heading", name=re.compile("^Week of"))).to_have_count(1)
        expect(part.get_by_role("listitem").filter(has_text="4 due").last).to_have_text("Dube, Thandi4 due")
        expect(part).not_to_contain_text("Ellery")
        self.no_violation(page)
        lead = self.page(eight.lead, f"/g/{eight.group.pk}/pegs?as=patterns")
        expect(lead.get_by_role("heading", name="Filled by now")).to_be_visible()
        expect(lead.get_by_role("heading", name="Too much in one week")).to_have_count(0)
        coordinator = self.page(support.lead, f"/g/{support.group.pk}/caseload")
        coordinator.get_by_text(re.compile("^Too much in one week: 4 due in the week of")).click()
        expect(coordinator.get_by_role("listitem").filter(has_text=re.compile("^Step 2"))).to_contain_text("(8 Plot")
        self.no_violation(coordinator)
