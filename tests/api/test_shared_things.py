"""Pockets of evidence and logs that many fill: each thing stays its contributor's and lies with all of them."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import TransactionTestCase

from coatpeg.core.marking.annotations import Target
from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.models import Submission
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.models import Evidence, LogRow, Portfolio
from coatpeg.sharing import settling, things
from coatpeg.sharing.models import SharedPage
from coatpeg.web.recheck import differences
from tests.api.case import ApiCase
from tests.api.test_logs import LOG, crop_log
from tests.api.test_races import at_once
from tests.background import run_waiting
from tests.builders import NOW, add_picture, jpeg, klass, reflect, say, working_group


class ThingsCase(ApiCase):
    """Josh and Thandi are one crew, Noor is another's."""

    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.finds = self.plot.pocket("Props", shared="group", artefacts=2, reflection_on_each=False)
        self.josh = self.plot.student("josh", "Josh", "Ellery")
        self.thandi = self.plot.student("thandi")
        self.noor = self.plot.student("noor", "Noor", "Amari")
        self.crew = working_group(self.plot.group, "Crew 1")
        self.other = working_group(self.plot.group, "Crew 2")
        self.crew.members.add(self.josh.enrolment, self.thandi.enrolment)
        self.other.members.add(self.noor.enrolment)

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def address(self, book: Portfolio, pocket: Pocket | None = None) -> str:
        return f"/portfolios/{book.pk}/pockets/{(pocket or self.finds).pk}"

    def seen(self, book: Portfolio, pocket: Pocket | None = None, by: Any = None) -> Any:
        """A pocket as its student sees it, once what was put in has been laid out."""
        run_waiting()
        return self.ok(by or book.enrolment.person, "GET", self.address(book, pocket))

    def titles(self, book: Portfolio) -> list[tuple[str, str]]:
        """What lies there with who put it in (nobody: its student)."""
        lying = self.seen(book)["evidence"]
        return [(one["artefact"]["title"], one["by"]["name"] if one["by"] else "") for one in lying]


