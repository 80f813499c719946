"""Sizes from the outside in: does each bit drift, does each casing clear its hole."""

from __future__ import annotations

from knollstack.core.chain import clearance_limits_in, spare_between
from knollstack.core.findings import Finding, Remedy, Severity, Words
from knollstack.core.program import Planned, Program
from knollstack.core.results_well import SizeRow, SizesResult, SpareSize
from knollstack.core.well import diameter, size


def _outer_drift_in(program: Program, string: Planned) -> float | None:
    """Drift of the casing above: of the pipe chosen, else the most that any weight of its size lets through."""
    outer = program.previous(string)
    if outer is None or outer.od_in is None:
        return None
    if outer.pipe is not None:
        return outer.pipe.drift_in
    return program.catalogue.largest_drift_in.get(outer.od_in)


def _drift_finding(program: Program, string: Planned, drift: float | None) -> None:
    outer = program.previous(string)
    if string.bit_in is None or outer is None or drift is None or string.bit_in <= drift + 1e-9:
        return
    fits = [b.bit_in for b in program.catalogue.bits if b.bit_in <= drift]
    remedies: tuple[Remedy, ...] = ()
    if fits:
        label: Words = ("Drill with ", size(max(fits)))
        remedies = (Remedy(label=label, changes=program.change(string, "bit_in", max(fits))),)
    message: Words = ("A ", size(string.bit_in), " bit does not pass the ", *outer.words, " casing above; its drift is ",
                      diameter(drift), ".")  # fmt: skip
    program.findings.append(
        Finding(
            severity="stop", step="sizes", place=f"{string.path}/bit_in", subject=(*string.words, " hole"),
            message=message, value=size(string.bit_in), limit=diameter(drift), remedies=remedies,
        )
    )  # fmt: skip


def _smaller_casing(program: Program, string: Planned) -> tuple[Remedy, ...]:
    """The largest smaller casing that clears this hole and lets the next bit through."""
    below, bit = program.next(string), string.bit_in
    catalogue = program.catalogue
    if bit is None or string.od_in is None:
        return ()
    for row in sorted(catalogue.sizes, key=lambda r: -r.od_in):
        limits = clearance_limits_in(row.od_in)
        asked = limits[1] if program.well.policy.clearance == "tight" else limits[0]
        passes = below is None or below.bit_in is None or catalogue.largest_drift_in[row.od_in] >= below.bit_in
        if row.od_in < string.od_in and bit - catalogue.largest_coupling_in[row.od_in] >= asked and passes:
            changes = program.change(string, "od_in", row.od_in)
            if string.pipe_choice is not None:
                changes = (*changes, *program.change(string, "pipe", None))
            return (Remedy(label=("Run ", size(row.od_in), " casing"), changes=changes),)
    return ()


def _clearance_finding(program: Program, string: Planned, clearance: float | None, coupling: float | None) -> None:
    if clearance is None or coupling is None or string.od_in is None or string.bit_in is None:
        return
    common, tight = clearance_limits_in(string.od_in)
    least = tight if program.well.policy.clearance == "tight" else common
    if clearance >= common:
        return
    severity: Severity = "stop" if clearance < least else "note"
    message: Words
    if clearance <= 0:
        message = ("Couplings of ", diameter(coupling), " do not pass the ", size(string.bit_in), " hole.")
    else:
        message = ("Couplings of ", diameter(coupling), " leave ", diameter(clearance), " in the ", size(string.bit_in),
                   " hole; ", diameter(common), " is common and ", diameter(tight), " is tight.")  # fmt: skip
    remedies = _smaller_casing(program, string) if severity == "stop" else ()
    program.findings.append(
        Finding(
            severity=severity, step="sizes", place=f"{string.path}/od_in", subject=(*string.words, " casing"),
            message=message, value=diameter(clearance), limit=diameter(least), remedies=remedies,
        )
    )  # fmt: skip


def _unknown_size(program: Program, string: Planned) -> None:
    if string.od_in is not None and string.od_in in program.catalogue.by_od:
        return
    message: Words = ("No casing size is known for this string.",)
    if string.od_in is not None:
        message = (
            size(string.od_in),
            " is not a size in the catalogue: drift, coupling and ratings are unknown.",
        )
    program.findings.append(
        Finding(
            severity="unknown",
            step="sizes",
            place=f"{string.path}/od_in",
            subject=string.words,
            message=message,
        )
    )


def _spare(program: Program, string: Planned) -> SpareSize | None:
    """A contingency casing that can be set above this string and still lets its bit through."""
    above = program.previous(string)
    if above is None or above.od_in is None or string.bit_in is None or above.role == "conductor":
        return None
    link = spare_between(program.catalogue, program.well.policy.clearance, above.od_in, string.bit_in)
    return None if link is None or link[0] is None else SpareSize(bit_in=link[0], od_in=link[1])


def judge_sizes(program: Program) -> SizesResult:
    """Drift and clearance of every string."""
    rows = []
    for string in program.strings:
        drift = _outer_drift_in(program, string) if string.drilled else None
        coupling = None
        if string.pipe is not None:
            coupling = string.pipe.coupling_od_in
        elif string.od_in is not None:
            coupling = program.catalogue.largest_coupling_in.get(string.od_in)
        clearance = string.bit_in - coupling if string.bit_in is not None and coupling is not None else None
        _unknown_size(program, string)
        _drift_finding(program, string, drift)
        if string.drilled:
            _clearance_finding(program, string, clearance, coupling)
        limits = clearance_limits_in(string.od_in) if string.od_in is not None else (None, None)
        row = program.catalogue.size_by_od.get(string.od_in) if string.od_in is not None else None
        margin = drift - string.bit_in if drift is not None and string.bit_in is not None else None
        rows.append(
            SizeRow(
                usual=row is not None and row.rank == 0, outer_drift_in=drift, bit_margin_in=margin,
                coupling_od_in=coupling, clearance_in=clearance if string.drilled else None,
                common_in=limits[0], tight_in=limits[1], spare=_spare(program, string),
            )
        )  # fmt: skip
    return SizesResult(strings=tuple(rows))
