"""Events and the sequence of each teaching group."""

from __future__ import annotations

from typing import Any

from django.db import models


class GroupSequence(models.Model):
    """The last number of a group; its row lock puts committing transactions in order.

    ``moved`` of the numbers were taken by work that moved without an event.
    """

    group_id = models.BigIntegerField(primary_key=True)
    last = models.BigIntegerField(default=0)
    moved = models.BigIntegerField(default=0)


class MovedWork(models.Model):
    """Under which number a student's work last moved without an event: a text that saved itself and met nothing new."""

    group_id = models.BigIntegerField()
    enrolment_id = models.BigIntegerField()
    pocket_id = models.BigIntegerField()
    number = models.BigIntegerField()
    at = models.DateTimeField()

    class Meta:
        """One row a student and pocket; found by what came after a number."""

        constraints = (models.UniqueConstraint(fields=("enrolment_id", "pocket_id"), name="moved_work_once"),)
        indexes = (models.Index(fields=("group_id", "number"), name="moved_work_after"),)


class AppendOnly(models.QuerySet["Event"]):
    """Events are written once: no update, no delete."""

    def update(self, **kwargs: Any) -> int:
        """Refused."""
        raise TypeError("events are append-only")

    def delete(self) -> tuple[int, dict[str, int]]:
        """Refused."""
        raise TypeError("events are append-only")


class Event(models.Model):
    """Who did what to what, when; hashes and ids in ``data``, never the content itself."""

    group_id = models.BigIntegerField()
    number = models.BigIntegerField()
    verb = models.CharField(max_length=40, db_collation="utf8mb4_bin")
    actor_id = models.BigIntegerField(null=True)
    at = models.DateTimeField()
    enrolment_id = models.BigIntegerField(null=True)
    handin_id = models.BigIntegerField(null=True)
    submission_id = models.BigIntegerField(null=True)
    data = models.JSONField(default=dict)

    objects = AppendOnly.as_manager()

    class Meta:
        """One number a group; quick look-ups by student and hand-in."""

        ordering = ("group_id", "number")
        constraints = (models.UniqueConstraint(fields=("group_id", "number"), name="event_once_in_group"),)
        indexes = (models.Index(fields=("enrolment_id", "handin_id"), name="event_of_student"),)

    def save(self, *args: Any, **kwargs: Any) -> None:
        """Insert only."""
        super().save(*args, **{**kwargs, "force_insert": True})
