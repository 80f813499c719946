"""The well as it is completed: the casing that is produced through, perforations, packer and tubing in force."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import completion_fluid_ppg
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.equipped import Equipped, EquippedString

PAY = ("oil", "gas")
Span = tuple[float, float]


def hanger_md_ft(equipped: Equipped) -> float:
    """Where the tubing hangs [ft MD]: the ground, the deck, or the sea floor."""
    well = equipped.well
    if well.site.setting == "platform":
        return equipped.design.wellhead.deck_md_ft or 0.0
    return well.ground_md_ft


def zone_md_ft(well: Well, top_tvd_ft: float, base_tvd_ft: float) -> Span | None:
    """A zone along the well, as far as the well goes into it; None where it does not reach it."""
    deepest = well.path.deepest_tvd_ft
    if top_tvd_ft >= deepest:
        return None
    top = well.path.md(top_tvd_ft)
    base = well.path.md(base_tvd_ft) if base_tvd_ft <= deepest else well.path.total_md_ft
    # a path that ends level in a zone is in it to its end
    if base_tvd_ft >= well.path.total_tvd_ft - 1e-6 and well.path.total_tvd_ft > top_tvd_ft:
        base = well.path.total_md_ft
    return (top, base) if base > top else None


def inside_pay(equipped: Equipped, string: EquippedString) -> list[Span]:
    """Pay within the hole of a string and above its landed plug."""
    found, low, high = [], string.previous_shoe_md_ft, landing_md_ft(string)
    for zone in equipped.well.ground.model.zones:
        span = zone_md_ft(equipped.well, zone.top_tvd_ft, zone.base_tvd_ft) if zone.fluid in PAY else None
        if span is not None and max(span[0], low) < min(span[1], high):
            found.append((max(span[0], low), min(span[1], high)))
    return found


def perforations(equipped: Equipped, string: EquippedString) -> tuple[list[Span], bool]:
    """Perforated intervals from the top down; with none in the document the pay itself, as a proposal."""
    own = sorted((p.top_md_ft, p.bottom_md_ft) for p in equipped.design.completion.perforations)
    return (own, False) if own else (inside_pay(equipped, string), True)


def packer_md_ft(equipped: Equipped, string: EquippedString) -> tuple[float | None, bool]:
    """Packer, and whether it is proposed: so far above the perforations, under the hanger."""
    own = equipped.design.completion.packer_md_ft
    if own is not None:
        return own, False
    spans, _ = perforations(equipped, string)
    if not spans:
        return None, True
    above = equipped.well.policy.completion.packer_above_ft
    return max(float(int(spans[0][0] - above)), hanger_md_ft(equipped) + above), True


def bore_at(equipped: Equipped, string: EquippedString, md_ft: float) -> Pipe | None:
    """The casing that the tubing stands in at a depth: the innermost there; None where its pipe is unknown."""
    inside = [s for s in equipped.strings[: string.index + 1] if s.hung_md_ft <= md_ft <= s.shoe_md_ft + 1e-6]
    sections = inside[-1].sections if inside else ()
    return next((s.pipe for s in sections if s.top_md_ft - 1e-6 <= md_ft <= s.bottom_md_ft + 1e-6), None)


def narrowest(equipped: Equipped, string: EquippedString, packer_ft: float) -> Pipe | None:
    """The narrowest casing from the hanger to the packer; None where any is unknown."""
    chain = [string]
    while chain[-1].hung_md_ft > hanger_md_ft(equipped) + 1e-6 and chain[-1].index:
        chain.append(equipped.strings[chain[-1].index - 1])
    reached = [s for s in chain if s.hung_md_ft < packer_ft]
    if not reached or not all(s.sections for s in reached):
        return None
    pipes = [part.pipe for s in reached for part in s.sections if part.top_md_ft < packer_ft]
    return min(pipes, key=lambda p: p.drift_in)


@dataclass(frozen=True, eq=False)
class Producing:
    """What the tubing is judged in."""

    equipped: Equipped
    string: EquippedString
    packer_md_ft: float
    hanger_md_ft: float
    casing: Pipe
    narrowest: Pipe
    fluid_ppg: float

    @property
    def well(self) -> Well:
        return self.equipped.well

    @property
    def length_ft(self) -> float:
        return self.packer_md_ft - self.hanger_md_ft

    @property
    def packer_tvd_ft(self) -> float:
        return self.well.path.tvd(self.packer_md_ft)


@remembered(8)
def producing_of(equipped: Equipped) -> Producing | str:
    """What the tubing stands in, or what is wanting."""
    string = equipped.producing
    if string is None:
        return "no production string is in the program"
    packer, _ = packer_md_ft(equipped, string)
    if packer is None:
        return "neither packer nor perforations are given, and no pay is known behind the production string"
    casing, narrow = bore_at(equipped, string, packer), narrowest(equipped, string, packer)
    if casing is None or narrow is None:
        return "the casing at the packer is not known"
    hanger = hanger_md_ft(equipped)
    if packer <= hanger:
        return "the packer stands above the tubing hanger"
    fluid = completion_fluid_ppg(equipped.design, equipped.well)
    return Producing(equipped, string, packer, hanger, casing, narrow, fluid)
