"""Every field of the policy changes something that is judged: none is kept for show."""

import json
from functools import cache
from itertools import product

import pytest

from knollstack.core.document.described import Described, fields
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.core.running.wells import cased
from tests.helpers import demo, points, put, run, well

WELLS = [json.loads(text) for text in documents()]
FIELDS = {p: f for p, f in fields().items() if p.startswith("/policy/") and f.kind != "part" and "*" not in p}
DRILL = {"from_hole_in": 1.0, "pipe_od_in": 4.0, "collar_od_in": 6.0, "collar_length_ft": 900.0}

CLEARANCE = {"from_od_in": 1.0, "common_in": 0.9, "tight_in": 0.6}

# what else must hold for a field to matter, and a value that then matters
SCENES = {
    "running/joint_mean_ft": ({}, 38.0),
    "running/shoe_off_ft": ({}, 0.6),
    "mud/riser_mud_limit_ppg": ({}, 10.8),
    "depths/diverter_limit_ft": ({}, 2400.0),
    "pipe/shock_ft_s": ({}, 4.0),
    "depths/kick_minimums": ({}, [{"from_hole_in": 1.0, "volume_bbl": 90.0}]),
    "depths/zone_reach_ft": ({}, 700.0),
    "sizes/clearance": ({"sizes/pairs": [], "sizes/clearances": [CLEARANCE]}, "common"),
    "sizes/pairs": ({}, []),
    "sizes/clearances": ({}, [{"from_od_in": 1.0, "common_in": 3.0, "tight_in": 2.0}]),
    "sizes/tubing_od_in": ({}, 4.5),
    "preventers/least_elements": ({}, [{"from_class_psi": 2000.0, "pipe_rams": 3}]),
    "wellhead/stack_weight_lbf": ({}, 300_000.0),
    "mud/drill_strings": ({}, [DRILL]),
    "pipe/connections": ({}, ["PTC"]),
    "pipe/length_range": ({}, 2),
    "pipe/least_section_ft": ({"pipe/most_sections": 3}, 3500.0),
    "pipe/derate_per_f": ({}, 0.001),
    "pipe/surface_intensity_ppg": ({}, 0.5),
    "pipe/injection_margin_ppg": ({}, 0.5),
    "pipe/gas_share": ({"pipe/burst_method": "gas over mud", "pipe/pressure_test": "after landing"}, 0.9),
    "pipe/design_kick_bbl": ({"pipe/burst_method": "kick volume"}, 400.0),
    "pipe/gas_sg": ({"pipe/gas_model": "real gas"}, 0.9),
    "pipe/gas_z": ({"pipe/gas_model": "real gas"}, 0.7),
    "cement/free_fluid_inclined_percent": ({}, 1.0),
    "cement/pump_limit_psi": ({}, 200.0),
    "cement/float_psi": ({}, 600.0),
    "preventers/surface_method": ({}, "gas over mud"),
    "sea/set_up": ({}, [{"hours": 0.0, "share": 0.0}, {"hours": 100.0, "share": 1.0}]),
    "sea/package_lbf": ({}, 900_000.0),
    "sea/stroke_share": ({}, 0.001),
    "preventers/least_at_sea": ({}, [{"from_class_psi": 2000.0, "annulars": 1, "pipe_rams": 2}]),
    "cement/caliper_excess": ({}, 0.14),
    "cement/pump_limit_bpm": ({}, 4.0),
    "completion/barrier_cement_ft": ({}, 9000.0),
    "completion/tubing_most_in": ({"sizes/tubing_od_in": None}, 2.5),
    "pipe/mix_water_ppg": ({"pipe/burst_backup": "mix water"}, 9.0),
    "drills/kill_margin_ppg": ({}, 0.2),
    "runsheet/rates": ({}, [{"from_hole_in": 1.0, "ft_hour": 20.0, "bit_hours": 30.0}]),
    "runsheet/joints": ({}, [{"from_od_in": 1.0, "joints_hour": 5.0}]),
    "runsheet/spread": ({}, [{"kind": "drilling", "least": 0.5, "most": 2.0}]),
    "runsheet/leads": ({}, [{"kind": "wellhead", "days": 400}]),
    "runsheet/hanger_hours": ({"running/hanger": "mandrel"}, 9.0),
}


BEYOND = ("depths/liner_overlap_ft", "pipe/bump_psi")
"""Fields that another step tells."""


def alternatives(field: Described, value):
    """Other values that the field may hold."""
    if field.kind == "flag":
        return [not value]
    if field.kind == "choice":
        return [option for option in field.options if option != value]
    near = [value * k for k in (1.4, 0.6, 2.5, 0.2)] if not field.whole else [1, 2, 3]
    low, high = field.low, field.high
    return [n for n in near if n != value and (low is None or n >= low) and (high is None or n <= high)]


def with_caliper():
    """The demo well with a caliper of one hole."""
    document = json.loads(documents()[1])
    points = [{"md_ft": 2000.0, "diameter_in": 13.0}, {"md_ft": 7000.0, "diameter_in": 14.0}]
    document["strings"][2]["cement"]["caliper"] = points
    return document


def cemented():
    """One long string whose rock stands it, with everything that its run and its job ask."""
    document = cased(string={"cement": {"thickening_minutes": 240.0}}, ground__fracture=points((30, 17), (8000, 17)))
    document["site"] = WELLS[1]["site"]
    return document


