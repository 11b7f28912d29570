"""Class lists against RFC 4180, openpyxl's workbooks, ICU's collation, and iCalendar against RFC 5545's examples."""

import csv
import io
import json
import os
import subprocess
from datetime import date

from django.conf import settings
from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from coatpeg.core.calendar.plan import DaysOff
from coatpeg.core.errors import Invalid
from coatpeg.core.people.csv_text import to_csv
from coatpeg.core.people.names import sort_key
from coatpeg.core.people.person_names import split
from coatpeg.core.people.roster_table import read_text
from coatpeg.setup.calendar import ical
from coatpeg.setup.roster.roster_files import read_bytes
from operations.install import node_path


class Rfc4180(SimpleTestCase):
    """RFC 4180, section 2: the examples of its rules, from memory, with names in place of its letters."""

    def test_the_rules_of_section_2(self) -> None:
        cases = {
            "1. lines end with CRLF": ("Dube,Thandi\r\nEllery,Josh\r\n", [("Dube", "Thandi"), ("Ellery", "Josh")]),
            "2. the last line may have no end": (
                "Dube,Thandi\r\nEllery,Josh",
                [("Dube", "Thandi"), ("Ellery", "Josh")],
            ),
            "5. fields may be quoted": ('"Dube","Thandi"\r\nEllery,Josh', [("Dube", "Thandi"), ("Ellery", "Josh")]),
            "6. line breaks, quotes and commas inside quotes": (
                '"Du\r\nbe","Tha,ndi"\r\nEllery,Josh',
                [("Du\nbe", "Tha,ndi"), ("Ellery", "Josh")],
            ),
            "7. a quote is escaped by another": ('"Du""be",Thandi\r\nE,J', [('Du"be', "Thandi"), ("E", "J")]),
        }
        for name, (text, rows) in cases.items():
            with self.subTest(name):
                self.assertEqual(read_text(text).rows, tuple(rows))

    @given(
        st.lists(st.lists(st.text(alphabet="ab\",;\n '", max_size=6), min_size=2, max_size=2), min_size=1, max_size=5)
    )
    def test_what_is_written_reads_the_same_by_the_standard_library(self, rows: list[list[str]]) -> None:
        read = list(csv.reader(io.StringIO(to_csv(rows), newline="")))
        self.assertEqual(read, rows)


class Workbooks(SimpleTestCase):
    """Files that openpyxl writes, a general-purpose library for Office Open XML."""

    def test_a_workbook_reads_as_its_cells(self) -> None:
        book = Workbook()
        sheet = book.active
        sheet.append(["Surname", "Forename", "Number", "Joined"])
        sheet.append(["Ångström", "Bo", 20101, date(2026, 9, 7)])
        sheet.append(["山田", "太郎", 20102.0, None])
        target = io.BytesIO()
        book.save(target)
        table = read_bytes(target.getvalue(), "list.xlsx", date(2026, 11, 4), "8 Plot").table
        self.assertEqual(table.heading[:4], ("Surname", "Forename", "Number", "Joined"))
        expected = [("Ångström", "Bo", "20101", "2026-09-07"), ("山田", "太郎", "20102", "")]
        self.assertEqual([row[:4] for row in table.rows], expected)

    def test_what_is_no_workbook_is_refused(self) -> None:
        with self.assertRaises(Invalid):
            read_bytes(b"PK\x03\x04 and nothing more", "list.xlsx", date(2026, 11, 4), "8 Plot")

    def test_text_in_the_encodings_that_spreadsheets_write(self) -> None:
        for encoding in ("utf-8", "utf-8-sig", "utf-16", "cp1252"):
            read = read_bytes("Ångström;Zoë".encode(encoding), "list.csv", date(2026, 11, 4), "8 Plot")
            self.assertEqual(read.table.rows, (("Ångström", "Zoë"),))


def icu_order(texts: list[str]) -> list[str]:
    """Sorted by ICU's root collation, as Node's Intl.Collator carries it."""
    program = (
        "const t=JSON.parse(process.argv[1]);t.sort(new Intl.Collator('und').compare);console.log(JSON.stringify(t))"
    )
    environment = {**os.environ, "PATH": node_path(settings.BASE_DIR)}
    done = subprocess.run(
        ["node", "-e", program, json.dumps(texts)], capture_output=True, text=True, check=True, env=environment
    )
    return list(json.loads(done.stdout))


