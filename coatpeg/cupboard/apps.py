"""The app of the cupboard."""

from django.apps import AppConfig


class CupboardConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.cupboard"
    label = "cupboard"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what notices are told from here."""
        from coatpeg.cupboard import telling  # noqa: PLC0415 - models are not loaded before

        telling.register_all()
