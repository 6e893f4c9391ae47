"""Which rigs to try: every listed head with every standard trailer, each at the length that suits it best.

The length is chosen in closed form (fall, action, bulk): it is a finer choice than the board shows, and
simulating each would cost more than it tells.
"""

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

from heathdrop.catalog import Catalog, Family, Trailer
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.physics.rig import Lure, Rig, rig_by_name
from heathdrop.physics.rig_name import USUAL
from heathdrop.sizing.cadence import cadences_for
from heathdrop.sizing.fit import LEAST_BULK_CM2, LEAST_PART, action_fit, action_of, within
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.rated import closed_of
from heathdrop.sizing.remembered import tail_key
from heathdrop.sizing.setting import Setting
from heathdrop.units import feet

#: No rig sinks slower than this, ft/s.
SLOWEST_FALL_FT_S = 0.3
#: The skirt alone.
BARE = "none"


def standard_trailers(catalog: Catalog, bare: bool = False) -> list[str]:
    """Standard trailers, slim to bulky (by run drag area); ``bare`` adds the skirt alone."""
    rows = [t for t in catalog.trailers.values() if t.standard or (bare and t.bare)]
    return [t.id for t in sorted(rows, key=lambda t: t.run_drag_area_cm2)]


def lengths_of(family: Family, trailer: Trailer) -> tuple[float, ...]:
    """The lengths (in) a family's trailer of this shape is tried in: cut ones, else as they are sold."""
    if trailer.bare:
        return (0.0,)
    return family.plastic_in or trailer.lengths_in


#: Standard rigs, each made once for its catalogue: what is worked out of one holds wherever it is thrown.
RIGS: Memory[tuple[Catalog, Rig]] = Memory(8192)


def _standard(catalog: Catalog, family: str, head_oz: float, trailer: str, **more: Any) -> Rig:
    """A rig from catalogue names, the same object each time."""
    # A rig that is kept keeps its catalogue, so that no other one has its identity meanwhile.
    key = id(catalog), family, head_oz, trailer, *more.values()
    made = RIGS.all_of([key], lambda _: [(catalog, rig_by_name(catalog, family, head_oz, trailer, **more))])
    return made[0][1]


def dressed(setting: Setting, head_oz: float, trailer: Trailer, length_in: float) -> Rig:
    """A standard rig as the rules and schools dress it here."""
    dress = setting.dresses[trailer.id]
    return _standard(
        setting.catalog,
        setting.family.id,
        head_oz,
        trailer.id,
        trailer_length_in=length_in,
        orientation=dress.get("orientation"),
        skirt=dress.get("skirt"),
        plastic=dress.get("plastic"),
        blades=dress.get("blades"),
        head_material=dress.get("head_material") or USUAL["head_material"],
    )


def standard_rigs(setting: Setting) -> list[Rig]:
    """The standard set of the setting's family: trailers × heads, each pair at its best length."""
    catalog, family = setting.catalog, setting.family
    heads = [_standard(catalog, family.id, oz, BARE) for oz in family.weights_oz]
    bare = [_sinks(setting, setting.lure(rig)) for rig in heads]
    rigs = []
    for id_ in standard_trailers(catalog, setting.leaning.bare or family.bare_too):
        trailer = catalog.trailers[id_]
        lengths = lengths_of(family, trailer)
        made = [dressed(setting, family.weights_oz[0], trailer, length) for length in lengths]
        if len(made) == 1:
            rigs += [dressed(setting, oz, trailer, lengths[0]) for oz in family.weights_oz]
            continue
        steady = [_steady_worth(setting, rig) for rig in made]
        more = [_less(_sinks(setting, setting.lure(rig)), bare[0]) for rig in made]
        for oz, head in zip(family.weights_oz, bare, strict=True):
            worth = [
                w + _fall_worth(setting, one) + _weight_worth(setting, _fishes_oz(setting, oz, one))
                for w, one in zip(steady, (_more(head, m) for m in more), strict=True)
            ]
            rigs.append(dressed(setting, oz, trailer, lengths[worth.index(max(worth))]))
    return rigs


class Sinks(NamedTuple):
    """What a lure sinks and rides by: net weight (N), fall drag area (m²), area that holds it up (m²)."""

    weight_n: float
    fall_m2: float
    up_m2: float


def _sinks(setting: Setting, lure: Lure) -> Sinks:
    return Sinks(lure.net_weight_n, lure.fall_drag_area_m2, setting.bearing.holds_up_m2(lure))


