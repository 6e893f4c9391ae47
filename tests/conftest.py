"""A running app on made-up data, and one browser for the whole session."""

import os
import shutil
import socket
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
import uvicorn
from fastapi.testclient import TestClient
from selenium import webdriver
from selenium.webdriver.chrome.service import Service
from sqlalchemy.orm import Session

from heathdrop import catalog
from heathdrop.sizing.warmth import warm_up
from heathdrop.store import database as data_file
from heathdrop.web.app import create_app

FLAGS = (
    "--headless=new --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync --hide-scrollbars"
)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """What takes half a minute begins first, so that no worker waits for another's last test."""
    items.sort(key=lambda item: item.get_closest_marker("long") is None)


@pytest.fixture(scope="session", autouse=True)
def _new_files_are_copies(tmp_path_factory: pytest.TempPathFactory) -> Iterator[None]:
    """A new data file is a copy of one that the migrations made once: they have their own tests."""
    made, whole = tmp_path_factory.mktemp("new") / "new.sqlite", data_file.migrate
    whole(made)

    def migrate(path: Path, to: str = "head") -> None:
        if to == "head" and not path.exists() and os.access(path.parent, os.W_OK):
            shutil.copyfile(made, path)
        whole(path, to)

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(data_file, "migrate", migrate)
        yield


@pytest.fixture(scope="session")
def cat() -> catalog.Catalog:
    return catalog.load()


@pytest.fixture
def database(tmp_path: Path) -> Iterator[data_file.Database]:
    """An empty data file."""
    empty = data_file.Database(tmp_path / "d.sqlite")
    yield empty
    empty.close()


@pytest.fixture
def session(database: data_file.Database) -> Iterator[Session]:
    with database.session() as session:
        yield session


@pytest.fixture(scope="session")
def ashmoor_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data file with the demo's rows in it, made once and copied for each test."""
    path = tmp_path_factory.mktemp("ashmoor") / "water.sqlite"
    create_app(path, demo=True).state.database.close()
    return path


@pytest.fixture
def client(tmp_path: Path, ashmoor_file: Path) -> Iterator[TestClient]:
    app = create_app(Path(shutil.copy(ashmoor_file, tmp_path)), demo=True)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client
    app.state.database.close()


@pytest.fixture(scope="module")
def visitor(tmp_path_factory: pytest.TempPathFactory, ashmoor_file: Path) -> Iterator[TestClient]:
    """The demo for tests that change nothing: one for all of a file."""
    app = create_app(Path(shutil.copy(ashmoor_file, tmp_path_factory.mktemp("visited"))), demo=True)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client
    app.state.database.close()


@pytest.fixture(scope="session")
def season_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A data file with the demo's rows and season in it, made once and copied for each test."""
    warm_up()
    path = tmp_path_factory.mktemp("season") / "water.sqlite"
    create_app(path, demo=True, season=True).state.database.close()
    return path


@pytest.fixture
def site(tmp_path: Path, season_file: Path, browser: webdriver.Chrome) -> Iterator[str]:
    """The address of the demo app, served as in real life, with nothing in it of the test before."""
    app = create_app(Path(shutil.copy(season_file, tmp_path / "site.sqlite")), demo=True, season=True)
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    server = uvicorn.Server(uvicorn.Config(app, port=port, log_level="warning"))
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.02)
    yield f"http://127.0.0.1:{port}"
    browser.get("about:blank")
    server.should_exit = True
    thread.join(10)
    app.state.database.close()


@pytest.fixture(scope="session")
def browser(tmp_path_factory: pytest.TempPathFactory) -> Iterator[webdriver.Chrome]:
    os.environ["SE_OFFLINE"] = "true"
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in FLAGS.split():
        options.add_argument(flag)
    options.add_argument(f"--user-data-dir={tmp_path_factory.mktemp('profile')}")
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    yield driver
    driver.quit()
