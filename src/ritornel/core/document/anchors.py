"""What depends on the order of slides: the anchors of music spans, and the slide a carry comes from."""

import itertools

import msgspec

from ritornel.core.document.show import MusicSpan, Show, Slide, SlideEnd, SlideStart


def anchor_again(show: Show, gone: set[str]) -> tuple[tuple[MusicSpan, ...], tuple[str, ...]]:
    """The spans with new anchors for a show without the slides `gone`, and messages about each.

    A span that loses all its slides keeps its anchors; the schedule reports it as a span with no slide left.
    """
    index = {slide.id: number for number, slide in enumerate(show.slides)}
    spans: list[MusicSpan] = []
    notices: list[str] = []
    for span in show.music:
        first = index.get(span.start.slide_id, -1) if isinstance(span.start, SlideStart) else 0
        last = index.get(span.end.slide_id, -1) if isinstance(span.end, SlideEnd) else len(show.slides) - 1
        stretch = [slide for slide in show.slides[max(first, 0) : max(last, first) + 1] if slide.id not in gone]
        if first < 0 or last < 0 or not stretch:
            spans.append(span)
            continue
        if isinstance(span.start, SlideStart) and span.start.slide_id in gone:
            span = msgspec.structs.replace(span, start=SlideStart(stretch[0].id, 0))
            notices.append(f"The music now starts with slide “{stretch[0].name or stretch[0].id}”.")
        if isinstance(span.end, SlideEnd) and span.end.slide_id in gone:
            span = msgspec.structs.replace(span, end=SlideEnd(stretch[-1].id))
            notices.append(f"The music now ends with slide “{stretch[-1].name or stretch[-1].id}”.")
        spans.append(span)
    return tuple(spans), tuple(notices)


def find_reversed_spans(show: Show, order: list[str]) -> tuple[str, ...]:
    """Messages about spans that would end before they start, if the slides stood in this order."""
    before = {slide.id: number for number, slide in enumerate(show.slides)}
    after = {slide_id: number for number, slide_id in enumerate(order)}
    names = {slide.id: slide.name or slide.id for slide in show.slides}
    told = []
    for span in show.music:
        if not isinstance(span.end, SlideEnd) or span.end.slide_id not in before:
            continue
        end = span.end.slide_id
        starts = [
            span.start.slide_id if isinstance(span.start, SlideStart) else ids[0] for ids in (list(before), order)
        ]
        if starts[0] in before and before[end] >= before[starts[0]] and after[end] < after[starts[1]]:
            told.append(
                f"The end of the music, “{names[end]}”, comes before its start now, so it ends with its "
                f"first slide, “{names[starts[1]]}”."
            )
    return tuple(told)


def _carry_from(show: Show) -> dict[str, Slide]:
    """For each slide with a carry, the shown slide before it, by id."""
    shown = show.shown
    return {slide.id: before for before, slide in itertools.pairwise(shown) if slide.transition.name == "carry"}


def find_changed_carries(before: Show, after: Show) -> tuple[str, ...]:
    """Messages about carries that come from another slide after the edit."""
    old, new = _carry_from(before), _carry_from(after)
    told = []
    for slide in after.slides:
        was, now = old.get(slide.id), new.get(slide.id)
        if was is None or (now is not None and now.id == was.id) or (now is None and slide.transition.name != "carry"):
            continue
        name = slide.name or slide.id
        place = f"carries from “{now.name or now.id}”." if now else "comes first, and carries nothing."
        told.append(f"“{name}” carried from “{was.name or was.id}”; it now {place}")
    return tuple(told)
