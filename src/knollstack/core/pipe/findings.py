"""What is wrong with a string's pipe, by how much, and the nearest pipe that mends it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from knollstack.core.base.findings import (
    Amount,
    Change,
    Finding,
    Remedy,
    Severity,
    Words,
    depth,
    find,
    force,
    pressure,
    remedy,
    temperature,
)
from knollstack.core.base.formulas import hydrostatic_pressure
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.document.strings import PipeChoice
from knollstack.core.ground.well import Well
from knollstack.core.pipe.cases import salt_without_overburden_ft
from knollstack.core.pipe.coarse import at_most, those_that_stand
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.formulas import partial_pressure
from knollstack.core.pipe.frame import Frame
from knollstack.core.pipe.judged import Judged, stands
from knollstack.core.pipe.order import (
    candidates,
    choice_of,
    coldest_f,
    decided_sections,
    is_sour,
    pipe_words,
    suits_service,
)
from knollstack.core.pipe.results import LoadResult, PipeRow
from knollstack.core.pipe.service import Missing
from knollstack.core.pipe.strength import may_stand
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.program.hanging import hang_higher
from knollstack.core.program.laid import LaidString
from knollstack.core.program.section import Section
from knollstack.core.program.stock import taken_ft

THIN = 1.05
"""A factor within 5 % of what policy asks is noted."""
CO2_POSSIBLE_PSI, CO2_LIKELY_PSI = 7.0, 30.0
"""Partial pressure of CO2 from which corrosion of carbon steel is possible, and from which it is likely: common practice."""


def say(
    string: LaidString,
    severity: Severity,
    *message: str | Amount,
    remedies: tuple[Remedy, ...] = (),
    working: str | None = None,
) -> Finding:
    subject = (*string.words, " casing")
    return find("pipe", severity, f"{string.path}/pipe", subject, *message, remedies=remedies, working=working)


def _change(string: LaidString, place: int, pipe: Pipe) -> Change:
    if string.own.sections:
        to = string.own.sections[place].to_md_ft
        return string.change(f"sections/{place}", choice_of(pipe) | {"to_md_ft": to})
    return string.change("pipe", choice_of(pipe))


def mend(
    well: Well, catalogue: Catalogue, exposed: Exposure, judged: Judged, place: int, share: float = 1.0
) -> tuple[Remedy, ...]:
    """The pipe nearest in cost that, put in one section, makes the whole string stand; tried before it is offered.

    `share` of the factors asked, 1 to stand and more to be no longer thin.
    """
    sections, policy, string = judged.sections, well.policy.pipe, judged.frame.string
    have = sections[place].pipe
    fits = candidates(well, catalogue, string, exposed, top_md_ft=sections[place].top_md_ft)
    if len(sections) == 1 and fits:  # all at once, since most or all of them may fail
        bound = at_most(policy, judged.frame, fits)
        fits = tuple(p for p, reached in zip(fits, bound, strict=True) if reached >= share - 1e-9)
    for pipe in sorted(fits, key=lambda p: (abs(p.cost_per_ft - have.cost_per_ft), p.key)):
        if pipe.key == have.key or (pipe.available_ft or np.inf) < sections[place].length_ft:
            continue
        trial = tuple(Section(s.top_md_ft, s.bottom_md_ft, pipe) if i == place else s for i, s in enumerate(sections))
        if stands(policy, judged.frame, trial, share):
            return (remedy(_change(string, place, pipe), f"Use {pipe_words(pipe)}"),)
    return ()


def other_connection(
    well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure, frame: Frame
) -> tuple[Remedy, ...]:
    """The cheapest pipe that stands with a connection that policy does not choose from by itself."""
    policy = well.policy.pipe
    pipes = may_stand(policy, frame, candidates(well, catalogue, string, exposed, any_connection=True))
    pipe = next(those_that_stand(policy, frame, pipes), None)
    if pipe is None:
        return ()
    return (remedy(string.change("pipe", choice_of(pipe)), f"Use {pipe_words(pipe)}: {pipe.joint.title}"),)


def _load_findings(
    well: Well, catalogue: Catalogue, exposed: Exposure, judged: Judged, load: LoadResult
) -> Iterator[Finding]:
    string = judged.frame.string
    amount = pressure if load.kind in ("burst", "collapse", "triaxial") else force
    stress = "The stress" if load.kind == "triaxial" else "The load"
    said: Words = (
        f"{load.name.capitalize()}: {load.kind} factor is {load.factor:.2f} at ",
        depth(load.at_md_ft),
        f"; policy asks {load.required:.3g}. {stress} is ",
        amount(load.load),
        ", the rating ",
        amount(load.rating),
        ".",
    )
    working = f"pipe/{string.index}/{load.kind}"
    if load.factor < load.required - 1e-9:
        remedies = mend(well, catalogue, exposed, judged, load.section)
        yield say(string, "stop", *said, remedies=remedies, working=working)
    elif load.factor < load.required * THIN and (string.own.pipe is not None or string.own.sections):
        remedies = mend(well, catalogue, exposed, judged, load.section, THIN)
        yield say(string, "note", *said, remedies=remedies, working=working)


_MISSING: dict[Missing, str] = {
    "annuli": "What heat builds up in the annuli beside it is unknown: pipe, mud or cement around one is not known.",
    "burst": "The burst load is unknown: pore pressure, fracture pressure or mud of a hole below is not known, or a kick"
    " of policy's influx is no lighter than that mud.",
    "collapse": "The collapse load is unknown: pore pressure or mud of a hole below is not known.",
    "derating": "Ratings are unknown: policy's derating leaves under 30 % of the yield where the pipe is hottest.",
    "liner": "The weight of the liner hung inside is unknown: its pipe or its mud is not known.",
    "temperature": "The effect of temperature on the string is unknown: no ground temperature is given.",
}


def missing_findings(well: Well, frame: Frame) -> Iterator[Finding]:
    """Each load that is unknown, with what it lacks."""
    string = frame.string
    for name in frame.missing:
        if name in _MISSING:
            place = "/site/bottom_temperature_f" if name == "temperature" else f"{string.path}/pipe"
            yield find("pipe", "unknown", place, (*string.words, " casing"), _MISSING[name])
    at, overburden = salt_without_overburden_ft(well, string), well.ground.model.overburden
    if "salt" in frame.missing and at is not None:
        known: Words = (
            ("is known from ", depth(overburden[0].tvd_ft), " to ", depth(overburden[-1].tvd_ft), " TVD.")
            if len(overburden) > 1
            else ("is not given.",)
        )
        yield find(
            "pipe",
            "unknown",
            "/ground/overburden",
            (*string.words, " casing"),
            "The load of salt at ",
            depth(at),
            " TVD is unknown: the overburden, which it passes on, ",
            *known,
        )


def string_findings(
    well: Well, catalogue: Catalogue, exposed: Exposure, judged: Judged, row: PipeRow
) -> Iterator[Finding]:
    """Unknown loads and ratings, and every factor that is short or thin."""
    string, frame = judged.frame.string, judged.frame
    yield from missing_findings(well, frame)
    for section in judged.sections:
        if section.pipe.joint_lbf is None or section.pipe.coupling_psi is None or section.pipe.leak_psi is None:
            name = section.pipe.connection
            text = f"Joint ratings of {name} are unknown: the catalogue holds no thread data for this row."
            yield say(string, "unknown", text)
            break
    if judged.unknown("collapse"):
        text = "Collapse is unknown: tension, or temperature and tension, leave less of the yield than its equation is valid for."
        yield say(string, "unknown", text)
    for load in row.loads:
        yield from _load_findings(well, catalogue, exposed, judged, load)
    if row.buckles:
        short = row.buckled_factor is not None and row.buckled_factor < well.policy.pipe.factors.triaxial - 1e-9
        yield say(
            string, "caution" if short else "note", *row.buckles, working=f"pipe/{string.index}/buckled_bending_stress"
        )


def hanger_findings(equipped: Equipped) -> Iterator[Finding]:
    """A liner hung below the shoe of the string above."""
    for string in equipped.strings:
        above, hanger = equipped.previous(string), string.own.hanger_md_ft
        if not string.proposed and hanger is not None and above is not None and hanger >= above.shoe_md_ft:
            yield find(
                "pipe",
                "stop",
                f"{string.path}/hanger_md_ft",
                ("Liner",),
                "The hanger at ",
                depth(hanger),
                " is not inside the string above, whose shoe is at ",
                depth(above.shoe_md_ft),
                ".",
                remedies=(hang_higher(equipped.well, string),),
            )


def stock_findings(equipped: Equipped) -> Iterator[Finding]:
    """Pipe that the strings of the well ask more of than the stock holds."""
    every = [section for string in equipped.strings for section in string.sections]
    for key, asked in taken_ft(every).items():
        have = equipped.catalogue.by_key[key].available_ft
        if have is None or asked <= have + 1e-6:
            continue
        users = [s for s in equipped.strings if any(section.pipe.key == key for section in s.sections)]
        yield say(
            users[-1],
            "stop",
            f"{pipe_words(equipped.catalogue.by_key[key])}: ",
            depth(asked),
            " are used in the well, ",
            depth(have),
            " are in stock.",
        )


def service_findings(equipped: Equipped) -> Iterator[Finding]:
    """Sour service, corrosion by CO2, and pipes that the catalogue does not hold."""
    well = equipped.well
    if well.site.h2s_ppm is None:
        text = "Not given. Grades are judged as sweet."
        yield find("pipe", "unknown", "/site/h2s_ppm", ("H2S",), text)
    for string in equipped.strings:
        if is_sour(well) and string.drilled:
            yield from _sour_findings(well, string)
        choices: tuple[PipeChoice, ...] = string.own.sections
        if not choices and string.own.pipe is not None:
            choices = (string.own.pipe,)
        if choices and not decided_sections(equipped.catalogue, string):
            names = ", ".join(f"{c.weight_ppf:g} lb/ft {c.grade} {c.connection}" for c in choices)
            yield say(string, "unknown", f"{names} is not in the catalogue for this size.")
    yield from _corrosion_findings(well)


def _sour_findings(well: Well, string: EquippedString) -> Iterator[Finding]:
    for section in string.sections:
        grade, suits = section.pipe.grade.grade, suits_service(well, section.pipe, section.top_md_ft)
        if suits is False:
            coldest = coldest_f(well, section.top_md_ft)
            at: Words = (" at ", temperature(coldest)) if coldest is not None else ()
            yield say(string, "stop", f"{grade} is not for sour service", *at, ", the coldest that it gets.")
        elif suits is None:
            text = f"Whether {grade} suits the sour service is unknown: no temperature is given."
            yield say(string, "unknown", text)


def _corrosion_findings(well: Well) -> Iterator[Finding]:
    """CO2 in the gas by its partial pressure at total depth, the usual measure for carbon steel."""
    percent, tvd = well.site.co2_percent, well.path.total_tvd_ft
    pore = well.ground.pore.one(tvd)
    if percent is None:
        yield find("pipe", "unknown", "/site/co2_percent", ("CO2",), "Not given. Corrosion is not judged.")
        return
    if pore is None:
        text = "Corrosion is not judged: pore pressure at total depth, and so the partial pressure, is unknown."
        yield find("pipe", "unknown", "/ground/pore", ("CO2",), text)
        return
    partial = float(partial_pressure(percent / 100, hydrostatic_pressure(pore, tvd)))
    if partial < CO2_POSSIBLE_PSI:
        return
    likely = partial >= CO2_LIKELY_PSI
    yield find(
        "pipe",
        "caution" if likely else "note",
        "/site/co2_percent",
        ("CO2",),
        "Partial pressure of CO2 at total depth is ",
        pressure(partial),
        f": corrosion of carbon steel is {'likely' if likely else 'possible'} where the gas is wet, from ",
        pressure(CO2_LIKELY_PSI if likely else CO2_POSSIBLE_PSI),
        " up.",
        value=pressure(partial),
        limit=pressure(CO2_LIKELY_PSI if likely else CO2_POSSIBLE_PSI),
    )
