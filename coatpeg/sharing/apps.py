"""The app of pages that are filled together."""

from django.apps import AppConfig


class SharingConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.sharing"
    label = "sharing"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what a write into a pocket that many fill means, and what is told from here."""
        from coatpeg.portfolios.writing import when_together  # noqa: PLC0415 - models are not loaded before
        from coatpeg.sharing import own, settling, things  # noqa: PLC0415 - the same

        when_together(things.begin, settling.went_in)
        own.register_all()
