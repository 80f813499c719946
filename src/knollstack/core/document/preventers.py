"""Preventers as decided: stacks with their elements bottom to top, the closing unit, and the policy of both.

None is not decided.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.fields import (
    Factor,
    Id,
    Name,
    Of,
    Part,
    PieceHeight,
    Pressure,
    Size,
    Strength,
    listed,
    number,
    told,
)

MOST_BOTTLES = 500
ElementKind = Literal[
    "adapter",
    "connector",
    "spacer spool",
    "drilling spool",
    "pipe rams",
    "variable rams",
    "casing rams",
    "blind rams",
    "blind shear rams",
    "casing shear rams",
    "annular",
    "diverter",
    "other",
]
Cavities = Annotated[int, Field(strict=True, ge=0, le=6), Of("count")]
Gallons = Annotated[float, number(0, 2_000), Of("gallons")]
Ratio = Annotated[float, number(1, 40), Of("factor")]
Area = Annotated[float, number(1, 2_000), Of("area")]
Gas = Annotated[float, number(-20, 250), Of("temperature")]
Charge = Annotated[float, number(0, 10_000), Of("pressure")]
Seconds = Annotated[float, number(1, 600), Of("seconds")]


class StackElement(Part):
    """One element of a stack. What is empty is a planning value of the catalogue, or follows the stack."""

    id: Id = told("Id")
    element: ElementKind = told("Element", help="what closes, or holds the outlets")
    name: Name = told("Description", "", help="in your own words; of another element what it is")
    size_in: Size | None = told(
        "Fits", None, help="pipe of pipe and casing rams; empty is the drill pipe of the section"
    )
    from_in: Size | None = told("Range from", None, help="least pipe of variable rams")
    to_in: Size | None = told("Range to", None, help="largest pipe of variable rams")
    class_psi: Pressure | None = told("Class", None, help="empty is that of the stack", offered=CLASSES_PSI)
    bore_in: Size | None = told("Bore", None)
    height_in: PieceHeight | None = told("Height", None)
    weight_lbf: Annotated[float, number(0, 500_000), Of("force")] | None = told("Weight", None)
    close_gal: Gallons | None = told("To close", None, help="fluid of its operator")
    open_gal: Gallons | None = told("To open", None, help="fluid of its operator")
    closing_ratio: Ratio | None = told(
        "Closing ratio", None, help="area of the operating piston over that of the rod, on which the well pushes"
    )
    area_in2: Area | None = told("Closing piston area", None, help="of all pistons that close it together")
    hang_off_lbf: Strength | None = told(
        "Hang-off capacity", None, help="drill string that its blocks carry by a tool joint"
    )
    joined: StrictBool = told("One body with the next below", False, help="of a double or triple preventer")


class Stack(Part):
    """A decided stack on one string, elements bottom to top."""

    id: Id = told("Id")
    string: Id = told("Stands on", help="id of the string that carries it")
    class_psi: Pressure = told("Class", offered=CLASSES_PSI)
    elements: tuple[StackElement, ...] = listed("Elements", 20, least=1, default=...)
    choke: Id | None = told("Choke line at", None, help="element with its outlet; empty is the drilling spool")
    kill: Id | None = told("Kill line at", None, help="element with its outlet; empty is the drilling spool")
    casing_ram: Id | None = told(
        "Casing rams in",
        None,
        help="element whose rams are changed to the casing's size before it is run, and back after",
    )


class ClosingUnit(Part):
    """Accumulators, pumps and regulators that close the stacks."""

    bottles: Annotated[int, Field(strict=True, ge=0, le=MOST_BOTTLES), Of("count")] | None = told(
        "Bottles", None, help="accumulators of the rig; empty is as many as its functions ask"
    )
    gas_volume_gal: Annotated[float, number(0, 200), Of("gallons")] = told(
        "Gas volume of a bottle", 10.0, help="less its bladder: an 11 gal bottle holds 10"
    )
    precharge_psi: Charge | None = told(
        "Precharge", None, help="gauge, at surface; empty is what makes the most of them"
    )
    precharge_f: Gas = told("Precharged at", 70.0, help="temperature when the bottles were charged with nitrogen")
    working_f: Gas = told("Working at", 70.0, help="the coldest it will be")
    operating_psi: Charge = told("Operating pressure", 3_000.0, help="of the accumulators when they are full")
    place: Literal["as the stack", "surface", "sea floor"] = told(
        "Bottles stand", "as the stack", help="at the sea floor the weight of the sea counts"
    )
    pump_gpm: Annotated[float, number(0, 500), Of("flow")] | None = told(
        "Pumps together", None, help="output of all pumps of the closing unit"
    )
    line_gpm: Annotated[float, number(0.1, 1_000), Of("flow")] | None = told(
        "Flow to one element", None, help="through its regulator and hose; for its closing time"
    )


class ClassElements(Part):
    """The least that stands on a well from a class up."""

    from_class_psi: Pressure = told("From class")
    annulars: Cavities = told("Annulars", 1, help="annular preventers")
    blind_rams: Cavities = told("Blind rams", 1, help="blind or blind shear")
    blind: Literal["blind rams", "blind shear rams"] = told(
        "Blind rams proposed", "blind rams", help="what is put in where nothing is decided"
    )
    pipe_rams: Cavities = told("Rams on pipe", 0, help="pipe or variable")
    variable_rams: Cavities = told("Of these variable", 0, help="variable bore rams among the rams on pipe")
    casing_shears: Cavities = told("Casing shear rams", 0, help="that cut casing and do not seal")


CLASS, SHEAR, CLOSING, TESTS = "Class and elements", "Shearing and hang-off", "Closing unit", "Tests"


class PreventersPolicy(Part):
    minimum_class_psi: Pressure = told("Minimum stack class", 2_000.0, group=CLASS)
    surface_method: Literal["as for pipe", "gas to surface", "gas over mud", "kick volume"] = told(
        "Maximum surface pressure", "as for pipe", group=CLASS, help="of wellhead and preventers while drilling"
    )
    least_elements: tuple[ClassElements, ...] = listed(
        "Minimum elements by class",
        10,
        least=1,
        group=CLASS,
        default=(
            ClassElements(from_class_psi=2_000.0),
            ClassElements(from_class_psi=3_000.0, pipe_rams=1),
            ClassElements(from_class_psi=5_000.0, pipe_rams=2, variable_rams=1, blind="blind shear rams"),
        ),
    )
    least_at_sea: tuple[ClassElements, ...] = listed(
        "Minimum elements on the sea floor",
        10,
        least=1,
        group=CLASS,
        help="of the one stack that stands on the wellhead under the riser",
        default=(
            ClassElements(
                from_class_psi=2_000.0,
                annulars=2,
                blind="blind shear rams",
                pipe_rams=3,
                variable_rams=2,
                casing_shears=1,
            ),
        ),
    )
    casing_rams: StrictBool = told(
        "Casing rams before casing is run",
        True,
        group=CLASS,
        help="in a cavity of pipe or variable rams, changed back after",
    )
    lift_ft: Annotated[float, number(0, 20), Of("length")] = told(
        "Lift to set slips", 3.0, group=CLASS, help="how far the stack is lifted off the head"
    )
    drill_pipe_grade: Literal["E", "X", "G", "S"] = told("Drill pipe grade", "S", group=SHEAR)
    shear_factor: Factor = told("Shear factor", 1.2, group=SHEAR, help="on the distortion energy shear force")
    functions: Literal["annular and all rams", "annular and one ram", "annular and two rams"] = told(
        "Fluid for",
        "annular and all rams",
        group=CLOSING,
        help="closed, and the choke valve opened, with the pumps out of service",
    )
    fluid_factor: Factor = told("Accumulator fluid factor", 1.5, group=CLOSING, help="usable over needed fluid")
    working_psi: Pressure = told(
        "Minimum working pressure", 1_200.0, group=CLOSING, help="that still holds an annular closed"
    )
    left_psi: Pressure = told("Pressure left over precharge", 200.0, group=CLOSING, help="when all are closed")
    gas: Literal["nitrogen", "ideal gas"] = told(
        "Gas in the bottles", "nitrogen", group=CLOSING, help="nitrogen as it is, or as an ideal gas"
    )
    pump_minutes: Annotated[float, number(0.5, 120), Of("minutes")] = told(
        "Time to charge", 15.0, group=CLOSING, help="from precharge to operating pressure, by all pumps"
    )
    ram_seconds: Seconds = told("Closing time of rams", 30.0, group=CLOSING, help="from the signal until they are shut")
    annular_seconds: Seconds = told("Closing time of annulars", 30.0, group=CLOSING, help="under 18 3/4 in")
    large_annular_seconds: Seconds = told(
        "Closing time of large annulars", 45.0, group=CLOSING, help="18 3/4 in and over"
    )
    sea_ram_seconds: Seconds = told(
        "Closing time of rams on the sea floor", 45.0, group=CLOSING, help="from the signal until they are shut"
    )
    sea_annular_seconds: Seconds = told(
        "Closing time of annulars on the sea floor", 60.0, group=CLOSING, help="from the signal until they are shut"
    )
    low_test_psi: Pressure = told("Low-pressure test", 300.0, group=TESTS)
    test_margin_psi: Pressure = told(
        "High-pressure test over surface pressure", 500.0, group=TESTS, help="never over the class of element or head"
    )
    annular_share: Annotated[float, number(0.1, 1), Of("fraction")] = told(
        "Annular test over its class", 0.7, group=TESTS
    )
    test_days: Annotated[int, Field(strict=True, ge=1, le=90), Of("count")] = told(
        "Days between tests", 14, group=TESTS
    )
    cup_share: Annotated[float, number(0.1, 1), Of("fraction")] = told(
        "Cup test over burst and tension", 0.8, group=TESTS, help="share of the casing's burst and the pipe's yield"
    )
