"""The printed card: one page with the water, the gear, the rig, the count, one change for each trouble, and
the cautions."""

from dataclasses import dataclass
from datetime import date

from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.change import likely, mended
from heathdrop.advice.finish import Settled, finish_of
from heathdrop.advice.why import reasons
from heathdrop.answers.picked import picked
from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import WENT
from heathdrop.conditions.scenario import ROWS, Scenario
from heathdrop.sizing.size import Sizing
from heathdrop.web.sheet.shown.casting import Choices, Foot, feet_rows, window_said
from heathdrop.web.sheet.shown.section import Section, section_of
from heathdrop.web.sheet.shown.strip import Figure, figures_of, rig_said, wanted_of


@dataclass(frozen=True)
class Card:
    """Everything on the card, in words; ``water`` and ``gear`` are (label, value) pairs."""

    name: str
    day: str
    rig: str
    score: int
    water: tuple[tuple[str, str], ...]
    gear: tuple[tuple[str, str], ...]
    figures: tuple[Figure, ...]
    section: Section
    rows: tuple[Foot, ...]
    window: str
    settled: tuple[Settled, ...]
    changes: tuple[tuple[str, str], ...]
    why: tuple[str, ...]
    cautions: tuple[str, ...]


def card_of(catalog: Catalog, sizing: Sizing, pick: str, choices: Choices, name: str, day: date) -> Card:
    """The card of a sized water, for the best rig or the one picked. Raises BadInput."""
    one = picked(sizing, pick, choices)
    sizing, chosen, bands, worked = one.sizing, one.rated, one.bands, one.worked
    figures = figures_of(sizing, chosen, bands, worked, one.as_usual)
    changes = []
    for trouble in likely(chosen.rig.family.work, sizing.scenario.conditions.cover.kind):
        mends = mended(catalog, sizing, chosen, trouble).changes
        if mends:
            changes.append((WENT[trouble], f"{mends[0].what}: {mends[0].effect}"))
    return Card(
        name=name,
        day=day.strftime("%-d %B %Y"),
        rig=rig_said(chosen),
        score=round(chosen.fits.score * 100),
        water=said_of(sizing.scenario, "conditions"),
        gear=said_of(sizing.scenario, "gear"),
        figures=wanted_of(sizing, chosen, figures, worked.mean_ft),
        section=section_of(sizing, chosen, one.cast, bands, spread=one.way == "steady"),
        rows=feet_rows(sizing, chosen, bands),
        window=window_said(sizing, chosen, worked),
        settled=finish_of(catalog, sizing, chosen),
        changes=tuple(changes),
        why=reasons(sizing, chosen),
        cautions=tuple(c.text for c in cautions_for(catalog, sizing.scenario, chosen)),
    )


def said_of(scenario: Scenario, part: str) -> tuple[tuple[str, str], ...]:
    """Every condition of a part of the scenario that was set, as label and value with its unit."""
    answers = []
    for row in ROWS:
        if not row.path.startswith(part + "."):
            continue
        place: object = scenario
        for step in row.path.split("."):
            place = getattr(place, step, None)
        kinds = row.quantity.cover
        if place is None or (kinds and scenario.conditions.cover.kind not in kinds):
            continue
        span = scenario.conditions.fish_span_ft
        if row.name == "fish_depth_ft" and span is not None:
            unknown = span == (0.0, scenario.conditions.bottom_depth_ft)
            answers.append((row.quantity.label, "not known" if unknown else f"{span[0]:g} to {span[1]:g} ft"))
            continue
        if isinstance(place, bool):
            answers.append((row.quantity.label, row.quantity.flag[place]))
            continue
        vocabulary = dict(row.quantity.words) | dict(w for _, some in row.quantity.by for w in some)
        value = f"{place:g} {row.quantity.unit}" if isinstance(place, int | float) else str(place)
        answers.append((row.quantity.label, vocabulary.get(str(place), value).strip()))
    return tuple(answers)
