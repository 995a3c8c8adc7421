"""A running order as the SMIL timing of a page (W3C SMIL 2.0 as OpenDocument 1.3, part 3, 15 has it)."""

from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import Any
from xml.etree.ElementTree import Element

from ritornel.core.document.framings import moves_view
from ritornel.core.document.show import Build, Frame, OnCue, Slide, SoundEffect, Together
from ritornel.core.formats.opendocument.names import clock_value
from ritornel.core.formats.opendocument.outlines import parse_outline
from ritornel.core.formats.opendocument.transitions import SmilTransition
from ritornel.core.formats.opendocument.written_styles import el
from ritornel.core.motion.catalogue import EFFECTS
from ritornel.core.motion.settings import read_settings
from ritornel.core.schedule.slide_schedule import SlideSchedule
from ritornel.core.time.counts import UNTIL_SLIDE_ENDS

_CLASSES = MappingProxyType(
    {"enters": "entrance", "leaves": "exit", "accents": "emphasis", "travels": "custom", "plays": "media-call"}
)
_PACES = MappingProxyType(
    {"even": ("", ""), "ease in": ("0.5", ""), "ease out": ("", "0.5"), "ease in and out": ("0.5", "0.5")}
)
_BARS = MappingProxyType(
    {
        "left": ("leftToRight", ""),
        "right": ("leftToRight", "reverse"),
        "above": ("topToBottom", ""),
        "below": ("topToBottom", "reverse"),
    }
)
_NEAREST = frozenset(
    {
        "accents underline",
        "accents ring",
        "accents point",
        "enters draw on",
        "leaves draw off",
        "leaves type off",
        "enters turn in",
        "leaves turn out",
    }
)
"""Effects for which SMIL has no elements: the nearest is written."""


