"""Sixty files as a stranger would make them: an export bent in one place, and what is no export at all."""

import io
import json
import random
import struct
import zipfile
from collections.abc import Callable, Iterator
from typing import Any

#: What is put in the place of a value of a JSON file.
WRONG: tuple[Any, ...] = (
    None,
    True,
    -1,
    1e300,
    10**30,
    "",
    "x" * 5000,
    "\0",
    "\u202etxt",
    [],
    {},
    [[[[[]]]]],
    "<img src=x onerror=alert(1)>",
    "=cmd|' /C calc'!A0",
    "9999",
)


def unzipped(export: bytes) -> dict[str, bytes]:
    with zipfile.ZipFile(io.BytesIO(export)) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


def zipped(files: dict[str, bytes], how: int = zipfile.ZIP_DEFLATED) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", how) as archive:
        for name, content in files.items():
            archive.writestr(name, content)
    return out.getvalue()


def _leaves(value: Any, at: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from _leaves(inner, (*at, key))
    elif isinstance(value, list):
        for k, inner in enumerate(value[:3]):
            yield from _leaves(inner, (*at, k))
    if at:
        yield at


def _bent(value: Any, at: tuple[Any, ...], new: Any) -> Any:
    if not at:
        return new
    copy = dict(value) if isinstance(value, dict) else list(value)
    copy[at[0]] = _bent(copy[at[0]], at[1:], new)
    return copy


def bent_json(files: dict[str, bytes], rng: random.Random, count: int) -> Iterator[tuple[str, bytes]]:
    """The export with one value of one JSON file replaced."""
    names = [n for n in files if n.endswith(".json")]
    for _ in range(count):
        name = rng.choice(names)
        whole = json.loads(files[name])
        at = rng.choice(list(_leaves(whole)) or [()])
        new = json.dumps(_bent(whole, at, rng.choice(WRONG)))
        yield f"{name} {at}", zipped({**files, name: new.encode("utf-8", "surrogatepass")})


def bent_csv(files: dict[str, bytes], rng: random.Random, count: int) -> Iterator[tuple[str, bytes]]:
    """The export with one cell of one CSV file replaced."""
    names = [n for n in files if n.endswith(".csv") and files[n].count(b"\n") > 1]
    odd = (
        b"1e999",
        b"-5",
        b"nan",
        b"\xff\xfe",
        b'"',
        b"=1+1",
        b"9" * 400,
        b"3.5 kg",
        b"x\0y",
        "\u202e".encode(),
    )
    for _ in range(count):
        name = rng.choice(names)
        lines = files[name].split(b"\n")
        k = rng.randrange(0, len(lines) - 1)
        cells = lines[k].split(b",")
        cells[rng.randrange(len(cells))] = rng.choice(odd)
        lines[k] = b",".join(cells)
        yield f"{name} line {k + 1}", zipped({**files, name: b"\n".join(lines)})


def encrypted(export: bytes) -> bytes:
    """The flag of every entry says that it is locked."""
    raw = bytearray(export)
    for mark, off in ((b"PK\x03\x04", 6), (b"PK\x01\x02", 8)):
        at = raw.find(mark)
        while at >= 0:
            flags = struct.unpack_from("<H", raw, at + off)[0]
            struct.pack_into("<H", raw, at + off, flags | 1)
            at = raw.find(mark, at + 4)
    return bytes(raw)


def other_files(export: bytes, files: dict[str, bytes], rng: random.Random) -> Iterator[tuple[str, bytes]]:
    """What is no export, or only nearly one."""
    cut = rng.randrange(100, len(export) - 100)
    broken = bytearray(export)
    for _ in range(40):
        broken[rng.randrange(len(broken))] ^= 0xFF
    manifest = json.loads(files["manifest.json"])
    makers: dict[str, Callable[[], bytes]] = {
        "cut short": lambda: export[:cut],
        "bytes turned": lambda: bytes(broken),
        "locked": lambda: encrypted(export),
        "lzma": lambda: zipped(files, zipfile.ZIP_LZMA),
        "bzip": lambda: zipped(files, zipfile.ZIP_BZIP2),
        "a bomb": lambda: zipped({**files, "tackle.csv": b"kind,family\n" + b"head,swim-jig\n" * 600_000}),
        "newlines": lambda: b"kind,family\n" + b"\n" * 3_000_000,
        "one long line": lambda: b"kind,family\n" + b"," * 3_000_000,
        "deep": lambda: b'{"version": 1, "plans": ' + b"[" * 100_000 + b"]" * 100_000 + b"}",
        "wide numbers": lambda: b'{"version": 1, "scenarios": [' + b"9" * 100_000 + b"]}",
        "1e999": lambda: b'{"version": 1, "trips": [{"name": "x", "body": {"date": 1e999}}]}',
        "no manifest": lambda: zipped({n: c for n, c in files.items() if n != "manifest.json"}),
        "a newer manifest": lambda: zipped(
            {**files, "manifest.json": json.dumps({**manifest, "version": 99}).encode()}
        ),
        "another's manifest": lambda: zipped(
            {**files, "manifest.json": b'{"format": "other", "version": 1}'}
        ),
        "paths upwards": lambda: zipped({**files, "../../evil": b"x", "/etc/passwd": b"y"}),
        "UTF-16": lambda: "kind,family\nhead,swim-jig".encode("utf-16"),
        "CR only": lambda: b"kind,family,weight_oz\rhead,swim-jig,0.5",
        "empty": lambda: b"",
        "only PK": lambda: b"PK",
        "random": lambda: rng.randbytes(5000),
    }
    for name, make in makers.items():
        yield name, make()


def sixty(export: bytes, rng: random.Random) -> list[tuple[str, bytes]]:
    """Sixty hostile files, each with what was done to it."""
    files = unzipped(export)
    rest = list(other_files(export, files, rng))
    return [*bent_json(files, rng, 24), *bent_csv(files, rng, 60 - 24 - len(rest)), *rest]
