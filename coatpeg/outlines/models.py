"""A template's structure. Students never write here: portfolios point at pockets, nobody copies them."""

from __future__ import annotations

import secrets
from typing import Any

from django.db import models

from coatpeg.core.outlines.filling import PocketKind, Shared
from coatpeg.core.portfolios.kinds import KIND_CHOICES
from coatpeg.core.portfolios.texts import Measure
from coatpeg.files.models import StoredFile
from coatpeg.people.models import Enrolment, Person, TeachingGroup

FIRST_SECTION = "Start"
"""The section that a class begins with, and that makes room for what is brought in."""


def new_key() -> str:
    """A key that nothing else has."""
    return secrets.token_hex(8)


class Template(models.Model):
    """The structure a class's portfolios are made from."""

    group = models.OneToOneField(TeachingGroup, models.CASCADE, null=True, related_name="template")
    title = models.CharField(max_length=200)
    adopted = models.ForeignKey("GalleryVersion", models.SET_NULL, null=True, related_name="adopters")
    """The gallery's version it was made from, or whose changes were last looked through."""
    published = models.OneToOneField("GalleryTemplate", models.SET_NULL, null=True, related_name="source")
    """Where it is published in the gallery."""


class GalleryTemplate(models.Model):
    """A template that the school's staff can adopt; shipped ones have no author."""

    title = models.CharField(max_length=200)
    description = models.TextField(blank=True, default="")
    author = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")
    withdrawn_at = models.DateTimeField(null=True, blank=True)


