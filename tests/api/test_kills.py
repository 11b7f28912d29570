"""A sample of what ``./peg bench`` does two hundred times: killed while people work, nothing acknowledged is lost."""

from __future__ import annotations

from django.conf import settings
from django.test import SimpleTestCase

from operations import killing

ROUNDS, SEED = 6, 20


class Kills(SimpleTestCase):
    def test_the_server_the_worker_and_the_database_are_killed_while_people_work(self) -> None:
        found = killing.kill(settings.BASE_DIR, ROUNDS, SEED)
        self.assertEqual(set(found["killed"]), {"Database", "Server", "Worker"})
        self.assertEqual((found["lost"], found["differences"]), ([], ""))
        self.assertTrue(all(found["acknowledged"].values()), found)
