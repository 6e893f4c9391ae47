"""The page's controls, made from the conditions' rows, and the way between the address and a scenario."""

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.answers.compare import MOST_COMPARED
from heathdrop.conditions.quantity import Place, Word, value_at
from heathdrop.conditions.scenario import BOXES, ROWS
from heathdrop.errors import BadInput
from heathdrop.measures import METRIC, meant, turn_of
from heathdrop.reading import parts_of, read, span_of, unit_of
from heathdrop.web.shell.views import FIRST

#: Controls whose empty choice leaves a whole part of the gear out.
OPTIONAL_PARTS = ("leader", "rod")
#: What a row's control is called in the address where the row's own name would not do.
RENAMED = {"kind": "cover", "material": "line"}


@dataclass(frozen=True)
class Control:
    """One control: its name in the address, its place in a request, and how it looks."""

    name: str
    path: str
    label: str
    default: str
    unit: str = ""
    step: str = "1"
    options: tuple[Word, ...] = ()
    blank: bool = False
    group: str = "water"
    cover: tuple[str, ...] = ()
    needs: str = ""
    usual_tests: Mapping[str, str] = field(default_factory=dict)
    low: str | None = None
    about: str = ""
    optional: bool = False
    flag: bool = False
    blank_said: str = ""
    starts_at: str = ""
    spoken: Mapping[str, Any] = field(default_factory=dict)
    ranged: bool = False

    @property
    def most(self) -> str:
        """The control that this one's figure goes no further than: depths stop at the bottom."""
        return BOTTOM if self.name in (*FOLLOWING, "tops_ft") else ""

    @property
    def later(self) -> bool:
        """Whether it is asked only once the four answers are given, where there is little room."""
        return self.group == "first" and self.name not in ANSWERS

    def shown(self, values: Mapping[str, str]) -> bool:
        """Whether the control belongs to this kind of cover, and what it hangs on is there."""
        if self.needs and not values[self.needs]:
            return False
        return not self.cover or values["cover"] in self.cover


def _text(value: Any) -> str:
    return "" if value is None else f"{value:g}" if isinstance(value, int | float) else str(value)


#: Words for what fish like, which is judged.
AS_THEY_LIKE = "as they like"


def _falls_spoken() -> dict[str, Any]:
    """Falls by word: slow as idle fish take it, quick as chasing fish do, or judged."""
    moods = catalogue.load().targets
    return {"slow": moods[0].fall_ft_s, AS_THEY_LIKE: None, "quick": moods[-1].fall_ft_s}


def _usual_tests() -> dict[str, str]:
    """The usual test (lb) of each line material, as text."""
    return {line.id: f"{line.usual_lb:g}" for line in catalogue.load().lines.values()}


def _controls(place: Place) -> Iterator[Control]:
    """A row's control; one for each kind of cover where the row's words differ by it."""
    q = place.quantity
    name = q.control or RENAMED.get(place.name, place.name)
    for kind, by_words in q.by:
        yield Control(
            kind, place.path, q.label, by_words[0][0], options=by_words, group=q.group, cover=(kind,)
        )
    if q.by:
        return
    if q.optional:
        yield Control(
            name=q.optional_control,
            path=place.path,
            label=q.label,
            default="",
            unit=q.unit,
            step=_text(q.step),
            group=q.group,
            cover=q.optional,
            low=f"{q.low:g}",
            about=q.about,
            optional=True,
            blank_said=q.optional_blank,
            starts_at=q.optional_from,
        )
    if q.optional and not q.cover:
        return
    if q.flag[1]:
        by_words = (("", q.flag[0]), ("yes", q.flag[1]))
        yield Control(
            name,
            place.path,
            q.label,
            "",
            step="",
            options=by_words,
            group=q.group,
            cover=q.cover,
            about=q.about,
            flag=True,
        )
        return
    options: tuple[Word, ...] = (("", q.blank), *q.words) if q.blank else q.words
    if q.blank and not q.words:
        moods = tuple((str(k), mood) for k, mood in enumerate(catalogue.load().mood.names))
        options = (("", q.blank), *moods)
    start = q.start if q.start is not None else place.default
    yield Control(
        name=name,
        path=place.path,
        label=q.label,
        default=_text(start),
        unit="" if options else q.unit,
        step=_text(q.step),
        options=options,
        blank=bool(q.blank),
        group=q.group,
        cover=q.cover,
        needs=q.needs,
        usual_tests=_usual_tests() if name in ("line", "leader") else {},
        low=None if options or not math.isfinite(q.low) else f"{q.low:g}",
        about=q.about,
        spoken=dict(q.spoken),
    )


