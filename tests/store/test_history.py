"""What was taken away or brought in, for a month: each once, nothing over what was changed since."""

from datetime import timedelta
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCast
from heathdrop.day.made import take_day_back
from heathdrop.store import casts, history, items, scenarios, settings
from heathdrop.store.files import exchange
from heathdrop.store.models import now
from tests.store.conftest import UID
from tests.store.test_casts import made
from tests.web.shown import token


def test_what_is_put_away_stands_there_until_it_is_back(whole: Session) -> None:
    assert history.entries(whole) == []
    saved = scenarios.listed(whole)[0]
    scenarios.delete(whole, saved.id)
    casts.withdraw(whole, str(made(1)["id"]))
    found = history.entries(whole)
    assert sorted(e.said.partition(" of ")[0] for e in found) == ["cast", "saved water “Bay”"]
    mine = next(e for e in found if "Bay" in e.said and e.said.startswith("saved"))
    done = history.undo(whole, mine.id)
    assert done is not None
    assert (done.rows, done.changed) == (1, 0)
    assert history.undo(whole, mine.id) is None
    assert [s.name for s in scenarios.listed(whole)] == ["Bay", "Cove"]


def test_a_second_tap_leaves_the_way_back(whole: Session) -> None:
    on = str(made(1)["time"])[:10]
    assert take_day_back(whole, on).casts == 1
    assert take_day_back(whole, on).casts == 0
    (entry,) = history.entries(whole)
    assert (entry.kind, entry.said, entry.rows) == ("away", f"1 cast of {on}", 1)
    assert history.undo(whole, entry.id) is not None
    assert len(casts.of_days(whole, on, on)) == 1


def test_an_import_goes_but_for_what_was_changed_since(whole: Session, database, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    other = exchange.unpacked(exchange.packed(whole))
    history.put_all_away(whole)
    came = exchange.keep(whole, other)
    assert sum(map(len, came.values())) == 10
    cast = casts.listed(whole)[0]
    casts.mend(whole, cast.model_copy(update={"note": "mended"}))
    items.listed(whole)[0].body = {"family": "toad", "weight_oz": 0.5}
    entry = history.latest(whole, "import")
    assert entry is not None
    done = history.undo(whole, entry.id)
    assert done is not None
    assert (done.rows, done.changed) == (8, 2)
    assert [c.note for c in casts.listed(whole)] == ["mended"]
    assert len(items.listed(whole)) == 1


def test_after_a_month_it_is_gone_from_the_list(whole: Session, monkeypatch: pytest.MonkeyPatch) -> None:
    scenarios.delete(whole, scenarios.listed(whole)[0].id)
    take_day_back(whole, str(made(1)["time"])[:10])
    assert len(history.entries(whole)) == 2
    monkeypatch.setattr(history, "now", lambda: now() + timedelta(days=32))
    assert history.entries(whole) == []
    settings.keep(whole, history.HISTORY, "no list at all")
    assert history.entries(whole) == []


def test_the_page_brings_back_and_begins_afresh(client: TestClient) -> None:
    key = {"token": token(client)}
    cast = MadeCast.model_validate(made(7)).model_dump(mode="json", exclude_none=True)
    assert client.post("/api/v1/casts", json=cast).status_code == 200
    assert client.delete(f"/api/v1/casts/{cast['id']}").status_code == 200
    page = client.get("/data").text
    assert "Deleted: cast of" in page
    assert "is sound" in page
    back = client.post("/data/back", data=key | {"id": f"cast_made-{cast['id']}"})
    assert "1 row back." in back.text
    assert client.post("/data/back", data=key | {"id": UID.format(9)}).status_code == 404
    assert client.post("/data/afresh", data=key).status_code == 422
    assert "rows put away" in client.post("/data/afresh", data=key | {"sure": "yes"}).text
    assert client.get("/api/v1/lessons").json()["casts"] == 0
    assert "everything, " in client.get("/data").text
