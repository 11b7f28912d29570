"""Periods and groups named by different people."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.people.places import Places, place_key


class NamesOfPlaces(TestCase):
    def test_what_people_write_for_the_second_period_is_one(self) -> None:
        written = ("P2", "p2", "P 2", "p.2", "Period 2", "period 02", "Per. 2", "per 2", "Hour 2", "2", "02")
        self.assertEqual({place_key(one) for one in written}, {"2"})

    def test_other_names_stay_apart(self) -> None:
        apart = (
            "P1",
            "P2",
            "P12",
            "2a",
            "Blue",
            "Green",
            "Blue 2",
            "p",
            "Period",
            "Group A",
            "Group B",
            "Pa",
            "Table 3",
            "Team 3",
        )
        self.assertEqual(len({place_key(one) for one in apart}), len(apart))

    def test_what_the_class_has_is_spelled_as_it_is_there(self) -> None:
        here = Places(["P2", "Period 3"])
        found = [here.as_here(one) for one in ("Period 2", "2", "p3", "3")]
        self.assertEqual(found, ["P2", "P2", "Period 3", "Period 3"])

    def test_the_first_spelling_of_a_new_one_stands(self) -> None:
        here = Places([])
        self.assertEqual([here.as_here(one) for one in ("Per 4", "P4", "", "4")], ["Per 4", "Per 4", "", "Per 4"])

    def test_two_that_stand_side_by_side_are_never_made_one(self) -> None:
        here = Places(["P2", "2"])
        self.assertEqual([here.as_here(one) for one in ("P2", "2", "p2")], ["P2", "2", "P2"])

    @given(some.lists(some.text(max_size=12), max_size=6))
    def test_whatever_it_is_called_it_is_itself_once_it_is_there(self, names: list[str]) -> None:
        distinct = list({name.casefold(): name for name in names if name}.values())
        here = Places(distinct)
        self.assertEqual([here.as_here(name) for name in distinct], distinct)
