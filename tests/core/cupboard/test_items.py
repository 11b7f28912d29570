"""Who is shown what, and where a copy fits. What the product decided; no outside source speaks of it."""

from datetime import date

from django.test import SimpleTestCase

from coatpeg.core.cupboard.items import ItemKind, Shown, Target, artefact_kind, refuse_misfit, why_not
from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.portfolios.kinds import ArtefactKind

DAY = date(2026, 11, 5)


class WhoIsShownIt(SimpleTestCase):
    def test_staff_only_opening_and_periods(self) -> None:
        for shown, period, seen in (
            (Shown(), None, True),
            (Shown(staff_only=True), 3, False),
            (Shown(opens=date(2026, 11, 5)), 3, True),
            (Shown(opens=date(2026, 11, 6)), 3, False),
            (Shown(periods=frozenset({3})), 3, True),
            (Shown(periods=frozenset({3})), 4, False),
            (Shown(periods=frozenset({3})), None, False),
            (Shown(staff_only=True, opens=date(2026, 1, 1), periods=frozenset({3})), 3, False),
        ):
            with self.subTest(f"{shown} {period}"):
                self.assertIs(shown.to_student(DAY, period), seen)


class WhereACopyFits(SimpleTestCase):
    def test_each_kind_of_pocket(self) -> None:
        text, link, picture = ArtefactKind.TEXT, ArtefactKind.LINK, ArtefactKind.PICTURE
        for kind, target, fits in (
            (text, Target("Log", PocketKind.LOG), False),
            (link, Target("Finds", PocketKind.LINKS), True),
            (text, Target("Finds", PocketKind.LINKS), False),
            (text, Target("Card", PocketKind.EVIDENCE), True),
            (text, Target("Card", PocketKind.EVIDENCE, ("picture",)), False),
            (text, Target("About me", PocketKind.PAGE, ("picture",)), True),
            (picture, Target("Card", PocketKind.EVIDENCE, ("picture",)), True),
            (ArtefactKind.SCAN, Target("Card", PocketKind.EVIDENCE, ("picture",)), True),
            (ArtefactKind.SOUND, Target("Card", PocketKind.EVIDENCE, ("recording",)), True),
            (ArtefactKind.FILE, Target("Card", PocketKind.EVIDENCE, ("recording", "picture")), False),
        ):
            with self.subTest(f"{kind} {target}"):
                self.assertIs(why_not(kind, target) == "", fits)

    def test_a_refusal_names_a_pocket_that_takes_it(self) -> None:
        log, card = Target("Crop log", PocketKind.LOG), Target("Recipe card", PocketKind.EVIDENCE)
        with self.assertRaises(Invalid) as refused:
            refuse_misfit(ArtefactKind.TEXT, log, [log, card])
        self.assertEqual(refused.exception.fix, "“Recipe card” takes it.")
        with self.assertRaises(Invalid) as refused:
            refuse_misfit(ArtefactKind.TEXT, log, [log])
        self.assertEqual(refused.exception.fix, "Make a pocket that takes it.")
        refuse_misfit(ArtefactKind.TEXT, card, [])

    def test_what_kind_of_artefact_a_copy_is(self) -> None:
        self.assertIs(artefact_kind(ItemKind.PAGE, ""), ArtefactKind.TEXT)
        self.assertIs(artefact_kind(ItemKind.LINK, ""), ArtefactKind.LINK)
        self.assertIs(artefact_kind(ItemKind.LOG, ""), ArtefactKind.TEXT)
        self.assertIs(artefact_kind(ItemKind.FILE, "video"), ArtefactKind.VIDEO)