#: The group of the angler's own targets.
WANTED = "wanted"
#: The controls in the order of the rows. Group "first": the four answers, and what their cover asks besides.
CONTROLS: tuple[Control, ...] = (
    *(control for row in ROWS for control in _controls(row)),
    Control(
        "box",
        "box",
        "Size from",
        BOXES[0][0],
        options=tuple(zip([w for w, _ in BOXES], ("the standard set", "my box", "both"), strict=True)),
        group="gear",
    ),
    *(
        Control(
            name=f"want_{path.split('_')[0]}",
            path=f"targets.{path}",
            label=label,
            default="",
            unit=unit,
            group=WANTED,
            optional=True,
            blank_said="judged",
            about=about,
            ranged=True,
            spoken=_falls_spoken() if path == "fall_ft_s" else {},
        )
        for path, label, unit, about in (
            ("depth_ft", "Depth", "ft", "Where it is to work: 4 to 6, or one depth."),
            (
                "fall_ft_s",
                "Fall",
                "ft/s",
                "How fast it is to fall on slack line: 1 to 1.5, slow, quick, as they like.",
            ),
            (
                "passes",
                "Gets through",
                "of 100",
                "Of a hundred casts, how many are to come through.",
            ),
            ("pace_ft_s", "Pace", "ft/s", "How fast it is to come: 1 to 1.8."),
        )
    ),
)
BY_NAME = {c.name: c for c in CONTROLS}
#: "call": the family is called for the water.
CALLED = "call"
#: The control that also takes a range, or none; the bottom, and the depths that come up with it while they
#: are assumed.
FISH, BOTTOM = "fish_depth_ft", "bottom_depth_ft"
#: Words that may be typed for fish on the bottom.
ON_BOTTOM = ("bottom", "on bottom", "on the bottom", "the bottom")
FOLLOWING = (FISH, "top_depth_ft")
#: The state's list of controls that were answered.
GIVEN = "given"
#: What the call cannot do without: the four answers.
ANSWERS = ("water_temp_f", "bottom_depth_ft", "fish_depth_ft", "cover")
#: State that is no part of a scenario: what is looked at, how the lure is worked, what went wrong.
VIEW = {
    **{
        "view": FIRST,
        "way": "",
        "lift_in": "",
        "hold_s": "",
        "compare": "",
        "lens": "fit",
        "wrong": "",
        "missed_ft": "",
        "scenario": "",
        "tried": "",
    },
    **{"count_s": "", "pace_ft_s": "", "turns": "", "seen": ""},
}
SCHOOL = "s_"
#: The bottom as driven, in the address as ``0:9 40:14`` (distance from the angler and depth, ft).
DRIVEN = "driven"
DEFAULTS = {c.name: c.default for c in CONTROLS} | {"family": CALLED, "pick": "", DRIVEN: ""} | VIEW
#: The fields whose plain numbers are in the units said: control and unit.
MEASURED = {c.name: c.unit for c in CONTROLS if turn_of(c.unit)} | {"lift_in": "in"}
#: Longest text of a control, and of a rig's name.
LONGEST, LONGEST_PICK, LONGEST_TRIED, LONGEST_DRIVEN = 60, 200, 6000, 700


def values_from(query: Mapping[str, str]) -> dict[str, str]:
    """The controls' texts: what the address says, defaults for the rest."""

    def cut(name: str, text: str) -> str:
        longest = {"pick": LONGEST_PICK, "compare": 2 * LONGEST_PICK, "tried": LONGEST_TRIED}
        longest[DRIVEN] = LONGEST_DRIVEN
        return str(text).strip()[: longest.get(name, LONGEST)]

    values = {name: cut(name, query.get(name, default)) for name, default in DEFAULTS.items()}
    if query.get("units") == METRIC:
        values |= {name: _turned(values[name], unit) for name, unit in MEASURED.items() if name in query}
    if values["want_fall"].lower() == AS_THEY_LIKE:
        values["want_fall"] = ""
    values["compare"] = _compared(query, values["compare"])
    schools = {k: cut(k, v) for k, v in query.items() if k.startswith(SCHOOL) and len(k) < 40 and v}
    said = set(query[GIVEN].split()) if GIVEN in query else set(query)
    unsaid = [name for name in FOLLOWING if name not in said and values[name] == DEFAULTS[name]]
    values |= {name: assumed(name, values) for name in unsaid}
    return values | schools | {GIVEN: " ".join(_given(said, values))}


