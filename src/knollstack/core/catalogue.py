"""Catalogue rows as core types: what the rules may choose from. The CSV files and their loader are elsewhere."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from knollstack.core.pipe.joints import (
    buttress_coupling_root,
    buttress_joint_strength,
    round_thread_joint_strength,
)
from knollstack.core.pipe.ratings import pipe_body_yield, pipe_collapse, pipe_internal_yield

Connection = str


@dataclass(frozen=True)
class Grade:
    grade: str
    yield_psi: float
    ultimate_psi: float
    cost_index: float
    sour_from_f: float | None
    source: str


@dataclass(frozen=True)
class Thread:
    connection: Connection
    od_in: float
    from_weight_ppf: float
    coupling_od_in: float
    total_length_in: float | None
    face_in: float | None
    pitch_diameter_in: float | None
    perfect_length_in: float | None
    stand_off_in: float | None
    taper_in_in: float | None
    thread_height_in: float | None
    source: str

    @property
    def coupling_root_in(self) -> float | None:
        """Root diameter of a buttress coupling, None for other threads."""
        values = (
            self.pitch_diameter_in,
            self.perfect_length_in,
            self.stand_off_in,
            self.taper_in_in,
            self.thread_height_in,
        )
        if any(v is None for v in values):
            return None
        return buttress_coupling_root(*[v for v in values if v is not None])


@dataclass(frozen=True)
class Size:
    od_in: float
    rank: int
    usual_bit_in: float
    source: str


@dataclass(frozen=True)
class Bit:
    bit_in: float
    kind: Literal["bit", "hole opener"]
    source: str


@dataclass(frozen=True)
class Flange:
    nominal: str
    bore_in: float
    class_psi: float
    ring: str
    type: str
    source: str


@dataclass(frozen=True)
class Piece:
    kind: str
    title: str
    from_class_psi: float
    height_in: float
    gap_in: float
    source: str


@dataclass(frozen=True)
class Element:
    element: str
    title: str
    seals: str
    height_in: float
    source: str


def api_drift_in(od_in: float, wall_in: float) -> float:
    """API drift [in]: ID less 1/8, 5/32 or 3/16 in by size (API 5CT)."""
    allowance = 0.125 if od_in < 9.625 else 0.15625 if od_in <= 13.375 else 0.1875
    return od_in - 2 * wall_in - allowance


@dataclass(frozen=True)
class Pipe:
    """One thing that can be ordered: size, weight, grade and connection, with its ratings.

    `joint_lbf` is None where the catalogue lacks the thread's data: unknown, never guessed.
    """

    od_in: float
    weight_ppf: float
    wall_in: float
    grade: Grade
    connection: Connection
    coupling_od_in: float
    thread: Thread
    cost_factor: float
    source: str

    @property
    def id_in(self) -> float:
        return self.od_in - 2 * self.wall_in

    @property
    def drift_in(self) -> float:
        return api_drift_in(self.od_in, self.wall_in)

    @property
    def cost_per_ft(self) -> float:
        """Relative cost per foot: weight × grade index × connection factor."""
        return self.weight_ppf * self.grade.cost_index * self.cost_factor

    @cached_property
    def burst_psi(self) -> float:
        return pipe_internal_yield(self.od_in, self.wall_in, self.grade.yield_psi)

    @cached_property
    def collapse_psi(self) -> float:
        return pipe_collapse(self.od_in, self.wall_in, self.grade.yield_psi)

    @cached_property
    def body_lbf(self) -> float:
        return float(pipe_body_yield(self.od_in, self.wall_in, self.grade.yield_psi))

    @cached_property
    def joint_lbf(self) -> float | None:
        return self.joint_strength()

    def joint_strength(self) -> float | None:
        """Joint strength [lbf] from the thread's dimensions, None where they are not held."""
        thread, grade = self.thread, self.grade
        root = thread.coupling_root_in
        if root is not None:
            return buttress_joint_strength(
                self.od_in,
                self.wall_in,
                grade.yield_psi,
                grade.ultimate_psi,
                thread.coupling_od_in,
                root,
                grade.ultimate_psi,
            )
        if thread.total_length_in is None or thread.face_in is None:
            return None
        engaged = thread.total_length_in - thread.face_in
        return round_thread_joint_strength(self.od_in, self.wall_in, grade.yield_psi, grade.ultimate_psi, engaged)


@dataclass(frozen=True)
class Catalogue:
    pipes: tuple[Pipe, ...]
    sizes: tuple[Size, ...]
    bits: tuple[Bit, ...]
    flanges: tuple[Flange, ...]
    pieces: tuple[Piece, ...]
    elements: tuple[Element, ...]
    grades: tuple[Grade, ...]

    @cached_property
    def by_od(self) -> dict[float, tuple[Pipe, ...]]:
        """Pipes of each size, the cheapest first."""
        groups: dict[float, list[Pipe]] = {}
        for pipe in sorted(self.pipes, key=lambda p: (p.cost_per_ft, p.weight_ppf, p.grade.grade)):
            groups.setdefault(pipe.od_in, []).append(pipe)
        return {od: tuple(pipes) for od, pipes in groups.items()}

    @cached_property
    def size_by_od(self) -> dict[float, Size]:
        return {size.od_in: size for size in self.sizes}

    @cached_property
    def largest_drift_in(self) -> dict[float, float]:
        """Drift [in] of the lightest weight of each size: the most that any weight lets through."""
        return {od: max(p.drift_in for p in pipes) for od, pipes in self.by_od.items()}

    @cached_property
    def largest_coupling_in(self) -> dict[float, float]:
        """Largest coupling OD [in] of each size."""
        return {od: max(p.coupling_od_in for p in pipes) for od, pipes in self.by_od.items()}

    def piece(self, kind: str, class_psi: float) -> Piece:
        """The heaviest kind of wellhead piece whose class range starts at or below a class."""
        rows = [p for p in self.pieces if p.kind == kind and p.from_class_psi <= class_psi]
        return max(rows, key=lambda p: p.from_class_psi)

    def element(self, name: str) -> Element | None:
        return next((e for e in self.elements if e.element == name), None)

    def flange(self, least_bore_in: float, least_class_psi: float) -> Flange | None:
        """The smallest flange, then the lowest class, with at least this bore and class."""
        fits = [f for f in self.flanges if f.bore_in >= least_bore_in and f.class_psi >= least_class_psi]
        return min(fits, key=lambda f: (f.bore_in, f.class_psi), default=None)
