"""Omnifer: carrying everything on a bicycle for weeks or months."""
