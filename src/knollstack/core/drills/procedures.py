"""The shut-in procedures by the school of policy, as they are posted on the rig floor."""

from __future__ import annotations

from knollstack.core.base.findings import Words, length, minutes, volume
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.drills.results import Procedure


def procedures(policy: DrillsPolicy, at_sea: bool) -> tuple[Procedure, ...]:
    """While drilling, while tripping, without pipe, and on the diverter."""
    first = "annular" if policy.first == "annular" else "pipe rams"
    return (
        Procedure(
            title="While drilling", steps=(*_drilling(policy), *_closing(policy, first), *_after(policy, at_sea))
        ),
        Procedure(title="While tripping", steps=(*_tripping(policy), *_closing(policy, first), *_after(policy, False))),
        Procedure(title="No pipe in the hole", steps=(*_closing(policy, "blind rams"), *_after(policy, False))),
        Procedure(title="On the diverter", steps=_diverting()),
    )


def _drilling(policy: DrillsPolicy) -> tuple[Words, ...]:
    steps: tuple[Words, ...] = (
        ("Pick up at least ", length(policy.pick_up_ft), " until tool joints are clear of the stack"),
        ("Pumps off",),
    )
    return (*steps, ("Flow check",)) if policy.flow_check else steps


def _tripping(policy: DrillsPolicy) -> tuple[Words, ...]:
    steps: tuple[Words, ...] = (("Set slips",),)
    if policy.flow_check:
        steps = (*steps, ("Flow check",))
    return (*steps, ("Stab the full-opening safety valve, then close it",))


def _closing(policy: DrillsPolicy, first: str) -> tuple[Words, ...]:
    if policy.shut_in == "hard":
        return ((f"Close {first}, choke closed",), ("Open the choke line valve",))
    return (("Open the choke line valve, choke open",), (f"Close {first}",), ("Close the choke",))


def _after(policy: DrillsPolicy, at_sea: bool) -> tuple[Words, ...]:
    hung: tuple[Words, ...] = (("Close the hang-off ram and hang the string off",),) if at_sea else ()
    return (
        *hung,
        ("Record drill pipe and casing pressure, gain and time",),
        (
            "All within ",
            minutes(policy.most_minutes),
            " of the first sign and ",
            volume(policy.most_gain_bbl),
            " of gain",
        ),
    )


def _diverting() -> tuple[Words, ...]:
    return (
        ("Open the overboard line downwind",),
        ("Close the diverter",),
        ("Pumps to the greatest rate",),
        ("Never shut in",),
    )
