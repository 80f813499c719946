"""The tables of a document that can be pasted, imported and exported: their columns, and how headers name them.

Title, quantity and options of a column are those of its field in the document; only what people write in headers
stands here.
"""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from knollstack.core.base.findings import Quantity
from knollstack.core.document.described import Described, fields

Target = Literal[
    "stations",
    "zones",
    "pore",
    "fracture",
    "stability",
    "overburden",
    "leak_off_tests",
    "temperature",
    "strings",
    "mud_steps",
    "sections",
    "loads",
    "pipes",
    "stock",
    "kick_minimums",
    "drill_strings",
    "pairs",
    "clearances",
    "joints",
    "centralizer_runs",
    "centralizers",
    "fluids",
    "pump_steps",
    "strength",
    "additives",
    "caliper",
    "excesses",
    "balanced_plugs",
    "pieces",
    "elements",
    "least_elements",
]


class TargetColumn(BaseModel):
    """One column: `key` is the key in a row, or `list:entry` for a flag that stands in a list."""

    key: str
    title: str
    kind: Literal["number", "text", "choice", "flag"]
    quantity: Quantity | None = None
    options: tuple[str, ...] = ()
    required: bool = False
    low: float | None = None
    high: float | None = None
    whole: bool = False
    names: tuple[str, ...] = ()


_PLACES: dict[Target, str] = {
    "stations": "/trajectory/stations",
    "zones": "/ground/zones",
    "pore": "/ground/pore",
    "fracture": "/ground/fracture",
    "stability": "/ground/stability",
    "overburden": "/ground/overburden",
    "leak_off_tests": "/ground/leak_off_tests",
    "temperature": "/ground/temperature",
    "strings": "/strings",
    "mud_steps": "/strings/*/mud_steps",
    "sections": "/strings/*/sections",
    "loads": "/strings/*/loads",
    "pipes": "/pipes",
    "stock": "/stock",
    "kick_minimums": "/policy/depths/kick_minimums",
    "drill_strings": "/policy/mud/drill_strings",
    "pairs": "/policy/sizes/pairs",
    "clearances": "/policy/sizes/clearances",
    "joints": "/strings/*/running/joints",
    "centralizer_runs": "/strings/*/running/centralizers",
    "centralizers": "/centralizers",
    "fluids": "/strings/*/cement/fluids",
    "pump_steps": "/strings/*/cement/steps",
    "strength": "/strings/*/cement/strength",
    "additives": "/strings/*/cement/additives",
    "caliper": "/strings/*/cement/caliper",
    "excesses": "/strings/*/cement/excesses",
    "balanced_plugs": "/balanced_plugs",
    "pieces": "/wellhead/pieces",
    "elements": "/preventers/*/elements",
    "least_elements": "/policy/preventers/least_elements",
}
"""Where each table stands in the document."""
_DEPTH = "depth;dept;md;tvdrkb"
_EMW = "mw;mud weight;gradient;pressure;equivalent mud weight;equivalent mud density;emd"
_PORE = "pore;pore pressure;pore pressure gradient;pore gradient;formation pressure;pp;pp_emw;ppg pp;pppg"
_FRACTURE = "fracture;fracture pressure;fracture gradient;frac gradient;frac pressure;fg;fp;leak-off"
_STABILITY = "stability;collapse;collapse gradient;hole stability;shear failure"
_OVERBURDEN = "overburden;overburden gradient;overburden pressure;obg;lithostatic"
_MUD, _OD = "mud;mw;mud weight;density", "size;casing;outside diameter;od;casing od"
_WEIGHT, _GRADE, _CONNECTION = "ppf;lb/ft;nominal weight;wt", "steel", "thread;joint"


def _profile(own: str) -> dict[str, str]:
    """A profile's columns: what is its own by name comes before what any profile may be headed with."""
    return {"tvd_ft": _DEPTH, "emw_ppg": f"{own};{_EMW}"}


