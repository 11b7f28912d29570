"""How fast somebody marks today, so that it can be said how long the pile takes.

Decided here: the pace is the median of the time from one outcome to the next (what was given at one moment to many is
one); a longer gap than ``BREAK`` is a break, and with fewer than ``LEAST`` gaps there is no pace yet. The median is
that of ``statistics.median``: the middle value, of an even number the mean of the two in the middle.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta
from itertools import pairwise
from statistics import median

BREAK = timedelta(minutes=20)
LEAST = 3


def pace(moments: Iterable[datetime]) -> timedelta | None:
    """The time that one submission takes, of the moments at which outcomes were given; None where too few were."""
    gaps = [after - before for before, after in pairwise(sorted(set(moments)))]
    worked = [one for one in gaps if one <= BREAK]
    if len(worked) < LEAST:
        return None
    return timedelta(seconds=median(one.total_seconds() for one in worked))
