"""Edits of voices."""

import msgspec

from ritornel.core.document.changes import asset_index
from ritornel.core.document.edits.draft import Draft, put, slide_of, title_of
from ritornel.core.document.objects import Id
from ritornel.core.document.show import AdvanceWithVoice, Show, Time, Voice
from ritornel.core.errors import BadValue
from ritornel.core.time.milliseconds import time_text


def check_voice(show: Show, voice: Voice) -> None:
    """Raises UnknownName where the voice's sound is not on the shelf, BadValue where the asset is no sound or is
    shorter than the voice.
    """
    asset = show.assets[asset_index(show, voice.asset_id)]
    if not asset.heard:
        raise BadValue(f"“{asset.name}” is no sound, so it cannot be a voice.", "voice.asset_id")
    if voice.out_ms > asset.lasts_ms:
        lasts, ends = time_text(asset.lasts_ms), time_text(voice.out_ms)
        raise BadValue(
            f"“{asset.name}” lasts {lasts}; a voice from it cannot end at {ends}. Nothing was changed.", "voice.out_ms"
        )


class PutVoice(msgspec.Struct, frozen=True, tag_field="do", tag="put voice"):
    """Gives the slide a voice, or removes it (None).

    With `follow` the slide goes on when the voice has ended and the breath after it has passed.
    """

    slide_id: Id
    voice: Voice | None
    follow: bool = False

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        if self.voice is None:
            return Draft(put(slide, voice=None), f"Take the voice from {title_of(slide)}")
        check_voice(show, self.voice)
        advance = (
            AdvanceWithVoice() if self.follow and not isinstance(slide.advance, AdvanceWithVoice) else slide.advance
        )
        return Draft(
            put(slide, voice=self.voice, advance=advance),
            f"{'Change' if slide.voice else 'Give'} the voice of {title_of(slide)}",
        )


class TrimVoice(msgspec.Struct, frozen=True, tag_field="do", tag="trim voice"):
    """Changes the part of the sound that the voice plays.

    Marks stay on the same words: what is cut off at the front is subtracted from each. A mark in the part that is cut
    off moves to where the voice begins.
    """

    slide_id: Id
    in_ms: Time
    out_ms: Time

    def draft(self, show: Show) -> Draft:
        slide = slide_of(show, self.slide_id)
        if slide.voice is None:
            raise BadValue(f"{title_of(slide).capitalize()} has no voice that could be trimmed.", "slide_id")
        earlier = self.in_ms - slide.voice.in_ms
        marks = {cue: max(mark - earlier, 0) for cue, mark in slide.voice.marks.items()}
        voice = msgspec.structs.replace(slide.voice, in_ms=self.in_ms, out_ms=self.out_ms, marks=marks)
        check_voice(show, voice)
        return Draft(put(slide, voice=voice), f"Trim the voice of {title_of(slide)}")
