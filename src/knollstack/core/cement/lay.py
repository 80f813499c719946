"""The cement in force: tops and recipes as decided, else by policy and by what the rock stands."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.base.findings import Assumption, Words, assume, depth, emw
from knollstack.core.base.remember import remembered
from knollstack.core.cement.column import (
    BENTONITE_PERCENTS,
    heaviest_held,
    holds,
    lead_held,
    mixed,
    recipe_with,
    solids_of,
    water_of,
    weakest,
)
from knollstack.core.document.cementing import SlurryKind, additives_of
from knollstack.core.ground.well import Well
from knollstack.core.program.column import column_of
from knollstack.core.program.laid import LaidString, Slurry


def cement_of(well: Well, strings: list[LaidString]) -> tuple[list[LaidString], list[Assumption]]:
    """The strings with their tops of cement and their slurries, and what was assumed for them."""
    filled: list[LaidString] = []
    assumptions: list[Assumption] = []
    for string in strings:
        with_cement, assumed = cemented(well, string)
        filled.append(with_cement)
        assumptions += assumed
    return filled, assumptions


@remembered(128)
def cemented(well: Well, string: LaidString) -> tuple[LaidString, tuple[Assumption, ...]]:
    """A string with its cement, and what was assumed for it."""
    if not string.drilled:
        return string, ()
    place, decided, top = f"{string.path}/cement", string.own.cement, _top_md_ft(well, string)
    said: list[tuple[str, Words]] = []
    if decided.top_md_ft is None:
        said.append(("top_md_ft", (*string.words, " casing: top of cement at ", depth(top), " by policy.")))
    laid = replace(string, cement_top_md_ft=top, tail_top_md_ft=_tail_top_md_ft(well, string, top))
    if laid.tail_top_md_ft is not None and decided.tail_top_md_ft is None:
        text: Words = (*string.words, " cement: top of tail at ", depth(laid.tail_top_md_ft), " by policy.")
        said.append(("tail_top_md_ft", text))
    slurry, how = _slurry(well, laid)
    if how:
        said.append(("slurry_water_gal_sk", (*string.words, how)))
    laid = replace(laid, slurry=slurry)
    if laid.tail_top_md_ft is not None:
        lead, how = _lead(well, laid)
        laid = replace(laid, lead=lead)
        if how:
            said.append(("lead_water_gal_sk", (*string.words, how)))
    displacement = decided.displacement_ppg
    if displacement is None and string.mud_ppg is not None:
        displacement = string.mud_ppg
        text = (*string.words, " cement: displaced with the mud of the hole, ", emw(displacement), ".")
        said.append(("displacement_ppg", text))
    assumed = () if string.proposed else tuple(assume("cement", f"{place}/{key}", *words) for key, words in said)
    return replace(laid, displacement_ppg=displacement), assumed


def _tail_top_md_ft(well: Well, string: LaidString, top_md_ft: float) -> float | None:
    """The top of the tail in force where there is a lead: as decided, else by policy."""
    decided = string.own.cement
    if decided.tail_top_md_ft is not None:
        return min(max(decided.tail_top_md_ft, top_md_ft), string.shoe_md_ft)
    usual = max(top_md_ft, string.shoe_md_ft - well.policy.cement.tail_ft)
    if decided.lead_water_gal_sk is None and decided.lead_bentonite_percent is None:
        return (
            usual
            if usual > top_md_ft and _wants_lead(well, replace(string, cement_top_md_ft=top_md_ft), usual)
            else None
        )
    return usual


def _margin_ppg(well: Well) -> float:
    """What a proposal leaves to the rock at rest: the job's friction takes some of it."""
    return well.policy.mud.fracture_margin_ppg


def _wants_lead(well: Well, string: LaidString, tail_top_md_ft: float) -> bool:
    """Nothing of the slurry is decided, the rock has no margin over a neat one, and has it over a lead and tail."""
    decided = string.own.cement
    if decided.slurry_water_gal_sk is not None or decided.bentonite_percent is not None or solids_of(decided):
        return False
    neat = _recipe(well, string, "tail", 0.0)
    column = column_of(well, replace(string, slurry=neat))
    if column is None or holds(well, string, column, _margin_ppg(well)):
        return False
    split = replace(column, tail_top_tvd_ft=well.path.tvd(tail_top_md_ft))
    return lead_held(well, string, split, _margin_ppg(well)) is not None


def _top_md_ft(well: Well, string: LaidString) -> float:
    """The top in force: as decided, else to the ground for shallow strings, else into the string above."""
    ground, decided = well.ground_md_ft, string.own.cement.top_md_ft
    if decided is not None:
        return max(decided, ground, string.top_md_ft)
    if string.role in ("conductor", "surface"):
        return ground
    if string.run == "liner":
        return string.top_md_ft
    return max(ground, string.previous_shoe_md_ft - well.policy.cement.overlap_ft)


def _recipe(well: Well, string: LaidString, kind: SlurryKind, bentonite: float, water: float | None = None) -> Slurry:
    """A recipe with the additives that its slurry has; its water as given, else of a neat slurry and its bentonite."""
    own, rows = string.own.cement, additives_of(string.own.cement, kind)
    held = (*(solids_of(own) if kind == "tail" else ()), *water_of(own))
    if water:
        return mixed(bentonite, water, held, rows)
    return recipe_with(well.policy.cement.water_gal_sk, bentonite, held, rows)


def _slurry(well: Well, string: LaidString) -> tuple[Slurry, str]:
    """The recipe in force: as decided, else the heaviest that the rock stands; and how it was found where assumed."""
    own = string.own.cement
    if own.slurry_water_gal_sk is not None or own.bentonite_percent is not None or solids_of(own):
        return _recipe(well, string, "tail", own.bentonite_percent or 0.0, own.slurry_water_gal_sk), ""
    plain = _recipe(well, string, "tail", 0.0)
    if string.tail_top_md_ft is not None:
        return plain, " cement: neat tail slurry by policy."
    column = column_of(well, replace(string, slurry=plain))
    if column is None:
        return plain, " cement: neat slurry by policy."
    for margin, why in ((_margin_ppg(well), "keeps the fracture margin"), (0.0, "the rock withstands")):
        found = heaviest_held(well, string, column, margin)
        if found is not None:
            return found, f" cement: {found.bentonite_percent:g} % bentonite, the heaviest slurry that {why}."
    return plain, " cement: neat slurry by policy."


def _lead(well: Well, string: LaidString) -> tuple[Slurry, str]:
    """The lead in force: as decided, else the heaviest that the rock stands over the tail."""
    own = string.own.cement
    if own.lead_water_gal_sk is not None or own.lead_bentonite_percent is not None:
        return _recipe(well, string, "lead", own.lead_bentonite_percent or 0.0, own.lead_water_gal_sk), ""
    lightest = _recipe(well, string, "lead", BENTONITE_PERCENTS[-1])
    column = column_of(well, replace(string, lead=lightest))
    if column is None or weakest(well, string, column) is None:  # nothing is known that asks for a light one
        usual = _recipe(well, string, "lead", BENTONITE_PERCENTS[1])
        return usual, f" cement: lead with {usual.bentonite_percent:g} % bentonite by policy."
    for margin, why in ((_margin_ppg(well), "keeps the fracture margin"), (0.0, "the rock withstands")):
        found = lead_held(well, string, column, margin)
        if found is not None:
            return found, f" cement: lead with {found.bentonite_percent:g} % bentonite, the heaviest that {why}."
    return lightest, f" cement: lead with {lightest.bentonite_percent:g} % bentonite, the lightest tried."
