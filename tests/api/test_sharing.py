"""Pages that are filled together: live, in order, and always with who wrote what."""

from __future__ import annotations

from base64 import b64encode
from datetime import timedelta
from decimal import Decimal
from typing import Any

from django.test import TransactionTestCase
from pycrdt import XmlElement, XmlFragment, XmlText

from coatpeg.core.policy import Role
from coatpeg.handins.handing import together
from coatpeg.handins.models import Submission
from coatpeg.marking.models import MarkingRule, ReleasedMark
from coatpeg.portfolios.models import Evidence, PocketContent, Portfolio, WrittenText
from coatpeg.setup.deleting import begun
from coatpeg.setup.template.effects import used
from coatpeg.sharing import settling
from coatpeg.sharing.models import SharedMoment, SharedPage, SharedUpdate
from coatpeg.web.recheck import differences
from tests.api.case import ApiCase
from tests.api.test_races import at_once
from tests.background import run_waiting
from tests.builders import NOW, adjust, klass, person, working_group
from tests.devices import Device, new_text


class SharingCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.plan = self.plot.pocket("What could go wrong?", "page", shared="class", own_part=True)
        self.thandi = self.plot.student("thandi", period="P3")
        self.josh = self.plot.student("josh", "Josh", "Ellery", period="P4")
        self.noor = self.plot.student("noor", "Noor", "Amari", period="P3")

    def device(self, book: Portfolio, pocket: Any = None) -> Device:
        return Device(self, book, pocket or self.plan)

    def pair(self) -> tuple[Device, Device]:
        return self.device(self.thandi), self.device(self.josh)

    def settle(self) -> None:
        for page in SharedPage.objects.all():
            settling.settle(page.pk, NOW)

    def lying(self, book: Portfolio) -> Evidence:
        return Evidence.objects.get(portfolio=book, pocket=self.plan, artefact=None)

    def written(self, device: Device) -> dict[str, Any]:
        found = self.ok(device.person, "GET", f"{device.address}/written")
        return {one["name"]: one for one in found["people"]}


class Live(SharingCase):
    def test_what_one_writes_the_others_have_and_the_server_too(self) -> None:
        one, two = self.pair()
        one.write("The thunder comes too late.")
        one.exchange()
        two.exchange()
        two.write(" People hear it.", 0)
        two.write("The rain sheet jams.")
        two.exchange()
        one.exchange()
        self.assertEqual(one.words, ["The thunder comes too late. People hear it.", "The rain sheet jams."])
        self.assertEqual(one.words, two.words)
        self.assertEqual(self.device(self.noor).words, one.words)

    def test_two_who_write_into_one_word_lose_nothing(self) -> None:
        one, two = self.pair()
        one.write("harbour")
        one.exchange()
        two.exchange()
        one.write("XX", 0, 3)
        two.write("YY", 0, 3)
        for each in (one, two, one):
            each.exchange()
        self.assertEqual(one.words, two.words)
        self.assertEqual(sorted(one.words[0]), sorted("harbourXXYY"))

    def test_an_answer_that_never_came_is_asked_for_again(self) -> None:
        one, two = self.pair()
        one.write("Once.")
        body = one.body()
        first = self.ok(one.person, "POST", f"{one.address}/exchange", body)
        again = self.ok(one.person, "POST", f"{one.address}/exchange", body)
        self.assertEqual(again["number"], first["number"])
        two.exchange()
        self.assertEqual(two.words, ["Once."])
        self.assertEqual(SharedUpdate.objects.count(), 1)

    def test_ten_minutes_without_a_connection_are_put_together(self) -> None:
        one, two = self.pair()
        one.write("Together.")
        one.exchange()
        two.exchange()
        for number in range(50):
            one.write(f" On land {number}.", 0)
            two.write(f"At sea {number}.")
            one.exchange()
            if number % 10 == 0:
                with self.at(NOW + timedelta(minutes=number)):
                    self.settle()
        two.exchange()
        one.exchange()
        self.assertEqual(one.words, two.words)
        self.assertEqual(len(one.words), 51)

    def test_whoever_is_far_behind_gets_the_page_put_together(self) -> None:
        one, two = self.pair()
        one.write("First.")
        one.exchange()
        page = SharedPage.objects.get()
        settling.settle(page.pk, NOW + timedelta(minutes=5))
        page.refresh_from_db()
        self.assertEqual((page.dropped, SharedUpdate.objects.count()), (1, 0))
        answer = two.exchange()
        self.assertEqual(answer["updates"], [])
        self.assertTrue(answer["data"])
        self.assertEqual(two.words, ["First."])

    def test_it_is_asked_for_again_sooner_while_somebody_writes(self) -> None:
        one, _ = self.pair()
        one.write("Now.")
        self.assertEqual(one.exchange()["apart"], 600)
        with self.at(NOW + timedelta(minutes=1)):
            self.assertGreater(one.exchange()["apart"], 2_000)


