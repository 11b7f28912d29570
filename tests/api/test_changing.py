"""A hand-in that is set and changes: what is said before, what is kept, taken away and brought back."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from coatpeg.core.errors import Gone, Refused
from coatpeg.handins.board.situation import situation
from coatpeg.handins.handing import records
from coatpeg.handins.handing.commands import take_back
from coatpeg.notices.models import Notice
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)


class Changing(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card, self.menu = self.plot.pocket(), self.plot.pocket("Menu", artefacts=1)
        self.books = [
            self.plot.student("thandi", period="P3"),
            self.plot.student("bea", "Bea", "Abel", period="P3"),
            self.plot.student("cyr", "Cyr", "Cole", period="P4"),
        ]
        self.handin = self.plot.handin(self.card, due=TODAY - DAY)
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}"

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def plan(self, **changes: Any) -> dict[str, Any]:
        told = self.ok(self.lead, "GET", self.path)
        return {name: told[name] for name in told if name not in ("id", "submissions")} | changes

    def change(self, **changes: Any) -> Any:
        return self.ok(self.lead, "PUT", self.path, self.plan(**changes))

    def cells(self) -> dict[str, dict[str, Any]]:
        board = self.pegs(self.lead, self.plot.group.pk)
        place = [one["id"] for one in board["handins"]].index(self.handin.pk)
        return {row["given_name"]: row["cells"][place] for row in board["students"]}

    def held(self) -> set[tuple[str, str]]:
        rows = StandingHold.objects.values_list("portfolio__enrolment__person__given_name", "pocket__title")
        return set(rows)

    def test_one_hand_in_is_judged_without_the_others_as_it_is_with_them(self) -> None:
        other = self.plot.handin(self.menu, title="Menu", due=TODAY + DAY)
        for asked in (self.handin, other):
            excused = f"/handins/{asked.pk}/students/{self.books[0].enrolment_id}/excused"
            self.ok(self.lead, "PUT", excused, {"excused": True})
        whole = situation(self.plot.group.pk, NOW)
        alone = situation(self.plot.group.pk, NOW, handin=self.handin.pk)
        self.assertEqual([one.id for one in alone.handins], [self.handin.pk])
        self.assertEqual({handin for _, handin in whole.facts}, {self.handin.pk, other.pk})
        self.assertEqual({handin for _, handin in alone.facts}, {self.handin.pk})
        for of in ("facts", "standings", "dues"):
            mine = {cell: found for cell, found in getattr(whole, of).items() if cell[1] == self.handin.pk}
            self.assertEqual(dict(getattr(alone, of)), mine, of)

    def test_what_it_is_comes_back_as_it_was_filled_in(self) -> None:
        self.change(
            title="Recipe card, all of it",
            due={"day": str(TODAY + 3 * DAY), "at": "12:30:00"},
            closes={"day": str(TODAY + 9 * DAY), "at": None},
            for_everyone=False,
            periods=[{"period": self.plot.period("P3").pk, "asked": True, "due": {"day": str(TODAY + DAY)}}],
            points="12.5",
            step="0.5",
            directions="<p>Bring <strong>one</strong> card.</p><script>x</script>",
            opens_again=True,
        )
        told = self.ok(self.lead, "GET", self.path)
        self.assertEqual(told["directions"], "<p>Bring <strong>one</strong> card.</p>")
        self.assertEqual((told["version"], told["points"], told["step"]), (2, "12.5", "0.5"))
        self.assertEqual(told["due"], {"day": str(TODAY + 3 * DAY), "at": "12:30:00"})
        self.assertEqual([one["period"] for one in told["periods"]], [self.plot.period("P3").pk])
        self.assertEqual(self.cells()["Cyr"]["status"], "not_asked")

    def test_a_later_date_is_told_before_and_moves_who_is_overdue_and_late(self) -> None:
        builders.fill(self.books[0], self.card)
        builders.hand_in(self.books[0], self.handin)
        self.assertEqual([one["overdue"] for one in self.cells().values()], [True, True, False])
        self.assertTrue(self.cells()["Thandi"]["late"])
        to = {"day": str(TODAY + 4 * DAY), "at": None}
        said = self.ok(self.lead, "POST", f"{self.path}/preview", self.plan(due=to))
        moves = said["moves"]
        self.assertEqual((moves["no_longer_overdue"], moves["no_longer_late"], moves["dues_moved"]), (2, 1, 3))
        self.assertEqual(moves["kept"], 1)
        self.assertEqual(self.cells()["Bea"]["overdue"], True, "looking changes nothing")
        self.assertEqual(self.change(due=to)["impact"], said)
        self.assertEqual({(one["overdue"], one["late"]) for one in self.cells().values()}, {(False, False)})
        back = self.change(due={"day": str(TODAY - DAY), "at": None})
        self.assertEqual((back["impact"]["moves"]["now_overdue"], back["impact"]["moves"]["now_late"]), (2, 1))

    def test_own_dates_stay_and_those_now_earlier_are_named(self) -> None:
        path = f"/handins/{self.handin.pk}/students/{self.books[1].enrolment_id}/due"
        self.ok(self.lead, "PUT", path, {"day": str(TODAY + 2 * DAY)})
        said = self.change(due={"day": str(TODAY + 5 * DAY), "at": None})["impact"]
        self.assertEqual(said["own_earlier"], [{"name": "Abel, Bea", "day": str(TODAY + 2 * DAY)}])
        self.assertEqual(self.cells()["Bea"]["due"], str(TODAY + 2 * DAY))

    def test_whoever_handed_in_stays_asked_when_the_audience_shrinks(self) -> None:
        builders.fill(self.books[2], self.card)
        builders.hand_in(self.books[2], self.handin)
        only = [{"period": self.plot.period("P3").pk, "asked": True, "due": None}]
        due = {"day": str(TODAY + DAY), "at": None}
        said = self.change(for_everyone=False, periods=only, due=due)["impact"]
        self.assertEqual(said["moves"]["no_longer_asked"], 0)
        self.assertEqual(self.cells()["Cyr"]["status"], "handed_in")
        submission = self.books[2].enrolment.submissions.get()
        self.ok(self.lead, "GET", f"/submissions/{submission.pk}")
        take_back(self.books[2].enrolment.person, submission.pk, NOW)
        self.assertEqual(self.cells()["Cyr"]["status"], "not_asked", "what was taken back is void")

    def test_a_pocket_that_goes_lets_go_and_one_that_comes_back_holds_again(self) -> None:
        builders.fill(self.books[0], self.card)
        builders.fill(self.books[0], self.menu)
        self.change(pockets=[self.card.pk, self.menu.pk])
        builders.hand_in(self.books[0], self.handin)
        both = {("Thandi", "Recipe card"), ("Thandi", "Menu")}
        self.assertEqual(self.held(), both)
        said = self.change(pockets=[self.card.pk])["impact"]
        self.assertEqual((said["removed"], said["added"]), (["Menu"], []))
        self.assertEqual(self.held(), {("Thandi", "Recipe card")})
        self.change(pockets=[self.card.pk, self.menu.pk])
        self.assertEqual(self.held(), both)

    def test_a_pocket_that_is_added_asks_nobody_who_has_handed_in(self) -> None:
        builders.fill(self.books[0], self.card)
        submission = builders.hand_in(self.books[0], self.handin)
        self.change(pockets=[self.card.pk, self.menu.pk])
        self.assertEqual(self.held(), {("Thandi", "Recipe card")})
        builders.fill(self.books[0], self.menu)  # still open
        builders.mark(self.lead, submission)
        self.ok(self.lead, "POST", f"/submissions/{submission.pk}/reopen", {})
        self.assertEqual(self.held(), {("Thandi", "Recipe card")}, "reopening locks what was handed in")

    def test_released_scores_stay_out_of_what_they_were_given(self) -> None:
        builders.fill(self.books[0], self.card)
        builders.mark(self.lead, builders.hand_in(self.books[0], self.handin), score=24)
        said = self.change(points="10.0")["impact"]
        self.assertEqual(said["scored"], 1)
        line = self.ok(self.books[0].enrolment.person, "GET", f"/portfolios/{self.books[0].pk}/feedback")[0]
        self.assertEqual((line["score"], line["points"]), (24, 30))

    def test_pockets_open_again_once_it_is_accepted_where_it_says_so(self) -> None:
        self.change(opens_again=True)
        builders.fill(self.books[0], self.card)
        submission = builders.hand_in(self.books[0], self.handin)
        self.assertEqual(self.held(), {("Thandi", "Recipe card")})
        builders.mark(self.lead, submission)
        self.assertEqual((self.held(), self.cells()["Thandi"]["status"]), (set(), "accepted"))
        self.ok(self.lead, "POST", f"/submissions/{submission.pk}/reopen", {})
        self.assertEqual(self.held(), {("Thandi", "Recipe card")})

    def test_closed_it_takes_nothing_more_and_overdue_stays(self) -> None:
        builders.fill(self.books[0], self.card)
        self.change(closes={"day": str(TODAY), "at": "09:00:00"})
        with self.assertRaisesMessage(Refused, "closed on Wed 4 Nov"):
            builders.hand_in(self.books[0], self.handin)
        student = self.books[0].enrolment.person
        self.assertTrue(self.cells()["Thandi"]["overdue"])
        found = self.ok(student, "GET", f"/portfolios/{self.books[0].pk}/worklist")
        self.assertEqual([(one["title"], one["closed"]) for one in found["others"]], [("Recipe card", True)])
        self.assertEqual(found["to_do"], [])
        self.change(closes=None)
        builders.hand_in(self.books[0], self.handin)

    def test_the_second_it_closes_still_takes(self) -> None:
        builders.fill(self.books[0], self.card)
        self.change(closes={"day": str(TODAY), "at": "10:00:00"})  # NOW, to the second
        builders.hand_in(self.books[0], self.handin)

    def test_two_at_once_the_second_is_told_and_nothing_of_the_first_is_lost(self) -> None:
        mine, theirs = self.plan(title="Mine"), self.plan(points="5.0")
        self.ok(self.lead, "PUT", self.path, theirs)
        told = self.problem(409, self.lead, "PUT", self.path, mine)
        self.assertEqual(told["version"], 2)
        found = self.ok(self.lead, "GET", self.path)
        self.assertEqual((found["title"], found["points"]), ("Recipe card", "5.0"))

    def test_taken_away_nothing_is_asked_and_what_was_handed_in_is_read_as_before(self) -> None:
        builders.fill(self.books[0], self.card)
        submission = builders.hand_in(self.books[0], self.handin)
        student = self.books[0].enrolment.person
        self.ok(self.lead, "POST", f"{self.path}/away", {})
        board = self.pegs(self.lead, self.plot.group.pk)
        self.assertEqual((board["handins"], self.held()), ([], set()))
        self.assertEqual(self.ok(self.lead, "GET", f"/groups/{self.plot.group.pk}/pile")["waiting"], [])
        for person in (self.lead, student):
            desk = self.ok(person, "GET", f"/submissions/{submission.pk}")
            self.assertEqual((desk["status"], desk["handin"]["taken_away"]), ("handed_in", True))
        told = self.problem(404, self.lead, "POST", f"/submissions/{submission.pk}/accept", {"version": 0})
        self.assertIn("taken away", told["title"])
        with self.assertRaises(Gone):
            builders.hand_in(self.books[1], self.handin)
        listed = self.ok(self.lead, "GET", f"/groups/{self.plot.group.pk}/handins")["taken_away"]
        self.assertEqual([(one["title"], one["submissions_made"]) for one in listed], [("Recipe card", 1)])
        for _ in range(2):  # twice is as good as once
            self.ok(self.lead, "DELETE", f"{self.path}/away")
        self.assertEqual(self.held(), {("Thandi", "Recipe card")})
        self.assertEqual(self.cells()["Thandi"]["status"], "handed_in")

    def test_what_cannot_be_is_said_at_its_field(self) -> None:
        nobody = [{"period": self.plot.period("P9").pk, "asked": True, "due": None}]
        for where, changes in (
            ("title", {"title": " "}),
            ("pockets", {"pockets": []}),
            ("opens", {"opens": str(TODAY + DAY)}),
            ("closes", {"closes": {"day": str(TODAY - 2 * DAY), "at": None}}),
            ("closes", {"closes": {"day": str(TODAY - 90 * DAY), "at": None}, "due": None}),
            ("periods", {"for_everyone": False, "periods": nobody}),
            ("closes", {"closes": {"day": "1999-01-01", "at": None}}),
        ):
            with self.subTest(where, **changes):
                told = self.problem(422, self.lead, "PUT", self.path, self.plan(**changes))
                self.assertEqual(told["where"].split(".")[-1], where)
        self.assertEqual(self.ok(self.lead, "GET", self.path)["version"], 1)

    def test_a_retired_pocket_stays_collected(self) -> None:
        self.change(pockets=[self.card.pk, self.menu.pk])
        self.menu.retired_at = NOW
        self.menu.save()
        self.change(title="Card and menu")
        self.assertEqual(self.ok(self.lead, "GET", self.path)["pockets"], [self.card.pk, self.menu.pk])

    def test_who_is_told(self) -> None:
        self.change(points="3.0")
        self.change(due={"day": str(TODAY + 5 * DAY), "at": None})
        kinds = list(Notice.objects.order_by("pk").values_list("what", "fanned_at"))
        self.assertEqual([what for what, _ in kinds], ["handin_set"], "not told yet: one word is enough")
        Notice.objects.update(fanned_at=NOW)
        self.change(due={"day": str(TODAY + 6 * DAY), "at": None})
        self.assertEqual(Notice.objects.order_by("pk").last().what, "handin_moved")


class Like(ApiCase):
    def test_in_another_class_by_what_pockets_and_periods_are_called_in_the_same_school_week(self) -> None:
        plot = builders.klass()
        other = builders.klass("7 Shed", "shed")
        builders.StaffRole.objects.create(group=other.group, person=plot.lead, role="lead")
        card, spare = plot.pocket(), plot.pocket("Only here")
        there = other.pocket("recipe CARD")
        plot.student("thandi", period="P3")
        other.period("P3")
        handin = plot.handin(card, spare, due=TODAY + 2 * DAY, period_dues={"P3": TODAY + DAY, "P4": TODAY})
        found = self.ok(plot.lead, "GET", f"/groups/{other.group.pk}/handins/like/{handin.pk}")
        self.assertEqual((found["pockets"], found["due"]["day"]), ([there.pk], str(TODAY + 2 * DAY)))
        self.assertEqual([one["period"] for one in found["periods"]], [other.period("P3").pk])
        self.problem(404, other.lead, "GET", f"/groups/{other.group.pk}/handins/like/{handin.pk}")
        same = self.ok(plot.lead, "GET", f"/groups/{plot.group.pk}/handins/like/{handin.pk}")
        self.assertEqual(same["pockets"], [card.pk, spare.pk])

    def test_a_day_that_two_terms_do_not_share_goes_to_the_same_week(self) -> None:
        plot = builders.klass()
        spring = date(2027, 1, 11)
        builders.Term.objects.create(name="Spring term", first=spring, last=spring + 60 * DAY)
        later = builders.klass("8 Plot, spring", "spring")
        later.group.first, later.group.last = spring, spring + 60 * DAY
        later.group.save()
        builders.StaffRole.objects.create(group=later.group, person=plot.lead, role="lead")
        plot.student("thandi")
        handin = plot.handin(plot.pocket(), due=TODAY + 2 * DAY)  # Friday of the eighth school week
        later.pocket()
        found = self.ok(plot.lead, "GET", f"/groups/{later.group.pk}/handins/like/{handin.pk}")
        self.assertEqual(found["due"]["day"], "2027-03-05")
