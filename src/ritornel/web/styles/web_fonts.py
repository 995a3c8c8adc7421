"""Makes the fonts for browsers (WOFF2) from those that the core measures and draws with: `./run fonts`.

Needs fontTools with Brotli, which developers have.
"""

from pathlib import Path

from fontTools.ttLib import TTFont

PACKAGE = Path(__file__).parents[2]
SOURCE = PACKAGE / "core/layout/fonts"
TARGET = PACKAGE / "web/static/fonts"


def web_name(font: Path) -> Path:
    """The place of the web font of a font."""
    return TARGET / font.relative_to(SOURCE).with_suffix(".woff2")


def make_web_fonts() -> None:
    """Writes each font again; the same font gives the same bytes."""
    for source in sorted(SOURCE.rglob("*.ttf")):
        font = TTFont(source, recalcTimestamp=False)
        font.flavor = "woff2"
        target = web_name(source)
        target.parent.mkdir(parents=True, exist_ok=True)
        font.save(target)


if __name__ == "__main__":
    make_web_fonts()
