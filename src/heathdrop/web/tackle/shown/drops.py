"""The Drop tests view: tests with their tries and outliers, what was learned, before and after."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from heathdrop.answers.drops import expected_depth_ft, expected_drop_s, falls_to
from heathdrop.catalog import Catalog
from heathdrop.learning.checks import OneFactor
from heathdrop.learning.learned import NINETY, Learned, before_after
from heathdrop.learning.observations import DepthCheck, DropTest
from heathdrop.learning.worth import Odd, another_worth, odd_depths, odd_drops
from heathdrop.physics.rig import spread_of
from heathdrop.physics.rig_name import USUAL
from heathdrop.store.models import Observation
from heathdrop.store.observations import DepthRecord, DropRecord, MatRecord, record_of
from heathdrop.units import feet, inches_said, ounces_as_written

#: What is asked of a test that the others contradict.
ASK = "Was it this rig, this depth, no line dragged? Withdraw it if not."
#: The before-and-after picture: half of its width stands for this change of fall rate.
PICTURE = (300.0, 74.0)
HALF_WIDTH = 0.40
#: A time this near to what counts (a share) agrees with it; so many tests of a rig settle it.
AGREES, SETTLED = 0.05, 3
#: Depths so far apart (a factor) are two; a test shallower than this (m) is asked for deeper, not shallower.
APART, SHALLOW_M = 1.4, 3.0
#: What drops do not narrow.
CHECK = "What it runs at on the reel they hardly move: a depth check does."
#: Depths (ft) that the table of seconds names, and the rigs it has columns for at most.
DEPTHS_FT, MOST_TIMED = (4.0, 6.0, 8.0, 10.0, 12.0, 15.0, 20.0, 25.0), 4


@dataclass(frozen=True)
class Try:
    seconds: str
    outlier: bool


@dataclass(frozen=True)
class TestRow:
    """One observation: what was tested, its tries, what the model says now, whether it counts."""

    id: int
    what: str
    detail: str
    tries: tuple[Try, ...]
    predicted: str
    withdrawn: bool
    odd: str = ""


@dataclass(frozen=True)
class Picture:
    """A trailer's fall before and after: bells as SVG paths, and the sentence."""

    before: str
    after: str
    middle: float
    sentence: str
    name: str
    worth: str


@dataclass(frozen=True)
class Timed:
    """A timed rig's seconds to each depth: depth, seconds with their band, as assumed before."""

    what: str
    rows: tuple[tuple[str, str, str, str], ...]


@dataclass(frozen=True)
class Drops:
    rows: tuple[TestRow, ...]
    pictures: tuple[Picture, ...]
    lessons: tuple[str, ...]
    error_said: str
    timed: tuple[Timed, ...]


def drops_of(catalog: Catalog, rows: Sequence[Observation], learned: Learned) -> Drops:
    """Everything the page shows; ``rows`` holds the withdrawn ones too."""
    outliers = iter(learned.falls.outliers)
    shown: list[TestRow] = []
    pictures: dict[str, Picture] = {}
    timed: dict[str, Timed] = {}
    lessons: list[str] = []
    odds = _odds(catalog, rows)
    drops = [r.seen(catalog) for r in _counting(rows) if isinstance(r, DropRecord)]
    for row in rows:
        record = record_of(row)
        withdrawn = row.gone_at is not None
        if isinstance(record, DropRecord):
            test = record.seen(catalog)
            flags = (
                (False,) * len(test.times_s) if withdrawn else next(outliers, (False,) * len(test.times_s))
            )
            shown.append(
                _drop_row(
                    catalog,
                    row.id,
                    record=record,
                    test=test,
                    learned=learned,
                    flags=flags,
                    withdrawn=withdrawn,
                )
            )
            if not withdrawn:
                what = f"{_rig_words(catalog, record)} on {record.test_lb:g} lb {record.line_material}"
                name = f"{catalog.trailers[record.trailer].name} on a {catalog.families[record.family].name}"
                pictures[name] = picture_of(catalog, learned, test, name, drops)
                timed[what] = _timed_of(what, test, learned)
        elif isinstance(record, DepthRecord):
            shown.append(
                _depth_row(
                    catalog,
                    row.id,
                    record=record,
                    check=record.seen(catalog),
                    learned=learned,
                    withdrawn=withdrawn,
                )
            )
        else:
            shown.append(_mat_row(catalog, row.id, record, withdrawn))
    for texture, lesson in learned.mats.items():
        lessons.append(
            f"{texture.capitalize()} mats need {lesson.factor:.2f} times the weight assumed, {_give(lesson)}."
        )
    for key, lesson in learned.lifts.items():
        family, trailer, _ = key.split("/")
        name = f"{catalog.families[family].name.capitalize()} with {catalog.trailers[trailer].name}"
        lessons.append(f"{name}: {lesson.factor:.2f} times the lift assumed, {_give(lesson)}.")
    error = f"Your thumb is good to about {100 * learned.falls.error:.0f} %." if learned.falls.names else ""
    shown = [replace(row, odd=odds.get(row.id, "")) for row in shown]
    latest = tuple(reversed(timed.values()))[:MOST_TIMED]
    return Drops(tuple(reversed(shown)), tuple(pictures.values()), tuple(lessons), error, latest)


