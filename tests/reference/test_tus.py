"""Resumable uploads against the protocol's stock JavaScript client, over a line that is cut again and again.

Source: ``tus-js-client`` (MIT), as npm carries it; the protocol's own text is quoted in ``tests/api/test_uploads.py``.
"""

from __future__ import annotations

import base64
import hashlib
import json
import os
import subprocess
from pathlib import Path

from django.conf import settings
from django.test import LiveServerTestCase

from coatpeg.files import keeping
from coatpeg.portfolios.models import Artefact, Evidence
from operations.install import node_path
from tests import builders
from tests.browser.case import session_of

TOKEN = "a" * 32
SIZE, AFTER, CUTS = 3_000_000, 400_000, 5


class StockClient(LiveServerTestCase):
    host = "127.0.0.1"

    def test_it_arrives_whole_and_never_sends_what_is_there_already(self) -> None:
        of = builders.klass(today=builders.timezone_today())
        pocket, portfolio = of.pocket(), of.student("thandi")
        data = os.urandom(SIZE)
        cookies = f"{settings.SESSION_COOKIE_NAME}={session_of(portfolio.enrolment.person)}; {settings.CSRF_COOKIE_NAME}={TOKEN}"
        asked = {
            "modules": str(settings.BASE_DIR / "frontend/node_modules"),
            "port": self.server_thread.port,
            "after": AFTER,
            "cuts": CUTS,
            "data": base64.b64encode(data).decode(),
            "metadata": {"portfolio": str(portfolio.pk), "pocket": str(pocket.pk), "name": "film.bin"},
            "headers": {"Cookie": cookies, "X-CSRFToken": TOKEN},
        }
        done = subprocess.run(
            ["node", str(Path(__file__).with_name("tus_client.cjs"))],
            input=json.dumps(asked),
            capture_output=True,
            text=True,
            timeout=120,
            env={**os.environ, "PATH": node_path(settings.BASE_DIR)},
        )
        self.assertEqual(done.returncode, 0, done.stderr)
        told = json.loads(done.stdout)
        self.assertEqual(told["cuts"], CUTS)
        self.assertEqual(told["offsets"], sorted(set(told["offsets"])), "each part begins behind the one before")
        self.assertGreater(len(told["offsets"]), CUTS - 1)
        stored = Artefact.objects.get().stored
        assert stored
        self.assertEqual(stored.sha256, hashlib.sha256(data).hexdigest())
        with keeping.opened(stored.sha256) as content:
            self.assertEqual(content.read(), data)
        self.assertEqual(Evidence.objects.count(), 1)
