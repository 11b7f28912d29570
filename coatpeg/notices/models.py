"""Notices, to whom each goes, what was mailed, and how each person wants to be told."""

from __future__ import annotations

from django.db import models


class Notice(models.Model):
    """Something told to an audience: ``what`` is its kind, ``data`` the ids it is about. No names, no texts."""

    what = models.CharField(max_length=30, db_collation="utf8mb4_bin")
    group_id = models.BigIntegerField(null=True)
    data = models.JSONField(default=dict)
    by_id = models.BigIntegerField(null=True)
    at = models.DateTimeField()
    tell_at = models.DateTimeField()
    """Not before this moment."""
    fanned_at = models.DateTimeField(null=True)

    class Meta:
        """Found by what is still to be fanned out."""

        indexes = (models.Index(fields=("fanned_at", "tell_at"), name="notice_to_fan_out"),)


class Delivery(models.Model):
    """A notice to one person: when they saw it, and whether it went into a mail."""

    notice = models.ForeignKey(Notice, models.CASCADE, related_name="deliveries")
    person_id = models.BigIntegerField()
    seen_at = models.DateTimeField(null=True)
    mailed_at = models.DateTimeField(null=True)

    class Meta:
        """Once a person; a person's newest first."""

        constraints = (models.UniqueConstraint(fields=("notice", "person_id"), name="told_once"),)
        indexes = (models.Index(fields=("person_id", "-notice"), name="delivery_of_person"),)


class MailChoice(models.Model):
    """How a person wants to be told by mail; without a row, as is usual for them (``choosing``)."""

    class How(models.TextChoices):
        """At once, once a day, or not at all."""

        AT_ONCE = "at_once"
        DAILY = "daily"
        NEVER = "never"

    person_id = models.BigIntegerField(primary_key=True)
    how = models.CharField(max_length=10, choices=How)
    receipts = models.BooleanField(default=False)
    """Whether a student's receipts come by mail too."""


class Mail(models.Model):
    """The envelope of a mail: to whom, about what, how it went. Its text is not kept here."""

    class State(models.TextChoices):
        """How it went."""

        SENT = "sent"
        BOUNCED = "bounced"

    person_id = models.BigIntegerField()
    address = models.CharField(max_length=254)
    subject = models.CharField(max_length=200)
    message_id = models.CharField(max_length=120, unique=True, db_collation="utf8mb4_bin")
    state = models.CharField(max_length=10, choices=State)
    why = models.CharField(max_length=300, blank=True, default="")
    at = models.DateTimeField()

    class Meta:
        """Newest first."""

        ordering = ("-pk",)
