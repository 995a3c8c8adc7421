"""What other apps may use of the library: media for browsers, uploads, and thumbnails."""

from ritornel.web.library.browser_copies import copy_failure, light_path, tempo_path
from ritornel.web.library.media_addresses import browser_address
from ritornel.web.library.shelf_entries import shelf_line
from ritornel.web.library.slide_pictures import WIDTHS_PX, kept_picture, slide_picture
from ritornel.web.library.tasks import ask_for_copy, begin_work
from ritornel.web.library.uploads import unpack, write_down

__all__ = [
    "WIDTHS_PX",
    "ask_for_copy",
    "begin_work",
    "browser_address",
    "copy_failure",
    "kept_picture",
    "light_path",
    "shelf_line",
    "slide_picture",
    "tempo_path",
    "unpack",
    "write_down",
]
