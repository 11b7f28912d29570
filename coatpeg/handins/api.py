"""The room's operations, all of them, on its router."""

from coatpeg.handins.asked import api as asked
from coatpeg.handins.board import api as board
from coatpeg.handins.handing import api as handing
from coatpeg.handins.router import router
from coatpeg.handins.student import api as student

__all__ = ["asked", "board", "handing", "router", "student"]
