"""What starts when, as JSON: the schedule, music, voices and the sounds of builds, transitions and clips."""

import msgspec

from ritornel.core.document.decoding import to_builtins
from ritornel.core.document.show import Show
from ritornel.core.formats.export import Export
from ritornel.core.schedule.performance import perform


def write_schedule(show: Show) -> str:
    """The times of the self-running show, in ms, indented."""
    performance = perform(show)
    sounds = {
        "music": performance.music,
        "voices": performance.voices,
        "effects": performance.effects,
        "clips": performance.clips,
    }
    body = {
        "title": show.title,
        **to_builtins(performance.schedule),
        **{name: to_builtins(value) for name, value in sounds.items()},
    }
    return msgspec.json.format(msgspec.json.encode(body), indent=2).decode()


EXPORTS = (
    Export(
        address="schedule.json",
        ending="-schedule.json",
        content_type="application/json",
        words="Schedule",
        about="What starts when, as JSON",
        write=write_schedule,
        place=3,
    ),
)
