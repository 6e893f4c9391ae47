"""The installed program: JSON alone on stdout, one sentence and 2 for bad input, files there and back."""

import json
from importlib.metadata import version
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from click.testing import Result
from typer.testing import CliRunner

from heathdrop import cli
from tests.test_doors import CASE, SCENARIO


@pytest.fixture(autouse=True)
def _plain(monkeypatch: pytest.MonkeyPatch) -> None:
    for name in ("PORT", "HOST", "DATA", "LOG_LEVEL"):
        monkeypatch.delenv(f"HEATHDROP_{name}", raising=False)


def run(*said: object, given: str | None = None) -> Result:
    return CliRunner().invoke(cli.app, [str(s) for s in said], input=given)


@pytest.mark.parametrize(
    ("command", "body"),
    [
        ("simulate", CASE),
        ("size", {**SCENARIO, "limit": 2}),
        ("search", {"conditions": SCENARIO["conditions"], "limit": 2}),
    ],
)
def test_an_answer_is_json_alone(tmp_path: Path, command: str, body: dict[str, Any]) -> None:
    data = [] if command == "simulate" else ["--data", tmp_path / "none.sqlite"]
    file = tmp_path / "in.json"
    file.write_text(json.dumps(body))
    from_file, piped = run(command, file, *data), run(command, "-", *data, given=json.dumps(body))
    assert from_file.exit_code == piped.exit_code == 0, from_file.output
    assert json.loads(from_file.stdout) == json.loads(piped.stdout)
    assert from_file.stderr == ""
    assert not (tmp_path / "none.sqlite").exists()


def test_it_says_which_one_it_is() -> None:
    assert run("--version").stdout == f"heathdrop {version('heathdrop')}\n"


@pytest.mark.parametrize("command", ["simulate", "size", "search", "plan"])
@pytest.mark.parametrize("body", ["", "{", "[]", "{}", '{"tide": 1}'])
def test_bad_input_is_one_sentence_and_two(command: str, body: str) -> None:
    refused = run(command, "-", given=body)
    assert refused.exit_code == 2
    assert refused.stdout == ""
    assert len(refused.stderr.strip().splitlines()) == 1
    assert refused.stderr.strip().endswith(".")


def test_a_file_that_is_not_there(tmp_path: Path) -> None:
    refused = run("size", tmp_path / "no.json")
    assert refused.exit_code == 2
    assert "the file was “" in refused.stderr
    assert "it must be readable (No such file or directory)." in refused.stderr


def test_everything_goes_out_and_comes_back(tmp_path: Path, ashmoor_file: Path) -> None:
    out, again, other = tmp_path / "a.zip", tmp_path / "b.zip", tmp_path / "other.sqlite"
    assert run("export", out, "--data", ashmoor_file).exit_code == 0
    came = run("import", out, "--data", other)
    assert came.exit_code == 0, came.stderr
    assert came.stderr.startswith("Brought in ")
    assert run("export", again, "--data", other).exit_code == 0
    assert out.read_bytes() == again.read_bytes()
    twice = run("import", out, "--data", other)
    assert "rows were here already" in twice.stderr
    made = sorted((tmp_path / "backups").glob("*before-import*"))
    assert made
    back = run("restore", made[-1], "--data", other)
    assert back.exit_code == 0, back.stderr
    assert back.stderr.startswith("Restored. What was there is in ")


def test_what_cannot_go_out_or_come_in(tmp_path: Path, ashmoor_file: Path) -> None:
    missing = run("export", tmp_path / "a.zip", "--data", tmp_path / "none.sqlite")
    assert (missing.exit_code, (tmp_path / "a.zip").exists()) == (2, False)
    assert "it must be one that is there." in missing.stderr
    nowhere = run("export", tmp_path / "no" / "a.zip", "--data", ashmoor_file)
    assert nowhere.exit_code == 2
    assert "it must be writable" in nowhere.stderr
    (tmp_path / "x.zip").write_bytes(b"PK nonsense")
    assert run("import", tmp_path / "x.zip", "--data", tmp_path / "o.sqlite").exit_code == 2
    (tmp_path / "tackle.csv").write_text("kind,family,weight_oz\nhead,toad,1/2\n")
    faulty = run("import", tmp_path / "tackle.csv", "--data", tmp_path / "o.sqlite")
    assert faulty.exit_code == 2
    assert "faulty in 1 places" in faulty.stderr
    assert run("restore", tmp_path / "x.zip", "--data", tmp_path / "o.sqlite").exit_code == 2


@pytest.mark.slow
@pytest.mark.parametrize(
    ("flags", "shown", "listens"),
    [
        ([], "http://127.0.0.1:8640/", "127.0.0.1"),
        (["--port", "8700"], "http://127.0.0.1:8700/", "127.0.0.1"),
        (["--lan"], "http://127.0.0.1:8640/", "0.0.0.0"),
        (["--host", "192.0.2.1"], "http://192.0.2.1:8640/", "192.0.2.1"),
    ],
)
def test_it_is_served_on_loopback_unless_meant_otherwise(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, flags: list[str], shown: str, listens: str
) -> None:
    served: dict[str, Any] = {}
    monkeypatch.setattr(uvicorn, "run", lambda app, **how: served.update(how, app=app))
    monkeypatch.setattr("heathdrop.sizing.warmth.warm_up", lambda: 0.0)
    done = run("serve", "--data", tmp_path / "d.sqlite", *flags)
    assert done.exit_code == 0, done.output
    assert shown in done.stdout
    assert served["host"] == listens
    assert served["proxy_headers"] is False
    paired = "--lan" in flags
    assert (served["app"].state.pairing is not None) == paired
    assert ("with the code" in done.stdout) == paired
    assert ("Other machines are refused" in done.stderr) == (listens == "192.0.2.1")
    served["app"].state.database.close()


@pytest.mark.parametrize(
    ("flags", "said"),
    [
        (["--nmea", "udp://x"], "nmea was “udp://x”"),
        (["--log-level", "loud"], "log_level was “loud”; it must be one of debug, info, warning, error."),
    ],
)
def test_a_start_that_cannot_be(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, flags: list[str], said: str
) -> None:
    monkeypatch.setattr("heathdrop.sizing.warmth.warm_up", lambda: 0.0)
    refused = run("serve", "--data", tmp_path / "d.sqlite", *flags)
    assert refused.exit_code == 2
    assert said in refused.stderr


def test_a_taken_port_is_said(monkeypatch: pytest.MonkeyPatch) -> None:
    def taken(*_: object) -> None:
        raise OSError(98, "Address already in use")

    monkeypatch.setattr("heathdrop.feeds.simulated.Sounder", taken)
    refused = run("sounder", "--port", "10110")
    assert refused.exit_code == 2
    assert "port was 10110; it must be one that is free (Address already in use)." in refused.stderr


def test_a_file_without_an_end_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(cli, "MOST_BYTES", 3_000_000)
    for command in ("size", "import"):
        refused = run(command, "/dev/zero")
        assert refused.exit_code == 2
        assert refused.stderr.strip() == "the file was “/dev/zero”; it must be at most 3 MB long."
