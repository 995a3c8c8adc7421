"""Whole jobs as somebody new does them, with mouse and keyboard only, their acts counted."""
