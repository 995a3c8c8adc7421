"""Measurements: `./run bench`. Ratios against a baseline of the same run; docs/speed.md keeps the figures. Nothing here
is a test.
"""
