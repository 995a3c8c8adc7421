"""Writes the vectors that Python and the browser are both held to: `python -m tests.vectors.make`.

The numbers are the core's; whoever runs this again looks at the difference before committing it.
"""

import json
import random
from pathlib import Path
from typing import Any, Literal

import msgspec

from ritornel.core.document import Asset, Box, Frame, Show
from ritornel.core.document.alignment import scale_within
from ritornel.core.document.camera import EDGE_PCT, Placement, camera_box, snap_pct
from ritornel.core.document.ink import InkStroke, erase_strokes
from ritornel.core.document.objects import Caption, Clip
from ritornel.core.document.show import Voice
from ritornel.core.errors import BadValue
from ritornel.core.layout.guides import guides_of, snap_box, snap_handle
from ritornel.core.layout.marks import ClipMark, PartDrawing, TextMark
from ritornel.core.layout.sizing import pull_handle, turn_box
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.motion.channels import Mask, Values
from ritornel.core.motion.depth import homography
from ritornel.core.motion.easing import PACES, ease
from ritornel.core.motion.masks import mask_outline, soft_edge
from ritornel.core.motion.sampling import Instant, values_at
from ritornel.core.reference.live import (
    LiveState,
    arrive,
    back,
    cue,
    go_on,
    goes_on_alone,
    goes_on_at_ms,
    next_cue_id,
    next_step,
    since_ms,
    stand,
    stand_ready,
    waits_since_ms,
)
from ritornel.core.reference.pace import ends_after_ms, pace_words, parse_slot, slip_ms, slot_words
from ritornel.core.reference.preloading import coming_slides
from ritornel.core.reference.snapping import nearest_ms
from ritornel.core.rehearsal.recording import pieces_of
from ritornel.core.rehearsal.take import Arrived, Cued, Take
from ritornel.core.render.strokes import filled_share
from ritornel.core.render.typed_letters import Typing
from ritornel.core.schedule.performance import Performance, builtins_of, frame_state_at, perform
from ritornel.core.schedule.show_schedule import ShowSchedule, moment_at, renewed_at_ms
from ritornel.core.sound.ducking import level_at
from ritornel.core.sound.spoken_level import level_words
from ritornel.core.sound.tempo import sound_key
from ritornel.core.time import clock_text, parse_clock_ms, round_half_up, seconds_text
from ritornel.core.wording import count_text
from ritornel.demo.orlmere import orlmere
from ritornel.demo.pendulum import pendulum
from tests.examples import example_a, sound, with_music
from tests.kinds import every_effect
from tests.live_table import table_show, table_vectors
from tests.vectors.carries import carry_vectors
from tests.vectors.effects import effect_vectors

HERE = Path(__file__).parent
CLIP_MARK = ClipMark(asset_id="pendulum", x=0, y=0, width=10, height=10, clip="")
TEXT_MARK = TextMark(
    text="", family="Gelasio", weight=400, italic=False, size_px=20, colour="#000000", x=0, baseline=0, advance=0
)


def finite(value: Any) -> Any:
    """JSON has no infinity: None stands for it."""
    if isinstance(value, float) and value == float("inf"):
        return None
    if isinstance(value, dict):
        return {key: finite(entry) for key, entry in value.items()}
    return [finite(entry) for entry in value] if isinstance(value, list | tuple) else value


def beneath() -> Show:
    """A clip that runs on once beneath later beats."""
    second = pendulum().slides[1]
    objects = tuple(
        msgspec.structs.replace(item, holds=False) if isinstance(item, Clip) else item for item in second.objects
    )
    return msgspec.structs.replace(pendulum(), slides=(msgspec.structs.replace(second, objects=objects),))


