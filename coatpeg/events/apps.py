"""The app of the record."""

from django.apps import AppConfig


class EventsConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.events"
    label = "events"
    default_auto_field = "django.db.models.BigAutoField"
