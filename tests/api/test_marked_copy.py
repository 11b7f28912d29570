"""A marked copy as PDF: opened by pdfium and by poppler, the comments found, the ink on the page."""

from __future__ import annotations

import subprocess

import pypdfium2

from coatpeg.core.marking.annotations import Kind, Part, Spot, Stroke, Target
from coatpeg.core.marking.quotes import Quote
from coatpeg.core.policy import Role
from coatpeg.marking.annotations import making
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, klass

RUST = (156, 61, 16)


class Copy(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.pocket = self.plot.pocket("Bed", artefacts=1)
        self.book = self.plot.student("thandi")
        self.thandi = self.book.enrolment.person
        self.one = builders.fill(self.book, self.pocket)
        self.handed = builders.hand_in(self.book, self.plot.handin(self.pocket))
        picture = Target(self.pocket.pk, self.one.pk, Part.ARTEFACT)
        lead, on = self.plot.lead, self.handed
        words = Target(self.pocket.pk, self.one.pk, Part.TEXT, Quote(self.one.text.split(".")[0]))
        builders.say(on, lead, "Which bed <b>is</b> this?", target=Target(*key(picture), spot=Spot(5_000, 5_000)))
        stroke = Stroke("rust", 400, tuple(at for x in range(0, 10_000, 500) for at in (x, 2_500, 80)))
        builders.say(on, lead, "", kind=Kind.INK, target=picture, strokes=(stroke,))
        builders.say(on, lead, "", kind=Kind.SUGGESTION, target=words, wording="Kale likes it cold.")
        self.whole = builders.say(on, lead, "Well observed.")

    def copy(self, person: Person) -> bytes:
        pack = self.ok(person, "POST", f"/submissions/{self.handed.pk}/marked")
        run_waiting()
        made = self.ok(person, "GET", f"/packs/{pack['key']}")
        self.assertEqual(made["problem"], "")
        answer = self.call(person, "GET", f"/packs/{pack['key']}/file")
        return b"".join(answer.streaming_content)  # type: ignore[attr-defined]

    def words(self, content: bytes) -> str:
        read = subprocess.run(["pdftotext", "-", "-"], input=content, capture_output=True, check=True)
        return " ".join(read.stdout.decode().split())

    def test_comments_are_found_by_poppler_and_the_ink_by_pdfium(self) -> None:
        builders.mark(self.plot.lead, self.handed, score=None)
        made = making.answer(self.thandi, self.whole.pk, "Thank you.", NOW)
        for person in (self.plot.lead, self.thandi):
            content = self.copy(person)
            words = self.words(content)
            for said in ("Which bed <b>is</b> this?", "could read: Kale likes it cold.", "Well observed.", made.text):
                self.assertIn(said, words)
            page = pypdfium2.PdfDocument(content)[0]
            drawn = page.render(scale=2).to_pil().convert("RGB")
            counted = sum(count for count, colour in drawn.getcolors(1 << 24) or [] if near(colour, RUST))
            self.assertGreater(counted, 500)

    def test_a_student_finds_no_draft_on_it_and_another_marker_no_draft_of_the_lead(self) -> None:
        for person in (self.thandi, self.plot.staff("marsh", Role.MARKER)):
            self.assertNotIn("Well observed.", self.words(self.copy(person)))
        self.assertIn("Well observed.", self.words(self.copy(self.plot.lead)))

    def test_it_is_nobody_elses(self) -> None:
        pack = self.ok(self.thandi, "POST", f"/submissions/{self.handed.pk}/marked")
        run_waiting()
        self.assertEqual(self.call(self.plot.lead, "GET", f"/packs/{pack['key']}/file").status_code, 404)
        josh = self.plot.student("josh", "Josh", "Ellery").enrolment.person
        self.assertEqual(self.call(josh, "POST", f"/submissions/{self.handed.pk}/marked").status_code, 404)


def key(target: Target) -> tuple[int | None, int | None, Part | None]:
    return target.pocket, target.evidence, target.part


def near(one: tuple[int, ...], other: tuple[int, ...]) -> bool:
    return all(abs(a - b) < 30 for a, b in zip(one, other, strict=True))
