"""Ritornel: choreograph, rehearse and release self-running and spoken shows."""

__version__ = "0.1.0"
