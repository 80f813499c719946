"""All loads of a six-string well, the tapered optimum over 200 pipes and all chains, against plain loops per depth."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from bench.ground import best_ms, once_ms
from knollstack.catalogue import load
from knollstack.core.base.remember import forget_all
from knollstack.core.catalogue.product import Pipe
from knollstack.core.document.design import Design
from knollstack.core.pipe.choose import breaks_of
from knollstack.core.pipe.explain import Explained
from knollstack.core.pipe.frame import Frame, build_frame
from knollstack.core.pipe.judge import exposed_of
from knollstack.core.pipe.judged import KINDS, Judged, Point, judge_sections
from knollstack.core.pipe.taper import Search
from knollstack.core.program.equipped import Equipped
from knollstack.core.program.section import Section
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.sizes.nests import WAYS, all_chains

PIPES, SECTIONS = 200, 3


def six_strings() -> Design:
    """Made up: six strings to 18,000 ft with a bend, in ground that grows evenly."""
    sizes = (
        (300, 26.0, None, None),
        (1500, 20.0, 24.0, 8.8),
        (4500, 16.0, 18.5, 9.2),
        (8500, 11.75, 14.75, 10.4),
        (13_000, 9.625, 10.625, 12.0),
        (18_000, 5.5, 8.5, 13.4),
    )
    strings: list[dict[str, Any]] = [
        {"role": "intermediate", "shoe_md_ft": float(shoe), "od_in": od, "bit_in": bit, "mud_ppg": mud}
        for shoe, od, bit, mud in sizes
    ]
    strings[0] |= {"role": "conductor", "run": "driven"}
    strings[1]["role"], strings[-1]["role"] = "surface", "production"
    line = [{"tvd_ft": 30.0, "emw_ppg": 8.5}, {"tvd_ft": 18_000.0, "emw_ppg": 13.0}]
    strong = [{"tvd_ft": 30.0, "emw_ppg": 12.5}, {"tvd_ft": 18_000.0, "emw_ppg": 18.0}]
    stations = [
        {"md_ft": 0.0},
        {"md_ft": 5000.0},
        {"md_ft": 6000.0, "inclination_deg": 20.0},
        {"md_ft": 18_000.0, "inclination_deg": 20.0},
    ]
    return parse(
        {
            "format": "knollstack.well",
            "version": 7,
            "name": "Six",
            "trajectory": {"stations": stations},
            "ground": {"pore": line, "fracture": strong},
            "strings": strings,
            "policy": {
                "depths": {"open_hole_limit_ft": 12_000.0},
                "pipe": {"connections": ["STC", "LTC", "BTC", "PTC"], "test_share": 0.8},
            },
        }
    )


def all_loads(program: Equipped) -> list[tuple[Frame, Judged]]:
    found = []
    for string in program.strings[1:]:
        breaks = breaks_of(string.sections)
        frame = build_frame.function(program.well, string.laid, exposed_of(program, string), breaks)
        if frame is not None and string.sections:
            found.append((frame, judge_sections(program.well.policy.pipe, frame, string.sections)))
    return found


def plain_loads(program: Equipped, judged: list[tuple[Frame, Judged]]) -> None:
    """The same factors one case, one depth and one kind at a time, by the checked formulas."""
    policy = program.well.policy.pipe
    for frame, whole in judged:
        for case in range(len(frame.cases)):
            for node in range(len(frame.md_ft)):
                for kind in KINDS:
                    if math.isfinite(float(whole.of(kind)[0, case, node])):
                        Explained(policy, whole, Point(0, case, node, 1.0)).work(kind)


def plain_bounds(program: Equipped, frame: Frame, pipes: list[Pipe]) -> list[bool]:
    """Whether each pipe stands at each depth, a pipe, a case and a depth at a time: what any search must know first."""
    policy, answers = program.well.policy.pipe, []
    for pipe in pipes:
        section = (Section(float(frame.md_ft[0]), float(frame.md_ft[-1]), pipe),)
        whole = judge_sections(policy, frame, section)
        for case in range(len(frame.cases)):
            for node in range(len(frame.md_ft)):
                answers.append(all(whole.of(kind)[0, case, node] >= 1 for kind in KINDS))
    return answers


def main() -> None:
    program = program_of(six_strings(), load())
    judged = all_loads(program)
    string = program.strings[-1]
    frame = build_frame(program.well, string.laid, exposed_of(program, string), ())
    assert frame is not None
    policy = program.well.policy.pipe
    pipes = [p for p in load().by_od[5.5] if p.joint_lbf is not None and p.leak_psi is not None][:PIPES]
    pipes += pipes[: PIPES - len(pipes)]

    def taper() -> object:
        return Search(policy, frame, pipes, SECTIONS, policy.least_section_ft).best()

    def chains() -> object:
        forget_all()
        return all_chains(load(), program.well.policy.sizes, 5.5, 6, True, WAYS)

    cases = sum(len(f.cases) for f, _ in judged)
    rows: tuple[tuple[str, Callable[[], Any], Callable[[], Any]], ...] = (
        (
            f"all loads, {len(judged)} strings, {cases} cases",
            lambda: all_loads(program),
            lambda: plain_loads(program, judged),
        ),
        (f"tapered optimum, {len(pipes)} pipes", taper, lambda: plain_bounds(program, frame, pipes)),
    )
    print(
        "pipe; the second column is a plain loop over the same cases and depths, for the optimum of what stands alone"
    )
    for title, fast, slow in rows:
        quick, plain = best_ms(fast), once_ms(slow)
        print(f"{title:38}{quick:8.1f} ms{plain:10.1f} ms{plain / quick:8.1f} ×")
    print(f"{'all chains of six strings':38}{best_ms(chains):8.1f} ms")


if __name__ == "__main__":
    main()
