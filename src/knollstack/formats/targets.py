"""The tables of a document that can be pasted, imported and exported: their columns, and how headers name them."""

from __future__ import annotations

from typing import Literal, get_args

from pydantic import BaseModel

from knollstack.core.base.findings import Quantity
from knollstack.core.document.design import Fluid, Rock
from knollstack.core.document.strings import Role

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
]


class TargetColumn(BaseModel):
    """One column: `key` is the key in a row, or `list:entry` for a flag that stands in a list."""

    key: str
    title: str
    kind: Literal["number", "text", "choice", "flag"]
    quantity: Quantity | None = None
    options: tuple[str, ...] = ()
    required: bool = False
    names: tuple[str, ...] = ()


def _number(key: str, title: str, quantity: Quantity, names: tuple[str, ...], required: bool = True) -> TargetColumn:
    return TargetColumn(key=key, title=title, kind="number", quantity=quantity, names=names, required=required)


def _choice(key: str, title: str, options: tuple[str, ...], names: tuple[str, ...] = ()) -> TargetColumn:
    return TargetColumn(key=key, title=title, kind="choice", options=options, names=names)


def _flag(key: str, title: str, names: tuple[str, ...] = ()) -> TargetColumn:
    return TargetColumn(key=key, title=title, kind="flag", names=names)


