"""No sentence contradicts the rig beside it: rules, schools, finish and changes over many waters."""

import random
import re

import pytest

from bench.steady import random_water, scenario_of
from heathdrop.advice.change import askable, mended
from heathdrop.advice.cited import advice_for
from heathdrop.advice.finish import finish_of
from heathdrop.advice.why import reasons
from heathdrop.answers.water import call_of
from heathdrop.catalog import Catalog
from heathdrop.sizing.size import Rated, Sizing

CLAWED = ("craw", "small-craw", "chunk", "creature", "creature-fused")
SEED, WATERS = 23, 120

#: A change of pace as a hand counts it.
MOVED = re.compile(r"(Slow|Speed up) to [\d.]+ turns in 20 s$")


def contradictions(cat: Catalog, sizing: Sizing, rated: Rated) -> list[str]:
    """Sentences beside a rig that are not true of it."""
    rig, work, found = rated.rig, rated.work, []
    family = rig.family
    settled = {s.slot: s for s in finish_of(cat, sizing, rated)}
    cited = advice_for(cat, sizing, rated, most=100)
    texts = [*(s.text for s in settled.values()), *(a.sentence for a in cited)]

    def wrong(when: bool, what: str) -> None:
        if when:
            found.append(f"{rated.key}: {what}")

    working = settled["working"].text.lower()
    lands = rated.along_floor and work == "swim"
    wrong(work == "swim" and re.search(r"\bdrag|sweep it|hop it|drop it in", working) is not None, working)
    wrong(work == "swim" and ("let it land" in working) != lands, working)
    wrong(
        work == "drop" and re.search(r"\breel|tick the tops|\bdrag|count it down", working) is not None,
        working,
    )
    wrong(
        work == "bottom" and re.search(r"\breel at|tick the tops|count it down", working) is not None, working
    )
    wrong("snap it free" in working and family.blade != "front", working)
    wrong("blade" in working and not family.blade and "tail" not in working, working)
    turned = settled.get("turned")
    if rig.trailer.appendages >= 2:
        wrong(turned is None or turned.text != rig.orientation.name, f"turned {turned}")
    else:
        wrong(turned is not None, "turned")
    if not rig.trailer.bare:
        wrong(settled["trailer"].text != f"{rig.trailer.name}, {rig.trailer_length_in:g} in", "trailer")
    wrong(
        "claw" in settled["trailer"].because
        and "small claws" not in settled["trailer"].because
        and rig.trailer.id not in (*CLAWED, "beaver", "twin-tail"),
        f"claws over {rig.trailer.id}",
    )
    wrong(rig.skirt.bare and ("skirt" in settled or "trailer_colour" in settled), "a skirt it has not")
    wrong(
        rig.skirt.bare and "skirt" in settled.get("cut", settled["trailer"]).text, "past a skirt it has not"
    )
    wrong(("blade" in settled or "blades" in settled) and not family.blade, "a blade it has not")
    hung = rig.blades.name if rig.blades else ""
    wrong("blades" in settled and not settled["blades"].text.startswith(hung), "other blades")
    wrong("trailer_hook" in settled and not family.takes_trailer_hook, "trailer hook")
    wrong("guard" in settled and not family.guarded, "guard")
    reel = settled.get("reel")
    wrong(reel is not None and "turns in 20 s" in reel.text and work != "swim", "turns of a dragged jig")
    wrong(work == "drop" and reel is not None, "reel of a pitched jig")
    line = settled["line"].text
    mine = f"{sizing.scenario.gear.line.test_lb:g} lb {sizing.scenario.gear.line.material}"
    wrong(mine not in line, f"line {line}")
    for a in cited:
        rule = cat.rules.get(a.rule_id or "")
        if rule is None:
            continue
        wrong(
            bool(rule.favours) and family.id not in rule.favours and not rule.trailers,
            f"{rule.id} is not about it",
        )
        wrong(
            bool(rule.trailers) and rule.trailers.get(rig.trailer.id, 0.0) <= 0.0,
            f"{rule.id} of another trailer",
        )
    dormant = sizing.scenario.conditions.water_temp_f < 49.0
    wrong(dormant and any("hop it four" in t for t in texts), "hop in the cold")
    wrong("start from 3/8" in " ".join(texts), "start from 3/8")
    said = " ".join(reasons(sizing, rated))
    wrong("lightest" in said and "listed" in said and rig.head_oz != family.weights_oz[0], "lightest")
    wrong("heaviest" in said and "listed" in said and rig.head_oz != family.weights_oz[-1], "heaviest")
    edge = rig.head_oz in (family.weights_oz[0], family.weights_oz[-1])
    wrong(edge and "than you can buy" not in said, "the catalogue's edge in silence")
    return found


def untrue_changes(cat: Catalog, sizing: Sizing, rated: Rated) -> list[str]:
    """Changes that do nothing, or are not for how the rig is worked."""
    found, work = [], rated.work
    for went in askable(sizing, rated):
        for c in mended(cat, sizing, rated, went).changes:
            text = f"{went}: {c.what}: {c.effect}"
            of_100 = re.search(r"(\d+) of 100.* instead of (\d+) of 100", c.effect)
            if re.search(r"\b0\.0 ft (deeper|higher)", c.effect) or (of_100 and of_100[1] == of_100[2]):
                found.append(text)
            if work != "swim" and re.match(r"(Slow to|Speed|Count|Reel)", c.what):
                found.append(text)
            if re.match("(Slow|Speed up) ", c.what) and not MOVED.match(c.what):
                found.append(text)
    return found


@pytest.mark.slow
@pytest.mark.long
def test_no_sentence_contradicts_its_rig(cat: Catalog) -> None:
    rng, found = random.Random(SEED), []
    for k in range(WATERS):
        call = call_of(scenario_of(random_water(rng)), places=1)
        sizing = call.standings[0].sizing
        found += [f"water {k}: {w}" for w in contradictions(cat, sizing, sizing.rigs[0])]
        if k % 6 == 0:
            found += [f"water {k}: {w}" for w in untrue_changes(cat, sizing, sizing.rigs[0])]
    assert not found, "\n".join(found[:40])


@pytest.mark.slow
def test_no_sentence_contradicts_a_rig_of_any_family(cat: Catalog) -> None:
    rng, found = random.Random(SEED + 1), []
    for _ in range(8):
        for standing in call_of(scenario_of(random_water(rng))).standings:
            for rated in (standing.sizing.rigs[0], standing.sizing.rigs[30]):
                found += contradictions(cat, standing.sizing, rated)
            found += untrue_changes(cat, standing.sizing, standing.best)
    assert not found, "\n".join(found[:40])
