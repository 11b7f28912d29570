"""The room's operations, all of them, on its router."""

from coatpeg.handins.asked import api as asked
from coatpeg.handins.board import api as board
from coatpeg.handins.board import class_log_api as class_log
from coatpeg.handins.board import classes_api as classes
from coatpeg.handins.changing import api as changing
from coatpeg.handins.filters import api as filters
from coatpeg.handins.handing import api as handing
from coatpeg.handins.many import api as many
from coatpeg.handins.packs import api as packs
from coatpeg.handins.reminding import api as reminding
from coatpeg.handins.router import router
from coatpeg.handins.student import api as student

__all__ = [
    "asked",
    "board",
    "changing",
    "class_log",
    "classes",
    "filters",
    "handing",
    "many",
    "packs",
    "reminding",
    "router",
    "student",
]
