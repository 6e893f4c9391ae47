"""What the JSON doors answer: every field with its unit in its name, described in the app's OpenAPI page."""

from pydantic import BaseModel


class Refusal(BaseModel):
    """What was wrong with a request: one sentence, and the field it names."""

    detail: str
    field: str


class Pair(BaseModel):
    """A band."""

    low: float
    high: float


class Sample(BaseModel):
    """The lure at one moment of a cast."""

    t_s: float
    distance_ft: float
    depth_ft: float
    tension_n: float
    phase: int
    on_bottom: bool


class CastSummary(BaseModel):
    """A cast in figures. Depths are of the useful retrieve; bands hold eight casts of ten (named rigs
    only)."""

    fall_s: float
    fall_ft_s: float | None
    mean_depth_ft: float | None
    min_depth_ft: float | None
    max_depth_ft: float | None
    cast_s: float
    bottom_s: float
    glide_reach_ft: float
    fall_band_s: Pair | None = None
    mean_depth_band_ft: Pair | None = None


class SimulateAnswer(BaseModel):
    """A simulated cast."""

    samples: list[Sample]
    summary: CastSummary


class ActivityAnswer(BaseModel):
    """How active the fish are, 0 dormant to 4 chasing, and why."""

    value: float
    name: str
    why: list[str]


class DepthBand(BaseModel):
    """Where the lure should run, ft, and why."""

    top: float
    low: float
    why: str


class ActionAnswer(BaseModel):
    """Wanted action, 0 still to 4 strong."""

    value: float
    name: str


class TargetsAnswer(BaseModel):
    """What a lure should do today; ``yours`` names what the angler set."""

    activity: ActivityAnswer
    depth_ft: DepthBand
    fall_ft_s: Pair
    pace_ft_s: Pair
    action: ActionAnswer
    profile: str
    yours: list[str] = []


class PathDepth(BaseModel):
    """The path over the useful retrieve, ft, and its share in the band."""

    mean: float
    low: float
    high: float
    in_band: float


class FallRate(BaseModel):
    """Fall on slack line, ft/s, with its 80 % band."""

    value: float
    low: float
    high: float


class CoverAnswer(BaseModel):
    """Chances 0..1: gets through, fouls, hangs up; ``through_hangs``: hangs up going through the cover that
    it is brought along beside, to be held against rigs that do go through."""

    passes: float
    fouls: float
    hangs: float
    through_hangs: float | None = None


class PerHour(BaseModel):
    """Casts an hour, seconds among the fish in them, and rigs lost to what they hang in."""

    casts: float
    seconds_among: float
    rigs_lost: float


class CadenceAnswer(BaseModel):
    """How a rig is worked where a steady retrieve is not the best: lift, pause, the paces far out and close
    in, the share of the work in which it falls, how far it glides on a pause."""

    way: str
    lift_ft: float
    pause_s: float
    far_ft_s: float
    near_ft_s: float
    falling: float
    glides_ft: float


class FitsAnswer(BaseModel):
    """Fit of each part, 0..1; touch only where the bottom is worked; ``weight``: how usual the head is."""

    touch: float | None
    depth: float
    pace: float | None
    tackle: float
    fall: float
    cover: float
    action: float
    profile: float
    weight: float


class RigAnswer(BaseModel):
    """One rated rig at its own best count and pace. ``depth_ft`` is the path's, ``depth_band_ft`` the band
    on its mean for a hand that reels, ``narrows`` what would narrow it most, ``hits`` which of the targets
    that were set it does."""

    family: str
    work: str
    head_oz: float
    head_material: str
    trailer: str
    trailer_length_in: float
    skirt: str
    blades: str | None = None
    plastic: str
    orientation: str
    name: str
    pace_ft_s: float
    turns_per_s: float
    countdown_s: float
    depth_ft: PathDepth
    depth_band_ft: Pair
    fall_ft_s: FallRate
    cover: CoverAnswer
    fits: FitsAnswer
    score: float
    limiting: str | None
    way: str
    cast_ft: float
    felt: float
    cadence: CadenceAnswer | None = None
    per_hour: PerHour
    equals: int
    why: list[str]
    narrows: str | None = None
    hits: dict[str, bool] = {}


class SettledAnswer(BaseModel):
    """One thing settled about a rig: what, which rule or school says so, and why."""

    sentence: str
    by: str
    because: str


class CitedAnswer(BaseModel):
    """One piece of advice: from the model, a rule or a school."""

    kind: str
    rule: str
    school: str | None
    sentence: str


class SizeAnswer(BaseModel):
    """Ranked rigs for a water, best first; ``finish`` and ``doubt`` speak of the first. ``equals`` counts the
    rigs of a rig's family that are as good within the noise."""

    targets: TargetsAnswer
    rigs: list[RigAnswer]
    finish: dict[str, SettledAnswer]
    doubt: str | None
    gives: str | None = None
    advice: list[CitedAnswer]
    cautions: list[str]


class SchoolAnswer(BaseModel):
    id: str
    name: str
    says: str


class TopicAnswer(BaseModel):
    """A disagreement, its schools, the default and the reason for it."""

    id: str
    name: str
    default: str
    because: str
    schools: list[SchoolAnswer]


class SchoolsAnswer(BaseModel):
    """Where good anglers disagree."""

    topics: list[TopicAnswer]
