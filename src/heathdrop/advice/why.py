"""Why a rig was chosen, what limits it, what would change it: plain sentences."""

import math

from heathdrop import catalog as catalogue
from heathdrop.sizing.activity import WORTH_SAYING
from heathdrop.sizing.hour import per_hour
from heathdrop.sizing.knowledge import TRAIT
from heathdrop.sizing.schools import leaning_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, feet_said, ounces_as_written, turns_said

#: What holds a rig back that runs in the band on average, but not all of the way.
IN_PART = "It is in the band on average; part of its path, or of what is not known of it, lies outside."
#: What the sentence about the nearest trade begins with.
TRADE = "Next best"


def runs(sizing: Sizing, rated: Rated) -> str:
    """Which way a rig misses the band: ``high``, ``deep`` or ``""`` when it does not."""
    top, low = sizing.targets.depth_ft
    mean = feet(rated.tuned.mean_m)
    if rated.along_floor and rated.work == "swim":
        return ""
    if mean < top:
        return "high"
    if mean > low:
        return "deep"
    return ""


def limit_sentence(sizing: Sizing, rated: Rated) -> str:
    """What holds a rig back, in words."""
    t = sizing.targets
    part = rated.fits.limiting
    if part is None and not t.fall_ft_s[0] <= round(rated.fall_ft_s, 1) <= t.fall_ft_s[1]:
        part = "fall"
    if part is None:
        return "Nothing holds it back."
    pace = feet(rated.tuned.pace_m_s)
    if part == "depth":
        return _depth_limit(sizing, rated, pace)
    if part == "tackle":
        return f"It does not suit your {sizing.scenario.gear.line.said}, its hook and this cover together."
    if part == "pace":
        return _pace_limit(sizing, rated, pace)
    if part == "fall":
        side = "faster" if rated.fall_ft_s > t.fall_ft_s[1] else "slower"
        return (
            f"It falls {side} ({rated.fall_ft_s:.1f} ft/s on slack line) than the "
            f"{t.fall_ft_s[0]:.1f}–{t.fall_ft_s[1]:.1f} that {_who_wants(sizing)}."
        )
    if part == "cover":
        return _cover_sentence(rated)
    if part == "touch":
        return "In today's wind its line hides the bottom from the hand: heavier, or thinner line, is felt."
    if part == "weight":
        side = "heavier" if rated.fishes_oz > sizing.weights.middle_oz else "lighter"
        about = ounces_near(sizing.weights.middle_oz)
        if about == ounces_near(rated.fishes_oz):
            return f"It fishes a shade {side} than {sizing.weights.because}."
        return f"It fishes {side} than {sizing.weights.because}, about {about} oz."
    if part == "action":
        return f"Its action is off the {t.action_name} one these fish want."
    if rated.liking < 0.9:
        family = rated.rig.family
        facts = {**sizing.facts, "family": family.id, "work": family.work}
        named = leaning_of(catalogue.load(), sizing.scenario.schools, facts).named(family.id)
        who = "The school you hold to" if named else "The rules for this water"
        return f"{who} would choose another trailer here."
    return f"Its trailer is off the {t.profile} profile wanted today."


def _depth_limit(sizing: Sizing, rated: Rated, pace: float) -> str:
    """How its depth holds a rig back: met too seldom, a pace they do not like, or the wrong water."""
    c = sizing.scenario.conditions
    if rated.work in ("bottom", "drop") and c.works_ft < c.bottom_depth_ft:
        return f"It works on a ledge at {c.works_ft:g} ft; there is not one everywhere along the wall."
    if rated.work in ("bottom", "drop") or rated.along_floor:
        return "It works on the floor; the fish stand above it."
    side = {"high": "above", "deep": "below"}.get(runs(sizing, rated))
    if side is not None:
        slower = "slower" if side == "above" else "quicker"
        return f"It runs {side} the band at {pace:.1f} ft/s, and {slower} costs more than it gains."
    return IN_PART


def _pace_limit(sizing: Sizing, rated: Rated, pace: float) -> str:
    """What the pace costs, and what it is for."""
    slow, fast = sizing.paces_ft_s
    turns = turns_said(sizing.scenario.gear.turns_per_s(pace))
    side = "slower" if pace < slow else "quicker"
    return (
        f"To hold its depth it must come {side} than the {slow:.1f}–{fast:.1f} ft/s these fish like: "
        f"{pace:.1f} ft/s, {turns} turns in 20 s."
    )


def ounces_near(oz: float) -> str:
    """An uneven weight said as the nearest eighth, or sixteenth when it is small."""
    step = 16.0 if oz < 0.5 else 8.0
    return ounces_as_written(max(1.0, round(oz * step)) / step)


def _cover_sentence(rated: Rated) -> str:
    """Which of the three ways the cover holds a rig back, in words."""
    c = rated.cover
    worst = max((1.0 - c.passes, "through"), (c.fouls, "fouls"), (c.hangs, "hangs"))[1]
    if worst == "through":
        return f"It goes through that cover about {c.passes * 100:.0f} times of 100."
    if worst == "fouls":
        return f"It fouls on about {c.fouls * 100:.0f} of 100 casts through that cover."
    return f"It hangs up on about {c.hangs * 100:.0f} of 100 casts."


