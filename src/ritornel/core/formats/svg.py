"""SVG: everything that could run, fetch or grow without end is removed, and it is redrawn as a PNG in a process of its
own.

The file itself is never kept or served.
"""

import os
import re
import resource
import subprocess
import sys
from io import BytesIO
from pathlib import Path
from xml.etree.ElementTree import Element, ParseError, tostring

from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import iterparse

from ritornel.core.errors import BadMedia

MOST_PARTS = 50_000
DEEPEST = 200
LONG_SIDE_PX = 2400
"""A redrawn picture's longer side: sharp on any frame up to 4K for what fills less than two thirds of it."""
SECONDS = 5
"""How much computing a drawing may take: a filter over all of it can take for ever."""
MEMORY_BYTES = 2_000_000_000
FORBIDDEN = {
    "script",
    "foreignObject",
    "iframe",
    "object",
    "embed",
    "audio",
    "video",
    "animate",
    "animateTransform",
    "animateMotion",
    "set",
    "handler",
}
_INSIDE = re.compile(r"^\s*(#|data:image/(png|jpe?g|gif|webp)[;,])", re.IGNORECASE)
_URL = re.compile(r"url\(\s*['\"]?([^)'\"]*)['\"]?\s*\)", re.IGNORECASE)
_IMPORT = re.compile(r"@import[^;]*;?", re.IGNORECASE)
_NUMBER = re.compile(r"^\s*(\d+(?:\.\d+)?)\s*(px)?\s*$")


def looks_like_svg(data: bytes) -> bool:
    """Whether the content begins as an SVG does."""
    head = data[:4096].lstrip(b"\xef\xbb\xbf \t\r\n").lower()
    return head.startswith(b"<") and b"<svg" in head


def _bare(name: str) -> str:
    return name.rsplit("}", 1)[-1]


def clean_svg(data: bytes, name: str) -> tuple[bytes, tuple[str, ...]]:
    """The SVG without scripts, events, animation and references to anything outside it, and the words for what was left
    out.

    Raises BadMedia for what is no SVG, or has more than 50 000 parts or entities of its own.
    """
    left_out: dict[str, None] = {}
    try:
        root, count, depth = None, 0, 0
        for event, element in iterparse(BytesIO(data), events=("start", "end"), forbid_dtd=False):
            depth += 1 if event == "start" else -1
            count += event == "start"
            root = element if root is None else root
            if count > MOST_PARTS or depth > DEEPEST:
                raise BadMedia(
                    f"“{name}” has more than {MOST_PARTS:,} parts, or {DEEPEST} inside one another; it cannot be "
                    "redrawn. Save it as a PNG first."
                )
    except (ParseError, DefusedXmlException, ValueError) as error:
        raise BadMedia(f"“{name}” is a damaged SVG, or one with entities of its own. Nothing was added.") from error
    if root is None or _bare(root.tag) != "svg":
        raise BadMedia(f"“{name}” is not an SVG picture.")
    _clean(root, left_out)
    return tostring(root, encoding="utf-8"), tuple(left_out)


def _clean(element: Element, left_out: dict[str, None]) -> None:
    for child in list(element):
        if not isinstance(child.tag, str) or _bare(child.tag) in FORBIDDEN:
            element.remove(child)
            kind = _bare(child.tag) if isinstance(child.tag, str) else ""
            left_out[
                "movement"
                if kind.startswith("animate") or kind == "set"
                else "a script"
                if kind in ("script", "handler")
                else "foreign parts"
            ] = None
            continue
        _clean(child, left_out)
    if isinstance(element.tag, str) and _bare(element.tag) == "style" and element.text:
        element.text = _style(_IMPORT.sub("", element.text), left_out)
    for key, value in list(element.attrib.items()):
        bare = _bare(key).lower()
        if bare.startswith("on"):
            del element.attrib[key]
            left_out["a script"] = None
        elif bare in ("href", "src") and not _INSIDE.match(value):
            del element.attrib[key]
            if _bare(element.tag) != "a":
                left_out["references to the outside"] = None
        else:
            element.attrib[key] = _style(value, left_out)


def _style(text: str, left_out: dict[str, None]) -> str:
    def keep(match: re.Match[str]) -> str:
        if _INSIDE.match(match[1]):
            return match[0]
        left_out["references to the outside"] = None
        return "none"

    return _URL.sub(keep, text)


def _zoom(data: bytes) -> float:
    """The scale at which its longer side is 2400 px; 2 where it has no size."""
    _, root = next(iter(iterparse(BytesIO(data), events=("start",), forbid_dtd=False)))
    sides = [float(match[1]) for key in ("width", "height") if (match := _NUMBER.match(root.get(key, "")))]
    box = root.get("viewBox", "").replace(",", " ").split()
    if len(sides) < 2 and len(box) == 4:
        try:
            sides = [float(box[2]), float(box[3])]
        except ValueError:
            sides = []
    longest = max(sides, default=0)
    return min(LONG_SIDE_PX / longest, 100.0) if longest > 0 else 2.0


def redraw_svg(data: bytes, name: str) -> tuple[bytes, tuple[str, ...]]:
    """The SVG as a PNG, and the words for what was left out.

    Raises BadMedia where it cannot be drawn within 20 s and 2 GB.
    """
    clean, left_out = clean_svg(data, name)
    environment = {**os.environ, "PYTHONPATH": os.pathsep.join(sys.path)}
    words = [sys.executable, "-m", "ritornel.core.formats.svg", str(_zoom(clean))]
    try:
        done = subprocess.run(
            words, input=clean, capture_output=True, timeout=SECONDS + 5, env=environment, check=False
        )
    except subprocess.TimeoutExpired as error:
        raise BadMedia(f"“{name}” takes longer than {SECONDS} s to draw. Save it as a PNG first.") from error
    if done.returncode != 0 or not done.stdout:
        raise BadMedia(
            f"“{name}” cannot be drawn: it is damaged or asks for more than a drawing may. Nothing was added."
        )
    return done.stdout, left_out


def _draw_from_stdin() -> None:
    """Draws the SVG from standard input and writes the PNG. It runs under limits, so that a drawing made to exhaust the
    machine ends only itself.
    """
    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    import resvg_py

    fonts = str(Path(__file__).parents[1] / "layout" / "fonts")
    picture = resvg_py.svg_to_bytes(
        svg_string=sys.stdin.buffer.read().decode(),
        zoom=float(sys.argv[1]),
        skip_system_fonts=True,
        font_dirs=[fonts],
        font_family="IBM Plex Sans",
        sans_serif_family="IBM Plex Sans",
        serif_family="Spectral",
        monospace_family="IBM Plex Mono",
    )
    sys.stdout.buffer.write(picture)


if __name__ == "__main__":
    _draw_from_stdin()
