"""Class lists from OneRoster 1.1 CSV zips.

Source: OneRoster 1.1 CSV tables (IMS Global Learning Consortium, 2017): file names, column names and their order, the
values *active* and *tobedeleted*, *student* and *teacher*. From memory. The files are written by Python's ``csv`` and
``zipfile``.
"""

import csv
import io
import zipfile
from datetime import date

from django.test import SimpleTestCase

from coatpeg.core.errors import Invalid
from coatpeg.core.people.oneroster import HEADING, class_named, classes_of, plain_name
from coatpeg.core.people.roster_table import Column, guess
from coatpeg.setup.roster.roster_files import MOST_UNPACKED, classes_in, read_bytes

TODAY = date(2026, 11, 4)
COLUMNS = {
    "users.csv": "sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,"
    "middleName,identifier,email,sms,phone,agentSourcedIds,grades,password",
    "classes.csv": "sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,"
    "schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods",
    "enrollments.csv": "sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,"
    "beginDate,endDate",
    "academicSessions.csv": "sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear",
    "manifest.csv": "propertyName,value",
}


def user(key: str, given: str, family: str, role: str = "student", **more: str) -> dict[str, str]:
    return {"sourcedId": key, "enabledUser": "true", "role": role, "givenName": given, "familyName": family, **more}


USERS = [
    user("u1", "Thandi", "Dube", identifier="20101", email="thandi.dube@larkfield.example"),
    user("u2", "Josh", "Ellery"),
    user("u3", "R.", "Okafor", "teacher"),
    user("u4", "Lee", "Moss", enabledUser="false"),
    user("u5", "Sam", "Reyes", status="tobedeleted"),
    user("u6", "Noor", "Meyer"),
    user("u7", 'Zoë "Zed", née', "O'Neill-de Souza", identifier="20107"),
]
CLASSES = [
    {
        "sourcedId": "c1",
        "title": "8 Plot: Growing and Cooking",
        "classCode": "8 PLOT",
        "periods": "P3,P4",
        "termSourcedIds": "t2,t1",
    },
    {"sourcedId": "c2", "title": "9 Forge", "classType": "scheduled"},
    {"sourcedId": "c3", "title": "Gone", "status": "tobedeleted"},
]
ENROLLED = [
    {"classSourcedId": "c1", "userSourcedId": "u1", "role": "student"},
    {
        "classSourcedId": "c1",
        "userSourcedId": "u2",
        "role": "student",
        "beginDate": "2026-09-07",
        "endDate": "2026-10-16",
    },
    {"classSourcedId": "c1", "userSourcedId": "u3", "role": "teacher", "primary": "true"},
    {"classSourcedId": "c1", "userSourcedId": "u4", "role": "student"},
    {"classSourcedId": "c1", "userSourcedId": "u5", "role": "student"},
    {"classSourcedId": "c1", "userSourcedId": "u6", "role": "student", "status": "tobedeleted"},
    {"classSourcedId": "c1", "userSourcedId": "u7", "role": "Student", "endDate": "2026-12-18"},
    {"classSourcedId": "c1", "userSourcedId": "u7", "role": "student"},
    {"classSourcedId": "c2", "userSourcedId": "u6", "role": "student"},
    {"classSourcedId": "c2", "userSourcedId": "nobody", "role": "student"},
]
TERMS = [
    {"sourcedId": "t1", "title": "Autumn", "type": "term", "startDate": "2026-09-01", "endDate": "2026-12-18"},
    {"sourcedId": "t2", "title": "Year", "type": "schoolYear", "startDate": "2026-09-07", "endDate": "2027-07-16"},
]
TABLES = {"users.csv": USERS, "classes.csv": CLASSES, "enrollments.csv": ENROLLED, "academicSessions.csv": TERMS}


