"""Logging: the standard library's, one line an event, times in UTC. No personal data at info and above."""

import logging
import time

ROOT = "heathdrop"


def logger(room: str) -> logging.Logger:
    """The logger of a room: ``logger("store")`` is ``heathdrop.store``."""
    return logging.getLogger(f"{ROOT}.{room}")


def configure(level: str) -> None:
    """Write events of ``level`` and above to standard error."""
    handler = logging.StreamHandler()
    form = logging.Formatter("%(asctime)s %(levelname)s %(name)s %(message)s", "%Y-%m-%dT%H:%M:%SZ")
    form.converter = time.gmtime
    handler.setFormatter(form)
    root = logging.getLogger(ROOT)
    root.handlers[:] = [handler]
    root.setLevel(level.upper())
    root.propagate = False
