"""Ruvak plans sound runs in a venue and computes what they will do."""

__version__ = "0.2.0"