def packed(tables: dict[str, list[dict[str, str]]] = TABLES, folder: str = "") -> bytes:
    """A zip as an information system exports it."""
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as zipped:
        zipped.writestr(
            folder + "manifest.csv", "propertyName,value\r\nmanifest.version,1.0\r\noneroster.version,1.1\r\n"
        )
        for name, rows in tables.items():
            text = io.StringIO(newline="")
            columns = dict.fromkeys([*COLUMNS[name].split(","), *(rows[0] if rows else ())])
            writer = csv.DictWriter(text, list(columns), restval="")
            writer.writeheader()
            writer.writerows(rows)
            zipped.writestr(folder + name, "\ufeff" + text.getvalue())
    return target.getvalue()


class Reading(SimpleTestCase):
    def test_the_class_of_our_name_with_its_students(self) -> None:
        found = read_bytes(packed(), "roster.zip", TODAY, "8 Plot · Growing and Cooking")
        self.assertEqual(found.chosen, "c1")
        self.assertEqual(
            found.table.rows,
            (
                ("Dube", "Thandi", "thandi.dube@larkfield.example", "20101", "P3"),
                ("O'Neill-de Souza", 'Zoë "Zed", née', "", "20107", "P3"),
            ),
        )
        self.assertEqual(found.first, date(2026, 9, 1))
        self.assertEqual(
            [(one.title, len(one.lines)) for one in found.classes], [("8 Plot: Growing and Cooking", 2), ("9 Forge", 1)]
        )
        self.assertEqual(
            guess(found.table), (Column.FAMILY, Column.GIVEN, Column.EMAIL, Column.NUMBER, Column.PERIOD), HEADING
        )

    def test_by_code_by_choice_and_in_a_folder(self) -> None:
        self.assertEqual(read_bytes(packed(folder="export/"), "r.zip", TODAY, "8 plot").chosen, "c1")
        chosen = read_bytes(packed(), "r.zip", TODAY, "8 Plot", chosen="c2")
        self.assertEqual([row[1] for row in chosen.table.rows], ["Noor"])
        self.assertEqual(chosen.table.rows[0][3], "u6", "without an identifier the id of the source")
        self.assertEqual(len(classes_in(packed(), "r.zip", TODAY)), 2)

    def test_what_is_missing_is_named(self) -> None:
        for gone in ("users.csv", "classes.csv", "enrollments.csv"):
            with self.subTest(gone), self.assertRaises(Invalid) as caught:
                read_bytes(
                    packed({name: rows for name, rows in TABLES.items() if name != gone}), "r.zip", TODAY, "8 Plot"
                )
            self.assertEqual(caught.exception.where, gone)
        without = io.BytesIO()
        with zipfile.ZipFile(without, "w") as zipped:
            zipped.writestr("users.csv", "sourcedId,givenName\r\n1,Ada\r\n")
            zipped.writestr("classes.csv", "sourcedId,title\r\n")
            zipped.writestr("enrollments.csv", "classSourcedId,userSourcedId,role\r\n")
        with self.assertRaisesRegex(Invalid, "no column “role”"):
            read_bytes(without.getvalue(), "r.zip", TODAY, "8 Plot")
        with self.assertRaisesRegex(Invalid, "no class"):
            read_bytes(packed({**TABLES, "classes.csv": []}), "r.zip", TODAY, "8 Plot")

    def test_damaged_and_monstrous_files(self) -> None:
        with self.assertRaisesRegex(Invalid, "damaged"):
            read_bytes(packed()[:200], "r.zip", TODAY, "8 Plot")
        bomb = io.BytesIO()
        with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as zipped:
            zipped.writestr("users.csv", b"0" * (MOST_UNPACKED + 1))
        self.assertLess(len(bomb.getvalue()), 1_000_000)
        with self.assertRaisesRegex(Invalid, "unpacks"):
            read_bytes(bomb.getvalue(), "r.zip", TODAY, "8 Plot")
        self.assertEqual(classes_in(b"Dube;Thandi", "list.csv", TODAY), ())

    def test_which_class_is_meant(self) -> None:
        classes = classes_of(TABLES, TODAY)
        self.assertEqual(plain_name("8 Plot · Growing & Cooking"), "8plotgrowingcooking")
        self.assertIsNone(class_named(classes, "7 Bench"))
        self.assertEqual(class_named(classes[:1], "7 Bench"), classes[0], "there is just one")
