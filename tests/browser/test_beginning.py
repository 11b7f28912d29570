"""What the server draws to begin with is what the front end draws in the next moment, in the same place."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect

from coatpeg.people.models import Person
from tests.browser.case import DESK, PHONE, TABLET, BrowserCase

PLACES = """(within) => {
  const place = (one) => one && (({ x, y, width, height }) => [x, y, width, height].map(Math.round))(one.getBoundingClientRect());
  const help = [...document.querySelectorAll(`${within} p`)].find((one) => one.parentElement.className.includes('bg-in-soft'));
  return {
    name: place([...document.querySelectorAll(`${within} .on-bar .truncate`)].find((one) => one.textContent.includes('8 Plot'))),
    mark: place(document.querySelector(`${within} img`)),
    bar: place(document.querySelector(`${within} .on-bar`)),
    help: place(help), words: help?.textContent ?? null,
    face: help && getComputedStyle(help).font + getComputedStyle(help).color,
    theme: getComputedStyle(document.body).backgroundColor,
  };
}"""


class Beginning(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot_here = self.plot()
        self.thandi = self.plot_here.student("thandi")
        self.plot_here.pocket()

    def both(self, person: Person, path: str, size: tuple[int, int], locale: str = "en-GB") -> tuple[Any, Any]:
        """Where the parts of the frame are before any script has run, and when the view stands."""
        self.expected_complaints = ["ERR_FAILED"]
        page = self.page(person, "/health", size, locale)
        page.route("**/static/*.js", lambda route: route.abort())
        page.goto(self.live_server_url + path)
        begun = page.evaluate(PLACES, "#begin")
        page.unroute("**/static/*.js")
        page.reload()
        expect(page.locator("#content")).to_be_visible()
        page.evaluate("document.fonts.ready")
        expect(page.locator("#begin")).to_have_count(0)
        self.said_nothing_twice(page)
        return begun, page.evaluate(PLACES, "#root")

    def said_nothing_twice(self, page: Page) -> None:
        self.assertEqual(page.locator("img[src='/static/mark.svg']").count(), 1)

    def test_the_frame_and_the_help_stand_where_they_will_stand(self) -> None:
        group = self.plot_here.group.pk
        lead, student = self.plot_here.lead, self.thandi.enrolment.person
        for person in (lead, student):
            person.reading = {**(person.reading or {}), "helped": []}
            person.save(update_fields=["reading"])
        for person, path, size in (
            (lead, f"/g/{group}/pegs", DESK),
            (lead, f"/g/{group}/pegs", PHONE),
            (lead, f"/g/{group}/template", TABLET),
            (lead, "/classes", DESK),
            (student, f"/g/{group}/to-hand-in", TABLET),
            (student, f"/g/{group}/portfolio/{self.thandi.pk}", PHONE),
        ):
            with self.subTest(path, size=size, person=person.username):
                begun, stands = self.both(person, path, size)
                self.assertTrue(begun["words"])
                self.assertEqual(begun, stands)

    def test_in_the_language_and_the_colours_of_its_reader_and_without_the_help_that_was_put_away(self) -> None:
        lead = self.plot_here.lead
        path = f"/g/{self.plot_here.group.pk}/pegs"
        begun, stands = self.both(lead, path, DESK)
        self.assertEqual((begun["help"], stands["help"]), (None, None))
        lead.reading = {**(lead.reading or {}), "helped": [], "theme": "contrast", "size": 130, "face": "lexend"}
        lead.save(update_fields=["reading"])
        begun, stands = self.both(lead, path, DESK, "en-XA")
        self.assertIn("é", begun["words"])
        self.assertEqual(begun, stands)