class Refused(SharingCase):
    def refused(self, status: int, device: Device, data: bytes | str, **more: Any) -> Any:
        update = data if isinstance(data, str) else b64encode(data).decode()
        body = {"after": 0, "client": device.page["client"], "update": update, **more}
        found = self.problem(status, device.person, "POST", f"{device.address}/exchange", body)
        self.assertEqual(SharedUpdate.objects.filter(person=device.person).count(), 0)
        return found

    def test_words_under_another_s_name(self) -> None:
        one, two = self.pair()
        one.write("I never said that.")
        found = self.refused(422, two, one.update())
        self.assertIn("somebody else", found["title"])
        self.refused(422, two, two.update(), client=one.page["client"])

    def test_half_of_one_a_broken_one_and_none_at_all(self) -> None:
        one, _ = self.pair()
        one.write("Something long enough to be cut.")
        for data in (one.update()[:-3], b"\xff\xff\xff", one.update() + b"\x00", b"", "no base64!"):
            if data:
                self.refused(422, one, data)

    def test_ten_megabytes(self) -> None:
        one, _ = self.pair()
        one.write("x" * 500_000)
        self.assertIn("too much", self.refused(422, one, one.update())["title"])

    def test_what_leaves_something_out_or_comes_out_of_order(self) -> None:
        one, _ = self.pair()
        one.write("First.")
        before = one.doc.get_state()
        one.write("Second.")
        self.refused(409, one, one.doc.get_update(before))

    def test_what_was_made_for_another_page(self) -> None:
        other = self.plot.pocket("Menu", "page", shared="class")
        one, elsewhere = self.device(self.thandi), self.device(self.thandi, other)
        elsewhere.write("For the menu.")
        self.refused(422, one, elsewhere.update(), client=elsewhere.page["client"])

    def test_words_inside_of_words_are_refused_and_take_the_page_away_from_nobody(self) -> None:
        one, _ = self.pair()
        one.write("First.")
        one.exchange()
        own = one.page["client"]
        # A text of its own (kind 7, type 6) whose parent is the second tick: letters, which hold nothing.
        number = bytearray()
        while own >= 0x80:
            number.append(own & 0x7F | 0x80)
            own >>= 7
        number.append(own)
        bad = bytes([1, 1, *number, 8, 7, 0, *number, 2, 6, 0])
        body = {"after": 0, "client": one.page["client"], "update": b64encode(bad).decode()}
        self.problem(422, one.person, "POST", f"{one.address}/exchange", body)
        self.assertEqual(self.device(self.josh).words, ["First."])
        # Had it come in all the same, the page would still be there.
        page = SharedPage.objects.get()
        SharedUpdate.objects.create(
            page=page, number=2, client=one.page["client"], start=8, end=9, person=one.person, at=NOW, data=bad
        )
        SharedPage.objects.update(number=2)
        with self.assertLogs("coatpeg", "ERROR"):
            self.settle()
        self.assertEqual(self.device(self.josh).words, ["First."])

    def test_a_page_that_is_full_takes_no_more_and_lets_words_be_taken_off(self) -> None:
        one, _ = self.pair()
        one.write("word " * 55_000)
        one.exchange()
        self.settle()
        before = one.doc.get_state()
        one.write("More.")
        found = self.problem(403, one.person, "POST", f"{one.address}/exchange", one.body(one.doc.get_update(before)))
        self.assertIn("full", found["title"])
        fresh = self.device(self.josh)
        fresh.cut(0, 0, 100_000)
        fresh.exchange()
        self.settle()
        fresh.write("Again.")
        fresh.exchange()

    def test_longer_than_any_text_is_kept_it_is_still_laid_into_portfolios(self) -> None:
        one, two = self.pair()
        for device in (one, two):
            device.write("word " * 40_000)
            device.exchange()
        self.settle()
        self.assertGreater(self.lying(self.noor).words, 39_000)

    def test_what_no_page_holds(self) -> None:
        one, _ = self.pair()
        with one.doc.transaction():
            one.root.children.append(XmlElement("script", {}, [XmlText("alert(1)")]))
        self.assertIn("cannot hold", self.refused(422, one, one.update())["title"])
        fresh = self.device(self.thandi)
        with fresh.doc.transaction():
            fresh.root.children.append(new_text("Click"))
            fresh.root.children[0].children[0].format(0, 5, {"link": {"href": "javascript:alert(1)"}})
        self.refused(422, fresh, fresh.update())
        third = self.device(self.thandi)
        with third.doc.transaction():
            third.doc.get("elsewhere", type=XmlFragment).children.append(new_text("Hidden"))
        self.refused(422, third, third.update())

    def test_a_picture_pasted_in_says_what_to_do(self) -> None:
        one, _ = self.pair()
        with one.doc.transaction():
            one.root.children.append(XmlElement("image", {"src": "data:image/png;base64,AAAA"}, []))
        self.assertIn("pocket of your own", self.refused(422, one, one.update())["fix"])


