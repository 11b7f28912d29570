"""The app of hand-ins."""

from django.apps import AppConfig


class HandInsConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.handins"
    label = "handins"
    default_auto_field = "django.db.models.BigAutoField"
