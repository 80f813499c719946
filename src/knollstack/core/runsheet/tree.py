"""The family of the tree: the BOPs off, the tree on and tested valve by valve, the well handed over."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Words, pressure
from knollstack.core.runsheet.barriers import refused
from knollstack.core.runsheet.completing import clean_of, guns_words, own_place, row_of, shot_before
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Rule
from knollstack.core.runsheet.standing import head_on
from knollstack.core.wellhead.results import ValveRow


def _valves(at: At) -> Iterator[tuple[str, ValveRow]]:
    tree = row_of(at).tree
    valves = [v for v in (tree.valves if tree is not None else ()) if v.name.endswith("valve")]
    yield from ((str(k), valve) for k, valve in enumerate(valves, start=1))


def _set_tree(at: At) -> Words:
    tree, turn = row_of(at).tree, at.plan.equipped.design.completion.tree.orientation_deg
    way: Words = (f", production wing to azimuth {turn:.0f}°",) if turn is not None else ()
    ring = f" on a new ring, {tree.flange}" if tree is not None and tree.flange is not None else " on a new ring"
    over = "with the riser or on wire" if at.plan.subsea else "over the hanger's neck"
    return (f"Lower the tree {over}{ring}, level", *way)


def _valve_words(at: At) -> Words:
    valve: ValveRow = at.item
    kind = ", function it: it shuts by itself" if valve.safety else ""
    return (f"Test the {valve.name} to ", pressure(valve.test_psi), kind)


def _joint_psi(at: At) -> float:
    """Class of the tree, or of what it stands on where that is less."""
    tree, head = row_of(at).tree, head_on(at, at.string)
    assert tree is not None
    return tree.class_psi if head is None else min(tree.class_psi, head.top_psi)


def _tree_hours(at: At) -> float:
    """Policy's time for BOPs off and tree on, without what is a step of its own."""
    policy = at.policy
    tests = policy.head_test_hours * (1 + sum(1 for _ in _valves(at)))
    whole = at.plan.well.policy.completion.tree_hours
    return max(whole - tests - policy.nipple_down_hours - 2 * policy.bushing_hours, 0.0)


TREE: tuple[Rule, ...] = (
    Rule(
        "off",
        "BOPs",
        lambda at: (
            "Unlatch the riser; recover riser and stack" if at.plan.subsea else "Drain and nipple down the BOPs",
        ),
        "Barriers are counted; the tree waits beside the well.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.nipple_down_hours,
        does=lambda at: (Does("off", at.item),),
        place=lambda at: "/completion/verified",
        held=refused,
    ),
    Rule(
        "tree",
        "completion",
        _set_tree,
        "It goes on at once: the back-pressure valve is alone while it is off.",
        "completion",
        "wellhead technician, completion supervisor",
        when=lambda at: row_of(at).tree is not None,
        hours=_tree_hours,
        caution="Nobody under the tree while it hangs.",
        does=lambda at: (Does("tree on", at.item),),
        place=lambda at: own_place(at, "tree"),
        held=refused,
    ),
    Rule(
        "tree-joint",
        "testing",
        lambda at: ("Test the adapter's seals and the flange to ", pressure(_joint_psi(at))),
        "A seal that was broken is tested before it is needed.",
        "completion",
        "wellhead technician",
        when=lambda at: row_of(at).tree is not None,
        hours=lambda at: at.policy.head_test_hours,
        hold=True,
        place=lambda at: own_place(at, "tree/class_psi"),
    ),
    Rule(
        "tree-valve",
        "testing",
        _valve_words,
        "Each valve alone, from the well's side.",
        "completion",
        "wellhead technician",
        each=_valves,
        hours=lambda at: at.policy.head_test_hours,
        place=lambda at: own_place(at, "tree"),
    ),
    Rule(
        "bpv-out",
        "completion",
        lambda at: ("Pull the back-pressure valve through the tree",),
        "Tree and safety valve close the tubing now.",
        "completion",
        "wellhead technician",
        when=lambda at: at.plan.equipped.design.completion.back_pressure_valve and row_of(at).tree is not None,
        hours=lambda at: at.policy.bushing_hours,
        place=lambda at: own_place(at, "back_pressure_valve"),
    ),
    Rule(
        "guns-through",
        "completion",
        lambda at: (*guns_words(at), ", through the tubing"),
        "The well is opened under the tree, with all its barriers on.",
        "completion",
        "completion supervisor",
        when=lambda at: not shot_before(at),
        hours=lambda at: at.plan.well.policy.completion.perforate_hours,
        hold=True,
        caution="No radio, no welding, while guns are armed.",
        place=lambda at: own_place(at, "perforations"),
        working=lambda at: "completion/perforating" if clean_of(at).hole_psi is not None else None,
    ),
    Rule(
        "hand-over",
        "barriers",
        lambda at: ("Hand over with the list of barriers, pressures, fluids and valves as they stand",),
        "Whoever takes the well knows what holds it.",
        "completion",
        "drilling supervisor, production",
        hold=True,
        place=lambda at: "/completion/verified",
    ),
)