class NamesInOrder(SimpleTestCase):
    """Names with particles, hyphens, apostrophes, one word only and other scripts, split and then sorted as ICU does."""

    def test_split_names_fall_where_icu_puts_them(self) -> None:
        written = [
            "Ana Beatriz de Souza", "Bo Ångström", "Saoirse O'Neill", "Jan van der Meer", "Mary-Jane Watson-Parker",
            "Sukarni", "Анна Петрова", "Omar ibn al Rashid", "Zoë Abara", "DE LUCA Marco",
        ]  # fmt: skip
        names = [split(one) for one in written]
        families = [name.family or name.given for name in names]
        ours = [name.family or name.given for name in sorted(names, key=lambda name: sort_key(*name))]
        self.assertEqual(ours, icu_order(families))


def ics(*events: str) -> bytes:
    """A calendar of events, each the lines between BEGIN and END."""
    bodies = "".join(
        f"BEGIN:VEVENT\r\nUID:{number}\r\nDTSTAMP:20260101T000000Z\r\n{one}\r\nEND:VEVENT\r\n"
        for number, one in enumerate(events)
    )
    return f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//test//EN\r\n{bodies}END:VCALENDAR\r\n".encode()


NEW_YORK = """BEGIN:VTIMEZONE\r
TZID:America/New_York\r
BEGIN:STANDARD\r
DTSTART:19981025T020000\r
TZOFFSETFROM:-0400\r
TZOFFSETTO:-0500\r
TZNAME:EST\r
END:STANDARD\r
BEGIN:DAYLIGHT\r
DTSTART:19990404T020000\r
TZOFFSETFROM:-0500\r
TZOFFSETTO:-0400\r
TZNAME:EDT\r
END:DAYLIGHT\r
END:VTIMEZONE\r
"""
"""RFC 5545, 3.6.5, the example of fixed rules (from memory)."""


