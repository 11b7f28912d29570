"""The page leads on by itself: to the class of who is signed in, with its view's parts and first reading asked for at once."""

from __future__ import annotations

import json
import re
from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings

from coatpeg.web.ahead import PARTS, VIEWS, hints
from tests import builders
from tests.api.case import ApiCase

_HREF = re.compile(r'rel="(?P<rel>\w+)" as="(?P<as>\w+)" href="(?P<href>[^"]+)"')


class Ahead(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.group, self.teacher = self.plot.group, self.plot.lead

    def test_the_start_leads_to_the_first_class_and_to_where_each_role_works(self) -> None:
        portfolio = self.plot.student("thandi")
        student = portfolio.enrolment
        for person, to in (
            (self.teacher, f"/g/{self.group.pk}/pegs"),
            (student.person, f"/g/{self.group.pk}/portfolio/{portfolio.pk}"),
        ):
            with self.subTest(to):
                answer = self.client_of(person).get("/")
                self.assertEqual((answer.status_code, answer["Location"]), (302, to))
                self.assertEqual(self.ok(person, "GET", "/session")["groups"][0]["landing"], to)

    def test_who_is_nobody_or_has_no_class_gets_the_page_itself(self) -> None:
        for person in (None, builders.person("alone")):
            answer = self.client_of(person).get("/")
            self.assertEqual(answer.status_code, 200)
            self.assertNotIn(b"/api/groups", answer.content)

    def test_a_view_s_page_names_what_it_reads_first_and_only_files_that_are_there(self) -> None:
        page = self.client_of(self.teacher).get(f"/g/{self.group.pk}/pegs").content.decode()
        found = [(one["as"], one["href"]) for one in _HREF.finditer(page)]
        self.assertIn(("fetch", f"/api/groups/{self.group.pk}/pegs"), found)
        named = [href for kind, href in found if kind == "script"]
        self.assertTrue(any("PegsView" in one for one in named))
        for one in named:
            self.assertTrue((settings.FRONTEND / one.lstrip("/")).is_file(), one)
        stranger = self.client_of(builders.person("stranger")).get(f"/g/{self.group.pk}/pegs").content.decode()
        self.assertNotIn(f"/api/groups/{self.group.pk}", stranger)
        self.assertNotIn("PegsView", self.client_of(None).get(f"/g/{self.group.pk}/pegs").content.decode())

    def test_the_page_says_from_where_its_class_is_followed_to_who_may_follow_it(self) -> None:
        path, stranger = f"/g/{self.group.pk}/pegs", builders.person("stranger")
        builders.fill(self.plot.student("thandi"), self.plot.pocket())
        at = self.ok(self.teacher, "GET", f"/groups/{self.group.pk}/changes")["cursor"]
        self.assertGreater(at, 0)
        page = self.client_of(self.teacher).get(path).content.decode()
        self.assertIn(f'<meta name="cursor" content="{self.group.pk}:{at}">', page)
        for person in (stranger, None):
            self.assertNotIn("cursor", self.client_of(person).get(path).content.decode())

    def test_every_view_that_is_named_was_built(self) -> None:
        built = json.loads((settings.FRONTEND / PARTS).read_text("utf-8"))
        self.assertEqual([name for name, _ in VIEWS.values() if name not in built], [])

    def test_the_frame_is_drawn_for_who_has_the_view_and_says_nothing_to_others(self) -> None:
        path = f"/g/{self.group.pk}/pegs"
        self.teacher.reading = {"theme": "dark"}
        self.teacher.save()
        page = self.client_of(self.teacher).get(path).content.decode()
        self.assertIn('<div id="begin" inert', page)
        self.assertIn('data-theme="dark"', page.partition("<head>")[0])
        self.assertIn("Every student by every hand-in", page)
        for person, other in (
            (builders.person("stranger"), path),
            (None, path),
            (self.teacher, f"/g/{self.group.pk}/nothing"),
            (self.teacher, "/g/999999/pegs"),
            (self.teacher, "/card"),
        ):
            with self.subTest(other, person=person and person.username):
                page = self.client_of(person).get(other).content.decode()
                self.assertNotIn('id="begin"', page)
                self.assertIn('<html lang="en">', page)

    def test_addresses_that_name_nothing_known_get_no_hints(self) -> None:
        for path in ("/", "/school", "/g/x/pegs", "/g/1/nothing", "/g/1", "/g/1/pegs<script>"):
            with self.subTest(path):
                self.assertEqual(hints(path, settings.FRONTEND), "")
        self.assertNotIn("/api/portfolios", hints("/g/1/portfolio/", settings.FRONTEND))

    def test_without_what_the_build_wrote_only_the_reading_is_named(self) -> None:
        with TemporaryDirectory() as nowhere:
            self.assertEqual([one["as"] for one in _HREF.finditer(hints("/g/1/pegs", Path(nowhere)))], ["fetch"])
