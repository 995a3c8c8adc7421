"""The readiness check: everything in a show that would disturb its audience, each finding with a fix where one exists.

A new check is a file here with a function `find` and a `TITLE` for its findings. It is registered by being there.
"""

import importlib
import pkgutil
from collections.abc import Callable, Iterator, Mapping
from types import MappingProxyType

import msgspec

from ritornel.core.checks.finding import SEVERITIES, CheckedShow, FileFault, Finding, Fix
from ritornel.core.document.show import Show
from ritornel.core.schedule.measurements import FrameAnalysis, ShowLoudness
from ritornel.core.schedule.performance import perform

Check = Callable[[CheckedShow], Iterator[Finding]]


def _collect_checks() -> dict[str, Check]:
    """The function `find` of every module here that has one, by module title, sorted by module name."""
    names = sorted(module.name for module in pkgutil.iter_modules(__path__))
    modules = [importlib.import_module(f"{__name__}.{name}") for name in names]
    return {module.TITLE: module.find for module in modules if hasattr(module, "find")}


CHECKS: Mapping[str, Check] = MappingProxyType(_collect_checks())


def find_problems(
    show: Show,
    faults: Mapping[str, FileFault] | None = None,
    loudness: ShowLoudness | None = None,
    analyses: Mapping[str, FrameAnalysis] | None = None,
) -> tuple[Finding, ...]:
    """All findings, the most harmful kinds first, each kind in the order of the show.

    `faults` are problems with the files of assets, `loudness` is measured, `analyses` is what rendered frames show of
    each slide. Raises RitornelError where the show cannot be performed.
    """
    look = CheckedShow.of(show, perform(show), faults, loudness, analyses)
    found = [
        msgspec.structs.replace(finding, group=title) for title, check in CHECKS.items() for finding in check(look)
    ]
    return tuple(sorted(found, key=lambda finding: (SEVERITIES.index(finding.severity), finding.at_ms)))


__all__ = [
    "CHECKS",
    "SEVERITIES",
    "CheckedShow",
    "FileFault",
    "Finding",
    "Fix",
    "find_problems",
]
