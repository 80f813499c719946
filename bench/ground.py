"""Setting depths and the kick tolerance curve of a deep well, against plain loops over the same depths."""

from __future__ import annotations

import math
import time
from collections.abc import Callable
from typing import Any

import numpy as np

from knollstack.core import depths as depths_module
from knollstack.core.depths.conductor import conductor_md_ft
from knollstack.core.depths.judge import kick_curve
from knollstack.core.depths.tolerance import least_at, section_of, tolerance_at
from knollstack.core.document.design import Design
from knollstack.core.reading.read import parse
from knollstack.core.ground.well import Well, build_well
from knollstack.core.proposal.search import Search, propose

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
            "version": 1,
            "name": "Deep",
            "site": {"rig_floor_ft": 30.0},
            "trajectory": {"stations": [{"md_ft": 0.0}, {"md_ft": TOTAL_FT}]},
            "ground": {"pore": pore, "fracture": fracture},
            "policy": {"open_hole_limit_ft": 12_000.0},
        }
    )


def plain_bottom_up(well: Well) -> list[float]:
    """The same search as a plain loop: every candidate from the shallowest down, one at a time."""
    floor, _ = conductor_md_ft(well)
    search = Search(well, floor, HOLES)
    shoes, bottom, level = [well.path.total_md_ft], well.path.total_md_ft, 0
    while not search.reaches_floor(bottom):
        section, asked = search.section(level)
        for top in search.candidates[search.candidates < bottom - 10]:
            tests = search.tests(np.array([top]), bottom)
            if not all(bool(ok[0]) for ok in tests.values()):
                continue
            mud = depths_module.planned_mud_over(well, float(top), bottom)
            least = None if mud is None else least_at(well, section, float(top), mud, bottom)
            if least is not None and (not least.limited or least.volume_bbl >= asked):
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


def fresh_propose(well: Well) -> None:
    propose.cache_clear()
    propose(well, HOLES)


def main() -> None:
    well = build_well(deep_well())
    section = section_of(well, 12.25)
    curve = kick_curve(well, section, 9_000.0, 12.0, 18_000.0)
    rows = (
        ("setting depths, bottom up", best_ms(lambda: fresh_propose(well)), once_ms(lambda: plain_bottom_up(well))),
        (
            f"kick tolerance curve, {len(curve[0])} depths",
            best_ms(lambda: kick_curve(well, section, 9_000.0, 12.0, 18_000.0)),
            once_ms(lambda: [tolerance_at(well, section, 9_000.0, 12.0, md) for md in curve[0]]),
        ),
    )
    print(
        f"well of {TOTAL_FT:,.0f} ft, {2 * POINTS} profile points; the second column is a plain loop over the same depths"
    )
    for title, fast, slow in rows:
        print(f"{title:38}{fast:8.1f} ms{slow:10.1f} ms{slow / fast:8.1f} ×")


if __name__ == "__main__":
    main()
