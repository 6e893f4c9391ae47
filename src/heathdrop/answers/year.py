"""A year in sight: days, hours and fish, what was about, what was carried for nothing, worn, lost, and
missed."""

import json
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace

from heathdrop import catalog as catalogue
from heathdrop.answers.lessons import UNCOUNTED, minutes_of
from heathdrop.answers.own import Own
from heathdrop.answers.plan import rig_said
from heathdrop.answers.thrown import bitten, known_of, number_of_cast
from heathdrop.answers.water import call_of
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.validation import water_of
from heathdrop.errors import BadInput
from heathdrop.units import ounces_as_written

#: What notes call each forage; the first word is the forage's own.
PREY: dict[str, tuple[str, ...]] = {
    "crawfish": ("crawfish", "crayfish", "crawdad", "craws?"),
    "bluegill": ("bluegill", "bream", "sunfish", "gills?"),
    "baitfish": ("baitfish", "shad", "minnows?", "bait", "alewife", "herring", "smelt"),
}
#: A soft trailer is done after about so many casts, or so many fish (rule of thumb).
CASTS_A_TRAILER, FISH_A_TRAILER = 150, 5
#: Waters that are asked what they wanted, those with the most casts; pieces told of each kind.
ASKED, TOLD = 8, 12
#: The box's best rig is nearly as good as what was wanted from this share of its standing on.
NEARLY = 0.9
#: A trailer in the box is the one that was thrown within so much (in).
SAME_IN = 0.26


@dataclass(frozen=True)
class Piece:
    """A piece of the box: a head by family and weight (oz), or a trailer by shape and length (in); how
    many."""

    kind: str
    name: str
    size: float
    quantity: int

    @property
    def said(self) -> str:
        """The piece in words."""
        catalog = catalogue.load()
        if self.kind == "head":
            return f"{ounces_as_written(self.size)} oz {catalog.families[self.name].name}"
        return f"{catalog.trailers[self.name].name} {self.size:g} in"


@dataclass(frozen=True)
class Month:
    """A month: its number, days, casts, fish landed, the water's temperatures (°F), what was about and
    whether notes say so (else the water as it was set)."""

    number: int
    days: int
    casts: int
    fish: int
    warm_f: tuple[float, float] | None
    prey: tuple[str, ...]
    noted: bool


@dataclass(frozen=True)
class Place:
    """A stop over the year: its days, casts, fish landed."""

    name: str
    days: int
    casts: int
    fish: int


@dataclass(frozen=True)
class Worn:
    """A trailer that is used up by rule of thumb: how many were owned, how many its casts and fish wore
    out."""

    piece: Piece
    used: float


@dataclass(frozen=True)
class Missed:
    """A rig that waters of the year wanted and the box answers less well: in words, where, the casts there,
    the box's own best and how it stands beside this one's 100."""

    rig: str
    stops: tuple[str, ...]
    casts: int
    instead: str
    stands: int


@dataclass(frozen=True)
class Year:
    """A year: what it came to, month by month, stop by stop; ``lost`` by lure: how often it hung and how many
    that may have cost."""

    year: str
    days: int
    hours: float
    casts: int
    bites: int
    fish: int
    longest_in: float | None
    months: tuple[Month, ...]
    places: tuple[Place, ...]
    lost: tuple[tuple[str, int, float], ...]
    idle: tuple[Piece, ...]
    trailers_worn: tuple[Worn, ...]


def year_of(year: str, made: Sequence[MadeCast], box: Sequence[Piece]) -> Year:
    """A year's casts in the order of time, and the box as it is now."""
    counted, alike = [c for c in made if c.trip != UNCOUNTED], _by_rig(made)
    lengths = [c.fish.length_in for c in made if c.fish and c.fish.length_in]
    return Year(
        year=year,
        days=len(_days(made)),
        hours=sum(minutes_of(counted)) / 60.0,
        casts=len(counted),
        bites=sum(bitten(c) for c in made),
        fish=_landed(made),
        longest_in=max(lengths, default=None),
        months=tuple(_months(made)),
        places=tuple(_places(made)),
        lost=tuple(_lost(made)),
        idle=tuple(p for p in box if not any(_is(p, c[0]) for c in alike))[:TOLD],
        trailers_worn=tuple(_worn(alike, box))[:TOLD],
    )


def _days(made: Sequence[MadeCast]) -> set[str]:
    return {c.time.date().isoformat() for c in made}


def _landed(made: Sequence[MadeCast]) -> int:
    return sum(c.outcome == "fish" for c in made)


def _counted(made: Sequence[MadeCast]) -> int:
    return sum(c.trip != UNCOUNTED for c in made)


def _months(made: Sequence[MadeCast]) -> list[Month]:
    months = []
    for number in sorted({c.time.month for c in made}):
        month_casts = [c for c in made if c.time.month == number]
        warm = [v for v in (number_of_cast(c, "water_temp_f") for c in month_casts) if v is not None]
        prey, noted = prey_of(month_casts)
        months.append(
            Month(
                number=number,
                days=len(_days(month_casts)),
                casts=_counted(month_casts),
                fish=_landed(month_casts),
                warm_f=(min(warm), max(warm)) if warm else None,
                prey=prey,
                noted=noted,
            )
        )
    return months


