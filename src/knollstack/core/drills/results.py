"""What follows for drills: a kill sheet of every hole with a stack on it, the posted procedures, its scenes."""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.findings import Result, Words

SceneKind = Literal[
    "drilling",
    "tripping",
    "swab",
    "no pipe",
    "collars",
    "casing",
    "unshearable",
    "failed annular",
    "leaking ram",
    "diverter",
    "gas above",
    "drift-off",
]


class VolumeRow(Result):
    """A part of the string or of the annulus, from the rig floor down in the order in which it is pumped."""

    part: Words
    top_md_ft: float
    bottom_md_ft: float
    capacity_bbl_ft: float
    volume_bbl: float
    strokes: float
    minutes: float
    working: str


class KillSum(Result):
    """Volumes of the parts together, as they are counted while pumping."""

    title: str
    volume_bbl: float
    strokes: float
    minutes: float
    working: str


class KillRow(Result):
    """Drill pipe pressure to hold after so many strokes of kill mud; `front_md_ft` is how far that has come."""

    strokes: float
    pumped_bbl: float
    psi: float
    front_md_ft: float
    front_tvd_ft: float
    working: str


class ShutIn(Result):
    """What was read once the well was shut in."""

    sidpp_psi: float
    sicp_psi: float
    gain_bbl: float


class KillStage(Result):
    """A stage of circulating out: which pressure is held, from and to what, for how many strokes."""

    title: str
    mud_ppg: float
    held: Literal["drill pipe", "casing"]
    from_psi: float | None
    to_psi: float | None
    strokes: float
    minutes: float
    from_working: str
    to_working: str
    strokes_working: str
    """Of strokes and minutes."""


class KillMethod(Result):
    title: str
    stages: tuple[KillStage, ...]
    strokes: float
    minutes: float
    working: str


class KillSheet(Result):
    """A kill sheet of one hole at one depth. None is not known."""

    string: int
    hole: Words
    md_ft: float
    tvd_ft: float
    shoe_md_ft: float
    shoe_tvd_ft: float
    shoe: Words
    mud_ppg: float
    fracture_ppg: float | None
    maasp_psi: float | None
    maasp_kill_psi: float | None
    slow_spm: float
    bbl_stroke: float
    slow_psi: float | None
    slow_read: bool
    choke_margin_psi: float
    """What drill pipe pressure may stand over the schedule."""
    choke_line_psi: float | None
    inside: tuple[VolumeRow, ...]
    annulus: tuple[VolumeRow, ...]
    string_bbl: float
    open_bbl: float
    """Annulus from the bit to the shoe."""
    cased_bbl: float
    """From the shoe to the choke, with the choke line at sea."""
    sums: tuple[KillSum, ...]
    to_bit: float
    bit_to_shoe: float
    bit_to_choke: float
    read: ShutIn | None
    kill_ppg: float | None = None
    starting_psi: float | None = None
    """Casing pressure with the pumps at the slow rate."""
    icp_psi: float | None = None
    fcp_psi: float | None = None
    schedule: tuple[KillRow, ...] = ()
    methods: tuple[KillMethod, ...] = ()
    influx_ft: float | None = None
    influx_psi_ft: float | None = None
    active_bbl: float | None = None
    barite_lb: float | None = None
    working: str = ""


class SceneRow(Result):
    """A scene, or why this hole cannot be played in it."""

    kind: SceneKind
    title: str
    why_not: str


class HoleDrill(Result):
    """One hole that is drilled under a stack or a diverter."""

    string: int
    id: str
    hole: Words
    top_md_ft: float
    bottom_md_ft: float
    sheet: KillSheet | None
    """Of the kick of policy at the end of the hole."""
    scenes: tuple[SceneRow, ...] = ()


class Procedure(Result):
    """What is done in which order, as it is posted on the rig floor."""

    title: str
    steps: tuple[Words, ...]


class DrillsResult(Result):
    holes: tuple[HoleDrill, ...] = ()
    procedures: tuple[Procedure, ...] = ()
