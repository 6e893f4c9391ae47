"""The installed program: serve, simulate, size, search, plan and what keeps the data file."""

import json
import sqlite3
import sys
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, TypeVar

import typer
from pydantic import BaseModel, ValidationError

from heathdrop import __version__
from heathdrop.errors import BadInput
from heathdrop.settings import Settings

if TYPE_CHECKING:
    from heathdrop.answers.own import Own

#: Addresses of this machine alone.
HERE = ("127.0.0.1", "::1", "localhost")
app = typer.Typer(add_completion=False, no_args_is_help=True)
M = TypeVar("M", bound=BaseModel)


def _said_version(asked: bool) -> None:
    if asked:
        typer.echo(f"heathdrop {__version__}")
        raise typer.Exit


@app.callback()
def program(
    version: Annotated[
        bool,
        typer.Option("--version", callback=_said_version, is_eager=True, help="Say which Heathdrop this is."),
    ] = False,
) -> None:
    """Head weight and trailer bulk for the water today."""


InputFile = Annotated[str, typer.Argument(help="A JSON file, or - for standard input.")]


#: The most that is read of a file, bytes: far more than a season holds; a file without an end ends here.
MOST_BYTES = 64_000_000


def _raw(name: str) -> bytes:
    """A file's bytes, or those of standard input. Raises BadInput for one that cannot be read or is too
    large."""
    try:
        if name == "-":
            raw = sys.stdin.buffer.read(MOST_BYTES + 1)
        else:
            with Path(name).open("rb") as file:
                raw = file.read(MOST_BYTES + 1)
    except OSError as error:
        raise BadInput("the file", name, f"readable ({error.strerror})") from error
    if len(raw) > MOST_BYTES:
        raise BadInput("the file", name, f"at most {MOST_BYTES // 1_000_000} MB long")
    return raw


def _answer(model: type[M], name: str, make: Callable[[M], BaseModel]) -> None:
    """Read, compute, print JSON; exit 2 with one sentence on bad input."""
    from heathdrop.conditions.validation import read_json

    try:
        answer = make(read_json(model, _raw(name)))
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    typer.echo(json.dumps(answer.model_dump(by_alias=True), allow_nan=False))


@app.command()
def simulate(case: InputFile) -> None:
    """Simulate one cast; JSON out."""
    from heathdrop.api.answers import simulate_answer
    from heathdrop.api.schemas import SimulateRequest

    _answer(SimulateRequest, case, simulate_answer)


DataFile = Annotated[Path | None, typer.Option(help="The data file (SQLite).")]


def _own(data: Path | None) -> "Own":
    """The angler's own in a data file; a stranger's when there is none yet."""
    from heathdrop.answers.own import STRANGER
    from heathdrop.store.database import Database
    from heathdrop.store.own import own_of

    where = data or Settings().data
    if not where.exists():
        return STRANGER
    database = Database(where)
    with database.session() as session:
        own = own_of(session)
    database.close()
    return own


@app.command()
def size(scenario: InputFile, data: DataFile = None) -> None:
    """Rank rigs for a scenario; JSON out. Box and lessons are the data file's."""
    from heathdrop.api.answers import size_answer
    from heathdrop.conditions.request import SizeRequest

    _answer(SizeRequest, scenario, lambda request: size_answer(request, _own(data)))


@app.command()
def search(scenario: InputFile, data: DataFile = None) -> None:
    """Say the next casts for a scenario whose fish are not where one thinks; JSON out."""
    from heathdrop.api.searching import SearchRequest, search_answer

    _answer(SearchRequest, scenario, lambda request: search_answer(request, _own(data)))


@app.command()
def changes(case: InputFile, data: DataFile = None) -> None:
    """Say what to change first after a cast that went wrong; JSON out."""
    from heathdrop.api.changing import ChangesRequest, changes_answer

    _answer(ChangesRequest, case, lambda request: changes_answer(request, _own(data)))


@app.command()
def plan(
    file: InputFile,
    card: Annotated[Path | None, typer.Option(help="Also write the deck card, one HTML file.")] = None,
    print_: Annotated[
        Path | None, typer.Option("--print", help="Also write the printed card, one HTML file.")
    ] = None,
    data: DataFile = None,
) -> None:
    """Plan a day of stops: which rigs to tie on and how each stop is fished; JSON out."""
    from heathdrop.api.planning import written
    from heathdrop.conditions.plan import PlanRequest
    from heathdrop.day.plan import planned
    from heathdrop.web.plan.deckcard import deck_card, printed_card

    def answer(request: PlanRequest) -> Any:
        day_plan = planned(
            request, _own(data), lambda share, what: typer.echo(f"{100 * share:3.0f} % {what}", err=True)
        )
        out = written(request.day(), day_plan)
        for path, made in ((card, deck_card), (print_, printed_card)):
            if path is not None:
                path.write_text(made(out), "utf-8")
        return out

    _answer(PlanRequest, file, answer)


