"""The app of hand-ins."""

from django.apps import AppConfig


class HandInsConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.handins"
    label = "handins"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what notices are told from here."""
        from coatpeg.handins import telling  # noqa: PLC0415 - models are not loaded before

        telling.register_all()