def motion_vectors() -> dict[str, Any]:
    show = perform(orlmere())
    cases = []
    for staged in (
        *show.slides,
        *perform(pendulum()).slides,
        *perform(beneath()).slides,
        *perform(every_effect()).slides,
    ):
        begun = tuple(float(beat.start_ms) for beat in staged.schedule.beats)
        instants = [
            Instant(beat, since, begun[beat] + (since if since != float("inf") else 900), begun[: beat + 1])
            for beat in range(len(begun))
            for since in (-100.0, 0.0, 130.0, 500.0, 1111.0, float("inf"))
        ]
        for motion in (*staged.tracks.motions, *filter(None, [staged.tracks.view])):
            values = [[finite(msgspec.to_builtins(at)), msgspec.to_builtins(values_at(motion, at))] for at in instants]
            cases.append({"motion": msgspec.to_builtins(motion), "values": values})
    easing = [
        [list(curve), n / 20, ease(n / 20, curve)] for curve in [*PACES.values(), (0.42, 0, 0.58, 1)] for n in range(21)
    ]
    plays = [any(segment[2] == "played" for segment in case["motion"]["segments"]) for case in cases]
    kept = [case for number, case in enumerate(cases) if number % 2 == 0 or plays[number]]
    return {"easing": easing, "motions": kept + cases[-2 * len(EFFECTS) :]}


def mask_vectors() -> list[Any]:
    chance = random.Random(3)
    cases = []
    for kind in ("wipe", "iris", "blinds", "cells"):
        for reveal in (0.0, 0.013, 0.25, 0.5, 0.77, 1.0):
            mask = Mask(
                kind, chance.choice([0.0, 90.0, 33.0, -120.0]), chance.randrange(2, 20), chance.choice([0.0, 0.2])
            )  # type: ignore[arg-type]
            region = (
                chance.randrange(-20, 20),
                chance.randrange(-20, 20),
                chance.randrange(50, 1280),
                chance.randrange(50, 720),
            )
            cases.append(
                [
                    msgspec.to_builtins(mask),
                    reveal,
                    region,
                    mask_outline(mask, reveal, region),
                    soft_edge(mask, reveal, region),
                ]
            )
    return cases


def depth_vectors() -> list[Any]:
    chance = random.Random(11)
    cases: list[Any] = []
    for _ in range(60):
        values = Values(
            yaw=float(chance.choice([0, 30, -45, 90, 117, -160])),
            pitch=float(chance.choice([0, 0, 20, -75, 90])),
            x=float(chance.randrange(-99, 99)),
            y=float(chance.randrange(-99, 99)),
            hinge=chance.choice([None, (0.0, 360.0, 0.0), (640.0, 360.0, -640.0), (100.0, 720.0, 80.0)]),
        )
        width, height = chance.choice([(1280, 720), (720, 1280), (800, 600)])
        cases.append([msgspec.to_builtins(values), width, height, homography(values, width, height)])
    return cases


def event_vectors() -> list[Any]:
    chance = random.Random(13)
    cases: list[Any] = []
    for _ in range(60):
        events = [chance.randrange(0, 5000, 50) for _ in range(chance.randrange(0, 12))]
        at, reach = (
            chance.choice([chance.randrange(0, 5000), chance.randrange(0, 5000, 25)]),
            chance.choice([0, 30, 200]),
        )
        cases.append([at, events, reach, nearest_ms(at, events, reach)])
    return cases


def spoken(end: Literal["hold", "loop", "black"]) -> Show:
    """Worked example A with what a live run can meet: a slide with a voice, and one that goes on by itself also
    live.
    """
    show = with_music(example_a(end=end))
    one, two, three = show.slides
    # The camera runs with its slide, so it moves while the slide comes in, from 4 200 to 5 000 on the show's clock.
    camera = Clip(
        "camera", "Camera", Box(900, 400, 200, 150), "face", muted=True, holds=False, with_slide=True, out_ms=9000
    )
    voiced = msgspec.structs.replace(two, voice=Voice("voice", 9000, marks={}), objects=(*two.objects, camera))
    face = Asset(
        "face",
        "Camera",
        "cd" * 32,
        "video/mp4",
        size_bytes=1000,
        width_px=640,
        height_px=480,
        lasts_ms=9000,
        silent=True,
    )
    slides = (msgspec.structs.replace(one, also_live=True), voiced, three)
    return msgspec.structs.replace(show, slides=slides, assets=(*show.assets, sound("voice", 9000), face))


