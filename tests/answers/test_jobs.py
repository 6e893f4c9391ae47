"""Long answers beside the requests: begun once, told on, called off, refused in words, the oldest let go."""

from __future__ import annotations

import time
from collections.abc import Callable
from threading import Event

import pytest

from heathdrop.answers.jobs import Job, Jobs, Tell
from heathdrop.errors import BadInput


def over(job: Job[int]) -> Job[int]:
    """The job once it is done, or has had five seconds."""
    for _ in range(500):
        if job.done:
            break
        time.sleep(0.01)
    return job


def test_asked_twice_it_is_worked_once() -> None:
    jobs, worked = Jobs[int](), []

    def work(tell: Tell) -> int:
        worked.append(1)
        tell(0.5, "half way")
        return 7

    first = over(jobs.asked("a", work))
    assert (first.answer, first.share, first.doing) == (7, 0.5, "half way")
    assert jobs.asked("a", work) is first
    assert worked == [1]


def test_a_refusal_is_said_and_a_fault_is_logged_and_tried_again(caplog: pytest.LogCaptureFixture) -> None:
    jobs = Jobs[int]()

    def refuse(_: Tell) -> int:
        raise BadInput("rods", 0, "from 1 to 12")

    def fail(_: Tell) -> int:
        raise RuntimeError("secret")

    assert over(jobs.asked("a", refuse)).refusal == "rods was 0; it must be from 1 to 12."
    failed = over(jobs.asked("b", fail))
    assert failed.refusal == "This plan could not be worked out; the log says why. Ask again."
    assert "RuntimeError: secret" in caplog.text
    assert over(jobs.asked("b", lambda _: 3)).answer == 3


def waits(go: Event, then: Callable[[], int]) -> Callable[[Tell], int]:
    def work(tell: Tell) -> int:
        go.wait(5)
        tell(0.9, "nearly")
        return then()

    return work


@pytest.mark.parametrize("again", [False, True])
def test_called_off_it_stops_at_its_next_step(again: bool) -> None:
    jobs, go = Jobs[int](), Event()
    job = jobs.asked("a", waits(go, lambda: 1))
    jobs.call_off("a")
    jobs.call_off("nothing")
    go.set()
    assert over(job).called_off
    assert job.answer is None
    if again:
        assert over(jobs.asked("a", lambda _: 2)).answer == 2


def test_the_oldest_make_room() -> None:
    jobs, go = Jobs[int](most=2), Event()
    some = [jobs.asked(k, waits(go, lambda: 1)) for k in "abc"]
    assert [job.called_off for job in some] == [True, False, False]
    go.set()
    assert [over(job).answer for job in some[1:]] == [1, 1]
