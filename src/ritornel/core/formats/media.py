"""Pictures, sounds and clips: the true kind of a file, by its content and never by its name."""

import contextlib
import hashlib
import io
import math
from fractions import Fraction
from pathlib import Path
from typing import Any, cast

import av
import msgspec
import numpy as np
from av.audio.resampler import AudioResampler
from av.stream import Disposition
from PIL import Image, ImageCms, ImageOps, UnidentifiedImageError

from ritornel.core.containers import open_container
from ritornel.core.document.show import Asset, MediaType
from ritornel.core.errors import BadMedia, RitornelError
from ritornel.core.formats.svg import looks_like_svg, redraw_svg
from ritornel.core.sound.loudness import LoudnessMeter
from ritornel.core.time.edges import SAMPLE_RATE_HZ
from ritornel.core.time.milliseconds import LONGEST_MS, round_half_up

MEASURED_S, COUNTED_S = 60, 600
"""How much of a sound its loudness is measured over when it comes, and how much is decoded to count its samples: an
hour would keep somebody waiting.
"""

AT_ONCE = 100
"""How many frames of sound are measured at a time."""


class Limits(msgspec.Struct, frozen=True):
    """The largest files and pictures that are accepted."""

    file_bytes: int = 200_000_000
    picture_pixels: int = 100_000_000


class Medium(msgspec.Struct, frozen=True, kw_only=True):
    """The true kind of a file.

    `data` differs from the file's bytes where the picture was redrawn, turned upright or converted to plain RGB;
    `notes` are sentences for the maker about that.
    """

    media_type: str
    data: bytes
    width_px: int = 0
    height_px: int = 0
    lasts_ms: int = 0
    notes: tuple[str, ...] = ()
    loudness_lufs: float | None = None
    silent: bool = False
    heavy: bool = False

    @property
    def sha256(self) -> str:
        return hashlib.sha256(self.data).hexdigest()


SUFFIXES = {
    "image/png": ".png",
    "image/jpeg": ".jpg",
    "image/webp": ".webp",
    "image/gif": ".gif",
    "audio/wav": ".wav",
    "audio/mpeg": ".mp3",
    "audio/ogg": ".ogg",
    "audio/flac": ".flac",
    "audio/mp4": ".m4a",
    "video/mp4": ".mp4",
    "video/webm": ".webm",
}
SOUND_SUFFIXES = {".wav", ".mp3", ".ogg", ".oga", ".opus", ".flac", ".m4a"}
PICTURE_SUFFIXES = {".png", ".jpg", ".jpeg", ".webp", ".gif", ".avif", ".svg"}
KINDS = "PNG, JPEG, WebP, GIF, AVIF and SVG"
FONT_SIGNS = (b"\x00\x01\x00\x00", b"OTTO", b"ttcf", b"wOFF", b"wOF2", b"true")
OPENED = ("AVIF", "PNG", "JPEG", "WEBP", "GIF", "BMP", "TIFF")
"""The kinds of picture that are looked into at all; of the last two it can be said what they are."""
_PICTURES = {"AVIF": "image/avif", "PNG": "image/png", "JPEG": "image/jpeg", "WEBP": "image/webp", "GIF": "image/gif"}
CLIP_SUFFIXES = {".mp4", ".m4v", ".mov", ".webm"}
_CLIPS = {"mov,mp4,m4a,3gp,3g2,mj2": "video/mp4", "matroska,webm": "video/webm"}
_SOUNDS = {
    "wav": "audio/wav",
    "mp3": "audio/mpeg",
    "ogg": "audio/ogg",
    "flac": "audio/flac",
    "mov,mp4,m4a,3gp,3g2,mj2": "audio/mp4",
}


def probe_medium(data: bytes, name: str, limits: Limits) -> Medium:
    """What the file `name` with these bytes is.

    Raises BadMedia, in a sentence, for everything that cannot be shown or heard.
    """
    if not data:
        raise BadMedia(f"“{name}” is empty. Nothing was added.")
    if len(data) > limits.file_bytes:
        raise BadMedia(f"“{name}” has {len(data) / 1e6:.1f} MB; at most {limits.file_bytes / 1e6:.0f} MB can be added.")
    if looks_like_svg(data):
        return _drawing(data, name, limits)
    if data[:4] in FONT_SIGNS:
        raise BadMedia(
            f"“{name}” is a font. A show is set in the families that ship with Ritornel, so that it "
            "looks alike everywhere. Nothing was added."
        )
    try:
        Image.MAX_IMAGE_PIXELS = None  # sizes are checked below, against our own limit and with our own words
        with Image.open(io.BytesIO(data), formats=OPENED) as picture:
            return _picture(picture, data, name, limits)
    except UnidentifiedImageError:
        return _probe_timed(data, name)
    except RitornelError:
        raise
    except Exception as error:
        # What a picture's decoder stumbles over: half a file, or words in it that unpack to far more than a picture
        # has.
        raise BadMedia(f"“{name}” says it is a picture, but it is damaged. Nothing was added.") from error


