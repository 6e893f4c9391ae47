"""Paired phones: named by what they are, seen, sent off."""

from __future__ import annotations

from datetime import timedelta

import pytest

from heathdrop.store import devices
from heathdrop.store.database import Database
from heathdrop.store.models import now


def test_phones_are_named_by_what_they_are(database: Database) -> None:
    for name, agent, called in (
        ("  My\tphone \x00", "", "Myphone"),
        ("", "Mozilla (iPhone; …)", "iPhone"),
        ("", "Mozilla (Linux; Android 14) Mobile", "Android phone"),
        ("", "Mozilla (Something Mobile)", "phone"),
        ("", "Mozilla (iPad)", "iPad"),
        ("", "", "computer"),
        ("z" * 60, "", "z" * 40),
    ):
        uid = devices.pair(database, name, agent)
        with database.session() as session:
            row = devices.listed(session)[-1]
            assert (row.uid, row.name) == (uid, called)
    assert devices.seen(database, uid)
    assert not devices.seen(database, "nobody")
    with database.session() as session:
        row = devices.listed(session)[-1]
        assert devices.send_off(session, row.id) is not None
        assert devices.send_off(session, 99) is None
    assert not devices.seen(database, uid)


@pytest.mark.parametrize(
    ("minutes", "said"),
    [
        (0, "just now"),
        (1.9, "just now"),
        (2.1, "2 minutes ago"),
        (119, "119 minutes ago"),
        (121, "2 hours ago"),
        (2879, "47 hours ago"),
        (2881, "2 days ago"),
    ],
)
def test_how_long_ago(minutes: float, said: str) -> None:
    assert devices.ago(now() - timedelta(minutes=minutes)) == said
