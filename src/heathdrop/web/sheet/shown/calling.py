"""The Water view: mood, families with reasons for and against, and where good anglers disagree."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from heathdrop.advice.call import Call, Standing
from heathdrop.catalog import Catalog
from heathdrop.sizing.schools import applying, chosen
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, ounces_as_written

#: Families shown with their reasons; the rest stand below with why they were set aside.
SHOWN = 5

Link = Callable[..., str]


#: Places in words.
PLACES = ("1st", "2nd", "3rd")


@dataclass(frozen=True)
class Row:
    """One family: its rank, standing 0..100, best rig in words, reasons, and the address that chooses it."""

    rank: int
    id: str
    name: str
    presentation: str
    standing: int
    place: str
    fit: int
    rig: str
    fors: tuple[str, ...]
    againsts: tuple[str, ...]
    model: str
    address: str
    chosen: bool


@dataclass(frozen=True)
class Aside:
    """A family set aside: its name, why, and the address that chooses it all the same."""

    name: str
    why: str
    address: str


@dataclass(frozen=True)
class Choice:
    """A school: its id, words, whether it is the one held to."""

    id: str
    name: str
    says: str
    chosen: bool


@dataclass(frozen=True)
class Dispute:
    """A topic with its schools."""

    id: str
    name: str
    because: str
    is_default: bool
    schools: tuple[Choice, ...]


@dataclass(frozen=True)
class Mood:
    """A mood to choose: its name, the address that chooses it, whether it holds."""

    name: str
    address: str
    chosen: bool


@dataclass(frozen=True)
class Calling:
    """Everything the Water view shows."""

    moods: tuple[Mood, ...]
    judged: bool
    judge_again: str
    mood_why: tuple[str, ...]
    rows: tuple[Row, ...]
    aside: tuple[Aside, ...]
    disputes: tuple[Dispute, ...]


def rig_words(rated: Rated) -> str:
    """Head and trailer as an angler says them."""
    tail = "" if rated.rig.trailer.bare else f", {rated.rig.trailer.name}"
    return f"{ounces_as_written(rated.rig.head_oz)} oz{tail}"


def calling_of(catalog: Catalog, call: Call, sizing: Sizing, link: Link) -> Calling:
    """The Water view of a call; ``link`` makes the address of the state with some values changed."""
    top = call.standings[0].standing or 1.0
    family = sizing.scenario.families[0]
    rows = tuple(_row(k + 1, s, top, family, link) for k, s in enumerate(call.standings))
    activity = sizing.targets.activity
    names = catalog.mood.names
    moods = tuple(Mood(n, link(activity=str(k)), round(activity.value) == k) for k, n in enumerate(names))
    return Calling(
        moods=moods,
        judged=activity.judged,
        judge_again=link(activity=""),
        mood_why=activity.reasons,
        rows=rows,
        aside=tuple(
            Aside(f.name, why.lower(), link(family=f.id, pick="", view="size")) for f, why in call.aside
        ),
        disputes=_disputes_of(catalog, sizing),
    )


def _row(rank: int, s: Standing, top: float, family: str, link: Link) -> Row:
    return Row(
        rank=rank,
        id=s.family.id,
        name=s.family.name,
        presentation=s.presentation,
        standing=round(100 * s.standing / top),
        place=PLACES[rank - 1] if rank <= len(PLACES) else f"{rank}th",
        fit=round(100 * s.fit),
        rig=rig_words(s.best),
        fors=tuple(r.name for r in s.fors[:2]),
        againsts=tuple(r.name for r in s.againsts[:2]),
        model=s.model,
        address=link(family=s.family.id, pick="", view="size"),
        chosen=s.family.id == family,
    )


def _disputes_of(catalog: Catalog, sizing: Sizing) -> tuple[Dispute, ...]:
    """The topics that matter for the chosen family in this water."""
    family = catalog.families[sizing.scenario.families[0]]
    held = chosen(catalog, sizing.scenario.schools)
    facts = {**sizing.facts, "family": family.id, "work": family.work}
    return tuple(
        Dispute(
            t.id,
            t.name,
            t.because,
            held[t.id].id == t.default,
            tuple(Choice(s.id, s.name, s.says, s.id == held[t.id].id) for s in t.schools.values()),
        )
        for t in applying(catalog, facts)
    )


@dataclass(frozen=True)
class Side:
    """One school's answer beside another's."""

    name: str
    says: str
    rig: str
    figures: tuple[tuple[str, str], ...]
    difference: str


def sides_of(
    catalog: Catalog, sizing: Sizing, topic_id: str, sized: Callable[..., Sizing]
) -> tuple[Side, ...]:
    """Every school's answer to the same water, with the difference to the first in numbers. Raises
    BadInput."""
    topic = catalog.pick(catalog.topics, "topic", topic_id)
    sides: list[Side] = []
    first: Rated | None = None
    for school in topic.schools.values():
        picks = tuple(sorted({**dict(sizing.scenario.schools), topic_id: school.id}.items()))
        best = sized(replace(sizing.scenario, schools=picks)).rigs[0]
        pace = feet(best.tuned.pace_m_s)
        figures = (
            ("count", f"{best.countdown_s:.1f} s"),
            ("pace", f"{pace:.1f} ft/s"),
            ("runs at", f"{feet(best.tuned.mean_m):.1f} ft"),
            ("falls", f"{best.fall_ft_s:.1f} ft/s"),
            ("fit", f"{best.fits.score * 100:.0f}"),
        )
        sides.append(Side(school.name, school.says, rig_words(best), figures, _difference(first, best)))
        first = first or best
    return tuple(sides)


def _difference(first: Rated | None, best: Rated) -> str:
    """The difference to the first school's rig, in numbers."""
    if first is None:
        return ""
    if first.key == best.key and abs(first.tuned.pace_m_s - best.tuned.pace_m_s) < 0.01:
        return "The same rig and pace: here it only changes the finish."
    parts = []
    oz = best.rig.head_oz - first.rig.head_oz
    if abs(oz) > 1e-6:
        parts.append(f"{ounces_as_written(abs(oz))} oz {'heavier' if oz > 0 else 'lighter'}")
    pace = feet(best.tuned.pace_m_s - first.tuned.pace_m_s)
    if abs(pace) >= 0.05:
        parts.append(f"{abs(pace):.1f} ft/s {'faster' if pace > 0 else 'slower'}")
    depth = feet(best.tuned.mean_m - first.tuned.mean_m)
    if abs(depth) >= 0.05:
        parts.append(f"{abs(depth):.1f} ft {'deeper' if depth > 0 else 'higher'}")
    fall = best.fall_ft_s - first.fall_ft_s
    if abs(fall) >= 0.05:
        parts.append(f"falls {abs(fall):.1f} ft/s {'faster' if fall > 0 else 'slower'}")
    return (
        ("Against the first: " + ", ".join(parts) + ".") if parts else "Hardly any difference in this water."
    )
