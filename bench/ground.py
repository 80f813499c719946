"""Setting depths and the kick tolerance curve of a deep well, against plain loops over the same depths."""

from __future__ import annotations

import math
import time
from collections.abc import Callable
from typing import Any

import numpy as np

from knollstack.core.depths.bubble import open_hole
from knollstack.core.depths.conductor import conductor_md_ft
from knollstack.core.depths.kick import kick_drawing
from knollstack.core.depths.results import KickDrawing
from knollstack.core.depths.tolerance import known_pairs, least_of, tolerance_against_depth
from knollstack.core.document.design import Design
from knollstack.core.document.strings import String
from knollstack.core.ground.well import Well, build_well
from knollstack.core.program.laid import LaidString
from knollstack.core.proposal.effort import Effort
from knollstack.core.proposal.laid_out import planned_mud_over
from knollstack.core.proposal.search import Search, propose
from knollstack.core.reading.read import parse

TOTAL_FT, POINTS, HOLES = 30_000.0, 250, (8.5, 12.25, 17.5, 24.0)


def deep_well() -> Design:
    """30,000 ft with 500 profile points; made up, regular on purpose."""
    depth = [30.0 + i * (TOTAL_FT - 30.0) / (POINTS - 1) for i in range(POINTS)]
    pore = [
        {"tvd_ft": z, "emw_ppg": 8.5 + 6.5 * (z / TOTAL_FT) ** 1.5 + 0.03 * math.sin(i)} for i, z in enumerate(depth)
    ]
    fracture = [
        {"tvd_ft": z, "emw_ppg": 12.0 + 6.5 * math.sqrt(z / TOTAL_FT) + 0.03 * math.cos(i)} for i, z in enumerate(depth)
    ]
    return parse(
        {
            "format": "knollstack.well",
            "version": 7,
            "name": "Deep",
            "site": {"rig_floor_ft": 30.0},
            "trajectory": {"stations": [{"md_ft": 0.0}, {"md_ft": TOTAL_FT}]},
            "ground": {"pore": pore, "fracture": fracture},
            "policy": {"depths": {"open_hole_limit_ft": 12_000.0}},
        }
    )


def plain_bottom_up(well: Well) -> list[float]:
    """The same search as a plain loop: every candidate from the shallowest down, one at a time."""
    floor, _ = conductor_md_ft(well)
    search = Search(well, floor, HOLES, Effort(1e9))
    shoes, bottom, level = [well.path.total_md_ft], well.path.total_md_ft, 0
    while not search.reaches_floor(bottom):
        kick = search.kick_rule(level)
        for top in search.candidates[search.candidates < bottom - 10]:
            if not all(rule.keeps(float(top), bottom) for rule in search.rules.all):
                continue
            mud = planned_mud_over.function(well, float(top), bottom)
            pairs = None if mud is None else known_pairs(well, float(top), mud, bottom)
            if pairs is not None and least_of(well, kick.hole, pairs, mud).volume_bbl >= kick.asked_bbl:
                shoes.append(float(top))
                bottom, level = float(top), level + 1
                break
        else:
            return []
    return shoes[::-1]


def once_ms(run: Callable[[], Any]) -> float:
    start = time.perf_counter()
    run()
    return (time.perf_counter() - start) * 1000


def best_ms(run: Callable[[], Any], runs: int = 9) -> float:
    return sorted(once_ms(run) for _ in range(runs))[runs // 2]


def kick_curve(well: Well) -> KickDrawing:
    """Kick tolerance below a 9,000 ft shoe while drilling to 18,000 ft."""
    shoe, below = (
        String(id=name, role="intermediate", shoe_md_ft=md, bit_in=12.25, od_in=9.625, mud_ppg=12.0)
        for name, md in (("a", 9_000.0), ("b", 18_000.0))
    )
    laid = [
        LaidString(i, own.id, False, own.role, own.run, 0.0, 0.0, own.shoe_md_ft, 0.0, 12.25, 9.625, 12.0, None, own)
        for i, own in enumerate((shoe, below))
    ]
    return kick_drawing(well, *laid)


def main() -> None:
    well = build_well(deep_well())
    hole = open_hole(well, 12.25)
    curve = kick_curve(well).curve_md_ft
    rows = (
        (
            "setting depths, bottom up",
            best_ms(lambda: propose.function(well, HOLES)),
            once_ms(lambda: plain_bottom_up(well)),
        ),
        (
            f"kick tolerance curve, {len(curve)} depths",
            best_ms(lambda: kick_curve(well)),
            once_ms(lambda: [tolerance_against_depth(well, hole, 9_000.0, 12.0, np.array([md])) for md in curve]),
        ),
    )
    print(
        f"well of {TOTAL_FT:,.0f} ft, {2 * POINTS} profile points; the second column is a plain loop over the same depths"
    )
    for title, fast, slow in rows:
        print(f"{title:38}{fast:8.1f} ms{slow:10.1f} ms{slow / fast:8.1f} ×")


if __name__ == "__main__":
    main()
