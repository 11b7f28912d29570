"""Setting up by several people at once, each on a connection of their own."""

from __future__ import annotations

from functools import partial
from typing import Any

from django.test import TransactionTestCase

from coatpeg.core.calendar.plan import CalendarPlan
from coatpeg.core.calendar.school_days import Term as CalendarTerm
from coatpeg.core.errors import CoatPegError, Refused, Stale
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.repeat import Unit
from coatpeg.core.people.roster_table import Column
from coatpeg.core.policy import Role
from coatpeg.core.portfolios.log_columns import log_from_data
from coatpeg.handins.models import Submission
from coatpeg.outlines.models import GalleryVersion, Pocket
from coatpeg.people import adjustments, cards, staffing
from coatpeg.people.models import Adjustment, Enrolment, Person, SignInCard, StaffRole, TeachingGroup, Term
from coatpeg.portfolios.logs import rows
from coatpeg.portfolios.models import Portfolio
from coatpeg.setup import deleting
from coatpeg.setup.calendar import changing
from coatpeg.setup.roster import enrolling
from coatpeg.setup.roster.class_lists import ClassList
from coatpeg.setup.template import changing as templates
from coatpeg.setup.template import drafting, galleries
from coatpeg.setup.template import units as repeats
from coatpeg.setup.template.draft_shapes import SaveIn
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.test_races import at_once
from tests.builders import NOW, TODAY, Class, klass


def names(*rows: tuple[str, str]) -> ClassList:
    """A list of family and given names."""
    return ClassList(rows, (Column.FAMILY, Column.GIVEN))


class RaceCase(TransactionTestCase):
    def setUp(self) -> None:
        self.plot = klass()
        self.co = self.plot.staff("co", Role.CO_TEACHER)

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])

    def only_one(self, results: list[Any], refusal: type[CoatPegError] = CoatPegError) -> None:
        """One got through and every other was told so; nobody met an error of the machine."""
        told = [one for one in results if isinstance(one, refusal)]
        others = [one for one in results if isinstance(one, Exception) and not isinstance(one, refusal)]
        self.assertEqual((others, len(told)), ([], len(results) - 1), results)


