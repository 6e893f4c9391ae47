"""The angler's own: what was learned and what is in the box, read once for each change of the data file."""

import json
import time
from dataclasses import replace
from functools import lru_cache

from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.contacts import contacts_of
from heathdrop.answers.own import Own
from heathdrop.learning.learned import Learned, learn
from heathdrop.logs import logger
from heathdrop.sizing.box import EMPTY, OwnedHead, OwnedTrailer, Tackle, tackle_of
from heathdrop.sizing.knowledge import Handle, OwnFish
from heathdrop.store import casts, drills, fish, items, observations, settings
from heathdrop.store.versions import upgraded

LOG = logger("learning")
#: What one observation row says: kind, version, body as JSON.
Row = tuple[str, int, str]


@lru_cache(maxsize=8)
def _learned(
    rows: tuple[Row, ...],
    made: tuple[casts.Text, ...],
    counted: float | None,
    turned: Handle | None,
    fish_: OwnFish,
) -> Learned:
    catalog, begun = catalogue.load(), time.perf_counter()
    bodies = [
        (kind, upgraded("observation", kind, version, json.loads(body))) for kind, version, body in rows
    ]
    seen = [observations.KINDS[kind].model_validate(body).seen(catalog) for kind, body in bodies]
    touched = contacts_of(casts.read(made))
    learned = replace(learn(catalog, [*seen, *touched], counted), turned=turned, fish=fish_)
    LOG.info(
        "learned from %d observations and %d contacts in %.2f s",
        len(rows),
        len(touched),
        time.perf_counter() - begun,
    )
    return learned


def learned_of(session: Session) -> Learned:
    """What the observations in force and the contacts on record teach (remembered until one changes)."""
    hand, handle = drills.hand_used(session), drills.hand_used(session, "pace")
    counted = None if hand is None else round(hand.error, 4)
    turned = None if handle is None else handle.turning
    return _learned(
        tuple((o.kind, o.version, json.dumps(o.body, sort_keys=True)) for o in observations.listed(session)),
        casts.contacts(session),
        counted,
        turned,
        fish.fish_of(session),
    )


def trailer_of(body: items.TrailerItem) -> OwnedTrailer:
    """A kept trailer as sizing takes it; a creature left unsplit has a shape of its own."""
    catalog = catalogue.load()
    whole = f"{body.shape}-fused"
    shape = whole if not body.split and whole in catalog.trailers else body.shape
    fused = not body.split and shape == body.shape
    return OwnedTrailer(
        shape=shape,
        length_in=body.length_in,
        mass_g=body.mass_g,
        width_in=body.width_in,
        plastic=body.plastic,
        softness=body.softness,
        fused=fused,
    )


@lru_cache(maxsize=8)
def _tackle(pieces: tuple[items.Kept, ...]) -> Tackle:
    heads: list[OwnedHead] = []
    trailers: list[OwnedTrailer] = []
    for body in (piece.body for piece in pieces):
        if isinstance(body, items.HeadItem):
            heads.append(OwnedHead(body.family, body.weight_oz, body.material, body.mass_g, body.skirt))
        elif isinstance(body, items.TrailerItem):
            trailers.append(trailer_of(body))
    return tackle_of(heads, trailers) if heads or trailers else EMPTY


def own_of(session: Session) -> Own:
    """The angler's own, as the data file has it now."""
    owned = tuple(
        i for i in items.light_items(session) if i.kind in ("head", "trailer") and i.body.quantity > 0
    )
    held = settings.schools(session)
    topics = catalogue.load().topics
    schools = tuple(sorted((t, s) for t, s in held.items() if t in topics and s in topics[t].schools))
    spoken = tuple(sorted((t, one.ratio) for t, one in fish.spoken(session).items()))
    return Own(learned_of(session), _tackle(owned), schools, spoken)
