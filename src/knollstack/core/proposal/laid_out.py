"""A design laid out: the document's strings, or the proposed ones, with every open decision filled by a proposal."""

from __future__ import annotations

from dataclasses import replace

from knollstack.core.base.findings import Assumption, Finding, Severity, Words, assume, depth, emw, find, size
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.own_pipes import with_own
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.cement.lay import cement_of
from knollstack.core.document.design import Design
from knollstack.core.document.strings import String
from knollstack.core.ground.riserless import is_riserless, planned_ppg
from knollstack.core.ground.well import Well, build_well
from knollstack.core.ground.window import planned_mud_ppg
from knollstack.core.program.laid import Laid, LaidString, Proposal, role_list
from knollstack.core.proposal.effort import MOST_PROPOSED
from knollstack.core.proposal.programs import programs
from knollstack.core.proposal.search import propose
from knollstack.core.running.tally import tally_of
from knollstack.core.sizes.chain import Link, find_chain

USUAL_STRINGS = 4
NO_CHAIN_HOLES = (8.5,)


def holes_in(well: Well, catalogue: Catalogue, count: int) -> tuple[float, ...] | None:
    """Hole sizes [in] of the usual chain of a number of strings, innermost first; None where there is no chain."""
    chain = _chain(well, catalogue, [(None, None)] * count, driven=True)
    return None if chain is None else tuple(bit for bit, _ in reversed(chain) if bit is not None)


def _chain(
    well: Well, catalogue: Catalogue, fixed: list[tuple[float | None, float | None]], driven: bool
) -> tuple[Link, ...] | None:
    policy = well.policy.sizes
    return find_chain(catalogue, policy, policy.production_od_in, fixed, driven)


@remembered(32)
def proposal_of(well: Well, catalogue: Catalogue) -> tuple[Proposal, tuple[float, ...]]:
    """The program by the method of policy, and the hole sizes that it was sought with, innermost first.

    Hole sizes follow from the number of strings, and that from the hole sizes: the search is repeated until both
    agree. Where they never do, the program with holes for at least as many strings as it has is taken.
    """
    count, best = USUAL_STRINGS, None
    tried: dict[int, tuple[Proposal, tuple[float, ...]]] = {}
    while count not in tried:
        holes = holes_in(well, catalogue, count)
        if holes is None:
            break
        tried[count] = (propose(well, holes), holes)
        found = len(tried[count][0].shoes)
        if found == 0 or found == count:
            best = tried[count]
            break
        count = found
    fits = [pair for n, pair in sorted(tried.items()) if len(pair[0].shoes) <= n]
    best = best or (fits[0] if fits else None)
    if best is None:
        text = f"No chain of catalogue sizes carries {count} strings to the production casing."
        return Proposal((), (text,)), NO_CHAIN_HOLES
    if best[0].shoes and well.policy.depths.method == "top down":
        every = programs(well, best[1], most=MOST_PROPOSED)
        return Proposal(every.top_down, every.failure, cut=every.cut), best[1]
    return best


def _bare(
    well: Well, own: String, above: LaidString | None, index: int, *, proposed: bool, bit_in: float | None = None
) -> LaidString:
    """A string as the document or the proposal has it, its open decisions still open."""
    ground = well.ground_md_ft
    wellhead = ground if well.site.setting == "subsea" else 0.0
    return LaidString(
        index=index,
        id=own.id,
        proposed=proposed,
        role=own.role,
        run=own.run,
        wellhead_md_ft=wellhead,
        top_md_ft=own.hanger_md_ft if own.hanger_md_ft is not None else wellhead,
        shoe_md_ft=own.shoe_md_ft,
        previous_shoe_md_ft=above.shoe_md_ft if above is not None else ground,
        bit_in=own.bit_in or bit_in,
        od_in=own.od_in,
        mud_ppg=own.mud_ppg,
        planned_mud_ppg=None,
        own=own,
    )


def _decided(well: Well, design: Design) -> list[LaidString]:
    strings: list[LaidString] = []
    for i, own in enumerate(design.strings):
        strings.append(_bare(well, own, strings[-1] if strings else None, i, proposed=False))
    return strings


@remembered(32)
def _proposed(well: Well, proposal: Proposal, holes: tuple[float, ...]) -> tuple[LaidString, ...]:
    strings: list[LaidString] = []
    for i, (role, shoe) in enumerate(zip(role_list(len(proposal.shoes)), proposal.shoes, strict=True)):
        run = "driven" if role == "conductor" else "cased"
        own = String(id=f"s{i + 1}", role=role, run=run, shoe_md_ft=shoe.md_ft)
        bit = holes[len(proposal.shoes) - 1 - i] if i else None
        strings.append(_bare(well, own, strings[-1] if strings else None, i, proposed=True, bit_in=bit))
    return tuple(strings)


