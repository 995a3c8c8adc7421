"""The content of a new show and of a new slide."""

from ritornel.core.document.layouts import box_of, layout_named, look_of
from ritornel.core.document.objects import Paragraph, Text, TextRun
from ritornel.core.document.show import Frame, Runs, Show, Slide, first_advance
from ritornel.core.document.theme import Theme


def blank_show(show_id: str, title: str, runs: Runs = "self-running") -> Show:
    """A show with one slide that has the show's title on it and advances as the show runs."""
    theme, frame = Theme(), Frame()
    place = layout_named("title").places[0]
    words = Text(
        "title",
        "Title",
        box_of(place, frame),
        paragraphs=(Paragraph("title-1", (TextRun(title),)),),
        place="title",
        **look_of(place, theme, frame),
    )
    slide = Slide("opening", "Opening", advance=first_advance(runs, "opening-out"), objects=(words,), layout="title")
    return Show(show_id, title, runs=runs, slides=(slide,))
