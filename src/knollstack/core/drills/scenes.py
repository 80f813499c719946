"""Which scenes a hole of this design can be played in, and why not the others."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from knollstack.core.base.findings import Words
from knollstack.core.drills.hole import bores_of, slow_of, tubes_of
from knollstack.core.drills.results import SceneKind, SceneRow
from knollstack.core.drills.scene import AT_SEA, TITLES
from knollstack.core.preventers.coverage import SEALING
from knollstack.core.preventers.results import CoverRow, StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.disconnect import stack_over
from knollstack.core.sea.results import DriftRow, SeaResult

COVERED: Mapping[str, str] = {"heavy-weight pipe": "drill pipe"}


def scene_rows(equipped: Equipped, results: Mapping[str, Any], below: EquippedString) -> tuple[SceneRow, ...]:
    """Every scene with the reason why this hole cannot be played in it; '' where it can."""
    stack = stack_over(equipped, results["preventers"], below)
    common = _common(equipped, stack, below)
    rows = []
    for kind, title in TITLES.items():
        why = common or _why_not(equipped, results, stack, below, kind)
        rows.append(SceneRow(kind=kind, title=title, why_not=why))
    return tuple(rows)


def _common(equipped: Equipped, stack: StackRow | None, below: EquippedString) -> str:
    well = equipped.well
    top, bottom = well.path.span(below.previous_shoe_md_ft, below.shoe_md_ft)
    if stack is None:
        return "no stack or diverter stands on this hole"
    if below.mud_ppg is None:
        return "the mud weight of this hole is not known"
    if bores_of(equipped, below, below.shoe_md_ft) is None:
        return "the casing above is not known"
    if not tubes_of(equipped, below):
        return "the bore of the drill pipe is not known"
    if well.ground.pore.one(bottom) is None or any(well.ground.fracture.one(tvd) is None for tvd in (top, bottom)):
        return "pore or fracture pressure is not known down to here"
    if slow_of(equipped, below).psi is None:
        return "the slow pump pressure is neither given nor can it be estimated: rheometer readings are missing"
    return ""


def _why_not(
    equipped: Equipped, results: Mapping[str, Any], stack: StackRow | None, below: EquippedString, kind: SceneKind
) -> str:
    assert stack is not None
    at_sea, diverter = equipped.well.site.setting == "subsea", only_diverter(stack)
    if kind in AT_SEA and not at_sea:
        return "of a floating rig alone"
    if (kind == "diverter") != diverter:
        return "a diverter alone stands on this hole" if diverter else "this hole is drilled with preventers"
    if kind == "drift-off":
        return "" if drift_of(results["sea"]) is not None else "no weather with its drift is given"
    if kind == "casing":
        return (
            ""
            if below.run in ("cased", "liner") and below.sections
            else "no casing is run through the stack in this hole"
        )
    if kind == "no pipe" and not _who(stack, below, "nothing", rams=True):
        return "no blind rams in the stack"
    if kind == "unshearable" and not (_who(stack, below, "nothing", rams=True) and _who(stack, below, "collars")):
        return "asks an annular that closes on collars, and blind rams"
    if kind == "failed annular" and not _who(stack, below, "drill pipe", rams=True):
        return "no ram closes on the drill pipe"
    if kind == "leaking ram" and len(_who(stack, below, "drill pipe", rams=True)) < 2:
        return "asks two rams that close on the drill pipe"
    if kind == "collars" and not _who(stack, below, "collars"):
        return "nothing in the stack closes on the collars"
    return ""


def only_diverter(stack: StackRow) -> bool:
    return all(e.kind != "annular" and e.kind != "ram" for e in stack.elements)


def cover_of(stack: StackRow, when: Words, kind: str, od_in: float | None = None) -> CoverRow | None:
    """What the elements do on a thing while the hole is drilled, or its casing run; of several sizes on the one that is asked."""
    rows = [row for row in stack.coverage if row.when == when and row.kind == kind]
    rows = rows or [row for row in stack.coverage if row.when == when and row.kind == COVERED.get(kind, kind)]
    return next((row for row in rows if od_in is not None and abs(row.od_in - od_in) < 1e-6), next(iter(rows), None))


def _who(stack: StackRow, below: EquippedString, kind: str, *, rams: bool = False) -> list[int]:
    """Elements that seal on a thing without being the shears that cut it."""
    row = cover_of(stack, below.hole_words, kind)
    if row is None:
        return []
    cells = enumerate(row.cells)
    return [k for k, cell in cells if cell in SEALING[:2] and (not rams or stack.elements[k].kind == "ram")]


def drift_of(sea: SeaResult) -> DriftRow | None:
    """The weather with the fastest drift of which all is known."""
    rows = sea.disconnect.drift if sea.disconnect is not None else ()
    known = [row for row in rows if row.red_s is not None and row.yellow_s is not None and row.drift_ft_min]
    return max(known, key=lambda row: row.drift_ft_min or 0.0, default=None)
