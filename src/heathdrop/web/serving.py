"""How the server listens: a request that is not whole in time is let go, so that nobody holds a place by
silence; and a machine holds no more than its share of places."""

import asyncio
from collections import Counter
from typing import ClassVar

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol

#: Addresses of the laptop itself.
LAPTOP = ("127.0.0.1", "::1", "")


class Prompt(H11Protocol):
    """HTTP/1.1 whose requests must be whole within ``whole_s`` seconds of their first byte, or of the
    connection where nothing comes at all."""

    whole_s = 30.0
    #: Connections that one other machine may hold, and all of them together: the laptop keeps the rest.
    most_of_one, most_of_others = 24, 120
    held: ClassVar[Counter[str]] = Counter()
    _late: asyncio.TimerHandle | None = None
    _address = ""
    _sent_off = False

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Someone connected: the clock runs. A machine that holds its share already is sent off at once."""
        peer = transport.get_extra_info("peername")
        address = str(peer[0]) if peer else ""
        if address not in LAPTOP:
            if self.held[address] >= self.most_of_one or self.held.total() >= self.most_of_others:
                self._sent_off = True
                transport.abort()
                return
            self._address = address
            self.held[address] += 1
        super().connection_made(transport)
        self._wait(True)

    def connection_lost(self, exc: Exception | None) -> None:
        """They are gone, and their place is free."""
        if self._sent_off:
            return
        if self._address:
            self.held[self._address] -= 1
            if self.held[self._address] <= 0:
                del self.held[self._address]
            self._address = ""
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
