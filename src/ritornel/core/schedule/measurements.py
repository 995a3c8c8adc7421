"""What is measured of a performed show: the renderer measures, the checks judge, and files keep it meanwhile."""

import msgspec


class ShowLoudness(msgspec.Struct, frozen=True):
    """The loudness of a self-running show's mix, by ITU-R BS.1770, and of its film; None where it is silent.

    `limits` says whether peaks are limited for the film.
    """

    lufs: float | None
    peak_dbtp: float | None
    lands_at_lufs: float | None
    limits: bool = False


class TextContrast(msgspec.Struct, frozen=True):
    """A text with a contrast of `ratio` to one, where `needs` is required; `better` is a colour that would do, white or
    ink, if one of them does.
    """

    object_id: str
    ratio: float
    needs: float
    better: str | None = None


class Flashes(msgspec.Struct, frozen=True):
    """The most flashes in any one second of a slide, and when that second begins on its clock."""

    most: int = 0
    at_ms: float = 0.0


class FrameAnalysis(msgspec.Struct, frozen=True):
    """What rendered frames show of a slide: texts with too little contrast, and its worst second."""

    contrasts: tuple[TextContrast, ...] = ()
    flashes: Flashes = Flashes()
