"""The family of every hole: out of the shoe above, drilled, learnt from, and ready for casing."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, depth, emw, pressure, size, volume
from knollstack.core.completion.surveys import WHILE_DRILLING
from knollstack.core.document.completion import Survey
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.times import trip_hours

Held = tuple[str, tuple[Survey, float]]


def bit_words(at: At) -> Words:
    return (size(at.string.bit_in), " bit") if at.string.bit_in is not None else ("bit",)


def _watch(at: At) -> Words:
    row = at.plan.depths.strings[at.above.index].kick if at.above is not None else None
    words: list[str | Amount] = ["Trip tank filled and lined up; flow check before each trip"]
    if row is not None and row.tolerance_bbl is not None:
        words += ["; kick tolerance ", volume(row.tolerance_bbl)]
    if row is not None and row.maasp_psi is not None:
        words += ["; MAASP ", pressure(row.maasp_psi)]
    return tuple(words)


def _while(at: At) -> Iterator[Held]:
    for row, survey in zip(at.plan.completion.surveys, at.plan.equipped.design.completion.evaluation, strict=True):
        if row.string == at.string.index and survey.kind in WHILE_DRILLING:
            yield survey.id, (survey, row.hours)


def _after(at: At) -> Iterator[Held]:
    """What is done once the hole is drilled; a leak-off test is a step of its own."""
    for row, survey in zip(at.plan.completion.surveys, at.plan.equipped.design.completion.evaluation, strict=True):
        if row.string == at.string.index and survey.kind not in (*WHILE_DRILLING, "leak-off test", "core"):
            yield survey.id, (survey, row.hours)


def cores(at: At) -> list[Held]:
    """Cores of the section from the top down; they are cut while the hole is made."""
    rows = zip(at.plan.completion.surveys, at.plan.equipped.design.completion.evaluation, strict=True)
    found = [(s.id, (s, row.hours)) for row, s in rows if row.string == at.string.index and s.kind == "core"]
    return sorted(found, key=lambda held: held[1][0].from_md_ft)


def _survey_words(at: At) -> Words:
    survey: Survey = at.item[0]
    tools = f" ({survey.name})" if survey.name else ""
    kind = survey.kind[:1].upper() + survey.kind[1:]
    return (f"{kind}{tools} from ", depth(survey.from_md_ft), " to ", depth(survey.to_md_ft), f": for {survey.decides}")


def _survey_place(at: At) -> str:
    rows = at.plan.equipped.design.completion.evaluation
    return f"/completion/evaluation/{rows.index(at.item[0])}"


def _logged(at: At) -> bool:
    return any(spent > 0 for _, (_, spent) in _after(at))


def first_mud_ppg(at: At) -> float | None:
    """What the section begins with."""
    steps = at.string.own.mud_steps
    return steps[0].mud_ppg if steps else at.string.mud_ppg


def _mix(at: At) -> Words:
    much = at.mud.volumes.total_bbl if at.mud.volumes is not None else None
    words: Words = (volume(much), " of ") if much is not None else ()
    return ("Mix ", *words, emw(first_mud_ppg(at) or 0.0), " mud")


def _weight_up(at: At) -> Words:
    row = at.mud.weight_up
    assert row is not None
    words: list[str | Amount] = [
        "Bring the mud from ",
        emw(row.from_ppg),
        " to ",
        emw(first_mud_ppg(at) or row.from_ppg),
    ]
    if at.string.mud_ppg is not None and first_mud_ppg(at) != at.string.mud_ppg:
        words += [", to ", emw(at.string.mud_ppg), " by the end of the section"]
    if row.solid_lb:
        words += [
            ": ",
            Amount(value=row.solid_lb, quantity="mass"),
            " of weighting material in ",
            volume(row.volume_bbl),
        ]
    elif row.base_bbl:
        words += [": ", volume(row.base_bbl), " of base fluid added to ", volume(row.volume_bbl)]
    return tuple(words)


BEFORE_DRILLING: tuple[Rule, ...] = (
    Rule(
        "mix",
        "drilling",
        _mix,
        "Hole, pits and what is lost on the way are filled from what is mixed.",
        "mud",
        "mud engineer",
        when=lambda at: at.mud.weight_up is None and first_mud_ppg(at) is not None,
        place=lambda at: f"{at.path}/mud_ppg",
        working=lambda at: (
            f"mud/{at.string.index}/hole_volume" if at.mud.hole_volume_bbl and not at.riserless else None
        ),
    ),
    Rule(
        "mud",
        "drilling",
        _weight_up,
        "The shoe is proved, and the section is drilled with its own mud.",
        "mud",
        "mud engineer",
        when=lambda at: at.mud.weight_up is not None,
        hours=lambda at: at.policy.circulate_hours,
        place=lambda at: f"{at.path}/mud_ppg",
        working=lambda at: (
            f"mud/{at.string.index}/{'weight_up' if (at.mud.weight_up and at.mud.weight_up.solid_lb) else 'dilution'}"
        ),
    ),
    Rule(
        "watch",
        "drilling",
        _watch,
        "A kick is seen by what the hole takes and gives.",
        "depths",
        "toolpusher",
        when=lambda at: at.bops,
        place=lambda at: f"/strings/{at.above.index}/shoe_md_ft" if at.above else "",
        working=lambda at: f"depths/{at.above.index}/kick_tolerance" if at.above else None,
    ),
    Rule(
        "divert",
        "drilling",
        lambda at: (
            "No shut-in on the ",
            *(at.on.words if at.on else ()),
            " conductor: a kick is diverted down wind at the greatest pump rate",
        ),
        "The shoe would not hold a shut-in: gas would come up around it.",
        "depths",
        "toolpusher",
        when=lambda at: at.diverter and at.stack is not None,
        place=lambda at: "/policy/depths/diverter_limit_ft",
    ),
    Rule(
        "while-drilling",
        "evaluation",
        _survey_words,
        "It is learnt while the hole is made, or not at all.",
        "completion",
        "geologist",
        each=_while,
        hours=lambda at: at.item[1],
        place=_survey_place,
    ),
)
AFTER_DRILLING: tuple[Rule, ...] = (
    Rule(
        "condition",
        "drilling",
        lambda at: (
            "Circulate bottoms up and condition the mud; wiper trip to the ",
            *(at.above.shoe_words if at.above else ("surface",)),
        ),
        "Casing and logs go to bottom in a clean hole.",
        "mud",
        hours=lambda at: at.policy.condition_hours,
        place=lambda at: f"{at.path}/mud_ppg",
    ),
    Rule(
        "pull-out",
        "tripping",
        lambda at: ("Pull out of the hole from ", depth(at.string.shoe_md_ft), "; fill it as the trip sheet says"),
        "The hole takes the steel's volume, or it flows.",
        "mud",
        hours=lambda at: trip_hours(at.plan, at.string, at.string.shoe_md_ft) + at.policy.bha_hours,
        place=lambda at: f"{at.path}/mud_ppg",
        working=lambda at: f"mud/{at.string.index}/swab_worst" if at.mud.swab_worst is not None else None,
        caution=lambda at: () if at.mud.swab_ppg is None else ("Swabbed to ", emw(at.mud.swab_ppg), " at bottom."),
    ),
    Rule(
        "evaluate",
        "evaluation",
        _survey_words,
        "It is learnt before it is cased.",
        "completion",
        "logging engineer",
        each=_after,
        hours=lambda at: at.item[1],
        place=_survey_place,
        working=lambda at: f"completion/survey/{at.plan.equipped.design.completion.evaluation.index(at.item[0])}",
    ),
    Rule(
        "wiper",
        "tripping",
        lambda at: ("Run in to ", depth(at.string.shoe_md_ft), ", circulate, pull out"),
        "The hole has stood while it was logged.",
        "mud",
        when=_logged,
        hours=lambda at: 2 * trip_hours(at.plan, at.string, at.string.shoe_md_ft) + at.policy.condition_hours / 2,
        place=lambda at: f"{at.path}/mud_ppg",
    ),
)
CORE = Rule(
    "core",
    "evaluation",
    _survey_words,
    "It is cut where the pay begins, before it is drilled away.",
    "completion",
    "geologist",
    hours=lambda at: at.item[1],
    does=lambda at: (Does("drill", at.string.id),),
    place=_survey_place,
    working=lambda at: f"completion/survey/{at.plan.equipped.design.completion.evaluation.index(at.item[0])}",
)
SPUD = Rule(
    "spud",
    "drilling",
    lambda at: ("Spud the well with the ", *(bit_words(at) if at.string.drilled else at.casing)),
    "All that is to be ready has been signed.",
    "runsheet",
    "drilling supervisor",
    hold=True,
    does=lambda at: (Does("spud"),),
    place=lambda at: "/runsheet/spud",
)
