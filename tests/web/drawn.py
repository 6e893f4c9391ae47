"""A drawing in a few figures, so that a golden file can hold it and an eye can check it."""

import re
from collections.abc import Iterable

NUMBER = re.compile(r"-?\d+(?:\.\d+)?")


def figures(*paths: str) -> str:
    """How many numbers there are in paths, from where to where they go, and their mean."""
    found = [float(n) for path in paths for n in NUMBER.findall(path)]
    if not found:
        return "nothing"
    return f"{len(found)}, {min(found):.0f} to {max(found):.0f}, mean {sum(found) / len(found):.2f}"


def by_class(pieces: Iterable[tuple[str, str]]) -> dict[str, str]:
    """The figures of pieces (class, path) of one class together, in the order in which they come."""
    found: dict[str, list[str]] = {}
    for cls, path in pieces:
        found.setdefault(cls, []).append(path)
    return {cls: f"{len(paths)} of {figures(*paths)}" for cls, paths in found.items()}
