"""The ASGI application."""

import gc
import os
from importlib import import_module

from django.conf import settings
from django.core.asgi import get_asgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "ritornel.web.config.settings")
django_application = get_asgi_application()

from ritornel.core.document import decoding  # noqa: E402
from ritornel.web.config.bodies import BodyLimit  # noqa: E402
from ritornel.web.config.disk_reserve import keep_open  # noqa: E402
from ritornel.web.config.slow_line import SlowLine  # noqa: E402
from ritornel.web.config.static import StaticFirst  # noqa: E402 - it reads the settings, which are there only now
from ritornel.web.jobs.sandbox import make_ready  # noqa: E402
from ritornel.web.streams.server import StreamServer  # noqa: E402

application = SlowLine(StaticFirst(BodyLimit(StreamServer(django_application))))
kept_open = keep_open(settings.DATABASE_FILE)
make_ready()

# A full collection walks all that was ever imported: 55 to 85 ms in the middle of somebody's edit, once in thirty. What
# is loaded now stays for good and need not be looked at again, the views with all they use among it; values of shows
# are frozen and know no cycles, so that looking can wait.
import_module(settings.ROOT_URLCONF)
decoding.make_ready()
gc.freeze()
gc.set_threshold(50_000, 20, 100)