class Whose(SharingCase):
    def setUp(self) -> None:
        super().setUp()
        self.one, self.two = self.pair()
        self.one.write("If it jams we need a hook,")
        self.one.exchange()
        self.two.exchange()
        self.two.write(" and a sign. So the lights wait.", 0)
        self.two.exchange()
        self.one.exchange()

    def test_each_one_s_words_are_counted_and_dated(self) -> None:
        found = self.written(self.one)
        self.assertEqual((found["Thandi D."]["words"], found["Josh E."]["words"]), (7, 7))
        self.assertEqual(found["Josh E."]["sentences"], 2)
        self.assertEqual((found["Noor A."]["words"], found["Noor A."]["last"]), (0, None))

    def test_whoever_only_read_is_said_to_have_read(self) -> None:
        self.assertFalse(self.written(self.one)["Noor A."]["read"])
        self.device(self.noor)
        self.assertTrue(self.written(self.one)["Noor A."]["read"])

    def test_an_insertion_in_the_middle_of_a_word_is_its_writer_s(self) -> None:
        self.two.write("ZZ", 0, 3)
        self.two.exchange()
        self.settle()
        said = settling.spans_of(SharedPage.objects.get())
        self.assertEqual({one.person for one in said}, {self.one.person.pk, self.two.person.pk})
        self.assertEqual(self.written(self.two)["Josh E."]["words"], 8)

    def test_taking_away_another_s_words_is_allowed_and_recorded(self) -> None:
        self.two.cut(0, 0, 6)
        self.two.exchange()
        with self.at(NOW + timedelta(minutes=6)):
            self.settle()
        by = {one["person"]: one for one in self.moments()["moments"][0]["by"]}
        self.assertEqual(by[self.two.person.pk]["away"], 6)
        self.assertEqual(by[self.one.person.pk]["away"], 0)

    def moments(self) -> Any:
        return self.ok(self.plot.lead, "GET", f"{self.one.address}/moments")

    def test_a_passage_taken_away_by_staff_is_kept_and_comes_back_with_its_authors(self) -> None:
        words = self.one.words[0]
        wrong = {"place": 0, "words": "Something else"}
        self.problem(409, self.plot.lead, "POST", f"{self.one.address}/taken", wrong)
        body = {"place": 0, "words": words}
        taken = self.ok(self.plot.lead, "POST", f"{self.one.address}/taken", body)
        self.one.exchange()
        self.assertEqual(self.one.words, [])
        self.assertEqual(self.moments()["taken"][0]["text"], words)
        self.one.write("Meanwhile.")
        self.one.exchange()
        for _ in range(2):
            self.ok(self.plot.lead, "POST", f"/passages/{taken['id']}/restore")
        self.one.exchange()
        self.two.exchange()
        self.assertEqual(self.one.words, [words, "Meanwhile."])
        self.assertEqual(self.two.words, self.one.words)
        found = self.written(self.one)
        self.assertEqual((found["Thandi D."]["words"], found["Josh E."]["words"]), (8, 7))

    def test_a_moment_brought_back_keeps_its_authors_and_marks(self) -> None:
        self.two.write("Café 😀 Ärger", 0, 0)
        self.two.exchange()
        self.one.exchange()
        with self.one.doc.transaction():
            text = self.one.root.children[0].children[0]
            text.format(0, len("Café 😀 ".encode()), {"italic": {}})
            text.format(len("Café 😀 Ärger".encode()), len("Café 😀 ÄrgerIf".encode()), {"bold": {}})
        self.one.exchange()
        self.settle()
        moment = SharedMoment.objects.get()
        shown = self.ok(self.one.person, "GET", f"/moments/{moment.pk}")
        self.assertIn("<strong>If</strong>", shown["html"])
        before = self.one.words
        self.two.exchange()
        self.two.cut(0, 0, len("Café 😀 Ärger".encode()))
        self.two.exchange()
        self.ok(self.plot.lead, "POST", f"/moments/{moment.pk}/restore")
        self.one.exchange()
        self.assertEqual(self.one.words, before)
        found = self.written(self.one)
        self.assertEqual((found["Thandi D."]["words"], found["Josh E."]["words"]), (7, 9))
        self.settle()
        self.assertIn("<em>Café 😀 </em>Ärger<strong>If</strong> it", self.lying(self.noor).html)
        self.problem(403, self.one.person, "POST", f"/moments/{moment.pk}/restore")


class Led(SharingCase):
    def test_a_question_on_top_is_told_with_the_next_exchange(self) -> None:
        one, _ = self.pair()
        question = f"{one.address}/question"
        self.ok(self.plot.lead, "PUT", question, {"question": "  Who would   notice? "})
        self.assertEqual(one.exchange()["question"], "Who would notice?")
        self.problem(422, self.plot.lead, "PUT", question, {"question": "x" * 501})
        self.problem(403, one.person, "PUT", question, {"question": "Mine"})
        self.problem(403, self.plot.staff("bosse", Role.MARKER), "PUT", question, {"question": "Mine"})

    def test_closed_it_is_read_and_what_was_written_stays_on_the_device(self) -> None:
        one, _ = self.pair()
        one.write("Half a thou")
        self.ok(self.plot.lead, "DELETE", f"{one.address}/open")
        found = self.problem(403, one.person, "POST", f"{one.address}/exchange", one.body())
        self.assertIn("stays on this device", found["fix"])
        self.assertIn("closed", self.device(self.josh).page["closed"])
        self.ok(self.plot.lead, "PUT", f"{one.address}/open")
        one.exchange()
        self.assertEqual(self.device(self.josh).words, ["Half a thou"])

    def test_whoever_left_the_group_is_told_so_and_their_words_stay(self) -> None:
        crew = working_group(self.plot.group, "Lights")
        crew.members.set([self.thandi.enrolment, self.josh.enrolment])
        script = self.plot.pocket("Cue script", "page", shared="group")
        one = self.device(self.thandi, script)
        two = self.device(self.josh, script)
        one.write("Cue one.")
        one.exchange()
        crew.members.remove(self.thandi.enrolment)
        one.write(" Cue two.", 0)
        found = self.problem(403, one.person, "POST", f"{one.address}/exchange", one.body())
        self.assertIn("no longer among those", found["title"])
        two.exchange()
        self.assertEqual(two.words, ["Cue one."])
        self.assertEqual(self.written(two)["Thandi D."]["there"], False)

    def test_of_a_group_or_period_only_its_own(self) -> None:
        by_period = self.plot.pocket("Menu", "page", shared="period")
        one, two = self.device(self.thandi, by_period), self.device(self.noor, by_period)
        other = self.device(self.josh, by_period)
        self.assertEqual(one.page["id"], two.page["id"])
        self.assertNotEqual(one.page["id"], other.page["id"])
        self.problem(404, self.josh.enrolment.person, "POST", f"{one.address}/exchange", {"after": 0})
        self.assertEqual([one["name"] for one in other.page["people"]], ["Josh E."])
        crewless = self.plot.pocket("Cue script", "page", shared="group")
        address = f"/portfolios/{self.thandi.pk}/pockets/{crewless.pk}/shared"
        self.assertIn("working group", self.problem(404, self.thandi.enrolment.person, "POST", address)["fix"])

    def test_staff_read_and_do_not_write(self) -> None:
        one, _ = self.pair()
        one.write("Ours.")
        one.exchange()
        address = f"/portfolios/{self.josh.pk}/pockets/{self.plan.pk}/shared"
        seen = self.ok(self.plot.lead, "POST", address)
        self.assertEqual((seen["client"], seen["may_lead"]), (None, True))
        body = {**one.body(), "client": one.page["client"]}
        self.problem(403, self.plot.lead, "POST", f"{one.address}/exchange", body)
        outside = klass("Other", "stranger").lead
        self.problem(404, outside, "POST", f"{one.address}/exchange", {"after": 0})


