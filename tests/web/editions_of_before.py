"""The performances of editions as earlier versions wrote them, for the tests of the migrations that meet them."""

from typing import Any


def performance_of_before(performance: dict[str, Any]) -> dict[str, Any]:
    """`performance` as an edition held it before it had a language, and words for each beat, not one text a slide."""
    slides = [
        {name: value for name, value in slide.items() if name != "beat_words"}
        | {"words": "\n".join(filter(None, slide["beat_words"]))}
        for slide in performance["slides"]
    ]
    kept = {name: value for name, value in performance.items() if name != "language"}
    return {**kept, "slides": slides}
