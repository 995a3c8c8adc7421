"""WebVTT and SRT: captions of a clip in, captions of a whole show out (W3C WebVTT; SRT as it is commonly written)."""

import html
import re

from ritornel.core.document.objects import Caption
from ritornel.core.errors import BadMedia
from ritornel.core.formats.export import Export
from ritornel.core.schedule.captions import compile_captions
from ritornel.core.schedule.performance import perform
from ritornel.core.schedule.spoken_notes import has_captions
from ritornel.core.time.milliseconds import LONGEST_MS

_TIMES = re.compile(r"^\s*(?:(\d+):)?(\d{1,2}):(\d{2})[.,](\d{3})\s*-->\s*(?:(\d+):)?(\d{1,2}):(\d{2})[.,](\d{3})")
_TAG = re.compile(r"<[^>]*>")
MOST = 5000


def _ms(hours: str | None, minutes: str, seconds: str, thousandths: str) -> int:
    return ((int(hours or 0) * 60 + int(minutes)) * 60 + int(seconds)) * 1000 + int(thousandths)


def read_captions(data: bytes, name: str) -> tuple[tuple[Caption, ...], tuple[str, ...]]:
    """The captions in a WebVTT or SRT file, and sentences for what could not be carried over: signs of style and place
    are left out; one that overlaps the one before it begins when that ends. Raises BadMedia where the file holds
    none.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    blocks = re.split(r"\n\s*\n", text.replace("\r\n", "\n").replace("\r", "\n").strip())
    found: list[Caption] = []
    left_out = shortened = 0
    for block in blocks:
        lines = block.split("\n")
        at = next((number for number, line in enumerate(lines[:2]) if _TIMES.match(line)), None)
        if at is None:
            continue
        times = _TIMES.match(lines[at])
        assert times is not None
        start, end = _ms(*times.groups()[:4]), _ms(*times.groups()[4:])
        words = html.unescape(_TAG.sub("", "\n".join(lines[at + 1 :]))).strip()[:1000]
        if found and start < found[-1].end_ms:
            start, shortened = found[-1].end_ms, shortened + 1
        if not words or end <= start or end > LONGEST_MS or len(found) >= MOST:
            left_out += 1
            continue
        found.append(Caption(start, end, words))
    if not found:
        raise BadMedia(
            f"“{name}” holds no captions: a WebVTT or SRT file has lines such as 00:12.500 --> "
            "00:15.000. Nothing was changed."
        )
    told = []
    if left_out:
        told.append(
            f"{left_out} caption{'s' if left_out > 1 else ''} of “{name}” had no words or no length and "
            f"{'were' if left_out > 1 else 'was'} left out."
        )
    if shortened:
        told.append(
            f"{shortened} began before the one before had ended, and begin{'' if shortened > 1 else 's'} later now."
        )
    return tuple(found), tuple(told)


def _clock(ms: int) -> str:
    hours, rest = divmod(ms, 3_600_000)
    minutes, rest = divmod(rest, 60_000)
    return f"{hours:02d}:{minutes:02d}:{rest // 1000:02d}.{rest % 1000:03d}"


def write_webvtt(captions: tuple[Caption, ...]) -> str:
    """The captions as a WebVTT file."""
    blocks = [
        f"{_clock(caption.start_ms)} --> {_clock(caption.end_ms)}\n{html.escape(caption.text, quote=False)}"
        for caption in captions
    ]
    return "\n\n".join(["WEBVTT", *blocks]) + "\n"


def write_srt(captions: tuple[Caption, ...]) -> str:
    """The captions as an SRT file: numbered, a comma before the thousandths.

    Its readers know no escapes, so words stand as they are.
    """
    blocks = [
        f"{number}\n{_clock(caption.start_ms).replace('.', ',')} --> "
        f"{_clock(caption.end_ms).replace('.', ',')}\n{caption.text}"
        for number, caption in enumerate(captions, 1)
    ]
    return "\n\n".join(blocks) + "\n"


EXPORTS = (
    Export(
        address="captions.vtt",
        ending=".vtt",
        content_type="text/vtt",
        words="Captions, WebVTT",
        about="The captions of clips and voices on the show's own clock, to go with its film",
        write=lambda show: write_webvtt(compile_captions(perform(show))),
        fits=has_captions,
        place=5,
    ),
    Export(
        address="captions.srt",
        ending=".srt",
        content_type="application/x-subrip",
        words="Captions, SRT",
        about="The captions of clips and voices on the show's own clock, for older players",
        write=lambda show: write_srt(compile_captions(perform(show))),
        fits=has_captions,
        place=6,
    ),
)
