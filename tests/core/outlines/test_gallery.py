"""Templates as documents: compared by key, moved by school week."""

import json
from dataclasses import replace
from datetime import date, timedelta

from django.conf import settings
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.gallery import (
    Document,
    KeyedPocket,
    KeyedSection,
    News,
    changes,
    from_data,
    moved_by_week,
    to_data,
)
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.portfolios.texts import Length, Measure

CARD = PocketPlan(
    "Recipe card", PocketKind.EVIDENCE, "Scale it.", "Why?", 2, True, Length(Measure.SENTENCES, 2, 3), ("picture",)
)
PAGE = PocketPlan("About me", PocketKind.PAGE, starter="I am …")


def document(**pockets: PocketPlan) -> Document:
    return (KeyedSection("s", "Start", tuple(KeyedPocket(key, plan) for key, plan in pockets.items())),)


class Documents(SimpleTestCase):
    def test_plain_data_and_back(self) -> None:
        whole = document(a=CARD, b=PAGE)
        self.assertEqual(from_data(json.loads(json.dumps(to_data(whole)))), whole)

    def test_the_day_of_a_class_is_not_published(self) -> None:
        dated = document(a=replace(CARD, opens=date(2026, 9, 1)))
        self.assertNotIn("2026", json.dumps(to_data(dated)))
        self.assertEqual(changes(dated, document(a=CARD)), ())

    def test_what_ships_is_sound(self) -> None:
        shipped = json.loads((settings.BASE_DIR / "coatpeg/outlines/shipped.json").read_text())
        for one in shipped:
            whole = from_data(one["sections"])
            keys = [pocket.key for section in whole for pocket in section.pockets]
            self.assertEqual(len(keys), len(set(keys)))
            for section in whole:
                for pocket in section.pockets:
                    self.assertEqual(pocket.plan.checked(), pocket.plan, one["title"])

    def test_added_changed_and_gone_by_key(self) -> None:
        old = document(a=CARD, b=PAGE)
        new = document(a=replace(CARD, title="Card", artefacts=3), c=PAGE)
        found = [(one.what, one.key, one.fields) for one in changes(old, new)]
        self.assertEqual(
            found, [(News.CHANGED, "a", ("title", "artefacts")), (News.ADDED, "c", ()), (News.GONE, "b", ())]
        )

    @given(st.sets(st.sampled_from("abcdef")), st.sets(st.sampled_from("abcdef")))
    def test_there_and_back_mirror_each_other(self, before: set[str], after: set[str]) -> None:
        old, new = (document(**dict.fromkeys(sorted(keys), CARD)) for keys in (before, after))
        there = {one.key for one in changes(old, new) if one.what is News.ADDED}
        back = {one.key for one in changes(new, old) if one.what is News.GONE}
        self.assertEqual((there, back), (after - before, after - before))


AUTUMN = Term("Autumn 2026", date(2026, 9, 7), date(2026, 12, 18))
NEXT = Term("Autumn 2027", date(2027, 9, 6), date(2027, 12, 17))
HALF_TERMS = {
    **{date(2026, 10, 26) + timedelta(days=place): "Half-term" for place in range(5)},
    **{date(2027, 10, 18) + timedelta(days=place): "Half-term" for place in range(5)},
}
CALENDAR = SchoolCalendar((AUTUMN, NEXT), days_off=HALF_TERMS, zone="Europe/London")


class BySchoolWeek(SimpleTestCase):
    def test_the_same_weekday_of_the_same_week_of_teaching(self) -> None:
        cases = {
            "first week": (date(2026, 9, 11), date(2027, 9, 10)),
            "sixth week": (date(2026, 10, 15), date(2027, 10, 14)),
            # Week 7 of teaching comes before the holiday in one year and after it in the other.
            "seventh week": (date(2026, 10, 22), date(2027, 10, 28)),
            "after both holidays": (date(2026, 11, 2), date(2027, 11, 1)),
        }
        for name, (day, expected) in cases.items():
            with self.subTest(name):
                self.assertEqual(moved_by_week(day, AUTUMN, NEXT, CALENDAR), expected)

    def test_a_day_off_moves_to_the_next_school_day_and_the_end_holds(self) -> None:
        training = SchoolCalendar(
            (AUTUMN, NEXT), days_off={**HALF_TERMS, date(2027, 9, 10): "Training"}, zone="Europe/London"
        )
        self.assertEqual(moved_by_week(date(2026, 9, 11), AUTUMN, NEXT, training), date(2027, 9, 13))
        short = Term("Short", date(2027, 9, 6), date(2027, 9, 24))
        moved = moved_by_week(date(2026, 12, 18), AUTUMN, short, SchoolCalendar((AUTUMN, short)))
        self.assertEqual(moved, date(2027, 9, 24))

    @given(st.integers(0, 102))
    def test_it_always_falls_on_a_school_day_of_the_other_term_and_keeps_the_order(self, place: int) -> None:
        day = AUTUMN.first + timedelta(days=place)
        moved = moved_by_week(day, AUTUMN, NEXT, CALENDAR)
        self.assertTrue(CALENDAR.is_school_day(moved) and NEXT.first <= moved <= NEXT.last)
        following = CALENDAR.after(day, 1)
        if CALENDAR.is_school_day(day) and following <= AUTUMN.last:
            self.assertLessEqual(moved, moved_by_week(following, AUTUMN, NEXT, CALENDAR))
