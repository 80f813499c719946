"""What the program sheet prints of the end of the well: the alternatives at total depth, barriers, tubing or plugs."""

from __future__ import annotations

from knollstack.core.completion.results import CompletionResult, LeavingRow
from knollstack.formats.sheet_sea import Say, Show, Table

VERDICTS = {"allowed": "allowed", "forbidden": "NOT ALLOWED", "unknown": "not known"}


def completion_tables(found: CompletionResult, show: Show, say: Say) -> list[Table]:
    """Tables with the shares of their columns; a part that does not apply has its heading alone."""
    left = {"suspend": found.suspension, "plug and abandon": found.abandonment}.get(found.decision or "")
    tables: list[Table] = [
        (_alternatives(found, show, say), [1.4, 0.7, 1, 3, 3]),
        (_barriers(found, say), [2.2, 2.4, 0.8, 1]),
    ]
    if found.decision == "complete":
        tables += [(_tubing(found, show), [1.3, *[1.0] * 6, 1.1]), (_valves(found, show), [2, 1, 1, 1])]
    return [*tables, (_plugs(left, show), [1.6, 1, 1, 1, 0.8, 1, 2.4])] if left is not None else tables


def _alternatives(found: CompletionResult, show: Show, say: Say) -> list[list[str]]:
    rows = [["At total depth", "Days", "Cost", "Needs", "Barriers"]]
    for row in found.alternatives:
        name = f"{row.decision}{', decided' if row.decision == found.decision else ''}"
        words = "; ".join(say(n) for n in row.needs), "; ".join(say(b) for b in row.barriers)
        rows.append([name, show(row.hours / 24, "days"), show(row.cost, "money"), *words])
    return rows


def _barriers(found: CompletionResult, say: Say) -> list[list[str]]:
    """States that a removal leads to, and those that have too few."""
    rows = [["Barriers in", "Entered by", "Count", "Verdict"]]
    for state in found.states:
        decided = state.alternative in ("", found.decision)
        if decided and (state.removal or state.allowed != "allowed"):
            count = f"{state.count} of {state.needed}"
            rows.append([say(state.title), say(state.removal) or "-", count, VERDICTS[state.allowed]])
    return rows


def _tubing(found: CompletionResult, show: Show) -> list[list[str]]:
    heading = ["Tubing movement", "Piston", "Buckling", "Ballooning", "Heat", "Together", "End moves up", "On packer"]
    rows = [heading]
    tubing = found.completion.tubing if found.completion is not None else None
    for case in tubing.cases if tubing is not None else ():
        heat = None if case.heat_f is None else case.temperature_in
        changes = case.piston_in, case.buckling_in, case.ballooning_in, heat, case.total_in, case.moved_in
        rows.append([case.name, *(show(c, "height") for c in changes), show(case.on_packer_lbf, "force")])
    return rows


def _valves(found: CompletionResult, show: Show) -> list[list[str]]:
    rows = [["Tree, from the tubing head up", "Class", "Test", "Shuts by itself"]]
    tree = found.completion.tree if found.completion is not None else None
    for valve in tree.valves if tree is not None else ():
        psi = show(valve.class_psi, "pressure"), show(valve.test_psi, "pressure")
        rows.append([valve.name, *psi, "yes" if valve.safety else "-"])
    return rows


def _plugs(left: LeavingRow, show: Show) -> list[list[str]]:
    rows = [["Plug", "Top", "Bottom", "Slurry", "Sacks", "Displace", "Verified by"]]
    for plug in left.plugs:
        depths, volumes = (show(plug.top_md_ft, "depth"), show(plug.bottom_md_ft, "depth")), plug.volumes
        pumped = ("unknown", "-", "-")
        if volumes is not None:
            pumped = (
                show(volumes.slurry_bbl, "volume"),
                show(volumes.sacks, "sacks"),
                show(volumes.displacement_bbl, "volume"),
            )
        test = f", {show(plug.test_psi, 'pressure')}" if plug.test_psi is not None else ""
        rows.append([plug.name, *depths, *pumped, f"{plug.verify}{test}"])
    return rows
