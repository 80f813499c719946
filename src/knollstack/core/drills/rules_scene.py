"""Rules of single scenes: the diverter, what leaks, casing, a string that cannot be cut, stripping, the sea."""

from __future__ import annotations

from knollstack.core.drills.events import DrillEvent
from knollstack.core.drills.judging import (
    PRACTICE,
    RATING,
    Rule,
    Said,
    clock,
    closings,
    done_events,
    element,
    first,
    on,
)
from knollstack.core.drills.play import Play
from knollstack.core.drills.rules_shut import DRILLED
from knollstack.core.preventers.coverage import SEALING

FULL_SHARE = 0.95
STRIPPED_FT = 60.0


def _diverted(play: Play) -> list[DrillEvent]:
    return [
        e for e in done_events(play, "close") if (x := element(play, e.target)) is not None and x.kind == "diverter"
    ]


def _overboard_first(play: Play) -> Said:
    opened, closed = first(done_events(play, "open overboard")), first(_diverted(play))
    if closed is None:
        return Said(0.0, ("the diverter was never closed",))
    if opened is None or opened.at_s > closed.at_s:
        return Said(0.0, ("the diverter was closed on a shut overboard line",), closed.at_s)
    return Said(1.0, ("line open at ", clock(opened.at_s), ", diverter closed at ", clock(closed.at_s)), closed.at_s)


def _full_rate(play: Play) -> Said:
    most = play.made.setup.pumps.most_spm
    after = [s for s in play.samples if play.first_sign_s is not None and s.at_s > play.first_sign_s + 120]
    off = [s for s in after if s.spm < FULL_SHARE * most]
    if not after:
        return Said(0.0, ("the drill ended before the pumps were up",))
    if off:
        return Said(0.0, (f"{off[0].spm:.0f} spm at {clock(off[0].at_s)}",), off[0].at_s)
    return Said(1.0, ("pumped at the greatest rate throughout",))


def _never_shut(play: Play) -> Said:
    shut = done_events(play, "close overboard")
    tight = next((s.at_s for s in play.samples if s.tight), None)
    if tight is not None or (shut and _diverted(play)):
        return Said(0.0, ("the well was shut in on the diverter",), tight)
    return Said(1.0, ("led away, never shut in",))


def leaks(play: Play, event: DrillEvent) -> bool:
    return any(index == event.target for index, _ in play.made.leaks)


def _backed_up(play: Play) -> Said:
    """A leak is seen, and the next element that holds is closed on pipe it fits."""
    held = [e for e in closings(play) if e.verdict in SEALING[:2] and not leaks(play, e)]
    first_leak = first(e for e in closings(play) if leaks(play, e))
    if first_leak is None:
        return Said(1.0 if held else 0.0, ("what was closed first held" if held else "nothing that holds was closed",))
    after = first(e for e in held if e.at_s > first_leak.at_s)
    if after is None:
        return Said(0.0, ("the leak was not backed up",), first_leak.at_s)
    e = element(play, after.target)
    return Said(1.0, (f"{e.title if e else 'element'} closed behind it at {clock(after.at_s)}",), after.at_s)


def _dropped(play: Play) -> Said:
    drop = first(done_events(play, "drop"))
    blind = first(
        e
        for e in closings(play)
        if (x := element(play, e.target)) is not None
        and x.element in ("blind rams", "blind shear rams")
        and e.verdict == "seals"
    )
    if drop is None:
        return Said(0.0, ("the string was not dropped",))
    if blind is None or blind.at_s < drop.at_s:
        return Said(0.5, ("dropped, and no blind rams closed over it",), drop.at_s)
    return Said(1.0, ("dropped at ", clock(drop.at_s), ", blind rams closed at ", clock(blind.at_s)), blind.at_s)


def _tried_first(play: Play) -> Said:
    drop = first(done_events(play, "drop"))
    tried = first(e for e in closings(play) if e.verdict == "seals")
    ok = tried is not None and (drop is None or tried.at_s < drop.at_s)
    return Said(
        1.0 if ok else 0.0,
        ("annular tried first" if ok else "dropped before the annular was tried",),
        drop.at_s if drop else None,
    )


