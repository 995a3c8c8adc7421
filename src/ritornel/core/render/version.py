"""The version of the renderer: part of the address of everything derived from a show or its media."""

RENDERER = 1
"""Counted up when a thumbnail, filmstrip, waveform or lighter copy would look or sound different from before, so that
no old one is kept.
"""
