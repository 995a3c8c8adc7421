"""The worker's tasks for media on the shelf: thumbnails, filmstrips, waveforms, lighter copies."""

from ritornel.core.document.show import Asset
from ritornel.web.jobs.derived_files import ask_once
from ritornel.web.jobs.queue import small_jobs
from ritornel.web.library.browser_copies import light_path, make_light
from ritornel.web.library.thumbnails import make_strip, make_thumbnail, strip_path, thumbnail_path
from ritornel.web.library.waveforms import make_wave, wave_folder


@small_jobs.task()  # type: ignore[untyped-decorator]
def thumbnail(sha256: str) -> None:
    """Makes the thumbnail of a picture or clip on a shelf."""
    make_thumbnail(sha256)


@small_jobs.task()  # type: ignore[untyped-decorator]
def filmstrip(sha256: str, lasts_ms: int) -> None:
    """Makes the filmstrip of a clip on a shelf."""
    make_strip(sha256, lasts_ms)


@small_jobs.task()  # type: ignore[untyped-decorator]
def wave(sha256: str, lasts_ms: int) -> None:
    """Makes the waveform of a sound on a shelf."""
    make_wave(sha256, lasts_ms)


@small_jobs.task()  # type: ignore[untyped-decorator]
def light(sha256: str) -> None:
    """Makes the lighter copy of a heavy clip."""
    make_light(sha256)


def ask_for_thumbnail(asset: Asset) -> None:
    """Queues the thumbnail, once, wherever it is requested."""
    ask_once(thumbnail_path(asset.sha256), lambda: thumbnail(asset.sha256))


def ask_for_strip(asset: Asset) -> None:
    """Queues the filmstrip."""
    ask_once(strip_path(asset.sha256), lambda: filmstrip(asset.sha256, asset.lasts_ms))


def ask_for_wave(asset: Asset) -> None:
    """Queues the waveform."""
    ask_once(wave_folder(asset.sha256), lambda: wave(asset.sha256, asset.lasts_ms))


def ask_for_copy(asset: Asset) -> None:
    """Queues the lighter copy."""
    ask_once(light_path(asset.sha256), lambda: light(asset.sha256))


def begin_work(asset: Asset) -> None:
    """Queues everything that is derived from an entry of the shelf."""
    if asset.width_px:
        ask_for_thumbnail(asset)
    if asset.kind == "clip":
        ask_for_strip(asset)
    if asset.kind == "sound":
        ask_for_wave(asset)
    if asset.heavy:
        ask_for_copy(asset)
