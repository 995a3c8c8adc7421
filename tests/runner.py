"""Django's runner, which also tells the slowest tests, repeats at the end which failed, and leaves the counts in the
file RITORNEL_COUNTS.
"""

import json
import os
import sys
import time
import unittest
from pathlib import Path
from typing import Any

from django.test.runner import DiscoverRunner

SLOWEST = 15


class TimedResult(unittest.TextTestResult):
    """A result that knows how long each test took, in seconds, set-up of its class left out."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.took_s: dict[str, float] = {}

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        self.began = time.monotonic()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        super().stopTest(test)
        self.took_s[test.id()] = time.monotonic() - self.began


class CountingRunner(DiscoverRunner):
    def get_resultclass(self) -> Any:
        return super().get_resultclass() or TimedResult

    def run_suite(self, suite: unittest.TestSuite, **kwargs: Any) -> Any:
        try:
            return super().run_suite(suite, **kwargs)
        finally:
            # Playwright keeps an event loop in this thread, in which Django refuses to close its database.
            if "tests.browser.base" in sys.modules:
                sys.modules["tests.browser.base"].stop_everything()

    def suite_result(self, suite: unittest.TestSuite, result: Any, **kwargs: Any) -> int:
        took_s = getattr(result, "took_s", {})
        for name in sorted(took_s, key=lambda name: -took_s[name])[:SLOWEST]:
            print(f"{took_s[name]:7.1f} s  {name}")
        print(f"{sum(took_s.values()):7.1f} s  all {len(took_s)} tests of this run")
        failures = [*result.failures, *result.errors]
        for test, told in failures:
            # The last line of a traceback says what went wrong; the whole of it may be far above.
            print(f"FAILED {test.id()}: {told.strip().splitlines()[-1][:300]}")
        failed = len(failures) + len(result.unexpectedSuccesses)
        if place := os.environ.get("RITORNEL_COUNTS"):
            Path(place).write_text(json.dumps([result.testsRun - failed, failed]))
        return failed
