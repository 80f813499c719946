"""A string as it is made, against all its cases: where each kind of load is nearest to what its pipe stands."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.remember import remembered
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.formulas import effective_force
from knollstack.core.pipe.frame import KEPT_BYTES, Frame
from knollstack.core.pipe.results import LoadKind
from knollstack.core.pipe.strength import Rack, Shares, rack, shares, weight_per_ft
from knollstack.core.program.section import Section

Floats = NDArray[np.float64]
KINDS: tuple[LoadKind, ...] = ("burst", "collapse", "tension", "compression", "triaxial")


@dataclass(frozen=True)
class Point:
    """Where a kind of load is worst: indices of section, case and node, and the share there."""

    section: int
    case: int
    node: int
    share: float


@dataclass(frozen=True, eq=False)
class Judged:
    """Shares as section × case × node; `within` marks the nodes of each section, both of its ends included."""

    frame: Frame
    sections: tuple[Section, ...]
    side: Rack
    shares: Shares
    within: NDArray[np.bool_]
    below_lbf: Floats

    @cached_property
    def _by_kind(self) -> dict[str, Floats]:
        return {}

    def of(self, kind: LoadKind) -> Floats:
        """Shares of a kind; infinite outside each section."""
        held = self._by_kind
        if kind not in held:
            values = getattr(self.shares, kind)
            if len(self.sections) > 1:
                values = np.where(self.within[:, None, :], values, np.inf)
            held[kind] = values
        return held[kind]

    def worst(self, kind: LoadKind) -> Point | None:
        """The least share of a kind; None without such a load, or where a rating that counts is unknown."""
        values = self.of(kind)
        least = np.min(values)  # NaN where any is
        if np.isnan(least) or least == np.inf:
            return None
        where = np.unravel_index(int(np.argmin(values)), values.shape)
        s, c, m = (int(i) for i in where)
        return Point(s, c, m, float(values[s, c, m]))

    def unknown(self, kind: LoadKind) -> bool:
        """A rating that this kind needs is not held."""
        return bool(np.any(np.isnan(self.of(kind))))

    def along(self, values: Floats, case: int) -> Floats:
        """Values of one case along the string: of the section that each node is in, the lower one at a break."""
        section = self.section_of_node
        whole = np.broadcast_to(values, self.shares.axial_lbf.shape)
        return np.asarray(whole[0, case] if len(self.sections) == 1 else whole[section, case, np.arange(len(section))])

    @cached_property
    def section_of_node(self) -> NDArray[np.intp]:
        """The section that each node is in, the lower one at a break."""
        return np.asarray(self.within.shape[0] - 1 - np.argmax(self.within[::-1], axis=0))

    def effective_lbf(self) -> Floats:
        """Effective force, section × case × node."""
        frame, side = self.frame, self.side
        return np.asarray(
            effective_force(
                self.shares.axial_lbf, frame.inside_psi[None], frame.outside_psi[None], side.od_in, side.wall_in
            )
        )


def weight_below(frame: Frame, sections: tuple[Section, ...], per_ft: Floats) -> Floats:
    """Weight [lbf] of the string and of the mud in it below each node."""
    below, total = frame.below_tvd_ft, np.zeros(frame.md_ft.shape)
    for section, weight in zip(sections, per_ft, strict=True):
        top, bottom = np.interp([section.top_md_ft, section.bottom_md_ft], frame.md_ft, below)
        total += weight * np.clip(below - bottom, 0.0, top - bottom)
    return total


@remembered(128, most_bytes=KEPT_BYTES)
def judge_sections(policy: PipePolicy, frame: Frame, sections: tuple[Section, ...]) -> Judged:
    """Every section in every case at every node."""
    side = rack([s.pipe for s in sections], frame.string.own.wear_percent)
    below = weight_below(frame, sections, weight_per_ft(frame, side)[:, 0, 0])
    within = np.array([(frame.md_ft >= s.top_md_ft - 1e-6) & (frame.md_ft <= s.bottom_md_ft + 1e-6) for s in sections])
    return Judged(frame, sections, side, shares(policy, frame, side, below[None, None, :]), within, below)


def stands(policy: PipePolicy, frame: Frame, sections: tuple[Section, ...], share: float = 1.0) -> bool:
    """The string stands everything with so much of the policy's factors; an unknown rating does not."""
    judged = judge_sections(policy, frame, sections)
    return all(bool(np.all(judged.of(kind) >= share - 1e-9)) for kind in KINDS)
