"""The app that puts it together."""

from django.apps import AppConfig


class WebConfig(AppConfig):
    """Registers the system checks."""

    name = "coatpeg.web"
    label = "web"

    def ready(self) -> None:
        """Load the checks."""
        from coatpeg.web import checks  # noqa: F401, PLC0415 - Django registers checks once apps are ready
