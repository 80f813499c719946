"""A hole as it is drilled: its string from the bit up, what is around it, and its pump pressure at the slow rate."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.constants import GAL_PER_BBL
from knollstack.core.base.formula import Value
from knollstack.core.cement.rheology import Law, law_of
from knollstack.core.drills.formulas import bit_pressure_drop, pump_pressure_at_rate
from knollstack.core.drills.geometry import Stretch
from knollstack.core.drills.setup import ENDLESS, Tube
from knollstack.core.mud.formulas import annular_velocity
from knollstack.core.mud.pipe_flow import bore_velocity
from knollstack.core.preventers.tubulars import drill_pipe_id_in, joint_of, tool_joint_in
from knollstack.core.program.equipped import Equipped, EquippedString

COLLAR_BORE_IN = 2.8125
"""Usual bore of collars, where policy gives none."""
JOINT_FT = 31.5
"""Usual length of a joint of drill pipe with its tool joint."""
CASING_JOINT_FT = 40.0


@dataclass(frozen=True)
class Slow:
    """Slow circulating rate: read in the hole, or estimated from its mud; None where neither is possible."""

    spm: float
    bbl_stroke: float
    psi: float | None
    read: bool

    @property
    def gpm(self) -> float:
        return self.spm * self.bbl_stroke * GAL_PER_BBL


def tubes_of(equipped: Equipped, below: EquippedString) -> tuple[Tube, ...]:
    """The drill string from the bit up: as run where that is given, else policy's for the hole."""
    given = [p for p in equipped.design.drills.parts if p.hole == below.id]
    if given:
        found = []
        for part in given:
            joint = joint_of(equipped.catalogue, part)
            found.append(Tube(part.kind, part.length_ft or ENDLESS, part.od_in, part.id_in, joint))
        last = found[-1]
        return (*found[:-1], Tube(last.kind, ENDLESS, last.od_in, last.id_in, last.joint_in))
    if below.bit_in is None:
        return ()
    row = equipped.well.drill_string(below.bit_in)
    bore = drill_pipe_id_in(equipped.catalogue, row)
    if bore is None:
        return ()
    collars = Tube(
        "collars", row.collar_length_ft, row.collar_od_in, row.collar_id_in or COLLAR_BORE_IN, row.collar_od_in
    )
    pipe = Tube("drill pipe", ENDLESS, row.pipe_od_in, bore, tool_joint_in(equipped.catalogue, row))
    return (collars, pipe) if row.collar_length_ft > 0 else (pipe,)


def collar_bore_is_usual(equipped: Equipped, below: EquippedString) -> bool:
    """Policy's collars are in the string, and it gives them no bore."""
    if below.bit_in is None or any(p.hole == below.id for p in equipped.design.drills.parts):
        return False
    row = equipped.well.drill_string(below.bit_in)
    return row.collar_length_ft > 0 and row.collar_id_in is None


def bores_of(
    equipped: Equipped, below: EquippedString, depth_md_ft: float
) -> tuple[tuple[float, float, float], ...] | None:
    """Top, bottom and diameter of all that the hole is drilled through and is, from the ground down; None if unknown."""
    cased = equipped.cased_bores(below)
    if cased is None or below.bit_in is None:
        return None
    found, at = [], equipped.well.ground_md_ft
    for length, bore in cased:
        found.append((at, at + length, bore))
        at += length
    if found and equipped.well.site.setting != "subsea":
        found[0] = (0.0, *found[0][1:])  # on land and platforms the stack is counted as casing, from the rotary
    return (*found, (at, depth_md_ft, below.bit_in)) if depth_md_ft > at else tuple(found)


def inside_of(tubes: tuple[Tube, ...], bit_md_ft: float) -> list[tuple[Tube, float]]:
    """Parts with their lengths [ft] from the bit up to the rig floor."""
    found, left = [], bit_md_ft
    for tube in tubes:
        length = min(tube.length_ft, left)
        if length > 0:
            found.append((tube, length))
        left -= length
    return found


