"""The product's settings with what makes tests quick: a cheap password hash, no throttle kept between tests."""

from hypothesis import HealthCheck, settings

from coatpeg.web.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
CLEAN_PICTURES_LATER = False  # but where a test is about it: most have no worker
WHITENOISE_AUTOREFRESH = True  # files are found when they are asked for: no client of a test counts all of them first
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "testserver"]

# How long an example takes says how busy the machine is, not whether the rule holds; the examples stay as many.
settings.register_profile("any machine", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("any machine")
