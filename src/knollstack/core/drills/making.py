"""A scene made from the design: the well as it stands when the drill begins, and what will happen."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.base.findings import Words
from knollstack.core.drills.formulas import radial_inflow
from knollstack.core.drills.gas import ATMOSPHERE_PSI, gas_of
from knollstack.core.drills.geometry import Line, Way
from knollstack.core.drills.hole import (
    CASING_JOINT_FT,
    GAL_BBL,
    JOINT_FT,
    Slow,
    annulus_friction,
    bores_of,
    friction_parts,
    law,
    slow_of,
    tubes_of,
)
from knollstack.core.drills.scene import Scene
from knollstack.core.drills.scenes import cover_of, drift_of, only_diverter, scene_rows
from knollstack.core.drills.setup import ENDLESS, Element, Pumps, Rock, Setup, Tube
from knollstack.core.drills.theory import Circulating, moment
from knollstack.core.drills.volumes import CHOKE_LINE_IN
from knollstack.core.ground.well import Well
from knollstack.core.preventers.coverage import verdict
from knollstack.core.preventers.results import ElementResult, StackRow, Verdict
from knollstack.core.preventers.stacks import Cavity
from knollstack.core.preventers.tubulars import Tubular
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.disconnect import stack_over

GAS_VISCOSITY_CP, DRAINAGE_FT = 0.025, 660.0
"""Of the kicking reservoir: planning values."""
MOST_ROCK = 8
LINE_STEPS = 60
DIVERTER_S = 30.0
DIVERTER_MD_FT = 5.0
PUMPS_OVER_SLOW = 3.0
MOST_OVER_SLOW = 4.0
RELIEF_PSI, RELIEF_SHARE = 5_000.0, 1.2
"""The pumps' relief valve: no lower than the pressure of drilling with a share over it."""
OVER_PPG = {"basic": 0.3, "standard": 0.5, "demanding": 0.7}
TRIP_PPG = {"basic": 0.15, "standard": 0.25, "demanding": 0.35}
FLOWS = {"basic": 0.6, "standard": 1.0, "demanding": 1.6}
"""Share of the inflow of policy's rock."""
SWAB_PSI = {"basic": 150.0, "standard": 200.0, "demanding": 260.0}
LEAK_CV = {"basic": 6.0, "standard": 4.0, "demanding": 2.5}
SHOE_SPARE_PSI = 100.0
OVER_ECD_PSI = 100.0
OVER_STACK_FT = 60.0
EARLY_BBL = {"basic": 10.0, "standard": 12.0, "demanding": 20.0}
"""Gain of a crew that shuts in early."""
SHARES = (1.0, 0.8, 0.6, 0.45, 0.3)


class NotPlayableError(ValueError):
    """A scene that this design cannot be played in; the message says why."""


@dataclass(frozen=True)
class Made:
    """A scene with its well, and the happenings of the clock."""

    scene: Scene
    setup: Setup
    words: Words
    starts_s: float
    """When the reservoir opens."""
    pulling: bool = False
    connection: bool = False
    """The pumps stand still for a connection when it begins: with them on the annulus holds the formation."""
    swab_psi: float = 0.0
    float_holds: bool = False
    unfilled_bbl: float = 0.0
    leaks: tuple[tuple[int, float], ...] = ()
    out_of_service: tuple[int, ...] = ()
    riser_gas_bbl: float = 0.0
    drift: tuple[float, float, float] | None = None
    """Seconds from the start of the drift to the yellow circle, the red circle and the limit."""


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
    found = Made(scene, _setup(equipped, stack, below, scene), below.hole_words, float(random.integers(45, 150)))
    return _particular(equipped, results, stack, below, found, random)


