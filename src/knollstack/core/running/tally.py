"""The tally of a string: its joints in the order in which they go in, as measured or made from the length range.

A made tally has the mean and the spread of policy in a fixed sequence, so that it is the same every time. Distances are
from the nose of the shoe up; what a joint adds is its measured length less what its pin is covered by when made up.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.cementing import stage_collars_md_ft
from knollstack.core.ground.well import Well
from knollstack.core.program.laid import LaidString
from knollstack.core.running.gear import Gear, gear_of

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
GOLDEN = (math.sqrt(5) - 1) / 2
PUPS_FT = (20.0, 12.0, 10.0, 8.0, 6.0, 4.0, 3.0, 2.0)
"""Pup joints that are made (API 5CT)."""
MOST_MADE = 4_000


@dataclass(frozen=True, eq=False)
class Tally:
    """Joints from the shoe up. `row` is each joint's place in the document, -1 in a tally that was made."""

    made: bool
    hung: str
    """How the string is held: slips, mandrel, liner hanger."""
    gear: Gear
    length_ft: Floats
    effective_ft: Floats
    bottom_ft: Floats
    """From the shoe's nose to the lower end of each joint."""
    section: Ints
    kind: tuple[str, ...]
    row: Ints
    stage_joints: tuple[int, ...]
    """The joints at whose bottom a stage collar stands, counted from 0, lowest first."""
    total_ft: float
    planned_shoe_md_ft: float
    target_ft: float
    """Length asked for: from the shoe to where the string hangs, or to its stick-up above the rotary."""
    landing_md_ft: float
    """Where a hanger lands; of slips the rotary."""

    @property
    def count(self) -> int:
        return len(self.length_ft)

    @cached_property
    def top_ft(self) -> Floats:
        return self.bottom_ft + self.effective_ft

    @cached_property
    def middle_ft(self) -> Floats:
        return (self.bottom_ft + self.top_ft) / 2

    @cached_property
    def whole(self) -> NDArray[np.bool_]:
        """Joints that carry centralizers: pup joints do not."""
        return np.array([kind != "pup joint" for kind in self.kind], dtype=bool)

    @property
    def shoe_md_ft(self) -> float:
        """Where the shoe comes to stand."""
        return self.landing_md_ft + self.total_ft if self.hung == "mandrel" else self.planned_shoe_md_ft

    @property
    def top_md_ft(self) -> float:
        """Where the top of the string comes to stand; above the rotary it is negative."""
        return self.shoe_md_ft - self.total_ft

    @property
    def over_ft(self) -> float:
        """Length beyond what is asked; negative is short."""
        return self.total_ft - self.target_ft

    @property
    def track_ft(self) -> float:
        """From the shoe's nose to the top of the collar, on which the plug lands; to the shoe's top without one."""
        if self.gear.collar is None or self.gear.collar_joint is None or self.gear.collar_joint > self.count:
            return self.gear.shoe.length_ft
        return float(self.bottom_ft[self.gear.collar_joint - 1])

    @property
    def stages_md_ft(self) -> tuple[float, ...]:
        return tuple(self.shoe_md_ft - float(self.bottom_ft[joint]) for joint in self.stage_joints)


def hung_by(well: Well, string: LaidString) -> str:
    if string.run == "liner":
        return "liner hanger"
    if well.site.setting == "subsea":
        return "mandrel"
    return string.own.running.hanger or well.policy.running.hanger


def mean_joint_ft(well: Well, catalogue: Catalogue) -> float:
    """Mean measured length of a joint before one is measured."""
    given = well.policy.running.joint_mean_ft
    usual = catalogue.range_of[well.policy.pipe.length_range]
    return given if given is not None else (usual.shortest_ft + usual.longest_ft) / 2


def held_loss_in(string: LaidString, catalogue: Catalogue, section: int) -> float | None:
    """Make-up loss [in] of a section by its thread; None where its connection is not decided, or its thread not held."""
    own = string.own
    pipe = own.sections[min(section, len(own.sections) - 1)] if own.sections else own.pipe
    connection = pipe.connection if pipe is not None else own.connection
    return catalogue.make_up_loss_in.get((string.od_in or 0.0, connection or ""))


def loss_ft(well: Well, string: LaidString, catalogue: Catalogue, section: int) -> float:
    """What a joint of a section loses when it is made up: by its thread, else by policy."""
    held = held_loss_in(string, catalogue, section)
    return (well.policy.running.make_up_loss_in if held is None else held) / 12


def _sections_by_depth(string: LaidString, up_ft: Floats) -> Ints:
    """The decided section, from the top, in which each distance above the shoe stands."""
    ends = [s.to_md_ft for s in string.own.sections[:-1] if s.to_md_ft is not None]
    return np.searchsorted(np.array(ends), string.shoe_md_ft - up_ft).astype(np.int64)


def _measured(string: LaidString) -> tuple[Floats, list[int | None], tuple[str, ...], Ints]:
    rows = [(i, j) for i, j in enumerate(string.own.running.joints) if not j.left_out]
    lengths = np.array([j.length_ft for _, j in rows])
    sections = [None if j.section is None else j.section - 1 for _, j in rows]
    return lengths, sections, tuple(j.kind for _, j in rows), np.array([i for i, _ in rows], dtype=np.int64)


def _made_lengths(well: Well, catalogue: Catalogue, target_ft: float) -> Floats:
    """Joints of the mean and the spread of policy, more than enough."""
    mean, spread = mean_joint_ft(well, catalogue), well.policy.running.joint_spread_ft
    count = min(int(target_ft / max(mean - 1.0, 1.0)) + 3, MOST_MADE)
    swing = 2 * (GOLDEN * np.arange(1, count + 1) % 1.0) - 1
    return np.maximum(mean + spread * swing, 1.5)


