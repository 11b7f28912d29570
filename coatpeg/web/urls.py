"""Addresses: the API, health, and the page for everything else."""

from django.urls import path, re_path

from coatpeg.web.api import api
from coatpeg.web.feeds import calendar_feed
from coatpeg.web.pages import front, health

handler500 = "coatpeg.web.pages.broken_page"
urlpatterns = [
    path("api/", api.urls),
    path("health", health),
    path("calendar/<str:secret>.ics", calendar_feed),
    re_path(r"^(?!static/|api/).*$", front),
]
