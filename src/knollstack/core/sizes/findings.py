"""What does not fit: bits that do not drift, couplings that do not clear, sizes that are not known."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Change, Finding, Remedy, Words, diameter, find, remedy, size
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.policy import SizesPolicy
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.program.laid import LaidString
from knollstack.core.sizes.chain import clearance_limits_in
from knollstack.core.sizes.results import SizeRow

_find = partial(find, "sizes")


def drift_findings(
    catalogue: Catalogue, string: LaidString, outer: LaidString | None, drift: float | None
) -> Iterator[Finding]:
    bit = string.own.opened_from_in or string.bit_in
    if bit is None or outer is None or drift is None or bit <= drift + 1e-9:
        return
    fits = [b.bit_in for b in catalogue.bits if b.bit_in <= drift]
    key = "opened_from_in" if string.own.opened_from_in else "bit_in"
    yield _find(
        "stop",
        f"{string.path}/bit_in",
        string.hole_words,
        "A ",
        size(bit),
        " bit does not pass the ",
        *outer.words,
        " casing above; its drift is ",
        diameter(drift),
        ".",
        value=size(bit),
        limit=diameter(drift),
        remedies=(remedy(string.change(key, max(fits)), "Drill with ", size(max(fits))),) if fits else (),
    )


def reamer_findings(string: LaidString, drift: float | None, body_in: float | None) -> Iterator[Finding]:
    """No under-reamer opens this hole."""
    if string.own.opened_from_in is None or string.bit_in is None or drift is None or body_in is not None:
        return
    yield _find(
        "stop",
        f"{string.path}/bit_in",
        string.hole_words,
        "No under-reamer in the catalogue passes ",
        diameter(drift),
        " closed and opens ",
        size(string.bit_in),
        ".",
    )


def spare_findings(policy: SizesPolicy, rows: list[SizeRow]) -> Iterator[Finding]:
    """Policy asks for a spare size, and no string leaves one."""
    if not policy.keep_spare or len(rows) < 3 or any(row.spare for row in rows):
        return
    text = "No string leaves a size free for a contingency string; policy asks for one."
    yield _find("caution", "/policy/sizes/keep_spare", ("Sizes",), text)


def _smaller_casing(
    catalogue: Catalogue, policy: SizesPolicy, string: LaidString, below: LaidString | None
) -> tuple[Remedy, ...]:
    """The largest smaller casing that clears this hole and lets the next bit through."""
    if string.bit_in is None or string.od_in is None:
        return ()
    for row in sorted(catalogue.sizes, key=lambda r: -r.od_in):
        limits = clearance_limits_in(row.od_in)
        asked = limits[1] if policy.clearance == "tight" else limits[0]
        passes = below is None or below.bit_in is None or catalogue.largest_drift_in[row.od_in] >= below.bit_in
        clears = string.bit_in - catalogue.largest_coupling_in[row.od_in] >= asked
        if row.od_in < string.od_in and clears and passes:
            changes: tuple[Change, ...] = (string.change("od_in", row.od_in),)
            if string.own.pipe is not None:
                changes = (*changes, string.change("pipe", None))
            return (remedy(changes, "Run ", size(row.od_in), " casing"),)
    return ()


def clearance_findings(
    catalogue: Catalogue, policy: SizesPolicy, string: LaidString, below: LaidString | None, row: SizeRow
) -> Iterator[Finding]:
    clearance, coupling = row.clearance_in, row.coupling_od_in
    if clearance is None or coupling is None or string.od_in is None or string.bit_in is None:
        return
    common, tight = clearance_limits_in(string.od_in)
    least = tight if policy.clearance == "tight" else common
    if clearance >= common:
        return
    stop = clearance < least
    message: Words = (
        "Couplings of ",
        diameter(coupling),
        " leave ",
        diameter(clearance),
        " in the ",
        size(string.bit_in),
        " hole; ",
        diameter(common),
        " is common and ",
        diameter(tight),
        " is tight.",
    )
    if clearance <= 0:
        message = ("Couplings of ", diameter(coupling), " do not pass the ", size(string.bit_in), " hole.")
    yield _find(
        "stop" if stop else "note",
        f"{string.path}/od_in",
        (*string.words, " casing"),
        *message,
        value=diameter(clearance),
        limit=diameter(least),
        remedies=_smaller_casing(catalogue, policy, string, below) if stop else (),
    )


def unknown_size_findings(catalogue: Catalogue, string: LaidString) -> Iterator[Finding]:
    if string.od_in is not None and string.od_in in catalogue.by_od:
        return
    message: Words = ("No casing size is known for this string.",)
    if string.od_in is not None:
        message = (size(string.od_in), " is not a size in the catalogue: drift, coupling and ratings are unknown.")
    yield _find("unknown", f"{string.path}/od_in", string.words, *message)


def tubing_findings(equipped: Equipped) -> Iterator[Finding]:
    """The tubing that policy names must pass the production casing with its couplings."""
    od = equipped.well.policy.sizes.tubing_od_in
    last: EquippedString | None = equipped.strings[-1] if equipped.strings else None
    if od is None or last is None or not last.sections:
        return
    place, subject = "/policy/sizes/tubing_od_in", (size(od), " tubing")
    couplings = [p.coupling_od_in for p in equipped.catalogue.tubing if p.od_in == od]
    drift = min(s.pipe.api_drift_in for s in last.sections)
    if not couplings:
        yield _find("unknown", place, subject, "This tubing is not in the catalogue: whether it passes is unknown.")
    elif min(couplings) >= drift:
        yield _find(
            "stop",
            place,
            subject,
            "Its couplings of ",
            diameter(min(couplings)),
            " do not pass the production casing; its drift is ",
            diameter(drift),
            ".",
        )
