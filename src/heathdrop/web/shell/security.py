"""Web safety: security headers, same-origin writes, bounded bodies."""

import hashlib
import hmac
import ipaddress
import re
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.middleware.trustedhost import TrustedHostMiddleware
from starlette.requests import ClientDisconnect
from starlette.responses import JSONResponse, PlainTextResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from heathdrop.conditions.validation import MOST_BYTES

POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; "
    "connect-src 'self'; manifest-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
#: A file brought in may be larger than a form.
MOST_FILE_BYTES = 64_000_000
SAFE = {"GET", "HEAD", "OPTIONS"}


def form_token(secret: bytes) -> str:
    """The token every form of this installation carries."""
    return hmac.new(secret, b"form", hashlib.sha256).hexdigest()


def token_matches(secret: bytes, token: str) -> bool:
    """Whether ``token`` is this installation's, compared in constant time."""
    return hmac.compare_digest(form_token(secret).encode(), token.encode())


def _foreign(headers: Headers) -> bool:
    """Whether a write comes from another site's page. A proxy may speak https in front of this program, so
    either scheme is ours; an origin has no path."""
    site = headers.get("sec-fetch-site")
    if site is not None and site not in ("same-origin", "none"):
        return True
    origin = headers.get("origin")
    if origin is None:
        return False
    scheme, _, host = origin.partition("://")
    return scheme not in ("http", "https") or host != headers.get("host")


#: The charset of a body, in any parameter that names one.
CHARSET = re.compile(r"charset\s*=\s*\"?\s*([^\s;\",]+)", re.I)


def _charset_read(headers: Headers) -> bool:
    """Whether a body's charset is UTF-8 or not said: others may take square time, or are none."""
    named = CHARSET.findall(headers.get("content-type", ""))
    return all(one.lower() in ("utf-8", "utf8", "us-ascii") for one in named)


def _embedded(headers: Headers) -> bool:
    """Whether another site's page asks for something of ours without going there."""
    return headers.get("sec-fetch-site") == "cross-site" and headers.get("sec-fetch-mode") != "navigate"


class Guard:
    """Refuses foreign writes and oversized bodies; puts the security headers on every answer."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)

        async def guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                _put_headers(MutableHeaders(scope=message), scope)
            await send(message)

        refused = _refused(scope["method"], headers)
        if refused is not None:
            await refused(scope, receive, guarded)
            return
        seen, most = 0, MOST_FILE_BYTES if scope["path"] == "/import" else MOST_BYTES

        async def bounded() -> Message:
            nonlocal seen
            message = await receive()
            seen += len(message.get("body", b""))
            return message if seen <= most else {"type": "http.disconnect"}

        async def unless_too_large(message: Message) -> None:
            if seen <= most:
                await guarded(message)

        length = headers.get("content-length", "0")
        if length.isdigit() and int(length) > most:
            await _too_large(int(length), most)(scope, receive, guarded)
            return
        try:
            await self.app(scope, bounded, unless_too_large)
        except ClientDisconnect:
            if seen <= most:
                raise
        if seen > most:
            await _too_large(seen, most)(scope, receive, guarded)


def _put_headers(out: MutableHeaders, scope: Scope) -> None:
    """What every answer says to the browser of what it may do with it, and whether it may keep it."""
    out["Content-Security-Policy"] = POLICY
    out["X-Content-Type-Options"] = "nosniff"
    out["Referrer-Policy"] = "same-origin"
    out["Cross-Origin-Opener-Policy"] = "same-origin"
    out["Cross-Origin-Resource-Policy"] = "same-origin"
    if scope["path"].startswith("/static/"):
        versioned = b"v=" in scope.get("query_string", b"")
        out["Cache-Control"] = "public, max-age=31536000, immutable" if versioned else "no-cache"
    elif "cache-control" not in out:
        out["Cache-Control"] = "no-store"


def _refused(method: str, headers: Headers) -> PlainTextResponse | None:
    """The refusal of what another site asked for, or of a text that is not read here; None where neither."""
    if method not in SAFE and _foreign(headers):
        return PlainTextResponse("This change came from another site's page and was refused.", 403)
    if method in SAFE and _embedded(headers):
        return PlainTextResponse("Another site's page asked for this and was refused.", 403)
    if not _charset_read(headers):
        return PlainTextResponse("This text is in a charset that is not read here: send UTF-8.", 415)
    return None


def _too_large(size: int, most: int) -> JSONResponse:
    sentence = f"the request was {size} bytes long; it must be at most {most} bytes long."
    return JSONResponse({"detail": sentence, "field": "the request"}, status_code=413)


#: A host as a browser sends it: a name or an address, and a port.
HOST = re.compile(r"(?:\[[0-9A-Fa-f:.]+\]|[A-Za-z0-9.-]+)(?::\d{1,5})?")


class KnownHost(TrustedHostMiddleware):
    """Answers the hosts that were named, and the very address that a request came in on: a machine has
    several, and a name that was bent to one of them is none of them."""

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and not HOST.fullmatch(Headers(scope=scope).get("host", "")):
            await PlainTextResponse("Invalid host header", 400)(scope, receive, send)
        elif scope["type"] == "http" and _own(scope):
            await self.app(scope, receive, send)
        else:
            await super().__call__(scope, receive, send)


def _own(scope: Scope) -> bool:
    server = scope.get("server")
    try:
        here = ipaddress.ip_address(server[0] if server else "")
        return ipaddress.ip_address(_host_of(Headers(scope=scope))) == here
    except ValueError:
        return False


def _host_of(headers: Headers) -> str:
    """The host that a request names, without its port or brackets."""
    return urlsplit("//" + headers.get("host", "")).hostname or ""