def live_vectors() -> list[dict[str, Any]]:
    """Runs by chance, of a fixed seed: cues, steps back and what goes on by itself, at any time."""
    presses = {"cue": cue, "back": back, "on": go_on}
    chance = random.Random(16)
    result = []
    for end in ("hold", "loop", "black"):
        show = perform(spoken(end))
        runs = []
        for _ in range(12):
            now = 0.0
            first = chance.randrange(len(show.slides))
            state: LiveState = chance.choice((arrive, stand_ready))(show, first, now)
            steps = [{"press": "", "now_ms": now, **live_told(show, state, now)}]
            for _ in range(12):
                now += chance.choice((40.0, 370.0, 2500.0, 9000.5))
                press = chance.choice(("cue", "cue", "cue", "back", "on"))
                state = presses[press](show, state, now)
                steps.append({"press": press, "now_ms": now, **live_told(show, state, now)})
            runs.append(steps)
        moments = []
        for at in (
            0,
            400,
            799,
            800,
            1500,
            5000,
            5250,
            7500,
            12_000,
            14_199,
            14_200,
            32_399,
            32_400,
            32_700,
            33_000,
            40_000,
        ):
            frame_state = frame_state_at(show, float(at), at < show.schedule.length_ms)
            layers = [
                {
                    "index": layer.index,
                    "values": msgspec.to_builtins(layer.values),
                    "objects": {key[0]: msgspec.to_builtins(v) for key, v in layer.objects},
                }
                for layer in frame_state.layers
            ]
            moments.append(
                {
                    "at_ms": at,
                    "moment": msgspec.to_builtins(moment_at(show.schedule, at)),
                    "layers": layers,
                    "blackness": frame_state.blackness,
                }
            )
        stands = [
            [index, beat, msgspec.to_builtins(stand(show, index, beat, 9000.0))]
            for index, beat in ((0, 0), (1, 0), (1, 2))
        ]
        result.append({"show": builtins_of(show, {}), "runs": runs, "moments": moments, "stands": stands})
    return result


def live_table_vectors() -> dict[str, Any]:
    """The table of a live run, row by row."""
    return table_vectors({end: builtins_of(table_show(end), {}) for end in ("hold", "loop", "black")})


def live_told(show: Performance, state: LiveState, now_ms: float) -> dict[str, Any]:
    """All that is told of a state, a little later."""
    return {
        "state": msgspec.to_builtins(state),
        "since_ms": finite(since_ms(state, now_ms + 100)),
        "waits_ms": waits_since_ms(show, state, now_ms + 5000),
        "cue_id": next_cue_id(show, state),
        "goes_on_at_ms": goes_on_at_ms(show, state),
        "step": next_step(show, state),
        "alone": goes_on_alone(show, state),
    }


def time_vectors() -> dict[str, Any]:
    """What is typed as a time, by chance, and how times are written."""
    chance = random.Random(13)
    signs = "0123456789" * 4 + "::.,.  s-e\u00a0m"
    typed = ["0.5005", "1:12.5", "2.5 s", "0.0005", "", "25:00:00", "9" * 40, "1:2:3", "0,9995"]
    for _ in range(600):
        typed.append("".join(chance.choice(signs) for _ in range(chance.randrange(1, 9))))
        typed.append(f"{chance.randrange(100)}.{chance.randrange(10 ** chance.randrange(1, 8))}")
        typed.append(
            f"{chance.randrange(30)}:{chance.randrange(75):02d}:{chance.randrange(75)}"
            f"{chance.choice(('', '.5', '.25049', ',9995'))}"
        )
    parse = []
    for text in typed:
        try:
            parse.append([text, parse_clock_ms(text)])
        except BadValue:
            parse.append([text, None])
    written = [chance.randrange(10 ** chance.randrange(1, 9)) for _ in range(400)]
    halves = [chance.randrange(-(10**6), 10**6) / 4 for _ in range(200)]
    return {
        "parse": parse,
        "write": [[ms, seconds_text(ms), clock_text(ms)] for ms in written],
        "round": [[value, round_half_up(value)] for value in halves],
    }


