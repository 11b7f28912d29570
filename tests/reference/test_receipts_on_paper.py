"""A receipt on paper against tools outside the project: pdfium reads its words, ``sha256sum`` its checksums."""

from __future__ import annotations

import subprocess
from datetime import timedelta
from io import BytesIO
from pathlib import Path
from tempfile import TemporaryDirectory

import pypdfium2

from coatpeg.core.handins.snapshots import canonical
from coatpeg.files import keeping
from coatpeg.handins.models import Submission
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY


def sha256sum(data: bytes) -> str:
    """As the tool of the system says it (GNU coreutils)."""
    with TemporaryDirectory() as folder:
        path = Path(folder) / "data"
        path.write_bytes(data)
        said = subprocess.run(["sha256sum", str(path)], capture_output=True, text=True, check=True)
    return said.stdout.split()[0]


class ReceiptsOnPaper(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.card, self.menu = self.plot.pocket(), self.plot.pocket("Menu & <more>")
        self.book = self.plot.student("zoe", "Zoë", "O'Neill <b>")
        self.handin = self.plot.handin(self.card, title="Recipe =card", due=TODAY + timedelta(days=1))
        self.handin.pockets.add(self.menu)

    def text_of(self, submission: Submission) -> str:
        answer = self.call(self.book.enrolment.person, "GET", f"/submissions/{submission.pk}/receipt.pdf")
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))
        document = pypdfium2.PdfDocument(BytesIO(answer.content))
        text = "\n".join(page.get_textpage().get_text_range() for page in document)
        document.close()
        return text

    def test_its_words_and_checksums(self) -> None:
        evidence = builders.fill(self.book, self.card)
        made = builders.hand_in(self.book, self.handin)
        text = self.text_of(made)
        for one in (
            made.receipt,
            "Zoë O'Neill <b>",
            "Recipe =card (submission 1)",
            "Menu & <more>",
            "Nothing was in it.",
        ):
            self.assertIn(one, text)
        self.assertIn("Wednesday 4 November 2026, 10:00:00 (GMT)", text)
        joined = text.replace("\r", "").replace("\n", "").replace("\ufffe", "")
        artefact = evidence.artefact
        assert artefact
        assert artefact.stored
        with keeping.opened(artefact.stored.sha256) as kept:
            self.assertIn(sha256sum(kept.read()), joined)
        evidence.refresh_from_db()
        self.assertIn(sha256sum(evidence.text.encode()), joined)
        self.assertIn(sha256sum(canonical(made.snapshot)), joined)

    def test_one_that_staff_handed_in_and_one_that_was_taken_back_say_so(self) -> None:
        made = builders.hand_in(self.book, self.handin, even_if_empty=True)
        Submission.objects.filter(pk=made.pk).update(by=self.plot.lead, how="paper", entered_at=NOW, voided_at=NOW)
        text = self.text_of(made)
        self.assertIn("by R. Okafor", text)
        self.assertIn("Taken back", text)