class Lists(RaceCase):
    def bring(self, of: ClassList, to: Class | None = None, by: Person | None = None) -> enrolling.Applied:
        to = to or self.plot
        return enrolling.apply_list(by or to.lead, to.group.pk, of, NOW)

    def test_the_same_list_by_two_people_enrols_everybody_once(self) -> None:
        rows = names(*((f"Student{number}", "Ada") for number in range(30)))
        results = at_once(lambda: self.bring(rows), lambda: self.bring(rows, by=self.co))
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        self.assertEqual((Enrolment.objects.count(), Portfolio.objects.count()), (30, 30))
        self.assertEqual(sorted(one.counts.get("new", 0) for one in results), [0, 30])

    def test_two_classes_at_once_make_different_user_names_for_people_of_one_name(self) -> None:
        forge = klass("9 Forge", "marsh")
        rows = ClassList((("Dube", "Thandi", "1"),), (Column.FAMILY, Column.GIVEN, Column.NUMBER))
        other = ClassList((("Dube", "Thandi", "2"),), (Column.FAMILY, Column.GIVEN, Column.NUMBER))
        results = at_once(lambda: self.bring(rows), lambda: self.bring(other, forge))
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        made = Person.objects.filter(family_name="Dube").values_list("username", flat=True)
        self.assertEqual(set(made), {"thandi.dube", "thandi.dube2"})

    def test_two_classes_at_once_make_one_student_of_a_number_and_the_later_one_asks(self) -> None:
        forge = klass("9 Forge", "marsh")
        rows = ClassList((("Dube", "Thandi", "1"),), (Column.FAMILY, Column.GIVEN, Column.NUMBER))
        results = at_once(lambda: self.bring(rows), lambda: self.bring(rows, forge))
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        self.assertEqual((Person.objects.filter(number="1").count(), Enrolment.objects.count()), (1, 1))
        self.assertEqual(sorted(one.counts.get("asked", 0) for one in results), [0, 1])

    def test_undone_twice_at_once_is_undone_once(self) -> None:
        change = self.bring(names(("Dube", "Thandi"))).change_id or 0
        results = at_once(
            lambda: enrolling.undo(self.plot.lead, self.plot.group.pk, change, NOW),
            lambda: enrolling.undo(self.co, self.plot.group.pk, change, NOW),
        )
        self.only_one(results)
        self.assertFalse(Enrolment.objects.exists())

    def test_other_columns_while_students_write_rows_leave_every_count_right(self) -> None:
        column = {"key": "a", "title": "Weather", "type": "text", "required": True}
        other = {"key": "b", "title": "Grams", "type": "number", "required": True}
        log = self.plot.pocket("Log", "log", log={"columns": [column, other]}, rows=3)
        students = [self.plot.student(f"s{number}", "Ada", f"Blom{number}") for number in range(4)]
        for turn in range(3):
            pocket = Pocket.objects.get(pk=log.pk)
            needed = turn % 2 == 1
            columns = log_from_data({"columns": [column, {**other, "required": needed}]})
            plan = PocketPlan("Log", PocketKind.LOG, rows=3, log=columns)
            of = (self.plot.lead, self.plot.group.pk, log.pk, plan, pocket.version, NOW)
            change = partial(templates.change_pocket, *of)
            write = [partial(rows.add_row, one.enrolment.person, one.pk, log.pk, {"a": "wet"}, NOW) for one in students]
            results = at_once(change, *write)
            self.assertFalse([one for one in results if isinstance(one, Exception)], results)
            self.assertEqual(list(differences()), [])

    def test_undone_while_a_student_begins_to_work_loses_nothing(self) -> None:
        card = self.plot.pocket()
        for _ in range(3):
            change = self.bring(names(("Dube", "Thandi"))).change_id or 0
            portfolio = Portfolio.objects.get()
            undone, work = at_once(
                lambda: enrolling.undo(self.plot.lead, self.plot.group.pk, change, NOW),  # noqa: B023 - run at once
                lambda: builders.add_picture(portfolio, card),  # noqa: B023
            )
            if isinstance(undone, Refused):
                self.assertFalse(isinstance(work, Exception), work)
                self.assertTrue(Portfolio.objects.filter(pk=portfolio.pk).exists())
                return
            self.assertIsNone(undone)
            self.assertIsInstance(work, Exception, "what is gone takes no work")
            self.assertFalse(Portfolio.objects.exists())

    def test_pegs_are_swapped_by_two_people_and_stay_unique(self) -> None:
        self.bring(names(("A", "Ada"), ("B", "Bo"), ("C", "Cy")))
        one, two, three = Enrolment.objects.order_by("pk").values_list("pk", flat=True)
        before = set(Enrolment.objects.values_list("picture", "tint"))
        swap = enrolling.class_lists.swap_pegs
        results = at_once(
            lambda: swap(self.plot.lead, self.plot.group.pk, one, two, NOW),
            lambda: swap(self.co, self.plot.group.pk, two, three, NOW),
        )
        self.assertEqual(results, [None, None])
        self.assertEqual(set(Enrolment.objects.values_list("picture", "tint")), before)


