"""Drafts of marks, and marks that were released with an outcome."""

from __future__ import annotations

from django.db import models

from coatpeg.handins.models import Outcome, Submission
from coatpeg.people.models import Person, TeachingGroup


class DraftMark(models.Model):
    """Feedback, levels and score while a marker works on them: seen by that marker alone until they are released."""

    submission = models.ForeignKey(Submission, models.CASCADE, related_name="drafts")
    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    feedback = models.TextField(blank=True, default="")
    score = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    levels = models.JSONField(default=dict)
    """Of a rubric, as ``core.marking.rubrics.Judged``."""
    version = models.PositiveIntegerField(default=0)
    changed_at = models.DateTimeField()

    class Meta:
        """One a marker and submission."""

        constraints = (models.UniqueConstraint(fields=("submission", "person"), name="one_draft_a_marker"),)


class ReleasedMark(models.Model):
    """Feedback and score as they went to the student with an outcome; a void outcome hides them again."""

    outcome = models.OneToOneField(Outcome, models.CASCADE, related_name="mark")
    feedback = models.TextField(blank=True, default="")
    score = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    points = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    """Out of how many: those of the hand-in when it was released, whatever they are later."""
    rubric = models.JSONField(default=dict)
    """The rubric as it was then; empty where nothing was judged by one."""
    levels = models.JSONField(default=dict)
    read_at = models.DateTimeField(null=True)
    """When the student first said that they have read it."""


class Phrase(models.Model):
    """What a marker says often: theirs in all their classes, and said by all who mark where it is shared."""

    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    text = models.TextField()
    """With places for the student's name and the like (``core.marking.phrases``)."""
    shared = models.ManyToManyField(TeachingGroup, related_name="+")
    changed_at = models.DateTimeField()


class SheetRule(models.Model):
    """How the totals of a class are made (``core.marking.sheet.Rule``); without one, of all points."""

    group = models.OneToOneField(TeachingGroup, models.CASCADE, primary_key=True, related_name="+")
    weights = models.JSONField(default=dict)
    """By hand-in id, as decimal text."""
    best = models.PositiveSmallIntegerField(null=True)
    missing_is_zero = models.BooleanField(default=False)
    version = models.PositiveIntegerField(default=0)
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    changed_at = models.DateTimeField()