def _timed_of(what: str, test: DropTest, learned: Learned) -> Timed:
    """A timed rig's seconds to the depths that a dock has."""
    return Timed(
        what,
        tuple(
            (f"{f.depth_ft:g} ft", f"{f.seconds:.1f} s", f"{f.low:.1f} to {f.high:.1f}", f"{f.assumed:.1f} s")
            for f in falls_to(test, learned, DEPTHS_FT)
        ),
    )


def _counting(rows: Sequence[Observation]) -> list[DropRecord | DepthRecord | MatRecord]:
    """The records that are not withdrawn."""
    return [record_of(row) for row in rows if row.gone_at is None]


def _asked(odd: Odd) -> str:
    """What is asked of a drop that the others contradict: whether another head was on that falls so."""
    if odd.head_oz is None:
        return ASK
    return f"A {ounces_as_written(odd.head_oz)} oz head would take that long: was it on? {ASK}"


def _odds(catalog: Catalog, rows: Sequence[Observation]) -> dict[int, str]:
    """What is said beside each observation that the others contradict, by its id."""
    records = [(row.id, record_of(row)) for row in rows if row.gone_at is None]
    drops = [(k, r.seen(catalog)) for k, r in records if isinstance(r, DropRecord)]
    depths = [(k, r.seen(catalog)) for k, r in records if isinstance(r, DepthRecord)]
    said = {}
    for (k, _), odd in zip(drops, odd_drops(catalog, [t for _, t in drops]), strict=True):
        if odd is not None:
            said[k] = f"Your other tests expect {odd.low:.1f} to {odd.high:.1f} s here. {_asked(odd)}"
    for (k, _), odd in zip(depths, odd_depths(catalog, [c for _, c in depths]), strict=True):
        if odd is not None:
            said[k] = f"Your other checks expect {feet(odd.low):.1f} to {feet(odd.high):.1f} ft here. {ASK}"
    return said


#: Places of contacts that are told, the latest.
PLACES = 4


def touched_said(learned: Learned, contacts: Sequence[DropTest | DepthCheck]) -> list[tuple[str, str]]:
    """What was touched in fishing, as places (none for all) and sentences: how much of it counts, and how
    deep each place was found."""
    falls = [c for c in contacts if isinstance(c, DropTest)]
    ran = sum(isinstance(c, DepthCheck) and c.off_m != 0.0 for c in contacts)
    ticks = len(contacts) - len(falls) - ran
    if not contacts:
        return []
    what = [
        f"{n} {one if n == 1 else many}"
        for n, one, many in (
            (len(falls), "bottom found", "bottoms found"),
            (ticks, "top ticked", "tops ticked"),
            (ran, "run high or low", "runs high or low"),
        )
        if n
    ]
    whole = f"{', '.join(what[:-1])} and {what[-1]}" if len(what) > 1 else what[0]
    verb = "teaches" if len(contacts) == 1 else "teach"
    said = [("", f"On the water: {whole} {verb} too, less surely than a drop in a measured depth.")]
    for place in list(dict.fromkeys(c.place for c in reversed(falls)))[:PLACES]:
        place_falls = [c for c in falls if c.place == place]
        depth_ft, name = feet(place_falls[0].depth_m), f"at:{place}"
        expected, spread = depth_ft * learned.falls.factor(name), learned.falls.spread(name)
        if spread is not None:
            wide = NINETY * spread * expected
            depth = f"{depth_ft:.1f} ft on record, {expected:.1f} ft ± {wide:.1f} ft by the falls"
            said.append((place, f"{depth} of {len(place_falls)}."))
    return said


def worth_said(catalog: Catalog, drops: Sequence[DropTest], like: DropTest, spread: float) -> str:
    """Whether another test is worth the time, and where; ``spread`` is half of the fall's band as the page
    says it, and what another test leaves of it is told on that scale."""
    worth, depths_m = another_worth(catalog, drops, like), [t.depth_m for t in drops if t.rig == like.rig]
    if not worth.asked and max(depths_m) < APART * min(depths_m):
        other = feet(2.0 * like.depth_m if like.depth_m < SHALLOW_M else 0.5 * like.depth_m)
        return f"All at one depth so far: one in about {other:.0f} ft tells the lure's drag from the line's."
    if not worth.asked:
        return f"Enough: more drops would hardly narrow the fall. {CHECK}"
    where = "at the same depth" if worth.depth_m == like.depth_m else f"in {feet(worth.depth_m):.0f} ft"
    then = spread * worth.then / worth.now
    return f"One more test, {where}, would make ±{100 * spread:.0f} % about ±{100 * then:.0f} %."


