"""Reading a class list and planning what it would do."""

from typing import Any

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.people.csv_text import neutral, to_csv
from coatpeg.core.people.roster_plan import Change, Entry, Known, Verdict, check_columns, plan, read_entry
from coatpeg.core.people.roster_table import Column, Table, guess, read_text

C = Column


class Reading(SimpleTestCase):
    def test_a_table_from_a_spreadsheet(self) -> None:
        table = read_text("Surname\tForename\tPer.\n Dube\tThandi\tP3\n\nEllery\tJosh\n")
        self.assertEqual(table.heading, ("Surname", "Forename", "Per."))
        self.assertEqual(table.rows, (("Dube", "Thandi", "P3"), ("Ellery", "Josh", "")))
        self.assertEqual(guess(table), (C.FAMILY, C.GIVEN, C.PERIOD))

    def test_one_column_of_names_in_either_order(self) -> None:
        for text in ("Dube, Thandi\nEllery, Josh\n", "Thandi Dube\nJosh Ellery\n"):
            table = read_text(text)
            self.assertEqual((table.heading, len(table.rows), guess(table)), ((), 2, (C.NAME,)))

    def test_comma_and_semicolon_files(self) -> None:
        for text in ("Last name,First name\nDube,Thandi\n", "Nachname;Vorname\nDube;Thandi\n"):
            self.assertEqual(read_text(text).rows, (("Dube", "Thandi"),))

    def test_columns_without_headings_are_told_by_what_is_in_them(self) -> None:
        lines = [
            f"2010{number}\t{given}\t{family}\t{given.lower()}@larkfield.example\tP{3 + number % 2}\tTable {number % 2}"
            for number, (family, given) in enumerate(
                (
                    ("Abara", "Milo"),
                    ("Chandra", "Esme"),
                    ("Dube", "Thandi"),
                    ("Ellery", "Josh"),
                    ("Fox", "Ann"),
                    ("Gray", "Bo"),
                )
            )
        ]
        self.assertEqual(guess(read_text("\n".join(lines))), (C.NUMBER, C.GIVEN, C.FAMILY, C.EMAIL, C.PERIOD, C.GROUP))

    def test_headings_of_open_exports_and_unknown_ones(self) -> None:
        table = read_text("sourcedId,givenName,familyName,email,shoe size\n7,Thandi,Dube,t@larkfield.example,38\n")
        self.assertEqual(guess(table), (C.IGNORE, C.GIVEN, C.FAMILY, C.EMAIL, C.IGNORE))

    def test_a_name_column_beside_a_family_name_is_the_given_name(self) -> None:
        self.assertEqual(guess(read_text("Surname\tName\nDube\tThandi\n")), (C.FAMILY, C.GIVEN))

    def test_a_title_above_the_headings_and_notes_beside_are_no_names(self) -> None:
        table = read_text("8 Plot, autumn term\t\t\n\t\t\nName\tForm / per.\tRemarks\nThandi Dube\tP3\tnew\n")
        self.assertEqual(
            (table.heading, table.rows), (("Name", "Form / per.", "Remarks"), (("Thandi Dube", "P3", "new"),))
        )
        self.assertEqual(guess(table), (C.NAME, C.GROUP, C.IGNORE))
        lines = "\n".join(f"Ann{at} Holm\tP1\t{'sits in front' if at == 2 else ''}" for at in range(6))
        self.assertEqual(guess(read_text(lines)), (C.NAME, C.PERIOD, C.IGNORE))

    def test_nothing_and_too_much(self) -> None:
        for text, words in (
            ("", "no list"),
            (" \n\t\n", "no list"),
            ("\t\t\n,,\n\t\n", "nobody"),
            ("Ada\n" * 5_001, "5001 lines"),
            ("\t".join("abcdefghij" * 5), "50 columns"),
        ):
            with self.subTest(words), self.assertRaises(Invalid) as caught:
                read_text(text)
            self.assertIn(words, caught.exception.what)

    @given(st.text(max_size=200))
    def test_whatever_is_pasted_is_read_or_refused_with_words(self, text: str) -> None:
        try:
            table = read_text(text)
        except Invalid as problem:
            self.assertTrue(problem.what and problem.fix)
            return
        self.assertEqual({len(row) for row in table.rows} - {len(guess(table))}, set())


class Formulas(SimpleTestCase):
    def test_cells_that_could_be_formulas_are_made_harmless(self) -> None:
        for cell in ("=1+1", "+31", "-2", "@SUM(A1)", "\t=1", "\r=1"):
            self.assertEqual(neutral(cell), f"'{cell}")
        self.assertEqual(neutral("Dube"), "Dube")
        self.assertEqual(to_csv([["=x", 'a "b"', "c,d"]]), '\'=x,"a ""b""","c,d"\r\n')


