"""SVG path syntax, as far as the core writes it, as Skia's paths."""

from functools import lru_cache

import skia


@lru_cache(maxsize=4096)
def skia_path(d: str) -> skia.Path:
    """The path of absolute M, L, C and Z commands."""
    path = skia.Path()
    words = d.split()
    at = 0
    while at < len(words):
        command = words[at]
        if command == "Z":
            path.close()
            at += 1
            continue
        count = {"M": 2, "L": 2, "C": 6}[command]
        numbers = [float(word) for word in words[at + 1 : at + 1 + count]]
        {"M": path.moveTo, "L": path.lineTo, "C": path.cubicTo}[command](*numbers)
        at += 1 + count
    return path
