"""The family of a completion: drilled out and cleaned, packed off, tubing hung, the BOPs off and the tree on."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, depth, emw, force, height, pressure, volume
from knollstack.core.completion.results import CleanRow, CompletionRow, TubingRow
from knollstack.core.completion.running_order import pups_words
from knollstack.core.runsheet.due import carried
from knollstack.core.runsheet.plan import At, bowl_of
from knollstack.core.runsheet.rule import Does, Held, Rule
from knollstack.core.runsheet.standing import casing_test_held, tubing_test_held
from knollstack.core.runsheet.times import cased_trip_hours, tubing_hours

RIG_UP_HOURS = 12.0
"""Rigging for tubing, spacing out, landing, as the alternatives at total depth count it."""


def row_of(at: At) -> CompletionRow:
    row = at.plan.completion.completion
    assert row is not None
    return row


def clean_of(at: At) -> CleanRow:
    row = row_of(at).clean
    assert row is not None
    return row


def _tubing(at: At) -> TubingRow | None:
    return row_of(at).tubing


def bowl(at: At) -> str:
    """Under the stack that stands in the end: a liner carries none of its own."""
    return bowl_of(at.plan, next(s for s in reversed(at.plan.standing) if s.run != "liner" or s.own.tie_back))


def own_place(at: At, key: str) -> str:
    return f"/completion/{key}"


def guns_words(at: At) -> Words:
    row, clean = row_of(at), clean_of(at)
    words: list[str | Amount] = ["Perforate "]
    for k, (top, base) in enumerate(row.perforated):
        words += [" and " if k else "", depth(top), " to ", depth(base)]
    words += [] if row.perforated else ["the pay: its interval is not known"]
    if clean.underbalance_psi:
        over = "underbalance" if clean.underbalance_psi > 0 else "overbalance"
        words += [", ", pressure(abs(clean.underbalance_psi)), f" {over}"]
    words += [", fluid level at ", depth(clean.level_md_ft)] if clean.level_md_ft else []
    return tuple(words)


def shot_before(at: At) -> bool:
    return at.plan.equipped.design.completion.perforated == "before the tubing"


def _displace(at: At) -> Words:
    row, pumped = row_of(at), clean_of(at).pumped_bbl
    much: Words = (" with ", volume(pumped)) if pumped is not None else ()
    return ("Displace to ", emw(row.fluid_ppg), " completion fluid", *much, "; filter it until it comes back clean")


def _test(at: At) -> Words:
    psi = at.plan.pipe.strings[at.string.index].test_psi
    return (
        ("Test the ", *at.casing, " to ", pressure(psi))
        if psi is not None
        else ("Test the ", *at.casing, ": pressure not known")
    )


def _test_held(at: At) -> Held | None:
    """Against what is nippled up over the production string, or over the string that it was run through."""
    own = at.plan.preventers.strings[at.string.index]
    row, on = (own, at.string) if own.elements else (at.stack, at.on)
    return casing_test_held(at, at.string, row, on)


CLEAN: tuple[Rule, ...] = (
    Rule(
        "casing-test",
        "testing",
        _test,
        "It is to be the outer barrier of a producing well.",
        "pipe",
        "drilling supervisor",
        hours=lambda at: at.policy.casing_test_hours,
        hold=True,
        caution="Nobody near lines under pressure.",
        does=lambda at: (Does("casing test", at.string.id),),
        place=lambda at: f"{at.path}/test_psi",
        working=lambda at: f"pipe/{at.string.index}/test",
        held=_test_held,
    ),
    Rule(
        "clean",
        "completion",
        lambda at: ("Drill out to ", depth(clean_of(at).clean_to_md_ft), "; scrape the casing over the packer's depth"),
        "Packer and guns pass clean pipe.",
        "completion",
        hours=lambda at: (
            at.plan.well.policy.completion.clean_hours + 2 * cased_trip_hours(at.plan, clean_of(at).clean_to_md_ft)
        ),
        does=lambda at: (Does("drill out", at.string.id),) if at.cement.applies else (),
        place=lambda at: "/policy/completion/clean_hours",
    ),
    Rule(
        "fluid",
        "completion",
        _displace,
        "Solids left behind plug the pay.",
        "completion",
        "mud engineer",
        hours=lambda at: at.policy.circulate_hours,
        place=lambda at: own_place(at, "fluid_ppg"),
        working=lambda at: "completion/clean" if clean_of(at).pumped_bbl is not None else None,
    ),
    Rule(
        "bond",
        "evaluation",
        lambda at: ("Log the cement behind the ", *at.casing),
        "Cement that isolates is seen before it is shot through.",
        "completion",
        "logging engineer",
        hours=lambda at: at.string.shoe_md_ft / at.plan.well.policy.completion.wireline_ft_hour * 2,
        place=lambda at: f"{at.path}/cement/top_md_ft",
    ),
    Rule(
        "guns-before",
        "completion",
        guns_words,
        "The well is open from here on: fluid and BOPs close it.",
        "completion",
        "completion supervisor",
        when=shot_before,
        hours=lambda at: at.plan.well.policy.completion.perforate_hours,
        hold=True,
        caution="No radio, no welding, while guns are armed.",
        place=lambda at: own_place(at, "perforations"),
        working=lambda at: "completion/perforating" if clean_of(at).hole_psi is not None else None,
    ),
)


def _run_tubing(at: At) -> Words:
    tubing = _tubing(at)
    assert tubing is not None
    weight = Amount(value=tubing.weight_ppf, quantity="linear_weight")
    size = Amount(value=tubing.od_in, quantity="size")
    kind = f" {tubing.grade} {tubing.connection} tubing"
    pups: Words = (", pups ", *pups_words(tubing.pups_ft)) if tubing.pups_ft else ()
    return (f"Run {tubing.joints} joints of ", size, " ", weight, kind, *pups)


def _space(at: At) -> Words:
    tubing = _tubing(at)
    assert tubing is not None
    if not tubing.slack_off_lbf:
        return ("Stab into the packer; space out",)
    return (
        "Stab into the packer; space out to slack off ",
        height(tubing.slack_off_in),
        ": ",
        force(tubing.slack_off_lbf),
        " on it",
    )


def _too_little(at: At) -> Words:
    """A test proves what it reaches: the shut-in well may stand higher."""
    seen, tested = row_of(at).shut_in_psi, at.plan.well.policy.completion.tubing_test_psi
    if seen is None:
        return ("The shut-in pressure is not known: the test may prove less than they will see.",)
    return ("Shut in, they see ", pressure(seen), ": the test proves less.") if seen > tested else ()


TUBING: tuple[Rule, ...] = (
    Rule(
        "bushing-out",
        "BOPs",
        lambda at: (f"Pull the {carried(at)}",),
        "The tubing hanger lands where it sits.",
        "preventers",
        when=lambda at: at.item is True,
        hours=lambda at: at.policy.bushing_hours,
        does=lambda at: (Does("bushing out", bowl(at)),),
        place=lambda at: "/wellhead",
    ),
    Rule(
        "packer",
        "completion",
        lambda at: (
            f"Set the {at.plan.equipped.design.completion.packer} packer at ",
            depth(row_of(at).packer_md_ft or 0.0),
        ),
        "It closes the annulus over the pay.",
        "completion",
        "completion supervisor",
        when=lambda at: row_of(at).packer_md_ft is not None,
        hours=lambda at: cased_trip_hours(at.plan, row_of(at).packer_md_ft or 0.0),
        place=lambda at: own_place(at, "packer_md_ft"),
    ),
    Rule(
        "tubing",
        "completion",
        _run_tubing,
        "By its tally; each joint drifted.",
        "completion",
        "completion supervisor",
        when=lambda at: _tubing(at) is not None,
        hours=lambda at: tubing_hours(at.plan, t.joints, t.od_in) if (t := _tubing(at)) is not None else None,
        place=lambda at: own_place(at, "tubing"),
    ),
    Rule(
        "tubing-unknown",
        "completion",
        lambda at: ("Run the tubing: which it is is not decided, or cannot be worked",),
        "What is missing is told by the step of completion.",
        "completion",
        "completion supervisor",
        when=lambda at: _tubing(at) is None,
        hours=lambda at: None,
        place=lambda at: own_place(at, "tubing"),
    ),
    Rule(
        "space-out",
        "completion",
        _space,
        "Heat and pressure move it: the seals are to stay in their bore.",
        "completion",
        "completion supervisor",
        when=lambda at: _tubing(at) is not None,
        hours=lambda at: RIG_UP_HOURS / 2,
        place=lambda at: own_place(at, "slack_off_lbf"),
    ),
    Rule(
        "land",
        "completion",
        lambda at: (
            "Land the tubing hanger, lock it down; test its seals and the tubing to ",
            pressure(at.plan.well.policy.completion.tubing_test_psi),
        ),
        "Hanger and tubing are barriers once the BOPs are off.",
        "completion",
        "wellhead technician, completion supervisor",
        hours=lambda at: RIG_UP_HOURS / 2,
        caution=_too_little,
        hold=True,
        does=lambda at: (Does("hanger", bowl(at)),),
        place=lambda at: "/policy/completion/tubing_test_psi",
        held=lambda at: tubing_test_held(at, _tubing(at)),
    ),
    Rule(
        "bpv",
        "completion",
        lambda at: ("Set the back-pressure valve; test it from below",),
        "It closes the tubing while nothing stands over it.",
        "completion",
        "wellhead technician",
        when=lambda at: at.plan.equipped.design.completion.back_pressure_valve,
        hours=lambda at: at.policy.bushing_hours,
        place=lambda at: own_place(at, "back_pressure_valve"),
    ),
)
