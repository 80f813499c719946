"""The pipe of each string: as decided, else the best that stands its loads and lets the next bit through."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from knollstack.core.base.findings import Assumption, Finding, assume
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.ground.well import Well
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.findings import missing_findings, other_connection, say
from knollstack.core.pipe.frame import Frame, build_frame
from knollstack.core.pipe.judged import stands
from knollstack.core.pipe.order import candidates, decided_sections, passes, pipe_words, too_cold
from knollstack.core.pipe.strength import least_shares, may_stand
from knollstack.core.pipe.taper import Search
from knollstack.core.program.laid import LaidString
from knollstack.core.program.section import Section


@dataclass(frozen=True)
class Chosen:
    """Sections of a string, none where no pipe is known, and what is said of the choice."""

    sections: tuple[Section, ...]
    findings: tuple[Finding, ...] = ()
    assumptions: tuple[Assumption, ...] = ()


def is_judged(string: LaidString) -> bool:
    """Conductors carry the wellhead, which is judged apart, and see no pressure that is worked here."""
    return string.drilled and string.role != "conductor"


def cheapest_single(
    well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure, frame: Frame
) -> tuple[Section, ...]:
    """The first pipe in order of cost that stands as the whole string; empty where none does."""
    policy = well.policy.pipe
    length = string.shoe_md_ft - string.hung_md_ft
    pipes = candidates(well, catalogue, string, exposed)
    pipes = tuple(p for p in pipes if p.available_ft is None or p.available_ft >= length)
    wholes = ((Section(string.hung_md_ft, string.shoe_md_ft, pipe),) for pipe in may_stand(policy, frame, pipes))
    return next((whole for whole in wholes if stands(policy, frame, whole)), ())


def best_sections(
    well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure, frame: Frame, most: int
) -> tuple[Section, ...]:
    """The best string of at most so many sections; empty where none stands."""
    if most == 1:
        return cheapest_single(well, catalogue, string, exposed, frame)
    # a section hangs where it is warmer: what is not fit for sour service at the top may be further down
    pipes = candidates(well, catalogue, string, exposed, top_md_ft=string.shoe_md_ft)
    if not pipes:
        return ()
    policy, barred = well.policy.pipe, too_cold(well, pipes, frame.md_ft)
    legs = Search(policy, frame, pipes, most, policy.least_section_ft, barred).best() or []
    md = frame.md_ft
    return tuple(Section(float(md[leg.top]), float(md[leg.bottom]), pipes[leg.pipe]) for leg in legs)


def breaks_of(sections: tuple[Section, ...]) -> tuple[float, ...]:
    """Depths at which a string's sections meet."""
    return tuple(s.bottom_md_ft for s in sections[:-1])


@remembered(128, traced=True)
def choose(well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure) -> Chosen:
    """The pipe of a string as it is decided, else as it is proposed."""
    decided = decided_sections(catalogue, string)
    if decided or string.own.pipe is not None or string.own.sections:
        return Chosen(decided)
    if not is_judged(string):
        return Chosen(_lightest(well, catalogue, string, exposed))
    frame = build_frame(well, string, exposed, ())
    if frame is None or string.od_in is None:
        text = "No pipe can be chosen: mud or size of this string is unknown."
        return Chosen((), (say(string, "unknown", text),))
    if frame.unchosen:
        return Chosen((), tuple(missing_findings(well, frame)))
    sections = best_sections(well, catalogue, string, exposed, frame, well.policy.pipe.most_sections)
    if not sections:
        return _nearest(well, catalogue, string, exposed, frame)
    if string.proposed:
        return Chosen(sections)
    names = ", then ".join(pipe_words(s.pipe) for s in sections)
    text = f" casing: {names}, the cheapest that withstands its loads."
    return Chosen(sections, (), (assume("pipe", f"{string.path}/pipe", *string.words, text),))


def _lightest(well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure) -> tuple[Section, ...]:
    """A conductor gets the lightest pipe that drifts."""
    special = well.policy.sizes.special_drift
    fits = [p for p in catalogue.by_od.get(string.od_in or 0.0, ()) if passes(special, p, exposed.next_bit_in)]
    return tuple(Section(string.top_md_ft, string.shoe_md_ft, p) for p in fits[:1])


def _nearest(well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure, frame: Frame) -> Chosen:
    """Where no pipe that may be chosen stands, the one that comes nearest, so that what it lacks is seen."""
    if string.od_in not in catalogue.by_od:
        text = "No pipe of this size is in the catalogue: it can be given as an own pipe."
        return Chosen((), (say(string, "unknown", text),))
    pipes = candidates(well, catalogue, string, exposed)
    least = np.nan_to_num(least_shares(well.policy.pipe, frame, pipes), nan=-1.0) if pipes else np.array([])
    text = "No pipe of this size that may be chosen withstands its loads and drifts the next bit."
    other = other_connection(well, catalogue, string, exposed, frame)
    if not len(least) or float(np.max(least)) <= 0:
        return Chosen((), (say(string, "stop", text, remedies=other),))
    best = pipes[int(np.argmax(least))]
    text = f"{text} {pipe_words(best)} comes nearest and is shown."
    return Chosen((Section(string.hung_md_ft, string.shoe_md_ft, best),), (say(string, "stop", text, remedies=other),))