def _setup(equipped: Equipped, stack: StackRow, below: EquippedString, scene: Scene) -> Setup:
    well, mud = equipped.well, below.mud_ppg
    assert mud is not None
    slow, tubes, bores = slow_of(equipped, below), tubes_of(equipped, below), bores_of(equipped, below, scene.md_ft)
    assert bores is not None
    assert slow.psi is not None
    at_sea = well.site.setting == "subsea"
    stack_md = well.ground_md_ft if at_sea else max(2.0, well.site.rig_floor_ft - (stack.reach_ft or 0.0) / 2)
    bores = tuple((max(top, stack_md), bottom, size) for top, bottom, size in bores if bottom > stack_md)
    friction = annulus_friction(law(equipped, below), mud, slow.gpm, tubes, {bore for *_, bore in bores})
    tvd = well.path.tvd(scene.md_ft)
    return Setup(
        depths=_line(well, scene.md_ft),
        heat=_heat(well),
        bores=bores,
        over_in=well.policy.mud.riser_id_in if at_sea else bores[0][2],
        stack_md_ft=stack_md,
        hole_md_ft=scene.md_ft,
        string=tubes,
        bit_md_ft=scene.md_ft,
        joint_ft=JOINT_FT,
        mud_ppg=mud,
        friction=friction,
        choke_line_in=CHOKE_LINE_IN,
        choke_line_psi=(well.site.choke_line_psi or 0.0) if at_sea else 0.0,
        pumps=_pumps(equipped, slow, below),
        rock=_rock(well, below, scene.md_ft),
        shoe_md_ft=below.previous_shoe_md_ft,
        pore_psi=PSI_PER_PPG_FT * mud * tvd,
        inflow_bpm_psi=float(
            radial_inflow(
                well.policy.drills.permeability_md,
                well.policy.drills.exposed_ft,
                1.0,
                GAS_VISCOSITY_CP,
                DRAINAGE_FT,
                bores[-1][2],
            )
        )
        * FLOWS[scene.difficulty],
        gas_sg=min(max(well.policy.pipe.gas_sg, 0.55), 1.2),
        slip_ft_min=well.policy.drills.slip_ft_min,
        elements=_elements(well, stack, below, stack_md, tubes),
        choke_at=stack.choke,
        pit_bbl=well.policy.mud.active_volume_bbl,
        class_psi=stack.class_psi,
        at_sea=at_sea,
        diverter=only_diverter(stack),
    )


def _line(well: Well, md_ft: float) -> Line:
    """The path, straight between points that stand dense where it turns."""
    marks = [float(m) for m in well.path.marks_md_ft if 0 < m < md_ft]
    if not well.path.is_straight:
        marks += [md_ft * k / LINE_STEPS for k in range(1, LINE_STEPS)]
    points = sorted({0.0, *marks, md_ft})
    return Line(tuple(points), tuple(well.path.tvd(p) for p in points))


def _heat(well: Well) -> Line:
    rows = well.temperatures or [(0.0, 70.0), (10_000.0, 220.0)]
    return Line(tuple(tvd for tvd, _ in rows), tuple(f for _, f in rows))


def _pumps(equipped: Equipped, slow: Slow, below: EquippedString) -> Pumps:
    """Pumps at the rate of the hole, or three times the slow rate; friction grows as the hole's mud has it between both."""
    assert slow.psi is not None
    drilling = slow.spm * PUMPS_OVER_SLOW
    if below.own.flow_gpm:
        drilling = max(below.own.flow_gpm / slow.bbl_stroke / GAL_BBL, slow.spm)
    powers, psi = (2.0, 1.0), slow.psi * (drilling / slow.spm) ** 2
    found, gpm = law(equipped, below), drilling * slow.bbl_stroke * GAL_BBL
    if found is not None and drilling > slow.spm:
        whole = [friction_parts(equipped, below, rate) for rate in (slow.gpm, gpm)]
        (string, annulus), (fast_string, fast_annulus) = whole
        span = math.log(drilling / slow.spm)
        powers = (
            min(max(math.log(fast_string / string) / span, 1.0), 2.0),
            min(max(math.log(fast_annulus / annulus) / span, 0.1), 2.0) if annulus > 0 else 1.0,
        )
        psi = slow.psi * (drilling / slow.spm) ** powers[0]
    return Pumps(
        slow.bbl_stroke,
        slow.spm,
        drilling,
        max(drilling, slow.spm * MOST_OVER_SLOW),
        slow.psi,
        powers[0],
        powers[1],
        max(RELIEF_PSI, RELIEF_SHARE * psi),
    )


