"""Django's runner, which also leaves how many tests passed and failed in the file RITORNEL_COUNTS."""

import json
import os
import sys
import unittest
from pathlib import Path
from typing import Any

from django.test.runner import DiscoverRunner


class CountingRunner(DiscoverRunner):
    def run_suite(self, suite: unittest.TestSuite, **kwargs: Any) -> Any:
        try:
            return super().run_suite(suite, **kwargs)
        finally:
            # Playwright keeps an event loop in this thread, in which Django refuses to close its database.
            if "tests.browser.base" in sys.modules:
                sys.modules["tests.browser.base"].stop_everything()

    def suite_result(self, suite: unittest.TestSuite, result: Any, **kwargs: Any) -> int:
        failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
        if place := os.environ.get("RITORNEL_COUNTS"):
            Path(place).write_text(json.dumps([result.testsRun - failed, failed]))
        return failed
