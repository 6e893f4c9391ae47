"""Heavy work has a queue of its own: a few at once, a few that wait, and a sentence beyond them.

Waiting costs no thread, so pages and files are answered while plans are worked out.
"""

import asyncio
from collections.abc import AsyncIterator

from fastapi import HTTPException

#: Worked on at once, and waiting at most.
AT_ONCE, WAITING = 2, 8
FULL = "Too much is being worked out already: try again in a few seconds."


class Queue:
    """A few places to work in and a few to wait in."""

    def __init__(self, at_once: int = AT_ONCE, waiting: int = WAITING) -> None:
        self.at_once, self.waiting = at_once, waiting
        self._places: asyncio.Semaphore | None = None
        self._loop: asyncio.AbstractEventLoop | None = None
        self.inside = 0

    async def __call__(self) -> AsyncIterator[None]:
        """As a dependency: wait for a place, hold it while the answer is worked out. 503 when too many
        wait."""
        loop = asyncio.get_running_loop()
        if self._places is None or self._loop is not loop:
            self._places, self._loop, self.inside = asyncio.Semaphore(self.at_once), loop, 0
        if self.inside >= self.at_once + self.waiting:
            raise HTTPException(503, FULL, headers={"Retry-After": "5"})
        self.inside += 1
        try:
            async with self._places:
                yield
        finally:
            self.inside -= 1


#: Plans; and the quicker questions, of which many may wait.
heavy, quick = Queue(), Queue(at_once=4, waiting=60)
