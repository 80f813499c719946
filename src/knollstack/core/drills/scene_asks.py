"""What the scenes beside a plain shut-in ask: diverter, leaks, stripping, dropping, the disconnect."""

from __future__ import annotations

from knollstack.core.drills.events import DrillEvent
from knollstack.core.drills.judging import Said, clock, closings, done_events, element, first
from knollstack.core.drills.play import Play
from knollstack.core.preventers.coverage import SEALING

FULL_SHARE = 0.95
STRIPPED_FT = 60.0


def diverted(play: Play) -> list[DrillEvent]:
    return [
        e for e in done_events(play, "close") if (x := element(play, e.target)) is not None and x.kind == "diverter"
    ]


def overboard_first(play: Play) -> Said:
    opened, closed = first(done_events(play, "open overboard")), first(diverted(play))
    if closed is None:
        return Said(0.0, ("the diverter was never closed",))
    if opened is None or opened.at_s > closed.at_s:
        return Said(0.0, ("the diverter was closed on a shut overboard line",), closed.at_s)
    return Said(1.0, ("line open at ", clock(opened.at_s), ", diverter closed at ", clock(closed.at_s)), closed.at_s)


def full_rate(play: Play) -> Said:
    most = play.made.setup.pumps.most_spm
    after = [s for s in play.samples if play.first_sign_s is not None and s.at_s > play.first_sign_s + 120]
    off = [s for s in after if s.spm < FULL_SHARE * most]
    if not after:
        return Said(0.0, ("the drill ended before the pumps were up",))
    if off:
        return Said(0.0, (f"{off[0].spm:.0f} spm at {clock(off[0].at_s)}",), off[0].at_s)
    return Said(1.0, ("pumped at the greatest rate throughout",))


def never_shut(play: Play) -> Said:
    shut = done_events(play, "close overboard")
    tight = next((s.at_s for s in play.samples if s.tight), None)
    if tight is not None or (shut and diverted(play)):
        return Said(0.0, ("the well was shut in on the diverter",), tight)
    return Said(1.0, ("led away, never shut in",))


def leaks(play: Play, event: DrillEvent) -> bool:
    return any(index == event.target for index, _ in play.made.leaks)


def backed_up(play: Play) -> Said:
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


def dropped(play: Play) -> Said:
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


def tried_first(play: Play) -> Said:
    drop = first(done_events(play, "drop"))
    tried = first(e for e in closings(play) if e.verdict == "seals")
    ok = tried is not None and (drop is None or tried.at_s < drop.at_s)
    return Said(
        1.0 if ok else 0.0,
        ("annular tried first" if ok else "dropped before the annular was tried",),
        drop.at_s if drop else None,
    )


def filled(play: Play) -> Said:
    fill = first(done_events(play, "fill casing"))
    closed = first(closings(play))
    if fill is None:
        return Said(0.0, ("the casing was not filled",))
    ok = closed is None or fill.at_s <= closed.at_s
    return Said(1.0 if ok else 0.5, ("filled at ", clock(fill.at_s)), fill.at_s)


def stripped(play: Play) -> Said:
    found = first(done_events(play, "strip in"))
    if found is None or play.shut_in_s is None or found.at_s < play.shut_in_s:
        return Said(0.0, ("not stripped back",))
    begun = next((s.bit_md_ft for s in play.samples if s.at_s >= found.at_s), None)
    now = play.state.bit_md_ft
    went = (now or 0.0) - (begun or 0.0)
    return Said(1.0 if went >= STRIPPED_FT else 0.5, (f"stripped in from {clock(found.at_s)}",), found.at_s)


def hung(play: Play) -> Said:
    found = first(done_events(play, "hang off"))
    return Said(1.0 if found else 0.0, ("hung off" if found else "not hung off",), found.at_s if found else None)


def drift(play: Play, k: int) -> float:
    assert play.made.drift is not None
    return play.made.starts_s + play.made.drift[k]


def secured(play: Play) -> Said:
    hung, red = first(done_events(play, "hang off")), drift(play, 1)
    if hung is None:
        return Said(0.0, ("the string was not hung off",))
    return Said(1.0 if hung.at_s <= red else 0.5, ("hung off at ", clock(hung.at_s)), hung.at_s)


def sheared(play: Play) -> Said:
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


def left(play: Play) -> Said:
    left, limit = first(done_events(play, "disconnect")), drift(play, 2)
    if left is None:
        return Said(0.0, ("never unlatched",))
    ok = left.at_s <= limit
    return Said(
        1.0 if ok else 0.0,
        ("unlatched at ", clock(left.at_s), "" if ok else ", after the limit of the flex joint"),
        left.at_s,
    )


def not_early(play: Play) -> Said:
    cut = first(e for e in closings(play) if e.verdict in ("shears", "shears and seals"))
    yellow = drift(play, 0)
    if cut is None or cut.at_s >= min(yellow, drift(play, 1)):
        return Said(1.0, ("nothing cut before its circle",))
    return Said(0.0, ("cut before the rig had reached a circle",), cut.at_s)


def bop_then_diverter(play: Play) -> Said:
    closed = first(closings(play))
    diverter = first(diverted(play))
    if diverter is None:
        return Said(0.0, ("the diverter was never closed: the riser unloads on the rig floor",))
    said = overboard_first(play)
    if said.credit < 1:
        return said
    ok = closed is not None
    return Said(1.0 if ok else 0.5, ("diverter closed at ", clock(diverter.at_s)), diverter.at_s)
