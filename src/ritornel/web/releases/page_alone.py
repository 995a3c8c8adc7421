"""A page that plays a show without Ritornel: it contains the player, its style and the fonts."""

import base64
import hashlib
import json
import posixpath
import re
from collections.abc import Sequence
from functools import lru_cache
from pathlib import Path
from typing import Any

import msgspec
from django.contrib.staticfiles import finders
from django.template.loader import render_to_string

from ritornel.core.layout.faces import FONTS, Face
from ritornel.core.layout.marks import TextMark
from ritornel.core.schedule.performance import Performance
from ritornel.core.time.milliseconds import clock_text
from ritornel.web.config.file_names import data_url
from ritornel.web.config.modules import modules_of
from ritornel.web.config.shipped_scripts import shipped_script

ENTRY = "ritornel/pages/watch.js"
LATER = ("ritornel/player/footage.js",)
"""Modules that are imported only when they are wanted."""
SHEETS = ("ritornel/ritornel.css", "ritornel/pages.css")
OWN_FACES = (Face("Hanken Grotesk", 400, False), Face("Hanken Grotesk", 600, False), Face("Spectral", 600, False))
"""What the start plate and the controls are set in."""
_SPECIFIER = re.compile(r'((?:from\s*|import\s*\(\s*|^import\s+)")(\.{1,2}/[^"]+\.js)(")', re.MULTILINE)
_FACE = re.compile(r'@font-face \{[^}]*url\("\.\./fonts/([^"]+)"\)[^}]*\}')


def _static(name: str) -> Path:
    found = finders.find(name)
    if found is None:
        raise FileNotFoundError(f"There is no “{name}” among the static files.")
    return Path(found)


@lru_cache
def module_map() -> str:
    """The player's modules as an import map with data addresses: browsers import nothing from a disk."""
    names = dict.fromkeys((*modules_of(ENTRY), *(entry for late in LATER for entry in modules_of(late))))
    imports = {}
    for name in names:
        source = _bare(_static(name).read_text(encoding="utf-8"), posixpath.dirname(name))
        imports[name] = data_url("text/javascript", shipped_script(source.encode()))
    return json.dumps({"imports": imports})


def _bare(source: str, folder: str) -> str:
    """A module that imports by bare names: relative names do not work from a data address."""
    return _SPECIFIER.sub(
        lambda match: match[1] + posixpath.normpath(posixpath.join(folder, match[2])) + match[3], source
    )


def faces_of(performance: Performance) -> frozenset[str]:
    """The web fonts for the show's text and the player's own, below the folder of fonts."""
    faces = {
        Face(mark.family, mark.weight, mark.italic)
        for staged in performance.slides
        for item in staged.drawing.objects
        for part in item.parts
        for mark in part.marks
        if isinstance(mark, TextMark)
    }
    return frozenset(face.path.relative_to(FONTS).with_suffix(".woff2").as_posix() for face in {*faces, *OWN_FACES})


def style_of(performance: Performance) -> str:
    """The player's style, with the fonts it needs."""
    wanted = faces_of(performance)
    rules = []
    for match in _FACE.finditer(_static("ritornel/fonts.css").read_text(encoding="utf-8")):
        if match[1] in wanted:
            rules.append(
                match[0].replace(
                    f"../fonts/{match[1]}", data_url("font/woff2", _static(f"fonts/{match[1]}").read_bytes())
                )
            )
    return "\n".join([*rules, *(_static(name).read_text(encoding="utf-8") for name in SHEETS)])


def policy_of(scripts: Sequence[str], style: str) -> str:
    """The page's Content-Security-Policy: its own scripts and style by their hashes, modules and fonts inside it, media
    in it or beside it, and nothing from elsewhere.
    """

    def hashed(text: str) -> str:
        return f"'sha256-{base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()}'"

    beside = "'self' file: data: blob:"
    parts = {
        "default-src": "'none'",
        "script-src": f"{' '.join(map(hashed, scripts))} data:",
        "style-src": hashed(style),
        "font-src": "data:",
        "img-src": beside,
        "media-src": beside,
        "connect-src": beside,
        "base-uri": "'none'",
        "form-action": "'none'",
    }
    return "; ".join(f"{name} {value}" for name, value in parts.items())


def page_of(staged: Performance, start: dict[str, Any]) -> bytes:
    """The page with the player; `start` says what is played (pages/watch.js); unset options have their defaults."""
    style, modules, script = style_of(staged), module_map(), f'import "{ENTRY}";'
    context = {
        "title": staged.title,
        "length": clock_text(staged.schedule.length_ms).split(".")[0],
        "loops": start["loops"],
        "start": msgspec.to_builtins(start),
        "style": style,
        "modules": modules,
        "script": script,
        "policy": policy_of((modules, script), style),
    }
    return render_to_string("releases/offline.html", context).encode()
