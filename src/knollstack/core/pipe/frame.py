"""A string's loads as numbers on depths along it, before any pipe is chosen: all cases at once.

Nodes stand every fortieth of the length and at every mark of a case, so that curves are exact where they turn.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.cement.column import slurry_ppg
from knollstack.core.formula import sweeping
from knollstack.core.pipe.cases import LoadCase, custom_case, liner_case, running_cases, salt_spans, test_case
from knollstack.core.pipe.exposure import surface_psi
from knollstack.core.pipe.landed import landed_weight_lbf
from knollstack.core.pipe.ratings import DERATE_FROM_F
from knollstack.core.pipe.service import drilling_cases, production_cases
from knollstack.core.program import Planned, Program
from knollstack.core.trajectory import Path

Floats = NDArray[np.float64]
POINTS = 41


@dataclass(frozen=True)
class Frame:
    """What one string must stand. Arrays of pressures are case × node; `missing` names the loads that are unknown."""

    string: Planned
    mud_ppg: float
    cases: tuple[LoadCase, ...]
    missing: tuple[str, ...]
    md_ft: Floats
    tvd_ft: Floats
    inside_psi: Floats
    outside_psi: Floats
    mud_psi: Floats
    inside_change_psi: Floats
    outside_change_psi: Floats
    heat_f: Floats
    free: NDArray[np.bool_]
    added_lbf: Floats
    shock_ft_s: Floats
    shoe_outside_psi: Floats
    dogleg_deg_100ft: Floats
    inclination_deg: Floats
    yield_share: Floats
    collapse_required: Floats
    uncemented: NDArray[np.bool_]

    @property
    def below_tvd_ft(self) -> Floats:
        """Vertical length of string below each node."""
        return self.tvd_ft[-1] - self.tvd_ft


def all_cases(program: Program, string: Planned, mud_ppg: float) -> tuple[list[LoadCase], list[str]]:
    """Every case of a string, and the names of the loads that are unknown."""
    slurry = slurry_ppg(string) if string.cement_top_md_ft is not None else None
    found = [*drilling_cases(program, string, mud_ppg), *production_cases(program, string, mud_ppg)]
    cases = running_cases(program, string, mud_ppg, slurry)
    surface = surface_psi(program, string)
    asked = string.own.test_psi
    if asked is None and surface is not None:
        asked = surface * program.well.policy.test_share
    if asked:
        cases.append(test_case(program, string, mud_ppg, slurry, asked))
    cases += [case for case in found if isinstance(case, LoadCase)]
    liner = program.next(string)
    if liner is not None and liner.run == "liner" and not liner.own.tie_back:
        landed = landed_weight_lbf(program, liner)
        if landed is None:
            found.append("liner")
        else:
            cases.append(liner_case(string, mud_ppg, liner.top_md_ft, max(0.0, landed)))
    cases += [custom_case(program, load) for load in string.own.loads]
    missing = [name for name in found if isinstance(name, str)]
    if salt_spans(program, string) and len(program.well.ground.model.overburden) < 2:
        missing.append("salt")
    return cases, sorted(set(missing))


def _nodes(program: Program, string: Planned, cases: list[LoadCase]) -> Floats:
    path, top, shoe = program.well.path, string.hung_md_ft, string.shoe_md_ft
    levels = [z for case in cases for z in case.marks_tvd_ft]
    levels += [z for span in salt_spans(program, string) for z in span]
    marks: list[float] = np.atleast_1d(path.md_at(np.array(levels))).tolist() if levels else []
    marks += [case.hung_at_md_ft for case in cases if case.hung_at_md_ft is not None]
    marks += [string.previous_shoe_md_ft, string.top_md_ft, *path.md_ft.tolist()]
    if program.well.policy.burst_backup == "pore":
        marks += np.asarray(path.md_at(program.well.ground.pore.tvd_ft)).tolist()
    if string.cement_top_md_ft is not None:
        marks.append(string.cement_top_md_ft)
    inside = [m for m in marks if top + 0.5 < m < shoe - 0.5]
    return np.unique(np.concatenate([np.linspace(top, shoe, POINTS), inside]))


def _over_free_length(changes: Floats, md_ft: Floats, uncemented: NDArray[np.bool_]) -> Floats:
    """Changes averaged over the length that can move; where the cement holds it, each depth has its own."""
    if not np.any(uncemented) or len(md_ft) < 2:
        return changes
    free = np.flatnonzero(uncemented)
    ends = md_ft[: min(free[-1] + 2, len(md_ft))]
    mean = np.trapezoid(changes[:, : len(ends)], ends, axis=1) / (ends[-1] - ends[0])
    return np.where(uncemented[None, :], mean[:, None], changes)


def _yield_share(program: Program, tvd: Floats, heat: Floats) -> Floats | None:
    """Share of the cold yield left at each node in the hottest case; None where temperature is unknown."""
    rate = program.well.policy.derate_per_f
    if rate == 0:
        return np.ones(tvd.shape)
    points = program.well.temperatures
    if not points:
        return None
    z, t = zip(*points, strict=True)
    hottest = np.interp(tvd, z, t) + np.max(heat, axis=0, initial=0.0)
    return np.asarray(1 - rate * np.maximum(hottest - DERATE_FROM_F, 0))


def _added(case: LoadCase, md_ft: Floats) -> Floats:
    """Force added along the string: everywhere, or above the depth where it is hung."""
    if case.hung_at_md_ft is None:
        return np.full(md_ft.shape, case.overpull_lbf)
    return np.where(md_ft <= case.hung_at_md_ft + 1e-6, case.overpull_lbf, 0.0)


def _doglegs(path: Path, md_ft: Floats) -> Floats:
    """Dogleg of the leg that each depth is in; at a station the sharper of the two."""
    above = np.clip(np.searchsorted(path.md_ft, md_ft, side="left"), 1, len(path.md_ft) - 1)
    below = np.clip(np.searchsorted(path.md_ft, md_ft, side="right"), 1, len(path.md_ft) - 1)
    return np.maximum(path.dogleg_deg_100ft[above], path.dogleg_deg_100ft[below])


def build_frame(program: Program, string: Planned, breaks_md_ft: tuple[float, ...] = ()) -> Frame | None:
    """The loads of a string, with nodes where its sections end; None where its mud is unknown."""
    mud = string.mud_ppg
    if mud is None:
        return None
    path, factors = program.well.path, program.well.policy.factors
    cases, missing = all_cases(program, string, mud)
    md = np.unique(np.concatenate([_nodes(program, string, cases), breaks_md_ft]))
    tvd = path.tvd_at(md)
    with sweeping():
        inside = np.array([np.broadcast_to(case.internal_psi(tvd), tvd.shape) for case in cases])
        outside = np.array([np.broadcast_to(case.external_psi(tvd), tvd.shape) for case in cases])
    mud_psi = 12 / 231 * mud * tvd
    span = max(float(tvd[-1] - tvd[0]), 1e-9)
    along = (tvd - tvd[0]) / span
    heat = np.array([c.heat_top_f + (c.heat_bottom_f - c.heat_top_f) * along for c in cases])
    cement = string.cement_top_md_ft
    uncemented = md < cement - 1e-6 if cement is not None else np.ones(md.shape, dtype=bool)
    share = _yield_share(program, tvd, heat)
    if share is None:
        missing = [*missing, "temperature"]
    leg = np.clip(np.searchsorted(path.md_ft, md, side="left"), 1, len(path.md_ft) - 1)
    return Frame(
        string=string, mud_ppg=mud, cases=tuple(cases), missing=tuple(missing), md_ft=md, tvd_ft=tvd,
        inside_psi=inside, outside_psi=outside, mud_psi=mud_psi,
        inside_change_psi=_over_free_length(inside - mud_psi, md, uncemented),
        outside_change_psi=_over_free_length(outside - mud_psi, md, uncemented),
        heat_f=_over_free_length(heat, md, uncemented),
        free=np.array([c.free for c in cases]), added_lbf=np.array([_added(case, md) for case in cases]),
        shock_ft_s=np.array([c.shock_ft_s for c in cases]), shoe_outside_psi=outside[:, -1],
        dogleg_deg_100ft=_doglegs(path, md),
        inclination_deg=np.degrees(np.arccos(np.clip(path.down[leg], -1, 1))),
        yield_share=share if share is not None else np.ones(tvd.shape),
        # wet cement holds nothing: the lower factor counts from when it has set
        collapse_required=np.where(
            np.array([c.free for c in cases])[:, None] | uncemented, factors.collapse, factors.collapse_cemented
        ),
        uncemented=uncemented,
    )  # fmt: skip
