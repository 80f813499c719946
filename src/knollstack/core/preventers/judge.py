"""The preventers step: the stack on each string, what it closes on, shears and hangs, its fluid, its tests.

Classes follow the greatest surface pressure of the stages that a stack sees; the least elements of a class are policy's.
"""

from __future__ import annotations

from knollstack.core.base.findings import Assumption, Finding, assume
from knollstack.core.base.remember import remembered
from knollstack.core.preventers.closing import accumulators_of, closing_rows
from knollstack.core.preventers.findings import (
    Reach,
    bore_findings,
    class_findings,
    element_findings,
    full_bore_findings,
    line_findings,
    no_class_findings,
    reference_findings,
    room_findings,
    unused_findings,
)
from knollstack.core.preventers.findings_closing import closing_findings, unit_assumption, unit_findings
from knollstack.core.preventers.findings_cover import (
    annular_only_note,
    cover_findings,
    hang_findings,
    least_findings,
    shear_findings,
    tubing_findings,
)
from knollstack.core.preventers.findings_proofs import low_test_findings, proof_findings
from knollstack.core.preventers.inforce import InForce, ground_of, lay, sea_ground
from knollstack.core.preventers.moments import moments_of, stack_base_in, stack_items
from knollstack.core.preventers.proofs import Nippled, proofs_of
from knollstack.core.preventers.results import ElementResult, Moment, PreventersResult, StackRow
from knollstack.core.preventers.sequence import steps_of
from knollstack.core.preventers.shearing import hang_rows
from knollstack.core.preventers.stacks import Cavity, line_at, stack_class_psi
from knollstack.core.preventers.subsea import sea_moments, sea_room_findings, sea_steps
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.tally import hung_by
from knollstack.core.wellhead.heights import Heights, floor_to_rotary_ft, heights_of
from knollstack.core.wellhead.judge import surface_pressures
from knollstack.core.wellhead.pieces import HeadPiece, pieces_of
from knollstack.core.wellhead.stages import at_rig_psi

NO_STACK = StackRow(
    decided=False, pressure_psi=None, class_psi=None, bore_in=None, flange=None, elements=(), height_in=None
)
Pieces = tuple[HeadPiece, ...]


@remembered(8, traced=True)  # the step at sea asks it again
def judge(equipped: Equipped) -> tuple[PreventersResult, tuple[Finding, ...], tuple[Assumption, ...]]:
    """Stack of every string that carries one: all but liners."""
    stacks, unit = equipped.design.preventers, equipped.design.closing_unit
    policy, site = equipped.well.policy.preventers, equipped.well.site
    under = site.setting == "subsea"
    pieces = pieces_of(equipped)[0] if equipped.strings and not under else ()
    heights = heights_of(equipped, pieces)
    rows: list[StackRow] = []
    used: set[str] = set()
    findings: list[Finding] = []
    pressures, carrier = surface_pressures(equipped), equipped.carrier
    for string, needed in zip(equipped.strings, pressures, strict=True):
        if string.run == "liner" or (under and (carrier is None or string.index < carrier.index)):
            rows.append(NO_STACK)  # a liner's stands on the string above; holes without a riser have none
            continue
        if carrier is not None:
            ground = sea_ground(equipped, carrier, string, pressures)
        else:
            ground = ground_of(equipped, pieces, string, needed)
        if ground.at is not None:
            used.add(stacks[ground.at].id)
        found = lay(ground, stacks[ground.at] if ground.at is not None else None)
        row = _row(found, pieces, heights)
        rows.append(row)
        findings += _findings(found, row)
    findings += (
        sea_room_findings(equipped, tuple(rows)) if under else room_findings(equipped.well, _reaches(equipped, rows))
    )
    findings += unused_findings(stacks, used, {s.id for s in equipped.strings})
    result = tuple(rows)
    findings += [*annular_only_note(result), *low_test_findings(policy, result)]
    findings += [*unit_findings(unit, policy, result), *closing_findings(result)]
    assumptions = [*unit_assumption(unit, result)]
    if any(row.elements for row in rows):
        text = "Stack elements follow the least common for the class; element heights are planning values."
        assumptions.insert(0, assume("preventers", "/preventers", text))
    if any(row.shear for row in rows):
        text = f"Drill pipe to be sheared is taken as grade {policy.drill_pipe_grade}."
        assumptions.append(assume("preventers", "/policy/preventers/drill_pipe_grade", text))
    moments = _moments(equipped, pieces, heights, result, carrier)
    return PreventersResult(strings=result, moments=moments), tuple(findings), tuple(assumptions)


def _moments(
    equipped: Equipped,
    pieces: Pieces,
    heights: Heights | None,
    stacks: tuple[StackRow, ...],
    carrier: EquippedString | None,
) -> tuple[Moment, ...]:
    if equipped.well.site.setting != "subsea":
        return moments_of(equipped, pieces, heights, stacks)
    items = {i: stack_items(row) for i, row in enumerate(stacks) if row.elements and row.base_in is not None}
    return sea_moments(equipped, carrier, stacks, items)


