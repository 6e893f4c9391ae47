"""The hand from blind taps: exact rows, laws, and simulated learners with a known bias."""

from __future__ import annotations

import math
import random

import pytest

from heathdrop.errors import BadInput
from heathdrop.training.hand import HandError, Tapped, class_of, hand_of, tapped


def test_rounds_that_can_be_and_those_that_cannot() -> None:
    assert tapped(7.0, 6.3) == Tapped(7.0, 6.3)
    assert tapped(7.0, 6.3).off == pytest.approx(math.log(0.9))
    assert [class_of(s) for s in (2.0, 5.0, 5.5, 10.0, 10.5, 20.0)] == [
        "short", "short", "middle", "middle", "long", "long",
    ]  # fmt: skip
    with pytest.raises(BadInput, match="asked_s was 30; it must be from 2 to 20 s"):
        tapped(30.0, 30.0)
    with pytest.raises(BadInput, match=r"tapped_s was 2; it must be 4.0 to 25.0 s for 10 s asked"):
        tapped(10.0, 2.0)


def test_an_even_hand_to_the_digit() -> None:
    """Twelve counts, each a tenth slow: the bias is shrunk a little, the scatter falls toward none."""
    assert hand_of([]) is None
    found = hand_of([Tapped(s, 1.1 * s) for s in (3.0, 4.0, 7.0, 9.0, 12.0, 18.0) * 2])
    assert found is not None
    assert found.whole.rounds == 12
    assert found.whole.bias == pytest.approx(0.0993, abs=2e-4)
    assert found.scatter == pytest.approx(0.0513, abs=2e-3)
    assert [(name, band.rounds) for name, band in found.by_length] == [
        ("short", 4),
        ("middle", 4),
        ("long", 4),
    ]
    assert found.whole.low < found.whole.bias < found.whole.high
    assert found.enough
    assert not hand_of([Tapped(5.0, 5.0)] * 9).enough  # type: ignore[union-attr]


def test_one_slip_hardly_moves_it() -> None:
    rng = random.Random(2)
    rounds = [Tapped(s, s * math.exp(rng.gauss(0.05, 0.05))) for s in (3.0, 6.0, 8.0, 12.0) * 8]
    plain, slipped = hand_of(rounds), hand_of([*rounds, Tapped(8.0, 18.0)])
    assert plain is not None
    assert slipped is not None
    assert abs(slipped.whole.bias - plain.whole.bias) < 0.01
    assert slipped.error == pytest.approx(math.hypot(slipped.scatter, _half(slipped)), abs=1e-9)


def _half(hand: HandError) -> float:
    return (hand.whole.high - hand.whole.low) / (2.0 * 1.2816)


@pytest.mark.slow
def test_simulated_learners_are_found() -> None:
    """400 hands of known bias, uneven by 4 to 14 %, one tap in thirty a slip: within .05 s/s by 30 taps in
    nine of ten; the 80 % bands hold the truth as often as they say."""
    rng, near, held, by_class = random.Random(4), 0, 0, 0
    for _ in range(400):
        bias, scatter = rng.gauss(0.0, 0.1), rng.uniform(0.04, 0.14)
        own = {name: rng.gauss(0.0, 0.03) for name in ("short", "middle", "long")}
        rounds = []
        for _ in range(30):
            asked = rng.uniform(2.0, 20.0)
            passed = asked * (1.0 + bias + own[class_of(asked)]) * math.exp(rng.gauss(0.0, scatter))
            if rng.random() < 1 / 30:
                passed = asked * rng.uniform(0.45, 2.2)
            rounds.append(Tapped(asked, passed))
        found = hand_of(rounds)
        assert found is not None
        near += abs(found.whole.bias - bias) <= 0.05
        held += found.whole.low <= bias + sum(own.values()) / 3.0 <= found.whole.high
        by_class += sum(band.low <= bias + own[name] <= band.high for name, band in found.by_length)
    assert near >= 0.9 * 400
    assert 0.75 * 400 <= held <= 0.88 * 400
    assert 0.75 * 1200 <= by_class <= 0.88 * 1200


@pytest.mark.slow
def test_the_scatter_is_one_sigma() -> None:
    """Hands of known scatter without a slip, 120 rounds each: told within a twentieth of it on average."""
    rng = random.Random(5)
    for sigma in (0.08, 0.15, 0.25):
        found = [
            hand_of([Tapped(10.0, 10.0 * math.exp(rng.gauss(0.0, sigma))) for _ in range(120)])
            for _ in range(40)
        ]
        told = sum(hand.scatter for hand in found if hand) / len(found)
        assert told == pytest.approx(math.expm1(sigma), rel=0.06)


def test_turns_are_of_one_length_and_its_own_bias_is_meant() -> None:
    """Eleven of twenty turns in ten seconds: ten told turns took a tenth longer, so the handle is slow."""
    hand = hand_of([Tapped(10.0, 11.0)] * 20)
    assert hand is not None
    assert hand.turns.rounds == 20
    assert hand.turning.quicker == pytest.approx(-math.log1p(hand.turns.bias), abs=1e-4)
    assert -0.0955 < hand.turning.quicker < -0.085
    assert hand.turning.error == pytest.approx(
        math.hypot(math.log1p(hand.scatter), math.log((1 + hand.turns.high) / (1 + hand.turns.low)) / 2.5632),
        abs=1e-3,
    )
    assert hand.turning.rounds == 20
