"""Portfolios and what lies in them."""

from __future__ import annotations

from django.db import models
from django.db.models import F, Q

from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, Person


class Portfolio(models.Model):
    """One student's body of work in one teaching group. Its row lock orders all writes of that student's work."""

    enrolment = models.OneToOneField(Enrolment, models.CASCADE, related_name="portfolio")
    cover_title = models.CharField(max_length=120, blank=True, default="")
    cover_tint = models.PositiveSmallIntegerField(null=True, blank=True)
    """One of the eight tints; None: the peg's."""
    cover_picture = models.ForeignKey("Artefact", models.SET_NULL, null=True, blank=True, related_name="+")


class StoredFile(models.Model):
    """Bytes that are safe in the store, named by their SHA-256; written once, never changed."""

    sha256 = models.CharField(max_length=64, unique=True, db_collation="utf8mb4_bin")
    size = models.BigIntegerField()
    media_type = models.CharField(max_length=120, db_collation="utf8mb4_bin")
    width = models.PositiveIntegerField(null=True)
    height = models.PositiveIntegerField(null=True)


class Artefact(models.Model):
    """A thing made: a picture, a file or a link. Never changed once made."""

    class Kind(models.TextChoices):
        """What it is."""

        PICTURE = "picture"
        FILE = "file"
        LINK = "link"

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="artefacts")
    kind = models.CharField(max_length=10, choices=Kind)
    title = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    stored = models.ForeignKey(StoredFile, models.PROTECT, null=True)
    came_sha256 = models.CharField(max_length=64, blank=True, default="", db_collation="utf8mb4_bin")
    link = models.CharField(max_length=2000, blank=True, default="", db_collation="utf8mb4_bin")
    made_at = models.DateTimeField()

    class Meta:
        """A link has an address, everything else has bytes."""

        constraints = (
            models.CheckConstraint(
                condition=Q(kind="link", stored=None) | (~Q(kind="link") & Q(stored__isnull=False)),
                name="artefact_link_or_bytes",
            ),
        )


class PocketFile(models.Model):
    """A picture or file that staff give with a pocket: beside its directions, or as a starter to work from."""

    class Role(models.TextChoices):
        """What it is for."""

        DIRECTIONS = "directions"
        STARTER = "starter"

    pocket = models.ForeignKey(Pocket, models.CASCADE, related_name="files")
    role = models.CharField(max_length=10, choices=Role)
    kind = models.CharField(max_length=10, choices=Artefact.Kind)
    title = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    stored = models.ForeignKey(StoredFile, models.PROTECT)
    came_sha256 = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    made_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True, blank=True)


class Evidence(models.Model):
    """An artefact in a pocket with its reflection; on a page, the text alone."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="evidence")
    pocket = models.ForeignKey(Pocket, models.PROTECT, related_name="evidence")
    artefact = models.ForeignKey(Artefact, models.PROTECT, null=True, related_name="evidence")
    position = models.PositiveIntegerField(default=0)
    text = models.TextField(blank=True, default="")
    words = models.PositiveIntegerField(default=0)
    sentences = models.PositiveIntegerField(default=0)
    version = models.PositiveIntegerField(default=0)
    changed_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True)
    page_of = models.GeneratedField(
        expression=models.Case(models.When(artefact__isnull=True, then=F("pocket_id"))),
        output_field=models.BigIntegerField(null=True),
        db_persist=True,
    )

    class Meta:
        """One page a pocket and portfolio."""

        ordering = ("position", "pk")
        constraints = (models.UniqueConstraint(fields=("portfolio", "page_of"), name="one_page_a_pocket"),)


class TextRevision(models.Model):
    """How a text stood: autosaves of one sitting are one revision."""

    evidence = models.ForeignKey(Evidence, models.CASCADE, related_name="revisions")
    version = models.PositiveIntegerField()
    text = models.TextField()
    person = models.ForeignKey(Person, models.PROTECT)
    begun_at = models.DateTimeField()
    saved_at = models.DateTimeField()


class LoosePage(models.Model):
    """A page of a student's own, beside the wanted pockets: never counted, never handed in."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="loose_pages")
    title = models.CharField(max_length=120)
    text = models.TextField(blank=True, default="")
    words = models.PositiveIntegerField(default=0)
    version = models.PositiveIntegerField(default=0)
    position = models.PositiveSmallIntegerField(default=0)
    changed_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """In the student's order."""

        ordering = ("position", "pk")


class LogRow(models.Model):
    """A row of a log: its values by the keys of the pocket's columns. What was removed can be restored.

    ``complete`` is judged when the row is saved: a column that becomes required later takes nothing away from it.
    ``placed_at`` says since when it lies in the pocket, so that a hand-in's hold locks just the rows it found.
    """

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="log_rows")
    pocket = models.ForeignKey(Pocket, models.PROTECT, related_name="log_rows")
    values = models.JSONField(default=dict)
    complete = models.BooleanField(default=False)
    week = models.DateField(null=True, blank=True)
    """The Monday of its date."""
    version = models.PositiveIntegerField(default=1)
    placed_at = models.DateTimeField()
    changed_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """As they were written."""

        ordering = ("pk",)


class VariantDeal(models.Model):
    """Which version of a pocket a student has."""

    pocket = models.ForeignKey(Pocket, models.CASCADE, related_name="deals")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="+")
    key = models.CharField(max_length=36, db_collation="utf8mb4_bin")

    class Meta:
        """One version a student."""

        constraints = (models.UniqueConstraint(fields=("pocket", "enrolment"), name="dealt_once"),)


class PocketContent(models.Model):
    """What lies in a pocket, counted: kept for the board, rebuilt from the evidence by ``contents.refresh``."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="contents")
    pocket = models.ForeignKey(Pocket, models.CASCADE)
    pieces = models.JSONField(default=list)
    has_work = models.BooleanField(default=False)
    last_work_at = models.DateTimeField(null=True)

    class Meta:
        """One row a pocket and portfolio."""

        constraints = (models.UniqueConstraint(fields=("portfolio", "pocket"), name="content_once"),)


class StandingHold(models.Model):
    """A hand-in's hold on a pocket, with what was wanted when it was taken and the hand-in's title to say why."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="holds")
    pocket = models.ForeignKey(Pocket, models.CASCADE)
    handin_id = models.BigIntegerField()
    title = models.CharField(max_length=200)
    wanted = models.JSONField()
    since = models.DateTimeField()

    class Meta:
        """A hand-in holds a pocket once."""

        constraints = (models.UniqueConstraint(fields=("portfolio", "pocket", "handin_id"), name="held_once"),)