def _compared(query: Mapping[str, str], cookie: str) -> str:
    """What is compared: as it was, with the rig, line or lure that was touched put in or taken off; older
    addresses name them apart."""
    keys = [k for k in (*cookie.split(","), query.get("vs1", ""), query.get("vs2", "")) if k]
    touched = query.get("touched", "").strip()[:LONGEST_PICK]
    if touched:
        keys = [k for k in keys if k != touched] if touched in keys else [*keys, touched]
    return ",".join(dict.fromkeys(keys[-MOST_COMPARED:]))


def assumed(name: str, values: Mapping[str, str]) -> str:
    """A control's text while nobody has answered it: a depth comes up with the bottom that was said."""
    usual = DEFAULTS.get(name, "")
    bottom = _number(values[BOTTOM], "ft")
    if name not in FOLLOWING or not isinstance(bottom, float):
        return usual
    return usual if bottom <= 0.0 else _text(min(float(usual), bottom))


def _given(said: set[str], values: Mapping[str, str]) -> list[str]:
    """The controls that were answered: those that differ from what is assumed, and those ``said`` to be as
    they are (in a form by ``given``, in an address by standing there)."""
    return [c.name for c in CONTROLS if c.name in said or values[c.name] != assumed(c.name, values)]


def given_in(values: Mapping[str, str]) -> frozenset[str]:
    """The controls that the angler has answered; the rest is assumed. A target without a figure is judged,
    and nobody's answer."""
    unset = {c.name for c in CONTROLS if c.group == WANTED and not values.get(c.name)}
    return frozenset(values.get(GIVEN, "").split()) - unset


def _depth_text(at: Any) -> str:
    """A saved fish depth as its field holds it: a number, ``4 to 10``, ``?``."""
    if isinstance(at, Mapping):
        return f"{at['low']:g} to {at['high']:g}"
    return "?" if at is None else _text(at)


def _turned(text: str, unit: str) -> str:
    """A field's plain number typed in metric units, as the address holds it; anything else as it is."""
    try:
        return _text(meant(text, unit, METRIC)) if text and not parts_of(text)[1] else text
    except ValueError:
        pass
    try:
        span = span_of(text, lambda one: meant(one, unit, METRIC))
    except ValueError:
        return text
    return f"{span[0]:g} to {span[1]:g}" if span else text


def schools_in(values: Mapping[str, str]) -> dict[str, str]:
    """The chosen schools by topic."""
    return {k.removeprefix(SCHOOL): v for k, v in values.items() if k.startswith(SCHOOL) and v}


def number_or_none(name: str, text: str, low: float, high: float, unit: str) -> float | None:
    """A typed number of the view's own state; None when empty. Raises BadInput."""
    if not text:
        return None
    value = _number(text, unit)
    if not isinstance(value, float) or not low <= value <= high:
        raise BadInput(name, text, f"from {low:g} to {high:g} {unit}")
    return value


@lru_cache(maxsize=2048)
def _number(text: str, unit: str) -> Any:
    """A typed text as JSON would have it: a number in the field's unit when it is one, a null when empty
    (remembered: every link of a page reads the same texts)."""
    if not text:
        return None
    try:
        return read(text, unit)
    except ValueError:
        return text


def _depth(text: str) -> Any:
    """A fish depth as JSON has it: a number, the ends of a range, a null for not known; the text itself
    when it is none of them."""
    try:
        span = span_of(text)
    except ValueError:
        return text
    return {"low": span[0], "high": span[1]} if span else None


def _value(control: Control, text: str) -> Any:
    """A control's text as JSON has it; an emptied number is the empty text, which is refused by its name."""
    if control.flag:
        return text == "yes"
    if control.ranged:
        return _wanted(control, text)
    if control.options and not control.blank:
        return text
    if text.lower() in control.spoken:
        return control.spoken[text.lower()]
    value = _number(text, unit_of(control.path) or control.unit)
    return "" if value is None and not control.options else value


