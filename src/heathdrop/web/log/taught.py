"""What the log teaches, as its page shows it: rates with whiskers, and what may be said and done of it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from heathdrop import catalog as catalogue
from heathdrop.answers.lessons import Lessons
from heathdrop.answers.shifts import Shift, tabled
from heathdrop.answers.trials import Trial
from heathdrop.learning.rates import Rate
from heathdrop.sizing.knowledge import TRAIT
from heathdrop.store.fish import AgreedShift
from heathdrop.units import many

#: Schools that the page speaks of, the loudest first.
SAID = 3
#: Steps of the mood that are none when rounded.
LEAST_STEP = 0.05
#: The drawing of a rate: its width, and the most bites an hour that a scale is made for at least.
WIDTH, LEAST_SCALE = 220.0, 1.0


@dataclass(frozen=True)
class Whisker:
    """A bin's rate as drawn: words, plain counts, and where dot and whiskers lie (px)."""

    bin: str
    casts: int
    bites: int
    said: str
    dot: float
    low: float
    high: float
    differing: str
    enough: bool


@dataclass(frozen=True)
class Look:
    """A category of the log: its name and its bins."""

    name: str
    rows: tuple[Whisker, ...]

    @property
    def differs(self) -> bool:
        """Whether one of its bins is more or less than the rest."""
        return any(r.differing for r in self.rows)


@dataclass(frozen=True)
class First:
    """What the log says first: what differs, in sentences; what shows no difference; what to throw more."""

    differs: tuple[str, ...]
    same: tuple[str, ...]
    more: str


#: What is thrown more next, at most.
MOST_NEXT = 2


def first_of(looks: list[Look]) -> First:
    """The three things that the log says first."""
    differing = [
        f"{look.name.capitalize()} {r.bin}: {_counted(r)}, {r.differing}"
        for look in looks
        for r in look.rows
        if r.differing
    ]
    # What may yet be good: too few casts to tell, else no difference told; where its range reaches highest.
    open_ = [(r.enough, -r.high, look.name, r) for look in looks for r in look.rows if not r.differing]
    open_.sort(key=lambda one: one[:2])
    more = " and ".join(f"{_thing(name, r.bin)} ({_counted(r)})" for _, _, name, r in open_[:MOST_NEXT])
    return First(
        tuple(differing), tuple(look.name for look in looks if not look.differs), more[:1].upper() + more[1:]
    )


#: Looks whose bins are things with a name of their own.
NAMED = ("lure", "stop", "trailer", "way", "working", "cover")


def _thing(look: str, bin_: str) -> str:
    """What to throw more of: a lure by its name, else the look before it."""
    return bin_ if look in NAMED else f"{look} {bin_}"


def _counted(r: Whisker) -> str:
    """Plain counts: ``9 bites in 64 casts, 14 in 100``."""
    bites = "no bite" if r.bites == 0 else many(r.bites, "bite")
    share = f", {100.0 * r.bites / r.casts:.0f} in 100" if r.enough and r.casts else ""
    return f"{bites} in {many(r.casts, 'cast')}{share}"


def fits_said(lessons: Lessons) -> str:
    """What the fit of a rig as it was cast has meant, where the log can tell."""
    rows = [r for look in looks_of(lessons.fit) for r in reversed(look.rows) if r.enough]
    if len(rows) < 2:
        return (
            f"Your log ({many(lessons.casts, 'cast')}) is too short to say what 90 and 70 have meant in it."
        )
    apart = "" if any(r.differing for r in rows) else " It does not tell them apart yet."
    return f"In your log: fit {'; '.join(f'{r.bin}: {_counted(r)}' for r in rows)}.{apart}"


def looks_of(rates: Sequence[Rate]) -> list[Look]:
    """The categories with more than one bin, on one scale of bites an hour."""
    most = max((r.high for r in rates), default=LEAST_SCALE)
    scale = WIDTH / max(LEAST_SCALE, most)
    looks: dict[str, list[Whisker]] = {}
    for r in rates:
        looks.setdefault(r.effort.by, []).append(_whisker(r, scale))
    return [Look(name, tuple(rows)) for name, rows in looks.items() if len(rows) > 1]


