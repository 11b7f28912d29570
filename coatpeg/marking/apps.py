"""The app of marking."""

from django.apps import AppConfig


class MarkingConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.marking"
    label = "marking"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what is told of marking."""
        from coatpeg.marking import telling  # noqa: PLC0415 - models are not loaded before

        telling.register_all()
