"""The step lists of the land, the platform and the deep demo well, read and kept in words.

`python -m tests.core.runsheet.test_pinned` writes them anew; their difference belongs in the change's message.
"""

import json
import re

import pytest

from knollstack.core.base.units import plain
from knollstack.demo import documents
from tests.helpers import DATA, Run, run

FOLDER = DATA / "run-sheets"
WELLS = {"land": 1, "platform": 2, "deep": 3}


def told(judged: Run) -> str:
    """A step a line: its key, its words, its caution, who signs."""
    lines = []
    for line in judged.sheet().lines:
        caution = f" ! {plain(line.caution)}" if line.caution else ""
        hold = " HOLD" if line.hold else ""
        lines.append(f"{line.key} | {plain(line.text)}{caution} | {line.signs}{hold}")
    return "\n".join(lines) + "\n"


def of(name: str) -> Run:
    return run(json.loads(documents()[WELLS[name]]))


@pytest.mark.parametrize("name", WELLS)
def test_the_steps_of_a_demo_well_are_those_that_were_read(name):
    assert told(of(name)).splitlines() == (FOLDER / f"{name}.txt").read_text(encoding="utf-8").splitlines()


# what a sheet of each kind has in this order, by the words of its steps
ORDER = {
    "land": """
        Dig and line the cellar | Drive the 20 in conductor | rig up | weld the diverter's flange | Nipple up adapter
        Function the diverter | Spud the well | Drill 17 1/2 in hole | wiper trip | Pull out of the hole | casing crew
        shoe joint | Run 50 joints of 13 3/8 in | Fill every 5 joints | stick-up | Circulate at least
        Load bottom and top plug | Pump 90.0 bbl | mix and pump | Drop the top plug | Bump at
        Look for cement at surface | Wait on cement | Count the barriers | nipple down the diverter
        Cut the adapter flange | Rough cut | Final cut | Base plate | Weld test | Nipple up on the casing head
        test plug | Test blind rams | Function every element | Pull the test plug | Run the wear bushing
        Make up the 12 1/4 in bit | Test the 13 3/8 in casing | Drill out plugs | of new hole | Leak-off test
        Drill 12 1/4 in hole | Wireline logs | Pull the wear bushing | Change the pipe rams | Test the bonnets
        Run 173 joints of 9 5/8 in | Wait on cement | Count the barriers | lift the stack | Set the slips
        cut holes; rough cut | Final cut and bevel | Set the casing spool | Seal test | Flange test
        Nipple up on the casing spool | Drill 8 1/2 in hole | Core (Kestrel sand) | Decide at total depth
        Run 311 joints of 7 in | Set the tubing spool | Test the 7 in casing | scrape the casing | completion fluid
        Log the cement | Set the permanent packer | EUE tubing | Land the tubing hanger | back-pressure valve
        Count the barriers | nipple down the BOPs | Lower the tree | Test the adapter's seals
        Test the upper master valve | Pull the back-pressure valve | Perforate | Hand over
    """,
    "platform": """
        through 210 ft of water | over the slot | Nipple up adapter | Spud the well | mudline hanger
        nipple down the diverter | Nipple up on the casing head | Leak-off test | Drill 12 1/4 in hole
        mudline hanger | Set the slips | Set the tubing spool | Drill 8 1/2 in hole | due 14 days
        Decide at total depth | 6 5/8 in casing rams | Run the liner in on drill pipe | Load the darts
        Set the liner hanger | back for drill pipe | inflow test | mechanical plug | tag and pressure test
        Count the barriers | nipple down the BOPs | Cap the wellhead | Hand over
    """,
    "deep": """
        survey the sea floor | Spud the well | low-pressure housing | to the sea floor | Jet to | Soak 6.0 h | Camera
        Drill 26 in hole | pad mud | Run 60 joints of 20 in | high-pressure housing | sea floor, seen by the camera
        Release the running tool | on deck from both pods | Run stack and riser | telescopic joint | land and latch
        Test pipe rams | Displace the riser to mud | Run the bore protector | Drill out plugs | Leak-off test
        riser tension | Disconnect plan | Drill 17 1/2 in hole | Pull the bore protector | close the annular preventer
        on drill pipe | Wait on cement | seal assembly | Test pipe rams | Run the bore protector | Disconnect plan
        Drill 8 1/2 in hole | Decide at total depth | Run in open-ended | Surface plug | Count the barriers
        Displace the riser to sea water | recover riser and stack | Cut the casing | Hand over
    """,
}


@pytest.mark.parametrize("name", WELLS)
def test_every_step_of_such_a_well_stands_in_its_order(name):
    left = iter(told(of(name)).splitlines())
    for words in re.split(r" \| |\n", "\n".join(x.strip() for x in ORDER[name].strip().splitlines())):
        assert any(words in line for line in left), f"{words} is missing, or out of its order"


def test_the_sheets_are_long_and_speak_of_what_the_design_has():
    """No tree without a completion, no riser on land, no liner where none is run."""
    sheets = {name: told(of(name)) for name in WELLS}
    assert all(text.count("\n") > 100 for text in sheets.values())
    absent = {
        "land": ("riser", "liner", "sea floor", "mudline", "darts", "bore protector", "Cap the"),
        "platform": (
            "riser",
            "tubing hanger",
            "Lower the tree",
            "cellar",
            "sea floor",
            "bore protector",
            "Cut the casing",
        ),
        "deep": (
            "diverter's flange",
            "slips",
            "spool",
            "tubing hanger",
            "Lower the tree",
            "cellar",
            "wear bushing",
            "side outlet",
        ),
    }
    for name, words in absent.items():
        assert [w for w in words if re.search(w, sheets[name])] == [], name


if __name__ == "__main__":
    FOLDER.mkdir(exist_ok=True)
    for well in WELLS:
        (FOLDER / f"{well}.txt").write_text(told(of(well)), encoding="utf-8")
