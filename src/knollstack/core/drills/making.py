"""A scene made from the design: the well as it stands when the drill begins, and what will happen."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

import numpy as np

from knollstack.core.base.constants import BBL_PER_FT_PER_IN2, PSI_PER_PPG_FT
from knollstack.core.drills.from_design import setup_of
from knollstack.core.drills.gas import ATMOSPHERE_PSI, gas_of
from knollstack.core.drills.geometry import Way
from knollstack.core.drills.hole import CASING_JOINT_FT
from knollstack.core.drills.made import Made, NotPlayableError
from knollstack.core.drills.scene import Scene
from knollstack.core.drills.scenes import drift_of, scene_rows
from knollstack.core.drills.setup import ENDLESS, Setup, Tube
from knollstack.core.drills.theory import Circulating, moment
from knollstack.core.preventers.results import StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.disconnect import stack_over

OVER_PPG = {"basic": 0.3, "standard": 0.5, "demanding": 0.7}
TRIP_PPG = {"basic": 0.15, "standard": 0.25, "demanding": 0.35}
SWAB_PSI = {"basic": 150.0, "standard": 200.0, "demanding": 260.0}
LEAK_CV = {"basic": 6.0, "standard": 4.0, "demanding": 2.5}
SHOE_SPARE_PSI = 100.0
OVER_ECD_PSI = 100.0
OVER_STACK_FT = 60.0
EARLY_BBL = {"basic": 10.0, "standard": 12.0, "demanding": 20.0}
"""Gain of a crew that shuts in early."""
MOMENTS = 50
"""Of circulating out, at which the rock is tried."""
SHARES = (1.0, 0.8, 0.6, 0.45, 0.3)


def made(equipped: Equipped, results: Mapping[str, Any], scene: Scene) -> Made:
    below = next((s for s in equipped.strings if s.id == scene.hole), None)
    if below is None or below.index == 0:
        raise NotPlayableError("this hole is not drilled under preventers")
    row = next(r for r in scene_rows(equipped, results, below) if r.kind == scene.kind)
    if row.why_not:
        raise NotPlayableError(row.why_not)
    if not below.previous_shoe_md_ft < scene.md_ft <= below.shoe_md_ft:
        raise NotPlayableError("the depth is not in this hole")
    stack = stack_over(equipped, results["preventers"], below)
    assert stack is not None
    random = np.random.default_rng(scene.seed)
    found = Made(scene, setup_of(equipped, stack, below, scene), below.hole_words, float(random.integers(45, 150)))
    return _particular(equipped, results, stack, below, found, random)


def _over(setup: Setup, ppg: float) -> Setup:
    return replace(setup, pore_psi=setup.pore_psi + PSI_PER_PPG_FT * ppg * setup.hole_tvd_ft)


def _moving_psi(setup: Setup) -> float:
    """What the annulus adds on bottom at the rate of drilling."""
    pumps = setup.pumps
    return setup.slow_annulus_psi * (pumps.drilling_spm / pumps.slow_spm) ** pumps.annulus_power


def _drilled_into(setup: Setup, ppg: float, early_bbl: float) -> tuple[Setup, bool]:
    """A formation that flows with the pumps on, where the rock stands it; else one that flows on a connection."""
    rest, moving = setup.pore_psi, _moving_psi(setup)
    over = max(PSI_PER_PPG_FT * ppg * setup.hole_tvd_ft, moving + OVER_ECD_PSI)
    for more in (over, moving + OVER_ECD_PSI):
        tried = replace(setup, pore_psi=rest + more)
        if setup.diverter or _holds(tried, early_bbl):
            return tried, False
    return _standing(_over(setup, ppg), early_bbl), True


def _standing(setup: Setup, early_bbl: float) -> Setup:
    """The kick no stronger than the rock stands with a crew that shuts in early; refused where it stands none."""
    rest = PSI_PER_PPG_FT * setup.mud_ppg * setup.hole_tvd_ft
    over = setup.pore_psi - rest
    for share in SHARES:
        tried = replace(setup, pore_psi=rest + share * over)
        if _holds(tried, early_bbl):
            return tried
    raise NotPlayableError(
        f"the rock below the shoe does not stand a kick of {early_bbl:.0f} bbl shut in and circulated out from this depth"
    )


def _holds(setup: Setup, early_bbl: float) -> bool:
    way, gas = (
        Way([*setup.choke_line(), *setup.annulus(setup.hole_md_ft, setup.string)], setup.depths),
        gas_of(setup.gas_sg),
    )
    heat = setup.heat.at(setup.hole_tvd_ft)
    amount = gas.amount(early_bbl, setup.pore_psi + ATMOSPHERE_PSI, heat)
    theory = Circulating(way, gas, setup.heat, setup.pore_psi, amount, setup.mud_ppg, setup.mud_ppg, 0.0)
    for rock in setup.rock:
        at, most = way.volume_at(rock.md_ft), rock.fracture_psi - SHOE_SPARE_PSI
        if any(moment(theory, at, way.total_bbl * k / MOMENTS).shoe_psi > most for k in range(MOMENTS)):
            return False
    return True


def _particular(
    equipped: Equipped,
    results: Mapping[str, Any],
    stack: StackRow,
    below: EquippedString,
    base: Made,
    random: np.random.Generator,
) -> Made:
    """What makes one scene differ from another."""
    scene, setup = base.scene, base.setup
    hard, kind = scene.difficulty, scene.kind
    leak = LEAK_CV[hard]
    annulars = tuple((e.index, leak) for e in setup.elements if e.kind == "annular")
    if kind in ("drilling", "failed annular", "leaking ram", "gas above"):
        kicking, connection = _drilled_into(setup, OVER_PPG[hard], EARLY_BBL[hard])
        found = replace(base, setup=_spaced(kicking, random), connection=connection)
        if kind == "failed annular":
            return replace(found, leaks=annulars)
        if kind == "leaking ram":
            rams = [e for e in setup.elements if e.kind == "ram" and e.on["drill pipe"] in ("seals", "seals and hangs")]
            return replace(found, leaks=((rams[-1].index, leak),), out_of_service=tuple(k for k, _ in annulars))
        return replace(found, riser_gas_bbl=4.0, starts_s=0.0) if kind == "gas above" else found
    if kind == "diverter":
        return replace(base, setup=_drilled_into(setup, OVER_PPG[hard], EARLY_BBL[hard])[0])
    if kind == "drift-off":
        row = drift_of(results["sea"])
        assert row is not None
        assert row.seconds is not None
        drift = (row.yellow_s or 0.0, row.red_s or 0.0, row.seconds)
        return replace(base, setup=_spaced(setup, random), drift=drift)
    return _tripping(
        equipped, below, replace(base, setup=_standing(_over(setup, TRIP_PPG[hard]), EARLY_BBL[hard])), random, annulars
    )


def _spaced(setup: Setup, random: np.random.Generator) -> Setup:
    """Where the tool joints stand is left to chance: the string is not spaced out."""
    return replace(setup, bit_md_ft=setup.hole_md_ft - float(random.uniform(0.0, 2.0)))


def _tripping(
    equipped: Equipped,
    below: EquippedString,
    found: Made,
    random: np.random.Generator,
    annulars: tuple[tuple[int, float], ...],
) -> Made:
    scene, setup = found.scene, found.setup
    deep = setup.hole_md_ft - setup.stack_md_ft
    if scene.kind == "tripping":
        bit = setup.stack_md_ft + deep * float(random.uniform(0.55, 0.75))
        return replace(found, setup=replace(setup, bit_md_ft=bit), pulling=True)
    if scene.kind == "swab":
        # the mud holds the formation at rest; pulling takes more than the overbalance off it
        rest = PSI_PER_PPG_FT * setup.mud_ppg * setup.hole_tvd_ft
        return replace(
            found,
            setup=replace(setup, pore_psi=rest - 20.0, bit_md_ft=setup.hole_md_ft - 93.0),
            pulling=True,
            swab_psi=SWAB_PSI[scene.difficulty],
            starts_s=0.0,
        )
    if scene.kind == "no pipe":
        return replace(found, setup=replace(setup, bit_md_ft=None, string=()))
    if scene.kind == "casing":
        body = max(below.sections, key=lambda s: s.bottom_md_ft).pipe
        tube = Tube("casing", ENDLESS, body.od_in, body.id_in, body.coupling_od_in)
        # a liner stands across the stack only until its top has gone through
        bit = setup.stack_md_ft + min(deep, below.shoe_md_ft - below.top_md_ft) * float(random.uniform(0.5, 0.8))
        casing = replace(setup, string=(tube,), bit_md_ft=bit, joint_ft=CASING_JOINT_FT, friction={})
        return replace(
            found,
            setup=casing,
            float_holds=True,
            unfilled_bbl=min(20.0, 0.05 * bit * body.id_in**2 * BBL_PER_FT_PER_IN2),
        )
    collars = next((t for t in setup.string if t.kind == "collars"), None)
    if collars is None:
        raise NotPlayableError("the drill string has no collars")
    bit = setup.stack_md_ft + min(0.7 * collars.length_ft, 0.5 * deep)
    over = replace(collars, length_ft=bit - setup.stack_md_ft + min(OVER_STACK_FT, setup.stack_md_ft))
    held = replace(setup, string=(over, setup.string[-1]), bit_md_ft=bit)
    return replace(found, setup=held, leaks=annulars if scene.kind == "unshearable" else ())