def _drawing(data: bytes, name: str, limits: Limits) -> Medium:
    png, left_out = redraw_svg(data, name)
    with Image.open(io.BytesIO(png)) as picture:
        width, height = picture.size
    if width * height > limits.picture_pixels:
        raise BadMedia(
            f"“{name}” would be {width} × {height} px; at most {limits.picture_pixels / 1e6:.0f} "
            "megapixels can be shown."
        )
    notes = (f"“{name}” was redrawn without {' and '.join(left_out)}.",) if left_out else ()
    return Medium(media_type="image/png", data=png, width_px=width, height_px=height, notes=notes)


def _picture(picture: Image.Image, data: bytes, name: str, limits: Limits) -> Medium:
    kind = _PICTURES.get(picture.format or "")
    if kind is None:
        raise BadMedia(f"“{name}” is a {picture.format} picture. {KINDS} can be added.")
    width, height = picture.size
    if width * height > limits.picture_pixels:
        raise BadMedia(
            f"“{name}” is {width} × {height} px, {width * height / 1e6:.0f} megapixels; "
            f"at most {limits.picture_pixels / 1e6:.0f} can be shown. Make it smaller first."
        )
    try:
        turned = picture.getexif().get(0x0112, 1) not in (0, 1)
        moves = getattr(picture, "n_frames", 1) > 1
        picture.load()
        foreign = _foreign_colours(picture)
        if not (turned or moves or foreign or kind == "image/avif") and picture.mode in (
            "1",
            "L",
            "LA",
            "P",
            "RGB",
            "RGBA",
        ):
            return Medium(media_type=kind, data=data, width_px=width, height_px=height)
        plain = _to_plain(ImageOps.exif_transpose(picture), foreign)
    except (OSError, SyntaxError, ValueError, ImageCms.PyCMSError) as error:
        raise BadMedia(
            f"“{name}” says it is a {picture.format} picture, but it is damaged. Nothing was added."
        ) from error
    notes = (f"“{name}” moves; a still picture of its first moment was taken.",) if moves else ()
    plain.info.clear()  # what the old file said of its colours and turns is no longer so
    out = io.BytesIO()
    if plain.mode == "RGB" and kind in ("image/jpeg", "image/avif"):
        plain.save(out, "JPEG", quality=95)
        return Medium(
            media_type="image/jpeg", data=out.getvalue(), width_px=plain.width, height_px=plain.height, notes=notes
        )
    plain.save(out, "PNG")
    return Medium(
        media_type="image/png", data=out.getvalue(), width_px=plain.width, height_px=plain.height, notes=notes
    )


def _foreign_colours(picture: Image.Image) -> ImageCms.ImageCmsProfile | None:
    """The picture's colour profile where it is not sRGB. Browsers and films would otherwise show its colours
    differently.
    """
    data = picture.info.get("icc_profile")
    if not data:
        return None
    try:
        profile = ImageCms.ImageCmsProfile(io.BytesIO(data))
        return None if "srgb" in (ImageCms.getProfileDescription(profile) or "").lower() else profile
    except (OSError, ImageCms.PyCMSError):
        return None  # a broken profile says nothing; the colours are taken as they are


def _to_plain(picture: Image.Image, profile: ImageCms.ImageCmsProfile | None) -> Image.Image:
    """The picture in 8 bits of sRGB, with alpha where it has any."""
    if picture.mode.startswith("I") or picture.mode == "F":
        # 16 bits of grey: 65535 is white. 257 = 65535 / 255.
        grey = np.clip(np.asarray(picture, dtype=np.float64) / 257, 0, 255)
        return Image.fromarray((grey + 0.5).astype(np.uint8)).convert("RGB")
    alpha = (
        picture.convert("RGBA").getchannel("A")
        if picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info
        else None
    )
    colours = picture if picture.mode in ("RGB", "CMYK", "L") else picture.convert("RGB")
    if profile is not None and colours.mode in ("RGB", "CMYK", "L"):
        try:
            colours = (
                ImageCms.profileToProfile(colours, profile, ImageCms.createProfile("sRGB"), outputMode="RGB") or colours
            )
        except ImageCms.PyCMSError:
            pass  # a profile for other channels than the picture has: as if there were none
    colours = colours.convert("RGB")
    if alpha is not None:
        colours.putalpha(alpha)
    return colours


