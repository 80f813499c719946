"""What stands in the annulus: mud and bubbles of gas, from the outlet down, in balance with the pressure on top of them.

Volumes are kept by construction: a cell is only split, moved or taken whole. Mud is slightly compressible, a bubble follows the
real gas law at the pressure in its middle, each bubble fills the section where it stands.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.drills.gas import ATMOSPHERE_PSI, Gas
from knollstack.core.drills.geometry import Line, Way

MUD_1_PSI = 3.5e-6
"""Compressibility of mud with the give of casing and hole: a planning value."""
SPECK_BBL = 1e-7
NEAR_BBL = 0.25
"""Mud that comes in joins a boundary as near as this, so that one that trembles with pressure does not cut slivers."""
MOST_BUBBLES = 8


@dataclass(slots=True)
class Cell:
    """Mud with its volume at no pressure on top, or gas with its amount; `zt` is z·T [°R] as it last stood."""

    ppg: float
    bbl: float = 0.0
    amount: float = 0.0
    zt: float = 0.0
    psi: float = 0.0
    """Pressure in its middle as it last stood."""

    @property
    def is_gas(self) -> bool:
        return self.amount > 0


class Column:
    """Cells from the outlet down in one way. `void_bbl` is what is missing on top of an open hole."""

    def __init__(self, way: Way, gas: Gas, mud_ppg: float, heat: Line) -> None:
        self.way, self.gas, self.mud_ppg, self.heat = way, gas, mud_ppg, heat
        self.cells = [Cell(mud_ppg, way.total_bbl)]
        self.void_bbl = 0.0

    def stand(
        self, top_psi: float, rate: float = 0.0, marks: Sequence[float] = (), from_bbl: float = 0.0, keep: bool = False
    ) -> tuple[float, list[float]]:
        """Volume of all cells under a pressure on top, and the pressures at marked volumes, which rise.

        `rate` is the flow over the slow rate, by which friction grows; `from_bbl` is where the fluid begins.
        """
        way, squeeze, mass = self.way, 1.0 - MUD_1_PSI * top_psi, self.gas.mass
        at, p = from_bbl, top_psi
        tvd, rubbed = way.at(at)
        found: list[float] = []
        k, count = 0, len(marks)
        for cell in self.cells:
            if cell.amount > 0:
                volume = cell.amount * cell.zt / (p + ATMOSPHERE_PSI)
                down, drag = way.at(at + volume)
                ppg = cell.amount * mass / volume
                half = 0.5 * PSI_PER_PPG_FT * ppg * (down - tvd)
                volume = cell.amount * cell.zt / (max(p + half, 0.0) + ATMOSPHERE_PSI)
                ppg = cell.amount * mass / volume
            else:
                volume, ppg = cell.bbl * squeeze, cell.ppg
            down, drag = way.at(at + volume)
            step = PSI_PER_PPG_FT * ppg * (down - tvd) + (drag - rubbed) * rate * ppg / self.mud_ppg
            while k < count and marks[k] <= at + volume:
                mark_tvd, mark_rub = way.at(marks[k])
                found.append(
                    p + PSI_PER_PPG_FT * ppg * (mark_tvd - tvd) + (mark_rub - rubbed) * rate * ppg / self.mud_ppg
                )
                k += 1
            if keep:
                cell.psi = p + 0.5 * step
                if cell.amount > 0:
                    cell.zt = self.gas.zt(cell.psi + ATMOSPHERE_PSI, self.heat.at(0.5 * (tvd + down)))
                    cell.bbl = volume
            at, p, tvd, rubbed = at + volume, p + step, down, drag
        while k < count:
            found.append(p)
            k += 1
        return at - from_bbl, found

    def place(self, top_psi: float) -> list[tuple[Cell, float, float]]:
        """Cells with the volumes [bbl] from the outlet at which they begin and end, as they last stood."""
        squeeze, at, rows = 1.0 - MUD_1_PSI * top_psi, max(self.void_bbl, 0.0), []
        for cell in self.cells:
            volume = cell.bbl if cell.amount > 0 else cell.bbl * squeeze
            rows.append((cell, at, at + volume))
            at += volume
        return rows

    def put_mud(self, bbl: float, ppg: float, at_bbl: float, top_psi: float) -> None:
        """Mud that comes in at a volume below the outlet; its own volume is that without pressure on top."""
        if bbl <= 0:
            return
        i = self.split(at_bbl, top_psi, NEAR_BBL)
        for near in (i - 1, i):
            if 0 <= near < len(self.cells) and not self.cells[near].is_gas and abs(self.cells[near].ppg - ppg) < 1e-9:
                self.cells[near].bbl += bbl
                return
        self.cells.insert(i, Cell(ppg, bbl))

    def put_gas(self, amount: float, zt: float, bbl: float, apart_bbl: float) -> None:
        """Gas that comes in at the bottom of the hole: into the bubble over no more mud than `apart_bbl`, else its own."""
        under = 0.0
        apart_bbl = math.inf if sum(c.is_gas for c in self.cells) >= MOST_BUBBLES else apart_bbl
        for cell in reversed(self.cells):
            if cell.is_gas:
                cell.amount += amount
                cell.bbl += bbl
                return
            under += cell.bbl
            if under > apart_bbl:
                break
        self.cells.append(Cell(0.0, bbl, amount, zt, 0.0))

    def split(self, at_bbl: float, top_psi: float, near_bbl: float = SPECK_BBL) -> int:
        """Index of the cell that begins at a volume, or near it; else a cell is cut in two there."""
        for i, (cell, begins, ends) in enumerate(self.place(top_psi)):
            if at_bbl <= begins + near_bbl:
                return i
            if at_bbl < ends - near_bbl:
                share = (at_bbl - begins) / (ends - begins)
                upper = Cell(cell.ppg, cell.bbl * share, cell.amount * share, cell.zt, cell.psi)
                cell.bbl -= upper.bbl
                cell.amount -= upper.amount
                self.cells.insert(i, upper)
                return i + 1
        return len(self.cells)

    def take(self, bbl: float, at_bbl: float, top_psi: float) -> tuple[float, float]:
        """Take a volume as it stands, from a place down: its mud [bbl without pressure on top], amount of gas."""
        mud = amount = 0.0
        i, squeeze = self.split(at_bbl, top_psi), 1.0 - MUD_1_PSI * top_psi
        while bbl > SPECK_BBL and i < len(self.cells):
            cell = self.cells[i]
            volume = cell.bbl if cell.is_gas else cell.bbl * squeeze
            share = min(1.0, bbl / volume) if volume > 0 else 1.0
            if cell.is_gas:
                amount += cell.amount * share
            else:
                mud += cell.bbl * share
            bbl -= volume * share
            if share >= 1.0:
                self.cells.pop(i)
            else:
                cell.bbl *= 1 - share
                cell.amount *= 1 - share
        return mud, amount

    def give_mud(self, bbl: float, at_bbl: float, top_psi: float) -> list[tuple[float, float]]:
        """Mud [ppg, bbl without pressure on top] into the string, from a place up: its float keeps gas out."""
        given = []
        for cell, begins, _ in reversed(self.place(top_psi)):
            if cell.is_gas or begins >= at_bbl or bbl <= SPECK_BBL:
                continue
            taken = min(bbl, cell.bbl)
            cell.bbl -= taken
            given.append((cell.ppg, taken))
            bbl -= taken
        self.cells = [c for c in self.cells if c.is_gas or c.bbl > 0]
        return given

    def rise(self, feet: float, top_psi: float) -> None:
        """Bubbles slip up through the mud: what they pass goes below them; those that meet become one."""
        squeeze = 1.0 - MUD_1_PSI * top_psi
        i, at = 0, max(self.void_bbl, 0.0)
        while i < len(self.cells):
            cell = self.cells[i]
            volume = cell.bbl if cell.is_gas else cell.bbl * squeeze
            above = self.cells[i - 1] if i else None
            if cell.is_gas and above is not None and not above.is_gas:
                passed = feet * self.way.capacity_at(at) / squeeze
                passed = above.bbl if above.bbl - passed < SPECK_BBL else passed
                self._pass(i, above, passed)
                at -= passed * squeeze
                if above.bbl <= 0:
                    self.cells.pop(i - 1)
                    i -= 1
            if cell.is_gas and i and self.cells[i - 1].is_gas:
                self._join(i)
                i -= 1
            at += volume
            i += 1

    def _pass(self, i: int, above: Cell, bbl: float) -> None:
        below = self.cells[i + 1] if i + 1 < len(self.cells) else None
        above.bbl -= bbl
        if below is not None and not below.is_gas and abs(below.ppg - above.ppg) < 1e-9:
            below.bbl += bbl
        elif bbl > 0:
            self.cells.insert(i + 1, Cell(above.ppg, bbl))

    def _join(self, i: int) -> None:
        lower, upper = self.cells.pop(i), self.cells[i - 1]
        whole = upper.amount + lower.amount
        upper.zt = (upper.zt * upper.amount + lower.zt * lower.amount) / whole
        upper.bbl += lower.bbl
        upper.amount = whole

    def tidy(self) -> None:
        """Mud beside mud of its weight becomes one cell, specks go with it."""
        kept: list[Cell] = []
        for cell in self.cells:
            if kept and not cell.is_gas and not kept[-1].is_gas and abs(kept[-1].ppg - cell.ppg) < 1e-9:
                kept[-1].bbl += cell.bbl
            else:
                kept.append(cell)
        self.cells = kept

    @property
    def gas_amount(self) -> float:
        return sum(c.amount for c in self.cells)

    @property
    def mud_bbl(self) -> float:
        """Mud in the hole, as it would stand without pressure on top."""
        return sum(c.bbl for c in self.cells if not c.is_gas)

    @property
    def gas_bbl(self) -> float:
        return sum(c.bbl for c in self.cells if c.is_gas)
