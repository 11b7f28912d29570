"""Shared pages, their updates and writers, and the moments that are kept of them."""

from __future__ import annotations

from django.db import models

from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup, WorkingGroup
from coatpeg.portfolios.models import Evidence, KeptText, LogRow


class SharedPage(KeptText):
    """The page of a pocket that some students fill together, or the place of what they put into it.

    Its row lock orders all updates of it. Of a pocket of evidence or a log ``number`` counts the writes.

    The text is as it was when it was settled last; ``number`` counts the updates, ``clocks`` are the ticks that are
    known of each writer id.
    """

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="shared_pages")
    pocket = models.ForeignKey(Pocket, models.CASCADE, null=True, related_name="shared_pages")
    """None: students began it with classmates whom they chose (``sharing.own``)."""
    title = models.CharField(max_length=120, blank=True, default="")
    """What such a page was called as it was begun."""
    chosen = models.ManyToManyField(Enrolment, related_name="shared_pages")
    """Who fills such a page."""
    of = models.CharField(max_length=30, db_collation="utf8mb4_bin")
    """Whose it is: ``class``, the id of the period or working group after a colon, or ``own`` with a key of its own."""
    period = models.ForeignKey(Period, models.SET_NULL, null=True, related_name="+")
    working_group = models.ForeignKey(WorkingGroup, models.SET_NULL, null=True, related_name="+")
    number = models.PositiveIntegerField(default=0)
    clocks = models.JSONField(default=dict)
    owners = models.JSONField(default=dict)
    """The person (id) of each writer id that has written."""
    dropped = models.PositiveIntegerField(default=0)
    """Up to which number the single updates are gone: they are in the state."""
    settling = models.BooleanField(default=False)
    """A job waits that lays it into the portfolios."""
    settled = models.PositiveIntegerField(default=0)
    """Up to which number its text goes."""
    parts = models.JSONField(default=dict)
    """Words and sentences of each person (id) in what was settled last."""
    kinds = models.JSONField(default=dict)
    """Which ticks are elements or texts (``core.sharing.accepting.Kinds``)."""
    size = models.PositiveIntegerField(default=0)
    """Characters of its rich text when it was settled last."""
    since_moment = models.JSONField(default=dict)
    """By person (id): ticks written, and ticks of others taken away, since the last moment was kept."""
    closed_at = models.DateTimeField(null=True, blank=True)
    closed_by = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")
    question = models.CharField(max_length=500, blank=True, default="")
    asked_by = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")
    asked_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """One of each who fill a pocket together."""

        constraints = (models.UniqueConstraint(fields=("pocket", "of"), name="shared_page_once"),)


class SharedState(models.Model):
    """A page put together up to a number, as one update of everything."""

    page = models.OneToOneField(SharedPage, models.CASCADE, related_name="state")
    number = models.PositiveIntegerField(default=0)
    data = models.BinaryField()


class SharedWriter(models.Model):
    """A writer id that the server gave to a person for a page; one person may have several."""

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="writers")
    client = models.PositiveBigIntegerField()
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        """An id is one person's."""

        constraints = (models.UniqueConstraint(fields=("page", "client"), name="writer_once"),)


class SharedUpdate(models.Model):
    """An update as it came, in the order of its number: ticks from–to of a writer id are new in it."""

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="updates")
    number = models.PositiveBigIntegerField()
    client = models.PositiveBigIntegerField()
    start = models.PositiveIntegerField()
    end = models.PositiveIntegerField()
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    data = models.BinaryField()

    class Meta:
        """In their order, each once."""

        ordering = ("page_id", "number")
        constraints = (models.UniqueConstraint(fields=("page", "number"), name="shared_update_once"),)


class SharedSpan(models.Model):
    """Who wrote some ticks of a writer id, and when: kept when the updates are put together."""

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="spans")
    client = models.PositiveBigIntegerField()
    start = models.PositiveIntegerField()
    end = models.PositiveIntegerField()
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    at = models.DateTimeField()

    class Meta:
        """A tick is written once."""

        ordering = ("client", "start")
        constraints = (models.UniqueConstraint(fields=("page", "client", "start"), name="shared_span_once"),)


class SharedMoment(models.Model):
    """How a page stood at a moment, at most five minutes of work after the one before, and who did what since that.

    ``by`` names for each person (id) the ticks they wrote and the ticks of others that they took away.
    """

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="moments")
    number = models.PositiveIntegerField()
    at = models.DateTimeField()
    data = models.BinaryField()
    words = models.PositiveIntegerField(default=0)
    by = models.JSONField(default=dict)
    brought_back = models.ForeignKey("self", models.SET_NULL, null=True, related_name="+")
    """The moment that was brought back by it."""

    class Meta:
        """In their order."""

        ordering = ("page_id", "number", "pk")


class SharedReader(models.Model):
    """When a student had a page open last."""

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="readers")
    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    at = models.DateTimeField()

    class Meta:
        """One row a person."""

        constraints = (models.UniqueConstraint(fields=("page", "person"), name="shared_reader_once"),)


class SharedTaken(models.Model):
    """A passage that staff took off a page: kept as the page was before, with its place, so that it can be put back."""

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="taken")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    data = models.BinaryField()
    """The page before, as one update of everything."""
    place = models.PositiveIntegerField()
    text = models.TextField()
    put_back_at = models.DateTimeField(null=True, blank=True)


class SharedThing(models.Model):
    """An artefact or a row of a log that somebody put where many fill a pocket; it stays theirs."""

    page = models.ForeignKey(SharedPage, models.CASCADE, related_name="things")
    evidence = models.OneToOneField(Evidence, models.CASCADE, null=True, related_name="shared_thing")
    row = models.OneToOneField(LogRow, models.CASCADE, null=True, related_name="shared_thing")

    class Meta:
        """In the order in which they came; one of two kinds."""

        ordering = ("pk",)
        constraints = (
            models.CheckConstraint(
                condition=models.Q(evidence__isnull=False, row=None) | models.Q(evidence=None, row__isnull=False),
                name="thing_artefact_or_row",
            ),
        )
