"""The kill sheet of a hole: volumes and strokes, kill mud, pressures, and the drill pipe schedule by steps.

By measured depth for friction and by vertical depth for columns, so that it serves deviated holes and tapered strings.
"""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.base.findings import Words, size
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.working import headline
from knollstack.core.depths.formulas import formation_pressure, maasp
from knollstack.core.drills.formulas import (
    deviated_schedule_pressure,
    final_circulating_pressure,
    influx_gradient,
    influx_length,
    initial_circulating_pressure,
    kill_mud,
    pump_strokes,
)
from knollstack.core.drills.geometry import Stretch, capacity
from knollstack.core.drills.hole import Slow, annulus_of, bores_of, inside_of, pipe_bbl, slow_of, tubes_of
from knollstack.core.drills.results import KillRow, KillSheet, ShutIn, VolumeRow
from knollstack.core.drills.setup import Tube
from knollstack.core.mud.formulas import weight_up
from knollstack.core.program.equipped import Equipped, EquippedString

CHOKE_LINE_IN = 3.0
"""Usual bore of a choke line from the sea floor."""
ROWS = 10


def design_kick(equipped: Equipped, below: EquippedString, md_ft: float) -> ShutIn | None:
    """Pressures and gain of policy's kick with the hole at a depth; None where pore pressure or mud is unknown."""
    well = equipped.well
    tvd, mud = well.path.tvd(md_ft), below.mud_ppg
    pore = well.ground.pore.one(tvd)
    row = _sheet_parts(equipped, below, md_ft)
    if pore is None or mud is None or below.bit_in is None or row is None:
        return None
    with headline(f"drills/{below.index}/design_kick"):
        formation = float(formation_pressure(pore, well.policy.depths.kick_intensity_ppg, tvd))
        sidpp = max(0.0, formation - float(hydrostatic_pressure(mud, tvd)))
    gain = well.kick_minimum_bbl(below.bit_in)
    height = _influx_tvd_ft(equipped, row[1], md_ft, gain)
    light = (float(hydrostatic_pressure(mud, 1.0)) - well.policy.depths.influx_psi_ft) * height
    return ShutIn(sidpp_psi=sidpp, sicp_psi=max(0.0, sidpp + light), gain_bbl=gain)


def _sheet_parts(
    equipped: Equipped, below: EquippedString, md_ft: float
) -> tuple[list[tuple[Tube, float]], list[Stretch]] | None:
    tubes, bores = tubes_of(equipped, below), bores_of(equipped, below, md_ft)
    if not tubes or bores is None:
        return None
    return inside_of(tubes, md_ft), annulus_of(tubes, bores, md_ft, {})


def _influx_length(annulus: list[Stretch], gain_bbl: float) -> float:
    """Length along the hole that the influx fills from the bit up."""
    length, left = 0.0, gain_bbl
    for part in reversed(annulus):
        taken = min(left, part.capacity_bbl_ft * part.length_ft)
        length += float(influx_length(taken, part.capacity_bbl_ft)) if taken > 0 else 0.0
        left -= taken
    return length


def _influx_tvd_ft(equipped: Equipped, annulus: list[Stretch], md_ft: float, gain_bbl: float) -> float:
    path, length = equipped.well.path, _influx_length(annulus, gain_bbl)
    return path.tvd(md_ft) - path.tvd(max(md_ft - length, 0.0))


def kill_sheet(equipped: Equipped, below: EquippedString, md_ft: float, read: ShutIn | None) -> KillSheet | None:
    """The sheet with the hole and the bit at a depth; None where its mud, its string or its casing is unknown."""
    parts, mud = _sheet_parts(equipped, below, md_ft), below.mud_ppg
    if parts is None or mud is None:
        return None
    well, slow, key = equipped.well, slow_of(equipped, below), f"drills/{below.index}/sheet"
    shoe = min(below.previous_shoe_md_ft, md_ft)
    fracture = well.ground.fracture.one(well.path.tvd(shoe))
    with headline(key):
        inside, annulus = _volumes(slow, parts), _annulus(equipped, slow, parts[1], shoe)
        open_bbl = sum(r.volume_bbl for r in annulus if r.top_md_ft >= shoe - 1e-6)
        whole = sum(r.volume_bbl for r in annulus)
        string_bbl = sum(r.volume_bbl for r in inside)
        strokes = [float(pump_strokes(v, slow.bbl_stroke)) for v in (string_bbl, open_bbl, whole)]
    under = well.site.setting == "subsea"
    sheet = KillSheet(
        string=below.index,
        hole=below.hole_words,
        md_ft=md_ft,
        tvd_ft=well.path.tvd(md_ft),
        shoe_md_ft=shoe,
        shoe_tvd_ft=well.path.tvd(shoe),
        shoe=_shoe_words(equipped, below),
        mud_ppg=mud,
        fracture_ppg=fracture,
        maasp_psi=_maasp(key, "maasp", fracture, mud, well.path.tvd(shoe)),
        maasp_kill_psi=None,
        slow_spm=slow.spm,
        bbl_stroke=slow.bbl_stroke,
        slow_psi=slow.psi,
        slow_read=slow.read,
        choke_margin_psi=well.policy.drills.choke_margin_psi,
        choke_line_psi=well.site.choke_line_psi if under else 0.0,
        inside=tuple(inside),
        annulus=tuple(annulus),
        string_bbl=string_bbl,
        open_bbl=open_bbl,
        cased_bbl=whole - open_bbl,
        to_bit=strokes[0],
        bit_to_shoe=strokes[1],
        bit_to_choke=strokes[2],
        read=read,
        working=key,
    )
    return sheet if read is None else _killed(equipped, sheet, read, parts, key)


