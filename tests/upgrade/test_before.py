"""A data folder of the version before opens, keeps every row and every file, and nothing that is kept differs.

``before/`` is such a folder: a dump of its schema and data (one of everything that the policy's tests name, files on
their way up among it) and its files. The dump was made by that version itself.
"""

from __future__ import annotations

import json
import os
import re
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

import MySQLdb
from django.conf import settings
from django.test import SimpleTestCase

BEFORE = Path(__file__).parent / "before"
NAME = f"coatpeg_before_{os.getpid()}"
MOVED = {"portfolios_upload"}
"""Tables whose columns became data; all others keep their rows as they were, but for columns that went."""
GONE = {"people_enrolment": {"news_seen"}}


def connect(**more: Any) -> MySQLdb.Connection:
    of = settings.DATABASES["default"]
    return MySQLdb.connect(unix_socket=of["HOST"], user=of["USER"], autocommit=True, charset="utf8mb4", **more)


class Before(SimpleTestCase):
    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.folder)
        shutil.copytree(BEFORE / "data", self.folder / "var")
        with connect() as server:
            server.cursor().execute(f"CREATE DATABASE {NAME} CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_ai_ci")
        self.addCleanup(self.drop)
        words = ["mariadb", "--no-defaults", "-S", settings.DATABASES["default"]["HOST"], "-u"]
        words += [settings.DATABASES["default"]["USER"], NAME]
        self.dump = (BEFORE / "dump.sql").read_text()
        # Generated columns are in the dump too: a mode that is not strict leaves their values out.
        dump = "SET foreign_key_checks=0, sql_mode='';\n" + self.dump
        subprocess.run(words, input=dump, text=True, check=True)

    def drop(self) -> None:
        with connect() as server:
            server.cursor().execute(f"DROP DATABASE {NAME}")

    def manage(self, *words: str) -> subprocess.CompletedProcess[str]:
        environment = {
            **os.environ,
            "COATPEG_DB_NAME": NAME,
            "COATPEG_VAR": str(self.folder / "var"),
            "DJANGO_SETTINGS_MODULE": "coatpeg.web.settings",
        }
        inside = [sys.executable, str(settings.BASE_DIR / "manage.py"), *words]
        return subprocess.run(inside, env=environment, capture_output=True, text=True)

    def rows(self, statement: str) -> list[tuple[Any, ...]]:
        with connect(db=NAME) as server:
            cursor = server.cursor()
            cursor.execute(statement)
            return list(cursor.fetchall())

    def tables(self) -> dict[str, list[tuple[Any, ...]]]:
        """Every table's rows by the columns that stay."""
        found = {}
        for name, columns in re.findall(r"^CREATE TABLE `(\w+)` \((.*?)^\)", self.dump, re.MULTILINE | re.DOTALL):
            kept = [one for one in re.findall(r"^  `(\w+)`", columns, re.MULTILINE) if one not in GONE.get(name, ())]
            if name not in MOVED:
                listed = ", ".join(f"`{one}`" for one in kept)
                found[name] = self.rows(f"SELECT {listed} FROM {name} ORDER BY 1")
        return found

    def test_it_opens_with_every_row_and_file_and_nothing_kept_differs(self) -> None:
        before = self.tables()
        self.assertGreater(sum(map(len, before.values())), 300)
        done = self.manage("upgrade")
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        after = self.tables()
        for name in before.keys() - {"django_migrations", "django_content_type", "auth_permission"}:
            with self.subTest(name):
                self.assertEqual(before[name], after[name])
        checked = self.manage("check_records")
        self.assertEqual((checked.returncode, checked.stdout.strip()), (0, "0 differences"))

    def test_files_on_their_way_keep_what_they_were_for(self) -> None:
        was = {
            key: (portfolio, pocket, spoken, replaces, result)
            for key, portfolio, pocket, spoken, replaces, result in self.rows(
                "SELECT `key`, portfolio_id, pocket_id, spoken_on_id, replaces_id, result_id FROM portfolios_upload"
            )
        }
        self.assertEqual(self.manage("upgrade").returncode, 0)
        found = self.rows("SELECT `key`, purpose, details, result FROM portfolios_upload")
        self.assertEqual(len(found), len(was))
        self.assertEqual(sum(1 for one in was.values() if one[2]), 1, "one was spoken")
        self.assertEqual(sum(1 for one in was.values() if one[3]), 1, "one was a newer form")
        for key, purpose, details, outcome in found:
            portfolio, pocket, spoken, replaces, result = was[key]
            told = {"portfolio": portfolio, "pocket": pocket, "spoken_on": spoken, "replaces": replaces}
            self.assertEqual(purpose, "evidence")
            self.assertEqual(json.loads(details), {name: pk for name, pk in told.items() if pk})
            self.assertEqual(json.loads(outcome), {"evidence": result} if result else {})

    def test_the_news_of_students_become_notices_seen_as_far_as_they_had_seen_them(self) -> None:
        with connect(db=NAME) as server:
            # The dump's events are of a fixed day; news reach back thirty.
            server.cursor().execute("UPDATE events_event SET at = NOW() - INTERVAL 1 DAY")
            server.cursor().execute("UPDATE people_enrolment SET news_seen = 1000 WHERE id = 1")
        told = self.rows(
            "SELECT COUNT(*) FROM events_event WHERE verb IN ('accepted', 'commented', 'show_page_opened')"
        )
        self.assertEqual(self.manage("upgrade").returncode, 0)
        of_one = "SELECT COUNT(*) FROM notices_notice WHERE what IN ('accepted', 'commented', 'show_page_opened')"
        self.assertEqual(self.rows(of_one), told)
        seen = self.rows(
            "SELECT e.id, SUM(d.seen_at IS NULL), COUNT(*) FROM notices_delivery d "
            "JOIN people_enrolment e ON e.person_id = d.person_id GROUP BY e.id ORDER BY e.id"
        )
        self.assertEqual(seen[0][1], 0, "the first student had seen everything")
        self.assertTrue(all(new == count > 0 for _, new, count in seen[1:]), "the others nothing")
        self.assertEqual(self.rows("SELECT COUNT(*) FROM notices_delivery WHERE mailed_at IS NULL"), [(0,)])

    def test_a_folder_of_a_newer_version_is_refused_by_name_and_left_alone(self) -> None:
        with connect(db=NAME) as server:
            server.cursor().execute(
                "INSERT INTO django_migrations (app, name, applied) VALUES ('handins', '0099_from_tomorrow', NOW())"
            )
        before = self.tables()
        done = self.manage("upgrade")
        self.assertNotEqual(done.returncode, 0)
        self.assertIn("handins.0099_from_tomorrow", done.stderr)
        self.assertIn("newer version", done.stderr)
        self.assertNotIn("Traceback", done.stderr)
        self.assertEqual(before, self.tables())
