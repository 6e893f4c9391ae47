"""The catalogue: every number of the product, with its origin and spread.

Data lives in the TOML files in ``data``; :func:`load` reads them once into frozen, checked records.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache
from importlib import resources
from pathlib import Path
from typing import Any, TypeVar

from pydantic import TypeAdapter, ValidationError

from heathdrop.catalog.cover_records import CoverNumbers
from heathdrop.catalog.judgement_records import (
    ActivityTarget,
    Fitted,
    Judgement,
    Leans,
    Mood,
    TackleRows,
    Usual,
)
from heathdrop.catalog.records import (
    Blades,
    Cold,
    Family,
    FlightNumbers,
    Fused,
    HeadShape,
    LineSpec,
    Material,
    Model,
    Orientation,
    Plastic,
    Provenance,
    Skirt,
    Softness,
    Trailer,
    Words,
    meant_by,
)
from heathdrop.catalog.rule_records import Cadence, ChangeOrder, Effect, Rule, School, SpokenChange, Topic
from heathdrop.catalog.search_records import SearchNumbers
from heathdrop.catalog.vocabulary import (
    ANY,
    CHANGES,
    LEANS,
    PARTS,
    SLOTS,
    WORKS,
    BadCatalog,
    check_known,
    clauses,
)
from heathdrop.conditions.cover import KINDS
from heathdrop.conditions.facts import OF_GEAR, PRESENTATIONS, When
from heathdrop.conditions.outcome import OUTCOME, WENT
from heathdrop.conditions.scenario import BY_FIELD
from heathdrop.errors import BadInput

__all__ = [
    "Blades",
    "Catalog",
    "Effect",
    "Family",
    "HeadShape",
    "Material",
    "Orientation",
    "Plastic",
    "Rule",
    "School",
    "Skirt",
    "Softness",
    "SpokenChange",
    "Topic",
    "Trailer",
    "load",
    "meant_by",
]


R = TypeVar("R")
FILES = (
    "model",
    "materials",
    "heads",
    "skirts",
    "families",
    "trailers",
    "plastics",
    "lines",
    "activity",
    "cover",
    "judgement",
    "rules",
    "schools",
    "outlines",
    "usual",
    "cadences",
    "flight",
    "leans",
    "tackle",
    "fitted",
    "search",
    "changes",
    "words",
)


@dataclass(frozen=True)
class Catalog:
    """Everything the core knows before it is told about today's water."""

    materials: dict[str, Material]
    heads: dict[str, HeadShape]
    skirts: dict[str, Skirt]
    families: dict[str, Family]
    blades: dict[str, Blades]
    trailers: dict[str, Trailer]
    softness: dict[str, Softness]
    orientation: dict[str, Orientation]
    plastic: dict[str, Plastic]
    cold: Cold
    fused: Fused
    lines: dict[str, LineSpec]
    model: Model
    flight: FlightNumbers
    mood: Mood
    targets: tuple[ActivityTarget, ...]
    cover: CoverNumbers
    judgement: Judgement
    rules: dict[str, Rule]
    topics: dict[str, Topic]
    blade_outlines: dict[str, str]
    usual: dict[str, Usual]
    fitted: Fitted
    leans: Leans
    cadences: dict[str, Cadence]
    tackle: TackleRows
    search: SearchNumbers
    orders: tuple[ChangeOrder, ...]
    says: dict[str, SpokenChange]
    shapes: dict[str, str]
    words: Words
    provenance: dict[str, dict[str, Provenance]]

    def pick(self, rows: Mapping[str, R], field: str, id_: str) -> R:
        """The record ``id_`` of one of the tables; BadInput names ``field`` and the choices."""
        if id_ not in rows:
            raise BadInput(field, id_, "one of " + ", ".join(rows))
        return rows[id_]

    def spread(self, table: str, column: str) -> float:
        """One sigma (log) of a column."""
        return self.provenance[table][column].spread


@cache
def _adapter(kind: Any) -> TypeAdapter[Any]:
    return TypeAdapter(kind)


def _checked(kind: Any, file: str, key: str, row: Any) -> Any:
    """A row as its record. Raises BadCatalog naming the file and the key."""
    try:
        return _adapter(kind).validate_python(row)
    except ValidationError as error:
        first = error.errors()[0]
        at = ".".join([key, *map(str, first["loc"])])
        reasons = {"unexpected_keyword_argument": "there is no such column", "missing": "it is missing"}
        raise BadCatalog(file, at, reasons.get(first["type"], first["msg"].lower())) from error


