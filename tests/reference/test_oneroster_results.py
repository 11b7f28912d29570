"""Scores as OneRoster 1.1 files: the standard's columns and words, read back as any CSV reader does."""

from __future__ import annotations

import csv
import zipfile
from datetime import timedelta
from io import BytesIO, StringIO

from coatpeg.handins.handing import commands
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

# Source: the CSV tables of OneRoster 1.1 (IMS Global Learning Consortium, 2017), columns and enumeration from memory.
LINE_ITEMS = (
    "sourcedId,status,dateLastModified,title,description,assignDate,dueDate,classSourcedId,categorySourcedId,"
    "gradingPeriodSourcedId,resultValueMin,resultValueMax"
)
RESULTS = "sourcedId,status,dateLastModified,lineItemSourcedId,studentSourcedId,scoreStatus,score,scoreDate,comment"
SCORE_STATUS = {"exempt", "fully graded", "not submitted", "partially graded", "submitted"}


class OneRosterResults(ApiCase):
    def test_each_status_and_score_by_the_schools_number_and_nothing_reads_as_a_formula(self) -> None:
        plot = builders.klass()
        card = plot.pocket()
        books = [plot.student(f"s{at}", name, "Abel") for at, name in enumerate(("Ada", "Bea", "Cyr", "Dee"))]
        Person.objects.filter(pk=books[0].enrolment.person_id).update(number="20399")
        handin = plot.handin(card, title="=Recipe card", points=30, due=TODAY + timedelta(days=1))
        for book in books[:2]:
            builders.fill(book, card)
            made = builders.hand_in(book, handin)
            if book is books[0]:
                builders.mark(plot.lead, made, score=27)
        commands.set_excused(plot.lead, handin.pk, books[2].enrolment_id, NOW, excused=True)
        body = {"students": [one.enrolment_id for one in books], "handins": [handin.pk]}
        answer = self.call(plot.lead, "POST", f"/groups/{plot.group.pk}/results", body)
        self.assertEqual(answer["Content-Type"], "application/zip")
        with zipfile.ZipFile(BytesIO(answer.content)) as opened:
            text = {name: opened.read(name).decode() for name in opened.namelist()}
        self.assertEqual(text["lineItems.csv"].splitlines()[0], LINE_ITEMS)
        self.assertEqual(text["results.csv"].splitlines()[0], RESULTS)
        (item,) = csv.DictReader(StringIO(text["lineItems.csv"]))
        self.assertEqual((item["title"], item["resultValueMax"]), ("'=Recipe card", "30.0"))
        self.assertEqual((item["assignDate"], item["dueDate"]), (str(handin.opens), str(TODAY + timedelta(days=1))))
        rows = list(csv.DictReader(StringIO(text["results.csv"])))
        self.assertEqual(
            [(one["scoreStatus"], one["score"]) for one in rows],
            [("fully graded", "27.0"), ("submitted", ""), ("exempt", ""), ("not submitted", "")],
        )
        self.assertLessEqual({one["scoreStatus"] for one in rows}, SCORE_STATUS)
        self.assertEqual({one["lineItemSourcedId"] for one in rows}, {item["sourcedId"]})
        self.assertEqual((rows[0]["studentSourcedId"], rows[0]["scoreDate"]), ("20399", str(TODAY)))
        manifest = dict(csv.reader(StringIO(text["manifest.csv"])))
        named = {name.removesuffix(".csv") for name in text} - {"manifest"}
        self.assertEqual({name for name in manifest if manifest[name] == "bulk"}, {f"file.{one}" for one in named})
