"""The cement in force: tops and recipes as decided, else by policy and by what the rock stands."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.base.findings import Assumption, Words, assume, depth, emw
from knollstack.core.base.remember import remembered
from knollstack.core.cement.column import heaviest_held, mixed, recipe_with
from knollstack.core.ground.well import Well
from knollstack.core.program.column import Column
from knollstack.core.program.laid import LaidString, Slurry

ADDITIVES = ("silica_flour_percent", "barite_percent", "haematite_percent", "salt_percent")
"""Besides bentonite, which brings water of its own: they are mixed as they are given."""


def cement_of(well: Well, strings: list[LaidString]) -> tuple[list[LaidString], list[Assumption]]:
    """The strings with their tops of cement and their slurries, and what was assumed for them."""
    filled: list[LaidString] = []
    assumptions: list[Assumption] = []
    for string in strings:
        with_cement, assumed = _cemented(well, string)
        filled.append(with_cement)
        assumptions += assumed
    return filled, assumptions


@remembered(128)
def _cemented(well: Well, string: LaidString) -> tuple[LaidString, tuple[Assumption, ...]]:
    if not string.drilled:
        return string, ()
    place, decided, top = f"{string.path}/cement", string.own.cement, _top_md_ft(well, string)
    slurry, how = _slurry(well, replace(string, cement_top_md_ft=top))
    assumed: list[Assumption] = []
    if decided.top_md_ft is None and not string.proposed:
        assumed.append(
            assume(
                "cement", f"{place}/top_md_ft", *string.words, " casing: top of cement at ", depth(top), " by policy."
            )
        )
    if how and not string.proposed:
        assumed.append(assume("cement", f"{place}/slurry_water_gal_sk", *string.words, how))
    displacement = decided.displacement_ppg
    if displacement is None and string.mud_ppg is not None:
        displacement = string.mud_ppg
        if not string.proposed:
            text: Words = (*string.words, " cement: displaced with the mud of the hole, ", emw(displacement), ".")
            assumed.append(assume("cement", f"{place}/displacement_ppg", *text))
    return replace(string, cement_top_md_ft=top, slurry=slurry, displacement_ppg=displacement), tuple(assumed)


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


def _slurry(well: Well, string: LaidString) -> tuple[Slurry, str]:
    """The recipe in force: as decided, else the heaviest that the rock stands; and how it was found where assumed."""
    decided, neat = string.own.cement, well.policy.cement.water_gal_sk
    additives = tuple((name, percent) for name in ADDITIVES if (percent := getattr(decided, name)))
    if decided.slurry_water_gal_sk is not None or decided.bentonite_percent is not None or additives:
        bentonite = decided.bentonite_percent or 0.0
        if decided.slurry_water_gal_sk:
            return mixed(bentonite, decided.slurry_water_gal_sk, additives), ""
        return recipe_with(neat, bentonite, additives), ""
    found = None
    if string.mud_ppg is not None and string.cement_top_md_ft is not None:
        column = Column(string.mud_ppg, 0.0, well.path.tvd(string.cement_top_md_ft))
        found = heaviest_held(well, string, column)
    if found is None:
        return mixed(0.0, neat), " cement: neat slurry by policy."
    return found, f" cement: {found.bentonite_percent:g} % bentonite, the heaviest slurry that the rock withstands."
