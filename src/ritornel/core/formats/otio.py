"""The self-running show as an OpenTimelineIO timeline (Academy Software Foundation, otio_json; schemas Timeline.1,
Track.1, Clip.2), for programs that cut films. Times are exact: at a rate of 1 000 all values are whole milliseconds.
"""

from collections.abc import Iterable
from typing import Any

import msgspec

from ritornel.core.document.show import Asset
from ritornel.core.formats.export import Export
from ritornel.core.formats.media import file_name
from ritornel.core.schedule.performance import Performance, StagedSlide, perform
from ritornel.core.sound.tempo import asset_and_rate

RATE = 1000.0


class _Laid(msgspec.Struct, frozen=True):
    """An item of a track: its span, its medium, and where in the medium it begins."""

    name: str
    start_ms: int
    end_ms: int
    asset: Asset | None
    in_ms: int = 0
    metadata: dict[str, Any] = {}


def _time(ms: int) -> dict[str, Any]:
    return {"OTIO_SCHEMA": "RationalTime.1", "rate": RATE, "value": float(ms)}


def _span(start_ms: int, lasts_ms: int) -> dict[str, Any]:
    return {"OTIO_SCHEMA": "TimeRange.1", "start_time": _time(start_ms), "duration": _time(lasts_ms)}


def _item(schema: str, name: str, span: dict[str, Any] | None, **more: Any) -> dict[str, Any]:
    return {
        "OTIO_SCHEMA": schema,
        "name": name,
        "source_range": span,
        "effects": [],
        "markers": [],
        "enabled": True,
        "metadata": {},
        **more,
    }


def _medium(asset: Asset | None) -> dict[str, Any]:
    if asset is None:
        return {
            "OTIO_SCHEMA": "MissingReference.1",
            "name": "",
            "available_range": None,
            "available_image_bounds": None,
            "metadata": {},
        }
    available = _span(0, asset.lasts_ms) if asset.lasts_ms else None
    # Where an archive of the show keeps it.
    address = f"media/{file_name(asset)}"
    return {
        "OTIO_SCHEMA": "ExternalReference.1",
        "name": asset.name,
        "target_url": address,
        "available_range": available,
        "available_image_bounds": None,
        "metadata": {},
    }


def _clip(laid: _Laid, markers: list[dict[str, Any]]) -> dict[str, Any]:
    more = {
        "media_references": {"DEFAULT_MEDIA": _medium(laid.asset)},
        "active_media_reference_key": "DEFAULT_MEDIA",
        "markers": markers,
    }
    return _item(
        "Clip.2",
        laid.name,
        _span(laid.in_ms, laid.end_ms - laid.start_ms),
        **{**more, "metadata": {"ritornel": laid.metadata}},
    )


def _lanes(entries: Iterable[_Laid]) -> list[list[_Laid]]:
    """The items on as few tracks as can hold them without overlap: each goes onto the first track that is free when it
    begins.

    Music of 12 000 ms that crossfades for 500 alternates between two tracks.
    """
    lanes: list[list[_Laid]] = []
    for entry in sorted(
        (entry for entry in entries if entry.end_ms > entry.start_ms), key=lambda entry: entry.start_ms
    ):
        free = next((lane for lane in lanes if lane[-1].end_ms <= entry.start_ms), None)
        if free is None:
            lanes.append([entry])
        else:
            free.append(entry)
    return lanes


def _track(
    kind: str, name: str, lane: list[_Laid], markers: dict[int, list[dict[str, Any]]] | None = None
) -> dict[str, Any]:
    children, reached = [], 0
    for entry in lane:
        if entry.start_ms > reached:
            children.append(_item("Gap.1", "", _span(0, entry.start_ms - reached)))
        children.append(_clip(entry, (markers or {}).get(entry.start_ms, [])))
        reached = entry.end_ms
    return _item("Track.1", name, None, kind=kind, children=children)


def _cues(staged: StagedSlide) -> list[dict[str, Any]]:
    """A marker where each beat after the first begins, on the slide's clock."""
    return [
        {
            "OTIO_SCHEMA": "Marker.2",
            "name": f"cue {number}",
            "color": "MAGENTA",
            "marked_range": _span(beat.start_ms, 0),
            "comment": "",
            "metadata": {},
        }
        for number, beat in enumerate(staged.schedule.beats)
        if number
    ]


def write_otio(performance: Performance) -> str:
    """The timeline as JSON: a track of slides with their cues as markers, and one or more tracks each of clips, voices,
    music and effects. Builds, the looks of transitions, fades and ducking are left out, since such timelines cannot
    hold them; levels stand in the metadata.
    """
    starts = performance.schedule.starts_ms
    slides = [
        _Laid(
            staged.slide.name or f"Slide {at + 1}",
            starts[at],
            starts[at] + staged.schedule.length_ms,
            None,
            metadata={"slide": staged.slide.id},
        )
        for at, staged in enumerate(performance.slides)
    ]
    markers = {starts[at]: _cues(staged) for at, staged in enumerate(performance.slides)}
    tracks = [_track("Video", "Slides", slides, markers)]
    music = (
        _Laid(
            performance.assets[span.asset_id].name,
            one.start_ms,
            one.end_ms,
            performance.assets[span.asset_id],
            metadata={"gain_db": span.gain_db},
        )
        for span in performance.music
        for one in span.passes
    )
    for name, events in (
        ("Clips", performance.clips),
        ("Voices", performance.voices),
        ("Effects", performance.effects),
    ):
        laid = []
        for event in events:
            asset = performance.assets[asset_and_rate(event.asset_id)[0]]
            laid.append(_Laid(asset.name, event.start_ms, event.end_ms, asset, event.in_ms, {"gain_db": event.gain_db}))
        tracks.extend(
            _track("Audio", name if not number else f"{name} {number + 1}", lane)
            for number, lane in enumerate(_lanes(laid))
        )
    tracks.extend(
        _track("Audio", "Music" if not number else f"Music {number + 1}", lane)
        for number, lane in enumerate(_lanes(music))
    )
    stack = _item("Stack.1", "tracks", None, children=tracks)
    timeline = {
        "OTIO_SCHEMA": "Timeline.1",
        "name": performance.title,
        "global_start_time": None,
        "tracks": stack,
        "metadata": {"ritornel": {"clock": "ms"}},
    }
    return msgspec.json.format(msgspec.json.encode(timeline), indent=2).decode()


EXPORTS = (
    Export(
        address="timeline.otio",
        ending=".otio",
        content_type="application/json",
        words="Timeline",
        about="Slides, cues and sounds for programs that cut films (OpenTimelineIO)",
        write=lambda show: write_otio(perform(show)),
        place=4,
    ),
)
