"""What a carry does between slides whose views, builds and objects differ, as vectors."""

from typing import Any

import msgspec

from ritornel.core.document import AdvanceAfter, Box, Build, Follows, Frame, OnCue, Shape, Show, Slide, Transition
from ritornel.core.document.framings import FLY
from ritornel.core.document.objects import Wings
from ritornel.core.document.show import Framing
from ritornel.core.schedule.performance import perform
from tests.examples import text

CARRY = Transition("carry", 1000, "ease in and out")
BELL = Framing("bell", "Bell", 900.0, 500.0, 640.0, 30.0)
TRAVEL = Build(
    id="travel",
    object_id="wheel",
    effect="travels along",
    starts=Follows(),
    settings={"path": "M 0 0 L 300 40 L 200 120", "turns": "along the path"},
)
FLIGHT = Build(id="flight", object_id="bell", effect=FLY, starts=OnCue("c"))


def _wheel(name: str, x: float, y: float, side: float, **more: Any) -> Shape:
    return Shape(name, "Wheel", Box(x, y, side, side, more.pop("turn_deg", 0.0)), "star", **more)


def carry_vectors() -> list[dict[str, Any]]:
    """The layers of carries: from a slide that was flown over, with what has travelled, to one of another size, with
    what comes from its wings; and back.
    """
    wall = Slide(
        "wall",
        size=Frame(1920, 1080),
        framings=(BELL,),
        objects=(_wheel("wheel", 100, 80, 200), _wheel("axle", 500, 400, 60, opacity=0.5), text("words", "One tooth")),
        order=(TRAVEL, FLIGHT),
        advance=AdvanceAfter(3000),
    )
    door = Slide(
        "door",
        transition=CARRY,
        objects=(
            _wheel("other", 700, 300, 120, turn_deg=45.0, lineage="wheel"),
            Shape("plate", "Axle", Box(500, 400, 120, 60), "ring", lineage="axle"),
            _wheel("winged", 40, 40, 80, wings=Wings(-500, 20, 1.5, 0.4)),
            text("more", "One tooth"),
        ),
        advance=AdvanceAfter(3000),
    )
    again = msgspec.structs.replace(wall, id="again", transition=CARRY)
    show = perform(Show("show", "Show", slides=(wall, door, again)))
    return [msgspec.to_builtins(staged.tracks.layers) for staged in show.slides[1:]]
