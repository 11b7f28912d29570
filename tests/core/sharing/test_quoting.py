"""A passage that several wrote, taken as evidence by one of them."""

from __future__ import annotations

from html import unescape

import nh3
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.sharing.authors import Said
from coatpeg.core.sharing.quoting import NOBODY, Quoted, as_html, own_html, own_words, runs_of

JOSH, THANDI = 3, 7
NAMES = {JOSH: "Josh E.", THANDI: "Thandi D."}


def said(*pieces: tuple[int, str]) -> list[Said]:
    return [Said(person, None, words) for person, words in pieces]


class Runs(SimpleTestCase):
    def test_words_of_one_after_the_other_and_breaks_between_lines_of_one(self) -> None:
        found = runs_of(said((JOSH, "The thunder "), (JOSH, "rolls."), (0, "\n"), (JOSH, "Twice."), (THANDI, " Wait.")))
        self.assertEqual(found, [Quoted(JOSH, "The thunder rolls.\nTwice."), Quoted(THANDI, "Wait.")])

    def test_spaces_alone_are_nobodys_words_and_what_no_span_names_stays(self) -> None:
        found = runs_of(said((THANDI, "  "), (JOSH, "One"), (THANDI, " "), (JOSH, "two"), (NOBODY, "lost")))
        self.assertEqual(found, [Quoted(JOSH, "One two"), Quoted(NOBODY, "lost")])
        self.assertEqual(runs_of(said((JOSH, " "), (0, "\n"))), [])

    def test_ones_own_counts_and_the_others_are_quoted_by_name(self) -> None:
        runs = [Quoted(JOSH, "Tin & rope.\nOr foil."), Quoted(THANDI, "A <drum>.")]
        self.assertEqual(own_words(runs, THANDI), "A <drum>.")
        self.assertEqual(
            as_html(runs, THANDI, NAMES),
            "<blockquote><p>Tin &amp; rope.</p><p>Or foil.</p><p><em>Josh E.</em></p></blockquote>"
            "<p>A &lt;drum&gt;.</p>",
        )
        self.assertEqual(own_html(runs, JOSH), "<p>Tin &amp; rope.</p><p>Or foil.</p>")
        self.assertNotIn("em", as_html([Quoted(NOBODY, "lost")], JOSH, NAMES))

    @given(st.lists(st.tuples(st.sampled_from((JOSH, THANDI, 0)), st.text("ab .<&\n“", max_size=20)), max_size=12))
    def test_no_word_is_lost_and_none_comes_from_another(self, pieces: list[tuple[int, str]]) -> None:
        """Stripped of its tags by nh3, each one's part reads as what they wrote, and the whole as what all wrote."""
        runs = runs_of(said(*pieces))
        self.assertEqual(tight("".join(one.words for one in runs)), tight("".join(words for _, words in pieces)))
        self.assertEqual(tight(read(as_html(runs, JOSH, {}))), tight("".join(one.words for one in runs)))
        for one in (JOSH, THANDI):
            self.assertEqual(tight(read(own_html(runs, one))), tight(own_words(runs, one)))


def read(html: str) -> str:
    return unescape(nh3.clean(html, tags=set()))


def tight(text: str) -> str:
    return "".join(text.split())
