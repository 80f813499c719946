"""The pipe of each string: as decided, else the best that stands its loads and lets the next bit through; judged."""

from __future__ import annotations

import math

import numpy as np

from knollstack.core.findings import Assumption, Words
from knollstack.core.pipe.explain import Explained
from knollstack.core.pipe.findings import judge_string, other_connection, pipe_notes, say
from knollstack.core.pipe.frame import Frame, build_frame
from knollstack.core.pipe.hung import judge_hung
from knollstack.core.pipe.judge import KINDS, Judged, judge
from knollstack.core.pipe.order import candidates, decided_sections, next_bit_in, passes, suits_service, too_cold
from knollstack.core.pipe.reasons import buckling, ends_because, governing, neutral_md_ft
from knollstack.core.pipe.section import Section
from knollstack.core.pipe.strength import least_shares, may_stand, stand_alone
from knollstack.core.pipe.taper import Search
from knollstack.core.program import Planned, Program
from knollstack.core.results_pipe import LoadKind, LoadResult, PipeResult, PipeRow, SectionResult
from knollstack.core.working import headline

CHUNK = 6


def is_judged(string: Planned) -> bool:
    """Conductors carry the wellhead, which is judged apart, and see no pressure that is worked here."""
    return string.drilled and string.role != "conductor"


def cheapest_single(program: Program, string: Planned, frame: Frame) -> tuple[Section, ...]:
    """The first pipe in order of cost that stands as the whole string; empty where none does."""
    pipes, policy = candidates(program, string), program.well.policy
    length = string.shoe_md_ft - string.hung_md_ft
    pipes = [p for p in pipes if p.available_ft is None or p.available_ft >= length]
    pipes = may_stand(policy, frame, pipes)
    for chunk in (pipes[i : i + CHUNK] for i in range(0, len(pipes), CHUNK)):
        ok = np.flatnonzero(stand_alone(policy, frame, chunk))
        if len(ok):
            return (Section(string.hung_md_ft, string.shoe_md_ft, chunk[int(ok[0])]),)
    return ()


def best_sections(program: Program, string: Planned, frame: Frame, most: int) -> tuple[Section, ...]:
    """The best string of at most so many sections; empty where none stands."""
    if most == 1:
        return cheapest_single(program, string, frame)
    # a section hangs where it is warmer: what is not fit for sour service at the top may be further down
    pipes, policy = candidates(program, string, string.shoe_md_ft), program.well.policy
    if not pipes:
        return ()
    barred = too_cold(program, pipes, frame.md_ft)
    legs = Search(policy, frame, pipes, most, policy.least_section_ft, barred).best() or []
    md = frame.md_ft
    return tuple(Section(float(md[leg.top]), float(md[leg.bottom]), pipes[leg.pipe]) for leg in legs)


def _propose(program: Program, string: Planned, frame: Frame | None) -> None:
    """Sections for a string with none decided; a conductor gets the lightest that drifts."""
    if not is_judged(string):
        bit = next_bit_in(program, string)
        fits = [p for p in program.catalogue.by_od.get(string.od_in or 0.0, ()) if passes(program, p, bit)]
        string.sections = tuple(Section(string.top_md_ft, string.shoe_md_ft, p) for p in fits[:1])
        return
    if frame is None or string.od_in is None:
        say(program, string, "unknown", ("No pipe can be chosen: mud or size of this string is unknown.",))
        return
    if frame.missing:
        say(program, string, "unknown", ("No pipe is chosen: a load of this string is unknown.",))
        return
    string.sections = best_sections(program, string, frame, program.well.policy.most_sections)
    if not string.sections:
        _nearest(program, string, frame)
        return
    if not string.proposed:
        names = ", then ".join(pipe_name(s) for s in string.sections)
        words: Words = (*string.words, f" casing: {names}, the cheapest that stands its loads.")
        program.assumptions.append(Assumption(step="pipe", place=f"{string.path}/pipe", text=words))


def _nearest(program: Program, string: Planned, frame: Frame) -> None:
    """Where no pipe that may be chosen stands, the one that comes nearest, so that what it lacks is seen."""
    if string.od_in not in program.catalogue.by_od:
        return
    pipes = candidates(program, string)
    least = np.nan_to_num(least_shares(program.well.policy, frame, pipes), nan=-1.0) if pipes else np.array([])
    text = "No pipe of this size that may be chosen stands its loads and lets the next bit through."
    if not len(least) or float(np.max(least)) <= 0:
        say(program, string, "stop", (text,), other_connection(program, string, frame))
        return
    best = pipes[int(np.argmax(least))]
    string.sections = (Section(string.hung_md_ft, string.shoe_md_ft, best),)
    say(program, string, "stop", (f"{text} {pipe_name(string.sections[0])} comes nearest and is shown.",),
        other_connection(program, string, frame))  # fmt: skip


