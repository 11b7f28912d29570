"""Bytes that are kept, how they are shown, and files on their way up.

The tables keep the names they had when these models stood with portfolios.
"""

from __future__ import annotations

from django.db import models

from coatpeg.people.models import Person


class StoredFile(models.Model):
    """Bytes that are safe in the store, named by their SHA-256; written once, never changed."""

    sha256 = models.CharField(max_length=64, unique=True, db_collation="utf8mb4_bin")
    size = models.BigIntegerField()
    media_type = models.CharField(max_length=120, db_collation="utf8mb4_bin")
    width = models.PositiveIntegerField(null=True)
    height = models.PositiveIntegerField(null=True)

    class Meta:
        """Its table's name is older than its room."""

        db_table = "portfolios_storedfile"


class Uncleaned(models.Model):
    """A picture that came and is not cleaned yet, or was (``files.waiting``).

    ``stored`` stands for it until it is; ``became`` is what is kept of it then. ``problem`` says why there is nothing:
    a problem's what, where and fix.
    """

    stored = models.OneToOneField(StoredFile, models.CASCADE, related_name="uncleaned")
    name = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    turn = models.PositiveSmallIntegerField(default=0)
    crop = models.JSONField(null=True)
    became = models.ForeignKey(StoredFile, models.PROTECT, null=True, related_name="+")
    problem = models.JSONField(null=True)
    asked_at = models.DateTimeField()

    class Meta:
        """Found by when it was asked for."""

        indexes = (models.Index(fields=("asked_at",), name="uncleaned_waiting"),)

    @property
    def is_open(self) -> bool:
        """Whether it still waits."""
        return self.became_id is None and self.problem is None


class Preview(models.Model):
    """How a stored file is shown in the page: made in the background, once for the same bytes.

    ``kind`` says which viewer shows it (while it waits, ``csv`` where the name promises a table); pages and tables
    lie in the store beside the bytes.
    """

    class State(models.TextChoices):
        """How far it is."""

        WAITING = "waiting"
        DONE = "done"
        FAILED = "failed"

    stored = models.OneToOneField(StoredFile, models.CASCADE, related_name="preview")
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    kind = models.CharField(max_length=10, blank=True, default="", db_collation="utf8mb4_bin")
    pages = models.PositiveIntegerField(default=0)
    why = models.CharField(max_length=300, blank=True, default="")
    """Why it cannot be shown, in words."""
    tries = models.PositiveSmallIntegerField(default=0)
    asked_at = models.DateTimeField()

    class Meta:
        """Found by state."""

        db_table = "portfolios_preview"
        indexes = (models.Index(fields=("state", "asked_at"), name="preview_waiting"),)


class Upload(models.Model):
    """A file on its way up, in parts; its bytes lie in the folder of what comes in under its key.

    ``purpose`` names the room's registered purpose (``files.purposes``), ``details`` is what that purpose needs to
    know, as data; both are fixed when it begins. ``result`` is what the purpose made of it. One of several photographed
    pages that are to be joined names its ``batch``.
    """

    key = models.CharField(max_length=43, unique=True, db_collation="utf8mb4_bin")
    person = models.ForeignKey(Person, models.CASCADE, related_name="uploads")
    client_key = models.CharField(max_length=36, null=True, blank=True, db_collation="utf8mb4_bin")
    """The sender's own name of it: begun again under the same one, it is the same upload."""
    purpose = models.CharField(max_length=30, db_collation="utf8mb4_bin", default="evidence")
    details = models.JSONField(default=dict)
    name = models.CharField(max_length=130, db_collation="utf8mb4_bin")
    note = models.CharField(max_length=300, blank=True, default="")
    size = models.BigIntegerField()
    turn = models.PositiveSmallIntegerField(default=0)
    """Degrees clockwise: 0, 90, 180 or 270."""
    crop = models.JSONField(null=True)
    """Left, top, right, bottom as shares of the turned picture; None: all of it."""
    batch = models.CharField(max_length=36, blank=True, default="", db_collation="utf8mb4_bin")
    place = models.PositiveSmallIntegerField(default=0)
    places = models.PositiveSmallIntegerField(default=0)
    stored = models.ForeignKey(StoredFile, models.PROTECT, null=True)
    came_sha256 = models.CharField(max_length=64, blank=True, default="", db_collation="utf8mb4_bin")
    result = models.JSONField(default=dict)
    refused = models.JSONField(null=True)
    """Why it could not be taken in: a problem's what, where and fix."""
    begun_at = models.DateTimeField()
    done_at = models.DateTimeField(null=True)

    class Meta:
        """Its table's name is older than its room."""

        db_table = "portfolios_upload"
        constraints = (models.UniqueConstraint(fields=("person", "client_key"), name="upload_begun_once"),)
