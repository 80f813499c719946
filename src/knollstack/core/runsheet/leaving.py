"""The family of a well that is left: plug by plug, verified; the BOPs off, cap on or casing cut. `string` is the innermost."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, depth, emw, force, hours, pressure, volume
from knollstack.core.completion.results import LeavingRow, LeftPlug
from knollstack.core.runsheet.barriers import refused
from knollstack.core.runsheet.completing import bowl
from knollstack.core.runsheet.due import carried
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.times import cased_trip_hours, trip_hours


def _left(at: At) -> LeavingRow:
    row = at.plan.leaving
    assert row is not None
    return row


def _way(at: At) -> str:
    return "suspension" if at.plan.completion.decision == "suspend" else "abandonment"


def _place(at: At) -> str:
    return f"/completion/{_way(at)}"


def _plugs(at: At) -> Iterator[tuple[str, LeftPlug]]:
    for plug in sorted(_left(at).plugs, key=lambda p: -p.bottom_md_ft):
        yield plug.id, plug


def _named(plug: LeftPlug) -> str:
    return plug.name if "plug" in plug.name.lower() else f"Plug at the {plug.name}"


def _set(at: At) -> Words:
    plug: LeftPlug = at.item
    words: list[str | Amount] = [f"{_named(plug)}: "]
    if plug.base == "mechanical plug":
        words += ["set a mechanical plug at ", depth(plug.bottom_md_ft), ", cement on it to ", depth(plug.top_md_ft)]
    else:
        pill = "spot a viscous pill; " if plug.base == "viscous pill" else ""
        words += [f"{pill}cement from ", depth(plug.bottom_md_ft), " to ", depth(plug.top_md_ft)]
    row = plug.volumes
    if row is not None:
        words += [
            ", ",
            volume(row.slurry_bbl),
            " of slurry, ",
            Amount(value=row.sacks, quantity="sacks"),
            "; displace ",
            volume(row.displacement_bbl),
            "; pull slowly above it",
        ]
    return tuple(words)


def _verify(at: At) -> Words:
    plug: LeftPlug = at.item
    words: list[str | Amount] = [
        f"{_named(plug)}: wait ",
        hours(at.plan.well.policy.cement.wait_hours),
        f"; {plug.verify}",
    ]
    words += [" with ", force(plug.tag_lbf)] if plug.tag_lbf is not None else []
    words += [", ", pressure(plug.test_psi)] if plug.test_psi is not None else []
    return tuple(words)


def _each(at: At) -> Iterator[tuple[str, tuple[str, LeftPlug]]]:
    for key, plug in _plugs(at):
        yield f"{key}-set", ("set", plug)
        if plug.verify != "none":
            yield f"{key}-verify", ("verify", plug)


def _words(at: At) -> Words:
    word, plug = at.item
    return _set(at.about(plug)) if word == "set" else _verify(at.about(plug))


def _hours(at: At) -> float | None:
    word, plug = at.item
    policy = at.plan.well.policy
    if word == "set":
        return policy.completion.plug_hours
    return policy.cement.wait_hours if "tag" in plug.verify else at.policy.casing_test_hours


def _pipe_hours(at: At) -> float:
    deepest = max(p.bottom_md_ft for p in _left(at).plugs)
    cased = _left(at).production_run
    return cased_trip_hours(at.plan, deepest) if cased else trip_hours(at.plan, at.string, deepest)


PLUGS: tuple[Rule, ...] = (
    Rule(
        "pipe",
        "tripping",
        lambda at: ("Run in open-ended to ", depth(max(p.bottom_md_ft for p in _left(at).plugs))),
        "The deepest plug is set first.",
        "completion",
        when=lambda at: bool(_left(at).plugs),
        hours=_pipe_hours,
        place=lambda at: f"{_place(at)}/plugs",
    ),
    Rule(
        "plug",
        "plugs",
        _words,
        "From the bottom up: each stands on what is proved below it.",
        "completion",
        "cementer, drilling supervisor",
        each=_each,
        hours=_hours,
        hold=True,
        place=lambda at: at.item[1].place,
    ),
    Rule(
        "mud",
        "plugs",
        lambda at: ("Leave ", emw(_left(at).mud_ppg or 0.0), " mud between the plugs, treated against corrosion"),
        "It holds what seeps until the next plug.",
        "completion",
        "mud engineer",
        when=lambda at: _left(at).mud_ppg is not None,
        place=lambda at: f"{_place(at)}/mud_ppg",
    ),
    Rule(
        "bushing-out",
        "BOPs",
        lambda at: (f"Pull the {carried(at)}",),
        "Nothing is left in the bowl.",
        "preventers",
        when=lambda at: at.item is True,
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("bushing out", bowl(at)),),
        place=lambda at: "/wellhead",
    ),
)


def _off(at: At) -> Words:
    return ("Unlatch the riser; recover riser and stack" if at.plan.subsea else "Drain and nipple down the BOPs",)


def _off_hours(at: At) -> float | None:
    """On the sea floor riser and stack are pulled."""
    if not at.plan.subsea:
        return at.policy.nipple_down_hours
    return next((row.hours for row in at.plan.sea.schedule if row.work.startswith("Unlatch")), None)


TAKE_OFF: tuple[Rule, ...] = (
    Rule(
        "off",
        "BOPs",
        _off,
        "Plugs stand, verified, and are counted.",
        "preventers",
        "toolpusher",
        hours=_off_hours,
        does=lambda at: (Does("off", at.item),),
        place=lambda at: "/completion/verified",
        held=refused,
    ),
    Rule(
        "cap",
        "wellhead",
        lambda at: ("Cap the wellhead with its gauge and bleed valve; record pressures",),
        "Whoever comes back sees what stands under it.",
        "completion",
        "wellhead technician",
        when=lambda at: _way(at) == "suspension",
        hours=lambda at: at.policy.spool_hours,
        place=lambda at: _place(at),
    ),
    Rule(
        "cut",
        "plugs",
        lambda at: (
            "Cut the casing at ",
            depth(_left(at).cut_md_ft),
            ", ",
            depth(_left(at).cut_below_ft),
            f" below the {'mudline' if at.plan.well.site.setting != 'land' else 'ground'}; recover the wellhead",
        ),
        "Nothing is left that a plough, a net or an anchor could meet.",
        "completion",
        "drilling supervisor",
        when=lambda at: _way(at) == "abandonment",
        hours=lambda at: at.plan.well.policy.completion.cut_hours,
        hold=True,
        place=lambda at: f"{_place(at)}/cut_ft",
    ),
    Rule(
        "hand-over",
        "barriers",
        lambda at: ("Hand over: plugs as set and verified, what is left in the well and where",),
        "The record outlives the crew.",
        "completion",
        "drilling supervisor",
        hold=True,
        place=lambda at: "/completion/verified",
    ),
)
