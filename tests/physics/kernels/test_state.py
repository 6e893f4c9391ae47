"""The chain's state: a row for each quantity, no two in the same one."""

from __future__ import annotations

import numpy as np

from heathdrop.physics.kernels import state


def test_each_quantity_has_a_row_of_its_own() -> None:
    rows = [v for k, v in vars(state).items() if k.isupper() and k != "ROWS" and isinstance(v, int)]
    assert sorted(rows) == list(range(state.ROWS))


def test_a_new_chain_is_at_rest_and_tight() -> None:
    made = state.state_room(7)
    assert made.shape == (state.ROWS, 7)
    assert np.all(made[state.ROOT] == 0.5)
    assert np.all(made[state.TIGHT] == 1.0)
    made[[state.ROOT, state.TIGHT]] = 0.0
    assert not made.any()
