import importlib
import pkgutil
import unittest
from collections.abc import Iterator

import msgspec

import ritornel.core


def structs() -> Iterator[type[msgspec.Struct]]:
    """Every struct that a module of the core defines."""
    for found in pkgutil.walk_packages(ritornel.core.__path__, "ritornel.core."):
        module = importlib.import_module(found.name)
        for value in vars(module).values():
            if isinstance(value, type) and issubclass(value, msgspec.Struct) and value.__module__ == found.name:
                yield value


class ValuesTest(unittest.TestCase):
    def test_values_of_the_core_are_frozen(self) -> None:
        found = list(structs())
        self.assertGreater(len(found), 150)
        self.assertEqual([kind.__qualname__ for kind in found if not kind.__struct_config__.frozen], [])

    def test_what_comes_from_outside_has_no_field_that_nobody_knows(self) -> None:
        """Settings of effects and transitions: a misspelt one would be left out and never missed."""
        settings = [kind for kind in structs() if ".effects." in kind.__module__ or ".transitions." in kind.__module__]
        self.assertGreater(len(settings), 15)
        self.assertEqual([kind.__name__ for kind in settings if not kind.__struct_config__.forbid_unknown_fields], [])
