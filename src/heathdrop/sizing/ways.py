"""Ways of working a lure as programmes: what the hands do, from a pace, a count and a lift."""

from collections.abc import Callable
from dataclasses import dataclass

from heathdrop.physics.program import Phase


@dataclass(frozen=True)
class Way:
    """A way of working a lure: its words, and its usual lift (m) and hold (s) where it has them."""

    id: str
    name: str
    says: str
    lift_m: float | None = None
    hold_s: float | None = None


#: Usual lifts and holds are practice.
WAYS: tuple[Way, ...] = (
    Way("steady", "steady retrieve", "count down, then reel at the pace, rod still"),
    Way("slow-roll", "slow-roll the bottom", "let it land, then reel so that it keeps touching", lift_m=0.15),
    Way("stop-and-go", "stop and kill", "reel, then stop dead and let it fall, over and over", hold_s=1.5),
    Way("burn-and-drop", "burn and drop", "three fast seconds, then a drop on tight line", hold_s=2.0),
    Way(
        "twitch",
        "twitch",
        "reel, and every few turns snap the tip a few inches and let it sink back",
        lift_m=0.15,
        hold_s=1.5,
    ),
    Way("yo-yo", "yo-yo", "reel it up by the lift, let it swing down on tight line", lift_m=0.9, hold_s=3.0),
    Way("hop", "hop", "rod lifts of the stated length, each let fall to the bottom", lift_m=0.12, hold_s=1.0),
    Way("drag", "drag", "slow sweeps of the rod along the bottom, never off it", lift_m=0.6, hold_s=1.0),
    Way(
        "shake",
        "shake",
        "small quick lifts of the tip in one place, then a drag on",
        lift_m=0.025,
        hold_s=4.0,
    ),
    Way(
        "lift-and-drop",
        "lift and drop by ledges",
        "a long lift off each ledge, then down to the next",
        lift_m=0.9,
    ),
    Way("stroke", "stroke", "snap it two yards up off the floor, let it fall back on slack", lift_m=1.8),
    Way(
        "step-down",
        "step down the ledges",
        "give line at each lip and let it drop to the next step",
        lift_m=0.3,
        hold_s=2.0,
    ),
    Way(
        "swing", "swing back under the boat", "retrieve half-way, stop, and let it pendulum home", hold_s=8.0
    ),
    Way(
        "hole-drop",
        "kill it over the holes",
        "reel over the tops, stop dead over each hole and let it fall in",
        hold_s=1.5,
    ),
    Way(
        "hang",
        "hang it at their depth",
        "the line over a limb, let down to their depth and shaken there",
        lift_m=0.025,
        hold_s=12.0,
    ),
    Way("swim-out", "stop it and swim it out", "stop it at their depth on its way down, then reel it out"),
)
WAY = {way.id: way for way in WAYS}
#: The quickest that a floor roll is reeled, m/s: quicker it lifts off.
ROLL_MOST_M_S = 0.6
#: Stops of a stopped retrieve, and the most twitches of a twitched one.
STOPS, TWITCHES = 3, 40
BURN_S, BURN_LEAST_M_S = 3.0, 1.2


@dataclass(frozen=True)
class Hand:
    """What a programme is made of: pace (m/s), count (s), cast (m), and the way's lift (m) and hold (s)."""

    pace_m_s: float
    count_s: float
    away_m: float
    lift_m: float | None = None
    hold_s: float | None = None

    @property
    def count(self) -> Phase:
        """The count on slack line."""
        return Phase("fall", slack=True, for_s=self.count_s)

    @property
    def home(self) -> Phase:
        """The steady way home, the slack taken up first."""
        return Phase("retrieve", speed_m_s=self.pace_m_s, take_up=True)


#: The fall to the bottom.
DOWN = Phase("fall", slack=True)


def _steady(h: Hand) -> tuple[Phase, ...]:
    return h.count, h.home


def _slow_roll(h: Hand) -> tuple[Phase, ...]:
    roll = Phase("slow-roll", speed_m_s=min(h.pace_m_s, ROLL_MOST_M_S), lift_m=h.lift_m, take_up=True)
    return DOWN, roll


def _stopped(h: Hand) -> tuple[Phase, ...]:
    leg = h.away_m / (STOPS + 2.0) / h.pace_m_s
    stops: list[Phase] = []
    for k in range(STOPS):
        stops += [
            Phase("retrieve", speed_m_s=h.pace_m_s, for_s=leg, take_up=k == 0),
            Phase("kill", for_s=h.hold_s),
        ]
    return h.count, *stops, h.home


def _burn(h: Hand) -> tuple[Phase, ...]:
    quick = max(BURN_LEAST_M_S, h.pace_m_s)
    burn = Phase("burn-and-drop", speed_m_s=quick, for_s=BURN_S, wait_s=h.hold_s, times=20, take_up=True)
    return h.count, burn


def _twitched(h: Hand) -> tuple[Phase, ...]:
    twitch = Phase(
        "twitch", speed_m_s=h.pace_m_s, lift_m=h.lift_m, wait_s=h.hold_s, times=TWITCHES, take_up=True
    )
    return h.count, twitch


def _yo_yo(h: Hand) -> tuple[Phase, ...]:
    times = int(min(30, h.away_m / (h.lift_m or 0.9)))
    return DOWN, Phase("yo-yo", lift_m=h.lift_m, wait_s=h.hold_s, times=times)


def _lifted(do: str) -> Callable[[Hand], tuple[Phase, ...]]:
    return lambda h: (DOWN, Phase(do, lift_m=h.lift_m, wait_s=h.hold_s, times=8))


def _shaken(h: Hand) -> tuple[Phase, ...]:
    shake = Phase("shake", lift_m=h.lift_m, for_s=h.hold_s)
    return DOWN, shake, Phase("drag", times=2), shake


def _hung(h: Hand) -> tuple[Phase, ...]:
    return h.count, Phase("shake", lift_m=h.lift_m, for_s=h.hold_s)


def _swung(h: Hand) -> tuple[Phase, ...]:
    half = Phase("retrieve", speed_m_s=h.pace_m_s, for_s=0.5 * h.away_m / h.pace_m_s, take_up=True)
    return h.count, half, Phase("swing", for_s=h.hold_s)


PLAYED: dict[str, Callable[[Hand], tuple[Phase, ...]]] = {
    "steady": _steady,
    "slow-roll": _slow_roll,
    "stop-and-go": _stopped,
    "burn-and-drop": _burn,
    "twitch": _twitched,
    "yo-yo": _yo_yo,
    "hop": _lifted("hop"),
    "drag": _lifted("drag"),
    "lift-and-drop": _lifted("lift-and-drop"),
    "stroke": _lifted("stroke"),
    "step-down": _lifted("step-down"),
    "shake": _shaken,
    "swing": _swung,
    "hole-drop": _stopped,
    "hang": _hung,
    "swim-out": _steady,
}


def programme(
    way: str,
    pace_m_s: float,
    count_s: float,
    away_m: float,
    lift_m: float | None = None,
    hold_s: float | None = None,
) -> tuple[Phase, ...]:
    """The phases of a ``way`` at a pace (m/s), after a count (s), over a cast of ``away_m``; lift (m) and
    hold (s) are the way's usual ones unless given."""
    usual = WAY[way]
    lift, hold = usual.lift_m if lift_m is None else lift_m, usual.hold_s if hold_s is None else hold_s
    return PLAYED[way](Hand(pace_m_s, count_s, away_m, lift, hold))