def _table(kind: type[R], file: str, key: str, rows: Mapping[str, Any]) -> dict[str, R]:
    return {id_: _checked(kind, file, f"{key}.{id_}", {"id": id_, **row}) for id_, row in rows.items()}


def _rules(files: Mapping[str, Any], ids: Mapping[str, Any]) -> dict[str, Rule]:
    rules = {}
    for id_, row in files["rules"]["rules"].items():
        key = f"rules.{id_}"
        when = clauses("rules", f"{key}.when", row.get("when", {}), ids)
        rule: Rule = _checked(Rule, "rules", key, {"id": id_, **row, "when": when})
        check_known("rules", f"{key}.favours", rule.favours, ids["families"])
        check_known("rules", f"{key}.trailers", rule.trailers, ids["trailers"])
        check_known("rules", f"{key}.finish", rule.finish, SLOTS)
        _known_dress("rules", key, rule.dress, ids)
        if rule.trailers or rule.dress:
            _whatever_the_gear("rules", f"{key}.when", rule.when)
        rules[id_] = rule
    return rules


def _whatever_the_gear(file: str, key: str, when: When) -> None:
    """Trailers, dress and schools are settled once for all gear at a water. Raises BadCatalog for a clause
    on the gear."""
    for clause in when:
        if clause.fact in OF_GEAR:
            raise BadCatalog(file, f"{key}.{clause.fact}", "what it settles may not hang on the gear")


def _cadences(files: Mapping[str, Any], ids: Mapping[str, Any]) -> dict[str, Cadence]:
    cadences = {}
    for id_, row in files["cadences"]["cadences"].items():
        key = f"cadences.{id_}"
        when = clauses("cadences", f"{key}.when", row.get("when", {}), ids)
        cadences[id_] = _checked(Cadence, "cadences", key, {"id": id_, **row, "when": when})
    check_known("cadences", "cadences", cadences, PRESENTATIONS)
    return cadences


def _orders(files: Mapping[str, Any], ids: Mapping[str, Any]) -> tuple[ChangeOrder, ...]:
    orders = []
    for k, row in enumerate(files["changes"]["orders"]):
        key = f"orders[{k}]"
        when = clauses("changes", f"{key}.when", row.get("when", {}), ids)
        order: ChangeOrder = _checked(ChangeOrder, "changes", key, {**row, "when": when})
        check_known("changes", f"{key}.went", order.went, WENT)
        check_known("changes", f"{key}.changes", order.changes, CHANGES)
        orders.append(order)
    said = [id_.partition("@") for id_ in files["changes"]["says"]]
    check_known("changes", "says", [change for change, _, _ in said], CHANGES)
    check_known("changes", "says", [went for _, at, went in said if at], WENT)
    shapes = files["changes"]["shapes"]
    check_known("changes", "shapes", shapes.values(), ids["trailers"])
    check_known("changes", "shapes", shapes, [*WENT, "else"])
    return tuple(orders)


def _with_points(rules: dict[str, Rule], fitted: Fitted, ids: Mapping[str, Any]) -> dict[str, Rule]:
    """The rules with what fitting to worked waters added to their points."""
    check_known("fitted", "points", fitted.points, rules)
    weighted = dict(rules)
    for id_, more in fitted.points.items():
        check_known("fitted", f"points.{id_}", more, ids["families"])
        favours = {**rules[id_].favours}
        for family, points in more.items():
            favours[family] = round(favours.get(family, 0.0) + points, 4)
        weighted[id_] = replace(rules[id_], favours=favours)
    return weighted


def _together(leans: Leans, fitted: Fitted) -> Leans:
    """The leans as practice has them with what fitting added."""

    def added(a: Mapping[str, float], b: Mapping[str, float]) -> dict[str, float]:
        return {k: a.get(k, 0.0) + b.get(k, 0.0) for k in (*a, *b)}

    works = {*leans.leans, *fitted.leans, *leans.heads, *fitted.heads}
    return Leans(
        {
            w: {
                n: added(leans.leans.get(w, {}).get(n, {}), fitted.leans.get(w, {}).get(n, {}))
                for n in (*leans.leans.get(w, {}), *fitted.leans.get(w, {}))
            }
            for w in works
        },
        {w: added(leans.heads.get(w, {}), fitted.heads.get(w, {})) for w in works},
    )


