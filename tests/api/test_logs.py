"""Logs: rows written, pasted, locked when handed in, counted, and columns changed under them."""

import csv
import io
from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.handins.models import Submission
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.models import LogRow
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.api.test_template import TemplateCase
from tests.builders import NOW, jpeg


def column(key: str, title: str, kind: str, **more: Any) -> dict[str, Any]:
    return {"key": key, "title": title, "type": kind, **more}


COLUMNS = [
    column("day", "Date", "date", required=True),
    column("bed", "Bed", "choice", choices=["North", "South"]),
    column("grams", "Harvest", "number", required=True, unit="g"),
    column("note", "Note", "long_text", measure="words", least=2),
    column("photo", "Photo", "artefact"),
]
LOG = {"columns": COLUMNS, "target": {"column": "grams", "amount": "500", "each_week": False}}


def crop_log(of: builders.Class, **more: Any) -> Pocket:
    return of.pocket("Crop log", "log", **{"rows": 3, "log": LOG, **more})


class LogCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.log = crop_log(self.plot)
        self.thandi = self.plot.student("thandi")
        self.person = self.thandi.enrolment.person
        self.path = f"/portfolios/{self.thandi.pk}/pockets/{self.log.pk}"

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def mine(self, method: str, path: str, body: Any = None) -> Any:
        return self.ok(self.person, method, path, body)

    def refused(self, status: int, method: str, path: str, body: Any = None) -> dict[str, Any]:
        return self.problem(status, self.person, method, path, body)

    def write(self, day: str = "2026-11-02", grams: str = "120", **more: Any) -> dict[str, Any]:
        return self.mine("POST", f"{self.path}/rows", {"values": {"day": day, "grams": grams, **more}})

    def shown(self) -> dict[str, Any]:
        return self.mine("GET", self.path)

    def upload(self) -> int:
        answer = self.client_of(self.person).post(
            f"/api{self.path}/row-files", {"file": SimpleUploadedFile("bed.jpg", jpeg()), "title": "bed.jpg"}
        )
        self.assertEqual(answer.status_code, 200, answer.content)
        return int(answer.json()["id"])


