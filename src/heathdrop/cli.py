"""The installed program: serve, simulate, size, warm."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Annotated, Any, TypeVar

import typer
from pydantic import BaseModel

from heathdrop.errors import BadInput

app = typer.Typer(add_completion=False, no_args_is_help=True, help="Head weight and trailer bulk for the water today.")
M = TypeVar("M", bound=BaseModel)

InputFile = Annotated[str, typer.Argument(help="A JSON file, or - for standard input.")]


def default_data() -> Path:
    """Where a user's own data lives unless told otherwise."""
    return Path.home() / ".local" / "share" / "heathdrop" / "heathdrop.sqlite"


def _raw(name: str) -> bytes:
    if name == "-":
        return sys.stdin.buffer.read()
    try:
        return Path(name).read_bytes()
    except OSError as error:
        raise BadInput("the file", name, f"readable ({error.strerror})") from error


def _answer(model: type[M], name: str, make: Callable[[M], dict[str, Any]]) -> None:
    """Read, compute, print JSON; exit 2 with one sentence on bad input."""
    from heathdrop.api.words import read_json

    try:
        answer = make(read_json(model, _raw(name)))
    except BadInput as refusal:
        typer.echo(str(refusal), err=True)
        raise typer.Exit(2) from refusal
    typer.echo(json.dumps(answer, allow_nan=False))


@app.command()
def simulate(case: InputFile) -> None:
    """Simulate one cast; JSON out."""
    from heathdrop.api.answers import simulate_answer
    from heathdrop.api.schemas import SimulateRequest

    _answer(SimulateRequest, case, simulate_answer)


DataFile = Annotated[Path | None, typer.Option(help="The data file (SQLite).")]


@app.command()
def size(scenario: InputFile, data: DataFile = None) -> None:
    """Rank rigs for a scenario; JSON out. A box other than standard is read from the data file."""
    from heathdrop.api.answers import size_answer
    from heathdrop.api.schemas import SizeRequest
    from heathdrop.store.database import Database
    from heathdrop.store.mine import mine_of

    def answer(request: SizeRequest) -> dict[str, Any]:
        if request.box == "standard":
            return size_answer(request)
        own = mine_of(Database(data or default_data()))
        return size_answer(request, own.learned, own.tackle)

    _answer(SizeRequest, scenario, answer)


@app.command()
def warm() -> None:
    """Compile the simulation's inner loops now, so that no request waits for them."""
    from heathdrop.warmth import warm_up

    seconds = warm_up()
    typer.echo(f"Simulation ready in {seconds:.1f} s.")


@app.command()
def serve(
    port: Annotated[int, typer.Option(min=1, max=65535, help="Port to listen on.")] = 8640,
    host: Annotated[str, typer.Option(help="Address to listen on; loopback unless you mean it.")] = "127.0.0.1",
    data: Annotated[Path | None, typer.Option(help="The data file (SQLite).")] = None,
    demo: Annotated[bool, typer.Option("--demo", help="Start with Ashmoor Water, the made-up demo lake.")] = False,
) -> None:
    """Start the app."""
    import uvicorn

    from heathdrop.warmth import warm_up
    from heathdrop.web.app import create_app

    where = data or (default_data().with_name("demo.sqlite") if demo else default_data())
    typer.echo("Getting the simulation ready (seconds when compiled before, half a minute the first time) ...")
    warm_up()
    application = create_app(where, demo=demo, hosts=[host])
    typer.echo(f"Heathdrop is at http://{host}:{port}/  (data: {where.name}; stop with Ctrl-C)")
    uvicorn.run(application, host=host, port=port, log_level="warning")


def _refuse(refusal: BadInput) -> typer.Exit:
    typer.echo(str(refusal), err=True)
    return typer.Exit(2)


@app.command("export")
def export_all(file: Annotated[Path, typer.Argument(help="The zip to write.")], data: DataFile = None) -> None:
    """Write everything you own into one zip."""
    from heathdrop.api.exchange import packed
    from heathdrop.store.database import Database

    with Database(data or default_data()).session() as session:
        content = packed(session)
    try:
        file.write_bytes(content)
    except OSError as error:
        raise _refuse(BadInput("the file", str(file), f"writable ({error.strerror})")) from error
    typer.echo(f"Written: {file}", err=True)


@app.command("import")
def import_all(file: Annotated[Path, typer.Argument(help="A zip made by export.")], data: DataFile = None) -> None:
    """Bring an export in beside what is there: all of it or nothing, after a backup."""
    from heathdrop.api.exchange import kept, unpacked
    from heathdrop.store.database import Database, backup

    where = data or default_data()
    try:
        parcel = unpacked(_raw(str(file)))
        database = Database(where)
        backup(where, "before-import")
        with database.session() as session:
            kept(session, parcel)
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    typer.echo(f"Brought in {parcel.said()}.", err=True)


@app.command()
def restore(backup_file: Annotated[Path, typer.Argument(help="A file from the backups folder.")], data: DataFile = None) -> None:
    """Put a backup in the place of the data file; what was there is backed up first. Stop the app before."""
    from heathdrop.store.database import restore as put_back

    try:
        saved = put_back(data or default_data(), backup_file)
    except BadInput as refusal:
        raise _refuse(refusal) from refusal
    typer.echo(f"Restored. What was there is in {saved.name}.", err=True)


def main() -> None:
    """Entry point of the installed program."""
    app()


if __name__ == "__main__":
    main()
