"""The riser made up: joints from the telescopic joint down to the lower flex joint, pups last, the rest taken by the stroke."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.sea import RiserJoint
from knollstack.core.preventers.results import PreventersResult
from knollstack.core.program.equipped import Equipped

HUNDREDTHS = 100
"""Lengths are added in hundredths of a foot, so that sums are exact."""
PUP_SHARE = 0.8
"""A joint shorter than this share of the longest one is a pup."""


@dataclass(frozen=True)
class MadeUp:
    """Where the riser begins and ends, and how many of each kind of joint stand in it, in the order of the table."""

    rows: tuple[RiserJoint, ...]
    counts: tuple[int, ...]
    usual: bool
    """Of planning values: no joint is given."""
    top_md_ft: float
    foot_md_ft: float
    stack_top_md_ft: float
    housing_md_ft: float
    stack_ft: float

    @property
    def space_ft(self) -> float:
        return self.foot_md_ft - self.top_md_ft

    @property
    def made_ft(self) -> float:
        return sum(row.length_ft * count for row, count in zip(self.rows, self.counts, strict=True))

    @property
    def off_ft(self) -> float:
        return self.made_ft - self.space_ft

    @property
    def wet_lbf(self) -> float:
        return sum(row.wet_lbf * count for row, count in zip(self.rows, self.counts, strict=True))

    @property
    def lift_lbf(self) -> float:
        return sum(row.lift_lbf * count for row, count in zip(self.rows, self.counts, strict=True))

    @property
    def short(self) -> int:
        """Joints of the longest kind that are wanting."""
        longest = max(row.length_ft for row in self.rows)
        return -int(self.off_ft // longest) if self.off_ft < 0 else 0


def _lengths(row: RiserJoint) -> int:
    return round(row.length_ft * HUNDREDTHS)


def pups_for(rest_ft: float, rows: tuple[RiserJoint, ...]) -> tuple[int, ...]:
    """How many of each pup come nearest to a length with the fewest joints; none where they only lead away from it."""
    wanted = round(rest_ft * HUNDREDTHS)
    longest = max((_lengths(row) for row in rows if row.aboard), default=0)
    reached: dict[int, tuple[int, ...]] = {0: (0,) * len(rows)}
    for k, row in enumerate(rows):
        step = _lengths(row)
        for total, counts in sorted(reached.items()):
            for n in range(1, row.aboard + 1):
                at = total + n * step
                if at > wanted + longest:
                    break
                more = (*counts[:k], n, *counts[k + 1 :])
                if at not in reached or sum(more) < sum(reached[at]):
                    reached[at] = more
    return min(reached.items(), key=lambda item: (abs(item[0] - wanted), sum(item[1])))[1]


@remembered(32)
def counts_for(rows: tuple[RiserJoint, ...], space_ft: float) -> tuple[int, ...]:
    """Joints in the string: those decided, then full joints in the order of the table, then pups."""
    counts = [row.run or 0 for row in rows]
    rest = space_ft - sum(row.length_ft * n for row, n in zip(rows, counts, strict=True))
    longest = max((row.length_ft for row in rows), default=0.0)
    free = [k for k, row in enumerate(rows) if row.run is None]
    for k in free:
        row = rows[k]
        if row.length_ft >= PUP_SHARE * longest:
            counts[k] = max(0, min(row.aboard, int(rest / row.length_ft + 1e-9)))
            rest -= counts[k] * row.length_ft
    pups = tuple(k for k in free if rows[k].length_ft < PUP_SHARE * longest)
    for k, n in zip(pups, pups_for(rest, tuple(rows[k] for k in pups)), strict=True):
        counts[k] = n
    return tuple(counts)


def usual_joints(catalogue: Catalogue) -> tuple[RiserJoint, ...]:
    """Generic joints where none of the rig's is given: some bare ones, then as many with buoyancy as the water asks."""
    return tuple(
        RiserJoint(name=j.name, length_ft=j.length_ft, aboard=j.aboard, wet_lbf=j.wet_lbf, lift_lbf=j.lift_lbf)
        for j in catalogue.riser_joints
    )


def stack_height_ft(equipped: Equipped, stacks: PreventersResult) -> float | None:
    """Height of the stack over the housing: given, else of the tallest stack that stands on the sea floor."""
    given = equipped.design.sea.riser.stack_ft
    if given is not None:
        return given
    heights = [row.height_in / 12 for row in stacks.strings[1:] if row.height_in is not None]
    return max(heights, default=None)


def made_up(equipped: Equipped, stack_ft: float) -> MadeUp:
    """The riser in force."""
    riser, well = equipped.design.sea.riser, equipped.well
    housing = well.ground_md_ft - equipped.design.sea.conductor.stick_up_ft
    stack_top = housing - stack_ft
    foot, top = stack_top - riser.flex_ft, riser.upper_ft + riser.telescopic_ft
    rows = riser.joints or usual_joints(equipped.catalogue)
    return MadeUp(
        rows=rows,
        counts=counts_for(rows, foot - top),
        usual=not riser.joints,
        top_md_ft=top,
        foot_md_ft=foot,
        stack_top_md_ft=stack_top,
        housing_md_ft=housing,
        stack_ft=stack_ft,
    )