def _whisker(r: Rate, scale: float) -> Whisker:
    said = f"{r.per_hour:.1f} an hour, {r.low:.1f} to {r.high:.1f}" if r.enough else "too few yet"
    differs = {1: "more than the rest of your log", -1: "fewer than the rest of your log", 0: ""}[r.differs]
    dot, low, high = scale * r.per_hour, scale * r.low, scale * r.high
    return Whisker(
        bin=r.effort.bin,
        casts=r.effort.casts,
        bites=r.effort.bites,
        said=said,
        dot=dot,
        low=low,
        high=high,
        differing=differs,
        enough=r.enough,
    )


@dataclass(frozen=True)
class Saying:
    """What may be said of the log, and what can be done about it: the button's word (empty: nothing), what
    it is of (a shift, or a topic and school) and whether it is in use."""

    text: str
    button: str = ""
    about: str = ""
    used: bool = False


@dataclass(frozen=True)
class Held:
    """A trait of one's own fish as the log has it, told or not: name, the tables' value, the log's with the
    range that holds it in eight of ten, casts."""

    name: str
    table: str
    value: str
    band: str
    casts: int


def traits_of(lessons: Lessons) -> list[Held]:
    """Every trait that the log has a figure for."""
    return [
        Held(
            name=s.what,
            table=_figure(s.unit, s.table),
            value=_figure(s.unit, s.value),
            band=f"{_figure(s.unit, s.low, False)} to {_figure(s.unit, s.high, False)}",
            casts=s.casts,
        )
        for s in lessons.own
    ]


def _figure(unit: str, value: float, named: bool = True) -> str:
    """A trait's value as it is read, with what it is ``named`` in: a factor, steps of the mood with their
    sign, a share."""
    if unit == "steps":
        figure = f"{value:+.1f}" if abs(value) >= LEAST_STEP else "0"
        return f"{figure} steps" if named else figure
    if unit == "share":
        return f"{100.0 * value:.0f} %" if named else f"{100.0 * value:.0f}"
    return f"× {value:.2f}" if named else f"{value:.2f}"


def sayings_of(lessons: Lessons, used: Mapping[str, AgreedShift], held: Mapping[str, str]) -> list[Saying]:
    """What may be said of schools and of own fish, in sentences, ``used`` and ``held`` as the angler agreed;
    nothing where too little is known."""
    loudest = sorted(lessons.schools, key=lambda t: -abs(t.ratio))[:SAID]
    said = [_school_said(t, held) for t in loudest if t.words != "too few"]
    shifts = {s.what: s for s in lessons.own if s.sure}
    said += [_shift_said(s) for what, s in shifts.items() if what not in used]
    return said + [_used_said(what, agreed) for what, agreed in used.items()]


def _school_said(t: Trial, held: Mapping[str, str]) -> Saying:
    topic = catalogue.load().topics[t.topic]
    text = f"{topic.name}, “{topic.schools[t.school].name}”: your log {t.words} ({t.casts} casts)."
    if held.get(t.topic, topic.default) == t.school:
        return Saying(f"{text} You hold to it.")
    return Saying(text, "Hold to it", f"{t.topic}/{t.school}") if t.ratio > 0.0 else Saying(text)


#: How each shift of one's own fish is said: its words against the tables, or both shares, of 100.
SHIFT_SAYS = {
    "head weight": "Your fish take a head {}",
    "pace": "Your fish like a pace {}",
    "fall rate": "Your fish like a fall {}",
    "bite rate": "Your fish bite at a rate {}",
    "mood in cold water": "In cold water your fish are {}",
    "mood in warm water": "In warm water your fish are {}",
    "empty stops": "{:.0f} of 100 stops hold no fish, not {:.0f}",
    "the same cast again": "The same cast again keeps {:.0f} % of its chance, not {:.0f} %",
}


def _shift_said(s: Shift) -> Saying:
    share = TRAIT[s.what].unit == "share"
    told = (100.0 * s.value, 100.0 * s.table) if share else (TRAIT[s.what].against(s.value, s.table),)
    text = f"{SHIFT_SAYS[s.what].format(*told)} ({s.casts} casts)."
    return Saying(text, "Use it", s.what)


def _used_said(what: str, agreed: AgreedShift) -> Saying:
    text = f"In use: {what} {TRAIT[what].against(agreed.value, tabled(what))} ({agreed.casts} casts)."
    return Saying(text, "Back to what is assumed", what, used=True)
