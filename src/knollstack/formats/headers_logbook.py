"""What people write in the headers of a log, and of the points of a leak-off test."""

from __future__ import annotations

from typing import Any

LOGBOOK: dict[Any, dict[str, str]] = {
    "log": {
        "number": "entry number",
        "at": "date;date and time;when",
        "kind": "kind;type;event",
        "string": "casing;section",
        "md_ft": "md;measured depth;depth md",
        "hours": "hours;duration",
        "mud_ppg": "mud;mw;density",
        "emw_ppg": "equivalent mud weight;ecd",
        "test": "leak-off or integrity",
        "leak_off_psi": "leak-off pressure;lop;fit pressure",
        "bit_in": "hole;bit;bit size",
        "od_in": "casing od;od",
        "hanger_md_ft": "hanger",
        "weight_ppf": "ppf;lb/ft",
        "grade": "steel",
        "connection": "thread",
        "inclination_deg": "inc;incl",
        "azimuth_deg": "azi;azim",
        "volume_bbl": "gain;pit gain;lost",
        "drill_pipe_psi": "sidpp",
        "casing_psi": "sicp",
        "spacer_bbl": "spacer",
        "lead_bbl": "lead",
        "lead_ppg": "",
        "tail_bbl": "tail",
        "tail_ppg": "",
        "displacement_bbl": "displacement;displaced",
        "top_md_ft": "toc;top of cement",
        "bumped": "plug bumped;bump",
        "returns": "",
        "pressure_psi": "pressure;tested to",
        "minutes": "held;duration of the test",
        "passed": "good;result;passed",
        "element": "barrier",
        "step": "run sheet step",
        "corrects": "correction of",
        "author": "by;name;logged by",
        "text": "remarks;comment;description;note;operation",
    },
    "leak_off_points": {"volume_bbl": "volume;vol;pumped;barrels", "pressure_psi": "pressure;pump pressure;p;spp"},
}
