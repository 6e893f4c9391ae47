"""Phones by invitation: a code that ends, a signed cookie for those that showed it, nothing for others."""

import hashlib
import hmac
import secrets
import socket
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from threading import Lock
from urllib.parse import parse_qsl, urlencode

from itsdangerous import BadSignature, TimestampSigner
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import QueryParams
from starlette.requests import Request
from starlette.responses import RedirectResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from heathdrop.logs import logger
from heathdrop.store import devices
from heathdrop.store.database import Database
from heathdrop.web.shell.rendering import templates

#: Seconds that a code lasts, wrong tries that it stands, its digits.
LASTS_S, TRIES, DIGITS = 300.0, 5, 6
#: Where a paired phone keeps its name, and for how long (s).
COOKIE, KEPT_S = "heathdrop-device", 30 * 24 * 3600
#: Where the laptop's own browser keeps its key while phones are let in; how an address and a program show it.
LAPTOP, KEY, KEY_HEADER = "heathdrop-laptop", "key", "x-heathdrop-key"
#: The longest answer to the page that asks for a code, bytes.
MOST_ANSWER = 1024
#: Sockets of this machine alone; what the framework's test client, which has none, calls itself.
LOOPBACK, TESTS = ("127.0.0.1", "::1"), "testclient"
#: What a proxy says of the request that it hands on.
FORWARDED = {b"forwarded", b"x-forwarded-for", b"x-forwarded-host", b"x-real-ip", b"via"}
#: An address that nothing is sent to: asking the way to it tells this machine's own on the network.
NOWHERE = ("192.0.2.1", 9)
LOG = logger("pairing")
WRONG = "That is not the code, or it has ended. A new one is on the laptop, under Phones."


@dataclass
class Pairing:
    """The code of the moment. One phone uses it up; five minutes or five wrong tries end it."""

    clock: Callable[[], float] = time.monotonic
    _code: str = ""
    _ends: float = 0.0
    _tries: int = 0
    _lock: Lock = field(default_factory=Lock, repr=False)

    def renew(self) -> str:
        """A new code; the one before ends."""
        with self._lock:
            self._code = "".join(secrets.choice("0123456789") for _ in range(DIGITS))
            self._ends, self._tries = self.clock() + LASTS_S, TRIES
            return self._code

    @property
    def left_s(self) -> float:
        """Seconds that the code still lasts; 0 when it has ended."""
        return max(0.0, self._ends - self.clock()) if self._code else 0.0

    @property
    def code(self) -> str:
        """The code; empty when it has ended."""
        return self._code if self.left_s > 0.0 else ""

    def take(self, shown: str) -> bool:
        """Whether ``shown`` is the code, which it uses up; a wrong one counts against it."""
        digits = "".join(c for c in shown if c.isascii() and c.isdigit())
        with self._lock:
            if not self.code:
                return False
            right = hmac.compare_digest(digits, self._code)
            self._tries -= 1
            if right or self._tries <= 0:
                self._code = ""
            return right


def said_code(code: str) -> str:
    """A code as it is read out: ``123 456``."""
    return f"{code[:3]} {code[3:]}" if code else ""


def own_address() -> str:
    """This machine's address on the network it is in; loopback when it is in none. Nothing is sent."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(NOWHERE)
            return str(probe.getsockname()[0])
        except OSError:
            return "127.0.0.1"


def is_here(scope: Scope) -> bool:
    """Whether a request came over this machine's own loopback, from both ends."""
    client, server = scope["client"], scope.get("server")
    if any(name in FORWARDED for name, _ in scope.get("headers", ())):
        # Somebody else's request, handed on by a proxy of this machine.
        return False
    if client[0] == TESTS:
        return True
    return client[0] in LOOPBACK and (server is None or server[0] in LOOPBACK)


def laptop_key(secret: bytes) -> str:
    """What the laptop's own browser shows while phones are let in: a forwarder on this machine, whose
    connections look like the laptop's, has it not."""
    return hmac.new(secret, b"laptop", hashlib.sha256).hexdigest()[:24]


