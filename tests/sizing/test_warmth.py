"""Everything that a first answer needs is compiled before it is asked for."""

from __future__ import annotations

import gc

import pytest

from heathdrop.physics.kernels.march import run_chain
from heathdrop.physics.kernels.search import search
from heathdrop.sizing.warmth import settle, warm_up


@pytest.mark.slow
def test_a_warm_program_compiles_nothing_more() -> None:
    assert warm_up() > 0.0
    before = [len(k.signatures) for k in (run_chain, search)]  # type: ignore[attr-defined]
    assert all(before)
    warm_up()
    assert [len(k.signatures) for k in (run_chain, search)] == before  # type: ignore[attr-defined]


def test_what_is_there_for_good_is_left_out_of_the_search_for_garbage() -> None:
    gc.unfreeze()
    settle()
    assert gc.get_freeze_count() > 10_000
    gc.unfreeze()
    assert gc.get_freeze_count() == 0
