"""The angler's own: what was learned and what is in the box, read once for each change of the data file."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import lru_cache

from heathdrop import catalog as catalogue
from heathdrop.learning.learned import Learned, learn
from heathdrop.sizing.box import EMPTY, OwnedHead, OwnedTrailer, Tackle, tackle_of
from heathdrop.store import items, observations, settings
from heathdrop.store.database import Database


@dataclass(frozen=True)
class Mine:
    """What sizing needs of the angler's own: lessons, box, and the schools held to (topic, school)."""

    learned: Learned
    tackle: Tackle
    schools: tuple[tuple[str, str], ...] = ()


@lru_cache(maxsize=8)
def _learned(rows: tuple[tuple[str, str], ...]) -> Learned:
    catalog = catalogue.load()
    return learn(catalog, [observations.KINDS[kind].model_validate_json(data).seen(catalog) for kind, data in rows])


@lru_cache(maxsize=8)
def _tackle(pieces: tuple[items.Kept, ...]) -> Tackle:
    heads: list[OwnedHead] = []
    trailers: list[OwnedTrailer] = []
    for body in (piece.body for piece in pieces):
        if isinstance(body, items.HeadItem):
            heads.append(OwnedHead(body.family, body.weight_oz, body.material, body.mass_g, body.skirt))
        elif isinstance(body, items.TrailerItem):
            shape = "creature-fused" if body.shape == "creature" and not body.split else body.shape
            fused = not body.split and shape == body.shape
            trailers.append(OwnedTrailer(shape, body.length_in, body.mass_g, body.width_in, body.plastic, body.softness, fused))
    return tackle_of(heads, trailers) if heads or trailers else EMPTY


def mine_of(database: Database) -> Mine:
    """The angler's own, as the data file has it now."""
    with database.session() as session:
        seen = tuple((o.kind, json.dumps(o.data, sort_keys=True)) for o in observations.listed(session))
        owned = tuple(i for i in items.kept(session) if i.kind in ("head", "trailer") and i.body.quantity > 0)
        kept: dict[str, str] = settings.read(session, settings.SCHOOLS, {})
    topics = catalogue.load().topics
    schools = tuple(sorted((t, s) for t, s in kept.items() if t in topics and s in topics[t].schools))
    return Mine(_learned(seen), _tackle(owned), schools)
