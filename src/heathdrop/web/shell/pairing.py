"""Phones by invitation: a code that ends, a signed cookie for those that showed it, nothing for others."""

import hmac
import secrets
import socket
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from threading import Lock

from itsdangerous import BadSignature, TimestampSigner
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.formparsers import MultiPartException
from starlette.requests import Request
from starlette.responses import RedirectResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from heathdrop.store import devices
from heathdrop.store.database import Database
from heathdrop.web.shell.rendering import templates

#: Seconds that a code lasts, wrong tries that it stands, its digits.
LASTS_S, TRIES, DIGITS = 300.0, 5, 6
#: Where a paired phone keeps its name, and for how long (s).
COOKIE, KEPT_S = "heathdrop-device", 30 * 24 * 3600
#: Sockets of this machine alone; what the framework's test client, which has none, calls itself.
LOOPBACK, TESTS = ("127.0.0.1", "::1"), "testclient"
#: What a proxy says of the request that it hands on.
FORWARDED = {b"forwarded", b"x-forwarded-for", b"x-forwarded-host", b"x-real-ip", b"via"}
#: An address that nothing is sent to: asking the way to it tells this machine's own on the network.
NOWHERE = ("192.0.2.1", 9)
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


class Reach:
    """Answers this machine alone; with ``pairing`` also phones that showed its code. Everybody else gets a
    page that says how, and nothing more."""

    def __init__(
        self, app: ASGIApp, database: Database, secret: bytes, pairing: Pairing | None = None
    ) -> None:
        self.app, self.database, self.pairing = app, database, pairing
        self.signer = TimestampSigner(secret, salt="device")

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan" or scope.get("client") is None or is_here(scope):
            scope.setdefault("state", {})["here"] = True
            await self.app(scope, receive, send)
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
            return _unpaired("", request.query_params.get("code", "") if request.url.path == "/pair" else "")
        try:
            async with request.form(max_files=0, max_fields=4) as form:
                code, name = str(form.get("code", "")), str(form.get("name", ""))
        except (HTTPException, MultiPartException):
            return _unpaired("This could not be read.")
        if not self.pairing.take(code):
            return _unpaired(WRONG)
        uid = await run_in_threadpool(
            devices.pair, self.database, name, request.headers.get("user-agent", "")
        )
        answer = RedirectResponse("/deck", 303)
        answer.set_cookie(
            COOKIE, self.signer.sign(uid).decode(), max_age=KEPT_S, httponly=True, samesite="lax"
        )
        return answer


def _unpaired(sentence: str, code: str = "", ask: bool = True) -> Response:
    """The page of a stranger: how to pair, in plain hypertext that needs no other file."""
    page = templates.get_template("shell/devices/pair.html").render(
        sentence=sentence, code=code[:12], ask=ask
    )
    return Response(page, 403, media_type="text/html")