class Reach:
    """Answers this machine alone; with ``pairing`` also phones that showed its code, and this machine by its
    key. Everybody else gets a page that says how, and nothing more."""

    def __init__(
        self, app: ASGIApp, database: Database, secret: bytes, pairing: Pairing | None = None
    ) -> None:
        self.app, self.database, self.pairing = app, database, pairing
        self.signer, self.key = TimestampSigner(secret, salt="device"), laptop_key(secret)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan" or scope.get("client") is None or is_here(scope):
            if scope["type"] != "http" or self.pairing is None or self._is_laptop(scope):
                scope.setdefault("state", {})["here"] = True
                await self.app(scope, receive, send)
                return
            shown = Request(scope).query_params
            if scope["method"] == "GET" and hmac.compare_digest(
                shown.get(KEY, "").encode(), self.key.encode()
            ):
                await self._at_home(scope["path"], shown)(scope, receive, send)
                return
        if scope["type"] != "http":
            await send({"type": "websocket.close", "code": 1008})
            return
        scope.setdefault("state", {})["here"] = False
        request = Request(scope, receive)
        if self.pairing is not None and await self._knows(request):
            await self.app(scope, receive, send)
            return
        await (await self._asked(request))(scope, receive, send)

    def _is_laptop(self, scope: Scope) -> bool:
        """Whether a request from this machine shows its key."""
        request = Request(scope)
        shown = request.cookies.get(LAPTOP, "") or request.headers.get(KEY_HEADER, "")
        return scope["client"][0] == TESTS or hmac.compare_digest(shown.encode(), self.key.encode())

    def _at_home(self, path: str, shown: QueryParams) -> Response:
        """The laptop's browser keeps its key, and goes on without it in the address."""
        rest = urlencode([(k, v) for k, v in shown.multi_items() if k != KEY])
        answer = RedirectResponse("/" + path.lstrip("/") + (f"?{rest}" if rest else ""), 303)
        answer.set_cookie(LAPTOP, self.key, max_age=KEPT_S, httponly=True, samesite="lax")
        return answer

    async def _knows(self, request: Request) -> bool:
        """Whether the request shows the cookie of a phone that is paired, and was not sent off."""
        try:
            text, signed = self.signer.unsign(request.cookies.get(COOKIE, ""), return_timestamp=True)
            uid = text.decode()
        except (BadSignature, UnicodeDecodeError, ValueError):
            return False
        # A clock that was set back makes a cookie younger than new, and locks nobody out.
        if (datetime.now(UTC) - signed).total_seconds() > KEPT_S:
            return False
        return await run_in_threadpool(devices.seen, self.database, uid)

    async def _asked(self, request: Request) -> Response:
        """A stranger's answer: the page that asks for the code, or the cookie when it is right."""
        if self.pairing is None:
            return _unpaired(
                "This is someone's own Heathdrop, and it answers its own machine alone.", ask=False
            )
        if request.method != "POST" or request.url.path != "/pair":
            code = request.query_params.get("code", "") if request.url.path == "/pair" else ""
            return _unpaired("", code, here=is_here(request.scope))
        raw = await _short_body(request)
        if raw is None:
            return _unpaired("This could not be read.")
        try:
            form = dict(parse_qsl(raw.decode("ascii", "replace"), max_num_fields=4))
        except ValueError:
            return _unpaired("This could not be read.")
        code, name = form.get("code", ""), form.get("name", "")
        if not self.pairing.take(code):
            LOG.warning("a wrong code from %s", request.client.host if request.client else "?")
            return _unpaired(WRONG)
        uid = await run_in_threadpool(
            devices.pair, self.database, name, request.headers.get("user-agent", "")
        )
        answer = RedirectResponse("/deck", 303)
        answer.set_cookie(
            COOKIE, self.signer.sign(uid).decode(), max_age=KEPT_S, httponly=True, samesite="lax"
        )
        return answer


async def _short_body(request: Request) -> bytes | None:
    """A form's body, if it is one by its type and short; None for anything else, which is not read on."""
    if (
        request.headers.get("content-type", "").partition(";")[0].strip()
        != "application/x-www-form-urlencoded"
    ):
        return None
    raw = b""
    async for piece in request.stream():
        raw += piece
        if len(raw) > MOST_ANSWER:
            return None
    return raw


def _unpaired(sentence: str, code: str = "", ask: bool = True, here: bool = False) -> Response:
    """The page of a stranger: how to pair, in plain hypertext that needs no other file."""
    page = templates.get_template("shell/devices/pair.html").render(
        sentence=sentence, code=code[:12], ask=ask, here=here
    )
    return Response(page, 403, media_type="text/html")
