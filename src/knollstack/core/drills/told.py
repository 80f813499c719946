"""What was done, in words."""

from __future__ import annotations

from knollstack.core.base.findings import Words, emw, pressure, volume
from knollstack.core.drills.events import DrillEvent
from knollstack.core.drills.play import Play

PLAIN: dict[str, str] = {
    "pick up": "Pick up and space out",
    "lower": "Run back to bottom",
    "slips": "Set slips",
    "flow check": "Flow check",
    "stab valve": "Stab the safety valve, open",
    "close valve": "Close the safety valve",
    "open valve": "Open the safety valve",
    "make up": "Make up the top drive",
    "open choke line": "Open the choke line valve",
    "close choke line": "Close the choke line valve",
    "choke by hand": "Choke by hand",
    "open overboard": "Open the overboard line",
    "close overboard": "Close the overboard line",
    "hang off": "Hang off the string",
    "disconnect": "Unlatch the riser package",
    "strip in": "Strip in",
    "stop pipe": "Stop the pipe",
    "drop": "Drop the string",
    "fill casing": "Fill the casing",
    "report": "Report",
    "end": "End of the drill",
}


def told(play: Play, event: DrillEvent) -> Words:
    """One thing done."""
    if event.action in ("close", "open"):
        found = next((e for e in play.made.setup.elements if e.index == event.target), None)
        verb = "Close" if event.action == "close" else "Open"
        return (f"{verb} {found.title if found is not None else 'an element'}",)
    if event.action == "pump":
        return ("Pumps off",) if not event.value else (f"Pumps at {event.value:.0f} spm",)
    if event.action == "choke":
        return (f"Choke to {100 * (event.value or 0):.0f} %",)
    if event.action == "line up mud":
        return ("Mud lined up, ", emw(event.value or 0.0))
    if event.action in ("hold casing pressure", "hold drill pipe pressure"):
        what = event.action.removeprefix("hold ")
        return (f"Choke holds {what}",) if event.value is None else (f"Choke holds {what} ", pressure(event.value))
    if event.action == "record":
        return _recorded(event)
    return (PLAIN[event.action],)


def _recorded(event: DrillEvent) -> Words:
    words: Words = ("Recorded",)
    if event.sidpp_psi is not None:
        words = (*words, ", drill pipe ", pressure(event.sidpp_psi))
    if event.sicp_psi is not None:
        words = (*words, ", casing ", pressure(event.sicp_psi))
    if event.gain_bbl is not None:
        words = (*words, ", gain ", volume(event.gain_bbl))
    return words
