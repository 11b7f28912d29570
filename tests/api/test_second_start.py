"""A second start asks the database once; another version, or another database, is brought up to date again."""

import tempfile
from pathlib import Path
from unittest import mock

import MySQLdb
from django.conf import settings
from django.test import SimpleTestCase

from operations import serving


class SecondStart(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.enterContext(mock.patch.dict("os.environ", {"COATPEG_VAR": folder.name}))
        self.running = serving.Running(Path(settings.BASE_DIR))
        self.running.database.home.mkdir()
        self.migrations: list[tuple[object, ...]] = [(40, 40)]
        self.running.database.run = lambda *statements: self.migrations  # type: ignore[method-assign]
        self.manage = mock.Mock()
        self.running.manage = self.manage  # type: ignore[method-assign]

    def asked(self) -> int:
        self.running.bring_up()
        return self.manage.call_count

    def test_once_for_each_version_and_database(self) -> None:
        self.assertEqual((self.asked(), self.asked()), (1, 1))
        with mock.patch("operations.serving._version", return_value="another"):
            self.assertEqual((self.asked(), self.asked()), (2, 2))
        self.assertEqual(self.asked(), 3)
        self.migrations = [(39, 39)]
        self.assertEqual(self.asked(), 4, "a database that was brought back from elsewhere")
        self.manage.side_effect = SystemExit(1)
        self.migrations = [(38, 38)]
        for number in (5, 6):
            with self.assertRaises(SystemExit):
                self.running.bring_up()
            self.assertEqual(self.manage.call_count, number, "a start that failed is no start")

    def test_a_database_without_tables_is_brought_up(self) -> None:
        self.running.database.run = mock.Mock(side_effect=MySQLdb.ProgrammingError(1146, "no table"))  # type: ignore[method-assign]
        self.assertEqual(self.asked(), 1)