class Settled(SharingCase):
    def test_it_lies_in_each_portfolio_and_counts_each_one_s_part(self) -> None:
        Pocket = type(self.plan)  # noqa: N806 - the model by its own name
        Pocket.objects.filter(pk=self.plan.pk).update(measure="sentences", least=2)
        one, two = self.pair()
        one.write("The thunder comes too late. People hear it.")
        one.exchange()
        two.exchange()
        two.write("The rain sheet jams.")
        two.exchange()
        with self.at(NOW + timedelta(seconds=10)):
            run_waiting()
        text = "The thunder comes too late. People hear it.\nThe rain sheet jams."
        self.assertEqual([self.lying(each).text.replace("\n\n", "\n") for each in (self.thandi, self.noor)], [text] * 2)
        counted = {
            one.portfolio_id: (one.has_work, one.last_work_at) for one in PocketContent.objects.filter(pocket=self.plan)
        }
        self.assertEqual(counted, {self.thandi.pk: (True, NOW), self.josh.pk: (True, NOW), self.noor.pk: (False, None)})
        met = {book.pk: self.opened(book)["met"] for book in (self.thandi, self.josh)}
        self.assertEqual(met, {self.thandi.pk: 1, self.josh.pk: 0})
        self.assertEqual(list(differences()), [])
        SharedPage.objects.update(html="<p>Something else.</p>")
        self.assertIn("shared page", "".join(differences()))

    def opened(self, book: Portfolio) -> Any:
        return self.ok(book.enrolment.person, "GET", f"/portfolios/{book.pk}/pockets/{self.plan.pk}")

    def test_nothing_else_writes_into_it(self) -> None:
        person = self.thandi.enrolment.person
        address = f"/portfolios/{self.thandi.pk}/pockets/{self.plan.pk}"
        self.problem(403, person, "PUT", f"{address}/page", {"text": "Mine alone", "version": 0})
        self.problem(403, person, "POST", f"{address}/links", {"link": "https://example.org", "title": "A link"})

    def test_locked_by_staff_nobody_writes(self) -> None:
        one, two = self.pair()
        one.write("Before.")
        one.exchange()
        self.settle()
        body = {"students": [self.josh.enrolment_id], "reason": "Pens down"}
        self.ok(self.plot.lead, "POST", f"/groups/{self.plot.group.pk}/pockets/{self.plan.pk}/locked", body)
        two.write("After.")
        found = self.problem(403, two.person, "POST", f"{two.address}/exchange", two.body())
        self.assertIn("locked", found["title"])

    def test_what_was_written_a_moment_ago_is_no_empty_pocket(self) -> None:
        one, _ = self.pair()
        one.write("Ours.")
        one.exchange()
        settings = {"title": "What could go wrong?", "kind": "page", "shared": "group", "version": 1}
        address = f"/groups/{self.plot.group.pk}/template/pockets/{self.plan.pk}"
        found = self.problem(422, self.plot.lead, "PUT", address, settings)
        self.assertIn("Retire this pocket", found["fix"])
        self.assertTrue(used(self.plan))
        self.assertTrue(begun(self.plot.group.pk))

    def test_the_template_says_when_it_cannot_be_shared_any_more(self) -> None:
        one, _ = self.pair()
        one.write("Ours.")
        one.exchange()
        self.settle()
        group = f"/groups/{self.plot.group.pk}/template"
        laid = self.ok(self.plot.lead, "GET", group)
        pocket = next(one for section in laid["sections"] for one in section["pockets"] if one["id"] == self.plan.pk)
        self.assertEqual((pocket["shared"], pocket["own_part"]), ("class", True))


class PressedCase(SharingCase):
    """A page that two fill, and a hand-in of it."""

    def setUp(self) -> None:
        super().setUp()
        self.crew = working_group(self.plot.group, "Lights")
        self.crew.members.set([self.thandi.enrolment, self.josh.enrolment])
        self.script = self.plot.pocket("Cue script", "page", shared="group")
        self.handin = self.plot.handin(self.script, title="Cue script")
        self.one, self.two = self.device(self.thandi, self.script), self.device(self.josh, self.script)
        self.one.write("Cue one, on the word ship.")
        self.one.exchange()

    def press(self, book: Portfolio, seen: int = 0) -> Any:
        address = f"/portfolios/{book.pk}/handins/{self.handin.pk}/submissions"
        return self.ok(book.enrolment.person, "POST", address, {"seen": seen})


