"""Served for real: no start without a secret or as a public demo, proxies that are named, Django's own deployment check."""

import os
import subprocess
import sys

from django.conf import settings
from django.test import Client, SimpleTestCase, override_settings

from tests import builders
from tests.api.case import ApiCase

SECRET = "a-secret-of-fifty-signs-and-more-0123456789-abcdefgh-ijklmnop"


def run(program: list[str], **environment: str) -> subprocess.CompletedProcess[str]:
    kept = {name: value for name, value in os.environ.items() if not name.startswith(("COATPEG_", "DJANGO_"))}
    return subprocess.run(
        [sys.executable, *program],
        cwd=settings.BASE_DIR,
        env={**kept, "COATPEG_VAR": str(settings.VAR), **environment},
        capture_output=True,
        text=True,
    )


class Starting(SimpleTestCase):
    def test_an_application_server_refuses_what_a_command_would(self) -> None:
        for environment, words in (
            ({}, "COATPEG_SECRET is not set."),
            ({"COATPEG_SECRET": SECRET, "COATPEG_DEMO": "1", "COATPEG_HOSTS": "school.example"}, "Demo mode is on"),
        ):
            with self.subTest(words):
                done = run(["-c", "import coatpeg.web.wsgi"], **environment)
                self.assertNotEqual(done.returncode, 0)
                self.assertIn(words, done.stderr)
        self.assertEqual(run(["-c", "import coatpeg.web.wsgi"], COATPEG_SECRET=SECRET).returncode, 0)

    def test_djangos_check_for_deployment_is_silent(self) -> None:
        environment = {"COATPEG_SECRET": SECRET, "COATPEG_HTTPS": "1", "COATPEG_HOSTS": "school.example"}
        done = run(["manage.py", "check", "--deploy", "--settings", "coatpeg.web.settings"], **environment)
        self.assertEqual((done.returncode, "WARNINGS" in done.stderr + done.stdout), (0, False), done.stderr)


@override_settings(SECURE_SSL_REDIRECT=True, PROXIES={"10.0.0.1"})
class Behind(ApiCase):
    def setUp(self) -> None:
        """The real clock: the throttle counts by it."""

    def test_a_proxy_that_is_named_says_scheme_and_address_and_nobody_else_does(self) -> None:
        said = {"X-Forwarded-Proto": "https", "X-Forwarded-For": "6.6.6.6, 203.0.113.7"}
        self.assertEqual(Client(REMOTE_ADDR="10.0.0.1").get("/api/session", headers=said).status_code, 200)
        self.assertEqual(Client(REMOTE_ADDR="10.0.0.9").get("/api/session", headers=said).status_code, 301)

    def test_eight_wrong_tries_lock_the_name_for_that_address_only(self) -> None:
        builders.person("thandi")
        proxy = Client(REMOTE_ADDR="10.0.0.1")

        def sign_in(password: str, address: str) -> int:
            said = {"X-Forwarded-Proto": "https", "X-Forwarded-For": address}
            body = {"username": "thandi", "password": password}
            return proxy.post("/api/session", body, content_type="application/json", headers=said).status_code

        for _ in range(8):
            sign_in("guess", "203.0.113.7")
        self.assertEqual(sign_in(builders.PASSWORD, "203.0.113.7"), 403)
        self.assertEqual(sign_in(builders.PASSWORD, "198.51.100.4"), 200)
