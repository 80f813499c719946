"""What a rehearsal is made of at a moment: string, stack, valves, pumps, fluids, and what the gauges are worked from."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.drills.column import Cell, Column
from knollstack.core.drills.gas import gas_of
from knollstack.core.drills.geometry import Way
from knollstack.core.drills.inside import Inside
from knollstack.core.drills.setup import Element, Setup, Tube, sized
from knollstack.core.preventers.coverage import SEALING

Auto = Literal["by hand", "casing pressure", "drill pipe pressure"]
JOINT_HALF_FT = 1.0
"""From the middle of a tool joint or coupling to where a ram closes on the body."""


@dataclass
class Moves:
    """What the string is doing."""

    target_md_ft: float | None = None
    speed_ft_min: float = 0.0
    pulling: bool = False
    slips_s: float = 0.0
    """Left of the time in which a stand is racked back."""
    pulled_ft: float = 0.0


@dataclass
class Valves:
    choke_line: bool = False
    overboard: bool = False
    choke: float = 0.0
    auto: Auto = "by hand"
    target_psi: float = 0.0


@dataclass
class Counted:
    """Sums since the start of the scene, of mud in bbl and of gas in its amount."""

    mud_in: float = 0.0
    mud_out: float = 0.0
    mud_lost: float = 0.0
    gas_in: float = 0.0
    gas_out: float = 0.0
    gas_lost: float = 0.0
    overboard: float = 0.0


@dataclass
class Readings:
    """Truth at the end of the last step; the panel shows some of it."""

    top_psi: float = 0.0
    casing_psi: float = 0.0
    kill_psi: float = 0.0
    pipe_psi: float = 0.0
    bit_psi: float = 0.0
    bottom_psi: float = 0.0
    shoe_psi: float = 0.0
    rock_psi: tuple[float, ...] = ()
    out_bpm: float = 0.0
    """Over the shakers, overboard or to the gas separator: from the hole and from a riser that unloads."""
    hole_bpm: float = 0.0
    """From the hole alone."""
    through_bit_bpm: float = 0.0
    influx_bpm: float = 0.0
    loss_bpm: float = 0.0
    floor_bpm: float = 0.0
    """Up the open string at the rig floor."""


@dataclass
class State:
    setup: Setup
    t_s: float = 0.0
    bit_md_ft: float | None = None
    string: tuple[Tube, ...] = ()
    inside: Inside | None = None
    column: Column = field(init=False)
    riser: Column | None = None
    line: list[Cell] = field(default_factory=list)
    """What stands in the choke line while the stack is open."""
    moves: Moves = field(default_factory=Moves)
    valves: Valves = field(default_factory=Valves)
    counted: Counted = field(default_factory=Counted)
    now: Readings = field(default_factory=Readings)
    position: dict[int, float] = field(default_factory=dict)
    wanted: dict[int, bool] = field(default_factory=dict)
    leaks: dict[int, float] = field(default_factory=dict)
    """Flow coefficient of elements that do not hold."""
    spm: float = 0.0
    wanted_spm: float = 0.0
    strokes: float = 0.0
    mud_in_ppg: float = 0.0
    made_up: bool = True
    """Kelly or top drive on the string."""
    safety_valve: Literal["off", "open", "closed"] = "off"
    tight: bool = False
    """The well is closed over its outlet, if not by more than a leak."""
    broken: dict[int, bool] = field(default_factory=dict)
    pit_bbl: float = 0.0
    filled_bbl: float = 0.0
    """What the hole had to be given for pipe pulled and casing run empty: no loss."""
    cut: bool = False
    hung: int | None = None
    disconnected: bool = False
    swab_psi: float = 0.0
    float_holds: bool = False
    """A float in the shoe lets nothing into the string from below."""
    flowing: bool = True
    """The reservoir is open."""

    def __post_init__(self) -> None:
        s = self.setup
        self.bit_md_ft, self.string = s.bit_md_ft, s.string
        self.mud_in_ppg, self.pit_bbl = s.mud_ppg, s.pit_bbl
        if s.bit_md_ft is not None:
            self.inside = Inside(s.string, s.bit_md_ft, s.depths, s.mud_ppg)
        self.now = Readings(bit_psi=PSI_PER_PPG_FT * s.mud_ppg * s.depths.at(s.bit_md_ft or 0.0))
        self.column = Column(self.open_way(), gas_of(s.gas_sg), s.mud_ppg, s.heat)
        line = sum(p.length_ft * p.capacity_bbl_ft for p in s.choke_line())
        self.line = [Cell(s.mud_ppg, line)]
        self.position = {e.index: 0.0 for e in s.elements}
        self.wanted = {e.index: False for e in s.elements}

    def open_way(self) -> Way:
        s = self.setup
        return Way(s.annulus(self.bit_md_ft, self.string, 0.0), s.depths)

    def tight_way(self) -> Way:
        s = self.setup
        return Way([*s.choke_line(), *s.annulus(self.bit_md_ft, self.string)], s.depths)

    @property
    def rig_diverter(self) -> bool:
        """The diverter is closed and leads overboard what comes up the riser."""
        return self.diverting and self.valves.overboard

    @property
    def connected(self) -> bool:
        """The pumps reach the hole through the string."""
        return self.made_up and self.inside is not None and not self.cut

    def across(self, element: Element) -> str:
        """What stands in an element: the body of a pipe, its tool joint or coupling, or nothing."""
        bit = self.bit_md_ft
        tube = self.setup.tube_at(element.md_ft, bit, self.string)
        if tube is None or bit is None:
            return "nothing"
        if tube.kind == "collars":
            return "collars"
        over = bit - element.md_ft - sum(t.length_ft for t in self.string[: self.string.index(tube)])
        near = min(over % self.setup.joint_ft, -over % self.setup.joint_ft)
        if tube.joint_in > tube.od_in and near < JOINT_HALF_FT:
            return "coupling" if tube.kind == "casing" else "tool joint"
        return tube.kind

    def verdict(self, element: Element) -> str:
        kind = self.across(element)
        tube = self.setup.tube_at(element.md_ft, self.bit_md_ft, self.string)
        if tube is None:
            return element.on.get(kind, "unknown")
        size = tube.joint_in if kind in ("tool joint", "coupling") else tube.od_in
        return element.on.get(sized(kind, size), element.on.get(kind, "unknown"))

    def closed(self, element: Element) -> bool:
        return self.position[element.index] >= 1.0

    @property
    def sealing(self) -> list[Element]:
        """Closed elements that hold what is across them, leaking or not."""
        return [e for e in self.setup.elements if self.closed(e) and self.verdict(e) in SEALING]

    @property
    def leak_cv(self) -> float:
        """0 where one of the closed elements holds."""
        found = self.sealing
        return min((self.leaks.get(e.index, 0.0) for e in found), default=0.0)

    @property
    def string_closed(self) -> bool:
        """Nothing comes up the string: it is made up, its valve closed, its float holds, or there is none at the rig floor."""
        return self.inside is None or self.cut or self.made_up or self.float_holds or self.safety_valve == "closed"

    @property
    def diverting(self) -> bool:
        return any(e.kind == "diverter" and self.closed(e) for e in self.setup.elements)

    @property
    def choke_reached(self) -> bool:
        """Nothing is closed under the outlet of the choke line."""
        at = self.setup.choke_at
        return at is not None and not any(e.index < at and not self.leaks.get(e.index) for e in self.sealing)
