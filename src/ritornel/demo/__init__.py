"""The Orlmere clock: our own demo.

Its pictures and music are made by `drawing.py` and `music.py`; all are ours, under the project's licence.
"""
