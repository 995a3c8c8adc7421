"""Contrast of two colours, by WCAG 2.2 (https://www.w3.org/TR/WCAG22/#dfn-contrast-ratio)."""

READABLE = 4.5
"""What level AA asks of text."""


def luminance(colour: str) -> float:
    """Relative luminance of `#rrggbb`, 0 black to 1 white."""
    channels = [int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5)]
    linear = [value / 12.92 if value <= 0.04045 else ((value + 0.055) / 1.055) ** 2.4 for value in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def contrast(first: str, second: str) -> float:
    """1 to 21.

    >>> contrast("#ffffff", "#000000")
    21.0
    """
    light, dark = sorted((luminance(first), luminance(second)), reverse=True)
    return (light + 0.05) / (dark + 0.05)
