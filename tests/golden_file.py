"""Golden files: what the program answers, kept as text in ``tests/golden`` and renewed by ``make golden``."""

import dataclasses
import json
import math
import os
from pathlib import Path
from typing import Any

FOLDER = Path(__file__).parent / "golden"
#: Columns of a line.
WIDTH = 110
RENEW = os.environ.get("HEATHDROP_GOLDEN") == "renew"


def plain(value: Any, digits: int = 8) -> Any:
    """Records as plain JSON, numbers to ``digits`` significant digits."""
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return {f.name: plain(getattr(value, f.name), digits) for f in dataclasses.fields(value)}
    if isinstance(value, dict):
        return {str(k): plain(v, digits) for k, v in value.items()}
    if isinstance(value, set | frozenset):
        return sorted(plain(v, digits) for v in value)
    if isinstance(value, list | tuple):
        return [plain(v, digits) for v in value]
    if hasattr(value, "tolist"):
        return plain(value.tolist(), digits)
    if isinstance(value, float):
        return value if not math.isfinite(value) or value == 0.0 else float(f"{value:.{digits}g}")
    return value


def _differences(at: str, kept: Any, now: Any, tolerance: float) -> list[str]:
    """Where two plain values differ."""
    if isinstance(kept, dict) and isinstance(now, dict):
        found = [f"{at}.{k}: gone" for k in kept if k not in now] + [
            f"{at}.{k}: new" for k in now if k not in kept
        ]
        return found + [
            d for k in kept if k in now for d in _differences(f"{at}.{k}", kept[k], now[k], tolerance)
        ]
    if isinstance(kept, list) and isinstance(now, list):
        if len(kept) != len(now):
            return [f"{at}: {len(kept)} entries, now {len(now)}"]
        pairs = enumerate(zip(kept, now, strict=True))
        return [d for k, (a, b) in pairs for d in _differences(f"{at}[{k}]", a, b, tolerance)]
    numbers = all(isinstance(v, int | float) and not isinstance(v, bool) for v in (kept, now))
    same = math.isclose(kept, now, rel_tol=tolerance, abs_tol=1e-9) if numbers else kept == now
    return [] if same else [f"{at}: {kept!r}, now {now!r}"]


def laid_out(value: Any, indent: int = 0, room: int = WIDTH, keyed: bool = False) -> str:
    """JSON to be read: what fits on a line stands on it; short parts of lists and objects fill lines; a list
    or an object ends on the line of its last part."""
    whole = json.dumps(value, ensure_ascii=False)
    if len(whole) <= room or not isinstance(value, list | dict) or not value:
        return whole
    pad, inner = "\n" + " " * (indent + 1), WIDTH - indent - 2
    pairs = list(value.items()) if isinstance(value, dict) else [(None, v) for v in value]
    lines: list[str] = []
    for k, (key, part) in enumerate(pairs):
        head = "" if key is None else f"{json.dumps(key, ensure_ascii=False)}: "
        said = head + laid_out(part, indent + 1, inner - len(head) - 2, keyed=bool(head))
        said += "," if k + 1 < len(pairs) else ""
        if lines and "\n" not in said + lines[-1] and len(lines[-1]) + 1 + len(said) <= inner:
            lines[-1] += " " + said
        else:
            lines.append(said)
    opens, ends = ("{", "}") if isinstance(value, dict) else ("[", "]")
    return opens + (pad if keyed else "") + pad.join(lines) + ends


def holds_to(name: str, value: Any, tolerance: float | None = None) -> None:
    """Assert that ``value`` is what the golden file ``name`` says; write it when renewing.

    What the physics says is kept to six digits, a judgement to three: what is told to an angler, and what an
    eye can check. Exact values stand in the tests of the formulas.
    """
    path = FOLDER / f"{name}.json"
    digits = 6 if name.startswith("physics") else 3
    tolerance = max(tolerance or 0.0, 0.6 * 10.0 ** (1 - digits))
    if RENEW:
        path.write_text(laid_out(plain(value, digits)) + "\n", "utf-8")
        return
    kept = json.loads(path.read_text("utf-8"))
    assert kept, f"{path.name} holds nothing"
    differences = _differences("", kept, json.loads(json.dumps(plain(value))), tolerance)
    assert not differences, f"{path.name}: " + "; ".join(differences[:8])
