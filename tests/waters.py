"""A few waters that tests share: every season, every kind of cover, every posture."""

from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions

GRASS = Conditions(
    water_temp_f=58,
    bottom_depth_ft=9,
    fish_depth_ft=6,
    clarity_ft=3,
    trend="rising",
    season="pre-spawn",
    light="overcast",
    wind_mph=8,
    cover=Cover(kind="submerged-grass", top_depth_ft=7),
)
WINTER_ROCK = Conditions(
    water_temp_f=41,
    bottom_depth_ft=22,
    fish_depth_ft=22,
    clarity_ft=7,
    season="winter",
    wind_mph=10,
    trend="falling",
    front="passed",
    forage="crawfish",
    bottom="rock",
    cover=Cover(kind="rock", detail="bluff"),
)
MAT = Conditions(
    water_temp_f=82,
    bottom_depth_ft=6,
    fish_depth_ft=5,
    season="summer",
    light="sunny",
    pressure="heavy",
    cover=Cover(kind="matted-grass", thickness_in=4, texture="hydrilla"),
)
BAIT = Conditions(
    water_temp_f=63,
    bottom_depth_ft=30,
    fish_depth_ft=14,
    clarity_ft=6,
    season="fall",
    trend="falling",
    forage="baitfish",
    wind_mph=12,
    bottom_shape="slope",
)
WOOD = Conditions(
    water_temp_f=66,
    bottom_depth_ft=7,
    fish_depth_ft=6,
    clarity_ft=2,
    forage="crawfish",
    light="low",
    cover=Cover(kind="wood", detail="laydown", density="thick"),
)
BEDS = Conditions(
    water_temp_f=67,
    bottom_depth_ft=3,
    fish_depth_ft=2.5,
    season="spawn",
    clarity_ft=5,
    bottom_shape="steps",
)
PADS = Conditions(
    water_temp_f=90,
    bottom_depth_ft=4,
    fish_depth_ft=1.5,
    season="summer",
    activity=3.9,
    cover=Cover(kind="pads", density="sparse"),
)
DOCKS = Conditions(
    water_temp_f=74,
    bottom_depth_ft=8,
    fish_depth_ft=4,
    clarity_ft=10,
    cover=Cover(kind="docks"),
    posture="under-cover",
)
REEDS = Conditions(
    water_temp_f=70,
    bottom_depth_ft=5,
    fish_depth_ft=5,
    season="post-spawn",
    cover=Cover(kind="reeds"),
)
ALL = {
    "grass": GRASS,
    "winter rock": WINTER_ROCK,
    "mat": MAT,
    "bait": BAIT,
    "wood": WOOD,
    "beds": BEDS,
    "pads": PADS,
    "docks": DOCKS,
    "reeds": REEDS,
}
