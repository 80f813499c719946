"""The tubing in force, decided or chosen: spaced out over its packer, moved in every case, and judged."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.completion.movement import Held, Moved, held_of, moved, slack_in
from knollstack.core.completion.producing import Producing
from knollstack.core.completion.results import EffectRow, TubingLoad, TubingRow
from knollstack.core.completion.tubing_cases import TubingCase, cases_of
from knollstack.core.completion.tubing_strength import KINDS, least_share, required, strengths, worked, worst

JOINT_FT, PUPS_FT = 31.0, (12.0, 10.0, 8.0, 6.0, 4.0, 2.0)
"""Mean length that a range 2 joint adds, and the usual pup joints."""
SET, PULL = 0, "pulled to release"


@dataclass(frozen=True, eq=False)
class Spaced:
    """A tubing with what follows from it: cases moved, and the least factor over what is asked."""

    pipe: Pipe
    decided: bool
    held: Held
    done: tuple[Moved, ...]
    share: float


def tried(found: Producing, pipe: Pipe, decided: bool, cases: tuple[TubingCase, ...]) -> Spaced:
    held = held_of(found, pipe)
    done = tuple(moved(held, cases[SET], case) for case in cases)
    return Spaced(pipe, decided, held, done, least_share(found.well.policy.pipe.factors, strengths(pipe, held, done)))


def candidates(found: Producing) -> list[Pipe]:
    """Tubing of policy's size, or of the largest that passes and is not over the most; joints that are known, cheapest first."""
    sizes, policy = found.well.policy.sizes, found.well.policy.completion
    known = [p for p in found.equipped.catalogue.tubing if p.joint_lbf is not None]
    if sizes.tubing_od_in is not None:
        fits = [p for p in known if p.od_in == sizes.tubing_od_in]
    else:
        passing = [
            p for p in known if p.coupling_od_in <= found.narrowest.drift_in and p.od_in <= policy.tubing_most_in + 1e-9
        ]
        fits = [p for p in passing if p.od_in == max(q.od_in for q in passing)]
    return sorted(fits, key=lambda p: (p.cost_per_ft, p.weight_ppf, p.grade.grade))


def decided_pipe(found: Producing) -> Pipe | None:
    own = found.equipped.design.completion.tubing
    if own is None:
        return None
    pipes = found.equipped.catalogue.pipes
    alike = [p for p in pipes if p.key == (own.od_in, own.weight_ppf, own.grade, own.connection)]
    return next((p for p in alike if p.kind == "tubing"), alike[0] if alike else None)


@remembered(16, traced=True)
def spaced_of(found: Producing) -> Spaced | None:
    """The tubing in force: decided, else the cheapest that stands, else the strongest; None where none is known."""
    cases = tuple(cases_of(found))
    own = decided_pipe(found)
    if found.equipped.design.completion.tubing is not None:
        return None if own is None else tried(found, own, True, cases)
    best: Spaced | None = None
    for pipe in candidates(found):
        this = tried(found, pipe, False, cases)
        if this.share >= 1:
            return this
        if best is None or (not np.isnan(this.share) and this.share > best.share):
            best = this
    return best


def _joints(length_ft: float) -> tuple[int, tuple[float, ...], float]:
    """Whole joints, pups for the rest, and what is left over."""
    count = int(length_ft // JOINT_FT)
    left, pups = length_ft - count * JOINT_FT, []
    for pup in PUPS_FT:
        if pup <= left:
            pups.append(pup)
            left -= pup
    return count, tuple(pups), left


def row_of(found: Producing, spaced: Spaced) -> TubingRow:
    """What is shown, every number of it worked with its working."""
    held, pipe = spaced.held, spaced.pipe
    cases = tuple(m.case for m in spaced.done)
    done = tuple(moved(held, cases[SET], m.case, f"completion/tubing/case/{k}") for k, m in enumerate(spaced.done))
    found_by = strengths(pipe, held, done)
    count, pups, off = _joints(held.length_ft)
    ups = [m.up_in for m in done if m.case.name != PULL]
    policy, own = found.well.policy.completion, found.equipped.design.completion
    first = done[SET]
    rows = tuple(_effect(k, held, m, {kind: found_by[kind][k] for kind in KINDS}) for k, m in enumerate(done))
    return TubingRow(
        decided=spaced.decided,
        od_in=pipe.od_in,
        weight_ppf=pipe.weight_ppf,
        grade=pipe.grade.grade,
        connection=pipe.connection,
        id_in=pipe.id_in,
        drift_in=pipe.drift_in,
        coupling_od_in=pipe.coupling_od_in,
        length_ft=held.length_ft,
        seal_bore_in=held.seal_bore_in,
        packer_md_ft=found.packer_md_ft,
        hanger_md_ft=found.hanger_md_ft,
        joints=count,
        pups_ft=pups,
        spaced_off_ft=off,
        slack_off_lbf=held.slack_off_lbf,
        slack_off_in=slack_in(held, cases[SET]),
        stroke_ft=own.stroke_ft if own.stroke_ft is not None else policy.stroke_ft,
        up_in=max([*ups, 0.0]),
        down_in=max([*(-u for u in ups), 0.0]),
        hanging_lbf=held.pipe.weight_ppf * held.drop_ft - first.end_lbf,
        cases=rows,
        loads=tuple(_loads(found, spaced, done)),
    )


def _effect(k: int, held: Held, m: Moved, found: dict) -> EffectRow:  # type: ignore[type-arg]
    case = m.case
    return EffectRow(
        name=case.name,
        inside_top_psi=case.inside_psi[0],
        inside_packer_psi=case.inside_psi[1],
        outside_top_psi=case.outside_psi[0],
        outside_packer_psi=case.outside_psi[1],
        heat_f=case.heat_f,
        piston_in=m.piston_in,
        buckling_in=m.buckling_in,
        ballooning_in=m.ballooning_in,
        temperature_in=m.temperature_in,
        total_in=m.total_in,
        moved_in=m.up_in,
        on_packer_lbf=m.push_lbf,
        helix_ft=m.helix_ft,
        top_lbf=held.pipe.weight_ppf * held.drop_ft - m.end_lbf,
        bottom_lbf=-m.end_lbf,
        factors={kind: s.factor for kind, s in found.items() if s is not None and not np.isnan(s.factor)},
        working=f"completion/tubing/case/{k}",
    )


def _loads(found: Producing, spaced: Spaced, done: tuple[Moved, ...]) -> list[TubingLoad]:
    """The governing point of each kind; what is unknown is left out, and told."""
    rows, factors = [], found.well.policy.pipe.factors
    by_kind = strengths(spaced.pipe, spaced.held, done)
    for kind in KINDS:
        strong = worst(by_kind[kind])
        if strong is None or np.isnan(strong.factor):
            continue
        again = worked(spaced.pipe, spaced.held, done[strong.case], strong)
        rows.append(
            TubingLoad(
                kind=kind,
                case=done[strong.case].case.name,
                factor=again.factor,
                required=required(factors, kind),
                md_ft=found.hanger_md_ft + strong.share * spaced.held.length_ft,
                load=again.load,
                rating=again.rating,
                working=f"completion/tubing/{kind}",
            )
        )
    return rows