class Timing:
    """Writes the timing of one slide. `address` gives the place of a sound."""

    def __init__(
        self,
        slide: Slide,
        schedule: SlideSchedule,
        frame: Frame,
        address: Callable[[SoundEffect], str],
        self_running: bool,
        lost: set[str],
    ) -> None:
        self._slide, self._schedule, self._frame = slide, schedule, frame
        self._address, self._self_running, self._lost = address, self_running, lost

    def root(self, wipe: SmilTransition | None, voice: tuple[str, int] | None) -> Element | None:
        """The timing of the page, or None where there is none. `voice` is the voice's place and start."""
        parts: list[Element] = []
        name = f"{self._slide.id}.begin"
        if wipe is not None and self._slide.transition.lasts_ms:
            filtered = {
                "smil:dur": clock_value(self._slide.transition.lasts_ms),
                "smil:type": wipe.type,
                "smil:subtype": wipe.subtype,
                "smil:direction": "reverse" if wipe.reverse else "",
            }
            parts.append(el("anim:par", {"smil:begin": name}, el("anim:transitionFilter", filtered)))
        if voice is not None:
            parts.append(
                el("anim:par", {"smil:begin": clock_value(voice[1])}, el("anim:audio", {"xlink:href": voice[0]}))
            )
        sequence = self._sequence()
        if len(sequence):
            parts.append(sequence)
        return el("anim:par", {"presentation:node-type": "timing-root"}, *parts) if parts else None

    def _sequence(self) -> Element:
        sequence = el("anim:seq", {"presentation:node-type": "main-sequence"})
        times = {build.build_id: build for build in self._schedule.builds}
        cluster: Element | None = None
        beat: Element | None = None
        for build in self._slide.order:
            if moves_view(build):
                self._lost.add("framings")
                continue
            opens = isinstance(build.starts, OnCue)
            time = times[build.id]
            if beat is None or opens:
                beat = el(
                    "anim:par", {"smil:begin": self._begins(build, time.beat) if opens else "0s", "smil:fill": "hold"}
                )
                sequence.append(beat)
                cluster = None
            if cluster is None or not isinstance(build.starts, Together):
                begins = max(time.offset_ms - build.after_ms, 0)
                cluster = el("anim:par", {"smil:begin": clock_value(begins), "smil:fill": "hold"})
                beat.append(cluster)
            cluster.append(self._build(build))
        return sequence

    def _begins(self, build: Build, beat: int) -> str:
        """A cue is a press; in a self-running show its wait has a length."""
        if not self._self_running:
            return "next"
        wait = self._schedule.beats[beat].wait
        return clock_value(max(wait.hold_ms, 1)) if wait is not None else "next"

    def _build(self, build: Build) -> Element:
        effect = EFFECTS[build.effect]
        settings = read_settings(build.settings, effect.settings, build.effect)
        words = ";".join(
            f"{name}:{value:g}" if isinstance(value, float) else f"{name}:{value}"
            for name, value in build.settings.items()
            if name != "path"
        )
        faster, slower = _PACES[build.pace]
        if build.effect in _NEAREST:
            self._lost.add(f"the build “{effect.title}” elsewhere than here: the nearest takes its place")
        target = f"{self._slide.id}-{build.part or build.object_id}"
        holder = el(
            "anim:par",
            {
                "smil:begin": clock_value(build.after_ms),
                "smil:fill": "hold",
                "presentation:preset-class": _CLASSES[effect.kind],
                "presentation:preset-id": build.effect,
                "presentation:preset-sub-type": words,
                "smil:dur": clock_value(build.lasts_ms) if build.lasts_ms > 1 else "",
                "smil:accelerate": faster,
                "smil:decelerate": slower,
                "smil:repeatCount": ""
                if build.repeats == 1
                else "indefinite"
                if build.repeats == UNTIL_SLIDE_ENDS
                else str(build.repeats),
            },
        )
        holder.extend(self._leaves(build, settings, target))
        if build.sound is not None:
            holder.append(el("anim:audio", {"xlink:href": self._address(build.sound)}))
        return holder

    def _leaves(self, build: Build, settings: Any, target: str) -> list[Element]:
        lasts = {"smil:targetElement": target, "smil:dur": clock_value(max(build.lasts_ms, 1)), "smil:fill": "hold"}
        kind, _, name = build.effect.partition(" ")
        if kind == "plays":
            return [el("anim:command", {"anim:command": "play", "smil:targetElement": target, "smil:begin": "0s"})]
        if kind == "travels":
            return [
                el(
                    "anim:animateMotion",
                    {
                        **lasts,
                        "smil:attributeName": "position",
                        "svg:path": _path_in_shares(settings.path, self._frame),
                    },
                )
            ]
        if kind == "accents":
            return self._accent(name, settings, lasts)
        shows = (
            el("anim:set", _set(target, "visible", 0))
            if kind == "enters"
            else el("anim:set", _set(target, "hidden", build.lasts_ms))
        )
        moves = self._appearance(name, settings, lasts, kind == "leaves")
        return [shows, *moves] if kind == "enters" else [*moves, shows]

    def _appearance(self, name: str, settings: Any, lasts: Mapping[str, str], leaves: bool) -> list[Element]:
        mode = {"smil:mode": "out"} if leaves else {}
        fade = el("anim:transitionFilter", {**lasts, **mode, "smil:type": "fade", "smil:subtype": "crossfade"})

        def way(away: str, there: str) -> str:
            return f"{there};{away}" if leaves else f"{away};{there}"

        match name:
            case "cut in" | "cut out":
                return []
            case "unveil" | "veil":
                subtype, direction = _BARS[settings.begins_at]
                return [
                    el(
                        "anim:transitionFilter",
                        {**lasts, **mode, "smil:type": "barWipe", "smil:subtype": subtype, "smil:direction": direction},
                    )
                ]
            case "slide in" | "slide out":
                across = settings.comes_from in ("left", "right")
                side = self._frame.width_px if across else self._frame.height_px
                sign = "-" if settings.comes_from in ("left", "above") else "+"
                axis = "x" if across else "y"
                return [
                    el(
                        "anim:animate",
                        {
                            **lasts,
                            "smil:attributeName": axis,
                            "smil:values": way(f"{axis}{sign}{settings.distance_px / side:.4f}", axis),
                        },
                    )
                ]
            case "rise" | "sink":
                moved = way(f"y+{settings.distance_px / self._frame.height_px:.4f}", "y")
                return [fade, el("anim:animate", {**lasts, "smil:attributeName": "y", "smil:values": moved})]
            case "settle" | "loosen" | "swell" | "shrink":
                size = f"{settings.size:g},{settings.size:g}"
                return [
                    fade,
                    el(
                        "anim:animateTransform",
                        {
                            **lasts,
                            "smil:attributeName": "transform",
                            "svg:type": "scale",
                            "smil:values": way(size, "1,1"),
                        },
                    ),
                ]
            case "type on":
                return [el("anim:transitionFilter", {**lasts, "smil:type": "barWipe", "smil:subtype": "leftToRight"})]
        return [fade]

    def _accent(self, name: str, settings: Any, lasts: Mapping[str, str]) -> list[Element]:
        match name:
            case "tint":
                return [el("anim:animateColor", {**lasts, "smil:attributeName": "color", "smil:to": "#8a2456"})]
            case "blink":
                return [
                    el(
                        "anim:animate",
                        {**lasts, "smil:attributeName": "opacity", "smil:values": f"1;{settings.faint:g};1"},
                    )
                ]
            case "shake":
                far = f"{settings.distance_px / self._frame.width_px:.4f}"
                return [el("anim:animate", {**lasts, "smil:attributeName": "x", "smil:values": f"x;x+{far};x-{far};x"})]
        size = f"{1 + getattr(settings, 'swell', 0.1):g}"
        return [
            el(
                "anim:animateTransform",
                {
                    **lasts,
                    "smil:attributeName": "transform",
                    "svg:type": "scale",
                    "smil:values": f"1,1;{size},{size};1,1",
                },
            )
        ]


def _set(target: str, to: str, at_ms: int) -> dict[str, str]:
    return {
        "smil:begin": clock_value(at_ms),
        "smil:dur": "0.001s",
        "smil:fill": "hold",
        "smil:targetElement": target,
        "smil:attributeName": "visibility",
        "smil:to": to,
    }


def _path_in_shares(path: str, frame: Frame) -> str:
    """A path in px as one in shares of the page."""
    words = []
    for name, given in parse_outline(path):
        words.append(
            " ".join(
                [
                    name,
                    *(
                        f"{value:.6f}".rstrip("0").rstrip(".")
                        for x, y in given
                        for value in (x / frame.width_px, y / frame.height_px)
                    ),
                ]
            )
        )
    return " ".join(words)
