"""The WSGI application.

Once everything is loaded it is taken out of the garbage collector's sight: a board makes tens of thousands of small
tuples, and walking the whole framework each time they add up took longer than the board itself.
"""

import gc
import os
from importlib import import_module

from django.core.wsgi import get_wsgi_application

OBJECTS_BEFORE_COLLECTING = 50_000
"""About one large answer's worth of objects (Python's own default is 700)."""

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "coatpeg.web.settings")
application = get_wsgi_application()
import_module("coatpeg.web.checks").refuse_unsound()
import_module("coatpeg.web.urls")
gc.collect()
gc.freeze()
gc.set_threshold(OBJECTS_BEFORE_COLLECTING, 20, 20)
