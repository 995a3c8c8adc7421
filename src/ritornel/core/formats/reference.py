"""Writes docs/formats.md from the types themselves: `python -m ritornel.core.formats.reference`."""

import sys
from pathlib import Path
from typing import Any

import msgspec

from ritornel.core.document.show import Show
from ritornel.core.formats.archive import MOST_BYTES, MOST_RATIO, SCHEMA
from ritornel.core.formats.media import SUFFIXES
from ritornel.core.formats.upgrades import VERSION
from ritornel.core.motion.catalogue import effect_forms, transition_forms

HEAD = f"""# Formats

This page is written by `python -m ritornel.core.formats.reference`; a test holds it to the code.

## The Ritornel archive

A zip whose name ends in `.ritornel`:

| inside | what |
|---|---|
| `show.json` | `{{"schema": "{SCHEMA}", "version": {VERSION}, "show": ...}}`, UTF-8, indented, in the order of the tables below |
| `media/<sha256><ending>` | each medium once, under the SHA-256 of its content; endings: {", ".join(sorted(SUFFIXES.values()))} |

Nothing else may be inside. An archive is refused, in a sentence that names the place, and nothing of it is kept, when it holds any other name,
would unpack to more than {MOST_BYTES // 10**9} GB or {MOST_RATIO} times its size, lacks a medium, holds one whose content is not what its hash or kind says,
is of another schema or version, or has a wrong field. Losses: none. Takes, releases and the history of edits stay with the web application.

All times are whole milliseconds (`_ms`), at most a day; lengths are px of the frame, turns degrees clockwise, opacity 0..1, levels dB.

## Other formats, and what each loses

| format | in | out | losses |
|---|---|---|---|
| Markdown outline (CommonMark, `outline.py`) | `#` title, further `#` sections, `##` slides; paragraphs, lists, bold, italic, links; `>` notes | the same | \
in: code, HTML, rules and pictures, each told; out: pictures, shapes, places, looks, builds, times |
| Table of timings (CSV of RFC 4180, `timings.py`) | lengths of slides that advance by themselves, holds of waits; parted by commas, semicolons or tabs | \
a line a slide, a line a wait | what has no place in the show is told line by line |
| PDF (`pdf.py`, `render/pages.py`) | each page a slide, as a sharp picture with its words as the text alternative | a slide a page, a beat a page, or slides \
with their notes | in: that words and shapes are apart; pages that cannot be read, each told; out: motion, sound, time |
| OpenDocument presentation (`.odp`, ISO/IEC 26300, `opendocument/`) | versions 1.0 to 1.4: pages with their layouts, text, lists, pictures, \
clips, shapes, groups, notes, transitions, running order, press actions, sounds | the same as 1.3, with its media; builds keep their names beside SMIL | \
each told by slide before anything is made. In: tables become words, charts pictures, custom shapes outlines where they are no form of ours, several sizes \
in one text one, fonts the nearest that ships, unknown transitions and builds the nearest. Out: music, sections, framings, drifts, wings, carries, trims and \
levels of clips, soft shadows, round corners of pictures |
| Animated picture (WebP, `render/animated.py`), stills (PNG) | stills, as pictures | the whole, at most five minutes; \
a still of each beat | sound; of stills motion too |
| One file, a folder (HTML) | no | the show and its player, for a browser without a network | nothing; it is no longer edited |
| OpenTimelineIO (`otio.py`) | no | slides with their cues as markers, clips, voices, music, effects, where they lie in an archive | \
builds, looks of transitions, fades, ducking; levels stand in the metadata |
| Schedule (JSON) | no | what starts when: beats, waits, music, voices, sounds | nothing of how things look |
| WebVTT, SRT (`webvtt.py`) | captions of a clip | captions of the whole show, on its own clock | \
signs of style and place; what overlaps begins later; both told |
"""


def _figure(value: float) -> str:
    return f"{value:,}".replace(",", " ") if isinstance(value, int) else f"{value:g}"


def _kind(schema: dict[str, Any]) -> str:
    if "$ref" in schema:
        name = schema["$ref"].split("/")[-1]
        return f"[{name}](#{name.lower()})"
    if "anyOf" in schema:
        return " or ".join(_kind(option) for option in schema["anyOf"])
    if "enum" in schema:
        return ", ".join(f"`{value}`" for value in schema["enum"])
    if schema.get("type") == "array":
        return f"list of {_kind(schema['items'])}"
    if schema.get("type") == "object":
        return "object"
    words = {
        "string": "text",
        "integer": "whole number",
        "number": "number",
        "boolean": "true or false",
        "null": "null",
    }[schema.get("type", "null")]
    if "pattern" in schema:
        words += f" `{schema['pattern']}`".replace("|", "\\|")
    least = schema.get("minimum", schema.get("minLength"))
    most = schema.get("maximum", schema.get("maxLength"))
    if least is not None or most is not None:
        words += f", {'' if least is None else _figure(least)}..{'' if most is None else _figure(most)}"
    return words


def _tables() -> list[str]:
    _, parts = msgspec.json.schema_components([Show], ref_template="#/$defs/{name}")
    lines: list[str] = []
    for name in ("Show", *sorted(set(parts) - {"Show"})):
        part = parts[name]
        summary = " ".join(part.get("description", "").split())
        lines += ["", f"### {name}", "", summary, "", "| field | holds | if it is left out |", "|---|---|---|"]
        for field, schema in part["properties"].items():
            default = (
                "must be there"
                if field in part.get("required", [])
                else f"`{msgspec.json.encode(schema.get('default')).decode()}`"
            )
            lines.append(f"| `{field}` | {_kind(schema)} | {default} |")
    return lines


def _bounds(control: dict[str, Any]) -> str:
    """The values that a setting can have."""
    if "choices" in control:
        return ", ".join(control["choices"])
    return (
        ("a path in SVG's syntax, px from where the object stands")
        if control.get("path")
        else f"{control['least']:g}..{control['most']:g}"
    )


def _motions() -> list[str]:
    lines = ["", "## Effects and transitions", "", "| name | settings |", "|---|---|"]
    for form in [*effect_forms(), *transition_forms()]:
        controls = []
        for control in form["controls"]:
            bounds = _bounds(control)
            controls.append(f"`{control['name']}` ({bounds}; {control['default']})")
        lines.append(f"| `{form['name']}` | {', '.join(controls) or 'none'} |")
    return lines


OTHERS = """
## Films, stills and schedules

| out | what | losses |
|---|---|---|
| MP4 | H.264 (veryfast, crf 20), AAC 160 kbit/s, BT.709; a constant rate only if asked for | presses, notes, words for screen readers |
| WebM | VP9, Opus | the same |
| PNG | a still for each beat, when it has ended | all time |
| JSON schedule | `ritornel schedule`: beats, waits with the source of their hold, builds, music passes | none; it is what the painters follow |

## Pictures and sounds

In: PNG, JPEG, WebP, GIF (its first picture); WAV, MP3, Ogg (Opus, Vorbis), FLAC, M4A. A picture that its camera marked as turned, or that is in CMYK, is made
upright and plain RGB when it comes in; everything else is kept byte for byte. What a file is, is told by its content.
"""


def reference() -> str:
    """The whole document."""
    return "\n".join([HEAD, "## show.json", *_tables(), *_motions(), OTHERS])


if __name__ == "__main__":
    Path(sys.argv[1] if len(sys.argv) > 1 else "docs/formats.md").write_text(reference(), encoding="utf-8")
