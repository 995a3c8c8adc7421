"""Removes unreferenced files and rows older than a day, and reports it. The worker does the same once a day."""

from typing import Any

from django.core.management.base import BaseCommand

from ritornel.web.operations.tidying import tidy


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        done = tidy()
        for entry in done:
            if entry.count:
                self.stdout.write(entry.text())
        self.stdout.write(f"{sum(entry.bytes for entry in done) / 1e6:.1f} MB were freed.")
