"""What is found of killing the well: what a kill sheet lacks, and kicks that cannot be circulated out."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Assumption, Finding, assume, depth, emw, find, length, pressure, size
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.drills.hole import COLLAR_BORE_IN, bores_of, collar_bore_is_usual, tubes_of
from knollstack.core.drills.results import KillSheet
from knollstack.core.drills.volumes import CHOKE_LINE_IN
from knollstack.core.preventers.results import StackRow
from knollstack.core.program.equipped import Equipped, EquippedString

PLACE = "/drills"


def lost_findings(equipped: Equipped) -> Iterator[Finding]:
    """Rows whose hole is gone."""
    ids = {s.id for s in equipped.strings}
    known = equipped.design.drills
    named = [("slow", i, row.hole) for i, row in enumerate(known.slow)]
    named += [("parts", i, row.hole) for i, row in enumerate(known.parts)]
    for key, i, hole in named:
        if hole not in ids:
            subject = "Slow pump pressure" if key == "slow" else "Drill string as run"
            yield find("drills", "caution", f"{PLACE}/{key}/{i}/hole", (subject,), f"{hole} is no string of this well.")


def hole_findings(
    equipped: Equipped, below: EquippedString, sheet: KillSheet | None, stack: StackRow
) -> Iterator[Finding]:
    subject = ("Kill sheet, ", *below.hole_words)
    if sheet is None:
        missing = " and ".join(_missing(equipped, below))
        yield find("drills", "unknown", below.path, subject, f"It cannot be worked: {missing} not known.")
        return
    if sheet.read is None:
        yield find(
            "drills", "unknown", below.path, subject, "No design kick: pore pressure is not known at total depth."
        )
    if sheet.slow_psi is None:
        yield find(
            "drills",
            "unknown",
            f"{PLACE}/slow",
            subject,
            "Slow pump pressure is neither given nor can it be estimated: circulating pressures are unknown.",
        )
    if equipped.well.site.setting == "subsea" and sheet.choke_line_psi is None:
        yield find("drills", "unknown", "/site/choke_line_psi", subject, "Choke-line friction is not known.")
    yield from _killable(equipped, below, sheet)
    yield from _pressures(below, sheet, stack)


def _missing(equipped: Equipped, below: EquippedString) -> Iterator[str]:
    if below.mud_ppg is None:
        yield "mud weight"
    if not tubes_of(equipped, below):
        yield "drill string"
    if bores_of(equipped, below, below.shoe_md_ft) is None:
        yield "hole size or bore of the casing above"


def _killable(equipped: Equipped, below: EquippedString, sheet: KillSheet) -> Iterator[Finding]:
    """Kill mud against the weakest rock of the open hole."""
    if sheet.kill_ppg is None or sheet.kill_ppg <= sheet.mud_ppg:
        return
    well = equipped.well
    low, high = well.path.span(sheet.shoe_md_ft, sheet.md_ft)
    marks = [float(d) for d in well.window.depths_ft if low < d < high]
    known = [(float(well.ground.fracture.lower_at(tvd)), tvd) for tvd in (low, *marks, high)]
    if any(ppg != ppg for ppg, _ in known):
        return
    least, tvd = min(known)
    if sheet.kill_ppg > least:
        yield find(
            "drills",
            "stop",
            below.path,
            ("Kill mud, ", *below.hole_words),
            "Kill mud of the design kick ",
            emw(sheet.kill_ppg),
            " is over fracture pressure ",
            emw(least),
            " at ",
            depth(well.path.md(tvd)),
            ": such a kick cannot be circulated out.",
            value=emw(sheet.kill_ppg),
            limit=emw(least),
            working=f"{sheet.working}/kill_mud",
        )


def _pressures(below: EquippedString, sheet: KillSheet, stack: StackRow) -> Iterator[Finding]:
    """Choke-line friction against what stands on the casing, and shut-in casing pressure against the stack."""
    read = sheet.read
    if read is None:
        return
    if sheet.choke_line_psi and sheet.choke_line_psi > read.sicp_psi:
        yield find(
            "drills",
            "caution",
            "/site/choke_line_psi",
            ("Choke-line friction, ", *below.hole_words),
            "Friction of the choke line ",
            pressure(sheet.choke_line_psi),
            " is over the casing pressure of the design kick ",
            pressure(read.sicp_psi),
            ": with the choke wide open the well sees more than it needs; circulate slower, or up choke and kill line.",
            value=pressure(sheet.choke_line_psi),
            limit=pressure(read.sicp_psi),
        )
    if stack.class_psi is not None and read.sicp_psi > stack.class_psi:
        yield find(
            "drills",
            "stop",
            below.path,
            ("Shut-in casing pressure, ", *below.hole_words),
            pressure(read.sicp_psi),
            " of the design kick is over the class of the stack ",
            pressure(stack.class_psi),
            ".",
            value=pressure(read.sicp_psi),
            limit=pressure(stack.class_psi),
        )


def hole_assumptions(below: EquippedString, sheet: KillSheet | None) -> Iterator[Assumption]:
    if sheet is not None and sheet.slow_psi is not None and not sheet.slow_read:
        yield assume(
            "drills",
            f"{PLACE}/slow",
            "Slow pump pressure of the ",
            *below.hole_words,
            " is estimated from its mud: ",
            pressure(sheet.slow_psi),
            f" at {sheet.slow_spm:.0f} spm.",
        )


def string_assumption(equipped: Equipped, below: EquippedString) -> Iterator[Assumption]:
    if collar_bore_is_usual(equipped, below):
        words = ("Collars in the ", *below.hole_words, ": bore of ", size(COLLAR_BORE_IN), ", a planning value.")
        yield assume("drills", "/policy/mud/drill_strings", *words)


def line_assumption() -> Assumption:
    """Of a floating rig: no document tells the bore."""
    return assume(
        "drills",
        "/site/choke_line_psi",
        "Choke line of ",
        size(CHOKE_LINE_IN),
        " bore: a planning value, for its volume and strokes.",
    )


def played_assumption(policy: DrillsPolicy) -> Assumption:
    return assume(
        "drills",
        "/policy/drills/slip_ft_min",
        f"Rehearsals take gas to rise at {policy.slip_ft_min:.0f} ft/min in mud, and flow from ",
        length(policy.exposed_ft),
        f" of rock of {policy.permeability_md:.0f} mD.",
    )
