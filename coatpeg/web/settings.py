"""Settings from the environment, typed, with safe defaults; checked at start by ``coatpeg.web.checks``."""

from __future__ import annotations

from pathlib import Path

import environ
from csp.constants import NONE, SELF

env = environ.Env()
BASE_DIR = Path(__file__).resolve().parents[2]
VAR = Path(env.str("COATPEG_VAR", default=str(BASE_DIR / "var")))

DEMO = env.bool("COATPEG_DEMO", default=False)
"""Demo sign-in buttons, a weak secret, plain HTTP. Production refuses it together with a public host."""
DEBUG = False
NO_SECRET = "no secret is set"
SECRET_KEY = env.str("COATPEG_SECRET", default="") or NO_SECRET
ALLOWED_HOSTS = env.list("COATPEG_HOSTS", default=["127.0.0.1", "localhost"])
HTTPS = env.bool("COATPEG_HTTPS", default=False)
UPLOAD_LIMIT = env.int("COATPEG_UPLOAD_LIMIT", default=2 * 1024**3)
"""Bytes of one file that comes up in parts."""
FORM_LIMIT = 200 * 1024 * 1024
"""Bytes of one file that comes in a form, whole: lists, pictures for a cover."""

INSTALLED_APPS = [
    "django.contrib.contenttypes",
    "django.contrib.auth",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "coatpeg.events.apps.EventsConfig",
    "coatpeg.people.apps.PeopleConfig",
    "coatpeg.outlines.apps.OutlinesConfig",
    "coatpeg.portfolios.apps.PortfoliosConfig",
    "coatpeg.handins.apps.HandInsConfig",
    "coatpeg.marking.apps.MarkingConfig",
    "coatpeg.web.apps.WebConfig",
    *(["demo.apps.DemoConfig"] if DEMO else []),
]
MIDDLEWARE = [
    "coatpeg.web.middleware.refuse_large_bodies",
    "coatpeg.web.middleware.answer_when_database_is_away",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "coatpeg.web.urls"
WSGI_APPLICATION = "coatpeg.web.wsgi.application"
TEMPLATES: list[dict[str, object]] = []

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": env.str("COATPEG_DB_NAME", default="coatpeg"),
        "USER": env.str("COATPEG_DB_USER", default="root"),
        "PASSWORD": env.str("COATPEG_DB_PASSWORD", default=""),
        "HOST": env.str("COATPEG_DB_HOST", default=""),
        "PORT": env.str("COATPEG_DB_PORT", default=""),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "isolation_level": "read committed",
            "init_command": "SET sql_mode='STRICT_ALL_TABLES', innodb_lock_wait_timeout=20",
            "connect_timeout": 5,
        },
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_uca1400_ai_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "people.Person"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = 5 / 60  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]  # a whole school shares one address
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
AXES_DISABLE_ACCESS_LOG = True
AXES_IPWARE_PROXY_COUNT = env.int("COATPEG_PROXIES", default=0)

SESSION_COOKIE_NAME = "coatpeg"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = HTTPS
SESSION_COOKIE_AGE = 60 * 60 * 24 * 14
CSRF_COOKIE_NAME = "coatpeg_csrf"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SECURE = HTTPS
CSRF_FAILURE_VIEW = "coatpeg.web.problems.csrf_failure"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 365 if HTTPS else 0
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "img-src": [SELF, "blob:", "data:"],
        "media-src": [SELF, "blob:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "form-action": [SELF],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
    }
}

DATA_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024
FILE_UPLOAD_TEMP_DIR = str(VAR / "incoming")
FILE_UPLOAD_HANDLERS = ["django.core.files.uploadhandler.TemporaryFileUploadHandler"]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage", "OPTIONS": {"location": str(VAR / "files")}},
    "artefacts": {
        "BACKEND": env.str("COATPEG_STORE", default="coatpeg.portfolios.storage.DurableStorage"),
        "OPTIONS": env.json("COATPEG_STORE_OPTIONS", default={"location": str(VAR / "files")}),
    },
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}

FRONTEND = BASE_DIR / "frontend" / "dist"
STATIC_URL = "/static/"
STATIC_ROOT = FRONTEND / "static"
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+[.-][\w-]{8}\.\w+$"

USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"django.request": {"level": "ERROR"}, "axes": {"level": "ERROR"}},
}
SILENCED_SYSTEM_CHECKS = [
    "axes.W002",  # the API answers a lock-out itself, as a problem document
    "security.W004",  # HSTS is set where HTTPS is
    "security.W008",
    "security.W012",
    "security.W016",
]
