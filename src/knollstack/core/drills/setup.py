"""The well as a rehearsal has it: numbers alone, taken from the design once when a scene begins."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.drills.geometry import Line, Stretch
from knollstack.core.preventers.results import Verdict

ENDLESS = 1e9


@dataclass(frozen=True)
class Tube:
    """A length of the string, from the bit up; that of the last is `ENDLESS` while the string hangs from the rig."""

    kind: str
    length_ft: float
    od_in: float
    id_in: float
    joint_in: float
    """OD of its tool joints or couplings."""


def sized(kind: str, od_in: float) -> str:
    return f"{kind} {od_in:g}"


@dataclass(frozen=True)
class Element:
    """An element of the stack: what it does on each thing that may be across it."""

    index: int
    id: str
    title: str
    kind: str
    element: str
    md_ft: float
    seconds: float
    on: dict[str, Verdict]
    """By kind, and where sizes differ by kind and size."""
    hang_off_lbf: float | None = None


@dataclass(frozen=True)
class Rock:
    """A depth of the open hole that may break."""

    md_ft: float
    tvd_ft: float
    fracture_psi: float


@dataclass(frozen=True)
class Pumps:
    bbl_stroke: float
    slow_spm: float
    drilling_spm: float
    most_spm: float
    slow_psi: float
    """Circulating pressure at the slow rate with the hole's mud, annulus included."""
    power: float = 2.0
    annulus_power: float = 1.0
    """By which powers of the rate friction grows in the string and in the annulus."""
    relief_psi: float = 5_000.0

    @property
    def slow_bpm(self) -> float:
        return self.bbl_stroke * self.slow_spm


@dataclass(frozen=True)
class Setup:
    depths: Line
    heat: Line
    bores: tuple[tuple[float, float, float], ...]
    """Top and bottom MD [ft] and diameter [in] of what is around the string, from the stack down."""
    over_in: float
    """Bore over the stack: bell nipple or riser."""
    stack_md_ft: float
    hole_md_ft: float
    string: tuple[Tube, ...]
    bit_md_ft: float | None
    joint_ft: float
    mud_ppg: float
    friction: dict[tuple[float, float], float]
    """Loss in the annulus at the slow rate [psi/ft] by both diameters; absent is none."""
    choke_line_in: float
    choke_line_psi: float
    """Friction of the choke line at the slow rate; 0 where the stack is not on the sea floor."""
    pumps: Pumps
    rock: tuple[Rock, ...]
    shoe_md_ft: float
    pore_psi: float
    inflow_bpm_psi: float
    gas_sg: float
    slip_ft_min: float
    elements: tuple[Element, ...]
    choke_at: int | None
    pit_bbl: float
    class_psi: float | None
    at_sea: bool
    diverter: bool
    """Nothing but a diverter stands on the well."""
    string_lbf: float = 0.0

    @property
    def hole_tvd_ft(self) -> float:
        return self.depths.at(self.hole_md_ft)

    @property
    def slow_annulus_psi(self) -> float:
        """Of the annulus at the slow rate with the bit at its depth."""
        return sum(s.friction_psi for s in self.annulus(self.bit_md_ft, self.string))

    def tube_at(self, md_ft: float, bit_md_ft: float | None, string: tuple[Tube, ...]) -> Tube | None:
        """What of the string stands at a depth; None below the bit, or without a string."""
        if bit_md_ft is None or md_ft > bit_md_ft:
            return None
        over = bit_md_ft - md_ft
        for tube in string:
            if over <= tube.length_ft:
                return tube
            over -= tube.length_ft
        return None

    def annulus(
        self, bit_md_ft: float | None, string: tuple[Tube, ...], top_md_ft: float | None = None
    ) -> list[Stretch]:
        """From the stack, or another depth, down to the bottom of the hole."""
        top = self.stack_md_ft if top_md_ft is None else top_md_ft
        whole = ((0.0, self.stack_md_ft, self.over_in), *self.bores)
        cuts = [bit_md_ft] if bit_md_ft is not None else []
        at = bit_md_ft or 0.0
        for part in string if bit_md_ft is not None else ():
            at -= part.length_ft
            cuts.append(at)
        found: list[Stretch] = []
        for begins, ends, outer in whole:
            low, high = max(begins, top), min(ends, self.hole_md_ft)
            inner_cuts = sorted(c for c in cuts if low < c < high)
            for a, b in zip([low, *inner_cuts], [*inner_cuts, high], strict=True):
                if b > a:
                    tube = self.tube_at(0.5 * (a + b), bit_md_ft, string)
                    inner = tube.od_in if tube is not None else 0.0
                    lost = self.friction.get((outer, inner), 0.0) * (b - a)
                    found.append(Stretch(a, b, outer, inner, lost))
        return found

    def choke_line(self) -> list[Stretch]:
        """The line from the stack up to the choke at the rig floor."""
        return [Stretch(0.0, self.stack_md_ft, self.choke_line_in)]
