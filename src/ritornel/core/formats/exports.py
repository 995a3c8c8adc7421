"""All text formats that shows can be saved in.

A new format is a file of this room with an `EXPORTS`. It is registered by being there, and so are its address, its
button and the test of who may fetch it.
"""

import importlib
import pkgutil
from collections.abc import Mapping
from types import MappingProxyType

from ritornel.core import formats
from ritornel.core.document.show import Show
from ritornel.core.formats.export import Export


def _collect_exports() -> dict[str, Export]:
    modules = [
        importlib.import_module(f"{formats.__name__}.{module.name}")
        for module in pkgutil.iter_modules(formats.__path__)
        if f"{formats.__name__}.{module.name}" != __name__
    ]
    found = [export for module in modules for export in getattr(module, "EXPORTS", ())]
    return {export.address: export for export in sorted(found, key=lambda export: export.place)}


EXPORTS: Mapping[str, Export] = MappingProxyType(_collect_exports())
"""By their addresses, in the order in which they are offered."""


def exports_of(show: Show) -> list[Export]:
    """The formats that are useful for a show."""
    return [export for export in EXPORTS.values() if export.fits(show)]