def _reaches(equipped: Equipped, rows: list[StackRow]) -> list[Reach]:
    """How high each stack reaches, and how high when it is lifted to set the next string in slips."""
    found = []
    for string, row in zip(equipped.strings, rows, strict=True):
        if row.reach_ft is None or not row.elements:
            continue
        after = next((s for s in equipped.strings[string.index + 1 :] if s.run != "liner"), None)
        slips = after is not None and string.role != "conductor" and hung_by(equipped.well, after) == "slips"
        lift = equipped.well.policy.preventers.lift_ft if slips else 0.0
        found.append(Reach(string, row.reach_ft, row.reach_ft + lift))
    return found


def _findings(found: InForce, row: StackRow) -> list[Finding]:
    ground, policy = found.ground, found.ground.equipped.well.policy.preventers
    string, needed, top = ground.string, ground.needed_psi, ground.equipped.well.top_words
    findings: list[Finding] = []
    if found.stack is not None:
        better = stack_class_psi(policy, needed) if needed is not None else None
        findings += class_findings(string, ground.place, found.stack.class_psi, needed, better, top)
        findings += reference_findings(string, ground.place, found.stack)
    elif string.role != "conductor":
        findings += no_class_findings(string, found.class_psi, needed, top)
    if not found.elements:
        return findings
    findings += element_findings(string, found.elements, found.class_psi, needed)
    findings += bore_findings(string, ground.equipped.next(string), found.bore_in, found.elements)
    if string.role != "conductor":
        findings += full_bore_findings(string, ground.place, found.bore_in, ground.head, found.elements)
    findings += line_findings(string, ground.place, row, found.stack is not None)
    findings += [*least_findings(found), *cover_findings(found), *shear_findings(found), *tubing_findings(found)]
    findings += [*hang_findings(found, row.hang_off), *proof_findings(found, row.tests)]
    return findings


def _spans(elements: tuple[Cavity, ...]) -> list[tuple[float | None, float | None]]:
    """Bottom and top of each element over the bottom of the stack; None from the first whose height is unknown."""
    spans: list[tuple[float | None, float | None]] = []
    at: float | None = 0.0
    for e in elements:
        top = None if at is None or e.height_in is None else at + e.height_in
        spans.append((at, top))
        at = top
    return spans


def _row(found: InForce, pieces: Pieces, heights: Heights | None) -> StackRow:
    ground, elements = found.ground, found.elements
    equipped, string = ground.equipped, ground.string
    well, unit = equipped.well, equipped.design.closing_unit
    spans = _spans(elements)
    height = spans[-1][1] if spans else None
    base = stack_base_in(equipped, string, pieces, heights)
    if ground.under_sea:
        base = equipped.design.sea.conductor.stick_up_ft * 12
    cellar = equipped.design.site.cellar_depth_ft * 12 if well.site.setting == "land" else 0.0
    reach = None if height is None else ((base - cellar if base is not None else 0.0) + height) / 12
    rotary = floor_to_rotary_ft(equipped)
    tops = tuple(
        None if rotary is None or base is None or top is None else rotary - (base + top) / 12 for _, top in spans
    )
    nippled = Nippled(equipped, string, ground.head, elements, found.tubulars, found.casing_ram, ground.needed_psi)
    weights = [e.weight_lbf for e in elements]
    stack = found.stack
    return StackRow(
        decided=stack is not None,
        place=ground.place,
        pressure_psi=ground.needed_psi,
        rig_psi=at_rig_psi(equipped, string),
        class_psi=found.class_psi,
        bore_in=found.bore_in if string.role != "conductor" else None,
        flange=found.flange,
        elements=tuple(_element(e, *span) for e, span in zip(elements, spans, strict=True)),
        height_in=height,
        weight_lbf=None if None in weights else float(sum(w for w in weights if w is not None)),
        base_in=base,
        reach_ft=reach,
        choke=line_at(stack.choke if stack else None, elements),
        kill=line_at(stack.kill if stack else None, elements),
        casing_ram=found.casing_ram.index if found.casing_ram is not None else None,
        coverage=found.coverage,
        shear=found.shear,
        hang_off=hang_rows(equipped, string, elements, tops),
        accumulators=accumulators_of(well, unit, elements, string.index, ground.needed_psi),
        closing=closing_rows(well, unit, elements),
        tests=proofs_of(nippled),
        steps=sea_steps(found) if ground.under_sea else steps_of(found, pieces),
    )


def _element(e: Cavity, bottom_in: float | None, top_in: float | None) -> ElementResult:
    return ElementResult(
        id=e.id,
        element=e.element,
        title=e.title,
        kind=e.kind,
        place=e.place,
        fits=e.fits,
        size_in=e.size_in,
        from_in=e.from_in,
        to_in=e.to_in,
        why=e.why,
        class_psi=e.class_psi,
        bore_in=e.bore_in,
        height_in=e.height_in,
        weight_lbf=e.weight_lbf,
        close_gal=e.close_gal,
        open_gal=e.open_gal,
        closing_ratio=e.closing_ratio,
        area_in2=e.area_in2,
        hang_off_lbf=e.hang_off_lbf,
        outlets=e.outlets,
        joined=e.joined,
        bottom_in=bottom_in,
        top_in=top_in,
    )
