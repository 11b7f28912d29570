"""What a copy of a pocket or of a log's columns says. The sanitiser (nh3) is the reference for what may stand in it."""

from html.parser import HTMLParser

import nh3
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.cupboard.layouts import EMPTY_ROWS, columns_only, for_the_cupboard, words_in
from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.portfolios.log_columns import Column, ColumnType, LogPlan

titles = st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=20)


class _Heads(HTMLParser):
    def __init__(self) -> None:
        super().__init__()
        self.heads: list[str] = []
        self.rows, self.inside = 0, False

    def handle_starttag(self, tag: str, attrs: object) -> None:
        self.rows += tag == "tr"
        self.inside = self.inside or tag == "th"
        if tag == "th":
            self.heads.append("")

    def handle_endtag(self, tag: str) -> None:
        self.inside = self.inside and tag != "th"

    def handle_data(self, data: str) -> None:
        if self.inside:
            self.heads[-1] += data


class Words(SimpleTestCase):
    @given(st.lists(titles, min_size=1, max_size=6))
    def test_every_heading_stands_over_a_column_whatever_is_in_it(self, headings: list[str]) -> None:
        columns = tuple(Column(f"c{at}", title, ColumnType.TEXT) for at, title in enumerate(headings))
        plan = PocketPlan("<b>Log</b> & more", PocketKind.LOG, log=LogPlan(columns))
        words = words_in(plan)
        read = _Heads()
        read.feed(words)
        self.assertEqual(read.heads, headings)
        self.assertEqual(read.rows, 1 + EMPTY_ROWS)
        again = _Heads()
        again.feed(nh3.clean(words, tags={"h3", "p", "table", "tbody", "tr", "th", "td"}, attributes={}))
        self.assertEqual(again.heads, headings, "nothing in it is markup")

    def test_a_page_begins_as_it_does_and_nothing_is_ever_empty(self) -> None:
        plan = PocketPlan("Plan", PocketKind.PAGE, directions="<p>Think first.</p>", starter="<p>I plan …</p>")
        self.assertEqual(words_in(plan), "<h3>Plan</h3><p>Think first.</p><p>I plan …</p>")
        self.assertEqual(words_in(PocketPlan("Card", PocketKind.EVIDENCE)), "<h3>Card</h3>")

    def test_columns_alone_of_a_log_only(self) -> None:
        log = PocketPlan(
            "Log", PocketKind.LOG, directions="<p>Daily.</p>", log=LogPlan((Column("a", "A", ColumnType.TEXT),))
        )
        self.assertEqual((columns_only(log).directions, columns_only(log).log), ("", log.log))
        self.assertEqual(for_the_cupboard(log), log)
        with self.assertRaises(Invalid):
            columns_only(PocketPlan("Card", PocketKind.EVIDENCE))