def entry(family: str = "Dube", given_name: str = "Thandi", **more: Any) -> Entry:
    return Entry(family, given_name, **more)


THANDI = Known(1, entry(number="20101", email="thandi@larkfield.example", period="P3"), enrolment=11)
JOSH = Known(2, entry("Ellery", "Josh"), enrolment=12)
GONE = Known(3, entry("Reyes", "Sam"), enrolment=13, left=True)
ELSEWHERE = Known(4, entry("Moss", "Lee", number="20104"), groups=("9 Forge",))
SCHOOL = [THANDI, JOSH, GONE, ELSEWHERE]


class Planning(SimpleTestCase):
    def verdicts(self, *entries: Entry, known: list[Known] = SCHOOL, as_new: tuple[int, ...] = ()) -> list[Verdict]:
        return [line.verdict for line in plan(entries, known, frozenset(as_new)).lines]

    def test_each_line_says_what_will_happen(self) -> None:
        cases = {
            Verdict.NEW: entry("Okonkwo", "Chidi"),
            Verdict.HERE: entry(),
            Verdict.JOINS: entry("Moss", "Lee"),
            Verdict.BACK: entry("Reyes", "Sam"),
            Verdict.CHANGED: entry(period="P4"),
            Verdict.INCOMPLETE: entry("", "", period="P4"),
            Verdict.UNREADABLE: entry("Bo", "Ada", email="ada@larkfeild"),
        }
        for verdict, line in cases.items():
            with self.subTest(verdict):
                self.assertEqual(self.verdicts(line), [verdict])

    def test_a_change_shows_old_and_new(self) -> None:
        line = plan([entry("Dube-Nkosi", "Thandi", number="20101", period="P4")], SCHOOL).lines[0]
        self.assertEqual(line.verdict, Verdict.CHANGED)
        self.assertEqual(line.changes, (Change("family", "Dube", "Dube-Nkosi"), Change("period", "P3", "P4")))

    def test_an_empty_cell_says_nothing_and_a_name_parted_elsewhere_is_the_same(self) -> None:
        self.assertEqual(self.verdicts(entry()), [Verdict.HERE])
        known = [Known(5, entry("van der Meer", "Jan"), enrolment=15)]
        self.assertEqual(self.verdicts(entry("Meer", "Jan van der"), known=known), [Verdict.HERE])
        accents = [Known(6, entry("Angstrom", "Bo"), enrolment=16)]
        self.assertEqual(self.verdicts(entry("Ångström", "Bo"), known=accents), [Verdict.CHANGED])

    def test_a_name_written_the_other_way_round_is_the_same_and_its_order_is_written_where_it_is_said(self) -> None:
        khai = Known(7, entry("Khai", "Nguyễn Thị Minh"), enrolment=17)
        said = read_entry(["Nguyễn Thị Minh Khai"], [C.NAME], family_first=True)
        line = plan([said], [khai]).lines[0]
        self.assertEqual((line.person, line.entry.listed), (7, "Nguyễn Thị Minh Khai"))
        order = Change("order", "given name first", "family name first")
        names = (Change("family", "Khai", "Nguyễn"), Change("given", "Nguyễn Thị Minh", "Thị Minh Khai"))
        self.assertEqual(line.changes, (order, *names))
        right = Known(7, entry("Nguyễn", "Thị Minh Khai", family_first=True), enrolment=17)
        unsaid = read_entry(["Nguyễn Thị Minh Khai"], [C.NAME])
        for again in (said, unsaid, entry("Nguyễn", "Thị Minh Khai")):
            self.assertEqual(plan([again], [right]).lines[0].verdict, Verdict.HERE, again)
        # Said of the list and not of this line: it is turned back.
        turned = read_entry(["Nguyễn", "Thị Minh Khai"], [C.FAMILY, C.GIVEN], family_first=True, turned=True)
        back = Change("order", "family name first", "given name first")
        self.assertEqual(plan([turned], [right]).lines[0].changes, (back,))
        # Whoever may not change the name changes no order either.
        foreign = Known(7, khai.entry, enrolment=17, may_change=False)
        self.assertEqual(plan([said], [foreign]).lines[0].verdict, Verdict.HERE)
        # Two people whose names are each other's turned round stay two.
        two = [entry("James", "Oliver"), entry("Oliver", "James")]
        self.assertEqual(self.verdicts(*two, known=[]), [Verdict.NEW, Verdict.NEW])

    def test_by_number_then_address_then_name(self) -> None:
        self.assertEqual(plan([entry("X", "Y", number="20101")], SCHOOL).lines[0].person, 1)
        self.assertEqual(plan([entry("X", "Y", email="thandi@larkfield.example")], SCHOOL).lines[0].person, 1)
        self.assertEqual(self.verdicts(entry(number="99999")), [Verdict.NEW], "another number is another person")
        self.assertEqual(self.verdicts(entry(email="other@larkfield.example")), [Verdict.NEW])

    def test_a_name_that_two_people_have_is_nobody_certain(self) -> None:
        twins = [Known(7, entry("Lee", "Sam"), groups=("A",)), Known(8, entry("Lee", "Sam"), groups=("B",))]
        self.assertEqual(self.verdicts(entry("Lee", "Sam"), known=twins), [Verdict.NEW])

    def test_the_person_can_say_that_it_is_somebody_else(self) -> None:
        self.assertEqual(self.verdicts(entry("Moss", "Lee"), as_new=(1,)), [Verdict.NEW])

    def test_twice_in_the_list_names_the_first_line(self) -> None:
        lines = [entry("Bo", "Ada", number="6"), entry("bo", "Áda"), entry("Bo", "Ada", number="7")]
        found = plan(lines, []).lines
        self.assertEqual([line.verdict for line in found], [Verdict.NEW, Verdict.TWICE, Verdict.NEW])
        self.assertIn("line 1", found[1].why)
        both = plan([entry(), entry("X", "Y", number="20101")], SCHOOL).lines
        self.assertEqual(both[1].verdict, Verdict.TWICE, "known again by another sign")

    def test_students_not_named_are_offered_as_leavers_and_those_who_left_are_not(self) -> None:
        self.assertEqual(plan([entry()], SCHOOL).missing, (12,))
        self.assertEqual(plan([], SCHOOL).missing, (11, 12))

    def test_bad_lines_say_why_and_how_to_mend_them(self) -> None:
        cases = {
            "not a name": entry("1234", "77"),
            "e-mail address": entry(email="chidi@larkfeild"),
            "200 characters": entry("B" * 200, "Ada"),
            "too long": entry(number="9" * 60),
        }
        for words, line in cases.items():
            found = plan([line], []).lines[0]
            self.assertEqual(found.verdict, Verdict.UNREADABLE)
            self.assertIn(words, found.why)
            self.assertTrue(found.fix)

    def test_an_address_alone_finds_asks_or_names_and_tells_nothing_of_whom_it_found(self) -> None:
        mine = Known(1, entry("Dube", "Thandi", email="thandi@larkfield.example"), groups=("8 Plot",))
        others = Known(2, entry("Ellery", "Josh", email="josh@larkfield.example"), groups=("9 Forge",), may_bring=False)
        alone = [Entry(email=f"{who}@larkfield.example") for who in ("thandi", "josh", "anna.blom", "anna.blom7", "42")]
        lines = plan(alone, [mine, others]).lines
        self.assertEqual([one.verdict.value for one in lines], ["joins", "asked", "new", "new", "new"])
        self.assertEqual(
            [one.entry.listed for one in lines],
            ["Dube, Thandi", "josh@larkfield.example", "Blom, Anna", "Blom, Anna", "Student"],
        )
        self.assertEqual([one.unnamed for one in lines], [False, False, True, True, True])
        self.assertNotIn("Ellery", lines[1].why + lines[1].fix)

    def test_columns_must_make_sense(self) -> None:
        for columns, width, words in (
            ((C.NAME,), 2, "1 columns are named"),
            ((C.PERIOD, C.IGNORE), 2, "No column has the names"),
            ((C.NAME, C.NAME), 2, "Two columns"),
        ):
            with self.subTest(words), self.assertRaises(Invalid) as caught:
                check_columns(columns, width)
            self.assertIn(words, caught.exception.what)

    def test_a_line_is_read_by_its_columns(self) -> None:
        read = read_entry(["Thandi Dube", "T@X.example ", " 20101"], [C.NAME, C.EMAIL, C.NUMBER])
        self.assertEqual(read, Entry("Dube", "Thandi", "t@x.example", "20101"))

    @given(
        st.lists(
            st.tuples(st.sampled_from("ABCD"), st.sampled_from("xyz"), st.sampled_from(["", "1", "2"])), max_size=12
        )
    )
    def test_the_same_list_again_changes_nothing(self, rows: list[tuple[str, str, str]]) -> None:
        entries = [Entry(family, given_name, number=number) for family, given_name, number in rows]
        first = plan(entries, [])
        known = [
            Known(line.number, line.entry, enrolment=line.number) for line in first.lines if line.verdict is Verdict.NEW
        ]
        again = plan(entries, known)
        self.assertFalse([line for line in again.lines if line.verdict is Verdict.NEW])
        self.assertEqual(again.missing, ())


class Tables(SimpleTestCase):
    def test_a_table_of_headings_alone_has_columns(self) -> None:
        self.assertEqual(guess(Table(("Surname", "Forename"), ())), (C.FAMILY, C.GIVEN))
