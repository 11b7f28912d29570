"""People, the school, its calendar, teaching groups and who is in them."""

from __future__ import annotations

import secrets
from datetime import date
from typing import Any

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.db import models
from django.utils.crypto import salted_hmac

from coatpeg.core.people import names
from coatpeg.core.policy import Role
from coatpeg.events.prepared import Found


class People(BaseUserManager["Person"]):
    """All people."""

    def get(self, *args: Any, **of: Any) -> Person:
        """One of them; by the key alone, as every request asks for whoever is signed in, by a prepared query.

        What Django makes of this for a relation has people of its own to look among.
        """
        if args or set(of) != {"pk"} or type(self) is not People:
            return super().get(*args, **of)
        found = _PERSON.get(of["pk"])
        if found is None:
            raise Person.DoesNotExist
        return found


class Person(AbstractBaseUser):
    """Anybody: staff or student. A person without a user name has no sign-in."""

    username = models.CharField(max_length=60, unique=True, null=True, blank=True, db_collation="utf8mb4_bin")
    given_name = models.CharField(max_length=100)
    family_name = models.CharField(max_length=100, blank=True, default="")
    email = models.EmailField(blank=True, default="")
    number = models.CharField(max_length=40, unique=True, null=True, blank=True, db_collation="utf8mb4_bin")
    """The school's own number of a student."""
    family_first = models.BooleanField(default=False)
    """The name is written and said family name first."""
    to_complete = models.BooleanField(default=False)
    """A student whose name was made from an address, until a list gives it."""
    same_as = models.ForeignKey("self", models.SET_NULL, null=True, blank=True, related_name="+")
    """The account that this one was put together with: it is closed, and no list finds it."""
    is_active = models.BooleanField(default=True)
    is_staff = models.BooleanField(default=False)
    """A member of staff: may be given a role in a class, and start one."""
    is_administrator = models.BooleanField(default=False)
    reading = models.JSONField(default=dict, blank=True)
    """How this person likes to read: face, size, spacing, tint, ruler (``people.reading``)."""
    sessions_key = models.CharField(max_length=32, default="", blank=True, db_collation="utf8mb4_bin")
    """Made anew by *sign out everywhere*: sessions begun under another one are over."""
    only_in: int | None = None
    """The one class that is open in this request, where a sign-in card opened it; kept in the session, not here."""

    USERNAME_FIELD = "username"
    objects = People()

    @property
    def listed(self) -> str:
        """The name as lists show it."""
        return names.listed(self.family_name, self.given_name, family_first=self.family_first)

    @property
    def full_name(self) -> str:
        """The name as it is said."""
        return names.full(self.family_name, self.given_name, family_first=self.family_first)

    def get_session_auth_hash(self) -> str:
        """What a session must have begun under to go on: the password and the sessions' key."""
        if not self.sessions_key:
            return super().get_session_auth_hash()
        return salted_hmac("coatpeg.sessions", self.password + self.sessions_key, algorithm="sha256").hexdigest()


_PERSON = Found(Person)


def new_calendar_key() -> str:
    """A key that no calendar had before."""
    return secrets.token_hex(16)


class School(models.Model):
    """The one school of this installation: its name, zone and school weekdays (Monday is 0).

    ``calendar_key`` is made anew by every change of the calendar: what was read under another key is out of date.
    """

    name = models.CharField(max_length=200)
    zone = models.CharField(max_length=60, default="UTC")
    weekdays = models.JSONField(default=list)
    calendar_key = models.CharField(max_length=32, default=new_calendar_key, db_collation="utf8mb4_bin")


class Term(models.Model):
    """A term with both its days."""

    name = models.CharField(max_length=100)
    first = models.DateField()
    last = models.DateField()

    class Meta:
        """In order of time; the end not before the beginning."""

        ordering = ("first",)
        constraints = (
            models.CheckConstraint(condition=models.Q(last__gte=models.F("first")), name="term_ends_after_start"),
        )


class NonSchoolDay(models.Model):
    """A day without school, with its name."""

    day = models.DateField(unique=True)
    name = models.CharField(max_length=100)


class TeachingGroup(models.Model):
    """A class, caseload or cohort."""

    class Kind(models.TextChoices):
        """What the group is; a caseload has no portfolios of its own."""

        CLASS = "class"
        CASELOAD = "caseload"
        COHORT = "cohort"

    name = models.CharField(max_length=200)
    kind = models.CharField(max_length=10, choices=Kind)
    first = models.DateField()
    last = models.DateField()
    put_away_at = models.DateTimeField(null=True, blank=True)
    """When its lead put it away: read by its staff and students, changed by nobody, until it is brought back."""
    takes_lists_by = models.ForeignKey(Person, models.SET_NULL, null=True, blank=True, related_name="+")
    """In whose name lists from the roster folder are applied by themselves; None: somebody looks at them first."""
    pages_together = models.BooleanField(default=False)
    """Students may begin pages with classmates whom they choose."""