#: How far about a single depth (ft) and a single rate (share) a target reaches.
ABOUT_FT, ABOUT_RATE = 1.0, 0.1


def _wanted(control: Control, text: str) -> Any:
    """A target as JSON has it: the ends of a range, or about one figure; the text itself when it is
    neither."""
    unit = "" if control.unit == "of 100" else control.unit
    if text.lower() in control.spoken:
        return control.spoken[text.lower()]
    try:
        one = read(text, unit)
    except ValueError:
        try:
            return span_of(text, lambda part: read(part, unit))
        except ValueError:
            return text
    if not unit:
        return one / 100.0
    off = ABOUT_FT if unit == "ft" else ABOUT_RATE * one
    return (max(0.0, one - off), one + off)


def _wanted_text(at: Any) -> str:
    """A saved target as its field holds it: ``4 to 6``, ``90``."""
    if at is None:
        return ""
    return f"{at[0]:g} to {at[1]:g}" if isinstance(at, list | tuple) else f"{100.0 * at:g}"


def body_from(values: Mapping[str, str]) -> dict[str, Any]:
    """The size request that the controls' texts mean."""
    body: dict[str, Any] = {"schools": schools_in(values)}
    if values["family"] != CALLED:
        body["families"] = [values["family"]]
    for control in CONTROLS:
        text = values[control.name]
        if not control.shown(values) or (control.name in OPTIONAL_PARTS and not text):
            continue
        if (control.optional or control.flag) and not text:
            continue
        value = _value(control, text)
        if control.name == FISH and isinstance(value, str):
            value = _number(values[BOTTOM], "ft") if value.lower() in ON_BOTTOM else _depth(value)
        *parents, leaf = control.path.split(".")
        place = body
        for parent in parents:
            place = place.setdefault(parent, {})
        place[leaf] = value
    if values.get(DRIVEN):
        body["conditions"]["bottom_ft"] = profile_in(values[DRIVEN])
    return body


def profile_in(text: str) -> Any:
    """A driven bottom in its text; the text itself when it is none, for the refusal."""
    try:
        return [[float(v) for v in pair.split(":", 1)] for pair in text.split()]
    except ValueError:
        return text


def profile_text(profile: Iterable[Iterable[float]]) -> str:
    """A driven bottom as its text."""
    return " ".join(":".join(f"{v:g}" for v in pair) for pair in profile)


def values_of(body: Mapping[str, Any], pick: str = "") -> dict[str, str]:
    """The controls' texts for a saved scenario's body; what it leaves out is as the core assumes it."""
    values = dict(DEFAULTS)
    core = {
        row.path: row.quantity.start if row.quantity.blank else row.default
        for row in ROWS
        if not row.required
    }
    for control in CONTROLS:
        at = value_at(body, control.path)
        if at is None and control.name != FISH:
            at = core.get(control.path)
        if control.flag:
            values[control.name] = "yes" if at else ""
            continue
        if control.ranged:
            values[control.name] = _wanted_text(at)
            continue
        if (at is None and not control.blank and control.name != FISH) or not control.shown(values):
            continue
        values[control.name] = _depth_text(at) if control.name == FISH else _text(at)
    values[DRIVEN] = profile_text(value_at(body, "conditions.bottom_ft") or ())
    families = body.get("families") or [DEFAULTS["family"]]
    schools = {SCHOOL + topic: str(school) for topic, school in (body.get("schools") or {}).items()}
    given = [c.name for c in CONTROLS if c.name in ANSWERS or values[c.name] != c.default]
    return values | schools | {"family": str(families[0]), "pick": pick, GIVEN: " ".join(given)}


def control_at(path: str, values: Mapping[str, str]) -> Control | None:
    """The control that a place in a request belongs to, when one of those shown does."""
    matching = (c for c in CONTROLS if c.shown(values) and (path == c.path or path.startswith(f"{c.path}.")))
    return next(matching, None)


def control_for(refusal: BadInput, values: Mapping[str, str]) -> str:
    """The control that a refusal belongs beside; the lure when it names none."""
    control = control_at(refusal.field, values)
    if control is not None:
        return control.name
    return refusal.field if refusal.field in VIEW else "family"
