"""A show's media for browsers: their names and places."""

from pathlib import Path

from ritornel.core.document.show import Asset
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import file_name
from ritornel.core.schedule.performance import Performance
from ritornel.core.sound.tempo import asset_and_rate
from ritornel.web.library.services import ask_for_copy, copy_failure, light_path, tempo_path
from ritornel.web.shows.services import media_path


def served_name(asset: Asset, rate_pct: int = 100) -> str:
    """The name of a medium, or of its sound at another speed, in an edition."""
    if rate_pct != 100:
        return f"{asset.sha256}-{rate_pct}.flac"
    return f"{asset.sha256}-light.mp4" if asset.heavy else file_name(asset)


def file_of(asset: Asset, rate_pct: int = 100) -> tuple[Path, str]:
    """The place of a medium for browsers, and its type. Raises BadMedia where it is missing."""
    if rate_pct != 100:
        path, media_type = tempo_path(asset.sha256, rate_pct), "audio/flac"
    elif asset.heavy:
        path, media_type = light_path(asset.sha256), "video/mp4"
    else:
        path, media_type = media_path(asset.sha256), asset.media_type
    if not path.is_file():
        if asset.heavy and rate_pct == 100:
            raise missing_copy(asset)
        raise BadMedia(f"The file of “{asset.name}” is missing. Add it again or replace it on the shelf.")
    return path, str(media_type)


def missing_copy(asset: Asset) -> BadMedia:
    """The message about a missing lighter copy, which is requested now."""
    failure = copy_failure(asset.sha256)
    if failure is not None:
        return BadMedia(
            f"No lighter copy of “{asset.name}” could be made for browsers: {failure} Replace the clip on the shelf."
        )
    ask_for_copy(asset)
    return BadMedia(
        f"The lighter copy of “{asset.name}” that browsers are shown is still being made. Try again in a moment."
    )


def used_media(staged: Performance) -> dict[str, tuple[Asset, int]]:
    """Each medium that the show needs with its speed in per cent, by its name in the performance."""
    named = staged.media(lambda asset, rate_pct: asset.id)
    return {
        key: (staged.assets[asset_and_rate(key)[0]], asset_and_rate(key)[1])
        for key in named
        if asset_and_rate(key)[0] in staged.assets
    }
