"""Ritornel's tests.

Times are never asserted here: hypothesis keeps no deadline, and its examples are the same on every run.
"""

from hypothesis import settings

settings.register_profile("ritornel", deadline=None, derandomize=True)
settings.load_profile("ritornel")
