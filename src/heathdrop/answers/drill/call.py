"""The call: way, lure, head and trailer for a water, marked by the sheet's own scores."""

import math
import random
from dataclasses import replace

from heathdrop import catalog as catalogue
from heathdrop.advice.call import CALLED, Standing
from heathdrop.answers.drill.question import (
    TRIES,
    Marking,
    Named,
    Placed,
    Played,
    Question,
    number_in,
    rig_words,
)
from heathdrop.answers.water import call_of, rate_rigs
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.rated import WAYS_TO_COVER, Rated
from heathdrop.sizing.size import Sizing
from heathdrop.training.waters import random_water

#: What another way than the rig's own is worth in a call.
OTHER_WAY = 0.85


def ask_call(named: Named, rng: random.Random) -> Question:
    """A water with a topic's cover. Raises BadInput where none can be made of the seed."""
    for _ in range(TRIES * 4):
        body = random_water(rng)
        if body["conditions"]["cover"]["kind"] == named.topic:
            scenario = SizeRequest.model_validate(body).scenario()
            return Question(named, "Which way, lure, head and trailer for this water?", scenario=scenario)
    raise BadInput("id", named.text, "another seed: nothing to ask here")


def mark_call(q: Question, answer: dict[str, object]) -> Marking:
    """Marked by what the choice is worth on the sheet beside the best. Raises BadInput."""
    assert q.scenario is not None
    catalog = catalogue.load()
    family = catalog.pick(catalog.families, "family", str(answer.get("family")))
    trailer = catalog.pick(catalog.trailers, "trailer", str(answer.get("trailer")))
    oz = number_in(answer, "head_oz", family.weights_oz[0], family.weights_oz[-1], "oz")
    way = str(answer.get("way", ""))
    if way not in WAYS_TO_COVER:
        raise BadInput("way", way[:40], "one of " + ", ".join(WAYS_TO_COVER))
    board = call_of(q.scenario, places=CALLED).standings
    own_standings = call_of(replace(q.scenario, families=(family.id,)), places=None).standings
    stands = next(s for s in (*board, *own_standings) if s.family.id == family.id)
    rated = _rated(stands.sizing, family.id, oz, trailer.id)
    best = board[0]
    own = _row(stands, rated)
    noise = catalog.judgement.fit.noise
    lost = best.standing - own.standing
    mark = 1.0 if lost <= noise * max(1.0, best.standing) else max(0.0, own.standing / best.standing)
    mark *= 1.0 if way == own.way else OTHER_WAY
    said = (
        f"The sheet calls the {rig_words(best.best.rig)}: {100.0 * best.fit:.0f}. "
        f"Yours fits {100.0 * own.score:.0f}" + ("." if lost > noise else ", as good within the noise.")
    )
    why = [f"For the {best.family.name.lower()}: {rule.name}." for rule in best.fors[:2]]
    if stands.family.id != best.family.id:
        why += [f"Against the {stands.family.name.lower()}: {rule.name}." for rule in stands.againsts[:2]]
    if way != own.way:
        why.append(f"It goes {own.way} here, not {way}.")
    rows = (*(_row(s, s.best) for s in board), own)
    casts = (_played(best.sizing, best.best), _played(stands.sizing, rated))
    return Marking(min(1.0, mark), said, tuple(why), board=rows, casts=casts)


def _played(sizing: Sizing, rated: Rated) -> Played:
    return Played(sizing, rated, play(sizing, rated, usual_way(catalogue.load(), sizing, rated)))


def _rated(sizing: Sizing, family: str, oz: float, trailer: str) -> Rated:
    """The rig of a head and a trailer as the sheet has it: the best of that kind on the board, or rated like
    the others."""
    for rated in sizing.rigs:
        if abs(rated.rig.head_oz - oz) < 1e-6 and rated.rig.trailer.id == trailer:
            return rated
    return rate_rigs(sizing, [RigName(family, oz, trailer).rig(catalogue.load())])[0]


def _row(standing: Standing, rated: Rated) -> Placed:
    rig = rated.rig
    whole = rated.fits.score * math.exp(standing.points)
    return Placed(
        family=rig.family.id,
        head_oz=rig.head_oz,
        trailer=rig.trailer.id,
        way=rated.way,
        score=rated.fits.score,
        standing=whole,
    )