_NAME = TargetColumn(key="name", title="Name", kind="text", names=("zone", "formation", "string", "lithology"))
_PROFILE = (
    _number("tvd_ft", "TVD", "depth", ("depth", "dept", "md", "tvdrkb")),
    _number(
        "emw_ppg",
        "EMW",
        "emw",
        (
            "mw",
            "mud weight",
            "gradient",
            "pore",
            "pp",
            "pp_emw",
            "pppg",
            "fracture",
            "fg",
            "fp",
            "pressure",
            "equivalent mud weight",
            "stability",
            "overburden",
            "obg",
            "lot",
        ),
    ),
)
_TESTS = (*_PROFILE, _choice("kind", "Kind", ("leak-off", "integrity"), ("test",)))
_TEMPERATURE = (
    _number("tvd_ft", "TVD", "depth", ("depth",)),
    _number("temperature_f", "Temperature", "temperature", ("temp", "t")),
)
_STATIONS = (
    _number("md_ft", "MD", "depth", ("measured depth", "depth", "dept")),
    _number("inclination_deg", "Inclination", "angle", ("inc", "incl", "devi", "hazi inc", "angle")),
    _number("azimuth_deg", "Azimuth", "angle", ("azi", "azim", "hazi", "direction"), required=False),
)
_ZONES = (
    _NAME,
    _number("top_tvd_ft", "Top TVD", "depth", ("top", "from")),
    _number("base_tvd_ft", "Base TVD", "depth", ("base", "bottom", "to")),
    _choice("rock", "Rock", get_args(Rock), ("lithology", "rock type")),
    _choice("fluid", "Fluid", get_args(Fluid)),
    _flag("permeable", "Permeable"),
    _flag("hazards:losses", "Losses", ("lost circulation",)),
    _flag("hazards:overpressure", "Overpressure", ("abnormal pressure",)),
    _flag("hazards:caving", "Caving"),
    _flag("case_before_deeper", "Case before deeper", ("case first",)),
    _flag("shoe_allowed", "Shoe may stand", ("shoe allowed",)),
    _number("gas_contact_tvd_ft", "Gas contact TVD", "depth", ("contact", "gwc", "goc"), required=False),
)
_STRINGS = (
    _NAME,
    _choice("role", "Role", get_args(Role), ("type",)),
    _choice("run", "Run", ("driven", "jetted", "cased", "liner"), ("how",)),
    _number("hanger_md_ft", "Liner top MD", "depth", ("liner top", "hanger", "top"), required=False),
    _number("shoe_md_ft", "Shoe MD", "depth", ("shoe", "depth", "setting depth")),
    _number("bit_in", "Hole", "size", ("bit", "hole size"), required=False),
    _number("od_in", "Casing", "size", ("od", "size", "casing size"), required=False),
    _number("mud_ppg", "Mud", "emw", ("mw", "mud weight"), required=False),
)
_MUD_STEPS = (
    _number("to_md_ft", "Down to MD", "depth", ("to", "depth", "md")),
    _number("mud_ppg", "Mud", "emw", ("mw", "mud weight")),
)
_WEIGHT = _number("weight_ppf", "Weight", "linear_weight", ("ppf", "lb/ft", "nominal weight", "wt"))
_GRADE = TargetColumn(key="grade", title="Grade", kind="text", names=("steel",), required=True)
_CONNECTION = TargetColumn(key="connection", title="Connection", kind="text", names=("thread", "joint"), required=True)
_SECTIONS = (
    _WEIGHT,
    _GRADE,
    _CONNECTION,
    _number("to_md_ft", "Down to MD", "depth", ("to", "bottom", "depth"), required=False),
)
_LOADS = (
    TargetColumn(key="name", title="Case", kind="text", names=("name", "load"), required=True),
    _choice("kind", "Tries", ("burst", "collapse")),
    _number("inside_psi", "Inside at top", "pressure", ("inside pressure", "pi")),
    _number("inside_ppg", "Fluid inside", "emw", ("inside fluid",)),
    _number("inside_level_md_ft", "Level inside MD", "depth", ("level",)),
    _number("outside_psi", "Outside at top", "pressure", ("outside pressure", "po")),
    _number("outside_ppg", "Fluid outside", "emw", ("outside fluid",)),
)
_OD = _number("od_in", "OD", "size", ("size", "casing", "outside diameter"))
_PIPES = (
    _OD,
    _WEIGHT,
    _number("wall_in", "Wall", "diameter", ("wall thickness", "t")),
    _GRADE,
    _number("yield_psi", "Yield", "pressure", ("yield strength", "smys")),
    _CONNECTION,
    _number("coupling_od_in", "Joint OD", "diameter", ("coupling od", "coupling", "connection od")),
    _number("drift_in", "Drift", "diameter", (), required=False),
    _number("burst_psi", "Burst", "pressure", ("internal yield",), required=False),
    _number("collapse_psi", "Collapse", "pressure", (), required=False),
    _number("body_lbf", "Body", "force", ("body yield",), required=False),
    _number("joint_lbf", "Joint", "force", ("joint strength",), required=False),
    _number("joint_psi", "Joint pressure", "pressure", ("joint burst",), required=False),
)
_STOCK = (
    _OD,
    _WEIGHT,
    _GRADE,
    _CONNECTION,
    _number("price_per_ft", "Price", "factor", ("price per", "price a", "cost", "unit price")),
    _number("available_ft", "In stock", "depth", ("available", "stock", "quantity", "length"), required=False),
)
_FROM_HOLE = _number("from_hole_in", "From hole", "size", ("hole",))
_KICK_MINIMUMS = (_FROM_HOLE, _number("volume_bbl", "Volume", "volume", ("kick tolerance", "least")))
_DRILL_STRINGS = (
    _FROM_HOLE,
    _number("pipe_od_in", "Pipe", "size", ("drill pipe",)),
    _number("collar_od_in", "Collars", "size", ("drill collars",)),
    _number("collar_length_ft", "Length of collars", "depth", ("length",)),
    _number("pipe_id_in", "Pipe bore", "diameter", ("pipe id",), required=False),
    _number("collar_id_in", "Collar bore", "diameter", ("collar id",), required=False),
)
TARGETS: dict[Target, tuple[TargetColumn, ...]] = {
    "stations": _STATIONS,
    "zones": _ZONES,
    "pore": _PROFILE,
    "fracture": _PROFILE,
    "stability": _PROFILE,
    "overburden": _PROFILE,
    "leak_off_tests": _TESTS,
    "temperature": _TEMPERATURE,
    "strings": _STRINGS,
    "mud_steps": _MUD_STEPS,
    "sections": _SECTIONS,
    "loads": _LOADS,
    "pipes": _PIPES,
    "stock": _STOCK,
    "kick_minimums": _KICK_MINIMUMS,
    "drill_strings": _DRILL_STRINGS,
}
OF_STRINGS: tuple[Target, ...] = ("mud_steps", "sections", "loads")
TOP: tuple[Target, ...] = ("strings", "pipes", "stock")
POLICY: tuple[Target, ...] = ("kick_minimums", "drill_strings")
PROFILES: tuple[Target, ...] = ("pore", "fracture", "stability", "overburden")
