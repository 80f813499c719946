"""The completion as it is run: clean-up, guns, packer, tubing, tree, in order, with this well's numbers."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, depth, emw, force, height, length, pressure, volume
from knollstack.core.base.formulas import circle_capacity, hydrostatic_pressure, interval_volume
from knollstack.core.base.working import headline
from knollstack.core.completion.elements import Site
from knollstack.core.completion.formulas import cushion_level, perforating_pressure
from knollstack.core.completion.producing import Span, hanger_md_ft, packer_md_ft, perforations, producing_of
from knollstack.core.completion.results import CleanRow, CompletionRow
from knollstack.core.completion.tubing import row_of, spaced_of
from knollstack.core.pipe.exposure import completion_fluid_ppg
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.tree import needed_psi, tree_of, tree_row


def completion_row(site: Site, string: EquippedString) -> CompletionRow:
    equipped = site.equipped
    spans, proposed = perforations(equipped, string)
    packer, packed = packer_md_ft(equipped, string)
    found, tree = producing_of(equipped), tree_of(equipped, site.pieces)
    spaced = None if isinstance(found, str) else spaced_of(found)
    row = CompletionRow(
        fluid_ppg=completion_fluid_ppg(equipped.design, equipped.well),
        packer_md_ft=packer,
        packer_proposed=packed,
        perforated=tuple(spans),
        perforations_proposed=proposed,
        shut_in_psi=needed_psi(equipped),
        clean=_clean(equipped, string, spans),
        tubing=None if spaced is None or isinstance(found, str) else row_of(found, spaced),
        tree=None if tree is None else tree_row(equipped, tree),
        steps=(),
    )
    return row.model_copy(update={"steps": tuple(_steps(site, string, row))})


def casing_bbl(equipped: Equipped, string: EquippedString) -> float | None:
    """The production casing with what it hangs in, from the wellhead to the landed plug; None where a bore is unknown."""
    whole, bottom = 0.0, landing_md_ft(string)
    for s in reversed(equipped.strings[: string.index + 1]):
        top = max(s.hung_md_ft, hanger_md_ft(equipped))
        if top >= bottom:
            continue
        if not s.sections:
            return None
        whole += sum(float(interval_volume(circle_capacity(bore), length)) for length, bore in s.bores(top, bottom))
        bottom = top
    return whole


def _clean(equipped: Equipped, string: EquippedString, spans: list[Span]) -> CleanRow:
    own, policy, well = equipped.design.completion, equipped.well.policy.completion, equipped.well
    with headline("completion/clean"):
        inside = casing_bbl(equipped, string)
    fluid, at = completion_fluid_ppg(equipped.design, well), well.path.tvd(spans[0][0]) if spans else None
    pore = None if at is None else well.ground.pore.one(at)
    under = own.underbalance_psi if own.underbalance_psi is not None else policy.underbalance_psi
    formation = hole = level = None
    if at is not None and pore is not None:
        with headline("completion/perforating"):
            formation = float(hydrostatic_pressure(pore, at))
            if own.perforated == "before the tubing":
                hole = float(hydrostatic_pressure(fluid, at))
                under = formation - hole
            else:
                hole = float(perforating_pressure(formation, under))
                level = float(cushion_level(at, max(hole, 0.0), fluid))
    shots = [p.shots_ft * (p.bottom_md_ft - p.top_md_ft) for p in own.perforations if p.shots_ft is not None]
    return CleanRow(
        drill_out_md_ft=string.collar_md_ft,
        clean_to_md_ft=landing_md_ft(string),
        volume_bbl=inside,
        pumped_bbl=None if inside is None else policy.clean_share * inside,
        formation_psi=formation,
        hole_psi=hole,
        underbalance_psi=under,
        level_md_ft=level,
        shots=sum(shots) if shots and len(shots) == len(own.perforations) else None,
    )


def _steps(site: Site, string: EquippedString, row: CompletionRow) -> Iterator[Words]:
    """In the order of the work; what is not known is left out of its sentence."""
    own, clean, tubing = site.equipped.design.completion, row.clean, row.tubing
    assert clean is not None
    yield ("Drill out to ", depth(clean.clean_to_md_ft), ", scrape the casing over the packer's depth")
    pumped: Words = (" with ", volume(clean.pumped_bbl)) if clean.pumped_bbl is not None else ()
    yield ("Displace to ", emw(row.fluid_ppg), " completion fluid", *pumped, "; filter it until it comes back clean")
    yield ("Test the casing; log the cement behind it",)
    if own.perforated == "before the tubing":
        yield _guns(row)
    if row.packer_md_ft is not None:
        yield (f"Set the {own.packer} packer at ", depth(row.packer_md_ft))
    if tubing is not None:
        slack: Words = (
            ", slack off ",
            height(tubing.slack_off_in),
            " for ",
            force(tubing.slack_off_lbf),
            " on the packer",
        )
        pups: Words = (", pups ", *pups_words(tubing.pups_ft)) if tubing.pups_ft else ()
        held = slack if tubing.slack_off_lbf else ()
        yield (f"Run {tubing.joints} joints of tubing", *pups, "; space out", *held)
        test = site.well.policy.completion.tubing_test_psi
        yield ("Land and lock the tubing hanger; test its seals and the tubing to ", pressure(test))
    yield from _tree_steps(site, row)


def pups_words(pups_ft: tuple[float, ...]) -> Words:
    """The pup joints under the hanger, one after another."""
    found: list[str | Amount] = []
    for pup in pups_ft:
        found += [" + ", length(pup)]
    return tuple(found[1:])


def _guns(row: CompletionRow) -> Words:
    """Intervals perforated, in words."""
    found: list[str | Amount] = ["Perforate "]
    for k, (top, base) in enumerate(row.perforated):
        found += [" and " if k else "", depth(top), " to ", depth(base)]
    return tuple(found) if row.perforated else ("Perforate the pay",)


def _tree_steps(site: Site, row: CompletionRow) -> Iterator[Words]:
    own = site.equipped.design.completion
    if own.back_pressure_valve:
        yield ("Set the back-pressure valve, test it from below",)
    under_sea = site.well.site.setting == "subsea"
    off = (
        "Count the barriers, unlatch and recover riser and stack"
        if under_sea
        else "Count the barriers, nipple down the BOPs"
    )
    yield (off,)
    if row.tree is not None:
        turn = own.tree.orientation_deg
        way = "" if turn is None else f", production wing to azimuth {turn:.0f}°"
        yield (
            "Set the tree on new rings, level",
            way,
            "; test every connection and valve to ",
            pressure(row.tree.class_psi),
        )
        yield ("Retrieve the back-pressure valve; function the surface safety valve",)
    if own.perforated == "through the tubing":
        yield (*_guns(row), " through the tubing and tree")
    yield ("Hand over with the list of barriers, pressures and fluids",)
