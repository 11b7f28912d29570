"""The room's operations, all of them, on its router."""

from coatpeg.portfolios.evidence import api as evidence
from coatpeg.portfolios.evidence import arrangement_api, texts_api
from coatpeg.portfolios.logs import api as logs
from coatpeg.portfolios.looking import api as looking
from coatpeg.portfolios.own import api as own
from coatpeg.portfolios.own import show_api
from coatpeg.portfolios.router import router

__all__ = ["arrangement_api", "evidence", "logs", "looking", "own", "router", "show_api", "texts_api"]
