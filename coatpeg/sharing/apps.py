"""The app of pages that are filled together."""

from django.apps import AppConfig


class SharingConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.sharing"
    label = "sharing"
    default_auto_field = "django.db.models.BigAutoField"
