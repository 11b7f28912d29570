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
PROXIES = frozenset(env.list("COATPEG_PROXIES", default=[]))
"""Addresses of the proxies in front, whose word on scheme and address of a request is taken; nobody else's is."""
HTTPS = env.bool("COATPEG_HTTPS", default=False)
ADDRESS = env.str("COATPEG_ADDRESS", default="http://127.0.0.1:8710").rstrip("/")
"""Where people reach it: what addresses in mails begin with."""
MAIL_FOLDER = VAR / "mail"
EMAIL_HOST = env.str("COATPEG_SMTP_HOST", default="")
EMAIL_PORT = env.int("COATPEG_SMTP_PORT", default=587)
EMAIL_HOST_USER = env.str("COATPEG_SMTP_USER", default="")
EMAIL_HOST_PASSWORD = env.str("COATPEG_SMTP_PASSWORD", default="")
EMAIL_USE_TLS = env.bool("COATPEG_SMTP_TLS", default=True)
EMAIL_TIMEOUT = 20
EMAIL_BACKEND = f"django.core.mail.backends.{'smtp' if EMAIL_HOST else 'filebased'}.EmailBackend"
EMAIL_FILE_PATH = str(MAIL_FOLDER)
DEFAULT_FROM_EMAIL = env.str("COATPEG_MAIL_FROM", default="Coat Peg <coatpeg@localhost>")
UPLOAD_LIMIT = env.int("COATPEG_UPLOAD_LIMIT", default=2 * 1024**3)
"""Bytes of one file that comes up in parts."""
PORTFOLIO_QUOTA = env.int("COATPEG_PORTFOLIO_QUOTA", default=20 * 1024**3)
CLASS_QUOTA = env.int("COATPEG_CLASS_QUOTA", default=200 * 1024**3)
"""Bytes that one portfolio, and all of a class together, may hold: a film a week for a year in every portfolio."""
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
    "django_tasks_db",
    "coatpeg.jobs.apps.JobsConfig",
    "coatpeg.notices.apps.NoticesConfig",
    "coatpeg.people.apps.PeopleConfig",
    "coatpeg.files.apps.FilesConfig",
    "coatpeg.outlines.apps.OutlinesConfig",
    "coatpeg.portfolios.apps.PortfoliosConfig",
    "coatpeg.sharing.apps.SharingConfig",
    "coatpeg.cupboard.apps.CupboardConfig",
    "coatpeg.handins.apps.HandInsConfig",
    "coatpeg.setup.apps.SetupConfig",
    "coatpeg.marking.apps.MarkingConfig",
    "coatpeg.web.apps.WebConfig",
    *(["demo.apps.DemoConfig"] if DEMO else []),
]
MIDDLEWARE = [
    "coatpeg.web.middleware.take_word_of_proxies",
    "coatpeg.web.middleware.refuse_large_bodies",
    "coatpeg.web.middleware.answer_when_database_is_away",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "coatpeg.web.middleware.PlainAnswers",
    "coatpeg.web.middleware.Policy",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "coatpeg.web.middleware.hold_to_card",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "coatpeg.web.middleware.try_again_when_busy",
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
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
    {
        "NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator",
        "OPTIONS": {"user_attributes": ("username", "given_name", "family_name", "email")},
    },
]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = 5 / 60  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]  # a whole school shares one address
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
AXES_DISABLE_ACCESS_LOG = True

SESSION_ENGINE = "coatpeg.people.sessions"
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

TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend"}}
"""Background work stands in our own database, enqueued in the transaction that asks for it."""

DATA_UPLOAD_MAX_MEMORY_SIZE = 1024 * 1024
FILE_UPLOAD_TEMP_DIR = str(VAR / "incoming")
CLEAN_PICTURES_LATER = True
"""Whether a picture that came up lies in its pocket before a worker has cleaned it; nobody sees it before."""
FILE_UPLOAD_HANDLERS = ["django.core.files.uploadhandler.TemporaryFileUploadHandler"]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage", "OPTIONS": {"location": str(VAR / "files")}},
    "artefacts": {
        "BACKEND": env.str("COATPEG_STORE", default="coatpeg.files.storage.DurableStorage"),
        "OPTIONS": env.json("COATPEG_STORE_OPTIONS", default={"location": str(VAR / "files")}),
    },
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}

FRONTEND = BASE_DIR / "frontend" / "dist"
STATIC_URL = "/static/"
STATIC_ROOT = FRONTEND / "static"
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+[.-][\w-]{8}\.\w+$"
WHITENOISE_ALLOW_ALL_ORIGINS = False

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
    "security.W005",  # whether all of a school's hosts are served by HTTPS, and for good, is the school's to say
    "security.W021",
    "security.W008",
    "security.W012",
    "security.W016",
]
