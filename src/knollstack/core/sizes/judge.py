"""The sizes step, from the outside in: does each bit drift, does each casing clear its hole."""

from __future__ import annotations

from knollstack.core.base.findings import Finding
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.policy import SizesPolicy
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.program.laid import LaidString
from knollstack.core.sizes.chain import spare_between
from knollstack.core.sizes.clearance import charted, limits_in
from knollstack.core.sizes.findings import (
    clearance_findings,
    drift_findings,
    reamer_findings,
    spare_findings,
    tubing_findings,
    unknown_size_findings,
)
from knollstack.core.sizes.results import SizeRow, SizesResult, SpareSize


def judge(equipped: Equipped) -> tuple[SizesResult, tuple[Finding, ...]]:
    """Drift and clearance of every string."""
    policy, rows = equipped.well.policy.sizes, []
    findings: list[Finding] = []
    for string in equipped.strings:
        outer, below = equipped.previous(string), equipped.next(string)
        row, found = _judge_string(equipped.catalogue, policy, string, outer, below)
        rows.append(row)
        findings += found
    findings += [*spare_findings(policy, rows), *tubing_findings(equipped)]
    return SizesResult(strings=tuple(rows)), tuple(findings)


def outer_drift_in(catalogue: Catalogue, policy: SizesPolicy, outer: EquippedString | None) -> float | None:
    """Drift of the casing above: of the pipe chosen, else the most that any weight of its size lets through."""
    if outer is None or outer.od_in is None:
        return None
    if outer.sections:
        return min(s.pipe.drift_in if policy.special_drift else s.pipe.api_drift_in for s in outer.sections)
    return catalogue.largest_drift_in.get(outer.od_in)


def _spare(catalogue: Catalogue, policy: SizesPolicy, string: LaidString, above: LaidString | None) -> SpareSize | None:
    """A contingency casing that can be set above this string and still lets its bit through."""
    if above is None or above.od_in is None or string.bit_in is None or above.role == "conductor":
        return None
    bit = string.own.opened_from_in or string.bit_in
    link = spare_between(catalogue, policy, above.od_in, bit)
    return None if link is None or link[0] is None else SpareSize(bit_in=link[0], od_in=link[1])


def _reamer_body_in(catalogue: Catalogue, string: LaidString, drift: float | None) -> float | None:
    """Closed body [in] of the under-reamer that opens this hole."""
    if string.own.opened_from_in is None or string.bit_in is None or drift is None:
        return None
    reamer = catalogue.reamer(drift, string.bit_in)
    return reamer.body_in if reamer is not None else None


@remembered(128)
def _judge_string(
    catalogue: Catalogue,
    policy: SizesPolicy,
    string: EquippedString,
    outer: EquippedString | None,
    below: EquippedString | None,
) -> tuple[SizeRow, tuple[Finding, ...]]:
    drift = outer_drift_in(catalogue, policy, outer) if string.drilled else None
    coupling = None
    if string.sections:
        coupling = max(s.pipe.coupling_od_in for s in string.sections)
    elif string.od_in is not None:
        coupling = catalogue.largest_coupling_in.get(string.od_in)
    clearance = string.bit_in - coupling if string.bit_in is not None and coupling is not None else None
    limits = limits_in(policy, string.od_in) if string.od_in is not None else (None, None)
    listed = catalogue.size_by_od.get(string.od_in) if string.od_in is not None else None
    bit = string.own.opened_from_in or string.bit_in
    row = SizeRow(
        usual=listed is not None and listed.rank == 0,
        outer_drift_in=drift,
        bit_margin_in=drift - bit if drift is not None and bit is not None else None,
        coupling_od_in=coupling,
        clearance_in=clearance if string.drilled else None,
        pair=charted(policy, string.od_in, string.bit_in) if string.od_in and string.bit_in else None,
        common_in=limits[0],
        tight_in=limits[1],
        spare=_spare(catalogue, policy, string, outer),
        opened_from_in=string.own.opened_from_in,
        reamer_body_in=_reamer_body_in(catalogue, string, drift),
    )
    return row, (
        *unknown_size_findings(catalogue, string),
        *drift_findings(catalogue, policy, string, outer, below, drift),
        *clearance_findings(catalogue, policy, string, below, row),
        *reamer_findings(string, drift, row.reamer_body_in),
    )
