"""Pictures of the demo as they were looked at and found right.

Tolerance: a mean difference of 2 of 255, and 1 % of pixels off by more than 40.

After a change that is meant: `python -m tests.core.render.test_golden`, and look at the difference before committing.
"""

from pathlib import Path

import numpy as np
import skia
from django.test import SimpleTestCase
from PIL import Image

from ritornel.core.render.painter import Painter
from ritornel.core.schedule.performance import frame_state_at, frame_state_at_rest, perform
from ritornel.demo.orlmere import FILES, MEDIA, orlmere

FOLDER = Path(__file__).parents[2] / "golden"
SIZE = (320, 180)
PLACES = {"words": (1, 2), "forms": (2, 2), "picture-and-words": (3, 2), "gradient": (4, 1)}


def painted() -> dict[str, np.ndarray]:
    """The golden pictures as the painter paints them now, RGB."""
    show = orlmere()
    paths = {asset.sha256: MEDIA / FILES[asset.id][0] for asset in show.assets}
    performance = perform(show)
    painter = Painter(performance, *SIZE, lambda sha256: paths[sha256])
    sights = {name: frame_state_at_rest(performance, *place) for name, place in PLACES.items()}
    sights["push"] = frame_state_at(performance, performance.schedule.starts_ms[1] + 200)
    sights["dissolve"] = frame_state_at(performance, performance.schedule.starts_ms[7] + 600)
    return {
        name: painter.image(frame_state).toarray(colorType=skia.kRGBA_8888_ColorType)[:, :, :3]
        for name, frame_state in sights.items()
    }


class GoldenTest(SimpleTestCase):
    def test_the_painter_paints_what_was_found_right(self) -> None:
        for name, image in painted().items():
            golden = np.asarray(Image.open(FOLDER / f"{name}.png").convert("RGB")).astype(int)
            difference = np.abs(golden - image)
            with self.subTest(name):
                self.assertLess(difference.mean(), 2)
                self.assertLess((difference.max(axis=2) > 40).mean(), 0.01)


if __name__ == "__main__":
    for name, image in painted().items():
        Image.fromarray(image).save(FOLDER / f"{name}.png")
