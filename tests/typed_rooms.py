"""The rooms of JavaScript in which every parameter has a type: `python -m tests.typed_rooms` prints where one has none.

TypeScript checks whatever a file imports, so all rooms are checked at once, and what it says of the others is left out.
"""

import re
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
ROOMS = ("editor", "lectern", "overview", "player", "rehearse", "release", "ui")
_FAULT = re.compile(r"^src/ritornel/web/static/ritornel/(\w+)/")


def find_faults() -> list[str]:
    """What TypeScript says of these rooms, a line each. Other faults of its run are among them."""
    words = [ROOT / "node_modules/.bin/tsc", "-p", ROOT / "tsconfig.typed.json", "--pretty", "false"]
    told = subprocess.run(words, cwd=ROOT, capture_output=True, text=True).stdout.splitlines()
    return [
        line
        for line in told
        if line.strip() and not line.startswith(" ") and ((room := _FAULT.match(line)) is None or room[1] in ROOMS)
    ]


if __name__ == "__main__":
    faults = find_faults()
    print(*faults, sep="\n", end="\n" if faults else "")
    sys.exit(1 if faults else 0)
