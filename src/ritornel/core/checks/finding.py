"""A finding of a check, as a value."""

from collections.abc import Mapping
from fractions import Fraction
from types import MappingProxyType
from typing import Literal

import msgspec

from ritornel.core.document.edits import Edit
from ritornel.core.document.show import Show, Slide
from ritornel.core.schedule.measurements import FrameAnalysis, ShowLoudness
from ritornel.core.schedule.performance import Performance, StagedSlide
from ritornel.core.time.milliseconds import round_half_up

Severity = Literal["stops", "hurts", "polish"]
FileFault = Literal["missing", "damaged"]
SEVERITIES: tuple[Severity, ...] = ("stops", "hurts", "polish")
"""By what the audience suffers: the show cannot be followed, something is missed, something could be better."""


def about_s(ms: int) -> str:
    """Seconds as a finding writes them, to a tenth: 12 833 -> `12.8`."""
    return f"{round_half_up(Fraction(ms, 100)) / 10:.1f}"


class Fix(msgspec.Struct, frozen=True):
    """A fix: words that say exactly what it does, and the edit that does it. One undo takes it back."""

    words: str
    edit: Edit


class Finding(msgspec.Struct, frozen=True, kw_only=True):
    """One finding. Its `id` stays the same as long as it is about the same thing. `title` has the measured figures,
    `why` says what it means for the audience. It lies at `at_ms` of the self-running show, on the slide with that id
    (None: it is about the whole show).
    """

    id: str
    check: str
    severity: Severity
    title: str
    why: str
    slide_id: str | None = None
    number: int | None = None
    at_ms: int = 0
    fix: Fix | None = None
    asset_id: str | None = None
    """The medium whose file has to be added again."""
    group: str = ""
    """What it has in common with others that are shown and fixed together, in words."""


class CheckedSlide(msgspec.Struct, frozen=True):
    """A shown slide for the checks: its number from 1, its staging, and when it begins in the show."""

    number: int
    slide: Slide
    staged: StagedSlide
    start_ms: int

    def finding(
        self,
        kind: str,
        check: str,
        severity: Severity,
        *,
        title: str,
        why: str,
        about: str = "",
        after_ms: int = 0,
        fix: Fix | None = None,
        group: str = "",
    ) -> Finding:
        """A finding on this slide, `after_ms` after the slide begins. Its id is made of its kind, the slide and what it
        is `about`: `small:s4:title`.
        """
        return Finding(
            id=":".join(filter(None, (kind, self.slide.id, about))),
            check=check,
            severity=severity,
            title=title,
            why=why,
            slide_id=self.slide.id,
            number=self.number,
            at_ms=self.start_ms + after_ms,
            fix=fix,
            group=group,
        )


class CheckedShow(msgspec.Struct, frozen=True):
    """A show for the checks: its shown slides, and its performance."""

    show: Show
    performance: Performance
    slides: tuple[CheckedSlide, ...]
    faults: Mapping[str, FileFault] = MappingProxyType({})
    """What is wrong with the files of assets, by the assets' ids."""
    loudness: ShowLoudness | None = None
    """How loud it is, where that was measured."""
    analyses: Mapping[str, FrameAnalysis] = MappingProxyType({})
    """What rendered frames show, by slide id, of the slides that were analysed."""

    @classmethod
    def of(
        cls,
        show: Show,
        performance: Performance,
        faults: Mapping[str, FileFault] | None = None,
        loudness: ShowLoudness | None = None,
        analyses: Mapping[str, FrameAnalysis] | None = None,
    ) -> "CheckedShow":
        numbers = show.numbers
        starts = performance.schedule.starts_ms
        slides = tuple(
            CheckedSlide(numbers[staged.slide.id], staged.slide, staged, starts[at])
            for at, staged in enumerate(performance.slides)
        )
        return cls(show, performance, slides, faults or {}, loudness, analyses or {})
