"""Heathdrop: head weight and trailer bulk for the depth, the fall and the cover."""

__version__ = "1.0.0"