def prey_of(made: Sequence[MadeCast]) -> tuple[tuple[str, ...], bool]:
    """What was about, the oftenest first, and whether the angler's notes say so; where they say nothing, as
    the waters were set."""
    named: Counter[str] = Counter()
    for note in {(c.time.date(), c.stop, c.note.lower()) for c in made if c.note}:
        for prey, forage in PREY.items():
            named[prey] += bool(re.search(rf"\b(?:{'|'.join(forage)})\b", note[2]))
    if any(named.values()):
        return tuple(p for p, n in named.most_common() if n), True
    days = {(c.time.date(), c.stop, str(known_of(c, "forage") or "")) for c in made}
    prey_days = Counter(prey for _, _, prey in days if prey in PREY)
    return tuple(p for p, _ in prey_days.most_common()), False


def _places(made: Sequence[MadeCast]) -> list[Place]:
    stops = Counter(c.stop for c in made if c.stop)
    places = []
    for name, _ in stops.most_common(TOLD):
        place_casts = [c for c in made if c.stop == name]
        places.append(Place(name, len(_days(place_casts)), _counted(place_casts), _landed(place_casts)))
    return places


def _lost(made: Sequence[MadeCast]) -> list[tuple[str, int, float]]:
    share = catalogue.load().judgement.hand.lost_of_hung
    hung = Counter(f"{ounces_as_written(c.head_oz)} oz {_lure(c)}" for c in made if c.outcome == "hung")
    return [(lure, n, n * share) for lure, n in hung.most_common(TOLD)]


def _lure(cast: MadeCast) -> str:
    family = catalogue.load().families.get(cast.family)
    return family.name if family else cast.family


def _is(piece: Piece, cast: MadeCast) -> bool:
    """Whether a piece is what a cast threw."""
    if piece.kind == "head":
        return (piece.name, piece.size) == (cast.family, cast.head_oz)
    length = cast.trailer_length_in or catalogue.load().trailers[piece.name].length_in
    return piece.name == cast.trailer and abs(piece.size - length) <= SAME_IN


def _by_rig(made: Sequence[MadeCast]) -> list[list[MadeCast]]:
    """Casts of one head and one trailer together: a year throws thousands of casts with some dozens."""
    groups: dict[tuple[str, float, str, float], list[MadeCast]] = {}
    for cast in made:
        key = cast.family, cast.head_oz, cast.trailer, cast.trailer_length_in
        groups.setdefault(key, []).append(cast)
    return list(groups.values())


def _worn(alike: Sequence[list[MadeCast]], box: Sequence[Piece]) -> list[Worn]:
    """Trailers that a year's casts and fish have used up, the most so first."""
    pieces_worn = []
    for piece in (p for p in box if p.kind == "trailer" and p.quantity):
        piece_casts = [c for group in alike if _is(piece, group[0]) for c in group]
        used = max(_counted(piece_casts) / CASTS_A_TRAILER, _landed(piece_casts) / FISH_A_TRAILER)
        if used >= max(1.0, piece.quantity - 0.5):
            pieces_worn.append(Worn(piece, used))
    return sorted(pieces_worn, key=lambda w: -w.used / w.piece.quantity)


def missed_of(made: Sequence[MadeCast], own: Own) -> list[Missed]:
    """The best rigs for the waters that were fished most where the box's own best is :data:`NEARLY` of
    them or less, the most casts first, each rig once for all its waters (the box's best as at the first of
    them); nothing while the box holds no head or no trailer."""
    if not own.tackle.heads or not own.tackle.trailers:
        return []
    waters: dict[str, list[MadeCast]] = {}
    for cast in made:
        if cast.conditions:
            waters.setdefault(json.dumps(cast.conditions, sort_keys=True), []).append(cast)
    missed: dict[str, Missed] = {}
    for water, water_casts in sorted(waters.items(), key=lambda w: -len(w[1]))[:ASKED]:
        try:
            scenario = water_of(json.loads(water), 80.0, 2.0, dict(own.schools), "standard")
            best, boxed = (
                call_of(replace(scenario, box=box), own, places=1).standings[0]
                for box in ("standard", "mine")
            )
        except BadInput:
            continue
        share = boxed.standing / best.standing if best.standing > 0.0 else 1.0
        if share < NEARLY:
            rig, stops = rig_said(best.best.rig), tuple(dict.fromkeys(c.stop for c in water_casts if c.stop))
            one = Missed(rig, stops, len(water_casts), rig_said(boxed.best.rig), round(100.0 * share))
            before = missed.get(rig)
            if before is not None:
                stops = tuple(dict.fromkeys((*before.stops, *stops)))
                one = replace(before, stops=stops, casts=before.casts + len(water_casts))
            missed[rig] = one
    return sorted(missed.values(), key=lambda m: -m.casts)
