"""The shelf's own queue between server and worker, so that small pictures never wait behind a film."""

from django.conf import settings
from huey import SqliteHuey

from ritornel.core.document.show import Asset
from ritornel.web.shows.derived import make_light
from ritornel.web.shows.hearing import measure
from ritornel.web.shows.looking import look
from ritornel.web.shows.models import Show
from ritornel.web.shows.readings import read
from ritornel.web.shows.rows import value_of
from ritornel.web.shows.smalls import make_small, make_strip
from ritornel.web.shows.waves import make_wave

queue = SqliteHuey("ritornel-shelf", filename=str(settings.VAR / "shelf.sqlite3"), fsync=False)


@queue.task()  # type: ignore[untyped-decorator]
def small_picture(sha256: str) -> None:
    """Makes the small picture of a picture on a shelf."""
    make_small(sha256)


@queue.task()  # type: ignore[untyped-decorator]
def filmstrip(sha256: str, lasts_ms: int) -> None:
    """Makes the filmstrip of a clip on a shelf."""
    make_strip(sha256, lasts_ms)


@queue.task()  # type: ignore[untyped-decorator]
def wave(sha256: str, lasts_ms: int) -> None:
    """Makes the wave of a sound on a shelf."""
    make_wave(sha256, lasts_ms)


@queue.task()  # type: ignore[untyped-decorator]
def light(sha256: str) -> None:
    """Makes the lighter copy of a heavy clip."""
    make_light(sha256)


def begin_work(asset: Asset) -> None:
    """Has the worker make what belongs to a thing on the shelf."""
    if asset.width_px:
        small_picture(asset.sha256)
    if asset.kind == "clip":
        filmstrip(asset.sha256, asset.lasts_ms)
    if asset.kind == "sound":
        wave(asset.sha256, asset.lasts_ms)
    if asset.heavy:
        light(asset.sha256)


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
    """Looks at the slides of a show as they are seen."""
    row = Show.objects.filter(pk=show_id).first()
    if row is not None:
        look(value_of(row))
