"""What people write in the headers of the tables at sea: soil, riser joints, weather, limits of work, the disconnect."""

from __future__ import annotations

from typing import Any

SEA: dict[Any, dict[str, str]] = {
    "soil": {
        "below_mudline_ft": "depth;depth below mudline;penetration;depth bml",
        "strength_psf": "undrained shear strength;shear strength;su;strength",
        "submerged_pcf": "unit weight;submerged weight;effective unit weight",
    },
    "riser_joints": {
        "name": "type;joint",
        "length_ft": "length;joint length",
        "aboard": "count;number;on board",
        "wet_lbf": "wet weight;submerged weight",
        "lift_lbf": "lift;buoyancy;net buoyancy",
        "run": "run;used",
    },
    "weather": {
        "name": "condition;sea state",
        "drift_ft_min": "drift speed;speed",
        "heave_ft": "",
        "current_ft_s": "current speed",
    },
    "work_limits": {
        "work": "operation;activity",
        "heave_ft": "heave;heave limit",
        "current_ft_s": "current;current limit",
    },
    "disconnect": {"name": "action;step", "seconds": "time;duration;s", "when": "phase"},
}