class Lying(ThingsCase):
    """What one puts in."""

    def test_it_lies_with_those_who_fill_the_pocket_and_says_who(self) -> None:
        add_picture(self.josh, self.finds, name="lantern.jpg")
        add_picture(self.thandi, self.finds, name="rope.jpg", data=jpeg((1, 2, 3)))
        self.assertEqual(self.titles(self.josh), [("lantern.jpg", ""), ("rope.jpg", "Thandi D.")])
        self.assertEqual(self.titles(self.thandi), [("rope.jpg", ""), ("lantern.jpg", "Josh E.")])
        self.assertEqual(self.titles(self.noor), [])
        found = self.seen(self.thandi)
        self.assertEqual((found["met"], found["wanted"], found["writable"]), (2, 2, True))
        lines = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")["pockets"]
        self.assertEqual(lines[0]["together"][0]["name"], "Josh E.")

    def test_its_bytes_are_for_them_and_nobody_else(self) -> None:
        photo = add_picture(self.josh, self.finds)
        run_waiting()
        for asking, status in (
            (self.josh, 200),
            (self.thandi, 200),
            (self.noor, 404),
        ):
            answer = self.call(asking.enrolment.person, "GET", f"/artefacts/{photo.artefact_id}/file")
            self.assertEqual(answer.status_code, status, asking.enrolment.person)
        elsewhere = klass("9 Forge", "marsh").lead
        self.problem(404, elsewhere, "GET", f"/artefacts/{photo.artefact_id}/file")
        self.assertEqual(self.call(self.plot.lead, "GET", f"/artefacts/{photo.artefact_id}/file").status_code, 200)
        # Not what else they have: the same student's picture in a pocket of their own.
        own = add_picture(self.josh, self.plot.pocket("My own"), data=jpeg((9, 9, 9)))
        self.problem(404, self.thandi.enrolment.person, "GET", f"/artefacts/{own.artefact_id}/file")

    def test_what_is_taken_out_is_no_longer_read(self) -> None:
        photo = add_picture(self.josh, self.finds)
        run_waiting()
        self.ok(self.josh.enrolment.person, "DELETE", f"/evidence/{photo.pk}")
        self.assertEqual(self.titles(self.thandi), [])
        self.problem(404, self.thandi.enrolment.person, "GET", f"/artefacts/{photo.artefact_id}/file")
        bin_ = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}/taken-out")
        self.assertEqual(bin_, [], "what others took out is in their bin")
        self.ok(self.josh.enrolment.person, "POST", f"/evidence/{photo.pk}/restore")
        self.assertEqual(len(self.titles(self.thandi)), 1)

    def test_only_who_put_it_in_changes_it(self) -> None:
        add_picture(self.josh, self.finds)
        there = self.seen(self.thandi)["evidence"][0]["id"]
        mate = self.thandi.enrolment.person
        for method, path, body in (
            ("DELETE", f"/evidence/{there}", None),
            ("PUT", f"/evidence/{there}/reflection", {"text": "Mine.", "version": 0}),
            ("DELETE", f"/evidence/{there}/spoken", None),
        ):
            self.assertIn("Somebody else put this in", self.problem(403, mate, method, path, body)["title"])
        # A stranger is not told as much.
        self.problem(404, self.noor.enrolment.person, "DELETE", f"/evidence/{there}")

    def test_what_is_said_about_it_follows_and_a_title_too(self) -> None:
        photo = add_picture(self.josh, self.finds)
        self.seen(self.thandi)
        reflect(photo, "A lantern that swings.")
        self.ok(self.josh.enrolment.person, "PUT", f"/artefacts/{photo.artefact_id}/title", {"title": "The lantern"})
        found = self.seen(self.thandi)["evidence"][0]
        self.assertEqual((found["text"], found["artefact"]["title"]), ("A lantern that swings.", "The lantern"))

    def test_a_text_is_read_as_it_grows_and_written_by_its_own(self) -> None:
        path = f"{self.address(self.josh)}/texts"
        made = self.ok(self.josh.enrolment.person, "POST", path, {"title": "Idea"})
        artefact = Evidence.objects.get(pk=made["id"]).artefact_id
        self.assertFalse(self.ok(self.plot.lead, "GET", f"/portfolios/{self.thandi.pk}")["pockets"][0]["met"])
        body = {"html": "<p>A storm made of tin.</p>", "version": 0}
        self.ok(self.josh.enrolment.person, "PUT", f"/texts/{artefact}", body)
        found = self.seen(self.thandi)
        self.assertIn("tin", found["evidence"][0]["artefact"]["html"])
        self.assertEqual(found["met"], 1)
        self.problem(404, self.thandi.enrolment.person, "PUT", f"/texts/{artefact}", body)

    def test_a_link_and_what_comes_from_the_students_own_work(self) -> None:
        card = self.plot.pocket("Recipe card 2")
        mine = add_picture(self.josh, card)
        body = {"artefact": mine.artefact_id}
        self.ok(self.josh.enrolment.person, "POST", f"{self.address(self.josh)}/artefacts", body)
        self.assertEqual(self.titles(self.thandi), [("card.jpg", "Josh E.")])
        # What another put in is no work of theirs to put elsewhere or to show.
        person = self.thandi.enrolment.person
        self.assertEqual(self.ok(person, "GET", f"/portfolios/{self.thandi.pk}/artefacts"), [])
        self.problem(404, person, "POST", f"{self.address(self.thandi, card)}/artefacts", body)
        laid = Evidence.objects.get(portfolio=self.thandi, of__isnull=False)
        shown = {"title": "Best", "version": 0, "shown": [{"evidence": laid.pk, "caption": "", "wide": False}]}
        self.problem(404, person, "PUT", f"/portfolios/{self.thandi.pk}/show", shown)

    def test_whoever_is_in_no_group_is_told_and_nothing_is_lost(self) -> None:
        alone = self.plot.student("ravi", "Ravi", "Singh")
        upload = SimpleUploadedFile("lantern.jpg", jpeg(), "image/jpeg")
        said = self.problem(
            404, alone.enrolment.person, "POST", f"{self.address(alone)}/files", None, data={"file": upload}
        )
        self.assertIn("Nobody fills “Props”", said["title"])
        self.assertFalse(Evidence.objects.filter(portfolio=alone).exists())

    def test_so_many_and_no_more(self) -> None:
        with mock.patch.object(things, "MOST_THINGS", 2):
            add_picture(self.josh, self.finds)
            add_picture(self.thandi, self.finds, data=jpeg((1, 1, 1)))
            path = f"{self.address(self.thandi)}/links"
            said = self.problem(422, self.thandi.enrolment.person, "POST", path, {"link": "https://a.example/b"})
            self.assertIn("2 artefacts of all who fill it", said["title"])
        self.assertEqual(Evidence.objects.filter(of=None).count(), 2)

    def test_where_each_ones_own_is_asked_the_others_count_nothing(self) -> None:
        add_picture(self.josh, self.finds)
        self.assertEqual(self.seen(self.thandi)["met"], 1)
        Pocket.objects.filter(pk=self.finds.pk).update(own_part=True)
        self.finds.refresh_from_db()
        settling.count_anew(self.finds, NOW)
        with self.at(NOW + timedelta(minutes=1)):
            found = self.seen(self.thandi)
        self.assertEqual((found["met"], len(found["evidence"])), (0, 1))
        line = self.ok(self.plot.lead, "GET", f"/portfolios/{self.thandi.pk}")["pockets"][0]
        self.assertEqual((line["met"], line["status"]), (0, "empty"))
        self.assertEqual(self.seen(self.josh)["met"], 1)

    def test_the_page_of_such_a_pocket_is_none(self) -> None:
        add_picture(self.josh, self.finds)
        self.problem(404, self.josh.enrolment.person, "POST", f"{self.address(self.josh)}/shared", {})

    def test_a_starter_is_nobodys_copy(self) -> None:
        found = self.seen(self.josh)
        self.assertEqual(found["starters"], 0)


