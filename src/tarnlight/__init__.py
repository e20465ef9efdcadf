"""Tarnlight Ferry: the night-mail ferry over a mountain tarn. A small game whose data is all generated."""

__version__ = "0.1.0"