class HandedIn(PressedCase):
    """One press for all who fill it."""

    def test_each_has_a_receipt_of_the_same_words_and_nobody_writes_on(self) -> None:
        asked = self.ok(self.josh.enrolment.person, "GET", f"/portfolios/{self.josh.pk}/pockets/{self.script.pk}")
        self.assertEqual(asked["handins"][0]["together"], 2)
        # Written a moment ago, and laid into nobody's portfolio yet.
        self.two.exchange()
        self.two.write(" Slowly.", 0)
        self.two.exchange()
        self.press(self.josh)
        mine, theirs = (
            Submission.objects.get(enrolment=self.josh.enrolment),
            Submission.objects.get(enrolment=self.thandi.enrolment),
        )
        self.assertEqual((mine.along, theirs.along), (None, mine))
        self.assertNotEqual(mine.receipt, theirs.receipt)
        for each in (mine, theirs):
            words = [one["text"] for one in each.snapshot["pockets"][0]["evidence"]]
            self.assertEqual(words, ["Cue one, on the word ship. Slowly."])
        self.assertFalse(Submission.objects.filter(enrolment=self.noor.enrolment).exists())
        self.one.write("After.")
        found = self.problem(403, self.one.person, "POST", f"{self.one.address}/exchange", self.one.body())
        self.assertIn("handed in", found["title"])
        # Pressed once more by the other one: told of what stands.
        again = f"/portfolios/{self.thandi.pk}/handins/{self.handin.pk}/submissions"
        self.assertIn(
            theirs.receipt, self.problem(409, self.thandi.enrolment.person, "POST", again, {"seen": 0})["title"]
        )

    def test_each_is_late_by_their_own_date_and_who_is_excused_is_left_out(self) -> None:
        third = self.plot.student("ravi", "Ravi", "Singh")
        self.crew.members.add(third.enrolment)
        excused = f"/handins/{self.handin.pk}/students/{third.enrolment_id}/excused"
        self.ok(self.plot.lead, "PUT", excused, {"excused": True})
        adjust(self.josh, 5)
        with self.at(NOW + timedelta(days=4)):
            self.press(self.thandi)
            board = self.pegs(self.plot.lead, self.plot.group.pk)
        late = {row["id"]: row["cells"][0]["late"] for row in board["students"]}
        self.assertTrue(late[self.thandi.enrolment_id])
        self.assertFalse(late[self.josh.enrolment_id])
        self.assertFalse(Submission.objects.filter(enrolment=third.enrolment).exists())

    def test_taken_back_it_is_for_all_of_them_and_a_later_change_of_groups_moves_nothing(self) -> None:
        made = self.press(self.josh)
        self.crew.members.remove(self.thandi.enrolment)
        self.assertEqual(Submission.objects.filter(voided_at=None).count(), 2)
        self.ok(self.josh.enrolment.person, "POST", f"/submissions/{made['id']}/take-back")
        self.assertEqual(Submission.objects.filter(voided_at=None).count(), 0)
        self.two.exchange()
        self.two.write("Going on.")
        self.two.exchange()

    def test_to_whom_it_is_sent_back_mends_it_and_what_the_others_handed_in_stays(self) -> None:
        made = self.press(self.josh)
        back = {"pockets": [], "for_all": False, "apart": "Your cues have no signs yet."}
        self.ok(self.plot.lead, "POST", f"/submissions/{made['id']}/send-back", back)
        fresh = self.device(self.josh, self.script)
        fresh.write("Mended.")
        fresh.exchange()
        self.assertIn("handed in", self.device(self.thandi, self.script).page["closed"])
        self.settle()
        texts = {one.portfolio_id: one.text for one in Evidence.objects.filter(pocket=self.script)}
        self.assertIn("Mended.", texts[self.josh.pk])
        self.assertNotIn("Mended.", texts[self.thandi.pk])

    def test_with_a_pocket_of_ones_own_among_them_each_hands_in_alone(self) -> None:
        alone = self.plot.handin(self.script, self.plot.pocket("My research", "page"), title="Research")
        self.assertEqual(together.pages_for(alone.pk, self.josh.pk, NOW), [])
        address = f"/portfolios/{self.josh.pk}/handins/{alone.pk}/submissions"
        self.ok(self.josh.enrolment.person, "POST", address, {"seen": 0, "even_if_empty": True})
        self.assertEqual(Submission.objects.count(), 1)

    def test_whoever_wrote_nothing_hands_in_what_the_others_wrote_and_nothing_at_all_is_said(self) -> None:
        empty = self.plot.pocket("Set model", "page", shared="group")
        handin = self.plot.handin(empty, title="Set model")
        address = f"/portfolios/{self.josh.pk}/handins/{handin.pk}/submissions"
        self.assertTrue(self.problem(422, self.josh.enrolment.person, "POST", address, {"seen": 0})["empty"])
        self.press(self.josh)
        self.assertEqual(Submission.objects.count(), 2)


