"""What is said of the completion once it is decided: perforations, packer, tubing, tree."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

import numpy as np

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.findings import (
    Change,
    Finding,
    Remedy,
    Words,
    depth,
    diameter,
    find,
    height,
    pressure,
    remedy,
    size,
)
from knollstack.core.catalogue.product import Pipe
from knollstack.core.completion.elements import Site
from knollstack.core.completion.producing import Producing, hanger_md_ft, inside_pay, perforations, producing_of
from knollstack.core.completion.results import CompletionRow, TubingRow
from knollstack.core.completion.tubing import candidates, decided_pipe, spaced_of, tried
from knollstack.core.completion.tubing_cases import cases_of
from knollstack.core.program.column import landing_md_ft
from knollstack.core.program.equipped import EquippedString

_find = partial(find, "completion")
TUBING, TREE, LONGEST_SEALS_FT = "/completion/tubing", "/completion/tree", 100.0


def completion_findings(site: Site, string: EquippedString, row: CompletionRow) -> Iterator[Finding]:
    yield from _perforation_findings(site, string)
    yield from _packer_findings(site, string, row)
    found = producing_of(site.equipped)
    if isinstance(found, str):
        yield _find("unknown", "/completion/packer_md_ft", ("Tubing",), f"It is not judged: {found}.")
    else:
        yield from _tubing_findings(site, found, row)
    yield from _tree_findings(site, row)


def _perforation_findings(site: Site, string: EquippedString) -> Iterator[Finding]:
    own, end = site.equipped.design.completion.perforations, landing_md_ft(string)
    pay = inside_pay(site.equipped, string)
    for k, row in enumerate(own):
        place, at = f"/completion/perforations/{k}", (depth(row.top_md_ft), " to ", depth(row.bottom_md_ft))
        subject: Words = ("Perforations ", *at)
        if row.top_md_ft < string.hung_md_ft or row.bottom_md_ft > string.shoe_md_ft:
            span: Words = (depth(string.hung_md_ft), " to ", depth(string.shoe_md_ft), ".")
            text: Words = ("They are outside the ", *string.words, " production string, ", *span)
            yield _find("stop", f"{place}/bottom_md_ft", subject, *text)
        elif row.bottom_md_ft > end:
            yield _find(
                "stop", f"{place}/bottom_md_ft", subject, "They reach into the shoe track, below ", depth(end), "."
            )
        elif pay and not any(row.top_md_ft < base and row.bottom_md_ft > top for top, base in pay):
            yield _find("caution", f"{place}/top_md_ft", subject, "No oil or gas is known behind them.")


def _packer_findings(site: Site, string: EquippedString, row: CompletionRow) -> Iterator[Finding]:
    spans, _ = perforations(site.equipped, string)
    at, place = row.packer_md_ft, "/completion/packer_md_ft"
    if at is None or row.packer_proposed:
        return
    if spans and at >= spans[0][0]:
        better = float(int(spans[0][0] - site.well.policy.completion.packer_above_ft))
        mend = remedy(Change(path=place, value=better), "Set the packer at ", depth(better))
        text: Words = ("It does not stand over the perforations, from ", depth(spans[0][0]), ".")
        there = better > hanger_md_ft(site.equipped) and better > site.well.ground_md_ft
        yield _find("stop", place, ("Packer",), *text, remedies=(mend,) if there else ())


def _tubing_findings(site: Site, found: Producing, row: CompletionRow) -> Iterator[Finding]:
    own, most = site.equipped.design.completion.tubing, site.well.policy.completion.tubing_most_in
    spaced = spaced_of(found)
    if spaced is None or row.tubing is None:
        text = (
            "This pipe is not in the catalogue."
            if own is not None
            else "No tubing of policy's size is in the catalogue."
        )
        yield _find("unknown", TUBING, ("Tubing",), text)
        return
    name: Words = (size(spaced.pipe.od_in), " tubing")
    wide, narrow = diameter(spaced.pipe.coupling_od_in), diameter(found.narrowest.drift_in)
    if own is not None and wide.value > narrow.value + 1e-9:
        said: Words = ("Its couplings of ", wide, " do not pass the casing's drift of ", narrow, ".")
        yield _find("stop", f"{TUBING}/od_in", name, *said, value=wide, limit=narrow)
        return
    if spaced.pipe.od_in > most + 1e-9:
        yield _find("note", f"{TUBING}/od_in", name, "Larger than policy's ", size(most), ".")
    if np.isnan(spaced.share):
        text = "The strength of its connection is not held: whether it stands is unknown."
        yield _find("unknown", f"{TUBING}/connection", name, text)
    elif spaced.share < 1 - 1e-9:
        yield _strength(found, row.tubing, spaced.pipe, name)
    yield from _heat_findings(row.tubing, name)
    yield from _seal_findings(row.tubing, name)


def _strength(found: Producing, row: TubingRow, pipe: Pipe, name: Words) -> Finding:
    """With the cheapest tubing that stands, where there is one."""
    worst = min(row.loads, key=lambda load: load.factor / load.required)
    said = f"{worst.kind.capitalize()} factor {worst.factor:.2f} in {worst.case}; {worst.required:.3g} asked"
    cases = tuple(cases_of(found))
    better = next((p for p in candidates(found) if p is not pipe and tried(found, p, True, cases).share >= 1), None)
    mends: tuple[Remedy, ...] = ()
    if better is not None:
        words = f" {better.weight_ppf:g} lb/ft {better.grade.grade} {better.connection}"
        value = dict(zip(("od_in", "weight_ppf", "grade", "connection"), better.key, strict=True))
        mends = (remedy(Change(path=TUBING, value=value), "Take ", size(better.od_in), words),)
    place = TUBING if decided_pipe(found) is not None else "/policy/sizes/tubing_od_in"
    more = "." if mends else ". No tubing of this size in the catalogue stands it."
    return _find("stop", place, name, said, " at ", depth(worst.md_ft), more, remedies=mends, working=worst.working)


def _heat_findings(row: TubingRow, name: Words) -> Iterator[Finding]:
    cold = [c.name for c in row.cases if c.heat_f is None]
    if cold:
        text = f"Its change of length by heat is unknown in {', '.join(cold)}: temperatures are not given."
        yield _find("unknown", "/site/bottom_temperature_f", name, text)


def _seal_findings(row: TubingRow, name: Words) -> Iterator[Finding]:
    """Seals stay in their bore whichever way the end moves."""
    needed = row.up_in + row.down_in
    if needed <= row.stroke_ft * 12 + 1e-6:
        return
    longer, place = float(np.ceil(needed / 12)), "/completion/stroke_ft"
    ways: Words = (height(row.up_in), " up and ", height(row.down_in), " down")
    mends = [remedy(Change(path="/completion/hold", value="anchored"), "Anchor the tubing")]
    if longer <= LONGEST_SEALS_FT:
        mends.insert(0, remedy(Change(path=place, value=longer), "Take seals of ", depth(longer)))
    text: Words = ("Its end moves ", *ways, "; seals of ", depth(row.stroke_ft), " leave their bore.")
    limit = height(row.stroke_ft * 12)
    yield _find("stop", place, name, *text, value=height(needed), limit=limit, remedies=tuple(mends))


def _tree_findings(site: Site, row: CompletionRow) -> Iterator[Finding]:
    own, tree, subject = site.equipped.design.completion.tree, row.tree, ("Tree",)
    if tree is None or tree.needed_psi is None:
        text = "Its class is unknown: the wellhead, or the pressure on it, is not known."
        yield _find("unknown", f"{TREE}/class_psi", subject, text)
    elif tree.class_psi < tree.needed_psi - 1e-6:
        value, limit = pressure(tree.needed_psi), pressure(tree.class_psi)
        enough = next((c for c in CLASSES_PSI if c >= tree.needed_psi), None)
        change = Change(path=f"{TREE}/class_psi", value=enough)
        mends = () if enough is None else (remedy(change, "Take a tree of ", pressure(enough)),)
        said: Words = ("Its class of ", limit, " is under the ", value, " that it sees.")
        yield _find("stop", f"{TREE}/class_psi", subject, *said, value=value, limit=limit, remedies=mends)
    if own.safety_valves < 1:
        mend = remedy(Change(path=f"{TREE}/safety_valves", value=1), "Make the upper master a safety valve")
        text = "It has no surface safety valve; one at least is asked."
        yield _find("stop", f"{TREE}/safety_valves", subject, text, remedies=(mend,))
    if own.orientation_deg is None:
        yield _find("note", f"{TREE}/orientation_deg", subject, "Where its production wing points to is not decided.")
