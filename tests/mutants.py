"""Mutants of the core: `./run mutate [--sample N] [--seed S]` changes the rules in small ways, one at a time, and sees
whether the core's tests notice.

A mutant is one change of one node of a module: a comparison turned, an operator swapped, a number off by one, a
condition negated. It meets the tests of its room, of the schedule, of all values and the vectors; one that lives meets
those of the other rooms too, but for films. A mutant that is still alive is printed.
"""

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
ROOMS = ("time", "schedule", "rehearsal", "motion", "sound", "checks")
SWAPS: dict[type, type] = {
    ast.Add: ast.Sub,
    ast.Sub: ast.Add,
    ast.Mult: ast.Add,
    ast.Div: ast.Mult,
    ast.FloorDiv: ast.Mult,
    ast.Lt: ast.LtE,
    ast.LtE: ast.Lt,
    ast.Gt: ast.GtE,
    ast.GtE: ast.Gt,
    ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot,
    ast.IsNot: ast.Is,
    ast.In: ast.NotIn,
    ast.NotIn: ast.In,
    ast.And: ast.Or,
    ast.Or: ast.And,
}
_CORE = "src/ritornel/core/"
EQUIVALENT: frozenset[tuple[str, str]] = frozenset(
    {
        # How finely, how many at once, and how much is kept: quicker or slower, never other.
        (_CORE + "schedule/view_moves.py", "KEYS = 48"),
        (_CORE + "schedule/clips.py", "@lru_cache(maxsize=8192)"),
        (_CORE + "sound/recording_file.py", "AT_ONCE = 48_000 * 10"),
        (_CORE + "motion/easing.py", "MOST_STEPS = 40"),
        # The middles are the same to a millionth of the width.
        (_CORE + "motion/flight.py", "first.x + (last.x - first.x) * progress,"),
        (_CORE + "motion/flight.py", "first.y + (last.y - first.y) * progress,"),
        # Words never cover exactly a share of measured letters.
        (
            _CORE + "checks/covered_title.py",
            "and words.shared(area_of(item.box)).size_px2 > LEAST * words.size_px2",
        ),
        # At most 2 %, in whole numbers.
        (
            _CORE + "checks/invisible.py",
            'title = f"“{item.name}” is never seen: its opacity is {item.opacity * 100:.0f} %"',
        ),
        # What stands still repeats as it likes, and begins where it ends.
        (_CORE + "schedule/reduced_motion.py", "repeats=1,"),
        (_CORE + "schedule/growing_list.py", "keys=((0.0, low), (1.0, low)),"),
        (
            _CORE + "schedule/reduced_motion.py",
            "return msgspec.structs.replace(segment, keys=((0.0, last), (1.0, last)), curve=EVEN, repeats=1)",
        ),
        (_CORE + "motion/sampling.py", "for key in keys[at : at + 2] if len(keys) > 8 else keys[1:]:"),
        # Where something has no size there is nothing to see of it.
        (_CORE + "schedule/carries.py", '"scale": way["scale"] / values.scale if values.scale else 1.0,'),
        # Before every beat is before every beat.
        (
            _CORE + "schedule/tracks.py",
            "(motion.object_id, motion.part), min(beats, default=-1), last, before, values_at(motion, over) "
            "if ends else None",
        ),
        # What is past its end is at its end.
        (_CORE + "motion/sampling.py", "return 1.0"),
        # A peak at the ceiling is multiplied by one.
        (_CORE + "sound/mastering.py", "if not len(peaks) or peaks.max() <= ceiling:"),
        # One sample of 48 000 a second is no millisecond.
        (_CORE + "sound/waveform.py", "samples = 0"),
        # Half a circle more or less is the same turn.
        (_CORE + "motion/flight.py", "return (last.turn_deg - first.turn_deg + 180) % 360 - 180"),
        # Any number below 0 is what is left.
        (_CORE + "sound/decoding.py", "return cast(Samples, part.to_ndarray().reshape(-1, 2))"),
        # Read only where a take stopped on a slide, which is given then.
        (_CORE + "rehearsal/recording.py", "at_slide: int = 0"),
        # An empty stretch adds nothing.
        (_CORE + "sound/mixing.py", "if low < high:"),
        # Another way to the same root.
        (_CORE + "rehearsal/lengths.py", "low, least, high = high, longest, high * 2"),
        (_CORE + "rehearsal/lengths.py", "chord = low + (target_ms - least) * (high - low) / (longest - least)"),
        (_CORE + "motion/easing.py", "t = (low + high) / 2.0"),
        (_CORE + "rehearsal/lengths.py", "slope = (longest - length_at(beside)) / (high - beside)"),
        (_CORE + "rehearsal/lengths.py", "tangent = high - (longest - target_ms) / slope if slope else high"),
        # Whatever is at least 1 is all of it.
        (
            _CORE + "schedule/tracks.py",
            'mask = next((ramp.mask for ramp in ramps if ramp.mask), None) if fields.get("reveal", 1.0) < 1 else None',
        ),
    }
)
"""Mutants that change nothing anybody can see, as (module, line), with the reason beside each."""


