"""What does not fit: bits that do not drift, couplings that do not clear, sizes that are not known."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from knollstack.core.base.findings import Change, Finding, Remedy, Severity, Words, diameter, find, remedy, size
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.policy import SizesPolicy
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.program.laid import LaidString
from knollstack.core.sizes.clearance import ALLOWED, fitness
from knollstack.core.sizes.results import SizeRow

_find = partial(find, "sizes")


def drift_findings(
    catalogue: Catalogue,
    policy: SizesPolicy,
    string: LaidString,
    outer: LaidString | None,
    below: LaidString | None,
    drift: float | None,
) -> Iterator[Finding]:
    bit = string.own.opened_from_in or string.bit_in
    if bit is None or outer is None or drift is None or bit <= drift + 1e-9:
        return
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
        remedies=_smaller_bit(catalogue, policy, string, below, drift),
    )


def _smaller_bit(
    catalogue: Catalogue, policy: SizesPolicy, string: LaidString, below: LaidString | None, drift: float
) -> tuple[Remedy, ...]:
    """The largest bit that passes, with the casing that clears its hole where the one in force does not."""
    bit = max((b.bit_in for b in catalogue.bits if b.bit_in <= drift), default=None)
    if bit is None:
        return ()
    if string.own.opened_from_in is not None:  # the hole stays as wide as it is opened
        return (remedy(string.change("opened_from_in", bit), "Drill with ", size(bit)),)
    change, words = string.change("bit_in", bit), ("Drill with ", size(bit))
    if string.od_in is None or _clears(catalogue, policy, string.od_in, bit):
        return (remedy(change, *words),)
    od, changes = _smaller_casing(catalogue, policy, string, below, bit)
    return (remedy((change, *changes), *words, " and run ", size(od), " casing"),) if od is not None else ()


def _clears(catalogue: Catalogue, policy: SizesPolicy, od_in: float, bit_in: float) -> bool:
    """A casing with its usual couplings fits a hole as policy asks."""
    coupling = catalogue.largest_coupling_in.get(od_in)
    return coupling is not None and fitness(policy, od_in, bit_in, coupling) in ALLOWED[policy.clearance]


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
    catalogue: Catalogue, policy: SizesPolicy, string: LaidString, below: LaidString | None, bit_in: float
) -> tuple[float | None, tuple[Change, ...]]:
    """The largest smaller casing that clears a hole and lets the next bit through, and the changes that run it."""
    for row in sorted(catalogue.sizes, key=lambda r: -r.od_in):
        passes = below is None or below.bit_in is None or catalogue.largest_drift_in[row.od_in] >= below.bit_in
        if row.od_in < (string.od_in or 0.0) and passes and _clears(catalogue, policy, row.od_in, bit_in):
            pipe = () if string.own.pipe is None else (string.change("pipe", None),)
            return row.od_in, (string.change("od_in", row.od_in), *pipe)
    return None, ()


def clearance_findings(
    catalogue: Catalogue, policy: SizesPolicy, string: LaidString, below: LaidString | None, row: SizeRow
) -> Iterator[Finding]:
    clearance, coupling = row.clearance_in, row.coupling_od_in
    if clearance is None or coupling is None or string.od_in is None or string.bit_in is None:
        return
    usual = coupling >= catalogue.largest_coupling_in.get(string.od_in, coupling) - 1e-9
    fit = fitness(policy, string.od_in, string.bit_in, coupling, usual=usual)
    if fit == "common":
        return
    stop = fit == "none" or (row.pair is None and fit not in ALLOWED[policy.clearance])
    od, changes = _smaller_casing(catalogue, policy, string, below, string.bit_in) if stop else (None, ())
    severity: Severity = "stop" if stop else "note" if fit in ALLOWED[policy.clearance] else "caution"
    yield _find(
        severity,
        f"{string.path}/od_in",
        (*string.words, " casing"),
        *_fit_words(string.bit_in, row, clearance, coupling),
        value=diameter(clearance),
        limit=diameter((row.tight_in if policy.clearance == "tight" else row.common_in) or 0.0),
        remedies=(remedy(changes, "Run ", size(od), " casing"),) if od is not None else (),
    )


def _fit_words(hole_in: float, row: SizeRow, clearance: float, coupling: float) -> Words:
    couplings: Words = ("Couplings of ", diameter(coupling))
    if clearance <= 0:
        return *couplings, " do not pass the ", size(hole_in), " hole."
    leave: Words = (*couplings, " leave ", diameter(clearance), " in the ", size(hole_in), " hole; ")
    if row.pair is not None:
        return *leave, f"the pair is {row.pair}."
    common, tight = diameter(row.common_in or 0.0), diameter(row.tight_in or 0.0)
    return *leave, common, " is common and ", tight, " is tight."


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
