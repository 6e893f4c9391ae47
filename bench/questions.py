"""`python -m bench.questions`: questions of practice put to the doors, each held against what it answers.

Every row is a request and a check of its answer; the table of docs/judgement.md is written from the run, with
the figures as they came out.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from heathdrop.answers.water import sizing_of
from heathdrop.api.answers import size_answer
from heathdrop.catalog import load
from heathdrop.conditions.request import SizeRequest

PAGE = Path(__file__).parent.parent / "docs" / "judgement.md"
BEGIN, END = "<!-- asked: begin -->", "<!-- asked: end -->"
USUAL = {
    "water_temp_f": 58,
    "trend": "steady",
    "season": "pre-spawn",
    "clarity_ft": 4,
    "light": "mixed",
    "wind_mph": 5,
    "forage": "baitfish",
    "bottom_depth_ft": 9,
    "fish_depth_ft": 6,
    "cover": {"kind": "open"},
}
Answer = dict[str, Any]


@dataclass(frozen=True)
class Question:
    """What is asked, of which water and gear, what practice answers, and whether the answer says so."""

    asked: str
    practice: str
    body: dict[str, Any]
    holds: Callable[[Answer], bool]
    found: Callable[[Answer], str]


def body(
    conditions: dict[str, Any], families: str = "", gear: dict[str, Any] | None = None, **more: Any
) -> dict[str, Any]:
    """A size request from what differs from the usual water and gear."""
    found: dict[str, Any] = {"conditions": {**USUAL, **conditions}, "limit": 40, **more}
    found["gear"] = {"line": {"material": "fluorocarbon", "test_lb": 15}, "cast_ft": 80, **(gear or {})}
    return found | ({"families": families.split()} if families else {})


def first(a: Answer) -> dict[str, Any]:
    """The first rig."""
    rig: dict[str, Any] = a["rigs"][0]
    return rig


def said(a: Answer) -> str:
    """The first rig in a line."""
    r = first(a)
    return (
        f"{r['head_oz']:g} oz {r['family']}, {r['trailer']}, {r['depth_ft']['mean']:.1f} ft, {r['score']:.2f}"
    )


def near(a: Answer) -> bool:
    """Whether the first rig works in the band, or says why not."""
    return first(a)["depth_ft"]["in_band"] >= 0.5 or bool(a["doubt"])


def slot(a: Answer, name: str) -> str:
    """What a slot of the finish says."""
    return str(a["finish"].get(name, {}).get("sentence", ""))


MAT = {
    "water_temp_f": 82,
    "season": "summer",
    "bottom_depth_ft": 6,
    "fish_depth_ft": 5,
    "forage": "bluegill",
    "cover": {"kind": "matted-grass", "texture": "hydrilla", "thickness_in": 6},
}
WOOD = {
    "water_temp_f": 66,
    "season": "post-spawn",
    "forage": "bluegill",
    "bottom_depth_ft": 7,
    "fish_depth_ft": 6,
    "cover": {"kind": "wood", "detail": "laydown"},
}
FALL = {"water_temp_f": 65, "trend": "falling", "season": "fall", "clarity_ft": 5, "light": "overcast"}
SPRING = {
    "water_temp_f": 56,
    "trend": "rising",
    "forage": "bluegill",
    "clarity_ft": 3.5,
    "light": "overcast",
    "wind_mph": 12,
}
PADS = {
    "water_temp_f": 82,
    "season": "summer",
    "forage": "crawfish",
    "bottom_depth_ft": 4,
    "fish_depth_ft": 3.5,
    "cover": {"kind": "pads", "density": "thick", "hole_ft": 3},
}
SPIN = {
    "line": {
        "material": "braid",
        "test_lb": 15,
        "leader": {"material": "fluorocarbon", "test_lb": 8, "length_ft": 8},
    }
}
QUESTIONS = (
    Question(
        "an underspin for fish at 18 of 30 ft",
        "slow enough to be there",
        body({**FALL, "bottom_depth_ft": 30, "fish_depth_ft": 18}, "underspin", {"cast_ft": 110}),
        near,
        said,
    ),
    Question(
        "fish at 24 over timber tops at 28 of 55 ft",
        "a swum lure over the tops, not a jig on the floor",
        body(
            {
                "water_temp_f": 62,
                "trend": "falling",
                "season": "fall",
                "clarity_ft": 6,
                "bottom_depth_ft": 55,
                "fish_depth_ft": 24,
                "cover": {"kind": "wood", "detail": "standing-timber", "top_depth_ft": 28},
            },
            gear={"line": {"material": "fluorocarbon", "test_lb": 12}, "cast_ft": 120},
        ),
        lambda a: first(a)["depth_ft"]["mean"] < 30.0 and first(a)["way"] in ("over", "ticking"),
        said,
    ),
    Question(
        "fish at 2 of 30 ft under a dock",
        "nothing pitched to the floor",
        body(
            {
                "water_temp_f": 70,
                "season": "summer",
                "forage": "bluegill",
                "bottom_depth_ft": 30,
                "fish_depth_ft": 2,
                "cover": {"kind": "docks"},
            }
        ),
        lambda a: first(a)["depth_ft"]["mean"] < 10.0 or bool(a["doubt"]),
        said,
    ),
    Question(
        "fish at 4 of 7 ft along a laydown",
        "a swim jig may pass it; nothing goes unsaid to the floor",
        body({**WOOD, "fish_depth_ft": 4}),
        near,
        said,
    ),
    Question(
        "20 lb or 15 on a bladed jig at 3 ft",
        "a figure where a hand feels it, else no word",
        body({**FALL, "bottom_depth_ft": 5, "fish_depth_ft": 3}, "bladed-jig"),
        lambda a: bool(re.search(r"runs [.\d]+ ft", slot(a, "line"))) or ";" not in slot(a, "line"),
        lambda a: slot(a, "line"),
    ),
    Question(
        "a blade in a foot of sight under grey sky",
        "black or dark, one word",
        body({**FALL, "clarity_ft": 1.2, "forage": "bluegill"}, "bladed-jig"),
        lambda a: "black" in slot(a, "blade"),
        lambda a: slot(a, "blade"),
    ),
    Question(
        "a flat tail behind a blade at 5 ft",
        "among the good ones",
        body(
            {
                "water_temp_f": 56,
                "forage": "bluegill",
                "clarity_ft": 3.5,
                "bottom_depth_ft": 7,
                "fish_depth_ft": 5,
                "cover": {"kind": "submerged-grass", "top_depth_ft": 5},
            },
            "bladed-jig",
            limit=200,
        ),
        lambda a: (
            max(r["score"] for r in a["rigs"] if r["trailer"] == "flat-tail") >= 0.85 * first(a)["score"]
        ),
        lambda a: (
            f"{max(r['score'] for r in a['rigs'] if r['trailer'] == 'flat-tail'):.2f} of "
            f"{first(a)['score']:.2f}"
        ),
    ),
    Question(
        "a bladed jig at 46 °F, fish a foot off the floor",
        "worked like a jig, with a quiet trailer",
        body(
            {
                "water_temp_f": 46,
                "season": "winter",
                "clarity_ft": 5,
                "bottom_depth_ft": 12,
                "fish_depth_ft": 11,
            },
            "bladed-jig",
        ),
        lambda a: (
            first(a)["work"] in ("yo-yo", "stop-and-go")
            and first(a)["trailer"] in ("pin-tail", "flat-tail", "creature-fused", "beaver")
        ),
        lambda a: f"{said(a)}, {first(a)['work']}",
    ),
    Question(
        "a spinnerbait for fish at 18 of 20 ft",
        "rolled so that it keeps touching",
        body(
            {"water_temp_f": 54, "clarity_ft": 12, "bottom_depth_ft": 20, "fish_depth_ft": 18},
            "spinnerbait",
            {"line": {"material": "fluorocarbon", "test_lb": 16}},
        ),
        lambda a: first(a)["work"] == "slow-roll" and near(a),
        lambda a: f"{said(a)}, {first(a)['work']}",
    ),
    Question(
        "which blades at 54 °F and 12 ft",
        "those that were simulated",
        body(
            {"water_temp_f": 54, "clarity_ft": 2.5, "bottom_depth_ft": 14, "fish_depth_ft": 12}, "spinnerbait"
        ),
        lambda a: slot(a, "blades") == load().blades[first(a)["blades"]].name,
        lambda a: f"{slot(a, 'blades')} ({first(a)['blades']})",
    ),
    Question(
        "a spinnerbait for one who leaves the trailer off",
        "bare, and no despair",
        body(
            {"water_temp_f": 54, "bottom_depth_ft": 10, "fish_depth_ft": 9},
            "spinnerbait",
            schools={"spinnerbait-trailer": "lifts"},
        ),
        lambda a: first(a)["trailer"] == "none" and first(a)["score"] >= 0.5,
        said,
    ),
    Question(
        "tungsten",
        "where small matters",
        body(MAT, "punch-rig", {"line": {"material": "braid", "test_lb": 65}}),
        lambda a: first(a)["head_material"] == "tungsten" and "tungsten" in slot(a, "head"),
        lambda a: slot(a, "head"),
    ),
    Question(
        "a bluff in winter, down in ledges",
        "stepped down, at the ledges' depth",
        body(
            {
                "water_temp_f": 42,
                "season": "winter",
                "forage": "crawfish",
                "light": "overcast",
                "bottom_depth_ft": 30,
                "fish_depth_ft": 25,
                "cover": {"kind": "rock", "detail": "bluff"},
                "bottom_shape": "steps",
            },
            "football-jig",
            {"line": {"material": "fluorocarbon", "test_lb": 12}},
        ),
        lambda a: first(a)["work"] == "step-down",
        lambda a: f"{said(a)}, {first(a)['work']}",
    ),
    Question(
        "a light jig on 20 lb nylon at 20 ft",
        "hardly felt",
        body(
            {
                "water_temp_f": 44,
                "season": "winter",
                "forage": "crawfish",
                "bottom_depth_ft": 20,
                "fish_depth_ft": 20,
                "cover": {"kind": "rock"},
            },
            "finesse-jig",
            {"line": {"material": "nylon", "test_lb": 20}},
            limit=200,
        ),
        lambda a: min(r["felt"] for r in a["rigs"]) < 0.5 < max(r["felt"] for r in a["rigs"]),
        lambda a: ", ".join(
            f"{oz:g} oz {felt:.2f}" for oz, felt in sorted({(r["head_oz"], r["felt"]) for r in a["rigs"]})[:6]
        ),
    ),
    Question(
        "a laydown on an 8 lb leader",
        "said, with what would hold",
        body(WOOD, "flipping-jig", SPIN),
        lambda a: "8 lb" in (a["doubt"] or "") and "holds" in a["doubt"],
        lambda a: str(a["doubt"]),
    ),
    Question(
        "a mat on 10 lb braid with a 6 lb leader",
        "said",
        body(
            MAT,
            "punch-rig",
            {
                "line": {
                    "material": "braid",
                    "test_lb": 10,
                    "leader": {"material": "fluorocarbon", "test_lb": 6, "length_ft": 5},
                }
            },
        ),
        lambda a: "6 lb" in (a["doubt"] or ""),
        lambda a: str(a["doubt"]),
    ),
    Question(
        "a foot of hyacinth and 2 oz",
        "that it does not go in",
        body(
            {**MAT, "cover": {"kind": "matted-grass", "texture": "hyacinth", "thickness_in": 12}},
            "punch-rig",
            {"line": {"material": "braid", "test_lb": 65}},
        ),
        lambda a: bool(a["doubt"]),
        lambda a: str(a["doubt"]),
    ),
    Question(
        "a step lighter by choice",
        "a lighter head",
        body({"fish_depth_ft": 5, "bottom_depth_ft": 8}, "swim-jig", schools={"weight-lean": "lighter"}),
        lambda a: (
            first(a)["head_oz"]
            < sizing_of(
                SizeRequest.model_validate(
                    body({"fish_depth_ft": 5, "bottom_depth_ft": 8}, "swim-jig")
                ).scenario()
            )
            .rigs[0]
            .rig.head_oz
        ),
        said,
    ),
    Question(
        "a football jig at 8 ft of clear water, crawfish",
        "green, not orange",
        body(
            {
                "water_temp_f": 72,
                "forage": "crawfish",
                "clarity_ft": 6,
                "bottom_depth_ft": 8,
                "fish_depth_ft": 8,
                "cover": {"kind": "rock", "detail": "chunk"},
            },
            "football-jig",
        ),
        lambda a: "green" in slot(a, "colour"),
        lambda a: slot(a, "colour"),
    ),
    Question(
        "a spinnerbait where they eat bluegill",
        "dark or light",
        body({"water_temp_f": 66, "season": "post-spawn", "forage": "bluegill"}, "spinnerbait"),
        lambda a: "black" in slot(a, "colour"),
        lambda a: slot(a, "colour"),
    ),
    Question(
        "winter, blown out to 0.7 ft of sight",
        "look for clean water",
        body({"water_temp_f": 42, "season": "winter", "forage": "crawfish", "clarity_ft": 0.7}),
        lambda a: any("clear" in c for c in a["cautions"]),
        lambda a: next((c for c in a["cautions"] if "clear" in c), ""),
    ),
    Question(
        "heavy heads among stones",
        "wedge more, tungsten less",
        body(
            {"bottom_depth_ft": 15, "fish_depth_ft": 15, "cover": {"kind": "rock", "detail": "chunk"}},
            "football-jig",
            limit=200,
        ),
        lambda a: (
            max(r["cover"]["hangs"] for r in a["rigs"]) > 1.2 * min(r["cover"]["hangs"] for r in a["rigs"])
        ),
        lambda a: (
            f"{min(r['cover']['hangs'] for r in a['rigs']):.3f} to "
            f"{max(r['cover']['hangs'] for r in a['rigs']):.3f}"
        ),
    ),
    Question(
        "an active fish at 1.5 ft and a swim jig",
        "twitched, so that it hangs",
        body(
            {
                "water_temp_f": 79,
                "season": "summer",
                "bottom_depth_ft": 5,
                "fish_depth_ft": 1.5,
                "activity": 3.5,
            },
            "swim-jig",
        ),
        lambda a: first(a)["work"] == "twitch",
        lambda a: f"{said(a)}, {first(a)['work']}",
    ),
    Question(
        "1/16 and 1 oz on one rod",
        "do not fly the same way",
        body({"bottom_depth_ft": 15, "fish_depth_ft": 15}, "micro-jig", limit=200),
        lambda a: max(r["cast_ft"] for r in a["rigs"]) > 1.4 * min(r["cast_ft"] for r in a["rigs"]),
        lambda a: (
            f"{min(r['cast_ft'] for r in a['rigs']):.0f} to {max(r['cast_ft'] for r in a['rigs']):.0f} ft"
        ),
    ),
    Question(
        "what an hour of it is",
        "casts, and time among them",
        body({}),
        lambda a: 20 < first(a)["per_hour"]["casts"] < 200 and first(a)["per_hour"]["seconds_among"] > 0,
        lambda a: (
            f"{first(a)['per_hour']['casts']:.0f} casts, "
            f"{first(a)['per_hour']['seconds_among'] / 60:.0f} min among them"
        ),
    ),
    Question(
        "one size of blade, fish at 8 of 9 ft",
        "the half ounce reeled slower until it is there",
        body(
            {**SPRING, "bottom_depth_ft": 9, "fish_depth_ft": 8},
            "bladed-jig",
            {"line": {"material": "fluorocarbon", "test_lb": 17}},
            schools={"bladed-ladder": "one"},
        ),
        lambda a: first(a)["head_oz"] == 0.5 and first(a)["depth_ft"]["in_band"] >= 0.5,
        lambda a: f"{said(a)}, {first(a)['pace_ft_s']:.1f} ft/s",
    ),
    Question(
        "sluggish fish at a foot and a swim jig",
        "a light head at their height",
        body(
            {
                "water_temp_f": 68,
                "season": "post-spawn",
                "forage": "bluegill",
                "bottom_depth_ft": 8,
                "fish_depth_ft": 1,
                "activity": 1.5,
            },
            "swim-jig",
        ),
        lambda a: first(a)["head_oz"] < 0.375 and first(a)["depth_ft"]["mean"] < 1.5,
        said,
    ),
    Question(
        "a spinning rod for half an ounce at most, 15 ft in autumn",
        "nothing heavier than 3/8",
        body(
            {
                "water_temp_f": 60,
                "season": "fall",
                "forage": "crawfish",
                "bottom_depth_ft": 15,
                "fish_depth_ft": 15,
                "bottom": "gravel",
            },
            gear={**SPIN, "rod": {"kind": "spinning", "power": "medium", "low_oz": 0.125, "high_oz": 0.5}},
        ),
        lambda a: first(a)["head_oz"] <= 0.375,
        said,
    ),
    Question(
        "holes in thick pads, fish near the floor",
        "a jig dropped into them, not one reeled over",
        body(PADS, gear={"line": {"material": "braid", "test_lb": 40}, "cast_ft": 25}),
        lambda a: first(a)["way"] == "into",
        lambda a: f"{said(a)}, {first(a)['way']}",
    ),
    Question(
        "small baits in winter, by choice",
        "a micro jig, of tungsten",
        body(
            {
                "water_temp_f": 42,
                "season": "winter",
                "forage": "crawfish",
                "bottom_depth_ft": 20,
                "fish_depth_ft": 20,
            },
            schools={"cold-water-weight": "shrink"},
        ),
        lambda a: (first(a)["family"], first(a)["head_material"]) == ("micro-jig", "tungsten"),
        lambda a: f"{said(a)}, {first(a)['head_material']}",
    ),
    Question(
        "a bite under a mat",
        "seen in the line before it is felt",
        body(MAT, "punch-rig", {"line": {"material": "braid", "test_lb": 65}}),
        lambda a: "bow" in slot(a, "bite"),
        lambda a: slot(a, "bite"),
    ),
    Question(
        "an underspin at 18 ft",
        "a larger blade than high in the water",
        body({**FALL, "bottom_depth_ft": 30, "fish_depth_ft": 18}, "underspin"),
        lambda a: first(a)["blades"] == "large-willow",
        lambda a: slot(a, "blades"),
    ),
    Question(
        "a football jig at 22 ft, crawfish",
        "orange, to be seen",
        body(
            {
                "water_temp_f": 72,
                "season": "summer",
                "forage": "crawfish",
                "clarity_ft": 6,
                "bottom_depth_ft": 22,
                "fish_depth_ft": 22,
                "cover": {"kind": "rock", "detail": "chunk"},
            },
            "football-jig",
        ),
        lambda a: "orange" in slot(a, "colour"),
        lambda a: slot(a, "colour"),
    ),
    Question(
        "half an ounce over lilies",
        "plastic enough to ride on top, and a word on reach",
        body(
            {**PADS, "fish_depth_ft": 1, "cover": {"kind": "pads"}}, "swim-jig", {"cast_oz": 0.5}, limit=200
        ),
        lambda a: (
            min(r["depth_ft"]["mean"] for r in a["rigs"] if r["head_oz"] == 0.5) < 1.2
            and {r["cast_ft"] for r in a["rigs"] if r["head_oz"] == 0.25} != {first(a)["cast_ft"]}
        ),
        lambda a: ", ".join(
            f"{r['head_oz']:g} oz {r['trailer']} {r['depth_ft']['mean']:.1f} ft, flies {r['cast_ft']:.0f}"
            for r in sorted(a["rigs"], key=lambda r: r["depth_ft"]["mean"])
            if r["head_oz"] == 0.5
        ).split(", 0.5")[0],
    ),
)


def asked() -> list[tuple[Question, bool, str]]:
    """Every question with whether practice's answer came out, and what did."""
    found = []
    for q in QUESTIONS:
        answer = size_answer(SizeRequest.model_validate(q.body)).model_dump()
        found.append((q, q.holds(answer), q.found(answer)))
    return found


def main() -> None:
    rows = asked()
    lines = ["| asked | practice | answered | so |", "|---|---|---|---|"]
    for q, good, found in rows:
        print("  " if good else "NO", q.asked, "|", found)
        lines.append(f"| {q.asked} | {q.practice} | {found} | {'yes' if good else 'no'} |")
    print(f"{sum(good for _, good, _ in rows)} of {len(rows)} as practice has them")
    text = PAGE.read_text("utf-8")
    if BEGIN in text:
        head, tail = text.split(BEGIN)[0], text.split(END)[1]
        PAGE.write_text(f"{head}{BEGIN}\n" + "\n".join(lines) + f"\n{END}{tail}", "utf-8")


if __name__ == "__main__":
    main()
