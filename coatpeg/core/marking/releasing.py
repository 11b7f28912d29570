"""When a released mark is told.

On release the student's status, holds and words change at once; bell and mail tell of it ten seconds later, so that
what was pressed by mistake is taken back before anybody is called to look (the product's rule on *Marks*).
"""

from __future__ import annotations

from datetime import datetime, timedelta

DELIVERED_AFTER = timedelta(seconds=10)


def told_at(released_at: datetime) -> datetime:
    """From when on an outcome that was released at a moment is told."""
    return released_at + DELIVERED_AFTER
