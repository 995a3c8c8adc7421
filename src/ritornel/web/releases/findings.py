"""The findings of the readiness check, with everything that the worker has measured."""

from collections.abc import Mapping

from ritornel.core.checks import FileFault, Finding, find_problems
from ritornel.core.document.show import Show
from ritornel.core.schedule.performance import perform
from ritornel.web.editor.services import known_analyses, known_loudness


def findings_of(show: Show, faults: Mapping[str, FileFault] | None = None) -> tuple[tuple[Finding, ...], int]:
    """All findings of the show, and how many of its slides are not analysed yet. `faults` are those of its files."""
    analyses, missing = known_analyses(show)
    return find_problems(show, faults, known_loudness(perform(show)), analyses), missing
