"""Portfolios and what lies in them."""

from __future__ import annotations

from django.db import models
from django.db.models import F, Q

from coatpeg.core.portfolios.kinds import KIND_CHOICES
from coatpeg.files.models import StoredFile
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, Person


class Portfolio(models.Model):
    """One student's body of work in one teaching group. Its row lock orders all writes of that student's work."""

    enrolment = models.OneToOneField(Enrolment, models.CASCADE, related_name="portfolio")
    cover_title = models.CharField(max_length=120, blank=True, default="")
    cover_tint = models.PositiveSmallIntegerField(null=True, blank=True)
    """One of the eight tints; None: the peg's."""
    cover_picture = models.ForeignKey("Artefact", models.SET_NULL, null=True, blank=True, related_name="+")


class Artefact(models.Model):
    """A thing made: a picture, photographed pages, a recording, a file, a link or a text.

    But for a text, never changed once made.
    """

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="artefacts")
    kind = models.CharField(max_length=10, choices=KIND_CHOICES)
    title = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    stored = models.ForeignKey(StoredFile, models.PROTECT, null=True)
    came_sha256 = models.CharField(max_length=64, blank=True, default="", db_collation="utf8mb4_bin")
    given = models.BooleanField(default=False)
    """It is a copy from the cupboard: as it came it is no work."""
    link = models.CharField(max_length=2000, blank=True, default="", db_collation="utf8mb4_bin")
    made_at = models.DateTimeField()

    class Meta:
        """A link has an address, a text its words, everything else has bytes."""

        constraints = (
            models.CheckConstraint(
                condition=Q(kind__in=("link", "text"), stored=None)
                | (~Q(kind__in=("link", "text")) & Q(stored__isnull=False)),
                name="artefact_link_text_or_bytes",
            ),
        )


class KeptText(models.Model):
    """A text with its counts and version. ``html`` is its form where it is more than plain paragraphs, else empty."""

    text = models.TextField(blank=True, default="")
    html = models.TextField(blank=True, default="")
    words = models.PositiveIntegerField(default=0)
    sentences = models.PositiveIntegerField(default=0)
    version = models.PositiveIntegerField(default=0)
    changed_at = models.DateTimeField()
    begun_as = models.TextField(blank=True, default="")
    """The words that it was given with, plain: as long as it says just these it is no work."""

    class Meta:
        """A part of other models."""

        abstract = True


class WrittenText(KeptText):
    """The words of an artefact that is a text written right here."""

    artefact = models.OneToOneField(Artefact, models.CASCADE, related_name="written_text")
    quoted = models.JSONField(default=list)
    """Of a passage from a page that many fill: the person (id) and the words of each run; nobody changes it. ``text``
    are its student's own words, ``html`` is all of it.
    """


class Evidence(KeptText):
    """An artefact in a pocket with its reflection; on a page, the text alone."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="evidence")
    pocket = models.ForeignKey(Pocket, models.PROTECT, related_name="evidence")
    artefact = models.ForeignKey(Artefact, models.PROTECT, null=True, related_name="evidence")
    position = models.PositiveIntegerField(default=0)
    spoken = models.ForeignKey(Artefact, models.PROTECT, null=True, blank=True, related_name="+")
    """The reflection as it was said; the text beside it is its transcript."""
    starter = models.ForeignKey(StoredFile, models.SET_NULL, null=True, blank=True, related_name="+")
    """The starter that it began as a copy of."""
    of = models.ForeignKey("self", models.CASCADE, null=True, related_name="laid")
    """What it stands for, where somebody else put it into a pocket that they fill together."""
    of_handed_in = models.BooleanField(default=False)
    """Such a one is part of a submission: its student reads its bytes also when it is taken out later."""
    part_words = models.PositiveIntegerField(null=True)
    part_sentences = models.PositiveIntegerField(null=True)
    """Of a page that is filled together and counts each one's own words: how many of them are this student's."""
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


class LoosePage(KeptText):
    """A page of a student's own, beside the wanted pockets: never counted, never handed in."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="loose_pages")
    title = models.CharField(max_length=120)
    position = models.PositiveSmallIntegerField(default=0)
    together = models.PositiveBigIntegerField(null=True, blank=True, db_index=True)
    """The page (``sharing``) that the student fills with classmates, whose words stand here; None: their own."""
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """In the student's order."""

        ordering = ("position", "pk")