class Moving(ThingsCase):
    """Groups change in mid-term."""

    def move(self, book: Portfolio, to: Any) -> None:
        self.crew.members.remove(book.enrolment)
        self.other.members.remove(book.enrolment)
        to.members.add(book.enrolment)
        settling.fill_anew([self.crew.pk, self.other.pk], NOW)
        for page in SharedPage.objects.all():
            settling.settle(page.pk, NOW)

    def test_who_goes_takes_their_own_along_and_the_group_keeps_it(self) -> None:
        add_picture(self.josh, self.finds, name="lantern.jpg")
        add_picture(self.thandi, self.finds, name="rope.jpg", data=jpeg((1, 2, 3)))
        add_picture(self.noor, self.finds, name="mask.jpg", data=jpeg((4, 5, 6)))
        run_waiting()
        self.move(self.josh, self.other)
        self.assertEqual(self.titles(self.josh), [("lantern.jpg", ""), ("mask.jpg", "Noor A.")])
        self.assertEqual(self.titles(self.thandi), [("rope.jpg", ""), ("lantern.jpg", "Josh E.")])
        self.assertEqual(self.titles(self.noor), [("mask.jpg", "")], "what was put in for the former group stays there")
        self.move(self.josh, self.crew)
        self.assertEqual(self.titles(self.josh), [("lantern.jpg", ""), ("rope.jpg", "Thandi D.")])


class Joining(ThingsCase):
    """Whoever comes to those who fill a pocket has what is there, before anybody writes again."""

    def test_into_a_period_and_into_the_class(self) -> None:
        crops = self.plot.pocket("Crops", shared="period", artefacts=1, reflection_on_each=False)
        rules = self.plot.pocket("Rules", "log", shared="class", log=LOG, rows=1)
        early = self.plot.student("bo", "Bo", "Abbot", period="P3")
        add_picture(early, crops, name="beet.jpg")
        path = f"{self.address(early, rules)}/rows"
        self.ok(early.enrolment.person, "POST", path, {"values": {"day": "2026-11-02", "grams": "5"}})
        run_waiting()
        body = {"where": "period", "name": "P3", "students": [self.noor.enrolment_id]}
        self.ok(self.plot.lead, "POST", f"/groups/{self.plot.group.pk}/roster/place", body)
        listed = {"rows": [["Ito", "Wren"]], "columns": ["family", "given"]}
        self.apply_list(self.plot.lead, f"/groups/{self.plot.group.pk}/roster", listed)
        with self.at(NOW + timedelta(minutes=1)):
            found = self.seen(self.noor, crops)
            self.assertEqual([one["artefact"]["title"] for one in found["evidence"]], ["beet.jpg"])
            wren = Portfolio.objects.get(enrolment__person__given_name="Wren")
            shown = self.seen(wren, rules, by=self.plot.lead)
        self.assertEqual([one["by"]["name"] for one in shown["log"]["rows"]], ["Bo A."])