SLOTS = (
    *("20 min", "20", "1 h", "1 h 30", "2 hours 5 min", "90m", " 45  minutes ", "0", "", "soon", "1000", "25 h"),
    *("14:30", "14.30", "9:05", "23:59", "24:00", "12:60", "2:30 pm", "12 am", "12:15 am", "12 pm", "13 pm", "7 p.m."),
)


def pace_vectors() -> dict[str, Any]:
    """Runs before and behind their plan."""
    chance = random.Random(14)
    slips = [tuple(chance.randrange(0, 90_000) for _ in range(4)) for _ in range(150)]
    ends = [tuple(chance.randrange(0, 90_000) for _ in range(5)) for _ in range(150)]
    told = [
        0,
        1499,
        1500,
        -1499,
        -1500,
        119_999,
        120_000,
        120_001,
        *(chance.randrange(-700_000, 1_200_000) for _ in range(200)),
    ]
    return {
        "slips": [[*times, slip_ms(*times)] for times in slips],
        "ends": [[*times, ends_after_ms(*times)] for times in ends],
        "words": [[slip, pace_words(slip)] for slip in told],
        "slots": [[left, slot_words(left)] for left in told],
        "ends_typed": [[text, now, parse_slot(text, now)] for text in SLOTS for now in (0, 600, 1439)],
    }


def coming_vectors() -> dict[str, Any]:
    """Which slides are fetched, and when a newer edition is taken in."""
    ends: tuple[Literal["hold", "loop", "black"], ...] = ("hold", "loop", "black")
    schedules = [ShowSchedule((), (), length, length, end) for end in ends for length in (0, 32_400)]
    renewed = [
        [to.end, to.length_ms, at, renewed_at_ms(to, at)]
        for to in schedules
        for at in (-5.0, 0.0, 32_399.5, 32_400.0, 64_800.0, 100_000.25)
    ]
    return {
        "slides": [[count, index, list(coming_slides(count, index))] for count in (1, 5, 12) for index in range(count)],
        "renewed": renewed,
    }


def snapping_vectors() -> dict[str, Any]:
    slide = orlmere().slides[2]
    ids = [item.id for item in slide.objects]
    beside = [
        ("on the slide before", slide.objects[0], Box(90, 70, 600, 70)),
        ("on the slide after", slide.objects[1], Box(300, 400, 120, 120)),
    ]
    guides = guides_of(slide, Frame(), beside)
    chance = random.Random(5)
    moves, pulls = [], []
    for number in range(90):
        box = Box(
            chance.randrange(0, 1100), chance.randrange(0, 600), chance.randrange(20, 400), chance.randrange(20, 300)
        )
        moving = chance.sample(ids, 2) if number % 3 else [slide.objects[number % 2].id]
        reach = chance.choice([2.0, 8.0, 20.0])
        moves.append(
            [
                msgspec.to_builtins(box),
                moving,
                reach,
                msgspec.to_builtins(snap_box(box, guides, frozenset(moving), reach)),
            ]
        )
        handle, way = (
            (chance.choice([0.0, 0.5, 1.0]), chance.choice([0.0, 0.5, 1.0])),
            (chance.randrange(-40, 40), chance.randrange(-40, 40)),
        )
        pulls.append(
            [
                msgspec.to_builtins(box),
                handle,
                way,
                moving,
                reach,
                msgspec.to_builtins(snap_handle(box, handle, way, guides, frozenset(moving), reach)),
            ]
        )
    return {"guides": msgspec.to_builtins(guides), "moves": moves, "pulls": pulls}


