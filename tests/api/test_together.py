"""Two accounts of one student: put together with all their work, taken apart again."""

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Adjustment, Enrolment, Person, SignInCard
from coatpeg.portfolios.logs.rows import add_row
from coatpeg.portfolios.models import Evidence, LoosePage, Portfolio
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class Together(ApiCase):
    """*Thandi Dube* in 8 Plot, and *Thandi Dube* once more in 9 Forge."""

    def setUp(self) -> None:
        super().setUp()
        self.admin = builders.person("bright", administrator=True)
        self.plot, self.forge = klass(), klass("9 Forge", "forge")
        self.card, self.log = self.plot.pocket(), self.forge.pocket()
        self.one = self.plot.student("thandi")
        self.two = self.forge.student("thandi2", "Thandi", "Dube")
        self.kept, self.other = self.one.enrolment.person, self.two.enrolment.person
        Person.objects.filter(pk=self.other.pk).update(number="20101", email="thandi@larkfield.example")

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def body(self, **more: int) -> dict[str, int]:
        return {"kept": self.kept.pk, "other": self.other.pk, **more}

    def put(self) -> int:
        return int(self.ok(self.admin, "POST", "/accounts/together", self.body())["id"])

    def portfolios(self, person: Person) -> list[int]:
        groups = self.ok(person, "GET", "/session")["groups"]
        return [one["portfolio"] for one in groups]

    def both_in_plot(self) -> Portfolio:
        return self.plot.student(existing=self.other)

    def test_all_work_and_history_comes_over_and_goes_back(self) -> None:
        builders.fill(self.two, self.log)
        builders.fill(self.two, self.log)
        task = self.forge.handin(self.log)
        builders.hand_in(self.two, task)
        SignInCard.objects.create(person=self.other, group=self.forge.group, sha256="0" * 64, made_at=NOW)
        Adjustment.objects.create(person=self.other, extra_days=2, first=TODAY)
        events = Event.objects.count()
        means = self.ok(self.admin, "POST", "/accounts/together/look", self.body())
        self.assertEqual(means, {"moved": ["9 Forge"], "ended": [], "both": [], "locked": [], "handed_in": []})
        self.assertEqual((Event.objects.count(), self.portfolios(self.kept)), (events, [self.one.pk]), "only looked at")
        made = self.put()
        self.assertEqual(self.portfolios(self.kept), [self.one.pk, self.two.pk])
        opened = self.ok(self.kept, "GET", f"/portfolios/{self.two.pk}/pockets/{self.log.pk}")
        self.assertEqual((len(opened["evidence"]), opened["handins"][0]["status"]), (2, "handed_in"))
        self.kept.refresh_from_db()
        self.assertEqual((self.kept.number, self.kept.email), ("20101", "thandi@larkfield.example"))
        self.assertEqual(Adjustment.objects.get().person_id, self.kept.pk)
        self.assertIsNotNone(SignInCard.objects.get().voided_at)
        self.assertEqual(self.client_of(self.other).get(f"/api/portfolios/{self.two.pk}").status_code, 401)
        shown = self.ok(self.admin, "GET", "/accounts/students?text=dube")
        self.assertEqual([one["username"] for one in shown], ["thandi"])
        self.assertIn(
            "together", self.problem(403, self.admin, "PUT", f"/accounts/{self.other.pk}/active", ACTIVE)["title"]
        )
        # A list that names the student finds the one account that there is.
        entry = {"rows": [["Dube", "Thandi", "20101"]], "columns": ["family", "given", "number"]}
        line = self.ok(self.forge.lead, "POST", f"/groups/{self.forge.group.pk}/roster/preview", entry)["lines"][0]
        self.assertEqual(line["verdict"], "here")
        self.ok(self.admin, "DELETE", f"/accounts/together/{made}")
        self.assertEqual((self.portfolios(self.kept), self.portfolios(self.other)), ([self.one.pk], [self.two.pk]))
        self.kept.refresh_from_db()
        self.other.refresh_from_db()
        self.assertEqual((self.kept.number, self.other.number, self.other.is_active), (None, "20101", True))
        self.assertIsNone(SignInCard.objects.get().voided_at)
        self.assertEqual(Adjustment.objects.get().person_id, self.other.pk)
        self.problem(404, self.admin, "DELETE", f"/accounts/together/{made}")

    def test_in_one_class_the_place_with_work_goes_on(self) -> None:
        double = self.both_in_plot()
        for worker in (self.one, double):
            with self.subTest(worker.enrolment.person.username):
                evidence = builders.fill(worker, self.card)
                means = self.ok(self.admin, "POST", "/accounts/together/look", self.body())
                self.assertEqual((means["moved"], means["ended"]), (["9 Forge"], ["8 Plot"]))
                made = self.put()
                going = Enrolment.objects.get(group=self.plot.group, person=self.kept)
                ended = Enrolment.objects.get(group=self.plot.group, person=self.other)
                self.assertEqual((going.pk, going.last, ended.last), (worker.enrolment.pk, None, TODAY))
                self.assertIn(worker.pk, self.portfolios(self.kept))
                self.ok(self.admin, "DELETE", f"/accounts/together/{made}")
                places = dict(Enrolment.objects.filter(group=self.plot.group).values_list("pk", "person_id"))
                self.assertEqual(places, {self.one.enrolment.pk: self.kept.pk, double.enrolment.pk: self.other.pk})
                self.assertFalse(Enrolment.objects.exclude(last=None).exists())
                artefact = evidence.artefact
                builders.commands.remove_evidence(worker.enrolment.person, evidence.pk, NOW)
                evidence.delete()
                assert artefact is not None
                artefact.delete()
        self.assertFalse(Person.objects.filter(given_name="…").exists(), "nobody stands in for good")

    def test_of_two_places_with_work_one_goes_on_with_copies_of_the_other(self) -> None:
        page = self.plot.pocket("Lab page", kind="page")
        log = self.plot.pocket("Laboratory log", kind="log", log={"columns": [COLUMN]})
        double = self.both_in_plot()
        builders.fill(self.one, self.card)
        theirs = builders.fill(double, self.card)
        for portfolio, words in ((self.one, "Mine."), (double, "Theirs.")):
            self.write(portfolio, page, words)
        add_row(self.other, double.pk, log.pk, {"what": "Soil"}, NOW)
        task = self.plot.handin(log)
        builders.hand_in(double, task)
        # More was handed in by the other account: its place goes on.
        means = self.ok(self.admin, "POST", "/accounts/together/look", self.body())
        self.assertEqual((means["both"], means["locked"], means["handed_in"]), (["8 Plot"], [], []))
        made = self.put()
        going, ended = self.place(self.kept), self.place(self.other)
        self.assertEqual((going.pk, going.last, ended.last), (double.enrolment.pk, None, TODAY))
        lying = self.ok(self.kept, "GET", f"/portfolios/{double.pk}/pockets/{self.card.pk}")["evidence"]
        self.assertEqual(len(lying), 2)
        self.assertEqual(self.words(double, page), "Theirs.")
        aside = LoosePage.objects.get(portfolio=double)
        self.assertEqual((aside.title, aside.text, aside.removed_at), ("Lab page", "Mine.", None))
        self.assertEqual(self.portfolios(self.kept), [double.pk, self.two.pk])
        self.ok(self.plot.lead, "GET", f"/portfolios/{self.one.pk}")
        # Undone: what came over lies in the bin, what was there stays.
        self.ok(self.admin, "DELETE", f"/accounts/together/{made}")
        self.assertEqual(
            [self.place(one).pk for one in (self.kept, self.other)], [self.one.enrolment.pk, double.enrolment.pk]
        )
        self.assertFalse(Enrolment.objects.exclude(last=None).exists())
        lying = self.ok(self.other, "GET", f"/portfolios/{double.pk}/pockets/{self.card.pk}")["evidence"]
        self.assertEqual([one["id"] for one in lying], [theirs.pk])
        aside.refresh_from_db()
        self.assertIsNotNone(aside.removed_at)

    def test_what_is_locked_or_handed_in_only_there_is_named(self) -> None:
        other_card, diary = self.plot.pocket("Other card"), self.plot.pocket("Diary", kind="page")
        double = self.both_in_plot()
        for portfolio in (self.one, double):
            builders.fill(portfolio, self.card)
            builders.fill(portfolio, other_card)
        self.write(double, diary, "Only here.")
        for portfolio, title, pocket in ((self.one, "Card", self.card), (self.one, "Again", self.card)):
            builders.hand_in(portfolio, self.plot.handin(pocket, title=title))
        builders.hand_in(double, self.plot.handin(other_card, title="Other"))
        means = self.ok(self.admin, "POST", "/accounts/together/look", self.body())
        self.assertEqual((means["locked"], means["handed_in"]), (["8 Plot: Recipe card"], ["8 Plot: Other"]))
        made = self.put()
        self.assertEqual(self.place(self.kept).pk, self.one.enrolment.pk)
        self.assertEqual(self.words(self.one, diary), "Only here.")
        counts = [self.one.evidence.filter(pocket=one, removed_at=None).count() for one in (self.card, other_card)]
        self.assertEqual(counts, [1, 2], "nothing goes into a locked pocket")
        # What was changed meanwhile stays when they are taken apart; an untouched page is empty again.
        self.write(self.one, diary, "Only here, and more.", 1)
        self.ok(self.admin, "DELETE", f"/accounts/together/{made}")
        self.assertEqual(self.words(self.one, diary), "Only here, and more.")
        self.assertEqual(self.one.evidence.filter(pocket=other_card, removed_at=None).count(), 1)

    def write(self, portfolio: Portfolio, page: Pocket, text: str, version: int = 0) -> None:
        path = f"/portfolios/{portfolio.pk}/pockets/{page.pk}/page"
        self.ok(Person.objects.get(enrolments__portfolio=portfolio), "PUT", path, {"text": text, "version": version})

    def place(self, person: Person) -> Enrolment:
        return Enrolment.objects.get(group=self.plot.group, person=person)

    def words(self, portfolio: Portfolio, page: Pocket) -> str:
        return Evidence.objects.get(portfolio=portfolio, pocket=page, artefact=None).text

    def test_what_cannot_be_put_together(self) -> None:
        self.problem(422, self.admin, "POST", "/accounts/together", self.body(other=self.kept.pk))
        staff = self.plot.staff("marsh", Role.CO_TEACHER)
        self.problem(404, self.admin, "POST", "/accounts/together", self.body(other=staff.pk))
        self.problem(404, self.admin, "POST", "/accounts/together/look", self.body(other=10**9))
        made = self.put()
        self.problem(404, self.admin, "POST", "/accounts/together", self.body())
        # The later one is taken apart first.
        third = self.plot.student("thandi3", "Thandi", "Dube").enrolment.person
        later = self.ok(self.admin, "POST", "/accounts/together", {"kept": third.pk, "other": self.kept.pk})["id"]
        self.assertIn("changed hands", self.problem(403, self.admin, "DELETE", f"/accounts/together/{made}")["title"])
        for one in (later, made):
            self.ok(self.admin, "DELETE", f"/accounts/together/{one}")
        self.assertEqual(self.portfolios(self.other), [self.two.pk])


ACTIVE = {"active": True}
COLUMN = {"key": "what", "title": "What", "type": "text", "required": True}
