"""Legal wells of every kind: a made-up or a demo well with some of its fields set to anything that they may hold."""

from __future__ import annotations

import copy
import json
import random
from typing import Any

from knollstack.core.document.described import Described, fields
from knollstack.core.document.faults import FaultyDesign
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.random_wells import random_well

FIELDS = {p: f for p, f in fields().items() if f.kind in ("number", "choice", "flag") and not p.endswith("/id")}
DEMO = [json.loads(text) for text in documents()]
TRIES = 40


def _value(chance: random.Random, field: Described, now: Any) -> Any:
    """Something that the field may hold: near what it holds, an end of its range, between them, or nothing."""
    if field.optional and chance.random() < 0.35:
        return None
    if field.kind == "flag":
        return chance.random() < 0.5
    if field.kind == "choice":
        return chance.choice(field.options)
    low, high = field.low or 0.0, field.high if field.high is not None else 1e4
    if isinstance(now, int | float) and not isinstance(now, bool) and chance.random() < 0.6:
        value = now * chance.uniform(0.5, 1.6)
    else:
        value = chance.choice([low, high, chance.uniform(low, high), low + (high - low) * chance.random() ** 4])
    value = min(max(value, low), high)
    return round(value) if field.whole else float(value)


def _set(chance: random.Random, document: dict[str, Any], path: str, field: Described) -> bool:
    """One field of a document set to something it may hold; false where the document has no such place."""
    node: Any = document
    *keys, last = path.strip("/").split("/")
    for key in keys:
        if key == "*":
            if not isinstance(node, list) or not node:
                return False
            node = chance.choice(node)
        else:
            if isinstance(node, list):
                return False
            held = node.get(key)
            if held is None:
                held = node[key] = {}
            node = held
    if not isinstance(node, dict):
        return False
    node[last] = _value(chance, field, node.get(last))
    return True


def _shape(chance: random.Random, document: dict[str, Any]) -> None:
    """What no single field does: lists emptied or cut, sections, liners, tests, an overburden, strings left out."""
    ground, strings = document.setdefault("ground", {}), document.setdefault("strings", [])
    roll = chance.random
    if roll() < 0.12:
        ground[chance.choice(["pore", "fracture", "zones", "temperature", "overburden"])] = []
    if roll() < 0.15:
        name = chance.choice(["pore", "fracture"])
        ground[name] = ground.get(name, [])[: chance.randint(0, 4)] if roll() < 0.5 else ground.get(name, [])[-3:]
    if roll() < 0.2:
        deep = chance.choice([3000.0, 9000.0, 40_000.0])
        ground["overburden"] = [{"tvd_ft": 30.0, "emw_ppg": 17.0}, {"tvd_ft": deep, "emw_ppg": 19.0}]
    if roll() < 0.25:
        document.setdefault("site", {}).update(surface_temperature_f=60.0, bottom_temperature_f=chance.uniform(90, 350))
    if strings and roll() < 0.2:
        del strings[chance.randrange(len(strings))]
    if strings and roll() < 0.3:
        last = strings[-1]
        last.update(run="liner", hanger_md_ft=max(0.0, last["shoe_md_ft"] - chance.uniform(100, 6000)))
    if strings and roll() < 0.3:
        row = chance.choice(strings)
        grades = [("J55", "STC"), ("N80", "BTC"), ("P110", "LTC"), ("L80", "PTC"), ("L80", "FJ")]
        weights = [40.0, 47.0, 54.5, 68.0, 29.0, 32.0, 26.0, 17.0, 94.0]
        made = [
            {"weight_ppf": chance.choice(weights), "grade": g, "connection": c} for g, c in chance.sample(grades, k=2)
        ]
        made[0]["to_md_ft"] = row["shoe_md_ft"] * roll()
        row["sections"], row["pipe"] = made, None


def _run(chance: random.Random, document: dict[str, Any]) -> None:
    """How a string is run: a measured tally of any length, centralizers, equipment, a rig."""
    roll, strings = chance.random, document.get("strings", [])
    if roll() < 0.3:
        rig = {"hook_load_limit_lbf": chance.uniform(1e4, 1e6), "block_lbf": chance.uniform(0, 1e5)}
        document.setdefault("site", {}).update(rig)
    for row in strings:
        if roll() > 0.35:
            continue
        own = row["running"] = {}
        if roll() < 0.6:
            count = chance.choice([1, 2, 5, int(row["shoe_md_ft"] / 40) + chance.randint(-3, 4)])
            own["joints"] = [
                {
                    "length_ft": chance.uniform(2, 60) if roll() < 0.05 else chance.uniform(36, 44),
                    "section": chance.choice([None, None, 1, 2]) if roll() < 0.1 else None,
                    "kind": chance.choice(["joint", "joint", "joint", "pup joint", "crossover"]),
                    "left_out": roll() < 0.05,
                }
                for _ in range(max(count, 1))
            ]
        if roll() < 0.6:
            ends = sorted(chance.uniform(0, row["shoe_md_ft"]) for _ in range(2))
            kinds = {"type": chance.choice(["bow spring", "rigid", "own"]), "number": chance.randint(1, 4)}
            span = {"top_md_ft": ends[0], "base_md_ft": ends[1] if roll() < 0.9 else ends[0] / 2}
            own["centralizers"] = [{"id": "c1", **kinds, **span, "joints": chance.randint(1, 20)}]
        for key in ("shoe", "collar", "fill", "moved", "hanger"):
            if roll() < 0.25:
                own[key] = chance.choice(FIELDS[f"/strings/*/running/{key}"].options)
        if roll() < 0.2:
            own["fill_joints"], own["collar_joint"] = chance.randint(1, 100), chance.randint(2, 12)


def legal_well(seed: int) -> dict[str, Any]:
    """A document that is read without a fault, right or wrong in everything else."""
    chance = random.Random(seed)
    base = random_well(seed) if chance.random() < 0.6 else chance.choice(DEMO)
    for _ in range(TRIES):
        document = copy.deepcopy(base)
        _shape(chance, document)
        _run(chance, document)
        for _ in range(chance.randint(0, 8)):
            path = chance.choice(list(FIELDS))
            _set(chance, document, path, FIELDS[path])
        try:
            parse(document)
        except FaultyDesign:
            continue
        return document
    return DEMO[0]
