"""What was simulated once is not simulated again: found settings by everything that they hang on.

Most controls (clarity, light, forage, a school) change what is wanted of a rig and not what it does: the
lure, its limits and the scene are the same, and so is its best setting.
"""

from collections import OrderedDict
from collections.abc import Callable, Hashable, Sequence
from threading import Lock
from typing import Generic, TypeVar

V = TypeVar("V")


class Memory(Generic[V]):
    """The latest ``most`` values by key; safe to ask from several threads."""

    def __init__(self, most: int) -> None:
        self.most = most
        self._kept: OrderedDict[Hashable, V] = OrderedDict()
        self._lock = Lock()

    def __len__(self) -> int:
        return len(self._kept)

    def clear(self) -> None:
        """Forget everything."""
        with self._lock:
            self._kept.clear()

    def all_of(self, keys: Sequence[Hashable], find: Callable[[list[int]], Sequence[V]]) -> list[V]:
        """The value of every key; ``find`` is asked once, for the places of those that are not kept."""
        with self._lock:
            values = {k: self._kept[key] for k, key in enumerate(keys) if key in self._kept}
            for k in values:
                self._kept.move_to_end(keys[k])
        missing = [k for k in range(len(keys)) if k not in values]
        if missing:
            new = find(missing)
            with self._lock:
                for k, value in zip(missing, new, strict=True):
                    values[k] = self._kept[keys[k]] = value
                while len(self._kept) > self.most:
                    self._kept.popitem(last=False)
        return [values[k] for k in range(len(keys))]