class Marked(PressedCase):
    """One mark for all who handed it in together, each with their own lateness."""

    def setUp(self) -> None:
        super().setUp()
        self.handin.points = Decimal(20)
        self.handin.save()
        self.made = self.press(self.josh)["id"]
        self.other = Submission.objects.get(enrolment=self.thandi.enrolment)

    def give(self, submission: int, how: str = "accept", status: int = 200, **body: Any) -> Any:
        body = {"feedback": "Clear signs.", "score": 15, "pockets": [], **body}
        if how == "accept":
            body.pop("pockets")
        path = f"/submissions/{submission}/{how}"
        if status != 200:
            return self.problem(status, self.plot.lead, "POST", path, body)
        return self.ok(self.plot.lead, "POST", path, body)

    def marks(self) -> dict[str, tuple[str, float | None, str]]:
        """Standing marks by given name: feedback, score, why apart."""
        rows = ReleasedMark.objects.filter(outcome__voided_at=None).select_related(
            "outcome__submission__enrolment__person"
        )
        return {
            one.outcome.submission.enrolment.person.given_name: (
                one.feedback,
                float(one.score) if one.score is not None else None,
                one.apart,
            )
            for one in rows
        }

    def test_accepted_once_it_is_for_all_and_off_the_pile(self) -> None:
        desk = self.ok(self.plot.lead, "GET", f"/submissions/{self.made}")
        self.assertEqual((desk["with_it"]["waiting"], desk["with_it"]["names"]), (1, ["Thandi Dube"]))
        self.assertIsNone(self.ok(self.josh.enrolment.person, "GET", f"/submissions/{self.made}")["with_it"])
        self.assertEqual(self.give(self.made)["also"], [self.other.pk])
        self.assertEqual(self.marks(), dict.fromkeys(("Josh", "Thandi"), ("Clear signs.", 15.0, "")))
        pile = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/pile")
        self.assertEqual(pile["waiting"], [])
        theirs = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}/feedback")
        self.assertEqual([one["feedback"] for one in theirs], ["Clear signs."])

    def test_lateness_takes_from_each_by_their_own_date(self) -> None:
        admin = person("bright", administrator=True)
        rule = self.ok(admin, "GET", "/late-rule")
        self.ok(admin, "PUT", "/late-rule", {"per_day": 10, "floor": 0, "version": rule["version"]})
        self.ok(self.josh.enrolment.person, "POST", f"/submissions/{self.made}/take-back")
        adjust(self.josh, 5)
        with self.at(NOW + timedelta(days=6)):
            made = self.press(self.thandi, seen=1)["id"]
            self.give(made)
        scores = {name: score for name, (_, score, _) in self.marks().items()}
        self.assertEqual(scores["Josh"], 15.0)
        self.assertLess(scores["Thandi"] or 0, 15.0)

    def test_what_is_said_on_the_work_is_said_to_all(self) -> None:
        submission = Submission.objects.select_related("enrolment").get(pk=self.made)
        evidence = submission.snapshot["pockets"][0]["evidence"][0]
        target = {"pocket": self.script.pk, "evidence": evidence["id"], "part": "text", "words": {"exact": "Cue one"}}
        body = {"kind": "comment", "text": "Who gives this cue?", "target": target}
        self.ok(self.plot.lead, "PUT", f"/submissions/{self.made}/annotations/0a0a0a0a", body)
        self.give(self.made, "send-back")
        said = self.ok(self.thandi.enrolment.person, "GET", f"/submissions/{self.other.pk}/annotations")
        self.assertEqual([one["text"] for one in said], ["Who gives this cue?"])
        theirs = self.other.snapshot["pockets"][0]["evidence"][0]["id"]
        self.assertEqual(said[0]["target"]["evidence"], theirs)
        self.assertFalse(self.device(self.thandi, self.script).page["closed"], "it is open again for all")
        # Reopened and given again, it is not said twice.
        self.ok(self.plot.lead, "POST", f"/submissions/{self.made}/reopen?for_all=true")
        self.give(self.made, "send-back")
        said = self.ok(self.thandi.enrolment.person, "GET", f"/submissions/{self.other.pk}/annotations")
        self.assertEqual(len(said), 1)

    def test_for_one_alone_with_a_reason_that_the_student_reads(self) -> None:
        found = self.give(self.made, status=422, for_all=False)
        self.assertIn("2 students handed this in together", found["title"])
        self.assertEqual(found["where"], "apart")
        self.give(self.made, status=422, for_all=False, apart="x" * 501)
        self.give(self.made, for_all=False, apart=" Wrote most of it. ", score=18)
        self.assertEqual(self.marks(), {"Josh": ("Clear signs.", 18.0, "Wrote most of it.")})
        own = self.ok(self.josh.enrolment.person, "GET", f"/portfolios/{self.josh.pk}/feedback")
        self.assertEqual(own[0]["apart"], "Wrote most of it.")
        # The other one's is another mark than the one that stands: it needs a reason, too.
        self.give(self.other.pk, status=422)
        self.give(self.other.pk, apart="Came in the last week.")
        self.assertEqual(len(self.marks()), 2)

    def test_reopened_for_all_or_changed_for_a_member(self) -> None:
        self.give(self.made)
        desk = self.ok(self.plot.lead, "GET", f"/submissions/{self.other.pk}")
        self.assertEqual(desk["with_it"]["with_outcome"], 1)
        self.ok(self.plot.lead, "POST", f"/submissions/{self.other.pk}/reopen")
        self.assertEqual(list(self.marks()), ["Josh"])
        self.give(self.other.pk, status=422, score=12)
        self.give(self.other.pk, score=12, version=1, apart="Was away for two rehearsals.")
        self.assertEqual(self.marks()["Thandi"], ("Clear signs.", 12.0, "Was away for two rehearsals."))
        self.ok(self.plot.lead, "POST", f"/submissions/{self.made}/reopen?for_all=true")
        self.assertEqual(list(self.marks()), ["Thandi"], "what was decided apart stands")

    def test_who_is_excused_or_decided_meanwhile_is_left_out(self) -> None:
        excused = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/excused"
        self.ok(self.plot.lead, "PUT", excused, {"excused": True})
        self.assertIsNone(self.ok(self.plot.lead, "GET", f"/submissions/{self.made}")["with_it"])
        self.give(self.made)
        self.assertEqual(list(self.marks()), ["Josh"])

    def test_two_who_mark_independently_decide_for_each(self) -> None:
        MarkingRule.objects.create(handin=self.handin, two=True, person=self.plot.lead, changed_at=NOW)
        self.assertIsNone(self.ok(self.plot.lead, "GET", f"/submissions/{self.made}")["with_it"])
        self.give(self.made, alone="The other one is ill.")
        self.assertEqual(list(self.marks()), ["Josh"])


