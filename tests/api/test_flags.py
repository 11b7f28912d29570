"""What staff should look at on the pegs: an unchanged starter, the same file as somebody else's, nothing at all."""

from __future__ import annotations

import importlib

from django.apps import apps
from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.cupboard import giving, keeping
from coatpeg.handins.models import Submission
from coatpeg.portfolios.models import Evidence
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW

STARTER = "I am … and I like …"


class Flags(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.card = self.plot.pocket()
        self.about = self.plot.pocket("About me", "page", starter=STARTER)
        self.ada, self.bea, self.cyr, self.dov = (
            self.plot.student(f"s{one}", name, "Abel") for one, name in enumerate(("Ada", "Bea", "Cyr", "Dov"))
        )
        self.one = self.plot.handin(self.card, title="one")
        self.both = self.plot.handin(self.card, self.about, title="both")

    def flags(self) -> dict[tuple[str, str], list[str]]:
        found = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/pegs/flags")
        names = {one.enrolment_id: one.enrolment.person.given_name for one in (self.ada, self.bea, self.cyr, self.dov)}
        titles = {one.pk: one.title for one in (self.one, self.both)}
        return {(names[one["enrolment"]], titles[one["handin"]]): one["flags"] for one in found}

    def test_the_same_bytes_of_two_students_where_they_are_in(self) -> None:
        same, other = builders.jpeg((10, 20, 30)), builders.jpeg((90, 90, 30))
        for portfolio, data in ((self.ada, same), (self.bea, same), (self.cyr, other)):
            builders.add_picture(portfolio, self.card, data=data)
            builders.hand_in(portfolio, self.one)
        builders.add_picture(self.dov, self.card, data=same)
        self.assertEqual(self.flags(), {("Ada", "one"): ["same"], ("Bea", "one"): ["same"]})

    def test_a_copy_from_the_cupboard_is_nobodys_same_file(self) -> None:
        sheet = SimpleUploadedFile("sheet.txt", b"Wash your hands.")
        item = keeping.put_file_in(self.plot.lead, self.plot.group.pk, sheet, "sheet.txt", NOW)
        giving.give(self.plot.lead, giving.Giving(item.pk, self.card.pk), "given", NOW)
        for portfolio in (self.ada, self.bea):
            builders.reflect(Evidence.objects.get(portfolio=portfolio))
            builders.hand_in(portfolio, self.one, even_if_empty=True)
        self.assertNotIn("same", [flag for flags in self.flags().values() for flag in flags])
        for submission in Submission.objects.all():
            desk = self.ok(self.plot.lead, "GET", f"/submissions/{submission.pk}")
            self.assertEqual(desk["same_files"], [])

    def test_nothing_in_it_and_a_starter_as_it_was_given(self) -> None:
        builders.hand_in(self.ada, self.one, even_if_empty=True)
        path = f"/portfolios/{self.bea.pk}/pockets/{self.about.pk}/page"
        self.ok(self.bea.enrolment.person, "PUT", path, {"text": STARTER, "version": 0})
        builders.add_picture(self.bea, self.card)
        builders.hand_in(self.bea, self.both)
        self.assertEqual(self.flags(), {("Ada", "one"): ["empty"], ("Bea", "both"): ["starter"]})
        # What was handed in before these were kept says the same.
        Submission.objects.update(empty=False, unchanged=False)
        importlib.import_module("coatpeg.handins.migrations.0013_flags_of_submissions").from_snapshots(apps, None)
        self.assertEqual(self.flags(), {("Ada", "one"): ["empty"], ("Bea", "both"): ["starter"]})

    def test_the_newest_that_stands_counts(self) -> None:
        first = builders.hand_in(self.ada, self.one, even_if_empty=True)
        builders.mark(self.plot.lead, first, accept=False, score=None)
        builders.add_picture(self.ada, self.card)
        self.assertEqual(self.flags(), {("Ada", "one"): ["empty"]})
        builders.hand_in(self.ada, self.one, NOW, 1)
        self.assertEqual(self.flags(), {})