class Period(models.Model):
    """The class hour a student comes in."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="periods")
    name = models.CharField(max_length=40)

    class Meta:
        """Named once in a group."""

        ordering = ("name",)
        constraints = (models.UniqueConstraint(fields=("group", "name"), name="period_once_in_group"),)


class Enrolment(models.Model):
    """A student in a teaching group, from–to (both included), with their peg picture and tint.

    ``lap`` counts how often all pictures in all tints have been dealt before: a year group has more students than
    there are pegs, and only then do two look alike.
    """

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="enrolments")
    person = models.ForeignKey(Person, models.PROTECT, related_name="enrolments")
    first = models.DateField()
    last = models.DateField(null=True, blank=True)
    picture = models.CharField(max_length=40, db_collation="utf8mb4_bin")
    tint = models.PositiveSmallIntegerField(default=0)
    lap = models.PositiveSmallIntegerField(default=0)

    class Meta:
        """Once a group, and no peg picture twice there, as far as they reach."""

        constraints = (
            models.UniqueConstraint(fields=("group", "person"), name="enrolled_once"),
            models.UniqueConstraint(fields=("group", "picture", "tint", "lap"), name="peg_picture_once"),
        )


class Absence(models.Model):
    """Days between leaving a group and coming back, both included: not enrolled on them."""

    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="absences")
    first = models.DateField()
    last = models.DateField()


class SignInCard(models.Model):
    """A card that signs a student in to one class: the hash of its secret, and whether it still works.

    ``group`` is the class that printed it; a card without one works no more.
    """

    person = models.ForeignKey(Person, models.CASCADE, related_name="cards")
    group = models.ForeignKey(TeachingGroup, models.CASCADE, null=True, related_name="cards")
    sha256 = models.CharField(max_length=64, unique=True, db_collation="utf8mb4_bin")
    made_at = models.DateTimeField()
    made_by = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")
    voided_at = models.DateTimeField(null=True, blank=True)


class FeedAddress(models.Model):
    """A person's secret calendar address: the hash of its secret. A new one, or none, makes the old one void."""

    person = models.OneToOneField(Person, models.CASCADE, related_name="feed")
    sha256 = models.CharField(max_length=64, unique=True, db_collation="utf8mb4_bin")
    made_at = models.DateTimeField()


class RosterChange(models.Model):
    """What one whole-list action did, so that it can be undone; ``data`` is forgotten with the undo."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="roster_changes")
    person = models.ForeignKey(Person, models.PROTECT)
    at = models.DateTimeField()
    data = models.JSONField()
    undone_at = models.DateTimeField(null=True, blank=True)


class RosterDrop(models.Model):
    """A list that came through the roster folder for a class: pending until it is applied or put aside.

    ``table`` (heading, rows, columns) is forgotten then.
    """

    class State(models.TextChoices):
        """What became of it."""

        PENDING = "pending"
        APPLIED = "applied"
        ASIDE = "aside"

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="roster_drops")
    name = models.CharField(max_length=200, db_collation="utf8mb4_bin")
    sha256 = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    at = models.DateTimeField()
    state = models.CharField(max_length=10, choices=State, default=State.PENDING)
    message = models.CharField(max_length=500, blank=True, default="")
    table = models.JSONField(default=dict)
    change = models.ForeignKey(RosterChange, models.SET_NULL, null=True, related_name="+")
    missing = models.JSONField(default=list)
    """Enrolments that it did not name when it was applied by itself, until somebody says what became of them."""


class PutTogether(models.Model):
    """Two accounts that turned out to be one student's, put together; ``data`` undoes it, and goes with that."""

    kept = models.ForeignKey(Person, models.CASCADE, related_name="+")
    other = models.ForeignKey(Person, models.CASCADE, related_name="+")
    by = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")
    at = models.DateTimeField()
    data = models.JSONField()
    undone_at = models.DateTimeField(null=True, blank=True)


class JoinRequest(models.Model):
    """A class's request for a student known from elsewhere, until somebody who may says so, or it lapses.

    ``entry`` holds the name, period and working group as the asker's list has them, and nothing of the account.
    """

    class State(models.TextChoices):
        """What became of it."""

        WAITING = "waiting"
        CONFIRMED = "confirmed"
        DECLINED = "declined"
        WITHDRAWN = "withdrawn"

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="join_requests")
    student = models.ForeignKey(Person, models.CASCADE, related_name="join_requests")
    asked_by = models.ForeignKey(Person, models.CASCADE, related_name="+")
    asked_at = models.DateTimeField()
    lapses = models.DateField()
    """The last day on which it can be confirmed."""
    entry = models.JSONField(default=dict)
    first = models.DateField(null=True, blank=True)
    """The day on which the student is to join; None: the day it is confirmed."""
    state = models.CharField(max_length=10, choices=State, default=State.WAITING)
    settled_by = models.ForeignKey(Person, models.SET_NULL, null=True, blank=True, related_name="+")
    settled_at = models.DateTimeField(null=True, blank=True)


