"""What follows from each zone's fluid, hazards and flags, in words: the rules that it brings into the design."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Words, depth, pressure
from knollstack.core.base.remember import remembered
from knollstack.core.depths.results import ZoneNote
from knollstack.core.depths.rules import DepthRules, depth_rules
from knollstack.core.document.design import Zone
from knollstack.core.ground.well import Well
from knollstack.core.ground.window import sticking_limit_psi


@remembered(16)
def zone_notes(well: Well) -> tuple[ZoneNote, ...]:
    """A line for every rule that a zone brings."""
    rules = depth_rules(well)
    zones = enumerate(well.ground.model.zones)
    return tuple(ZoneNote(index=i, text=words) for i, zone in zones for words in _brought(well, rules, zone))


def _brought(well: Well, rules: DepthRules, zone: Zone) -> Iterator[Words]:
    if zone.fluid == "fresh water":
        covered = depth(rules.fresh_water.covered_from(zone.base_tvd_ft))
        yield "Fresh water: the first shoe below the conductor is set at ", covered, " TVD or deeper."
    if zone.case_before_deeper:
        band = rules.case_off.band(zone)
        shallow, deep = depth(band.shallow_tvd_ft), depth(band.deep_tvd_ft)
        yield "Cased before drilling deeper: a shoe between ", shallow, " and ", deep, " TVD."
    if not zone.shoe_allowed:
        span = rules.no_shoe.barred(zone)
        yield "No shoe between ", depth(span.top_tvd_ft), " and ", depth(span.base_tvd_ft), " TVD."
    if zone.permeable:
        limit = sticking_limit_psi(zone, well.ground, well.policy.mud)
        yield "Permeable: overbalance up to ", pressure(limit), ", lest the pipe sticks."
    if zone.fluid == "gas" and zone.gas_contact_tvd_ft is not None:
        contact = depth(zone.gas_contact_tvd_ft)
        yield "Gas down to ", contact, " TVD: pore pressure follows the gas gradient above it."
    if "losses" in zone.hazards:
        yield ("Losses: casing below is judged for the mud level that this zone leaves.",)
