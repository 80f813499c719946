"""What is learnt before a section is cased, what is decided at total depth, and the well handed over or plugged.

None is not decided. Complete, suspend, plug and abandon are alternatives of one design: each keeps its own plugs.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.fields import (
    Day,
    Depth,
    Emw,
    Height,
    Id,
    Load,
    Name,
    Of,
    Part,
    Pressure,
    Size,
    Temperature,
    listed,
    number,
    told,
)
from knollstack.core.document.plugs import BalancedPlug
from knollstack.core.document.strings import PipeChoice

SurveyKind = Literal[
    "cuttings",
    "core",
    "wireline logs",
    "logs while drilling",
    "pressure points",
    "fluid samples",
    "leak-off test",
    "well test",
]
Serves = Literal["casing point", "mud weight", "hole volume", "pay and fluids", "complete or abandon", "well integrity"]
Decision = Literal["complete", "suspend", "plug and abandon"]
SpentHours = Annotated[float, number(0, 5_000), Of("hours")]


class Survey(Part):
    """A piece of evaluation in an interval; which section it belongs to follows from its lower end."""

    id: Id = told("Id")
    kind: SurveyKind = told("Evaluation", "wireline logs", help="what is done in the interval")
    name: Name = told("Tools", "", help="or suite: what is run, cut or caught")
    from_md_ft: Depth = told("From", help="MD")
    to_md_ft: Depth = told("To", help="MD")
    decides: Serves = told("Decides", "casing point", help="the decision that it serves")
    hours: SpentHours | None = told("Rig time", None, help="empty follows policy's rates")


class LoggedPressure(Part):
    """Formation pressure as it was measured; it becomes a point of the pore pressure profile when that is asked."""

    id: Id = told("Id")
    md_ft: Depth = told("MD")
    psi: Pressure = told("Formation pressure", help="as measured, at that depth")
    source: Name = told("Source", "", help="tool and run")
    date: Day = told("Date", "", help="YYYY-MM-DD")


class Perforation(Part):
    id: Id = told("Id")
    top_md_ft: Depth = told("Top", help="MD")
    bottom_md_ft: Depth = told("Bottom", help="MD")
    shots_ft: Annotated[float, number(0, 60), Of("factor")] | None = told("Shot density", None, help="shots per ft")


class TubingChoice(PipeChoice):
    od_in: Size = told("Tubing size", help="OD of the body")


class Tree(Part):
    class_psi: Pressure | None = told("Tree class", None, help="empty is that of the tubing head", offered=CLASSES_PSI)
    bore_in: Size | None = told("Tree bore", None, help="empty is the tubing's")
    safety_valves: Annotated[int, Field(strict=True, ge=0, le=3), Of("count")] = told(
        "Surface safety valves", 1, help="one at least; the upper master first, then the wings"
    )
    wings: Annotated[int, Field(strict=True, ge=1, le=2), Of("count")] = told(
        "Wings", 2, help="two off a cross, one off a tee: production first, then kill"
    )
    orientation_deg: Annotated[float, number(0, 360), Of("angle")] | None = told(
        "Production wing points to", None, help="azimuth"
    )


Hold = Literal["free to move", "landed", "anchored"]
How = Literal["pressure test", "inflow test", "tag", "tag and pressure test", "log", "function test", "weight check"]


class Verification(Part):
    """What was found when a barrier element was verified; `element` is its key in the list of barriers."""

    id: Id = told("Id")
    element: Annotated[str, Field(min_length=1, max_length=80)] = told(
        "Element", help="key of the barrier element, as the list of barriers has it"
    )
    how: How = told("Verified by", "pressure test", help="what was done to see that it holds")
    result: Literal["holds", "leaks"] = told("Result", "holds", help="what leaks counts no more")
    psi: Pressure | None = told("Pressure", None, help="of the test, where there was one")
    date: Day = told("Date", "", help="YYYY-MM-DD")
    note: Name = told("Note", "", help="what is to be remembered of it")


class WellPlug(BalancedPlug):
    """A plug that is left in the well; one on a mechanical plug stands on it and needs no other."""

    base: Literal["none", "viscous pill", "mechanical plug"] = told(
        "Stands on", "none", help="a mechanical plug, a viscous pill, or nothing: the bottom or another plug"
    )
    verify: Literal["tag", "pressure test", "tag and pressure test", "inflow test", "none"] = told(
        "Verified by", "tag and pressure test", help="what is done once it has set"
    )


class Leaving(Part):
    """A well that is left: its plugs; empty are those proposed."""

    production: Literal["as usual", "run", "not run"] = told(
        "Production string", "as usual", help="as usual: run before a suspension, not before an abandonment"
    )
    perforated: StrictBool = told("Perforated by then", False, help="the perforations of the completion stand open")
    plugs: tuple[WellPlug, ...] = listed("Plugs", 30, help="in the order they are set; empty are those proposed")
    cut_ft: Height | None = told("Casing cut below ground", None, help="or below the mudline; empty follows policy")
    mud_ppg: Emw | None = told("Mud between the plugs", None, help="empty is that of the last hole")


class Completion(Part):
    decision: Decision | None = told("Decision at total depth", None, help="once the evaluation is done")
    evaluation: tuple[Survey, ...] = listed(
        "Evaluation", 200, help="cuttings, cores, logs, pressure points and tests, section by section"
    )
    pressure_points: tuple[LoggedPressure, ...] = listed(
        "Logged pressures", 500, help="formation pressures as measured"
    )
    perforations: tuple[Perforation, ...] = listed("Perforations", 50, help="empty is the pay behind the casing")
    perforated: Literal["before the tubing", "through the tubing"] = told(
        "Perforated", "through the tubing", help="under the BOPs, or once the tree is on"
    )
    underbalance_psi: Annotated[float, number(-10_000, 10_000), Of("pressure")] | None = told(
        "Underbalance",
        None,
        help="formation over hole when the guns fire; below 0 is overbalance; empty follows policy",
    )
    fluid_ppg: Emw | None = told("Completion fluid", None, help="stays over the packer; empty is policy's packer fluid")
    packer_md_ft: Depth | None = told("Packer", None, help="MD; empty is proposed over the perforations")
    packer: Literal["permanent", "retrievable"] = told("Packer type", "permanent")
    packer_bore_in: Size | None = told("Seal bore", None, help="empty is the tubing's OD")
    hold: Hold = told("Tubing at the packer", "landed", help="landed: it may move up out of the seal bore but not down")
    stroke_ft: Annotated[float, number(0, 100), Of("depth")] | None = told(
        "Seal length", None, help="that may move in the bore; empty follows policy"
    )
    slack_off_lbf: Load | None = told(
        "Weight on packer", None, help="slacked off when spaced out; empty follows policy"
    )
    tubing: TubingChoice | None = told("Tubing", None)
    shut_in_psi: Pressure | None = told(
        "Shut-in wellhead pressure", None, help="empty is the reservoir's less a column of gas"
    )
    flowing_psi: Pressure | None = told("Flowing wellhead pressure", None, help="empty is drawn down to nothing")
    treating_psi: Pressure | None = told(
        "Treating pressure at the wellhead",
        None,
        help="on the sea floor where that stands there; empty is none planned",
    )
    treating_ppg: Emw | None = told("Treating fluid", None, help="empty is the completion fluid")
    treating_fluid_f: Temperature | None = told(
        "Treating fluid temperature", None, help="at the wellhead; empty is the ground's at surface"
    )
    annulus_psi: Pressure = told("Held on the annulus", 0.0, help="at the wellhead during a treatment")
    back_pressure_valve: StrictBool = told("Back-pressure valve set", True, help="before the BOPs come off")
    tree: Tree = told("Tree", Tree())
    verified: tuple[Verification, ...] = listed(
        "Verifications", 200, help="records of barrier elements; the last of each counts"
    )
    suspension: Leaving = told("Suspension", Leaving())
    abandonment: Leaving = told("Abandonment", Leaving())