def _maasp(key: str, name: str, fracture: float | None, mud: float, tvd: float) -> float | None:
    if fracture is None or tvd <= 0:
        return None
    with headline(f"{key}/{name}"):
        return float(maasp(fracture, mud, tvd))


def _shoe_words(equipped: Equipped, below: EquippedString) -> Words:
    outer = equipped.previous(below)
    return outer.shoe_words if outer is not None else ("shoe",)


def _row(slow: Slow, words: Words, top: float, bottom: float, bbl: float) -> VolumeRow:
    strokes = float(pump_strokes(bbl, slow.bbl_stroke))
    return VolumeRow(
        part=words,
        top_md_ft=top,
        bottom_md_ft=bottom,
        capacity_bbl_ft=bbl / (bottom - top),
        volume_bbl=bbl,
        strokes=strokes,
        minutes=strokes / slow.spm,
    )


def _volumes(slow: Slow, parts: tuple[list[tuple[Tube, float]], list[Stretch]]) -> list[VolumeRow]:
    rows, top = [], 0.0
    for tube, length in reversed(parts[0]):
        rows.append(_row(slow, (size(tube.od_in), f" {tube.kind}"), top, top + length, pipe_bbl(tube, length)))
        top += length
    return rows


def _annulus(equipped: Equipped, slow: Slow, annulus: list[Stretch], shoe_md_ft: float) -> list[VolumeRow]:
    """From the bit up, as it comes back; at sea the choke line last."""
    rows = []
    for part in reversed(annulus):
        words: Words = ("open hole",) if part.top_md_ft >= shoe_md_ft - 1e-6 else ("casing",)
        rows.append(_row(slow, words, part.top_md_ft, part.bottom_md_ft, part.capacity_bbl_ft * part.length_ft))
    if equipped.well.site.setting == "subsea":
        length = equipped.well.ground_md_ft
        rows.append(_row(slow, ("choke line",), 0.0, length, capacity(CHOKE_LINE_IN) * length))
    return rows


def _killed(
    equipped: Equipped, sheet: KillSheet, read: ShutIn, parts: tuple[list[tuple[Tube, float]], list[Stretch]], key: str
) -> KillSheet:
    policy, well = equipped.well.policy, equipped.well
    height = _influx_tvd_ft(equipped, parts[1], sheet.md_ft, read.gain_bbl)
    with headline(f"{key}/kill_mud"):
        kill = float(kill_mud(sheet.mud_ppg, read.sidpp_psi, sheet.tvd_ft, policy.drills.kill_margin_ppg))
    found: dict[str, object] = {"kill_ppg": kill, "influx_ft": height}
    if height > 0:
        with headline(f"{key}/influx"):
            found["influx_psi_ft"] = float(influx_gradient(sheet.mud_ppg, read.sicp_psi, read.sidpp_psi, height))
    found["maasp_kill_psi"] = _maasp(key, "maasp_kill", sheet.fracture_ppg, kill, sheet.shoe_tvd_ft)
    if sheet.slow_psi is not None:
        with headline(f"{key}/icp"):
            found["icp_psi"] = float(initial_circulating_pressure(sheet.slow_psi, read.sidpp_psi))
        with headline(f"{key}/fcp"):
            found["fcp_psi"] = float(final_circulating_pressure(sheet.slow_psi, sheet.mud_ppg, kill))
        with headline(f"{key}/schedule"):
            found["schedule"] = _schedule(equipped, sheet, read, kill, float(str(found["fcp_psi"])), parts[0])
    active = sheet.string_bbl + sheet.open_bbl + sheet.cased_bbl + well.policy.mud.active_volume_bbl
    found["active_bbl"] = active
    if sheet.mud_ppg < kill < policy.mud.weighting_solid_ppg:
        with headline(f"{key}/barite"):
            found["barite_lb"] = float(
                weight_up(sheet.mud_ppg, kill, active, policy.mud.weighting_solid_ppg)["mass_lb"]
            )
    found["kill_minutes"] = (sheet.to_bit + sheet.bit_to_choke) / sheet.slow_spm
    return sheet.model_copy(update=found)


def _schedule(
    equipped: Equipped, sheet: KillSheet, read: ShutIn, kill: float, final: float, inside: list[tuple[Tube, float]]
) -> tuple[KillRow, ...]:
    """At tenths of the string's strokes, and where its size or the path turns."""
    assert sheet.slow_psi is not None
    path, ends, bbl, md = equipped.well.path, [(0.0, 0.0)], 0.0, 0.0
    for tube, length in reversed(inside):
        bbl, md = bbl + pipe_bbl(tube, length), md + length
        ends.append((bbl, md))
    wanted = {sheet.string_bbl * k / ROWS for k in range(ROWS + 1)} | {b for b, _ in ends}
    rows = []
    for pumped in sorted(wanted):
        front = _front(ends, pumped)
        psi = deviated_schedule_pressure(
            sheet.slow_psi, final, read.sidpp_psi, sheet.mud_ppg, kill, front, path.tvd(front), sheet.md_ft
        )
        strokes = float(pump_strokes(pumped, sheet.bbl_stroke))
        rows.append(
            KillRow(strokes=strokes, pumped_bbl=pumped, psi=float(psi), front_md_ft=front, front_tvd_ft=path.tvd(front))
        )
    return tuple(
        r
        for r, after in zip(rows, [*rows[1:], None], strict=True)
        if after is None or after.pumped_bbl - r.pumped_bbl > 1e-6
    )


def _front(ends: list[tuple[float, float]], pumped_bbl: float) -> float:
    for (low, top), (high, bottom) in pairwise(ends):
        if pumped_bbl <= high and high > low:
            return top + (bottom - top) * (pumped_bbl - low) / (high - low)
    return ends[-1][1]