def _less(whole: Sinks, bare: Sinks) -> Sinks:
    """What a trailer adds, whatever the head."""
    return Sinks(whole.weight_n - bare.weight_n, whole.fall_m2 - bare.fall_m2, whole.up_m2 - bare.up_m2)


def _more(bare: Sinks, added: Sinks) -> Sinks:
    return Sinks(bare.weight_n + added.weight_n, bare.fall_m2 + added.fall_m2, bare.up_m2 + added.up_m2)


def _fishes_oz(setting: Setting, head_oz: float, sinks: Sinks) -> float:
    """A head as it fishes, its ounces where those are meant (oz)."""
    if setting.weights.ounces:
        return head_oz
    return setting.bearing.head_oz(head_oz, sinks.weight_n, sinks.up_m2)


def _weight_worth(setting: Setting, fishes_oz: float) -> float:
    """Worth of a head as it fishes (oz), as a log."""
    exponent = setting.catalog.judgement.fit.weights["weight"]
    return exponent * math.log(max(setting.weights.fit(fishes_oz), LEAST_PART))


def _fall_worth(setting: Setting, sinks: Sinks) -> float:
    """Worth of a slack fall, as a log; the line left out."""
    weight, area = max(sinks.weight_n, 1e-6), sinks.fall_m2
    fall = feet(math.sqrt(2.0 * weight / (setting.water.density_kg_m3 * area)))
    numbers = setting.catalog.judgement.fit
    fit = within(fall, setting.targets.fall_ft_s, numbers.fall_edge)
    return numbers.weights["fall"] * math.log(max(fit, LEAST_PART))


def _steady_worth(setting: Setting, rig: Rig, livelier: float = 1.0) -> float:
    """Worth of what the head does not change, as a log: action (``livelier`` by a cadence) and profile."""
    catalog, targets = setting.catalog, setting.targets
    numbers = catalog.judgement.fit
    bulk = within(max(rig.bulk_cm2, LEAST_BULK_CM2), targets.bulk_cm2, numbers.profile_edge)
    action = action_fit(catalog, rig, livelier * action_of(catalog, rig), targets)
    profile = setting.liking.of(rig) * bulk
    return numbers.weights["action"] * math.log(max(action, LEAST_PART)) + numbers.weights[
        "profile"
    ] * math.log(max(profile, LEAST_PART))


def quick_worths(setting: Setting, rigs: Sequence[Rig]) -> list[float]:
    """The promise of rigs without a cast: fall, action, profile, weight and tackle, as logs."""
    weights = setting.catalog.judgement.fit.weights
    # Heads and trailers come in every pair: what hangs on a trailer alone is worked out once for it.
    of_tail: dict[tuple[str, float, float, str], float] = {}
    worths = []
    for rig in rigs:
        tail = tail_key(rig)
        if tail not in of_tail:
            of_tail[tail] = _steady_worth(setting, rig)
        lure = setting.lure(rig)
        falls = _fall_worth(setting, _sinks(setting, lure))
        closed = closed_of(setting, rig)
        held = weights["tackle"] * math.log(closed.held.fit)
        usual = _weight_worth(setting, closed.fishes_oz)
        worths.append(of_tail[tail] + falls + usual + held)
    return worths


def promise(setting: Setting) -> float:
    """The score that no standard rig of the setting's family can pass: action and profile of its best
    trailer, however it may be worked, everything else perfect. Cheap: no rig is simulated."""
    catalog, family = setting.catalog, setting.family
    weights = catalog.judgement.fit.weights
    livelier = (1.0, *(cadence.action for cadence in cadences_for(catalog, setting)))
    made = [
        dressed(setting, family.weights_oz[0], catalog.trailers[id_], length)
        for id_ in standard_trailers(catalog, setting.leaning.bare or family.bare_too)
        for length in lengths_of(family, catalog.trailers[id_])
    ]
    steady = max(_steady_worth(setting, rig, factor) for factor in livelier for rig in made)
    whole = sum(w for k, w in weights.items() if k not in PRICES)
    if family.work == "swim":
        whole -= weights["touch"]
    elif not any(cadence.work for cadence in cadences_for(catalog, setting)):
        # A floor or a drop is met by fish near the floor, or for as long as the slowest fall takes.
        steady += weights["depth"] * math.log(setting.met_on_floor(SLOWEST_FALL_FT_S))
    if setting.weights.ounces:
        steady += max(_weight_worth(setting, oz) for oz in family.weights_oz)
    return math.exp(steady / whole)
