"""The casing program that is evaluated: the document's strings with every open decision filled by a proposal.

With no string in the document the bottom-up proposal is the program. Every value that the tool filled in is
listed as an assumption.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from knollstack.core.catalogue import Catalogue
from knollstack.core.chain import find_chain
from knollstack.core.depths import Proposal, planned_mud_over, propose
from knollstack.core.design import Design
from knollstack.core.findings import Assumption, Change, Finding, Words
from knollstack.core.pipe.product import Pipe
from knollstack.core.pipe.section import Section
from knollstack.core.programs import programs
from knollstack.core.riserless import is_riserless, planned_ppg
from knollstack.core.strings import Role, String
from knollstack.core.well import Well, build_well, depth, emw, size

USUAL_STRINGS = 4


@dataclass
class Planned:
    """One string of the program, with the values in force."""

    index: int
    proposed: bool
    role: str
    run: str
    top_md_ft: float
    shoe_md_ft: float
    previous_shoe_md_ft: float
    bit_in: float | None
    od_in: float | None
    mud_ppg: float | None
    planned_mud_ppg: float | None
    own: String
    shoe_rule: str | None = None
    shoe_reason: Words = ()
    sections: tuple[Section, ...] = ()
    wellhead_md_ft: float = 0.0
    cement_top_md_ft: float | None = None
    recipe: tuple[float, float] = (0.0, 0.0)

    @property
    def path(self) -> str:
        return f"/strings/{self.index}"

    @property
    def pipe(self) -> Pipe | None:
        """The pipe with the narrowest bore of the string; None where none is chosen."""
        return min((s.pipe for s in self.sections), key=lambda p: p.drift_in, default=None)

    @property
    def hung_md_ft(self) -> float:
        """Where the string hangs in the end: a liner that is tied back hangs from the wellhead."""
        return self.wellhead_md_ft if self.own.tie_back else self.top_md_ft

    def bores(self, top_md_ft: float, bottom_md_ft: float) -> list[tuple[float, float]]:
        """Lengths [ft] and inside diameters [in] between two depths."""
        spans = [(min(s.bottom_md_ft, bottom_md_ft) - max(s.top_md_ft, top_md_ft), s.pipe.id_in) for s in self.sections]
        return [(length, bore) for length, bore in spans if length > 0]

    @property
    def drilled(self) -> bool:
        """There is an open hole that this string's bit drilled."""
        return self.run in ("cased", "liner")

    @property
    def words(self) -> Words:
        return (size(self.od_in),) if self.od_in is not None else (self.role,)


@dataclass
class Program:
    """The evaluation under way: the well, the strings in force, and what has been found so far."""

    design: Design
    catalogue: Catalogue
    well: Well
    strings: list[Planned]
    proposal: Proposal
    proposal_holes_in: tuple[float, ...]
    findings: list[Finding] = field(default_factory=list)
    assumptions: list[Assumption] = field(default_factory=list)

    def next(self, string: Planned) -> Planned | None:
        return self.strings[string.index + 1] if string.index + 1 < len(self.strings) else None

    def previous(self, string: Planned) -> Planned | None:
        return self.strings[string.index - 1] if string.index else None

    def cased_bores(self, string: Planned) -> list[tuple[float, float]] | None:
        """Lengths [ft] and bores [in] of the casing that a hole is drilled from, ground to shoe; None where unknown."""
        bottom, spans = string.previous_shoe_md_ft, []
        for outer in reversed(self.strings[: string.index]):
            top = max(self.well.ground_md_ft, outer.top_md_ft)
            if top < bottom:
                if not outer.sections:
                    return None
                spans += outer.bores(top, bottom)[::-1]
                bottom = top
        return spans[::-1]

    def change(self, string: Planned, key: str, value: float | str | dict[str, object] | None) -> tuple[Change, ...]:
        """An edit of one string; with nothing decided yet, the proposal is adopted with it."""
        edit = Change(path=f"{string.path}/{key}", value=value)
        if not string.proposed:
            return (edit,)
        return (
            Change(path="/strings", value=[adopted(s).model_dump(mode="json") for s in self.strings]),
            edit,
        )


def adopted(string: Planned) -> String:
    """A proposed string as a decision of the document."""
    return String(
        role=string.role,
        run=string.run,
        shoe_md_ft=string.shoe_md_ft,
        bit_in=string.bit_in,
        od_in=string.od_in,
    )


def holes_in(well: Well, catalogue: Catalogue, count: int) -> tuple[float, ...] | None:
    """Hole sizes [in] of the usual chain of a number of strings, innermost first; None where there is no chain."""
    chain = _chain(well, catalogue, [(None, None)] * count, driven=True)
    return None if chain is None else tuple(bit for bit, _ in reversed(chain) if bit is not None)


