"""What of the files is looked after in the background: uploads that were never finished, previews and
pictures without a job.
"""

from __future__ import annotations

from django.utils import timezone

from coatpeg.files import previews, uploads, waiting
from coatpeg.jobs import health
from coatpeg.jobs.kinds import Kind, job
from coatpeg.jobs.schedules import every


@job(Kind("finishing and forgetting uploads"))
def see_to_uploads() -> int:
    """Let go what was never finished, finish what has all its bytes."""
    return uploads.sweep(timezone.now())


@job(Kind("forgetting what was done"))
def forget_jobs() -> int:
    """Forget background work that was done long ago."""
    return health.forget_old(timezone.now())


def register() -> None:
    """Look after files."""
    every("uploads", 60, lambda: uploads.to_see_to(timezone.now()), see_to_uploads)
    every("previews", 60, previews.are_forgotten, previews.ask_anew)
    every("pictures", 60, waiting.are_forgotten, waiting.ask_anew)
    every("jobs", 3600, lambda: health.has_old(timezone.now()), forget_jobs)
