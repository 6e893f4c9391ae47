"""Settings in a file: in where none is set, over nothing, and back again."""

from __future__ import annotations

from sqlalchemy.orm import Session

from heathdrop.store import drills, fish, settings
from heathdrop.store.files import exchange
from heathdrop.store.files.settings_in import keep, not_set_yet, take_back

FILE = {
    "schools": {"weight-lean": "lighter", "cold-water-weight": "heavy-dragged"},
    "measures": "metric",
    "hand": True,
    fish.FISH: {"head weight": {"value": 1.1, "casts": 90}},
}


def test_what_is_set_stays_and_the_rest_comes_in(session: Session) -> None:
    settings.keep(session, settings.SCHOOLS, {"weight-lean": "heavier"})
    settings.keep(session, settings.MEASURES, "imperial")
    new = not_set_yet(session, [FILE])
    assert new == [
        {"schools": {"cold-water-weight": "heavy-dragged"}, fish.FISH: FILE[fish.FISH], "hand": True}
    ]
    came = keep(session, [FILE])
    assert came == ["schools.cold-water-weight", "fish.head weight", "hand"]
    assert settings.schools(session) == {"weight-lean": "heavier", "cold-water-weight": "heavy-dragged"}
    assert settings.measures(session) == "imperial"
    assert drills.in_use(session)
    assert not_set_yet(session, [FILE]) == keep(session, [FILE]) == []
    assert take_back(session, came) == 3
    assert settings.schools(session) == {"weight-lean": "heavier"}
    assert fish.shifts(session) == {}
    assert settings.read(session, drills.HAND_IN_USE) is None


def test_an_import_of_settings_is_said_and_can_be_taken_back(session: Session) -> None:
    """Counted before it is brought in, nothing where all is set, gone after the undo."""
    parcel = exchange.Parcel({"settings.json": [FILE]})
    assert exchange.sifted(session, parcel).said() == "settings"
    assert len(exchange.keep(session, parcel)["settings.json"]) == 5
    assert settings.measures(session) == "metric"
    assert exchange.sifted(session, parcel).said() == "nothing new"
    assert not any(exchange.keep(session, parcel).values())  # brought in twice, taken back once
    assert exchange.undo(session) == 5
    assert (settings.measures(session), settings.schools(session)) == ("imperial", {})
    assert exchange.undo(session) == 0
