"""A gas well on land, small and by hand: 9.0 ppg pore pressure, gas from 9,000 to 9,500 ft, 7 in casing cemented to 5,500 ft."""

import copy

from knollstack.core.base.units import plain
from tests.helpers import find, points, run, well

STRINGS = [
    {"id": "s1", "role": "conductor", "run": "driven", "shoe_md_ft": 130.0, "od_in": 20.0},
    {
        "id": "s2",
        "role": "surface",
        "shoe_md_ft": 2000.0,
        "bit_in": 17.5,
        "od_in": 13.375,
        "mud_ppg": 9.2,
        "pipe": {"weight_ppf": 68.0, "grade": "L80", "connection": "BTC"},
    },
    {
        "id": "s3",
        "role": "intermediate",
        "shoe_md_ft": 6000.0,
        "bit_in": 12.25,
        "od_in": 9.625,
        "mud_ppg": 9.5,
        "pipe": {"weight_ppf": 53.5, "grade": "P110", "connection": "BTC"},
        "cement": {"top_md_ft": 1500.0},
    },
    {
        "id": "s4",
        "role": "production",
        "shoe_md_ft": 10_000.0,
        "bit_in": 8.5,
        "od_in": 7.0,
        "mud_ppg": 9.5,
        "pipe": {"weight_ppf": 32.0, "grade": "P110", "connection": "BTC"},
        "cement": {"top_md_ft": 5500.0},
    },
]
GAS = {"id": "z1", "name": "Pay", "top_tvd_ft": 9000.0, "base_tvd_ft": 9500.0, "rock": "sand", "fluid": "gas"}


def gas_well(**parts):
    document = well(strings=copy.deepcopy(STRINGS), ground__fracture=points((30, 17), (10_000, 17)))
    document["ground"]["zones"] = [{**GAS, "permeable": True}]
    document["site"] |= {"surface_temperature_f": 60.0, "bottom_temperature_f": 210.0}
    document["policy"]["sizes"] = {"tubing_od_in": 3.5, "production_od_in": 7.0}
    document["completion"] = {"decision": "complete", "tree": {"orientation_deg": 90.0}}
    for path, value in parts.items():
        node = document
        *keys, last = path.split("__")
        for key in keys:
            node = node[int(key)] if isinstance(node, list) else node.setdefault(key, {})
        node[int(last) if isinstance(node, list) else last] = value
    return document


def state(document, key):
    return next(s for s in run(document).completion.states if s.key == key)


def counted(document, key):
    """Count, asked, and what keeps it: keys of elements that do not stand, by envelope."""
    found = state(document, key)
    short = [[e.key for e in envelope.elements if e.stands != "stands"] for envelope in found.envelopes]
    return found.count, found.needed, found.allowed, *short


def said(document, severity=None):
    return [(f.severity, plain(f.message)) for f in find(run(document), "completion", severity)]
