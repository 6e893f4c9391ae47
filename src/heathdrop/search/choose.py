"""Choosing a few of many so that every place has a good one: the facility-location problem.

The sum over places of the best chosen value is submodular: the greedy choice is within 1 - 1/e of the best
(Nemhauser, Wolsey, Fisher, Mathematical Programming 14, 1978); exchanging until nothing improves closes most
of the rest, and a brute-force test holds it against the true best.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

Values = NDArray[np.float64]
Groups = NDArray[np.intp]
#: An exchange that gains less than this is no gain.
LEAST_GAIN = 1e-9
#: Rows that a choice is begun from: more found nothing better over the random days of docs/plan.md.
FIRST_ROWS = 60


def worth(values: Values, chosen: Sequence[int]) -> float:
    """The sum over places (columns) of the best chosen row; ``values`` is (candidates, places)."""
    return float(values[list(chosen)].max(axis=0).sum()) if len(chosen) else 0.0


def bound(values: Values) -> float:
    """What no choice can pass: every place with its own best."""
    return float(values.max(axis=0).sum()) if values.size else 0.0


def choose(values: Values, groups: Sequence[int], count: int) -> list[int]:
    """Rows chosen greedily, then exchanged one for one until nothing improves, from no row and from each of
    the :data:`FIRST_ROWS` that are worth most by themselves; at most ``count``, at most one of each group (a
    rod holds one rig), none that adds nothing. Ties: the earlier."""
    each = np.array(groups, dtype=np.intp)
    tries = [_grown(values, each, count, [])]
    first = np.argsort(-values.sum(axis=1), kind="stable")[:FIRST_ROWS]
    tries += [_grown(values, each, count, [k]) for k in sorted(first.tolist())]
    best = max(tries, key=lambda rows: round(worth(values, rows), 9))
    return _needed(values, best)


def _needed(values: Values, chosen: list[int]) -> list[int]:
    """The chosen without those that add nothing, one at a time."""
    while len(chosen) > 1:
        lost = adds(values, chosen)
        least = int(np.argmin(lost))
        if lost[least] > LEAST_GAIN:
            break
        chosen = [*chosen[:least], *chosen[least + 1 :]]
    return chosen


def _grown(values: Values, groups: Groups, count: int, chosen: list[int]) -> list[int]:
    """A choice grown greedily from its first rows, then exchanged until nothing improves."""
    while len(chosen) < count:
        row = _best_more(values, groups, chosen)
        if row is None:
            break
        chosen.append(row)
    better = True
    while better:
        better = _exchanged(values, groups, chosen)
    return chosen


def _allowed(groups: Groups, others: Sequence[int]) -> Groups:
    """Rows whose group none of the others is of."""
    free = np.ones(len(groups), dtype=bool)
    for k in others:
        free &= groups != groups[k]
    return np.flatnonzero(free)


def _best_more(values: Values, groups: Groups, chosen: list[int]) -> int | None:
    """The row that adds most; None when nothing adds."""
    have = values[chosen].max(axis=0) if chosen else np.zeros(values.shape[1])
    rows = _allowed(groups, chosen)
    if not len(rows):
        return None
    gains = np.maximum(values[rows] - have, 0.0).sum(axis=1)
    best = int(np.argmax(gains))
    return int(rows[best]) if gains[best] > LEAST_GAIN or not chosen else None


def _exchanged(values: Values, groups: Groups, chosen: list[int]) -> bool:
    """Exchange the first row that a better one can stand in for; whether there was one."""
    now = worth(values, chosen)
    for n in range(len(chosen)):
        rest = chosen[:n] + chosen[n + 1 :]
        have = values[rest].max(axis=0) if rest else np.zeros(values.shape[1])
        rows = _allowed(groups, rest)
        sums = np.maximum(values[rows], have).sum(axis=1)
        best = int(np.argmax(sums))
        if sums[best] > now + LEAST_GAIN:
            chosen[n] = int(rows[best])
            return True
    return False


def adds(values: Values, chosen: Sequence[int]) -> list[float]:
    """What is lost without each of the chosen."""
    whole = worth(values, chosen)
    return [whole - worth(values, [*chosen[:n], *chosen[n + 1 :]]) for n in range(len(chosen))]
