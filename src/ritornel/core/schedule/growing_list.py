"""The growing list (domain): lines arrive beat by beat while everything shown stays centred on the middle of the box.

With k lines shown the block is `H_k` high, line heights and gaps, and its top is `anchor_y - H_k / 2`, unrounded. The
text is laid out whole, centred; a line not yet arrived leaves the others lower by half of what it adds, so each arrival
of a line j lets the lines before it glide up by `(H_j - H_{j-1}) / 2`.
"""

import msgspec

from ritornel.core.document.objects import Text
from ritornel.core.document.show import Slide
from ritornel.core.layout.marks import ObjectDrawing, SlideDrawing
from ritornel.core.motion.easing import EVEN, curve_of
from ritornel.core.motion.sampling import Motion, Segment
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.schedule.tracks import SlideTracks, tracks_of


class LineArrival(msgspec.Struct, frozen=True):
    """When a line arrives, and how far the lines before it glide up, in px."""

    part: str
    build: int
    beat: int
    offset_ms: int
    lasts_ms: int
    pace: str
    shift_px: float


def heights(drawing: ObjectDrawing) -> list[float]:
    """`H_1`, `H_2` ...: the height of the first lines together, with the gaps between them."""
    parts = [part for part in drawing.parts if part.part and not part.part.startswith("+")]
    if not parts:
        return []
    top = parts[0].pivot_y - parts[0].height / 2
    return [part.pivot_y + part.height / 2 - top for part in parts]


def arrivals(item: Text, drawing: ObjectDrawing, slide: Slide, schedule: SlideSchedule) -> list[LineArrival]:
    """The lines that enter by a build of their own, from the first down. A line without such a build is there from the
    start.
    """
    high = [0.0, *heights(drawing)]
    found: list[LineArrival] = []
    for number, paragraph in enumerate(item.paragraphs):
        for at, (build, time) in enumerate(zip(slide.order, schedule.builds, strict=True)):
            if build.object_id == item.id and build.part == paragraph.id and build.effect.startswith("enters"):
                shift = (high[number + 1] - high[number]) / 2
                found.append(LineArrival(paragraph.id, at, time.beat, time.offset_ms, time.lasts_ms, build.pace, shift))
                break
    return found


def with_growth(tracks: SlideTracks, drawing: SlideDrawing, slide: Slide, schedule: SlideSchedule) -> SlideTracks:
    """The tracks with the gliding of growing texts added to their lines."""
    growing = [item for item in slide.objects if isinstance(item, Text) and item.growing and len(item.paragraphs) > 1]
    if not growing:
        return tracks
    motions = {(motion.object_id, motion.part): motion for motion in tracks.motions}
    drawn = {entry.object_id: entry for entry in drawing.objects}
    for item in growing:
        coming = arrivals(item, drawn[item.id], slide, schedule)
        order = [paragraph.id for paragraph in item.paragraphs]
        for at, part in enumerate(order):
            later = [arrival for arrival in coming if order.index(arrival.part) > at]
            if not later:
                continue
            low = sum(arrival.shift_px for arrival in later)
            glides = [
                Segment(
                    build=-1,
                    entrance=False,
                    channel="y",
                    beat=0,
                    offset_ms=0,
                    cycle_ms=0,
                    repeats=1,
                    keys=((0.0, low), (1.0, low)),
                    curve=EVEN,
                )
            ]
            for arrival in later:
                glides.append(
                    Segment(
                        build=arrival.build,
                        entrance=False,
                        channel="y",
                        beat=arrival.beat,
                        offset_ms=arrival.offset_ms,
                        cycle_ms=arrival.lasts_ms,
                        repeats=1,
                        keys=((0.0, 0.0), (1.0, -arrival.shift_px)),
                        curve=curve_of(arrival.pace),
                    )
                )
            own = motions.get((item.id, part)) or Motion(item.id, part, False, (), ())
            motions[item.id, part] = msgspec.structs.replace(own, segments=(*own.segments, *glides))
    return tracks_of(tuple(motions.values()), tracks.layers, tracks.view)
