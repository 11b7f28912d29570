"""Two texts that grew from one, what changed between two, and rich text as plain text."""

from __future__ import annotations

from random import Random
from time import perf_counter

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.portfolios import rich
from coatpeg.core.portfolios.merging import MOST_TOKENS, compare, merge

LINES = st.lists(st.sampled_from(["a", "b", "c", "d"]), max_size=6)


class Merging(SimpleTestCase):
    def test_ten_thousand_lines_however_often_they_repeat_take_no_half_second(self) -> None:
        for lines in ([""] * 11_000, ["a", "b", ""] * 3_700, [f"line {number}" for number in range(11_000)]):
            mine, theirs = ["mine", *lines], [*lines, "theirs"]
            begun = perf_counter()
            both = merge(lines, mine, theirs)
            self.assertLess(perf_counter() - begun, 0.5)
            self.assertEqual(both, ["mine", *lines, "theirs"])
            begun = perf_counter()
            compare("\n".join(mine), "\n".join(theirs))
            self.assertLess(perf_counter() - begun, 0.5)
        self.assertIsNone(merge(["a"] * 40_000, ["b"], ["c"]), "past what a text can have nothing is put together")

    def test_what_is_common_is_as_long_as_the_reference_finds_it(self) -> None:
        """Against the textbook's table (Cormen, Leiserson, Rivest, Stein, "Introduction to Algorithms", 15.4)."""
        dealer = Random(4)
        for _ in range(200):
            old, new = (dealer.choices("abc", k=dealer.randrange(9)) for _ in range(2))
            table = [[0] * (len(new) + 1) for _ in range(len(old) + 1)]
            for i, one in enumerate(old):
                for j, other in enumerate(new):
                    table[i + 1][j + 1] = table[i][j] + 1 if one == other else max(table[i][j + 1], table[i + 1][j])
            same = sum(len(part.text.split()) for part in compare(" ".join(old), " ".join(new)) if part.what == "same")
            self.assertGreaterEqual(same, table[-1][-1] - 1, "the blanks between the letters count too")

    def test_changes_of_different_paragraphs_are_put_together(self) -> None:
        base = ["one", "two", "three", "four"]
        for mine, theirs, both in (
            (["ONE", "two", "three", "four"], ["one", "two", "three", "FOUR"], ["ONE", "two", "three", "FOUR"]),
            (["one", "two", "three", "four", "five"], ["zero", *base], ["zero", *base, "five"]),
            (["two", "three", "four"], ["one", "two", "three", "FOUR"], ["two", "three", "FOUR"]),
            (base, ["one"], ["one"]),
        ):
            self.assertEqual(merge(base, mine, theirs), both)
            self.assertEqual(merge(base, theirs, mine), both)

    def test_changes_that_meet_are_told_apart(self) -> None:
        base = ["one", "two", "three"]
        for mine, theirs in (
            (["ONE", "two", "three"], ["Eins", "two", "three"]),
            (["ONE", "two", "three"], ["one", "TWO", "three"]),
            ([*base, "mine"], [*base, "theirs"]),
            (["one", "three"], ["one", "TWO", "three"]),
            ([], ["one", "TWO", "three"]),
        ):
            self.assertIsNone(merge(base, mine, theirs))

    def test_the_same_change_on_both_sides_is_one(self) -> None:
        self.assertEqual(merge(["a"], ["a", "b"], ["a", "b"]), ["a", "b"])
        self.assertEqual(merge(["a", "b", "c", "d"], ["A", "b", "c", "D"], ["A", "b", "c", "d"]), ["A", "b", "c", "D"])

    @given(LINES, LINES)
    def test_who_changed_nothing_gets_the_others_text(self, base: list[str], other: list[str]) -> None:
        self.assertEqual(merge(base, base, other), other)
        self.assertEqual(merge(base, other, base), other)

    @given(LINES, LINES.map(lambda found: [*found, "x"]), LINES.map(lambda found: ["y", *found]))
    def test_it_is_the_same_whoever_is_mine_and_what_anybody_wrote_anew_is_in_it(
        self, base: list[str], mine: list[str], theirs: list[str]
    ) -> None:
        both = merge(base, mine, theirs)
        self.assertEqual(both, merge(base, theirs, mine))
        if both is not None:
            self.assertEqual((both.count("x"), both.count("y")), (1, 1))

    @given(st.text(max_size=60), st.text(max_size=60))
    def test_a_comparison_has_both_texts_in_it(self, old: str, new: str) -> None:
        parts = compare(old, new)
        self.assertEqual("".join(one.text for one in parts if one.what != "new"), old)
        self.assertEqual("".join(one.text for one in parts if one.what != "gone"), new)

    def test_words_are_told_and_long_texts_by_their_lines(self) -> None:
        self.assertEqual(
            [tuple(one) for one in compare("A bean grows.", "A pea grows.")],
            [("same", "A "), ("gone", "bean"), ("new", "pea"), ("same", " grows.")],
        )
        long = "word " * MOST_TOKENS
        self.assertEqual([one.what for one in compare(long, long + "more")], ["gone", "new"])


class Rich(SimpleTestCase):
    def test_blocks_and_cells_end_lines_formulas_count_by_their_tex(self) -> None:
        for html, text in (
            ("<p>One.</p><p>Two &amp; three.</p>", "One.\nTwo & three."),
            ("<h2>Soil</h2><ul><li><p>clay</p></li><li><p>sand</p></li></ul>", "Soil\nclay\nsand"),
            (
                "<table><tbody><tr><td><p>a</p></td><td>b</td></tr><tr><td>c</td><td></td></tr></tbody></table>",
                "a\nb\nc",
            ),
            ('<p>So <span data-tex="a^2"></span> it is</p>', "So a^2 it is"),
            ("<p>first<br>second</p>", "first\nsecond"),
            ('<p><img src="/x"></p>', ""),
        ):
            with self.subTest(html):
                self.assertEqual(rich.plain(html), text)

    def test_plain_text_and_back(self) -> None:
        self.assertEqual(rich.from_plain("One < two.\n\nThree."), "<p>One &lt; two.</p><p>Three.</p>")
        self.assertEqual(rich.plain(rich.from_plain("One < two.\n\nThree.")), "One < two.\nThree.")

    def test_blocks_are_the_text_again(self) -> None:
        html = '<h2>A</h2><ul><li><p>b<br>c</p></li></ul><hr><p>d &amp; <img src="/x" alt="y"> &#233;</p>words'
        found = rich.blocks(html)
        self.assertEqual("".join(found), html)
        self.assertEqual(len(found), 5)
