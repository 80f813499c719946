"""A few nodes of a string before all of them: what fails there fails, and what does not is tried on every node.

A string in a long survey or a dense profile has thousands of nodes, a rack hundreds of pipes. Nodes are taken where each
case is worst by itself, and evenly between; since every load counts at each node alone, a pipe's least share over some nodes
is never less than over all of them, so nothing is dropped that would have stood.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import fields, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.document.policy import PipePolicy
from knollstack.core.pipe.frame import Frame
from knollstack.core.pipe.judged import KINDS, judge_sections
from knollstack.core.pipe.strength import least_shares
from knollstack.core.program.section import Section

Nodes = NDArray[np.intp]
FEW = 160
EVENLY = 60


def is_long(frame: Frame) -> bool:
    """Whether a frame has so many nodes that a part of them is asked first."""
    return len(frame.md_ft) > 2 * FEW


def telling_nodes(frame: Frame) -> Nodes:
    """The ends, nodes evenly between, and where each case presses, crushes or heats most or the path is sharpest."""
    last = len(frame.md_ft) - 1
    burst = (frame.inside_psi - frame.outside_psi) / frame.yield_share
    crush = (frame.outside_psi - frame.inside_psi) * frame.collapse_required
    worst = [np.argmax(part, axis=1) for part in (burst, crush, frame.heat_f, -frame.heat_f)]
    sharp = np.argsort(frame.dogleg_deg_100ft)[-8:]
    evenly = np.linspace(0, last, EVENLY).astype(int)
    breaks = np.flatnonzero(np.diff(frame.uncemented)) if last else np.array([], dtype=int)
    return np.unique(np.concatenate([[0, last], evenly, *worst, sharp, breaks, np.minimum(breaks + 1, last)]))


def restricted(frame: Frame, nodes: Nodes) -> Frame:
    """The same loads on some of the nodes; the last, below which nothing hangs, is among them."""
    count = len(frame.md_ft)
    parts: dict[str, Any] = {}
    for field in fields(frame):
        value = getattr(frame, field.name)
        if isinstance(value, np.ndarray) and value.ndim and value.shape[-1] == count and field.name not in _OF_CASES:
            parts[field.name] = value[..., nodes]
    return replace(frame, **parts)


_OF_CASES = ("free", "shock_ft_s", "shoe_inside_psi", "shoe_outside_psi")
"""Arrays along the cases, whose number may be that of the nodes by chance."""


@remembered(64)
def coarse(frame: Frame) -> Frame:
    """The frame itself where it is short, else on its telling nodes."""
    return restricted(frame, telling_nodes(frame)) if is_long(frame) else frame


def at_most(policy: PipePolicy, frame: Frame, pipes: Sequence[Pipe]) -> NDArray[np.float64]:
    """A bound from above of each pipe's least share as the whole string, -1 where a rating is unknown; exact on a short one."""
    return np.nan_to_num(least_shares(policy, coarse(frame), pipes), nan=-1.0)


def least_of(policy: PipePolicy, frame: Frame, pipe: Pipe) -> float:
    """A pipe's least share as the whole string, on every node; -1 where a rating is unknown."""
    return float(np.nan_to_num(least_shares(policy, frame, [pipe]), nan=-1.0)[0])


def those_that_stand(policy: PipePolicy, frame: Frame, pipes: Sequence[Pipe], share: float = 1.0) -> Iterator[Pipe]:
    """The pipes that stand as the whole string, in their order, each tried on every node when it is asked for."""
    if not pipes:
        return
    for pipe, reached in zip(pipes, at_most(policy, frame, pipes).tolist(), strict=True):
        if reached >= share - 1e-9 and (not is_long(frame) or least_of(policy, frame, pipe) >= share - 1e-9):
            yield pipe


def nearest_to_stand(policy: PipePolicy, frame: Frame, pipes: Sequence[Pipe]) -> tuple[Pipe, float]:
    """The first pipe of the greatest least share, and that share."""
    bound = at_most(policy, frame, pipes)
    if not is_long(frame):
        best = int(np.argmax(bound))
        return pipes[best], float(bound[best])
    found: tuple[float, int] = (-np.inf, 0)
    for i in np.argsort(-bound, kind="stable").tolist():
        if bound[i] < found[0]:
            break
        least = least_of(policy, frame, pipes[i])
        if least > found[0] or (least == found[0] and i < found[1]):
            found = (least, i)
    return pipes[found[1]], found[0]


def failing_nodes(policy: PipePolicy, frame: Frame, sections: tuple[Section, ...]) -> Nodes:
    """Where a string fails worst, by section, case and kind of load; none where it stands."""
    judged = judge_sections(policy, frame, sections)
    found: list[Nodes] = []
    for kind in KINDS:
        values = np.nan_to_num(judged.of(kind), nan=-1.0)
        fails = np.min(values, axis=2) < 1 - 1e-9
        found.append(np.argmin(values, axis=2)[fails])
    return _joined(found)


def _joined(parts: Iterable[Nodes]) -> Nodes:
    return np.unique(np.concatenate([*parts, np.array([], dtype=np.intp)]))