class HandedIn(ThingsCase):
    """One press for all, of things of several."""

    def setUp(self) -> None:
        super().setUp()
        self.handin = self.plot.handin(self.finds, title="Props")
        self.lantern = add_picture(self.josh, self.finds, name="lantern.jpg")
        self.rope = add_picture(self.thandi, self.finds, name="rope.jpg", data=jpeg((1, 2, 3)))

    def press(self, book: Portfolio, handin: Any = None) -> Any:
        path = f"/portfolios/{book.pk}/handins/{(handin or self.handin).pk}/submissions"
        return self.ok(book.enrolment.person, "POST", path, {"seen": 0})

    def test_each_submission_has_all_of_it_and_says_who_put_in_what(self) -> None:
        made = self.press(self.josh)["id"]  # nothing was laid out before
        desk = self.ok(self.plot.lead, "GET", f"/submissions/{made}")
        lying = [(one["artefact"]["title"], one["by"] and one["by"]["name"]) for one in desk["pockets"][0]["evidence"]]
        self.assertEqual(lying, [("lantern.jpg", None), ("rope.jpg", "Thandi D.")])
        self.assertEqual(desk["same_files"], [], "what they put in together is one file")
        flags = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/pegs/flags")
        self.assertEqual(flags, [])
        self.assertEqual(Submission.objects.count(), 2)

    def test_what_was_handed_in_is_read_also_when_it_was_taken_out_since(self) -> None:
        made = self.press(self.thandi)["id"]
        self.ok(self.thandi.enrolment.person, "POST", f"/submissions/{made}/take-back")
        self.ok(self.josh.enrolment.person, "DELETE", f"/evidence/{self.lantern.pk}")
        self.assertEqual(self.titles(self.thandi), [("rope.jpg", "")])
        path = f"/artefacts/{self.lantern.artefact_id}/file"
        self.assertEqual(self.call(self.thandi.enrolment.person, "GET", path).status_code, 200)
        self.problem(404, self.noor.enrolment.person, "GET", path)

    def test_what_is_locked_stays_as_it_is_until_it_is_sent_back(self) -> None:
        run_waiting()
        path = f"/groups/{self.plot.group.pk}/pockets/{self.finds.pk}/locked"
        body = {"students": [self.thandi.enrolment_id]}
        deed = self.ok(self.plot.lead, "POST", path, {**body, "locked": True})
        self.assertTrue(deed)
        add_picture(self.josh, self.finds, name="mask.jpg", data=jpeg((7, 7, 7)))
        self.assertEqual(len(self.titles(self.thandi)), 2)
        self.ok(self.plot.lead, "POST", path, {**body, "locked": False})
        reflect(self.lantern, "It swings.")
        self.assertEqual(len(self.titles(self.thandi)), 3)

    def test_what_is_said_on_ones_thing_is_said_to_the_other_on_the_same(self) -> None:
        made = Submission.objects.get(pk=self.press(self.josh)["id"])
        evidence = made.snapshot["pockets"][0]["evidence"]
        target = Target(self.finds.pk, evidence[0]["id"], "text")
        say(made, self.plot.lead, "Whose lantern?", target=target)
        body = {"feedback": "Good.", "score": 20}
        self.ok(self.plot.lead, "POST", f"/submissions/{made.pk}/accept", body)
        theirs = Submission.objects.exclude(pk=made.pk).get()
        said = self.ok(self.thandi.enrolment.person, "GET", f"/submissions/{theirs.pk}/annotations")
        by_id = {one["id"]: one for one in theirs.snapshot["pockets"][0]["evidence"]}
        self.assertEqual([by_id[one["target"]["evidence"]]["artefact"]["title"] for one in said], ["lantern.jpg"])