class Writing(LogCase):
    def test_rows_stand_by_date_and_add_up(self) -> None:
        self.write("2026-11-10", "80.5", bed="South")
        self.write("2026-11-02", "120", bed="North", photo=self.upload())
        self.write("2026-11-04", "1.5")
        opened = self.shown()
        log = opened["log"]
        self.assertEqual([row["values"]["day"][-2:] for row in log["rows"]], ["02", "04", "10"])
        self.assertEqual(log["total"], {"rows": 3, "sums": [{"column": "grams", "amount": "202.0"}]})
        self.assertEqual(
            [(week["monday"], week["rows"]) for week in log["weeks"]], [("2026-11-02", 2), ("2026-11-09", 1)]
        )
        self.assertEqual([(one["choice"], one["rows"]) for one in log["of_choices"]], [("North", 1), ("South", 1)])
        self.assertEqual([point["value"] for point in log["line"]], [121.5, 202.0])
        self.assertEqual([one["title"] for one in log["artefacts"]], ["bed.jpg"])
        self.assertEqual([(chip["what"], chip["done"], chip["wanted"]) for chip in opened["chips"]], [("rows", 3, 3)])

    def test_what_does_not_fit_is_named_by_column_and_nothing_is_kept(self) -> None:
        said = self.refused(
            422, "POST", f"{self.path}/rows", {"values": {"day": "31 February 2026", "grams": "1e309", "bed": "West"}}
        )
        self.assertEqual([one["column"] for one in said["wrong"]], ["day", "bed", "grams"])
        self.assertEqual(said["where"], "Date")
        self.refused(422, "POST", f"{self.path}/rows", {"values": {}})
        self.assertFalse(LogRow.objects.exists())

    def test_a_row_that_lacks_something_is_kept_and_does_not_count(self) -> None:
        saved = self.mine("POST", f"{self.path}/rows", {"values": {"grams": "5", "note": "short"}})
        self.assertEqual((saved["complete"], saved["missing"]), (False, ["Date", "Note"]))
        self.assertEqual(self.shown()["met"], 0)
        saved = self.mine(
            "PUT",
            f"/rows/{saved['id']}",
            {"values": {"day": "2026-11-02", "grams": "5", "note": "two words"}, "version": 1},
        )
        self.assertEqual((saved["complete"], saved["version"]), (True, 2))
        self.assertEqual(self.shown()["met"], 1)

    def test_two_devices_never_overwrite_each_other(self) -> None:
        row = self.write()
        other = {"values": {"day": "2026-11-02", "grams": "7"}, "version": 1}
        self.mine("PUT", f"/rows/{row['id']}", other)
        said = self.refused(
            409, "PUT", f"/rows/{row['id']}", {"values": {"day": "2026-11-02", "grams": "8"}, "version": 1}
        )
        self.assertEqual((said["values"]["grams"], said["version"]), ("7", 2))
        self.assertEqual(self.mine("PUT", f"/rows/{row['id']}", other)["version"], 2, "the same again changes nothing")

    def test_taken_out_and_brought_back(self) -> None:
        row = self.write()
        self.mine("DELETE", f"/rows/{row['id']}")
        self.assertEqual((self.shown()["log"]["rows"], self.shown()["met"]), ([], 0))
        self.refused(404, "PUT", f"/rows/{row['id']}", {"values": {"grams": "1"}, "version": 1})
        self.mine("POST", f"/rows/{row['id']}/restore")
        self.assertEqual(self.shown()["met"], 1)

    def test_an_artefact_of_somebody_else_fits_no_row(self) -> None:
        josh = self.plot.student("josh", "Josh", "Ellery")
        theirs = builders.add_picture(josh, self.plot.pocket()).artefact_id
        said = self.refused(422, "POST", f"{self.path}/rows", {"values": {"grams": "1", "photo": theirs}})
        self.assertIn("not in your portfolio", said["title"])

    def test_a_log_takes_rows_and_nothing_else_does(self) -> None:
        self.refused(422, "POST", f"{self.path}/links", {"link": "https://plants.example"})
        self.refused(422, "PUT", f"{self.path}/page", {"text": "Me", "version": 0})
        page = self.plot.pocket("About me", "page")
        self.refused(422, "POST", f"/portfolios/{self.thandi.pk}/pockets/{page.pk}/rows", {"values": {"a": "b"}})
        plain = self.plot.pocket("Diary", "log", log={"columns": [column("day", "Date", "date")]})
        answer = self.client_of(self.person).post(
            f"/api/portfolios/{self.thandi.pk}/pockets/{plain.pk}/row-files",
            {"file": SimpleUploadedFile("bed.jpg", jpeg())},
        )
        self.assertEqual(answer.status_code, 422)


class Pasting(LogCase):
    def paste(self, text: str, apply: bool = True) -> dict[str, Any]:
        return self.mine("POST", f"{self.path}/rows/paste", {"text": text, "apply": apply})

    def test_by_heading_in_any_order_and_one_bad_line_blocks_no_other(self) -> None:
        text = "Harvest (g)\tDate\tWeather\n120\t2.11.2026\tdry\n1e309\t3.11.2026\twet\n80\t4.11.2026\twet\n"
        seen = self.paste(text, apply=False)
        self.assertEqual((seen["headings"], seen["added"]), (["Harvest", "Date"], 2))
        self.assertFalse(LogRow.objects.exists(), "read only")
        done = self.paste(text)
        self.assertEqual(done["added"], 2)
        self.assertEqual([(one["line"], len(one["wrong"])) for one in done["lines"]], [(2, 0), (3, 1), (4, 0)])
        again = self.paste(text)
        self.assertEqual((again["added"], [one["here"] for one in again["lines"]]), (0, [True, False, True]))

    def test_without_a_heading_in_the_columns_order(self) -> None:
        self.assertEqual(self.paste("2026-11-02,north,5\n2026-11-03,south,6\n")["added"], 2)
        said = self.refused(422, "POST", f"{self.path}/rows/paste", {"text": "a\tb\tc\td\te\tf"})
        self.assertIn("6 cells", said["title"])
        self.refused(422, "POST", f"{self.path}/rows/paste", {"text": " \n "})
        self.refused(422, "POST", f"{self.path}/rows/paste", {"text": "x\n" * 501})

    def test_formulas_stay_text_and_are_harmless_in_the_download(self) -> None:
        """Read back with Python's own RFC 4180 reader."""
        self.paste('Date\tHarvest\tNote\n2.11.2026\t-5\t"=HYPERLINK(""https://x.example"") now"\n')
        answer = self.client_of(self.person).get(f"/api{self.path}/rows.csv")
        self.assertIn("Crop%20log.csv", answer["Content-Disposition"] + "Crop%20log.csv")
        rows = list(csv.reader(io.StringIO(answer.content.decode("utf-8-sig"), newline="")))
        self.assertEqual(rows[0], ["Date", "Bed", "Harvest (g)", "Note", "Photo"])
        self.assertEqual(rows[1], ["2026-11-02", "", "-5", '\'=HYPERLINK("https://x.example") now', ""])


