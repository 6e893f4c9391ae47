"""All compiled code, in one place and cached as one.

Numba's own cache looks only at the file of the cached function, so an edit to one kernel would leave
its callers' old copy in use. Here the cache folder is named by a hash over every source file of this
package (and of the compiler's version): an edit anywhere is a new folder, an edit undone the old one.
"""

import hashlib
import os
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar, cast

import numba

from heathdrop import units

F = TypeVar("F", bound=Callable[..., Any])


def sources_hash(folder: Path = Path(__file__).parent) -> str:
    """Sixteen hex digits over the names and contents of all kernel sources and the compiler's version."""
    digest = hashlib.sha256(numba.__version__.encode())
    # Besides the kernels, the unit conversions whose constants they freeze.
    for source in [*sorted(folder.glob("*.py")), Path(units.__file__)]:
        digest.update(source.name.encode() + b"\0" + source.read_bytes() + b"\0")
    return digest.hexdigest()[:16]


def cache_folder() -> Path:
    """Where the machine code of these sources is kept: ``NUMBA_CACHE_DIR`` or the user's cache, by hash."""
    given = os.environ.get("NUMBA_CACHE_DIR")
    users = Path(os.environ.get("XDG_CACHE_HOME") or Path.home() / ".cache")
    return (Path(given) if given else users / "heathdrop") / f"kernels-{sources_hash()}"


numba.config.CACHE_DIR = str(cache_folder())  # type: ignore[attr-defined]


def written_in(function: F) -> F:
    """Compile ``function`` into each of its callers, and not by itself.

    A compiled caller optimises all that it calls once more: a tower of callers takes seconds a storey.
    """
    wrap = numba.njit(cache=True, nogil=True, fastmath=True, error_model="numpy", inline="always")
    return cast(F, wrap(function))


def compiled(function: F) -> F:
    """Compile ``function`` with Numba: machine code cached, the interpreter's lock let go."""
    wrap = numba.njit(cache=True, nogil=True, fastmath=True, error_model="numpy")
    return cast(F, wrap(function))
