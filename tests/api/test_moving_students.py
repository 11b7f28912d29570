"""A student moves to a parallel class with their work, and back."""

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.handins.models import Submission
from coatpeg.people.models import Enrolment, Period, StaffRole
from coatpeg.portfolios import counting
from coatpeg.portfolios.models import Artefact, Evidence, LogRow, LoosePage, Portfolio
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass

COLUMNS = [
    {"key": "day", "title": "Date", "type": "date", "required": True},
    {"key": "pic", "title": "", "type": "artefact"},
]


class Moving(ApiCase):
    """Thandi moves from 8 Plot to 8 Orchard, which was made like it; both are led by the same teacher."""

    def setUp(self) -> None:
        super().setUp()
        self.plot, self.orchard = klass(), klass("8 Orchard", "orchard")
        StaffRole.objects.create(group=self.orchard.group, person=self.plot.lead, role=Role.LEAD.value)
        self.card = self.plot.pocket("Recipe card")
        self.about = self.plot.pocket("About me", "page")
        self.log = self.plot.pocket("Crop log", "log", log={"columns": COLUMNS})
        self.only_here = self.plot.pocket("Plot diary", "page")
        self.there = {
            "card": self.orchard.pocket("Recipes", key=self.card.key),
            "about": self.orchard.pocket("about me", "page"),
            "log": self.orchard.pocket("Crop log", "log", log={"columns": COLUMNS}),
        }
        self.one = self.plot.student("thandi", period="Period 3")
        self.thandi = self.one.enrolment.person
        Period.objects.create(group=self.orchard.group, name="P3")

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def move(self, status: int = 200, **who: Any) -> Any:
        person, into = who.get("by", self.plot.lead), who.get("into", self.orchard.group.pk)
        path = f"/groups/{self.plot.group.pk}/roster/{self.one.enrolment.pk}/move"
        if status != 200:
            return self.problem(status, person, "POST", path, {"into": into})
        return self.ok(person, "POST", path, {"into": into})

    def write(self, pocket: Any, html: str) -> None:
        path = f"/portfolios/{self.one.pk}/pockets/{pocket.pk}/page"
        self.ok(self.thandi, "PUT", path, {"text": "", "html": html, "version": 0})

    def work(self) -> Evidence:
        """Two photos with a reflection each, handed in; a page with a picture in it; a row; a page of one's own."""
        first = builders.fill(self.one, self.card)
        builders.fill(self.one, self.card)
        builders.hand_in(self.one, self.plot.handin(self.card))
        picture = f'<img src="/api/artefacts/{first.artefact_id}/thumbnails/large" alt="a bed">'
        self.write(self.about, f"<p>I am Thandi.</p>{picture}")
        self.write(self.only_here, "<p>Only in the plot.</p>")
        row = {"values": {"day": str(TODAY), "pic": first.artefact_id}}
        self.ok(self.thandi, "POST", f"/portfolios/{self.one.pk}/pockets/{self.log.pk}/rows", row)
        LoosePage.objects.create(portfolio=self.one, title="Seeds", text="Mine.", words=1, sentences=1, changed_at=NOW)
        Portfolio.objects.filter(pk=self.one.pk).update(cover_title="What grew")
        return first

    def test_all_work_comes_along_as_copies_and_the_class_before_keeps_its_own(self) -> None:
        first = self.work()
        done = self.move()
        self.assertEqual((done["pieces"], done["left_behind"]), (5, ["Plot diary"]))
        new = Portfolio.objects.get(enrolment__group=self.orchard.group)
        self.assertEqual(
            (new.enrolment.person_id, new.enrolment.first, new.cover_title), (self.thandi.pk, TODAY, "What grew")
        )
        self.assertEqual(new.enrolment.periods.get().period.name, "P3", "the period of the same name")
        evidence = list(Evidence.objects.filter(portfolio=new, pocket=self.there["card"]))
        self.assertEqual([one.text for one in evidence], ["One thing. Another thing."] * 2)
        copy = evidence[0].artefact
        assert copy is not None
        assert first.artefact is not None
        self.assertEqual((copy.stored_id, copy.portfolio_id), (first.artefact.stored_id, new.pk))
        page = Evidence.objects.get(portfolio=new, pocket=self.there["about"])
        self.assertIn(f"/api/artefacts/{copy.pk}/thumbnails/large", page.html)
        self.assertEqual(LogRow.objects.get(portfolio=new).values["pic"], copy.pk)
        self.assertEqual(LoosePage.objects.get(portfolio=new).text, "Mine.")
        opened = self.ok(self.thandi, "GET", f"/portfolios/{new.pk}/pockets/{self.there['card'].pk}")
        self.assertEqual((opened["met"], opened["writable"], opened["locked_by"]), (4, True, []), "not handed in there")
        self.assertEqual(self.client_of(self.thandi).get(f"/api/artefacts/{copy.pk}/file").status_code, 200)
        # The class before: until today, read, and as it was.
        self.assertEqual(Enrolment.objects.get(pk=self.one.enrolment.pk).last, TODAY)
        self.assertEqual((Submission.objects.count(), Evidence.objects.filter(portfolio=self.one).count()), (1, 4))
        with self.at(NOW + timedelta(days=1)):
            self.assertFalse(
                self.ok(self.thandi, "GET", f"/portfolios/{self.one.pk}/pockets/{self.about.pk}")["writable"]
            )
        # Undone in both lists, in this order.
        for one in done["changes"]:
            self.ok(self.plot.lead, "POST", f"/groups/{one['group']}/roster/changes/{one['change']}/undo")
        self.assertEqual(Enrolment.objects.get().last, None)
        self.assertFalse(Artefact.objects.exclude(portfolio=self.one).exists())

    def test_it_is_not_undone_once_work_goes_on_there(self) -> None:
        self.work()
        into = self.move()["changes"][0]
        new = Portfolio.objects.get(enrolment__group=self.orchard.group)
        builders.fill(new, self.there["card"])
        path = f"/groups/{into['group']}/roster/changes/{into['change']}/undo"
        self.assertIn("Work has begun", self.problem(403, self.plot.lead, "POST", path)["title"])

    def test_who_was_there_before_comes_back_and_keeps_the_page_they_have(self) -> None:
        back = self.orchard.student(existing=self.thandi, last=TODAY - timedelta(days=9))
        Evidence.objects.create(
            portfolio=back,
            pocket=self.there["about"],
            text="Mine of before.",
            words=3,
            sentences=1,
            version=1,
            changed_at=NOW,
        )
        counting.refresh(back, self.there["about"], NOW)
        self.work()
        done = self.move()
        self.assertEqual(done["left_behind"], ["About me", "Plot diary"])
        self.assertEqual(Evidence.objects.get(portfolio=back, pocket=self.there["about"]).text, "Mine of before.")
        self.assertIsNone(Enrolment.objects.get(pk=back.enrolment.pk).last)

    def test_who_may_and_where_to(self) -> None:
        self.move(422, into=self.plot.group.pk)
        self.move(404, into=10**9)
        caseload = klass("Support", "support", kind="caseload")
        StaffRole.objects.create(group=caseload.group, person=self.plot.lead, role=Role.LEAD.value)
        self.move(422, into=caseload.group.pk)
        # Whoever keeps the list here but not there, and who leads no class of the student's.
        co = self.plot.staff("marsh", Role.CO_TEACHER)
        self.move(404, by=co)
        StaffRole.objects.create(group=self.orchard.group, person=co, role=Role.CO_TEACHER.value)
        self.move(404, by=co)
        self.orchard.student(existing=self.thandi)
        self.assertIn("is in “8 Orchard” already", self.move(403)["title"])
        Enrolment.objects.filter(pk=self.one.enrolment.pk).update(last=TODAY - timedelta(days=1))
        self.move(404)