def produced():
    """Casing free down to 1,500 ft, that production warms; a closing unit whose pumps are known."""
    document = json.loads(documents()[1])
    document["strings"][1]["cement"]["top_md_ft"] = 1500.0
    document["closing_unit"] = {"pump_gpm": 9.0}
    return document


FIRST = {
    "cement/lead_reading_300": 3,
    "cement/lead_reading_600": 3,
    "cement/fluid_loss_tight_cm3": 3,
    "cement/free_fluid_inclined_percent": 3,
    "cement/release_psi": 3,
    "running/shoe_off_ft": 4,
    "running/differential_share": 4,
    "running/zone_cover_ft": 3,
    "running/stroke_ft": 3,
    "running/friction_cased": 3,
    "running/friction_open": 3,
    "mud/riser_mud_limit_ppg": 3,
    "mud/riser_id_in": 3,
    "mud/sweep_bbl": 3,
    "mud/sweep_every_ft": 3,
    "mud/normal_pore_ppg": 2,
    "depths/open_hole_limit_ft": 2,
    "depths/diverter_limit_ft": 2,
    "pipe/least": 2,
    "wellhead/end_factor": 2,
    "wellhead/buckling": 2,
}
"""The scene that tells first, where it is not the first one."""


def at_sea():
    """The well at sea with what policy fills in left to it, some weather, and a bit that stands out."""
    document = json.loads(documents()[3])
    conductor = {"stick_up_ft": 10.0, "bit_out_in": 11.0, "last_bit_weight_lbf": 60_000.0, "inclination_deg": 0.8}
    document["sea"]["conductor"] = conductor
    for key in ("failed", "package_lbf"):
        document["sea"]["riser"][key] = None
    return document


def on_a_platform():
    """The deep well with its stacks over the water: 20 in casing carries a large one."""
    document = json.loads(documents()[3])
    document["site"] |= {"setting": "platform"}
    document["wellhead"] = {"deck_md_ft": 40.0}
    return document


def hot():
    """The same where production heats the annuli more than their casings stand."""
    document = at_sea()
    document["site"]["flowing_wellhead_f"] = 230.0
    return document


def hammered():
    """The same with a conductor that is hammered to refusal."""
    document = at_sea()
    document["strings"][0]["run"] = "driven"
    document["sea"]["conductor"] |= {"blows_ft": 250}
    return document


def with_a_well_test():
    """The demo well with a test of its pay."""
    document = json.loads(documents()[1])
    row = {"id": "y9", "kind": "well test", "from_md_ft": 11_760.0, "to_md_ft": 11_800.0}
    document["completion"]["evaluation"] = [row]
    return document


def topped_up():
    """The demo well whose cement has fallen back."""
    document = json.loads(documents()[1])
    document["strings"][1]["cement"]["top_up_md_ft"] = 300.0
    return document


MORE = {
    "preventers/large_annular_seconds": lambda: on_a_platform(),
    "sea/open_below_ft": lambda: hot(),
    "sea/remoulded_share": lambda: hammered(),
    "sea/refusal_blows_ft": lambda: hammered(),
    "wellhead/growth_in": lambda: produced(),
    "preventers/pump_minutes": lambda: produced(),
    "preventers/ram_seconds": lambda: produced(),
    "depths/zone_reach_ft": lambda: RELIEVED,
    "completion/well_test_hours": lambda: with_a_well_test(),
    "runsheet/cement_hours": lambda: well(),
    "runsheet/top_up_hours": lambda: topped_up(),
    "cement/caliper_excess": with_caliper,
}


def changed(document, path, value):
    copied = json.loads(json.dumps(document))
    put(copied, ["policy", *path.split("/")], value)
    return copied


@cache
def judged(text):
    """Most fields begin from the same wells: these are judged once."""
    return run(json.loads(text))


def differ(one, other, step):
    """A step of two wells is judged otherwise; without a step, anything is."""
    if step == "runsheet":  # materials are asked by their view
        return one.detail() != other.detail()
    return one.judged(step) != other.judged(step) if step else one != other


@pytest.mark.parametrize("place", FIELDS)
def test_every_field_of_the_policy_matters(place):
    key = place.removeprefix("/policy/")
    asked, value = SCENES.get(key, ({}, None))
    step, name = key.split("/", 1)
    held = json.loads(parse(demo()).policy.model_dump_json())
    for part in key.split("/"):
        held = held[part]
    values = [value] if value is not None else alternatives(FIELDS[place], held)
    assert values, "no other value to try"
    scenes = [MORE[key]()] if key in MORE else WELLS
    if step in ("running", "cement"):
        scenes = [cemented(), *scenes]
    if step == "sea" and key not in MORE:
        scenes = [at_sea()]
    scenes = [*scenes[FIRST.get(key, 0) :], *scenes[: FIRST.get(key, 0)]]
    asks = (None, step) if key in BEYOND else (step, None)  # nearly all change their own step
    for asked_of, other, document in product(asks, values, scenes):
        for path, scene in asked.items():
            document = changed(document, path, scene)
        if differ(run(changed(document, key, other)), judged(json.dumps(document)), asked_of):
            return
    pytest.fail(f"{step}: {name} changes nothing")


RELIEVED = well(
    ground__pore=points((30, 9), (10_000, 9)),
    ground__zones=[{"name": "Loss", "top_tvd_ft": 3000.0, "base_tvd_ft": 3100.0, "case_before_deeper": True}],
)
