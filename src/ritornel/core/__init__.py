"""The rules of shows, without interface code.

Nothing below this package imports Django, reads a clock, uses randomness or opens a file it was not given.
Read it in this order: time, document, motion/transitions/dissolve.py, schedule, render.
"""
