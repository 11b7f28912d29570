"""Pasted outlines against CommonMark: what that standard calls a heading, and a list within a list, is nested so here.

Reference: the CommonMark parser markdown-it-py. Only what the standard and people's outlines share is compared: headings
with lists under them, and lists of two levels, with any of its bullets, and numbers from one on (a list in a paragraph begins so).
"""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from markdown_it import MarkdownIt

from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.typed.outline import read_outline

NAMES = st.text(alphabet="abcdefgh", min_size=1, max_size=8).map(lambda name: f"N{name}")
OUTLINES = st.lists(st.tuples(NAMES, st.lists(NAMES, min_size=1, max_size=4)), min_size=1, max_size=4)
BULLETS = st.sampled_from(["-", "*", "+", "1.", "1)"])


def ours(text: str) -> list[tuple[str, list[str]]]:
    found = read_outline(text, PocketKind.EVIDENCE)
    return [(one.title, [of.plan.title for of in one.pockets]) for one in found.sections]


def standards(text: str) -> list[tuple[str, list[str]]]:
    """Sections and pockets as CommonMark nests them: a heading or an outer item, and the items under it."""
    found: list[tuple[str, list[str]]] = []
    lists, in_heading = 0, False
    for token in MarkdownIt().parse(text):
        lists += {"bullet_list_open": 1, "ordered_list_open": 1, "bullet_list_close": -1, "ordered_list_close": -1}.get(
            token.type, 0
        )
        in_heading = token.type == "heading_open" or (in_heading and token.type != "heading_close")
        if token.type != "inline":
            continue
        outer = in_heading or (lists == 1 and not any(line.startswith("#") for line in text.splitlines()))
        if outer:
            found.append((token.content, []))
        else:
            found[-1][1].append(token.content)
    return found


class CommonMark(TestCase):
    @given(OUTLINES, BULLETS)
    def test_headings_with_lists(self, outline: list[tuple[str, list[str]]], bullet: str) -> None:
        text = "\n".join(
            "\n".join([f"## {title}", "", *(f"{bullet} {one}" for one in of), ""]) for title, of in outline
        )
        self.assertEqual(standards(text), outline)
        self.assertEqual(ours(text), standards(text))

    @given(OUTLINES, BULLETS, BULLETS)
    def test_lists_in_lists(self, outline: list[tuple[str, list[str]]], outer: str, inner: str) -> None:
        text = "\n".join(
            "\n".join([f"{outer} {title}", *(f"    {inner} {one}" for one in of)]) for title, of in outline
        )
        self.assertEqual(ours(text), standards(text), text)
