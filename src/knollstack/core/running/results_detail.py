"""One string's run in full, each half asked for by the view that shows it: the tally joint by joint, and the tracks."""

from __future__ import annotations

from knollstack.core.base.findings import Result
from knollstack.core.document.running import JointKind


class JointRow(Result):
    """A joint as it goes in. `row` is its place in the document, -1 in a tally that was made; depths are those on bottom."""

    number: int
    row: int
    length_ft: float
    effective_ft: float
    total_ft: float
    section: int
    kind: JointKind
    carries: tuple[str, ...]
    centralizers: int
    bottom_md_ft: float
    top_md_ft: float
    shoe_md_ft: float
    speed_ft_min: float | None
    fill: bool
    fill_bbl: float | None
    connection: str
    torque_ft_lbf: float | None


class FillTrack(Result):
    """By depth of the shoe, before each fill: level inside, mud outside over it at the float, and the place of least factor."""

    shoe_md_ft: tuple[float, ...]
    empty_ft: tuple[float, ...]
    float_psi: tuple[float, ...]
    load_psi: tuple[float, ...]
    allowed_psi: tuple[float, ...]
    factor: tuple[float | None, ...]


class HookTrack(Result):
    """Hook load by depth of the shoe, block included where it is known: as planned, and full and empty beside it."""

    shoe_md_ft: tuple[float, ...]
    in_lbf: tuple[float, ...]
    up_lbf: tuple[float, ...]
    still_lbf: tuple[float, ...]
    flooded_in_lbf: tuple[float, ...]
    flooded_up_lbf: tuple[float, ...]
    floated_in_lbf: tuple[float, ...]
    floated_up_lbf: tuple[float, ...]
    block_lbf: float | None
    limit_lbf: float | None


class SpeedTrack(Result):
    shoe_md_ft: tuple[float, ...]
    ft_min: tuple[float, ...]
    limit_md_ft: tuple[float, ...]


class StandoffTrack(Result):
    """Each span between two centralizers, from the shoe up: standoff at them and midway, and what is asked there."""

    low_md_ft: tuple[float, ...]
    high_md_ft: tuple[float, ...]
    at_bow_percent: tuple[float | None, ...]
    midway_percent: tuple[float | None, ...]
    asked_percent: tuple[float, ...]
    side_lbf: tuple[float, ...]


class TallyDetail(Result):
    """Every joint of a string, and what is known of centralizers and scratchers for it."""

    joints: tuple[JointRow, ...]
    left_out_ft: float
    scratched_md_ft: tuple[tuple[float, float], ...]
    types: tuple[str, ...]


class RunTracks(Result):
    """What is drawn of a string's run against depth."""

    fill: FillTrack
    hook: HookTrack
    speed: SpeedTrack | None
    standoff: StandoffTrack