class Logs(ThingsCase):
    """A log that a group keeps."""

    def setUp(self) -> None:
        super().setUp()
        self.log = crop_log(self.plot, shared="group")

    def write(self, book: Portfolio, grams: str, day: str = "2026-11-02", **more: Any) -> int:
        values = {"day": day, "grams": grams, **more}
        made = self.ok(book.enrolment.person, "POST", f"{self.address(book, self.log)}/rows", {"values": values})
        return int(made["id"])

    def rows(self, book: Portfolio) -> list[tuple[str, str]]:
        lines = self.seen(book, self.log)["log"]["rows"]
        return sorted((one["values"]["grams"], one["by"]["name"] if one["by"] else "") for one in lines)

    def test_rows_of_all_stand_there_add_up_and_stay_their_writers(self) -> None:
        row = self.write(self.josh, "100")
        self.write(self.thandi, "50")
        self.assertEqual(self.rows(self.thandi), [("100", "Josh E."), ("50", "")])
        self.assertEqual(self.seen(self.thandi, self.log)["log"]["total"]["sums"][0]["amount"], "150")
        laid = LogRow.objects.get(of=row)
        mate = self.thandi.enrolment.person
        self.problem(403, mate, "DELETE", f"/rows/{laid.pk}")
        self.problem(403, mate, "PUT", f"/rows/{laid.pk}", {"values": {"grams": "1"}, "version": 1})
        values = {"day": "2026-11-02", "grams": "90"}
        self.ok(self.josh.enrolment.person, "PUT", f"/rows/{row}", {"values": values, "version": 1})
        self.assertEqual(self.rows(self.thandi), [("50", ""), ("90", "Josh E.")])
        self.ok(self.josh.enrolment.person, "DELETE", f"/rows/{row}")
        self.assertEqual(self.rows(self.thandi), [("50", "")])

    def test_over_the_class_each_row_stands_once(self) -> None:
        self.write(self.josh, "100")
        self.write(self.thandi, "50")
        run_waiting()
        found = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/logs/{self.log.pk}")
        self.assertEqual(len(found["rows"]), 2)

    def test_a_row_names_a_picture_that_the_others_see(self) -> None:
        upload = SimpleUploadedFile("bed.jpg", jpeg(), "image/jpeg")
        path = f"{self.address(self.josh, self.log)}/row-files"
        photo = self.ok(self.josh.enrolment.person, "POST", path, data={"file": upload})["id"]
        self.write(self.josh, "100", photo=photo)
        self.assertEqual(self.seen(self.thandi, self.log)["log"]["artefacts"][0]["id"], photo)
        for asking, status in ((self.thandi, 200), (self.noor, 404)):
            answer = self.call(asking.enrolment.person, "GET", f"/artefacts/{photo}/file")
            self.assertEqual(answer.status_code, status)

    def test_handed_in_rows_stay_as_they_are_and_new_ones_come(self) -> None:
        row = self.write(self.josh, "100")
        handin = self.plot.handin(self.log, title="Harvest")
        path = f"/portfolios/{self.thandi.pk}/handins/{handin.pk}/submissions"
        made = self.ok(self.thandi.enrolment.person, "POST", path, {"seen": 0})
        frozen = self.ok(self.plot.lead, "GET", f"/submissions/{made['id']}")["pockets"][0]["log"]["rows"]
        self.assertEqual([one["by"]["name"] for one in frozen], ["Josh E."])
        with self.at(NOW + timedelta(minutes=1)):
            self.problem(403, self.josh.enrolment.person, "DELETE", f"/rows/{row}")
            self.write(self.josh, "70")
            self.assertEqual(self.rows(self.thandi), [("100", "Josh E."), ("70", "Josh E.")])
            lines = self.seen(self.thandi, self.log)["log"]["rows"]
            self.assertEqual([one["locked"] for one in lines if one["values"]["grams"] == "100"], [True])

    def test_rows_of_each_week_are_told_to_the_board_for_all_of_them(self) -> None:
        weekly = crop_log(self.plot, shared="group", rows=0, rows_per_week=1)
        for grams in ("100", "70"):
            values = {"day": "2026-11-02", "grams": grams}
            self.ok(self.josh.enrolment.person, "POST", f"{self.address(self.josh, weekly)}/rows", {"values": values})
            run_waiting()
        told = Event.objects.filter(verb="shared_page_settled", enrolment_id=self.thandi.enrolment_id)
        self.assertEqual(told.count(), 2)

    def test_rows_of_others_are_not_asked_of_anybody(self) -> None:
        Pocket.objects.filter(pk=self.log.pk).update(own_part=True)
        self.write(self.josh, "100")
        self.assertEqual(self.seen(self.thandi, self.log)["met"], 0)
        self.assertEqual(self.seen(self.josh, self.log)["met"], 1)


class AtOnce(TransactionTestCase):
    """Two put something in while both pockets are laid out."""

    def test_all_of_it_lies_with_both_at_the_end(self) -> None:
        plot = klass()
        finds = plot.pocket("Props", shared="class")
        one, other = plot.student("one", "Wren"), plot.student("other", "Ravi")
        plot.staff("marsh", Role.CO_TEACHER)
        first = add_picture(one, finds)
        page = SharedPage.objects.get()
        done = at_once(
            lambda: add_picture(other, finds, data=jpeg((1, 2, 3))),
            lambda: settling.settle(page.pk, NOW),
            lambda: reflect(first),
            lambda: settling.settle(page.pk, NOW),
        )
        self.assertEqual([type(each) for each in done if isinstance(each, Exception)], [])
        settling.settle(page.pk, NOW)
        for book in (one, other):
            lying = Evidence.objects.filter(portfolio=book, removed_at=None)
            self.assertEqual((lying.count(), lying.filter(of__isnull=False).count()), (2, 1))
            self.assertEqual(lying.get(artefact=first.artefact).sentences, 2)
        self.assertEqual(list(differences()), [])
