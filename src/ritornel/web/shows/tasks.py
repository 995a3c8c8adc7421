"""The shelf's own queue between server and worker, so that small pictures never wait behind a film."""

from pathlib import Path

from ritornel.core.document.show import Asset
from ritornel.web.jobs.derived import ask_once, derived_path, taken_up
from ritornel.web.jobs.queue import Queue
from ritornel.web.shows.copies import light_path, make_light
from ritornel.web.shows.hearing import measure
from ritornel.web.shows.looking import look
from ritornel.web.shows.models import Show
from ritornel.web.shows.readings import read
from ritornel.web.shows.rows import value_of
from ritornel.web.shows.thumbnails import make_strip, make_thumbnail, strip_path, thumbnail_path
from ritornel.web.shows.waveforms import make_wave, wave_folder

queue = Queue("ritornel-shelf", "shelf.sqlite3", fsync=False)


@queue.task()  # type: ignore[untyped-decorator]
def thumbnail(sha256: str) -> None:
    """Makes the thumbnail of a picture or clip on a shelf."""
    make_thumbnail(sha256)


@queue.task()  # type: ignore[untyped-decorator]
def filmstrip(sha256: str, lasts_ms: int) -> None:
    """Makes the filmstrip of a clip on a shelf."""
    make_strip(sha256, lasts_ms)


@queue.task()  # type: ignore[untyped-decorator]
def wave(sha256: str, lasts_ms: int) -> None:
    """Makes the waveform of a sound on a shelf."""
    make_wave(sha256, lasts_ms)


@queue.task()  # type: ignore[untyped-decorator]
def light(sha256: str) -> None:
    """Makes the lighter copy of a heavy clip."""
    make_light(sha256)


def ask_for_thumbnail(asset: Asset) -> None:
    """Has the worker make the thumbnail, once, wherever it is wanted."""
    ask_once(thumbnail_path(asset.sha256), lambda: thumbnail(asset.sha256))


def ask_for_strip(asset: Asset) -> None:
    """The same of the filmstrip."""
    ask_once(strip_path(asset.sha256), lambda: filmstrip(asset.sha256, asset.lasts_ms))


def ask_for_wave(asset: Asset) -> None:
    """The same of the waveform."""
    ask_once(wave_folder(asset.sha256), lambda: wave(asset.sha256, asset.lasts_ms))


def ask_for_copy(asset: Asset) -> None:
    """The same of the lighter copy."""
    ask_once(light_path(asset.sha256), lambda: light(asset.sha256))


def begin_work(asset: Asset) -> None:
    """Has the worker make what belongs to a thing on the shelf."""
    if asset.width_px:
        ask_for_thumbnail(asset)
    if asset.kind == "clip":
        ask_for_strip(asset)
    if asset.kind == "sound":
        ask_for_wave(asset)
    if asset.heavy:
        ask_for_copy(asset)


@queue.task()  # type: ignore[untyped-decorator]
def read_file(reading_id: str) -> None:
    """Reads a file that came, to make a show of it."""
    for asset in read(reading_id):
        begin_work(asset)


@queue.task()  # type: ignore[untyped-decorator]
def hearing(show_id: str) -> None:
    """Measures how loud a show is."""
    row = Show.objects.filter(pk=show_id).first()
    if row is not None:
        measure(value_of(row))


@queue.task()  # type: ignore[untyped-decorator]
def looking(show_id: str) -> None:
    """Looks at the slides of a show as they are seen; one worker at a time, since what it sees is kept slide by slide."""
    row = Show.objects.filter(pk=show_id).first()
    if row is not None:
        with taken_up(_looks_of(show_id)) as mine:
            if mine:
                look(value_of(row))


def _looks_of(show_id: str) -> Path:
    return derived_path("frames of shows", show_id)


def ask_for_looks(show_id: str) -> None:
    """Has the worker look at a show's slides, once however often it is asked."""
    ask_once(_looks_of(show_id), lambda: looking(show_id))