class TextRevision(models.Model):
    """How a text stood: autosaves of one sitting are one revision.

    It is of an evidence, a loose page or a written text.
    """

    evidence = models.ForeignKey(Evidence, models.CASCADE, null=True, related_name="revisions")
    page = models.ForeignKey(LoosePage, models.CASCADE, null=True, related_name="revisions")
    written_text = models.ForeignKey(
        WrittenText, models.CASCADE, null=True, related_name="revisions", db_column="written_id"
    )
    version = models.PositiveIntegerField()
    text = models.TextField()
    html = models.TextField(blank=True, default="")
    person = models.ForeignKey(Person, models.PROTECT)
    begun_at = models.DateTimeField()
    saved_at = models.DateTimeField()

    class Meta:
        """Of one thing."""

        constraints = (
            models.CheckConstraint(
                condition=Q(evidence__isnull=False, page=None, written_text=None)
                | Q(evidence=None, page__isnull=False, written_text=None)
                | Q(evidence=None, page=None, written_text__isnull=False),
                name="revision_of_one_text",
            ),
        )


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
    of = models.ForeignKey("self", models.CASCADE, null=True, related_name="laid")
    """The row that it stands for, where somebody else wrote it into a log that they fill together."""
    of_handed_in = models.BooleanField(default=False)
    """As of evidence."""
    placed_at = models.DateTimeField()
    changed_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """As they were written."""

        ordering = ("pk",)


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
    """A hold on a pocket, with what was wanted when it was taken and why.

    Why is the hand-in's title; of a hold that staff took themselves (``handin_id`` 0) who they are, and their words.
    """

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="holds")
    pocket = models.ForeignKey(Pocket, models.CASCADE)
    handin_id = models.BigIntegerField()
    title = models.CharField(max_length=200)
    wanted = models.JSONField()
    since = models.DateTimeField()
    person = models.ForeignKey(Person, models.PROTECT, null=True, related_name="+")
    reason = models.CharField(max_length=200, blank=True, default="")

    class Meta:
        """A hand-in holds a pocket once."""

        constraints = (models.UniqueConstraint(fields=("portfolio", "pocket", "handin_id"), name="held_once"),)


class Look(models.Model):
    """When somebody of the staff last looked into a portfolio, and when the time before.

    What is newer than that is new to them.
    """

    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="looks")
    at = models.DateTimeField()
    before = models.DateTimeField(null=True)

    class Meta:
        """One row a person and portfolio."""

        constraints = (models.UniqueConstraint(fields=("person", "portfolio"), name="look_once"),)


class Comment(models.Model):
    """What a member of staff says to the student about an evidence or a loose page, without any hand-in."""

    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="comments")
    pocket = models.ForeignKey(Pocket, models.CASCADE, null=True, related_name="+")
    evidence = models.ForeignKey(Evidence, models.CASCADE, null=True, related_name="comments")
    page = models.ForeignKey(LoosePage, models.CASCADE, null=True, related_name="comments")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    text = models.TextField()
    at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True)

    class Meta:
        """Oldest first; about a pocket (or an evidence in it) or a page."""

        ordering = ("pk",)
        constraints = (
            models.CheckConstraint(
                condition=Q(pocket__isnull=False, page=None) | Q(pocket=None, evidence=None, page__isnull=False),
                name="comment_on_pocket_or_page",
            ),
        )


class ShowPage(models.Model):
    """A chosen few of a student's artefacts, arranged; private until a member of staff opens it to the class."""

    portfolio = models.OneToOneField(Portfolio, models.CASCADE, related_name="show_page")
    title = models.CharField(max_length=120, blank=True, default="")
    version = models.PositiveIntegerField(default=0)
    opened_at = models.DateTimeField(null=True)
    opened_by = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")


class ShownArtefact(models.Model):
    """One of a show page's artefacts, with the student's own line about it."""

    show_page = models.ForeignKey(ShowPage, models.CASCADE, related_name="shown")
    evidence = models.ForeignKey(Evidence, models.CASCADE, related_name="+")
    caption = models.CharField(max_length=300, blank=True, default="")
    wide = models.BooleanField(default=False)
    position = models.PositiveSmallIntegerField()

    class Meta:
        """In the student's order, each once."""

        ordering = ("position",)
        constraints = (models.UniqueConstraint(fields=("show_page", "evidence"), name="shown_once"),)
