"""A section's mud at rest: overbalance zone by zone, volumes, weighting up from the section above, riser margin, sweeps."""

from __future__ import annotations

import math

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import annular_capacity, circle_capacity
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.ground.extremes import Spans, nodes_between, open_nodes, spans_of, worst_depth
from knollstack.core.ground.riserless import is_riserless
from knollstack.core.ground.well import Well
from knollstack.core.ground.window import sticking_limit_psi
from knollstack.core.mud.circulation import Bores
from knollstack.core.mud.formulas import dilution, overbalance, riser_margin_mud, weight_up
from knollstack.core.mud.results import MudVolumes, RiserResult, WeightUp, ZoneOverbalance
from knollstack.core.program.laid import LaidString


@remembered(128)
def overbalances(well: Well, top_md_ft: float, bottom_md_ft: float, mud_ppg: float) -> Spans:
    """What the mud at rest has over the pore pressure along a stretch of hole, as EMW × TVD."""
    nodes = open_nodes(well, top_md_ft, bottom_md_ft)
    return spans_of(lambda z: (mud_ppg - well.ground.pore.at(z)) * z, nodes)


def greatest_overbalance(
    well: Well, top_md_ft: float, bottom_md_ft: float, mud_ppg: float
) -> tuple[float, float] | None:
    """The greatest overbalance [psi] of the mud at rest along a stretch, and its TVD; None where pore pressure is unknown."""
    found = overbalances(well, top_md_ft, bottom_md_ft, mud_ppg).worst()
    if found is None:
        return None
    pore = well.ground.pore.beside(found.depth_ft, found.side)
    return float(overbalance(mud_ppg, pore, found.depth_ft)), found.depth_ft


@sweeping()
def zone_overbalance(well: Well, string: LaidString) -> tuple[ZoneOverbalance, ...]:
    """The greatest overbalance in every zone of the open hole; in permeable ones as a share of what would stick."""
    mud = string.mud_ppg
    if mud is None:
        return ()
    (top, bottom), pore = well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft), well.ground.pore
    rows = []
    for zone in well.ground.model.zones:
        low, high = max(top, zone.top_tvd_ft), min(bottom, zone.base_tvd_ft)
        if low >= high:
            continue
        found = overbalances(well, string.previous_shoe_md_ft, string.shoe_md_ft, mud).worst((low, high))
        if found is None:
            continue
        limit = sticking_limit_psi(zone, well.ground, well.policy.mud) if zone.permeable else None
        rows.append(
            ZoneOverbalance(
                name=zone.name,
                overbalance_psi=float(overbalance(mud, pore.beside(found.depth_ft, found.side), found.depth_ft)),
                at_md_ft=well.path.md(found.depth_ft),
                limit_psi=limit,
            )
        )
    return tuple(rows)


def volumes(well: Well, string: LaidString, bores: Bores) -> MudVolumes | None:
    """Mud in the hole at the end of the section with the drill string in it, at surface, and in all."""
    if string.bit_in is None or (string.index and bores is None):
        return None
    drill = well.drill_string(string.bit_in)
    open_ft = string.shoe_md_ft - string.previous_shoe_md_ft
    riser = 0.0
    if well.site.setting == "subsea":
        riser = float(circle_capacity(well.policy.mud.riser_id_in) * well.ground_md_ft)
    hole = circle_capacity(string.bit_in) * open_ft + riser
    hole += sum(circle_capacity(bore) * length for length, bore in bores or ())
    collars, pits = min(drill.collar_length_ft, string.shoe_md_ft), well.policy.mud.active_volume_bbl
    steel = None
    if drill.pipe_id_in is not None and drill.collar_id_in is not None:
        steel = annular_capacity(drill.collar_od_in, drill.collar_id_in) * collars
        steel += annular_capacity(drill.pipe_od_in, drill.pipe_id_in) * (string.shoe_md_ft - collars)
    return MudVolumes(
        hole_bbl=float(hole),
        riser_bbl=riser,
        string_displacement_bbl=steel,
        pits_bbl=pits,
        # a drill string that displaces more than there is does not go into this hole
        total_bbl=None if steel is None or hole - steel + pits <= 0 else float(hole - steel + pits),
    )


def weighting(
    well: Well, string: LaidString, above: LaidString | None, before: MudVolumes | None, in_all: MudVolumes | None
) -> WeightUp | None:
    """Raising the mud of the section above to this section's, in the volume then in hole and pits; or thinning it."""
    if above is None or above.mud_ppg is None or string.mud_ppg is None or in_all is None or not above.drilled:
        return None
    if before is None or before.total_bbl is None or above.role == "conductor":
        return None
    old, new = above.mud_ppg, string.mud_ppg
    if new > old:
        with headline(f"mud/{string.index}/weight_up"):
            found = weight_up(old, new, before.total_bbl, well.policy.mud.weighting_solid_ppg)
        return WeightUp(
            from_ppg=old,
            volume_bbl=before.total_bbl,
            solid_lb=found["mass_lb"],
            gain_bbl=found["volume_gain_bbl"],
            base_bbl=None,
        )
    base = well.policy.pipe.base_fluid_ppg
    if new == old or new <= base:
        return None
    with headline(f"mud/{string.index}/dilution"):
        added = float(dilution(old, new, before.total_bbl, base))
    return WeightUp(from_ppg=old, volume_bbl=before.total_bbl, solid_lb=None, gain_bbl=None, base_bbl=added)


def riser(well: Well, string: LaidString) -> RiserResult | None:
    """The mud that still holds the pore pressure with the riser gone, at its worst depth in the open hole."""
    site = well.site
    if site.setting != "subsea" or is_riserless(well, string.index) or string.mud_ppg is None:
        return None
    mudline = well.ground_md_ft
    top, bottom = well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft)
    pore, sea_psi = well.ground.pore, PSI_PER_PPG_FT * SEA_WATER_PPG * site.water_depth_ft
    # what the mud below the mudline must hold when the sea stands on it, as a weight from the mudline
    at = worst_depth(
        lambda z: PSI_PER_PPG_FT * pore.at(z) * z - sea_psi,
        nodes_between(well, max(mudline + 1.0, top), bottom),
        as_weight=True,
        datum_ft=mudline,
    )
    if at is None:
        return None
    with headline(f"mud/{string.index}/riser"):
        mud = float(riser_margin_mud(float(pore.at(at)), at, site.rig_floor_ft, site.water_depth_ft))
    return RiserResult(
        needed_ppg=mud,
        margin_ppg=mud - string.mud_ppg,
        at_md_ft=well.path.md(at),
        held=mud <= string.mud_ppg + 1e-9,
        possible=mud <= well.policy.mud.riser_mud_limit_ppg,
    )


def sweep_volume_bbl(well: Well, string: LaidString) -> float | None:
    """Gel sweeps of a hole drilled with sea water before the riser is on: one every so many feet."""
    policy = well.policy.mud
    if not string.drilled or not is_riserless(well, string.index):
        return None
    open_ft = string.shoe_md_ft - string.previous_shoe_md_ft
    return math.ceil(open_ft / policy.sweep_every_ft) * policy.sweep_bbl
