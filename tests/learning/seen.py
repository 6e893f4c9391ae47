"""A small logbook of drops, depths and mats that the tests of each module read: nothing of it is random."""

from dataclasses import replace

from heathdrop.catalog import Catalog
from heathdrop.learning.observations import DepthCheck, DropTest, MatCheck
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import rig_by_name

FLUORO, NYLON = ("fluorocarbon", 15.0), ("nylon", 12.0)


def drops(cat: Catalog) -> list[DropTest]:
    """Seven drops of four rigs on two lines: odd tries, a fused tail, a bare head, line on the water."""
    craw = rig_by_name(cat, "swim-jig", 0.375, "craw")
    heavy = rig_by_name(cat, "swim-jig", 0.75, "paddle-tail", trailer_length_in=4.5)
    fused = rig_by_name(cat, "casting-jig", 0.5, "creature-fused")
    bare = rig_by_name(cat, "football-jig", 0.5, "none")
    rows = (
        (craw, FLUORO, 3.0, (4.9, 5.2, 5.0), 58.0, 0.0),
        (craw, FLUORO, 7.5, (13.9, 14.4), 58.0, 0.0),
        (craw, FLUORO, 3.0, (5.1, 8.0), 48.0, 0.0),
        (heavy, FLUORO, 6.0, (6.6, 6.9, 6.7, 6.6), 70.0, 2.0),
        (fused, NYLON, 4.0, (7.4,), 52.0, 1.0),
        (bare, NYLON, 5.0, (3.9, 4.1), 64.0, 0.0),
        (craw, NYLON, 2.0, (3.6, 3.5), 60.0, 0.0),
    )
    return [
        DropTest(rig, line_by_test(cat, *line), line[0], depth, times, warm, drawn)
        for rig, line, depth, times, warm, drawn in rows
    ]


def depths(cat: Catalog) -> list[DepthCheck]:
    """Four depth checks of two rigs, the last far from the others of its rig."""
    line = line_by_test(cat, *FLUORO)
    jig = DepthCheck(rig_by_name(cat, "swim-jig", 0.375, "craw"), line, 0.6, 3.0, 25.0, 1.1)
    blade = DepthCheck(rig_by_name(cat, "bladed-jig", 0.5, "pin-tail"), line, 0.75, 2.0, 22.0, 1.6, 0.9, 66.0)
    return [
        jig,
        blade,
        replace(jig, pace_m_s=0.7, depth_m=0.8),
        replace(jig, depth_m=2.6, temperature_f=50.0),
    ]


def mats() -> list[MatCheck]:
    """Entries into two kinds of mat."""
    return [
        MatCheck("milfoil", 0.75, 0.87, True),
        MatCheck("milfoil", 0.5, 0.87, False),
        MatCheck("milfoil", 1.25, 0.61, True),
        MatCheck("duckweed", 0.375, 0.45, False),
    ]
