"""A design as the rig will live it: phases in time, from the run sheet's schedule, with the curves that they follow."""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import BaseModel

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.cement.detail import job_detail_of
from knollstack.core.document.design import Design
from knollstack.core.evaluation.evaluate import with_sheet
from knollstack.core.logbook.channels import Doing
from knollstack.core.logbook.drilled import as_drilled
from knollstack.core.program.equipped import Equipped
from knollstack.core.proposal.equipping import program_of
from knollstack.core.running.detail import tracks_of
from knollstack.core.runsheet.results import LineRow

HOURS_A_DAY = 24.0
GPM_PER_IN = 45.0
"""Pump rate of a hole for which none is given, per inch of its size: a planning value."""
MUD_PPG = 9.0
"""Of a hole whose mud is not known."""


class HookCurve(BaseModel):
    """Planned hook load while running in, by the depth of the shoe, block included where that is known."""

    shoe_md_ft: tuple[float, ...]
    in_lbf: tuple[float, ...]
    block_lbf: float


class JobCurve(BaseModel):
    """A cement job by minutes; `collar_bbl` is what bumps the plug."""

    minutes: tuple[float, ...]
    pumped_bbl: tuple[float, ...]
    in_bpm: tuple[float, ...]
    out_bpm: tuple[float, ...]
    pump_psi: tuple[float, ...]


class Phase(BaseModel):
    """What the rig does over a stretch of time; the bit, or the shoe, goes `from` one depth `to` another."""

    doing: Doing
    key: str
    string: int | None
    begins_h: float
    hours: float
    from_md_ft: float
    to_md_ft: float
    hole_md_ft: float
    """How deep the hole is when it begins."""
    bit_in: float | None = None
    flow_gpm: float = 0.0
    mud_ppg: float = MUD_PPG
    hook: HookCurve | None = None
    job: JobCurve | None = None
    """Of a leak-off test what is pumped, and the pressure."""


class Timeline(BaseModel):
    well: str
    begins: str
    """Date of the spud as YYYY-MM-DD; a made one where none is planned."""
    total_md_ft: float
    block_lbf: float
    pipe_lb_ft: float
    """Drill pipe in air."""
    phases: tuple[Phase, ...]


NO_SPUD = "2030-01-01"
BLOCK_LBF = 40_000.0
"""Of a rig whose block is not known."""
STEEL_LB_IN2_FT = 3.4
DRILL_COLLARS_LB = 40_000.0
TEST_BBL, TEST_BPM, TEST_POINTS, TEST_BREAK, TEST_BENT = 5.0, 0.25, 40, 0.7, 0.5
"""A leak-off test: volume, rate, readings, where it breaks, and how steep it goes on."""


def timeline_of(design: Design, catalogue: Catalogue) -> Timeline:
    """The phases of a design; with no string there is none."""
    worked = as_drilled(design).design
    _, sheet = with_sheet(worked, catalogue)
    equipped = program_of(worked, catalogue)
    site = equipped.well.site
    block = BLOCK_LBF if site.block_lbf is None else site.block_lbf
    pipe = equipped.well.drill_string(8.5)
    bore = pipe.pipe_id_in if pipe.pipe_id_in is not None else pipe.pipe_od_in * 0.85
    phases = tuple(_phases(equipped, sheet.lines, block)) if equipped.strings else ()
    return Timeline(
        well=worked.name,
        begins=worked.runsheet.spud or NO_SPUD,
        total_md_ft=equipped.well.path.total_md_ft,
        block_lbf=block,
        pipe_lb_ft=STEEL_LB_IN2_FT * 0.7853981634 * (pipe.pipe_od_in**2 - bore**2),
        phases=phases,
    )


