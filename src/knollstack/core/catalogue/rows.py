"""Catalogue rows as core types: what the rules may choose from. The CSV files and their loader are elsewhere."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from knollstack.core.catalogue.product import Connection, Grade, Pipe


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
    """A flange of API 6A: its face and its studs; the stand-off of its ring is None where it is not held."""

    nominal: str
    bore_in: float
    class_psi: float
    ring: str
    type: str
    od_in: float
    thickness_in: float
    studs: float
    stud_in: float
    gap_in: float | None
    source: str

    @property
    def words(self) -> str:
        return f"{self.nominal} in {self.type} {self.ring}"


@dataclass(frozen=True)
class Piece:
    kind: str
    from_class_psi: float
    height_in: float
    gap_in: float
    weight_lbf: float
    bowls: float
    bowl_depth_in: float
    bowl_lbf: float | None
    seal_in: float
    outlets: float
    source: str


@dataclass(frozen=True)
class Element:
    """A kind of element; `shears_share` is the largest pipe that its blades cut, as a share of its bore."""

    element: str
    title: str
    kind: Literal["diverter", "annular", "ram", "spool"]
    height_in: float
    weight_lbf: float
    outlets: float
    shears_share: float | None
    source: str


@dataclass(frozen=True)
class Operator:
    """What closes an element of a kind and bore."""

    kind: Literal["ram", "shear", "annular", "diverter"]
    from_bore_in: float
    close_gal: float
    open_gal: float
    closing_ratio: float | None
    area_in2: float | None
    hang_off_lbf: float | None
    source: str


@dataclass(frozen=True)
class RamRange:
    """The pipe that a variable ram block closes on."""

    from_in: float
    to_in: float
    least_bore_in: float
    source: str


@dataclass(frozen=True)
class DrillPipeRow:
    """Drill pipe with its usual tool joint."""

    od_in: float
    id_in: float
    weight_ppf: float
    adjusted_ppf: float
    tool_joint_in: float
    source: str


@dataclass(frozen=True)
class Reamer:
    """An under-reamer: the diameter of its closed body, and the greatest hole that it opens."""

    body_in: float
    opens_to_in: float
    source: str


@dataclass(frozen=True)
class LengthRange:
    range: int
    shortest_ft: float
    longest_ft: float
    source: str


@dataclass(frozen=True)
class FloatGear:
    """A piece of float equipment: where it stands, and how mud comes into the string through it."""

    gear: str
    place: Literal["shoe", "collar", "string", "top"]
    length_ft: float
    fills: Literal["closed", "auto", "differential", "through"]
    source: str


@dataclass(frozen=True, eq=False)
class Centralizer:
    """A centralizer for a casing size; of a bow spring its forces, of a rigid one the OD over its blades."""

    type: str
    kind: Literal["bow spring", "rigid"]
    od_in: float
    restoring_lbf: float | None
    starting_lbf: float | None
    running_lbf: float | None
    blade_in: float | None
    source: str
    price: float | None = None


@dataclass(frozen=True)
class AdditiveRow:
    """A generic cement additive with a usual amount and its specific gravity."""

    name: str
    use: str
    amount: float
    per: str
    sg: float
    source: str


@dataclass(frozen=True)
class RiserJointRow:
    """A generic riser joint: what is planned with until the rig's own are known."""

    name: str
    length_ft: float
    aboard: int
    wet_lbf: float
    lift_lbf: float
    source: str


