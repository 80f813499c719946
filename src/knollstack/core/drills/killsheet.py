"""The kill sheet of a hole: volumes and strokes, kill mud, pressures, and the drill pipe schedule by steps.

By measured depth for friction and by vertical depth for columns, so that it serves deviated holes and tapered strings.
"""

from __future__ import annotations

from knollstack.core.base.findings import Words
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.base.working import headline
from knollstack.core.depths.formulas import formation_pressure, maasp
from knollstack.core.drills.formulas import (
    final_circulating_pressure,
    influx_gradient,
    influx_length,
    initial_circulating_pressure,
    kill_mud,
    starting_casing_pressure,
)
from knollstack.core.drills.geometry import Stretch
from knollstack.core.drills.hole import annulus_of, bores_of, inside_of, slow_of, tubes_of
from knollstack.core.drills.methods import methods
from knollstack.core.drills.results import KillSheet, ShutIn
from knollstack.core.drills.schedule import schedule
from knollstack.core.drills.setup import Tube
from knollstack.core.drills.volumes import OPEN_HOLE, annulus_rows, string_rows, sums
from knollstack.core.mud.formulas import weight_up
from knollstack.core.program.equipped import Equipped, EquippedString


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


def kill_sheet(
    equipped: Equipped, below: EquippedString, md_ft: float, read: ShutIn | None, key: str
) -> KillSheet | None:
    """The sheet with the hole and the bit at a depth; None where its mud, its string or its casing is unknown.

    Its workings stand under `key`.
    """
    parts, mud = _sheet_parts(equipped, below, md_ft), below.mud_ppg
    if parts is None or mud is None:
        return None
    well = equipped.well
    with headline(f"{key}/slow"):
        slow = slow_of(equipped, below)
    shoe = below.previous_shoe_md_ft
    fracture = well.ground.fracture.one(well.path.tvd(shoe))
    under = well.site.setting == "subsea"
    inside = string_rows(slow, parts[0], key)
    annulus = annulus_rows(slow, parts[1], shoe, well.ground_md_ft if under else 0.0, key)
    open_bbl = sum(r.volume_bbl for r in annulus if r.part == OPEN_HOLE)
    whole = sum(r.volume_bbl for r in annulus)
    string_bbl = sum(r.volume_bbl for r in inside)
    found = sums(slow, string_bbl, open_bbl, whole, key)
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
        sums=found,
        to_bit=found[0].strokes,
        bit_to_shoe=found[1].strokes,
        bit_to_choke=found[2].strokes,
        read=read,
        working=key,
    )
    return sheet if read is None else _killed(equipped, sheet, read, parts[1], key)


def _maasp(key: str, name: str, fracture: float | None, mud: float, tvd: float) -> float | None:
    if fracture is None or tvd <= 0:
        return None
    with headline(f"{key}/{name}"):
        return float(maasp(fracture, mud, tvd))


def _shoe_words(equipped: Equipped, below: EquippedString) -> Words:
    outer = equipped.previous(below)
    return outer.shoe_words if outer is not None else ("shoe",)


def _killed(equipped: Equipped, sheet: KillSheet, read: ShutIn, annulus: list[Stretch], key: str) -> KillSheet:
    policy, well = equipped.well.policy, equipped.well
    with headline(f"{key}/influx_height"):
        height = _influx_tvd_ft(equipped, annulus, sheet.md_ft, read.gain_bbl)
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
            final = float(final_circulating_pressure(sheet.slow_psi, sheet.mud_ppg, kill))
        found |= {"fcp_psi": final, "schedule": schedule(sheet, well.path, kill, final)}
    active = sheet.string_bbl + sheet.open_bbl + sheet.cased_bbl + well.policy.mud.active_volume_bbl
    found["active_bbl"] = active
    if sheet.mud_ppg < kill < policy.mud.weighting_solid_ppg:
        with headline(f"{key}/barite"):
            found["barite_lb"] = float(
                weight_up(sheet.mud_ppg, kill, active, policy.mud.weighting_solid_ppg)["mass_lb"]
            )
    if sheet.choke_line_psi is not None:
        with headline(f"{key}/starting"):
            found["starting_psi"] = float(starting_casing_pressure(read.sicp_psi, sheet.choke_line_psi))
    done = sheet.model_copy(update=found)
    return done.model_copy(update={"methods": methods(done)})
