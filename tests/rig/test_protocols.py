"""The feed's protocols read from records made by hand, byte by byte, whole, broken and flooded."""

import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from knollstack.rig.channels import ROWS, clock_s, moment, reading_of, seconds_of
from knollstack.rig.connection import Source
from knollstack.rig.rows import RowDecoder
from knollstack.rig.wits import MOST_LINE, Decoder, encoded, number

RECORD = b"&&\r\n0105270308\r\n0106143010\r\n01087158.40\r\n01107158.40\r\n0114147.68\r\n0126-9999\r\n1810abc\r\n!!\r\n"
ITEMS = {
    "0105": "270308", "0106": "143010", "0108": "7158.40", "0110": "7158.40", "0114": "147.68", "0126": "-9999", "1810": "abc"
}  # fmt: skip
CODES = Source("h", 1).all_codes


def records(*pieces):
    decoder = Decoder()
    return [r for piece in pieces for r in decoder.feed(piece)], decoder.counts


@pytest.mark.parametrize("size", [1, 2, 3, 7, 64, 1000])
def test_a_record_is_the_same_in_pieces_of_any_size(size):
    data = RECORD * 3
    found, counts = records(*(data[i : i + size] for i in range(0, len(data), size)))
    assert found == [ITEMS] * 3
    assert (counts.records, counts.lines, counts.bad_lines, counts.broken) == (3, 27, 0, 0)


@pytest.mark.parametrize("end", [b"\n", b"\r", b"\r\n"])
def test_lines_end_as_they_may(end):
    assert records(RECORD.replace(b"\r\n", end))[0] == [ITEMS]


@pytest.mark.parametrize(
    ("data", "found", "bad", "broken"),
    [
        (b"01081\n!!\n" + RECORD, 1, 2, 0),  # it begins in the middle
        (b"&&\n01081\n" + RECORD, 1, 0, 1),  # broken off by the next
        (b"&&\n01081\ngarbage\n08\n!!\n", 1, 2, 0),
        (b"&&\n!!\n", 1, 0, 0),
        (b"&&\n0108" + b"9" * MOST_LINE + b"\n!!\n", 1, 1, 0),
        (b"\xff\xfe\x00&&\n" + RECORD, 1, 1, 0),
        (b"&&\n" + b"".join(b"%04d1\n" % i for i in range(500)) + b"!!\n", 1, 100, 0),
        (b"", 0, 0, 0),
    ],
)
def test_what_is_none_of_the_protocol_is_counted_and_left_out(data, found, bad, broken):
    made, counts = records(data)
    assert len(made) == found
    assert (counts.bad_lines, counts.broken) == (bad, broken)


def test_a_line_without_an_end_does_not_grow():
    decoder = Decoder()
    for _ in range(200):
        assert list(decoder.feed(b"x" * 10_000)) == []
        assert len(decoder._rest) <= MOST_LINE
    assert list(decoder.feed(b"\n" + RECORD)) == [ITEMS]
    assert decoder.counts.bad_lines == 1


@given(st.lists(st.binary(max_size=80), max_size=20))
def test_any_bytes_leave_it_able_to_read_on(pieces):
    decoder = Decoder()
    for piece in pieces:
        list(decoder.feed(piece))
    assert list(decoder.feed(b"\n!!\n" + RECORD))[-1] == ITEMS


def test_a_flood_is_read_faster_than_it_can_come():
    """60,000 lines, as ten thousand a second would bring them in six; a clock that is slow by six would still keep pace."""
    begun = time.process_time()
    made, counts = records(*[RECORD * 10] * 667)
    assert len(made) == counts.records == 6_670
    assert counts.lines == 60_030
    assert time.process_time() - begun < 6.0


