"""Runs the named measurements, or all but record and long-film, which take an hour and a quarter of one: film, clips,
sound, schedule, web, painter ...
"""

import sys

from bench import (
    clips,
    film,
    hour,
    large,
    live,
    long_film,
    look,
    painter,
    record,
    release,
    schedule,
    score,
    sound,
    stage,
    streams,
    team,
    web,
)

PARTS = {
    "schedule": schedule.measure,
    "film": film.measure,
    "long-film": long_film.measure,
    "clips": clips.measure,
    "large": large.measure,
    "sound": sound.measure,
    "hour": hour.measure,
    "live": live.measure,
    "web": web.measure,
    "painter": painter.measure,
    "stage": stage.measure,
    "score": score.measure,
    "look": look.measure,
    "release": release.measure,
    "record": record.measure,
    "streams": streams.measure,
    "team": team.measure,
}


def main(names: list[str]) -> int:
    for name in names or [part for part in PARTS if part not in ("record", "long-film")]:
        print(f"\n== {name}", flush=True)
        for label, value, wanted in PARTS[name]():
            print(f"{label:<70} {value:>14}   wanted {wanted}", flush=True)
    return 0


sys.exit(main(sys.argv[1:]))
