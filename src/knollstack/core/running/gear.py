"""The float equipment in force: as decided, else by policy; where it stands in the string is the tally's."""

from __future__ import annotations

from dataclasses import dataclass

from knollstack.core.catalogue.rows import Catalogue, FloatGear
from knollstack.core.document.running import FillMethod
from knollstack.core.ground.well import Well
from knollstack.core.program.column import STAB_IN
from knollstack.core.program.laid import LaidString

LEAST_COLLAR_JOINT = 2


@dataclass(frozen=True)
class Gear:
    """Shoe and collar of a string; `collar_joint` is the joint, from the shoe, at whose bottom the collar stands."""

    shoe: FloatGear
    collar: FloatGear | None
    collar_joint: int | None

    @property
    def pieces(self) -> tuple[FloatGear, ...]:
        return (self.shoe,) if self.collar is None else (self.shoe, self.collar)

    @property
    def closes(self) -> bool:
        """Something in it holds what is outside from coming in."""
        return any(piece.fills != "through" for piece in self.pieces)

    @property
    def fills(self) -> str:
        """How mud comes in while the string is run: the tightest piece decides."""
        kinds = {piece.fills for piece in self.pieces}
        return next((kind for kind in ("closed", "differential", "auto") if kind in kinds), "through")


def fill_of(well: Well, string: LaidString) -> FillMethod:
    """How the string is filled: as decided, else by policy."""
    return string.own.running.fill or well.policy.running.fill


def fill_joints_of(well: Well, string: LaidString) -> int:
    """Joints between fills, 1 where every joint is filled."""
    if fill_of(well, string) == "every joint":
        return 1
    return string.own.running.fill_joints or well.policy.running.fill_joints


def gear_of(well: Well, string: LaidString, catalogue: Catalogue, joint_ft: float) -> Gear:
    """The equipment in force; the collar's joint follows from the shoe track of policy where it is not decided."""
    own, auto = string.own.running, fill_of(well, string) == "auto-fill"
    shoe = catalogue.gear[own.shoe or ("auto-fill float shoe" if auto else "float shoe")]
    track_ft = well.policy.cement.shoe_track_ft
    usual = "auto-fill float collar" if auto else "float collar"
    wanted = own.collar_joint is not None or (track_ft >= joint_ft / 2 and own.shoe != STAB_IN)
    chosen = own.collar or (usual if wanted else "none")
    if chosen == "none":
        return Gear(shoe, None, None)
    joint = own.collar_joint or max(LEAST_COLLAR_JOINT, 1 + round(track_ft / joint_ft))
    return Gear(shoe, catalogue.gear[chosen], joint)
