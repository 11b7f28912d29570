"""The app of background work."""

from django.apps import AppConfig


class JobsConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.jobs"
    label = "jobs"
    default_auto_field = "django.db.models.BigAutoField"
