"""Wells of the drills' tests: one small hole with numbers that a calculator follows, and the demo wells, each worked once."""

import json
from functools import cache

from knollstack.core.drills.geometry import Line
from knollstack.core.drills.making import made
from knollstack.core.drills.play import Play
from knollstack.core.drills.scene import Scene
from knollstack.core.drills.setup import ENDLESS, Element, Pumps, Rock, Setup, Tube
from knollstack.core.evaluation.evaluate import evaluated
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from tests.helpers import CATALOGUE

KPSI = 12 / 231
ANNULAR = Element(2, "e3", "annular", "annular", "annular", 15.0, 20.0, {"drill pipe": "seals", "tool joint": "seals"})
RAMS = Element(
    1, "e2", "pipe rams", "ram", "pipe rams", 20.0, 6.0, {"drill pipe": "seals and hangs", "tool joint": "no seal"}
)
ON_NOTHING = {"nothing": "seals", "drill pipe": "no seal"}
BLIND = Element(0, "e1", "blind rams", "ram", "blind rams", 24.0, 6.0, ON_NOTHING)


def small(**changes):
    """5,000 ft of 8.5 in hole under a shoe at 5,000 ft, 5 in pipe without collars, 10 ppg mud, 0.6 ppg under balance."""
    made_of = {
        "depths": Line((0.0, 10_000.0), (0.0, 10_000.0)),
        "heat": Line((0.0, 10_000.0), (70.0, 220.0)),
        "bores": ((24.0, 5_000.0, 8.681), (5_000.0, 10_000.0, 8.5)),
        "over_in": 13.6,
        "stack_md_ft": 24.0,
        "hole_md_ft": 10_000.0,
        "string": (Tube("drill pipe", ENDLESS, 5.0, 4.276, 6.625),),
        "bit_md_ft": 10_000.0,
        "joint_ft": 31.5,
        "mud_ppg": 10.0,
        "friction": {},
        "choke_line_in": 3.0,
        "choke_line_psi": 0.0,
        "pumps": Pumps(0.1, 30.0, 60.0, 100.0, 400.0),
        "rock": (Rock(5_000.0, 5_000.0, 5_000 * KPSI * 14.5),),
        "shoe_md_ft": 5_000.0,
        "pore_psi": 10_000 * KPSI * 10.6,
        "inflow_bpm_psi": 0.012,
        "gas_sg": 0.65,
        "slip_ft_min": 0.0,
        "elements": (BLIND, RAMS, ANNULAR),
        "choke_at": 0,
        "pit_bbl": 500.0,
        "class_psi": 5_000.0,
        "at_sea": False,
        "diverter": False,
    }
    return Setup(**{**made_of, **changes})


@cache
def demos():
    """Equipped programs and results of the demo wells with strings, by name."""
    found = {}
    for text in documents():
        design = parse(json.loads(text))
        if design.strings:
            equipped = program_of(design, CATALOGUE)
            found[design.name] = (equipped, dict(evaluated(equipped)))
    return found


LAND, PLATFORM, DEEP = "Harrow Fen 3", "Selkie A7", "Merrow Deep 1"


def play(well, kind, hole, policy=None, **more):
    equipped, results = demos()[well]
    below = next(s for s in equipped.strings if s.id == hole)
    found = made(equipped, results, Scene(**{"kind": kind, "hole": hole, "md_ft": below.shoe_md_ft, **more}))
    own = equipped.well.policy.drills
    return Play(found, own.model_copy(update=policy) if policy else own)
