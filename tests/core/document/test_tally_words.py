"""What a changed tally reads like in the history."""

from knollstack.core.base.units import plain
from knollstack.core.document.compare import differences
from knollstack.core.reading.read import parse
from tests.core.running.wells import cased, measured


def told(before, after):
    found = differences(parse(cased({"joints": before})), parse(cased({"joints": after})))
    return [(d.subject, plain(d.before), plain(d.after)) for d in found]


def test_a_tally_is_told_by_its_joint_or_by_their_count():
    rows = measured(41.0, 41.5, 42.0)
    one, more = [dict(r) for r in rows], [dict(r) for r in rows]
    one[1]["length_ft"] = 40.0
    more[0]["left_out"] = more[2]["left_out"] = True
    assert told(rows, one) == [("9 5/8 in running tally joint 2 measured length", "41.50 ft", "40.00 ft")]
    assert told(rows, more) == [("9 5/8 in running tally", "3 joints", "2 of 3 joints changed")]
    assert told([], rows) == [("9 5/8 in running tally", "made from the length range", "3 joints")]
    assert told(rows, rows[:2]) == [("9 5/8 in running tally", "3 joints", "2 joints")]