def _filled(play: Play) -> Said:
    fill = first(done_events(play, "fill casing"))
    closed = first(closings(play))
    if fill is None:
        return Said(0.0, ("the casing was not filled",))
    ok = closed is None or fill.at_s <= closed.at_s
    return Said(1.0 if ok else 0.5, ("filled at ", clock(fill.at_s)), fill.at_s)


def _stripped(play: Play) -> Said:
    found = first(done_events(play, "strip in"))
    if found is None or play.shut_in_s is None or found.at_s < play.shut_in_s:
        return Said(0.0, ("not stripped back",))
    begun = next((s.bit_md_ft for s in play.samples if s.at_s >= found.at_s), None)
    now = play.state.bit_md_ft
    went = (now or 0.0) - (begun or 0.0)
    return Said(1.0 if went >= STRIPPED_FT else 0.5, (f"stripped in from {clock(found.at_s)}",), found.at_s)


def _hung(play: Play) -> Said:
    found = first(done_events(play, "hang off"))
    return Said(1.0 if found else 0.0, ("hung off" if found else "not hung off",), found.at_s if found else None)


def _drift(play: Play, k: int) -> float:
    assert play.made.drift is not None
    return play.made.starts_s + play.made.drift[k]


def _secured(play: Play) -> Said:
    hung, red = first(done_events(play, "hang off")), _drift(play, 1)
    if hung is None:
        return Said(0.0, ("the string was not hung off",))
    return Said(1.0 if hung.at_s <= red else 0.5, ("hung off at ", clock(hung.at_s)), hung.at_s)


def _sheared(play: Play) -> Said:
    cut = first(e for e in closings(play) if e.verdict == "shears and seals")
    left = first(done_events(play, "disconnect"))
    if cut is None:
        return Said(0.0, ("the string was not cut and the bore sealed",))
    if left is not None and left.at_s < cut.at_s:
        return Said(0.0, ("unlatched before the bore was sealed",), left.at_s)
    hung = first(done_events(play, "hang off"))
    ok = hung is not None and hung.at_s < cut.at_s
    return Said(
        1.0 if ok else 0.5, ("cut and sealed at ", clock(cut.at_s), "" if ok else ", not hung off before"), cut.at_s
    )


def _left(play: Play) -> Said:
    left, limit = first(done_events(play, "disconnect")), _drift(play, 2)
    if left is None:
        return Said(0.0, ("never unlatched",))
    ok = left.at_s <= limit
    return Said(
        1.0 if ok else 0.0,
        ("unlatched at ", clock(left.at_s), "" if ok else ", after the limit of the flex joint"),
        left.at_s,
    )


def _not_early(play: Play) -> Said:
    cut = first(e for e in closings(play) if e.verdict in ("shears", "shears and seals"))
    yellow = _drift(play, 0)
    if cut is None or cut.at_s >= min(yellow, _drift(play, 1)):
        return Said(1.0, ("nothing cut before its circle",))
    return Said(0.0, ("cut before the rig had reached a circle",), cut.at_s)


def _bop_then_diverter(play: Play) -> Said:
    closed = first(closings(play))
    diverter = first(_diverted(play))
    if diverter is None:
        return Said(0.0, ("the diverter was never closed: the riser unloads on the rig floor",))
    said = _overboard_first(play)
    if said.credit < 1:
        return said
    ok = closed is not None
    return Said(1.0 if ok else 0.5, ("diverter closed at ", clock(diverter.at_s)), diverter.at_s)