class GalleryVersion(models.Model):
    """One version of a published template: the whole of it as a document (``core.outlines.gallery``)."""

    template = models.ForeignKey(GalleryTemplate, models.CASCADE, related_name="versions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    files = models.JSONField(default=dict)
    """Pictures and files by the key of their pocket (``outlines.given_files``)."""
    at = models.DateTimeField()

    class Meta:
        """Numbered within its template."""

        ordering = ("template_id", "number")
        constraints = (models.UniqueConstraint(fields=("template", "number"), name="gallery_version_once"),)


class Section(models.Model):
    """A part of a template."""

    template = models.ForeignKey(Template, models.CASCADE, related_name="sections")
    title = models.CharField(max_length=200)
    position = models.PositiveSmallIntegerField(default=0)
    key = models.CharField(max_length=32, default=new_key, db_collation="utf8mb4_bin")
    """Stays the same in every version and copy of the template."""
    repeats = models.BooleanField(default=False)
    """It is a pattern: students see it laid out once per unit, never itself."""
    version = models.PositiveIntegerField(default=1)
    """Counts the changes of its units."""
    unit = models.OneToOneField("Unit", models.SET_NULL, null=True, blank=True, related_name="section")
    """The unit it was laid out for."""
    was_unit = models.BooleanField(default=False)
    """It was laid out for a unit; without one now, it holds what students had put there."""

    class Meta:
        """In their order."""

        ordering = ("position", "pk")

    def save(self, *args: Any, **more: Any) -> None:
        """A section of a unit stays known as one."""
        self.was_unit = self.was_unit or self.unit_id is not None
        super().save(*args, **more)


class Unit(models.Model):
    """A unit that a repeating section is laid out for, with its questions (key and text)."""

    pattern = models.ForeignKey(Section, models.CASCADE, related_name="units")
    title = models.CharField(max_length=120)
    questions = models.JSONField(default=list)
    opens = models.DateField(null=True, blank=True)
    position = models.PositiveSmallIntegerField(default=0)
    key = models.CharField(max_length=36, default=new_key, db_collation="utf8mb4_bin")
    """Stays the same in every version and copy of the template."""

    class Meta:
        """In their order."""

        ordering = ("position", "pk")
        constraints = (models.UniqueConstraint(fields=("pattern", "key"), name="unit_once"),)


class Pocket(models.Model):
    """A named place that says what goes in it."""

    section = models.ForeignKey(Section, models.CASCADE, related_name="pockets")
    title = models.CharField(max_length=200)
    kind = models.CharField(max_length=10, choices=[(kind.value, kind.value) for kind in PocketKind])
    position = models.PositiveSmallIntegerField(default=0)
    directions = models.TextField(blank=True, default="")
    prompt = models.CharField(max_length=300, blank=True, default="")
    artefacts = models.PositiveSmallIntegerField(default=0)
    reflection_on_each = models.BooleanField(default=False)
    measure = models.CharField(
        max_length=10, blank=True, default="", choices=[(one.value, one.value) for one in Measure]
    )
    least = models.PositiveSmallIntegerField(default=1)
    most = models.PositiveSmallIntegerField(null=True, blank=True)
    starter = models.TextField(blank=True, default="")
    old_starters = models.JSONField(default=list)
    """Starters it had before: a text that still is one of them is no work."""
    starter_hashes = models.JSONField(default=list)
    """Hashes of the files it ever gave as a starter: an artefact that is one of them is no work."""
    takes = models.JSONField(default=list)
    """Kinds of artefact it takes; empty: any."""
    spoken = models.BooleanField(default=False)
    """A recording may stand in place of a reflection, or of the page's text."""
    shared = models.CharField(
        max_length=6, blank=True, default="", choices=[(one.value, one.value) for one in Shared if one.value]
    )
    """Who fills it together; empty: each student their own."""
    group_set = models.CharField(max_length=40, blank=True, default="")
    """The set (by its name) whose groups fill it; empty: the first of the class."""
    own_part = models.BooleanField(default=False)
    """What is asked of it is asked of each student's own words in it."""
    rows = models.PositiveSmallIntegerField(default=0)
    """Rows wanted in a log over all, where none are wanted each week."""
    rows_per_week = models.PositiveSmallIntegerField(default=0)
    log = models.JSONField(default=dict)
    """A log's columns, order and target (``core.portfolios.log_columns``)."""
    variants = models.JSONField(default=dict)
    """Versions of directions and starter, and how they are dealt (``core.outlines.versions``); empty: one for all."""
    counts = models.BooleanField(default=True)
    opens = models.DateField(null=True, blank=True)
    retired_at = models.DateTimeField(null=True, blank=True)
    version = models.PositiveIntegerField(default=1)
    key = models.CharField(max_length=32, default=new_key, db_collation="utf8mb4_bin")
    """Stays the same in every version and copy of the template."""
    each_question = models.BooleanField(default=False)
    """Of a pattern's pocket: it is laid out once for each question of a unit."""
    pattern = models.ForeignKey("self", models.PROTECT, null=True, blank=True, related_name="laid")
    """The pattern's pocket it was laid out from."""
    question = models.CharField(max_length=36, blank=True, default="", db_collation="utf8mb4_bin")
    """The key of the question it was laid out for."""

    class Meta:
        """In their order; a length is from–to."""

        ordering = ("section__position", "section_id", "position", "pk")
        constraints = (
            models.CheckConstraint(
                condition=models.Q(most__isnull=True) | models.Q(most__gte=models.F("least")), name="length_from_to"
            ),
        )


class TakenAway(models.Model):
    """A section or pocket that was taken away, as the rows that it was: with them it can be brought back."""

    template = models.ForeignKey(Template, models.CASCADE, related_name="taken_away")
    rows = models.JSONField()
    at = models.DateTimeField()


class TemplateDraft(models.Model):
    """Changes of a template that one person collects and has not saved, as data (``setup.template.draft_shapes``)."""

    template = models.ForeignKey(Template, models.CASCADE, related_name="drafts")
    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    edits = models.JSONField(default=list)
    device = models.CharField(max_length=40)
    """On which it was changed last: what that device still holds is newer than what stands here, no other one's is."""
    at = models.DateTimeField()
    key = models.CharField(max_length=40, blank=True, default="")
    """Of the saving that was done last, given by who saved: the same once more is answered with what came of it."""
    answer = models.JSONField(null=True)

    class Meta:
        """One of each person."""

        constraints = (models.UniqueConstraint(fields=("template", "person"), name="template_draft_once"),)


class GivenFile(models.Model):
    """A picture or file that staff give with a pocket: beside its directions, or as a starter to work from.

    Without a pocket it waits for one that somebody drafts in ``draft_of``, or it came in ``group`` to be given with
    hand-ins (``handins.asked.files``).
    """

    class Role(models.TextChoices):
        """What it is for."""

        DIRECTIONS = "directions"
        STARTER = "starter"

    pocket = models.ForeignKey(Pocket, models.CASCADE, null=True, related_name="files")
    draft_of = models.ForeignKey(Template, models.CASCADE, null=True, related_name="+")
    group = models.ForeignKey(TeachingGroup, models.SET_NULL, null=True, related_name="+")
    role = models.CharField(max_length=10, choices=Role)
    kind = models.CharField(max_length=10, choices=KIND_CHOICES)
    title = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    stored = models.ForeignKey(StoredFile, models.PROTECT)
    came_sha256 = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    version = models.CharField(max_length=36, blank=True, default="", db_collation="utf8mb4_bin")
    """The key of the version of the pocket that has it; empty: everybody has it."""
    made_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """Its table's name is older than its room."""

        db_table = "portfolios_pocketfile"


class VariantDeal(models.Model):
    """Which version of a pocket a student has."""

    pocket = models.ForeignKey(Pocket, models.CASCADE, related_name="deals")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="+")
    key = models.CharField(max_length=36, db_collation="utf8mb4_bin")

    class Meta:
        """One version a student."""

        db_table = "portfolios_variantdeal"
        constraints = (models.UniqueConstraint(fields=("pocket", "enrolment"), name="dealt_once"),)