class HandingIn(LogCase):
    def test_the_rows_handed_in_are_locked_and_new_ones_possible(self) -> None:
        first = self.write()
        task = self.plot.handin(self.log, title="Harvest so far")
        submission = builders.hand_in(self.thandi, task)
        said = self.refused(403, "PUT", f"/rows/{first['id']}", {"values": {"grams": "9"}, "version": 1})
        self.assertIn("Harvest so far", said["title"])
        self.refused(403, "DELETE", f"/rows/{first['id']}")
        with self.at(NOW + timedelta(minutes=1)):
            second = self.write("2026-11-09", "7")
            self.mine("PUT", f"/rows/{second['id']}", {"values": {"day": "2026-11-09", "grams": "8"}, "version": 1})
        opened = self.shown()
        self.assertTrue(opened["writable"])
        self.assertEqual([row["locked"] for row in opened["log"]["rows"]], [True, False])
        frozen = self.ok(self.plot.lead, "GET", f"/submissions/{submission.pk}")["pockets"][0]
        self.assertEqual([row["values"]["grams"] for row in frozen["log"]["rows"]], ["120"])
        self.assertEqual(frozen["log"]["total"]["rows"], 1)
        self.assertEqual([(chip["done"], chip["wanted"]) for chip in frozen["chips"]], [(1, 3)])
        builders.mark(self.plot.lead, submission, NOW + timedelta(hours=1), accept=False)
        self.mine("PUT", f"/rows/{first['id']}", {"values": {"day": "2026-11-02", "grams": "9"}, "version": 1})
        kept = Submission.objects.get(pk=submission.pk).snapshot["pockets"][0]["log"]["rows"]
        self.assertEqual(kept[0]["values"]["grams"], "120", "what was handed in stays")

    def test_a_row_taken_out_before_is_not_locked_with_the_others(self) -> None:
        gone = self.write()
        self.write("2026-11-03", "6")
        self.mine("DELETE", f"/rows/{gone['id']}")
        builders.hand_in(self.thandi, self.plot.handin(self.log))
        with self.at(NOW + timedelta(minutes=1)):
            self.mine("POST", f"/rows/{gone['id']}/restore")
            self.mine("DELETE", f"/rows/{gone['id']}")

    def test_rows_wanted_each_week_on_the_board(self) -> None:
        """Nine weeks have begun of the class's time, one of them a holiday: eight rows by now, fourteen over all."""
        Pocket.objects.filter(pk=self.log.pk).update(rows=0, rows_per_week=1)
        self.write("2026-11-02")
        self.write("2026-11-03")
        rows = self.pegs(self.plot.lead, self.plot.group.pk)["students"]
        self.assertEqual((rows[0]["met"], rows[0]["wanted"]), (1, 8))
        mine = self.mine("GET", f"/portfolios/{self.thandi.pk}")
        self.assertEqual((mine["met"], mine["wanted"], mine["wanted_whole"]), (1, 8, 14))