# for each table its columns in order, with the words that people head them with
_HEADERS: dict[Target, dict[str, str]] = {
    "stations": {
        "md_ft": "measured depth;depth;dept",
        "inclination_deg": "inc;incl;devi;hazi inc;angle",
        "azimuth_deg": "azi;azim;hazi;direction",
    },
    "zones": {
        "name": "zone;formation;string;lithology",
        "top_tvd_ft": "top tvd;from",
        "base_tvd_ft": "base tvd;bottom;to",
        "rock": "lithology;rock type",
        "fluid": "",
        "permeable": "",
        "hazards:losses": "lost circulation",
        "hazards:overpressure": "abnormal pressure",
        "hazards:caving": "",
        "case_before_deeper": "case before deeper;case first;case off",
        "shoe_allowed": "shoe may stand",
        "gas_contact_tvd_ft": "gas contact tvd;contact;gwc;goc",
        "standoff_percent": "standoff",
    },
    "pore": _profile(_PORE),
    "fracture": _profile(_FRACTURE),
    "stability": _profile(_STABILITY),
    "overburden": _profile(_OVERBURDEN),
    "leak_off_tests": {
        **_profile("lot;leak-off;leak-off test;leak off;fit;test pressure;emw"),
        "kind": "kind;type;test",
    },
    "temperature": {"tvd_ft": _DEPTH, "temperature_f": "temp;t;bht;static temperature;formation temperature"},
    "strings": {
        "name": "zone;formation;string;lithology",
        "role": "type",
        "run": "run;how",
        "hanger_md_ft": "liner top md;hanger;top",
        "shoe_md_ft": "shoe md;depth;setting depth",
        "bit_in": "hole;bit;hole size;bit size",
        "od_in": "casing;od;size;casing size;casing od",
        "mud_ppg": _MUD,
    },
    "mud_steps": {"to_md_ft": "down to md;to;depth;md", "mud_ppg": _MUD},
    "sections": {
        "weight_ppf": _WEIGHT,
        "grade": _GRADE,
        "connection": _CONNECTION,
        "to_md_ft": "down to md;to;bottom;depth",
    },
    "loads": {
        "name": "case;name;load",
        "kind": "tries",
        "inside_psi": "inside pressure;pi",
        "inside_ppg": "fluid inside",
        "inside_level_md_ft": "level inside md;level",
        "outside_psi": "outside pressure;po",
        "outside_ppg": "fluid outside",
        "temperature_change_f": "heating",
    },
    "pipes": {
        "od_in": _OD,
        "weight_ppf": _WEIGHT,
        "wall_in": "wall thickness;t",
        "grade": _GRADE,
        "yield_psi": "yield;smys",
        "connection": _CONNECTION,
        "coupling_od_in": "joint od;coupling;connection od",
        "drift_in": "",
        "burst_psi": "burst;internal yield",
        "collapse_psi": "collapse",
        "body_lbf": "body",
        "joint_lbf": "joint",
        "joint_psi": "joint pressure;joint burst",
        "sour_from_f": "",
        "source": "",
    },
    "stock": {
        "od_in": _OD,
        "weight_ppf": _WEIGHT,
        "grade": _GRADE,
        "connection": _CONNECTION,
        "price_per_ft": "price per;price a;cost;unit price",
        "available_ft": "in stock;available;stock;quantity;length",
    },
    "kick_minimums": {"from_hole_in": "hole", "volume_bbl": "volume;least"},
    "drill_strings": {
        "from_hole_in": "hole",
        "pipe_od_in": "drill pipe",
        "collar_od_in": "drill collars",
        "collar_length_ft": "length of collars",
        "pipe_id_in": "pipe bore",
        "collar_id_in": "collar bore",
        "tool_joint_in": "tool joint od;joint od",
    },
    "pairs": {"od_in": _OD, "hole_in": "bit;hole size", "use": "kind"},
    "joints": {
        "length_ft": "length;joint length;measured;overall length;len",
        "section": "sec;part",
        "kind": "type;accessory",
        "left_out": "out;not run",
    },
    "centralizer_runs": {
        "type": "centralizer;kind",
        "top_md_ft": "from md;top",
        "base_md_ft": "to md;base;bottom",
        "number": "count;number",
        "joints": "per;joints",
        "standoff_percent": "standoff",
    },
    "centralizers": {
        "name": "centralizer;type",
        "kind": "kind",
        "od_in": _OD,
        "restoring_lbf": "restoring",
        "running_lbf": "running",
        "starting_lbf": "starting",
        "blade_in": "blade;od over blades",
        "price": "price;cost",
    },
    "fluids": {
        "kind": "fluid;type",
        "name": "description",
        "stage": "",
        "density_ppg": "weight;mw;mud weight",
        "volume_bbl": "vol",
        "annulus_ft": "length;annular length;height",
        "contact_minutes": "contact;minutes",
        "rate_bpm": "pump rate",
        "reading_3": "3 rpm;r3;θ3",
        "reading_6": "6 rpm;r6;θ6",
        "reading_100": "100 rpm;r100;θ100",
        "reading_200": "200 rpm;r200;θ200",
        "reading_300": "300 rpm;r300;θ300",
        "reading_600": "600 rpm;r600;θ600",
    },
    "pump_steps": {
        "stage": "",
        "volume_bbl": "volume;vol",
        "rate_bpm": "pump rate",
        "stop_minutes": "stop;shut down;wait",
    },
    "strength": {"after_hours": "time;hours;wait;h", "strength_psi": "compressive strength;ucs"},
    "additives": {
        "slurry": "",
        "name": "product",
        "amount": "dosage;concentration",
        "per": "unit;by",
        "sg": "specific gravity",
    },
    "caliper": {
        "md_ft": "measured depth;depth;dept",
        "diameter_in": "cali;cal;caliper;calx;hcal;hole diameter;diameter;c1;dcal",
    },
    "balanced_plugs": {
        "name": "",
        "inside": "hole",
        "bottom_md_ft": "base;base md;end of pipe",
        "top_md_ft": "top md",
        "hole_to_md_ft": "hole depth;drilled to",
        "pipe_od_in": "stinger od;od",
        "pipe_id_in": "stinger id;id",
        "spacer_bbl": "spacer",
        "spacer_ppg": "",
        "mud_ppg": "mud;mw",
        "water_gal_sk": "water",
        "excess": "washout",
    },
    "pieces": {
        "name": "piece;description;item",
        "kind": "type",
        "height_in": "h;overall height;face to face",
        "gap_in": "gap;stand-off",
        "bore_in": "top bore;bore;nominal bore",
        "top_psi": "class;top class;rating;working pressure",
        "bottom_bore_in": "",
        "bottom_psi": "bottom class",
        "bowls": "",
        "bowl_depth_in": "bowl depth",
        "bowl_lbf": "bowl rating;capacity",
        "seal_in": "seal",
        "wear_bushing_in": "wear bushing",
        "outlets": "",
        "weight_lbf": "mass",
    },
    "elements": {
        "element": "type;preventer",
        "name": "description",
        "size_in": "pipe;ram size",
        "from_in": "from",
        "to_in": "to",
        "height_in": "h",
        "bore_in": "bore",
        "class_psi": "class;rating;working pressure",
        "weight_lbf": "mass",
        "close_gal": "gallons to close;close",
        "open_gal": "gallons to open;open",
        "closing_ratio": "ratio",
        "area_in2": "piston area;area",
        "hang_off_lbf": "hang-off;hang off",
        "joined": "one body",
    },
    "least_elements": {
        "from_class_psi": "class",
        "annulars": "annular",
        "pipe_rams": "pipe rams",
        "variable_rams": "variable rams",
        "blind_rams": "blind",
        "blind": "",
    },
    "excesses": {"top_md_ft": "from md;top", "base_md_ft": "to md;base;bottom", "excess": "open-hole excess"},
    "clearances": {"from_od_in": _OD, "common_in": "usual", "tight_in": "least"},
}
_NEEDED = {("loads", "name"), ("loads", "inside_psi"), ("loads", "outside_psi"), ("stations", "inclination_deg")}
"""Columns that a whole table needs although a row in the document does not."""


def _column(target: Target, key: str, names: str) -> TargetColumn:
    name, _, entry = key.partition(":")
    field: Described = fields()[f"{_PLACES[target]}/*/{name}"]
    flag = bool(entry) or field.kind == "flag"
    kind: Literal["number", "text", "choice", "flag"] = "flag" if flag else field.kind  # type: ignore[assignment]
    needed = field.required and field.kind in ("number", "text") and key != "name"
    return TargetColumn(
        key=key,
        title=entry.capitalize() if entry else field.title,
        kind=kind,
        quantity=field.quantity,
        options=() if flag else field.options,
        required=needed or (target, key) in _NEEDED,
        low=field.low,
        high=field.high,
        whole=field.whole,
        names=tuple(n for n in names.split(";") if n),
    )


TARGETS: dict[Target, tuple[TargetColumn, ...]] = {
    target: tuple(_column(target, key, names) for key, names in headers.items()) for target, headers in _HEADERS.items()
}
PROFILES: tuple[Target, ...] = ("pore", "fracture", "stability", "overburden")


def place_of(target: Target) -> str:
    """Where a table stands in the document; `*` for each string in turn."""
    return _PLACES[target]
