"""The app of files."""

from django.apps import AppConfig


class FilesConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.files"
    label = "files"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what is looked after."""
        from coatpeg.files import looked_after  # noqa: PLC0415 - models are not loaded before

        looked_after.register()
