"""Pages of a PDF as slides: each is a sharp picture that fills its slide, with the words as the text alternative."""

import hashlib
import io
from fractions import Fraction
from pathlib import Path

import msgspec
import pypdfium2 as pdfium
from PIL import Image

from ritornel.core.document.show import Asset, Frame, Show, Transition
from ritornel.core.errors import BadMedia
from ritornel.core.formats.media import Medium, asset_from
from ritornel.core.formats.pictures import slides_of
from ritornel.core.formats.progress import tell_progress
from ritornel.core.time.milliseconds import round_half_up

MOST_PAGES = 300
SHARPNESS = 2
"""A page has so many pixels for each of its slide's: sharp on screens of twice the size."""
LONG_SIDE_PX = 1280
PNG_BYTES = 1_500_000
"""A page that would be larger as PNG is a photograph, and kept as JPEG."""
BASE_MS, WORDS_PER_S = 1500, 3
LEAST_MS = 4000
ALTERNATIVE_CHARACTERS = 2000
NAME_CHARACTERS = 60


def frame_for(width_pt: float, height_pt: float) -> Frame:
    """The frame for pages of this size: the longer side 1280 px, the other even.

    >>> frame_for(960, 540), frame_for(595, 842)
    (Frame(width_px=1280, height_px=720), Frame(width_px=904, height_px=1280))
    """
    scale = LONG_SIDE_PX / max(width_pt, height_pt)
    return Frame(*(max(round_half_up(Fraction(side * scale) / 2) * 2, 16) for side in (width_pt, height_pt)))


def _opened(path: Path, name: str) -> pdfium.PdfDocument:
    try:
        document = pdfium.PdfDocument(path)
        count = len(document)
    except pdfium.PdfiumError as error:
        if getattr(error, "err_code", None) == pdfium.raw.FPDF_ERR_PASSWORD:
            raise BadMedia(
                f"“{name}” is kept shut by a password. Save it without one, and choose it again. Nothing was made."
            ) from error
        raise BadMedia(f"“{name}” is no PDF that can be read. Nothing was made.") from error
    if count == 0:
        raise BadMedia(f"“{name}” has no pages. Nothing was made.")
    if count > MOST_PAGES:
        raise BadMedia(
            f"“{name}” has {count} pages; at most {MOST_PAGES} can become slides. Save a part of it, and "
            "choose that. Nothing was made."
        )
    return document


def _picture(image: Image.Image) -> tuple[bytes, str]:
    out = io.BytesIO()
    image.save(out, "PNG")
    if out.tell() <= PNG_BYTES:
        return out.getvalue(), "image/png"
    out = io.BytesIO()
    image.convert("RGB").save(out, "JPEG", quality=92)
    return out.getvalue(), "image/jpeg"


def _page(page: pdfium.PdfPage, frame: Frame) -> tuple[bytes, str, int, int, str]:
    """The picture of a page with its type and size, and its words."""
    width, height = page.get_size()
    scale = SHARPNESS * min(frame.width_px / width, frame.height_px / height)
    image = page.render(scale=scale).to_pil()
    data, media_type = _picture(image)
    return data, media_type, image.width, image.height, " ".join(page.get_textpage().get_text_range().split())


def read_pdf(
    path: Path, name: str, folder: Path, show_id: str, told: Path | None = None
) -> tuple[Show, tuple[str, ...]]:
    """The show of the PDF at `path`, uploaded as `name`, and sentences for what could not be imported.

    Its pictures then lie in `folder`, each under its hash. A slide lasts as long as it takes to read, at least four
    seconds. A file says meanwhile how many pages are done (progress.py). Raises BadMedia for a file that is no PDF, is
    encrypted, has no readable page, or too many pages.
    """
    document = _opened(path, name)
    title = str(document.get_metadata_dict().get("Title") or name.rsplit(".", 1)[0] or name).strip()[:200] or name[:200]
    frame: Frame | None = None
    assets: list[Asset] = []
    broken: list[int] = []
    lasts: list[int] = []
    for number in range(len(document)):
        tell_progress(told, number, len(document))
        try:
            page = document[number]
            frame = frame or frame_for(*page.get_size())
            data, media_type, width, height, words = _page(page, frame)
        except (pdfium.PdfiumError, ValueError, ZeroDivisionError):
            broken.append(number + 1)
            continue
        sha256 = hashlib.sha256(data).hexdigest()
        (folder / sha256).write_bytes(data)
        asset = asset_from(
            Medium(media_type=media_type, data=data, width_px=width, height_px=height),
            f"page-{number + 1}",
            words[:NAME_CHARACTERS].strip() or f"Page {number + 1}",
        )
        assets.append(msgspec.structs.replace(asset, alternative=words[:ALTERNATIVE_CHARACTERS]))
        lasts.append(max(BASE_MS + round_half_up(Fraction(1000 * len(words.split()), WORDS_PER_S)), LEAST_MS))
    if frame is None or not assets:
        raise BadMedia(f"No page of “{name}” can be read. Nothing was made.")
    comes = Transition("dissolve", 600)
    slides = tuple(
        slide
        for asset, ms in zip(assets, lasts, strict=True)
        for slide in slides_of([asset], ms, comes, frame, f"{asset.id}-")
    )
    notices: tuple[str, ...] = ()
    if broken:
        which = ", ".join(map(str, broken[:8])) + (" and others" if len(broken) > 8 else "")
        notices = (
            f"Page{'s' if len(broken) > 1 else ''} {which} of “{name}” cannot be read and "
            f"{'were' if len(broken) > 1 else 'was'} left out.",
        )
    return Show(show_id, title, frame, slides=slides, assets=tuple(assets)), notices