def _with_pups(left_ft: float, loss: float) -> list[float]:
    """Pup joints, the longest first, that fill what is left of a string that lands on its hanger."""
    pups: list[float] = []
    for pup in PUPS_FT:
        while pup - loss <= left_ft and len(pups) < 6:
            pups.append(pup)
            left_ft -= pup - loss
    return pups


def _stacked(
    gear: Gear, effective_ft: Floats, stages_up_ft: list[float], stage_ft: float
) -> tuple[Floats, tuple[int, ...]]:
    """Lower ends above the shoe's nose, with the lengths of shoe, collar and stage collars; and the joints of the latter."""
    bottom = gear.shoe.length_ft + np.concatenate([[0.0], np.cumsum(effective_ft)[:-1]])
    if gear.collar is not None and gear.collar_joint is not None:
        bottom[gear.collar_joint - 1 :] += gear.collar.length_ft
    joints: list[int] = []
    for up_ft in stages_up_ft if len(bottom) > 1 else []:
        above = 1 if gear.collar_joint is None else min(gear.collar_joint, len(bottom) - 1)
        joint = above + int(np.argmin(np.abs(bottom[above:] - up_ft)))
        if joint not in joints:
            bottom[joint:] += stage_ft
            joints.append(joint)
    return bottom, tuple(joints)


def _landing_md_ft(well: Well, string: LaidString, hung: str) -> float:
    """Where what holds the string lands: 0, the rotary, of slips."""
    if hung == "liner hanger":
        return string.top_md_ft
    given = string.own.running.landing_md_ft
    return 0.0 if hung == "slips" else given if given is not None else well.ground_md_ft


@dataclass(frozen=True, eq=False)
class _Joints:
    """Joints from the shoe up, before they are stacked."""

    length_ft: Floats
    effective_ft: Floats
    section: Ints
    kind: tuple[str, ...]
    row: Ints


@remembered(64)
def tally_of(well: Well, string: LaidString, catalogue: Catalogue) -> Tally | None:
    """The tally in force; None of a string that is not run into a drilled hole."""
    if not string.drilled:
        return None
    hung = hung_by(well, string)
    landing = _landing_md_ft(well, string, hung)
    target = string.shoe_md_ft - landing + (well.policy.running.stick_up_ft if hung == "slips" else 0.0)
    gear = gear_of(well, string, catalogue, mean_joint_ft(well, catalogue))
    hanger_ft = catalogue.gear["liner hanger"].length_ft if hung == "liner hanger" else 0.0
    stages = stage_collars_md_ft(string.own.cement)
    stage_ft = catalogue.gear["stage collar"].length_ft
    joints = _joints_of(well, string, catalogue, target) if target > 0 else None
    if joints is None:
        return None
    if not string.own.running.joints:
        losses = loss_ft(well, string, catalogue, 0)
        joints = _made(gear, joints, target - hanger_ft, len(stages) * stage_ft, hung, losses)
    ups = [string.shoe_md_ft - md for md in stages]
    bottom, stage_joints = _stacked(gear, joints.effective_ft, ups, stage_ft)
    return Tally(
        made=not string.own.running.joints,
        hung=hung,
        gear=gear,
        length_ft=joints.length_ft,
        effective_ft=joints.effective_ft,
        bottom_ft=bottom,
        section=joints.section,
        kind=joints.kind,
        row=joints.row,
        stage_joints=stage_joints,
        total_ft=float(bottom[-1] + joints.effective_ft[-1]) + hanger_ft,
        planned_shoe_md_ft=string.shoe_md_ft,
        target_ft=target,
        landing_md_ft=landing,
    )


def _joints_of(well: Well, string: LaidString, catalogue: Catalogue, target_ft: float) -> _Joints | None:
    """Joints as measured, without those left out, or more than enough made ones; None where none is left."""
    measured = _measured(string) if string.own.running.joints else None
    lengths = measured[0] if measured else _made_lengths(well, catalogue, target_ft)
    if not len(lengths):
        return None
    sections = _sections_by_depth(string, np.cumsum(lengths) - lengths / 2)
    if measured:
        sections = np.array([s if s is not None else d for s, d in zip(measured[1], sections.tolist(), strict=True)])
    losses = np.array([loss_ft(well, string, catalogue, k) for k in range(int(sections.max()) + 1)])
    kind, row = (measured[2], measured[3]) if measured else (("joint",) * len(lengths), np.full(len(lengths), -1))
    return _Joints(lengths, lengths - losses[sections], sections, kind, row)


def _made(gear: Gear, joints: _Joints, target_ft: float, stage_ft: float, hung: str, top_loss: float) -> _Joints:
    """As many of the joints as the string takes; on a mandrel pup joints fill what is left."""
    extra = gear.shoe.length_ft + stage_ft + (gear.collar.length_ft if gear.collar is not None else 0.0)
    reached = extra + np.cumsum(joints.effective_ft)
    if hung != "mandrel":
        count, pups = min(int(np.searchsorted(reached, target_ft - 1e-9)) + 1, len(reached)), []
    else:
        count = max(int(np.searchsorted(reached, target_ft + 1e-9, side="right")), 1)
        pups = _with_pups(target_ft - float(reached[count - 1]), top_loss)
    return _Joints(
        np.concatenate([joints.length_ft[:count], pups]),
        np.concatenate([joints.effective_ft[:count], np.array(pups) - top_loss]),
        np.concatenate([joints.section[:count], np.zeros(len(pups), dtype=np.int64)]),
        ("joint",) * count + ("pup joint",) * len(pups),
        np.full(count + len(pups), -1),
    )
