"""Dealing peg pictures and user names."""

import json

from django.conf import settings
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.people.pegs import PICTURES, TINTS, Peg, deal
from coatpeg.core.people.usernames import username


class Pegs(SimpleTestCase):
    def test_no_pair_repeats_as_far_as_they_reach(self) -> None:
        for count in (1, 56, 240, len(PICTURES) * TINTS):
            dealt = deal(count, seed=1)
            self.assertEqual(len({(peg.picture, peg.tint) for peg in dealt}), count)
            self.assertEqual({peg.lap for peg in dealt}, {0})

    def test_a_class_has_a_picture_for_each_before_a_tint_repeats(self) -> None:
        self.assertEqual(len({peg.picture for peg in deal(len(PICTURES), seed=3)}), len(PICTURES))

    def test_a_year_group_of_two_thousand_goes_round_again(self) -> None:
        dealt = deal(2000)
        self.assertEqual(len(set(dealt)), 2000)
        self.assertEqual({peg.lap for peg in dealt}, {0, 1, 2})

    @given(
        st.sets(st.tuples(st.sampled_from(PICTURES[:30]), st.integers(0, TINTS - 1)), max_size=60), st.integers(0, 40)
    )
    def test_what_is_taken_stays_where_it_is(self, taken: set[tuple[str, int]], count: int) -> None:
        pegs = [Peg(*one) for one in taken]
        dealt = deal(count, pegs, seed=7)
        self.assertEqual(len(dealt), count)
        self.assertFalse(set(dealt) & set(pegs))

    def test_a_second_class_list_fills_the_free_pictures_first(self) -> None:
        first = deal(30, seed=1)
        second = deal(30, first, seed=2)
        self.assertFalse({peg.picture for peg in first} & {peg.picture for peg in second})

    def test_the_interface_draws_the_same_pictures(self) -> None:
        drawn = json.loads((settings.BASE_DIR / "frontend/src/ui/people/peg-pictures.json").read_text())
        self.assertEqual(list(PICTURES), drawn)


class UserNames(SimpleTestCase):
    def test_plain_letters_and_a_number_where_it_is_taken(self) -> None:
        taken = {"thandi.dube"}
        cases = {
            ("Dube", "Thandi"): "thandi.dube2",
            ("Ångström", "Bo"): "bo.angstrom",
            ("O'Neill", "Saoirse"): "saoirse.oneill",
            ("de Souza", "Ana Beatriz"): "ana.desouza",
            ("Łukasiewicz", "Zoë"): "zoe.lukasiewicz",
            ("Groß", "Jürgen"): "jurgen.gross",
            ("", "Sukarni"): "sukarni",
            ("王", "Mei"): "mei.wang",
            ("Петров", "Олег"): "oleg.petrov",
            ("Nguyễn", "Thị Minh Khai"): "thi.nguyen",
            ("", "···"): "student",
        }
        for (family, given_name), expected in cases.items():
            with self.subTest(family or given_name):
                self.assertEqual(username(family, given_name, taken), expected)
        self.assertLessEqual(set(cases.values()), taken)

    def test_in_the_order_in_which_the_name_is_said(self) -> None:
        for (family, given_name), expected in {
            ("王", "小明"): "wang.xiaoming",
            ("Nguyễn", "Thị Minh Khai"): "nguyen.thiminhkhai",
            ("Nagy", ""): "nagy",
        }.items():
            self.assertEqual(username(family, given_name, set(), family_first=True), expected)
