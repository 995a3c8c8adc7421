"""What other apps may use of the editor: answers to edits, thumbnails of slides, and measurements of a show."""

from ritornel.web.editor.api import edited_reply
from ritornel.web.editor.frame_analysis import seen_of
from ritornel.web.editor.loudness import measured
from ritornel.web.editor.presence import Presence, people_at
from ritornel.web.editor.score import style_stamp, thumb_address
from ritornel.web.editor.show_feed import ShowFeed
from ritornel.web.editor.tasks import ask_for_looks

__all__ = [
    "Presence",
    "ShowFeed",
    "ask_for_looks",
    "edited_reply",
    "measured",
    "people_at",
    "seen_of",
    "style_stamp",
    "thumb_address",
]