def _phases(equipped: Equipped, lines: tuple[LineRow, ...], block: float) -> Iterator[Phase]:
    """The rig's own steps after the spud, one after another."""
    hole = equipped.well.ground_md_ft
    first = equipped.strings[0]
    hole = first.shoe_md_ft if first.run == "driven" else hole
    job_done: set[int] = set()
    for line in lines:
        if (
            line.begins is None
            or line.ends is None
            or line.ends <= max(0.0, line.begins)
            or line.beside
            or line.crossed
        ):
            continue
        doing = _doing(line)
        from_md, to_md = _way(line, doing, hole, equipped)
        string = equipped.strings[line.string] if line.string is not None else None
        phase = Phase(
            doing=doing,
            key=line.key,
            string=line.string,
            begins_h=max(0.0, line.begins) * HOURS_A_DAY,
            hours=(line.ends - max(0.0, line.begins)) * HOURS_A_DAY,
            from_md_ft=from_md,
            to_md_ft=to_md,
            hole_md_ft=hole,
        )
        if string is not None:
            flow = string.own.flow_gpm or GPM_PER_IN * (string.bit_in or 12.25)
            extra = {"bit_in": string.bit_in, "flow_gpm": flow, "mud_ppg": string.mud_ppg or MUD_PPG}
            phase = phase.model_copy(update=extra)
            if doing == "running casing":
                phase = phase.model_copy(update={"hook": _hook(equipped, string.index, block)})
            if doing == "cementing" and string.index not in job_done:
                job = _job(equipped, string.index)
                job_done.add(string.index)
                if job is not None:
                    phase = phase.model_copy(update={"job": job, "hours": max(phase.hours, job.minutes[-1] / 60.0)})
        if line.key.endswith("/leak-off") and string is not None:
            phase = phase.model_copy(
                update={"job": _leak_off(equipped, string.previous_shoe_md_ft, phase.mud_ppg, phase.hours)}
            )
        yield phase
        hole = max(hole, to_md) if doing == "drilling" else hole


def _doing(line: LineRow) -> Doing:
    if line.md_ft is not None:
        return "drilling"
    if line.kind == "tripping":
        return "tripping"
    if line.kind == "running casing" and "/pipe/" in line.key:
        return "running casing"
    return "cementing" if "/pump/" in line.key or "/displace/" in line.key else "other"


def _way(line: LineRow, doing: Doing, hole: float, equipped: Equipped) -> tuple[float, float]:
    """Depths between which the bit or the shoe goes."""
    if doing == "drilling":
        return hole, max(hole, line.md_ft or hole)
    if doing == "running casing" and line.string is not None:
        return 0.0, equipped.strings[line.string].shoe_md_ft
    if doing == "tripping":
        return (0.0, hole) if line.key.endswith("/bha") else (hole, 0.0)
    return 0.0, 0.0


def _hook(equipped: Equipped, index: int, block: float) -> HookCurve | None:
    tracks = tracks_of(equipped, index)
    if tracks is None or len(tracks.hook.shoe_md_ft) < 2:
        return None
    added = 0.0 if tracks.hook.block_lbf is not None else block
    loads = tuple(value + added for value in tracks.hook.in_lbf)
    return HookCurve(shoe_md_ft=tracks.hook.shoe_md_ft, in_lbf=loads, block_lbf=tracks.hook.block_lbf or block)


def _leak_off(equipped: Equipped, shoe_md_ft: float, mud_ppg: float, hours: float) -> JobCurve | None:
    """A test that breaks where the ground has its strength, pumped at a quarter of a barrel a minute."""
    tvd = equipped.well.path.tvd(shoe_md_ft)
    strength = equipped.well.ground.fracture.one(tvd)
    if strength is None or strength <= mud_ppg:
        return None
    leak_off = (strength - mud_ppg) * PSI_PER_PPG_FT * tvd
    shares = [k / TEST_POINTS for k in range(TEST_POINTS + 1)]
    line = [min(share, TEST_BREAK) / TEST_BREAK + max(0.0, share - TEST_BREAK) * TEST_BENT for share in shares]
    begins = hours * 60.0 * 0.3
    minutes = tuple(begins + share * TEST_BBL / TEST_BPM for share in shares)
    return JobCurve(
        minutes=minutes,
        pumped_bbl=tuple(share * TEST_BBL for share in shares),
        in_bpm=(TEST_BPM,) * len(shares),
        out_bpm=(0.0,) * len(shares),
        pump_psi=tuple(leak_off * value for value in line),
    )


def _job(equipped: Equipped, index: int) -> JobCurve | None:
    """The first stage, which is the one around the shoe."""
    detail = job_detail_of(equipped, index)
    if detail is None or not detail.stages:
        return None
    stage = detail.stages[0]
    end = stage.closing or len(stage.minutes)
    if end < 2:
        return None
    return JobCurve(
        minutes=stage.minutes[:end],
        pumped_bbl=stage.pumped_bbl[:end],
        in_bpm=stage.in_bpm[:end],
        out_bpm=stage.out_bpm[:end],
        pump_psi=stage.pump_psi[:end],
    )
