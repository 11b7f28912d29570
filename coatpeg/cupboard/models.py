"""Items of the cupboard, copies of them, and what was given out."""

from __future__ import annotations

from django.db import models
from django.db.models import Q

from coatpeg.core.cupboard.items import LONGEST_HEADING, ItemKind
from coatpeg.core.portfolios.kinds import KIND_CHOICES
from coatpeg.files.models import StoredFile
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, Person, TeachingGroup
from coatpeg.portfolios.models import Evidence, Portfolio


class CupboardItem(models.Model):
    """A resource: a page, a file, a link, or what can be laid into a template.

    Nobody but staff writes here; portfolios hold copies.
    """

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="cupboard")
    kind = models.CharField(max_length=6, choices=[(one.value, one.value) for one in ItemKind])
    title = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    heading = models.CharField(max_length=LONGEST_HEADING, blank=True, default="")
    """What it stands under: a unit, a week, any words."""
    html = models.TextField(blank=True, default="")
    """A page's words; of a pocket or a log, what a copy says."""
    link = models.CharField(max_length=2000, blank=True, default="", db_collation="utf8mb4_bin")
    layout = models.JSONField(default=dict)
    """A pocket's settings (``core.outlines.settings``) with the ``files`` beside it; of a log its columns alone."""
    pocket_key = models.CharField(max_length=32, blank=True, default="", db_collation="utf8mb4_bin")
    """The key of the pocket it came from: put in once more, it takes the place of this."""
    stored = models.ForeignKey(StoredFile, models.PROTECT, null=True)
    came_sha256 = models.CharField(max_length=64, blank=True, default="", db_collation="utf8mb4_bin")
    file_kind = models.CharField(max_length=10, blank=True, default="", choices=KIND_CHOICES)
    """What kind of artefact the file is."""
    staff_only = models.BooleanField(default=False)
    opens = models.DateField(null=True, blank=True)
    periods = models.JSONField(default=list)
    """The periods (ids) it is for."""
    groups = models.JSONField(default=list)
    """The working groups (ids) it is for; none, and no periods: for all."""
    lent_from = models.ForeignKey("self", models.SET_NULL, null=True, related_name="lent")
    """The item of another class that this one is lent from: what is in it is that one's."""
    version = models.PositiveIntegerField(default=1)
    """Counts every change."""
    content = models.PositiveIntegerField(default=1)
    """Counts the changes of what is in it: what copies are compared by."""
    made_by = models.ForeignKey(Person, models.PROTECT, related_name="+")
    made_at = models.DateTimeField()
    changed_at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """A file has bytes, nothing else has."""

        constraints = (
            models.CheckConstraint(
                condition=Q(kind="file", stored__isnull=False) | (~Q(kind="file") & Q(stored=None)),
                name="cupboard_file_has_bytes",
            ),
            models.UniqueConstraint(fields=("lent_from", "group"), name="cupboard_lent_once"),
        )


class CupboardReading(models.Model):
    """A student has opened an item."""

    item = models.ForeignKey(CupboardItem, models.CASCADE, related_name="readings")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="+")
    at = models.DateTimeField()

    class Meta:
        """Once each."""

        constraints = (models.UniqueConstraint(fields=("item", "enrolment"), name="cupboard_read_once"),)


class GivenOut(models.Model):
    """An item was given out into a pocket: to the class, some periods or groups, or chosen students."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="given_out")
    item = models.ForeignKey(CupboardItem, models.CASCADE, related_name="given_out")
    pocket = models.ForeignKey(Pocket, models.CASCADE, related_name="+")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    key = models.CharField(max_length=36, db_collation="utf8mb4_bin")
    """The page's own name of it, so that the same sent again is the same."""
    whole = models.BooleanField(default=True)
    """To the class as a whole, whoever joins it later too."""
    periods = models.JSONField(default=list)
    """To these periods as a whole (ids), whoever comes into them later too."""
    groups = models.JSONField(default=list)
    """To these working groups as a whole (ids), whoever comes into them later too."""
    dealt = models.JSONField(default=dict)
    """Where it has versions: the items and how they are dealt (``versions.Several.to_data``); ``item`` is the first."""
    students = models.JSONField(default=list)
    """To these students (enrolments), where it waits."""
    waits_for = models.DateTimeField(null=True, blank=True)
    """The moment at which it is given out; None: it is."""
    at = models.DateTimeField()
    """When it was given out, or said to be."""
    taken_back_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """A press is one deed."""

        constraints = (models.UniqueConstraint(fields=("group", "key"), name="given_out_once"),)


class CupboardCopy(models.Model):
    """A copy of an item in a portfolio: taken by its student, or given out.

    ``evidence`` is where it lies; of a page's own words, the page.
    """

    item = models.ForeignKey(CupboardItem, models.CASCADE, related_name="copies")
    content = models.PositiveIntegerField()
    """Which content of the item it is a copy of."""
    given = models.ForeignKey(GivenOut, models.CASCADE, null=True, related_name="copies")
    portfolio = models.ForeignKey(Portfolio, models.CASCADE, related_name="+")
    pocket = models.ForeignKey(Pocket, models.CASCADE, related_name="+")
    evidence = models.ForeignKey(Evidence, models.CASCADE, related_name="copies")
    at = models.DateTimeField()
    opened_at = models.DateTimeField(null=True)
    newer = models.ForeignKey("self", models.SET_NULL, null=True, related_name="+")
    """The copy of a newer content that was laid beside this one, since it was begun."""

    class Meta:
        """In the order in which they were made."""

        ordering = ("pk",)
