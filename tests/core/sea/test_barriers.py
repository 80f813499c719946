"""What closes a hole in once the riser is off: counted on both sides of what is asked."""

import pytest

from knollstack.core.base.units import plain
from tests.core.sea.wells import deep
from tests.helpers import find, run


def counted(document, string, moment):
    row = next(r for r in run(document).sea.disconnect.barriers if (r.string, r.moment) == (string, moment))
    return list(row.stands), list(row.unknown)


def said(document):
    return [
        (f.severity, plain(f.message)) for f in find(run(document), "sea") if "without the riser" in plain(f.message)
    ]


def stack(shut):
    """A small stack, decided, with one kind of ram that shuts the bore."""
    elements = [
        {"element": "annular", "class_psi": 15_000.0},
        {"element": shut, "class_psi": 15_000.0},
        {"element": "pipe rams", "class_psi": 15_000.0, "size_in": 5.0},
    ]
    return [{"id": "b1", "string": "s2", "class_psi": 15_000.0, "elements": elements}]


EMERGENCY, LEAVING = "emergency disconnect", "leaving before a storm"


def test_the_mud_counts_where_its_riser_margin_is_held():
    """In the 13 3/8 in hole 10.89 ppg holds the pore pressure with the sea over it; the 10.2 ppg planned is 0.69 ppg short."""
    assert counted(deep(), 2, LEAVING)[0] == ["blind shear rams", "storm plug"]
    heavy = deep(strings__2__mud_ppg=10.89)
    assert counted(heavy, 2, LEAVING)[0] == ["mud column", "blind shear rams", "storm plug"]
    assert counted(heavy, 2, EMERGENCY)[0] == ["mud column", "blind shear rams"]
    assert "mud column" not in counted(deep(strings__2__mud_ppg=10.88), 2, LEAVING)[0]


@pytest.mark.parametrize(("asked", "severity"), [(1, []), (2, []), (3, ["caution"] * 3), (4, ["caution"] * 3)])
def test_leaving_is_held_against_what_policy_asks(asked, severity):
    found = said(deep(policy__sea={"barriers": asked}))
    assert [s for s, _ in found] == severity
    for _, text in found:
        assert text == f"2 of {asked} barriers would stand without the riser: blind shear rams, storm plug."


def test_a_stack_that_does_not_seal_on_what_it_cuts_leaves_nothing():
    """Blind rams seal the open bore but cut no pipe: in an emergency nothing stands, when a storm is left to pass two do."""
    bare = deep(preventers=stack("blind rams"))
    assert counted(bare, 3, EMERGENCY) == ([], [])
    assert counted(bare, 3, LEAVING)[0] == ["blind rams", "storm plug"]
    assert ("stop", "No barrier would stand without the riser: none.") in said(bare)
    heavy = deep(preventers=stack("blind rams"), strings__2__mud_ppg=10.89)
    assert counted(heavy, 2, EMERGENCY)[0] == ["mud column"]


def test_rams_that_cut_and_do_not_seal_are_no_barrier_and_two_that_seal_are_one():
    cutting = deep(preventers=stack("casing shear rams"))
    assert counted(cutting, 3, EMERGENCY) == ([], [])
    assert counted(cutting, 3, LEAVING)[0] == ["storm plug"]
    both = stack("blind shear rams")
    both[0]["elements"].append({"element": "blind rams", "class_psi": 15_000.0})
    assert counted(deep(preventers=both), 3, LEAVING)[0] == ["blind rams", "storm plug"]


def test_unknown_pore_pressure_leaves_the_column_unknown():
    for asked, severity in ((3, "unknown"), (4, "caution"), (2, None)):
        bare = deep(preventers=stack("blind shear rams"), ground__pore=[], policy__sea={"barriers": asked})
        assert counted(bare, 3, LEAVING) == (["blind shear rams", "storm plug"], ["mud column"])
        leaving = [f for f in find(run(bare), "sea") if f.subject[-1] == f" hole, {LEAVING}"]
        assert {f.severity for f in leaving} == ({severity} if severity else set())
