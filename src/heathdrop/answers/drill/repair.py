"""The repair: a complaint about a rig in a water; the smallest change that mends it wins."""

import random
from collections.abc import Sequence

from heathdrop import catalog as catalogue
from heathdrop.advice.change import Change, mended
from heathdrop.answers.drill.question import (
    ASKED,
    TRIES,
    Marking,
    Named,
    Option,
    Question,
    number_in,
    rig_words,
)
from heathdrop.answers.water import call_of
from heathdrop.conditions.outcome import WENT
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.sizing.program import play, usual_way
from heathdrop.training.waters import random_water

#: Options of a repair, at most and at least; what a change that mends but is not the smallest is worth.
OPTIONS, LEAST_OPTIONS, ALSO_MENDS = 4, 2, 0.6


def ask_repair(named: Named, rng: random.Random) -> Question:
    """A complaint about a rig in a water. Raises BadInput where none can be made of the seed."""
    catalog = catalogue.load()
    for _ in range(TRIES):
        scenario = SizeRequest.model_validate(random_water(rng)).scenario()
        best = call_of(scenario, places=1).standings[0]
        sizing, rated = best.sizing, best.best
        if named.topic.startswith("ran") and rated.work != "swim":
            continue
        missed = round(rng.uniform(1.0, 2.5), 1) if named.topic.startswith("ran") else None
        right = mended(catalog, sizing, rated, named.topic, missed).changes
        if not right or not right[0].mends:
            continue
        opposite = ASKED[named.topic]
        wrong = mended(catalog, sizing, rated, opposite).changes if opposite else ()
        options = _options(right, wrong)
        if len(options) < LEAST_OPTIONS:
            continue
        rng.shuffle(options)
        by = "" if missed is None else f" by {missed:g} ft"
        what = f"{WENT[named.topic]}{by}: {rig_words(rated.rig)}"
        ask = f"{what}. What is the smallest change that mends it?"
        return Question(
            named=named,
            ask=ask,
            seconds=0.0,
            turns=0,
            scenario=scenario,
            sizing=sizing,
            rated=rated,
            options=tuple(options),
            missed_ft=missed,
            cast=play(sizing, rated, usual_way(catalog, sizing, rated)),
        )
    raise BadInput("id", named.text, "another seed: nothing to ask here")


def _options(right: Sequence[Change], wrong: Sequence[Change]) -> list[Option]:
    """Up to four options: the smallest change that mends, others that are offered, and what mends the
    opposite."""
    options = [Option(c.what, c.effect, c.mends) for c in right[:2]]
    said = {c.what for c in right}
    for change in wrong:
        if len(options) < OPTIONS and change.what not in said:
            options.append(Option(change.what, change.effect, False))
    more = [Option(c.what, c.effect, c.mends) for c in right[2:]]
    return options + more[: OPTIONS - len(options)]


def mark_repair(q: Question, answer: dict[str, object]) -> Marking:
    """Marked by whether the chosen change mends, and is the smallest that does. Raises BadInput."""
    assert q.sizing is not None
    assert q.rated is not None
    chosen = q.options[int(number_in(answer, "option", 0, len(q.options) - 1, "an option"))]
    right = mended(catalogue.load(), q.sizing, q.rated, q.named.topic, q.missed_ft).changes
    smallest = right[0]
    if chosen.what == smallest.what:
        mark, said = 1.0, f"Yes: {smallest.what}."
    elif chosen.mends:
        mark, said = ALSO_MENDS, f"It mends, but there is a smaller change: {smallest.what}."
    else:
        mark, said = 0.0, f"That does not mend it. Rather: {smallest.what}."
    return Marking(mark, said, (smallest.effect,), options=q.options)