def counts_now(timed_s: float, expected_s: float, now_s: float, tests: int) -> str:
    """What a test that was just kept came to: timed, expected before it, what counts from now on."""
    said = f"You timed {timed_s:.1f} s, {expected_s:.1f} s was expected; {now_s:.1f} s counts now"
    if abs(now_s - timed_s) < AGREES * timed_s:
        return f"{said}."
    more = max(1, SETTLED - tests)
    until = f"until {more} more {'test agrees' if more == 1 else 'tests agree'}"
    return f"{said}, {until}: a depth a little off or a slow thumb would look the same."


def _give(lesson: OneFactor) -> str:
    """How sure a lesson is, as its 90 % band."""
    return f"±{100 * (math.exp(NINETY * lesson.spread) - 1):.0f} %"


def _rig_words(catalog: Catalog, record: DropRecord | DepthRecord | MatRecord) -> str:
    head, tail = ounces_as_written(record.head_oz), catalog.trailers[record.trailer].name
    dress = [catalog.skirts[record.skirt].name] if record.skirt else []
    if record.plastic != USUAL["plastic"]:
        dress.append(catalog.plastic[record.plastic].name)
    sentence = (
        f"{head} oz {catalog.families[record.family].name}, {tail} {inches_said(record.trailer_length_in)} in"
    )
    return ", ".join([sentence, *dress])


def _drop_row(
    catalog: Catalog,
    id_: int,
    record: DropRecord,
    test: DropTest,
    learned: Learned,
    flags: tuple[bool, ...],
    withdrawn: bool,
) -> TestRow:
    now = expected_drop_s(test, learned)
    reel = ", off the reel" if record.off_reel else ""
    return TestRow(
        id=id_,
        what=_rig_words(catalog, record),
        detail=f"{record.depth_ft:g} ft, {record.test_lb:g} lb {record.line_material}{reel}"
        + (f"; {record.note}" if record.note else ""),
        tries=tuple(Try(f"{t:.2f}", f) for t, f in zip(test.times_s, flags, strict=True)),
        predicted=f"{now:.1f} s counts now",
        withdrawn=withdrawn,
    )


def _depth_row(
    catalog: Catalog, id_: int, record: DepthRecord, check: DepthCheck, learned: Learned, withdrawn: bool
) -> TestRow:
    now = expected_depth_ft(check, learned)
    detail = (
        f"at {record.pace_ft_s:g} ft/s, counted {record.count_s:g} s, ran at about {record.depth_ft:g} ft"
    )
    return TestRow(
        id=id_,
        what=_rig_words(catalog, record),
        detail=detail,
        tries=(),
        predicted=f"{now:.1f} ft counts now",
        withdrawn=withdrawn,
    )


def _mat_row(catalog: Catalog, id_: int, record: MatRecord, withdrawn: bool) -> TestRow:
    went = "through" if record.through else "stalled"
    return TestRow(
        id=id_,
        what=_rig_words(catalog, record),
        detail=f"{record.thickness_in:g} in of {record.texture}: {went}",
        tries=(),
        predicted="",
        withdrawn=withdrawn,
    )


def picture_of(
    catalog: Catalog, learned: Learned, test: DropTest, name: str, drops: Sequence[DropTest]
) -> Picture:
    """The fall rate's bell before and after, on one scale of per cent."""
    fallen = before_after(catalog, learned, test.rig, name, test.temperature_f)
    wide, tall = PICTURE
    was = 0.5 * spread_of(catalog, test.rig, test.temperature_f).fall
    own = 0.5 * spread_of(catalog, learned.applied(test.rig), test.temperature_f).fall
    x = np.linspace(-HALF_WIDTH, HALF_WIDTH, 81)

    def bell(centre: float, sigma: float) -> str:
        y = np.exp(-0.5 * ((x - centre) / sigma) ** 2) * min(1.0, own / sigma) ** 0.5
        across, up = wide / 2 * (1.0 + x / HALF_WIDTH), tall - 14 - y * (tall - 22)
        return "M" + " L".join(f"{a:.1f},{b:.1f}" for a, b in zip(across, up, strict=True))

    shift = math.log(fallen.speed)
    return Picture(
        before=bell(0.0, was),
        after=bell(shift, own),
        middle=wide / 2 + shift / HALF_WIDTH * wide / 2,
        sentence=fallen.sentence,
        name=name,
        worth=worth_said(catalog, drops, test, fallen.after),
    )