def _probe_timed(data: bytes, name: str) -> Medium:
    """A sound, or a clip where there is a moving picture. The cover picture of a sound does not count."""
    refusal = (
        f"“{name}” is neither a picture nor a sound nor a clip Ritornel can read. {KINDS}; WAV, MP3, "
        "Ogg, FLAC and M4A; MP4, MOV and WebM can be added."
    )
    try:
        with open_container(io.BytesIO(data)) as container:
            if container.format.name in _CLIPS and any(not is_sleeve(stream) for stream in container.streams.video):
                return clip_of(container, data, name, _CLIPS[container.format.name])
            kind = _SOUNDS.get(container.format.name)
            if kind is None or not container.streams.audio:
                raise BadMedia(refusal)
            heard = measure_sound(container)
    except av.FFmpegError as error:
        raise BadMedia(refusal) from error
    if not heard.lasts_ms:
        raise BadMedia(f"“{name}” has no sound in it. Nothing was added.")
    check_length(heard.lasts_ms, name)
    return Medium(media_type=kind, data=data, lasts_ms=heard.lasts_ms, loudness_lufs=heard.loudness_lufs)


def check_length(lasts_ms: int, name: str) -> None:
    """Refuses a file whose packets say that it lasts longer than anything in a show may.

    Raises BadMedia.
    """
    if lasts_ms > LONGEST_MS:
        raise BadMedia(
            f"“{name}” says it lasts {lasts_ms / 3_600_000:.0f} hours; at most {LONGEST_MS // 3_600_000} "
            "can be added. Nothing was added."
        )


def is_sleeve(stream: Any) -> bool:
    """Whether a stream of pictures is the cover picture of a sound."""
    return bool(stream.disposition & Disposition.attached_pic)


class SoundMeasure(msgspec.Struct, frozen=True):
    """The length and the loudness of a sound."""

    lasts_ms: int
    loudness_lufs: float | None


def measure_sound(container: Any) -> SoundMeasure:
    """The container's first sound, by decoding it: what its header says may be wrong.

    Loudness is of its first minute. What comes after ten, or after the first of a sound that claims to be longer, is
    counted by its packets, which for MP3 may be 50 ms too long.
    """
    samples, rate, ticks = 0, 1, 0
    meter, resampler = LoudnessMeter(), AudioResampler(format="flt", layout="stereo", rate=SAMPLE_RATE_HZ)
    stream = container.streams.audio[0]
    # Somebody waits while an hour is read: decoding ten minutes of it takes a second, counting its packets another.
    decoded_s = COUNTED_S if (container.duration or 0) <= COUNTED_S * 1_000_000 else MEASURED_S
    heard: list[Any] = []
    try:
        for packet in container.demux(stream):
            if samples >= decoded_s * rate:
                ticks += packet.duration or 0
                continue
            for frame in packet.decode():
                if samples < MEASURED_S * frame.sample_rate:
                    heard += [part.to_ndarray().reshape(-1, 2) for part in resampler.resample(frame)]
                samples, rate = samples + frame.samples, frame.sample_rate
            if len(heard) > AT_ONCE:
                meter.take(np.concatenate(heard).astype(np.float32, copy=False))
                heard.clear()
    except av.FFmpegError:
        if not samples:
            raise
        # A file that was cut off is as long as what could be read of it.
    if heard:
        meter.take(np.concatenate(heard).astype(np.float32, copy=False))
    read_ms = Fraction(samples * 1000, rate) + ticks * Fraction(stream.time_base or 0) * 1000
    loudness = meter.integrated_lufs()
    return SoundMeasure(round_half_up(read_ms), round(loudness, 1) if math.isfinite(loudness) else None)


SHOWN = ("h264", "vp8", "vp9", "av1")
"""What browsers play themselves. What else the codec library reads, they are given a lighter copy of."""
HEAVY_PX, HEAVY_KBIT_S = 1920, 9000
"""From which size and weight on a clip that browsers could play is given them as a lighter copy."""