class Templates(RaceCase):
    def test_two_who_save_the_same_pocket(self) -> None:
        card = self.plot.pocket()

        def save(by: Person, title: str) -> Any:
            plan = PocketPlan(title, PocketKind.EVIDENCE, artefacts=1)
            return templates.change_pocket(by, self.plot.group.pk, card.pk, plan, 1, NOW)

        self.only_one(at_once(lambda: save(self.plot.lead, "Card"), lambda: save(self.co, "Recipe")), Stale)
        self.assertEqual(Pocket.objects.get().version, 2)

    def test_a_change_while_a_student_hands_in_freezes_one_or_the_other(self) -> None:
        card = self.plot.pocket()
        thandi = self.plot.student("thandi")
        handin = self.plot.handin(card)
        builders.fill(thandi, card)
        plan = PocketPlan("Recipe card", PocketKind.EVIDENCE, artefacts=5)
        results = at_once(
            lambda: templates.change_pocket(self.plot.lead, self.plot.group.pk, card.pk, plan, 1, NOW),
            lambda: builders.hand_in(thandi, handin),
        )
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        frozen = Submission.objects.get().snapshot["pockets"][0]["wanted"]["artefacts"]
        held = thandi.holds.get().wanted["artefacts"]
        self.assertIn(frozen, (2, 5))
        self.assertIn(held, (2, 5))

    def test_pockets_moved_by_two_people_keep_a_place_each(self) -> None:
        pockets = [self.plot.pocket(f"P{number}", "page") for number in range(4)]
        section, group = self.plot.section.pk, self.plot.group.pk
        results = at_once(
            lambda: templates.move_pocket(self.plot.lead, group, pockets[3].pk, section, pockets[0].pk, NOW),
            lambda: templates.move_pocket(self.co, group, pockets[0].pk, section, None, NOW),
        )
        self.assertEqual(results, [None, None])
        places = list(Pocket.objects.values_list("position", flat=True))
        self.assertEqual(len(set(places)), 4)

    def test_units_previewed_and_saved_by_two_people_wait_for_each_other(self) -> None:
        self.plot.student("thandi")
        group = self.plot.group.pk
        section = templates.add_section(self.plot.lead, group, "Unit", NOW, repeats=True)
        templates.add_pocket(self.plot.lead, group, section, PocketPlan("Diary", PocketKind.PAGE), NOW)
        units = [Unit(f"u{number}", f"Unit {number}") for number in range(5)]
        results = at_once(
            lambda: repeats.preview(self.plot.lead, group, section, units, NOW),
            lambda: repeats.set_units(self.co, group, section, units, 1, NOW),
            lambda: repeats.preview(self.co, group, section, units, NOW),
            lambda: repeats.set_units(self.plot.lead, group, section, units[:2], 1, NOW),
        )
        told = [one for one in results if isinstance(one, Exception)]
        self.assertEqual([type(one) for one in told], [Stale], results)
        self.assertIn(Pocket.objects.exclude(pattern=None).count(), (2, 5))

    def test_drafts_of_one_pocket_saved_at_once_by_two_people(self) -> None:
        self.plot.student("thandi")
        group, card = self.plot.group.pk, self.plot.pocket()

        def draft(title: str) -> list[Any]:
            data = {**templates.pocket_data(card), "title": title}
            edits = [{"do": "add_section", "id": -1, "title": title}]
            edits.append({"do": "change_pocket", "pocket": card.pk, "settings": data})
            return list(SaveIn.model_validate({"edits": edits}).edits)

        results = at_once(
            lambda: drafting.save(self.plot.lead, group, draft("Mine"), NOW),
            lambda: drafting.look(self.co, group, draft("Looked at"), NOW),
            lambda: drafting.save(self.co, group, draft("Theirs"), NOW),
        )
        self.assertIsInstance(results[1], drafting.Looked)
        self.only_one([results[0], results[2]], Stale)
        # All of one draft, nothing of the other.
        title = Pocket.objects.get(pk=card.pk).title
        self.assertEqual(list(self.plot.template.sections.values_list("title", flat=True))[1:], [title])

    def test_the_same_saving_twice_at_once_is_done_once(self) -> None:
        group = self.plot.group.pk
        edits = list(SaveIn.model_validate({"edits": [{"do": "add_section", "id": -1, "title": "Spring"}]}).edits)
        save = lambda: drafting.save(self.plot.lead, group, edits, NOW, key="one")  # noqa: E731
        results = at_once(save, save, save)
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        self.assertEqual(self.plot.template.sections.filter(title="Spring").count(), 1)

    def test_somebody_begins_while_the_class_is_deleted(self) -> None:
        thandi, card = self.plot.student("thandi"), self.plot.pocket()
        results = at_once(
            lambda: deleting.delete_class(self.plot.lead, self.plot.group.pk, NOW),
            lambda: builders.fill(thandi, card),
        )
        self.only_one(results, Exception)  # type: ignore[arg-type]  # the builder meets what the database says
        self.assertEqual(TeachingGroup.objects.exists(), Portfolio.objects.exists())

    def test_published_by_two_people_is_one_template_in_two_versions(self) -> None:
        self.plot.pocket()
        group = self.plot.group.pk
        results = at_once(
            lambda: galleries.publish(self.plot.lead, group, "Growing", "", NOW),
            lambda: galleries.publish(self.co, group, "Growing", "", NOW),
        )
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        self.assertEqual(sorted(GalleryVersion.objects.values_list("number", flat=True)), [1, 2])
        self.assertEqual(GalleryVersion.objects.values("template").distinct().count(), 1)


