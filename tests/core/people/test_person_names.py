"""Taking written names apart."""

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.people.person_names import PersonName, is_family_first, split, tidy


class Splitting(SimpleTestCase):
    def test_names_as_schools_write_them(self) -> None:
        cases = {
            "Thandi Dube": ("Dube", "Thandi"),
            "Dube, Thandi": ("Dube", "Thandi"),
            "de Souza, Ana Beatriz": ("de Souza", "Ana Beatriz"),
            "Ana Beatriz de Souza": ("de Souza", "Ana Beatriz"),
            "Ludwig van Beethoven": ("van Beethoven", "Ludwig"),
            "Jan van der Meer": ("van der Meer", "Jan"),
            "Omar ibn al Rashid": ("ibn al Rashid", "Omar"),
            "Van Nguyen": ("Nguyen", "Van"),
            "De Groot": ("Groot", "De"),
            "Saoirse O'Neill": ("O'Neill", "Saoirse"),
            "O’NEILL Saoirse": ("O’Neill", "Saoirse"),
            "SMITH-JONES Amy Lee": ("Smith-Jones", "Amy Lee"),
            "Thandi DUBE": ("Dube", "Thandi"),
            "DUBE THANDI": ("THANDI", "DUBE"),
            "Mary-Jane Watson-Parker": ("Watson-Parker", "Mary-Jane"),
            "J. R. Okafor": ("Okafor", "J. R."),
            "Sukarni": ("", "Sukarni"),
            "山田 太郎": ("山田", "太郎"),
            "김 민준": ("김", "민준"),
            "王芳": ("", "王芳"),
            "محمد العلي": ("العلي", "محمد"),
            "Анна Петрова": ("Петрова", "Анна"),
            "Dube,": ("", "Dube"),
            ", Thandi": ("", "Thandi"),
            "": ("", ""),
        }
        for written, (family, given_name) in cases.items():
            with self.subTest(written):
                self.assertEqual(split(written), PersonName(family, given_name))

    def test_family_name_first_where_it_is_said_or_the_letters_say_it(self) -> None:
        """Which languages put it first: Unicode CLDR, Part 8 (person names), ``surnameFirst``: hu, ja, ko, vi, zh among
        them (from memory); of Latin letters only whoever brings the list knows.
        """
        for written, first, expected in (
            ("Nguyễn Thị Minh Khai", True, ("Nguyễn", "Thị Minh Khai")),
            ("Nguyễn Thị Minh Khai", None, ("Khai", "Nguyễn Thị Minh")),
            ("Nagy Éva", True, ("Nagy", "Éva")),
            ("王 小明", None, ("王", "小明")),
            ("小明 王", False, ("王", "小明")),
            ("Dube, Thandi", True, ("Dube", "Thandi")),
            ("Sukarni", True, ("", "Sukarni")),
        ):
            with self.subTest(written, first=first):
                self.assertEqual(split(written, family_first=first), PersonName(*expected))
        self.assertEqual(
            [is_family_first(one) for one in ("王 小明", "王, 小明", "김민준", "Kim 민준", "", " , ")],
            [True, True, True, False, False, False],
        )

    def test_spaces_and_hidden_signs_go(self) -> None:
        self.assertEqual(tidy("  Thandi \u00a0\t Dube\u202e\u200b ;"), "Thandi Dube")
        self.assertEqual(tidy("A\u030angstro\u0308m"), "Ångström")

    @given(st.text(alphabet="abcdeé'-ÅØ ,", max_size=30))
    def test_no_letter_is_lost(self, written: str) -> None:
        name = split(written)
        letters = sorted(one for one in tidy(written).casefold() if one.isalpha())
        self.assertEqual(sorted(one for one in (name.family + name.given).casefold() if one.isalpha()), letters)