@app.command()
def lessons(
    data: DataFile = None,
    stop: Annotated[str, typer.Option(help="A stop of the trip under way, or of a saved plan.")] = "",
) -> None:
    """Say what the log supports: bites an hour, schools on trial, days like today; JSON out."""
    from heathdrop.api.lessons import lessons_of_log
    from heathdrop.store.database import Database

    where = data or Settings().data
    if not where.exists():
        raise _refuse(BadInput("--data", str(where.name), "a data file that is there"))
    database = Database(where)
    try:
        with database.session() as session:
            typer.echo(lessons_of_log(session, stop).model_dump_json(indent=1))
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    finally:
        database.close()


@app.command()
def warm() -> None:
    """Compile the simulation's inner loops now, so that no request waits for them."""
    from heathdrop.sizing.warmth import warm_up

    seconds = warm_up()
    typer.echo(f"Simulation ready in {seconds:.1f} s.")


@app.command()
def sounder(
    port: Annotated[int, typer.Option(min=0, max=65535, help="Port to listen on; 0: any.")] = 10110,
    seed: Annotated[int, typer.Option(help="The same seed writes the same.")] = 1,
    speed_mph: Annotated[float, typer.Option(min=0.0, max=40.0, help="The boat's speed.")] = 3.0,
    faults: Annotated[
        bool, typer.Option("--faults", help="With drop-outs, bad sums, garbage, cuts.")
    ] = False,
) -> None:
    """Drive a simulated boat over Ashmoor Water: a fish-finder's NMEA 0183 over TCP, on loopback."""
    import time

    from heathdrop.feeds.simulated import Boat, Sounder

    try:
        simulated = Sounder(Boat(seed, speed_mph, faults), port)
    except OSError as error:
        raise _refuse(BadInput("port", port, f"one that is free ({error.strerror})")) from error
    simulated.start()
    typer.echo(f"The boat is at tcp://127.0.0.1:{simulated.port} (stop with Ctrl-C)")
    try:
        while True:
            time.sleep(1.0)
    except KeyboardInterrupt:
        simulated.stop()


@app.command()
def serve(
    port: Annotated[int | None, typer.Option(min=1, max=65535, help="Port to listen on [8640].")] = None,
    host: Annotated[
        str | None, typer.Option(help="Address to listen on; loopback unless you mean it.")
    ] = None,
    data: DataFile = None,
    demo: Annotated[
        bool, typer.Option("--demo", help="Start with Ashmoor Water, the made-up demo lake.")
    ] = False,
    lan: Annotated[
        bool, typer.Option("--lan", help="Let phones on this network in that show the code told on start.")
    ] = False,
    nmea: Annotated[
        str | None,
        typer.Option(help="Instruments to read: tcp://127.0.0.1:10110 or serial:/dev/ttyUSB0?baud=4800."),
    ] = None,
    log_level: Annotated[str | None, typer.Option(help="debug, info, warning or error.")] = None,
) -> None:
    """Start the app. What no flag says is read from HEATHDROP_PORT, _HOST, _DATA and _LOG_LEVEL."""
    import uvicorn

    from heathdrop.conditions.validation import bad_input
    from heathdrop.logs import configure
    from heathdrop.sizing.warmth import settle, warm_up
    from heathdrop.web.app import create_app
    from heathdrop.web.serving import Prompt
    from heathdrop.web.shell.pairing import Pairing, laptop_key, own_address

    try:
        chosen = Settings().merged(port=port, host=host, data=data, log_level=log_level)
    except ValidationError as error:
        raise _refuse(bad_input(error.errors())) from error
    configure(chosen.log_level)
    where = chosen.data
    if demo and data is None:
        where = where.with_name("demo.sqlite")
    typer.echo(
        "Getting the simulation ready (seconds when compiled before, up to half a minute the first time) ..."
    )
    warm_up()
    pairing = Pairing() if lan else None
    listens = "0.0.0.0" if lan and chosen.host in HERE else chosen.host
    if listens not in HERE and not lan:
        typer.echo("Other machines are refused; --lan lets phones in that show a code.", err=True)
    outside = own_address() if listens == "0.0.0.0" else listens
    address = f"http://{outside}:{chosen.port}"
    hosts = [chosen.host, outside]
    try:
        application = create_app(
            where, demo=demo, season=demo, hosts=hosts, pairing=pairing, address=address, nmea=nmea
        )
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    settle()
    shown = "127.0.0.1" if listens == "0.0.0.0" else chosen.host
    opens = f"http://{shown}:{chosen.port}/"
    if pairing is not None:
        opens += f"?key={laptop_key(application.state.secret)}"
    typer.echo(f"Heathdrop is at {opens}  (data: {where.name}; stop with Ctrl-C)")
    if pairing is not None and outside in HERE:
        typer.echo("No network is found: no phone reaches this machine now.", err=True)
    elif pairing is not None:
        _invite(address, pairing.renew())
    uvicorn.run(
        application,
        host=listens,
        port=chosen.port,
        log_level="warning",
        http=Prompt,
        server_header=False,
        proxy_headers=False,
        timeout_keep_alive=15,
        limit_concurrency=200,
        timeout_graceful_shutdown=8,
    )