class Rfc5545(SimpleTestCase):
    """The standard's own examples (RFC 5545; the numbers of the sections stand beside each)."""

    def read(self, data: bytes, first: date, last: date, zone: str = "Europe/London") -> ical.ReadCalendar:
        return ical.read(data, first, last, zone)

    def test_an_anniversary_is_one_day_each_year(self) -> None:
        """3.6.1: "represents a single day event that repeats every year" (DTSTART;VALUE=DATE:19971102)."""
        data = ics("SUMMARY:Our Blissful Anniversary\r\nDTSTART;VALUE=DATE:19971102\r\nRRULE:FREQ=YEARLY")
        found = self.read(data, date(1997, 9, 1), date(1999, 12, 31)).days_off
        self.assertEqual([one.first for one in found], [date(year, 11, 2) for year in (1997, 1998, 1999)])
        self.assertTrue(all(one.first == one.last for one in found))

    def test_a_multi_day_event_ends_the_day_before_its_end(self) -> None:
        """3.6.1: "Festival International de Jazz de Montreal", DTSTART 20070628, DTEND 20070709: June 28 to July 8."""
        data = ics(
            "SUMMARY:Festival International de Jazz de Montreal\r\nDTSTART;VALUE=DATE:20070628\r\nDTEND;VALUE=DATE:20070709"
        )
        found = self.read(data, date(2007, 6, 1), date(2007, 7, 31)).days_off
        self.assertEqual(
            found, (DaysOff(date(2007, 6, 28), date(2007, 7, 8), "Festival International de Jazz de Montreal"),)
        )

    def test_every_other_week_until_a_day(self) -> None:
        """3.8.5.3: FREQ=WEEKLY;INTERVAL=2 from 2 September 1997: September 2, 16, 30; October 14, 28; November 11, 25."""
        data = ics("SUMMARY:Training\r\nDTSTART;VALUE=DATE:19970902\r\nRRULE:FREQ=WEEKLY;INTERVAL=2;WKST=SU")
        found = self.read(data, date(1997, 9, 1), date(1997, 11, 30)).days_off
        self.assertEqual(
            [(one.first.month, one.first.day) for one in found],
            [(9, 2), (9, 16), (9, 30), (10, 14), (10, 28), (11, 11), (11, 25)],
        )

    def test_the_first_friday_for_ten_months_without_an_exception(self) -> None:
        """3.8.5.3: FREQ=MONTHLY;COUNT=10;BYDAY=1FR: 1997 Sep 5, Oct 3, Nov 7, Dec 5; EXDATE after 3.8.5.1."""
        data = ics(
            "SUMMARY:Closed\r\nDTSTART;VALUE=DATE:19970905\r\nRRULE:FREQ=MONTHLY;COUNT=10;BYDAY=1FR\r\nEXDATE;VALUE=DATE:19971107"
        )
        found = self.read(data, date(1997, 9, 1), date(1997, 12, 31)).days_off
        self.assertEqual([(one.first.month, one.first.day) for one in found], [(9, 5), (10, 3), (12, 5)])

    def test_whole_days_in_a_time_zone_count_in_the_schools_zone(self) -> None:
        """DTSTART with TZID (3.3.5): midnight in New York is midnight of a school there, and is not in London."""
        event = "SUMMARY:Snow\r\nDTSTART;TZID=America/New_York:19980119T000000\r\nDTEND;TZID=America/New_York:19980121T000000"
        data = ics(event).replace(b"PRODID:-//test//EN\r\n", b"PRODID:-//test//EN\r\n" + NEW_YORK.encode())
        there = self.read(data, date(1998, 1, 1), date(1998, 2, 1), "America/New_York")
        self.assertEqual(there.days_off, (DaysOff(date(1998, 1, 19), date(1998, 1, 20), "Snow"),))
        here = self.read(data, date(1998, 1, 1), date(1998, 2, 1))
        self.assertEqual((here.days_off, here.left_out[0].why), ((), "it does not take whole days"))

    def test_a_meeting_is_no_day_off_and_a_cancelled_event_is_none(self) -> None:
        """3.6.1: "Annual Employee Review" from 13:30 to 18:00; STATUS:CANCELLED after 3.8.1.11."""
        data = ics(
            "SUMMARY:Annual Employee Review\r\nDTSTART:19970903T163000Z\r\nDTEND:19970903T190000Z",
            "SUMMARY:Sports day\r\nDTSTART;VALUE=DATE:19970904\r\nSTATUS:CANCELLED",
        )
        found = self.read(data, date(1997, 9, 1), date(1997, 9, 30))
        self.assertEqual(found.days_off, ())
        self.assertEqual(
            {one.name: one.why for one in found.left_out},
            {"Annual Employee Review": "it does not take whole days", "Sports day": "it is cancelled"},
        )

    def test_folded_lines_and_escaped_text(self) -> None:
        """3.1: long lines are folded by a line break and a blank; 3.3.11: ``\\,`` is a comma."""
        data = ics("SUMMARY:Half-term\\, for every\r\n one\r\nDTSTART;VALUE=DATE:20261026\r\nDURATION:P5D")
        found = self.read(data, date(2026, 9, 1), date(2026, 12, 18)).days_off
        self.assertEqual(found, (DaysOff(date(2026, 10, 26), date(2026, 10, 30), "Half-term, for everyone"),))

    def test_what_is_no_calendar_is_refused(self) -> None:
        for data in (b"", b"Half-term: 26 October", b"\x89PNG\r\n", b"BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\n"):
            with self.subTest(data), self.assertRaises(Invalid):
                self.read(data, date(2026, 9, 1), date(2026, 12, 18))

    def test_an_endless_diary_is_refused_and_an_endless_event_ends(self) -> None:
        often = ics("SUMMARY:Bell\r\nDTSTART:20260901T080000Z\r\nDTEND:20260901T080100Z\r\nRRULE:FREQ=HOURLY")
        with self.assertRaises(Invalid) as caught:
            self.read(often, date(2026, 9, 1), date(2026, 12, 18))
        self.assertIn("events", caught.exception.what)
        long = ics("SUMMARY:Year off\r\nDTSTART;VALUE=DATE:20260901\r\nDTEND;VALUE=DATE:20270901")
        self.assertIn("more than 120 days", self.read(long, date(2026, 9, 1), date(2026, 12, 18)).left_out[0].why)
