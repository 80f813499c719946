"""A string's loads as numbers on depths along it, before any pipe is chosen: all cases at once.

Nodes stand every fortieth of the length and at every mark of a case, so that curves are exact where they turn.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.formula import sweeping
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.ratings import derated_yield
from knollstack.core.ground.well import Well
from knollstack.core.path.trajectory import Path
from knollstack.core.pipe.cases import (
    LoadCase,
    Pressure,
    custom_case,
    is_depleted,
    liner_case,
    mud_behind,
    mud_column,
    pressure_test_case,
    running_cases,
    salt_spans,
    salt_without_overburden_ft,
)
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.formulas import casing_test_pressure
from knollstack.core.pipe.landed import landed_weight_lbf
from knollstack.core.pipe.service import Missing, drilling_cases, heated_case, production_cases
from knollstack.core.pipe.surface import surface_psi
from knollstack.core.program.column import column_of
from knollstack.core.program.laid import LaidString

Floats = NDArray[np.float64]
POINTS = 41
TEMPERATURE: Missing = "temperature"
TOLD: frozenset[Missing] = frozenset({"annuli", TEMPERATURE})
"""Loads that are told as unknown, and without which a pipe is chosen all the same."""
KEPT_BYTES = 24_000_000
LEAST_YIELD_SHARE = 0.3
"""Under it a linear derating says nothing of steel."""


@dataclass(frozen=True, eq=False)
class Frame:
    """What one string must stand. Arrays of pressures are case × node; `missing` names the loads that are unknown."""

    string: LaidString
    mud_ppg: float
    cases: tuple[LoadCase, ...]
    missing: tuple[Missing, ...]
    md_ft: Floats
    tvd_ft: Floats
    inside_psi: Floats
    outside_psi: Floats
    mud_psi: Floats
    set_inside_psi: Floats
    set_outside_psi: Floats
    inside_change_psi: Floats
    outside_change_psi: Floats
    heat_f: Floats
    free: NDArray[np.bool_]
    free_top: NDArray[np.bool_]
    """Of each case and node: above the cement, with the top not landed."""
    added_lbf: Floats
    shock_ft_s: Floats
    shoe_inside_psi: Floats
    shoe_outside_psi: Floats
    dogleg_deg_100ft: Floats
    inclination_deg: Floats
    hottest_f: Floats | None
    yield_share: Floats
    collapse_required: Floats
    uncemented: NDArray[np.bool_]

    @property
    def unchosen(self) -> bool:
        """A load is unknown without which no pipe is chosen."""
        return any(name not in TOLD for name in self.missing)

    @property
    def below_tvd_ft(self) -> Floats:
        """Vertical length of string below each node."""
        return self.tvd_ft[-1] - self.tvd_ft


def test_psi_of(well: Well, string: LaidString, exposed: Exposure) -> float | None:
    """The pressure test at the wellhead: as decided, else by policy; None where the pressure expected is unknown."""
    if string.own.test_psi is not None:
        return string.own.test_psi
    surface = surface_psi(well, exposed)
    return None if surface is None else float(casing_test_pressure(surface, well.policy.pipe.test_share))


def all_cases(
    well: Well, string: LaidString, exposed: Exposure, mud_ppg: float
) -> tuple[list[LoadCase], list[Missing]]:
    """Every case of a string, and the names of the loads that are unknown."""
    found = [
        *drilling_cases(well, string, exposed, mud_ppg),
        *production_cases(well, string, exposed, mud_ppg),
        *heated_case(well, string, exposed),
    ]
    cases = running_cases(well, string, mud_ppg)
    asked = test_psi_of(well, string, exposed)
    if asked:
        cases.append(pressure_test_case(well, string, mud_ppg, asked))
    cases += [case for case in found if isinstance(case, LoadCase)]
    if exposed.liner is not None:
        landed = landed_weight_lbf(well, exposed.liner)
        if landed is None:
            found.append("liner")
        else:
            cases.append(liner_case(mud_ppg, exposed.liner.top_md_ft, max(0.0, landed)))
    cases += [custom_case(well, load) for load in string.own.loads]
    missing: set[Missing] = {case for case in found if not isinstance(case, LoadCase)}
    if salt_without_overburden_ft(well, string) is not None:
        missing.add("salt")
    return cases, sorted(missing)


def _nodes(well: Well, string: LaidString, cases: list[LoadCase]) -> Floats:
    path, top, shoe = well.path, string.hung_md_ft, string.shoe_md_ft
    levels = [z for case in cases for z in case.marks_tvd_ft]
    levels += [z for span in salt_spans(well, string) for z in span]
    marks: list[float] = np.atleast_1d(path.md_at(np.array(levels))).tolist() if levels else []
    marks += [case.hung_at_md_ft for case in cases if case.hung_at_md_ft is not None]
    marks += [string.previous_shoe_md_ft, string.top_md_ft, *path.md_ft.tolist()]
    if well.policy.pipe.burst_backup == "pore" or is_depleted(well):
        marks += np.asarray(path.md_at(well.ground.pore.tvd_ft)).tolist()
    if string.cement_top_md_ft is not None:
        marks.append(string.cement_top_md_ft)
    inside = [m for m in marks if top + 0.5 < m < shoe - 0.5]
    return np.unique(np.concatenate([np.linspace(top, shoe, POINTS), inside]))


def _over_free_length(changes: Floats, md_ft: Floats, uncemented: NDArray[np.bool_]) -> Floats:
    """Changes averaged over the length that can move; where the cement holds it, each depth has its own."""
    free = np.flatnonzero(uncemented)
    if not len(free) or len(md_ft) < 2:
        return changes
    ends = md_ft[: min(free[-1] + 2, len(md_ft))]
    mean = np.trapezoid(changes[..., : len(ends)], ends, axis=-1) / (ends[-1] - ends[0])
    return np.where(uncemented, mean[..., None], changes)


def _hottest_f(well: Well, tvd: Floats, heat: Floats) -> Floats | None:
    """Temperature at each node in the hottest case; None where it is unknown."""
    points = well.temperatures
    if not points:
        return None
    z, t = zip(*points, strict=True)
    return np.asarray(np.interp(tvd, z, t) + np.max(heat, axis=0, initial=0.0))


def _yield_share(rate_per_f: float, hottest_f: Floats | None, tvd: Floats) -> Floats | None:
    """Share of the cold yield left at each node in the hottest case; None where temperature is unknown."""
    if rate_per_f == 0:
        return np.ones(tvd.shape)
    return None if hottest_f is None else np.asarray(derated_yield(1.0, rate_per_f, hottest_f))


def _as_set(well: Well, string: LaidString, mud_ppg: float) -> tuple[Pressure, Pressure]:
    """Pressure inside and outside when the cement set: displacement fluid, and mud over wet cement."""
    inside = mud_column(string.displacement_ppg if string.displacement_ppg is not None else mud_ppg)
    column = column_of(well, string)
    return inside, mud_behind(well, string, mud_ppg) if column is None else column.wet_psi


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


@remembered(128, traced=True, most_bytes=KEPT_BYTES)
def build_frame(well: Well, string: LaidString, exposed: Exposure, breaks_md_ft: tuple[float, ...]) -> Frame | None:
    """The loads of a string, with nodes where its sections end; None where its mud is unknown."""
    mud = string.mud_ppg
    if mud is None:
        return None
    path, factors = well.path, well.policy.pipe.factors
    cases, missing = all_cases(well, string, exposed, mud)
    md = np.unique(np.concatenate([_nodes(well, string, cases), breaks_md_ft]))
    tvd = path.tvd_at(md)
    with sweeping():
        inside, outside = np.empty((2, len(cases), len(tvd)))
        for i, case in enumerate(cases):
            inside[i], outside[i] = case.internal_psi(tvd), case.external_psi(tvd)
        mud_psi = np.asarray(mud_behind(well, string, mud)(tvd))
        span = max(float(tvd[-1] - tvd[0]), 1e-9)
        along = (tvd - tvd[0]) / span
        heat = np.array([c.heat.along(along) for c in cases])
        hottest = _hottest_f(well, tvd, heat)
        share = _yield_share(well.policy.pipe.derate_per_f, hottest, tvd)
    if share is None:
        missing = sorted({*missing, TEMPERATURE})
    elif np.min(share) < LEAST_YIELD_SHARE:
        missing, share = [*missing, "derating"], np.maximum(share, LEAST_YIELD_SHARE)
    cement = string.cement_top_md_ft
    uncemented = md < cement - 1e-6 if cement is not None else np.ones(md.shape, dtype=bool)
    set_inside, set_outside = _as_set(well, string, mud)
    at_set = np.asarray(set_inside(tvd)), np.asarray(set_outside(tvd))
    leg = np.clip(np.searchsorted(path.md_ft, md, side="left"), 1, len(path.md_ft) - 1)
    changes = _over_free_length(np.array([inside - at_set[0], outside - at_set[1], heat]), md, uncemented)
    free = np.array([c.free for c in cases])
    return Frame(
        string=string,
        mud_ppg=mud,
        cases=tuple(cases),
        missing=tuple(missing),
        md_ft=md,
        tvd_ft=tvd,
        inside_psi=inside,
        outside_psi=outside,
        mud_psi=mud_psi,
        set_inside_psi=at_set[0],
        set_outside_psi=at_set[1],
        inside_change_psi=changes[0],
        outside_change_psi=changes[1],
        heat_f=changes[2],
        free=free,
        free_top=np.array([c.free_top for c in cases])[:, None] & uncemented,
        added_lbf=np.array([_added(case, md) for case in cases]),
        shock_ft_s=np.array([c.shock_ft_s for c in cases]),
        shoe_inside_psi=inside[:, -1],
        shoe_outside_psi=outside[:, -1],
        dogleg_deg_100ft=_doglegs(path, md),
        inclination_deg=np.degrees(np.arccos(np.clip(path.down[leg], -1, 1))),
        hottest_f=hottest,
        yield_share=share if share is not None else np.ones(tvd.shape),
        # wet cement holds nothing: the lower factor counts from when it has set
        collapse_required=np.where(free[:, None] | uncemented, factors.collapse, factors.collapse_cemented),
        uncemented=uncemented,
    )
