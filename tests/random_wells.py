"""Made-up wells, each from its seed: ground with steps and zones, a path straight or bent, three to five strings."""

from __future__ import annotations

import random
from typing import Any

CHAINS = (
    ((26.0, 20.0), (17.5, 13.375), (12.25, 9.625), (8.5, 7.0)),
    ((17.5, 13.375), (12.25, 9.625), (8.5, 5.5)),
    ((20.0, 16.0), (14.75, 11.75), (10.625, 8.625), (7.875, 5.5)),
)
ROCKS = ("sand", "shale", "limestone", "clay", "marl")


def profile(chance: random.Random, total: float, low: float, high: float, steps: bool) -> list[dict[str, float]]:
    """Points from the rig floor to total depth around a line from `low` to `high` ppg, here and there a step."""
    depths = sorted(
        {30.0, total, *(float(round(chance.uniform(100, total - 100))) for _ in range(chance.randint(1, 8)))}
    )
    points = []
    for z in depths:
        line = low + (high - low) * z / total
        points.append({"tvd_ft": z, "emw_ppg": round(line + chance.uniform(-0.4, 0.4), 2)})
        if steps and 30 < z < total and chance.random() < 0.3:
            stepped = round(line + chance.uniform(-0.4, 0.4), 2)
            if stepped != points[-1]["emw_ppg"]:  # else it is no step
                points.append({"tvd_ft": z, "emw_ppg": stepped})
    return points


def stations(chance: random.Random, total_tvd: float) -> list[dict[str, float]]:
    if chance.random() < 0.5:
        return [{"md_ft": 0.0}, {"md_ft": total_tvd}]
    kick_off, hold = float(round(chance.uniform(500, 3000))), float(round(chance.uniform(10, 60)))
    built = kick_off + hold / 2.5 * 100
    return [
        {"md_ft": 0.0},
        {"md_ft": kick_off},
        {"md_ft": built, "inclination_deg": hold, "azimuth_deg": 45.0},
        {"md_ft": built + 9000.0, "inclination_deg": hold, "azimuth_deg": 45.0},
    ]


def zones(chance: random.Random, total: float) -> list[dict[str, Any]]:
    found, top = [], 200.0
    while top < total - 900 and len(found) < 6:
        top += chance.uniform(100, 1500)
        base = min(total, top + chance.uniform(50, 900))
        hazards = ["losses"] if chance.random() < 0.2 else []
        found.append(
            {
                "id": f"z{len(found) + 1}",
                "name": f"Bed {len(found) + 1}",
                "top_tvd_ft": float(round(top)),
                "base_tvd_ft": float(round(base)),
                "rock": chance.choice(ROCKS),
                "permeable": chance.random() < 0.5,
                "hazards": hazards,
            }
        )
        top = base
    return [z for z in found if z["base_tvd_ft"] > z["top_tvd_ft"]]


def random_well(seed: int) -> dict[str, Any]:
    """A land well that a person could have typed, right or wrong in its muds and shoes."""
    chance = random.Random(seed)
    chain = chance.choice(CHAINS)
    total_tvd = float(round(chance.uniform(6000, 12_000)))
    survey = stations(chance, total_tvd)
    total = survey[-1]["md_ft"]
    deepest = max(total_tvd, total)
    pore = profile(chance, deepest, chance.uniform(8.4, 9.2), chance.uniform(9.0, 13.0), steps=True)
    fracture = profile(chance, deepest, chance.uniform(13.9, 14.5), chance.uniform(15.0, 18.0), steps=True)
    shares = sorted(chance.uniform(0.12, 0.9) for _ in range(len(chain) - 1))
    shoes = [max(400.0 + 300 * i, float(round(share * total))) for i, share in enumerate(shares)]
    shoes = [*sorted(shoes), total]
    strings: list[dict[str, Any]] = [
        {
            "id": "s1",
            "role": "conductor",
            "run": "driven",
            "shoe_md_ft": 150.0,
            "od_in": 30.0 if chain[0][1] >= 20 else 20.0,
        }
    ]
    for i, ((bit, od), shoe) in enumerate(zip(chain, shoes, strict=True)):
        role = "production" if i == len(chain) - 1 else "surface" if i == 0 else "intermediate"
        mud = round(9.0 + 4.0 * shoe / total * chance.uniform(0.2, 1.0), 1)
        low = float(chance.randint(5, 40))
        strings.append(
            {
                "id": f"s{i + 2}",
                "role": role,
                "shoe_md_ft": shoe,
                "bit_in": bit,
                "od_in": od,
                "mud_ppg": mud,
                "flow_gpm": float(chance.randint(200, 900)),
                "reading_300": low,
                "reading_600": round(low * chance.uniform(1.2, 1.9), 1),
            }
        )
    return {
        "format": "knollstack.well",
        "version": 6,
        "name": f"Well {seed}",
        "site": {"rig_floor_ft": 30.0, "h2s_ppm": 0.0, "rotary_room_ft": 30.0},
        "trajectory": {"stations": survey},
        "ground": {"pore": pore, "fracture": fracture, "zones": zones(chance, total_tvd)},
        "strings": strings,
    }
