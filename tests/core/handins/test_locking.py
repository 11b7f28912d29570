"""Holds: what takes them, what releases them."""

from django.test import SimpleTestCase

from coatpeg.core.errors import Invalid, Refused
from coatpeg.core.handins.locking import Hold, HoldHappening, fold_holds, pockets_to_send_back, refuse_if_locked
from coatpeg.core.handins.standing import Verb

CARD, LOG = 1, 2
FIRST, WHOLE = 10, 20


def happening(verb: Verb, handin: int = FIRST, *pockets: int) -> HoldHappening:
    return HoldHappening(verb, handin, frozenset(pockets or (CARD,)))


class Holds(SimpleTestCase):
    def held(self, *happenings: HoldHappening) -> set[Hold]:
        return set(fold_holds(happenings))

    def test_handing_in_locks_and_accepting_keeps(self) -> None:
        self.assertEqual(self.held(happening(Verb.HANDED_IN), happening(Verb.ACCEPTED)), {Hold(CARD, FIRST)})

    def test_what_releases_ones_own_hold(self) -> None:
        for verb in (Verb.SENT_BACK, Verb.TAKEN_BACK, Verb.EXCUSED):
            with self.subTest(verb):
                self.assertEqual(self.held(happening(Verb.HANDED_IN), happening(verb)), set())

    def test_two_hand_ins_that_share_a_pocket(self) -> None:
        both = (happening(Verb.HANDED_IN), happening(Verb.HANDED_IN, WHOLE, CARD, LOG))
        self.assertEqual(
            self.held(*both, happening(Verb.TAKEN_BACK, FIRST)),
            {Hold(CARD, WHOLE), Hold(LOG, WHOLE)},
            "the other still holds",
        )
        self.assertEqual(
            self.held(*both, happening(Verb.SENT_BACK, FIRST)),
            {Hold(LOG, WHOLE)},
            "sent back releases every hold on it",
        )

    def test_sent_back_with_fewer_pockets_keeps_the_others_locked(self) -> None:
        happenings = (happening(Verb.HANDED_IN, FIRST, CARD, LOG), happening(Verb.SENT_BACK, FIRST, LOG))
        self.assertEqual(self.held(*happenings), {Hold(CARD, FIRST)})

    def test_reopening_a_sent_back_locks_again(self) -> None:
        self.assertEqual(
            self.held(happening(Verb.HANDED_IN), happening(Verb.SENT_BACK), happening(Verb.REOPENED)),
            {Hold(CARD, FIRST)},
        )

    def test_ending_an_excuse_locks_again_where_a_submission_stands(self) -> None:
        happenings = (happening(Verb.HANDED_IN), happening(Verb.EXCUSED), happening(Verb.UNEXCUSED))
        self.assertEqual(self.held(*happenings), {Hold(CARD, FIRST)})

    def test_a_locked_pocket_says_what_it_was_handed_in_for(self) -> None:
        refuse_if_locked("Recipe card", [])
        with self.assertRaises(Refused) as caught:
            refuse_if_locked("Recipe card", ["Whole portfolio", "Recipe card"])
        self.assertIn("“Recipe card” and “Whole portfolio”", caught.exception.what)
        self.assertIn("read it", caught.exception.fix)

    def test_the_pockets_to_send_back(self) -> None:
        collected = frozenset({CARD, LOG})
        self.assertEqual(pockets_to_send_back(collected, frozenset()), collected)
        self.assertEqual(pockets_to_send_back(collected, frozenset({LOG})), {LOG})
        with self.assertRaises(Invalid):
            pockets_to_send_back(collected, frozenset({99}))