class WhoDidWhat(PressedCase):
    """Each says their part and confirms what all say; frozen with each submission."""

    def at_(self, book: Portfolio, rest: str = "") -> str:
        return f"/portfolios/{book.pk}/handins/{self.handin.pk}/parts{rest}"

    def seen(self, book: Portfolio) -> Any:
        return self.ok(book.enrolment.person, "GET", self.at_(book))

    def say(self, book: Portfolio, text: str, version: int = 0) -> Any:
        return self.ok(book.enrolment.person, "PUT", self.at_(book), {"text": text, "version": version})

    def confirm(self, book: Portfolio) -> Any:
        seal = self.seen(book)["seal"]
        return self.ok(book.enrolment.person, "POST", self.at_(book, "/confirm"), {"seal": seal})

    def desk(self, book: Portfolio) -> dict[str, tuple[str, bool]]:
        submission = Submission.objects.filter(enrolment=book.enrolment).latest("pk")
        parts = self.ok(self.plot.lead, "GET", f"/submissions/{submission.pk}")["parts"]
        return {one["name"]: (one["text"], one["confirmed"]) for one in parts}

    def test_said_by_each_confirmed_by_all_and_anew_after_a_change(self) -> None:
        self.problem(422, self.josh.enrolment.person, "POST", self.at_(self.josh, "/confirm"), {"seal": "x"})
        old = self.say(self.josh, " Wrote the cues. ")["seal"]
        found = self.confirm(self.thandi)
        self.assertEqual(
            [(one["name"], one["text"], one["confirmed"]) for one in found["parts"]],
            [("Thandi D.", "", True), ("Josh E.", "Wrote the cues.", False)],
        )
        self.say(self.thandi, "Tried them out.")
        self.assertFalse(any(one["confirmed"] for one in self.seen(self.josh)["parts"]), "to be confirmed anew")
        self.problem(409, self.josh.enrolment.person, "POST", self.at_(self.josh, "/confirm"), {"seal": old})
        self.confirm(self.josh)
        self.press(self.josh)
        both = {"Thandi Dube": ("Tried them out.", False), "Josh Ellery": ("Wrote the cues.", True)}
        self.assertEqual([self.desk(self.thandi), self.desk(self.josh)], [both, both])
        self.confirm(self.thandi)
        self.assertTrue(self.desk(self.josh)["Thandi Dube"][1], "confirmed after handing in")

    def test_not_changed_once_it_is_handed_in_and_again_when_it_is_sent_back(self) -> None:
        self.say(self.josh, "Wrote the cues.")
        made = self.press(self.josh)["id"]
        self.assertFalse(self.seen(self.josh)["may_write"])
        body = {"text": "All of it.", "version": 1}
        self.problem(403, self.josh.enrolment.person, "PUT", self.at_(self.josh), body)
        self.crew.members.remove(self.thandi.enrolment)
        self.assertEqual(len(self.seen(self.josh)["parts"]), 2, "about those who handed it in together")
        self.ok(self.plot.lead, "POST", f"/submissions/{made}/send-back", {"pockets": []})
        self.say(self.josh, "Wrote the cues and mended them.", 1)
        self.assertEqual(self.desk(self.josh)["Josh Ellery"][0], "Wrote the cues.", "as it was handed in")

    def test_bad_input(self) -> None:
        self.problem(422, self.josh.enrolment.person, "PUT", self.at_(self.josh), {"text": "x" * 601})
        self.say(self.josh, "Wrote the cues.")
        found = self.problem(409, self.josh.enrolment.person, "PUT", self.at_(self.josh), {"text": "Other."})
        self.assertEqual(found["text"], "Wrote the cues.")
        alone = self.plot.handin(self.plot.pocket("My research", "page"), title="Research")
        path = f"/portfolios/{self.josh.pk}/handins/{alone.pk}/parts"
        self.assertIn("alone", self.problem(404, self.josh.enrolment.person, "GET", path)["title"])
        self.problem(404, self.noor.enrolment.person, "GET", self.at_(self.josh))
        self.problem(403, self.plot.lead, "PUT", self.at_(self.josh), {"text": "x"})
        self.press(self.thandi)
        self.assertEqual(len(self.desk(self.thandi)), 2)