class People(RaceCase):
    def test_two_leads_who_step_down_at_once_leave_one(self) -> None:
        group = self.plot.group.pk
        staffing.set_role(self.plot.lead, group, self.co.pk, Role.LEAD, NOW)
        results = at_once(
            lambda: staffing.set_role(self.plot.lead, group, self.plot.lead.pk, Role.OBSERVER, NOW),
            lambda: staffing.set_role(self.co, group, self.co.pk, Role.OBSERVER, NOW),
        )
        self.only_one(results, Refused)
        self.assertEqual(StaffRole.objects.filter(role=Role.LEAD).count(), 1)

    def test_two_accounts_of_one_name_at_once(self) -> None:
        admin = builders.person("bright", administrator=True)
        results = at_once(*[lambda: staffing.add_account(admin, "Blom", "Ida", "", NOW)] * 2)
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        self.assertEqual({one.person.username for one in results}, {"ida.blom", "ida.blom2"})

    def test_an_adjustment_changed_by_two_people(self) -> None:
        thandi = self.plot.student("thandi")
        caseload = klass("Caseload", "lindqvist", "caseload")
        Enrolment.objects.create(group=caseload.group, person=thandi.enrolment.person, first=TODAY, picture="leaf")
        kept = builders.adjust(thandi, 1)

        def change(days: int) -> Adjustment:
            return adjustments.change(caseload.lead, kept.pk, adjustments.agreed(days, TODAY, None), 1, NOW)

        self.only_one(at_once(lambda: change(2), lambda: change(3)), Stale)

    def test_two_cards_made_at_once_leave_one_that_works(self) -> None:
        thandi = self.plot.student("thandi")
        make = lambda by: cards.make(by, self.plot.group.pk, [thandi.enrolment_id], NOW, lambda *_: b"")  # noqa: E731
        results = at_once(lambda: make(self.plot.lead), lambda: make(self.co))
        self.assertFalse([one for one in results if isinstance(one, Exception)], results)
        self.assertEqual(SignInCard.objects.filter(voided_at=None).count(), 1)

    def test_the_calendar_changed_by_two_administrators(self) -> None:
        admins = [builders.person(name, administrator=True) for name in ("bright", "stone")]
        key = changing.calendar_data(admins[0])["key"]
        terms = tuple(CalendarTerm(one.name, one.first, one.last) for one in Term.objects.all())

        def change(by: Person, days: frozenset[int]) -> Any:
            plan = CalendarPlan(terms, days, (), "Europe/London")
            return changing.change(by, plan, key, NOW)

        four, six = frozenset(range(4)), frozenset(range(6))
        self.only_one(at_once(lambda: change(admins[0], four), lambda: change(admins[1], six)), Stale)
