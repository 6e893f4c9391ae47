"""What is the angler's own, as answers take it: lessons, box and the schools held to."""

from dataclasses import dataclass

from heathdrop.sizing.box import EMPTY, Tackle
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge


@dataclass(frozen=True)
class Own:
    """Lessons, box, and (topic, school) pairs held to; a stranger's by default. ``spoken``: topics whose
    school the log chose, with the natural log of how many to one."""

    learned: Knowledge = UNTAUGHT
    tackle: Tackle = EMPTY
    schools: tuple[tuple[str, str], ...] = ()
    spoken: tuple[tuple[str, float], ...] = ()


STRANGER = Own()
