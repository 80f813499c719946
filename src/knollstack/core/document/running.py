"""How a string is run: its tally, its float equipment, how it is filled, centralized and moved; and the policy of it.

None is not decided.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.fields import Depth, Excess, Id, Name, Of, Part, Size, listed, number, told

MOST_JOINTS = 1_500
JointKind = Literal["joint", "pup joint", "marker joint", "crossover"]
FillMethod = Literal["every joint", "every few joints", "auto-fill", "floated in"]
Movement = Literal["held still", "reciprocated", "rotated"]
ShoeKind = Literal[
    "guide shoe", "float shoe", "auto-fill float shoe", "differential-fill float shoe", "stab-in float shoe"
]
CollarKind = Literal[
    "none", "float collar", "auto-fill float collar", "differential-fill float collar", "landing collar"
]
JointCount = Annotated[int, Field(strict=True, ge=1, le=100), Of("count")]
Torque = Annotated[float, number(100, 200_000), Of("torque")]
Standoff = Annotated[float, number(0, 100), Of("percent")]
Side = Annotated[float, number(1, 100_000), Of("force")]


class TallyJoint(Part):
    """One joint as measured on the rack, in the order in which it goes in: the first carries the shoe."""

    length_ft: Annotated[float, number(1, 60), Of("length")] = told(
        "Measured length", help="over all, with the coupling"
    )
    section: Annotated[int, Field(strict=True, ge=1, le=8), Of("count")] | None = told(
        "Section", None, help="of a tapered string, counted from the top; empty goes by depth"
    )
    kind: JointKind = told("Kind", "joint")
    left_out: StrictBool = told("Leave out", False, help="stays on the rack")


class CentralizerRun(Part):
    """Centralizers over an interval: a pattern, or as far apart as a wanted standoff lets them be."""

    id: Id = told("Id")
    type: Name = told("Centralizer", "bow spring")
    top_md_ft: Depth = told("From", help="MD")
    base_md_ft: Depth = told("To", help="MD")
    number: Annotated[int, Field(strict=True, ge=1, le=4), Of("count")] = told(
        "Centralizers", 1, help="on so many joints"
    )
    joints: Annotated[int, Field(strict=True, ge=1, le=20), Of("count")] = told("Per joints", 1)
    standoff_percent: Standoff | None = told(
        "Wanted standoff", None, help="the widest spacing that keeps it is found; empty is the pattern given"
    )


class CentralizerType(Part):
    """A centralizer of the person's own, by its maker's data."""

    name: Annotated[str, Field(min_length=1, max_length=60)] = told("Centralizer")
    kind: Literal["bow spring", "rigid"] = told("Kind", "bow spring")
    od_in: Size = told("Casing")
    restoring_lbf: Side | None = told("Restoring force", None, help="at 67 % standoff, of a bow spring")
    running_lbf: Side | None = told("Running force", None)
    starting_lbf: Side | None = told("Starting force", None)
    blade_in: Size | None = told("Blade OD", None, help="of a rigid centralizer")
    price: Annotated[float, number(0, 100_000), Of("factor")] | None = told("Price each", None)


TALLY, FILL, HOOK, CENTRALIZED = "Tally", "Filling", "Hook load and speed", "Centralizing and sticking"


class RunningPolicy(Part):
    joint_mean_ft: Annotated[float, number(5, 60), Of("length")] | None = told(
        "Mean joint length",
        None,
        group=TALLY,
        help="of a tally made before one is measured; empty is the middle of its range",
    )
    joint_spread_ft: Annotated[float, number(0, 10), Of("length")] = told(
        "Spread of joint lengths",
        1.0,
        group=TALLY,
        help="either side of the mean, in a tally made before one is measured",
    )
    make_up_loss_in: Annotated[float, number(0, 12), Of("height")] = told(
        "Make-up loss", 4.5, group=TALLY, help="of a joint whose connection is not decided, or is no API thread"
    )
    hanger: Literal["slips", "mandrel"] = told("Hanger on land", "slips", group=TALLY)
    stick_up_ft: Annotated[float, number(0, 60), Of("length")] = told(
        "Minimum stick-up", 3.0, group=TALLY, help="above the rotary, of a string hung in slips"
    )
    shoe_off_ft: Annotated[float, number(0, 60), Of("length")] = told(
        "Shoe off its depth up to", 3.0, group=TALLY, help="how far the tally may land it from the planned depth"
    )
    spare_share: Excess = told("Spare joints", 0.03, group=TALLY, help="fraction of the string, one at least")
    fill: FillMethod = told("Filling", "every few joints", group=FILL)
    fill_joints: JointCount = told("Joints between fills", 5, group=FILL)
    fill_minutes: Annotated[float, number(0, 120), Of("minutes")] = told("Time of a fill", 3.0, group=FILL)
    differential_share: Annotated[float, number(0, 1), Of("fraction")] = told(
        "Level with differential-fill equipment", 0.9, group=FILL, help="height inside over the height outside"
    )
    friction_cased: Annotated[float, number(0, 2), Of("factor")] = told("Friction factor, cased hole", 0.25, group=HOOK)
    friction_open: Annotated[float, number(0, 2), Of("factor")] = told("Friction factor, open hole", 0.35, group=HOOK)
    speed_ft_min: Annotated[float, number(1, 500), Of("trip_speed")] = told("Maximum running speed", 90.0, group=HOOK)
    connection_minutes: Annotated[float, number(0, 120), Of("minutes")] = told("Time of a connection", 3.0, group=HOOK)
    gel_lb_100ft2: Annotated[float, number(0, 300), Of("gel")] = told(
        "Gel strength after the run", 25.0, group=HOOK, help="where the string gives none"
    )
    standoff_percent: Standoff = told("Minimum standoff", 67.0, group=CENTRALIZED, help="behind cement in open hole")
    moved: Movement = told("While cementing", "reciprocated", group=CENTRALIZED)
    stroke_ft: Annotated[float, number(1, 90), Of("length")] = told("Stroke when reciprocated", 20.0, group=CENTRALIZED)
    zone_cover_ft: Annotated[float, number(0, 500), Of("depth")] = told(
        "Cover around zones to be bonded", 50.0, group=CENTRALIZED, help="for scratchers, above and below"
    )
    contact_in: Annotated[float, number(0, 20), Of("diameter")] = told("Wall contact", 2.0, group=CENTRALIZED)
    sticking_friction: Annotated[float, number(0, 2), Of("factor")] = told(
        "Friction factor, stuck", 0.2, group=CENTRALIZED
    )


class Running(Part):
    """Decisions on running one string."""

    hanger: Literal["slips", "mandrel"] | None = told(
        "Hanger",
        None,
        help="a mandrel lands at its depth, so that the tally says where the shoe stands; slips take the pipe anywhere",
    )
    landing_md_ft: Depth | None = told("Hanger lands at", None, help="of a mandrel; empty is the ground")
    shoe: ShoeKind | None = told("Shoe", None)
    collar: CollarKind | None = told("Collar", None, help="on which the plugs land")
    collar_joint: Annotated[int, Field(strict=True, ge=2, le=12), Of("count")] | None = told(
        "Collar in joint", None, help="it stands at the bottom of this joint, counted from the shoe"
    )
    fill: FillMethod | None = told("Filling", None)
    fill_joints: JointCount | None = told("Joints between fills", None)
    gel_lb_100ft2: Annotated[float, number(0, 300), Of("gel")] | None = told("Gel strength", None, help="after the run")
    moved: Movement | None = told("While cementing", None)
    scratchers: StrictBool = told("Scratchers", False, help="across the permeable zones behind cement")
    torque_ft_lbf: Torque | None = told(
        "Make-up torque", None, help="optimum, of a connection whose torque does not follow from its strength"
    )
    centralizers: tuple[CentralizerRun, ...] = listed("Centralizers", 20)
    joints: tuple[TallyJoint, ...] = listed(
        "Tally", MOST_JOINTS, help="from the shoe up; empty is made from the length range"
    )

    def __hash__(self) -> int:
        """Without each joint: strings are keys of many caches, and equal ones are told apart by comparing."""
        held = (self.hanger, self.landing_md_ft, self.shoe, self.collar, self.collar_joint, self.fill, self.fill_joints)
        measured = (len(self.joints), sum(j.length_ft for j in self.joints))
        return hash(
            (*held, self.gel_lb_100ft2, self.moved, self.scratchers, self.torque_ft_lbf, self.centralizers, *measured)
        )