class LaidOut(TemplateCase):
    def test_a_log_is_laid_out_changed_and_never_loses_a_row(self) -> None:
        body = {"title": "Crop log", "kind": "log", "rows": 2, "log": LOG}
        made = self.lead("POST", f"/sections/{self.plot.section.pk}/pockets", body)
        log = Pocket.objects.get(pk=made["id"])
        person = self.thandi.enrolment.person
        path = f"/portfolios/{self.thandi.pk}/pockets/{log.pk}"
        row = self.ok(person, "POST", f"{path}/rows", {"values": {"day": "2026-11-02", "grams": "5", "bed": "North"}})
        short = self.ok(person, "POST", f"{path}/rows", {"values": {"day": "2026-11-03"}})
        self.assertFalse(short["complete"])
        # A column that becomes required takes nothing from the row that was complete.
        now_required = [{**one, "required": one["key"] in ("day", "bed")} for one in COLUMNS]
        changed = self.settings(log, log={"columns": now_required, "order": "grams", "newest_first": True})
        self.lead("PUT", f"/pockets/{log.pk}", changed)
        shown = self.ok(person, "GET", path)["log"]["rows"]
        self.assertEqual([(one["id"], one["complete"]) for one in shown], [(row["id"], True), (short["id"], False)])
        # One that is required no longer makes the other row complete; a column that goes keeps its values.
        fewer = [one for one in COLUMNS if one["key"] not in ("bed",)]
        relaxed = [{**one, "required": False} for one in fewer]
        self.lead("PUT", f"/pockets/{log.pk}", self.settings(log, log={"columns": relaxed}))
        shown = self.ok(person, "GET", path)
        self.assertEqual([one["complete"] for one in shown["log"]["rows"]], [True, True])
        self.assertEqual(shown["met"], 2)
        self.lead("PUT", f"/pockets/{log.pk}", self.settings(log, log={"columns": COLUMNS}))
        shown = self.ok(person, "GET", path)["log"]["rows"]
        self.assertEqual(shown[0]["values"]["bed"], "North", "it came back with its column")
        as_text = [{**one, "type": "text"} if one["key"] == "grams" else one for one in COLUMNS]
        said = self.refused(422, "PUT", f"/pockets/{log.pk}", self.settings(log, log={"columns": as_text}))
        self.assertIn("Harvest", said["title"])
        self.assertEqual(self.refused(422, "DELETE", f"/pockets/{log.pk}")["where"], "Crop log")
        self.assertEqual(list(differences()), [])

    def test_rows_each_week_need_a_date(self) -> None:
        body = {"title": "Log", "kind": "log", "rows_per_week": 2, "log": {"columns": [column("a", "A", "text")]}}
        said = self.refused(422, "POST", f"/sections/{self.plot.section.pk}/pockets", body)
        self.assertEqual(said["where"], "rows_per_week")

    def test_what_more_rows_would_mean(self) -> None:
        log = crop_log(self.plot)
        body = self.settings(log, rows_per_week=1)
        means = self.lead("POST", f"/pockets/{log.pk}/preview", body)
        self.assertEqual((means["reached"], means["units"]), (2, 5), "eight instead of three")
        self.assertEqual(
            [(chip["what"], chip["wanted"]) for chip in means["chips"]], [("weekly", 1)], "one who starts today"
        )

    def test_moving_the_day_to_another_column_moves_the_weeks(self) -> None:
        two = {"columns": [column("day", "Day", "date"), column("due", "Due", "date")]}
        log = crop_log(self.plot, log=two)
        path = f"/portfolios/{self.thandi.pk}/pockets/{log.pk}"
        values = {"day": "2026-11-02", "due": "2026-11-16"}
        self.ok(self.thandi.enrolment.person, "POST", f"{path}/rows", {"values": values})
        turned = {"columns": two["columns"][::-1]}
        self.lead("PUT", f"/pockets/{log.pk}", self.settings(log, log=turned))
        weeks = self.ok(self.thandi.enrolment.person, "GET", path)["log"]["weeks"]
        self.assertEqual([week["monday"] for week in weeks], ["2026-11-16"])
        self.assertEqual(str(LogRow.objects.get().week), "2026-11-16")
        self.assertEqual(list(differences()), [])
