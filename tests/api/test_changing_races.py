"""A hand-in changed, taken away, excused for many, reminded of, while its students hand in: each on its own connection."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

from django.test import TransactionTestCase

from coatpeg.core.errors import CoatPegError, Stale
from coatpeg.core.handins.standing import Status
from coatpeg.handins.asked.setting import plan_of
from coatpeg.handins.changing import commands
from coatpeg.handins.many.choosing import Seen
from coatpeg.handins.many.commands import excuse_many
from coatpeg.handins.models import HandIn, Reminder, Submission
from coatpeg.handins.reminding.commands import remind
from coatpeg.portfolios.models import StandingHold
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.test_races import at_once
from tests.builders import NOW, TODAY, klass

ROUNDS = 4


class AtTheSameMoment(TransactionTestCase):
    def setUp(self) -> None:
        self.plot = klass()
        self.card, self.menu = self.plot.pocket(), self.plot.pocket("Menu")
        self.thandi = self.plot.student("thandi")
        builders.fill(self.thandi, self.card)
        self.lead, self.group = self.plot.lead, self.plot.group.pk

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])

    def refused(self, found: list[object]) -> list[Exception]:
        told = [one for one in found if isinstance(one, Exception)]
        for one in told:
            self.assertIsInstance(one, CoatPegError)
        return told

    def test_handing_in_while_a_pocket_is_added(self) -> None:
        for number in range(ROUNDS):
            handin = self.plot.handin(self.card, title=f"Card {number}")
            plan = replace(plan_of(handin), pockets=(self.card.pk, self.menu.pk))
            self.refused(
                at_once(
                    lambda handin=handin: builders.hand_in(self.thandi, handin),
                    lambda handin=handin, plan=plan: commands.change_handin(
                        self.lead, self.group, handin.pk, plan, 1, NOW
                    ),
                )
            )
            frozen = {one["id"] for one in Submission.objects.get(handin=handin).snapshot["pockets"]}
            held = set(StandingHold.objects.filter(handin_id=handin.pk).values_list("pocket_id", flat=True))
            self.assertEqual(held, frozen, "what was handed in is what is locked")

    def test_handing_in_while_it_is_taken_away_and_while_many_are_excused(self) -> None:
        seen = Status.WORKING
        for number in range(ROUNDS):
            handin = self.plot.handin(self.card, title=f"Card {number}")
            cells = [Seen(handin.pk, self.thandi.enrolment_id, seen)]
            self.refused(
                at_once(
                    lambda handin=handin: builders.hand_in(self.thandi, handin),
                    lambda cells=cells: excuse_many(self.lead, self.group, cells, NOW, excused=True),
                )
            )
            self.refused(
                at_once(
                    lambda handin=handin: builders.hand_in(self.thandi, handin),
                    lambda handin=handin: commands.take_away(self.lead, self.group, handin.pk, NOW),
                )
            )
            self.assertFalse(StandingHold.objects.filter(handin_id=handin.pk).exists())
            commands.bring_back(self.lead, self.group, handin.pk, NOW)

    def test_two_changes_at_once_one_is_told(self) -> None:
        handin = self.plot.handin(self.card)
        plans = [replace(plan_of(handin), title=title) for title in ("Mine", "Theirs")]
        found = at_once(
            *(
                lambda plan=plan: commands.change_handin(self.lead, self.group, handin.pk, plan, 1, NOW)
                for plan in plans
            )
        )
        told = self.refused(found)
        self.assertEqual([type(one) for one in told], [Stale])
        self.assertEqual(HandIn.objects.get(pk=handin.pk).version, 2)

    def test_two_reminders_at_once_the_student_gets_one(self) -> None:
        handin = self.plot.handin(self.card, due=TODAY + timedelta(days=1))
        cells = [(self.thandi.enrolment_id, handin.pk)]
        self.refused(at_once(*(lambda: remind(self.lead, self.group, cells, "Please.", NOW) for _ in range(2))))
        self.assertEqual(Reminder.objects.count(), 1)
