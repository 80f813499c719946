"""What is read of a rig live, by name, in core units: the feed's protocols bring it, departures from the plan are told of it."""

from __future__ import annotations

from typing import Literal, get_args

Channel = Literal[
    "hole_md_ft",
    "bit_md_ft",
    "hook_lbf",
    "pump_psi",
    "casing_psi",
    "flow_in_gpm",
    "flow_out_gpm",
    "flow_out_percent",
    "pit_bbl",
    "mud_in_ppg",
    "activity",
    "cement_psi",
    "cement_in_bpm",
    "cement_out_bpm",
    "cement_bbl",
    "cement_ppg",
]
CHANNELS: tuple[Channel, ...] = get_args(Channel)
Doing = Literal["drilling", "tripping", "running casing", "cementing", "other"]