def _with_sizes(
    well: Well, catalogue: Catalogue, strings: list[LaidString]
) -> tuple[list[LaidString], list[Finding], list[Assumption]]:
    """Open sizes filled from the usual chain through those that are decided."""
    chain = _chain(well, catalogue, [(s.bit_in, s.od_in) for s in strings], driven=not strings[0].drilled)
    if chain is None:
        text = f"No chain of catalogue sizes carries {len(strings)} strings to the production casing."
        open_size = any(s.od_in is None for s in strings)
        found = [find("sizes", "stop", "/policy/sizes/production_od_in", ("Sizes",), text)] if open_size else []
        return strings, found, []
    filled, assumptions = [], []
    for string, (bit, od) in zip(strings, chain, strict=True):
        assumptions += list(_sizes_assumed(string, bit if string.drilled else None, od))
        filled.append(
            replace(
                string,
                bit_in=string.bit_in if string.bit_in is not None or not string.drilled else bit,
                od_in=string.od_in if string.od_in is not None else od,
            )
        )
    return filled, [], assumptions


def _sizes_assumed(string: LaidString, bit: float | None, od: float | None) -> list[Assumption]:
    rows = (("bit_in", string.bit_in, bit, " bit"), ("od_in", string.od_in, od, " casing"))
    return [
        assume(
            "sizes",
            f"{string.path}/{key}",
            f"{string.role.capitalize()}: ",
            size(value),
            f"{what}, the usual size in this chain.",
        )
        for key, held, value, what in rows
        if held is None and value is not None and not string.proposed
    ]


@remembered(128)
def planned_mud_over(well: Well, top_md_ft: float, bottom_md_ft: float) -> float | None:
    """Planned mud weight [ppg] of an open hole, None where the window is unknown."""
    lower, upper = well.window.bounds(well.path.tvd(top_md_ft), well.path.tvd(bottom_md_ft))
    if lower is None or upper is None:
        return None
    return planned_mud_ppg(lower.mud_ppg, upper.mud_ppg)


def _planned(well: Well, string: LaidString) -> float | None:
    if not string.drilled:
        return None
    if is_riserless(well, string.index):
        top = max(well.ground_md_ft, string.previous_shoe_md_ft)
        return planned_ppg(well, well.path.tvd(top), well.path.tvd(string.shoe_md_ft))
    if string.role == "conductor":
        return well.policy.depths.conductor_mud_ppg
    return planned_mud_over(well, string.previous_shoe_md_ft, string.shoe_md_ft)


def _with_mud(well: Well, strings: list[LaidString]) -> tuple[list[LaidString], list[Assumption]]:
    filled, assumptions = [], []
    for string in strings:
        planned = _planned(well, string)
        mud = string.mud_ppg if string.mud_ppg is not None or not string.drilled else planned
        if mud is not None and string.mud_ppg is None and not string.proposed:
            text: Words = (*string.words, " hole: ", emw(mud), " mud, the least that holds the pore pressure.")
            assumptions.append(assume("mud", f"{string.path}/mud_ppg", *text))
        filled.append(replace(string, mud_ppg=mud, planned_mud_ppg=planned))
    return filled, assumptions


def with_collars(well: Well, catalogue: Catalogue, strings: list[LaidString]) -> list[LaidString]:
    """The strings with the depth at which their plugs land, by their tallies."""
    tallies = [tally_of(well, s, catalogue) for s in strings]
    return [
        s if tally is None else replace(s, collar_md_ft=max(s.shoe_md_ft - tally.track_ft, s.top_md_ft))
        for s, tally in zip(strings, tallies, strict=True)
    ]


def laid_out(design: Design, catalogue: Catalogue) -> Laid:
    """The program in force for a design, before its pipe is chosen."""
    held, well = with_own(catalogue, design), build_well(design)
    strings = _decided(well, design) or list(_proposed(well, *proposal_of(well, held)))
    findings, assumptions = ([], []) if design.strings else _say_proposed(well, proposal_of(well, held)[0])
    if strings:
        strings, found, assumed_sizes = _with_sizes(well, held, strings)
        strings, assumed_mud = _with_mud(well, strings)
        strings, assumed_cement = cement_of(well, with_collars(well, held, strings))
        findings += found
        assumptions += [*assumed_sizes, *assumed_mud, *assumed_cement]
    return Laid(
        design, held, well, tuple(strings), tuple(findings), tuple(assumptions), lambda: proposal_of(well, held)[0]
    )


def _say_proposed(well: Well, proposal: Proposal) -> tuple[list[Finding], list[Assumption]]:
    if proposal.failure:
        severity: Severity = "unknown" if proposal.missing or proposal.cut else "stop"
        return [find("depths", severity, proposal.place, ("Program",), *proposal.failure)], []
    method = well.policy.depths.method.replace(" ", "-")
    text = f"No string is decided yet. The program shown is the {method} proposal to "
    return [], [assume("depths", "/strings", text, depth(well.path.total_md_ft), ".")]