SCENE_RULES: tuple[Rule, ...] = (
    Rule(
        "overboard",
        "Overboard line open before the diverter closes",
        lambda p: ("open the line downwind, then close the diverter",),
        "A diverter that closes on a shut line shuts the well in on a shoe that cannot stand it.",
        PRACTICE,
        25,
        lambda p: on(p, "diverter"),
        _overboard_first,
    ),
    Rule(
        "full rate",
        "Pumps at the greatest rate",
        lambda p: (f"pumps at {p.made.setup.pumps.most_spm:.0f} spm and kept there",),
        "Friction and weight of what is pumped are all that is held against the flow.",
        PRACTICE,
        15,
        lambda p: on(p, "diverter"),
        _full_rate,
    ),
    Rule(
        "never shut",
        "Never shut in",
        lambda p: ("led away until it is dead or bridged",),
        "The shoe would break and the gas come up outside the conductor, under the rig.",
        PRACTICE,
        25,
        lambda p: on(p, "diverter"),
        _never_shut,
    ),
    Rule(
        "back-up",
        "Leak backed up",
        lambda p: ("after a look what pipe is across it, the ram that fits behind the one that leaks",),
        "Flow that goes on under a closed preventer is a leak: the next barrier is closed at once.",
        PRACTICE,
        15,
        lambda p: on(p, "failed annular", "leaking ram"),
        _backed_up,
    ),
    Rule(
        "tried",
        "Annular tried before the string is dropped",
        lambda p: ("annular first, as collars have no ram",),
        "The string is given up last.",
        PRACTICE,
        8,
        lambda p: on(p, "unshearable"),
        _tried_first,
    ),
    Rule(
        "dropped",
        "String dropped, blind rams closed",
        lambda p: ("drop the collars, then close the blind rams on the open hole",),
        "No ram seals on collars and no blade cuts them.",
        RATING,
        20,
        lambda p: on(p, "unshearable"),
        _dropped,
    ),
    Rule(
        "filled",
        "Casing filled first",
        lambda p: ("fill the casing before the well is closed",),
        "Empty casing may be crushed by the pressure outside, or its float fail.",
        PRACTICE,
        8,
        lambda p: on(p, "casing"),
        _filled,
    ),
    Rule(
        "stripped",
        "Stripped back to bottom",
        lambda p: ("strip in through the annular towards bottom",),
        "A swabbed kick is circulated out from bottom, with the mud that held before.",
        PRACTICE,
        8,
        lambda p: on(p, "swab"),
        _stripped,
    ),
    Rule(
        "hung off",
        "String hung off",
        lambda p: ("close a pipe ram and land the tool joint on it",),
        "On a floating rig the string is hung off before the annular wears under its heave.",
        PRACTICE,
        6,
        lambda p: p.made.setup.at_sea and on(p, *DRILLED),
        _hung,
    ),
    Rule(
        "diverter above",
        "Riser led away",
        lambda p: ("overboard line open, diverter closed, once the stack is shut",),
        "Nothing on the sea floor holds what is above it: gas in the riser unloads it within minutes.",
        PRACTICE,
        20,
        lambda p: on(p, "gas above"),
        _bop_then_diverter,
    ),
    Rule(
        "secured",
        "Secured by the red circle",
        lambda p: ("stop, space out and hang off by ", clock(int(_drift(p, 1)))),
        "The string is cut under no tension, its tool joint below the blades.",
        PRACTICE,
        15,
        lambda p: on(p, "drift-off"),
        _secured,
    ),
    Rule(
        "cut",
        "Cut and sealed before unlatching",
        lambda p: ("blind shear rams after the string is hung off, then unlatch",),
        "The well must be closed below before the riser goes.",
        PRACTICE,
        20,
        lambda p: on(p, "drift-off"),
        _sheared,
    ),
    Rule(
        "not early",
        "Not cut before its circle",
        lambda p: ("nothing is cut before ", clock(int(_drift(p, 0)))),
        "A string that is cut without need is lost.",
        PRACTICE,
        8,
        lambda p: on(p, "drift-off"),
        _not_early,
    ),
    Rule(
        "unlatched",
        "Unlatched before the limit",
        lambda p: ("unlatch by ", clock(int(_drift(p, 2)))),
        "Beyond the limit of the flex joint riser, wellhead and conductor are bent.",
        RATING,
        20,
        lambda p: on(p, "drift-off"),
        _left,
    ),
)
