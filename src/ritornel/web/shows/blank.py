"""What a new show and a new slide begin with."""

from ritornel.core.document.layouts import box_of, layout_named, look_of
from ritornel.core.document.objects import Paragraph, Run, Text
from ritornel.core.document.show import AdvanceAfter, Frame, Show, Slide
from ritornel.core.document.theme import Theme


def blank_show(show_id: str, title: str) -> Show:
    """One slide with the show's title on it."""
    theme, frame = Theme(), Frame()
    place = layout_named("title").places[0]
    words = Text("title", "Title", box_of(place, frame), paragraphs=(Paragraph("title-1", (Run(title),)),), place="title", **look_of(place, theme, frame))
    slide = Slide("opening", "Opening", advance=AdvanceAfter(5000), objects=(words,), layout="title")
    return Show(show_id, title, slides=(slide,))