def sizing_vectors() -> dict[str, Any]:
    chance = random.Random(7)
    pulls, turns, scales = [], [], []
    for number in range(80):
        box = Box(
            chance.randrange(0, 900),
            chance.randrange(0, 500),
            chance.randrange(10, 400),
            chance.randrange(10, 300),
            chance.choice([0, 0, 30, -117.5, 200]),
        )
        handle, way = (
            (chance.choice([0.0, 0.5, 1.0]), chance.choice([0.0, 0.5, 1.0])),
            (chance.randrange(-300, 300), chance.randrange(-300, 300)),
        )
        keep = number % 2 == 0
        pulls.append(
            [msgspec.to_builtins(box), handle, way, keep, msgspec.to_builtins(pull_handle(box, handle, way, keep))]
        )
        pointer, step = (chance.randrange(-200, 1400), chance.randrange(-200, 900)), chance.choice([0.0, 15.0])
        turns.append([msgspec.to_builtins(box), pointer, step, turn_box(box, pointer, step).turn_deg])
        old, new = Box(0, 0, 900, 600), Box(50, 40, chance.randrange(100, 1200), chance.randrange(100, 700))
        scales.append([msgspec.to_builtins(value) for value in (box, old, new, scale_within(box, old, new))])
    return {"pulls": pulls, "turns": turns, "scales": scales}


def drawing_vectors() -> list[Any]:
    chance = random.Random(31)
    cases = []
    for _ in range(40):
        strokes = tuple(
            InkStroke(
                "plum",
                tuple(
                    (float(chance.randrange(0, 300)), float(chance.randrange(0, 200)))
                    for _ in range(chance.randrange(1, 5))
                ),
            )
            for _ in range(4)
        )
        x, y = chance.randrange(0, 300), chance.randrange(0, 200)
        cases.append([msgspec.to_builtins(strokes), x, y, 16, msgspec.to_builtins(erase_strokes(strokes, x, y, 16))])
    return cases


