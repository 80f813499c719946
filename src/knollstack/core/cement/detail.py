"""One string's job in full, asked by its view: every moment of every stage."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.formula import sweeping
from knollstack.core.cement.checks import Worked
from knollstack.core.cement.closing import green_test_psi
from knollstack.core.cement.conduit import Stretch
from knollstack.core.cement.events import emw_of, events_of
from knollstack.core.cement.job import Followed, job_of
from knollstack.core.cement.pressures import at_depths
from knollstack.core.cement.results_job import DrawnFluid, DrawnStretch, JobDetail, RockTrack, StageDetail
from knollstack.core.cement.train import Missing
from knollstack.core.document.cementing import SLURRIES
from knollstack.core.program.equipped import Equipped

Floats = NDArray[np.float64]
NODE_FT = 400.0
UNDER_FT = 0.05
"""Under the plug, where a place is told besides its seat."""


def _row(values: Floats, digits: int = 2) -> tuple[float, ...]:
    return tuple(np.round(values, digits).tolist())


def _rows(values: Floats, digits: int = 1) -> tuple[tuple[float, ...], ...]:
    return tuple(tuple(row) for row in np.round(values, digits).tolist())


@sweeping()
def job_detail_of(equipped: Equipped, index: int) -> JobDetail | None:
    """None where there is no such string, or none that is cemented in a drilled hole."""
    if not 0 <= index < len(equipped.strings):
        return None
    string = equipped.strings[index]
    if not string.drilled or string.slurry is None:
        return None
    bores, test_psi = equipped.cased_bores(string), green_test_psi(equipped, string)
    job = job_of(equipped.well, string, None if bores is None else tuple(bores))
    if isinstance(job, Missing):
        return JobDetail(stages=(), missing=f"The job in time is unknown without {job.words}.", place=job.place)
    return JobDetail(stages=tuple(_stage(stage, test_psi) for stage in job), missing=None, place=None)


def _nodes(followed: Followed) -> Floats:
    """Fixed depths at which pressures are told: both ends of every stretch, bends of the path, and some between."""
    way = followed.worked.stage.conduit
    ends = [m for s in (*way.pipe, *way.annulus) for m in (s.top_md_ft, s.base_md_ft)]
    marks = way.path.marks_md_ft
    even = np.arange(0.0, way.end_md_ft, NODE_FT)
    plug = [way.seat_md_ft + UNDER_FT] if way.seat_md_ft + UNDER_FT < way.end_md_ft else []
    return np.unique(np.concatenate([ends, marks[marks < way.end_md_ft], even, plug]))


Parts = tuple[Worked, ...]
"""The stage while it is pumped, and once it is closed."""


def _by_moment(parts: Parts, of: Callable[[Worked], Floats]) -> Floats:
    return np.concatenate([of(part) for part in parts])


def _stage(followed: Followed, test_psi: float | None) -> StageDetail:
    held, shut = followed.worked, followed.closed_with(test_psi)
    parts: Parts = (held, shut.worked)
    way, nodes = held.stage.conduit, _nodes(followed)
    near = followed.fracture
    mud = DrawnFluid(kind="mud", name="mud", density_ppg=held.stage.mud_ppg)
    drawn = (DrawnFluid(kind=f.kind, name=f.name, density_ppg=f.density_ppg) for f in held.stage.fluids)
    slurries = [k for k, f in enumerate(held.stage.fluids, 1) if f.kind in SLURRIES] or [0]

    def course(name: str) -> Floats:
        return _by_moment(parts, lambda part: np.asarray(getattr(part.course, name)))

    def emw_at(md_ft: float) -> Floats:
        return _by_moment(parts, lambda part: _emw(followed, part, md_ft))

    return StageDetail(
        number=held.stage.number,
        inner=way.inner,
        returns_md_ft=way.returns_md_ft,
        end_md_ft=way.end_md_ft,
        seat_md_ft=way.seat_md_ft,
        plugs_md_ft=held.stage.plugs_md_ft,
        bottom_plug=held.stage.bottom_plug,
        fluids=(mud, *drawn),
        pipe=_drawn(way.pipe),
        annulus=_drawn(way.annulus),
        first_slurry=slurries[0],
        last_slurry=slurries[-1],
        closing=len(held.course.minutes),
        minutes=_row(course("minutes"), 3),
        pumped_bbl=_row(course("pumped_bbl"), 3),
        in_bpm=_row(course("in_bpm")),
        out_bpm=_row(course("out_bpm")),
        pump_psi=_row(course("pump_psi"), 1),
        level_md_ft=_row(_by_moment(parts, lambda part: part.pipe.md_ft[:, 0]), 1),
        shoe_ppg=_row(emw_at(way.end_md_ft), 3),
        weakest_ppg=() if near is None else _row(emw_at(near.md_ft), 3),
        weakest_md_ft=None if near is None else near.md_ft,
        weakest_fracture_ppg=None if near is None else emw_of(followed, near.limit, near.md_ft),
        pipe_md_ft=_rows(_by_moment(parts, lambda part: part.pipe.md_ft)),
        pipe_psi=_rows(_by_moment(parts, _pipe_psi)),
        annulus_md_ft=_rows(_by_moment(parts, lambda part: part.annulus.md_ft)),
        annulus_psi=_rows(_by_moment(parts, lambda part: part.annulus.psi)),
        nodes_md_ft=_row(nodes),
        node_pipe_psi=_rows(_by_moment(parts, lambda part: part.inside_psi(nodes))),
        node_annulus_psi=_rows(_by_moment(parts, lambda part: at_depths(part.balance, part.annulus, nodes))),
        rock=_rock(followed, parts),
        events=events_of(followed, shut),
    )


def _pipe_psi(part: Worked) -> Floats:
    """At the boundaries of the fluids; under a plug that has landed without what it holds."""
    if part.plug_psi is None:
        return part.pipe.psi
    under = part.pipe.md_ft > part.stage.conduit.seat_md_ft + UNDER_FT
    return np.asarray(part.pipe.psi - np.where(under, part.plug_psi[:, None], 0.0))


def _drawn(stretches: tuple[Stretch, ...]) -> tuple[DrawnStretch, ...]:
    return tuple(
        DrawnStretch(top_md_ft=s.top_md_ft, base_md_ft=s.base_md_ft, outer_in=s.outer_in, inner_in=s.inner_in)
        for s in stretches
    )


def _emw(followed: Followed, part: Worked, md_ft: float) -> Floats:
    """Equivalent weight of the annulus at one depth by moment."""
    tvd = max(followed.well.path.tvd(md_ft), 1e-6)
    psi = at_depths(part.balance, part.annulus, np.array([md_ft]))[:, 0]
    return np.asarray(psi / (PSI_PER_PPG_FT * tvd))


def _rock(followed: Followed, parts: Parts) -> RockTrack | None:
    hole = followed.hole
    if hole is None:
        return None
    still = at_depths(parts[1].balance, parts[1].annulus, hole.md_ft)
    weight = PSI_PER_PPG_FT * np.maximum(followed.well.path.tvd_at(hole.md_ft), 1e-6)

    def known(values: Floats) -> tuple[float | None, ...]:
        return tuple(None if np.isnan(v) else round(float(v), 3) for v in values / weight)

    return RockTrack(
        md_ft=_row(hole.md_ft),
        now_ppg=_rows(np.concatenate([hole.annulus_psi, still]) / weight, 3),
        greatest_ppg=_row(hole.annulus_psi.max(axis=0) / weight, 3),
        least_ppg=_row(hole.annulus_psi.min(axis=0) / weight, 3),
        fracture_ppg=known(hole.fracture_psi),
        pore_ppg=known(hole.pore_psi),
    )
