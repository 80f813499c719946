"""What pressure built up in sealed annuli does to the casings around them, and what relieves it: each way was tried."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from knollstack.core.base.findings import Change, Finding, Remedy, depth, find, percent, pressure, remedy
from knollstack.core.document.sea import MOST_DISK_PSI
from knollstack.core.pipe.annuli import Annulus, cemented_up, opened, solved
from knollstack.core.pipe.annuli_loads import Annuli, loads_of
from knollstack.core.program.equipped import Equipped

DISK_STEP_PSI = 100.0
LEAST_DISK_PSI = 500.0
SHARES = (0.03, 0.05, 0.08, 0.12)


def shares_of(equipped: Equipped, found: Annuli, k: int) -> tuple[float, float] | None:
    """Load over rating with policy's factors: collapse of the inner casing, burst of the outer one."""
    loads, factors = loads_of(equipped, found, k), equipped.well.policy.pipe.factors
    if loads is None:
        return None
    collapse, burst = loads
    return collapse.psi * factors.collapse / collapse.rated_psi, burst.psi * factors.burst / burst.rated_psi


def annuli_findings(equipped: Equipped, found: Annuli) -> Iterator[Finding]:
    for k, (inner, _outer) in enumerate(found.pairs):
        subject = (*inner.words, " annulus")
        if found.annuli[k] is None:
            if not cemented_up(inner):
                text = "What builds up here by heat is unknown: temperatures, pipe, mud or cement are missing."
                yield find("sea", "unknown", f"{inner.path}/cement/top_md_ft", subject, text)
            continue
        shares = shares_of(equipped, found, k)
        if shares is None or max(shares) <= 1 + 1e-9:
            continue
        yield _finding(equipped, found, k, shares, outer_fails=shares[1] > shares[0])
    yield from _lost(equipped)


def _finding(equipped: Equipped, found: Annuli, k: int, shares: tuple[float, float], *, outer_fails: bool) -> Finding:
    inner, outer = found.pairs[k]
    annulus, own = found.annuli[k], found.pressure_psi[k] or 0.0
    assert annulus is not None
    loads, factors = loads_of(equipped, found, k), equipped.well.policy.pipe.factors
    assert loads is not None
    load = loads[1 if outer_fails else 0]
    over = max(shares) > (factors.burst if outer_fails else factors.collapse)
    casing, way = (outer, "bursts") if outer_fails else (inner, "collapses")
    return find(
        "sea",
        "stop" if over else "caution",
        f"{inner.path}/cement/top_md_ft",
        (*inner.words, " annulus"),
        "Production heats the sealed annulus: ",
        pressure(own),
        " build up at the wellhead on the sea floor; with the columns on either side ",
        *casing.words,
        " casing sees ",
        pressure(load.psi),
        f" and {way} at ",
        pressure(load.rated_psi),
        "." if over else ": less than policy's factor.",
        value=pressure(load.psi),
        limit=pressure(load.rated_psi),
        remedies=tuple(_ways(equipped, found, k)),
        working=f"sea/annulus/{inner.index}",
    )


def _clears(equipped: Equipped, found: Annuli, k: int, other: Annulus) -> bool:
    """With another annulus in its place it holds, and none that held fails."""
    annuli = (*found.annuli[:k], other, *found.annuli[k + 1 :])
    tried = replace(found, annuli=annuli, pressure_psi=tuple(solved(equipped.well, list(annuli))))
    for i in range(len(annuli)):
        before, after = shares_of(equipped, found, i), shares_of(equipped, tried, i)
        if after is None or before is None:
            continue
        if max(after) > 1 + 1e-9 and (i == k or max(before) <= 1 + 1e-9):
            return False
    return True


def _ways(equipped: Equipped, found: Annuli, k: int) -> Iterator[Remedy]:
    annulus = found.annuli[k]
    assert annulus is not None
    inner, down = annulus.inner, equipped.well.policy.sea.open_below_ft
    if annulus.sealed:
        other = opened(annulus, equipped.well, down)
        if other is not None and _clears(equipped, found, k, other):
            top = annulus.outer.shoe_md_ft + down
            yield remedy(inner.change("cement/top_md_ft", top), "Leave the shoe open: cement up to ", depth(top))
    disk = _disk_psi(equipped, found, k, annulus)
    if disk is not None:
        row = {"string": inner.id, "relief": "rupture disk", "disk_psi": disk, "share": None}
        yield remedy(_set(equipped, inner.id, row), "Fit a rupture disk that opens at ", pressure(disk))
    for share in SHARES:
        if _clears(equipped, found, k, replace(annulus, share_gas=share, disk_psi=None)):
            row = {"string": inner.id, "relief": "compressible fluid", "disk_psi": None, "share": share}
            text = " of the annulus with nitrogen or foam"
            yield remedy(_set(equipped, inner.id, row), "Fill ", percent(share * 100), text)
            return


def _disk_psi(equipped: Equipped, found: Annuli, k: int, annulus: Annulus) -> float | None:
    """The highest pressure, in steps, at which a disk in the outer casing keeps both casings."""
    most = min(found.pressure_psi[k] or 0.0, MOST_DISK_PSI) // DISK_STEP_PSI * DISK_STEP_PSI
    while most >= LEAST_DISK_PSI:
        if _clears(equipped, found, k, replace(annulus, disk_psi=most, share_gas=0.0)):
            return float(most)
        most -= DISK_STEP_PSI
    return None


def _set(equipped: Equipped, string: str, row: dict[str, object]) -> Change:
    """The relief of an annulus, in place of the one that it had."""
    held = equipped.design.sea.annuli
    at = next((i for i, old in enumerate(held) if old.string == string), None)
    if at is not None:
        return Change(path=f"/sea/annuli/{at}", value=row)
    return Change(path="/sea/annuli", value=[*(old.model_dump(mode="json") for old in held), row])


def _lost(equipped: Equipped) -> Iterator[Finding]:
    known = {s.id for s in equipped.strings}
    for i, row in enumerate(equipped.design.sea.annuli):
        if row.string not in known:
            rest = [old.model_dump(mode="json") for j, old in enumerate(equipped.design.sea.annuli) if j != i]
            yield find(
                "sea",
                "caution",
                f"/sea/annuli/{i}/string",
                ("Sealed annuli",),
                "The string that this relief is around is no longer in the design; it is not used.",
                remedies=(remedy(Change(path="/sea/annuli", value=rest), "Remove it"),),
            )
        elif row.relief == "rupture disk" and row.disk_psi is None:
            text = "At which pressure the rupture disk opens is not given: it counts as none."
            yield find("sea", "unknown", f"/sea/annuli/{i}/disk_psi", ("Sealed annuli",), text)
        elif row.relief == "compressible fluid" and not row.share:
            text = "Which share of the annulus is compressible is not given: it counts as none."
            yield find("sea", "unknown", f"/sea/annuli/{i}/share", ("Sealed annuli",), text)