def _changes(node: ast.AST) -> Iterator[str]:
    """What can be changed at a node."""
    if isinstance(node, ast.BinOp | ast.BoolOp) and type(node.op) in SWAPS:
        yield "operator"
    if isinstance(node, ast.Compare) and len(node.ops) == 1 and type(node.ops[0]) in SWAPS:
        yield "comparison"
    if isinstance(node, ast.Constant) and type(node.value) in (int, float) and not isinstance(node.value, bool):
        yield "number"
    if isinstance(node, ast.Constant) and isinstance(node.value, bool):
        yield "truth"
    if isinstance(node, ast.If | ast.IfExp):
        yield "condition"


def _apply(node: ast.AST, kind: str) -> None:
    match kind, node:
        case "operator", ast.BinOp() | ast.BoolOp():
            node.op = SWAPS[type(node.op)]()  # type: ignore[assignment]
        case "comparison", ast.Compare():
            node.ops[0] = SWAPS[type(node.ops[0])]()
        case "number", ast.Constant():
            node.value = node.value + 1  # type: ignore[operator]
        case "truth", ast.Constant():
            node.value = not node.value
        case "condition", ast.If() | ast.IfExp():
            node.test = ast.UnaryOp(ast.Not(), node.test)


def places_of(source: str) -> list[tuple[int, str, int]]:
    """Where a module can be changed: the node's number in the tree, the kind of change, and the line."""
    tree = ast.parse(source)
    # That two lists are equally long is checked where they are walked together: a guard that no right program meets.
    guards = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.keyword) and node.arg == "strict"}
    return [
        (index, kind, getattr(node, "lineno", 0))
        for index, node in enumerate(ast.walk(tree))
        if id(node) not in guards
        for kind in _changes(node)
    ]


def changed_at(source: str, index: int, kind: str) -> str:
    """The source changed at one place."""
    tree = ast.parse(source)
    _apply(next(node for at, node in enumerate(ast.walk(tree)) if at == index), kind)
    return ast.unparse(ast.fix_missing_locations(tree))


def mutants_of(source: str) -> list[tuple[int, str, str]]:
    """All mutants of a module: the line, the kind of change, and the changed source."""
    return [(line, kind, changed_at(source, index, kind)) for index, kind, line in places_of(source)]


def sample(size: int, seed: int) -> list[tuple[Path, int, str, str]]:
    """Mutants drawn from all modules of the rooms, each as likely as any other; only those drawn are made."""
    every = [
        (path, place)
        for room in ROOMS
        for path in sorted((ROOT / "src/ritornel/core" / room).rglob("*.py"))
        for place in places_of(path.read_text(encoding="utf-8"))
    ]
    drawn = random.Random(seed).sample(every, min(size, len(every)))
    return [
        (path, line, kind, changed_at(path.read_text(encoding="utf-8"), index, kind))
        for path, (index, kind, line) in drawn
    ]


OTHER_ROOMS = ("document", "formats", "layout", "reference", "time", "rehearsal", "motion", "sound", "checks")


def is_killed(copied: Path, path: Path, source: str) -> bool:
    """Whether tests of the core fail on the changed module, in a copy of the tree: first those that are near."""
    place = copied / path.relative_to(ROOT)
    whole = place.read_text(encoding="utf-8")
    place.write_text(source, encoding="utf-8")
    room = path.relative_to(ROOT / "src/ritornel/core").parts[0]
    near = (f"tests.core.{room}", "tests.core.schedule", "tests.test_values", "tests.test_vectors")
    far = tuple(f"tests.core.{other}" for other in OTHER_ROOMS if other != room)
    environment = {**os.environ, "PYTHONPATH": f"{copied / 'src'}{os.pathsep}{copied}"}
    try:
        for tests in (near, far):
            words = [sys.executable, "manage.py", "test", *tests, "--failfast", "-v", "0"]
            if subprocess.run(words, cwd=copied, env=environment, capture_output=True, timeout=300).returncode:
                return True
        return False
    except subprocess.TimeoutExpired:
        return True
    finally:
        place.write_text(whole, encoding="utf-8")


def main() -> int:
    """Prints each mutant that is alive, and how many were killed."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--sample", type=int, default=100)
    parser.add_argument("--seed", type=int, default=1)
    wanted = parser.parse_args()
    drawn = sample(wanted.sample, wanted.seed)
    killed = equivalent = 0
    with tempfile.TemporaryDirectory(prefix="ritornel-mutants-") as folder:
        copied = Path(folder) / "tree"
        left_out = shutil.ignore_patterns(".git", ".venv", "node_modules", "var", "__pycache__")
        shutil.copytree(ROOT, copied, ignore=left_out)
        for path, line, kind, source in drawn:
            name, text = path.relative_to(ROOT).as_posix(), path.read_text().splitlines()[line - 1].strip()
            if (name, text) in EQUIVALENT:
                equivalent += 1
            elif is_killed(copied, path, source):
                killed += 1
            else:
                print(f"alive: {name}:{line} {kind}: {text}", flush=True)
    print(f"{killed} of {len(drawn) - equivalent} mutants killed, {equivalent} equivalent")
    return 0


if __name__ == "__main__":
    sys.exit(main())
