"""Which version of the renderer draws: part of the address of everything that is derived from a show or its media."""

RENDERER = 1
"""Counted up when a thumbnail, filmstrip, waveform or lighter copy would look or sound different from before, so that
no old one is kept.
"""
