"""Sizes from the outside in: does each bit drift, does each casing clear its hole."""

from __future__ import annotations

from knollstack.core.chain import clearance_limits_in, spare_between
from knollstack.core.findings import Finding, Remedy, Severity, Words
from knollstack.core.program import Planned, Program
from knollstack.core.results_sizes import SizeRow, SizesResult, SpareSize
from knollstack.core.well import diameter, size


def _outer_drift_in(program: Program, string: Planned) -> float | None:
    """Drift of the casing above: of the pipe chosen, else the most that any weight of its size lets through."""
    outer = program.previous(string)
    if outer is None or outer.od_in is None:
        return None
    if outer.pipe is not None:
        special = program.well.policy.special_drift
        return min(s.pipe.drift_in if special else s.pipe.api_drift_in for s in outer.sections)
    return program.catalogue.largest_drift_in.get(outer.od_in)


def _drift_finding(program: Program, string: Planned, drift: float | None) -> None:
    outer, bit = program.previous(string), string.own.opened_from_in or string.bit_in
    if bit is None or outer is None or drift is None or bit <= drift + 1e-9:
        return
    fits = [b.bit_in for b in program.catalogue.bits if b.bit_in <= drift]
    remedies: tuple[Remedy, ...] = ()
    if fits:
        label: Words = ("Drill with ", size(max(fits)))
        key = "opened_from_in" if string.own.opened_from_in else "bit_in"
        remedies = (Remedy(label=label, changes=program.change(string, key, max(fits))),)
    message: Words = ("A ", size(bit), " bit does not pass the ", *outer.words, " casing above; its drift is ",
                      diameter(drift), ".")  # fmt: skip
    program.findings.append(
        Finding(
            severity="stop", step="sizes", place=f"{string.path}/bit_in", subject=(*string.words, " hole"),
            message=message, value=size(bit), limit=diameter(drift), remedies=remedies,
        )
    )  # fmt: skip


def _reamer_finding(program: Program, string: Planned, drift: float | None) -> float | None:
    """Closed body [in] of the under-reamer that opens this hole; found missing where the catalogue holds none."""
    if string.own.opened_from_in is None or string.bit_in is None or drift is None:
        return None
    reamer = program.catalogue.reamer(drift, string.bit_in)
    if reamer is not None:
        return reamer.body_in
    message: Words = (
        "No under-reamer in the catalogue passes ",
        diameter(drift),
        " closed and opens ",
        size(string.bit_in),
        ".",
    )
    program.findings.append(
        Finding(
            severity="stop",
            step="sizes",
            place=f"{string.path}/bit_in",
            subject=(*string.words, " hole"),
            message=message,
        )
    )
    return None


def _spare_finding(program: Program, rows: list[SizeRow]) -> None:
    """Policy asks for a spare size, and no string leaves one."""
    if not program.well.policy.keep_spare or len(rows) < 3 or any(row.spare for row in rows):
        return
    message = "No string leaves a size free for a contingency string; policy asks for one."
    program.findings.append(
        Finding(severity="caution", step="sizes", place="/policy/keep_spare", subject=("Sizes",), message=(message,))
    )


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
            if string.own.pipe is not None:
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
    bit = string.own.opened_from_in or string.bit_in
    link = spare_between(program.catalogue, program.well.policy.clearance, above.od_in, bit)
    return None if link is None or link[0] is None else SpareSize(bit_in=link[0], od_in=link[1])


def _tubing_finding(program: Program) -> None:
    """The tubing that policy names must pass the production casing with its couplings."""
    od, last = program.well.policy.tubing_od_in, program.strings[-1] if program.strings else None
    if od is None or last is None or not last.sections:
        return
    couplings = [p.coupling_od_in for p in program.catalogue.tubing if p.od_in == od]
    drift = min(s.pipe.api_drift_in for s in last.sections)
    severity: Severity = "unknown"
    message: Words = ("This tubing is not in the catalogue: whether it passes is unknown.",)
    if couplings and min(couplings) < drift:
        return
    if couplings:
        severity = "stop"
        message = ("Its couplings of ", diameter(min(couplings)), " do not pass the production casing; its drift is ",
                   diameter(drift), ".")  # fmt: skip
    program.findings.append(
        Finding(
            severity=severity,
            step="sizes",
            place="/policy/tubing_od_in",
            subject=(size(od), " tubing"),
            message=message,
        )
    )


def judge_sizes(program: Program) -> SizesResult:
    """Drift and clearance of every string."""
    rows = []
    for string in program.strings:
        drift = _outer_drift_in(program, string) if string.drilled else None
        coupling = None
        if string.sections:
            coupling = max(s.pipe.coupling_od_in for s in string.sections)
        elif string.od_in is not None:
            coupling = program.catalogue.largest_coupling_in.get(string.od_in)
        clearance = string.bit_in - coupling if string.bit_in is not None and coupling is not None else None
        _unknown_size(program, string)
        _drift_finding(program, string, drift)
        if string.drilled:
            _clearance_finding(program, string, clearance, coupling)
        limits = clearance_limits_in(string.od_in) if string.od_in is not None else (None, None)
        row = program.catalogue.size_by_od.get(string.od_in) if string.od_in is not None else None
        bit = string.own.opened_from_in or string.bit_in
        margin = drift - bit if drift is not None and bit is not None else None
        rows.append(
            SizeRow(
                usual=row is not None and row.rank == 0, outer_drift_in=drift, bit_margin_in=margin,
                coupling_od_in=coupling, clearance_in=clearance if string.drilled else None,
                common_in=limits[0], tight_in=limits[1], spare=_spare(program, string),
                opened_from_in=string.own.opened_from_in, reamer_body_in=_reamer_finding(program, string, drift),
            )
        )  # fmt: skip
    _spare_finding(program, rows)
    _tubing_finding(program)
    return SizesResult(strings=tuple(rows))
