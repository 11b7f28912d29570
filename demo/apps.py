"""The app of the demo; installed in demo mode only."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """Carries the command that loads the demo."""

    name = "demo"
    label = "demo"
