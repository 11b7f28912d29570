"""A template's structure. Students never write here: portfolios point at pockets, nobody copies them."""

from __future__ import annotations

from django.db import models

from coatpeg.core.filling import PocketKind
from coatpeg.core.texts import Measure
from coatpeg.people.models import TeachingGroup


class Template(models.Model):
    """The structure a class's portfolios are made from."""

    group = models.OneToOneField(TeachingGroup, models.CASCADE, null=True, related_name="template")
    title = models.CharField(max_length=200)


class Section(models.Model):
    """A part of a template."""

    template = models.ForeignKey(Template, models.CASCADE, related_name="sections")
    title = models.CharField(max_length=200)
    position = models.PositiveSmallIntegerField(default=0)

    class Meta:
        """In their order."""

        ordering = ("position", "pk")


class Pocket(models.Model):
    """A named place that says what goes in it."""

    section = models.ForeignKey(Section, models.CASCADE, related_name="pockets")
    title = models.CharField(max_length=200)
    kind = models.CharField(max_length=10, choices=[(kind.value, kind.value) for kind in PocketKind])
    position = models.PositiveSmallIntegerField(default=0)
    directions = models.TextField(blank=True, default="")
    prompt = models.CharField(max_length=300, blank=True, default="")
    artefacts = models.PositiveSmallIntegerField(default=0)
    reflection_on_each = models.BooleanField(default=False)
    measure = models.CharField(
        max_length=10, blank=True, default="", choices=[(one.value, one.value) for one in Measure]
    )
    least = models.PositiveSmallIntegerField(default=1)
    most = models.PositiveSmallIntegerField(null=True, blank=True)
    starter = models.TextField(blank=True, default="")
    old_starters = models.JSONField(default=list)
    """Starters it had before: a text that still is one of them is no work."""
    takes = models.JSONField(default=list)
    """Kinds of artefact it takes; empty: any."""
    counts = models.BooleanField(default=True)
    opens = models.DateField(null=True, blank=True)
    retired_at = models.DateTimeField(null=True, blank=True)
    version = models.PositiveIntegerField(default=1)

    class Meta:
        """In their order; a length is from–to."""

        ordering = ("section__position", "section_id", "position", "pk")
        constraints = (
            models.CheckConstraint(
                condition=models.Q(most__isnull=True) | models.Q(most__gte=models.F("least")), name="length_from_to"
            ),
        )
