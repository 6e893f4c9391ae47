"""How the server listens: a request that is not whole in time is let go, so that nobody holds a place by
silence."""

from __future__ import annotations

import asyncio

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol


class Prompt(H11Protocol):
    """HTTP/1.1 whose requests must be whole within ``whole_s`` seconds of their first byte, or of the
    connection where nothing comes at all."""

    whole_s = 30.0
    _late: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Someone connected: the clock runs."""
        super().connection_made(transport)
        self._wait(True)

    def connection_lost(self, exc: Exception | None) -> None:
        """They are gone."""
        self._wait(False)
        super().connection_lost(exc)

    def data_received(self, data: bytes) -> None:
        """Bytes came: while they are not a whole request the clock runs, from the first of them."""
        super().data_received(data)
        self._wait(self.conn.their_state in (h11.IDLE, h11.SEND_BODY))

    def _wait(self, on: bool) -> None:
        if on and self._late is None:
            self._late = self.loop.call_later(self.whole_s, self.transport.close)
        elif not on and self._late is not None:
            self._late.cancel()
            self._late = None
