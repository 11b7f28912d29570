"""Saving over others, the history of texts, texts as artefacts, what lies in several pockets, what was taken out."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.core.portfolios import texts as counting
from coatpeg.portfolios import writing
from coatpeg.portfolios.models import Artefact, Evidence, TextRevision
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass

XSS = (
    "<script>alert(1)</script>",
    "<img src=x onerror=alert(1)>",
    '<img src="/api/artefacts/1/thumbnails/large" onload="alert(1)">',
    '<a href="javascript:alert(1)">x</a>',
    "<svg/onload=alert(1)>",
    '<span data-tex="\\href{javascript:alert(1)}{x}" onclick="alert(1)" style="color:red">x</span>',
    '<table background="javascript:alert(1)"><tr><td style="x" onmouseover="alert(1)">a</td></tr></table>',
    "<iframe srcdoc='<script>alert(1)</script>'></iframe>",
    "<math><mtext><table><mglyph><style><img src=x onerror=alert(1)>",
)
"""After the OWASP XSS Filter Evasion Cheat Sheet, from memory, by hand; the longer list is in ``tests/reference``."""


class TextCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.pocket = self.of.pocket()
        self.about = self.of.pocket("About me", "page", measure="words", least=3)
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person
        self.book = f"/portfolios/{self.portfolio.pk}"
        self.page = f"{self.book}/pockets/{self.about.pk}/page"

    def write(self, version: int, **fields: Any) -> Any:
        return self.ok(self.thandi, "put", self.page, {"version": version, **fields})


class Saving(TextCase):
    def test_paragraphs_that_differ_are_put_together(self) -> None:
        self.write(0, text="I am Thandi.\nI like beans.\nI am 12.")
        self.write(1, text="I am Thandi.\nI like beans.\nI am 13.", base="")
        done = self.write(
            1, text="I am Thandi D.\nI like beans.\nI am 12.", base="I am Thandi.\nI like beans.\nI am 12."
        )
        self.assertEqual(done["text"], "I am Thandi D.\nI like beans.\nI am 13.")
        self.assertEqual((done["version"], done["merged"]), (3, True))
        self.assertEqual(TextRevision.objects.count(), 2, "a merge is a revision of its own")

    def test_the_same_paragraph_is_never_overwritten(self) -> None:
        self.write(0, text="I like beans.")
        self.write(1, text="I like peas.")
        for base in ("I like beans.", None):
            answer = self.call(self.thandi, "put", self.page, {"version": 1, "text": "I like leeks.", "base": base})
            self.assertEqual((answer.status_code, answer.json()["text"]), (409, "I like peas."))

    def test_rich_text_is_kept_counted_and_put_together_by_blocks(self) -> None:
        first = self.write(0, html="<h2>Me</h2><p>I am <strong>Thandi</strong>.</p>")
        self.assertEqual((first["text"], first["words"]), ("Me\nI am Thandi.", 4))
        self.write(1, html="<h2>Me</h2><p>I am <strong>Thandi</strong>.</p><p>I am 13.</p>")
        both = self.write(
            1,
            html="<h3>Me</h3><p>I am <strong>Thandi</strong>.</p>",
            base="<h2>Me</h2><p>I am <strong>Thandi</strong>.</p>",
        )
        self.assertEqual(both["html"], "<h3>Me</h3><p>I am <strong>Thandi</strong>.</p><p>I am 13.</p>")
        shown = self.ok(self.of.lead, "get", f"{self.book}/pockets/{self.about.pk}")
        self.assertEqual((shown["evidence"][0]["html"], shown["met"]), (both["html"], 1))

    def test_a_plain_text_of_before_is_merged_as_paragraphs(self) -> None:
        self.write(0, text="One.\nTwo.")
        self.write(1, text="One.\nTwo.\nThree.")
        both = self.write(1, html="<p>Zero.</p><p>One.</p><p>Two.</p>", base="<p>One.</p><p>Two.</p>")
        self.assertEqual(both["text"], "Zero.\nOne.\nTwo.\nThree.")

    def test_script_in_a_page_is_gone(self) -> None:
        for number, html in enumerate(XSS):
            with self.subTest(html):
                kept = self.write(number, html=f"<p>{number}</p>{html}")["html"].lower()
                for word in (
                    "script",
                    "onerror",
                    "onload",
                    "onclick",
                    "onmouseover",
                    "<svg",
                    "<iframe",
                    "style=",
                    "<img",
                ):
                    self.assertNotIn(word, kept.replace('data-tex="\\href{javascript:alert(1)}{x}"', ""))

    def test_only_pictures_of_the_same_portfolio_stand_in_it(self) -> None:
        own = builders.add_picture(self.portfolio, self.pocket).artefact_id
        foreign = builders.add_picture(self.of.student("sam"), self.pocket).artefact_id
        sources = [f'<img src="/api/artefacts/{one}/thumbnails/large" alt="x">' for one in (own, foreign)]
        kept = self.write(0, html="<p>Look</p>" + "".join(sources) + '<img src="https://plants.example/a.png">')
        self.assertEqual(kept["html"].count("<img"), 1)
        self.assertIn(f"/{own}/", kept["html"])

    def test_pasted_by_the_megabyte(self) -> None:
        for fields in ({"text": "a" * 30_000}, {"html": "<p>" + "a" * 30_000}, {"html": "<b></b>" * 50_000}):
            answer = self.call(self.thandi, "put", self.page, {"version": 0, **fields})
            self.assertEqual(answer.status_code, 422)
            self.assertIn("What you wrote stays in the field", answer.json()["fix"])
        answer = self.call(self.thandi, "put", self.page, {"version": 0, "text": "a" * 5_000_000})
        self.assertEqual((answer.status_code, answer.json()["type"]), (413, "urn:coatpeg:too-large"))
        self.assertEqual(counting.LONGEST_TEXT, 20_000)

    def test_an_empty_page_and_a_starter_are_no_work(self) -> None:
        self.about.starter = "I am …\n\nI like …"
        self.about.save()
        self.write(0, html="<p>I am …</p><p>I like …</p>")
        self.assertEqual(self.ok(self.thandi, "get", f"{self.book}/pockets/{self.about.pk}")["met"], 0)


class History(TextCase):
    def test_who_when_compare_any_two_and_bring_one_back(self) -> None:
        for minutes, html in ((0, "<p>A bean grows.</p>"), (30, "<p>A pea grows.</p>"), (60, "<p>Nothing.</p>")):
            with self.at(NOW + timedelta(minutes=minutes)):
                self.write(minutes // 30, html=html)
        evidence = Evidence.objects.get()
        newest, middle, oldest = self.ok(self.of.lead, "get", f"/evidence/{evidence.pk}/history")
        self.assertEqual([newest["version"], middle["version"], oldest["version"]], [3, 2, 1])
        self.assertEqual((oldest["who"], oldest["mine"], oldest["words"]), ("Thandi", False, 3))
        seen = self.ok(self.of.lead, "get", f"/revisions/{middle['id']}?since={oldest['id']}")
        self.assertEqual([(one["what"], one["text"]) for one in seen["parts"]][1:3], [("gone", "bean"), ("new", "pea")])
        with self.at(NOW + timedelta(minutes=61)):
            done = self.ok(self.thandi, "post", f"/revisions/{oldest['id']}/bring-back", {"version": 3})
        evidence.refresh_from_db()
        self.assertEqual((done["version"], evidence.html), (4, "<p>A bean grows.</p>"))
        self.assertEqual(TextRevision.objects.count(), 4, "what stood there is not lost")
        stale = self.call(self.thandi, "post", f"/revisions/{middle['id']}/bring-back", {"version": 3})
        self.assertEqual(stale.status_code, 409)

    def test_of_reflections_loose_pages_and_texts_too(self) -> None:
        evidence = builders.fill(self.portfolio, self.pocket)
        loose = self.ok(self.thandi, "post", f"{self.book}/pages", {"title": "Ideas"})["id"]
        self.ok(self.thandi, "put", f"/pages/{loose}", {"title": "Ideas", "html": "<p>One</p>", "version": 0})
        made = self.ok(self.thandi, "post", f"{self.book}/pockets/{self.pocket.pk}/texts", {"title": "Notes"})["id"]
        text = Evidence.objects.get(pk=made).artefact_id
        self.ok(self.thandi, "put", f"/texts/{text}", {"html": "<p>One</p>", "version": 0})
        for path, again in (
            (f"/evidence/{evidence.pk}", lambda: builders.reflect(evidence, "Other words.", NOW + timedelta(hours=1))),
            (
                f"/pages/{loose}",
                lambda: self.ok(
                    self.thandi, "put", f"/pages/{loose}", {"title": "Ideas", "html": "<p>Two</p>", "version": 1}
                ),
            ),
            (
                f"/texts/{text}",
                lambda: self.ok(self.thandi, "put", f"/texts/{text}", {"html": "<p>Two</p>", "version": 1}),
            ),
        ):
            with self.subTest(path), self.at(NOW + timedelta(hours=1)):
                again()
                newest, oldest = self.ok(self.thandi, "get", f"{path}/history")
                self.ok(self.thandi, "post", f"/revisions/{oldest['id']}/bring-back", {"version": newest["version"]})
                self.assertEqual(len(self.ok(self.thandi, "get", f"{path}/history")), 3)
        one, other = (
            TextRevision.objects.filter(page=loose).first(),
            TextRevision.objects.filter(evidence=evidence).first(),
        )
        assert one
        assert other
        self.assertEqual(self.call(self.thandi, "get", f"/revisions/{one.pk}?since={other.pk}").status_code, 422)


class TextsAsArtefacts(TextCase):
    def setUp(self) -> None:
        super().setUp()
        self.other = self.of.pocket("Menu", artefacts=1)
        made = self.ok(self.thandi, "post", f"{self.book}/pockets/{self.pocket.pk}/texts", {"title": "Notes"})
        self.evidence = Evidence.objects.get(pk=made["id"])
        self.artefact = Artefact.objects.get()

    def units(self, pocket: Any) -> tuple[int, int]:
        found = self.ok(self.thandi, "get", f"{self.book}/pockets/{pocket.pk}")
        return found["met"], found["wanted"]

    def test_a_text_counts_once_it_has_a_word_in_every_pocket_it_lies_in(self) -> None:
        self.ok(self.thandi, "post", f"{self.book}/pockets/{self.other.pk}/artefacts", {"artefact": self.artefact.pk})
        self.assertEqual((self.units(self.pocket)[0], self.units(self.other)[0]), (0, 0))
        self.ok(self.thandi, "put", f"/texts/{self.artefact.pk}", {"html": "<p>Soup</p>", "version": 0})
        self.assertEqual((self.units(self.pocket)[0], self.units(self.other)[0]), (1, 1))
        lying = self.ok(self.thandi, "get", f"{self.book}/artefacts")
        self.assertEqual([one["title"] for one in lying[0]["pockets"]], ["Recipe card", "Menu"])
        again = self.call(
            self.thandi, "post", f"{self.book}/pockets/{self.other.pk}/artefacts", {"artefact": self.artefact.pk}
        )
        self.assertEqual(again.status_code, 422)

    def test_each_pocket_has_a_reflection_of_its_own(self) -> None:
        there = self.ok(
            self.thandi, "post", f"{self.book}/pockets/{self.other.pk}/artefacts", {"artefact": self.artefact.pk}
        )
        self.ok(self.thandi, "put", f"/evidence/{there['id']}/reflection", {"text": "For the menu.", "version": 0})
        self.evidence.refresh_from_db()
        self.assertEqual(self.evidence.text, "")

    def test_handed_in_it_is_frozen_and_locked_wherever_it_lies(self) -> None:
        handin = self.of.handin(self.pocket)
        self.ok(self.thandi, "post", f"{self.book}/pockets/{self.other.pk}/artefacts", {"artefact": self.artefact.pk})
        self.ok(self.thandi, "put", f"/texts/{self.artefact.pk}", {"html": "<p>Soup</p>", "version": 0})
        done = builders.hand_in(self.portfolio, handin)
        answer = self.call(self.thandi, "put", f"/texts/{self.artefact.pk}", {"html": "<p>Stew</p>", "version": 1})
        self.assertEqual(answer.status_code, 403)
        self.assertIn("Recipe card", answer.json()["title"])
        frozen = self.ok(self.of.lead, "get", f"/submissions/{done.pk}")["pockets"][0]["evidence"][0]["artefact"]
        self.assertEqual((frozen["kind"], frozen["html"]), ("text", "<p>Soup</p>"))

    def test_nobody_elses_artefact_and_no_kind_a_pocket_does_not_take(self) -> None:
        foreign = builders.add_picture(self.of.student("sam"), self.pocket).artefact_id
        path = f"{self.book}/pockets/{self.other.pk}/artefacts"
        self.assertEqual(self.call(self.thandi, "post", path, {"artefact": foreign}).status_code, 404)
        self.other.takes = ["picture"]
        self.other.save()
        self.assertIn(
            "takes pictures only", self.call(self.thandi, "post", path, {"artefact": self.artefact.pk}).json()["title"]
        )

    def test_a_title_of_ones_own(self) -> None:
        path = f"/artefacts/{self.artefact.pk}/title"
        self.assertEqual(self.ok(self.thandi, "put", path, {"title": "Soup\u202e notes"})["title"], "Soup notes")
        self.assertEqual(self.call(self.thandi, "put", path, {"title": " "}).status_code, 422)


class Order(TextCase):
    def test_artefacts_stand_in_the_order_that_the_student_gives(self) -> None:
        first, second, third = [builders.add_picture(self.portfolio, self.pocket, name=f"{one}.jpg") for one in "abc"]
        self.ok(self.thandi, "post", f"/evidence/{third.pk}/move", {"before": first.pk})
        self.ok(self.thandi, "post", f"/evidence/{first.pk}/move", {})
        shown = self.ok(self.thandi, "get", f"{self.book}/pockets/{self.pocket.pk}")["evidence"]
        self.assertEqual([one["id"] for one in shown], [third.pk, second.pk, first.pk])
        gone = self.call(self.thandi, "post", f"/evidence/{first.pk}/move", {"before": 999_999})
        self.assertEqual(gone.status_code, 404)


class TakenOut(TextCase):
    def test_for_thirty_days_and_no_longer(self) -> None:
        evidence = builders.fill(self.portfolio, self.pocket)
        log = self.of.pocket("Log", "log", log={"columns": [{"key": "a", "title": "Weather", "type": "text"}]})
        row = self.ok(self.thandi, "post", f"{self.book}/pockets/{log.pk}/rows", {"values": {"a": "dry"}})["id"]
        loose = self.ok(self.thandi, "post", f"{self.book}/pages", {"title": "Ideas"})["id"]
        for path in (f"/evidence/{evidence.pk}", f"/rows/{row}", f"/pages/{loose}"):
            self.ok(self.thandi, "delete", path)
        lines = self.ok(self.thandi, "get", f"{self.book}/taken-out")
        self.assertEqual(
            {(one["what"], one["title"], one["pocket"]) for one in lines},
            {("artefact", "card.jpg", "Recipe card"), ("row", "dry", "Log"), ("page", "Ideas", "")},
        )
        late = NOW + writing.RESTORABLE + timedelta(seconds=1)
        with self.at(late):
            self.assertEqual(self.ok(self.thandi, "get", f"{self.book}/taken-out"), [])
            for path in (f"/evidence/{evidence.pk}", f"/rows/{row}", f"/pages/{loose}"):
                answer = self.call(self.thandi, "post", f"{path}/restore")
                self.assertEqual(answer.status_code, 404)
                self.assertIn("more than 30 days ago", answer.json()["title"])
        with self.at(NOW + writing.RESTORABLE):
            for path in (f"/evidence/{evidence.pk}", f"/rows/{row}", f"/pages/{loose}"):
                self.ok(self.thandi, "post", f"{path}/restore")


class Links(TextCase):
    def add(self, link: str, **more: Any) -> Any:
        return self.call(self.thandi, "post", f"{self.book}/pockets/{self.pocket.pk}/links", {"link": link, **more})

    def test_doubts_are_said_once_and_the_teachers_own_link_is_no_work(self) -> None:
        self.pocket.directions = '<p>Copy <a href="https://plants.example/sheet?a=1&amp;b=2">this</a></p>'
        self.pocket.save()
        for link, words in (
            ("https://bit.ly/3xYz", "shortened link"),
            ("https://accounts.plants.example/x", "sign-in page"),
            ("https://plants.example/login?next=/me", "sign-in page"),
            ("https://docs.example/d/1/edit#gid=0", "address for editing"),
        ):
            with self.subTest(link):
                answer = self.add(link)
                self.assertEqual((answer.status_code, answer.json()["even_so"]), (422, True))
                self.assertIn(words, answer.json()["title"])
                self.assertEqual(self.add(link, even_so=True).status_code, 200)
        for link in ("https://plants.example/sheet?a=1&b=2", "http://www.plants.example/sheet/?a=1&b=2#top"):
            answer = self.add(link, even_so=True)
            self.assertIn("your teacher gave out", answer.json()["title"])
        self.assertEqual(self.add("https://plants.example/editing-compost").status_code, 200)
