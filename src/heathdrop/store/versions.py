"""Bodies as they were written, brought up to today's form when they are read.

A changed field is one function here, never a rewrite of old rows: ``UPGRADES[table, kind, 1]`` turns
version 1 into version 2. ``*`` stands for every kind.
"""

from collections.abc import Callable
from typing import Any

from heathdrop.conditions.outcome import OLD_NAMES

Upgrade = Callable[[dict[str, Any]], dict[str, Any]]
#: The version that each table's bodies are written in.
CURRENT = {"scenario": 1, "item": 1, "observation": 1, "plan": 1, "cast": 1, "trip": 1, "drill": 2}


def _went(body: dict[str, Any]) -> dict[str, Any]:
    """A repair's question under what it is called now."""
    kind, topic, seed = (*body["question"].split("."), "", "")[:3]
    return {**body, "question": f"{kind}.{OLD_NAMES.get(topic, topic)}.{seed}"}


UPGRADES: dict[tuple[str, str, int], Upgrade] = {("drill", "*", 1): _went}


class NewerBody(ValueError):
    """A body written by a newer program than this one."""


def upgraded(table: str, kind: str, version: int, body: dict[str, Any]) -> dict[str, Any]:
    """``body`` in today's form. Raises NewerBody for one from the future."""
    if version > CURRENT[table]:
        raise NewerBody(f"a {table} of version {version}; this program reads up to {CURRENT[table]}")
    for at in range(version, CURRENT[table]):
        step = UPGRADES.get((table, kind, at)) or UPGRADES.get((table, "*", at))
        body = step(body) if step else body
    return body
