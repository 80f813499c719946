"""Plugs of cement set through pipe: to kick off from, to cure losses, to leave a hole behind."""

from __future__ import annotations

from typing import Annotated, Literal

from knollstack.core.base.fields import Depth, Emw, Id, MixWater, Name, Of, Part, Size, Volume, number, told


class BalancedPlug(Part):
    """One balanced plug; what is not given follows from the program and policy."""

    id: Id = told("Id")
    name: Name = told("Plug", "", help="what it is called")
    inside: Literal["open hole", "casing"] = told(
        "Inside", "open hole", help="below the last shoe, or in the innermost casing"
    )
    bottom_md_ft: Depth = told("Bottom", help="MD; the end of the pipe stands there")
    top_md_ft: Depth = told("Top", help="MD; once the pipe is pulled out of it")
    hole_to_md_ft: Depth | None = told("Hole drilled to", None, help="when it is set; empty is the depth of its shoe")
    pipe_od_in: Size | None = told("Pipe OD", None, help="empty is the drill pipe of policy")
    pipe_id_in: Size | None = told("Pipe ID", None, help="empty is the drill pipe of policy")
    spacer_bbl: Volume = told("Spacer ahead", 15.0)
    spacer_ppg: Emw | None = told("Spacer density", None, help="empty is the mud's")
    mud_ppg: Emw | None = told("Mud in the hole", None, help="empty is that of the hole")
    water_gal_sk: MixWater | None = told("Mix water", None, help="empty is that of a neat slurry")
    excess: Annotated[float, number(0, 5), Of("fraction")] | None = told(
        "Excess", None, help="of the open hole; empty is that of its string"
    )
