"""The product's settings with what makes tests quick: a cheap password hash, no throttle kept between tests."""

from coatpeg.web.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "testserver"]
