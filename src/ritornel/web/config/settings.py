"""Settings, each with an environment variable where an installation may need another value."""

import contextlib
import os
import resource
import secrets
import tempfile
from pathlib import Path

from ritornel.core.formats.media import Limits
from ritornel.web.config.disk_reserve import mind_reserve
from ritornel.web.config.static_stamp import stamp_of

PACKAGE = Path(__file__).resolve().parents[2]
VAR = Path(os.environ.get("RITORNEL_VAR", PACKAGE.parents[1] / "var")).resolve()
"""Where everything lies that is kept: nobody else on the machine can look into it."""
os.umask(0o077)
VAR.mkdir(parents=True, exist_ok=True)
TEMPORARY = VAR / "tmp"
TEMPORARY.mkdir(exist_ok=True)
# Whatever is written for a moment lies beside what is kept: on the same disk, and where tidying finds what a killed
# process left.
os.environ["TMPDIR"] = tempfile.tempdir = str(TEMPORARY)


def _close_to_others() -> None:
    """Restricts access also to folders made by an earlier version, or by hand."""
    for path, mode in ((VAR, 0o700), *((path, 0o600) for path in VAR.glob("*.sqlite3*"))):
        with contextlib.suppress(PermissionError, FileNotFoundError):
            if path.stat().st_mode & 0o777 != mode:
                path.chmod(mode)


_close_to_others()
mind_reserve(VAR)


def open_files_limit() -> int:
    """How many files and connections this process may open, raised to the system's limit."""
    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    wanted = min(hard, 65_536) if hard != resource.RLIM_INFINITY else 65_536
    if soft < wanted:
        resource.setrlimit(resource.RLIMIT_NOFILE, (wanted, hard))
    return max(soft, wanted)


def _secret_key() -> str:
    """The secret key, made at the first start and kept in var/, so that no secret is ever in the repository."""
    path = VAR / "secret_key"
    try:
        with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
            out.write(secrets.token_urlsafe(50))
    except FileExistsError:
        pass
    return path.read_text()


SECRET_KEY = os.environ.get("RITORNEL_SECRET_KEY") or _secret_key()
DEBUG = os.environ.get("RITORNEL_DEBUG") == "1"
ALLOWED_HOSTS = os.environ.get("RITORNEL_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
BEHIND_HTTPS = os.environ.get("RITORNEL_HTTPS") == "1"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "ritornel.web.streams",
    "ritornel.web.people",
    "ritornel.web.shows",
    "ritornel.web.stage",
    "ritornel.web.takes",
    "ritornel.web.releases",
    "ritornel.web.operations",
    "ritornel.web.help",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "ritornel.web.config.static.StaticFilesMiddleware",
    "ritornel.web.config.policy.ContentPolicyMiddleware",
    "ritornel.web.config.full_disk.FullDiskMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
]
ROOT_URLCONF = "ritornel.web.config.urls"
ASGI_APPLICATION = "ritornel.web.config.asgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [PACKAGE / "web" / "templates"],
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ],
            "libraries": {
                "modules": "ritornel.web.config.modules",
                "page_data": "ritornel.web.config.page_data",
            },
        },
    }
]
DATABASE_FILE = VAR / "ritornel.sqlite3"
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATABASE_FILE,
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTHENTICATION_BACKENDS = ["ritornel.web.people.identity.NameOrAddressBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
    )
]
LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "shows"
LOGOUT_REDIRECT_URL = "sign-in"

