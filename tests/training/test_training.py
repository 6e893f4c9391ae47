"""The hand from blind taps, spaced repetition, waters to practise on."""

import math
import random
from collections import Counter
from datetime import UTC, datetime, timedelta

import pytest
from fsrs import Rating

from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.errors import BadInput
from heathdrop.training.hand import HandError, Tapped, class_of, hand_of, tapped
from heathdrop.training.spacing import Marked, due_of, rating_of
from heathdrop.training.waters import random_water


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


BEGUN = datetime(2026, 11, 1, 19, 0, tzinfo=UTC)


def test_marks_in_four_grades() -> None:
    assert [rating_of(m) for m in (0.0, 0.49, 0.5, 0.74, 0.75, 0.94, 0.95, 1.0)] == [
        *[Rating.Again] * 2,
        *[Rating.Hard] * 2,
        *[Rating.Good] * 2,
        *[Rating.Easy] * 2,
    ]


def test_what_was_never_asked_comes_first_then_what_was_missed() -> None:
    answers = [
        Marked("eye.nylon", BEGUN, 0.2),
        Marked("eye.braid", BEGUN, 1.0),
        Marked("eye.braid", BEGUN + timedelta(days=9), 0.9),
    ]
    found = due_of(["eye.braid", "eye.nylon", "call.wood"], answers)
    assert [d.topic for d in found] == ["call.wood", "eye.nylon", "eye.braid"]
    assert found[0].due is None
    assert found[0].lately is None
    assert (found[1].answered, found[1].lately) == (1, 0.2)
    assert found[2].lately == 0.95
    assert found[1].due is not None
    assert found[2].due is not None
    assert found[1].due - BEGUN < timedelta(hours=1)
    assert found[2].due - BEGUN > timedelta(days=15)
    assert due_of(["eye.braid", "eye.nylon", "call.wood"], answers[::-1]) == found


def test_two_weak_topics_take_at_most_half_of_a_day() -> None:
    """Five topics, one bad and one poor: of forty questions the two most asked are twenty-two at most; of
    three topics no share is kept."""
    marks = dict(zip("abcde", (0.95, 0.9, 0.8, 0.5, 0.2), strict=True))
    answers: list[Marked] = []
    for k in range(40):
        topic = due_of(marks, answers)[0].topic
        answers.append(Marked(topic, BEGUN + timedelta(minutes=k), marks[topic]))
    asked = Counter(a.topic for a in answers)
    assert sum(n for _, n in asked.most_common(2)) <= 22
    assert asked["e"] == max(asked.values())
    assert set(asked) == set(marks)
    few = [Marked("a", BEGUN, 0.1), Marked("b", BEGUN, 1.0), Marked("c", BEGUN, 1.0), Marked("a", BEGUN, 0.1)]
    assert due_of("abc", few)[0].topic == "a"


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


def _half(hand: HandError) -> float:
    return (hand.whole.high - hand.whole.low) / (2.0 * 1.2816)


def test_made_up_waters_can_be() -> None:
    assert random_water(random.Random(3)) == random_water(random.Random(3))
    rng, kinds = random.Random(8), set()
    for _ in range(200):
        body = random_water(rng)
        scenario = SizeRequest.model_validate({**body, "families": ["swim-jig"]}).scenario()
        check(scenario)
        assert scenario.conditions.fish_depth_ft <= scenario.conditions.bottom_depth_ft
        kinds.add(scenario.conditions.cover.kind)
    assert len(kinds) == 8