def _invite(address: str, code: str) -> None:
    """Say on the terminal where a phone pairs: in words, and as a picture for its camera."""
    import segno

    from heathdrop.web.shell.devices import pair_address
    from heathdrop.web.shell.pairing import said_code

    typer.echo(f"From a phone on this network: {address}/pair with the code {said_code(code)}")
    segno.make(pair_address(address, code), error="m").terminal(compact=True)
    typer.echo("It lasts five minutes; new ones are on this machine's screen, under Phones.")


def _refuse(refusal: BadInput) -> typer.Exit:
    typer.echo(str(refusal), err=True)
    return typer.Exit(2)


@app.command("export")
def export_all(
    file: Annotated[Path, typer.Argument(help="The zip to write.")], data: DataFile = None
) -> None:
    """Write everything you own into one zip."""
    from heathdrop.store.database import Database
    from heathdrop.store.files.exchange import packed

    where = data or Settings().data
    try:
        if not where.exists():
            raise BadInput("the data file", str(where), "one that is there")
        with Database(where).session() as session:
            content = packed(session)
        file.write_bytes(content)
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    except OSError as error:
        raise _refuse(BadInput("the file", str(file), f"writable ({error.strerror})")) from error
    typer.echo(f"Written: {file}", err=True)


@app.command("import")
def import_all(
    file: Annotated[Path, typer.Argument(help="A zip made by export.")], data: DataFile = None
) -> None:
    """Bring an export in beside what is there: all of it or nothing, after a backup."""
    from heathdrop.store.backups import backup
    from heathdrop.store.database import Database
    from heathdrop.store.files.exchange import keep, looked_at, sifted

    where = data or Settings().data
    try:
        parcel = looked_at(_raw(str(file)), file.name)
        if parcel.faults:
            raise BadInput(
                "the file", f"faulty in {len(parcel.faults)} places", "mended: " + parcel.faults[0]
            )
        database = Database(where)
        backup(where, "before-import")
        with database.session() as session:
            new = sifted(session, parcel)
            keep(session, parcel)
        database.close()
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    except sqlite3.OperationalError as error:
        raise _refuse(BadInput("the data file", str(where), f"writable ({error})")) from error
    except sqlite3.DatabaseError as error:
        raise _refuse(BadInput("the data file", where.name, "sound; see `heathdrop check`")) from error
    there = f" {new.there} rows were here already." if new.there else ""
    typer.echo(f"Brought in {new.said()}.{there}", err=True)


@app.command()
def check(data: DataFile = None) -> None:
    """Say whether the data file and each of its backups are sound; 1 where the file is not."""
    from heathdrop.store.backups import state_of

    where = data or Settings().data
    state, backups = state_of(where)
    typer.echo(f"{where.name}: {state}")
    for name, sound in backups:
        typer.echo(f"{name}: {'sound' if sound else 'damaged'}")
    if state != "sound":
        raise typer.Exit(1)


@app.command()
def restore(
    backup_file: Annotated[Path, typer.Argument(help="A file from the backups folder.")],
    data: DataFile = None,
) -> None:
    """Put a backup in the place of the data file; what was there is backed up first. Stop the app before."""
    from heathdrop.store.database import restore as put_back

    try:
        saved = put_back(data or Settings().data, backup_file)
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    typer.echo(f"Restored. What was there is in {saved.name}.", err=True)


def main() -> None:
    """Entry point of the installed program."""
    app()


if __name__ == "__main__":
    main()
