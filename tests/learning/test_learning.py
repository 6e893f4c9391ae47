"""Learning from drops, depths and mats: textbook limits, simulated anglers, withdrawal."""

from dataclasses import replace

import numpy as np
import pytest

from bench.learning_study import ANGLERS, Angler, study
from heathdrop.catalog import Catalog
from heathdrop.learning.checks import OneFactor
from heathdrop.learning.drops import learn_drops, predicted_s
from heathdrop.learning.learned import Learned, before_after, fall_area_cm2, learn
from heathdrop.learning.observations import DropTest
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Rig, rig_by_name, spread_of
from tests.golden_file import holds_to
from tests.learning.seen import depths, drops


@pytest.fixture
def rig(cat: Catalog) -> Rig:
    return rig_by_name(cat, "swim-jig", 0.375, "craw")


@pytest.fixture
def line(cat: Catalog) -> Line:
    return line_by_test(cat, "fluorocarbon", 15)


def timed(
    cat: Catalog, rig: Rig, line: Line, factor: float, depths: tuple[float, ...], scatter: float = 0.03
) -> list[DropTest]:
    """Three tries at each depth of a rig whose whole fall area is ``factor`` times the catalogue's."""
    rng = np.random.default_rng(4)
    found = []
    for depth in depths:
        test = DropTest(rig, line, "fluorocarbon", depth, (1.0,))
        real = predicted_s(cat, test, factor, factor, 1.0)
        found.append(replace(test, times_s=tuple(real * np.exp(scatter * rng.standard_normal(3)))))
    return found


def test_many_careful_drops_find_the_truth_and_none_leave_the_prior(
    cat: Catalog, rig: Rig, line: Line
) -> None:
    assert learn(cat, []).applied(rig) is rig
    depths = (2.0, 4.0, 6.0, 8.0, 10.0, 12.0) * 3
    learned = learn(cat, timed(cat, rig, line, 1.5, depths, 0.02))
    own = learned.applied(rig)
    assert fall_area_cm2(cat, own, 60) / fall_area_cm2(cat, rig, 60) == pytest.approx(1.5, rel=0.06)
    assert spread_of(cat, own, 60.0).fall < 0.95 * spread_of(cat, rig, 60.0).fall
    # What is wrong in all tests alike stays, however many there are; the rest is worn down.
    falls = learned.falls
    rest = [
        replace(falls, cov=falls.cov - falls.shared),
        learn_drops(cat, timed(cat, rig, line, 1.5, (2.0,))),
    ]
    apart, few = (spread_of(cat, replace(learned, falls=f).applied(rig), 60.0).fall for f in rest)
    assert apart < 0.5 * spread_of(cat, rig, 60.0).fall < few


def test_what_was_learned_carries_to_other_heads_and_not_to_other_trailers(
    cat: Catalog, rig: Rig, line: Line
) -> None:
    learned = learn(cat, timed(cat, rig, line, 1.5, (2.0, 4.0)))
    heavy = rig_by_name(cat, "swim-jig", 0.75, "craw")
    elsewhere = rig_by_name(cat, "casting-jig", 0.375, "craw")
    stranger = rig_by_name(cat, "casting-jig", 0.375, "chunk")
    assert learned.applied(heavy).measured.trailer_fall == learned.applied(rig).measured.trailer_fall > 1.1
    assert learned.applied(elsewhere).measured.trailer_fall > 1.1
    assert learned.applied(elsewhere).measured.body_fall == 1.0
    assert learned.applied(stranger) == stranger
    # Body and trailer cannot be told apart from one rig: together they are known better than either alone.
    own = learned.applied(rig).measured
    assert own.fall_joint < 0.0
    assert spread_of(cat, learned.applied(rig), 60.0).fall < min(
        own.body_fall_spread or 1, own.trailer_fall_spread or 1
    )


#: Those who misread every depth or drag line unsaid teach it as if it were the lure's (docs/model.md).
HELD = [a for a in ANGLERS if a.name != "metres for feet" and a.read == 1.0 and a.dragged_m == 0.0]


@pytest.mark.slow
@pytest.mark.parametrize("angler", HELD, ids=[a.name for a in HELD])
def test_the_band_holds_for_every_kind_of_angler(cat: Catalog, angler: Angler) -> None:
    """Late or early hands, misjudged depths, odd tries: the 90 % band holds (docs/evidence.md has more;
    a hundred and twenty leave seven in a hundred to chance, two sigma)."""
    found = study(cat, angler, people=120, seed=3)
    assert 0.80 - 0.075 < found["held"] <= 1.0
    assert found["after"] < 0.85 * found["before"]


@pytest.mark.slow
@pytest.mark.parametrize("angler", [a for a in ANGLERS if a.name in ("ordinary", "metres for feet")])
def test_three_tests_take_half_of_the_error_and_the_band_is_honest(cat: Catalog, angler) -> None:  # type: ignore[no-untyped-def]
    """Sixty simulated anglers (docs/evidence.md has two hundred of each kind)."""
    found = study(cat, angler, people=60, seed=9)
    if angler.name == "ordinary":
        assert found["after"] <= 0.55 * found["before"]
        assert 0.85 <= found["held"] <= 1.0
    else:
        assert found["asked"] > 0.95
        assert found["after"] == pytest.approx(found["before"])


def test_a_line_and_a_mat_take_their_factor() -> None:
    from heathdrop import catalog

    cat = catalog.load()
    line, known = line_by_test(cat, "nylon", 12), learn(cat, drops(cat))
    factor = known.falls.factor("line:nylon")
    assert factor != 1.0
    assert known.line(line, "nylon").friction == pytest.approx(line.friction * factor)
    assert known.line(line, "braid") is line
    said = Learned(mats={"milfoil": OneFactor(1.3, 0.2, 4)})
    assert (said.mat_factor("milfoil"), said.mat_factor("algae")) == (1.3, 1.0)


def test_the_sentences_to_the_letter(cat: Catalog) -> None:
    known = learn(cat, [*drops(cat), *depths(cat)])
    told = []
    for family, oz, trailer in (
        ("swim-jig", 0.375, "craw"),
        ("casting-jig", 0.5, "chunk"),
        ("football-jig", 0.75, "none"),
        ("swim-jig", 0.5, "paddle-tail"),
    ):
        rig = rig_by_name(cat, family, oz, trailer)
        told.append(
            [before_after(cat, known, rig, "rig", 58.0), fall_area_cm2(cat, known.applied(rig), 58.0)]
        )
    holds_to("learning.learned", told)
