"""One pipe that can be ordered, as the catalogue or a person describes it, with its ratings when cold and new.

A rating is None where its data is not held: unknown, never guessed.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from knollstack.core.catalogue.joints import (
    buttress_coupling_root,
    buttress_joint_strength,
    coupling_internal_yield,
    leak_resistance,
    round_coupling_root,
    round_thread_joint_strength,
    round_thread_torque,
)
from knollstack.core.catalogue.ratings import pipe_body_yield, pipe_collapse, pipe_internal_yield

BUTTRESS_STEEP_FROM_IN, BUTTRESS_BEYOND_IN = 16.0, (2.284, 1.688)
"""From the perfect threads of buttress casing to the base of its triangle, A₁ − L₇; less on the steeper taper (API 5B)."""
LEAST_TORQUE_SHARE, MOST_TORQUE_SHARE = 0.75, 1.25
"""Least and greatest over optimum make-up torque of round thread (API RP 5C1)."""


@dataclass(frozen=True)
class Grade:
    grade: str
    yield_psi: float
    ultimate_psi: float
    cost_index: float
    sour_from_f: float | None
    source: str


@dataclass(frozen=True)
class Connection:
    """A kind of connection. The shares are of the pipe body; the OD ratio is over the body, None where threads say it."""

    connection: str
    title: str
    kind: Literal["round", "buttress", "premium", "tubing", "welded", "custom"]
    cost_factor: float
    od_ratio: float | None
    tension_share: float | None
    compression_share: float | None
    pressure_share: float | None
    source: str


@dataclass(frozen=True)
class Thread:
    """Dimensions of an API thread and its coupling, in in. For round thread the pitch diameter is that at E₁."""

    connection: str
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
    leak_turns: float | None
    pitch_in: float | None
    source: str

    @property
    def engaged_in(self) -> float | None:
        if self.total_length_in is None or self.face_in is None:
            return None
        return self.total_length_in - self.face_in

    @property
    def make_up_loss_in(self) -> float | None:
        """Length of the pin that the coupling covers, power tight: of round thread L₄, of buttress to the triangle (A₁)."""
        if self.total_length_in is not None:
            return self.total_length_in
        if self.perfect_length_in is None:
            return None
        return self.perfect_length_in + BUTTRESS_BEYOND_IN[self.od_in >= BUTTRESS_STEEP_FROM_IN]

    @property
    def coupling_root_in(self) -> float | None:
        """Diameter at the root of the coupling's thread, None where a dimension is not held."""
        pitch = self.pitch_diameter_in
        if pitch is None:
            return None
        if self.engaged_in is not None:
            return round_coupling_root(pitch, self.engaged_in)
        rest = (self.perfect_length_in, self.stand_off_in, self.taper_in_in, self.thread_height_in)
        if any(v is None for v in rest):
            return None
        return buttress_coupling_root(pitch, *[v for v in rest if v is not None])


@dataclass(frozen=True)
class Own:
    """Ratings that a person gives for a pipe of their own; None is not given."""

    burst_psi: float | None = None
    collapse_psi: float | None = None
    body_lbf: float | None = None
    joint_lbf: float | None = None
    joint_psi: float | None = None


def api_drift_in(od_in: float, wall_in: float, tubing: bool = False) -> float:
    """API drift [in]: ID less 1/8, 5/32 or 3/16 in by size; tubing to 2 7/8 in 3/32 in (API 5CT)."""
    allowance = 0.125 if od_in < 9.625 else 0.15625 if od_in <= 13.375 else 0.1875
    if tubing and od_in <= 2.875:
        allowance = 0.09375
    return od_in - 2 * wall_in - allowance


