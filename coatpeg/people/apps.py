"""The app of people."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.people"
    label = "people"
    default_auto_field = "django.db.models.BigAutoField"
