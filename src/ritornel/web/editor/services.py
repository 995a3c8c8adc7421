"""What other apps may use of the editor: answers to edits, thumbnails of slides, and measurements of a show."""

from ritornel.web.editor.api import reply_to_edit
from ritornel.web.editor.frame_analysis import known_analyses
from ritornel.web.editor.loudness import known_loudness
from ritornel.web.editor.presence import Presence, people_at
from ritornel.web.editor.score import style_stamp, thumb_address
from ritornel.web.editor.show_feed import ShowFeed
from ritornel.web.editor.tasks import ask_for_looks

__all__ = [
    "Presence",
    "ShowFeed",
    "ask_for_looks",
    "known_analyses",
    "known_loudness",
    "people_at",
    "reply_to_edit",
    "style_stamp",
    "thumb_address",
]