def test_a_record_becomes_a_reading_in_core_units():
    reading = reading_of(ITEMS, CODES, False, 0)
    assert reading.values == {"bit_md_ft": 7158.4, "hole_md_ft": 7158.4, "hook_lbf": pytest.approx(147_680.0)}
    assert moment(reading.at_s) == "2027-03-08 14:30"
    assert reading_of({"0105": "270308"}, CODES, False, 0) is None
    assert reading_of({"0110": "100"}, CODES, False, 77).at_s == 77, "without its clock that of the server counts"
    assert reading_of({"0105": "271308", "0106": "1", "0110": "1"}, CODES, False, 77).at_s == 77, "no such month"
    own = Source("h", 1, codes=(("2101", "pit_bbl"),)).all_codes
    assert reading_of({"2101": "800"}, own, False, 0).values == {"pit_bbl": 800.0}


@pytest.mark.parametrize(
    ("channel", "metric", "core"),
    [
        ("hole_md_ft", 1000.0, 3280.84),
        ("hook_lbf", 100.0, 224_808.9),
        ("pump_psi", 10_000.0, 1450.377),
        ("flow_in_gpm", 2000.0, 528.344),
        ("pit_bbl", 100.0, 628.981),
        ("mud_in_ppg", 1200.0, 10.0145),
        ("cement_in_bpm", 800.0, 5.0318),
        ("cement_bbl", 50.0, 314.491),
    ],
)
def test_metric_feeds(channel, metric, core):
    """Metres, kdaN, kPa, L/min, m³ and kg/m³, by hand."""
    reading = reading_of({ROWS[channel].code: str(metric)}, CODES, True, 0)
    assert reading.values[channel] == pytest.approx(core, rel=1e-5)


@pytest.mark.parametrize(
    ("text", "value"), [("1.5", 1.5), (" -2 ", -2.0), ("-999.25", None), ("nan", None), ("1e12", None), ("", None)]
)
def test_values_that_stand_for_none_are_none(text, value):
    assert number(text) == value


@given(
    st.dictionaries(
        st.from_regex(r"[0-9]{4}", fullmatch=True), st.from_regex(r"-?[0-9]{1,6}\.[0-9]{2}", fullmatch=True)
    )
)
def test_what_is_encoded_comes_back(items):
    assert records(encoded(items))[0] == [items]


def test_the_rigs_clock():
    assert clock_s("270308", "060000") == seconds_of("2027-03-08 06:00")
    assert clock_s("270308", "60000") == seconds_of("2027-03-08 06:00"), "a leading 0 may be missing"
    assert seconds_of("soon") is None


ROWS_OF = b"""time,Hole depth (m),Hook load (klbf),Flow in,Unheard of
2027-03-08 06:00:00,1000,150,600,1
2027-03-08 06:00:10,1001,,610,2

soon,1002,1,1,1
2027-03-08T06:00:20,x,-999.25,,
1804486830,1003,151,620
"""


@pytest.mark.parametrize("size", [1, 5, 1000])
def test_lines_of_csv(size):
    decoder = RowDecoder()
    found = [r for i in range(0, len(ROWS_OF), size) for r in decoder.feed(ROWS_OF[i : i + size])]
    first, second, last = found
    assert first.values == {
        "hole_md_ft": pytest.approx(3280.84, rel=1e-6),
        "hook_lbf": pytest.approx(150_000.0),
        "flow_in_gpm": 600.0,
    }
    assert second.values == {"hole_md_ft": pytest.approx(3284.12, rel=1e-6), "flow_in_gpm": 610.0}
    assert (first.at_s, second.at_s) == (seconds_of("2027-03-08 06:00"), seconds_of("2027-03-08 06:00") + 10)
    assert last.at_s == 1_804_486_830
    assert decoder.counts.bad_lines == 2
    assert decoder.known == ("hole_md_ft", "hook_lbf", "flow_in_gpm")


def test_csv_without_a_header_is_no_reading_and_with_semicolons_is():
    assert list(RowDecoder().feed(b"1,2,3\n4,5,6\n")) == []
    (row,) = RowDecoder(now_s=9).feed(b"Bit depth;SPP\n100;200\n")
    assert (row.at_s, row.values) == (9, {"bit_md_ft": 100.0, "pump_psi": 200.0})
