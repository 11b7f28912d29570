"""Outlines, wishes, headings and units in plain words. Every expected value is what a person means by the line."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind, Shared
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.typed.headings import read_columns
from coatpeg.core.outlines.typed.outline import MOST_LINES, Outline, read_outline
from coatpeg.core.outlines.typed.units import TypedUnit, read_units
from coatpeg.core.outlines.typed.wishes import read_pocket
from coatpeg.core.portfolios.log_columns import ColumnType
from coatpeg.core.portfolios.texts import Length, Measure

FIRST = PocketPlan("", PocketKind.EVIDENCE)
WORDS, SENTENCES = Measure.WORDS, Measure.SENTENCES


def shape(outline: Outline) -> list[tuple[str, list[str]]]:
    return [(one.title, [of.plan.title for of in one.pockets]) for one in outline.sections]


def read(text: str, kind: PocketKind = PocketKind.EVIDENCE) -> list[tuple[str, list[str]]]:
    return shape(read_outline(text, kind))


class Wishes(TestCase):
    def test_what_a_line_asks_for(self) -> None:
        wanted: list[tuple[str, dict[str, Any]]] = [
            ("Soil test", {"kind": "evidence", "artefacts": 1, "reflection_on_each": True}),
            ("Soil test: 2 photos", {"artefacts": 2, "takes": ("picture",), "reflection_on_each": False}),
            ("Q1: one artefact, reflection 2–3 sentences", {"artefacts": 1, "length": Length(SENTENCES, 2, 3)}),
            ("Q1: a photo and a reflection of at least 50 words", {"length": Length(WORDS, 50), "artefacts": 1}),
            ("Essay: page, 150 to 200 words", {"kind": "page", "length": Length(WORDS, 150, 200)}),
            ("Essay: up to 200 words", {"kind": "page", "length": Length(WORDS, 1, 200)}),
            ("Essay: about 100 words", {"kind": "page", "length": Length(WORDS, 90, 110)}),
            ("Sources: three links, optional", {"kind": "links", "artefacts": 3, "counts": False}),
            ("Song: a recording, no reflection", {"takes": ("recording",), "reflection_on_each": False}),
            ("Talk: page, or spoken", {"kind": "page", "spoken": True}),
            ("Any: 2 files + 1 thing, reflection on each", {"artefacts": 3, "takes": (), "reflection_on_each": True}),
        ]
        for line, asked in wanted:
            plan = read_pocket(line, FIRST).checked()
            for name, value in asked.items():
                self.assertEqual(getattr(plan, name), value, f"{line}: {name}")

    def test_a_name_keeps_its_question_and_what_is_no_wish_is_told_to_students(self) -> None:
        self.assertEqual(read_pocket("Q1: What does a seed need?", FIRST).title, "Q1: What does a seed need?")
        told = read_pocket("My goals: say what, and why you <want> it", FIRST)
        self.assertEqual((told.title, told.directions), ("My goals", "<p>say what, and why you &lt;want&gt; it</p>"))
        both = read_pocket("Plot: 1 photo, taken outside", FIRST)
        self.assertEqual((both.artefacts, both.directions), (1, "<p>taken outside</p>"))
        written = read_pocket("Me: write 3 sentences about you", FIRST)
        self.assertEqual((written.kind, written.length), (PocketKind.PAGE, Length(SENTENCES, 3)))
        self.assertIn("about you", written.directions)

    def test_a_log_by_its_name_by_its_word_or_by_its_headings(self) -> None:
        for line in ("Reading log: date, title", "Books: log of date, title", "Crop diary: date; height (cm)"):
            self.assertEqual(read_pocket(line, FIRST).kind, PocketKind.LOG, line)
        self.assertEqual(read_pocket("Dialogue", FIRST).kind, PocketKind.EVIDENCE)
        self.assertEqual(read_pocket("My diary: 2 photos", FIRST).kind, PocketKind.EVIDENCE)
        log = read_pocket("Lab log: 2 rows a week; date, what we did", FIRST)
        self.assertEqual((log.rows_per_week, [one.title for one in log.log.columns]), (2, ["Date", "What we did"]))
        again = read_pocket("Lab log two", log)
        self.assertEqual(again.log.columns, log.log.columns, "it takes those of the log before")

    def test_a_pocket_takes_the_kind_of_the_one_before(self) -> None:
        before = read_pocket("Essay: page", FIRST)
        self.assertEqual(read_pocket("Another", before).kind, PocketKind.PAGE)
        self.assertEqual(read_pocket("Another: 2 photos", before).kind, PocketKind.EVIDENCE)

    def test_who_fills_it_together(self) -> None:
        for words, company, own in (
            ("page, together in groups", (Shared.GROUP, ""), False),
            ("page, shared by each group of Crews, each their own", (Shared.GROUP, "Crews"), True),
            ("2 photos, together by the whole class", (Shared.CLASS, ""), False),
            ("page, each period together", (Shared.PERIOD, ""), False),
            ("page, the class", (Shared.NOBODY, ""), False),
        ):
            plan = read_pocket(f"Cue script: {words}", FIRST)
            self.assertEqual((plan.company, plan.own_part), (company, own), words)
        log = read_pocket("Props log: prop, cost in pence, together in groups", FIRST)
        self.assertEqual((log.kind, log.shared, len(log.log.columns)), (PocketKind.LOG, Shared.GROUP, 2))
        self.assertIn("the class", read_pocket("Cue script: page, the class", FIRST).directions)


class Headings(TestCase):
    def test_types_are_guessed_from_the_words_of_headings(self) -> None:
        line = "Date*, Title, Pages, Distance (km), Mood (good / so-so / bad), Finished?, Link, Photo, What I learned"
        found = read_columns(line)
        self.assertEqual(
            [(one.title, one.type.value) for one in found],
            [
                ("Date", "date"),
                ("Title", "text"),
                ("Pages", "number"),
                ("Distance", "number"),
                ("Mood", "choice"),
                ("Finished", "yes_no"),
                ("Link", "link"),
                ("Photo", "artefact"),
                ("What I learned", "long_text"),
            ],
        )
        self.assertTrue(found[0].required)
        self.assertEqual((found[3].unit, found[4].choices), ("km", ("good", "so-so", "bad")))

    def test_what_stands_in_brackets_says_the_type_outright(self) -> None:
        found = read_columns("when\thow it went (number)\tWhy?\tpH\tseen (yes/no)")
        self.assertEqual(
            [one.type for one in found],
            [ColumnType.DATE, ColumnType.NUMBER, ColumnType.LONG_TEXT, ColumnType.NUMBER, ColumnType.YES_NO],
        )
        self.assertEqual([one.title for one in found], ["When", "How it went", "Why?", "pH", "Seen"])

    def test_sixty_columns_are_a_problem_of_their_line(self) -> None:
        found = read_outline("Log\nWide log: " + ", ".join(f"c{at}" for at in range(60)), PocketKind.EVIDENCE)
        self.assertEqual([(one.line, one.what) for one in found.problems], [(2, "A log has at most 20 columns.")])


class Lines(TestCase):
    def test_the_same_outline_in_every_way_people_write_it(self) -> None:
        meant = [("The plot", ["Soil", "Water"]), ("The kitchen", ["Card"])]
        for text in (
            "The plot\n  Soil\n  Water\nThe kitchen\n  Card",
            "The plot\r\n\tSoil\r\n\tWater\r\n\r\nThe kitchen\r\n\tCard\r\n",
            "* The plot\n    * Soil\n    * Water\n* The kitchen\n    * Card",
            "# The plot\n- Soil\n- Water\n# The kitchen\n- Card",
            "# Growing\n## The plot\n1. Soil\n2. Water\n## The kitchen\n1. Card",
            "1. The plot\n   a) Soil\n   b) Water\n2. The kitchen\n   a) Card",
            "1 The plot\n1.1 Soil\n1.2 Water\n2 The kitchen\n2.1 Card",
            "The plot:\nSoil\nWater\nThe kitchen:\nCard",
            "The plot\nSoil\nWater\n\nThe kitchen\nCard",
            "The plot\tSoil\nThe plot\tWater\nThe kitchen\tCard",
            "The plot\tSoil\n\tWater\nThe kitchen\tCard",
            "Section\tPocket\nThe plot\tSoil\n\tWater\nThe kitchen\tCard",
            "• The plot\n   o  Soil\n   o  Water\n• The kitchen\n   o  Card",
        ):
            self.assertEqual(read(text), meant, text)

    def test_names_one_under_the_other_are_pockets_of_no_section(self) -> None:
        found = read_outline("- Title page\n- About me\n\n- Glossary", PocketKind.PAGE)
        self.assertEqual(shape(found), [("", ["Title page", "About me", "Glossary"])])
        self.assertEqual({one.plan.kind for one in found.sections[0].pockets}, {PocketKind.PAGE})

    def test_names_are_sections_where_sections_are_asked_for(self) -> None:
        found = read_outline("A\nB: 2 photos\nC", PocketKind.PAGE, of_sections=True)
        self.assertEqual(shape(found), [("A", ["B"]), ("C", [])])

    def test_a_spreadsheet_with_headings_in_another_order(self) -> None:
        found = read_outline(
            "Pocket\tSection\tDirections\tWhat is wanted\nSoil\tThe plot\tDig\t2 photos", PocketKind.PAGE
        )
        self.assertEqual(shape(found), [("The plot", ["Soil"])])
        plan = found.sections[0].pockets[0].plan
        self.assertEqual((plan.artefacts, plan.directions), (2, "<p>Dig</p>"))

    def test_ten_levels_are_a_section_a_pocket_and_its_directions(self) -> None:
        found = read_outline("\n".join("  " * at + f"L{at}" for at in range(10)), PocketKind.EVIDENCE)
        self.assertEqual(shape(found), [("L0", ["L1"])])
        self.assertEqual(found.sections[0].pockets[0].plan.directions.count("<p>"), 8)

    def test_lines_below_a_log_are_its_columns(self) -> None:
        found = read_outline("Start\n  Crop log\n    date\n    height (cm)", PocketKind.EVIDENCE)
        self.assertEqual([one.title for one in found.sections[0].pockets[0].plan.log.columns], ["Date", "Height"])

    def test_a_section_that_repeats(self) -> None:
        for text in ("Unit (repeats)\n  A", "{unit}\n  A", "Unit: for each unit\n  A"):
            found = read_outline(text, PocketKind.EVIDENCE)
            self.assertEqual([(one.title, one.repeats) for one in found.sections], [("Unit", True)], text)

    def test_what_is_told_of_lines(self) -> None:
        found = read_outline("A\n  One\n  one\nEmpty\nB\n  Lab log", PocketKind.EVIDENCE)
        self.assertEqual([one.line for one in found.notes], [3, 4, 6])
        self.assertEqual(found.problems, ())
        long = read_outline("A\n  " + "x" * 300, PocketKind.EVIDENCE)
        self.assertEqual([(one.line, one.what) for one in long.problems], [(2, "Its name has 300 characters.")])

    def test_too_many_lines_are_refused_and_four_hundred_are_not(self) -> None:
        self.assertEqual(read_outline("\n".join(["S"] + ["  p"] * 400), PocketKind.PAGE).pockets, 400)
        with self.assertRaises(Invalid):
            read_outline("p\n" * (MOST_LINES + 1), PocketKind.PAGE)

    @given(st.text(alphabet="ab:,;\t\n -*#1.()?{}é王", max_size=200))
    def test_whatever_is_pasted_is_understood_somehow_and_no_line_is_lost(self, text: str) -> None:
        found = read_outline(text, PocketKind.EVIDENCE)
        lines = [one.line for section in found.sections for one in section.pockets]
        self.assertEqual(lines, sorted(lines))
        self.assertEqual(len(lines), len(set(lines)))
        written = {at for at, line in enumerate(text.split("\n"), 1) if any(one.isalnum() for one in line)}
        self.assertLessEqual(set(lines), set(range(1, text.count("\n") + 2)))
        if not written:
            return
        self.assertTrue(found.sections)


class Units(TestCase):
    MEANT = (
        TypedUnit("Soil", "12 Oct", ("What is in it?", "Who lives there?")),
        TypedUnit("Water", "2 Nov 2026", ("Where does it go?",)),
    )

    def test_units_in_every_way_people_write_them(self) -> None:
        for text in (
            "Soil\t12 Oct\tWhat is in it?\tWho lives there?\nWater\t2 Nov 2026\tWhere does it go?\t",
            "Unit\tOpens\tQ1\tQ2\nSoil\t12 Oct\tWhat is in it?\tWho lives there?\nWater\t2 Nov 2026\tWhere does it go?",
            "Soil\t12 Oct\tWhat is in it?\n\t\tWho lives there?\nWater\t2 Nov 2026\tWhere does it go?",
            "Soil, 12 Oct\n  1. What is in it?\n  2. Who lives there?\nWater (2 Nov 2026)\n  - Where does it go?",
        ):
            self.assertEqual(read_units(text), self.MEANT, text)

    def test_a_name_with_a_number_is_no_day(self) -> None:
        self.assertEqual(read_units("Unit 1 - Soil\nRoute 66"), (TypedUnit("Unit 1 - Soil"), TypedUnit("Route 66")))
        with self.assertRaises(Invalid):
            read_units(" \n\t\n")