def _rock(well: Well, below: EquippedString, md_ft: float) -> tuple[Rock, ...]:
    """The shoe, and the weakest of the depths below it where fracture pressure turns."""
    shoe = below.previous_shoe_md_ft
    marks = [float(m) for m in well.path.md_at(well.window.depths_ft) if shoe < m < md_ft]
    found = []
    for md in (shoe, *marks, md_ft):
        tvd = well.path.tvd(md)
        fracture = well.ground.fracture.lower_at(tvd)
        found.append(Rock(md, tvd, float(fracture) * PSI_PER_PPG_FT * tvd))
    mud = below.mud_ppg or 0.0
    spare = sorted(found[1:], key=lambda r: r.fracture_psi - PSI_PER_PPG_FT * mud * r.tvd_ft)
    return (found[0], *sorted(spare[: MOST_ROCK - 1], key=lambda r: r.md_ft))


def _elements(
    well: Well, stack: StackRow, below: EquippedString, stack_md: float, tubes: tuple[Tube, ...]
) -> tuple[Element, ...]:
    times = {row.element: row.seconds or row.allowed_seconds for row in stack.closing}
    running: Words = ("running ", *below.words, " casing")
    found = []
    for k, e in enumerate(stack.elements):
        if e.kind not in ("annular", "ram", "diverter"):
            continue
        on: dict[str, Verdict] = {}
        for kind in ("drill pipe", "tool joint", "collars", "heavy-weight pipe", "nothing"):
            tube = next((t for t in tubes if t.kind == kind or (kind == "tool joint" and t.kind == "drill pipe")), None)
            on[kind] = _on(stack, k, below.hole_words, kind, tube)
        for kind in ("casing", "coupling"):
            row = cover_of(stack, running, kind)
            on[kind] = row.cells[k] if row is not None else "unknown"
        middle = ((e.bottom_in or 0.0) + (e.top_in or 0.0)) / 24
        md = max(1.0, stack_md - middle)
        seconds = times.get(k, DIVERTER_S)
        found.append(Element(k, e.id, e.title, e.kind, e.element, md, seconds, on, e.hang_off_lbf))
    if well.site.setting == "subsea":
        top = len(stack.elements)
        diverts: dict[str, Verdict] = dict.fromkeys(
            ("drill pipe", "tool joint", "collars", "nothing", "casing"), "diverts"
        )
        found.append(
            Element(
                top, "rig-diverter", "diverter at the rig", "diverter", "diverter", DIVERTER_MD_FT, DIVERTER_S, diverts
            )
        )
    return tuple(found)


def _on(stack: StackRow, index: int, hole: Words, kind: str, tube: Tube | None) -> Verdict:
    """By the coverage of the stack; where the string as run has another size, worked for that."""
    row = cover_of(stack, hole, kind)
    wanted = None if tube is None else tube.joint_in if kind == "tool joint" else tube.od_in
    if row is not None and (wanted is None or abs(row.od_in - wanted) < 1e-6):
        return row.cells[index]
    if tube is None or wanted is None:
        return "unknown"
    known = stack.elements[index].model_dump(include=set(ElementResult.model_fields) - {"fits", "bottom_in", "top_in"})
    cavity = Cavity(index=index, **known, shears_to_in=None)
    return verdict(cavity, Tubular((), kind, (), wanted), None)  # type: ignore[arg-type]


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
        if any(moment(theory, at, way.total_bbl * k / 20).shoe_psi > most for k in range(20)):
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
        bit = setup.stack_md_ft + deep * float(random.uniform(0.5, 0.8))
        casing = replace(setup, string=(tube,), bit_md_ft=bit, joint_ft=CASING_JOINT_FT, friction={})
        return replace(
            found, setup=casing, float_holds=True, unfilled_bbl=min(20.0, 0.05 * bit * body.id_in**2 / 1029.4)
        )
    collars = next((t for t in setup.string if t.kind == "collars"), None)
    if collars is None:
        raise NotPlayableError("the drill string has no collars")
    bit = setup.stack_md_ft + min(0.7 * collars.length_ft, 0.5 * deep)
    over = replace(collars, length_ft=bit - setup.stack_md_ft + min(OVER_STACK_FT, setup.stack_md_ft))
    held = replace(setup, string=(over, setup.string[-1]), bit_md_ft=bit)
    return replace(found, setup=held, leaks=annulars if scene.kind == "unshearable" else ())
