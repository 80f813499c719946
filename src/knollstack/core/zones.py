"""What follows from each zone's fluid, hazards and flags, in words: the rules that it brings into the design."""

from __future__ import annotations

from knollstack.core.design import Zone
from knollstack.core.findings import Words
from knollstack.core.results_well import ZoneNote
from knollstack.core.well import Well, depth, pressure
from knollstack.core.window import sticking_limit_psi


def zone_notes(well: Well) -> tuple[ZoneNote, ...]:
    """A line for every rule that a zone brings."""
    notes = []
    for i, zone in enumerate(well.ground.model.zones):
        notes += [ZoneNote(index=i, text=words) for words in _rules(well, zone)]
    return tuple(notes)


def _rules(well: Well, zone: Zone) -> list[Words]:
    policy = well.policy
    found: list[Words] = []
    if zone.fluid == "fresh water":
        found.append(
            ("Fresh water: the first shoe below the conductor stands at ", depth(zone.base_tvd_ft + policy.fresh_water_cover_ft),
             " TVD or deeper.")
        )  # fmt: skip
    if zone.case_before_deeper:
        low, high = zone.base_tvd_ft + policy.zone_cover_ft, zone.base_tvd_ft + policy.zone_reach_ft
        found.append(("Cased before drilling deeper: a shoe between ", depth(low), " and ", depth(high), " TVD."))
    if not zone.shoe_allowed:
        low, high = zone.top_tvd_ft, zone.base_tvd_ft + policy.zone_cover_ft
        found.append(("No shoe between ", depth(low), " and ", depth(high), " TVD."))
    if zone.permeable:
        limit = sticking_limit_psi(zone, well.ground, policy)
        found.append(("Permeable: overbalance up to ", pressure(limit), ", lest the pipe sticks."))
    if zone.fluid == "gas" and zone.gas_contact_tvd_ft is not None:
        found.append(
            ("Gas down to ", depth(zone.gas_contact_tvd_ft), " TVD: pore pressure follows the gas gradient above it.")
        )
    if "losses" in zone.hazards:
        found.append(("Losses: casing below is judged for the mud level that this zone leaves.",))
    return found
