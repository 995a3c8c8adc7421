import json
import unittest
from typing import Any

from tests.vectors.make import HERE, VECTORS


class VectorsTest(unittest.TestCase):
    """The browser is held to these files; here the core is."""

    maxDiff = 2000

    def assert_alike(self, found: Any, kept: Any, place: str) -> None:
        """Numbers may differ by what another machine's arithmetic does in the last places."""
        if isinstance(kept, float) and isinstance(found, int | float):
            self.assertAlmostEqual(found, kept, delta=1e-9 * max(1.0, abs(kept)), msg=place)
        elif isinstance(kept, dict) and isinstance(found, dict):
            self.assertEqual(sorted(found), sorted(kept), place)
            for name in kept:
                self.assert_alike(found[name], kept[name], f"{place}.{name}")
        elif isinstance(kept, list) and isinstance(found, list):
            self.assertEqual(len(found), len(kept), place)
            for number, (one, other) in enumerate(zip(found, kept, strict=True)):
                self.assert_alike(one, other, f"{place}[{number}]")
        else:
            self.assertEqual(found, kept, place)

    def test_the_core_still_does_what_its_vectors_say(self) -> None:
        for name, make in VECTORS.items():
            with self.subTest(name):
                kept = json.loads((HERE / f"{name}.json").read_text())
                self.assert_alike(json.loads(json.dumps(make())), kept, name)
