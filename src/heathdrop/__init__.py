"""Heathdrop: head weight and trailer bulk for the depth, the fall and the cover."""

__version__ = "0.1.0"
