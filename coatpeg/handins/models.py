"""Hand-ins, submissions, outcomes and the facts kept for the board."""

from __future__ import annotations

from django.db import models
from django.db.models import F, Q

from coatpeg.outlines.models import GivenFile, Pocket, Section
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup, WorkingGroup

WAYS = ("paper", "mail", "other", "closed")
"""How work that staff hand in for a student reached them; ``closed``: it was taken in as it stood when it closed."""


class Closing(models.TextChoices):
    """What a hand-in does by itself once it has closed."""

    NOTHING = "nothing"
    LOCK_HANDED_IN = "lock_in"
    LOCK_ALL = "lock_all"
    AS_IT_STANDS = "closed"


class HandIn(models.Model):
    """What the teacher asks for: which pockets, from whom, by when, for how many points."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="handins")
    title = models.CharField(max_length=200)
    pockets = models.ManyToManyField(Pocket, related_name="handins")
    follows = models.BooleanField(default=False)
    """Whether it also collects what is added later to its ``sections``, or anywhere where it collects the ``whole``."""
    whole = models.BooleanField(default=False)
    sections = models.ManyToManyField(Section, related_name="+")
    anything = models.BooleanField(default=False)
    """Whether it asks for anything that fits: it has a pocket of its own then."""
    since_last = models.BooleanField(default=False)
    """Whether of its logs only the rows are handed in that no other hand-in has yet."""
    opens = models.DateField()
    due_day = models.DateField(null=True, blank=True)
    due_time = models.TimeField(null=True, blank=True)
    for_everyone = models.BooleanField(default=True)
    closes_day = models.DateField(null=True, blank=True)
    closes_time = models.TimeField(null=True, blank=True)
    """From this moment on it takes nothing more."""
    closing = models.CharField(max_length=8, choices=Closing, default=Closing.NOTHING)
    """What is done then."""
    closed_at = models.DateTimeField(null=True, blank=True)
    """When that was carried out."""
    directions = models.TextField(blank=True, default="")
    """Rich text of its own, beside that of its pockets."""
    files = models.ManyToManyField(GivenFile, related_name="handins")
    """Pictures and files beside it (``asked.files``)."""
    model_answer = models.TextField(blank=True, default="")
    """Rich text that staff see."""
    model_from = models.DateField(null=True, blank=True)
    """From which day on students see it too; never where there is none."""
    whom = models.CharField(
        max_length=8, choices=[(one, one) for one in ("all", "groups", "students", "but")], default="all"
    )
    """Of those whom its periods name: all, the members of some groups, chosen students, or all but some."""
    groups = models.ManyToManyField(WorkingGroup, related_name="+")
    opens_again = models.BooleanField(default=False)
    """Whether its pockets open again once it is accepted."""
    again = models.BooleanField(default=False)
    """Whether students may hand in again until it is due: its pockets lock then, *late* follows the newest."""
    take_back = models.BooleanField(default=True)
    """Whether students may take back until it is due what they handed in."""
    draft = models.BooleanField(default=False)
    """Whether only staff see it: nobody is asked yet."""
    taken_away_at = models.DateTimeField(null=True, blank=True)
    version = models.PositiveIntegerField(default=1)
    """Counts its changes: of two made at once, the second is told of the first."""
    points = models.DecimalField(max_digits=6, decimal_places=1, null=True, blank=True)
    step = models.DecimalField(max_digits=3, decimal_places=1, default=1)
    rubric = models.JSONField(default=dict)
    """What it is judged by (``core.marking.rubrics``); empty where it has none."""
    series = models.CharField(max_length=36, blank=True, default="", db_index=True, db_collation="utf8mb4_bin")
    """The name of the series that it is one of; empty where it stands alone."""
    series_place = models.PositiveSmallIntegerField(default=0)
    series_version = models.PositiveIntegerField(default=0)
    """As which version the series has set it: another one was changed by itself."""
    client_key = models.CharField(max_length=36, null=True, blank=True, db_collation="utf8mb4_bin")
    """The form's own name of it: sent again, or from two windows at once, it is set once."""

    class Meta:
        """A time needs a day."""

        constraints = (
            models.UniqueConstraint(fields=("group", "client_key"), name="handin_of_a_form_once"),
            models.CheckConstraint(condition=Q(due_time=None) | Q(due_day__isnull=False), name="due_time_needs_day"),
            models.CheckConstraint(
                condition=Q(closes_time=None) | Q(closes_day__isnull=False), name="closing_time_needs_day"
            ),
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


class HandInStudent(models.Model):
    """A student whom a hand-in picks or leaves out, as its ``whom`` says."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="students")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="+")

    class Meta:
        """Once a student and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment"), name="handin_student_once"),)


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
    by = models.ForeignKey(Person, models.PROTECT, null=True, related_name="+")
    """Of the staff, who handed it in for the student; None where the student did."""
    entered_at = models.DateTimeField(null=True, blank=True)
    """When they did, where that is not the moment from which it counts."""
    how = models.CharField(max_length=10, blank=True, default="", choices=[(one, one) for one in WAYS])
    """How staff came by it."""
    along = models.ForeignKey("self", models.SET_NULL, null=True, related_name="others")
    """The submission of whoever pressed for all who fill something together; None where that is this one, or alone."""
    left_open = models.BooleanField(default=False)
    """Whether its pockets were left open, since it may be handed in again, and are to be locked once it is due."""
    open_until = models.DateTimeField(null=True, blank=True)
    """When that will be, as it was last worked out; None where it has no due moment."""
    empty = models.BooleanField(default=False)
    """Whether nothing of the student's lies in it, as its snapshot says."""
    unchanged = models.BooleanField(default=False)
    """Whether some of it is the starter as it was given."""

    class Meta:
        """Numbered once a student and hand-in; those left open are few and looked for often."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment", "number"), name="submission_number"),)
        indexes = (models.Index(fields=("left_open", "open_until"), name="submission_left_open"),)


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


class Reminder(models.Model):
    """What a student was told of what they owe: in somebody's words, the student's own missing things filled in."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="+")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="reminders")
    person = models.ForeignKey(Person, models.PROTECT, related_name="+")
    at = models.DateTimeField()
    text = models.TextField()
    handins = models.JSONField(default=list)

    class Meta:
        """Found by the class, the newest of each student."""

        indexes = (models.Index(fields=("group", "at"), name="reminder_of_class"),)


class KeptFilter(models.Model):
    """A filter of the pegs under a name of somebody's own, as a query string."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="+")
    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    name = models.CharField(max_length=60)
    address = models.CharField(max_length=1500)
    shared = models.BooleanField(default=False)

    class Meta:
        """A name once a person and class."""

        constraints = (models.UniqueConstraint(fields=("group", "person", "name"), name="filter_name_once"),)


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


class LaidBoard(models.Model):
    """A class's board as it was read last by a worker (``board.laid``): packed JSON."""

    group = models.OneToOneField(TeachingGroup, models.CASCADE, primary_key=True, related_name="+")
    cursor = models.BigIntegerField()
    """The number of the newest event of the class when it was read."""
    since = models.DateTimeField()
    until = models.DateTimeField()
    packed = models.BinaryField()


class Pack(models.Model):
    """Everything handed in for a hand-in as one file, or one submission marked, as somebody asked for it."""

    key = models.CharField(max_length=36, unique=True, db_collation="utf8mb4_bin")
    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="+")
    submission = models.ForeignKey(Submission, models.CASCADE, null=True, related_name="+")
    """Of this one alone, with what is said on it: a marked copy."""
    person = models.ForeignKey(Person, models.CASCADE, related_name="+")
    asked_at = models.DateTimeField()
    form = models.CharField(max_length=3, default="zip", choices=[(one, one) for one in ("zip", "pdf")])
    """A folder for each student, or pages to print."""
    total = models.PositiveIntegerField(default=0)
    done = models.PositiveIntegerField(default=0)
    """Students, of ``total``."""
    ready_at = models.DateTimeField(null=True)
    size = models.BigIntegerField(default=0)
    problem = models.CharField(max_length=300, blank=True, default="")


class OwnPart(models.Model):
    """What one of several who hand something in together says their part was."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="+")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="+")
    text = models.TextField(blank=True, default="")
    version = models.PositiveIntegerField(default=0)
    changed_at = models.DateTimeField()

    class Meta:
        """One a student and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment"), name="own_part_once"),)


class PartsConfirmed(models.Model):
    """That one of them says that what all say is right; ``seal`` names just that (a digest)."""

    handin = models.ForeignKey(HandIn, models.CASCADE, related_name="+")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="+")
    seal = models.CharField(max_length=64)
    at = models.DateTimeField()

    class Meta:
        """One a student and hand-in."""

        constraints = (models.UniqueConstraint(fields=("handin", "enrolment"), name="parts_confirmed_once"),)
