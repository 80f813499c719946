"""The running step of a five-string inclined well of 20,000 ft, from nothing, against plain loops span by span."""

from __future__ import annotations

from collections.abc import Callable
from statistics import median
from time import perf_counter
from typing import Any

import numpy as np

from bench.ground import best_ms, once_ms
from knollstack.catalogue import load
from knollstack.core.base.remember import CACHES
from knollstack.core.catalogue.ratings import equivalent_external_pressure, pipe_collapse
from knollstack.core.document.design import Design
from knollstack.core.mud.formulas import trip_velocity
from knollstack.core.mud.friction import friction_of
from knollstack.core.program.equipped import Equipped
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.running.detail import tally_detail_of, tracks_of
from knollstack.core.running.fill import planned
from knollstack.core.running.formulas import lateral_load, soft_string_tension
from knollstack.core.running.hookload import spans_of
from knollstack.core.running.judge import judge
from knollstack.core.running.run import Run, run_of
from knollstack.core.running.speed import rock_of


def five_strings() -> Design:
    """Made up: built to 50° between 3,000 and 6,000 ft and held to 20,000."""
    sizes = (
        (300, 30.0, None, None),
        (2500, 20.0, 26.0, 9.0),
        (7000, 13.375, 17.5, 9.8),
        (13_000, 9.625, 12.25, 10.8),
        (20_000, 7.0, 8.5, 11.6),
    )
    roles = ("conductor", "surface", "intermediate", "intermediate", "production")
    strings: list[dict[str, Any]] = [
        {"role": role, "shoe_md_ft": float(shoe), "od_in": od, "bit_in": bit, "mud_ppg": mud}
        | {"reading_300": 30.0, "reading_600": 50.0}
        for role, (shoe, od, bit, mud) in zip(roles, sizes, strict=True)
    ]
    strings[0]["run"] = "driven"
    build = [{"md_ft": 3000.0 + 100 * k, "inclination_deg": 50 / 30 * k, "azimuth_deg": 40.0} for k in range(1, 31)]
    end = {"md_ft": 20_000.0, "inclination_deg": 50.0, "azimuth_deg": 40.0}
    line = [{"tvd_ft": 30.0, "emw_ppg": 8.5}, {"tvd_ft": 15_000.0, "emw_ppg": 11.0}]
    strong = [{"tvd_ft": 30.0, "emw_ppg": 13.5}, {"tvd_ft": 15_000.0, "emw_ppg": 16.0}]
    return parse(
        {
            "format": "knollstack.well",
            "version": 7,
            "name": "Five",
            "site": {"hook_load_limit_lbf": 1e6, "block_lbf": 5e4},
            "trajectory": {"stations": [{"md_ft": 0.0}, {"md_ft": 3000.0}, *build, end]},
            "ground": {"pore": line, "fracture": strong},
            "strings": strings,
        }
    )


def forgetting(run: Callable[[], Any]) -> Callable[[], Any]:
    """With nothing of the step held from before; what comes before the step is."""
    names = [name for name in CACHES if ".core.running." in name]

    def from_nothing() -> Any:
        for name in names:
            CACHES[name].forget()
        return run()

    return from_nothing


def plain(runs: list[Run]) -> None:
    """Hook load in three ways of holding fluid, collapse before each fill, and speed: one number at a time."""
    for run in runs:
        _hook(run)
        _collapse(run)
        _speed(run)


def _hook(run: Run) -> None:
    spans = spans_of(run, run.depths_md_ft)
    nodes = spans.nodes_md_ft
    inclination, azimuth = run.well.path.direction_at(nodes)
    tvd, leg = run.well.path.tvd_at(nodes), run.legs[0]
    for shoe in run.depths_md_ft:
        for sign in (-1.0, 1.0):
            for weight in (leg.weight_ppf, 0.9 * leg.weight_ppf, 0.3 * leg.weight_ppf):
                tension = 0.0
                for k in range(int(np.searchsorted(nodes, shoe - 1e-6)) - 1, -1, -1):
                    ends = float(inclination[k]), float(azimuth[k]), float(inclination[k + 1]), float(azimuth[k + 1])
                    side = float(lateral_load(weight, float(nodes[k + 1] - nodes[k]), *ends, tension))
                    height, friction = float(tvd[k + 1] - tvd[k]), sign * float(spans.friction[k])
                    tension = float(soft_string_tension(tension, weight, height, friction, side))


def _collapse(run: Run) -> None:
    leg, level = run.legs[0], planned(run)
    assert leg.pipe is not None
    size = leg.od_in, leg.pipe.wall_in
    for shoe in level.shoe_md_ft:
        for share in (0.1, 0.5, 1.0):
            outside = 0.6 * float(shoe) * share
            equivalent_external_pressure(outside, 0.9 * outside, *size)
            pipe_collapse(*size, leg.pipe.grade.yield_psi, 0.0)


def _speed(run: Run) -> None:
    friction, rock = friction_of(run.well, run.string.own, run.mud_ppg), rock_of(run)
    assert friction is not None
    assert rock is not None
    for _ in run.depths_md_ft:
        for ft_min in (90, 45, 67, 78, 84, 87, 88):
            for _, _, bore in run.outers:
                friction.psi_ft(trip_velocity(ft_min / 60, bore, run.legs[0].od_in), bore, run.legs[0].od_in)


def edited_ms(rounds: int) -> float:
    """The step after each of many edits of one joint, what has not changed being held."""
    times = []
    for k in range(rounds):
        well = five_strings().model_dump(mode="json")
        well["strings"][-1]["running"]["joints"] = [{"length_ft": 40.0 + 0.01 * (j == 0) * k} for j in range(505)]
        program = program_of(parse(well), load())
        start = perf_counter()
        judge(program)
        times.append((perf_counter() - start) * 1e3)
    return median(times)


def main() -> None:
    program: Equipped = program_of(five_strings(), load())
    runs = [run for string in program.strings if string.drilled and (run := run_of(program, string)) is not None]
    count = sum(run.tally.count for run in runs)
    ours = best_ms(forgetting(lambda: judge(program)))
    edited = edited_ms(100)
    last = len(program.strings) - 1
    tally = best_ms(forgetting(lambda: tally_detail_of(program, last)))
    tracks = best_ms(forgetting(lambda: tracks_of(program, last)))
    loop = once_ms(lambda: plain(runs))
    print(f"running: {len(runs)} strings of a well of 20,000 ft, {count} joints, built to 50°")
    print(f"{'the step from nothing':48}{ours:8.1f} ms")
    print(f"{'one joint of its longest string measured anew':48}{edited:8.1f} ms")
    print(f"{'the tally of its longest string, as its view asks':48}{tally:8.1f} ms")
    print(f"{'the tracks of that string':48}{tracks:8.1f} ms")
    print(f"{'part of it in plain loops':48}{loop:8.1f} ms{loop / ours:7.1f} ×")
