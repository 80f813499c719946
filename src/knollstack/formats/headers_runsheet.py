"""What people write in the headers of the run sheet's tables: rates, own steps, orders, and the lists of its policy."""

from __future__ import annotations

from typing import Any

_RATE = "rop;rate of penetration;drilling rate;rate"

RUNSHEET: dict[Any, dict[str, str]] = {
    "section_rates": {"string": "section;hole", "zone": "formation", "ft_hour": _RATE},
    "own_steps": {
        "text": "step;operation;description",
        "kind": "type;activity",
        "after": "follows;after step",
        "hours": "hours;time;duration",
        "caution": "warning",
        "signs": "signed by;responsible",
        "hold": "hold-point;hold",
    },
    "orders": {
        "item": "key",
        "lead_days": "lead time;lead;delivery",
        "price": "price each;unit price",
        "ordered": "order date;ordered",
    },
    "drilling_rates": {"from_hole_in": "hole;hole size;bit", "ft_hour": _RATE, "bit_hours": "bit life;bit hours"},
    "casing_rates": {"from_od_in": "casing;casing size;size", "joints_hour": "joints;joints per hour"},
    "time_spread": {"kind": "work;activity", "least": "minimum;low", "most": "maximum;high"},
    "lead_times": {"kind": "material", "days": "lead time;lead;delivery"},
    "set_up": {"hours": "time;after", "share": "fraction;capacity"},
}
