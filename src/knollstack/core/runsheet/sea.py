"""The family of a well on the sea floor: its conductor, returns to the sea floor, one stack and its riser."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, depth, emw, force, height, hours, length, volume
from knollstack.core.runsheet.land import conductor_cement, is_drilled
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.times import conductor_hole_hours, stand_ft, wait_hours
from knollstack.core.sea.results import LandingRow, RiserlessRow

POSITION_HOURS = 12.0


def _jetted(at: At) -> bool:
    return at.string.run == "jetted"


def _conductor(at: At) -> Words:
    row = at.plan.sea.conductor
    words: list[str | Amount] = [
        "Make up the ",
        *at.string.words,
        " conductor with low-pressure housing and guide base",
    ]
    if _jetted(at) and row is not None and row.bit_out_in is not None:
        words += ["; space out the jetting assembly, bit ", height(row.bit_out_in), " below the shoe"]
    return tuple(words)


def _jet(at: At) -> Words:
    own = at.plan.equipped.design.sea.conductor
    words: list[str | Amount] = [
        "Jet to ",
        depth(at.string.shoe_md_ft),
        ", the housing ",
        length(own.low_over_ft),
        " over the mudline; reciprocate as little as it takes",
    ]
    if own.last_bit_weight_lbf is not None:
        words += ["; last weight on bit ", force(own.last_bit_weight_lbf), ", recorded"]
    return tuple(words)


def _soak(at: At) -> Words:
    row = at.plan.sea.conductor
    needed: Words = ()
    if row is not None and row.soak_needed_hours is not None:
        needed = ("; it bears itself after ", hours(row.soak_needed_hours))
    return ("Soak ", hours(_soak_hours(at)), *needed, "; release the running tool, read the inclination")


def _soak_hours(at: At) -> float:
    own = at.plan.equipped.design.sea.conductor.soak_hours
    return own if own is not None else at.plan.well.policy.sea.soak_hours


def _to_sea_floor(at: At) -> float:
    """Hours of pipe from the rig to the sea floor, or back."""
    return at.plan.well.ground_md_ft / stand_ft(at.plan) * at.policy.stand_minutes / 60


SITE: tuple[Rule, ...] = (
    Rule(
        "position",
        "preparation",
        lambda at: (
            "Move the rig on location, hold station in ",
            depth(at.plan.well.site.water_depth_ft),
            " of water; survey the sea floor, check position",
        ),
        "Nothing is set on a slope, a wreck or a gas seep.",
        "sea",
        "drilling supervisor",
        hours=lambda at: POSITION_HOURS,
        hold=True,
        place=lambda at: "/site/water_depth_ft",
    ),
)
CONDUCTOR: tuple[Rule, ...] = (
    Rule(
        "conductor-hole",
        "drilling",
        lambda at: (
            "Drill ",
            *at.string.hole_words,
            " with sea water and sweeps to ",
            depth(at.string.shoe_md_ft),
            ", returns to the sea floor, camera on the hole; displace it to mud, pull out",
        ),
        "Soil too firm to jet through is drilled.",
        "sea",
        "driller",
        when=is_drilled,
        hours=conductor_hole_hours,
        does=lambda at: (Does("drill", at.string.id),),
        place=lambda at: f"{at.path}/bit_in",
    ),
    Rule(
        "conductor",
        "running casing",
        _conductor,
        "Length and weight are fixed before it leaves the moon pool.",
        "sea",
        "subsea engineer",
        hours=lambda at: at.policy.casing_gear_hours * 2,
        place=lambda at: "/sea/conductor",
        working=lambda at: (
            "sea/space_out" if _jetted(at) and at.plan.equipped.design.sea.conductor.assembly_ft else None
        ),
    ),
    Rule(
        "to-floor",
        "running casing",
        lambda at: (
            "Run it to the sea floor at ",
            depth(at.plan.well.ground_md_ft),
            *(("; stab into the hole, lower it to ", depth(at.string.shoe_md_ft)) if is_drilled(at) else ()),
            "; check position by camera, slope",
        ),
        "It cannot be moved once it is in.",
        "sea",
        "subsea engineer",
        hours=_to_sea_floor,
        does=lambda at: (Does("conductor", at.string.id),),
        place=lambda at: "/sea/conductor",
    ),
    Rule(
        "jet",
        "drilling",
        _jet,
        "Soil that is washed out does not carry.",
        "sea",
        "driller",
        when=_jetted,
        hours=lambda at: at.policy.conductor_hours / 2,
        does=lambda at: (Does("drill", at.string.id),),
        place=lambda at: "/sea/conductor/last_bit_weight_lbf",
    ),
    Rule(
        "hammer",
        "drilling",
        lambda at: ("Drive it to ", depth(at.string.shoe_md_ft), " or refusal; record the blows of each foot"),
        "It carries by the soil's friction.",
        "sea",
        "subsea engineer",
        when=lambda at: at.string.run == "driven",
        hours=lambda at: at.policy.conductor_hours / 2,
        place=lambda at: f"{at.path}/shoe_md_ft",
    ),
    Rule(
        "soak",
        "waiting on cement",
        _soak,
        "Disturbed soil takes hours to hold.",
        "sea",
        "drilling supervisor",
        when=_jetted,
        hours=_soak_hours,
        hold=True,
        place=lambda at: "/sea/conductor/soak_hours",
    ),
    Rule(
        "conductor-cement",
        "cementing",
        lambda at: conductor_cement(at, "the sea floor, camera watching the returns"),
        "All that follows stands on it.",
        "cement",
        "cementer",
        when=is_drilled,
        hours=wait_hours,
        hold=True,
        does=lambda at: (Does("cemented", at.string.id), Does("set", at.string.id)),
        place=lambda at: f"{at.path}/cement",
    ),
)


def _pad(at: At) -> RiserlessRow | None:
    return next((r for r in at.plan.sea.riserless if r.string == at.string.index), None)


def _pad_words(at: At) -> Words:
    row = _pad(at)
    assert row is not None
    assert row.pad_ppg is not None
    much: Words = (volume(row.pad_bbl), " of ") if row.pad_bbl is not None else ()
    return ("Sweep the hole clean; displace it to ", *much, emw(row.pad_ppg), " pad mud")


RISERLESS: tuple[Rule, ...] = (
    Rule(
        "camera",
        "drilling",
        lambda at: ("Camera on the hole: returns to the sea floor watched for gas and flow",),
        "There is no other way to see it flow: kill mud stands ready.",
        "sea",
        "toolpusher",
        place=lambda at: f"{at.path}/mud_ppg",
    ),
    Rule(
        "pad",
        "drilling",
        _pad_words,
        "The hole stands on it while casing is run.",
        "sea",
        "mud engineer",
        when=lambda at: (row := _pad(at)) is not None and row.pad_ppg is not None,
        hours=lambda at: at.policy.circulate_hours,
        place=lambda at: "/sea/pad_mud_ppg",
        working=lambda at: row.working if (row := _pad(at)) is not None and row.pad_bbl is not None else None,
    ),
)


def _landing(at: At) -> LandingRow | None:
    return next((r for r in at.plan.sea.landing if r.string == at.string.index), None)


def _housed(at: At) -> Words:
    row = _landing(at)
    words: list[str | Amount] = [
        "Make up the high-pressure housing on the ",
        *at.casing,
        "; stab it in, land and lock it",
    ]
    if row is not None and row.heaved_lbf is not None:
        words += ["; with heave up to ", force(row.heaved_lbf), " on the hook"]
    return (*words, "; pull to check the lock")


HOUSED: tuple[Rule, ...] = (
    Rule(
        "housing",
        "wellhead",
        _housed,
        "Stack and all later hangers stand on it.",
        "wellhead",
        "subsea engineer, drilling supervisor",
        hours=lambda at: at.policy.hanger_hours,
        hold=True,
        place=lambda at: "/sea/housing",
        working=lambda at: row.working if (row := _landing(at)) is not None and row.heaved_lbf is not None else None,
    ),
    Rule(
        "released",
        "wellhead",
        lambda at: ("Release the running tool; pull the landing string",),
        "Its cement has set.",
        "wellhead",
        "subsea engineer",
        hours=_to_sea_floor,
        place=lambda at: "/sea/housing",
    ),
)
