"""What a browser decides while somebody presses, drags or listens, as rules in Python.

The server never calls these: the browser must answer at once. They are the reference for the scripts:
`tests/vectors/make.py` makes vectors from them, which the tests of both sides read. A rule that the server needs too
stands in its own room.
"""
