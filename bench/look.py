"""Two hundred slides of the demo's kinds looked at as the worker does it, against one decoded picture a slide drawn and
nothing else.
"""

import os
import shutil
import tempfile
import time
from collections.abc import Iterator
from itertools import count
from pathlib import Path

import django
import msgspec

from ritornel.core.document import Show
from ritornel.demo.orlmere import FILES, MEDIA, orlmere

Line = tuple[str, str, str]
SLIDES, RUNS = 200, 3


def long_show() -> Show:
    """The demo's slides over and over, each with an id of its own."""
    show = orlmere()
    shown = [slide for slide in show.slides if not slide.skipped]
    slides = (msgspec.structs.replace(shown[number % len(shown)], id=f"s{number}") for number in count())
    return msgspec.structs.replace(show, slides=tuple(slide for slide, _ in zip(slides, range(SLIDES), strict=False)))


def measure() -> Iterator[Line]:
    with tempfile.TemporaryDirectory() as folder:
        os.environ["RITORNEL_VAR"] = folder
        os.environ["DJANGO_SETTINGS_MODULE"] = "ritornel.web.config.settings"
        django.setup()
        from ritornel.core.render.painter import Painter
        from ritornel.core.schedule.performance import frame_state_at_rest, perform
        from ritornel.web.editor.frame_analysis import known_analyses, look
        from ritornel.web.jobs.sandbox import make_ready
        from ritornel.web.shows.storage import media_path

        show = long_show()
        for asset in show.assets:
            media_path(asset.sha256).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy(MEDIA / FILES[asset.id][0], media_path(asset.sha256))
        make_ready()
        look(msgspec.structs.replace(show, slides=show.slides[:1]))
        taken = []
        for _ in range(RUNS):
            shutil.rmtree(Path(folder) / "looks")
            begun = time.perf_counter()
            look(show)
            taken.append(time.perf_counter() - begun)
            assert known_analyses(show)[1] == 0
        performance = perform(show)
        painter = Painter(performance, 480, 270, media_path)
        begun = time.perf_counter()
        for index in range(SLIDES):
            painter.image(frame_state_at_rest(performance, index, 0))
        bare = time.perf_counter() - begun
    yield "200 slides looked at in the worker, median of 3", f"{sorted(taken)[RUNS // 2]:.1f} s", "5 s"
    yield "the baseline: each drawn once, 480 px wide, by one process", f"{bare:.2f} s", ""