def _proposal(well: Well, catalogue: Catalogue) -> tuple[Proposal, tuple[float, ...]]:
    """The program by the school of policy, and the hole sizes that it was sought with, innermost first.

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
        return Proposal((), (f"No chain of catalogue sizes carries {count} strings to the production casing.",)), (8.5,)
    if best[0].shoes and well.policy.depth_school == "top down":
        return Proposal(programs(well, best[1]).top_down, ()), best[1]
    return best


def _chain(
    well: Well, catalogue: Catalogue, fixed: list[tuple[float | None, float | None]], driven: bool
) -> tuple[tuple[float | None, float], ...] | None:
    policy = well.policy
    return find_chain(catalogue, policy.clearance, policy.production_od_in, fixed, driven)


def roles(count: int) -> list[Role]:
    """Roles of a program of `count` strings, conductor first."""
    if count == 0:
        return []
    middle: list[Role] = ["surface"] if count > 2 else []
    middle += ["intermediate"] * (count - 3)
    return ["conductor", *middle, "production"]


def _from_proposal(
    proposal: Proposal, holes: tuple[float, ...], ground_md_ft: float, wellhead_md_ft: float
) -> list[Planned]:
    strings: list[Planned] = []
    for i, (role, shoe) in enumerate(zip(roles(len(proposal.shoes)), proposal.shoes, strict=True)):
        previous = strings[-1].shoe_md_ft if strings else ground_md_ft
        own = String(role=role, run="driven" if role == "conductor" else "cased", shoe_md_ft=shoe.md_ft)
        bit = holes[len(proposal.shoes) - 1 - i] if i else None
        string = Planned(i, True, role, own.run, wellhead_md_ft, shoe.md_ft, previous, bit, None, None, None, own)
        string.wellhead_md_ft = wellhead_md_ft
        strings.append(string)
    return strings


def _from_document(design: Design, ground_md_ft: float, wellhead_md_ft: float) -> list[Planned]:
    strings: list[Planned] = []
    for i, s in enumerate(design.strings):
        previous = strings[-1].shoe_md_ft if strings else ground_md_ft
        top = s.hanger_md_ft if s.hanger_md_ft is not None else wellhead_md_ft
        string = Planned(i, False, s.role, s.run, top, s.shoe_md_ft, previous, s.bit_in, s.od_in, s.mud_ppg, None, s)
        string.wellhead_md_ft = wellhead_md_ft
        strings.append(string)
    return strings


def _fill_sizes(program: Program) -> None:
    strings = program.strings
    fixed = [(s.bit_in, s.od_in) for s in strings]
    driven = not strings[0].drilled
    chain = _chain(program.well, program.catalogue, fixed, driven)
    if chain is None:
        if any(s.od_in is None for s in strings):
            message: Words = (
                "No chain of catalogue sizes carries ",
                f"{len(strings)} strings to the production casing.",
            )
            program.findings.append(
                Finding(
                    severity="stop",
                    step="sizes",
                    place="/policy/production_od_in",
                    subject=("Sizes",),
                    message=message,
                )
            )
        return
    for string, (bit, od) in zip(strings, chain, strict=True):
        for key, value in (("bit_in", bit if string.drilled else None), ("od_in", od)):
            if getattr(string, key) is None and value is not None:
                setattr(string, key, value)
                if not string.proposed:
                    what = "bit" if key == "bit_in" else "casing"
                    text: Words = (
                        f"{string.role.capitalize()}: ",
                        size(value),
                        f" {what}, the usual size in this chain.",
                    )
                    program.assumptions.append(Assumption(step="sizes", place=f"{string.path}/{key}", text=text))


def _fill_mud(program: Program) -> None:
    well = program.well
    for string in program.strings:
        if not string.drilled:
            continue
        if is_riserless(well, string.index):
            top = max(well.ground_md_ft, string.previous_shoe_md_ft)
            string.planned_mud_ppg = planned_ppg(well, well.path.tvd(top), well.path.tvd(string.shoe_md_ft))
        elif string.role == "conductor":
            string.planned_mud_ppg = well.policy.conductor_mud_ppg
        else:
            string.planned_mud_ppg = planned_mud_over(well, string.previous_shoe_md_ft, string.shoe_md_ft)
        if string.mud_ppg is None and string.planned_mud_ppg is not None:
            string.mud_ppg = string.planned_mud_ppg
            if not string.proposed:
                text: Words = (
                    *string.words,
                    " hole: ",
                    emw(string.mud_ppg),
                    " mud, the least that holds the pore pressure.",
                )
                program.assumptions.append(Assumption(step="mud", place=f"{string.path}/mud_ppg", text=text))


def _mark_shoes(program: Program) -> None:
    """Give each string the rule of the proposed shoe that it stands on, where it does."""
    by_depth = {shoe.md_ft: shoe for shoe in program.proposal.shoes}
    for string in program.strings:
        shoe = by_depth.get(string.shoe_md_ft)
        if shoe is not None:
            string.shoe_rule, string.shoe_reason = shoe.rule, shoe.reason


def build_program(design: Design, catalogue: Catalogue) -> Program:
    """The program in force for a design."""
    well = build_well(design)
    proposal, holes = _proposal(well, catalogue)
    ground = well.ground_md_ft
    wellhead = ground if well.site.setting == "subsea" else 0.0
    strings = _from_document(design, ground, wellhead) or _from_proposal(proposal, holes, ground, wellhead)
    program = Program(design, catalogue, well, strings, proposal, holes)
    if not design.strings:
        _say_proposed(program)
    if strings:
        _fill_sizes(program)
        _fill_mud(program)
        _mark_shoes(program)
    return program


def _say_proposed(program: Program) -> None:
    if program.proposal.failure:
        program.findings.append(
            Finding(
                severity="stop" if program.well.knows_pressures else "unknown",
                step="depths",
                place="/strings",
                subject=("Program",),
                message=program.proposal.failure,
            )
        )
        return
    text: Words = (
        f"No string is decided yet. The program shown is the {program.well.policy.depth_school.replace(' ', '-')} proposal to ",
    )
    total = depth(program.well.path.total_md_ft)
    program.assumptions.append(Assumption(step="depths", place="/strings", text=(*text, total, ".")))
