"""The ASGI application."""

import os

from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ritornel.web.config.settings")
django_application = get_asgi_application()

from ritornel.web.config.static import StaticFirst  # noqa: E402 - it reads the settings, which are there only now

application = StaticFirst(django_application)
