"""What people write in the headers of the completion's tables: evaluation, logged pressures, perforations, records, plugs."""

from __future__ import annotations

from typing import Any


def _left_plugs() -> dict[str, str]:
    """Plugs that are left in a well, suspended or abandoned alike."""
    return {
        "name": "",
        "inside": "hole",
        "top_md_ft": "top md;from",
        "bottom_md_ft": "base;base md;to",
        "base": "on;support",
        "verify": "verification;test",
        "spacer_bbl": "spacer",
        "excess": "washout",
    }


COMPLETION: dict[Any, dict[str, str]] = {
    "evaluation": {
        "kind": "type;method",
        "name": "tool;suite;run",
        "from_md_ft": "from md;top",
        "to_md_ft": "to md;base;bottom",
        "decides": "decision;purpose",
        "hours": "hours;time",
    },
    "pressure_points": {"md_ft": "depth;dept", "psi": "pressure", "source": "tool;run", "date": "day"},
    "perforations": {"top_md_ft": "from;top md", "bottom_md_ft": "to;base;bottom md", "shots_ft": "spf;shot density"},
    "verified": {
        "element": "barrier;barrier element",
        "how": "method;verification",
        "result": "holds",
        "psi": "test pressure",
        "date": "day",
        "note": "remarks",
    },
    "suspension_plugs": _left_plugs(),
    "abandonment_plugs": _left_plugs(),
}
