"""The themes that ship. Their names come from a clock tower and its town."""

from types import MappingProxyType

from ritornel.core.document.contrast import READABLE, contrast
from ritornel.core.document.objects import Gradient, Plain
from ritornel.core.document.theme import Ornament, Palette, Theme, colour_in, ground_in

LIMEWASH = Theme(
    "Limewash",
    Palette("#f6f1e4", "#fffdf6", "#16262e", "#43555e", "#8a2456", "#1f6f6b", "#cfc7b2"),
    title_align="left",
    opening=Gradient("#f9f5ea", "#efe5cd", 80),
    ornaments=(Ornament(0.066, 0.552, 0.07, 0.006, "@accent", on="titles"),),
)
NIGHT_WATCH = Theme(
    "Night watch",
    Palette("#101a1f", "#1b2a31", "#f4efe2", "#b9c3c0", "#e6b65c", "#86c5bd", "#34454d"),
    heading_family="EB Garamond",
    body_family="EB Garamond",
    heading_weight=400,
    title_px=84,
    heading_px=58,
    body_px=33,
    title_align="centre",
    ground=Gradient("@ground", "#17282f", 70),
    opening=Gradient("#1d3c46", "#0d1519", 75),
    ornaments=(
        Ornament(0.485, 0.553, 0.03, 0.0035, "@accent", on="titles"),
        Ornament(0.066, 0.215, 0.868, 0.0016, "@line", on="slides"),
    ),
)
SLATE_ROOF = Theme(
    "Slate roof",
    Palette("#eef1f3", "#ffffff", "#1d2730", "#4a5864", "#a33b1f", "#23597f", "#c3ccd3"),
    heading_family="Fira Sans",
    body_family="Fira Sans",
    heading_weight=700,
    title_px=70,
    heading_px=48,
    body_px=29,
    opening=Plain("#dfe5e9"),
    ornaments=(Ornament(0, 0, 0.018, 1, "@second", on="slides"), Ornament(0, 0.93, 1, 0.07, "@second", on="openings")),
)
VERDIGRIS = Theme(
    "Verdigris",
    Palette("#12312f", "#1b423f", "#eef5ef", "#b4cdc6", "#f0a878", "#9fd8c4", "#2f5a55"),
    heading_family="Alegreya Sans",
    body_family="Alegreya Sans",
    heading_weight=700,
    title_px=78,
    heading_px=54,
    body_px=32,
    ground=Gradient("@ground", "#0d2524", 90),
    opening=Gradient("#1d4f4a", "#0d2524", 60),
    ornaments=(
        Ornament(0.066, 0.085, 0.045, 0.006, "@accent", on="slides"),
        Ornament(0.066, 0.552, 0.07, 0.006, "@accent", on="titles"),
    ),
)
ALMANAC = Theme(
    "Almanac",
    Palette("#ffffff", "#f6f4ef", "#1a1a1a", "#545049", "#a8201a", "#2b4c7e", "#d9d4c7"),
    heading_family="Literata",
    body_family="Literata",
    heading_weight=400,
    heading_italic=True,
    title_px=68,
    heading_px=46,
    body_px=27,
    title_align="centre",
    ornaments=(
        Ornament(0.066, 0.22, 0.868, 0.0018, "@words", on="slides"),
        Ornament(0.035, 0.06, 0.93, 0.0025, "@accent", on="openings"),
        Ornament(0.035, 0.9375, 0.93, 0.0025, "@accent", on="openings"),
    ),
)
BELLFOUNDER = Theme(
    "Bellfounder",
    Palette("#231a1e", "#33262b", "#f7ece0", "#cdbcb0", "#eaa64d", "#d9c08f", "#4d3a3f"),
    heading_family="Alegreya",
    body_family="Alegreya",
    heading_weight=700,
    title_px=80,
    heading_px=56,
    body_px=32,
    ground=Gradient("#2b2026", "#1a1316", 90),
    opening=Gradient("#5a2f1f", "#1c1317", 60),
    ornaments=(Ornament(0.885, 0, 0.115, 0.02, "@accent", on="slides"),),
)
DRAWING_BOARD = Theme(
    "Drawing board",
    Palette("#123a63", "#1b4a78", "#f2f7fb", "#bcd3e6", "#ffd166", "#a7e0f2", "#3f6a93"),
    heading_family="IBM Plex Mono",
    body_family="IBM Plex Sans",
    heading_weight=700,
    title_px=60,
    heading_px=42,
    body_px=28,
    opening=Gradient("#164a7c", "#0d2b4b", 70),
    ornaments=(
        Ornament(0.03, 0.05, 0.94, 0.0016, "@line"),
        Ornament(0.03, 0.95, 0.94, 0.0016, "@line"),
        Ornament(0.03, 0.05, 0.0009, 0.9, "@line"),
        Ornament(0.9691, 0.05, 0.0009, 0.9, "@line"),
    ),
)
MARKET_DAY = Theme(
    "Market day",
    Palette("#fff7e0", "#ffffff", "#201a12", "#5b4c38", "#a82c19", "#1d6a57", "#ecd9a8"),
    heading_family="Hanken Grotesk",
    body_family="Hanken Grotesk",
    heading_weight=700,
    title_px=82,
    heading_px=52,
    body_px=30,
    opening=Plain("#ffd25e"),
    ornaments=(Ornament(0.9, 0, 0.1, 0.1778, "@line", on="slides"),),
)

THEMES = MappingProxyType(
    {
        theme.name: theme
        for theme in (LIMEWASH, SLATE_ROOF, ALMANAC, MARKET_DAY, NIGHT_WATCH, VERDIGRIS, BELLFOUNDER, DRAWING_BOARD)
    }
)


def weak_contrasts(theme: Theme) -> tuple[tuple[str, str, float], ...]:
    """The pairs (role, `ground` or `raised`, ratio) below WCAG's 4.5:1, on any colour of the theme's backgrounds."""
    behind = [("raised", theme.palette.raised)]
    for ground in (theme.ground, theme.opening):
        shown = ground_in(theme, ground)
        behind += [
            ("ground", colour) for name in ("colour", "first", "second") if (colour := getattr(shown, name, None))
        ]
    found: dict[tuple[str, str], float] = {}
    for role in ("words", "soft", "accent", "second"):
        for name, colour in behind:
            ratio = contrast(colour_in(theme, f"@{role}"), colour)
            if ratio < READABLE:
                found[role, name] = min(ratio, found.get((role, name), ratio))
    return tuple((role, name, round(ratio, 2)) for (role, name), ratio in found.items())