def _search(file: Mapping[str, Any], ids: Mapping[str, Any]) -> SearchNumbers:
    """The search's numbers, each starting row's clauses checked like a rule's."""
    rows = [
        {**row, "when": clauses("search", f"start[{k}].when", row.get("when", {}), ids)}
        for k, row in enumerate(file["start"])
    ]
    plain = {k: v for k, v in file.items() if k != "provenance"}
    numbers: SearchNumbers = _checked(SearchNumbers, "search", "search", {**plain, "start": rows})
    return numbers


def _topics(files: Mapping[str, Any], ids: Mapping[str, Any]) -> dict[str, Topic]:
    topics = {}
    for id_, row in files["schools"]["topics"].items():
        key = f"topics.{id_}"
        applies = clauses("schools", f"{key}.applies", row.get("applies", {}), ids)
        schools = _table(School, "schools", f"{key}.schools", row.get("schools", {}))
        _whatever_the_gear("schools", f"{key}.applies", applies)
        topic: Topic = _checked(Topic, "schools", key, {"id": id_, **row, "applies": applies, "schools": {}})
        topic = replace(topic, schools=schools)
        check_known("schools", f"{key}.default", [topic.default], schools)
        for school in schools.values():
            _known_effect(f"{key}.schools.{school.id}.effect", school.effect, ids)
        topics[id_] = topic
    return topics


#: Where the words of a dress are looked up.
DRESSES = {
    "orientation": "orientation",
    "skirt": "skirts",
    "plastic": "plastic",
    "blades": "blades",
    "head_material": "materials",
}


def _known_dress(file: str, key: str, dress: Mapping[Any, str], ids: Mapping[str, Any]) -> None:
    for part, word in dress.items():
        check_known(file, f"{key}.dress.{part}", [word], ids[DRESSES[part]])


def _known_effect(key: str, effect: Effect, ids: Mapping[str, Any]) -> None:
    families = (*ids["families"], ANY)
    for name in ("ladder", "heads", "trailers", "below", "favours"):
        check_known("schools", f"{key}.{name}", getattr(effect, name), families)
    for family, tails in (*effect.trailers.items(), *effect.below.items()):
        check_known("schools", f"{key}.trailers.{family}", tails, ids["trailers"])
    check_known("schools", f"{key}.finish", effect.finish, SLOTS)
    _known_dress("schools", key, effect.dress, ids)


def _known_ids(c: Catalog) -> None:
    """Ids that one table uses of another, and words that conditions use of the catalogue."""
    for f in c.families.values():
        at = f"families.{f.id}"
        for name, used, table in (
            ("head_shape", [f.head_shape], c.heads),
            ("skirt", [f.skirt], c.skirts),
            ("usual_trailer", [f.usual_trailer], c.trailers),
            ("blades", [f.blades] if f.blades else [], c.blades),
            ("suits", f.suits, c.trailers),
        ):
            check_known("families", f"{at}.{name}", used, table)
    for p in c.plastic.values():
        check_known("plastics", f"plastic.{p.id}.material", [p.material], c.materials)
    check_known("cover", "mats.textures", BY_FIELD["texture"].all_words, c.cover.mats.textures)
    check_known("cover", "grass.stems_per_ft2", BY_FIELD["density"].all_words, c.cover.grass.stems_per_ft2)
    stems = [kind.id for kind in KINDS if kind.does == "stems"]
    check_known("cover", "stems.share", stems, c.cover.stems.share)
    for name, some in (
        ("stems.share", c.cover.stems.share),
        ("stems.open_hook", c.cover.stems.open_hook),
        ("stems.two_tails", c.cover.stems.two_tails),
    ):
        check_known("cover", name, some, stems)
    details = {kind: [w for w, _ in listed] for kind, listed in BY_FIELD["detail"].by}
    for row in KINDS:
        ids = details.get(row.id, [row.id])
        if row.does == "wood":
            check_known("cover", "wood.kinds", ids, c.cover.wood.kinds)
            check_known("cover", "wood.rises", ids, c.cover.wood.rises)
        if row.does == "stone":
            check_known("cover", "rock.kinds", ids, c.cover.rock.kinds)
            check_known("cover", "rock.height_ft", ids, c.cover.rock.height_ft)
    check_known("lines", "lines", BY_FIELD["material"].all_words, c.lines)
    check_known("words", "plastics", c.words.plastics, c.plastic)
    check_known("words", "came", c.words.came, [*OUTCOME, "cast"])
    check_known("usual", "families", c.families, c.usual)
    check_known("tackle", "hook_lb", c.families, c.tackle.hook_lb)
    check_known("tackle", "hook_lb", c.tackle.hook_lb, c.families)
    check_known("tackle", "cover", BY_FIELD["kind"].all_words, c.tackle.cover)
    for kind, rows in c.tackle.cover.items():
        check_known("tackle", f"cover.{kind}", rows, BY_FIELD["density"].all_words)
    check_known("usual", "families", c.usual, c.families)
    check_known("judgement", "fit.weights", c.judgement.fit.weights, PARTS)


