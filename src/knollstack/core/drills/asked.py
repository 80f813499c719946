"""A kill sheet that was asked for: what was read is part of the key of its workings, so each number opens by its key alone."""

from __future__ import annotations

import math
from dataclasses import dataclass

from knollstack.core.base.formula import Call
from knollstack.core.base.working import recording
from knollstack.core.document.faults import Fault, FaultyDesign
from knollstack.core.drills.killsheet import kill_sheet
from knollstack.core.drills.results import KillSheet, ShutIn
from knollstack.core.program.equipped import Equipped

PREFIX = "kill-sheet"


@dataclass(frozen=True)
class AskedSheet:
    """Of a hole at a depth, by default its end."""

    hole: str
    md_ft: float | None
    read: ShutIn

    @property
    def key(self) -> str:
        numbers = (self.md_ft, self.read.sidpp_psi, self.read.sicp_psi, self.read.gain_bbl)
        return "/".join([PREFIX, self.hole, *("end" if n is None else repr(float(n)) for n in numbers)])


def asked_of(key: str) -> AskedSheet | None:
    """The sheet that a working's key belongs to; None where it is none of an asked sheet."""
    parts = key.split("/")
    if len(parts) < 6 or parts[0] != PREFIX:
        return None
    try:
        numbers = [None if p == "end" else float(p) for p in parts[2:6]]
    except ValueError:
        return None
    depth, *read = numbers
    known = [n for n in read if n is not None and 0 <= n < math.inf]
    if len(known) < 3 or (depth is not None and not 0 < depth < math.inf):
        return None
    return AskedSheet(parts[1], depth, ShutIn(sidpp_psi=known[0], sicp_psi=known[1], gain_bbl=known[2]))


def asked_sheet(equipped: Equipped, asked: AskedSheet) -> KillSheet | None:
    """None where the well has no such hole or what the sheet needs is unknown; a depth outside the hole is a fault."""
    below = next((s for s in equipped.strings[1:] if s.id == asked.hole), None)
    if below is None:
        return None
    depth = below.shoe_md_ft if asked.md_ft is None else asked.md_ft
    if not below.previous_shoe_md_ft < depth <= below.shoe_md_ft:
        expected = f"a depth in this hole, over {below.previous_shoe_md_ft:,.0f} to {below.shoe_md_ft:,.0f} ft"
        raise FaultyDesign([Fault(path="/md_ft", value=f"{depth:,.0f}", expected=expected)])
    return kill_sheet(equipped, below, depth, asked.read, asked.key)


def asked_workings(equipped: Equipped, asked: AskedSheet) -> dict[str, list[Call]]:
    """The working of every number of the sheet, by key."""
    with recording() as records:
        asked_sheet(equipped, asked)
    return records
