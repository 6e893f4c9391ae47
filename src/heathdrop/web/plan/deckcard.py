"""A plan to carry: the deck card (one HTML file that needs no server) and the printed card.

Both only place what the plan already says; the deck card's script counts and keeps, it computes nothing.
"""

import hashlib
import json
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.api.planning import PlanAnswer, PlannedStop, WithAnswer, as_tied
from heathdrop.conditions.outcome import ROWS as OUTCOME_ROWS
from heathdrop.measures import sentence
from heathdrop.sizing.cadence import work_in
from heathdrop.web.plan.worked import CHANGES, all_day, beside_said, hands_of, order_said, rig_said
from heathdrop.web.shell.assets import bundled, static_file
from heathdrop.web.shell.rendering import templates


def _static(name: str) -> str:
    return static_file(name).read_text("utf-8")


def line_said(line: dict[str, Any]) -> str:
    own = f"{line['test_lb']:g} lb {line['material']}"
    tied = line.get("leader")
    return (
        own
        if tied is None
        else f"{own}, {tied['length_ft']:g} ft of {tied['test_lb']:g} lb {tied['material']}"
    )


def _cast_data(plan: PlanAnswer, s: PlannedStop, served: WithAnswer, why: str) -> dict[str, Any]:
    """A cast as the card's script shows it and as its record carries it: the fields of the deck's own."""
    tied = next(r for r in plan.rods if r.name == served.rod)
    hands, change = hands_of(served), CHANGES[served.change]
    catalog = catalogue.load()
    work = work_in(catalog.families[served.rig.family], catalog.cadences.get(served.cadence))
    return {
        "rod": served.rod,
        "said": sentence(rig_said(served.rig)) + (f" ({change})" if change else ""),
        "labels": [hands.count_label, hands.hand_label, hands.runs_label],
        "count_said": hands.count,
        "turns_said": sentence(hands.hand),
        "runs_said": sentence(hands.runs),
        "why": sentence(why),
        "lands": work in ("bottom", "drop"),
        "rig": served.rig.model_dump(exclude={"name"}),
        "line": tied.line,
        "on": sentence(line_said(tied.line)),
        "countdown_s": served.countdown_s,
        "pace_ft_s": served.pace_ft_s,
        "turns_per_s": served.turns_per_s,
        "rod_tip_height_ft": s.search[0].rod_tip_height_ft if s.search else None,
        "work": served.cadence or work,
    }


def _stop_data(plan: PlanAnswer, s: PlannedStop) -> dict[str, Any]:
    """A stop as the card's script shows it. The order opens with the plan's own cast, which is said once."""
    order = list(s.search)
    if order and (order[0].countdown_s, order[0].name) == (s.with_.countdown_s, s.with_.rig.name):
        order = order[1:]
    return {
        "name": s.name,
        "water": sentence(s.water),
        "casts": [
            _cast_data(plan, s, s.with_, "The plan's own count and pace."),
            *[_cast_data(plan, s, as_tied(c, s.with_.rod), c.why) for c in order],
        ],
        "ifs": [
            *[sentence(said) for said in beside_said(s)],
            *[sentence(f"{i.symptom}: {i.change} ({i.effect})") for i in s.if_],
        ],
        "cautions": [sentence(c) for c in s.cautions if c not in all_day(plan)],
    }


def deck_card(plan: PlanAnswer) -> str:
    """The deck card: one file with its style, its script and the plan in it."""
    data = {
        "date": plan.date,
        "outcomes": [[row.id, row.button, row.bitten, row.rare] for row in OUTCOME_ROWS],
        "rods": [f"{r.name}: {sentence(rig_said(r.rig))}, {sentence(line_said(r.line))}" for r in plan.rods],
        "stops": [_stop_data(plan, s) for s in plan.stops],
        "care": [sentence(c) for c in all_day(plan)],
    }
    text = json.dumps(data, separators=(",", ":"), sort_keys=True)
    data["key"] = hashlib.sha256(text.encode()).hexdigest()[:12]
    packed = json.dumps(data, separators=(",", ":")).replace("<", "\\u003c")
    return templates.get_template("plan/deckcard.html").render(
        plan=plan, data=packed, css=_static("plan/deckcard.css"), js=bundled("plan/deckcard.js")
    )


def printed_card(plan: PlanAnswer, name: str = "", style_at: str = "", icon_at: str = "") -> str:
    """The printed card: rods and stops, black on white, under the plan's ``name``. Its style is in it, or at
    ``style_at`` where the page is served, with its icon at ``icon_at``."""
    stops = [
        {
            "name": s.name,
            "water": s.water,
            "minutes": f"{s.minutes:.0f}",
            "position": s.position,
            "rod": s.with_.rod,
            "change": CHANGES[s.with_.change],
            "said": rig_said(s.with_.rig),
            "hands": hands_of(s.with_),
            "beside": beside_said(s),
            "ifs": s.if_,
            "order": order_said(s.search),
        }
        for s in plan.stops
    ]
    rods = [{"name": r.name, "said": rig_said(r.rig), "line": line_said(r.line)} for r in plan.rods]
    cautions = list(dict.fromkeys(c for s in plan.stops for c in s.cautions))
    return templates.get_template("plan/printed.html").render(
        plan=plan,
        name=name,
        rods=rods,
        stops=stops,
        cautions=cautions,
        css="" if style_at else _static("plan/plancard.css"),
        style_at=style_at,
        icon_at=icon_at,
    )
