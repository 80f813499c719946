"""What follows for the preventers: stacks and their elements, what each closes on, shear, hang-off, closing unit, tests."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words

Verdict = Literal[
    "seals", "seals and hangs", "shears and seals", "shears", "diverts", "cannot shear", "no seal", "unknown"
]


class ElementResult(Result):
    """An element in force, bottom to top. `top_in` is over the bottom of the stack."""

    id: str
    element: str
    title: str
    kind: str
    place: str
    fits: Words
    size_in: float | None
    from_in: float | None
    to_in: float | None
    why: str
    class_psi: float | None
    bore_in: float | None
    height_in: float | None
    weight_lbf: float | None
    close_gal: float | None
    open_gal: float | None
    closing_ratio: float | None
    area_in2: float | None
    hang_off_lbf: float | None
    outlets: int
    joined: bool
    bottom_in: float | None
    top_in: float | None


class CoverRow(Result):
    """One thing across the stack at a time, and what each element does on it; `cells` stand as the elements do."""

    when: Words
    what: Words
    kind: str
    od_in: float
    cells: tuple[Verdict, ...]
    changed: int | None = None
    """Element whose rams are changed to the casing's size while this is across."""
    backs: tuple[int, ...] = ()
    """Elements that seal on it, in the order in which they are closed: the annular first, then rams from the top."""


class ShearRow(Result):
    element: int
    what: Words
    force_lbf: float | None
    needed_psi: float | None
    available_psi: float
    shears: bool | None
    widest_in: float | None
    """The widest pipe that its blades cut, where this one is wider."""
    working: str


class HangOffRow(Result):
    """A drill string hung off on a ram: its weight, and where the tool joint stands."""

    element: int
    what: Words
    load_lbf: float | None
    capacity_lbf: float | None
    tool_joint_md_ft: float | None
    working: str


class AccumulatorRow(Result):
    """Fluid that the functions of policy ask of the closing unit, and the bottles that hold it."""

    functions: tuple[tuple[str, float], ...]
    needed_gal: float | None
    precharge_psi: float | None
    minimum_psi: float | None
    usable_gal: float | None
    bottles_needed: int | None
    bottles: int | None
    charging_minutes: float | None
    working: str


class ClosingRow(Result):
    element: int
    seconds: float | None
    allowed_seconds: float


class StackProof(Result):
    """One test of a nipple-up; `tension_lbf` is what a cup tester pulls on its pipe."""

    element: int | None
    title: str
    low_psi: float
    high_psi: float | None
    by: str
    across: Words
    tool: str
    opened: str
    sees: str
    tension_lbf: float | None = None
    most_lbf: float | None = None
    working: str | None


class StackRow(Result):
    """The stack on this string until the next is hung; no elements when none is carried."""

    decided: bool
    place: str = ""
    pressure_psi: float | None
    rig_psi: float | None = None
    """At the rig with gas up to it, where the stack stands on the sea floor."""
    class_psi: float | None
    bore_in: float | None
    flange: str | None
    elements: tuple[ElementResult, ...]
    height_in: float | None
    weight_lbf: float | None = None
    base_in: float | None = None
    """Height of the face that it stands on, over the cellar floor or the deck."""
    reach_ft: float | None = None
    """Its top over the ground or the deck."""
    choke: int | None = None
    kill: int | None = None
    casing_ram: int | None = None
    coverage: tuple[CoverRow, ...] = ()
    shear: tuple[ShearRow, ...] = ()
    hang_off: tuple[HangOffRow, ...] = ()
    accumulators: AccumulatorRow | None = None
    closing: tuple[ClosingRow, ...] = ()
    tests: tuple[StackProof, ...] = ()
    steps: tuple[Words, ...] = ()
    """What is done with it from this string to the next, in order."""


class StackItem(Result):
    """A piece of the drawing, to scale: heights over the cellar floor or the deck."""

    kind: str
    title: str
    step: Literal["wellhead", "preventers", "ground"]
    place: str
    bottom_in: float
    top_in: float
    bore_in: float | None
    od_in: float
    working: str | None = None
    element: int | None = None
    outlets: int = 0
    note: Words = ()
    """What it says in place of its height."""


class Moment(Result):
    """The stack-up at one moment of the well."""

    title: Words
    string: int
    items: tuple[StackItem, ...]
    ground_in: float
    rotary_in: float | None
    beams_in: float | None
    flow_line_in: float | None


class PreventersResult(Result):
    strings: tuple[StackRow, ...]
    moments: tuple[Moment, ...] = ()
