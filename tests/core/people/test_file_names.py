"""Names of files: sortable, safe on every common system, never two alike in one folder."""

from __future__ import annotations

import unicodedata
from pathlib import PurePosixPath, PureWindowsPath
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as some

from coatpeg.core.people.file_names import LONGEST, Taken, file_name


class FileNames(TestCase):
    def test_what_systems_refuse_is_left_out_and_the_rest_stays(self) -> None:
        for text, name in (
            ("Dube, Thandi", "Dube, Thandi"),
            ("../../etc/passwd", "etc passwd"),
            ('a<b>c:d"e/f\\g|h?i*j', "a b c d e f g h i j"),
            ("  soup.  ", "soup"),
            ("con.txt", "_con.txt"),
            ("", "untitled"),
            ("...", "untitled"),
            ("=1+1.csv", "=1+1.csv"),
            ("A\u030angstro\u0308m", "Ångström"),
            ("\u202egpj.exe", "gpj.exe"),
            ("x" * 200 + ".jpeg", "x" * (LONGEST - 5) + ".jpeg"),
        ):
            with self.subTest(text):
                self.assertEqual(file_name(text), name)

    @given(some.text(max_size=300))
    def test_any_text_is_one_part_of_a_path_on_both_systems(self, text: str) -> None:
        name = file_name(text)
        self.assertEqual(PurePosixPath(name).parts, (name,))
        self.assertEqual(PureWindowsPath(name).parts, (name,))
        self.assertLessEqual(len(name), LONGEST + 1)
        self.assertFalse(PureWindowsPath(name).is_reserved())
        self.assertEqual(unicodedata.normalize("NFC", name), name)
        self.assertNotIn(name[-1], " .")

    @given(some.lists(some.sampled_from(["a.txt", "A.txt", "b", "B", "a (2).txt"]), max_size=12))
    def test_no_two_in_a_folder_are_alike_by_any_case(self, names: list[str]) -> None:
        taken = Taken()
        given_out = [taken.give(name) for name in names]
        self.assertEqual(len({name.casefold() for name in given_out}), len(names))
