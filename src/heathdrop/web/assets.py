"""Addresses of shipped files, with a content hash so that browsers may keep them."""

from __future__ import annotations

import hashlib
from functools import cache
from pathlib import Path

STATIC = Path(__file__).parent / "static"


@cache
def asset(name: str) -> str:
    """The address of a static file, changing when its content does."""
    digest = hashlib.sha256((STATIC / name).read_bytes()).hexdigest()[:12]
    return f"/static/{name}?v={digest}"
