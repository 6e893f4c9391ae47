"""Doubt, said: when nothing fits well, what holds it back and what would have to change."""

from dataclasses import replace

from heathdrop.advice.reach import misses, missing_said
from heathdrop.advice.strength import tackle_said
from heathdrop.advice.why import limit_sentence
from heathdrop.catalog import Catalog
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet_said

#: A dropped rig that the cover lets in less often than this does not get to the fish.
GETS_IN = 0.5
#: What would have to change, by the part that costs most.
WOULD_HELP = {
    "depth": "Fish nearer to where it can run, another pace or thinner line would have to come first.",
    "pace": "A lighter or heavier head, or fish at another depth, would have to come first.",
    "tackle": "Stouter line, or a rod that is rated for it, would have to come first.",
    "fall": "Another head and trailer together, or fish in another mood, would have to come first.",
    "cover": "Thinner cover, or a lane through it, would have to come first.",
    "action": "A trailer that works as they want, or another family, would have to come first.",
    "profile": "A trailer of another shape or size would have to come first.",
    "weight": "Another family, whose usual weights suit this depth, may be the better answer.",
    "touch": "Less wind, a shorter cast or thinner line would have to come first.",
}


def doubted(catalog: Catalog, sizing: Sizing, rated: Rated) -> bool:
    """Whether a rig would be told with a doubt of its own: it misses the fish, is too much for the tackle, is
    kept out by the cover, or fits badly."""
    kept_out = rated.rig.family.work == "drop" and rated.cover.passes < GETS_IN
    fits = rated.fits.limiting is None or rated.fits.score >= catalog.judgement.fit.doubtful
    return misses(sizing, rated) or not rated.strong_enough or kept_out or not fits


def doubt_of(catalog: Catalog, sizing: Sizing, rated: Rated) -> str | None:
    """A sentence when a rig misses the fish, is too much for the tackle, or fits badly, or when the fish's
    depth is not known; None when none is so. Of the best rig it says what would have to change; of
    another, how much better the best one fits."""
    said = (
        _unplaced(sizing),
        missing_said(catalog, sizing, rated),
        tackle_said(catalog, sizing, rated),
        _kept_out(catalog, sizing, rated),
    )
    unknown = " ".join(s for s in said if s)
    if any(said[1:]):
        # What is wrong, and what would mend it, is said: the fit's own words would only repeat it.
        return unknown
    part, least = rated.fits.limiting, catalog.judgement.fit.doubtful
    # Who set targets asked for what does them, and not for what fits best.
    if part is None or rated.fits.score >= least or sizing.scenario.wanted.yours:
        return unknown or None
    best, own = sizing.rigs[0].fits.score, f"{rated.fits.score * 100:.0f} of 100"
    if best >= least:
        fits = f"This rig fits badly here, {own}; the best one has {best * 100:.0f}."
        return f"{unknown} {fits} {limit_sentence(sizing, rated)}".strip()
    fits = f"Nothing here fits well: the best is {max(best, rated.fits.score) * 100:.0f} of 100."
    return f"{unknown} {fits} {limit_sentence(sizing, rated)} {WOULD_HELP[part]}".strip()


def _kept_out(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The sentence that the cover keeps a dropped rig out, and what lobbing it would do; nothing where it
    gets in."""
    passes = rated.cover.passes
    if rated.rig.family.work != "drop" or passes >= GETS_IN:
        return ""
    said = f"It gets through that cover only {passes * 100:.0f} times of 100, entered quietly."
    alone = replace(sizing.scenario, families=(rated.rig.family.id,))
    setting = setting_of(catalog, alone, sizing.knowledge)
    if setting.stand.kind != "matted-grass" or setting.stand.lobbed:
        return f"{said} A hole, an edge or a thinner patch would have to be found first."
    loud = setting.odds(rated.rig, rated.lure, rated.tuned, stand=replace(setting.stand, lobbed=True)).passes
    return f"{said} Lobbed in, high and loud, {loud * 100:.0f}; else a hole or the edge of it."


def _unplaced(sizing: Sizing) -> str:
    """What a sizing for fish of unknown depth rests on; nothing where the depth is known."""
    c = sizing.scenario.conditions
    if c.fish_span_ft is None:
        return ""
    low, high = (feet_said(v) for v in c.fish_span_ft)
    where = f"The fish are somewhere from {low} to {high} ft"
    return (
        f"{where}: this is sized for {c.fish_depth_ft:g} ft, their depth on average. Search it cast by cast."
    )
