"""Long answers worked out beside the requests that ask for them: progress, cancelling, the answer once."""

import logging
from collections import OrderedDict
from collections.abc import Callable, Hashable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from threading import Lock
from typing import Generic, TypeVar

from heathdrop.errors import BadInput

LOG = logging.getLogger(__name__)
V = TypeVar("V")
Tell = Callable[[float, str], None]


class Cancelled(Exception):
    """The job was called off."""


@dataclass
class Job(Generic[V]):
    """A job: how far it is (0 to 1), what it does, its answer or its refusal (``fault`` where input was at
    fault)."""

    share: float = 0.0
    doing: str = "waiting"
    answer: V | None = None
    refusal: str = ""
    fault: BadInput | None = None
    called_off: bool = False
    failed: bool = False

    @property
    def done(self) -> bool:
        """Whether nothing more will come."""
        return self.answer is not None or bool(self.refusal) or self.called_off


class Jobs(Generic[V]):
    """The latest jobs by key, one worked at a time."""

    def __init__(self, most: int = 24) -> None:
        self.most = most
        self._jobs: OrderedDict[Hashable, Job[V]] = OrderedDict()
        self._lock = Lock()
        self._pool = ThreadPoolExecutor(1, thread_name_prefix="job")

    def asked(self, key: Hashable, work: Callable[[Tell], V]) -> Job[V]:
        """The job of this key, begun when it is new, was called off or failed."""
        with self._lock:
            job = self._jobs.get(key)
            if job is None or job.called_off or job.failed:
                job = self._jobs[key] = Job()
                self._pool.submit(self._run, job, work)
            self._jobs.move_to_end(key)
            while len(self._jobs) > self.most:
                self._jobs.popitem(last=False)[1].called_off = True
            return job

    def call_off(self, key: Hashable) -> None:
        """Stop the job at its next step."""
        with self._lock:
            job = self._jobs.get(key)
            if job is not None and not job.done:
                job.called_off = True

    def stop(self) -> None:
        """Call off all that is not done: the program ends."""
        with self._lock:
            for job in self._jobs.values():
                job.called_off = job.called_off or not job.done

    @staticmethod
    def _run(job: Job[V], work: Callable[[Tell], V]) -> None:
        def tell(share: float, doing: str) -> None:
            if job.called_off:
                raise Cancelled
            job.share, job.doing = share, doing

        try:
            tell(0.0, "beginning")
            job.answer = work(tell)
        except Cancelled:
            pass
        except BadInput as refusal:
            job.fault, job.refusal = refusal, str(refusal)
        except Exception:
            if job.called_off:  # what it worked with may be gone already
                return
            LOG.exception("a job failed")
            job.refusal, job.failed = "This plan could not be worked out; the log says why. Ask again.", True
