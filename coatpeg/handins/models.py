"""Hand-ins, submissions, outcomes and the facts kept for the board."""

from __future__ import annotations

from django.db import models
from django.db.models import F, Q

from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup


class HandIn(models.Model):
    """What the teacher asks for: which pockets, from whom, by when, for how many points."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="handins")
    title = models.CharField(max_length=200)
    pockets = models.ManyToManyField(Pocket, related_name="handins")
    opens = models.DateField()
    due_day = models.DateField(null=True, blank=True)
    due_time = models.TimeField(null=True, blank=True)
    for_everyone = models.BooleanField(default=True)
    points = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    step = models.DecimalField(max_digits=3, decimal_places=1, default=1)
    client_key = models.CharField(max_length=36, null=True, blank=True, db_collation="utf8mb4_bin")
    """The form's own name of it: sent again, or from two windows at once, it is set once."""

    class Meta:
        """A time needs a day."""

        constraints = (
            models.UniqueConstraint(fields=("group", "client_key"), name="handin_of_a_form_once"),
            models.CheckConstraint(condition=Q(due_time=None) | Q(due_day__isnull=False), name="due_time_needs_day"),
        )


class HandInPeriod(models.Model):
    """A period's part in a hand-in: whether it is asked (where not everyone is), and its own due."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="periods")
    period = models.ForeignKey(Period, models.CASCADE)
    asked = models.BooleanField(default=False)
    due_day = models.DateField(null=True, blank=True)
    due_time = models.TimeField(null=True, blank=True)

    class Meta:
        """Once a period and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "period"), name="handin_period_once"),)


class OwnDue(models.Model):
    """A student's own due date for one hand-in, set by staff."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="own_dues")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE)
    day = models.DateField()
    at = models.TimeField(null=True, blank=True)

    class Meta:
        """One a student and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment"), name="own_due_once"),)


class Submission(models.Model):
    """One time a student handed in: numbered, time-stamped, frozen."""

    handin = models.ForeignKey(HandIn, models.PROTECT, related_name="submissions")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="submissions")
    number = models.PositiveIntegerField()
    at = models.DateTimeField()
    receipt = models.CharField(max_length=20, unique=True, db_collation="utf8mb4_bin")
    snapshot = models.JSONField()
    sha256 = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    voided_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """Numbered once a student and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment", "number"), name="submission_number"),)


class Outcome(models.Model):
    """What a review decided about one submission; a void one stays in the history."""

    class Kind(models.TextChoices):
        """The two outcomes of a review."""

        ACCEPTED = "accepted"
        SENT_BACK = "sent_back"

    submission = models.ForeignKey(Submission, models.CASCADE, related_name="outcomes")
    kind = models.CharField(max_length=10, choices=Kind)
    at = models.DateTimeField()
    person = models.ForeignKey(Person, models.PROTECT)
    pockets = models.JSONField(default=list)
    due_again = models.DateTimeField(null=True, blank=True)
    voided_at = models.DateTimeField(null=True, blank=True)
    standing_of = models.GeneratedField(
        expression=models.Case(models.When(voided_at=None, then=F("submission_id"))),
        output_field=models.BigIntegerField(null=True),
        db_persist=True,
    )

    class Meta:
        """At most one standing outcome a submission."""

        constraints = (models.UniqueConstraint(fields=("standing_of",), name="one_standing_outcome"),)


class KeptFacts(models.Model):
    """What events decide about one student and hand-in (``core.handins.standing.Facts``), kept for the board."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="facts")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE)
    first_at = models.DateTimeField(null=True)
    newest = models.BigIntegerField(null=True)
    newest_at = models.DateTimeField(null=True)
    submissions = models.PositiveIntegerField(default=0)
    outcome = models.CharField(max_length=10, null=True)
    due_again = models.DateTimeField(null=True)
    excused = models.BooleanField(default=False)

    class Meta:
        """One row a student and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment"), name="facts_once"),)