SMTP = os.environ.get("RITORNEL_SMTP", "")
"""Where mail goes out, as host:port; without it mail is kept in var/mail and read on a page."""
EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend" if SMTP else "ritornel.web.people.mail.FileMailBackend"
EMAIL_HOST, _, _port = SMTP.partition(":")
EMAIL_PORT = int(_port or 25)
EMAIL_HOST_USER = os.environ.get("RITORNEL_SMTP_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("RITORNEL_SMTP_PASSWORD", "")
EMAIL_USE_TLS = os.environ.get("RITORNEL_SMTP_TLS") == "1"
MAIL_RATE = os.environ.get("RITORNEL_MAIL_RATE", "300/hour")
"""How much mail may go out for one show."""
BRAKES_STORE = os.environ.get("RITORNEL_BRAKES", "memory://")
"""Where it is counted how often somebody tries something: in this process, or where several servers can see it
(redis://...).
"""
DEFAULT_FROM_EMAIL = os.environ.get("RITORNEL_FROM", "Ritornel <ritornel@localhost>")

STATICFILES_DIRS = [PACKAGE / "web" / "static"]
STATIC_STAMP = stamp_of(STATICFILES_DIRS)
STATIC_URL = f"/static/{STATIC_STAMP}/"
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = DEBUG
WHITENOISE_MAX_AGE = 0
"""Without the stamp of this version in its address a static file is asked for again each time, and answered by 304."""

STORAGES = {
    "default": {
        "BACKEND": "django.core.files.storage.FileSystemStorage",
        "OPTIONS": {"location": VAR / "media", "base_url": None},
    },
    "films": {
        "BACKEND": "django.core.files.storage.FileSystemStorage",
        "OPTIONS": {"location": VAR / "films", "base_url": None},
    },
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
HISTORY_DAYS = int(os.environ.get("RITORNEL_HISTORY_DAYS", "90"))
BIN_DAYS = int(os.environ.get("RITORNEL_BIN_DAYS", "30"))
"""How long what was removed lies in the bin."""
FILM_PROCESSES = int(os.environ.get("RITORNEL_FILM_PROCESSES", min(os.cpu_count() or 1, 4)))
"""How many processes draw the segments of a film at the same time."""
MEDIA_LIMITS = Limits(
    file_bytes=int(os.environ.get("RITORNEL_FILE_BYTES", Limits().file_bytes)),
    picture_pixels=int(os.environ.get("RITORNEL_PICTURE_PIXELS", Limits().picture_pixels)),
)
ARCHIVE_BYTES = 2_000_000_000
RECORDED_PART_BYTES = 4_000_000
"""The most of a recording that comes at once: forty seconds of sound that had to wait for the line."""
CATALOGUE = os.environ.get("RITORNEL_CATALOGUE", "ritornel.outside.standins.StandInCatalogue")
VIDEO_SITE = os.environ.get("RITORNEL_VIDEO_SITE", "ritornel.outside.standins.StandInVideoSite")
OUTSIDE_MANNER = os.environ.get("RITORNEL_OUTSIDE", "prompt")
"""How the stand-ins answer: prompt, slow or failing."""
OUTSIDE_S = float(os.environ.get("RITORNEL_OUTSIDE_S", "8"))
"""How long an outside service is waited for."""
MOST_STREAMS = {
    "person": int(os.environ.get("RITORNEL_STREAMS_PERSON", "40")),
    "address": int(os.environ.get("RITORNEL_STREAMS_ADDRESS", "800")),
    "release": int(os.environ.get("RITORNEL_STREAMS_RELEASE", "5000")),
    "run": int(os.environ.get("RITORNEL_STREAMS_RUN", "1000")),
    "server": int(os.environ.get("RITORNEL_STREAMS", "0")) or max(200, open_files_limit() - 600),
}
"""How many streams may be open at the same time: of one person, from one address of the network, of one release, of one
run, in all.
"""
DATA_UPLOAD_MAX_MEMORY_SIZE = 5_000_000
FILE_UPLOAD_MAX_MEMORY_SIZE = 2_500_000
FILE_UPLOAD_TEMP_DIR = TEMPORARY

LANGUAGE_CODE = "en"
TIME_ZONE = "UTC"
USE_TZ = True

SESSION_ENGINE = "ritornel.web.config.sessions"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = BEHIND_HTTPS
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_SSL_REDIRECT = BEHIND_HTTPS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_HTTPS else None
"""With RITORNEL_HTTPS=1 a proxy in front speaks HTTPS, and says so in this header, which it must set itself."""
SECURE_HSTS_SECONDS = 365 * 24 * 3600 if BEHIND_HTTPS else 0
SECURE_REFERRER_POLICY = "same-origin"
MESSAGE_STORAGE = "django.contrib.messages.storage.session.SessionStorage"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # What a person got wrong is told to that person; the log is for what the program got wrong.
    "loggers": {"django.request": {"level": "ERROR"}, "django.security.csrf": {"level": "ERROR"}},
}
TEST_RUNNER = os.environ.get("RITORNEL_TEST_RUNNER", "django.test.runner.DiscoverRunner")
