"""What rendered frames show of each slide. The worker analyses each version of a slide once, so that an edit costs the
analysis of one slide.
"""

import contextlib
import hashlib
import itertools
from collections.abc import Iterable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import msgspec

from ritornel.core.document.decoding import to_json
from ritornel.core.document.show import Show, Slide
from ritornel.core.errors import BadMedia
from ritornel.core.render.frame_analysis import write_analyses
from ritornel.core.schedule.measurements import FrameAnalysis
from ritornel.web.config.atomic_files import atomic_file
from ritornel.web.jobs.derived_files import derived_path
from ritornel.web.jobs.sandbox import Bounds, run_confined
from ritornel.web.shows.services import media_path

AT_ONCE = 50
"""So many slides are looked at in one confined process: those of one part of a show share their pictures."""
BESIDE = 2
"""So many such processes run beside each other."""
LONG = Bounds(wall_s=300, cpu_s=300)


def _stamp(show: Show, slide: Slide, before: Slide | None, media: bytes) -> str:
    """A stamp of everything that the analysis of a slide depends on: the slide, the one before it, the theme, the
    frame, the files of its media.
    """
    parts = (slide, before, show.theme, show.furniture, show.frame, show.default_hold_ms, show.holds_by_cue)
    return hashlib.sha256(to_json(parts) + media).hexdigest()


def _stamps(show: Show) -> dict[str, str]:
    shown = show.shown
    media = to_json(sorted((asset.id, asset.sha256) for asset in show.assets if asset.width_px))
    pairs = itertools.pairwise([None, *shown])
    return {slide.id: _stamp(show, slide, before, media) for before, slide in pairs if slide is not None}


def _path(stamp: str) -> Path:
    return derived_path("frames", stamp, ".json")


def known_analyses(show: Show) -> tuple[dict[str, FrameAnalysis], int]:
    """The known analysis of each slide, and how many are still missing."""
    known: dict[str, FrameAnalysis] = {}
    left = 0
    for slide_id, stamp in _stamps(show).items():
        path = _path(stamp)
        if path.is_file():
            known[slide_id] = msgspec.json.decode(path.read_bytes(), type=FrameAnalysis)
        else:
            left += 1
    return known, left


def _groups(entries: list[tuple[str, str]]) -> Iterable[list[tuple[str, str]]]:
    for first in range(0, len(entries), AT_ONCE):
        yield entries[first : first + AT_ONCE]


def look(show: Show) -> None:
    """Analyses all slides without an analysis.

    For a slide that cannot be drawn, or that crashes the process, it notes that nothing is known.
    """
    missing = [(slide_id, stamp) for slide_id, stamp in _stamps(show).items() if not _path(stamp).is_file()]
    media = {asset.sha256: media_path(asset.sha256) for asset in show.assets if asset.width_px}
    document = to_json(show)

    def look_at(group: list[tuple[str, str]]) -> None:
        for _, stamp in group:
            _path(stamp).parent.mkdir(parents=True, exist_ok=True)
        while group:
            with contextlib.suppress(BadMedia, OSError):
                run_confined(
                    write_analyses,
                    document,
                    [(slide_id, _path(stamp)) for slide_id, stamp in group],
                    media,
                    what=show.title,
                    bounds=LONG,
                )
            group = [entry for entry in group if not _path(entry[1]).is_file()]
            # They are looked at in their order: the first that is missing is the one the process fell over.
            for _, stamp in group[:1]:
                with atomic_file(_path(stamp)) as unfinished:
                    unfinished.write_bytes(msgspec.json.encode(FrameAnalysis()))
            group = group[1:]

    with ThreadPoolExecutor(BESIDE) as pool:
        list(pool.map(look_at, _groups(missing)))
