"""What people write in the headers of wellhead, BOPs and what a kill asks: pieces, elements, slow pumps, drill string as run."""

from __future__ import annotations

from typing import Any

STACK: dict[Any, dict[str, str]] = {
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
    "slow_pumps": {"hole": "string;section", "spm": "strokes per minute;rate;spm", "psi": "pressure;standpipe"},
    "drill_parts": {
        "hole": "string;section",
        "kind": "part;component",
        "od_in": "od;outside diameter",
        "id_in": "id;bore;inside diameter",
        "length_ft": "length",
        "joint_in": "tool joint;tool joint od",
    },
}