def read_catalog(folder: Path) -> Catalog:
    """The catalogue of a folder of data files. Raises BadCatalog for the first fault."""
    files: dict[str, Any] = {
        name: tomllib.loads((folder / f"{name}.toml").read_text("utf-8")) for name in FILES
    }
    provenance = {
        name: {
            c: _checked(Provenance, name, f"provenance.{c}", p) for c, p in data.get("provenance", {}).items()
        }
        for name, data in files.items()
    }
    plastics, families, activity = files["plastics"], files["families"], files["activity"]
    tables: dict[str, Any] = {
        "materials": _table(Material, "materials", "materials", files["materials"]["materials"]),
        "heads": _table(HeadShape, "heads", "shapes", files["heads"]["shapes"]),
        "skirts": _table(Skirt, "skirts", "skirts", files["skirts"]["skirts"]),
        "families": _table(Family, "families", "families", families["families"]),
        "blades": _table(Blades, "families", "blades", families["blades"]),
        "trailers": _table(Trailer, "trailers", "trailers", files["trailers"]["trailers"]),
        "softness": _table(Softness, "plastics", "softness", plastics["softness"]),
        "orientation": _table(Orientation, "plastics", "orientation", plastics["orientation"]),
        "plastic": _table(Plastic, "plastics", "plastic", plastics["plastic"]),
        "lines": _table(LineSpec, "lines", "lines", files["lines"]["lines"]),
    }
    cover = {k: v for k, v in files["cover"].items() if k != "provenance"}
    judgement = {k: v for k, v in files["judgement"].items() if k != "provenance"}
    fitted: Fitted = _checked(
        Fitted, "fitted", "fitted", {k: v for k, v in files["fitted"].items() if k != "provenance"}
    )
    leans: Leans = _checked(
        Leans, "leans", "leans", {k: v for k, v in files["leans"].items() if k != "provenance"}
    )
    for file, rows in (("leans", leans), ("fitted", fitted)):
        check_known(file, "leans", {**rows.leans, **rows.heads}, WORKS)
        check_known(
            file, "leans", [n for some in (rows.leans, rows.heads) for r in some.values() for n in r], LEANS
        )
    check_known("fitted", "usual", [*fitted.usual, *fitted.suits], tables["families"])
    judgement["fit"] = {**judgement["fit"], "weights": {**judgement["fit"]["weights"], **fitted.weights}}
    catalog = Catalog(
        **tables,
        cold=_checked(Cold, "plastics", "cold", plastics["cold"]),
        fused=_checked(Fused, "plastics", "fused", plastics["fused"]),
        model=_checked(Model, "model", "numbers", files["model"]["numbers"]),
        flight=_checked(FlightNumbers, "flight", "numbers", files["flight"]["numbers"]),
        mood=_checked(Mood, "activity", "activity", activity["activity"]),
        targets=tuple(
            _checked(ActivityTarget, "activity", f"targets[{k}]", t)
            for k, t in enumerate(activity["targets"])
        ),
        cover=_checked(CoverNumbers, "cover", "cover", cover),
        judgement=_checked(Judgement, "judgement", "judgement", judgement),
        rules=_with_points(_rules(files, tables), fitted, tables),
        topics=_topics(files, tables),
        blade_outlines=_checked(dict[str, str], "outlines", "blades", files["outlines"]["blades"]),
        usual=_checked(dict[str, Usual], "usual", "families", files["usual"]["families"]),
        fitted=fitted,
        leans=_together(leans, fitted),
        cadences=_cadences(files, tables),
        tackle=_checked(
            TackleRows, "tackle", "tackle", {k: v for k, v in files["tackle"].items() if k != "provenance"}
        ),
        search=_search(files["search"], tables),
        orders=_orders(files, tables),
        says=_table(SpokenChange, "changes", "says", files["changes"]["says"]),
        shapes=_checked(dict[str, str], "changes", "shapes", files["changes"]["shapes"]),
        words=_checked(Words, "words", "words", files["words"]),
        provenance=provenance,
    )
    _known_ids(catalog)
    return catalog


@cache
def load() -> Catalog:
    """The shipped catalogue (read once: the same object each time)."""
    with resources.as_file(resources.files(__name__) / "data") as folder:
        return read_catalog(folder)
