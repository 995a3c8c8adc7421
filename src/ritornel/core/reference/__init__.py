"""What a browser decides while somebody presses, pulls or listens, as rules in Python.

The server never asks these: a press has to be answered at once, where it is made. They are the truth that the scripts
are held to: `tests/vectors/make.py` makes the vectors from them, which the tests of both sides read. A rule that the
server needs too stands with its own room.
"""
