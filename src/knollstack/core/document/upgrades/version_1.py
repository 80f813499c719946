"""Version 1 to 2: policy by step, ids on rows, stacks and pieces that name their string by its id."""

from __future__ import annotations

from typing import Any

from knollstack.core.document.upgrades.ids import with_ids

_SAME = {
    "depths": (
        "fresh_water_cover_ft zone_cover_ft zone_reach_ft liner_overlap_ft open_hole_limit_ft diverter_limit_ft "
        "conductor_minimum_ft conductor_mud_ppg kick_intensity_ppg influx_psi_ft kick_minimums"
    ),
    "sizes": "production_od_in tubing_od_in clearance special_drift keep_spare",
    "mud": (
        "trip_margin_ppg fracture_margin_ppg normal_pore_ppg sticking_normal_psi sticking_abnormal_psi rheology "
        "weighting_solid_ppg trip_speed_ft_min riser_mud_limit_ppg sweep_bbl sweep_every_ft drill_strings"
    ),
    "pipe": (
        "factors connections length_range choose_from least most_sections least_section_ft triaxial_wall derate_per_f "
        "gas_share design_kick_bbl gas_model gas_psi_ft gas_sg gas_z burst_backup base_fluid_ppg mix_water_ppg "
        "packer_fluid_ppg production_heat_f unfilled_ft test_share test_in_green_cement bump_psi shock_ft_s overpull_lbf"
    ),
    "cement": "shoe_track_ft rathole_ft",
    "wellhead": "stack_weight_lbf",
}
_RENAMED = {
    "depth_school": ("depths", "method"),
    "kick_school": ("depths", "kick_criterion"),
    "pit_volume_bbl": ("mud", "active_volume_bbl"),
    "burst_school": ("pipe", "burst_method"),
    "collapse_school": ("pipe", "collapse_method"),
    "cement_excess": ("cement", "excess"),
    "cement_overlap_ft": ("cement", "overlap_ft"),
    "slurry_water_gal_sk": ("cement", "water_gal_sk"),
    "wellhead_on": ("wellhead", "stands_on"),
    "stack_minimum_class_psi": ("preventers", "minimum_class_psi"),
}
POLICY = {key: (step, key) for step, keys in _SAME.items() for key in keys.split()} | _RENAMED
"""Each key of the flat policy, and where it stands now."""


def _policy(flat: dict[str, Any]) -> dict[str, Any]:
    """Policy by step; a key that was never one stays where it is, to be refused at its place."""
    grouped: dict[str, Any] = {}
    for key, value in flat.items():
        if key in POLICY:
            step, name = POLICY[key]
            grouped.setdefault(step, {})[name] = value
        else:
            grouped[key] = value
    return grouped


def _rows(value: Any) -> list[dict[str, Any]]:
    return [row for row in value if isinstance(row, dict)] if isinstance(value, list) else []


def _stack(row: Any, ids: list[str]) -> Any:
    """A stack that names the id of the string that it gave by its position."""
    if not isinstance(row, dict) or "role_index" not in row:
        return row
    index = row["role_index"]
    known = isinstance(index, int) and not isinstance(index, bool) and 0 <= index < len(ids)
    named = ids[index] if known else f"s{index + 1}" if isinstance(index, int) else index
    return {**{key: value for key, value in row.items() if key != "role_index"}, "string": named}


def _piece(row: Any, position: int, carriers: list[str]) -> Any:
    """A piece that names the string that it stood on by its position."""
    if not isinstance(row, dict) or not carriers:
        return row
    return {**row, "string": carriers[min(position, len(carriers) - 1)]}


def to_version_2(document: dict[str, Any]) -> dict[str, Any]:
    """Nothing is lost: every key and row of version 1 has its place in version 2."""
    found = with_ids({**document, "version": 2})
    if isinstance(found.get("policy"), dict):
        found["policy"] = _policy(found["policy"])
    strings = _rows(found.get("strings"))
    ids = [str(row["id"]) for row in strings]
    carriers = [str(s["id"]) for s in strings if s.get("role") != "conductor" and s.get("run", "cased") != "liner"]
    if isinstance(found.get("preventers"), list):
        found["preventers"] = [_stack(row, ids) for row in found["preventers"]]
    head = found.get("wellhead")
    if isinstance(head, dict) and isinstance(head.get("pieces"), list):
        pieces = [_piece(row, i, carriers) for i, row in enumerate(head["pieces"])]
        found["wellhead"] = {**head, "pieces": pieces}
    return found