def pipe_name(section: Section) -> str:
    pipe = section.pipe
    return f"{pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection}"


def _load(program: Program, judged: Judged, kind: LoadKind) -> LoadResult | None:
    """The governing point of a kind, worked again with its working kept."""
    frame, point = judged.frame, judged.worst(kind)
    if point is None:
        return None
    policy, case = program.well.policy, frame.cases[point.case]
    with headline(f"pipe/{frame.string.index}/{kind}"):
        load, rating, factor = Explained(policy, judged, point).work(kind)
    curves: dict[str, tuple[float, ...]] = {}
    if kind in ("burst", "collapse"):
        loads = judged.shares.burst_psi if kind == "burst" else judged.shares.collapse_psi
        inner = judged.side.internal_psi * frame.yield_share
        ratings = inner if kind == "burst" else judged.shares.collapse_rating_psi
        curves = {
            "curve_md_ft": tuple(frame.md_ft.tolist()),
            "curve_load_psi": tuple(judged.along(loads, point.case).tolist()),
            "curve_rating_psi": tuple(judged.along(ratings, point.case).tolist()),
        }
    return LoadResult(
        name=case.name, stage=case.stage, kind=kind, factor=factor, required=factor / point.share,
        at_md_ft=float(frame.md_ft[point.node]), section=point.section, load=load, rating=rating, **curves,
    )  # fmt: skip


def _section(program: Program, string: Planned, section: Section, because: Words) -> SectionResult:
    pipe = section.pipe
    special = pipe.api_drift_in < next_bit_in(program, string) - 1e-9 and passes(
        program, pipe, next_bit_in(program, string)
    )
    length = section.bottom_md_ft - section.top_md_ft
    lengths = next(r for r in program.catalogue.ranges if r.range == program.well.policy.length_range)
    return SectionResult(
        joints_least=math.ceil(length / lengths.longest_ft), joints_most=math.ceil(length / lengths.shortest_ft),
        top_md_ft=section.top_md_ft, bottom_md_ft=section.bottom_md_ft, weight_ppf=pipe.weight_ppf,
        grade=pipe.grade.grade, connection=pipe.connection, wall_in=pipe.wall_in, id_in=pipe.id_in,
        drift_in=pipe.drift_in if special else pipe.api_drift_in, special_drift=special,
        coupling_od_in=pipe.coupling_od_in, burst_psi=pipe.burst_psi, coupling_psi=pipe.coupling_psi,
        leak_psi=pipe.leak_psi, collapse_psi=pipe.collapse_psi, body_lbf=pipe.body_lbf, joint_lbf=pipe.joint_lbf,
        torque_ft_lbf=pipe.torque_ft_lbf, torque_least_ft_lbf=pipe.torque_least_ft_lbf,
        suits_service=suits_service(program, pipe, section.top_md_ft),
        cost=pipe.cost_per_ft * length, priced=pipe.price_per_ft is not None,
        ends_because=because,
    )  # fmt: skip


def _row(program: Program, string: Planned, judged: Judged | None) -> PipeRow:
    reasons = ends_because(program.well.policy, judged) if judged is not None else [()] * len(string.sections)
    sections = tuple(_section(program, string, s, why) for s, why in zip(string.sections, reasons, strict=True))
    chosen = string.own.pipe is not None or bool(string.own.sections)
    if judged is None:
        return PipeRow(chosen=chosen, sections=sections)
    loads = [_load(program, judged, kind) for kind in KINDS]
    words, from_md = buckling(judged)
    known = tuple(load for load in loads if load is not None)
    return PipeRow(
        chosen=chosen, sections=sections, loads=known, governs=governing(judged),
        neutral_md_ft=neutral_md_ft(judged), buckles=words, buckles_md_ft=from_md,
    )  # fmt: skip


def make_strings(program: Program) -> dict[int, Frame | None]:
    """Sections of every string, decided or proposed, and the loads that each was judged by."""
    frames: dict[int, Frame | None] = {}
    for string in reversed(program.strings):  # innermost first: a string carries the liner that is hung in it
        string.sections = decided_sections(program, string)
        breaks = tuple(s.bottom_md_ft for s in string.sections[:-1])
        frame = frames[string.index] = build_frame(program, string, breaks)
        if not string.sections and string.own.pipe is None and not string.own.sections:
            _propose(program, string, frame)
    return frames


def choose_pipe(program: Program) -> PipeResult:
    """Pipe and governing loads of every string."""
    frames, rows = make_strings(program), []
    for string in program.strings:
        frame, judged = frames[string.index], None
        if string.sections and frame is not None and is_judged(string):
            judged = judge(program.well.policy, frame, string.sections)
        row = _row(program, string, judged)
        if judged is not None:
            judge_string(program, judged, row)
        rows.append(row)
    pipe_notes(program)
    return PipeResult(strings=judge_hung(program, tuple(rows)))
