"""Drafts of marks, marks that were released with an outcome, what is said on the work, and notes of staff."""

from __future__ import annotations

from django.db import models

from coatpeg.core.marking.annotations import Kind
from coatpeg.files.models import StoredFile
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.people.models import Enrolment, Person, TeachingGroup


class DraftMark(models.Model):
    """Feedback, levels and score while a marker works on them: seen by that marker alone until they are released."""

    submission = models.ForeignKey(Submission, models.CASCADE, related_name="drafts")
    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    feedback = models.TextField(blank=True, default="")
    score = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    levels = models.JSONField(default=dict)
    """Of a rubric, as ``core.marking.rubrics.Judged``."""
    own_score = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    """Given by the marker against what the rubric or the late rule makes, with the reason ``why``."""
    why = models.TextField(blank=True, default="")
    version = models.PositiveIntegerField(default=0)
    changed_at = models.DateTimeField()
    done_at = models.DateTimeField(null=True)
    """Of two who mark independently: when this one said that theirs is done."""

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
    earned = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    """What the levels, or the marker, made before anything was taken; none of marks from before this was kept."""
    late_days = models.PositiveSmallIntegerField(default=0)
    """For so many school days something was taken by the late rule; 0: nothing was."""
    why = models.TextField(blank=True, default="")
    """Why the marker gave another score than the rule makes; empty where it is the rule's."""
    apart = models.TextField(blank=True, default="")
    """Why this one of several who handed in together was marked alone; empty where they were marked together."""
    along = models.ForeignKey("self", models.SET_NULL, null=True, related_name="others")
    """The mark of another one of them that it was given with, by one press."""
    rubric = models.JSONField(default=dict)
    """The rubric as it was then; empty where nothing was judged by one."""
    levels = models.JSONField(default=dict)
    agreed = models.JSONField(default=dict)
    """Of two who marked independently: the marks of both (``marks``), and why one decided alone (``alone``)."""
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


class Annotation(models.Model):
    """What a marker says on a submission or on a place in it (``core.marking.annotations``).

    Its student sees it while the outcome that it was released with stands; before and after that it is a draft of the
    marker who made it.
    """

    submission = models.ForeignKey(Submission, models.CASCADE, related_name="annotations")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    key = models.CharField(max_length=36, db_collation="utf8mb4_bin")
    """Given by the page that made it, so that the same sent again is the same one."""
    kind = models.CharField(max_length=10, choices=[(one.value, one.value) for one in Kind])
    target = models.JSONField(default=dict)
    text = models.TextField(blank=True, default="")
    wording = models.TextField(null=True)
    strokes = models.JSONField(default=list)
    colour = models.CharField(max_length=8, blank=True, default="")
    """Of a highlight."""
    voice = models.ForeignKey(StoredFile, models.PROTECT, null=True, related_name="+")
    criterion = models.CharField(max_length=36, blank=True, default="")
    """Of the rubric: the one whose level rests on what this is on."""
    criterion_title = models.CharField(max_length=80, blank=True, default="")
    """What it was called then: a rubric in use may change."""
    foreign = models.JSONField(default=dict)
    """Terms of a Web Annotation file that are not ours; they go out again."""
    at = models.DateTimeField()
    changed_at = models.DateTimeField()
    version = models.PositiveIntegerField(default=1)
    removed_at = models.DateTimeField(null=True)
    outcome = models.ForeignKey(Outcome, models.SET_NULL, null=True, related_name="annotations")
    settled_at = models.DateTimeField(null=True)
    settled_by = models.ForeignKey(Person, models.PROTECT, null=True, related_name="+")
    done_at = models.DateTimeField(null=True)
    """Ticked off by the student while mending."""
    choice = models.CharField(max_length=5, blank=True, default="", choices=[("taken", "taken"), ("left", "left")])
    """What the student did with a suggested wording."""
    chosen_at = models.DateTimeField(null=True)

    class Meta:
        """In the order in which they were made."""

        ordering = ("pk",)
        constraints = (models.UniqueConstraint(fields=("submission", "key"), name="one_annotation_a_key"),)


class Answer(models.Model):
    """What a student or staff say to an annotation: a thread under it, oldest first."""

    annotation = models.ForeignKey(Annotation, models.CASCADE, related_name="answers")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    text = models.TextField()
    at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True)

    class Meta:
        """Oldest first."""

        ordering = ("pk",)


class StaffNote(models.Model):
    """What staff keep for themselves on a student, a submission, or one evidence of it: never shown to the student."""

    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="staff_notes")
    submission = models.ForeignKey(Submission, models.CASCADE, null=True, related_name="staff_notes")
    evidence = models.PositiveBigIntegerField(null=True)
    """Of the submission, as it was frozen."""
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    text = models.TextField()
    at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True)

    class Meta:
        """Oldest first."""

        ordering = ("pk",)


class ClassNote(models.Model):
    """What staff say to all whom a hand-in is asked of."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="+")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    key = models.CharField(max_length=36, db_collation="utf8mb4_bin")
    text = models.TextField()
    at = models.DateTimeField()
    removed_at = models.DateTimeField(null=True)

    class Meta:
        """The same sent again is the same one."""

        constraints = (models.UniqueConstraint(fields=("handin", "key"), name="one_class_note_a_key"),)


class LateRuling(models.Model):
    """What the school takes from a score for being late (``core.marking.scoring.LateRule``): the newest row holds.

    Without a row, or with none ``per_day``, nothing is taken.
    """

    per_day = models.DecimalField(max_digits=4, decimal_places=1, null=True)
    floor = models.DecimalField(max_digits=4, decimal_places=1, default=0)
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    changed_at = models.DateTimeField()


class MarkingRule(models.Model):
    """How a hand-in is marked; without one, by whoever opens it first, knowing whose it is."""

    handin = models.OneToOneField(HandIn, models.CASCADE, primary_key=True, related_name="marking_rule")
    two = models.BooleanField(default=False)
    """By two markers independently, who then agree."""
    blind = models.BooleanField(default=False)
    """At the desk without name, picture or peg picture, until it is decided."""
    version = models.PositiveIntegerField(default=0)
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    changed_at = models.DateTimeField()


class OpenDesk(models.Model):
    """Which submission a marker has open, as their page says every few seconds; old ones mean nothing."""

    person = models.OneToOneField(Person, models.CASCADE, primary_key=True, related_name="+")
    submission = models.ForeignKey(Submission, models.CASCADE, related_name="+")
    at = models.DateTimeField()