def slow_of(equipped: Equipped, below: EquippedString) -> Slow:
    """The slow rate of a hole and its circulating pressure with the bit at the end of it."""
    known, policy = equipped.design.drills, equipped.well.policy.drills
    output = known.pump_bbl_stroke if known.pump_bbl_stroke is not None else policy.pump_bbl_stroke
    rows = [row for row in known.slow if row.hole == below.id]
    if rows:
        row = min(rows, key=lambda r: abs(r.spm - policy.slow_spm))
        return Slow(row.spm, output, row.psi, True)
    slow = Slow(policy.slow_spm, output, None, False)
    return Slow(slow.spm, output, estimated_psi(equipped, below, slow.gpm), False)


def law(equipped: Equipped, below: EquippedString) -> Law | None:
    readings = [(rpm, getattr(below.own, f"reading_{rpm}")) for rpm in (3, 6, 300, 600)]
    held = tuple((rpm, dial) for rpm, dial in readings if dial is not None)
    usual = equipped.well.policy.mud.rheology
    return law_of(held, usual if usual != "Herschel-Bulkley" or len(held) > 2 else "Bingham")


def annulus_friction(
    found: Law | None, mud_ppg: float, gpm: float, tubes: tuple[Tube, ...], diameters: set[float]
) -> dict[tuple[float, float], float]:
    """Loss [psi/ft] in every annulus of the hole at a rate; empty where the mud is not known."""
    if found is None:
        return {}
    pairs = [(outer, tube.od_in) for outer in diameters for tube in tubes if outer > tube.od_in]
    return {
        pair: float(found.annulus_psi_ft(annular_velocity(gpm, *pair), mud_ppg, *pair)) for pair in dict.fromkeys(pairs)
    }


def estimated_psi(equipped: Equipped, below: EquippedString, gpm: float) -> float | None:
    """Pump pressure at a rate: pipe, nozzles and annulus by the mud of the hole; None where something is unknown."""
    bores = bores_of(equipped, below, below.shoe_md_ft)
    if not tubes_of(equipped, below) or law(equipped, below) is None or below.mud_ppg is None or bores is None:
        return None
    return sum(friction_parts(equipped, below, gpm))


def friction_parts(equipped: Equipped, below: EquippedString, gpm: float) -> tuple[float, float]:
    """Friction of string with bit, and of the annulus [psi], at a rate, with the hole at its end."""
    tubes, found, mud = tubes_of(equipped, below), law(equipped, below), below.mud_ppg
    bores = bores_of(equipped, below, below.shoe_md_ft)
    assert found is not None
    assert mud is not None
    assert bores is not None
    psi = float(bit_pressure_drop(mud, gpm, equipped.well.policy.drills.nozzle_in2))
    for tube, length in inside_of(tubes, below.shoe_md_ft):
        psi += length * float(found.bore_psi_ft(bore_velocity(gpm, tube.id_in), mud, tube.id_in))
    friction = annulus_friction(found, mud, gpm, tubes, {bore for _, _, bore in bores})
    return psi, sum(s.friction_psi for s in annulus_of(tubes, bores, below.shoe_md_ft, friction))


def annulus_of(
    tubes: tuple[Tube, ...],
    bores: tuple[tuple[float, float, float], ...],
    bit_md_ft: float,
    friction: dict[tuple[float, float], float],
) -> list[Stretch]:
    """The annulus from the top of the bores down to the bit, one stretch for each pair of diameters."""
    found: list[Stretch] = []
    parts = inside_of(tubes, bit_md_ft)
    for top, bottom, outer in bores:
        at = bit_md_ft
        inner: list[Stretch] = []
        for tube, length in parts:
            low, high = max(top, at - length), min(bottom, at)
            if high > low:
                lost = friction.get((outer, tube.od_in), 0.0) * (high - low)
                inner.append(Stretch(low, high, outer, tube.od_in, lost))
            at -= length
        found += reversed(inner)
    return found


def at_rate(slow: Slow, gpm: Value) -> Value:
    """Circulating pressure at another rate."""
    return pump_pressure_at_rate(slow.psi or 0.0, gpm, slow.gpm)
