"""The chain's state: one array, a row for each quantity, a column for each node (SI).

One array and not a record of arrays, because a record passed between kernels counts a reference for
each of its arrays, which measured 1.7 times the whole simulation. Segment quantities stand in the
column of the segment's tip-side node.
"""

import numpy as np

from heathdrop.physics.kernels import compiled
from heathdrop.physics.kernels.records import Floats

#: Positions (m) and velocities (m/s).
X, Z, U, W = 0, 1, 2, 3
#: Velocities without tension, and the mobility that turns an impulse into velocity.
FREE_U, FREE_W, B00, B01, B10, B11 = 4, 5, 6, 7, 8, 9
#: Segments: unit vector, length (m), tension's impulse, and the tridiagonal system for it.
DX, DZ, LENGTH, TENSION, LOWER, DIAGONAL, UPPER, RIGHT = 10, 11, 12, 13, 14, 15, 16, 17
#: Last cube root of the node's speed, last tension (fading), solver scratch, 1 where a segment is tight.
ROOT, PEAK, PIVOT, ABOVE, TIGHT = 18, 19, 20, 21, 22
#: The segment's unit vector at its tip-side end: ``DX``, ``DZ`` unless it runs over a lip; that lip's number
#: and one, 0 for none.
NX, NZ, LIP = 23, 24, 25
ROWS = 26


@compiled
def state_room(nodes: int) -> Floats:
    """A chain of ``nodes`` nodes, at rest and all of it tight."""
    s = np.zeros((ROWS, nodes))
    for i in range(nodes):
        s[ROOT, i], s[TIGHT, i] = 0.5, 1.0
    return s
