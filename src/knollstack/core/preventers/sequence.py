"""What is done with a stack from one string to the next that reaches surface: pulled, changed, lifted, nippled up again."""

from __future__ import annotations

from knollstack.core.base.findings import Words, length, size
from knollstack.core.preventers.inforce import InForce
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.running.tally import hung_by
from knollstack.core.wellhead.pieces import HeadPiece

Pieces = tuple[HeadPiece, ...]
MOUNTED = {
    "slip-on weld": "turned to its outlets' direction; weld it inside and outside, and test the welds",
    "threaded": "made up to its torque, turned to its outlets' direction",
    "slip-on grips": "turned to its outlets' direction; set its grips, and test its seal",
}
"""What is done to set a head on the surface casing."""


def steps_of(found: InForce, pieces: Pieces) -> tuple[Words, ...]:
    """From this string to the next that reaches surface: what is pulled, changed, lifted and nippled up again."""
    ground, ram = found.ground, found.casing_ram
    equipped, string = ground.equipped, ground.string
    after = next((s for s in equipped.strings[string.index + 1 :] if s.run != "liner"), None)
    end = after.index if after is not None else len(equipped.strings)
    liners = [s for s in equipped.strings[string.index + 1 : end] if s.od_in is not None]
    if not found.elements or (after is None and not liners):
        return ()
    if string.role == "conductor" and after is not None:
        return _off_conductor(equipped, after, pieces)
    steps: list[Words] = []
    for liner in liners:
        if ram is not None and liner.od_in is not None:
            rams = size(liner.od_in)
            steps.append((f"For the liner change the {ram.title} to ", rams, " casing rams; test the bonnets."))
        steps.append(("Run, hang and cement the ", *liner.words, " liner; test its top. Rams back for drill pipe."))
    if after is None:
        return tuple(steps)
    steps.append(("Pull the wear bushing.",))
    if ram is not None and after.od_in is not None:
        casing = size(after.od_in)
        steps.append((f"Change the {ram.title} to ", casing, " casing rams; test the bonnets."))
    steps.append(("Run and cement ", *after.words, " casing; wait until it is set. Count the barriers."))
    over = next((p for p in pieces if p.string is not None and p.string.index == after.index), None)
    lift = length(equipped.well.policy.preventers.lift_ft)
    if hung_by(equipped.well, after) == "mandrel":
        steps.append(("Land the hanger through the stack; set its pack-off and test it from above.",))
    else:
        steps.append(("Break the flange below the stack, lift it ", lift, ", set the slips, make the rough cut."))
    if over is not None:
        steps.append((f"Lay the stack aside, make the final cut, set the {over.name}; test seal and flange.",))
    steps.append(("Nipple up, with rams back for drill pipe; run the wear bushing once tested.",))
    days = equipped.well.policy.preventers.test_days
    steps.append((f"Test with the plug before drilling out, and again within {days} days.",))
    return tuple(steps)


def _off_conductor(equipped: Equipped, after: EquippedString, pieces: Pieces) -> tuple[Words, ...]:
    """The diverter makes place for the head: no stack is lifted."""
    head = pieces[0].name if pieces else "head"
    plate = " with its base plate on the conductor" if equipped.design.wellhead.base_plate_in else ""
    return (
        ("Run and cement ", *after.words, " casing with the diverter on; wait until it is set. Count the barriers."),
        ("Nipple down the diverter; cut conductor and casing, rough and then final.",),
        (f"Set the {head}{plate}, {MOUNTED[equipped.design.wellhead.mounting]}.",),
        ("Nipple up the stack; test it with the plug before drilling out; run the wear bushing.",),
    )