@dataclass(frozen=True, eq=False)
class Catalogue:
    """All that can be chosen from; compared by identity, since it never changes."""

    pipes: tuple[Pipe, ...]
    sizes: tuple[Size, ...]
    bits: tuple[Bit, ...]
    flanges: tuple[Flange, ...]
    pieces: tuple[Piece, ...]
    elements: tuple[Element, ...]
    operators: tuple[Operator, ...]
    ram_ranges: tuple[RamRange, ...]
    drill_pipe: tuple[DrillPipeRow, ...]
    grades: tuple[Grade, ...]
    connections: tuple[Connection, ...]
    reamers: tuple[Reamer, ...]
    ranges: tuple[LengthRange, ...]
    float_gear: tuple[FloatGear, ...]
    centralizers: tuple[Centralizer, ...]
    additives: tuple[AdditiveRow, ...]
    riser_joints: tuple[RiserJointRow, ...]

    @cached_property
    def by_key(self) -> dict[tuple[float, float, str, str], Pipe]:
        return {pipe.key: pipe for pipe in self.pipes}

    @cached_property
    def tubing(self) -> tuple[Pipe, ...]:
        return tuple(p for p in self.pipes if p.kind == "tubing")

    @cached_property
    def by_od(self) -> dict[float, tuple[Pipe, ...]]:
        """Casing of each size, the cheapest first."""
        groups: dict[float, list[Pipe]] = {}
        casing = [p for p in self.pipes if p.kind == "casing"]
        for pipe in sorted(casing, key=lambda p: (p.cost_per_ft, p.weight_ppf, p.grade.grade)):
            groups.setdefault(pipe.od_in, []).append(pipe)
        return {od: tuple(pipes) for od, pipes in groups.items()}

    @cached_property
    def gear(self) -> dict[str, FloatGear]:
        return {row.gear: row for row in self.float_gear}

    @cached_property
    def range_of(self) -> dict[int, LengthRange]:
        return {row.range: row for row in self.ranges}

    @cached_property
    def make_up_loss_in(self) -> dict[tuple[float, str], float]:
        """Length [in] that a joint loses when it is made up, by size and connection, where its thread is held."""
        threads = [(p.od_in, p.connection, p.thread.make_up_loss_in) for p in self.pipes if p.thread is not None]
        return {(od, connection): loss for od, connection, loss in threads if loss is not None}

    @cached_property
    def size_by_od(self) -> dict[float, Size]:
        return {size.od_in: size for size in self.sizes}

    @cached_property
    def largest_drift_in(self) -> dict[float, float]:
        """The most [in] that any weight of each size lets through, at API drift."""
        return {od: max(p.api_drift_in for p in pipes) for od, pipes in self.by_od.items()}

    @cached_property
    def largest_coupling_in(self) -> dict[float, float]:
        """Largest coupling OD [in] of each size, of the usual connections."""
        return {
            od: max(p.coupling_od_in for p in pipes if p.joint.kind != "premium") for od, pipes in self.by_od.items()
        }

    @cached_property
    def couplings_in(self) -> dict[float, dict[str, float]]:
        """Connection and its OD [in], for each size."""
        return {od: {p.connection: p.coupling_od_in for p in pipes} for od, pipes in self.by_od.items()}

    def reamer(self, drift_in: float, hole_in: float) -> Reamer | None:
        """The largest under-reamer whose closed body passes a drift and that opens a hole to this size."""
        fits = [r for r in self.reamers if r.body_in <= drift_in + 1e-9 and r.opens_to_in >= hole_in - 1e-9]
        return max(fits, key=lambda r: r.body_in, default=None)

    def piece(self, kind: str, class_psi: float) -> Piece:
        """The heaviest kind of wellhead piece whose class range starts at or below a class, else the lightest."""
        rows = sorted((p for p in self.pieces if p.kind == kind), key=lambda p: p.from_class_psi)
        return next((p for p in reversed(rows) if p.from_class_psi <= class_psi), rows[0])

    @cached_property
    def element_by_name(self) -> dict[str, Element]:
        return {row.element: row for row in self.elements}

    def element(self, name: str) -> Element | None:
        return self.element_by_name.get(name)

    def operator(self, kind: str, bore_in: float) -> Operator | None:
        """What closes elements of a kind, of the largest bore not over this one."""
        fits = [o for o in self.operators if o.kind == kind and o.from_bore_in <= bore_in]
        return max(fits, key=lambda o: o.from_bore_in, default=None)

    def drill_pipe_of(self, od_in: float) -> DrillPipeRow | None:
        return next((row for row in self.drill_pipe if row.od_in == od_in), None)

    def face(self, bore_in: float | None, class_psi: float | None) -> Flange | None:
        """The flange of just this bore and class."""
        return next((f for f in self.flanges if (f.bore_in, f.class_psi) == (bore_in, class_psi)), None)

    def flange(self, least_bore_in: float, least_class_psi: float) -> Flange | None:
        """The smallest flange, then the lowest class, with at least this bore and class."""
        fits = [f for f in self.flanges if f.bore_in >= least_bore_in and f.class_psi >= least_class_psi]
        return min(fits, key=lambda f: (f.bore_in, f.class_psi), default=None)
