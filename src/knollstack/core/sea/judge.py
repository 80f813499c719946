"""The step at sea: the conductor in its soil, the riser and its tension, the disconnect, sealed annuli.

On land nothing of it applies; on a platform the conductor alone.
"""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Assumption, Finding, assume, hours
from knollstack.core.base.remember import remembered
from knollstack.core.document.described import fields
from knollstack.core.pipe.annuli_loads import annuli_of
from knollstack.core.preventers import judge as preventers
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea import disconnect, riser
from knollstack.core.sea.annuli_rows import rows_of
from knollstack.core.sea.barriers import barrier_findings, barrier_rows
from knollstack.core.sea.conductor import carry_rows, conductor_of, result_of, standing_of
from knollstack.core.sea.findings import conductor_findings
from knollstack.core.sea.findings_annuli import annuli_findings
from knollstack.core.sea.findings_riser import disconnect_findings, makeup_findings, no_stack, tension_findings
from knollstack.core.sea.landing import diverter_findings, diverter_of, landing_findings, landing_rows
from knollstack.core.sea.makeup import made_up, stack_height_ft
from knollstack.core.sea.results import ConductorResult, SeaResult
from knollstack.core.sea.riserless import riserless_findings, riserless_rows
from knollstack.core.sea.schedule import schedule_of
from knollstack.core.sea.storm import RECONNECT, storm_findings, storm_of
from knollstack.core.sea.weather import wait_rows

Parts = tuple[list[Finding], list[Assumption]]


@remembered(8, traced=True)  # the completion asks it again
def judge(equipped: Equipped) -> tuple[SeaResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """What a well at sea adds."""
    setting = equipped.well.site.setting
    if setting == "land" or not equipped.strings:
        return SeaResult(applies=setting != "land"), (), ()
    found: Parts = [], []
    conductor = _conductor(equipped, found)
    if setting != "subsea":
        return SeaResult(applies=True, conductor=conductor), tuple(found[0]), tuple(found[1])
    rest, annuli = _riser(equipped, found), annuli_of(equipped)
    rows = rows_of(equipped, annuli)
    found[0].extend(annuli_findings(equipped, annuli))
    if any(row.pressure_psi for row in rows):
        text = "Sealed annuli: the annulus around the tubing is bled off; casings are held in length, the next is heated less."
        found[1].append(assume("sea", "/policy/sea/heat_share", text))
    landing = landing_rows(equipped)
    found[0].extend(landing_findings(landing))
    found[0].extend(riserless_findings(equipped))
    parts = {
        "conductor": conductor,
        "annuli": rows,
        "landing": landing,
        "riserless": riserless_rows(equipped),
        "waits": wait_rows(equipped),
    }
    found[1].extend(_usual(equipped))
    return rest.model_copy(update=parts), tuple(found[0]), tuple(found[1])


def _conductor(equipped: Equipped, found: Parts) -> ConductorResult | None:
    string = conductor_of(equipped)
    if string is None:
        return None
    standing = standing_of(equipped, string)
    rows = carry_rows(equipped, standing)
    found[0].extend(conductor_findings(equipped, standing, rows))
    own, policy = equipped.design.sea.conductor, equipped.well.policy.sea
    if standing.jetted and own.soak_hours is None:
        found[1].append(
            assume("sea", "/sea/conductor/soak_hours", "Conductor: soaks for ", hours(policy.soak_hours), ".")
        )
    if len(rows) > 1 and own.second_hours is None and not standing.cemented:
        text = "Conductor: the second string is landed after ", hours(policy.second_hours), " by policy."
        found[1].append(assume("sea", "/sea/conductor/second_hours", *text))
    if equipped.well.site.setting == "subsea" and (own.guide_base_lbf is None or own.low_housing_lbf is None):
        text_ = "Weights of guide base and housings that are not given are planning values of policy."
        found[1].append(assume("sea", "/sea/conductor/guide_base_lbf", text_))
    return result_of(equipped, standing, rows)


USUAL = {
    "conductor": ("stick_up_ft", "low_over_ft"),
    "housing": ("bore_in", "seats", "hanger_in", "first_in"),
    "riser": ("upper_ft", "telescopic_ft", "stroke_ft", "barrel_lbf", "flex_ft"),
}
"""What stands at a usual value until it is typed."""


def _usual(equipped: Equipped) -> Iterator[Assumption]:
    """What nobody has moved from the value that it came with, told by its title."""
    for part, keys in USUAL.items():
        own, words = getattr(equipped.design.sea, part), fields()
        kept = [key for key in keys if getattr(own, key) == type(own).model_fields[key].default]
        if kept:
            titles = ", ".join(words[f"/sea/{part}/{key}"].title.lower() for key in kept)
            text = f"Usual values are taken until the rig's are typed: {titles}."
            yield assume("sea", f"/sea/{part}/{kept[0]}", part.capitalize(), ": ", text[0].lower() + text[1:])


def _riser(equipped: Equipped, found: Parts) -> SeaResult:
    stacks = preventers.judge(equipped)[0]
    stack_ft = stack_height_ft(equipped, stacks)
    if stack_ft is None:
        found[0].append(no_stack(equipped))
        return SeaResult(applies=True)
    made = made_up(equipped, stack_ft)
    if made.space_ft <= 0:
        found[0].extend(makeup_findings(equipped, made))
        return SeaResult(applies=True)
    result = riser.result_of(equipped, made)
    unlatched = disconnect.result_of(equipped, made, stacks)
    barriers = barrier_rows(equipped, stacks, unlatched.across)
    unlatched = unlatched.model_copy(update={"barriers": barriers})
    found[0].extend(makeup_findings(equipped, made))
    found[0].extend(tension_findings(equipped, result))
    found[0].extend(disconnect_findings(equipped, unlatched))
    found[0].extend(barrier_findings(barriers))
    if made.usual:
        text = "Riser: generic joints, as many as are wanted; give those aboard."
        found[1].append(assume("sea", "/sea/riser/joints", text))
    if equipped.design.sea.riser.package_lbf is None:
        found[1].append(assume("sea", "/sea/riser/package_lbf", "Riser package: its weight is a planning value."))
    if unlatched.usual:
        found[1].append(assume("sea", "/sea/disconnect", "Disconnect: steps and their times are planning values."))
    gas = diverter_of(equipped, made)
    found[0].extend(diverter_findings(gas))
    storm = storm_of(equipped, made)
    found[0].extend(storm_findings(storm))
    parts = {"diverter": gas, "storm": storm, "schedule": schedule_of(equipped, made), "reconnect": RECONNECT}
    return SeaResult(applies=True, riser=result, disconnect=unlatched).model_copy(update=parts)