@dataclass(frozen=True, eq=False)
class Pipe:
    """Size, weight, grade and connection, with ratings at its grade's cold yield and its new wall."""

    kind: Literal["casing", "tubing"]
    od_in: float
    weight_ppf: float
    wall_in: float
    grade: Grade
    joint: Connection
    coupling_od_in: float
    thread: Thread | None
    special_drift_in: float | None
    source: str
    given_drift_in: float | None = None
    own: Own = Own()
    price_per_ft: float | None = None
    available_ft: float | None = None

    @property
    def connection(self) -> str:
        return self.joint.connection

    @property
    def key(self) -> tuple[float, float, str, str]:
        return self.od_in, self.weight_ppf, self.grade.grade, self.connection

    @property
    def id_in(self) -> float:
        return self.od_in - 2 * self.wall_in

    @property
    def api_drift_in(self) -> float:
        return self.given_drift_in or api_drift_in(self.od_in, self.wall_in, self.kind == "tubing")

    @property
    def drift_in(self) -> float:
        """The diameter that passes: special drift where the pipe is ordered to it, else API drift."""
        return max(self.api_drift_in, self.special_drift_in or 0.0)

    @property
    def cost_per_ft(self) -> float:
        """Price per foot where one is given, else a relative cost: weight × grade index × connection factor."""
        if self.price_per_ft is not None:
            return self.price_per_ft
        return self.weight_ppf * self.grade.cost_index * self.joint.cost_factor

    @cached_property
    def burst_psi(self) -> float:
        return self.own.burst_psi or float(pipe_internal_yield(self.od_in, self.wall_in, self.grade.yield_psi))

    @cached_property
    def collapse_psi(self) -> float:
        return self.own.collapse_psi or float(pipe_collapse(self.od_in, self.wall_in, self.grade.yield_psi))

    @cached_property
    def body_lbf(self) -> float:
        return self.own.body_lbf or float(pipe_body_yield(self.od_in, self.wall_in, self.grade.yield_psi))

    @cached_property
    def joint_lbf(self) -> float | None:
        """Joint strength [lbf], None where the thread's dimensions are not held."""
        if self.own.joint_lbf is not None:
            return self.own.joint_lbf
        if self.joint.tension_share is not None:
            return self.joint.tension_share * self.body_lbf
        if self.thread is None:
            return None
        return self._thread_strength(self.thread)

    @cached_property
    def push_lbf(self) -> float | None:
        """Compression [lbf] that the joint takes: by its share of the body, else as in tension; None where unknown."""
        if self.own.joint_lbf is None and self.joint.compression_share is not None:
            return self.joint.compression_share * self.body_lbf
        return self.joint_lbf

    def _thread_strength(self, thread: Thread) -> float | None:
        size = (self.od_in, self.wall_in, self.grade.yield_psi, self.grade.ultimate_psi)
        if self.joint.kind == "round" and thread.engaged_in is not None:
            return round_thread_joint_strength(*size, thread.engaged_in)
        root = thread.coupling_root_in
        if self.joint.kind == "buttress" and root is not None:
            return buttress_joint_strength(*size, thread.coupling_od_in, root, self.grade.ultimate_psi)
        return None

    @cached_property
    def coupling_psi(self) -> float | None:
        """Internal yield pressure [psi] of the coupling."""
        if self.own.joint_psi is not None:
            return self.own.joint_psi
        if self.joint.pressure_share is not None:
            return self.joint.pressure_share * self.burst_psi
        root = self.thread.coupling_root_in if self.thread is not None else None
        if self.thread is None or root is None:
            return None
        return coupling_internal_yield(self.thread.coupling_od_in, root, self.grade.yield_psi)

    @cached_property
    def leak_psi(self) -> float | None:
        """Internal pressure [psi] that the connection holds tight."""
        if self.own.joint_psi is not None:
            return self.own.joint_psi
        if self.joint.pressure_share is not None:
            return self.joint.pressure_share * self.burst_psi
        t = self.thread
        if t is None or t.taper_in_in is None or t.leak_turns is None or t.pitch_in is None or not t.pitch_diameter_in:
            return None
        return leak_resistance(t.taper_in_in, t.leak_turns, t.pitch_in, t.pitch_diameter_in, t.coupling_od_in)

    @property
    def torque_ft_lbf(self) -> float | None:
        """Optimum make-up torque [ft·lbf] of round thread; None for others, which are made up to a mark."""
        if self.joint.kind != "round" or self.joint_lbf is None:
            return None
        return round_thread_torque(self.joint_lbf)

    @property
    def torque_least_ft_lbf(self) -> float | None:
        """Least make-up torque [ft·lbf] of round thread."""
        best = self.torque_ft_lbf
        return None if best is None else LEAST_TORQUE_SHARE * best
