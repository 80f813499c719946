"""One string of 9 5/8 in 47 lb/ft N80 BTC, 8,000 ft in 12 1/4 in hole under 13 3/8 in at 2,000 ft, in 10.0 ppg mud.

Joints add 40.0 ft each (41 ft less 12 in), so that 200 of them, float shoe and float collar (3.4 ft) are 8,003.4 ft: the least
stick-up of 3 ft, and 0.4 ft more.
"""

from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.running.run import run_of
from tests.helpers import CATALOGUE, find, run, well

PIPE = {"weight_ppf": 47.0, "grade": "N80", "connection": "BTC"}
RAISED = {"joint_mean_ft": 40.0 + 4.8125 / 12, "joint_spread_ft": 0.0}
SURFACE = {"id": "s2", "role": "surface", "run": "cased", "shoe_md_ft": 2000.0, "bit_in": 17.5, "od_in": 13.375}
SURFACE["pipe"] = {"weight_ppf": 54.5, "grade": "K55", "connection": "STC"}


def cased(running=None, stations=None, policy=None, shoe=8000.0, string=None, **parts):
    """The document; `running` are the decisions of the string in question, `policy` those of the running step."""
    total = stations[-1][0] if stations else 8000.0
    made = [{"md_ft": m, "inclination_deg": i, "azimuth_deg": a} for m, i, a in stations or [(0, 0, 0), (total, 0, 0)]]
    own = {
        **{"id": "s3", "role": "production", "run": "cased", "shoe_md_ft": shoe, "bit_in": 12.25, "od_in": 9.625},
        **{"mud_ppg": 10.0, "pipe": PIPE, "reading_300": 30.0, "reading_600": 50.0, "running": running or {}},
        **(string or {}),
    }
    return well(
        trajectory__stations=made,
        policy__running=RAISED | (policy or {}),
        strings=[
            {"id": "s1", "role": "conductor", "run": "driven", "shoe_md_ft": 150.0, "od_in": 20.0},
            {**SURFACE, "mud_ppg": 9.5, "reading_300": 25.0, "reading_600": 40.0},
            own,
        ],
        **parts,
    )


def row_of(document):
    return run(document).running.strings[2]


def run_in(document):
    """What the judgements work on."""
    program = program_of(parse(document), CATALOGUE)
    return run_of(program, program.strings[2])


def told(document, severity=None):
    """What was found on the string's run."""
    return find(run(document), "running", severity)


def measured(*lengths, **more):
    return [{"length_ft": float(length), **more} for length in lengths]