class AtOnce(TransactionTestCase):
    """Two devices at the very same moment, each with a connection of its own."""

    def test_two_who_send_at_once_are_both_kept_in_one_order(self) -> None:
        case = Live()
        plot = klass()
        pocket = plot.pocket("Menu", "page", shared="class")
        devices = [Device(case, plot.student(name, name.title()), pocket) for name in ("ada", "ben", "cy")]
        for number, device in enumerate(devices):
            device.write(f"Line {number}.")
        results = at_once(*(device.exchange for device in devices))
        self.assertEqual([one for one in results if isinstance(one, Exception)], [])
        for device in devices:
            device.exchange()
        self.assertEqual(len(devices[0].words), 3)
        self.assertEqual(devices[0].words, devices[1].words)
        self.assertEqual(list(SharedUpdate.objects.values_list("number", flat=True)), [1, 2, 3])
        page = SharedPage.objects.get()
        self.assertEqual(at_once(lambda: settling.settle_page.call(page.pk), devices[0].exchange)[0], None)
        self.assertEqual(Evidence.objects.filter(pocket=pocket).count(), 3)


class Quoting(SharingCase):
    """A passage as evidence in a pocket of one's own, with its author."""

    def setUp(self) -> None:
        super().setUp()
        self.ideas = self.plot.pocket("My ideas", artefacts=1, reflection_on_each=False)
        one, two = self.pair()
        one.write("A drum of tin. ")
        one.exchange()
        two.exchange()
        two.write("And rope.", 0)
        two.write("Only the rope.")
        two.exchange()

    def quote(self, book: Portfolio, place: int, words: str, status: int = 201, pocket: Any = None) -> Any:
        body = {"shared": SharedPage.objects.get().pk, "place": place, "words": words}
        call = (
            book.enrolment.person,
            "POST",
            f"/portfolios/{book.pk}/pockets/{(pocket or self.ideas).pk}/passages",
            body,
        )
        return self.ok(*call) if status == 201 else self.problem(status, *call)

    def lying_in(self, book: Portfolio) -> Any:
        return self.ok(book.enrolment.person, "GET", f"/portfolios/{book.pk}/pockets/{self.ideas.pk}")

    def test_it_says_who_wrote_what_and_counts_ones_own(self) -> None:
        self.quote(self.thandi, 0, "A drum of tin. And rope.")
        (made,) = self.lying_in(self.thandi)["evidence"]
        artefact = made["artefact"]
        self.assertEqual(artefact["title"], "From “What could go wrong?”")
        html = "<p>A drum of tin.</p><blockquote><p>And rope.</p><p><em>Josh E.</em></p></blockquote>"
        self.assertEqual((artefact["html"], artefact["passage"]), (html, True))
        kept = WrittenText.objects.get(artefact=artefact["id"])
        self.assertEqual((kept.text, kept.words), ("A drum of tin.", 4))
        self.assertEqual(self.lying_in(self.thandi)["met"], 1)
        # What is written on the page later changes nothing in it.
        later = self.device(self.josh)
        later.write(" Twice.", 0)
        later.exchange()
        self.assertEqual(self.lying_in(self.thandi)["evidence"][0]["artefact"]["html"], html)

    def test_of_others_alone_it_is_no_work_yet(self) -> None:
        self.quote(self.thandi, 1, "Only the rope.")
        found = self.lying_in(self.thandi)
        self.assertEqual((found["met"], found["evidence"][0]["unchanged"]), (0, True))

    def test_nobody_changes_it(self) -> None:
        made = self.quote(self.thandi, 0, "A drum of tin. And rope.")
        artefact = Evidence.objects.get(pk=made["id"]).artefact_id
        body = {"html": "<p>Mine.</p>", "text": "Mine.", "version": 1}
        said = self.problem(403, self.thandi.enrolment.person, "PUT", f"/texts/{artefact}", body)
        self.assertIn("stays as it was", said["title"])

    def test_on_the_show_page_stand_ones_own_words(self) -> None:
        mine = self.quote(self.thandi, 0, "A drum of tin. And rope.")["id"]
        theirs = self.quote(self.thandi, 1, "Only the rope.")["id"]
        path = f"/portfolios/{self.thandi.pk}/show"
        line = {"caption": "", "wide": False}
        said = self.problem(
            422,
            self.thandi.enrolment.person,
            "PUT",
            path,
            {"title": "Best", "version": 0, "shown": [{"evidence": theirs, **line}]},
        )
        self.assertIn("no words of your own", said["title"])
        body = {"title": "Best", "version": 0, "shown": [{"evidence": mine, **line}]}
        self.ok(self.thandi.enrolment.person, "PUT", path, body)
        shown = self.ok(self.plot.lead, "GET", path)["shown"]
        self.assertEqual([one["artefact"]["html"] for one in shown], ["<p>A drum of tin.</p>"])

    def test_what_was_changed_meanwhile_or_is_elsewhere_is_refused(self) -> None:
        self.quote(self.thandi, 0, "A drum of tin.", status=409)
        self.quote(self.thandi, 9, "Nothing.", status=409)
        self.quote(self.thandi, 0, "A drum of tin. And rope.", status=422, pocket=self.plot.pocket("Log", "log"))
        stranger = klass("9 Forge", "marsh")
        other = stranger.student("wren", "Wren", "Ito")
        self.quote(other, 0, "A drum of tin. And rope.", status=404, pocket=stranger.pocket("Notes"))
        self.assertFalse(WrittenText.objects.exists())
