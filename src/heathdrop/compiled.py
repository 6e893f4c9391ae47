"""How the inner loops are compiled: once, cached on disk, free of the interpreter lock."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar, cast

import numba

F = TypeVar("F", bound=Callable[..., Any])


def compiled(function: F) -> F:
    """Compile ``function`` with Numba; the machine code is cached beside the source."""
    wrap = numba.njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
    return cast(F, wrap(function))