def change_sentence(sizing: Sizing, rated: Rated) -> str:
    """The neighbour on the board that gives the same depth another way."""
    rig = rated.rig
    best = next(
        (
            r
            for r in sizing.rigs
            if r.rig.family == rig.family and r.rig.trailer != rig.trailer and r.rig.head_oz != rig.head_oz
        ),
        None,
    )
    if best is None:
        return ""
    heavier = best.rig.head_oz > rated.rig.head_oz
    bulk = (
        "bulkier" if best.rig.trailer.run_drag_area_cm2 > rated.rig.trailer.run_drag_area_cm2 else "slimmer"
    )
    head = ounces_as_written(best.rig.head_oz)
    step = "heavier" if heavier else "lighter"
    fit = f"{best.fits.score * 100:.0f}"
    return f"{TRADE} if you go {step} and {bulk}: {head} oz {best.rig.trailer.name}, fit {fit}."


def weight_sentence(sizing: Sizing, rated: Rated) -> str:
    """What is to be said of the head: the end of the scale, or the simulation against habit."""
    rig, usual = rated.rig, sizing.weights
    lightest, heaviest = rig.family.weights_oz[0], rig.family.weights_oz[-1]
    head = ounces_as_written(rig.head_oz)
    if rig.head_oz <= lightest:
        return f"{head} oz is the lightest {rig.family.name} listed: it might go lighter than you can buy."
    if rig.head_oz >= heaviest:
        return f"{head} oz is the heaviest {rig.family.name} listed: it might go heavier than you can buy."
    off = math.log(rated.fishes_oz / usual.middle_oz)
    if rated.fits.limiting == "weight" or abs(off) <= usual.half:
        return ""
    side = "Heavier" if off > 0.0 else "Lighter"
    about = ounces_near(usual.middle_oz)
    return f"{side} than {usual.because} (about {about} oz): the rest of its fit asks for it."


#: A head that fishes so much (log) lighter or heavier than it weighs is worth a word.
FISHES_OFF = 0.12


def _bearing_sentence(rated: Rated) -> str:
    """What bulk, skirt and line make of the head's ounces, where it is worth a word."""
    rig = rated.rig
    off = math.log(rated.fishes_oz / rig.head_oz)
    as_, of = ounces_near(rated.fishes_oz), ounces_as_written(rig.head_oz)
    if abs(off) < FISHES_OFF or as_ == of:
        return ""
    usual = catalogue.load().trailers[rig.family.usual_trailer].name
    side = "held up" if off < 0.0 else "let down"
    return f"With what hangs behind it {of} oz is {side}: it fishes as {as_} oz with the usual {usual} does."


#: From this share on a lure on the floor is worked where the fish stand.
WHERE_THEY_STAND = 0.99
#: The way a lure goes to its cover, in words; over it there is nothing to say.
WAY_SAID = {
    "ticking": "It ticks the tops of the {cover}.",
    "through": "It goes through the {cover}.",
    "beside": "It is brought along beside the {cover}, not through it.",
    "into": "It is dropped into the {cover}.",
    "under": "It is sent in under the {cover}.",
}
#: Chances that far apart are worth a word.
WORTH_WORD = 0.05
COVER_SAID = {"submerged-grass": "grass", "matted-grass": "mat", "rock": "stones"}


def _way_sentence(sizing: Sizing, rated: Rated) -> str:
    """The way that the rig goes to the cover; nothing in open water and clear over it."""
    kind = sizing.scenario.conditions.cover.kind
    said = WAY_SAID.get(rated.way, "").format(cover=COVER_SAID.get(kind, kind))
    if rated.through is None or rated.through.hangs < rated.cover.hangs + WORTH_WORD:
        return said
    return f"{said[:-1]}: there it would hang up on about {rated.through.hangs * 100:.0f} of 100 casts."


def _depth_sentence(
    rated: Rated, band: str, share: float, mean_ft: float, passing_s: float | None = None
) -> str:
    """Where it works against the band, in words; ``share`` is how much of it the fish meet, ``passing_s`` how
    long a dropped lure takes through the band."""
    if rated.along_floor:
        met = (
            "where they stand"
            if share >= WHERE_THEY_STAND
            else f"near enough for {share * 100:.0f} of 100 of them"
        )
        worked = "Worked" if rated.work == "bottom" else "Rolled"
        return f"{worked} along the floor at {mean_ft:.0f} ft, {met}."
    if rated.work == "hang":
        return f"Hung over a limb in {band} and shaken there, at {mean_ft:.1f} ft."
    if rated.work == "drop":
        if share >= WHERE_THEY_STAND:
            return f"Sent straight down through {band} and worked where it lands, at {mean_ft:.0f} ft."
        past = f" in {passing_s:.1f} s" if passing_s else ""
        return f"It falls through {band}{past} and is worked where it lands, at {mean_ft:.0f} ft."
    return f"In {band} for {share * 100:.0f} % of the retrieve, on average at {mean_ft:.1f} ft."