def recording_vectors() -> dict[str, Any]:
    """Levels in words, where a camera stands, and what a recording's events come to."""
    rng = random.Random(14)
    levels = [(mean, peak) for mean in (-60.0, -30.1, -30.0, -20.0, -12.0, -11.9) for peak in (-40.0, -3.0, -2.9, 0.0)]
    placements = [
        Placement(rng.choice(("round", "rectangle")), rng.uniform(0, 100), rng.uniform(0, 100), rng.uniform(5, 100))
        for _ in range(12)  # type: ignore[arg-type]
    ]
    frames = (Frame(), Frame(1024, 768), Frame(720, 1280))
    # Most lie near one of the three places, on both sides of the limit of 1.6 %.
    halves = [rng.uniform(2.5, 50) for _ in range(150)]
    snaps = [(rng.choice((half + EDGE_PCT, 50, 100 - half - EDGE_PCT)) + rng.uniform(-3, 3), half) for half in halves]
    takes = []
    for _ in range(30):
        at_ms = 0
        events: list[Arrived | Cued] = []
        for number in range(rng.randrange(1, 12)):
            slide = rng.choice("abc")
            arrives = not number or rng.random() < 0.4
            events.append(
                Arrived(slide, at_ms)
                if arrives
                else Cued(rng.choice(("q1", "q2", "a-out", f"leave-{slide}")), at_ms, rng.randrange(900))
            )
            at_ms += rng.randrange(0, 3000)
        takes.append(Take(tuple(events), rng.choice((at_ms, at_ms // 2))))
    leaving = {"a": "a-out"}
    return {
        "levels": [(mean, peak, level_words(mean, peak)) for mean, peak in levels],
        "boxes": [
            msgspec.to_builtins((frame, placement, camera_box(frame, placement)))
            for frame in frames
            for placement in placements
        ],
        "snaps": [(value, half, snap_pct(value, half)) for value, half in snaps],
        "pieces": [msgspec.to_builtins((take, leaving, pieces_of(take, leaving))) for take in takes],
    }


def word_vectors() -> list[Any]:
    """Counts in words."""
    counts = (0, 1, 2, 11, 21, 1000)
    return [
        [count, noun, plural, count_text(count, noun, plural)]
        for count in counts
        for noun, plural in (("slide", ""), ("entry", "entries"))
    ]


def player_vectors() -> dict[str, Any]:
    """What the player works out of its own clips, sounds and letters."""
    chance = random.Random(17)
    clips: list[dict[str, int]] = []
    passes, captions, levels, letters = [], [], [], []
    for _ in range(120):
        in_ms = chance.randrange(0, 5000)
        out_ms = in_ms + chance.randrange(1, 9000)
        rate_pct = chance.choice((100, 25, 150, 400, chance.randrange(25, 401)))
        clips.append({"in_ms": in_ms, "out_ms": out_ms, "rate_pct": rate_pct})
        passes.append(
            Clip("c", "Pendulum", Box(0, 0, 10, 10), "pendulum", out_ms=out_ms, in_ms=in_ms, rate_pct=rate_pct).pass_ms
        )
        bounds = sorted(chance.sample(range(in_ms, out_ms + 8), 4)) if out_ms - in_ms > 4 else [in_ms, out_ms]
        spoken = tuple(
            Caption(one, other, f"words {number}")
            for number, (one, other) in enumerate(zip(bounds[::2], bounds[1::2], strict=True))
        )
        mark = msgspec.structs.replace(CLIP_MARK, in_ms=in_ms, out_ms=out_ms, captions=spoken)
        for played in (None, -0.1, 0.0, chance.random(), chance.random(), 1.0):
            captions.append([msgspec.to_builtins(mark), played, mark.caption_at(played)])
        points = tuple(
            (at, chance.choice((0.0, -9.0, -14.5))) for at in sorted(chance.sample(range(8000), chance.randrange(0, 6)))
        )
        levels += [
            [points, at, level_at(points, at)]
            for at in (chance.uniform(-500, 9000), *(float(at) for at, _ in points[:2]))
        ]
        texts = [
            "".join(chance.choice(("a", "é", "\N{BELL}", " ")) for _ in range(chance.randrange(0, 9))) for _ in range(3)
        ]
        typing = Typing.of(
            [PartDrawing(None, 0, 0, tuple(msgspec.structs.replace(TEXT_MARK, text=text) for text in texts))],
            share := chance.random(),
        )
        letters.append([texts, share, [typing.take(msgspec.structs.replace(TEXT_MARK, text=text)) for text in texts]])
    return {
        "passes": [[clip, pass_ms] for clip, pass_ms in zip(clips, passes, strict=True)],
        "sounds": [[clip["rate_pct"], sound_key("pendulum", clip["rate_pct"])] for clip in clips],
        "captions": captions,
        "levels": levels,
        "letters": letters,
        "filled": [[n / 40, filled_share(n / 40)] for n in range(41)],
    }


VECTORS = {
    "effects": effect_vectors,
    "carries": carry_vectors,
    "words": word_vectors,
    "players": player_vectors,
    "snapping": snapping_vectors,
    "sizing": sizing_vectors,
    "motion": motion_vectors,
    "masks": mask_vectors,
    "depth": depth_vectors,
    "drawings": drawing_vectors,
    "events": event_vectors,
    "live": live_vectors,
    "live_table": live_table_vectors,
    "recording": recording_vectors,
    "times": time_vectors,
    "pace": pace_vectors,
    "coming": coming_vectors,
}

if __name__ == "__main__":
    for name, make in VECTORS.items():
        (HERE / f"{name}.json").write_text(json.dumps(make()) + "\n")
