"""The app of notices."""

from django.apps import AppConfig


class NoticesConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.notices"
    label = "notices"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what is looked after."""
        from coatpeg.notices import looked_after  # noqa: PLC0415 - models are not loaded before

        looked_after.register()
