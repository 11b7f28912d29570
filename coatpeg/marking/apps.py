"""The app of marking."""

from django.apps import AppConfig


class MarkingConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.marking"
    label = "marking"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what is told of marking, what is printed on a marked copy, and what a changed rubric does."""
        from coatpeg.handins.changing import judged  # noqa: PLC0415
        from coatpeg.handins.packs import paper  # noqa: PLC0415 - models are not loaded before
        from coatpeg.marking import telling  # noqa: PLC0415
        from coatpeg.marking.annotations import printing  # noqa: PLC0415
        from coatpeg.marking.rubrics import changing  # noqa: PLC0415

        telling.register_all()
        paper.register_marks(printing.marks)
        judged.register(changing.by_change)
