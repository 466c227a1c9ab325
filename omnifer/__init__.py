"""Omnifer: carrying everything on a bicycle for weeks or months."""

__version__ = "0.2.0"
