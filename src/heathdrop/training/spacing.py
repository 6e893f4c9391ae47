"""Which topic is due: spaced repetition by the scheduler of the fsrs package, replayed from the answers.

Nothing but the answers is kept: the state of a topic follows from them, the same each time, without chance.
"""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from fsrs import Card, Rating, Scheduler

#: Marks (0 to 1) from which an answer was good and easy; under the first it was hard, under the least wrong.
WRONG, GOOD, EASY = 0.5, 0.75, 0.95
#: Any two topics together take at most this share of a day's questions, where there are so many topics.
DAY_SHARE, SHARED_FROM = 0.5, 4


@dataclass(frozen=True)
class Marked:
    """A topic answered: when, and its mark, 0 to 1."""

    topic: str
    time: datetime
    mark: float


@dataclass(frozen=True)
class Due:
    """A topic by its whole name (``kind.topic``): when it is due (None: never asked), how often it was
    answered, how well on average lately."""

    topic: str
    due: datetime | None
    answered: int
    lately: float | None

    @property
    def kind(self) -> str:
        return self.topic.partition(".")[0]

    @property
    def name(self) -> str:
        """The topic without its kind."""
        return self.topic.partition(".")[2]


def rating_of(mark: float) -> Rating:
    """A mark in the scheduler's four grades."""
    if mark < WRONG:
        return Rating.Again
    if mark < GOOD:
        return Rating.Hard
    return Rating.Good if mark < EASY else Rating.Easy


def due_of(topics: Iterable[str], answers: Sequence[Marked]) -> list[Due]:
    """The topics, most overdue first; those never asked come before all, those that have had their share of
    the latest day after all others."""
    scheduler, due = Scheduler(enable_fuzzing=False), []
    latest = max((a.time.date() for a in answers), default=None)
    today = Counter(a.topic for a in answers if a.time.date() == latest)
    for topic in topics:
        of_topic = sorted((a for a in answers if a.topic == topic), key=lambda a: a.time)
        card, last = Card(due=datetime(2000, 1, 1, tzinfo=UTC)), None
        for one in of_topic:
            card, last = scheduler.review_card(card, rating_of(one.mark), one.time)[0], one
        lately = sum(a.mark for a in of_topic[-5:]) / len(of_topic[-5:]) if of_topic else None
        due.append(Due(topic, card.due if last is not None else None, len(of_topic), lately))

    def sated(topic: str) -> bool:
        """Whether one more of it would give the two most asked of the day more than their share."""
        before, after = (_top_two(c) for c in (today, today + Counter([topic])))
        return len(due) >= SHARED_FROM and before < after > DAY_SHARE * (today.total() + 1)

    def order(d: Due) -> tuple[bool, bool, datetime, str]:
        return sated(d.topic), d.due is not None, d.due or datetime(1, 1, 1, tzinfo=UTC), d.topic

    return sorted(due, key=order)


def _top_two(asked: Counter[str]) -> int:
    """How often the two most asked topics were asked."""
    return sum(n for _, n in asked.most_common(2))
