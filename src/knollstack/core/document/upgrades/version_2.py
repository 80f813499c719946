"""Version 2 to 3: the flowing wellhead temperature in place of its rise, and when the pressure test is made."""

from __future__ import annotations

from typing import Any


def to_version_3(document: dict[str, Any]) -> dict[str, Any]:
    """A rise of nothing was no decision: it is estimated from now on. A test in set cement counts with the top free."""
    found = {**document, "version": 3}
    policy = found.get("policy")
    if not isinstance(policy, dict) or not isinstance(policy.get("pipe"), dict):
        return found
    pipe = dict(policy["pipe"])
    heat, green = pipe.pop("production_heat_f", 0.0), pipe.pop("test_in_green_cement", False)
    if green is True:
        pipe["pressure_test"] = "in green cement"
    found["policy"] = {**policy, "pipe": pipe}
    site, at_surface, rise = found.get("site"), _surface_f(found), _number(heat)
    if rise and at_surface is not None and isinstance(site, dict):
        found["site"] = {"flowing_wellhead_f": at_surface + rise, **site}
    return found


def _surface_f(document: dict[str, Any]) -> float | None:
    """The ground's temperature at surface: of its profile, else of the site."""
    ground, site = document.get("ground"), document.get("site")
    points = ground.get("temperature") if isinstance(ground, dict) else None
    if isinstance(points, list) and points and isinstance(points[0], dict):
        value = points[0].get("temperature_f")
    else:
        value = site.get("surface_temperature_f") if isinstance(site, dict) else None
    return _number(value)


def _number(value: Any) -> float | None:
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None
