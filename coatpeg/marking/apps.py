"""The app of marking."""

from django.apps import AppConfig


class MarkingConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.marking"
    label = "marking"
    default_auto_field = "django.db.models.BigAutoField"