def clip_of(container: Any, data: bytes, name: str, media_type: str) -> Medium:
    """The clip in an open container.

    Its length follows from the times of its pictures, not from the header. Raises BadMedia.
    """
    stream = next(stream for stream in container.streams.video if not is_sleeve(stream))
    codec = stream.codec_context.name.removeprefix("lib")
    first, last_ms, frames = None, Fraction(0), 0
    starts_ms: Fraction | None = None
    step_ms = Fraction(1000) / stream.average_rate if stream.average_rate else Fraction(40)
    for packet in container.demux(stream):
        if packet.pts is None:
            continue
        at = Fraction(packet.pts) * packet.time_base * 1000
        starts_ms = at if starts_ms is None else min(starts_ms, at)
        length = Fraction(packet.duration) * packet.time_base * 1000 if packet.duration else step_ms
        last_ms = max(last_ms, at + length)
        frames += 1
    container.seek(0)
    with contextlib.suppress(av.FFmpegError):
        first = next(iter(container.decode(stream)), None)
    if first is None or starts_ms is None:
        raise BadMedia(f"“{name}” says it is a clip, but no picture in it can be read. Nothing was added.")
    wide, high = first.width, first.height
    if (aspect := stream.sample_aspect_ratio) and aspect > 0:
        wide = round_half_up(Fraction(wide) * Fraction(aspect))
    if first.rotation % 180:
        wide, high = high, wide
    heard = None
    if container.streams.audio:
        container.seek(0)
        with contextlib.suppress(av.FFmpegError):
            heard = measure_sound(container)
    lasts_ms = max(round_half_up(last_ms - starts_ms), 1)
    check_length(lasts_ms, name)
    notes = (f"“{name}” has no sound.",) if heard is None or not heard.lasts_ms else ()
    heavy = codec not in SHOWN or max(wide, high) > HEAVY_PX or len(data) * 8 / lasts_ms > HEAVY_KBIT_S
    if heavy:
        why = "heavy" if codec in SHOWN else f"in {codec.upper()}, which browsers do not show"
        notes = (*notes, f"“{name}” is {why}: they get a lighter copy, which is being made; films use the clip itself.")
    return Medium(
        media_type=media_type,
        data=data,
        width_px=wide,
        height_px=high,
        lasts_ms=lasts_ms,
        notes=notes,
        loudness_lufs=heard.loudness_lufs if heard else None,
        silent=not (heard and heard.lasts_ms),
        heavy=heavy,
    )


def asset_from(medium: Medium, asset_id: str, name: str, **credit: Any) -> Asset:
    """The shelf's entry for a medium."""
    return Asset(
        asset_id,
        name,
        medium.sha256,
        cast(MediaType, medium.media_type),
        size_bytes=len(medium.data),
        width_px=medium.width_px,
        height_px=medium.height_px,
        lasts_ms=medium.lasts_ms,
        loudness_lufs=medium.loudness_lufs,
        silent=medium.silent,
        heavy=medium.heavy,
        **credit,
    )


def file_name(asset: Asset) -> str:
    """The asset's file name in archives and releases: its hash and the ending of its kind."""
    return asset.sha256 + SUFFIXES[asset.media_type]


def read_medium(path: Path, limits: Limits) -> Medium:
    """The true kind of the file at `path`. Raises BadMedia."""
    if path.stat().st_size > limits.file_bytes:
        raise BadMedia(
            f"“{path.name}” has {path.stat().st_size / 1e6:.1f} MB; at most "
            f"{limits.file_bytes / 1e6:.0f} MB can be added."
        )
    return probe_medium(path.read_bytes(), path.name, limits)


def asset_of_file(
    path: Path, redrawn: Path, asset_id: str, name: str, limits: Limits, credit: dict[str, Any]
) -> tuple[Asset, tuple[str, ...]]:
    """The shelf's entry for an uploaded file with this `name`, and sentences for its maker.

    A picture that had to be redrawn then lies at `redrawn`, and the entry is about that file. Raises BadMedia.
    """
    data = path.read_bytes()
    medium = probe_medium(data, name, limits)
    if medium.data is not data:
        redrawn.write_bytes(medium.data)
    return asset_from(medium, asset_id, name.rsplit(".", 1)[0] or name, **credit), medium.notes