#: A cast that is this much (share) longer or shorter than the one that was said is worth a word.
OTHER_CAST = 0.08
#: A handle quicker or slower than this (log) is worth a word.
TURNS_OFF = 0.03
#: Rigs lost in an hour that are worth a word.
LOST_SAID = 0.3


def _hour_sentence(sizing: Sizing, rated: Rated) -> str:
    """Water per hour: casts, time among the fish in them, and what stays in the stones or the wood."""
    hour = per_hour(catalogue.load(), sizing, rated)
    said = f"About {hour.casts:.0f} casts an hour, {hour.seconds_among / 60.0:.0f} minutes of it among them"
    if hour.rigs_lost >= LOST_SAID:
        said += f"; it may cost you {hour.rigs_lost:.1f} rigs an hour"
    return f"{said}."


def _hand_sentence(sizing: Sizing) -> str:
    """That the bands rest on the angler's own hand, where they do, and what a handle known to be quick or
    slow makes of the turns."""
    own, handle = sizing.knowledge.count_error(), sizing.knowledge.handle()
    parts = [] if own is None else [f"your own count, uneven by {100.0 * own:.0f} %"]
    if handle is not None:
        parts.append(f"your own handle, uneven by {100.0 * handle.error:.0f} %")
    if not parts:
        return ""
    said = f"Its bands rest on {' and '.join(parts)}."
    if handle is None or abs(handle.quicker) < TURNS_OFF:
        return said
    side = "quick" if handle.quicker > 0.0 else "slow"
    return (
        f"{said} You turn {100.0 * abs(math.expm1(handle.quicker)):.0f} % {side}: where 20 turns are told, "
        f"turn {20.0 * math.exp(-handle.quicker):.0f} by your own feel."
    )


def fish_sentence(sizing: Sizing) -> str:
    """That weight, pace, fall or mood lean on what the log told of the angler's own fish, where they do."""
    own, c, targets = sizing.knowledge.own_fish(), sizing.scenario.conditions, sizing.targets
    said = []
    for trait, name, band in (("pace", "", targets.pace_ft_s), ("fall", "a fall ", targets.fall_ft_s)):
        factor = getattr(own, trait)
        if factor != 1.0:
            off = math.sqrt(band[0] * band[1]) * abs(1.0 - 1.0 / factor)
            side = "faster" if factor > 1.0 else "slower"
            said.append(f"{name}{off:.1f} ft/s {side} than the table ({own.casts_of(trait)} casts)")
    if own.head != 1.0:
        said.append(f"heads {TRAIT['head weight'].said(own.head, 1.0)} ({own.casts_of('head')} casts)")
    steps = own.mood_at(c.water_temp_f) if c.activity is None else 0.0
    if abs(steps) >= WORTH_SAYING:
        rests = own.casts_of("cold") + own.casts_of("warm")
        said.append(f"{abs(steps):.1f} steps {'livelier' if steps > 0 else 'lazier'} ({rests} casts)")
    return f"Your fish at {c.water_temp_f:g} °F: {', '.join(said)}, as your log says." if said else ""


def _reach_sentence(sizing: Sizing, rated: Rated) -> str:
    """How far it flies where that is not the cast that was said."""
    gear, away = sizing.scenario.gear, feet(rated.cast.distance_m)
    if rated.rig.family.work == "drop" or abs(away / gear.cast_ft - 1.0) < OTHER_CAST:
        return ""
    said = ounces_as_written(gear.cast_oz)
    return f"It flies about {away:.0f} ft: your {gear.cast_ft:g} ft were said for {said} oz."


def _who_wants(sizing: Sizing) -> str:
    """Whose wish the fall is."""
    if sizing.scenario.wanted.fall_ft_s is not None:
        return "you want"
    return f"{sizing.targets.activity.name} fish want"


def reasons(sizing: Sizing, rated: Rated) -> tuple[str, ...]:
    """The sentences that go with an answer, most important first."""
    t = sizing.targets
    top, low = t.depth_ft
    tuned = rated.tuned
    mean = feet(tuned.mean_m)
    passing = (low - top) / rated.fall_ft_s if rated.fall_ft_s > 0.0 else None
    limit = limit_sentence(sizing, rated)
    said = [
        _depth_sentence(rated, f"{feet_said(top)}–{feet_said(low)} ft", tuned.in_band, mean, passing)
        + f" That band because {t.depth_reason}. {_way_sentence(sizing, rated)}".rstrip(),
        # What holds it back is said once.
        ""
        if limit.startswith("It falls ")
        else f"Falls {rated.fall_ft_s:.1f} ft/s on slack line; {_who_wants(sizing)} "
        f"{t.fall_ft_s[0]:.1f}–{t.fall_ft_s[1]:.1f}.",
        # How much of its path lies outside stands in the first sentence.
        limit if limit != IN_PART else "",
        weight_sentence(sizing, rated),
        _bearing_sentence(rated),
        _reach_sentence(sizing, rated),
        _hour_sentence(sizing, rated),
        _hand_sentence(sizing),
        fish_sentence(sizing),
        change_sentence(sizing, rated),
    ]
    return tuple(s for s in said if s)
