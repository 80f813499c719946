"""The pipe of each string: as decided, else the best that stands its loads and lets the next bit through."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from knollstack.core.base.findings import Assumption, Finding, assume
from knollstack.core.base.remember import remembered
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.ground.well import Well
from knollstack.core.pipe.coarse import (
    failing_nodes,
    is_long,
    nearest_to_stand,
    restricted,
    telling_nodes,
    those_that_stand,
)
from knollstack.core.pipe.exposure import Exposure
from knollstack.core.pipe.findings import missing_findings, other_connection, say
from knollstack.core.pipe.frame import Frame, build_frame
from knollstack.core.pipe.judged import stands
from knollstack.core.pipe.order import candidates, decided_sections, passes, pipe_words, too_cold
from knollstack.core.pipe.strength import may_stand
from knollstack.core.pipe.taper import Search
from knollstack.core.program.laid import LaidString
from knollstack.core.program.section import Section

MOST_EFFORT = 10_000.0
"""Work of the search for strings of several sections, of all strings of a well together."""
MOST_ROUNDS = 6
"""Rounds in which the nodes where a string fails are added to those that it was sought on."""


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
    fits = may_stand(policy, frame, pipes)
    if is_long(frame):
        first = next(those_that_stand(policy, frame, fits), None)
        return () if first is None else (Section(string.hung_md_ft, string.shoe_md_ft, first),)
    wholes = ((Section(string.hung_md_ft, string.shoe_md_ft, pipe),) for pipe in fits)
    return next((whole for whole in wholes if stands(policy, frame, whole)), ())


@dataclass(frozen=True)
class Best:
    """The best string found; `cut` where the search was cut short, so that a better one may be."""

    sections: tuple[Section, ...]
    cut: bool = False


def best_sections(
    well: Well,
    catalogue: Catalogue,
    string: LaidString,
    exposed: Exposure,
    frame: Frame,
    most: int,
    effort: float = np.inf,
) -> Best:
    """The best string of at most so many sections; empty where none stands."""
    if most == 1:
        return Best(cheapest_single(well, catalogue, string, exposed, frame))
    # a section hangs where it is warmer: what is not fit for sour service at the top may be further down
    pipes = candidates(well, catalogue, string, exposed, top_md_ft=string.shoe_md_ft)
    found = _best_of(well, frame, pipes, most, effort) if pipes else Best(())
    if found.cut and not found.sections:
        return replace(best_sections(well, catalogue, string, exposed, frame, most - 1, effort / 2), cut=True)
    return found


def _best_of(well: Well, frame: Frame, pipes: tuple[Pipe, ...], most: int, effort: float) -> Best:
    """The best string on a frame's nodes: where it is long, sought on some, to which those are added where it fails."""
    if not is_long(frame):
        return _best_on(well, frame, pipes, most, effort)
    nodes = telling_nodes(frame)
    for _ in range(MOST_ROUNDS):
        found = _best_on(well, restricted(frame, nodes), pipes, most, effort)
        worst = failing_nodes(well.policy.pipe, frame, found.sections) if found.sections else None
        if worst is None or not len(worst):
            return found
        nodes, effort = np.union1d(nodes, worst), effort / 2
    return Best((), cut=True)


def _best_on(well: Well, frame: Frame, pipes: tuple[Pipe, ...], most: int, effort: float) -> Best:
    """The best string of sections that end at a frame's nodes; empty where none stands."""
    policy, barred = well.policy.pipe, too_cold(well, pipes, frame.md_ft)
    search = Search(policy, frame, pipes, most, policy.least_section_ft, barred, effort)
    legs, md = search.best() or [], frame.md_ft
    return Best(tuple(Section(float(md[leg.top]), float(md[leg.bottom]), pipes[leg.pipe]) for leg in legs), search.cut)


def breaks_of(sections: tuple[Section, ...]) -> tuple[float, ...]:
    """Depths at which a string's sections meet."""
    return tuple(s.bottom_md_ft for s in sections[:-1])


@remembered(128, traced=True)
def choose(well: Well, catalogue: Catalogue, string: LaidString, exposed: Exposure, strings: int) -> Chosen:
    """The pipe of a string as it is decided, else as it is proposed; the work of a search is shared by all strings."""
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
    best = best_sections(well, catalogue, string, exposed, frame, well.policy.pipe.most_sections, MOST_EFFORT / strings)
    sections = best.sections
    if not sections:
        return _nearest(well, catalogue, string, exposed, frame)
    if string.proposed:
        return Chosen(sections)
    names = ", then ".join(pipe_words(s.pipe) for s in sections)
    rest = "; not every string of several sections was tried." if best.cut else "."
    text = f" casing: {names}, the cheapest that withstands its loads{rest}"
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
    text = "No pipe of this size that may be chosen withstands its loads and drifts the next bit."
    other = other_connection(well, catalogue, string, exposed, frame)
    best, reached = nearest_to_stand(well.policy.pipe, frame, pipes) if pipes else (None, 0.0)
    if best is None or reached <= 0:
        return Chosen((), (say(string, "stop", text, remedies=other),))
    text = f"{text} {pipe_words(best)} comes nearest and is shown."
    return Chosen((Section(string.hung_md_ft, string.shoe_md_ft, best),), (say(string, "stop", text, remedies=other),))
