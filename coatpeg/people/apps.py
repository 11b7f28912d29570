"""The app of people."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.people"
    label = "people"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what notices are told from here."""
        from coatpeg.people import directory  # noqa: PLC0415 - models are not loaded before

        directory.register()
