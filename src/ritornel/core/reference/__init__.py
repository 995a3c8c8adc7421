"""What a browser decides while somebody presses, drags or listens, as rules in Python. The server never calls these:
the browser must answer at once. They are the reference for the scripts: `tests/vectors/make.py` makes vectors from
them, which the tests of both sides read. A rule that the server needs too stands in its own room.

The server never asks these: a press has to be answered at once, where it is made. They are the truth that the scripts
are held to: `tests/vectors/make.py` makes the vectors from them, which the tests of both sides read. A rule that the
server needs too stands with its own room.
"""
