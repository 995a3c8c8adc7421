"""Editions of before hold the presenter's notes, names and unused media. Their files are cleaned to what an audience's painter reads."""

import gzip
import json
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import migrations

# The allow-list of core/schedule/audience.py as it was when this was written: a migration uses no living code.
WAIT = {"cue_id": None, "start_ms": None, "hold_ms": None}
SCHEDULE = {
    "slide_id": None, "transition_ms": None, "beats": {"start_ms": None, "end_ms": None, "wait": WAIT}, "last_wait": WAIT, "done_ms": None,
    "length_ms": None, "voice": None, "goes_on_ms": None,
}
SLIDE = {
    "id": None, "advance": {"rule": None, "after_ms": None, "cut_short": None, "cue_id": None}, "schedule": SCHEDULE,
    "drawing": {"slide_id": None, "ground": None, "objects": None}, "motions": None, "layers": None, "view": None, "words": None, "clips": None, "presses": None,
}
SHOW = {
    name: None for name in ("title", "frame", "end", "starts_ms", "content_ms", "length_ms", "music", "voices", "voices_live", "effects", "media")
} | {"slides": SLIDE}
CLIP = ("id", "asset_id", "in_ms", "out_ms", "rate_pct", "muted", "gain_db", "fade_in_ms", "fade_out_ms", "repeats")
CLIP_DEFAULTS = {"in_ms": 0, "rate_pct": 100, "muted": False, "gain_db": 0.0, "fade_in_ms": 0, "fade_out_ms": 0, "repeats": False}


def keep(value: Any, allowed: Any) -> Any:
    if allowed is None or value is None:
        return value
    if isinstance(value, list):
        return [keep(entry, allowed) for entry in value]
    return {name: keep(value[name], inner) for name, inner in allowed.items() if name in value}


def trim_captions(value: Any) -> None:
    """Marks of clips lose the captions that lie outside the part that is played. A mark leaves its defaults out: it begins at 0 then."""
    if isinstance(value, list):
        for entry in value:
            trim_captions(entry)
    elif isinstance(value, dict):
        if value.get("captions"):
            begins, ends = value.get("in_ms", 0), value.get("out_ms", 1)
            value["captions"] = [entry for entry in value["captions"] if entry["start_ms"] < ends and entry["end_ms"] > begins]
        for entry in value.values():
            trim_captions(entry)


def used(value: Any, found: set[str]) -> set[str]:
    """Every medium that something shown or heard names."""
    if isinstance(value, list):
        for entry in value:
            used(entry, found)
    elif isinstance(value, dict):
        if isinstance(value.get("asset_id"), str):
            found.add(value["asset_id"])
        for entry in value.values():
            used(entry, found)
    return found


def cleaned(show: dict[str, Any]) -> dict[str, Any]:
    """The performance with what an audience's painter reads."""
    show = keep(show, SHOW)
    for slide in show["slides"]:
        clips = slide.get("clips") or {}
        slide["clips"] = {key: {**CLIP_DEFAULTS, **{name: clip[name] for name in CLIP if name in clip}} for key, clip in clips.items()}
        trim_captions(slide["drawing"])
    wanted = used([show["slides"], show["music"], show.get("voices"), show.get("effects")], set())
    sped = {key for key in show["media"] if "@" in key and key.rpartition("@")[0] in wanted}
    show["media"] = {key: place for key, place in show["media"].items() if key in wanted or key in sped}
    return show


def clean_folder(folder: Path) -> None:
    """Cleans both performances of an edition and removes the media that neither needs. Done twice it changes nothing more."""
    needed: set[str] = set()
    for name in ("performance.json", "calm.json"):
        path = folder / name
        if not path.is_file():
            return
        show = cleaned(json.loads(path.read_bytes()))
        needed |= set(show["media"].values())
        words = json.dumps(show, separators=(",", ":"), ensure_ascii=False).encode()
        for target, data in ((path, words), (folder / f"{name}.gz", gzip.compress(words, 9, mtime=0))):
            unfinished = target.with_name(f".{target.name}")
            unfinished.write_bytes(data)
            unfinished.replace(target)
    kept = needed | {"performance.json", "performance.json.gz", "calm.json", "calm.json.gz", "first.webp", "index.html"}
    for path in folder.iterdir():
        if path.is_file() and path.name not in kept:
            path.unlink()


def clean(apps: Any, _: Any) -> None:
    for edition in apps.get_model("releases", "Edition").objects.select_related("release").defer("document").iterator(chunk_size=100):
        clean_folder(Path(settings.VAR) / "editions" / edition.release.address / str(edition.number))


class Migration(migrations.Migration):
    dependencies = [("releases", "0010_edition_folders")]

    operations = [migrations.RunPython(clean, migrations.RunPython.noop)]
