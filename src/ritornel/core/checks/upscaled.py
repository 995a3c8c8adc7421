"""Pictures and clips that are shown larger than their own size."""

from collections.abc import Iterator

from ritornel.core.checks.finding import CheckedShow, Finding
from ritornel.core.layout.marks import ImageMark

TITLE = "Pictures shown larger than they are"

MOST = 1.5
"""How many px of the frame a pixel may cover before it is seen."""


def find(look: CheckedShow) -> Iterator[Finding]:
    """Measured on the drawn marks: crop, fit and size are in them."""
    for shown in look.slides:
        staged = shown.staged
        names = {item.id: item.name for item in staged.slide.objects}
        for drawn in staged.drawing.objects:
            for mark in (mark for part in drawn.parts for mark in part.marks if isinstance(mark, ImageMark)):
                asset = look.performance.assets.get(mark.asset_id)
                if asset is None or not asset.width_px:
                    continue
                factor = max(mark.width / asset.width_px, mark.height / asset.height_px)
                if factor <= MOST:
                    continue
                title = f"“{names.get(drawn.object_id, asset.name)}” is shown {factor:.1f} times as large as it is"
                why = f"It has {asset.width_px} × {asset.height_px} px and looks coarse. A larger one would help."
                yield shown.finding(
                    "upscaled",
                    "upscaled",
                    "polish",
                    about=drawn.object_id,
                    title=title,
                    why=why,
                )