class PeriodMembership(models.Model):
    """Which period a student is in, from–to."""

    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="periods")
    period = models.ForeignKey(Period, models.CASCADE, related_name="memberships")
    first = models.DateField()
    last = models.DateField(null=True, blank=True)


class GroupSet(models.Model):
    """Groups of a class that were formed together: a student is in one of a set at a time.

    The first set of a class (by id) is the one that class lists mean, and pockets that name none.
    """

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="group_sets")
    name = models.CharField(max_length=40)
    old_names = models.JSONField(default=list)
    """What it was called before: pockets that say so still mean it."""
    chosen_until = models.DateField(null=True, blank=True)
    """The last day on which students choose their group themselves; None: staff put them in."""
    most = models.PositiveSmallIntegerField(null=True, blank=True)
    """Students in a group at most, where they choose."""
    apart = models.JSONField(default=list)
    """Students (lists of enrolments) of whom no two are drawn into one group; for the staff who form them alone."""
    together = models.JSONField(default=list)
    """Students who are drawn into the same group."""
    seed = models.PositiveIntegerField(null=True, blank=True)
    """That of the last draw."""

    class Meta:
        """Named once in a class."""

        ordering = ("pk",)
        constraints = (models.UniqueConstraint(fields=("group", "name"), name="group_set_once"),)


class WorkingGroup(models.Model):
    """Two or more students of a class who work together. Its name is the only one of its class, in whatever set."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="working_groups")
    of = models.ForeignKey(GroupSet, models.CASCADE, related_name="groups")
    name = models.CharField(max_length=100)
    members = models.ManyToManyField(Enrolment, through="GroupMember", related_name="working_groups")

    class Meta:
        """Named once in a group."""

        ordering = ("name",)
        constraints = (models.UniqueConstraint(fields=("group", "name"), name="working_group_once"),)


class GroupMember(models.Model):
    """Who is in a working group now; ``first`` is the day on which they came, where it is known."""

    workinggroup = models.ForeignKey(WorkingGroup, models.CASCADE, related_name="places")
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="group_places")
    first = models.DateField(null=True)

    class Meta:
        """Once in each."""

        db_table = "people_workinggroup_members"
        unique_together = (("workinggroup", "enrolment"),)


class FormerGroupMember(models.Model):
    """Who was in a working group until when; ``name`` is that of the group, which may be gone."""

    of = models.ForeignKey(GroupSet, models.CASCADE, related_name="former")
    workinggroup = models.ForeignKey(WorkingGroup, models.SET_NULL, null=True, related_name="former")
    name = models.CharField(max_length=100)
    enrolment = models.ForeignKey(Enrolment, models.CASCADE, related_name="former_groups")
    first = models.DateField(null=True)
    last = models.DateField()
    at = models.DateTimeField()


class StaffRoles(models.QuerySet["StaffRole"]):
    """Roles of staff."""

    def on(self, day: date) -> StaffRoles:
        """Those that count on a day."""
        return self.filter(
            models.Q(first=None) | models.Q(first__lte=day), models.Q(last=None) | models.Q(last__gte=day)
        )


class StaffRole(models.Model):
    """What a member of staff is in a teaching group; for good, or from a day to a day (both included)."""

    group = models.ForeignKey(TeachingGroup, models.CASCADE, related_name="staff")
    person = models.ForeignKey(Person, models.PROTECT, related_name="staff_roles")
    role = models.CharField(
        max_length=12,
        choices=[(role.value, role.value) for role in (Role.LEAD, Role.CO_TEACHER, Role.MARKER, Role.OBSERVER)],
    )
    first = models.DateField(null=True, blank=True)
    last = models.DateField(null=True, blank=True)
    objects = StaffRoles.as_manager()

    class Meta:
        """One role a person and group."""

        constraints = (
            models.UniqueConstraint(fields=("group", "person"), name="one_staff_role"),
            models.CheckConstraint(
                condition=models.Q(first=None) | models.Q(last=None) | models.Q(last__gte=models.F("first")),
                name="staff_role_ends_after_start",
            ),
        )


class Adjustment(models.Model):
    """What was agreed for a student, in a span: extra school days for what is due in it, and what is wanted.

    The reason is for the coordinator and the leads. ``percent`` is of the asked length; ``without`` holds kinds of
    pocket in which nothing is wanted.
    """

    person = models.ForeignKey(Person, models.CASCADE, related_name="adjustments")
    extra_days = models.PositiveSmallIntegerField(default=0)
    fewer_artefacts = models.PositiveSmallIntegerField(default=0)
    percent = models.PositiveSmallIntegerField(default=100)
    spoken = models.BooleanField(default=False)
    without = models.JSONField(default=list)
    first = models.DateField()
    last = models.DateField(null=True, blank=True)
    reason = models.TextField(blank=True, default="")
    agreed_by = models.ForeignKey(Person, models.SET_NULL, null=True, related_name="+")
    version = models.PositiveIntegerField(default=1)
